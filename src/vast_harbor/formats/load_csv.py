"""Loads as CSV, out and in: documented columns, comma or semicolon, comma or point decimals."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats import csv_table
from vast_harbor.formats.csv_table import NO, TRUTHS, YES, Table, reason
from vast_harbor.formats.day_part import LoadPart, TimesPart
from vast_harbor.formats.load_headings import IN_AMPS, WORDS
from vast_harbor.phrases import phrase

COLUMNS = (
    "name", "supply", "draw", "quantity", "use", "hours", "uses", "minutes",
    "duty", "starts_at", "windows", "volts", "low", "high", "start_w", "start_s", "together", "critical",
    "duty_at", "measured_wh", "measured_hours", "bank", "thrifty_w", "thrifty_price", "days",
)  # fmt: skip
NEEDED = ("name", "draw")
LARGEST_ROWS = 300


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
    rows = []
    for load in loads:
        cells = {
            "name": load.name,
            "supply": load.supply,
            "draw": f"{load.draw.value:.10g} {load.draw.unit}",
            "use": load.use,
            "starts_at": _clock(load.starts_at),
            "windows": _windows(load.windows),
            "together": YES if load.together else NO,
            "critical": YES if load.critical else NO,
            "duty_at": " / ".join(f"{d:.10g}" for d in load.duty_at),
            "bank": load.bank,
            "days": " | ".join(f"{key}={_times(times)}" for key, times in load.on.items()),
        }
        for name in COLUMNS:
            if name not in cells:
                value = getattr(load, name)
                cells[name] = "" if value is None else f"{value:.10g}"
        rows.append(cells)
    return csv_table.write(COLUMNS, ([row[name] for name in COLUMNS] for row in rows))


def _clock(hours: float | None) -> str:
    return "" if hours is None else clock_text(hours)


def _windows(windows: Iterable[tuple[float, float]]) -> str:
    return ", ".join(f"{clock_text(a)}-{clock_text(b)}" for a, b in windows)


def _times(times: TimesPart | None) -> str:
    """Times of one kind of day: ``off``, ``3 h``, ``2 x 10 min from 07:00``, ``18:00-22:00``, ``all day``."""
    if times is None:
        return "off"
    if times.use == "standby":
        return "all day"
    if times.use == "times":
        return _windows(times.windows) or "0 h"
    at = "" if times.starts_at is None else f" from {clock_text(times.starts_at)}"
    if times.use == "uses":
        return f"{times.uses:.10g} x {times.minutes:.10g} min{at}"
    return f"{times.hours:.10g} h{at}"


_USES = re.compile(r"^(\S+)\s*[x×]\s*(.+?)(?:\s+from\s+(\S+))?$", re.IGNORECASE)
_HOURS = re.compile(r"^(.+?)(?:\s+from\s+(\S+))?$", re.IGNORECASE)


def _read_times(text: str) -> dict[str, Any] | None:
    """The reverse of :func:`_times`, as typed fields; None for ``off``."""
    plain = text.strip()
    if plain.lower() in ("off", "no"):
        return None
    if plain.lower() == "all day":
        return {"use": "standby"}
    if re.match(r"^\d{1,2}(:\d{2})?\s*[-–]", plain):
        return {"use": "times", "windows": plain}
    if match := _USES.match(plain):
        return {"use": "uses", "uses": match[1], "minutes": match[2], "starts_at": match[3]}
    match = _HOURS.match(plain)
    return {"use": "hours", "hours": match[1], "starts_at": match[2]} if match else {"hours": plain}


def headings(data: bytes) -> list[tuple[str, str]]:
    """What the file calls its columns, and as which each is read; empty for one that is left out.

    Raises:
        CsvError: as :func:`read`.
    """
    table = csv_table.read(
        data, COLUMNS, NEEDED, LARGEST_ROWS, phrase("files.load_csv.file_loads_rig"), WORDS
    )
    return [
        (named, key if key in COLUMNS else "") for named, key in zip(table.named, table.heading, strict=True)
    ]


def sample() -> str:
    """A small file to fill in, with the headings that people use."""
    rows = [
        {"name": "Fridge", "draw": "45 W", "quantity": "1", "hours": "24", "duty": "35 %", "supply": "DC"},
        {"name": "Lights", "draw": "2 W", "quantity": "8", "hours": "4.5", "duty": "", "supply": "DC"},
        {"name": "Kettle", "draw": "1000 W", "quantity": "1", "uses": "3", "minutes": "4", "supply": "AC"},
    ]
    columns = ("name", "draw", "quantity", "hours", "uses", "minutes", "duty", "supply")
    return csv_table.write(columns, ([row.get(name) for name in columns] for row in rows))


def read(data: bytes, reference: Reference, system: str, day_types: Iterable[str] = ()) -> list[Row]:
    """The lines of a file, each a load or the reasons why it is none.

    Args:
        data: content of the file.
        reference: shipped data.
        system: ``metric`` or ``us``, for bare numbers.
        day_types: ids of the kinds of day of the rig, for the column ``days``.

    Returns:
        Rows in the order of the file.

    Raises:
        CsvError: no text, no heading, needed columns missing, or too many lines.
    """
    what = phrase("files.load_csv.file_loads_rig")
    table = csv_table.read(data, COLUMNS, NEEDED, LARGEST_ROWS, what, WORDS)
    context = {"typed": True, "system": system, "reference": reference}
    known = set(day_types)
    return [_row(number, table, cells, context, known) for number, cells in table.lines]


def _row(number: int, table: Table, cells: list[str], context: dict[str, Any], day_types: set[str]) -> Row:
    given: dict[str, Any] = dict(csv_table.cells_of(table, cells, COLUMNS))
    name = given.get("name", "")
    if len(cells) > len(table.heading):
        return Row(number, name, None, (phrase("files.load_csv.line_cells_heading"),))
    if missing := [c for c in NEEDED if c not in given]:
        return Row(number, name, None, tuple(phrase("files.load_csv.cell_empty", c=c) for c in missing))
    amps = IN_AMPS.search(table.named[table.heading.index("draw")])
    if amps and re.fullmatch(r"[\d.,]+", given["draw"]):
        given["draw"] = f"{given['draw']} A"
    if "supply" in given:
        given["supply"] = given["supply"].lower().strip(".")
    if "use" in given:
        given["use"] = given["use"].lower()
    elif "windows" in given:
        given["use"] = "times"
    elif "uses" in given and "hours" not in given:
        given["use"] = "uses"
    problems = _structured(given, day_types)
    if problems:
        return Row(number, name, None, tuple(problems))
    try:
        part = LoadPart.model_validate({"id": f"line-{number}", **given}, context=context)
    except ValidationError as error:
        return Row(number, name, None, tuple(reason(dict(e)) for e in error.errors(include_url=False)))
    return Row(number, name, part.model_dump(mode="json", exclude={"id"}), ())


def _structured(given: dict[str, Any], day_types: set[str]) -> list[str]:
    """Bring cells with yes or no, or several values, to what a load takes; why it cannot be done."""
    problems = []
    for name in ("together", "critical"):
        if name in given:
            if given[name].lower() not in TRUTHS:
                problems.append(phrase("files.load_csv.neither_yes_nor", name=name, given=given[name]))
            given[name] = TRUTHS.get(given[name].lower(), False)
    if "bank" in given:
        given["bank"] = given["bank"].lower()
    if "duty_at" in given:
        given["duty_at"] = [part.strip() for part in re.split(r"[/;]", given["duty_at"])]
    if "days" in given:
        on = {}
        for part in given.pop("days").split("|"):
            key, equals, text = part.partition("=")
            key = key.strip()
            if not equals or key not in day_types:
                known = ", ".join(sorted(day_types))
                problems.append(phrase("files.load_csv.days_rig_kind_day", key=key, known=known))
            else:
                on[key] = _read_times(text)
        given["on"] = on
    return problems
