"""What a battery monitor logged: put in order, what cannot be left out, and summed by the hour."""

from dataclasses import dataclass, fields, replace

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Floats, Ints

HOUR_S, DAY_S = 3600, 86_400
# Two readings further apart than this say nothing of what was between them [s]; nor such as are further
# apart than so many usual distances.
LONGEST_S, USUAL_TIMES = 3 * HOUR_S, 6
SHORTEST_GAP_S = 600
# The highest volts that any bank of a system shows, for each volt of its name [V/V].
HIGHEST = 1.5
# Possible values by quantity: A, -, °C.
POSSIBLE = {"amps": (-5000.0, 5000.0), "soc": (0.0, 1.05), "celsius": (-60.0, 150.0)}

TOO_EARLY, TOO_LATE, NOTHING, DIFFERS = "early", "late", "nothing", "differs"


@dataclass(frozen=True, slots=True)
class Readings:
    """Readings of one bank.

    Attributes:
        at: seconds since 1970 UTC [s], shape (n,).
        offset_min: how far the owner's clock was ahead of UTC [min], shape (n,).
        volts, amps: at the terminals; amps above 0 flow into the bank [V], [A], shape (n,); nan where not
            read.
        soc, celsius: state of charge [-], battery temperature [°C], shape (n,); nan where not read.
    """

    at: Ints
    offset_min: Ints
    volts: Floats
    amps: Floats
    soc: Floats
    celsius: Floats

    def __len__(self) -> int:
        return len(self.at)

    def some(self, which: NDArray[np.bool_] | NDArray[np.intp] | slice) -> "Readings":
        """Some of them: a mask, places or a slice."""
        return Readings(*(getattr(self, f.name)[which] for f in fields(Readings)))

    @property
    def local(self) -> Ints:
        """Seconds since 1970 by the owner's clock [s], shape (n,)."""
        return self.at + 60 * self.offset_min


QUANTITIES = ("volts", "amps", "soc", "celsius")


@dataclass(frozen=True, slots=True)
class LeftOut:
    """Readings that are not taken.

    Attributes:
        why: ``early``, ``late``, ``nothing``, ``differs``, or the quantity that cannot be.
        count: how many.
        first: place of the first of them, from 0 in the order in which they came.
        value: its value, or its time [s]; nan where there is none.
    """

    why: str
    count: int
    first: int
    value: float


@dataclass(frozen=True, slots=True)
class Tidied:
    """Readings in order, and what was found on the way.

    Attributes:
        readings: by time, each instant once.
        left_out: readings, or single values, that are not taken.
        twice: readings that came more than once with the same values.
        gaps: (last before, first after) where nothing was logged [s].
        jumps: (time, by how much) where the clock was put back [s].
        turned: whether the newest came first.
        usual_s: usual distance of two readings [s]; 0 for fewer than two.
    """

    readings: Readings
    left_out: tuple[LeftOut, ...]
    twice: int
    gaps: tuple[tuple[int, int], ...]
    jumps: tuple[tuple[int, int], ...]
    turned: bool
    usual_s: int


def longest_s(at: Ints) -> float:
    """How far apart two readings may be so that what was between them is known [s].

    Args:
        at: times in order [s], shape (n,).
    """
    if len(at) < 2:
        return float(LONGEST_S)
    usual = float(np.median(np.diff(at)))
    return float(min(LONGEST_S, max(SHORTEST_GAP_S, USUAL_TIMES * usual)))


