"""A bank's years and money in plain numbers: for thousands of draws, maps, and points where costs meet.

What Life and Cost of a candidate tell with their workings, once for the plan, is here one function of
everything that may come differently. A test holds the two against each other.
"""

from dataclasses import dataclass, field, replace
from math import inf

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.battery.ageing import FADE_PER_WEAR, LEAST_YEARS

Values = NDArray[np.float64]
Many = float | Values
NO_VALUES: Values = np.zeros(0)


@dataclass(frozen=True, slots=True)
class LifeCostInputs:
    """One bank in one rig, in numbers.

    Attributes:
        id: of the candidate.
        lead: whether it is lead-acid.
        batteries: price of the bank, paid again at each replacement [money].
        extras: bought once for it, labour included [money].
        again: (price, life) of extras that are bought again after their life [money], [years].
        old_bank: what the old bank fetches, a credit [money].
        drift: yearly change of the batteries' price [1/year].
        swap: labour less scrap at each replacement [money].
        care: money a year that does not depend on use.
        lost_kwh: bought energy lost in charging, a year [kWh]; at ``tariff`` [money/kWh].
        fuel: generator fuel a year [money].
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
        basis: ``likely``, ``warranty`` or ``label_cycles``.
        label_years: years by label cycles, at ``nights`` [years].
        warranty_years, full_years: of the warranty, and the free part of them [years].
        price, cycles, calendar: (low, high) of these against the likely value [-].
    """

    id: str
    lead: bool
    batteries: float
    extras: float
    again: tuple[tuple[float, float], ...]
    old_bank: float
    drift: float
    swap: float
    care: float
    lost_kwh: float
    tariff: float
    fuel: float
    exit_share: float
    refit: float
    discount: float
    nights: float
    cycle_wear: float
    exponent: float
    years_25: float
    use_c: float
    rest_c: float
    accidents: float
    emptied: float
    worn_out: float
    covers: float
    health_floor: float
    start_wear: float
    used: bool
    basis: str
    label_years: float
    warranty_years: float
    full_years: float
    price: tuple[float, float] = (1.0, 1.0)
    cycles: tuple[float, float] = (1.0, 1.0)
    calendar: tuple[float, float] = (1.0, 1.0)

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
    drift: Many = 0.0
    warmer: Many = 0.0
    nights: Many | None = None
    fails: Values = field(default_factory=lambda: NO_VALUES)


AS_PLANNED = Scenario()


def _nights_ratio(p: LifeCostInputs, c: Scenario) -> Many:
    """Nights against those of the plan [-]."""
    if c.nights is None or p.nights <= 0:
        return 1.0
    return c.nights / p.nights


