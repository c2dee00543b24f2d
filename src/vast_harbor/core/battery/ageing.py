"""How long a bank lasts: cycles, years and accidents wear it side by side."""

from collections.abc import Sequence
from itertools import pairwise
from math import inf, log

import numpy as np
from numpy.typing import ArrayLike

from vast_harbor.core.arrays import Floats

Many = float | Floats

# A used battery that is worn out already is taken to serve for a year: nobody buys the like every month.
LEAST_YEARS = 1.0
# Strings of LFP may be joined within this difference of health [-].
MOST_GAP = 0.10


def cycles_at_depth(points: Sequence[tuple[float, float]], exponent: float, depth: float) -> float:
    """Cycles to 80 % capacity at a depth of discharge.

    N(d) = N_ref · (d_ref/d)^b between 10 and 100 %; below 10 % N = N(0.1) · 0.1/d. With several
    points the law runs through each two neighbours; beyond the outer ones it goes on with ``exponent``.

    Args:
        points: (depth, cycles), ascending depth, at least one.
        exponent: b beyond the points [-].
        depth: d [-], above 0 up to 1.

    Returns:
        Cycles; infinite at depth 0.
    """
    if depth <= 0:
        return inf
    if depth < 0.1:
        return cycles_at_depth(points, exponent, 0.1) * 0.1 / depth
    (d_ref, n_ref), b = points[0], exponent
    if depth >= points[-1][0]:
        d_ref, n_ref = points[-1]
    else:
        for (d_1, n_1), (d_2, n_2) in pairwise(points):
            if d_1 <= depth <= d_2:
                d_ref, n_ref, b = d_1, n_1, log(n_1 / n_2) / log(d_2 / d_1)
    return float(n_ref * (d_ref / depth) ** b)


def rate_wear_factor(mean_amps: float, limit_amps: float, slope: float = 0.3, most: float = 1.5) -> float:
    """f_rate = 1 + 0.3 · max(0, I/I_lim − 1), at most 1.5.

    Args:
        mean_amps: energy-weighted mean current of use [A].
        limit_amps: C/5 for lead-acid, C/2 for LFP [A].
        slope: wear more for each time that the limit is passed [-]; a practice value.
        most: upper bound of the factor [-].

    Returns:
        Factor on cycle wear [-].
    """
    return min(most, 1 + slope * max(0.0, mean_amps / limit_amps - 1))


def cycle_wear(sum_of_cycles: float, rate_factor: float, penalty: float, short_share: float) -> float:
    """Wear by cycles: Σ n_i/N(d_i) · f_rate · (1 + p · share of days not returned to full).

    Args:
        sum_of_cycles: Σ n_i/N(d_i), a year [1/year].
        rate_factor: f_rate [-].
        penalty: p, what days short of full add [-].
        short_share: share of the off-grid days that do not end full [-].

    Returns:
        Wear a year [1/year].
    """
    return sum_of_cycles * rate_factor * (1 + penalty * short_share)


# What a day below a fifth of its charge takes of the life of lead-acid [-].
EACH_LOW = 0.02


def emptied_wear(emptied: float, each: float, low: float, each_low: float = EACH_LOW) -> float:
    """Wear of lead-acid by the times a year that use itself empties it or leaves it low.

    Args:
        emptied: times emptied and recharged within a day [1/year].
        each: wear of one such time [-].
        low: times below a fifth of its charge for over a day [1/year].
        each_low: wear of one such time [-]; less than emptied, more than nothing.

    Returns:
        Wear a year [1/year].
    """
    return emptied * each + low * each_low


def calendar_wear(years_in_use: Many, years_at_rest: Many, share_in_use: Many) -> Many:
    """Mean over the year's hours of 1/L_cal(T), for two temperatures.

    Args:
        years_in_use: calendar life at the temperature in use [years].
        years_at_rest: calendar life at the temperature of the rest of the year [years].
        share_in_use: share of the year in use [-].

    Returns:
        Wear a year [-].
    """
    return share_in_use / years_in_use + (1 - share_in_use) / years_at_rest


