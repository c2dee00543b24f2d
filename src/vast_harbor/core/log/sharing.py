"""Whether the batteries of a bank stay alike: volts at rest of each, against those of the others."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import sqrt

import numpy as np

from vast_harbor.core.log.entry import READING, Entry
from vast_harbor.core.log.readings import DAY_S

# Readings so near in time are one round with the meter [s]; fewer batteries or rounds say nothing.
ROUND_S, LEAST_BATTERIES, LEAST_ROUNDS = 3 * 3600, 2, 3
# Noise of a meter, and what a battery may be off before it is told, for 12 V [V]; how sure (standard errors).
METER_V, OFF_V, SURE = 0.015, 0.06, 2.5
MONTH_D = 30.44


@dataclass(frozen=True, slots=True)
class OffBattery:
    """A battery that is not like the others.

    Attributes:
        number: which, from 1.
        off_v: how far it is off the middle of the others now [V]; below 0 it falls behind.
        a_month_v: how fast that changes [V/month].
        rounds: how often it was measured with others.
        first, last: when, seconds since 1970 UTC [s].
    """

    number: int
    off_v: float
    a_month_v: float
    rounds: int
    first: int
    last: int


def rounds(entries: Iterable[Entry]) -> list[tuple[int, dict[int, float]]]:
    """Rounds with the meter: when, and the volts of each battery that was read [V].

    Args:
        entries: of one bank, in order.
    """
    out: list[tuple[int, dict[int, float]]] = []
    for e in entries:
        if e.kind != READING or not e.battery or e.volts is None or (e.amps or 0.0) != 0.0:
            continue
        if not out or e.at - out[-1][0] > ROUND_S:
            out.append((e.at, {}))
        out[-1][1][e.battery] = e.volts
    return [one for one in out if len(one[1]) >= LEAST_BATTERIES]


def off_batteries(entries: Iterable[Entry], unit_v: float) -> tuple[OffBattery, ...]:
    """Batteries that fall behind the others, or run ahead of them, the farthest off first.

    A battery is told where a line through its rounds is off by more than meters differ, and stays so: one
    round, or a meter that reads all of them low, tells nothing.

    Args:
        entries: of one bank, in order.
        unit_v: of one battery [V].
    """
    found = rounds(entries)
    # Meters show hundredths: of a small cell less than two of them is nothing.
    limit, noise = max(0.02, OFF_V * unit_v / 12), max(0.008, METER_V * unit_v / 12)
    out = []
    for number in sorted({n for _, volts in found for n in volts}):
        of_it = [(at, volts) for at, volts in found if number in volts]
        if len(of_it) < LEAST_ROUNDS:
            continue
        at = np.array([a for a, _ in of_it], float)
        off = np.array([_off(number, volts) for _, volts in of_it])
        months = (at - at[-1]) / DAY_S / MONTH_D
        slope, now = _line(months, off)
        spread = max(noise, float(np.std(off - (now + slope * months))))
        across = max(1e-9, float(((months - months.mean()) ** 2).sum()))
        error = spread * sqrt(1 / len(off) + float(months.mean()) ** 2 / across)
        if abs(now) > limit and abs(now) - SURE * error > limit / 2:
            out.append(OffBattery(number, now, slope, len(off), int(at[0]), int(at[-1])))
    # With two batteries each is off by as much as the other: the lower one is meant.
    behind = [one for one in out if one.off_v < 0]
    return tuple(sorted(behind or out, key=lambda one: -abs(one.off_v)))


def _off(number: int, volts: dict[int, float]) -> float:
    """How far a battery is off the middle of the others [V]."""
    return volts[number] - float(np.median([v for n, v in volts.items() if n != number]))


def _line(x: np.ndarray, y: np.ndarray) -> tuple[float, float]:
    """Slope of a line, and its value at 0."""
    if float(np.ptp(x)) < 0.1:
        return 0.0, float(y.mean())
    slope, now = np.polyfit(x, y, 1)
    return float(slope), float(now)
