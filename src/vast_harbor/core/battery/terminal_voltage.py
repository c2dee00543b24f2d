"""Volts at the terminals of a bank: rested, and under a draw that makes them sag."""

from dataclasses import dataclass
from math import exp, sqrt

import numpy as np
from numpy.typing import ArrayLike, NDArray

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.chemistry import BatteryClass

Floats = NDArray[np.float64]
# Below this level of the available well lead-acid falls off a knee, and so far.
KNEE_LEVEL, KNEE_V = 0.10, 1.0
# Below this state of charge the resistance of LFP rises.
LFP_RISE_SOC = 0.2


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


def peak_current(open_circuit_v: float, resistance_ohm: float, watts: float) -> float | None:
    """I_peak = (OCV − √(OCV² − 4·R·P)) / (2R): the current at which a bank gives a power.

    Args:
        open_circuit_v: OCV at the state of charge in question [V].
        resistance_ohm: of the bank and its cables [Ω], above 0.
        watts: power at the terminals of the load [W].

    Returns:
        Current [A]; None when the bank cannot deliver it at all.
    """
    under = open_circuit_v**2 - 4 * resistance_ohm * watts
    if under < 0:
        return None
    return (open_circuit_v - sqrt(under)) / (2 * resistance_ohm)


def cold_resistance(
    class_mohm: float, system_v: float, bank_ah: float, celsius: float, health: float, lithium: bool
) -> float:
    """Resistance of a bank on discharge, cold and age reckoned with.

    Args:
        class_mohm: of a 12 V 100 Ah unit of the class at 25 °C, new [mΩ].
        system_v: class volts of the bank [V].
        bank_ah: label of the whole bank [Ah], above 0.
        celsius: temperature of the battery [°C].
        health: state of health [-].
        lithium: LFP; lead-acid otherwise.

    Returns:
        R_ref·(V/12)·(100/Ah)/SoH, × (1 + 0.01 per K below 25 °C) for lead-acid or e^(0.03 per K) for
        LFP [Ω].
    """
    below = max(0.0, 25 - celsius)
    cold = float(np.exp(0.03 * below)) if lithium else 1 + 0.01 * below
    return class_mohm / 1000 * (system_v / 12) * (100 / bank_ah) * cold / health


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

        Lead-acid: R·(2 − s₁)·(1 + 0.01 per K below 25 °C)/SoH. LFP: R·(1 + the rise below 20 % of
        charge)·e^(0.03 per K)/SoH.
        """
        soc, level = np.asarray(soc, dtype=float), np.asarray(level, dtype=float)
        below = max(0.0, 25 - self.celsius)
        if self.battery_class.is_lead_acid:
            inner = self.ohm * (2 - level) * (1 + 0.01 * below)
        else:
            rise = np.maximum(0.0, (LFP_RISE_SOC - soc) / LFP_RISE_SOC)
            inner = self.ohm * (1 + rise) * exp(0.03 * below)
        return inner / self.health + self.cable_ohm

    def source_volts(self, soc: ArrayLike, level: ArrayLike) -> Floats:
        """Volts behind the resistance: rested ones, less the knee of lead-acid [V]."""
        rested = rested_volts(self.battery_class, self.class_v, soc)
        if not self.battery_class.is_lead_acid:
            return rested
        knee = np.maximum(0.0, 1 - np.asarray(level, dtype=float) / KNEE_LEVEL)
        return rested - KNEE_V * self.class_v / 12 * knee

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
