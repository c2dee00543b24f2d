"""Signal K, the open format of boats: delta messages with readings of batteries, as a file and as a stream.

A delta holds a ``context``, the vessel that it is about, and ``updates`` with a source, a ``timestamp`` and
``values``, each a ``path`` and a ``value`` in SI units; of batteries it is
``electrical.batteries.<id>.voltage``, ``current``, ``temperature`` [K] and ``capacity.stateOfCharge`` [-].
Over TCP, and in files, each line is one message. A server says who it is, and then nothing until it is asked.
In the log that a server keeps, the time in milliseconds and a mark stand before each message, with lines of
other instruments between.

Source: Signal K specification 1.7, delta format, subscription protocol, ``electrical.batteries`` group.
"""

import csv
import io
import json
import re
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from fnmatch import fnmatchcase
from typing import Any

from vast_harbor.core.log.readings import QUANTITIES
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.monitor_rows import Row
from vast_harbor.phrases import phrase

VERSION = "1.7.0"
PATH = re.compile(
    r"electrical\.batteries\.([A-Za-z0-9_-]{1,40})\.(voltage|current|temperature|capacity\.stateOfCharge)"
)
QUANTITY = {"voltage": "volts", "current": "amps", "capacity.stateOfCharge": "soc", "temperature": "celsius"}
PATHS = {quantity: path for path, quantity in QUANTITY.items()}
ZERO_C = 273.15
# A value that came longer ago says nothing of now [s].
HOLD_S = 60.0
# Batteries of a file that are looked at.
MOST_BATTERIES = 12
_MARK = re.compile(rb'^\s*[\[{][^\n]{0,4000}?"updates"\s*:', re.DOTALL)
# A line of a server's own log: milliseconds since 1970, what it is, the message.
_LOGGED = re.compile(r"\d{12,14};[^;{]{0,60};")
_LOG = re.compile(rb"^\s*\d{12,14};[^;\n]{0,60};")
_VESSELS, SELF = "vessels.", "vessels.self"
# A server begins with a word about itself.
_HELLO = re.compile(rb'^\s*\{[^\n]{0,2000}?"(self|roles)"\s*:')


# No battery has more volts, amps or kelvin.
MOST_VALUE = 1e6


@dataclass(frozen=True, slots=True)
class Value:
    """One value of a battery.

    Attributes:
        at: seconds since 1970 UTC [s].
        battery: its id.
        quantity: ``volts``, ``amps``, ``soc`` or ``celsius``.
        value: in V, A as it is sent, - or °C.
        vessel: whose it is, without ``vessels.``; empty for the server's own.
        source: who measured; empty where that is not told.
    """

    at: float
    battery: str
    quantity: str
    value: float
    vessel: str = ""
    source: str = ""


def odd_values(message: Any) -> int:
    """How many values of batteries in a delta are no numbers that a battery could have."""
    updates = message.get("updates") if isinstance(message, dict) else None
    found = 0
    for update in updates if isinstance(updates, list) else ():
        values = update.get("values") if isinstance(update, dict) else None
        for one in values if isinstance(values, list) else ():
            path, value = (one.get("path"), one.get("value")) if isinstance(one, dict) else (None, None)
            if isinstance(path, str) and PATH.fullmatch(path) and value is not None:
                fits = not isinstance(value, bool) and isinstance(value, int | float)
                found += not (fits and -MOST_VALUE < value < MOST_VALUE)
    return found


def is_deltas(head: bytes) -> bool:
    """Whether a file that begins so holds delta messages."""
    return bool(_MARK.match(head) or _HELLO.match(head) or _LOG.match(head))


def values_of(message: Any, now: float | None = None) -> Iterator[Value]:
    """The readings of batteries in a delta; nothing for any other message.

    Args:
        message: as parsed from JSON.
        now: time of what states none [s]; None to leave it out.
    """
    updates = message.get("updates") if isinstance(message, dict) else None
    vessel = _vessel(message.get("context")) if isinstance(message, dict) else ""
    for update in updates if isinstance(updates, list) else ():
        if not isinstance(update, dict):
            continue
        source = _source(update)
        at = _time(update.get("timestamp"), now)
        values = update.get("values")
        for one in values if at is not None and isinstance(values, list) else ():
            path, value = (one.get("path"), one.get("value")) if isinstance(one, dict) else (None, None)
            found = PATH.fullmatch(path) if isinstance(path, str) else None
            if found is None or isinstance(value, bool) or not isinstance(value, int | float):
                continue
            # An integer of hundreds of digits is finite and still no float.
            if not -MOST_VALUE < value < MOST_VALUE:
                continue
            quantity = QUANTITY[found[2]]
            assert at is not None
            told = value - ZERO_C if quantity == "celsius" else float(value)
            yield Value(at, found[1], quantity, told, vessel, source)


