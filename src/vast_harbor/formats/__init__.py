"""Open formats in and out: the rig file, its JSON Schema, and the printed comparison."""
