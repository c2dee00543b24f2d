"""Trial: runs over time, the year, the battery monitor."""
