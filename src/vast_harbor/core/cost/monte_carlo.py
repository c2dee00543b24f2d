"""Drawn futures: what is not known comes differently in each, for all banks together or for each its own."""

from collections.abc import Sequence
from dataclasses import dataclass, fields
from functools import lru_cache
from typing import Any
from zlib import crc32

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, Scenario, lifetime, spent

COUNT = 5000
SEED = 20_260
# Banks one after the other whose early failure is drawn; later ones last as calculated.
FAILURES = 3
# Streams of draws: of the rig, then of each bank.
_OF_RIG, _OF_BANK = 9, 5 + FAILURES


def triangular(uniform: Floats, low: float, likely: float, high: float) -> Floats:
    """Floats of a triangular distribution at given quantiles.

    Args:
        uniform: quantiles between 0 and 1.
        low, likely, high: ascending; all equal for a certain value.

    Returns:
        Floats, in the shape of ``uniform``.

    Source: inverse of the distribution function, Johnson, The Statistician 46 (1997) 387–398.
    """
    width = high - low
    if width <= 0:
        return np.full(uniform.shape, likely)
    rise = (likely - low) / width
    left = low + np.sqrt(uniform * width * (likely - low))
    right = high - np.sqrt((1 - uniform) * width * (high - likely))
    return np.where(uniform < rise, left, right)


# The same futures after every edit, so that a figure moves only by what was edited.
@lru_cache(maxsize=4)
def _uniform(stream: str, rows: int, count: int) -> Floats:
    rng = np.random.default_rng([SEED, crc32(stream.encode())])
    if count >= COUNT:
        return rng.random((rows, count))
    # Few draws are spread evenly over each quantity (Latin hypercube; McKay, Technometrics 21, 1979).
    strata = rng.permuted(np.tile(np.arange(count), (rows, 1)), axis=1)
    return np.asarray((strata + rng.random((rows, count))) / count)


# Few of the ranges move with an edit.
@lru_cache(maxsize=64)
def _drawn(stream: str, rows: int, row: int, range_: tuple[float, float, float], count: int) -> Floats:
    values = triangular(_uniform(stream, rows, count)[row], *range_)
    values.setflags(write=False)
    return values


@dataclass(frozen=True, slots=True)
class Uncertainty:
    """How far the rig's own figures may come differently.

    Attributes:
        use: (low, high) of the use against what is planned [-].
        drift_lead, drift_lfp: (low, likely, high) of the yearly change of prices [1/year].
        tariff: (low, high) against the likely one [-].
        warmer: how far the battery may be warmer or cooler [K].
        accidents, accident_wear: (low, high) of their number and of the wear of each, against the likely [-].
        end_health: (low, likely, high) state of health at which lead-acid is replaced [-].
        exit: (low, high) of the share that the last bank is worth, against the likely one [-].
        extras: (low, high) of what comes in addition, against its price [-].
        electronics: (low, high) of the years that the electronics of a BMS last, against the likely [-].
        failures: early failures a year, apart from those of the electronics of a BMS [1/year].
        width: factor on every width; 0 makes all draws the point estimate [-].
    """

    use: tuple[float, float]
    drift_lead: tuple[float, float, float]
    drift_lfp: tuple[float, float, float]
    tariff: tuple[float, float]
    warmer: float
    failures: float
    accidents: tuple[float, float] = (1.0, 1.0)
    accident_wear: tuple[float, float] = (1.0, 1.0)
    end_health: tuple[float, float, float] | None = None
    exit: tuple[float, float] = (1.0, 1.0)
    extras: tuple[float, float] = (1.0, 1.0)
    electronics: tuple[float, float] = (1.0, 1.0)
    width: float = 1.0

    def about(self, likely: float, low: float, high: float) -> tuple[float, float, float]:
        """A range about a likely value, as wide as the draws are."""
        least, most = min(low, likely), max(high, likely)
        return likely - (likely - least) * self.width, likely, likely + (most - likely) * self.width


@dataclass(frozen=True, slots=True)
class SampledCosts:
    """What the banks cost in every draw.

    Attributes:
        costs: lifetime cost, shape (banks, draws) [money].
        spent: by the times asked for, shape (banks, times, draws) [money].
    """

    costs: Floats
    spent: Floats

    def cheapest(self, among: Sequence[int]) -> dict[int, float]:
        """How often each of some banks is the cheapest of them [-]."""
        if not among:
            return {}
        first = np.argmin(self.costs[list(among)], axis=0)
        return {bank: float(np.mean(first == i)) for i, bank in enumerate(among)}

    def percentiles(self, bank: int) -> tuple[float, float, float]:
        """P10, P50 and P90 of a bank's lifetime cost [money]."""
        low, middle, high = np.percentile(self.costs[bank], (10, 50, 90))
        return float(low), float(middle), float(high)


NO_TIMES: Floats = np.zeros(0)


