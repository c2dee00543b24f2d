"""Volts at the terminals of a bank: rested, and under a draw that makes them sag."""

from dataclasses import dataclass
from math import e, isnan, nan, sqrt
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.chemistry import BatteryClass

# So far lead-acid falls over the knee, for a 12 V unit [V].
KNEE_V = 1.0
# Resistance is stated at this temperature [°C]; below it, it grows by so much per kelvin (LFP: as e^x).
REFERENCE_C, LEAD_PER_K, LFP_PER_K = 25.0, 0.01, 0.03
# Below this charge the resistance of LFP rises [-].
LFP_RISE = 0.2


def rested_volts(battery_class: BatteryClass, class_v: float, soc: ArrayLike) -> Floats:
    """Open-circuit volts of a rested bank at 25 °C.

    Args:
        battery_class: its class.
        class_v: class volts of the bank [V].
        soc: state of charge [-], any shape.

    Returns:
        Volts of the bank [V], shape of ``soc``.
    """
    at, volts = zip(*battery_class.rested_v, strict=True)
    out: Floats = np.interp(np.asarray(soc, dtype=float), at, volts) * class_v / 12
    return out


def unit_resistance(battery_class: BatteryClass, class_v: float, ah: float) -> float:
    """R = R_ref·(class/12)·(100/Ah): resistance of one unit, new, at 25 °C [Ω].

    Args:
        battery_class: its class.
        class_v: class volts of the unit [V].
        ah: its label [Ah].
    """
    return battery_class.resistance_mohm / 1000 * class_v / 12 * 100 / ah


def bank_resistance(bank: Bank) -> float:
    """R_bank = R_unit · n_s/n_p, new, at 25 °C, without cables [Ω]."""
    model = bank.model
    one = unit_resistance(model.battery_class, model.unit_class_v, model.rated_ah)
    return one * bank.series / bank.parallel


def cold_factor(lead_acid: bool, celsius: ArrayLike) -> Floats:
    """How cold raises the resistance: 1 + 0.01 per K below 25 °C for lead-acid, e^(0.03 per K) for LFP [-].

    Args:
        lead_acid: whether it is lead-acid.
        celsius: temperature of the battery [°C], any shape.
    """
    below = np.maximum(0.0, REFERENCE_C - np.asarray(celsius, dtype=float))
    return np.asarray(1 + LEAD_PER_K * below if lead_acid else np.exp(LFP_PER_K * below))


def inner_resistance(ohm: Any, lfp: bool, soc: Any, level: Any, cold: Any, rise: float = LFP_RISE) -> Any:
    """Resistance of a bank on discharge, without cables: it grows with depth and with cold [Ω].

    Lead-acid: R·(2 − s₁)·cold. LFP: R·cold, doubling over the last fifth of the charge. Plain arithmetic, so
    that the compiled simulation uses it too.

    Args:
        ohm: R, new and full at 25 °C over the state of health [Ω].
        lfp: whether it is LFP.
        soc: state of charge [-], a number or an array.
        level: s₁, level of the available well [-], likewise.
        cold: of :func:`cold_factor` [-].
        rise: charge below which the resistance of LFP rises [-].
    """
    if lfp:
        return ohm * cold * (1 + np.maximum(0.0, (rise - soc) / rise))
    return ohm * cold * (2 - level)


def resistance_formula(lead_acid: bool, floor: str, celsius: str) -> str:
    """By what a resistance at 25 °C is multiplied at a depth and a temperature, as workings write it.

    Args:
        lead_acid: whether it is lead-acid.
        floor, celsius: how the state of charge of a rested bank and its temperature are written.
    """
    below = f"max(0, {REFERENCE_C:g} − {celsius})"
    if lead_acid:
        return f"(2 − {floor}) · (1 + {LEAD_PER_K:g} · {below})"
    return f"(1 + max(0, ({LFP_RISE:g} − {floor}) / {LFP_RISE:g})) · {e} ^ ({LFP_PER_K:g} · {below})"


