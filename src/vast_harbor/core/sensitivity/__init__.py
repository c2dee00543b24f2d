"""What would change the verdict: break-even, tornado, maps, timing and sizes of the purchase."""
