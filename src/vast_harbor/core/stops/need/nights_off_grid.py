"""The nights that the bank must last, as entered, by the stay, or as a share of a day."""

import numpy as np

from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.day import Day, charge_window
from vast_harbor.phrases import phrase


def overnight_of(plan: Plan, at: str, day: Day) -> Figure:
    """Energy from the last charge of a day to the next."""
    window = charge_window(plan, day)
    if window is None:
        return computed(
            f"{at}.overnight", phrase("need.energy_need.overnight"), day.bank_wh.number, "Wh",
            "{E_bank}", {"E_bank": day.bank_wh}, phrase("need.energy_need.overnight_source"),
        )  # fmt: skip
    start, end = window
    hours = (start.number - end.number) % 24
    wh = float(day.profile.energy_from(end.number, np.array([hours]))[0])
    return computed(
        f"{at}.overnight", phrase("need.energy_need.overnight"), wh, "Wh", "",
        {"t_last": end, "t_first": start, "E_bank": day.bank_wh},
        phrase("need.energy_need.overnight_energy_used_from_last_source"),
    )  # fmt: skip


def nights_of(plan: Plan, at: str, assumptions: Assumptions, day: Day, overnight: Figure) -> Figure:
    """Nights that the bank must last without a charge."""
    if not plan.overnight:
        return stay_nights(plan, assumptions)
    has = day.bank_wh.number > 0
    return computed(
        f"{at}.nights_overnight", phrase("need.energy_need.nights_overnight"),
        overnight.number / day.bank_wh.number if has else 1.0, "nights",
        "{E_overnight} / {E_bank}" if has else "1", {"E_overnight": overnight, "E_bank": day.bank_wh},
        phrase("need.energy_need.nights_overnight_source"),
    )  # fmt: skip


def stay_nights(plan: Plan, assumptions: Assumptions) -> Figure:
    """Nights between charges: the rule's, no more than a stay lasts where the owner says how long that is."""
    rule, row = assumptions.figure("nights"), plan.nights_in_a_row
    if row is None or row >= rule.number or assumptions.overridden("nights"):
        return rule
    stay = typed(
        "rig.nights_in_a_row", phrase("need.energy_need.nights_in_a_row"), row, "nights",
        "/rig/nights_in_a_row",
    )  # fmt: skip
    return computed(
        "need.nights", rule.name, max(1.0, row), "nights", "max(1, min({N}, {n_row}))",
        {"N": rule, "n_row": stay}, phrase("need.energy_need.nights_in_a_row_source"),
    )  # fmt: skip
