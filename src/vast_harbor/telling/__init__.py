"""How a figure, a sentence, an amount or a date is told: the same on every screen, paper and export."""