def life_years(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Values:
    """Life of one bank [years]; infinite where nothing ends it.

    Args:
        p: the bank.
        c: what comes differently.

    Returns:
        Years, in the shape of what differs.

    Source: Palmgren–Miner over cycles, years and accidents, as ``stops.life``.
    """
    more = _nights_ratio(p, c)
    nights = p.nights if c.nights is None else c.nights
    share = np.minimum(1.0, np.asarray(nights) / 365)

    def yearly(celsius: Many) -> Values:
        hot = np.minimum(0.0, (25 - np.asarray(celsius)) / 10)
        return np.asarray(1 / (p.years_25 * c.calendar * 2.0**hot))

    wear = p.cycle_wear * more * np.asarray(c.use) ** p.exponent / c.cycles
    wear = wear + share * yearly(p.use_c + c.warmer) + (1 - share) * yearly(p.rest_c + c.warmer)
    wear = (wear + p.accidents + p.emptied * more) / c.lasts
    end: Many = p.worn_out
    if not p.lead:
        health = np.clip(p.covers * np.asarray(c.use), p.health_floor, max(p.health_floor, 0.8))
        end = (1 - health) / FADE_PER_WEAR
    likely = np.maximum(LEAST_YEARS if p.used else 0.0, (end - p.start_wear) / wear)
    if p.basis == "warranty" and p.warranty_years > 0:
        return np.minimum(likely, p.warranty_years)
    if p.basis == "label_cycles":
        with np.errstate(divide="ignore"):
            label = np.asarray(p.label_years * c.cycles / np.asarray(more, float))
        return np.broadcast_to(label, np.shape(likely)) + 0.0
    return np.asarray(likely, float)


def annuity(years: Many, discount: float) -> Many:
    """Present value of one a year, paid at mid-year; a part of a year at the end counts in part.

    Args:
        years: H.
        discount: r [1/year].

    Returns:
        Σ length · (1 + r)^−t over the years.
    """
    if discount == 0:
        return years
    q = 1 / (1 + discount)
    whole = np.floor(np.asarray(years) + 1e-9)
    part = np.maximum(0.0, np.asarray(years) - whole)
    full = q**0.5 * (1 - q**whole) / (1 - q)
    return np.asarray(full + part * q ** (whole + part / 2))


def running_a_year(p: LifeCostInputs, c: Scenario = AS_PLANNED) -> Many:
    """Care, water, lost energy and fuel of a year [money]."""
    return p.care + (p.lost_kwh * p.tariff * c.tariff + p.fuel) * c.use * _nights_ratio(p, c)


def lifetime(
    p: LifeCostInputs, c: Scenario, years: Many, *, in_full: bool = False, at: Values = NO_VALUES
) -> tuple[Values, Values]:
    """Lifetime cost at present value, and what is spent up to given times.

    Args:
        p: the bank.
        c: what comes differently.
        years: H, of keeping.
        in_full: credit the unused life of the last bank in full (κ 1), so that cost is continuous.
        at: times at which to tell what has been spent by then, shape (times,) [years].

    Returns:
        Cost [money], in the shape of what differs; spent, shape (times, ...), without the worth at the end.
    """
    life = life_years(p, c)
    parts = (life, years, c.price, c.drift, c.extras, c.tariff, c.use)
    shape = np.broadcast_shapes(*(np.shape(x) for x in parts), c.fails.shape[1:])
    life, horizon = np.broadcast_to(life, shape), np.broadcast_to(np.asarray(years, float), shape)
    price = np.broadcast_to(p.batteries * np.asarray(c.price, float), shape)
    grows = np.broadcast_to(1 + p.drift + np.asarray(c.drift, float), shape)
    per_year = np.broadcast_to(np.asarray(running_a_year(p, c), float), shape)
    q = 1 + p.discount
    total = price + p.extras * np.asarray(c.extras) - p.old_bank
    total = total + per_year * annuity(horizon, p.discount)
    spent = np.zeros((len(at), *shape))
    for i, when in enumerate(at):
        spent[i] = price + p.extras * np.asarray(c.extras) - p.old_bank + per_year * annuity(when, p.discount)
    began, turn = np.zeros(shape), 0
    while True:
        served, failed = life, None
        if turn < len(c.fails):
            failed = c.fails[turn] < life
            served = np.where(failed, c.fails[turn], life)
        ends = began + served
        active = ends < horizon - 1e-9
        if not active.any():
            break
        when = np.where(active, ends, 0.0)
        paid = price * grows**when + p.swap
        if failed is not None:
            paid = paid - np.where(failed, _credit(p, served) * price * grows**began, 0.0)
        paid = np.where(active, paid * q**-when, 0.0)
        total = total + paid
        for i, by in enumerate(at):
            spent[i] += np.where(ends <= by + 1e-9, paid, 0.0)
        began = np.where(active, ends, began)
        turn += 1
    for amount, lasts in p.again:
        j = np.arange(1, int(np.max(horizon) / lasts) + 1)
        for t in j * lasts:
            total = total + np.where(t < horizon - 1e-9, amount * q**-t, 0.0) * np.asarray(c.extras)
            for i, by in enumerate(at):
                spent[i] += (amount * q**-t if t <= by + 1e-9 else 0.0) * np.asarray(c.extras)
    left = np.where(np.isinf(life), 1.0, np.maximum(0.0, 1 - (horizon - began) / life))
    share, refit = (1.0, 0.0) if in_full else (p.exit_share, p.refit)
    worth = np.maximum(0.0, share * left * price * grows**horizon - refit)
    return total - worth * q**-horizon, spent


def _credit(p: LifeCostInputs, age: Many) -> Many:
    """Share of its price that the maker gives for a bank that fails early at an age [-]."""
    if p.warranty_years <= 0:
        return np.zeros(np.shape(age))
    pro_rata = np.maximum(0.0, 1 - np.asarray(age) / p.warranty_years)
    return np.asarray(np.where(np.asarray(age) <= p.full_years, 1.0, pro_rata))
