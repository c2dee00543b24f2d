"""What a kind of day asks of the bank, quarter of an hour by quarter of an hour."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.figures.clock import DAY_H, Block
from vast_harbor.core.rig.loads import AC, WEATHER_C
from vast_harbor.core.stops.day import Day
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY

EDGES_H = np.linspace(0.0, DAY_H, STEPS_A_DAY + 1)


@dataclass(frozen=True, slots=True, eq=False)
class Follower:
    """A load whose duty follows the weather.

    Attributes:
        watts: what it takes from the bank at a duty of one, by step of the day [W].
        duty_at: its duty at the air temperatures of ``WEATHER_C`` [-], and
        duty: that which the day counts it with.
        ac, critical: what it is.
    """

    watts: Floats
    duty_at: tuple[float, ...]
    duty: float
    ac: bool
    critical: bool


@dataclass(frozen=True, slots=True, eq=False)
class LoadSteps:
    """Power from the bank by step of a day, each of shape (96,) [W].

    Attributes:
        dc, ac: mean power, losses included, weather as the kind of day has it.
        critical_dc, critical_ac: those parts that must not go dark.
        peak: the most that runs at once, with the hardest start.
        starts: the same without starts that are over within so many seconds, by the seconds.
        followers: loads that follow the weather.
        least_v: volts of a 12 V bank that the loads which are on then want [V]; 0 where none minds.
        most_ac: the most that the inverter takes [W]; None where that is not known.
    """

    dc: Floats
    ac: Floats
    critical_dc: Floats
    critical_ac: Floats
    peak: Floats
    starts: Mapping[float, Floats]
    followers: tuple[Follower, ...]
    least_v: Floats
    most_ac: float | None = None

    def on(self, air_c: Floats) -> tuple[Floats, Floats, Floats, Floats]:
        """``dc``, ``ac``, ``critical_dc`` and ``critical_ac`` on days of other air temperatures [W].

        Args:
            air_c: mean of the air on each [°C], shape (days,).

        Returns:
            Four arrays that broadcast to (days, 96): of one day where nothing follows the weather.
        """
        parts = [self.dc, self.ac, self.critical_dc, self.critical_ac]
        for f in self.followers:
            more = f.watts * (np.interp(air_c, WEATHER_C, f.duty_at) - f.duty)[:, None]
            parts[int(f.ac)] = parts[int(f.ac)] + more
            if f.critical:
                parts[2 + int(f.ac)] = parts[2 + int(f.ac)] + more
        dc, ac, critical_dc, critical_ac = (np.maximum(part, 0) for part in parts)
        if self.most_ac is not None:
            ac, critical_ac = np.minimum(ac, self.most_ac), np.minimum(critical_ac, self.most_ac)
        return dc, ac, critical_dc, critical_ac


# An edit changes one load of many, and a load runs at the same hours on many kinds of day.
@lru_cache(maxsize=2_000)
def coverage(blocks: tuple[Block, ...]) -> Floats:
    """Share of each step of the day that some blocks cover, shape (96,), not to be written to."""
    out = np.zeros(STEPS_A_DAY)
    for start, end in blocks:
        out += np.diff(np.clip(EDGES_H - start, 0.0, end - start)) / STEP_H
    out.flags.writeable = False
    return out


def _bins(edges_h: Floats, watts: Floats) -> Floats:
    """The exact mean of a step function over each step of the day."""
    so_far = np.concatenate(([0.0], np.cumsum(watts * np.diff(edges_h))))
    return np.asarray(np.diff(np.interp(EDGES_H, edges_h, so_far)) / STEP_H)


def load_steps(day: Day) -> LoadSteps:
    """What a kind of day asks, as the plan goes by it: listed, cautious or measured.

    Args:
        day: the day in figures.

    Returns:
        Its power by the quarter of an hour.
    """
    total = _bins(day.profile.edges_h, day.profile.watts)
    ac = _bins(day.profile.edges_h, day.ac_watts)
    scale = day.bank_wh.number / day.listed_wh.number if day.listed_wh.number > 0 else 1.0
    critical_dc, critical_ac = np.zeros(STEPS_A_DAY), np.zeros(STEPS_A_DAY)
    followers = []
    least_v = np.zeros(STEPS_A_DAY)
    for f in day.loads:
        load = f.load
        follows = bool(load.duty_at) and load.measured_wh is None
        if not (load.critical or follows or load.least_v) or not f.blocks:
            continue
        share = coverage(f.blocks)
        if load.least_v and load.mean_w > 0:
            least_v = np.maximum(least_v, np.where(share > 0, load.least_v, 0.0))
        if load.critical:
            (critical_ac if load.supply == AC else critical_dc)[:] += (
                share * load.mean_w / f.eta.number * scale
            )
        if follows:
            watts = share * load.quantity * load.watts / f.eta.number * scale
            followers.append(Follower(watts, load.duty_at, load.duty, load.supply == AC, load.critical))
    limits = {0.0} | {load.start_s for load in day.plan.loads if load.start_w}
    starting = [load.start_s for load in day.plan.loads if load.start_w]

    @cache
    def hardest(over: tuple[bool, ...], seconds: float | None) -> Floats:
        return day.hardest_over(EDGES_H, seconds)

    def without(seconds: float) -> Floats:
        # Where no start is over so soon, it is the peak.
        over = tuple(start <= seconds for start in starting)
        return hardest(over, seconds if any(over) else None)

    starts = {seconds: without(seconds) for seconds in sorted(limits)}
    peak = without(-1.0)
    dc, most = total - ac, inverter_input(day)
    if most is not None:
        # What the inverter cannot supply no bank is asked for.
        over = np.maximum(0.0, day.ac_over(EDGES_H))
        peak, starts = peak - over, {seconds: watts - over for seconds, watts in starts.items()}
        ac, critical_ac = np.minimum(ac, most), np.minimum(critical_ac, most)
    return LoadSteps(dc, ac, critical_dc, critical_ac, peak, starts, tuple(followers), least_v, most)


def inverter_input(day: Day) -> float | None:
    """The most that the inverter takes from the bank [W]; None where its rating is not known."""
    inverter = day.plan.inverter
    return None if inverter.rated_w is None else inverter.rated_w / inverter.efficiency + inverter.idle_w
