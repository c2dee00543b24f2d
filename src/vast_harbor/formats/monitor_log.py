"""The log of a battery monitor as CSV, as monitors and people write it: what its columns mean, its readings.

What is guessed from the first lines is told, so that the owner sees how the file is understood and can say
otherwise.
"""

import csv
import io
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime
from itertools import pairwise
from pathlib import Path
from typing import IO
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

import numpy as np

from vast_harbor.core.log.readings import Floats, Ints, Readings
from vast_harbor.formats.csv_table import CsvError
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
# How much of the file is looked at before it is read, and how much of it is read at once [bytes], [lines].
HEAD_BYTES, BLOCK = 200_000, 20_000
LARGEST_BYTES = 64_000_000


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


@dataclass(frozen=True, slots=True)
class ReadFile:
    """What was read of a file.

    Attributes:
        readings: as they came.
        lines: the line of each reading, from 1, shape (n,).
        unread: how many lines hold no time that can be read.
        unread_line, unread_text: the first of them; 0 and empty for none.
    """

    readings: Readings
    lines: Ints
    unread: int
    unread_line: int
    unread_text: str


# ---- what the columns mean


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
    table = list(csv.reader(lines, delimiter=delimiter))
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
    table = list(csv.reader(text.splitlines()[layout.first_line - 1 :], delimiter=layout.delimiter))
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
    if any(_HALF.search(cell) for cell in cells[:3]):
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
    values = {role: _column(rows, layout, role) for role in (AMPS, SOC, VOLTS)}
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


# ---- the readings


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


def _column(rows: Sequence[Sequence[str]], layout: Layout, role: str) -> Floats:
    at = layout.at(role)
    if at is None:
        return np.full(len(rows), np.nan)
    return _values([row[at] if at < len(row) else "" for row in rows], layout.decimal)


_OFFSET = re.compile(r"(?:Z|([+-])(\d{2}):?(\d{2}))\s*$")
_HALF = re.compile(r"([ap])\.?\s*m\.?\s*$", re.IGNORECASE)
_UNSTATED = -10_000
_EPOCH = date(1970, 1, 1).toordinal()


class _Clock:
    """Times as they are written, as seconds."""

    def __init__(self, layout: Layout) -> None:
        self.order = layout.order
        self._days: dict[str, int] = {}

    def _day(self, text: str) -> int:
        """Days since 1970 of a written date; raises ValueError."""
        found = self._days.get(text)
        if found is None:
            a, b, c = (int(n) for n in re.split(r"\D+", text))
            year, month, day = {"ymd": (a, b, c), "dmy": (c, b, a), "mdy": (c, a, b)}[self.order]
            found = date(year + (2000 if year < 100 else 0), month, day).toordinal() - _EPOCH
            self._days[text] = found
        return found

    def seconds(self, text: str) -> tuple[int, int | None]:
        """A written time [s], and how far its clock is ahead of UTC where it says so [min]; raises
        ValueError."""
        if self.order in ("s", "ms"):
            counted = float(text)
            return int(counted / 1000 if self.order == "ms" else counted), 0
        text = text.strip()
        offset: int | None = None
        if match := _OFFSET.search(text, 10):
            text = text[: match.start()]
            offset = 0
            if match[1]:
                offset = (1 if match[1] == "+" else -1) * (int(match[2]) * 60 + int(match[3]))
        half = _HALF.search(text)
        if half:
            text = text[: half.start()]
        written, _, clock = text.replace("T", " ", 1).partition(" ")
        parts = clock.strip(" ,").split(":") if clock.strip(" ,") else ["0"]
        hour, minute = int(parts[0]), int(parts[1]) if len(parts) > 1 else 0
        second = int(float(parts[2].replace(",", "."))) if len(parts) > 2 else 0
        if half:
            hour = hour % 12 + (12 if half[1].lower() == "p" else 0)
        if not (0 <= hour < 24 and 0 <= minute < 60 and 0 <= second < 61):
            raise ValueError(text)
        return self._day(written.strip(" ,")) * 86_400 + hour * 3600 + minute * 60 + second, offset


