"""The temperature that ages a bank in use: of all months of use, not of the day that governs."""

from math import log2

from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import OFF_GRID
from vast_harbor.core.rig.derating import air_temperature, living_c
from vast_harbor.core.rig.months import months_of_use, type_for
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.weather.climate import warmth_at
from vast_harbor.phrases import phrase


def month_warmth(plan: Plan, assumptions: Assumptions, month: int) -> float:
    """Mean temperature of the battery in a month of use [°C]: as stated, else by its place.

    Args:
        plan, assumptions: the plan and what holds for it.
        month: 1 to 12.
    """
    day_type = type_for(plan, OFF_GRID, month)
    stated = day_type.battery_c if day_type.battery_c is not None else plan.battery_c
    if stated is not None:
        return stated
    climate = plan.site.climate
    air = (
        air_temperature(plan, day_type).number if climate is None else climate.month_c(month, plan.site.south)
    )
    return warmth_at(plan.place, air, living_c(plan, assumptions, air), True, False)


def ageing_temperature(plan: Plan, assumptions: Assumptions) -> Figure:
    """The one temperature that ages a bank as the months of use do [°C]: 25 °C where none is warmer.

    T = 25 + 10 · log₂(mean of 2^((T_m − 25)/10)), months below 25 °C counted as 25 °C.
    """
    warmths = [month_warmth(plan, assumptions, m) for m in months_of_use(plan)]
    speeds = [2 ** (max(0.0, t - 25) / 10) for t in warmths]
    return Figure(
        "rig.ageing_c",
        phrase("rig.ageing_temperature.ageing_c"),
        25 + 10 * log2(sum(speeds) / len(speeds)),
        "°C",
        REFERENCE,
        source=phrase("rig.ageing_temperature.ageing_c_source"),
        note=phrase("rig.ageing_temperature.ageing_c_note"),
    )
