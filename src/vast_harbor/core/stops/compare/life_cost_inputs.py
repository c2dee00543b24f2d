"""Candidates as plain numbers, and how far the rig's own figures are in doubt."""

from math import inf

from vast_harbor.core.battery.ageing import wear_at_health
from vast_harbor.core.battery.chemistry import Range
from vast_harbor.core.battery.datasheet import widened
from vast_harbor.core.cost.life_cost import LifeCostInputs
from vast_harbor.core.cost.monte_carlo import Uncertainty
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumption, Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.need.governing_day import Days


def inputs_of(compared: ComparedBank, plan: Plan, assumptions: Assumptions, days: Days) -> LifeCostInputs:
    """A candidate in numbers.

    Args:
        compared: the candidate with its workings.
        plan, assumptions, days: the plan and what holds for it.

    Returns:
        What its life and money are made of; :func:`vast_harbor.core.cost.life_cost.lifetime` gives them back.
    """
    banked, life, cost, need = compared.banked, compared.life, compared.cost, days.need
    battery_class, model = banked.battery_class, banked.bank.model if banked.bank is not None else None
    assert model is not None
    key, lead, costs = battery_class.key, battery_class.is_lead_acid, cost.costs
    agm = assumptions.value("agm_life_factor") if key == "agm" else 1.0
    expected = assumptions.value("accidents_per_year") * assumptions.value("wear_per_accident") * lead
    without_reserve, new = need.nights.number * days.day.bank_wh.number, banked["usable_new_wh"].number
    per_year, design = life["cycles_per_year"].number, life["design_cycles"].number
    end = assumptions.value("worn_out.lead_acid")
    start = banked.figures.get("start_wear")
    price = banked["unit_price"]
    return LifeCostInputs(
        id=compared.id,
        lead=lead,
        batteries=costs.batteries,
        extras=costs.extras,
        again=costs.again,
        old_bank=costs.old_bank,
        drift=costs.drift,
        swap=costs.swap,
        care=cost["care"].number + cost["water"].number,
        lost_kwh=cost["lost_kwh"].number,
        tariff=assumptions.value("tariff"),
        fuel=cost["fuel"].number,
        exit_share=costs.exit_share,
        refit=costs.refit,
        discount=costs.discount,
        nights=plan.off_grid_nights,
        cycle_wear=life["cycle_wear"].number,
        exponent=assumptions.value(f"cycle_exponent.{key}"),
        years_25=assumptions.value(f"calendar_years.{key}") * agm,
        use_c=need.day.battery_c.number,
        rest_c=derating.rest_temperature(plan, assumptions).number,
        accidents=expected,
        emptied=life["accident_wear"].number - expected,
        worn_out=wear_at_health(end, lead) if lead else 0.0,
        covers=without_reserve / new if new > 0 else inf,
        health_floor=assumptions.value("worn_out_floor.lfp"),
        start_wear=start.number if start is not None else 0.0,
        used=model.used is not None,
        basis=plan.life_basis or assumptions.rule.life_basis,
        label_years=design / per_year if per_year > 0 else inf,
        warranty_years=model.warranty.years,
        full_years=model.warranty.full_years,
        price=_against(price.low, price.value, price.high),
        cycles=_about(battery_class.cycles, model.grade),
        calendar=_about(battery_class.calendar_years, model.grade),
    )


def _against(low: float | None, likely: float | None, high: float | None) -> tuple[float, float]:
    if not likely or low is None or high is None:
        return 1.0, 1.0
    return low / likely, high / likely


def _about(of_class: Range, grade: str) -> tuple[float, float]:
    """The range of a class against its likely value, wider the less backs up the datasheet."""
    ratio = 1 / of_class.likely
    return widened(of_class.low * ratio, 1.0, of_class.high * ratio, grade)


def uncertainty_of(assumptions: Assumptions) -> Uncertainty:
    """How far use, prices, tariff and temperature may come differently.

    Use lies between that of careful and of careless people; the others within the ranges of their
    assumptions, moved along with a value that the owner set.
    """
    careful, careless = assumptions.value("habit_careful"), assumptions.value("habit_careless")
    tariff = assumptions.get("tariff")
    middle = tariff.value or 0.0
    share = (1.0, 1.0)
    if middle > 0 and tariff.low is not None and tariff.high is not None and tariff.default:
        share = tariff.low / tariff.default, tariff.high / tariff.default
    return Uncertainty(
        use=(careful, careless),
        drift_lead=_moved(assumptions.get("drift.lead_acid")),
        drift_lfp=_moved(assumptions.get("drift.lfp")),
        tariff=share,
        warmer=assumptions.value("temperature_doubt"),
        failures=assumptions.value("early_failure"),
    )


def _moved(a: Assumption) -> tuple[float, float, float]:
    value, default = a.value or 0.0, a.default or 0.0
    low = default if a.low is None else a.low
    high = default if a.high is None else a.high
    return value + (low - default), value, value + (high - default)