def tidied(raw: Readings, system_v: float, earliest: int, latest: int) -> Tidied:
    """Readings in order, each instant once, without what cannot be.

    Of two readings at one instant that differ, the first is taken.

    Args:
        raw: as they came.
        system_v: of the bank [V].
        earliest, latest: between which times they may be [s].

    Returns:
        What is taken, and what was found.
    """
    left_out: list[LeftOut] = []
    places = np.arange(len(raw))
    possible = {"volts": (0.0, HIGHEST * system_v), **POSSIBLE}
    kept = {}
    for name in QUANTITIES:
        values = getattr(raw, name)
        low, high = possible[name]
        bad = ~np.isnan(values) & ((values < low) | (values > high))
        if bad.any():
            first = int(np.flatnonzero(bad)[0])
            left_out.append(LeftOut(name, int(bad.sum()), first, float(values[first])))
            values = np.where(bad, np.nan, values)
        kept[name] = values
    readings = replace(raw, **kept)
    keep = np.ones(len(raw), bool)
    for why, wrong in ((TOO_EARLY, raw.at < earliest), (TOO_LATE, raw.at > latest)):
        if wrong.any():
            first = int(np.flatnonzero(wrong)[0])
            left_out.append(LeftOut(why, int(wrong.sum()), first, float(raw.at[first])))
            keep &= ~wrong
    empty = keep & np.all([np.isnan(getattr(raw, name)) for name in QUANTITIES], axis=0)
    if empty.any():
        left_out.append(LeftOut(NOTHING, int(empty.sum()), int(np.flatnonzero(empty)[0]), float("nan")))
    # Where all values of a reading cannot be, that is told already.
    keep &= ~np.all([np.isnan(kept[name]) for name in QUANTITIES], axis=0)
    readings, places = readings.some(keep), places[keep]
    steps = np.diff(readings.at)
    turned = bool(len(steps)) and int((steps < 0).sum()) > int((steps > 0).sum())
    if turned:
        readings, places = readings.some(slice(None, None, -1)), places[::-1]
        steps = np.diff(readings.at)
    back = np.flatnonzero(steps < 0)
    jumps = tuple((int(readings.at[i]), int(steps[i])) for i in back)
    order = np.argsort(readings.at, kind="stable")
    readings, places = readings.some(order), places[order]
    again = np.zeros(len(readings), bool)
    again[1:] = np.diff(readings.at) == 0
    # Each one that came again is compared with the first of its instant.
    first_of = np.maximum.accumulate(np.where(again, 0, np.arange(len(again))))
    same = np.ones(len(again), bool)
    for name in QUANTITIES:
        values = getattr(readings, name)
        same &= (values == values[first_of]) | np.isnan(values)
    differs = again & ~same
    if differs.any():
        at = int(np.flatnonzero(differs)[0])
        left_out.append(LeftOut(DIFFERS, int(differs.sum()), int(places[at]), float(readings.at[at])))
    taken = readings.some(~again)
    apart = np.diff(taken.at)
    limit = longest_s(taken.at)
    return Tidied(
        taken,
        tuple(left_out),
        int((again & same).sum()),
        tuple((int(taken.at[i]), int(taken.at[i + 1])) for i in np.flatnonzero(apart > limit)),
        jumps,
        turned,
        int(np.median(apart)) if len(apart) else 0,
    )


@dataclass(frozen=True, slots=True)
class Hours:
    """Readings summed by the hour of the owner's clock; hours without a reading are not there.

    Attributes:
        hour: hours since 1970 by the owner's clock [h], shape (n,).
        covered_s: how much of it is known [s], shape (n,).
        ah_in, ah_out: charge into and out of the bank [Ah], shape (n,).
        wh_in, wh_out: energy [Wh], shape (n,).
        low, high: lowest and highest value by quantity, shape (n,); nan where not read.
    """

    hour: Ints
    covered_s: Floats
    ah_in: Floats
    ah_out: Floats
    wh_in: Floats
    wh_out: Floats
    low: dict[str, Floats]
    high: dict[str, Floats]

    def some(self, which: NDArray[np.bool_]) -> "Hours":
        """Some of them: a mask."""
        low, high = ({n: values[which] for n, values in part.items()} for part in (self.low, self.high))
        return Hours(
            self.hour[which], self.covered_s[which], self.ah_in[which], self.ah_out[which],
            self.wh_in[which], self.wh_out[which], low, high,
        )  # fmt: skip