def sampled_scenarios(
    life_cost_inputs: Sequence[LifeCostInputs], uncertainty: Uncertainty, count: int = COUNT
) -> list[Scenario]:
    """One change for each bank, drawn ``count`` times.

    Use, drift, tariff, warmth, accidents, the health at which lead-acid is replaced and what the last bank
    fetches are common to all. Price, cycles, age, extras and failures are those of the battery: banks of one
    model share them.
    """

    def drawn(row: int, likely: float, low: float, high: float) -> Floats:
        return _drawn("", _OF_RIG, row, uncertainty.about(likely, low, high), count)

    use, tariff = drawn(0, 1.0, *uncertainty.use), drawn(1, 1.0, *uncertainty.tariff)
    warmer = drawn(2, 0.0, -uncertainty.warmer, uncertainty.warmer)
    drift = {
        lead: drawn(row, likely, low, high) - likely
        for lead, row, (low, likely, high) in (
            (True, 3, uncertainty.drift_lead), (False, 4, uncertainty.drift_lfp),
        )
    }  # fmt: skip
    accidents = drawn(5, 1.0, *uncertainty.accidents) * drawn(6, 1.0, *uncertainty.accident_wear)
    exits, end_health = drawn(7, 1.0, *uncertainty.exit), None
    if uncertainty.end_health is not None:
        low, likely, high = uncertainty.end_health
        end_health = drawn(8, likely, low, high)
    out = []
    for p in life_cost_inputs:
        stream = f"of {p.model or p.id}"

        def own(row: int, range_: tuple[float, float], stream: str = stream) -> Floats:
            return _drawn(stream, _OF_BANK, row, uncertainty.about(1.0, *range_), count)

        rate = (uncertainty.failures + p.electronics) * uncertainty.width
        fails = _times(stream, count) / rate if rate > 0 else NO_TIMES
        out.append(
            Scenario(
                price=own(0, p.price),
                cycles=own(1, p.cycles),
                calendar=own(2, p.calendar),
                extras=own(3, uncertainty.extras),
                most=1.0 if p.lead else own(4, uncertainty.electronics),
                use=use,
                accidents=accidents,
                end_health=end_health,
                exit=exits,
                tariff=tariff,
                drift=drift[bool(p.lead)],
                warmer=warmer,
                fails=fails,
            )
        )
    return out


# Waiting times of a failure a year, one bank after the other.
@lru_cache(maxsize=12)
def _times(stream: str, count: int) -> Floats:
    return np.asarray(-np.log1p(-_uniform(stream, _OF_BANK, count)[5:]))


def sample_costs(
    life_cost_inputs: Sequence[LifeCostInputs],
    uncertainty: Uncertainty,
    years: float,
    count: int = COUNT,
    at: Floats = NO_TIMES,
) -> SampledCosts:
    """Draw scenarios and cost every bank in each.

    Args:
        life_cost_inputs: the banks.
        uncertainty: of the rig's figures; those of a bank are its own.
        years: H, of keeping.
        count: draws.
        at: times at which to tell what was spent by then [years].

    Returns:
        What they cost.
    """
    costs, paid = np.zeros((len(life_cost_inputs), count)), np.zeros((len(life_cost_inputs), len(at), count))
    for i, p in enumerate(life_cost_inputs):
        costs[i] = drawn_costs(p, uncertainty, years, count)
        if len(at):
            (scenario,) = sampled_scenarios((p,), uncertainty, count)
            paid[i] = spent(p, scenario, years, at)
    return SampledCosts(costs, paid)


# The same bank is asked for by its money, by the verdict and by the search.
@lru_cache(maxsize=160)
def drawn_costs(p: LifeCostInputs, uncertainty: Uncertainty, years: float, count: int = COUNT) -> Floats:
    """What one bank costs in every draw, shape (count,) [money]; arguments as of :func:`sample_costs`."""
    (scenario,) = sampled_scenarios((p,), uncertainty, count)
    costs = np.broadcast_to(lifetime(p, scenario, years), (count,)).astype(float)
    costs.setflags(write=False)
    return costs


def middle_cost(
    p: LifeCostInputs, uncertainty: Uncertainty, years: float, change: Scenario, count: int = COUNT
) -> float:
    """P50 of a bank's lifetime cost where something comes differently in every draw [money].

    Args:
        p, uncertainty, years, count: as of :func:`sample_costs`.
        change: what comes differently, in numbers.
    """
    if change is AS_PLANNED:
        return float(np.median(drawn_costs(p, uncertainty, years, count)))
    (scenario,) = sampled_scenarios((p,), uncertainty, count)
    costs = lifetime(p, scenario.with_change(change), years)
    return float(np.median(np.broadcast_to(costs, (count,))))


def middle_costs(
    p: LifeCostInputs, uncertainty: Uncertainty, years: Floats, nights: Floats, count: int
) -> Floats:
    """P50 of a bank's lifetime cost at many years of keeping and nights a year [money].

    Args:
        p, uncertainty, count: as of :func:`sample_costs`.
        years, nights: of one shape.

    Returns:
        Cost in that shape.
    """
    (scenario,) = sampled_scenarios((p,), uncertainty, count)
    more = (1,) * years.ndim

    def along(values: Any) -> Any:
        drawn = isinstance(values, np.ndarray) and values.ndim > 0
        return values.reshape(values.shape + more) if drawn else values

    each = {f.name: along(getattr(scenario, f.name)) for f in fields(scenario)}
    costs = lifetime(p, Scenario(**(each | {"nights": nights})), years)
    return np.asarray(np.median(np.broadcast_to(costs, (count, *years.shape)), axis=0))


def spread(p: LifeCostInputs, uncertainty: Uncertainty, years: float) -> tuple[float, float, float]:
    """P10, P50 and P90 of a bank's lifetime cost [money]; arguments as of :func:`sample_costs`.

    The middle is *the* lifetime cost of the bank, wherever it is told.
    """
    low, middle, high = np.percentile(drawn_costs(p, uncertainty, years), (10, 50, 90))
    return float(low), float(middle), float(high)
