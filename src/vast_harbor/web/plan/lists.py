"""Lists that program and interface share: stops, what owners care about, and the fields of a rig file."""

import json
from collections.abc import Iterator
from functools import cache
from typing import Any, get_args

from pydantic import BaseModel

from vast_harbor.core.figures.currency import currency_symbol
from vast_harbor.core.figures.units import US, US_UNITS, to_display
from vast_harbor.formats.fields import Choice, Measure
from vast_harbor.formats.fields_of_several import Names
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.rig_part import PRIORITIES
from vast_harbor.phrases import phrase
from vast_harbor.web.plan.field_help import BY_NAME, models_in
from vast_harbor.web.plan.stops import STOPS

HEAD = "// Made by the program (make build); not to be edited.\n"
# Units that stand beside an input as a word, or not at all.
_WORDS = {
    "1": "", "times": "", "1/year": "", "cycles": "", "clock": "",
    "nights": phrase("terms.units.nights"), "years": phrase("terms.units.years"),
    "days": phrase("terms.units.days"), "l fuel": "l",
}  # fmt: skip


def _marks(model: type[BaseModel], at: str = "") -> Iterator[tuple[str, Any]]:
    """Every field that reads for itself, by its place, with what it is."""
    for name, info in model.model_fields.items():
        for part in models_in(info.annotation):
            if part is not model:
                yield from _marks(part, f"{at}{name}.")
        marks = [*info.metadata, *(m for arg in get_args(info.annotation) for m in _inner(arg))]
        for mark in marks:
            if isinstance(mark, Measure | Choice | Names):
                yield at + name, mark


def _inner(annotation: Any) -> tuple[Any, ...]:
    """What an annotation inside of a list says of its items."""
    return getattr(annotation, "__metadata__", ())


@cache
def units_of_fields() -> dict[str, str]:
    """Stored unit of every field with one, by its place; none for shares, which are told in per cent."""
    return {
        at: mark.unit
        for at, mark in _marks(RigFile)
        if isinstance(mark, Measure) and not mark.percent and _WORDS.get(mark.unit, mark.unit)
    }


def options_of_fields() -> dict[str, list[str]]:
    """The words that a field may be, by its place, in their order."""
    return {at: [*mark.options] for at, mark in _marks(RigFile) if isinstance(mark, Choice | Names)}


@cache
def unit_names(system: str, currency: str) -> dict[str, str]:
    """What stands beside an input, by the stored unit of its field.

    Args:
        system: ``metric`` or ``us``.
        currency: ISO 4217 code.
    """
    symbol = currency_symbol(currency)
    names = {}
    for unit in {*units_of_fields().values(), *US_UNITS, "A", "V", "W", "Wh", "Ah", "h", "money"}:
        shown = to_display(1.0, unit, system)[1]
        names[unit] = _WORDS.get(shown, shown).replace("money", symbol)
    # American sizes are typed with their sign.
    return names | ({"mm²": ""} if system == US else {})


def interface_lists() -> str:
    """The lists as TypeScript, for the interface to be built with."""
    names = {key: name for key, name in PRIORITY_NAMES.items() if key in PRIORITIES}
    return HEAD + "".join(
        (
            _list("STOPS", [s.key for s in STOPS]),
            "export type Stop = (typeof STOPS)[number]\n",
            _record("STOP_NAMES", "Stop", {s.key: s.name for s in STOPS}),
            _record("STOPS_INSIDE", "Stop", {s.key: s.inside for s in STOPS}),
            _list("PRIORITIES", list(PRIORITIES)),
            _record("PRIORITY_NAMES", "(typeof PRIORITIES)[number]", names),
            _record("UNITS", "string", units_of_fields()),
            _list("BY_NAME", sorted(BY_NAME)),
            f"export const OPTIONS = {_json(options_of_fields())} as const\n",
        )
    )


# What an owner may care about, as it is offered.
PRIORITY_NAMES = {
    "purse": phrase("terms.cares.purse"),
    "weight": phrase("terms.cares.weight"),
    "cold": phrase("terms.cares.cold"),
    "no_upkeep": phrase("terms.cares.no_upkeep"),
    "big_loads": phrase("terms.cares.big_loads"),
    "short_keeping": phrase("terms.cares.short_keeping"),
    "long_keeping": phrase("terms.cares.long_keeping"),
}


def _json(value: object) -> str:
    return json.dumps(value, ensure_ascii=False, indent=1)


def _list(name: str, values: list[str]) -> str:
    return f"export const {name} = {_json(values)} as const\n"


def _record(name: str, key: str, values: dict[str, str]) -> str:
    return f"export const {name}: Record<{key}, string> = {_json(values)}\n"
