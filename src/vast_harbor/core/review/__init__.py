"""What the log says of the plan: season review, wear, money so far and warranty."""
