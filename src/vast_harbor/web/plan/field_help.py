"""Help on a field: what it is, where to find it, and what is assumed when it is not known."""

import re
from functools import cache
from typing import Any, get_args

from pydantic import BaseModel

from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.formats.fields import Clock, Measure
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.web.base.views import View

OVERRIDES = "/plan/overrides/"
# What holds values by name, which says nothing of what they are.
BY_NAME = frozenset(
    {"on", "done", "notes", "passed", "readings", "quoted", "paid", "bought_on", "seller", "serial"}
)
_PLACE = re.compile(r"\{([^{}]+)\}")


class FieldHelpView(View):
    """Help on a field, in the owner's units."""

    what: str
    where: str
    unknown: str


def place_of(pointer: str) -> str:
    """Which field a JSON pointer of a rig means, numbers and keys of rows left out.

    Args:
        pointer: e.g. ``/day/loads/3/on/winter/hours``.

    Returns:
        e.g. ``day.loads.on.hours``.
    """
    parts = pointer.strip("/").split("/")
    kept = (p for i, p in enumerate(parts) if not p.isdigit() and (i == 0 or parts[i - 1] not in BY_NAME))
    return ".".join(kept)


@cache
def _new_values() -> dict[str, tuple[Any, str, bool]]:
    """The value that each field of a new entry has, with its unit, by place; and whether it is volts that are
    stored as for a 12 V system."""
    out: dict[str, tuple[Any, str, bool]] = {}

    def walk(model: type[BaseModel], at: str) -> None:
        for name, info in model.model_fields.items():
            inside = [k for k in models_in(info.annotation) if k is not model]
            for part in inside:
                walk(part, f"{at}{name}.")
            mark = next((m for m in info.metadata if isinstance(m, Measure | Clock)), None)
            if not inside and mark is not None:
                unit = "%" if getattr(mark, "percent", False) else mark.unit
                out[at + name] = (info.default, unit, getattr(mark, "per_12", False))

    walk(RigFile, "")
    return out


def models_in(annotation: Any) -> list[type[BaseModel]]:
    """The parts of a document that an annotation names, in its order."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    return [model for part in get_args(annotation) for model in models_in(part)]


def _filled(text: str, place: str, style: Style, system_v: float) -> str:
    """A text with its values, in the owner's units."""

    def value(found: re.Match[str]) -> str:
        name = found[1]
        if name == "default":
            number, unit, per_12 = _new_values()[place]
            number *= system_v / 12 if per_12 else 1
            return f"{number:g}" if unit in ("1", "times") else style.text(number, unit)
        amount, unit = name.split()
        return style.text(float(amount), unit)

    return _PLACE.sub(value, text)


def field_help(pointer: str, assumptions: Assumptions, style: Style, system_v: float) -> FieldHelpView:
    """Help on a field of a rig or of a tool.

    Args:
        pointer: JSON pointer of the field in the rig file, or ``/tool/cable/amps``.
        assumptions: those of the plan.
        style: the owner's units.
        system_v: class volts of the rig [V].

    Returns:
        The three texts.

    Raises:
        KeyError: there is no such field.
    """
    if pointer.startswith(OVERRIDES):
        found = assumptions.get(pointer.removeprefix(OVERRIDES))
        usual = style.text(found.default, found.entry.unit)
        return FieldHelpView(
            what=found.entry.note or phrase("answers.field_help.assumption"),
            where=found.entry.source,
            unknown=phrase("answers.field_help.usual", usual=usual)
            if found.default is not None
            else phrase("answers.field_help.worked_out"),
        )
    place = place_of(pointer)
    texts = data.field_help()[place]
    what, where, unknown = (
        _filled(text, place, style, system_v) for text in (texts.what, texts.where, texts.unknown)
    )
    return FieldHelpView(what=what, where=where, unknown=unknown)
