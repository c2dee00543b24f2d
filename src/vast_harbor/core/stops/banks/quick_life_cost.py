"""Life and lifetime cost of a bank in a rig, in plain numbers: for one bank or for a whole catalogue.

Compare shows the same numbers with their workings, and adds what a simulated year and the extras change.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import inf

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.ageing import (
    cycle_wear,
    cycles_at_depth,
    emptied_wear,
    rate_wear_factor,
    wear_at_health,
    wear_when_bought,
)
from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.chemistry import Range
from vast_harbor.core.battery.datasheet import widened
from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, life_years, lifetime, stacked
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import WATCHED, WORKSHOP, Candidate, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks.purchase_price import Purchase, purchase
from vast_harbor.core.stops.banks.rig_limits import RigLimits
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.rig import old_bank_kg


@dataclass(frozen=True, slots=True)
class YearOfUse:
    """What a simulated year did to a bank, in plain numbers.

    Attributes:
        cycle_wear: Σ n_i/N(d_i) of its counted cycles [1/year].
        short_share: share of the off-grid days that did not end full [-].
        emptied, low: times emptied, and times below a fifth for over a day [1/year].
        through_kwh: energy taken from it [kWh/year].
        hook_up: share of its charge that came from hook-up [-]; None where none came at all.
        fuel: generator fuel [money/year].
        elsewhere: nights that are spoilt for want of energy [1/year].
        critical_share: share of the critical energy that is not served [-].
        critical_nights: nights without it [1/year].
    """

    cycle_wear: float
    short_share: float
    emptied: float
    low: float
    through_kwh: float
    hook_up: float | None
    fuel: float
    elsewhere: float = 0.0
    critical_share: float = 0.0
    critical_nights: float = 0.0


@dataclass(frozen=True, slots=True)
class Extras:
    """What comes with a bank in addition to the batteries.

    Attributes:
        once: bought with it, labour included [money].
        again: (price, life) of what is bought again after its life [money], [years].
    """

    once: float = 0.0
    again: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True, slots=True)
class Use:
    """How a rig uses a bank in a year, in plain numbers.

    Attributes:
        cycles_per_year: from one charge to the next [1/year].
        depth: of each, of the nameplate [-].
        cycles_at_depth: how many it lasts at that depth; infinite without use.
        design_cycles: how many it lasts at the planned depth.
        rate_factor: f_rate [-].
        penalty, short_share: what days short of full add, and their share [-].
        cycle_wear: wear by cycles [1/year].
        accidents: wear by mistakes of its owner [1/year].
        emptied: wear by the times that use itself empties it [1/year].
        kwh: energy delivered [kWh/year].
        lost_kwh: bought energy lost in charging [kWh/year].
        mains_share: share of the charge that is bought [-].
        fuel: generator fuel [money/year].
        elsewhere: nights that are spoilt for want of energy [1/year].
        critical: nights on which critical loads go without, beyond what may be [1/year].
    """

    cycles_per_year: float
    depth: float
    cycles_at_depth: float
    design_cycles: float
    rate_factor: float
    penalty: float
    short_share: float
    cycle_wear: float
    accidents: float
    emptied: float
    kwh: float
    lost_kwh: float
    mains_share: float
    fuel: float
    elsewhere: float
    critical: float


NO_EXTRAS = Extras()


# How often electronics fail against what is usual, by what backs the datasheet up.
BY_GRADE = {"A": 2 / 3, "B": 1.0, "C": 4 / 3}


# How long they last against what is usual, likewise.
LASTS_BY_GRADE = {"A": 1.15, "B": 1.0, "C": 0.85}


def class_years(assumptions: Assumptions, key: str) -> float:
    """The long end of the calendar life of a class [years]."""
    life = assumptions.get(f"calendar_years.{key}")
    return max(life.high or 0.0, life.value or 0.0)


def most_years(assumptions: Assumptions, model: BatteryModel) -> float:
    """Years that no bank of a model is credited with more than [years]: the long end of the calendar life of
    its class; for LFP no longer than the electronics of its BMS last."""
    most = class_years(assumptions, model.battery_class.key)
    if model.battery_class.is_lead_acid:
        return most
    return min(most, assumptions.value("electronics_years") * LASTS_BY_GRADE[model.grade])


def about(of_class: Range, grade: str) -> tuple[float, float]:
    """(low, high) of a class against its likely value, wider the less backs up the datasheet [-]."""
    ratio = 1 / of_class.likely
    return widened(of_class.low * ratio, 1.0, of_class.high * ratio, grade)


@dataclass(frozen=True)
class QuickLifeCost:
    """What banks cost and how long they last in a rig.

    Attributes:
        rig_limits: the rig as a bank meets it.
    """

    rig_limits: RigLimits

    @property
    def _assume(self) -> Assumptions:
        return self.rig_limits.assumptions

    @cached_property
    def old_bank(self) -> float:
        """What the old bank fetches, sold or as scrap [money]."""
        old = self.rig_limits.plan.old_bank
        if old is None:
            return 0.0
        if old.sale_price is not None:
            return old.sale_price
        return (
            self.rig_limits.old_kg * self._assume.value("scrap_per_kg")
            if old.battery_class.is_lead_acid
            else 0.0
        )

    @property
    def accidents(self) -> float:
        """Deep accidents expected a year, with the disconnect and the warning that this rig has [1/year]."""
        value, plan = self._assume.value, self.rig_limits.plan
        count, without = value("accidents_per_year"), value("accidents_no_disconnect")
        count *= {"none": without, "not_critical": (1 + without) / 2}.get(plan.disconnect, 1.0)
        return count * (value("accidents_watched") if plan.watched == WATCHED else 1.0)

    def agm_factor(self, key: str) -> float:
        """Factor on cycles and years of AGM by the house rule [-]."""
        return self._assume.value("agm_life_factor") if key == "agm" else 1.0

    def life_factor(self, key: str) -> float:
        """Factor on cycles and years of a class: the house rule's, times what the old bank says of it [-]."""
        seen = self.rig_limits.predecessor(key)
        return self.agm_factor(key) * (seen.number if seen is not None else 1.0)

    def bought(self, bank: Bank, candidate: Candidate | None = None) -> Purchase:
        """What it costs to buy."""
        return purchase(self.rig_limits.plan, self._assume.value("price_factor"), bank, candidate)

    def price(self, model: BatteryModel) -> float:
        """What one battery is paid for, discount and tax included [money]."""
        return self.bought(Bank(model, 1, 1)).unit_paid

    def purchase(self, bank: Bank) -> float:
        """Batteries to buy, with delivery, deposit and spare [money]."""
        return self.bought(bank).total

    def swap_labour(self) -> float:
        """Labour for each replacement [money]."""
        assume = self._assume
        if self.rig_limits.plan.labour == WORKSHOP and not assume.overridden("swap_labour"):
            return assume.value("install_hours") * assume.value("workshop_rate")
        return assume.value("swap_labour")

    def swap(self, bank: Bank) -> float:
        """Labour less scrap at each replacement [money]."""
        scrap = self._assume.value("scrap_per_kg") if bank.model.battery_class.is_lead_acid else 0.0
        return self.swap_labour() - bank.kg * scrap

    def start_wear(self, bank: Bank) -> float:
        """Wear when it is bought; 0 for a new one [-]."""
        model, key = bank.model, bank.model.battery_class.key
        if model.used is None:
            return 0.0
        dod = self.rig_limits.days.need.classes[key].dod.number
        cycles = cycles_at_depth(model.cycles, self._assume.value(f"cycle_exponent.{key}"), dod)
        years = self._assume.value(f"calendar_years.{key}")
        return wear_when_bought(model.used.cycles_made, cycles, model.used.age_years, years, model.health)

    def use(self, bank: Bank, year: YearOfUse | None = None) -> Use:
        """How the rig uses a bank: by a simulated year, or by hand.

        By hand it makes off-grid nights / N cycles a year, each of depth N · E_bank / nameplate (at most 1).

        Args:
            bank: its layout.
            year: what a simulated year did to it; None for the hand estimate.

        Returns:
            The use in numbers.
        """
        limits, assume = self.rig_limits, self._assume
        days, model, key = limits.days, bank.model, bank.model.battery_class.key
        n, day, lasts = days.need.nights.number, days.day.bank_wh.number, self.life_factor(key)
        exponent = assume.value(f"cycle_exponent.{key}")
        per_year, depth = limits.plan.off_grid_nights / n, min(1.0, n * day / bank.nameplate_wh)
        stands = cycles_at_depth(model.cycles, exponent, depth) * lasts
        at_design = cycles_at_depth(model.cycles, exponent, days.need.classes[key].dod.number)
        design = at_design * self.agm_factor(key)
        limit = model.battery_class.wear_c_rate * bank.rated_ah
        hard = rate_wear_factor(days.need.classes[key].mean_current.number, limit)
        penalty = assume.value(f"short_of_full_penalty.{key}")
        short, mains = assume.value("short_of_full_share"), assume.value("mains_share")
        each = assume.value("wear_per_accident") if model.battery_class.is_lead_acid else 0.0
        accidents, emptied, fuel, elsewhere, critical = self.accidents * each, 0.0, 0.0, 0.0, 0.0
        cycles = 0.0 if stands == inf else per_year / stands
        kwh = min(day, limits.usable_wh(bank) / n) * limits.plan.off_grid_nights / 1000
        if year is not None:
            if not assume.overridden("short_of_full_share"):
                short = year.short_share
            if not assume.overridden("mains_share") and year.hook_up is not None:
                mains = year.hook_up
            cycles, kwh, fuel = year.cycle_wear / lasts, year.through_kwh, year.fuel
            elsewhere = year.elsewhere
            critical, may = year.critical_nights, assume.value("verdict_critical")
            critical *= max(0.0, 1 - may / year.critical_share) if critical > 0 else 0.0
            emptied = emptied_wear(year.emptied, each, year.low) if each else 0.0
        lost = kwh * (1 / assume.value(f"energy_efficiency.{key}") - 1) * mains
        return Use(
            per_year, depth, stands, design, hard, penalty, short, cycle_wear(cycles, hard, penalty, short),
            accidents, emptied, kwh, lost, mains, fuel, elsewhere, critical,
        )  # fmt: skip

    def inputs(
        self,
        bank: Bank,
        year: YearOfUse | None = None,
        candidate: Candidate | None = None,
        extras: Extras = NO_EXTRAS,
    ) -> LifeCostInputs:
        """A bank in numbers, as life and cost are computed from them.

        Args:
            bank: its layout.
            year: what a simulated year did to it; None for the hand estimate.
            candidate: with its quote and spare; None for the catalogue's price.
            extras: what comes with it.

        Returns:
            What :func:`vast_harbor.core.cost.life_cost.life_years` and ``lifetime`` take.
        """
        limits, assume = self.rig_limits, self._assume
        plan, need, model = limits.plan, limits.days.need, bank.model
        battery_class, key = model.battery_class, model.battery_class.key
        lead, use, bought = battery_class.is_lead_acid, self.use(bank, year), self.bought(bank, candidate)
        new = limits.usable_wh(bank, 1.0)
        water = assume.value("water_cost") if battery_class.water else 0.0
        return LifeCostInputs(
            id=candidate.id if candidate is not None else "",
            lead=lead,
            batteries=bought.total,
            extras=extras.once,
            again=extras.again,
            old_bank=self.old_bank,
            drift=assume.value("drift.lead_acid" if lead else "drift.lfp"),
            swap=self.swap(bank),
            maintenance=assume.value(f"care_hours.{key}") * assume.value("hour_rate") + water,
            lost_kwh=use.lost_kwh,
            tariff=assume.value("tariff"),
            fuel=use.fuel,
            elsewhere=use.elsewhere * assume.value("night_elsewhere")
            + use.critical * assume.value("critical_night"),
            exit_share=assume.value("exit_share"),
            refit=assume.value("exit_refit"),
            discount=assume.value("discount_rate"),
            nights=plan.off_grid_nights,
            cycle_wear=use.cycle_wear,
            exponent=assume.value(f"cycle_exponent.{key}"),
            years_25=assume.value(f"calendar_years.{key}") * self.life_factor(key),
            use_c=limits.ageing.number,
            rest_c=limits.rest_c,
            accidents=use.accidents,
            emptied=use.emptied,
            worn_out=float(wear_at_health(assume.value("worn_out.lead_acid"), True)) if lead else 0.0,
            covers=need.nights.number * limits.days.day.bank_wh.number / new if new > 0 else inf,
            health_floor=assume.value("worn_out_floor.lfp"),
            start_wear=self.start_wear(bank),
            used=model.used is not None,
            most_years=most_years(assume, model),
            electronics=0.0 if lead else assume.value("electronics_failure") * BY_GRADE[model.grade],
            basis=plan.life_basis or assume.rule.life_basis,
            label_years=use.design_cycles / use.cycles_per_year if use.cycles_per_year > 0 else inf,
            warranty_years=model.warranty.years,
            full_years=model.warranty.full_years,
            price=(bought.low, bought.high),
            cycles=about(battery_class.cycles, model.grade),
            calendar=about(battery_class.calendar_years, model.grade),
            careful_years=self.careful_years(model),
            model=limits.first_of_datasheet(model),
        )

    def careful_years(self, model: BatteryModel) -> float:
        """The short end of the calendar life of a model [years]."""
        key = model.battery_class.key
        low, _ = about(model.battery_class.calendar_years, model.grade)
        return self._assume.value(f"calendar_years.{key}") * self.life_factor(key) * low

    def years(self, bank: Bank) -> float:
        """Life by the basis in force, by hand [years]; infinite where nothing ends it."""
        return float(life_years(self.inputs(bank)))

    def lifetime(self, bank: Bank) -> float:
        """Lifetime cost over the years of keeping, by hand and without extras [money]."""
        return float(lifetime(self.inputs(bank), AS_PLANNED, self.rig_limits.plan.years_kept))

    def of_all(self, banks: Sequence[Bank]) -> tuple[Floats, Floats]:
        """Life [years] and lifetime cost [money] of many banks at once, each of shape (banks,)."""
        inputs = stacked([self.inputs(bank) for bank in banks])
        return life_years(inputs), lifetime(inputs, AS_PLANNED, self.rig_limits.plan.years_kept)


def quick_life_cost(plan: Plan, reference: Reference, assumptions: Assumptions, days: Days) -> QuickLifeCost:
    """What banks meet, cost and last in a rig."""
    old_kg = old_bank_kg(plan)
    kg = old_kg.number if old_kg is not None else 0.0
    return QuickLifeCost(RigLimits(plan, reference, assumptions, days, kg))
