"""What the temperature of the battery does to its capacity and its life."""

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.figures.interpolation import interpolate

Many = float | Floats

# Rested freezing point of lead-acid electrolyte against state of charge [-, °C].
FREEZING_C = ((0.0, -7.0), (0.2, -10.0), (0.5, -25.0), (1.0, -50.0))
FREEZING_MARGIN_K = 5.0


def temperature_factor(battery_class: BatteryClass, battery_c: float) -> float:
    """k_T: usable capacity of a class at a battery temperature, against 25 °C.

    Args:
        battery_class: one of the five classes.
        battery_c: temperature of the battery, not of the air [°C].

    Returns:
        Factor [-].
    """
    return interpolate(battery_class.temperature_factor, battery_c)


def calendar_years(
    years_at_25: Many, battery_c: Many, reference_c: float = 25.0, halves_k: float = 10.0
) -> Floats:
    """Calendar life at a temperature: L_25 · 2^((25 − T)/10) above 25 °C, else L_25.

    Args:
        years_at_25: calendar life at 25 °C [years].
        battery_c: temperature of the battery [°C].
        reference_c: temperature up to which it is not shortened [°C].
        halves_k: temperature rise that halves it [K]; Arrhenius' rule of thumb, 8 to 12 K in practice.

    Returns:
        Calendar life [years], in the common shape.
    """
    hotter = np.minimum(0.0, reference_c - np.asarray(battery_c, float))
    return np.asarray(years_at_25 * 2.0 ** (hotter / halves_k))


def freezing_points_c(socs: Floats) -> Floats:
    """Temperatures at which a lead-acid battery freezes, at each of many states of charge.

    Args:
        socs: states of charge [-], 0 to 1, any shape.

    Returns:
        Freezing points [°C], of the same shape.
    """
    charge, celsius = zip(*FREEZING_C, strict=True)
    return np.interp(socs, charge, celsius)


def freezing_point_c(soc: float) -> float:
    """Temperature at which a lead-acid battery freezes.

    Args:
        soc: state of charge [-], 0 to 1.

    Returns:
        Freezing point [°C].
    """
    return float(freezing_points_c(np.asarray(soc)))
