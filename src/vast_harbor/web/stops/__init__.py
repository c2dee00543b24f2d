"""One package for each stop: its routes, and what its screen is given."""
