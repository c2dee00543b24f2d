"""Which days, which weather and which banks a stretch has."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.rig.months import months_of_use, season_month
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.schedule.day_pattern import DaySpec, in_a_row, laid_up, stretch
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
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
class PreparedStretch:
    """A stretch, ready to be run.

    Attributes:
        stretch: which kind it is.
        month, seed: of its weather.
        specs: its days.
        conditions, weather: laid out, one stretch wide.
    """

    stretch: Stretch
    month: int
    seed: int
    specs: tuple[DaySpec, ...]
    conditions: Conditions
    weather: Weather


def prepare_stretch(timeline: Timeline, simulated_banks: Sequence[SimulatedBank]) -> PreparedStretch:
    """The stretch that the plan tries.

    Args:
        timeline: the rig's days.
        simulated_banks: the banks, among which the worst week is looked for.

    Returns:
        Ready to be run.
    """
    trial = timeline.plan.trial
    kind = STRETCHES[trial.stretch]
    days = kind.days if trial.days is None or not kind.own_days else trial.days
    month = trial.month or usual_month(timeline)
    if kind.key == PLAN:
        return _staged(
            timeline, kind, stretch(timeline.plan, days, month, in_a_row(timeline.plan)), month, trial.seed
        )
    if kind.key == WORST:
        return _worst(timeline, simulated_banks, kind, days)
    if kind.key == COLD:
        month = _coldest_month(timeline)
        specs = stretch(timeline.plan, days, month, days)
        plain = _staged(timeline, kind, specs, month, trial.seed, [SUNNY])
        below = float(plain.weather.air_c.min()) - coldest_c(
            timeline.climate, month, timeline.plan.site.south
        )
        return _staged(timeline, kind, specs, month, trial.seed, [SUNNY], max(0.0, below))
    if kind.key == WET:
        drains = replace(
            timeline, plan=replace(timeline.plan, trial=replace(trial, hidden_w=trial.hidden_w or HIDDEN_W))
        )
        return _staged(drains, kind, stretch(timeline.plan, days, month, days), month, trial.seed, [OVERCAST])
    if kind.key == LOST:
        prepared = _staged(timeline, kind, stretch(timeline.plan, days, month, 0), month, trial.seed)
        return _without_mains(timeline, prepared, int(LOST_AT_H * 4))
    if kind.key == FROST:
        month = _coldest_month(timeline)
        return _staged(timeline, kind, laid_up(timeline.plan, days, month), month, trial.seed)
    assert kind.key == COOKING
    prepared = _staged(timeline, kind, stretch(timeline.plan, days, month, days), month, trial.seed)
    ac = prepared.conditions.ac_w.copy()
    ac[:, STEPS_A_DAY : 2 * STEPS_A_DAY] *= 2
    return replace(prepared, conditions=replace(prepared.conditions, ac_w=ac))


def usual_month(timeline: Timeline) -> int:
    """The month of the governing kind of day's season, or the nearest one of use."""
    at = season_month(timeline.days.day.type, timeline.plan.site.south)
    return min(months_of_use(timeline.plan), key=lambda m: min((m - at) % 12, (at - m) % 12))


def start_soc(timeline: Timeline, prepared: PreparedStretch, simulated: SimulatedBank) -> float:
    """State of charge at which a bank begins a stretch [-]."""
    if prepared.stretch.key == FROST:
        return LAID_UP_SOC if simulated.lfp else 1.0
    return timeline.plan.trial.start_soc


def _coldest_month(timeline: Timeline) -> int:
    climate, south = timeline.climate, timeline.plan.site.south
    return min(months_of_use(timeline.plan), key=lambda m: climate.month_c(m, south))


def _staged(
    timeline: Timeline, kind: Stretch, specs: tuple[DaySpec, ...], month: int, seed: int,
    sky: Sequence[int] | None = None, colder_k: float = 0.0,
) -> PreparedStretch:  # fmt: skip
    conditions, weather = timeline.lay_out([specs], [month], [seed], sky, colder_k)
    return PreparedStretch(kind, month, seed, specs, conditions, weather)


def _without_mains(timeline: Timeline, prepared: PreparedStretch, step: int) -> PreparedStretch:
    """The hook-up gone from a step on: AC loads then run from the inverter."""
    plugged = {s.id for s in timeline.plan.sources if s.kind == MAINS}
    feeds = []
    for feed in prepared.conditions.feeds:
        unit = feed.unit.copy()
        if feed.id in plugged:
            unit[:, step:] = 0.0
        feeds.append(replace(feed, unit=unit))
    off = tuple(replace(s, hook_up=False) for s in prepared.specs)
    alone, _ = timeline.lay_out([off], [prepared.month], [prepared.seed])
    parts: dict[str, Any] = {}

    def then(before: Floats, after: Floats) -> Floats:
        return np.concatenate((before[:, :step], after[:, step:]), axis=1)

    for name in ("ac_w", "critical_ac_w", "peak_w"):
        parts[name] = then(getattr(prepared.conditions, name), getattr(alone, name))
    starts = tuple(
        (seconds, then(a, b))
        for (seconds, a), (_, b) in zip(prepared.conditions.starts_w, alone.starts_w, strict=True)
    )
    return replace(
        prepared, conditions=replace(prepared.conditions, feeds=tuple(feeds), starts_w=starts, **parts)
    )


def _worst(
    timeline: Timeline, simulated_banks: Sequence[SimulatedBank], kind: Stretch, days: int
) -> PreparedStretch:
    """The week in which the banks together do worst: most that is not served, then the lowest charge."""
    months = [m for m in months_of_use(timeline.plan) for _ in WORST_SEEDS]
    seeds = [seed for _ in months_of_use(timeline.plan) for seed in WORST_SEEDS]
    row = in_a_row(timeline.plan)
    specs = [stretch(timeline.plan, days, m, row) for m in months]
    conditions, _ = timeline.lay_out(specs, months, seeds)
    score = np.zeros(len(months))
    for traces in run(simulated_banks, conditions, timeline.plan.trial.start_soc):
        unserved = (traces.unserved_dc + traces.unserved_ac).sum(axis=1)
        asked = (conditions.dc_w + conditions.ac_w).sum(axis=1) * conditions.step_h
        score += unserved / np.maximum(asked, 1e-9) + 0.01 * (1 - traces.soc.min(axis=1))
    worst = int(np.argmax(score))
    return _staged(timeline, kind, specs[worst], months[worst], seeds[worst])