def zone_of(name: str) -> ZoneInfo:
    """A zone by its IANA name; raises :class:`CsvError`."""
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError) as error:
        raise CsvError(phrase("files.monitor_log.zone", zone=name)) from error


def _minutes(moment: datetime) -> int:
    """How far the clock of a moment is ahead of UTC [min]."""
    ahead = moment.utcoffset()
    return 0 if ahead is None else int(ahead.total_seconds()) // 60


def _offsets(local: Ints, zone: ZoneInfo) -> Ints:
    """How far the clock was ahead of UTC at local times in file order [min]; in the hour that comes twice, it
    comes again where the clock steps back."""
    quarter, place = np.unique(local // 900, return_inverse=True)
    stamps = [datetime.fromtimestamp(int(q) * 900, UTC).replace(tzinfo=zone) for q in quarter]
    first = np.array([_minutes(s) for s in stamps], np.int64)
    second = np.array([_minutes(s.replace(fold=1)) for s in stamps], np.int64)
    out = first[place]
    twice = (second < first)[place]
    again = False
    for i in np.flatnonzero(twice):
        again = bool(i and twice[i - 1] and (again or local[i] < local[i - 1]))
        if again:
            out[i] = second[place[i]]
    return out


def read(file: Path, layout: Layout, capacity_ah: float | None) -> Iterator[float | ReadFile]:
    """Read a file.

    Args:
        file: where it lies.
        layout: how it is understood.
        capacity_ah: of the bank, for charge that is logged in amp-hours [Ah]; None where it is not known.

    Yields:
        How much of it is read [-], and at last what was read.

    Raises:
        CsvError: it has no reading, or a zone that is not known.
    """
    zone = zone_of(layout.zone)
    clock = _Clock(layout)
    size = max(1, file.stat().st_size)
    parts: dict[str, list[Floats]] = {role: [] for role in (VOLTS, AMPS, OUT, SOC, CELSIUS)}
    times: list[Ints] = []
    stated: list[Ints] = []
    lines: list[Ints] = []
    unread, bad = 0, list[tuple[int, str]]()
    with file.open(encoding=layout.encoding, errors="replace", newline="") as text:
        for first, rows in _blocks(text, layout):
            block = _timed(first, rows, layout, clock)
            unread += len(block.unread)
            bad = bad or block.unread[:1]
            times.append(block.at)
            stated.append(block.ahead)
            lines.append(block.lines)
            for role, found in parts.items():
                found.append(_column(block.rows, layout, role))
            yield min(0.99, text.buffer.tell() / size)  # type: ignore[attr-defined]
    if not sum(len(t) for t in times):
        raise CsvError(phrase("files.monitor_log.nothing"))
    written_at, ahead_by = np.concatenate(times), np.concatenate(stated)
    columns = {role: np.concatenate(found) for role, found in parts.items()}
    yield ReadFile(
        _readings(written_at, ahead_by, columns, layout, zone, capacity_ah),
        np.concatenate(lines), unread, *(bad[0] if bad else (0, "")),
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Timed:
    """Lines whose time was read: as written [s], what they state of their clock [min], cells, line numbers;
    line and text of the others."""

    at: Ints
    ahead: Ints
    rows: list[Sequence[str]]
    lines: Ints
    unread: list[tuple[int, str]]


def _timed(first: int, rows: Sequence[Sequence[str]], layout: Layout, clock: _Clock) -> _Timed:
    at: list[int] = []
    ahead: list[int] = []
    good: list[Sequence[str]] = []
    lines: list[int] = []
    unread: list[tuple[int, str]] = []
    for number, row in enumerate(rows, first):
        try:
            second, offset = clock.seconds(_written(row, layout))
        except (ValueError, OverflowError):
            if any(cell.strip() for cell in row):
                unread.append((number, layout.delimiter.join(row)[:80]))
            continue
        at.append(second)
        ahead.append(_UNSTATED if offset is None else offset)
        good.append(row)
        lines.append(number)
    return _Timed(np.array(at, np.int64), np.array(ahead, np.int64), good, np.array(lines, np.int64), unread)


def _blocks(text: IO[str], layout: Layout) -> Iterator[tuple[int, list[list[str]]]]:
    reader = csv.reader((line.replace("\0", "") for line in text), delimiter=layout.delimiter)
    block: list[list[str]] = []
    begun = layout.first_line
    for number, row in enumerate(reader, 1):
        if number < layout.first_line:
            continue
        block.append(row)
        if len(block) == BLOCK:
            yield begun, block
            begun, block = number + 1, []
    if block:
        yield begun, block


def _written(row: Sequence[str], layout: Layout) -> str:
    def cell(role: str) -> str:
        at = layout.at(role)
        return row[at] if at is not None and at < len(row) else ""

    if layout.at(MOMENT) is not None:
        return cell(MOMENT)
    return f"{cell(DATE).strip()} {cell(CLOCK).strip()}"


def _readings(
    written: Ints,
    stated: Ints,
    columns: dict[str, Floats],
    layout: Layout,
    zone: ZoneInfo,
    capacity: float | None,
) -> Readings:
    own = stated != _UNSTATED
    offset = _offsets(written, zone)
    at = written - 60 * np.where(own, stated, offset)
    if own.any():
        # What states its offset is an instant; the owner's clock at it is the zone's.
        offset = np.where(own, ahead_at(at, zone), offset)
    units = {c.role: c.unit for c in layout.columns}
    volts = columns[VOLTS] * (0.001 if units.get(VOLTS) == "mV" else 1.0)
    amps = columns[AMPS] * (0.001 if units.get(AMPS) == "mA" else 1.0) * (1 if layout.into_bank else -1)
    if OUT in units:
        out = np.abs(columns[OUT]) * (0.001 if units[OUT] == "mA" else 1.0)
        amps = np.where(np.isnan(amps), 0.0, amps) - np.where(np.isnan(out), 0.0, out)
    soc = columns[SOC]
    if units.get(SOC) == "%":
        soc = soc / 100
    elif units.get(SOC) in ("Ah", "-Ah"):
        size = capacity or float("nan")
        soc = soc / size if units[SOC] == "Ah" else 1 - np.abs(soc) / size
    celsius = columns[CELSIUS]
    if units.get(CELSIUS) == "°F":
        celsius = (celsius - 32) / 1.8
    elif units.get(CELSIUS) == "K":
        celsius = celsius - 273.15
    return Readings(at, offset, volts, amps, soc, celsius)


def ahead_at(at: Ints, zone: ZoneInfo) -> Ints:
    """How far a zone's clock is ahead of UTC at instants [min].

    Args:
        at: seconds since 1970 UTC [s], shape (n,).
        zone: the zone.
    """
    quarter, place = np.unique(at // 900, return_inverse=True)
    ahead = [_minutes(datetime.fromtimestamp(int(q) * 900, zone)) for q in quarter]
    found: Ints = np.array(ahead, np.int64)[place]
    return found


def first_rows(head: bytes, layout: Layout, capacity_ah: float | None, count: int) -> Readings:
    """The first readings of a file as they are understood; raises :class:`CsvError`.

    Args:
        head: its first bytes.
        layout: how it is understood.
        capacity_ah: of the bank [Ah]; None where it is not known.
        count: how many.
    """
    zone, clock = zone_of(layout.zone), _Clock(layout)
    text = io.StringIO(head.decode(layout.encoding, errors="replace").lstrip("\ufeff"), newline="")
    block = next(
        (_timed(first, rows[: 4 * count], layout, clock) for first, rows in _blocks(text, layout)), None
    )
    if block is None or not block.rows:
        raise CsvError(phrase("files.monitor_log.nothing"))
    good = block.rows[:count]
    columns = {role: _column(good, layout, role) for role in (VOLTS, AMPS, OUT, SOC, CELSIUS)}
    return _readings(block.at[:count], block.ahead[:count], columns, layout, zone, capacity_ah)
