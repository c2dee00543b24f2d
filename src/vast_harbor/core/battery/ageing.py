"""How long a bank lasts: cycles, years and accidents wear it side by side."""

from collections.abc import Sequence
from itertools import pairwise
from math import inf, log

LEAD_ACID_FADE_AFTER_END = 3.0
FADE_PER_WEAR = 0.2
# A used battery that is worn out already is reckoned to serve for a year: nobody buys the like every month.
LEAST_YEARS = 1.0


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


def rate_wear_factor(mean_amps: float, limit_amps: float) -> float:
    """f_rate = 1 + 0.3 · max(0, I/I_lim − 1), at most 1.5.

    Args:
        mean_amps: energy-weighted mean current of use [A].
        limit_amps: C/5 for lead-acid, C/2 for LFP [A].

    Returns:
        Factor on cycle wear [-].
    """
    return min(1.5, 1 + 0.3 * max(0.0, mean_amps / limit_amps - 1))


def calendar_wear(years_in_use: float, years_at_rest: float, share_in_use: float) -> float:
    """Mean over the year's hours of 1/L_cal(T), for two temperatures.

    Args:
        years_in_use: calendar life at the temperature in use [years].
        years_at_rest: calendar life at the temperature of the rest of the year [years].
        share_in_use: share of the year in use [-].

    Returns:
        Wear a year [-].
    """
    return share_in_use / years_in_use + (1 - share_in_use) / years_at_rest


def wear_by_plan(nights: float, nights_a_cycle: float, cycles: float, calendar: float) -> float:
    """Wear a year of a bank that makes one cycle from charge to charge, and ages: a first look.

    Args:
        nights: off-grid nights a year.
        nights_a_cycle: N, nights from one charge to the next.
        cycles: that it stands at the planned depth.
        calendar: calendar life [years].

    Returns:
        Wear a year [-].
    """
    return nights / nights_a_cycle / cycles + 1 / calendar


def state_of_health(wear: float, lead_acid: bool) -> float:
    """SoH = 1 − 0.2·wear up to wear 1; beyond it lead-acid fades three times as fast.

    Args:
        wear: Palmgren–Miner sum [-].
        lead_acid: whether the bank is lead-acid.

    Returns:
        Capacity now ÷ nameplate [-], not below 0.

    Source: the sum after M. A. Miner, J. Appl. Mech. 12 (1945).
    """
    fade = LEAD_ACID_FADE_AFTER_END if lead_acid else 1.0
    beyond = max(0.0, wear - 1) * fade
    return max(0.0, 1 - FADE_PER_WEAR * (min(wear, 1.0) + beyond))


def wear_at_health(health: float, lead_acid: bool) -> float:
    """The wear at which a state of health is reached; inverse of :func:`state_of_health`.

    Args:
        health: SoH [-], above 0.
        lead_acid: whether the bank is lead-acid.

    Returns:
        Wear [-].
    """
    wear = (1 - health) / FADE_PER_WEAR
    return 1 + (wear - 1) / LEAD_ACID_FADE_AFTER_END if lead_acid and wear > 1 else wear


def health_at_replacement_lfp(need_without_reserve_wh: float, usable_new_wh: float, floor: float) -> float:
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
    if usable_new_wh <= 0:
        return 0.8
    return min(max(need_without_reserve_wh / usable_new_wh, floor), max(floor, 0.8))
