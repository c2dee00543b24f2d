"""Charging: what puts the charge back, how fast, and whether what is there will do."""