def knee_share(level: Any, knee_level: float = 0.10) -> Any:
    """How far lead-acid has fallen over the knee: 0 above a level of the well of 10 %, 1 when it is dry [-].

    Plain arithmetic, so that the compiled simulation uses it too.

    Args:
        level: s₁ [-], a number or an array.
        knee_level: where the knee begins [-].
    """
    return np.maximum(0.0, 1 - level / knee_level)


def current_at_power(source_v: float, ohm: float, supply_a: float, watts: float) -> float:
    """Current out of a bank for a power, sources giving a part of it; below 0 where they give more than all.

    (V₀ − R·I)·(I_sources + I) = P. Plain arithmetic, so that the compiled simulation uses it too.

    Args:
        source_v: V₀, volts behind the resistance [V].
        ohm: R, of the bank and its cables [Ω], above 0.
        supply_a: current that the sources give [A].
        watts: power at the terminals of the load [W].

    Returns:
        Current [A]; NaN where there is no such current.
    """
    twice = source_v - ohm * supply_a
    under = twice * twice - 4 * ohm * (watts - source_v * supply_a)
    if under < 0:
        return nan
    return (twice - sqrt(under)) / (2 * ohm)


def peak_current(open_circuit_v: float, resistance_ohm: float, watts: float) -> float | None:
    """I_peak = (OCV − √(OCV² − 4·R·P)) / (2R): the current at which a bank gives a power.

    Args:
        open_circuit_v: OCV at the state of charge in question [V].
        resistance_ohm: of the bank and its cables [Ω], above 0.
        watts: power at the terminals of the load [W].

    Returns:
        Current [A]; None when the bank cannot deliver it at all.
    """
    amps = float(current_at_power(open_circuit_v, resistance_ohm, 0.0, watts))
    return None if isnan(amps) else amps


@dataclass(frozen=True, slots=True)
class Terminal:
    """What the volts of a bank follow from.

    Attributes:
        battery_class: its class.
        class_v: class volts of the bank [V].
        ohm: resistance of the bank, new, at 25 °C [Ω].
        cable_ohm: resistance of the cables, both ways [Ω].
        celsius: temperature of the battery [°C].
        health: state of health [-].
    """

    battery_class: BatteryClass
    class_v: float
    ohm: float
    cable_ohm: float = 0.0
    celsius: float = 25.0
    health: float = 1.0

    def resistance(self, soc: ArrayLike, level: ArrayLike) -> Floats:
        """Resistance on discharge, cables included, at a state of charge and level of the well [Ω].

        That of :func:`inner_resistance` over the state of health, and the cables.
        """
        soc, level = np.asarray(soc, dtype=float), np.asarray(level, dtype=float)
        lead = self.battery_class.is_lead_acid
        cold = cold_factor(lead, self.celsius)
        return np.asarray(
            inner_resistance(self.ohm / self.health, not lead, soc, level, cold) + self.cable_ohm
        )

    def source_volts(self, soc: ArrayLike, level: ArrayLike) -> Floats:
        """Volts behind the resistance: rested ones, less the knee of lead-acid [V]."""
        rested = rested_volts(self.battery_class, self.class_v, soc)
        if not self.battery_class.is_lead_acid:
            return rested
        return np.asarray(rested - KNEE_V * self.class_v / 12 * knee_share(np.asarray(level, dtype=float)))

    def volts(self, soc: ArrayLike, level: ArrayLike, amps: ArrayLike) -> Floats:
        """Volts at the load while a current flows [V].

        Args:
            soc: state of charge [-].
            level: s₁, level of the available well [-]; that of a rested bank is its ``soc``.
            amps: current out of the bank [A].

        Returns:
            Volts, in the common shape of the arguments.
        """
        out: Floats = self.source_volts(soc, level) - np.asarray(amps) * self.resistance(soc, level)
        return out

    def current(self, soc: float, level: float, watts: float) -> float | None:
        """I = (V₀ − √(V₀² − 4·R·P))/(2R): current at which it gives a power [A]; None when it cannot."""
        return peak_current(float(self.source_volts(soc, level)), float(self.resistance(soc, level)), watts)