def _source(update: dict[str, Any]) -> str:
    """Who measured: by name, else by the words of its description."""
    name, about = update.get("$source"), update.get("source")
    if isinstance(name, str):
        return name
    told = about if isinstance(about, dict) else {}
    return ".".join(str(told[word]) for word in ("label", "src") if isinstance(told.get(word), str | int))


def _vessel(context: Any) -> str:
    """The vessel of a message, without what stands before all of them; empty for the server's own."""
    name = context.removeprefix(_VESSELS) if isinstance(context, str) else ""
    return "" if name == "self" else name


class OwnReadings:
    """Which values count: those of one's own vessel, and of each battery those of one instrument, since the
    values of two would take turns."""

    def __init__(self) -> None:
        self._own = {""}
        self._heard: dict[tuple[str, str], tuple[str, float]] = {}

    def learn(self, message: Any) -> bool:
        """Whether a message is a server's word about itself, which names its own vessel."""
        if not isinstance(message, dict) or "updates" in message or not isinstance(message.get("self"), str):
            return isinstance(message, dict) and "roles" in message
        self._own.add(_vessel(message["self"]))
        return True

    def take(self, vessel: str) -> None:
        """Take a vessel for one's own."""
        self._own.add(vessel)

    def is_own(self, value: Value) -> bool:
        """Whether a value is of one's own vessel."""
        return value.vessel in self._own

    def counts(self, value: Value) -> bool:
        """Whether a value counts; to be asked of each in order of time. Another source is heard once the one
        before has said nothing for so long that its values hold no more."""
        if not self.is_own(value):
            return False
        what = value.battery, value.quantity
        source, at = self._heard.get(what, (value.source, value.at))
        if source != value.source and abs(value.at - at) <= HOLD_S:
            return False
        self._heard[what] = value.source, value.at
        return True


def _time(said: Any, now: float | None) -> float | None:
    if not isinstance(said, str):
        return now
    try:
        at = datetime.fromisoformat(said)
        return (at if at.tzinfo is not None else at.replace(tzinfo=UTC)).timestamp()
    except (ValueError, OverflowError):
        # No time, or one outside of what a calendar holds.
        return now


def messages(text: str) -> Iterator[Any]:
    """The messages of a file: one a line, or all as one list; a line that is none is left out."""
    if text.lstrip().startswith("["):
        try:
            found = json.loads(text)
        except (ValueError, RecursionError) as error:
            raise CsvError(phrase("files.signal_k.broken")) from error
        yield from found
        return
    for line in text.splitlines():
        try:
            yield json.loads(_LOGGED.sub("", line, count=1))
        except (ValueError, RecursionError):
            continue


class Merger:
    """Values that come one by one, as readings: each quantity holds until it is told anew, or is too old."""

    def __init__(self) -> None:
        self._last: dict[str, Value] = {}

    def take(self, value: Value) -> None:
        """Take the next value, in order of time."""
        self._last[value.quantity] = value

    def at(self, at: float) -> dict[str, float]:
        """What holds at a time, by quantity."""
        return {q: v.value for q, v in self._last.items() if at - v.at <= HOLD_S}


@dataclass(slots=True)
class _Stretch:
    """A quantity over a stretch of time: value times seconds, seconds, the least and the greatest value."""

    area: float
    seconds: float
    low: float
    high: float


class Means:
    """Values that come one by one, as the mean of each quantity over one stretch of time after the other: a
    current that alternates is kept as what flowed. Each value holds until it is told anew, or is too old."""

    def __init__(self) -> None:
        self._last: dict[str, Value] = {}
        self._counted: dict[str, float] = {}
        self._stretch: dict[str, _Stretch] = {}

    def take(self, value: Value) -> None:
        """Take the next value, in order of time."""
        self._count(value.quantity, value.at)
        self._last[value.quantity], self._counted[value.quantity] = value, value.at

    def close(self, at: float) -> dict[str, float]:
        """The mean of each quantity up to a time, where the next stretch begins."""
        out = {}
        for quantity, value in self._last.items():
            self._count(quantity, at)
            found = self._stretch.pop(quantity, None)
            if found is not None:
                out[quantity] = found.low if found.low == found.high else found.area / found.seconds
            elif at - value.at <= HOLD_S:
                out[quantity] = value.value
            self._counted[quantity] = max(at, value.at)
        return out

    def _count(self, quantity: str, until: float) -> None:
        last = self._last.get(quantity)
        if last is None:
            return
        held = min(until, last.at + HOLD_S) - self._counted[quantity]
        if held <= 0:
            return
        found = self._stretch.get(quantity, _Stretch(0.0, 0.0, last.value, last.value))
        self._stretch[quantity] = _Stretch(
            found.area + held * last.value, found.seconds + held,
            min(found.low, last.value), max(found.high, last.value),
        )  # fmt: skip


