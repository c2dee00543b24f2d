"""Which days, which weather and which banks a stretch has."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.schedule.day_pattern import (
    DaySpec,
    in_a_row,
    laid_up,
    months_of_use,
    season_month,
    stretch,
)
from vast_harbor.core.schedule.timeline import Course
from vast_harbor.core.simulation.conditions import Drive, Floats
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import Lane
from vast_harbor.core.stops.trial.stretches import (
    COLD,
    COOKING,
    FROST,
    HIDDEN_W,
    LOST,
    PLAN,
    STRETCHES,
    WET,
    WORST,
    Stretch,
)
from vast_harbor.core.weather.daily_weather import OVERCAST, STEPS_A_DAY, SUNNY, Weather, coldest_c

# Weathers of each month among which the worst week is looked for.
WORST_SEEDS = (1, 2, 3, 4)
# The hook-up is lost at this hour of the first night, for good.
LOST_AT_H = 23.0
# Laid up, LFP is left about so full, and lead-acid full.
LAID_UP_SOC = 0.6


@dataclass(frozen=True, slots=True, eq=False)
class Staged:
    """A stretch, ready to be run.

    Attributes:
        stretch: which kind it is.
        month, seed: of its weather.
        specs: its days.
        drive, weather: laid out, one stretch wide.
    """

    stretch: Stretch
    month: int
    seed: int
    specs: tuple[DaySpec, ...]
    drive: Drive
    weather: Weather


def stage(course: Course, lanes: Sequence[Lane]) -> Staged:
    """The stretch that the plan tries.

    Args:
        course: the rig's days.
        lanes: the banks, among which the worst week is looked for.

    Returns:
        Ready to be run.
    """
    tried = course.plan.tried
    kind = STRETCHES[tried.stretch]
    days = kind.days if tried.days is None or not kind.own_days else tried.days
    month = tried.month or usual_month(course)
    if kind.key == PLAN:
        return _staged(
            course, kind, stretch(course.plan, days, month, in_a_row(course.plan)), month, tried.seed
        )
    if kind.key == WORST:
        return _worst(course, lanes, kind, days)
    if kind.key == COLD:
        month = _coldest_month(course)
        specs = stretch(course.plan, days, month, days)
        plain = _staged(course, kind, specs, month, tried.seed, [SUNNY])
        below = float(plain.weather.air_c.min()) - coldest_c(course.climate, month, course.plan.site.south)
        return _staged(course, kind, specs, month, tried.seed, [SUNNY], max(0.0, below))
    if kind.key == WET:
        drains = replace(
            course, plan=replace(course.plan, tried=replace(tried, hidden_w=tried.hidden_w or HIDDEN_W))
        )
        return _staged(drains, kind, stretch(course.plan, days, month, days), month, tried.seed, [OVERCAST])
    if kind.key == LOST:
        staged = _staged(course, kind, stretch(course.plan, days, month, 0), month, tried.seed)
        return _without_mains(course, staged, int(LOST_AT_H * 4))
    if kind.key == FROST:
        month = _coldest_month(course)
        return _staged(course, kind, laid_up(course.plan, days, month), month, tried.seed)
    assert kind.key == COOKING
    staged = _staged(course, kind, stretch(course.plan, days, month, days), month, tried.seed)
    ac = staged.drive.ac_w.copy()
    ac[:, STEPS_A_DAY : 2 * STEPS_A_DAY] *= 2
    return replace(staged, drive=replace(staged.drive, ac_w=ac))


def usual_month(course: Course) -> int:
    """The month of the governing kind of day's season, or the nearest one of use."""
    at = season_month(course.days.day.type, course.plan.site.south)
    return min(months_of_use(course.plan), key=lambda m: min((m - at) % 12, (at - m) % 12))


def start_soc(course: Course, staged: Staged, lane: Lane) -> float:
    """State of charge at which a bank begins a stretch [-]."""
    if staged.stretch.key == FROST:
        return LAID_UP_SOC if lane.lfp else 1.0
    return course.plan.tried.start_soc


def _coldest_month(course: Course) -> int:
    climate, south = course.climate, course.plan.site.south
    return min(months_of_use(course.plan), key=lambda m: climate.month_c(m, south))


def _staged(
    course: Course, kind: Stretch, specs: tuple[DaySpec, ...], month: int, seed: int,
    sky: Sequence[int] | None = None, colder_k: float = 0.0,
) -> Staged:  # fmt: skip
    drive, weather = course.lay_out([specs], [month], [seed], sky, colder_k)
    return Staged(kind, month, seed, specs, drive, weather)


def _without_mains(course: Course, staged: Staged, step: int) -> Staged:
    """The hook-up gone from a step on: AC loads then hang on the inverter."""
    plugged = {s.id for s in course.plan.sources if s.kind == MAINS}
    feeds = []
    for feed in staged.drive.feeds:
        unit = feed.unit.copy()
        if feed.id in plugged:
            unit[:, step:] = 0.0
        feeds.append(replace(feed, unit=unit))
    off = tuple(replace(s, hook_up=False) for s in staged.specs)
    alone, _ = course.lay_out([off], [staged.month], [staged.seed])
    parts: dict[str, Any] = {}

    def then(before: Floats, after: Floats) -> Floats:
        return np.concatenate((before[:, :step], after[:, step:]), axis=1)

    for name in ("ac_w", "critical_ac_w", "peak_w"):
        parts[name] = then(getattr(staged.drive, name), getattr(alone, name))
    starts = tuple(
        (seconds, then(a, b))
        for (seconds, a), (_, b) in zip(staged.drive.starts_w, alone.starts_w, strict=True)
    )
    return replace(staged, drive=replace(staged.drive, feeds=tuple(feeds), starts_w=starts, **parts))


def _worst(course: Course, lanes: Sequence[Lane], kind: Stretch, days: int) -> Staged:
    """The week in which the banks together do worst: most that is not served, then the lowest charge."""
    months = [m for m in months_of_use(course.plan) for _ in WORST_SEEDS]
    seeds = [seed for _ in months_of_use(course.plan) for seed in WORST_SEEDS]
    row = in_a_row(course.plan)
    specs = [stretch(course.plan, days, m, row) for m in months]
    drive, _ = course.lay_out(specs, months, seeds)
    score = np.zeros(len(months))
    for traces in run(lanes, drive, course.plan.tried.start_soc):
        unserved = (traces.unserved_dc + traces.unserved_ac).sum(axis=1)
        asked = (drive.dc_w + drive.ac_w).sum(axis=1) * drive.step_h
        score += unserved / np.maximum(asked, 1e-9) + 0.01 * (1 - traces.soc.min(axis=1))
    worst = int(np.argmax(score))
    return _staged(course, kind, specs[worst], months[worst], seeds[worst])
