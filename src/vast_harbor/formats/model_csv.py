"""Batteries as CSV, out and in: the columns of the shipped catalogue, each a field of an own entry."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats import csv_table
from vast_harbor.formats.csv_table import NO, TRUTHS, YES, Table, reason
from vast_harbor.formats.fields import Truth
from vast_harbor.formats.model_part import ModelPart, contradictions
from vast_harbor.phrases import phrase

# What was filled in with typical values is told beside an entry, not in a list of batteries.
COLUMNS = tuple(name for name in ModelPart.model_fields if name != "typical")
NEEDED = ("name", "battery_class", "unit_v", "rated_ah", "kg", "price")
LARGEST_ROWS = 100
_TRUTHS = frozenset(
    name
    for name, info in ModelPart.model_fields.items()
    if any(isinstance(mark, Truth) for mark in info.metadata)
)


@dataclass(frozen=True, slots=True)
class ModelRow:
    """One line of the file.

    Attributes:
        line: its number in the file, the heading being 1.
        name: what the line calls the battery.
        model: the entry as the document holds it, without ``id``; None when it is rejected.
        problems: why it is rejected, one sentence for each field.
    """

    line: int
    name: str
    model: dict[str, Any] | None
    problems: tuple[str, ...]


def write(models: Iterable[ModelPart]) -> str:
    """Batteries as CSV.

    Args:
        models: own entries, or any in their form.

    Returns:
        Text with a heading; an empty cell is a field that is not known.
    """
    return csv_table.write(COLUMNS, ([_cell(getattr(m, c)) for c in COLUMNS] for m in models))


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return YES if value else NO
    return f"{value:.10g}" if isinstance(value, int | float) else str(value)


def read(data: bytes, reference: Reference, system: str, taken: Iterable[str] = ()) -> list[ModelRow]:
    """The lines of a file, each a battery or the reasons why it is none.

    Args:
        data: content of the file.
        reference: shipped data.
        system: ``metric`` or ``us``, for bare numbers.
        taken: titles that are in use; a second battery of the same title is rejected.

    Returns:
        Rows in the order of the file.

    Raises:
        CsvError: no text, no heading, needed columns missing, or too many lines.
    """
    what = phrase("files.model_csv.file_batteries_own_keep")
    table = csv_table.read(data, COLUMNS, NEEDED, LARGEST_ROWS, what)
    titles = {t.casefold() for t in taken} | {m.title.casefold() for m in reference.catalogue.values()}
    context = {"typed": True, "system": system, "reference": reference}
    return [_row(number, table, cells, context, titles) for number, cells in table.lines]


def _row(number: int, table: Table, cells: list[str], context: dict[str, Any], titles: set[str]) -> ModelRow:
    given: dict[str, Any] = dict(csv_table.cells_of(table, cells, COLUMNS))
    given.pop("id", None)
    name = f"{given.get('maker', '')} {given.get('name', '')}".strip()
    if len(cells) > len(table.heading):
        return ModelRow(number, name, None, (phrase("files.model_csv.line_cells_heading"),))
    if missing := [c for c in NEEDED if c not in given]:
        return ModelRow(number, name, None, tuple(phrase("files.model_csv.cell_empty", c=c) for c in missing))
    problems = []
    for column in _TRUTHS & given.keys():
        if given[column].lower() not in TRUTHS:
            problems.append(phrase("files.model_csv.neither_yes_nor", column=column, given=given[column]))
        given[column] = TRUTHS.get(given[column].lower(), False)
    if name.casefold() in titles:
        problems.append(phrase("files.model_csv.name_already_battery_named", name=name))
    if problems:
        return ModelRow(number, name, None, tuple(problems))
    try:
        part = ModelPart.model_validate({"id": f"line-{number}", **given}, context=context)
    except ValidationError as error:
        return ModelRow(number, name, None, tuple(reason(dict(e)) for e in error.errors(include_url=False)))
    if wrong := [f"{field}: {said}" for field, said in contradictions(part)]:
        return ModelRow(number, name, None, tuple(wrong))
    titles.add(name.casefold())
    return ModelRow(number, name, part.model_dump(mode="json", exclude={"id"}), ())


def catalogue_csv(rows: Iterable[dict[str, str]]) -> str:
    """The shipped catalogue as CSV, to be changed and taken in again."""
    return csv_table.write(COLUMNS, ([row.get(c) for c in COLUMNS] for row in rows))
