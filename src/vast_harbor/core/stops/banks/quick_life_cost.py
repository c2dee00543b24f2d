"""Life and lifetime cost of a bank in plain numbers, for very many banks at once.

Life and Cost of a candidate say the same with workings; a test holds the two against each other.
"""

from dataclasses import dataclass
from functools import cached_property
from math import inf

from vast_harbor.core.battery.ageing import (
    LEAST_YEARS,
    calendar_wear,
    cycles_at_depth,
    health_at_replacement_lfp,
    rate_wear_factor,
    wear_at_health,
)
from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.temperature import calendar_years
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import WORKSHOP, Plan, Reference
from vast_harbor.core.stops.banks.rig_limits import RigLimits
from vast_harbor.core.stops.need.governing_day import Days
from vast_harbor.core.stops.rig.old_bank import old_bank_kg


@dataclass(frozen=True)
class QuickLifeCost:
    """What banks come to over the years in a rig.

    Attributes:
        rig_limits: the rig as a bank meets it.
        old_batteries: lead-acid batteries that can be handed in for a deposit.
        old_scrap: what the old bank fetches [money].
    """

    rig_limits: RigLimits
    old_batteries: int
    old_scrap: float

    @cached_property
    def _calendar(self) -> dict[str, float]:
        """Wear a year by age, by class."""
        plan, assume = self.rig_limits.plan, self.rig_limits.assumptions
        use, rest = self.rig_limits.days.need.day.battery_c.number, self.rig_limits.rest_c()
        share = min(1.0, plan.off_grid_nights / 365)
        out = {}
        for key in self.rig_limits.reference.classes:
            years = assume.value(f"calendar_years.{key}") * self._agm(key)
            out[key] = calendar_wear(calendar_years(years, use), calendar_years(years, rest), share)
        return out

    def _agm(self, key: str) -> float:
        return self.rig_limits.assumptions.value("agm_life_factor") if key == "agm" else 1.0

    def price(self, model: BatteryModel) -> float:
        """What one is paid for, discount and tax included [money]."""
        factor = 1.0 if model.own else self.rig_limits.assumptions.value("price_factor")
        return model.price * factor * (1 - model.offer.discount) * (1 + model.offer.tax)

    def purchase(self, bank: Bank) -> float:
        """Batteries to buy, with delivery, deposit and spare [money]."""
        offer, used = bank.model.offer, bank.model.used
        count = bank.units + (1 if used is not None and used.spare else 0)
        due = max(0, bank.units - self.old_batteries)
        return count * self.price(bank.model) + offer.delivery + due * offer.deposit

    def years(self, bank: Bank) -> float:
        """Life by the basis in force [years]; infinite where nothing ends it."""
        rig_limits, model = self.rig_limits, bank.model
        plan, assume, need = rig_limits.plan, rig_limits.assumptions, rig_limits.days.need
        battery_class, key = model.battery_class, model.battery_class.key
        n, day = need.nights.number, rig_limits.days.day.bank_wh.number
        of_class = need.classes[key]
        exponent = assume.value(f"cycle_exponent.{key}")
        depth, per_year = min(1.0, n * day / bank.nameplate_wh), plan.off_grid_nights / n
        stands = cycles_at_depth(model.cycles, exponent, depth) * self._agm(key)
        hard = rate_wear_factor(of_class.mean_current.number, battery_class.wear_c_rate * bank.rated_ah)
        short = assume.value(f"short_of_full_penalty.{key}") * assume.value("short_of_full_share")
        wear = (0.0 if stands == inf else per_year / stands * hard * (1 + short)) + self._calendar[key]
        lead = battery_class.is_lead_acid
        if lead:
            wear += assume.value("accidents_per_year") * assume.value("wear_per_accident")
            end = assume.value("worn_out.lead_acid")
        else:
            end = health_at_replacement_lfp(
                n * day, rig_limits.usable_wh(bank, 1.0), assume.value("worn_out_floor.lfp")
            )
        design = cycles_at_depth(model.cycles, exponent, of_class.dod.number)
        start = 0.0
        if model.used is not None:
            made = model.used.cycles_made / design
            made += model.used.age_years / assume.value(f"calendar_years.{key}")
            start = max(made, (1 - model.health) / 0.2)
        likely = max(LEAST_YEARS if start else 0.0, (wear_at_health(end, lead) - start) / wear)
        basis = plan.life_basis or assume.rule.life_basis
        if basis == "warranty" and model.warranty.years > 0:
            return min(likely, model.warranty.years)
        if basis == "label_cycles":
            return design * self._agm(key) / per_year if per_year > 0 else inf
        return likely

    def lifetime(self, bank: Bank) -> float:
        """Lifetime cost over the years of keeping, without extras [money]."""
        rig_limits, key = self.rig_limits, bank.model.battery_class.key
        plan, assume, need = rig_limits.plan, rig_limits.assumptions, rig_limits.days.need
        lead = bank.model.battery_class.is_lead_acid
        daily = min(rig_limits.days.day.bank_wh.number, rig_limits.usable_wh(bank) / need.nights.number)
        kwh = daily * plan.off_grid_nights / 1000
        lost = kwh * (1 / assume.value(f"energy_efficiency.{key}") - 1)
        running = assume.value(f"care_hours.{key}") * assume.value("hour_rate")
        running += assume.value("water_cost") if bank.model.battery_class.water else 0.0
        running += lost * assume.value("tariff") * assume.value("mains_share")
        labour = assume.value("swap_labour")
        if plan.labour == WORKSHOP and not assume.overridden("swap_labour"):
            labour = assume.value("install_hours") * assume.value("workshop_rate")
        swap = labour - (bank.kg * assume.value("scrap_per_kg") if lead else 0.0)
        costs = cash_flow.Costs(
            self.purchase(bank), 0.0, self.old_scrap, assume.value(f"drift.{'lead_acid' if lead else 'lfp'}"),
            swap, running, assume.value("exit_share"), assume.value("discount_rate"),
            assume.value("exit_refit"),
        )  # fmt: skip
        return cash_flow.lifetime_cost(costs, self.years(bank), plan.years_kept)


def quick_life_cost(plan: Plan, reference: Reference, assumptions: Assumptions, days: Days) -> QuickLifeCost:
    """What banks meet, and come to, in a rig."""
    old_kg = old_bank_kg(plan)
    old = plan.old_bank
    lead = old is not None and old.battery_class.is_lead_acid
    kg = old_kg.number if old_kg is not None else 0.0
    scrap = kg * assumptions.value("scrap_per_kg") if lead else 0.0
    if old is not None and old.sale_price is not None:
        scrap = old.sale_price
    count = old.series * old.parallel if old is not None and lead else 0
    return QuickLifeCost(RigLimits(plan, reference, assumptions, days, kg), count, scrap)
