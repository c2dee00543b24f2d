"""Which day follows which, and what each step of a day asks of a bank and offers it."""
