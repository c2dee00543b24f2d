"""Who lifts a heavy piece: one rule for checks, steps and papers."""

# From these weights on two people lift, and a hoist [kg]: common practice at work (25 kg by hand for one).
TWO_KG, HOIST_KG = 25.0, 40.0


def lifters(kg: float) -> int:
    """How many people lift one piece of so many kg: 1, 2, or 3 for a hoist."""
    return 1 + (kg > TWO_KG) + (kg > HOIST_KG)
