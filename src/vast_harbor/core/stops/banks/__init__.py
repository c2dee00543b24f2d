"""Banks: real batteries in series and parallel, their checks, and the search of the catalogue."""
