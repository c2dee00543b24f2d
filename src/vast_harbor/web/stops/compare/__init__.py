"""Compare: the comparison, the verdict and the report."""
