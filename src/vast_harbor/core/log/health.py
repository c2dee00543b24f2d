"""How healthy a bank is and how long it will last: what the life model expects, moved by what was measured.

Three things are not known of a bank: how fast it wears, what it gave when it was new, and how its fade bends
on the way to its end. Each three of them on a grid are weighed by the life model (before) and by every
measurement (after): Bayes. Health over time follows the same law as in the comparison, ``battery.ageing``,
its wear bent: some banks fade evenly, some slowly at first and fast at last, some the other way round.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import log

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.ageing import health_at, wear_at_health
from vast_harbor.core.battery.health_signs import SAG_DOUBT
from vast_harbor.core.figures.normal import Z_90

TEST, COUNT, SAG, STATED = "test", "count", "sag", "stated"
# What measurements of one kind have in common, so that many of them do not make a false certainty [-]: the
# ammeter and the Peukert exponent; the zero of the shunt; the resistance that a class has when new. What is
# stated of the old bank stands once, with all its doubt.
IN_COMMON = {TEST: 0.02, COUNT: 0.04, SAG: SAG_DOUBT, STATED: 0.01}
# Now and then one is simply wrong: so often, and then it may be anything between these [-].
WRONG, ANYTHING = 0.05, 1.2
# What a new bank gives against its label, and its spread [-].
NEW, NEW_SPREAD = 1.0, 0.03
# Rates and first capacities that are looked at, within so many standard deviations.
RATES, FIRSTS, REACH = 61, 9, 3.5
# Powers of the wear by which the fade bends, and how likely each is: 1 is the even fade of the comparison.
BENDS, BENT = np.array([0.7, 1.0, 1.5, 2.2, 3.2]), np.array([0.17, 0.29, 0.19, 0.19, 0.16])
# A life that surely differs by this factor from the expected one is told [-].
NOTABLE = 1.12
# What was measured narrows little down where this share of the doubt is left [-].
NARROWED = 0.8
LONGER, SHORTER, AS_EXPECTED = "longer", "shorter", "expected"
# The fan has so many points, and goes no further than this [years].
POINTS, LONGEST_YEARS = 61, 40.0


@dataclass(frozen=True, slots=True)
class Expected:
    """What the life model says of a bank before anything is measured.

    Attributes:
        wear_a_year: likely wear [1/year], above 0.
        spread: of the wear, standard deviation of its logarithm [-].
        end: health at which it is replaced [-].
        lead: whether it is lead-acid.
    """

    wear_a_year: float
    spread: float
    end: float
    lead: bool


@dataclass(frozen=True, slots=True)
class Measured:
    """A measurement of health.

    Attributes:
        years: age of the bank then [years].
        health: capacity against the label [-].
        doubt: standard deviation, of it alone [-].
        kind: ``test``, ``count``, ``sag``, or ``stated`` under Rig.
    """

    years: float
    health: float
    doubt: float
    kind: str

    @property
    def range(self) -> tuple[float, float]:
        """Between which it is in eight of ten cases [-]."""
        return self.health - Z_90 * self.doubt, self.health + Z_90 * self.doubt


Three = tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Health:
    """Health of a bank over its life.

    Attributes:
        ages: [years], shape (n,).
        low, likely, high: P10, P50 and P90 of its health at those ages [-], shape (n,).
        now: the same three, now [-].
        ends: P10, P50 and P90 of the age at which it is replaced [years].
        before: the same, by the life model alone [years].
        faster: wear a year against what was expected, P10, P50 and P90 [-].
        soon: how likely it is replaced within a year from now [-].
    """

    ages: Floats
    low: Floats
    likely: Floats
    high: Floats
    now: Three
    ends: Three
    before: Three
    faster: Three
    soon: float

    def test_helps(self, kinds: Collection[str]) -> bool:
        """Whether a capacity test would tell much: none was made, and what was measured narrowed little down.

        Args:
            kinds: of what was measured.
        """
        before, after = (ends[2] - ends[0] for ends in (self.before, self.ends))
        return TEST not in kinds and after > NARROWED * before

    @property
    def lasts(self) -> str:
        """Whether it surely lasts ``longer`` or ``shorter`` than its life model says; else ``expected``."""
        if self.ends[0] > NOTABLE * self.before[1]:
            return LONGER
        return SHORTER if self.ends[2] * NOTABLE < self.before[1] else AS_EXPECTED


def followed(expected: Expected, measured: Sequence[Measured], now: float) -> Health:
    """Health by the life model and all that was measured.

    Args:
        expected: what the life model says.
        measured: in any order; none at all leaves what was expected.
        now: age of the bank [years].

    Returns:
        The fan, and when it ends.
    """
    z = np.linspace(-REACH, REACH, RATES)
    x = np.linspace(-REACH, REACH, FIRSTS)
    grid = _Grid(expected, expected.wear_a_year * np.exp(expected.spread * z), NEW + NEW_SPREAD * x)
    prior = -0.5 * (z[:, None, None] ** 2 + x[None, :, None] ** 2) + np.log(BENT)
    weight = _weights(prior)
    before = _three(grid.ages_at_end, weight)
    for kind in IN_COMMON:
        prior = prior + _likelihood(grid, [m for m in measured if m.kind == kind])
    weight = _weights(prior)
    ends = _three(grid.ages_at_end, weight)
    longest = min(LONGEST_YEARS, max(1.25 * now, 1.1 * ends[2], 1.0))
    ages = np.linspace(0.0, longest, POINTS)
    curves = [_three(grid.health(age), weight) for age in ages]
    low, likely, high = (np.array(part) for part in zip(*curves, strict=True))
    times = np.broadcast_to(grid.rates[:, None, None] / expected.wear_a_year, weight.shape)
    return Health(
        ages, low, likely, high, _three(grid.health(now), weight), ends, before,
        _three(times, weight), float(weight[grid.ages_at_end <= now + 1].sum()),
    )  # fmt: skip


@dataclass(frozen=True)
class _Grid:
    """Everything that a bank could be.

    Attributes:
        expected: what the life model says.
        rates: wears a year [1/year], shape (r,).
        firsts: health when new [-], shape (f,).
    """

    expected: Expected
    rates: Floats
    firsts: Floats

    def health(self, age: float) -> Floats:
        """Health at an age [years] of each [-], shape (r, f, bends)."""
        wear = (self.rates[:, None] * age) ** BENDS
        found: Floats = self.firsts[None, :, None] * health_at(wear, self.expected.lead)[:, None, :]
        return found

    @cached_property
    def ages_at_end(self) -> Floats:
        """Age at which the health of each has come down to the end [years]; 0 where it began below it, shape
        (r, f, bends)."""
        wear = np.maximum(0.0, wear_at_health(self.expected.end / self.firsts, self.expected.lead))
        bent = wear[:, None] ** (1 / BENDS)
        ages: Floats = np.minimum(LONGEST_YEARS, bent[None] / self.rates[:, None, None])
        return ages


def _weights(logs: Floats) -> Floats:
    weight = np.exp(logs - logs.max())
    shares: Floats = weight / weight.sum()
    return shares


def _three(values: Floats, weight: Floats) -> Three:
    """P10, P50 and P90 of weighed values."""
    order = np.argsort(values, axis=None)
    share = np.cumsum(weight.ravel()[order]) - 0.5 * weight.ravel()[order]
    low, likely, high = np.interp((0.1, 0.5, 0.9), share, values.ravel()[order])
    return float(low), float(likely), float(high)


def _likelihood(grid: _Grid, measured: Sequence[Measured]) -> Floats | float:
    """Logarithm of how well each of the grid explains the measurements of one kind, shape of the grid.

    What they have in common is an error of its own: the likeliest, found from those that are not wrong.
    """
    if not measured:
        return 0.0
    common = IN_COMMON[measured[0].kind]
    off = np.stack([m.health - grid.health(m.years) for m in measured])
    doubt = np.array([m.doubt for m in measured])[:, None, None, None]
    bad = np.log(WRONG * doubt * np.sqrt(2 * np.pi) / ANYTHING)
    trust = np.ones_like(off)
    for _ in range(3):
        precision = trust / doubt**2
        shared = (off * precision).sum(0) / (precision.sum(0) + 1 / common**2)
        good = np.log1p(-WRONG) - 0.5 * ((off - shared) / doubt) ** 2
        trust = np.exp(good - np.logaddexp(good, bad))
    found: Floats = np.logaddexp(good, bad).sum(0) - 0.5 * (shared / common) ** 2
    return found


def spread_of(low: float, high: float) -> float:
    """Standard deviation of the logarithm of what lies between two values eight times of ten [-]."""
    return max(0.1, log(high / low) / (2 * Z_90))
