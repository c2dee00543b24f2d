"""The booklet of the changeover, and the work order for a workshop."""
