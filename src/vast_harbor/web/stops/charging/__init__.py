"""Charging: sources and whether they suit."""
