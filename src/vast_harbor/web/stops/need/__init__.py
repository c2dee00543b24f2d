"""Need: its models and views."""
