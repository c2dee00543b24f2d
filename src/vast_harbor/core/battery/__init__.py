"""Batteries: classes, datasheets, and the physics of one bank, a module for each phenomenon."""
