"""Charging: whether the sources suit each bank, how fast they charge it, and how much is needed."""
