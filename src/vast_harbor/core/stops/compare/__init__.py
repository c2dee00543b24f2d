"""The answer: who is cheapest, how sure that is, what would change it, and the verdict."""
