"""What a bank must stand up to in a rig, in plain numbers: the same for every bank that is looked at."""

from collections.abc import Iterator
from dataclasses import dataclass, field

from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.improvements import Improvement, planned_improvements
from vast_harbor.core.installation.cables import (
    Sized,
    breaking_a,
    fuse_kind,
    inverter_current,
    size,
    string_breaking_a,
)
from vast_harbor.core.installation.wiring import fuses_per_string
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.ageing_temperature import ageing_temperature
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.loads import AC
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks.criteria import BankCriteria
from vast_harbor.core.stops.banks.reasons import against
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.rig import life_factor


def _ageing_of(model: BatteryModel) -> tuple[object, ...]:
    """What of a datasheet its life follows from."""
    capacity = model.unit_class_v, model.rated_ah, model.rated_hours
    return model.battery_class.key, model.grade, *capacity, model.cycles, model.warranty, model.used


@dataclass(frozen=True)
class RigLimits:
    """A rig as a bank meets it.

    Attributes:
        plan, reference, assumptions, days: the plan and what holds for it.
        old_kg: weight of the old bank [kg].
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    old_kg: float
    _sized: dict[tuple[float, float], Sized | None] = field(default_factory=dict, compare=False)

    @cached_property
    def cut_off_v(self) -> float:
        """Volts at which the inverter gives up [V]."""
        return self.assumptions.value("inverter_cut_off_v") * self.plan.system_v / 12

    @cached_property
    def planned(self) -> tuple[Improvement, ...]:
        """What is planned beside the bank, in the order of doing."""
        if self.plan.present is None:
            return ()
        return planned_improvements(self.plan, self.reference, self.assumptions)

    @cached_property
    def _firsts(self) -> dict[tuple[object, ...], str]:
        first: dict[tuple[object, ...], str] = {}
        for model in self.plan.models.values():
            first.setdefault(_ageing_of(model), model.id)
        return first

    def first_of_datasheet(self, model: BatteryModel) -> str:
        """Id of the first model that ages as one does: they meet the same futures, whatever each costs."""
        return self._firsts.get(_ageing_of(model), model.id)

    @cached_property
    def load_a(self) -> float:
        """Largest lasting current of the loads, at the inverter's cut-off [A]."""
        inverter = self.plan.inverter
        rated = inverter_current(inverter.rated_w or 0.0, inverter.efficiency, self.cut_off_v)
        return max(self.days.hardest.lasting() / self.cut_off_v, rated)

    @cached_property
    def charge_a(self) -> float | None:
        """What all chargers give at once [A]; None where not stated."""
        return self.plan.charge_a

    @cached_property
    def has_inverter(self) -> bool:
        """Whether anything runs from an inverter."""
        return any(x.supply == AC for x in self.plan.loads)

    def sized(self, amps: float, cable_m: float) -> Sized | None:
        """The cable and its fuse for a current over a length; None where none of the table will do.

        Args:
            amps: lasting current, load or charge [A].
            cable_m: length one way [m].
        """
        asked = (amps, cable_m)
        if asked not in self._sized:
            drop = self.assumptions.value("cable_drop")
            self._sized[asked] = size(
                max(0.1, amps), cable_m, self.plan.system_v, drop, self.reference.cables
            )
        return self._sized[asked]

    def can_be_fused(self, bank: Bank) -> bool:
        """Whether common fuses break a short circuit of a bank: the main fuse, or those of the strings."""
        each = string_breaking_a(bank) if fuses_per_string(bank) else breaking_a(bank)
        return fuse_kind(self.reference.cables.kinds, self.plan.system_v, each) is not None

    @cached_property
    def ageing(self) -> Figure:
        """Temperature that ages a bank in the months of use [°C]."""
        return ageing_temperature(self.plan, self.assumptions)

    @cached_property
    def rest_c(self) -> float:
        """Temperature of the battery the rest of the year [°C]."""
        return derating.rest_temperature(self.plan, self.assumptions).number

    @cached_property
    def left_c(self) -> float | None:
        """Coldest of the battery while nobody is there and something charges it [°C]; None for never."""
        left = derating.left_temperature(self.plan, self.assumptions)
        return None if left is None else left.number

    def predecessor(self, key: str) -> Figure | None:
        """Factor on cycles and years of a class by how the old bank aged; None where that says nothing."""
        old = self.plan.old_bank
        return self._life_factor if old is not None and old.battery_class.key == key else None

    @cached_property
    def _life_factor(self) -> Figure | None:
        return life_factor(self.plan, self.assumptions, self.days, self.ageing.number, self.rest_c)

    def criteria(self, bank: Bank) -> BankCriteria:
        """A bank of the catalogue in this rig."""
        return BankCriteria(self.plan, self.assumptions, self.days, self, bank)

    def usable_wh(self, bank: Bank, age: float | None = None) -> float:
        """Usable energy of a bank at the ageing allowance, or at another age [Wh]."""
        return self.criteria(bank).usable_wh(age)

    def against(self, bank: Bank) -> Iterator[str]:
        """Every reason why a bank of the right volts will not do, by its key in :data:`~.reasons.REASONS`."""
        return against(self.criteria(bank))
