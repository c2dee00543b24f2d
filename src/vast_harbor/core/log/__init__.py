"""The log of a bank: what was read and done, and what follows from it."""
