"""Before a trip: how long a bank that was laid up must be on mains until it is full."""

from math import log

from vast_harbor.core.battery.chemistry import BatteryClass

MONTH_D, LAB_C, DOUBLES_K = 30.44, 20.0, 10.0
# Charge at which a bank is laid up: lead-acid full, LFP at about 65 % [-]. Full is where no more flows than
# this [1/h].
LAID_UP = {True: 1.0, False: 0.65}
TAIL_C = 0.02


def charge_left(battery_class: BatteryClass, days: float, celsius: float) -> float:
    """State of charge after a bank stood disconnected [-].

    Args:
        battery_class: its class.
        days: that it stood.
        celsius: temperature meanwhile [°C].
    """
    a_month = min(0.9, battery_class.self_discharge * 2 ** ((celsius - LAB_C) / DOUBLES_K))
    kept: float = (1 - a_month) ** (days / MONTH_D)
    return LAID_UP[battery_class.is_lead_acid] * kept


def hours_on_mains(battery_class: BatteryClass, ah: float, amps: float, days: float, celsius: float) -> float:
    """How long it takes to charge a bank full that was laid up [h]: t = Q/I + τ · ln(I / I_tail).

    Args:
        battery_class: its class.
        ah: its label [Ah].
        amps: of the charger [A], above 0.
        days, celsius: that it stood, and at which temperature [°C].

    Returns:
        Hours; the current falls with the time constant of its class once absorption volts are reached.
    """
    missing = (1 - charge_left(battery_class, days, celsius)) * ah
    falls = battery_class.acceptance_h * max(0.0, log(amps / (TAIL_C * ah)))
    return missing / amps + falls
