"""The bank whose health is followed: what it is, since when it serves, and what its life model expects."""

from dataclasses import dataclass

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.health_signs import HealthSign
from vast_harbor.core.log.health import Expected, spread_of
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import RigLimits
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.core.stops.rig import health_seen, wear_a_year

# Wear that is expected at the least, so that a bank that is never cycled ages, too [1/year].
LEAST_WEAR = 0.01


@dataclass(frozen=True, slots=True)
class FollowedBank:
    """A bank and what is expected of it.

    Attributes:
        title: what it is called.
        battery_class: its class.
        cells: in series.
        ah: its label [Ah].
        rated_hours: time over which that holds [h].
        exponents: lowest, likely and highest Peukert exponent of its class [-].
        since: day on which it was put into use, counted; None where that is not known.
        expected: what the life model says.
        unit_v: of one battery [V].
        stated: what the owner stated of its health under Rig; None for nothing.
        curve, cycle_exponent: cycles by depth, as :func:`ageing.cycles_at_depth` takes them.
        cycle_wear_a_year: wear by cycles that the life model expects [1/year].
    """

    title: str
    battery_class: BatteryClass
    cells: int
    ah: float
    rated_hours: float
    exponents: tuple[float, float, float]
    since: int | None
    expected: Expected
    unit_v: float = 12.0
    stated: HealthSign | None = None
    curve: tuple[tuple[float, float], ...] = ((0.5, 1000.0),)
    cycle_exponent: float = 1.0
    cycle_wear_a_year: float = 0.0

    @property
    def class_v(self) -> float:
        """Volts of its class [V]."""
        return 12 * self.per_12

    @property
    def per_12(self) -> float:
        """How many 12 V units it is high [-]."""
        return self.cells / (6 if self.battery_class.is_lead_acid else 4)


def _exponents(assumptions: Assumptions, key: str) -> tuple[float, float, float]:
    found = assumptions.get(f"peukert.{key}")
    likely = found.figure().number
    return found.low or likely, likely, found.high or likely


def _of_class(battery_class: BatteryClass) -> tuple[tuple[float, float], ...]:
    return ((battery_class.cycles_at_dod, battery_class.cycles.likely),)


def of_bought(compared: ComparedBank, assumptions: Assumptions, since: int | None) -> FollowedBank:
    """The bank that is bought, as the comparison expects it to age.

    Args:
        compared: its column; it must be built.
        assumptions: what holds.
        since: day on which it was put into use, counted.
    """
    bank = compared.banked.bank
    assert bank is not None
    model, life = bank.model, compared.life
    years = life["years_likely"]
    low, high = years.low or 0.7 * years.number, years.high or 1.4 * years.number
    lead = model.battery_class.is_lead_acid
    expected = Expected(
        max(LEAST_WEAR, life["wear"].number), spread_of(max(0.1, low), max(0.2, high)),
        life["health_at_end"].number, lead,
    )  # fmt: skip
    return FollowedBank(
        model.title, model.battery_class, bank.series * model.cells, bank.rated_ah,
        model.battery_class.rated_hours, _exponents(assumptions, model.battery_class.key), since, expected,
        model.unit_class_v, curve=model.cycles or _of_class(model.battery_class),
        cycle_exponent=assumptions.value(f"cycle_exponent.{model.battery_class.key}"),
        cycle_wear_a_year=life["cycle_wear"].value or 0.0,
    )  # fmt: skip


def of_old(plan: Plan, limits: RigLimits, title: str, today: int) -> FollowedBank | None:
    """The bank that is there now, as its class ages in this rig; None without one.

    Args:
        plan: the plan.
        limits: what holds in the rig.
        title: what it is called.
        today: counted.
    """
    old = plan.old_bank
    if old is None:
        return None
    key, lead = old.battery_class.key, old.battery_class.is_lead_acid
    wear = wear_a_year(plan, old, limits.assumptions, limits.days, limits.ageing.number, limits.rest_c)
    life = limits.assumptions.get(f"calendar_years.{key}")
    likely = life.figure().number
    worn_out = "worn_out.lead_acid" if lead else "worn_out_floor.lfp"
    expected = Expected(
        max(LEAST_WEAR, wear.number), spread_of(life.low or 0.6 * likely, life.high or 1.6 * likely),
        limits.assumptions.value(worn_out), lead,
    )  # fmt: skip
    since = None if old.age_years is None else today - round(365.25 * old.age_years)
    return FollowedBank(
        title, old.battery_class, round(old.series * old.unit_v / old.battery_class.cell_v),
        old.parallel * old.unit_ah, old.battery_class.rated_hours, _exponents(limits.assumptions, key), since,
        expected, old.unit_v, health_seen(plan, limits.assumptions, limits.days.need),
        _of_class(old.battery_class), limits.assumptions.value(f"cycle_exponent.{key}"),
        wear.inputs["w_cycles"].number,
    )  # fmt: skip
