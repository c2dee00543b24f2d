"""How much charge a bank takes: the source's limit at first, then its own, the fuller the less."""

from math import exp, expm1, log1p

import numpy as np
from numpy.typing import ArrayLike

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.chemistry import BatteryClass

# How fast lead-acid takes charge with the volts [V].
VOLTS_SCALE = 0.6
# LFP resists charge more than discharge.
LFP_CHARGE_OHM = 2.5
# Full is where the acceptance law leaves less than C/200 of lead-acid, whose last per cents matter to it and
# come slowly, and C/50 of LFP.
LEAD_TAIL_C, LFP_TAIL_C = 0.005, 0.02
# Temperatures between which charge volts follow the battery's.
COMPENSATED_C = (0.0, 40.0)
MONTH_H = 730.0
# LFP below freezing takes nothing, and so little up to this temperature.
COLD_C, COOL_C, COOL_RATE = 0.0, 5.0, 0.1


def full_soc(battery_class: BatteryClass) -> float:
    """SoC ≥ 1 − tail·τ: where a bank counts as full [-]."""
    return 1 - tail_c(battery_class) * battery_class.acceptance_h


def tail_c(battery_class: BatteryClass) -> float:
    """Current at absorption volts below which a bank is full, against its capacity [1/h]."""
    return LEAD_TAIL_C if battery_class.is_lead_acid else LFP_TAIL_C


def wanted_v(battery_class: BatteryClass, celsius: ArrayLike) -> Floats:
    """Absorption volts that a 12 V unit of a class wants at a temperature [V].

    Args:
        battery_class: its class.
        celsius: temperature of the battery [°C], any shape.
    """
    away = np.clip(np.asarray(celsius, dtype=float), *COMPENSATED_C) - 25
    return np.asarray(battery_class.absorption_v + battery_class.compensation * away)


def time_constant(battery_class: BatteryClass, volts: ArrayLike, celsius: ArrayLike) -> Floats:
    """τ(V, T): time constant of the current that a bank accepts [h].

    τ·e^((V_abs(T) − V)/0.6 V), not below τ/2; of LFP τ. The cold counts once: as the volts that are missing
    to V_abs(T), which compensation makes up for.

    Args:
        battery_class: its class.
        volts: set volts for a 12 V unit [V].
        celsius: temperature of the battery [°C]; shapes broadcast.

    Returns:
        Time constant [h].

    Source: after J. A. Mas's laws of charge acceptance; the dependence on volts is a practice value: 2.7
    times as long at 0 °C where the charger does not follow the temperature.
    """
    volts, celsius = np.broadcast_arrays(np.asarray(volts, float), np.asarray(celsius, float))
    tau = battery_class.acceptance_h
    if not battery_class.is_lead_acid:
        return np.full(volts.shape, tau)
    under = wanted_v(battery_class, celsius) - volts
    # Far below absorption nothing goes in before the volts of the bank bar it anyway.
    return np.asarray(np.maximum(tau * np.exp(np.minimum(under / VOLTS_SCALE, 30.0)), tau / 2))


def charge_ohm(battery_class: BatteryClass, bank_ohm: float, cable_ohm: float) -> float:
    """Resistance that a charge current meets [Ω]: LFP's own is 2.5 times that of a discharge."""
    return bank_ohm * (1.0 if battery_class.is_lead_acid else LFP_CHARGE_OHM) + cable_ohm


def acceptance(
    soc: ArrayLike, rested_v: ArrayLike, set_v: ArrayLike, capacity_ah: float, ohm: float, tau_h: ArrayLike
) -> Floats:
    """The current that a bank accepts [A].

    min((1 − SoC)·C/τ, (V_set − OCV)/R), not below 0.

    Args:
        soc: state of charge [-].
        rested_v: open-circuit volts of the bank there [V].
        set_v: volts to which it is charged [V].
        capacity_ah: C = nameplate · SoH [Ah].
        ohm: resistance to charge [Ω].
        tau_h: τ at these volts and this temperature [h].

    Returns:
        Current, in the common shape.
    """
    by_charge = (1 - np.asarray(soc)) * capacity_ah / np.asarray(tau_h)
    by_volts = (np.asarray(set_v) - np.asarray(rested_v)) / ohm
    return np.asarray(np.maximum(0.0, np.minimum(by_charge, by_volts)))


def mean_acceptance(soc: float, capacity_ah: float, tau_h: float, coulombic: float, hours: float) -> float:
    """Mean of (1 − SoC)·C/τ over a step, as it falls while the bank fills [A].

    Plain arithmetic, so that the compiled simulation uses it too.

    Args:
        soc: state of charge at its start [-].
        capacity_ah: C = nameplate · SoH [Ah].
        tau_h: τ [h].
        coulombic: share of the charge put in that comes out again [-].
        hours: length of the step [h], above 0.
    """
    return (1 - soc) * capacity_ah * -expm1(-coulombic * hours / tau_h) / (coulombic * hours)


def behind_cable(amps: float, softens: float) -> float:
    """The current that a bank takes behind a cable from a source of steady volts [A].

    Its volts are lower by I·R, and τ the longer for it: I = I₀·e^(−I·R/0.6 V), solved by Newton's method.
    Plain arithmetic, so that the compiled simulation uses it too.

    Args:
        amps: I₀, that it would take with no cable [A].
        softens: R/0.6 V [1/A]; 0 where there is no cable, and for LFP.
    """
    if softens <= 0.0 or amps <= 0.0:
        return amps
    x = log1p(amps * softens)
    for _ in range(8):
        e = exp(x)
        x -= (x * e - amps * softens) / (e * (1 + x))
    return x / softens


def self_discharge(battery_class: BatteryClass, celsius: ArrayLike, health: float) -> Floats:
    """Share of its charge that a bank loses in an hour [1/h].

    Args:
        battery_class: its class.
        celsius: temperature of the battery [°C], any shape.
        health: state of health [-]; worn lead-acid loses twice as much.

    Returns:
        By the month's share at 20 °C, doubling for every 10 K.
    """
    worn = 2.0 if battery_class.is_lead_acid and health <= 0.85 else 1.0
    doubled = 2.0 ** ((np.asarray(celsius, dtype=float) - 20) / 10)
    return np.asarray(battery_class.self_discharge * worn * doubled / MONTH_H)
