"""A rig with all its stops: read, edited, undone; the workings of its figures."""
