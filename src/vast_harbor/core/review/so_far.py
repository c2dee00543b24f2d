"""What a bank went through and cost so far, against what it was planned for."""

from dataclasses import dataclass
from math import nan

import numpy as np

from vast_harbor.core.battery.ageing import cycle_wear, cycles_at_depth
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.readings import HOUR_S, Hours
from vast_harbor.core.stops.trial import cycles

YEAR_H = 8766.0
# A day is full where the charge came so far [-]; a bank is low below a fifth; it is warm from here on [°C].
FULL, LOW, WARM_C = 0.97, 0.2, 30.0
# A day tells whether it came to full where so much of it is known [-].
KNOWN_DAY = 0.5
# A monitor sleeps while nobody is there where it stopped so often for over a day [h], and nearly each day
# that it logged was one of use: what it gave then is no less than this share of a busy day [-].
SLEEPS, GAP_H, OF_USE, BUSY, NEARLY = 3, 24, 0.3, 0.9, 0.9


@dataclass(frozen=True, slots=True)
class SoFar:
    """What a bank went through, by its monitor.

    Attributes:
        years: its age [years].
        covered: how much of that the monitor logged [-].
        watched: how much of that the log tells the use of [-]: more than it logged, where its monitor sleeps
            while nobody is there.
        days: on which it logged.
        out_wh: energy that it gave [Wh].
        full_cycles: charge that it gave against its label [-].
        cycle_wear: wear of the cycles that were counted, by their depth [-]; nan without a state of charge.
        planned_wear: wear that the plan expects of cycles for the same energy [-]; nan without use.
        days_told, short_days: days that tell whether the bank came to full, and those on which it did not.
        low_hours, warm_hours: below a fifth of its charge, and warm [h].
    """

    years: float
    covered: float
    watched: float
    days: int
    out_wh: float
    full_cycles: float
    cycle_wear: float
    planned_wear: float
    days_told: int
    short_days: int
    low_hours: float
    warm_hours: float


def so_far(bank: FollowedBank, hours: Hours, years: float, planned_wh_a_year: float) -> SoFar:
    """What a bank went through.

    Between hours that are logged the charge is taken to go straight from one to the other.

    Args:
        bank: the bank.
        hours: of its monitor since it was fitted, in order.
        years: its age [years].
        planned_wh_a_year: energy that the plan takes from it [Wh/year].

    Source: rainflow counting, ASTM E1049-85; Miner's rule.
    """
    if not len(hours.hour):
        return SoFar(years, 0.0, 0.0, 0, 0.0, 0.0, nan, nan, 0, 0, 0.0, 0.0)
    covered_h = float(hours.covered_s.sum()) / HOUR_S
    covered = min(1.0, covered_h / (YEAR_H * years)) if years > 0 else 1.0
    low, high = hours.low["soc"], hours.high["soc"]
    known = ~np.isnan(low)
    wear = nan
    if known.sum() > 1:
        middle = ((low + high) / 2)[known]
        counted = cycles(np.clip(middle, 0.0, 1.0))
        wear = sum(n / cycles_at_depth(bank.curve, bank.cycle_exponent, depth) for depth, n in counted)
    day, place = np.unique(hours.hour // 24, return_inverse=True)
    share = np.bincount(place, np.where(known, hours.covered_s, 0.0)) / (24 * HOUR_S)
    highest = np.full(len(day), -1.0)
    np.maximum.at(highest, place[known], high[known])
    told = (share >= KNOWN_DAY) & (highest >= 0)
    warm = hours.high["celsius"] >= WARM_C
    short = int((told & (highest < FULL)).sum())
    # Days short of full cost lead-acid more, by the same law as in the life model.
    wear = cycle_wear(wear, 1.0, bank.battery_class.short_of_full_penalty.likely, short / max(1, told.sum()))
    out_wh = float(hours.wh_out.sum())
    planned = bank.cycle_wear_a_year * out_wh / planned_wh_a_year if planned_wh_a_year else nan
    return SoFar(
        years, covered, max(covered, _watched(hours, years)), len(day), out_wh,
        float(hours.ah_out.sum()) / bank.ah, wear, planned, int(told.sum()), short,
        float(hours.covered_s[known & (low < LOW)].sum()) / HOUR_S,
        float(hours.covered_s[warm].sum()) / HOUR_S,
    )  # fmt: skip


def _watched(hours: Hours, years: float) -> float:
    """How much of its life the log tells the use of, where a monitor sleeps between uses; else 0 [-]."""
    gaps = int((np.diff(hours.hour) > GAP_H).sum())
    _, place = np.unique(hours.hour // 24, return_inverse=True)
    out = np.bincount(place, hours.wh_out)
    used = float((out >= OF_USE * np.quantile(out, BUSY)).mean())
    if gaps < SLEEPS or used < NEARLY or years <= 0:
        return 0.0
    return min(1.0, float(hours.hour[-1] - hours.hour[0] + 1) / (YEAR_H * years))


@dataclass(frozen=True, slots=True)
class Spent:
    """What a bank cost so far, over what it gave so far.

    Attributes:
        bought: what was paid for it, or the planned outlay [money].
        logged: what the log adds [money].
        gave: cycles of use, kWh and nights that it gave; by the plan where the monitor did not log.
        each: the same cost for each of them [money].
    """

    bought: float
    logged: float
    gave: tuple[float, float, float]
    each: tuple[float, float, float]

    @property
    def all(self) -> float:
        """Both together [money]."""
        return self.bought + self.logged


def spent(
    bought: float, logged: float, went: SoFar, cycles_a_year: float, day_wh: float, nights_a_year: float
) -> Spent:
    """What a bank cost so far.

    Args:
        bought, logged: what was paid for it, and noted in the log since [money].
        went: what it went through.
        cycles_a_year, nights_a_year: cycles of use and nights off-grid by the plan [1/year].
        day_wh: that a day takes by the plan [Wh].
    """
    rest = went.years * (1 - went.watched)
    kwh = (went.out_wh + rest * nights_a_year * day_wh) / 1000
    # Cycles of use and nights stand to one another, and to the energy, as the plan has it.
    nights = kwh * 1000 / day_wh if day_wh else went.years * nights_a_year
    of_use = nights * cycles_a_year / nights_a_year if nights_a_year else 0.0
    gave = (of_use, kwh, nights)
    whole = bought + logged
    each = tuple(whole / n if n > 0 else nan for n in gave)
    return Spent(bought, logged, gave, (each[0], each[1], each[2]))
