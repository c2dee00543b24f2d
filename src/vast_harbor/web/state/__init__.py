"""The evaluated rig, and everything that is remembered about it."""