def as_csv(text: str) -> str:
    """Delta messages as a table with a line a second: its time, and four columns for each battery.

    Args:
        text: of the file.

    Raises:
        CsvError: nothing in it is of a battery.
    """
    own, told = OwnReadings(), list[Value]()
    for message in messages(text):
        if not own.learn(message):
            told += values_of(message)
    vessels = Counter(v.vessel for v in told)
    if told and not any(own.is_own(v) for v in told):
        # Nobody says whose the file is: of those in it, the one that tells most.
        own.take(vessels.most_common(1)[0][0])
    values = [v for v in sorted(told, key=lambda v: v.at) if own.counts(v)]
    batteries = list(dict.fromkeys(v.battery for v in values))[:MOST_BATTERIES]
    if not batteries:
        raise CsvError(phrase("files.signal_k.no_battery"))
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    units = {"volts": "voltage (V)", "amps": "current (A)", "soc": "SoC", "celsius": "temperature (°C)"}
    writer.writerow(["timestamp", *(f"{b} {units[q]}" for b in batteries for q in QUANTITIES)])
    mergers = {b: Merger() for b in batteries}
    second: int | None = None

    def line(at: int) -> None:
        held = [mergers[b].at(at) for b in batteries]
        moment = datetime.fromtimestamp(at, UTC).strftime("%Y-%m-%dT%H:%M:%SZ")
        writer.writerow([moment, *(f"{h[q]:.7g}" if q in h else "" for h in held for q in QUANTITIES)])

    for value in values:
        if second is not None and int(value.at) != second:
            line(second)
        second = int(value.at)
        if value.battery in mergers:
            mergers[value.battery].take(value)
    if second is not None:
        line(second)
    return out.getvalue()


def delta(at: float, battery: str, reading: Row, source: str) -> dict[str, Any]:
    """A reading as a delta message.

    Args:
        at: seconds since 1970 UTC [s].
        battery: its id.
        reading: volts, amps into the bank, SoC [-] and °C; None where nothing was read.
        source: who measured.
    """
    named = zip(QUANTITIES, reading, strict=True)
    values = [
        {
            "path": f"electrical.batteries.{battery}.{PATHS[q]}",
            "value": round(v + ZERO_C, 2) if q == "celsius" else v,
        }
        for q, v in named
        if v is not None
    ]
    moment = datetime.fromtimestamp(at, UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")
    return {"context": SELF, "updates": [{"$source": source, "timestamp": moment, "values": values}]}


def hello(name: str, at: float) -> dict[str, Any]:
    """What a server says first."""
    moment = datetime.fromtimestamp(at, UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")
    return {
        "name": name, "version": VERSION, "timestamp": moment, "self": SELF, "roles": ["main"],
    }  # fmt: skip


def subscription() -> dict[str, Any]:
    """What a server is asked for: the own batteries, once a second where they change."""
    asked = {
        "path": "electrical.batteries.*", "period": 1000, "format": "delta", "policy": "ideal",
        "minPeriod": 1000,
    }  # fmt: skip
    return {"context": SELF, "subscribe": [asked]}


def asks_for_batteries(message: Any) -> bool:
    """Whether a message asks a server for batteries."""
    asked = message.get("subscribe") if isinstance(message, dict) else None
    paths = [one.get("path") for one in asked if isinstance(one, dict)] if isinstance(asked, list) else []
    tried = f"electrical.batteries.house.{PATHS['volts']}"
    return any(isinstance(path, str) and fnmatchcase(tried, path) for path in paths)


def line_of(message: dict[str, Any]) -> bytes:
    """A message as it goes over TCP."""
    return json.dumps(message, separators=(",", ":")).encode() + b"\r\n"
