"""Capacity at a steady rate: Peukert's law and what labels say about it."""

from math import log


def capacity_at_current(rated_ah: float, rated_hours: float, exponent: float, amps: float) -> float:
    """Capacity of a string at one steady current from full.

    C(I) = C_r · (I_r / I)^(k−1), never above 1.05·C_r; I_r = C_r / r.

    Args:
        rated_ah: capacity at the rated time, C_r [Ah].
        rated_hours: rated time r [h].
        exponent: Peukert exponent k [-], 1 or more.
        amps: steady discharge current I [A], above 0.

    Returns:
        Capacity at that current [Ah].

    Source: W. Peukert, Elektrotechnische Zeitschrift 20 (1897).
    """
    rated_amps = rated_ah / rated_hours
    return float(min(1.05 * rated_ah, rated_ah * (rated_amps / amps) ** (exponent - 1)))


def capacity_over_time(rated_ah: float, rated_hours: float, exponent: float, hours: float) -> float:
    """Capacity of a string that is emptied in a given time: C(T) = C_r · (T / r)^(1 − 1/k).

    Args:
        rated_ah: capacity at the rated time, C_r [Ah].
        rated_hours: rated time r [h].
        exponent: Peukert exponent k [-].
        hours: time T in which it is emptied [h].

    Returns:
        Capacity [Ah].

    Source: W. Peukert (1897), solved for time.
    """
    return float(rated_ah * (hours / rated_hours) ** (1 - 1 / exponent))


def exponent_from_two_ratings(ah_1: float, hours_1: float, ah_2: float, hours_2: float) -> float:
    """Peukert exponent from two capacities on one label: k = ln(t₂/t₁) / ln(I₁/I₂).

    Args:
        ah_1: first capacity [Ah] over ``hours_1`` [h].
        hours_1: first time [h].
        ah_2: second capacity [Ah] over ``hours_2`` [h].
        hours_2: second time [h], other than the first.

    Returns:
        Exponent k [-].

    Source: W. Peukert (1897).
    """
    return log(hours_2 / hours_1) / log((ah_1 / hours_1) / (ah_2 / hours_2))


def reserve_capacity_ah(minutes: float) -> float:
    """Capacity at 25 A from a reserve-capacity label: 25 A · minutes / 60.

    Args:
        minutes: reserve capacity [min] at 25 A.

    Returns:
        Capacity at 25 A [Ah].
    """
    return 25.0 * minutes / 60.0


def rate_factor(bank_ah: float, rated_hours: float, exponent: float, mean_amps: float) -> float:
    """k_rate = min(1, (I_r / I_mean)^(k−1)) of a whole bank.

    Args:
        bank_ah: rated capacity of the whole bank [Ah].
        rated_hours: rated time r [h].
        exponent: Peukert exponent k [-].
        mean_amps: energy-weighted mean current of the day [A]; 0 when nothing is drawn.

    Returns:
        Factor [-] in (0, 1].
    """
    if mean_amps <= 0:
        return 1.0
    return float(min(1.0, (bank_ah / rated_hours / mean_amps) ** (exponent - 1)))


def nameplate_ah(amp_hours: float, rated_hours: float, exponent: float, mean_amps: float) -> float:
    """Rated capacity that leaves ``amp_hours`` once the rate has taken its share.

    Ah = max(A, A^(1/k) · (r·I_mean)^((k−1)/k)): the self-consistent solution of Ah·k_rate = A.

    Args:
        amp_hours: capacity wanted before the rate is taken into account, A [Ah].
        rated_hours: rated time r [h].
        exponent: Peukert exponent k [-].
        mean_amps: energy-weighted mean current of the day [A].

    Returns:
        Rated capacity [Ah].
    """
    k = exponent
    return float(max(amp_hours, amp_hours ** (1 / k) * (rated_hours * mean_amps) ** ((k - 1) / k)))
