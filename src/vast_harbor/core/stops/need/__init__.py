"""Need: usable energy between charges, and the rated capacity that gives it."""
