"""How the log of a monitor is meant: delimiter, decimal sign, columns, units, dates, sign of the current.

What is guessed from the first lines is told, so that the owner sees how the file is understood and can say
otherwise.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date
from itertools import pairwise

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.formats.csv_table import CsvError, rows_of
from vast_harbor.formats.monitor_headings import UNITS, WORDS
from vast_harbor.phrases import phrase

MOMENT, DATE, CLOCK, VOLTS, AMPS, OUT, SOC, CELSIUS = (
    "moment", "date", "clock", "volts", "amps", "out", "soc", "celsius",
)  # fmt: skip
# What a column may hold, and the units in which it may be; the first is taken where nothing tells.
ROLES: dict[str, tuple[str, ...]] = {
    MOMENT: (), DATE: (), CLOCK: (),
    VOLTS: ("V", "mV"), AMPS: ("A", "mA"), OUT: ("A", "mA"), SOC: ("%", "1", "Ah", "-Ah"),
    CELSIUS: ("°C", "°F", "K"),
}  # fmt: skip
# In which order a date is written, or what is counted.
ORDERS = ("ymd", "dmy", "mdy", "s", "ms")
DELIMITERS = ";\t|,"
# How much of the file is looked at before it is read [bytes].
HEAD_BYTES = 200_000


@dataclass(frozen=True, slots=True)
class Column:
    """A column of the file.

    Attributes:
        name: what the file calls it; empty without a heading.
        role: what it holds, a key of :data:`ROLES`; empty where it is left out.
        unit: in which its numbers are; empty for times.
    """

    name: str
    role: str = ""
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Layout:
    """How a file is understood.

    Attributes:
        encoding: of its text.
        delimiter: between its cells.
        decimal: its decimal sign.
        first_line: its first line of readings, from 1.
        columns: what they hold.
        order: how its dates are written, one of :data:`ORDERS`.
        order_sure: whether that follows from the file.
        zone: IANA name of the zone of its clock; what states its own offset needs none.
        into_bank: whether a current above 0 flows into the bank.
        sign_from: what that was told by: ``soc``, ``volts``, ``out``, or empty for nothing.
    """

    encoding: str
    delimiter: str
    decimal: str
    first_line: int
    columns: tuple[Column, ...]
    order: str = "ymd"
    order_sure: bool = True
    zone: str = "UTC"
    into_bank: bool = True
    sign_from: str = ""

    def at(self, role: str) -> int | None:
        """The column that holds something; None for none."""
        return next((i for i, c in enumerate(self.columns) if c.role == role), None)


# Twelve hours of the clock, as an afternoon is written.
HALF = re.compile(r"([ap])\.?\s*m\.?\s*$", re.IGNORECASE)


def guess(head: bytes, zone: str, system_v: float) -> Layout:
    """How a file is probably meant.

    Args:
        head: its first :data:`HEAD_BYTES` bytes.
        zone: IANA name of the owner's zone.
        system_v: of the rig [V], for columns without a name.

    Returns:
        The layout, with what is not sure told as such.

    Raises:
        CsvError: no text, one column only, or no line of numbers; a sentence for the owner.
    """
    encoding = _encoding(head)
    text = head.decode(encoding, errors="replace").lstrip("\ufeff")
    whole = len(head) < HEAD_BYTES
    lines = text.splitlines() if whole else text.splitlines()[:-1]
    if not any(line.strip() for line in lines):
        raise CsvError(phrase("files.csv_table.file_empty"))
    delimiter = _delimiter(lines)
    table = list(rows_of(lines, delimiter))
    width = max((len(row) for row in table), default=0)
    if width < 2:
        raise CsvError(phrase("files.monitor_log.one_column"))
    first = next((i for i, row in enumerate(table) if len(row) > 1 and _numbers(row) * 2 >= len(row)), None)
    if first is None:
        raise CsvError(phrase("files.monitor_log.no_numbers"))
    named = table[first - 1] if first and _numbers(table[first - 1]) == 0 else []
    rows = [row for row in table[first:] if row]
    decimal = _decimal(rows, delimiter)
    names = [named[i].strip() if i < len(named) else "" for i in range(width)]
    columns = _columns(names, rows, decimal, system_v)
    layout = Layout(encoding, delimiter, decimal, first + 1, columns, zone=zone)
    return _with_sign(_with_order(layout, rows), rows)


def revised(head: bytes, layout: Layout, find_order: bool, into_bank: bool | None) -> Layout:
    """A layout that the owner changed, with what follows from it.

    Args:
        head: the first bytes of the file.
        layout: as it is now said.
        find_order: whether the order of its dates is to be found out.
        into_bank: which way a current above 0 flows; None to find it out.
    """
    text = head.decode(layout.encoding, errors="replace").lstrip("\ufeff")
    table = list(rows_of(text.splitlines()[layout.first_line - 1 :], layout.delimiter))
    rows = [row for row in table[: None if len(head) < HEAD_BYTES else -1] if row]
    made = _with_order(layout, rows) if find_order else replace(layout, order_sure=True)
    return (
        _with_sign(made, rows) if into_bank is None else replace(made, into_bank=into_bank, sign_from="said")
    )


def _encoding(head: bytes) -> str:
    if head.startswith((b"\xff\xfe", b"\xfe\xff")):
        return "utf-16"
    if b"\x00" in head[:4096]:
        raise CsvError(phrase("files.csv_table.file_text_save_csv"))
    try:
        head[: len(head) - 4 if len(head) >= HEAD_BYTES else None].decode("utf-8-sig")
    except UnicodeDecodeError as error:
        # A sign that is cut at the end of the head is none that cannot be read.
        if error.start < len(head) - 8:
            return "cp1252"
    return "utf-8-sig"


def _delimiter(lines: Sequence[str]) -> str:
    """What stands between cells: what gives most lines the same number of cells; a comma only if nothing else
    does, as it may be a decimal sign."""

    def alike(sign: str) -> float:
        counts = [line.count(sign) for line in lines[:200] if line.strip()]
        usual = max(set(counts), key=counts.count)
        return counts.count(usual) / len(counts) if usual else 0.0

    return max(
        DELIMITERS, key=lambda sign: (alike(sign) > 0.6, sign != "," and alike(sign) > 0.6, alike(sign))
    )


_NUMBER = re.compile(r"^\s*[-+−]?[\d.,]+\s*(?:[%°]?[A-Za-z%]{0,3})\s*$")
_TIME_LIKE = re.compile(r"^\s*\d{1,4}[-./:]\d{1,2}([-./:]\d{1,4})?")


def _numbers(row: Sequence[str]) -> int:
    return sum(bool(_NUMBER.match(cell) or _TIME_LIKE.match(cell)) for cell in row)


def _decimal(rows: Sequence[Sequence[str]], delimiter: str) -> str:
    if delimiter == ",":
        # Between quotes a comma may still be a decimal sign.
        return "," if any(re.match(r"^-?\d+,\d+$", cell.strip()) for row in rows for cell in row) else "."
    comma = sum(bool(re.match(r"^\s*[-−]?\d+,\d+\s*\D*$", cell)) for row in rows for cell in row)
    point = sum(bool(re.match(r"^\s*[-−]?\d+\.\d+\s*\D*$", cell)) for row in rows for cell in row)
    return "," if comma > point else "."


def _columns(
    names: Sequence[str], rows: Sequence[Sequence[str]], decimal: str, system_v: float
) -> tuple[Column, ...]:
    found: list[Column] = []
    for i, name in enumerate(names):
        cells = [row[i].strip() for row in rows if i < len(row) and row[i].strip()]
        role = _role(name, cells) or ("" if name else _role_of_numbers(cells, decimal, system_v))
        # Of two columns for one thing the first is taken; the owner may say otherwise.
        if role and any(c.role == role for c in found):
            role = ""
        found.append(Column(name, role, _unit(role, name, cells, decimal)))
    roles = {c.role for c in found}
    if MOMENT not in roles and CLOCK in roles and DATE not in roles:
        found = [replace(c, role=MOMENT) if c.role == CLOCK else c for c in found]
    if MOMENT not in roles and DATE in roles and CLOCK not in roles:
        found = [replace(c, role=MOMENT) if c.role == DATE else c for c in found]
    if MOMENT in roles:
        found = [replace(c, role="") if c.role in (DATE, CLOCK) else c for c in found]
    return tuple(found)


def _role(name: str, cells: Sequence[str]) -> str:
    bare = re.sub(r"[^a-z0-9%]+", " ", re.sub(r"[(\[].*?[)\]]", " ", name.lower())).strip()
    words = bare.split()
    sample = cells[0] if cells else ""
    both = bool(re.match(r"^\s*\d{1,4}[-./]\d{1,2}[-./]\d{1,4}[T ]+\d{1,2}:\d{2}", sample))
    if both:
        return MOMENT
    for role, known in WORDS.items():
        whole = [k for k in known if k == bare or (" " in k and k in bare) or (len(k) > 2 and k in words)]
        if whole:
            return CLOCK if role == MOMENT and re.match(r"^\d{1,2}:\d{2}", sample) else role
    if re.match(r"^\s*\d{1,4}[-./]\d{1,2}[-./]\d{1,4}\s*$", sample):
        return DATE
    if re.match(r"^\s*\d{1,2}:\d{2}(:\d{2})?", sample):
        return CLOCK
    return ""


def _role_of_numbers(cells: Sequence[str], decimal: str, system_v: float) -> str:
    """What a column without a name holds, by the size of its numbers; empty where that tells nothing."""
    values = np.array([x for cell in cells if not np.isnan(x := _number(cell, decimal))])
    if len(values) < 2:
        return ""
    middle, low, high = float(np.median(values)), float(values.min()), float(values.max())
    if any(0.8 * system_v <= middle / scale <= 1.3 * system_v for scale in (1, 1000)):
        return VOLTS
    if low < 0 < high:
        return AMPS
    return SOC if low >= 0 and 30 < high <= 100 else ""


def _unit(role: str, name: str, cells: Sequence[str], decimal: str) -> str:
    if role not in UNITS:
        return ""
    stated = re.findall(r"[(\[]\s*([^)\]]+?)\s*[)\]]", name.lower()) + name.lower().replace("_", " ").split()
    for word in stated:
        if word in UNITS[role]:
            return UNITS[role][word]
    tail = re.search(r"[A-Za-z%°]+\s*$", cells[0]) if cells else None
    if tail and tail[0].strip().lower() in UNITS[role]:
        return UNITS[role][tail[0].strip().lower()]
    values = np.array([x for cell in cells if not np.isnan(x := _number(cell, decimal))])
    if not len(values):
        return ROLES[role][0]
    size = float(np.median(np.abs(values)))
    if role == VOLTS:
        return "mV" if size > 1000 else "V"
    if role in (AMPS, OUT):
        return "mA" if float(np.abs(values).max()) > 3000 else "A"
    if role == SOC:
        return "1" if float(values.max()) <= 1.0 else "%"
    return "K" if size > 200 else "°C"


def _with_order(layout: Layout, rows: Sequence[Sequence[str]]) -> Layout:
    """In which order the dates are written: as the file tells, else as its days follow one another."""
    at = layout.at(MOMENT) if layout.at(MOMENT) is not None else layout.at(DATE)
    cells = [row[at].strip() for row in rows if at is not None and at < len(row) and row[at].strip()]
    numbers = [[int(n) for n in re.findall(r"\d+", cell)[:3]] for cell in cells]
    numbers = [n for n in numbers if n]
    if not numbers:
        return layout
    if all(len(n) < 3 for n in numbers):
        biggest = max(n[0] for n in numbers)
        return replace(layout, order="ms" if biggest > 10**11 else "s")
    if any(n[0] > 31 for n in numbers):
        return replace(layout, order="ymd")
    if any(n[0] > 12 for n in numbers):
        return replace(layout, order="dmy")
    if any(n[1] > 12 for n in numbers):
        return replace(layout, order="mdy")
    if any("." in cell for cell in cells[:3]):
        return replace(layout, order="dmy")
    if any(HALF.search(cell) for cell in cells[:3]):
        return replace(layout, order="mdy", order_sure=False)
    # Days that follow one another are near one another in the right order.
    spread = {order: _spread(numbers, order) for order in ("dmy", "mdy")}
    best = min(spread, key=lambda order: spread[order])
    return replace(layout, order=best, order_sure=max(spread.values()) > 2 * spread[best])


def _spread(numbers: Sequence[Sequence[int]], order: str) -> int:
    days = []
    for first, second, year in (n[:3] for n in numbers):
        day, month = (first, second) if order == "dmy" else (second, first)
        try:
            days.append(date(year + 2000 * (year < 100), month, day).toordinal())
        except ValueError:
            return 10**9
    return sum(abs(b - a) for a, b in pairwise(days))


def _with_sign(layout: Layout, rows: Sequence[Sequence[str]]) -> Layout:
    """Which way the current flows: with it rises the state of charge, or else the voltage."""
    if layout.at(AMPS) is None:
        return replace(layout, sign_from=OUT if layout.at(OUT) is not None else "")
    values = {role: column_of(rows, layout, role) for role in (AMPS, SOC, VOLTS)}
    amps = values[AMPS]
    for role in (SOC, VOLTS):
        other = values[role]
        if role == SOC:
            moved, flow = np.diff(other), amps[1:]
        else:
            moved, flow = np.diff(other), np.diff(amps)
        good = ~np.isnan(moved) & ~np.isnan(flow) & (moved != 0)
        if good.sum() >= 3:
            agrees = float(np.sum(moved[good] * flow[good]))
            size = float(np.sum(np.abs(moved[good] * flow[good])))
            if size > 0 and abs(agrees) > 0.2 * size:
                return replace(layout, into_bank=agrees > 0, sign_from=role)
    return replace(layout, into_bank=True, sign_from="")


def _number(cell: str, decimal: str) -> float:
    """A number as it stands in a cell, with or without its unit; nan for none."""
    match = re.match(r"^\s*'?\s*([-+−]?[\d.,\u202f\u00a0' ]*\d)", cell)
    if not match:
        return float("nan")
    text = re.sub(r"[\u202f\u00a0' ]", "", match[1]).replace("−", "-")
    text = text.replace(".", "").replace(",", ".") if decimal == "," else text.replace(",", "")
    try:
        return float(text)
    except ValueError:
        return float("nan")


def _values(cells: Sequence[str], decimal: str) -> Floats:
    try:
        if decimal == ".":
            return np.array(cells, dtype=float)
        return np.array([cell.replace(",", ".") for cell in cells], dtype=float)
    except ValueError:
        return np.array([_number(cell, decimal) for cell in cells])


def column_of(rows: Sequence[Sequence[str]], layout: Layout, role: str) -> Floats:
    at = layout.at(role)
    if at is None:
        return np.full(len(rows), np.nan)
    return _values([row[at] if at < len(row) else "" for row in rows], layout.decimal)
