"""Whether the batteries of a bank stay alike: volts at rest and current of each, against the others."""

from collections.abc import Iterable
from dataclasses import dataclass
from math import sqrt

import numpy as np

from vast_harbor.core.log.entry import NOTE, READING, WORK, Entry
from vast_harbor.core.log.readings import DAY_S

# Readings so near in time are one round with the meter [s]; fewer batteries or rounds say nothing.
ROUND_S, LEAST_BATTERIES, LEAST_ROUNDS = 3 * 3600, 2, 3
# Noise of a meter, and what a battery may be off before it is told, for 12 V [V]; how sure (standard errors).
METER_V, OFF_V, SURE = 0.015, 0.06, 2.5
MONTH_D = 30.44
# Current below this tells nothing of how it is shared [A]; strings share within this of one another [-].
LEAST_A, ALIKE = 2.0, 0.10
# How an entry says that a battery was swapped.
SWAPPED = ("replaced", "swapped", "renewed", "exchanged")


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


@dataclass(frozen=True, slots=True)
class OffShare:
    """A battery or string that carries more or less than its share of the current.

    Attributes:
        number: which, from 1.
        share: its current against the middle of the others [-].
        rounds: how often it was measured with others.
    """

    number: int
    share: float
    rounds: int


Round = tuple[int, dict[int, float]]


def swaps(entries: Iterable[Entry]) -> dict[int, int]:
    """Batteries that were swapped, and when the last time [s]: what was read of them before is of another."""
    return {
        e.battery: e.at
        for e in entries
        if e.battery and e.kind in (WORK, NOTE) and any(word in e.text.lower() for word in SWAPPED)
    }


def _rounds(read: Iterable[tuple[int, int, float]]) -> list[Round]:
    """What was read of batteries (when, which, value), where several were read within one round."""
    out: list[Round] = []
    for at, number, value in read:
        if not out or at - out[-1][0] > ROUND_S:
            out.append((at, {}))
        out[-1][1][number] = value
    return [one for one in out if len(one[1]) >= LEAST_BATTERIES]


def rounds(entries: Iterable[Entry]) -> list[Round]:
    """Rounds with the meter: when, and the volts of each battery that was read at rest [V].

    Args:
        entries: of one bank, in order.
    """
    entries = list(entries)
    swapped = swaps(entries)
    return _rounds(
        (e.at, e.battery, e.volts)
        for e in entries
        if e.kind == READING and e.battery and e.volts is not None and (e.amps or 0.0) == 0.0
        and e.at > swapped.get(e.battery, 0)
    )  # fmt: skip


def off_shares(entries: Iterable[Entry]) -> tuple[OffShare, ...]:
    """Batteries or strings that share the current badly, the farthest off first.

    Args:
        entries: of one bank, in order; readings of single batteries, or strings, with their current.
    """
    entries = list(entries)
    swapped = swaps(entries)
    found = _rounds(
        (e.at, e.battery, e.amps)
        for e in entries
        if e.kind == READING and e.battery and e.amps is not None and abs(e.amps) >= LEAST_A
        and e.at > swapped.get(e.battery, 0)
    )  # fmt: skip
    # What flows in is shared by other rules than what flows out; both are shares of their own direction.
    shares: dict[int, list[float]] = {}
    for _, amps in found:
        for number, value in amps.items():
            middle = _middle(number, amps)
            if middle * value > 0:
                shares.setdefault(number, []).append(value / middle)
    out = []
    for number, of_it in shares.items():
        if len(of_it) < LEAST_ROUNDS:
            continue
        likely, error = float(np.mean(of_it)), float(np.std(of_it, ddof=1)) / sqrt(len(of_it))
        if abs(likely - 1) - SURE * error > ALIKE:
            out.append(OffShare(number, likely, len(of_it)))
    # Of two strings each is off by the other: the one that carries less is meant.
    less = [one for one in out if one.share < 1]
    return tuple(sorted(less or out, key=lambda one: -abs(one.share - 1)))


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
    return volts[number] - _middle(number, volts)


def _middle(number: int, values: dict[int, float]) -> float:
    """Middle of what was read of the others."""
    return float(np.median([v for n, v in values.items() if n != number]))


def _line(x: np.ndarray, y: np.ndarray) -> tuple[float, float]:
    """Slope of a line, and its value at 0."""
    if float(np.ptp(x)) < 0.1:
        return 0.0, float(y.mean())
    slope, now = np.polyfit(x, y, 1)
    return float(slope), float(now)
