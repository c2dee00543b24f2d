"""How the usable energy runs down over the hours of a day's loads, with no charging."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.rig.profile import Profile

STEP_H = 0.5
LONGEST_H = 14 * 24.0


@dataclass(frozen=True, slots=True)
class Rundown:
    """Remaining usable energy of several banks on one time axis.

    Attributes:
        start_h: clock time at which the banks are full [h].
        hours: times since then [h], shape (n,).
        remaining_wh: usable energy left [Wh], shape (banks, n), not below 0.
    """

    start_h: float
    hours: NDArray[np.float64]
    remaining_wh: NDArray[np.float64]


def nights_without_charge(usable_wh: float, bank_wh_per_day: float) -> float | None:
    """Nights a bank carries the day with no charging [nights]; None when nothing is drawn.

    Args:
        usable_wh: usable energy [Wh].
        bank_wh_per_day: what a day takes [Wh/day].
    """
    return usable_wh / bank_wh_per_day if bank_wh_per_day > 0 else None


def run_down(profile: Profile, start_h: float, usable_wh: list[float]) -> Rundown:
    """Run several banks down over the repeated day.

    Args:
        profile: power drawn over a day.
        start_h: clock time at which they are full [h].
        usable_wh: usable energy of each bank [Wh].

    Returns:
        The run-down in half-hour steps, until the last is empty or two weeks have passed.
    """
    daily = profile.energy_wh
    longest = max(usable_wh, default=0.0) / daily * 24 if daily > 0 else 24.0
    end = min(LONGEST_H, max(24.0, np.ceil(longest / 12) * 12))
    hours = np.arange(0.0, end + STEP_H / 2, STEP_H)
    used = profile.energy_from(start_h, hours)
    left = np.maximum(np.array(usable_wh)[:, None] - used[None, :], 0.0)
    return Rundown(start_h, hours, left)
