"""The rig laid up: weeks to the floor, charging in frost, freezing, and when to recharge."""

from dataclasses import dataclass, replace

import numpy as np

from vast_harbor.core.battery.temperature import FREEZING_MARGIN_K, freezing_points_c
from vast_harbor.core.schedule import day_pattern
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.parameters import BMS_OPEN, EMPTY, TOO_COLD
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.trial.stretch_setup import LAID_UP_SOC
from vast_harbor.core.weather.daily_weather import STEPS_A_DAY

MONTH_DAYS = 30
# Lead-acid is recharged well before it is down to the depth at which it sulphates; LFP before its BMS opens.
RECHARGE_SOC = {True: 0.2, False: 0.75}


@dataclass(frozen=True, slots=True)
class LaidUp:
    """A bank through the months without use.

    Attributes:
        id: of the bank.
        connected: whether the laid-up loads and what stays plugged in are connected to it.
        weeks: until it is empty, or its BMS opens [weeks]; None where it lasts.
        recharge: (month, day) by which it should be recharged first; None where it lasts.
        lowest: lowest charge [-].
        cold_tries: days on which a source tried to charge a bank too cold for it.
        frozen_c, frozen_soc: the nearest that lead-acid comes to its freezing point, and its charge then;
            None where it does not come near it.
    """

    id: str
    connected: bool
    weeks: float | None
    recharge: tuple[int, int] | None
    lowest: float
    cold_tries: int
    frozen_c: float | None
    frozen_soc: float | None


def months_laid_up(timeline: Timeline) -> tuple[int, ...]:
    """Months without use, the first after the season of use first; empty where it is used all the year."""
    used = set(timeline.plan.months) or set(range(1, 13))
    idle = [m for m in range(1, 13) if m not in used]
    if not idle:
        return ()
    first = next(m for m in idle if (m - 2) % 12 + 1 in used)
    return tuple(m for m in ((first - 1 + i) % 12 + 1 for i in range(12)) if m in idle)


def laid_up(timeline: Timeline, simulated: SimulatedBank) -> tuple[LaidUp, ...]:
    """A bank through the months without use, connected and disconnected.

    Args:
        timeline: the rig's days.
        simulated: the bank.

    Returns:
        Two results; none where the rig is used all the year.
    """
    months = months_laid_up(timeline)
    calm = timeline.calm
    drives = [
        calm.lay_out([day_pattern.laid_up(calm.plan, MONTH_DAYS, m)], [m], [calm.plan.trial.seed])[0]
        for m in months
    ]
    return tuple(_through(simulated, drives, months, connected) for connected in (True, False) if months)


def _through(
    simulated: SimulatedBank, drives: list[Conditions], months: tuple[int, ...], connected: bool
) -> LaidUp:
    soc, socs, celsius, tries = LAID_UP_SOC if simulated.lfp else 1.0, [], [], 0
    ended: int | None = None
    step = 0
    here = simulated if connected else replace(simulated, sources=(), standing_a=0.0)
    for conditions in drives:
        if not connected:
            empty = np.zeros_like(conditions.dc_w)
            conditions = replace(
                conditions.without_charge(), dc_w=empty, ac_w=empty, peak_w=empty, starts_w=((0.0, empty),)
            )
        traces = run([here], conditions, soc)[0]
        state = traces.state[0]
        over = np.flatnonzero((state & (BMS_OPEN | EMPTY)) > 0)
        if ended is None and over.size:
            ended = step + int(over[0])
        cold = ((state & TOO_COLD) > 0).reshape(MONTH_DAYS, STEPS_A_DAY)
        tries += int(cold.any(axis=1).sum())
        socs.append(traces.soc[0, :-1])
        celsius.append(conditions.battery_c[0])
        soc = float(traces.soc[0, -1])
        step += conditions.steps
    charge, warmth = np.concatenate(socs), np.concatenate(celsius)
    low = np.flatnonzero(charge < RECHARGE_SOC[simulated.lfp])
    frozen = None
    if not simulated.lfp:
        gap = warmth - freezing_points_c(charge)
        at = int(np.argmin(gap))
        frozen = at if gap[at] < FREEZING_MARGIN_K else None
    return LaidUp(
        simulated.id, connected, None if ended is None else ended / STEPS_A_DAY / 7,
        _date(int(low[0]), months) if low.size else None, float(charge.min()), tries,
        None if frozen is None else float(warmth[frozen]), None if frozen is None else float(charge[frozen]),
    )  # fmt: skip


def _date(step: int, months: tuple[int, ...]) -> tuple[int, int]:
    day = step // STEPS_A_DAY
    return months[min(len(months) - 1, day // MONTH_DAYS)], min(28, day % MONTH_DAYS + 1)
