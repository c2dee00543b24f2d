"""Before a trip: how long a bank that was laid up must be on mains until it is full."""

from math import log

from vast_harbor.core.battery.charge_acceptance import self_discharge, tail_c, time_constant
from vast_harbor.core.battery.chemistry import BatteryClass

DAY_H = 24
# Charge at which a bank is laid up: lead-acid full, LFP at about 65 % [-].
LAID_UP = {True: 1.0, False: 0.65}


def charge_left(battery_class: BatteryClass, days: float, celsius: float, health: float = 1.0) -> float:
    """State of charge after a bank stood disconnected [-].

    Args:
        battery_class: its class.
        days: that it stood.
        celsius: temperature meanwhile [°C].
        health: its state of health [-].
    """
    lost = float(self_discharge(battery_class, celsius, health)) * DAY_H * days
    return max(0.0, LAID_UP[battery_class.is_lead_acid] - lost)


def hours_on_mains(
    battery_class: BatteryClass, ah: float, amps: float, days: float, celsius: float, health: float = 1.0
) -> float:
    """How long it takes to charge a bank full that was laid up [h]: t = Q/I + τ · ln(I / I_tail).

    Args:
        battery_class: its class.
        ah: its label [Ah].
        amps: of the charger [A], above 0.
        days, celsius, health: that it stood, at which temperature [°C], and its state of health [-].

    Returns:
        Hours; the current falls with the time constant of its class once absorption volts are reached.
    """
    missing = (1 - charge_left(battery_class, days, celsius, health)) * ah
    tau = float(time_constant(battery_class, battery_class.absorption_v, celsius))
    return missing / amps + tau * max(0.0, log(amps / (tail_c(battery_class) * ah)))
