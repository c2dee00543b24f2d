"""Loads as CSV, out and in: documented columns, comma or semicolon, comma or point decimals."""

import csv
import io
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from vast_harbor.core.plan import Reference
from vast_harbor.core.quantities import clock_text
from vast_harbor.formats.rig_document import LoadPart

COLUMNS = (
    "name", "supply", "draw", "quantity", "use", "hours", "uses", "minutes",
    "duty", "starts_at", "windows", "volts",
)  # fmt: skip
NEEDED = ("name", "draw")
LARGEST_ROWS = 300
# A spreadsheet would take a cell that begins so for a formula.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


class CsvError(ValueError):
    """The file as a whole cannot be taken; the message is for the owner."""


@dataclass(frozen=True, slots=True)
class Row:
    """One line of the file.

    Attributes:
        line: its number in the file, the heading being 1.
        name: what the line calls the load.
        load: the load as the document holds it; None when it is rejected.
        problems: why it is rejected, one sentence for each field.
    """

    line: int
    name: str
    load: dict[str, Any] | None
    problems: tuple[str, ...]


def write(loads: Iterable[LoadPart]) -> str:
    """Loads as CSV that is safe to open in a spreadsheet.

    Args:
        loads: loads of a rig.

    Returns:
        Text with a heading, commas, points and CRLF line ends.
    """
    out = io.StringIO()
    table = csv.writer(out)
    table.writerow(COLUMNS)
    for load in loads:
        windows = ", ".join(f"{clock_text(a)}-{clock_text(b)}" for a, b in load.windows)
        starts = "" if load.starts_at is None else clock_text(load.starts_at)
        draw = f"{load.draw.value:g} {load.draw.unit}"
        numbers = [load.hours, load.uses, load.minutes, load.duty]
        cells = [
            load.name,
            load.supply,
            draw,
            f"{load.quantity:g}",
            load.use,
            *(f"{n:.10g}" for n in numbers),
        ]
        cells += [starts, windows, "" if load.volts is None else f"{load.volts:g}"]
        table.writerow([_safe(cell) for cell in cells])
    return out.getvalue()


def _safe(cell: str) -> str:
    return f"'{cell}" if cell.startswith(FORMULA) else cell


def _plain(cell: str) -> str:
    """A cell as it was before :func:`_safe`; a foreign formula is only words here."""
    cell = cell.strip()
    return cell[1:] if cell.startswith("'") and cell[1:2] in FORMULA else cell


def read(data: bytes, reference: Reference, system: str) -> list[Row]:
    """The lines of a file, each a load or the reasons why it is none.

    Args:
        data: content of the file.
        reference: shipped data.
        system: ``metric`` or ``us``, for bare numbers.

    Returns:
        Rows in the order of the file.

    Raises:
        CsvError: no text, no heading, needed columns missing, or too many lines.
    """
    text = _decode(data)
    first = text.split("\n", 1)[0]
    table = csv.reader(
        io.StringIO(text, newline=""), delimiter=";" if first.count(";") > first.count(",") else ","
    )
    try:
        lines = [line for line in table if any(cell.strip() for cell in line)]
    except csv.Error as error:
        raise CsvError(f"The file is not CSV: {error}.") from error
    if not lines:
        raise CsvError("The file is empty.")
    heading = [cell.strip().lower() for cell in lines[0]]
    if missing := [c for c in NEEDED if c not in heading]:
        raise CsvError(
            f"The heading lacks {' and '.join(missing)}; the columns are {', '.join(COLUMNS)}, of which "
            f"{' and '.join(NEEDED)} are needed."
        )
    if len(lines) - 1 > LARGEST_ROWS:
        raise CsvError(f"The file has {len(lines) - 1} loads; a rig holds {LARGEST_ROWS} at most.")
    context = {"typed": True, "system": system, "reference": reference}
    return [_row(number, heading, cells, context) for number, cells in enumerate(lines[1:], 2)]


def _decode(data: bytes) -> str:
    if b"\x00" in data[:4096] and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise CsvError("The file is not text: save it as CSV in UTF-8.")
    encoding = "utf-16" if data.startswith((b"\xff\xfe", b"\xfe\xff")) else "utf-8-sig"
    try:
        return data.decode(encoding)
    except UnicodeDecodeError as error:
        raise CsvError(
            "The file is not in UTF-8, so names would be garbled: save it again as CSV in UTF-8."
        ) from error


def _row(number: int, heading: list[str], cells: list[str], context: dict[str, Any]) -> Row:
    given = {c: _plain(v) for c, v in zip(heading, cells, strict=False) if c in COLUMNS and v.strip()}
    name = given.get("name", "")
    if len(cells) > len(heading):
        return Row(number, name, None, ("The line has more cells than the heading.",))
    if missing := [c for c in NEEDED if c not in given]:
        return Row(number, name, None, tuple(f"{c}: nothing is entered." for c in missing))
    if "supply" in given:
        given["supply"] = given["supply"].lower()
    if "use" in given:
        given["use"] = given["use"].lower()
    elif "windows" in given:
        given["use"] = "times"
    elif "uses" in given and "hours" not in given:
        given["use"] = "uses"
    try:
        part = LoadPart.model_validate({"id": f"line-{number}", **given}, context=context)
    except ValidationError as error:
        return Row(number, name, None, tuple(_reason(e) for e in error.errors(include_url=False)))
    return Row(number, name, part.model_dump(mode="json", exclude={"id"}), ())


def _reason(error: Any) -> str:
    field = str(error["loc"][0]) if error["loc"] else "line"
    return f"{field}: {error['ctx']['error'] if error['type'] == 'value_error' else error['msg']}"
