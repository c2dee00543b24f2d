"""What is used, by the monitor, against what the plan says: over the day, at night, and whether it grew.

A monitor at the bank sees what flows in less what flows out. Only in hours in which nothing charged is what
it saw the use; a day is put together from such hours.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.arrays import Floats, Ints
from vast_harbor.core.figures.normal import Z_90
from vast_harbor.core.log.readings import DAY_S, HOUR_S, Hours
from vast_harbor.core.rig.day_types import OFF_GRID
from vast_harbor.core.rig.months import type_for
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.profile import Profile
from vast_harbor.core.stops.need import Days

DAY_H = 24
# An hour counts where so much of it is known, and what flowed in is below this share of what flowed out [-].
KNOWN, CHARGED = 0.9, 0.02
# A day counts as one of use where it takes this share of the planned one [-].
IN_USE = 0.3
# Night, by the clock: nobody cooks, and the fridge runs as it does [h].
NIGHT = (1, 5)
# What a shunt and its zero are off by [-].
SHUNT = 0.03
# Fewer hours or nights say nothing; a day is told where so many of its hours are known.
LEAST_HOURS, LEAST_NIGHTS, LEAST_KNOWN = 3, 5, 20
# What flows at night is told from here on: watts, and share of the plan; so sure (standard errors).
DRAIN_W, DRAIN_SHARE, SURE = 4.0, 0.25, 2.5
# Use that changed by so much between the first and the last third of the days is told [-].
GREW = 0.15


@dataclass(frozen=True, slots=True)
class MeasuredUse:
    """Use by a monitor and by the plan.

    Attributes:
        days: days of use in which there are hours that count.
        watts, planned_w: mean power by hour of the clock [W], shape (24,); nan where too few hours count.
        counted: hours that count, by hour of the clock, shape (24,).
        day_wh, doubt_wh: a day of use and its standard error, the shunt's included [Wh]; nan where too few
            hours are known.
        planned_wh: of the plan [Wh].
        nights: nights that count.
        night_w, night_doubt_w: mean power at night and its standard error [W]; nan where too few count.
        planned_night_w: of the plan [W].
        drain_w: what flows at night beyond the plan [W]; 0 where that is not sure.
        then_wh, now_wh: a day of use in the first and in the last third [Wh]; equal where it did not change.
    """

    days: int
    watts: Floats
    planned_w: Floats
    counted: Floats
    day_wh: float
    doubt_wh: float
    planned_wh: float
    nights: int
    night_w: float
    night_doubt_w: float
    planned_night_w: float
    drain_w: float
    then_wh: float
    now_wh: float

    @property
    def off_wh(self) -> float:
        """By how much a day may be off to either side, in eight of ten cases [Wh]."""
        return Z_90 * self.doubt_wh


def use_by_kind(hours: Hours, plan: Plan, days: Days) -> Mapping[str, MeasuredUse]:
    """What is used against the plan on each kind of off-grid day: a log knows only its season.

    Args:
        hours: of the monitor, in order.
        plan, days: the plan, and its kinds of day.

    Returns:
        By kind of day, the one that was logged last first; the governing one alone where nothing was logged.
    """
    if not len(hours.hour):
        return {days.governing: measured_use(hours, days.day.profile)}
    months = (hours.hour * HOUR_S // DAY_S).astype("datetime64[D]").astype("datetime64[M]").astype(int) % 12
    kinds = {int(m): type_for(plan, OFF_GRID, int(m) + 1).id for m in np.unique(months)}
    kind = np.array([kinds[int(m)] for m in months])
    found = dict.fromkeys(kind[::-1].tolist())
    return {k: measured_use(hours.some(kind == k), days.days[k].profile) for k in found}


def measured_use(hours: Hours, profile: Profile) -> MeasuredUse:
    """What is used against the plan.

    Args:
        hours: of the monitor, in order.
        profile: power drawn from the bank on the planned day [W].
    """
    so_far = np.interp(np.arange(DAY_H + 1), profile.edges_h, profile.energy_so_far())
    planned_w, planned_wh = np.diff(so_far), float(so_far[-1])
    day, clock = hours.hour // DAY_H, hours.hour % DAY_H
    days, place = np.unique(day, return_inverse=True)
    out = np.bincount(place, hours.wh_out, len(days))
    counts = (hours.covered_s >= KNOWN * HOUR_S) & (hours.wh_in <= CHARGED * hours.wh_out + 0.1)
    # A day that is charged from morning to evening shows little of its use, and may still be one.
    used = (out >= IN_USE * planned_wh)[place] & counts if len(days) else counts
    power = hours.wh_out / np.maximum(hours.covered_s, 1) * HOUR_S
    counted = np.bincount(clock[used], minlength=DAY_H).astype(float)
    watts, errors = np.full(DAY_H, np.nan), np.full(DAY_H, np.nan)
    for h in range(DAY_H):
        here = power[used & (clock == h)]
        if len(here) >= LEAST_HOURS:
            watts[h], errors[h] = here.mean(), here.std(ddof=1) / np.sqrt(len(here))
    known = ~np.isnan(watts)
    day_wh = doubt = float("nan")
    if known.sum() >= LEAST_KNOWN:
        # What is not known of the day is as the plan says, and in doubt by half of it.
        rest = float(planned_w[~known].sum())
        day_wh = float(watts[known].sum()) + rest
        doubt = float(np.sqrt((errors[known] ** 2).sum() + (rest / 2) ** 2 + (SHUNT * day_wh) ** 2))
    night = used & (clock >= NIGHT[0]) & (clock < NIGHT[1])
    by_night = [power[night & (day == d)].mean() for d in np.unique(day[night])]
    night_w = error = float("nan")
    planned_night = float(planned_w[NIGHT[0] : NIGHT[1]].mean())
    drain = 0.0
    if len(by_night) >= LEAST_NIGHTS:
        night_w, error = float(np.mean(by_night)), float(np.std(by_night, ddof=1) / np.sqrt(len(by_night)))
        more = night_w - planned_night
        if more - SURE * error > max(DRAIN_W, DRAIN_SHARE * planned_night):
            drain = more
    told = used & known[clock]
    usual = float(np.where(known, watts, planned_w).sum())
    then, now = _thirds(day[told], watts[clock[told]], power[told], usual)
    return MeasuredUse(
        len(np.unique(day[used])), watts, planned_w, counted, day_wh, doubt, planned_wh, len(by_night),
        night_w, error, planned_night, drain, then, now,
    )  # fmt: skip


def _thirds(day: Ints, against: Floats, power: Floats, usual_wh: float) -> tuple[float, float]:
    """A day of use in the first and in the last third of the days [Wh].

    Each day is what flowed in the hours that count against what usually flows in these hours, so that it does
    not matter which of them count.
    """
    days, place = np.unique(day, return_inverse=True)
    if len(days) < 3 * LEAST_NIGHTS or not usual_wh:
        return usual_wh, usual_wh
    shares = np.bincount(place, power) / np.maximum(np.bincount(place, against), 1e-9)
    third = len(days) // 3
    first, last = shares[:third], shares[-third:]
    change = float(last.mean() - first.mean())
    error = float(np.sqrt(first.var(ddof=1) / third + last.var(ddof=1) / third))
    if abs(change) < max(GREW, SURE * error):
        return usual_wh, usual_wh
    return usual_wh * float(first.mean()), usual_wh * float(last.mean())
