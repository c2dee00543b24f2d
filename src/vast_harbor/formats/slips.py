"""Unit slips: what somebody may have meant who typed an amount where a draw belongs, or minutes as hours."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from vast_harbor.core.figures.parsing import NUMBER, PER_DAY, Unreadable, number
from vast_harbor.core.figures.units import MM_IN
from vast_harbor.phrases import phrase

_AMOUNT = re.compile(rf"^\s*({NUMBER})\s*(.*?)\s*$")
# Outer measures of a battery.
LEAST_CASE_MM, LARGEST_CASE_MM = 30.0, 1500.0
# What LFP units have by their label; lead-acid ones have 2 V a cell.
LFP_VOLTS = {12.8: 12.0, 25.6: 24.0, 51.2: 48.0, 6.4: 6.0}


@dataclass(frozen=True, slots=True)
class Interpretation:
    """One way to read what was typed.

    Attributes:
        label: it in words, computed.
        operations: JSON Patch that enters it so.
    """

    label: str
    operations: tuple[dict[str, Any], ...]


def possible_interpretations(path: str, document: Any) -> tuple[Interpretation, ...]:
    """What may have been meant by a value that was refused.

    Args:
        path: JSON pointer of the field.
        document: the rig document as it was typed, the refused value in it.

    Returns:
        Readings, the likelier first; none where nothing is known to be meant.
    """
    text = _at(document, path)
    match = _AMOUNT.match(text) if isinstance(text, str) else None
    if match is None:
        return ()
    try:
        amount = number(match[1])
    except Unreadable:
        return ()
    unit, field = match[2].strip().lower(), path.rsplit("/", 1)[-1]
    if field == "draw":
        return tuple(_of_draw(path, amount, unit, document))
    if field == "hours":
        return tuple(_of_hours(path, amount, unit))
    if field == "unit_v":
        return tuple(_of_volts(path, amount))
    if field == "unit_ah" or field == "rated_ah":
        return tuple(_of_ah(path, amount, unit, document))
    if field in ("length_mm", "width_mm", "height_mm"):
        return tuple(_of_length(path, amount, unit))
    if field == "measured_wh" and unit in ("w", "kw"):
        watts = amount * (1000 if unit == "kw" else 1)
        return (
            Interpretation(f"{_say(watts)} Wh", (_put(path, watts),)),
            Interpretation(
                phrase("files.slips.w_24_h_wh", say=_say(watts), say_2=_say(watts * 24)),
                (_put(path, watts * 24),),
            ),
        )
    return ()


def _at(document: Any, path: str) -> Any:
    for part in path.split("/")[1:]:
        if isinstance(document, list) and part.isdigit() and int(part) < len(document):
            document = document[int(part)]
        elif isinstance(document, dict) and part in document:
            document = document[part]
        else:
            return None
    return document


def _put(path: str, value: Any) -> dict[str, Any]:
    return {"op": "replace", "path": path, "value": value}


def _say(value: float) -> str:
    return f"{value:.4g}" if value < 1000 else f"{value:.0f}"


def _number(value: Any, otherwise: float) -> float:
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else otherwise


def _hours(load: dict[str, Any]) -> float:
    if load.get("use") == "standby":
        return 24.0
    if load.get("use") == "uses":
        return _number(load.get("uses"), 0) * _number(load.get("minutes"), 0) / 60
    if load.get("use") == "times":
        return float(sum(b - a for a, b in load.get("windows") or []))
    return _number(load.get("hours"), 0)


def _of_draw(path: str, amount: float, unit: str, document: Any) -> Iterator[Interpretation]:
    """``300 W/day``, ``1.2 kWh``, ``60 Ah`` in place of a draw: an amount a day, or a draw while it is on."""
    if unit not in PER_DAY:
        return
    load = _at(document, path.rsplit("/", 1)[0])
    if not isinstance(load, dict):
        return
    on = _hours(load) * _number(load.get("quantity"), 1) * _number(load.get("duty"), 1)
    amps = unit.startswith("a")
    volts = _number(load.get("volts"), 0) or _number(_at(document, "/rig/system_v"), 12)
    wh = amount * (1000 if unit.startswith("k") else volts if amps else 1)
    said = f"{_say(amount)} Ah at {volts:g} V, {_say(wh)} Wh" if amps else f"{_say(wh)} Wh"
    if on > 0:
        watts = wh / on
        yield Interpretation(
            phrase("files.slips.day_w_over_h", said=said, say=_say(watts), say_2=_say(on)),
            (_put(path, f"{watts:.6g} W"),),
        )
    yield Interpretation(
        phrase("files.slips.day_day_w", said=said, say=_say(wh / 24)),
        (
            _put(path, f"{wh / 24:.6g} W"),
            _put(path.replace("/draw", "/use"), "standby"),
            _put(path.replace("/draw", "/duty"), 1),
            _put(path.replace("/draw", "/quantity"), 1),
        ),
    )
    base = f"{_say(amount)} A" if amps else f"{_say(wh)} W"
    yield Interpretation(phrase("files.slips.while", base=base), (_put(path, base),))


def _of_hours(path: str, amount: float, unit: str) -> Iterator[Interpretation]:
    if unit in ("", "h") and 24 < amount <= 1440:
        yield Interpretation(
            phrase("files.slips.minutes_h", say=_say(amount), say_2=_say(amount / 60)),
            (_put(path, amount / 60),),
        )
        yield Interpretation(phrase("files.slips.day_24_h"), (_put(path, 24),))


def _of_volts(path: str, amount: float) -> Iterator[Interpretation]:
    for lfp, lead in LFP_VOLTS.items():
        if abs(amount - lfp) < 1e-6:
            of_class = path.replace("/unit_v", "/battery_class")
            yield Interpretation(
                phrase("files.slips.lead_acid_battery_v", lead=f"{lead:g}"), (_put(path, lead),)
            )
            yield Interpretation(
                phrase("files.slips.lfp_battery_v", lfp=f"{lfp:g}"), (_put(of_class, "lfp"), _put(path, lfp))
            )


def _of_length(path: str, amount: float, unit: str) -> Iterator[Interpretation]:
    """A case of 33 m or of 3.3 mm: the same figure in the unit that makes it a battery's."""
    for name in ("mm", "cm", "in"):
        scale = MM_IN[name]
        if unit != name and LEAST_CASE_MM <= amount * scale <= LARGEST_CASE_MM:
            yield Interpretation(
                f"{_say(amount)} {name}, {_say(amount * scale)} mm", (_put(path, amount * scale),)
            )


def _of_ah(path: str, amount: float, unit: str, document: Any) -> Iterator[Interpretation]:
    volts = _number(_at(document, path.rsplit("/", 1)[0] + "/unit_v"), 12)
    if unit in ("wh", "kwh"):
        wh = amount * (1000 if unit == "kwh" else 1)
        yield Interpretation(
            f"{_say(wh)} Wh at {volts:g} V: {_say(wh / volts)} Ah", (_put(path, wh / volts),)
        )
    if unit in ("min", "minutes", "rc"):
        yield Interpretation(
            phrase("files.slips.reserve_minutes_25_ah", say=_say(25 * amount / 60)),
            (_put(path, 25 * amount / 60),),
        )
