"""What must stand on the label of a bank for its class to cover the need."""

from collections.abc import Mapping
from dataclasses import dataclass

from vast_harbor.core.battery.peukert import nameplate_ah, rate_factor
from vast_harbor.core.battery.sizing import energy_need, nameplate_energy
from vast_harbor.core.battery.temperature import temperature_factor
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.profile import mean_current
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need.nights_off_grid import nights_of, overnight_of, stay_nights


@dataclass(frozen=True, slots=True)
class ClassRequirement:
    """What one battery class needs, in plain numbers.

    Attributes:
        temperature: k_T [-].
        mean_current: energy-weighted mean current [A].
        before_ah: amp-hours before the rate is taken into account [Ah].
        label_ah, label_wh: rated capacity that gives the need [Ah], [Wh].
        rate: k_rate of such a bank [-].
    """

    temperature: float
    mean_current: float
    before_ah: float
    label_ah: float
    label_wh: float
    rate: float


@dataclass(frozen=True, slots=True)
class LabelRequirement:
    """What a kind of day needs, in plain numbers.

    Attributes:
        energy_wh: usable energy between charges [Wh].
        classes: by battery class.
    """

    energy_wh: float
    classes: Mapping[str, ClassRequirement]

    @property
    def label_wh(self) -> Mapping[str, float]:
        """Rated energy by battery class [Wh]."""
        return {key: c.label_wh for key, c in self.classes.items()}

    @property
    def label_ah(self) -> Mapping[str, float]:
        """Rated capacity by battery class [Ah]."""
        return {key: c.label_ah for key, c in self.classes.items()}

    @property
    def total(self) -> float:
        """Of all classes together, by which kinds of day are ranked [Wh]."""
        return sum(c.label_wh for c in self.classes.values())


def label_requirement(
    plan: Plan, reference: Reference, assumptions: Assumptions, day: Day
) -> LabelRequirement:
    """What a kind of day needs, in plain numbers; :func:`evaluate` adds the workings.

    Args:
        plan, reference, assumptions: the plan and what holds for it.
        day: the day in figures.
    """
    at = f"need.on.{day.type.id}"
    nights = stay_nights(plan, assumptions).number
    if plan.overnight:
        nights = nights_of(plan, at, assumptions, day, overnight_of(plan, at, day)).number
    energy = energy_need(day.bank_wh.number, nights, assumptions.value("reserve"))
    squared, area, ageing = (
        day.profile.power_squared_hours, day.profile.energy_wh, assumptions.value("ageing_allowance"),
    )  # fmt: skip
    classes = {}
    for key, c in reference.classes.items():
        override = assumptions.figure(f"temperature_factor.{key}").value
        k_t = temperature_factor(c, day.battery_c.number) if override is None else override
        dod, exponent = assumptions.value(f"dod.{key}"), assumptions.value(f"peukert.{key}")
        volts = c.nominal_v(plan.system_v)
        current = mean_current(squared, area, volts)
        before = nameplate_energy(energy, dod, k_t, 1.0, ageing) / volts
        ah = nameplate_ah(before, c.rated_hours, exponent, current)
        rate = rate_factor(ah, c.rated_hours, exponent, current)
        wh = nameplate_energy(energy, dod, k_t, rate, ageing)
        classes[key] = ClassRequirement(k_t, current, before, ah, wh, rate)
    return LabelRequirement(energy, classes)
