"""A charge as it was measured, against what the source should give there."""

from dataclasses import dataclass
from typing import Any

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.charge_acceptance import acceptance, charge_ohm, time_constant
from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.rig.sources import (
    CHARGE_V,
    ENGINE,
    MAINS,
    MPPT,
    MPPT_EFFICIENCY,
    PANEL_V,
    PITCHES,
    SOLAR,
)
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.stops.banks import Build
from vast_harbor.core.weather.daily_weather import STEP_H
from vast_harbor.phrases import phrase

# Within this share a measurement is as it should be.
ALIKE = 0.12
# So far below its set volts a bank still takes all that it is given [V at 12 V].
BULK_V = 0.15
# More than this no house bank is charged with [A].
MOST_CHARGE_A = 2000.0


@dataclass(frozen=True, slots=True)
class Explained:
    """What a measurement says.

    Attributes:
        says: in words.
        expected: what the source should give there [A].
        edits: JSON Patch operations that take the source as measured; none where there is nothing to take.
        edit_says: what they do, in words.
    """

    says: Sentence
    expected: Figure
    edits: tuple[dict[str, Any], ...]
    edit_says: str


def possible_charge_volts(system_v: float) -> tuple[float, float]:
    """Between which volts a house bank can stand while it is charged [V].

    Args:
        system_v: nominal voltage of the system [V].
    """
    return 9 * system_v / 12, 16.5 * system_v / 12


def explain(
    build: Build,
    timeline: Timeline,
    index: int,
    amps: float,
    volts: float,
    soc: float,
    hour: float,
    month: int,
) -> Explained:
    """Why a source gives what was measured.

    Args:
        build: the bank that was charged, in its rig.
        timeline: the rig's days.
        index: of the source in the plan.
        amps, volts: measured at the battery [A], [V].
        soc: state of charge [-].
        hour: clock hour [h].
        month: 1 to 12.

    Returns:
        What explains the difference: a limit, a cable, shade, or the bank itself.
    """
    plan, source = build.plan, build.plan.sources[index]
    battery_class, n = build.bank.model.battery_class, build.plan.system_v / 12
    at = f"charging.measured.{source.id}"

    def figure(key: str, name: str, value: float, unit: str) -> Figure:
        return Figure(
            f"{at}.{key}",
            name,
            value,
            unit,
            REFERENCE,
            source=phrase("charging.measured_charge.source_bank_entered"),
        )

    celsius = build.days.day.battery_c.number
    could = _could(timeline, index, hour, month, volts / n)
    rested = float(rested_volts(battery_class, plan.system_v, soc))
    ohm = charge_ohm(battery_class, build.criteria.terminal.ohm, build.criteria.terminal.cable_ohm)
    tau = time_constant(battery_class, source.set_v, celsius)
    takes = float(acceptance(soc, rested, source.set_v * n, build.bank.rated_ah, ohm, tau))
    expected = figure("expected", phrase("charging.measured_charge.expected"), min(could, takes), "A")
    figures = {
        "I": figure("amps", phrase("charging.measured_charge.amps"), amps, "A"),
        "x": expected,
        "could": figure("could", phrase("charging.measured_charge.could"), could, "A"),
        "takes": figure("takes", phrase("charging.measured_charge.takes"), takes, "A"),
        "V": figure("volts", phrase("charging.measured_charge.volts"), volts, "V"),
        "soc": figure("soc", phrase("terms.names.charge"), soc, "%"),
    }
    path = f"/sources/{index}"
    if expected.number <= 0.5 and amps <= 0.5:
        says = phrase("charging.measured_charge.current_expected_none_came")
        return Explained(Sentence(says, figures), expected, (), "")
    if abs(amps - expected.number) <= ALIKE * max(1.0, expected.number):
        by = (
            phrase("charging.measured_charge.bank_takes")
            if takes < could
            else phrase("charging.measured_charge.source_give")
        )
        return Explained(
            Sentence(phrase("charging.measured_charge.expected_measured_expected_limit", by=by), figures),
            expected,
            (),
            "",
        )
    if amps > expected.number:
        edits, what = _rated(source.kind, source.link, path, amps)
        says = phrase("charging.measured_charge.expected_measured_expected_source")
        return Explained(Sentence(says, figures), expected, edits, what)
    if volts >= source.set_v * n - BULK_V * n:
        says = phrase("charging.measured_charge.less_expected_measured_expected")
        return Explained(Sentence(says, figures), expected, (), "")
    if source.kind == SOLAR:
        factor = PITCHES[plan.pitch] * amps / expected.number
        figures["f"] = figure("shade", phrase("charging.measured_charge.shade"), factor, "%")
        dirt = max(0.3, min(1.0, round(timeline.assumptions.value("panel_dirt") * amps / expected.number, 2)))
        says = phrase("charging.measured_charge.less_than_expected_measured")
        edit = {"op": "add", "path": "/plan/overrides/panel_dirt", "value": dirt}
        return Explained(
            Sentence(says, figures), expected, (edit,), phrase("charging.measured_charge.use_measured_value")
        )
    lost = source.set_v * n - volts
    if lost > 0.3 * n and source.is_relay:
        cable = figure(
            "cable", phrase("charging.measured_charge.cable"), lost / amps * 1000 if amps > 0 else 0.0, "mΩ"
        )
        says = phrase("charging.measured_charge.less_than_expected_measured_expected")
        figures |= {
            "lost": figure("lost", phrase("charging.measured_charge.lost"), lost, "V"),
            "cable": cable,
        }
        edit = {"op": "replace", "path": f"{path}/cable_mohm", "value": min(2000.0, round(cable.number, 1))}
        return Explained(
            Sentence(says, figures), expected, (edit,), phrase("charging.measured_charge.use_cable")
        )
    edits, what = _rated(source.kind, source.link, path, amps)
    says = phrase("charging.measured_charge.less_than_expected_measured_expected_battery")
    if lost > 0.6 * n:
        says += phrase("charging.measured_charge.look_thin_cable_bad")
    return Explained(Sentence(says, figures), expected, edits, what)