def wear_when_bought(
    cycles_made: float, cycles: float, age_years: float, calendar: float, health: float, fade: float = 0.2
) -> float:
    """Wear of a used battery: the larger of what it has made and aged, and of what a test of it shows.

    Args:
        cycles_made: its count.
        cycles: how many it lasts at the planned depth.
        age_years: since it was made [years].
        calendar: calendar life at 25 °C [years].
        health: state of health by a capacity test [-].
        fade: health lost at wear 1 [-].

    Returns:
        Wear [-].
    """
    return max(cycles_made / cycles + age_years / calendar, max(0.0, (1 - health) / fade))


def wear_by_plan(nights: float, nights_a_cycle: float, cycles: float, calendar: float) -> float:
    """Wear a year of a bank that makes one cycle from charge to charge, and ages: a first look.

    Args:
        nights: off-grid nights a year.
        nights_a_cycle: N, nights from one charge to the next.
        cycles: how many it lasts at the planned depth.
        calendar: calendar life [years].

    Returns:
        Wear a year [-].
    """
    return nights / nights_a_cycle / cycles + 1 / calendar


def state_of_health(wear: float, lead_acid: bool, fade: float = 0.2, after_end: float = 3.0) -> float:
    """SoH = 1 − 0.2·wear up to wear 1; beyond it lead-acid fades three times as fast.

    Args:
        wear: Palmgren–Miner sum [-].
        lead_acid: whether the bank is lead-acid.
        fade: health lost at wear 1 [-].
        after_end: how many times as fast lead-acid fades beyond it [-].

    Returns:
        Capacity now ÷ nameplate [-], not below 0.

    Source: the sum after M. A. Miner, J. Appl. Mech. 12 (1945), doi:10.1115/1.4009458.
    """
    return float(health_at(wear, lead_acid, fade, after_end))


def health_at(wear: ArrayLike, lead_acid: bool, fade: float = 0.2, after_end: float = 3.0) -> Floats:
    """:func:`state_of_health` of many wears at once.

    Args:
        wear: Palmgren–Miner sums [-], any shape.
        lead_acid, fade, after_end: as there.

    Returns:
        SoH [-], in the shape of ``wear``.
    """
    wear = np.asarray(wear, float)
    beyond = np.maximum(0.0, wear - 1) * (after_end if lead_acid else 1.0)
    found: Floats = np.maximum(0.0, 1 - fade * (np.minimum(wear, 1.0) + beyond))
    return found


def wear_at_health(health: ArrayLike, lead_acid: bool, fade: float = 0.2, after_end: float = 3.0) -> Floats:
    """The wear at which a state of health is reached; inverse of :func:`state_of_health`.

    Args:
        health: SoH [-], above 0, any shape.
        lead_acid: whether the bank is lead-acid.
        fade, after_end: as there.

    Returns:
        Wear [-], in the shape of ``health``.
    """
    wear = (1 - np.asarray(health, float)) / fade
    return np.where(lead_acid & (wear > 1), 1 + (wear - 1) / after_end, wear)


def health_at_replacement_lfp(need_without_reserve_wh: Many, usable_new_wh: Many, floor: float) -> Floats:
    """SoH at which LFP no longer covers the need without reserve, between ``floor`` and 0.8.

    A bank that is too small to begin with is judged at 80 % like any other; that it does not cover
    the need is said elsewhere.

    Args:
        need_without_reserve_wh: N · E_bank [Wh].
        usable_new_wh: usable energy of the bank when new [Wh].
        floor: lowest SoH to which it serves [-].

    Returns:
        SoH [-].
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        share = np.where(
            np.asarray(usable_new_wh) > 0, np.asarray(need_without_reserve_wh) / usable_new_wh, np.inf
        )
    return np.minimum(np.maximum(share, floor), max(floor, 0.8))
