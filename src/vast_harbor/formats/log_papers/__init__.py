"""Pages of the log to print: the season review, and the evidence for a claim under warranty."""