def by_hour(readings: Readings) -> Hours:
    """Sums by the hour.

    Between two readings the current runs straight from one to the other; where they are further apart than
    :func:`longest_s`, or one of them has none, nothing is known and nothing is added.

    Args:
        readings: in order.

    Returns:
        The hours in which there are readings, in order.
    """
    local = readings.local
    hour, begin = np.unique(local // HOUR_S, return_index=True)
    if not len(hour):
        none = np.zeros(0)
        return Hours(np.zeros(0, np.int64), none, none, none, none, none, {}, {})
    order = np.argsort(local, kind="stable")
    if np.any(np.diff(order) < 0):
        # The hour that comes twice when summer time ends: both belong to it.
        readings, local = readings.some(order), local[order]
        hour, begin = np.unique(local // HOUR_S, return_index=True)
    step = np.diff(readings.at).astype(float)
    amps = readings.amps
    known = (step > 0) & (step <= longest_s(np.sort(readings.at))) & ~np.isnan(amps[:-1] + amps[1:])
    span = np.where(known, step, 0.0)
    volts = np.where(np.isnan(readings.volts), 0.0, readings.volts)
    sums = [span]
    for sign in (1.0, -1.0):
        flow = np.nan_to_num(np.maximum(sign * amps, 0.0))
        sums.append((flow[:-1] + flow[1:]) / 2 * span / HOUR_S)
    for sign in (1.0, -1.0):
        flow = np.nan_to_num(np.maximum(sign * amps, 0.0)) * volts
        sums.append((flow[:-1] + flow[1:]) / 2 * span / HOUR_S)
    # What is between two readings is shared out between the hours in which they are.
    edges = np.concatenate((hour * HOUR_S, (hour + 1) * HOUR_S)).astype(float)
    shared = []
    for part in sums:
        running = np.concatenate(([0.0], np.cumsum(part)))
        at_edges = np.interp(edges, local.astype(float), running)
        shared.append(at_edges[len(hour) :] - at_edges[: len(hour)])
    low, high = {}, {}
    for name in QUANTITIES:
        values = getattr(readings, name)
        low[name] = np.fmin.reduceat(values, begin)
        high[name] = np.fmax.reduceat(values, begin)
    covered, ah_in, ah_out, wh_in, wh_out = shared
    return Hours(hour, covered, ah_in, ah_out, wh_in, wh_out, low, high)


@dataclass(frozen=True, slots=True)
class DayTotal:
    """A day by the owner's clock.

    Attributes:
        day: days since 1970 [d].
        covered: how much of it is known [-].
        ah_in, ah_out: charge into and out of the bank [Ah].
        wh_in, wh_out: energy [Wh].
        night_wh: energy out of the bank between midnight and five [Wh]; nan where that is not known.
        lowest, highest: lowest and highest value by quantity; nan where not read.
    """

    day: int
    covered: float
    ah_in: float
    ah_out: float
    wh_in: float
    wh_out: float
    night_wh: float
    lowest: dict[str, float]
    highest: dict[str, float]


NIGHT_H = 5


def by_day(hours: Hours) -> tuple[DayTotal, ...]:
    """Sums by the day, from those by the hour.

    Args:
        hours: in order.
    """
    days, begin = np.unique(hours.hour // 24, return_index=True)
    out = []
    for i, day in enumerate(days):
        part = slice(int(begin[i]), int(begin[i + 1]) if i + 1 < len(begin) else len(hours.hour))
        night = hours.hour[part] % 24 < NIGHT_H
        known = float(hours.covered_s[part][night].sum()) >= 0.8 * NIGHT_H * HOUR_S
        out.append(
            DayTotal(
                int(day),
                min(1.0, float(hours.covered_s[part].sum()) / DAY_S),
                float(hours.ah_in[part].sum()),
                float(hours.ah_out[part].sum()),
                float(hours.wh_in[part].sum()),
                float(hours.wh_out[part].sum()),
                float(hours.wh_out[part][night].sum()) if known else float("nan"),
                {n: float(np.fmin.reduce(hours.low[n][part])) for n in QUANTITIES},
                {n: float(np.fmax.reduce(hours.high[n][part])) for n in QUANTITIES},
            )
        )
    return tuple(out)
