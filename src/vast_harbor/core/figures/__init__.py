"""Numbers as they are typed, computed and shown: workings, units, parsing, display, tables."""
