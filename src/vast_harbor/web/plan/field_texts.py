"""Every value of a rig as it stands in its input."""

from functools import lru_cache
from typing import Any

from pydantic import BaseModel

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.passage import Results
from vast_harbor.formats.changeover_part import READINGS
from vast_harbor.formats.fields import Clock, Date, Measure
from vast_harbor.formats.fields_of_several import Numbers
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.telling.inputs import field_number, plain_number

# In place of a unit.
DATE = "date"
# What a part holds by key that are dates.
DATES = ("done", "bought_on")


@lru_cache
def _measures(model: type[BaseModel]) -> tuple[tuple[str, str, bool], ...]:
    """Fields of a part of the document, with the unit of those that have one or that they are a date, and
    whether they are volts that are stored as for a 12 V system."""
    out = []
    for name, info in model.model_fields.items():
        marks = [m for m in info.metadata if isinstance(m, Measure | Clock | Numbers)]
        percent = bool(marks) and getattr(marks[0], "percent", False)
        unit = "%" if percent else getattr(marks[0], "unit", "1") if marks else "1"
        unit = DATE if any(isinstance(m, Date) for m in info.metadata) else unit
        out.append((name, unit, bool(marks) and getattr(marks[0], "per_12", False)))
    return tuple(out)


def field_texts(rig_file: RigFile, results: Results, style: Style) -> dict[str, str]:
    """Every value as it stands in its input, in the owner's units, by JSON pointer."""
    out: dict[str, str] = {}
    _put(out, rig_file, "", style, rig_file.rig.system_v / 12)
    for i, load in enumerate(rig_file.day.loads):
        unit = load.draw.unit
        out[f"/day/loads/{i}/draw"] = f"{plain_number(load.draw.value, unit, style)} {unit}"
    for key, value in rig_file.plan.overrides.items():
        unit = results.assumptions.get(key).entry.unit if key in results.assumptions else "1"
        out[f"/plan/overrides/{key}"] = field_number(value, unit, style)
    return out


# Not inside of the function above: a function that calls itself there would hold all texts in a cycle.
def _put(out: dict[str, str], part: BaseModel, at: str, style: Style, twelves: float) -> None:
    """Put the values of a part, and of its parts, into ``out``; the system has so many times 12 V."""
    for name, unit, per_12 in _measures(type(part)):
        value, path = getattr(part, name), f"{at}/{name}"
        if value is None:
            out[path] = ""
        elif isinstance(value, str):
            out[path] = style.date(value) if unit == DATE else value
        elif isinstance(value, bool):
            continue
        elif isinstance(value, int | float):
            out[path] = _field_text(float(value) * (twelves if per_12 else 1.0), unit, style)
        elif isinstance(value, BaseModel):
            _put(out, value, path, style, twelves)
        elif isinstance(value, dict):
            _put_entries(out, name, value, path, style, twelves)
        elif name == "positions":
            volts = [[plain_number(v * twelves, "V", style) for v in pair] for pair in value]
            out[path] = ", ".join("/".join(pair) for pair in volts)
        elif name == "windows":
            out[path] = ", ".join(f"{clock_text(a)}–{clock_text(b)}" for a, b in value)
        elif isinstance(value, list):
            for i, item in enumerate(value):
                if isinstance(item, BaseModel):
                    _put(out, item, f"{path}/{i}", style, twelves)
                elif isinstance(item, float):
                    out[f"{path}/{i}"] = _field_text(item, unit, style)


def _put_entries(
    out: dict[str, str], name: str, entries: dict[str, Any], at: str, style: Style, twelves: float
) -> None:
    """Put what a part holds by key: parts, readings in units of their own, sums of money and words."""
    for key, one in entries.items():
        path = f"{at}/{key}"
        if isinstance(one, BaseModel):
            _put(out, one, path, style, twelves)
        elif name == "readings":
            unit = READINGS[key.rpartition(".")[2]].unit
            out[path] = "" if one is None else _field_text(one, unit, style)
        elif name in DATES:
            out[path] = style.date(one)
        elif name not in ("on", "overrides") and not isinstance(one, bool):
            out[path] = _field_text(one, "money", style) if isinstance(one, float) else one or ""


# The same few numbers stand in hundreds of fields, edit after edit.
@lru_cache(maxsize=10_000)
def _field_text(value: float, unit: str, style: Style) -> str:
    if unit == "clock":
        return clock_text(value)
    return field_number(value, unit, style)
