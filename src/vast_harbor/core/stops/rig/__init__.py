"""Rig: the bank that is there now, and the rig at other system voltages."""
