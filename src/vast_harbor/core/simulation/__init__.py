"""Banks run through days of use and weather, all side by side, in steps of a quarter of an hour."""
