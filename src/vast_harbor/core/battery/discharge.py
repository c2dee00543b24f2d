"""A steady discharge from full: amp-hours delivered, volts on the way, and what ends it."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.kibam import Wells, available_after, fit_wells, wells_rate
from vast_harbor.core.battery.temperature import temperature_factor
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance

BY_VOLTS, BY_CHARGE = "volts", "charge"
STEPS = 400


@dataclass(frozen=True, slots=True)
class Battery:
    """A bank as it discharges.

    Attributes:
        wells: one string, at its health.
        strings: n_p.
        label_ah: nameplate of one string at its health [Ah].
        terminal: what its volts follow from.
        cold: share of the available well that the cold holds back [-].
    """

    wells: Wells
    strings: int
    label_ah: float
    terminal: Terminal
    cold: float


def battery(
    bank: Bank, class_exponent: float, celsius: float, health: float = 1.0, cable_ohm: float = 0.0
) -> Battery:
    """A bank at a temperature and a state of health.

    Args:
        bank: the bank.
        class_exponent: Peukert exponent for a label of one capacity [-].
        celsius: temperature of the battery [°C].
        health: state of health [-].
        cable_ohm: cables both ways [Ω].

    Returns:
        The bank as it discharges.
    """
    model = bank.model
    wells = fit_wells(model.ratings, class_exponent, wells_rate(model.battery_class))
    terminal = Terminal(
        model.battery_class,
        bank.series * model.unit_class_v,
        bank_resistance(bank),
        cable_ohm,
        celsius,
        health,
    )
    cold = max(0.0, 1 - temperature_factor(model.battery_class, celsius))
    return Battery(
        replace(wells, capacity=wells.capacity * health),
        bank.parallel,
        model.rated_ah * health,
        terminal,
        cold,
    )


@dataclass(frozen=True, slots=True)
class Discharge:
    """A steady discharge.

    Attributes:
        hours, ah, volts, soc: over time, the first at its start [h], [Ah], [V], [-].
        delivered_ah, delivered_wh: until it ends [Ah], [Wh].
        left: state of charge by the label that is left in it [-].
        ended: ``volts`` fell to the cut-off, or the ``charge`` ran out.
    """

    hours: Floats
    ah: Floats
    volts: Floats
    soc: Floats
    delivered_ah: float
    delivered_wh: float
    left: float
    ended: str


def _wells_over(wells: Wells, amps: Floats, hours: Floats) -> tuple[Floats, Floats]:
    """q₁ and q₂ of a string after times from full under steady currents; shapes broadcast."""
    total = wells.capacity
    q_1 = available_after(wells.ratio * total, total, wells.ratio, wells.rate, amps, hours)
    return q_1, total - amps * hours - q_1


def steady(battery: Battery, amps: float, cut_off_v: float) -> Discharge:
    """A steady current from full until the cut-off volts or the end of the charge.

    Args:
        battery: the bank.
        amps: current of the whole bank, above 0 [A].
        cut_off_v: volts at the load at which it ends [V].

    Returns:
        The discharge over time, its last point the end.
    """
    each = amps / battery.strings
    longest = battery.wells.capacity / each
    hours = np.linspace(0.0, longest, STEPS)
    q_1, q_2 = _wells_over(battery.wells, np.array(each), hours)
    level = q_1 / (battery.wells.ratio * battery.wells.capacity)
    drawn = battery.wells.capacity - q_1 - q_2
    soc = np.clip(1 - drawn / battery.label_ah, 0.0, 1.0)
    volts = battery.terminal.volts(soc, np.clip(level, 0.0, 1.0), amps)
    spent = level <= battery.cold + 1e-12
    low = volts < cut_off_v
    ends = np.flatnonzero(spent | low)
    end = int(ends[0]) if len(ends) else len(hours) - 1
    ended = BY_VOLTS if low[end] and not (spent[end] and not low[max(0, end - 1)]) else BY_CHARGE
    if low[end] and battery.terminal.volts(soc[end], 1.0, amps) < cut_off_v and not spent[end]:
        ended = BY_VOLTS
    keep = slice(0, max(1, end) + 1)
    ah = amps * hours[keep]
    at = volts[keep]
    wh = float(np.trapezoid(at, ah)) if end else 0.0
    return Discharge(
        hours[keep], ah, at, soc[keep], float(ah[-1]) if end else 0.0, wh, float(soc[end]), ended
    )


def delivered(battery: Battery, amps: Floats, cut_off_v: float) -> tuple[Floats, Floats]:
    """Amp-hours that steady currents take from full, by charge alone and down to cut-off volts.

    Args:
        battery: the bank.
        amps: currents of the whole bank, shape (n,), above 0 [A].
        cut_off_v: volts at the load [V].

    Returns:
        Two arrays of shape (n,): without looking at the volts, and with [Ah].
    """
    each = (amps / battery.strings)[:, None]
    hours = np.linspace(0.0, 1.0, STEPS)[None, :] * battery.wells.capacity / each
    q_1, q_2 = _wells_over(battery.wells, each, hours)
    level = q_1 / (battery.wells.ratio * battery.wells.capacity)
    soc = np.clip(1 - (battery.wells.capacity - q_1 - q_2) / battery.label_ah, 0.0, 1.0)
    volts = battery.terminal.volts(soc, np.clip(level, 0.0, 1.0), amps[:, None])
    spent = level <= battery.cold + 1e-12
    low = spent | (volts < cut_off_v)
    ah = amps[:, None] * hours

    def until(ended: NDArray[np.bool_]) -> Floats:
        first = np.where(ended.any(axis=1), ended.argmax(axis=1), STEPS - 1)
        out: Floats = ah[np.arange(len(amps)), np.maximum(first - 1, 0)]
        return out

    return until(spent), until(low)
