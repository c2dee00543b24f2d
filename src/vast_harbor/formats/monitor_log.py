"""The log of a battery monitor as CSV, as monitors and people write it: its readings."""

import io
import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path
from typing import IO
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

import numpy as np

from vast_harbor.core.arrays import Floats, Ints
from vast_harbor.core.figures.units import celsius as from_fahrenheit
from vast_harbor.core.log.readings import Readings
from vast_harbor.formats.csv_table import CsvError, rows_of
from vast_harbor.formats.monitor_layout import (
    AMPS,
    CELSIUS,
    CLOCK,
    DATE,
    HALF,
    MOMENT,
    OUT,
    SOC,
    VOLTS,
    Layout,
    column_of,
)
from vast_harbor.phrases import phrase

# How much of it is read at once [lines]; the largest file [bytes].
BLOCK, LARGEST_BYTES = 20_000, 64_000_000


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


_OFFSET = re.compile(r"(?:Z|([+-])(\d{2})(?::?(\d{2}))?)\s*$")
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
                offset = (1 if match[1] == "+" else -1) * (int(match[2]) * 60 + int(match[3] or 0))
        half = HALF.search(text)
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
                found.append(column_of(block.rows, layout, role))
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
    reader = rows_of((line.replace("\0", "") for line in text), layout.delimiter)
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
        celsius = from_fahrenheit(celsius)
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
    columns = {role: column_of(good, layout, role) for role in (VOLTS, AMPS, OUT, SOC, CELSIUS)}
    return _readings(block.at[:count], block.ahead[:count], columns, layout, zone, capacity_ah)
