"""Trial: every bank through the same days of use and weather, and what goes wrong when."""
