"""The kinetic battery model: why a hard draw empties a battery early, and a rest brings some of it back.

Charge lies in two wells. From the *available* one it can be drawn at once; from the *bound* one it flows
over at a limited rate. The model is fitted to the capacities on a battery's label.

Source: J. F. Manwell and J. G. McGowan, Solar Energy 50 (1993) 399–405.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import expm1
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.peukert import capacity_over_time, exponent_from_two_ratings

Rating = tuple[float, float]
# Hours at which a label of one or two capacities is filled up by Peukert's law before the fit.
FILLED_HOURS = (1.0, 3.0, 5.0, 10.0, 20.0)


@dataclass(frozen=True, slots=True)
class Wells:
    """Parameters of the model for one string.

    Attributes:
        capacity: q_max, charge in both wells when full [Ah].
        ratio: c, share of the available well [-], 0 to 1.
        rate: k′, how fast charge flows between the wells [1/h].
    """

    capacity: float
    ratio: float
    rate: float

    def full(self) -> tuple[float, float]:
        """Charge in the available and in the bound well when full [Ah]."""
        return self.ratio * self.capacity, (1 - self.ratio) * self.capacity

    def level(self, available: float) -> float:
        """s₁ = q₁/(c·q_max): level of the available well [-]."""
        return available / (self.ratio * self.capacity)


def available_after(available: Any, total: Any, ratio: float, rate: float, amps: Any, hours: Any) -> Any:
    """Charge of the available well after a constant current has flowed for a while [Ah].

    q₁' = q₁·e^(−k′Δt) + (q₀·k′·c − I)·(1 − e^(−k′Δt))/k′ − I·c·(k′Δt − 1 + e^(−k′Δt))/k′. Plain arithmetic,
    so that the compiled simulation uses it too.

    Args:
        available, total: q₁ and q₀, charge in both wells, before [Ah].
        ratio, rate: c [-] and k′ [1/h].
        amps: current out of the string [A]; negative while it is charged.
        hours: Δt [h].

    Returns:
        q₁′ [Ah]. Charges, current and time may be arrays whose shapes broadcast.
    """
    x = rate * hours
    gone = -np.expm1(-x)
    return (
        available * (1 - gone)
        + (total * rate * ratio - amps) * gone / rate
        - amps * ratio * (x - gone) / rate
    )


def step(wells: Wells, available: float, bound: float, amps: float, hours: float) -> tuple[float, float]:
    """Charge in the wells after a constant current has flowed for a while, whatever the wells hold.

    q₁' = q₁·e^(−k′Δt) + (q₀·k′·c − I)·(1 − e^(−k′Δt))/k′ − I·c·(k′Δt − 1 + e^(−k′Δt))/k′, and q₂' likewise.

    Args:
        wells: the model.
        available, bound: q₁ and q₂ before [Ah].
        amps: current out of the string [A]; negative while it is charged.
        hours: Δt [h].

    Returns:
        q₁ and q₂ after [Ah]; their sum has changed by exactly −I·Δt.
    """
    total = available + bound
    q_1 = available_after(available, total, wells.ratio, wells.rate, amps, hours)
    return q_1, total - amps * hours - q_1


@dataclass(frozen=True, slots=True)
class Stepped:
    """What a step of use came to.

    Attributes:
        available, bound: charge in the wells after it [Ah].
        hours: how much of the step was served, or taken in [h].
        met: ``empty``, ``full``, or nothing: what ended it early.
    """

    available: float
    bound: float
    hours: float
    met: str


def advance(
    wells: Wells, available: float, bound: float, amps: float, hours: float, empty_ah: float = 0.0
) -> Stepped:
    """A step that ends where the string is empty or full.

    While it is charged, what the available well cannot hold goes to the bound one at once.

    Args:
        wells: the model.
        available, bound: q₁ and q₂ before [Ah].
        amps: current out of the string [A]; negative for charge that is stored, losses taken off.
        hours: length of the step [h].
        empty_ah: charge of the available well at which it is empty, more in the cold [Ah].

    Returns:
        The wells after it, and how long it lasted.
    """
    if amps < 0:
        room = wells.capacity - available - bound
        lasts = min(hours, max(0.0, room) / -amps)
        q_1, q_2 = step(wells, available, bound, amps, lasts)
        over = max(0.0, q_1 - wells.ratio * wells.capacity)
        return Stepped(q_1 - over, q_2 + over, lasts, "full" if lasts < hours else "")
    after = step(wells, available, bound, amps, hours)
    if after[0] >= empty_ah or amps == 0:
        return Stepped(*after, hours, "")
    low, high = 0.0, hours
    for _ in range(60):
        middle = (low + high) / 2
        if step(wells, available, bound, amps, middle)[0] >= empty_ah:
            low = middle
        else:
            high = middle
    return Stepped(*step(wells, available, bound, amps, low), low, "empty")


def capacity(wells: Wells, hours: float) -> float:
    """C(T): charge that one steady current takes from full until the available well is empty.

    C(T) = q_max·k′·c·T / (1 − e^(−k′T) + c·(k′T − 1 + e^(−k′T)))

    Args:
        wells: the model.
        hours: time T in which it is emptied [h], above 0.

    Returns:
        Capacity [Ah].
    """
    x = wells.rate * hours
    gone = -expm1(-x)
    return float(wells.capacity * wells.ratio * x / (gone + wells.ratio * (x - gone)))


def _shape(ratio: NDArray[np.float64], rate: NDArray[np.float64], hours: float) -> NDArray[np.float64]:
    """C(T)/q_max over arrays of parameters."""
    x = rate * hours
    gone = -np.expm1(-x)
    out: NDArray[np.float64] = ratio * x / (gone + ratio * (x - gone))
    return out


# k′ of lead-acid where a label has two capacities only [1/h]: least squares over five capacities each of
# typical discharge tables give 0.8 to 0.9 for flooded and about 0.9 for valve-regulated cells.
FLOODED_RATE, SEALED_RATE = 0.8, 0.9


def wells_rate(battery_class: BatteryClass) -> float | None:
    """k′ to take where a label has two capacities [1/h]; None for lithium, which hardly bends."""
    if not battery_class.is_lead_acid:
        return None
    return FLOODED_RATE if battery_class.water else SEALED_RATE


def _through_both(one: Rating, other: Rating, rate: float) -> Wells:
    """The model at a given k′ that gives two capacities exactly, where any does, else the nearest."""
    wanted = other[0] / one[0]
    longer = other[1] > one[1]

    def share(ratio: float) -> float:
        unit = Wells(1.0, ratio, rate)
        return capacity(unit, other[1]) / capacity(unit, one[1])

    low, high = 0.005, 0.9999
    for _ in range(60):
        middle = (low + high) / 2
        # The larger c, the less a hard discharge leaves behind.
        if (share(middle) < wanted) != longer:
            low = middle
        else:
            high = middle
    return Wells(one[0] / capacity(Wells(1.0, low, rate), one[1]), low, rate)


@lru_cache(maxsize=512)
def fit_wells(
    ratings: tuple[Rating, ...], class_exponent: float, two_ratings_rate: float | None = None
) -> Wells:
    """The model that comes nearest to a label.

    Three or more capacities are fitted as they are; of two, c and q_max follow at the k′ of the class; one is
    filled up by the Peukert exponent of the class at 1, 3, 5, 10 and 20 h, as two are without such a k′.
    q_max is always such that the nameplate comes out exactly.

    Args:
        ratings: (Ah, hours) pairs, the nameplate first.
        class_exponent: Peukert exponent of the class, for a label of one capacity [-].
        two_ratings_rate: k′ for a label of two capacities [1/h]; None to fill it up by Peukert.

    Returns:
        The wells of one string: the least sum of squared relative errors.
    """
    rated_ah, rated_hours = ratings[0]
    if len(ratings) == 2 and two_ratings_rate is not None:
        return _through_both(ratings[0], ratings[1], two_ratings_rate)
    points: Sequence[Rating] = ratings
    if len(ratings) < 3:
        exponent = class_exponent
        if len(ratings) == 2:
            exponent = exponent_from_two_ratings(*ratings[0], *ratings[1])
        exponent = max(1.0, exponent)
        points = [(capacity_over_time(rated_ah, rated_hours, exponent, t), t) for t in FILLED_HOURS]
    ratio, rate = np.meshgrid(np.linspace(0.05, 0.995, 64), np.geomspace(0.02, 60, 96), indexing="ij")
    best = (0.5, 1.0)
    for _ in range(5):
        nameplate = _shape(ratio, rate, rated_hours)
        error = np.zeros_like(ratio)
        for ah, hours in points:
            error += (_shape(ratio, rate, hours) / nameplate * rated_ah / ah - 1) ** 2
        i, j = np.unravel_index(int(np.argmin(error)), error.shape)
        best = (float(ratio[i, j]), float(rate[i, j]))
        near = 0.5 * (float(ratio[1, 0] - ratio[0, 0]) * 3)
        wide = float(rate[0, 1] / rate[0, 0]) ** 1.5
        ratio, rate = np.meshgrid(
            np.clip(np.linspace(best[0] - near, best[0] + near, 24), 0.01, 0.9999),
            np.geomspace(best[1] / wide, best[1] * wide, 24),
            indexing="ij",
        )
    c, k = best
    unit = Wells(1.0, c, k)
    return Wells(rated_ah / capacity(unit, rated_hours), c, k)
