"""Rig: its models and views."""