def _rated(kind: str, link: str, path: str, amps: float) -> tuple[tuple[dict[str, Any], ...], str]:
    if amps > 0 and (kind == MAINS or (kind == ENGINE and link != "relay")):
        return ({"op": "replace", "path": f"{path}/amps", "value": round(amps, 1)},), phrase(
            "charging.measured_charge.use_measured_value"
        )
    return (), ""


def clear_sky_amps(timeline: Timeline) -> Floats:
    """What all panels of a rig give under a clear sky into a bank that takes it all.

    Args:
        timeline: the rig's days.

    Returns:
        By month and hour of the clock [A], shape (12, 24); 0 without panels.
    """
    panels = [i for i, source in enumerate(timeline.plan.sources) if source.kind == SOLAR]
    return np.array(
        [
            [sum(_could(timeline, i, hour + 0.5, month, 0.0) for i in panels) for hour in range(24)]
            for month in range(1, 13)
        ],
        float,
    )


def _could(timeline: Timeline, index: int, hour: float, month: int, volts: float) -> float:
    """What a source gives at an hour into a bank of some volts, for 12 V [A]; the sun under a clear sky."""
    source, n = timeline.plan.sources[index], timeline.plan.system_v / 12
    if source.kind != SOLAR:
        return source.most_a(timeline.plan.system_v)
    sun = timeline.sunshine_of(source)
    if sun is None:
        return 0.0
    over = float(sun.clear[month - 1, min(95, int(hour / STEP_H))]) / 1000
    share = (
        over
        * timeline.assumptions.value("panel_dirt")
        * PITCHES[timeline.plan.pitch]
        * (1 - source.starter_share)
    )
    if source.controller == MPPT:
        given = source.watts * MPPT_EFFICIENCY / ((volts or CHARGE_V) * n)
    else:
        given = source.watts / (PANEL_V * n)
    return min(given * share, source.amps or 1e9)
