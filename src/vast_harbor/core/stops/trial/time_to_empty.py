"""How long the banks last with no charging, new and worn: on whole days, and under one appliance alone."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.rig.loads import AC, Load
from vast_harbor.core.schedule.day_pattern import DaySpec
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import END_OF_LIFE
from vast_harbor.core.stops.day import hangs_on_second
from vast_harbor.core.stops.trial.simulated_banks import OLD
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY

# A bank at the two ends of its life, and the one that is there.
NEW, WORN, NOW = "new", "worn", "now"
LONGEST_DAYS = 60
EVENING_H = 18.0


@dataclass(frozen=True, slots=True)
class Discharge:
    """How one bank runs down.

    Attributes:
        hours: until something is not served [h]; None where it lasts longer than sixty days.
        soc: charge left at the end of each whole hour, up to then [-].
    """

    hours: float | None
    soc: NDArray[np.float64]


def at_health(simulated: SimulatedBank, health: float) -> SimulatedBank:
    """A bank at another state of health [-], all else as it is."""
    wells, share = simulated.wells, health / simulated.health
    return replace(
        simulated,
        wells=replace(wells, capacity=wells.capacity * share),
        nameplate_ah=simulated.nameplate_ah * share,
        health=health,
    )


def states_of(simulated: SimulatedBank, sold_with: float) -> list[tuple[str, SimulatedBank]]:
    """A bank new and worn; the old bank as it is.

    Args:
        simulated: as planned.
        sold_with: state of health that it is sold with [-].
    """
    if simulated.id == OLD:
        return [(NOW, simulated)]
    new = min(1.0, sold_with)
    return [(NEW, at_health(simulated, new)), (WORN, at_health(simulated, min(END_OF_LIFE, new)))]


def discharges(
    timeline: Timeline, simulated_banks: tuple[SimulatedBank, ...], soc: float = 1.0
) -> list[Discharge]:
    """Governing days with no charging, from six in the evening, until something is not served.

    Args:
        timeline: the rig's days.
        simulated_banks: the banks.
        soc: charge at the start [-].

    Returns:
        One for each bank.
    """
    day = timeline.days.day.type
    spec = DaySpec(day.kind, day, False, False, timeline.plan.pitch)
    calm = timeline.calm
    month = 1 + (timeline.days.day.type.season == "summer") * 6
    conditions, _ = calm.lay_out([(spec,) * LONGEST_DAYS], [month], [1], [1])
    conditions = _from(conditions.without_charge(), int(EVENING_H / STEP_H))
    an_hour = round(1 / STEP_H)
    out = []
    for simulated, traces in zip(
        simulated_banks, run([replace(x, sources=()) for x in simulated_banks], conditions, soc), strict=True
    ):
        missing = (traces.unserved_dc + traces.unserved_ac)[0]
        dark = np.flatnonzero(np.cumsum(missing) > max(0.5, simulated.standing_a * simulated.class_v))
        end = int(dark[0]) if dark.size else missing.size - 1
        out.append(Discharge(end * STEP_H if dark.size else None, traces.soc[0][: end + 1 : an_hour]))
    return out


def _from(conditions: Conditions, step: int) -> Conditions:
    parts = {
        name: getattr(conditions, name)[:, step:]
        for name in (
            "dc_w", "ac_w", "critical_dc_w", "critical_ac_w", "peak_w", "battery_c",
            "generator_ok", "attended", "least_v",
        )
    }  # fmt: skip
    starts = tuple((seconds, watts[:, step:]) for seconds, watts in conditions.starts_w)
    return replace(conditions, starts_w=starts, **parts)


def runs_for(
    timeline: Timeline, simulated_banks: tuple[SimulatedBank, ...], loads: Sequence[Load], soc: float = 1.0
) -> list[list[float | None]]:
    """Hours that each appliance runs without a break, alone on top of standby and the idling inverter.

    Args:
        timeline: the rig's days.
        simulated_banks: the banks.
        loads: the appliances.
        soc: charge at the start [-].

    Returns:
        For each bank, of each appliance [h]; 0 where it does not start; None where it lasts longer than sixty
        days.
    """
    plan = timeline.plan
    eta = np.array([_efficiency(timeline, load) for load in loads])
    ac = np.array([load.supply == AC for load in loads])
    idle = np.where(ac, plan.inverter.idle_w, 0.0)
    watts = np.array([load.mean_w for load in loads]) / eta
    starts = np.array([load.run_w for load in loads]) / eta
    top = np.array([max(load.run_w, load.start_w or 0.0) for load in loads]) / eta
    through = np.where(ac, watts + idle, 0.0)
    direct = np.where(ac, 0.0, watts) + plan.standby_w
    nothing = np.zeros((len(loads), LONGEST_DAYS * STEPS_A_DAY))
    always_on = idle + plan.standby_w
    conditions = Conditions(
        step_h=STEP_H,
        dc_w=nothing + direct[:, None],
        ac_w=nothing + through[:, None],
        critical_dc_w=nothing,
        critical_ac_w=nothing,
        peak_w=nothing + (top + always_on)[:, None],
        starts_w=((0.0, nothing + (starts + always_on)[:, None]),),
        battery_c=nothing + timeline.days.day.battery_c.number,
        generator_ok=np.zeros(nothing.shape, dtype=bool),
        attended=np.zeros(nothing.shape, dtype=bool),
        least_v=nothing,
    )
    rates = np.where(ac, through, direct) * STEP_H
    out: list[list[float | None]] = []
    for traces in run([replace(x, sources=()) for x in simulated_banks], conditions, soc):
        missing = np.where(ac[:, None], traces.unserved_ac, traces.unserved_dc)
        out.append([_until(one, float(rate)) for one, rate in zip(missing, rates, strict=True)])
    return out


def _efficiency(timeline: Timeline, load: Load) -> float:
    plan = timeline.plan
    if plan.second is not None and hangs_on_second(plan, load):
        return plan.second.efficiency
    return plan.inverter.efficiency if load.supply == AC else timeline.assumptions.value("dc_efficiency")


def _until(missing: NDArray[np.float64], rate_wh: float) -> float | None:
    """Hours until energy is missing for the first time; the last step counts by the share that was served."""
    dark = np.flatnonzero(missing > 1e-6)
    if not dark.size or rate_wh <= 0:
        return None
    first = int(dark[0])
    return (first + max(0.0, 1 - float(missing[first]) / rate_wh)) * STEP_H
