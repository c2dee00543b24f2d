"""Sun, climate and weather at a place."""
