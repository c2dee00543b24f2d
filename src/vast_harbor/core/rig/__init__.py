"""The rig as its owner describes it: plan, assumptions, loads and sources."""
