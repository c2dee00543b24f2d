"""An entry of the log: as it is sent, and as CSV."""

import json
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import fields
from datetime import UTC, datetime, timedelta, timezone
from typing import Any, cast

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo

from vast_harbor.core.log.entry import BANKS, KINDS, UNITS, Entry
from vast_harbor.core.log.readings import HIGHEST
from vast_harbor.formats import csv_table
from vast_harbor.formats.changeover_part import Asked
from vast_harbor.formats.door import clean
from vast_harbor.formats.fields import Measure
from vast_harbor.formats.problem import Problem, RigFileError
from vast_harbor.phrases import phrase

# Nothing older is about a bank of today; a clock may be a day ahead [s].
EARLIEST, AHEAD_S = int(datetime(1990, 1, 1, tzinfo=UTC).timestamp()), 86_400
LONGEST_TEXT = 2000

MEASURES: Mapping[str, Measure] = {
    "amps": Measure("A", -2000, 2000, phrase("files.log_part.amps"), optional=True),
    "soc": Measure("1", 0, 1, phrase("files.log_part.soc"), optional=True, percent=True),
    "celsius": Measure("°C", -60, 150, phrase("files.log_part.celsius"), optional=True),
    "ah": Measure("Ah", 0, 100_000, phrase("files.log_part.ah"), optional=True),
    "wh": Measure("Wh", 0, 1_000_000, phrase("files.log_part.wh"), optional=True),
    "litres": Measure("l fuel", 0, 1000, phrase("files.log_part.litres"), optional=True),
    "hours": Measure("h", 0, 20_000, phrase("files.log_part.hours"), optional=True),
    "price": Measure("money", 0, 10_000_000, phrase("files.parts.amount_must_between"), optional=True),
}


def volts_measure(system_v: float, battery: int) -> Measure:
    """The volts that a bank, or one battery of it, can show."""
    says = phrase("files.log_part.volts_battery") if battery else phrase("files.log_part.volts")
    return Measure("V", 0, HIGHEST * system_v, says, optional=True)


def checked(entry: Entry, values: Mapping[str, Any], context: Mapping[str, Any], now: int) -> Entry:
    """An entry whose values are possible.

    Args:
        entry: as it was sent or understood.
        values: its numbers, as typed or as they are, by field.
        context: how they are read: ``typed``, ``system``, ``system_v``, ``numbers`` and ``currency``.
        now: seconds since 1970 UTC [s].

    Returns:
        The entry with its numbers in the stored units.

    Raises:
        RigFileError: a sentence for each value that cannot be, at its field.
    """
    problems: list[Problem] = []
    if not EARLIEST <= entry.at <= now + AHEAD_S:
        problems.append(Problem("/at", phrase("files.log_part.at", day=_day(entry))))
    if entry.kind not in KINDS:
        problems.append(Problem("/kind", phrase("files.log_part.kind")))
    if entry.bank not in BANKS:
        problems.append(Problem("/bank", phrase("files.log_part.bank")))
    if len(entry.text) > LONGEST_TEXT:
        problems.append(Problem("/text", phrase("files.log_part.text", most=LONGEST_TEXT)))
    read: dict[str, Any] = {}
    measures = {**MEASURES, "volts": volts_measure(context.get("system_v") or 12.0, entry.battery)}
    info = cast(ValidationInfo, Asked(dict(context)))
    for name in UNITS:
        try:
            read[name] = measures[name].read(values.get(name), info)
        except ValueError as error:
            problems.append(Problem(f"/{name}", str(error)))
    if problems:
        raise RigFileError(problems)
    plain = {f.name: getattr(entry, f.name) for f in fields(Entry)}
    return Entry(**{**plain, **read, "text": clean(entry.text), "source": clean(entry.source)})


def local_time(entry: Entry) -> datetime:
    """When it was, by the owner's clock."""
    zone = timezone(timedelta(minutes=entry.offset_min))
    return datetime.fromtimestamp(max(-(2**33), min(entry.at, 2**36)), zone)


def _day(entry: Entry) -> str:
    return local_time(entry).date().isoformat()


def as_json(entry: Entry) -> dict[str, Any]:
    """An entry as plain data: its time as ISO 8601, and only what it says."""
    plain = {f.name: getattr(entry, f.name) for f in fields(Entry) if f.name not in ("at", "offset_min")}
    # A zero is said too: 0 °C, or 0 V of a battery that is asleep; only battery 0 is the whole bank.
    said = {
        name: value
        for name, value in plain.items()
        if value is not None and value != "" and (name, value) != ("battery", 0)
    }
    return {"id": entry.id, "at": local_time(entry).isoformat(), **said}


def log_text(entries: Iterable[Entry]) -> str:
    """The log as JSON, the oldest entry first."""
    said = [as_json(entry) for entry in entries]
    return json.dumps({"format": "vast-harbor-log", "version": 1, "entries": said}, ensure_ascii=False)


class _Exported(BaseModel):
    """An entry as :func:`as_json` writes it."""

    model_config = ConfigDict(extra="forbid", strict=True)

    id: str = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")
    at: str = Field(max_length=40)
    kind: str = Field(max_length=20)
    bank: str = Field(default="present", max_length=20)
    battery: int = Field(default=0, ge=0, le=200)
    volts: float | None = None
    amps: float | None = None
    soc: float | None = None
    celsius: float | None = None
    rested: bool | None = None
    ah: float | None = None
    wh: float | None = None
    litres: float | None = None
    hours: float | None = None
    price: float | None = None
    frozen: bool | None = None
    source: str = Field(default="", max_length=40)
    duty: str = Field(default="", pattern=r"^[a-z_]{0,40}$")
    until: int | None = Field(default=None, ge=0, le=2**36)
    text: str = ""


def entry_of(said: Any) -> Entry:
    """The reverse of :func:`as_json`; its values are still to be checked.

    Raises:
        ValueError: it is no such entry.
    """
    read = _Exported.model_validate(said)
    at = datetime.fromisoformat(read.at)
    ahead = at.utcoffset()
    if ahead is None:
        raise ValueError(read.at)
    when = {"at": int(at.timestamp()), "offset_min": int(ahead.total_seconds() // 60)}
    return Entry(**{**read.model_dump(), **when})


def as_csv(entries: Iterable[Entry], currency: str) -> str:
    """Entries as CSV.

    Args:
        entries: the oldest first.
        currency: of the rig.

    Returns:
        A line for each; its numbers in the units of the heading.
    """
    units = {"1": "%", "l fuel": "l", "money": currency}
    heading = [f"{name} [{units.get(unit, unit)}]" for name, unit in UNITS.items()]

    def cells(e: Entry) -> Iterator[csv_table.Cell]:
        yield from (local_time(e).isoformat(), e.kind, e.bank, e.battery or None)
        for name, unit in UNITS.items():
            value = getattr(e, name)
            number = csv_table.percent(value) if unit == "1" else value
            yield None if number is None else float(f"{number:.6g}")
        yield from (e.rested, e.frozen, e.source, e.duty, e.text)

    columns = ("time", "kind", "bank", "battery", *heading, "rested", "frozen", "source", "duty", "text")
    return csv_table.write(columns, map(cells, entries))
