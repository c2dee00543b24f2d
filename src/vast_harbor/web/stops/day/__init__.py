"""Day: figures of a day, loads as CSV."""
