"""How far the rig's own figures are in doubt, for the sampled costs."""

from vast_harbor.core.cost.life_cost import LifeCostInputs
from vast_harbor.core.cost.monte_carlo import Uncertainty, spread
from vast_harbor.core.rig.assumptions import Assumption, Assumptions


def uncertainty_of(assumptions: Assumptions) -> Uncertainty:
    """How far use, prices, tariff, temperature, accidents and what remedies cost may come differently.

    Use lies between that of careful and of careless people; the others within the ranges of their
    assumptions, moved along with a value that the owner set.
    """
    careful, careless = assumptions.value("habit_careful"), assumptions.value("habit_careless")
    tariff = assumptions.get("tariff")
    middle = tariff.value or 0.0
    share = (1.0, 1.0)
    if middle > 0 and tariff.low is not None and tariff.high is not None and tariff.default:
        share = tariff.low / tariff.default, tariff.high / tariff.default
    doubt, end = assumptions.value("extras_doubt"), assumptions.get("worn_out.lead_acid")
    kappa = assumptions.get("exit_share")
    return Uncertainty(
        use=(careful, careless),
        drift_lead=_moved(assumptions.get("drift.lead_acid")),
        drift_lfp=_moved(assumptions.get("drift.lfp")),
        tariff=share,
        warmer=assumptions.value("temperature_doubt"),
        failures=assumptions.value("early_failure"),
        accidents=_ratio(assumptions.get("accidents_per_year")),
        accident_wear=_ratio(assumptions.get("wear_per_accident")),
        # Who stated at which health they replace it, knows.
        end_health=None if end.changed else (end.low or 0.8, end.value or 0.8, end.high or 0.8),
        exit=_ratio(kappa) if not kappa.changed else (1.0, 1.0),
        extras=(1 - doubt / 2, 1 + doubt),
        electronics=_ratio(assumptions.get("electronics_years")),
    )


def weigh(assumptions: Assumptions, middle: float, dear: float) -> float:
    """P50 + λ·(P90 − P50): the cost in the middle, the dear futures weighed too [money]."""
    return middle + assumptions.value("verdict_risk") * (dear - middle)


def weighed_cost(inputs: LifeCostInputs, assumptions: Assumptions, years: float) -> float:
    """What one bank costs over the simulated scenarios, the expensive ones weighed too [money].

    Args:
        inputs: the bank in numbers.
        assumptions: what holds for the plan.
        years: H, of keeping.
    """
    _, middle, dear = spread(inputs, uncertainty_of(assumptions), years)
    return weigh(assumptions, middle, dear)


def _moved(a: Assumption) -> tuple[float, float, float]:
    value, default = a.value or 0.0, a.default or 0.0
    low = default if a.low is None else a.low
    high = default if a.high is None else a.high
    return value + (low - default), value, value + (high - default)


def _ratio(a: Assumption) -> tuple[float, float]:
    """(low, high) of a range against its default [-]; certain where there is none."""
    if not a.default or a.low is None or a.high is None:
        return 1.0, 1.0
    return a.low / a.default, a.high / a.default
