"""A do-it-yourself capacity test: what is left of a battery, from a known current and a clock."""

import numpy as np

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.peukert import capacity_at_current

# Ammeter and clock of an owner, together.
MEASURING_DOUBT = 0.03
# Where a test of a 12 V battery stops, under load [V]; resistance of 100 Ah of LFP [Ω].
LEAD_STOP_V, LFP_STOP_V, LFP_OHM = 10.5, 12.0, 0.003


def state_of_health(
    amps: float,
    minutes: float,
    rated_ah: float,
    rated_hours: float,
    exponent: float,
    temperature_factor: float,
    left: float = 0.0,
) -> float:
    """SoH = Ah measured to the stop ÷ (C(I) · k_T · (1 − what stays below the stop)).

    Without the correction for the rate a new flooded battery tests at three quarters.

    Args:
        amps: steady current of the test I [A], above 0.
        minutes: time from full to the cut-off volts [min].
        rated_ah: label capacity [Ah].
        rated_hours: time over which the label holds [h].
        exponent: Peukert exponent [-].
        temperature_factor: k_T at the temperature of the test [-].
        left: share of the capacity that stays below the stop, see :func:`left_below_stop` [-].

    Returns:
        Capacity now ÷ capacity when new [-], not limited.
    """
    measured = amps * minutes / 60
    given = capacity_at_current(rated_ah, rated_hours, exponent, amps) * temperature_factor
    return measured / (given * (1 - left))


def left_below_stop(battery_class: BatteryClass, rate: float) -> float:
    """Share of the capacity that a battery still holds where a test stops [-].

    Lead-acid is rated down to that stop and holds nothing. LFP is stopped well above where its BMS opens, on
    the steep end of its curve: some per cent stay in it.

    Args:
        battery_class: its class.
        rate: current of the test against the rated capacity [1/h].
    """
    if battery_class.is_lead_acid:
        return 0.0
    # 3 mΩ at 100 Ah, and towards empty up to twice as much.
    volts = stop_v(battery_class) + rate * 100 * LFP_OHM * 1.7
    soc, rested = zip(*battery_class.rested_v, strict=True)
    return float(np.interp(volts, rested, soc))


def stop_v(battery_class: BatteryClass) -> float:
    """Volts under load at which a capacity test of a 12 V battery stops: 1.75 V a cell, or 3.0 V of LFP [V].

    One stop for the acceptance test, the log and the signs of the old bank.
    """
    return LEAD_STOP_V if battery_class.is_lead_acid else LFP_STOP_V


def health_range(
    amps: float,
    minutes: float,
    rated_ah: float,
    rated_hours: float,
    exponents: tuple[float, float],
    temperature_factor: float,
    left: float = 0.0,
) -> tuple[float, float]:
    """The range of SoH that a test allows: the exponent of the class in doubt, and the measuring.

    Args:
        amps, minutes, rated_ah, rated_hours, temperature_factor, left: as in :func:`state_of_health`.
        exponents: lowest and highest Peukert exponent of the class [-].

    Returns:
        Lowest and highest SoH [-].
    """
    found = [
        state_of_health(amps, minutes, rated_ah, rated_hours, k, temperature_factor, left) for k in exponents
    ]
    return min(found) * (1 - MEASURING_DOUBT), max(found) * (1 + MEASURING_DOUBT)
