"""A bank in a rig, and what it holds against the need."""

from dataclasses import dataclass
from typing import Protocol

from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.datasheet import NO_PROTECTION
from vast_harbor.core.battery.peukert import rate_factor
from vast_harbor.core.battery.sizing import usable_energy
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.installation.cables import Sized
from vast_harbor.core.installation.packing import Place
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.stops.need import ClassNeed, Days


@dataclass(frozen=True, slots=True)
class Criterion:
    """A value against a limit, both in one unit.

    Attributes:
        value, limit: the two.
        is_minimum: whether the limit is the least rather than the most.
    """

    value: float
    limit: float
    is_minimum: bool = False

    @property
    def margin(self) -> float:
        """What is left to the limit; negative where it is broken."""
        return self.value - self.limit if self.is_minimum else self.limit - self.value

    @property
    def broken(self) -> bool:
        """Whether the value is on the wrong side, by more than rounding."""
        return self.margin < -1e-6 * max(1.0, abs(self.limit))


class RigFacts(Protocol):
    """What of the rig does not depend on the bank; see ``rig_limits.RigLimits``."""

    @property
    def planned(self) -> tuple[Improvement, ...]: ...

    @property
    def old_kg(self) -> float: ...
    @property
    def cut_off_v(self) -> float: ...
    @property
    def load_a(self) -> float: ...
    @property
    def charge_a(self) -> float | None: ...
    @property
    def left_c(self) -> float | None: ...
    @property
    def has_inverter(self) -> bool: ...
    def sized(self, amps: float, cable_m: float) -> Sized | None: ...
    def can_be_fused(self, bank: Bank) -> bool: ...


def label_or_class_exponent(assumptions: Assumptions, model: BatteryModel) -> float:
    """Peukert exponent of a model: from its two ratings, else of its class; an override holds over both."""
    key = f"peukert.{model.battery_class.key}"
    if assumptions.overridden(key) or model.label_exponent is None:
        return assumptions.value(key)
    return model.label_exponent


@dataclass(frozen=True)
class BankInRig:
    """A bank in a rig, as the criteria see it.

    Attributes:
        plan, assumptions, days: the plan and what holds for it.
        rig: what of the rig does not depend on the bank.
        bank: the layout.
        places: where its owner stands the boxes; none to let the search place them.
        protection: what guards a bank that has no switch of its own.
        quoted: price of one as the owner was quoted it [money]; None for its entry's.
        sources: what charges it, remedies carried out; None for the rig's as they are.
    """

    plan: Plan
    assumptions: Assumptions
    days: Days
    rig: RigFacts
    bank: Bank
    places: tuple[Place, ...] = ()
    protection: str = NO_PROTECTION
    sources: tuple[Source, ...] | None = None
    quoted: float | None = None

    @cached_property
    def of_class(self) -> ClassNeed:
        """What its battery class needs."""
        return self.days.need.classes[self.bank.model.battery_class.key]

    @cached_property
    def rate(self) -> float:
        """k_rate [-]."""
        model = self.bank.model
        exponent = label_or_class_exponent(self.assumptions, model)
        return rate_factor(self.bank.rated_ah, model.rated_hours, exponent, self.of_class.mean_current.number)

    def usable_wh(self, age: float | None = None) -> float:
        """Usable energy at the ageing allowance, or at another age; a used battery never had more than its
        health [Wh]."""
        c = self.of_class
        capacity = min(c.ageing.number if age is None else age, self.bank.model.health)
        return usable_energy(self.bank.nameplate_wh, c.dod.number, c.temperature.number, self.rate, capacity)

    @cached_property
    def covers_need(self) -> Criterion:
        """Usable energy against the need [Wh]."""
        return Criterion(self.usable_wh(), self.days.need.energy.number, is_minimum=True)
