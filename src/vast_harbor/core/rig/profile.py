"""When the loads of a day run, and the current that follows from it.

The profile is kept exactly, as a step function: no grid, so that its area is the table's energy.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.figures.clock import DAY_H, Block

# Uses of a few minutes are spread evenly over the waking day.
WAKING = (7.0, 22.0)
# Where a block is centred that has no time given: short ones in the evening, long ones past noon.
EVENING_CENTRE_H, LONG_CENTRE_H, SHORT_UP_TO_H = 19.5, 13.5, 8.0


def spread_hours(hours: float, starts_at: float | None) -> tuple[Block, ...]:
    """When a load that runs ``hours`` a day in one go is on.

    Args:
        hours: time on a day [h], 0 to 24.
        starts_at: clock time at which it starts [h]; None for a sensible spread.

    Returns:
        (start, end) blocks within 0..24; one that runs past midnight is split there.
    """
    if hours <= 0:
        return ()
    if hours >= DAY_H:
        return ((0.0, DAY_H),)
    if starts_at is None:
        centre = EVENING_CENTRE_H if hours <= SHORT_UP_TO_H else LONG_CENTRE_H
        starts_at = (centre - hours / 2) % DAY_H
    end = starts_at + hours
    if end <= DAY_H:
        return ((starts_at, end),)
    return ((0.0, end - DAY_H), (starts_at, DAY_H))


def spread_uses(uses: float, minutes: float, starts_at: float | None) -> tuple[Block, ...]:
    """When a load that is used a few times a day for some minutes is on.

    Args:
        uses: uses a day; a fraction is a shorter last use.
        minutes: length of one use [min].
        starts_at: clock time of the first use [h]; None spreads them over the waking day.

    Returns:
        (start, end) blocks within 0..24.
    """
    total = uses * minutes / 60
    count = max(1, int(np.ceil(uses - 1e-9)))
    first, last = (WAKING[0] if starts_at is None else starts_at), WAKING[1]
    if total <= 0:
        return ()
    # Too many to lie apart in the time that is left: one after the other.
    if first + total > last or count > 200:
        return spread_hours(min(total, DAY_H), starts_at)
    gap = (last - first) / count
    length = total / count
    lead = 0.0 if starts_at is not None else (gap - length) / 2
    return tuple((first + i * gap + lead, first + i * gap + lead + length) for i in range(count))


@dataclass(frozen=True, slots=True)
class Profile:
    """Power drawn from the bank over one day, as steps.

    Attributes:
        edges_h: n+1 ascending times from 0 to 24 [h].
        watts: n powers between them [W].
    """

    edges_h: NDArray[np.float64]
    watts: NDArray[np.float64]

    @property
    def energy_wh(self) -> float:
        """Area: energy of the day [Wh]."""
        return float(np.sum(self.watts * np.diff(self.edges_h)))

    @property
    def power_squared_hours(self) -> float:
        """Σ(P²·t) [W²h]."""
        return float(np.sum(self.watts**2 * np.diff(self.edges_h)))

    def energy_so_far(self) -> NDArray[np.float64]:
        """Energy drawn since midnight at each edge [Wh], shape (n+1,)."""
        return np.concatenate(([0.0], np.cumsum(self.watts * np.diff(self.edges_h))))

    def energy_from(self, start_h: float, elapsed_h: NDArray[np.float64]) -> NDArray[np.float64]:
        """Energy drawn since ``start_h`` of the first day, days repeating.

        Args:
            start_h: clock time of the start [h].
            elapsed_h: hours since the start [h], any shape.

        Returns:
            Energy [Wh] of the shape of ``elapsed_h``.
        """
        cumulative = self.energy_so_far()
        total = cumulative[-1]

        def until(clock: NDArray[np.float64]) -> NDArray[np.float64]:
            days, rest = np.divmod(clock, DAY_H)
            return np.asarray(days * total + np.interp(rest, self.edges_h, cumulative), dtype=np.float64)

        return until(start_h + elapsed_h) - until(np.asarray(start_h))


Part = tuple[tuple[Block, ...], float]


def stack(parts: list[Part]) -> Profile:
    """The sum of loads that each draw a steady power in their blocks.

    Args:
        parts: (blocks, watts) of each load.

    Returns:
        Profile of the day.
    """
    times = [t for blocks, _ in parts for block in blocks for t in block]
    edges_h = np.unique(np.array([0.0, DAY_H, *times]))
    return Profile(edges_h, on_edges(edges_h, parts))


def on_edges(edges_h: NDArray[np.float64], parts: list[Part]) -> NDArray[np.float64]:
    """Power of some loads between edges that hold all of their starts and ends.

    Args:
        edges_h: n+1 ascending times [h].
        parts: (blocks, watts) of each load.

    Returns:
        n powers [W].
    """
    steps = np.zeros(len(edges_h))
    flat = [(start, end, watts) for blocks, watts in parts for start, end in blocks]
    if flat:
        starts, ends, powers = np.array(flat).T
        np.add.at(steps, np.searchsorted(edges_h, starts), powers)
        np.subtract.at(steps, np.searchsorted(edges_h, ends), powers)
    return np.maximum(np.cumsum(steps)[:-1], 0.0)


def mean_current(power_squared_hours: float, energy_wh: float, nominal_v: float) -> float:
    """I_mean = Σ(P²·t) / (Σ(P·t) · V): the energy-weighted mean current.

    Args:
        power_squared_hours: Σ(P²·t) of the day [W²h].
        energy_wh: Σ(P·t) of the day [Wh].
        nominal_v: nominal volts of the bank [V].

    Returns:
        Current [A]; 0 when nothing is drawn.
    """
    return power_squared_hours / (energy_wh * nominal_v) if energy_wh > 0 else 0.0
