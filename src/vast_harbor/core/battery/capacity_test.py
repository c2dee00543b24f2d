"""A do-it-yourself capacity test: what is left of a battery, from a known current and a clock."""

from vast_harbor.core.battery.peukert import capacity_at_current

# Ammeter and clock of an owner, together.
MEASURING_DOUBT = 0.03


def state_of_health(
    amps: float,
    minutes: float,
    rated_ah: float,
    rated_hours: float,
    exponent: float,
    temperature_factor: float,
) -> float:
    """SoH = Ah measured to the cut-off ÷ (C(I) · k_T).

    Without the correction for the rate a new flooded battery tests at three quarters.

    Args:
        amps: steady current of the test I [A], above 0.
        minutes: time from full to the cut-off volts [min].
        rated_ah: label capacity [Ah].
        rated_hours: time over which the label holds [h].
        exponent: Peukert exponent [-].
        temperature_factor: k_T at the temperature of the test [-].

    Returns:
        Capacity now ÷ capacity when new [-], not limited.
    """
    measured = amps * minutes / 60
    return measured / (capacity_at_current(rated_ah, rated_hours, exponent, amps) * temperature_factor)


def health_range(
    amps: float,
    minutes: float,
    rated_ah: float,
    rated_hours: float,
    exponents: tuple[float, float],
    temperature_factor: float,
) -> tuple[float, float]:
    """The range of SoH that a test allows: the exponent of the class in doubt, and the measuring.

    Args:
        amps, minutes, rated_ah, rated_hours, temperature_factor: as in :func:`state_of_health`.
        exponents: lowest and highest Peukert exponent of the class [-].

    Returns:
        Lowest and highest SoH [-].
    """
    found = [state_of_health(amps, minutes, rated_ah, rated_hours, k, temperature_factor) for k in exponents]
    return min(found) * (1 - MEASURING_DOUBT), max(found) * (1 + MEASURING_DOUBT)
