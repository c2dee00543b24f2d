"""How long until dark with no charging, and how long one appliance runs."""

from dataclasses import replace

import numpy as np

from vast_harbor.core.rig.loads import AC, Load
from vast_harbor.core.schedule.day_pattern import DaySpec
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.day import hangs_on_second
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY

LONGEST_DAYS = 60
EVENING_H = 18.0


def until_dark(
    timeline: Timeline, simulated_banks: tuple[SimulatedBank, ...], soc: float = 1.0
) -> list[float | None]:
    """Hours until something is not served, on governing days with no charging, from six in the evening.

    Args:
        timeline: the rig's days.
        simulated_banks: the banks.
        soc: charge at the start [-].

    Returns:
        For each bank [h]; None where it lasts longer than sixty days.
    """
    day = timeline.days.day.type
    spec = DaySpec(day.kind, day, False, False, timeline.plan.pitch)
    calm = timeline.calm
    month = 1 + (timeline.days.day.type.season == "summer") * 6
    conditions, _ = calm.lay_out([(spec,) * LONGEST_DAYS], [month], [1], [1])
    conditions = _from(conditions.without_charge(), int(EVENING_H / STEP_H))
    out: list[float | None] = []
    for simulated, traces in zip(
        simulated_banks, run([replace(x, sources=()) for x in simulated_banks], conditions, soc), strict=True
    ):
        missing = (traces.unserved_dc + traces.unserved_ac)[0]
        dark = np.flatnonzero(np.cumsum(missing) > max(0.5, simulated.standing_a * simulated.class_v))
        out.append(float(dark[0]) * STEP_H if dark.size else None)
    return out


def _from(conditions: Conditions, step: int) -> Conditions:
    parts = {
        name: getattr(conditions, name)[:, step:]
        for name in (
            "dc_w", "ac_w", "critical_dc_w", "critical_ac_w", "peak_w", "battery_c",
            "generator_ok", "least_v",
        )
    }  # fmt: skip
    starts = tuple((seconds, watts[:, step:]) for seconds, watts in conditions.starts_w)
    return replace(conditions, starts_w=starts, **parts)


def runs_for(
    timeline: Timeline, simulated_banks: tuple[SimulatedBank, ...], load: Load, soc: float = 1.0
) -> list[float | None]:
    """Hours that one appliance runs without a break, besides standby and the idling inverter.

    Args:
        timeline: the rig's days.
        simulated_banks: the banks.
        load: the appliance.
        soc: charge at the start [-].

    Returns:
        For each bank [h]; 0 where it does not start; None where it lasts longer than sixty days.
    """
    plan, ac = timeline.plan, load.supply == AC
    eta = plan.inverter.efficiency if ac else timeline.assumptions.value("dc_efficiency")
    if plan.second is not None and hangs_on_second(plan, load):
        eta = plan.second.efficiency
    watts, top = load.mean_w / eta, max(load.run_w, load.start_w or 0.0) / eta
    idle = plan.inverter.idle_w if ac else 0.0
    shape = (1, LONGEST_DAYS * STEPS_A_DAY)
    always = np.zeros(shape) + plan.standby_w
    through = np.zeros(shape) + (watts + idle if ac else 0.0)
    dc = always + (0.0 if ac else watts)
    nothing = np.zeros(shape)
    always_on = idle + plan.standby_w
    conditions = Conditions(
        step_h=STEP_H,
        dc_w=dc,
        ac_w=through,
        critical_dc_w=nothing,
        critical_ac_w=nothing,
        peak_w=nothing + top + always_on,
        starts_w=((0.0, nothing + load.run_w / eta + always_on),),
        battery_c=nothing + timeline.days.day.battery_c.number,
        generator_ok=np.zeros(shape, dtype=bool),
        least_v=nothing,
    )
    out: list[float | None] = []
    for traces in run([replace(x, sources=()) for x in simulated_banks], conditions, soc):
        missing = (traces.unserved_ac if ac else traces.unserved_dc)[0]
        dark = np.flatnonzero(missing > 1e-6)
        if not dark.size:
            out.append(None)
            continue
        first = int(dark[0])
        rate = (watts + idle) * STEP_H if ac else (watts + plan.standby_w) * STEP_H
        out.append((first + max(0.0, 1 - float(missing[first]) / rate)) * STEP_H if rate > 0 else None)
    return out
