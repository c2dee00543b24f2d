"""How long a bank lasts and what it costs, in plain numbers: for one plan, for thousands of draws, for maps.

Every figure of life and money that an owner sees is a value of these functions; the stops add the workings.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from math import inf
from typing import Any

import numpy as np

from vast_harbor.core.arrays import Flags, Floats
from vast_harbor.core.battery.ageing import (
    LEAST_YEARS,
    calendar_wear,
    health_at_replacement_lfp,
    wear_at_health,
)
from vast_harbor.core.battery.temperature import calendar_years
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.cash_flow import NO_VALUES, Costs, Many

# The bases by which a life is worked out.
LIKELY, BY_WARRANTY, BY_LABEL = "likely", "warranty", "label_cycles"


@dataclass(frozen=True, slots=True)
class LifeCostInputs:
    """A bank in a rig, in numbers; or several banks, the numbers that differ as arrays.

    Attributes:
        id: of the candidate.
        lead: whether it is lead-acid.
        batteries: price of the bank, paid again at each replacement [money].
        extras: bought once for it, labour included [money].
        again: (price, life) of extras that are bought again after their life [money], [years].
        kept: (price, life, share) of extras that fetch this share of their unused life at the end [money],
            [years], [-].
        old_bank: what the old bank fetches, a credit [money].
        drift: yearly change of the batteries' price [1/year].
        swap: labour less scrap at each replacement [money].
        maintenance: money a year that does not depend on use.
        lost_kwh: bought energy lost in charging, a year [kWh]; at ``tariff`` [money/kWh].
        fuel: generator fuel a year [money].
        careful_years: the short end of the calendar life of its class, where only what is promised counts
            [years]: a warranty adds to it and never takes from it.
        elsewhere: price a year of nights that the bank does not carry [money], proportional to the nights.
        exit_share: κ [-]; ``refit``: what taking it along costs [money].
        discount: r [1/year].
        nights: off-grid nights a year for which the following hold.
        cycle_wear: wear a year by cycles [1/year], proportional to the nights.
        exponent: b of the cycle law [-].
        years_25: calendar life at 25 °C [years].
        use_c, rest_c: battery temperature in use and the rest of the year [°C].
        accidents: wear a year by accidents [1/year]; ``emptied``: the part proportional to the nights.
        worn_out: wear at which lead-acid is replaced [-].
        covers: need without reserve ÷ usable energy when new [-], and
        health_floor: lowest state of health to which LFP serves [-].
        start_wear: wear when it is bought [-]; ``used``: whether it is bought used.
        most_years: that no bank of its class is credited with more than [years].
        electronics: failures a year of the electronics of its BMS [1/year].
        basis: ``likely``, ``warranty`` or ``label_cycles``.
        label_years: years by label cycles, at ``nights`` [years].
        warranty_years, full_years: of the warranty, and the free part of them [years].
        price, cycles, calendar: (low, high) of these against the likely value [-].
        model: whose futures it shares: those of one battery come alike in any number of strings.
    """

    id: str
    lead: bool | Flags
    batteries: Many
    extras: Many
    again: tuple[tuple[float, float], ...]
    old_bank: float
    drift: Many
    swap: Many
    maintenance: Many
    lost_kwh: Many
    tariff: float
    fuel: Many
    exit_share: float
    refit: float
    discount: float
    nights: float
    cycle_wear: Many
    exponent: Many
    years_25: Many
    use_c: float
    rest_c: float
    accidents: Many
    emptied: Many
    worn_out: Many
    covers: Many
    health_floor: float
    start_wear: Many
    used: bool | Flags
    basis: str
    label_years: Many
    warranty_years: Many
    full_years: Many
    elsewhere: Many = 0.0
    careful_years: Many = 0.0
    most_years: Many = inf
    electronics: float = 0.0
    price: tuple[float, float] = (1.0, 1.0)
    cycles: tuple[float, float] = (1.0, 1.0)
    calendar: tuple[float, float] = (1.0, 1.0)
    model: str = ""
    kept: tuple[tuple[float, float, float], ...] = ()

    def scaled(self, share: float, depth: float = 1.0) -> "LifeCostInputs":
        """The bank made larger or smaller on paper.

        Args:
            share: batteries against those it has [-].
            depth: depth of its cycles against what it is now [-].
        """
        wear = self.cycle_wear * depth**self.exponent
        scrap = self.swap * share if self.swap < 0 else self.swap
        covers = self.covers / share if share > 0 else inf
        return replace(
            self, batteries=self.batteries * share, swap=scrap, cycle_wear=wear, covers=covers,
        )  # fmt: skip


@dataclass(frozen=True, slots=True)
class Scenario:
    """What comes differently than planned: numbers, or arrays that go together.

    Attributes:
        price, cycles, calendar, use, tariff, extras: factors [-].
        lasts: factor on the life, whatever wears it [-].
        most: factor on the most years that it is credited with [-].
        accidents: factor on the wear by accidents [-].
        end_health: state of health at which lead-acid is replaced [-]; None for the plan's.
        exit: factor on the share that the last bank is worth [-].
        drift: added to the yearly change of the batteries' price [1/year].
        warmer: added to the battery's temperature [K].
        nights: off-grid nights a year; None for the plan's.
        fails: age at which each bank fails early, one after the other, shape (banks, draws) [years].
    """

    price: Many = 1.0
    cycles: Many = 1.0
    calendar: Many = 1.0
    use: Many = 1.0
    tariff: Many = 1.0
    extras: Many = 1.0
    lasts: Many = 1.0
    most: Many = 1.0
    accidents: Many = 1.0
    end_health: Floats | None = None
    exit: Many = 1.0
    drift: Many = 0.0
    warmer: Many = 0.0
    nights: Many | None = None
    fails: Floats = field(default_factory=lambda: NO_VALUES)

    def with_change(self, change: "Scenario") -> "Scenario":
        """This one where something comes differently throughout: factors multiply, what is added adds up."""
        return Scenario(
            price=self.price * change.price,
            cycles=self.cycles * change.cycles,
            calendar=self.calendar * change.calendar,
            use=self.use * change.use,
            tariff=self.tariff * change.tariff,
            extras=self.extras * change.extras,
            lasts=self.lasts * change.lasts,
            most=self.most * change.most,
            accidents=self.accidents * change.accidents,
            end_health=self.end_health if change.end_health is None else change.end_health,
            exit=self.exit * change.exit,
            drift=self.drift + change.drift,
            warmer=self.warmer + change.warmer,
            nights=self.nights if change.nights is None else change.nights,
            fails=self.fails,
        )


AS_PLANNED = Scenario()


def _nights_ratio(p: LifeCostInputs, c: Scenario) -> Many:
    """Nights against those of the plan [-]."""
    if c.nights is None or p.nights <= 0:
        return 1.0
    return c.nights / p.nights


# What differs from bank to bank in one rig.
OF_EACH = (
    "lead", "batteries", "extras", "drift", "swap", "maintenance", "lost_kwh", "fuel", "cycle_wear",
    "exponent", "years_25", "accidents", "emptied", "worn_out", "covers", "start_wear", "used", "label_years",
    "warranty_years", "full_years", "most_years", "elsewhere", "careful_years",
)  # fmt: skip


def stacked(inputs: Sequence[LifeCostInputs]) -> LifeCostInputs:
    """Several banks as one set of numbers, for banks whose rig is the same and which buy no extras again.

    Args:
        inputs: of each bank; at least one.

    Returns:
        Inputs whose fields are arrays of shape (banks,).
    """
    of_each: dict[str, Any] = {name: np.array([getattr(one, name) for one in inputs]) for name in OF_EACH}
    return replace(inputs[0], **of_each)


def calendar_wear_a_year(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Floats:
    """Wear a year by age alone: the mean over the year of 1/L_cal(T) [1/year]."""
    nights = p.nights if c.nights is None else c.nights
    share = np.minimum(1.0, np.asarray(nights) / 365)
    years = p.years_25 * np.asarray(c.calendar)
    use, rest = (calendar_years(years, t + c.warmer) for t in (p.use_c, p.rest_c))
    return np.asarray(calendar_wear(use, rest, share))


def wear_a_year(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Floats:
    """Wear a year by cycles, age and accidents together, after Palmgren and Miner [1/year]."""
    more = _nights_ratio(p, c)
    cycles = p.cycle_wear * more * np.asarray(c.use) ** p.exponent / c.cycles
    deep = (p.accidents + p.emptied * more) * np.asarray(c.accidents)
    return np.asarray((cycles + calendar_wear_a_year(p, c) + deep) / c.lasts)


def wear_at_replacement(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Floats:
    """Wear at which a bank is replaced [-]: a state of health for lead-acid, no longer covering for LFP."""
    health = health_at_replacement_lfp(p.covers * np.asarray(c.use), 1.0, p.health_floor)
    worn_out = p.worn_out if c.end_health is None else wear_at_health(c.end_health, True)
    return np.where(p.lead, worn_out, wear_at_health(health, False))


def years_until_worn(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Floats:
    """Years until wear has reached that of the replacement, no more than its class is seen to last [years]; a
    used battery serves at least one."""
    with np.errstate(divide="ignore"):
        years = (wear_at_replacement(p, c) - p.start_wear) / wear_a_year(p, c)
    years = np.minimum(years, p.most_years * np.asarray(c.lasts) * c.most)
    return np.maximum(np.where(p.used, LEAST_YEARS, 0.0), years)


def life_years(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Floats:
    """Life of a bank by the basis in force [years]; infinite where nothing ends it.

    Args:
        p: the bank.
        c: what comes differently.

    Returns:
        Years, in the shape of what differs.

    Source: Palmgren–Miner over cycles, years and accidents; M. A. Miner, J. Appl. Mech. 12 (1945).
    """
    likely = years_until_worn(p, c)
    if p.basis == BY_WARRANTY:
        return np.asarray(np.minimum(likely, np.maximum(p.warranty_years, p.careful_years)))
    if p.basis == BY_LABEL:
        with np.errstate(divide="ignore"):
            label = np.asarray(p.label_years * c.cycles / np.asarray(_nights_ratio(p, c), float))
        label = np.minimum(label, p.most_years * np.asarray(c.most))
        return np.broadcast_to(label, np.broadcast_shapes(label.shape, likely.shape)) + 0.0
    return likely


def running_a_year(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Many:
    """Care, water, lost energy, fuel and nights elsewhere of a year [money]."""
    by_use = (p.lost_kwh * p.tariff * c.tariff + p.fuel) * c.use
    return p.maintenance + (by_use + p.elsewhere) * _nights_ratio(p, c)


def costs_of(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Costs:
    """What there is to pay for a bank when things come differently [money]."""
    return Costs(
        batteries=p.batteries * np.asarray(c.price, float),
        extras=p.extras * np.asarray(c.extras, float),
        old_bank=p.old_bank,
        drift=p.drift + np.asarray(c.drift, float),
        swap=p.swap,
        running=running_a_year(p, c),
        exit_share=p.exit_share * np.asarray(c.exit, float),
        discount=p.discount,
        refit=p.refit,
        again=p.again,
        kept=p.kept,
        again_share=c.extras,
        warranty_years=p.warranty_years,
        full_years=p.full_years,
    )


def lifetime(p: LifeCostInputs, c: Scenario, years: Many, *, in_full: bool = False) -> Floats:
    """Lifetime cost at present value.

    Args:
        p: the bank.
        c: what comes differently.
        years: H, of keeping.
        in_full: credit the unused life of the last bank in full (κ 1), so that cost is continuous.

    Returns:
        Cost [money], in the shape of what differs.
    """
    return cash_flow.lifetime_cost(costs_of(p, c), life_years(p, c), years, c.fails, in_full=in_full)


def spent(p: LifeCostInputs, c: Scenario, years: Many, at: Floats) -> Floats:
    """What has been spent on a bank by given times, without the worth at the end.

    Args:
        p, c, years: as of :func:`lifetime`.
        at: times, shape (times,) [years].

    Returns:
        Money, shape (times, ...).
    """
    return cash_flow.spent_by(costs_of(p, c), life_years(p, c), years, at, c.fails)
