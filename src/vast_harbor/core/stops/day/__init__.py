"""Day: the energy audit of each kind of day."""
