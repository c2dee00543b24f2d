"""Money: cash flow, life and cost of a bank in plain numbers, drawn futures."""
