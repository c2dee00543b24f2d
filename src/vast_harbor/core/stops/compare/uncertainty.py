"""How far the rig's own figures are in doubt, for the sampled costs."""

from vast_harbor.core.cost.monte_carlo import Uncertainty
from vast_harbor.core.rig.assumptions import Assumption, Assumptions


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
