"""What the temperature of the battery does to its capacity and its life."""

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.figures.interpolation import interpolate

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


def calendar_years(years_at_25: float, battery_c: float) -> float:
    """Calendar life at a temperature: L_25 · 2^((25 − T)/10) above 25 °C, else L_25.

    Args:
        years_at_25: calendar life at 25 °C [years].
        battery_c: temperature of the battery [°C].

    Returns:
        Calendar life [years].
    """
    if battery_c <= 25:
        return years_at_25
    return float(years_at_25 * 2 ** ((25 - battery_c) / 10))


def freezing_point_c(soc: float) -> float:
    """Temperature at which a lead-acid battery freezes.

    Args:
        soc: state of charge [-], 0 to 1.

    Returns:
        Freezing point [°C].
    """
    return interpolate(FREEZING_C, soc)
