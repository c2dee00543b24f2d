"""Banks: candidates, the search, locker, wiring, volts, batteries."""
