"""Rate and voltage: what banks deliver at a steady current, and what ends it."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.battery.discharge import BY_VOLTS, Battery, Discharge, battery, delivered, steady
from vast_harbor.core.battery.kibam import advance, step
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.stops.banks.checks.check import Build
from vast_harbor.core.stops.banks.criteria import label_or_class_exponent
from vast_harbor.phrases import phrase

# A rest after which the battery runs a small load again, and that load as a share of its rated capacity.
REST_H, SMALL_C = 2.0, 0.02


@dataclass(frozen=True, slots=True)
class Curve:
    """One bank over currents, and over a steady discharge.

    Attributes:
        id: of the candidate.
        by_charge, by_volts: amp-hours delivered at each current, by charge alone and down to the cut-off
            [Ah].
        run: the steady discharge.
        says: what ends it, in words.
    """

    id: str
    by_charge: NDArray[np.float64]
    by_volts: NDArray[np.float64]
    run: Discharge
    says: Sentence


@dataclass(frozen=True, slots=True)
class Rates:
    """Banks side by side.

    Attributes:
        amps: currents of the picture [A].
        current: current of the steady discharge [A].
        cut_off_v: volts at which it ends [V].
        curves: one for each bank.
    """

    amps: NDArray[np.float64]
    current: float
    cut_off_v: float
    curves: tuple[Curve, ...]


def discharging(build: Build) -> Battery:
    """A candidate as it discharges on the governing day, at the age that is planned for."""
    health = min(build.need.ageing.number, build.bank.model.health)
    warmth = build.need.day.battery_c.number
    return battery(build.bank, label_or_class_exponent(build.assumptions, build.bank.model), warmth, health)


def rates_of(builds: tuple[Build, ...], amps: float | None) -> Rates | None:
    """Delivered charge against current, and one steady discharge, of several banks.

    Args:
        builds: candidates that can be built.
        amps: current of the steady discharge [A]; None for that of the hardest load that lasts.

    Returns:
        The pictures; None without a bank.
    """
    if not builds:
        return None
    first = builds[0]
    system_v = first.plan.system_v
    lasting = first.hardest_day.lasting() / system_v
    current = amps if amps else max(1.0, lasting)
    cut_off = first.assumptions.value("inverter_cut_off_v") * system_v / 12
    top = max(current * 1.5, *(0.5 * b.bank.rated_ah for b in builds))
    grid = np.geomspace(max(0.2, top / 200), top, 48)
    curves = []
    for build in builds:
        one = discharging(build)
        by_charge, by_volts = delivered(one, grid, cut_off)
        run = steady(one, current, cut_off)
        curves.append(Curve(build.candidate.id, by_charge, by_volts, run, _says(build, one, run, current)))
    return Rates(grid, current, cut_off, tuple(curves))


def _says(build: Build, one: Battery, run: Discharge, amps: float) -> Sentence:
    at = f"{build.at}.rate"

    def figure(key: str, name: str, value: float, unit: str) -> Figure:
        return Figure(
            f"{at}.{key}",
            name,
            value,
            unit,
            REFERENCE,
            source=phrase("banks.discharge_curves.kinetic_battery_model_voltage"),
        )

    figures = {
        "I": figure("current", phrase("banks.discharge_curves.current"), amps, "A"),
        "time": figure("hours", phrase("banks.discharge_curves.hours"), float(run.hours[-1]), "duration"),
        "Ah": figure("ah", phrase("banks.discharge_curves.ah"), run.delivered_ah, "Ah"),
        "left": figure("left", phrase("banks.discharge_curves.left"), run.left, "%"),
    }
    if run.delivered_ah <= 0:
        return Sentence(phrase("banks.discharge_curves.voltage_below_cut_off"), figures)
    why = (
        phrase("banks.discharge_curves.voltage_reaches_cut_off")
        if run.ended == BY_VOLTS
        else phrase("banks.discharge_curves.charge_available_once_used")
    )
    says = phrase("banks.discharge_curves.after_delivered_left", why=why)
    if run.left > 0.1:
        figures["again"] = figure(
            "again", phrase("banks.discharge_curves.again"), _after_rest(one, run, amps), "Ah"
        )
        figures["rest"] = figure("rest", phrase("banks.discharge_curves.rest"), REST_H, "duration")
        says += phrase("banks.discharge_curves.after_rest_small_load")
    return Sentence(says, figures)


def _after_rest(one: Battery, run: Discharge, amps: float) -> float:
    """What a small load gets out of it after a rest [Ah]."""
    wells = one.wells
    empty = one.cold * wells.ratio * wells.capacity
    hours = float(run.hours[-1])
    q = step(wells, *wells.full(), amps / one.strings, hours)
    q = step(wells, *q, 0.0, REST_H)
    small = SMALL_C * one.label_ah
    return advance(wells, *q, small, 200.0, empty).hours * small * one.strings
