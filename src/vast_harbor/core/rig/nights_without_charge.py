"""How many nights a bank carries with no charging."""


def nights_without_charge(usable_wh: float, bank_wh_per_day: float) -> float | None:
    """Nights a bank carries the day with no charging [nights]; None when nothing is drawn.

    Args:
        usable_wh: usable energy [Wh].
        bank_wh_per_day: what a day takes [Wh/day].
    """
    return usable_wh / bank_wh_per_day if bank_wh_per_day > 0 else None
