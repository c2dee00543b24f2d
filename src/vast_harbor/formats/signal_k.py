"""Signal K, the open format of boats: delta messages with readings of batteries, as a file and as a stream.

A delta holds ``updates`` with a ``timestamp`` and ``values``, each a ``path`` and a ``value`` in SI units; of
batteries it is ``electrical.batteries.<id>.voltage``, ``current``, ``temperature`` [K] and
``capacity.stateOfCharge`` [-]. Over TCP, and in files, each line is one message.

Source: Signal K specification 1.7, delta format and the ``electrical.batteries`` group.
"""

import csv
import io
import json
import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
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
    """

    at: float
    battery: str
    quantity: str
    value: float


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
    return bool(_MARK.match(head) or _HELLO.match(head))


def values_of(message: Any, now: float | None = None) -> Iterator[Value]:
    """The readings of batteries in a delta; nothing for any other message.

    Args:
        message: as parsed from JSON.
        now: time of what states none [s]; None to leave it out.
    """
    updates = message.get("updates") if isinstance(message, dict) else None
    for update in updates if isinstance(updates, list) else ():
        if not isinstance(update, dict):
            continue
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
            yield Value(at, found[1], quantity, value - ZERO_C if quantity == "celsius" else float(value))


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
            yield json.loads(line)
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


def as_csv(text: str) -> str:
    """Delta messages as a table with a line a second: its time, and four columns for each battery.

    Args:
        text: of the file.

    Raises:
        CsvError: nothing in it is of a battery.
    """
    values = sorted((v for m in messages(text) for v in values_of(m)), key=lambda v: v.at)
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
    return {
        "context": "vessels.self",
        "updates": [{"$source": source, "timestamp": moment, "values": values}],
    }


def hello(name: str, at: float) -> dict[str, Any]:
    """What a server says first."""
    moment = datetime.fromtimestamp(at, UTC).isoformat(timespec="milliseconds").replace("+00:00", "Z")
    return {
        "name": name, "version": VERSION, "timestamp": moment, "self": "vessels.self", "roles": ["main"],
    }  # fmt: skip


def line_of(message: dict[str, Any]) -> bytes:
    """A message as it goes over TCP."""
    return json.dumps(message, separators=(",", ":")).encode() + b"\r\n"
