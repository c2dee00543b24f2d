"""The log of a rig: entries, kept apart from its document."""

import sqlite3
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

COLUMNS = (
    "id", "at", "offset_min", "kind", "bank", "battery", "volts", "amps", "soc", "celsius", "rested", "ah",
    "wh", "litres", "hours", "price", "frozen", "source", "duty", "until", "text",
)  # fmt: skip
_FLAGS = ("rested", "frozen")

# An entry, by column; how its columns are meant is told where entries are defined.
Row = Mapping[str, Any]


class NoEntry(LookupError):
    """There is no such entry, or it was removed."""


class Changed(ValueError):
    """The entry was changed meanwhile."""


@dataclass(frozen=True, slots=True)
class Kept:
    """An entry as kept.

    Attributes:
        row: what it says.
        revision: how often it was changed, from 1.
    """

    row: Row
    revision: int


def _values(entry: Row) -> tuple[Any, ...]:
    return tuple(entry[name] for name in COLUMNS)


def _kept(row: sqlite3.Row) -> Kept:
    values = {name: row[name] for name in COLUMNS}
    values |= {name: None if row[name] is None else bool(row[name]) for name in _FLAGS}
    return Kept(values, row["revision"])


def add(db: sqlite3.Connection, rig_id: int, entry: Row) -> bool:
    """Keep an entry; one that was kept under its id before stays as it is.

    Args:
        db: connection, in a write transaction.
        rig_id: which rig; it must exist.
        entry: what is kept.

    Returns:
        Whether it is new.
    """
    marks = ", ".join("?" * (len(COLUMNS) + 1))
    done = db.execute(
        f"INSERT OR IGNORE INTO log_entry (rig_id, {', '.join(COLUMNS)}) VALUES ({marks})",
        (rig_id, *_values(entry)),
    )
    return bool(done.rowcount)


def get(db: sqlite3.Connection, rig_id: int, id: str) -> Kept:
    """One entry; raises :class:`NoEntry`."""
    row = db.execute(
        "SELECT * FROM log_entry WHERE rig_id = ? AND id = ? AND removed_at IS NULL", (rig_id, id)
    ).fetchone()
    if row is None:
        raise NoEntry(id)
    return _kept(row)


def change(db: sqlite3.Connection, rig_id: int, entry: Row, revision: int) -> None:
    """Put an entry in place of what it was.

    Args:
        db: connection, in a write transaction.
        rig_id: which rig.
        entry: as it is now, under the same id.
        revision: at which it was read.

    Raises:
        NoEntry: it is not there.
        Changed: it is of another revision.
    """
    if get(db, rig_id, entry["id"]).revision != revision:
        raise Changed(entry["id"])
    sets = ", ".join(f"{name} = ?" for name in (*COLUMNS, "revision"))
    values = (*_values(entry), revision + 1, rig_id, entry["id"])
    db.execute(f"UPDATE log_entry SET {sets} WHERE rig_id = ? AND id = ?", values)


def remove(db: sqlite3.Connection, rig_id: int, id: str) -> None:
    """Set an entry aside so that it can be brought back; raises :class:`NoEntry`."""
    get(db, rig_id, id)
    db.execute(
        "UPDATE log_entry SET removed_at = ? WHERE rig_id = ? AND id = ?",
        (datetime.now(UTC).isoformat(timespec="seconds"), rig_id, id),
    )


def restore(db: sqlite3.Connection, rig_id: int, id: str) -> Kept:
    """Bring a removed entry back; raises :class:`NoEntry` where there never was one."""
    db.execute("UPDATE log_entry SET removed_at = NULL WHERE rig_id = ? AND id = ?", (rig_id, id))
    return get(db, rig_id, id)


def page(
    db: sqlite3.Connection, rig_id: int, limit: int, before: tuple[int, str] | None = None, kind: str = ""
) -> list[Kept]:
    """Entries from the newest back.

    Args:
        db: connection.
        rig_id: which rig.
        limit: how many at most.
        before: time and id of the last entry that the asker has; None for the newest.
        kind: only of this kind; all where empty.

    Returns:
        The entries.
    """
    at, id = before or (2**53, "")
    rows = db.execute(
        "SELECT * FROM log_entry WHERE rig_id = ? AND removed_at IS NULL AND (at, id) < (?, ?) "
        "AND (? = '' OR kind = ?) ORDER BY at DESC, id DESC LIMIT ?",
        (rig_id, at, id, kind, kind, limit),
    )
    return [_kept(row) for row in rows]


def each(db: sqlite3.Connection, rig_id: int) -> Iterator[Row]:
    """All entries in the order of time, one by one."""
    rows = db.execute(
        "SELECT * FROM log_entry WHERE rig_id = ? AND removed_at IS NULL ORDER BY at, id", (rig_id,)
    )
    return (_kept(row).row for row in rows)


def last_on(db: sqlite3.Connection, rig_id: int) -> str:
    """ISO date of the last entry by the owner's clock; empty for none."""
    row = db.execute(
        "SELECT at + 60 * offset_min AS local FROM log_entry WHERE rig_id = ? AND removed_at IS NULL "
        "ORDER BY at DESC LIMIT 1",
        (rig_id,),
    ).fetchone()
    return "" if row is None else datetime.fromtimestamp(row["local"], UTC).date().isoformat()


@dataclass(frozen=True, slots=True)
class LastDays:
    """When things were done last, as counted days (``date.toordinal``) by the owner's clock.

    Attributes:
        kinds: kind of entry → day of the last one.
        done: duty → day on which it was done last.
        put_off: duty → day until which it was put off last.
    """

    kinds: Mapping[str, int]
    done: Mapping[str, int]
    put_off: Mapping[str, int]


def last_days(db: sqlite3.Connection, rig_id: int, bank: str, kinds: Sequence[str]) -> LastDays:
    """When things were done last.

    Args:
        db: connection.
        rig_id: which rig.
        bank: of which of its banks the kinds are looked for.
        kinds: which.
    """

    def day(row: sqlite3.Row, name: str) -> int:
        return datetime.fromtimestamp(row[name] + 60 * row["offset_min"], UTC).date().toordinal()

    found: dict[str, int] = {}
    for kind in kinds:
        row = db.execute(
            "SELECT at, offset_min FROM log_entry WHERE rig_id = ? AND removed_at IS NULL AND bank = ? "
            "AND kind = ? ORDER BY at DESC LIMIT 1",
            (rig_id, bank, kind),
        ).fetchone()
        if row is not None:
            found[kind] = day(row, "at")
    done: dict[str, int] = {}
    put_off: dict[str, int] = {}
    for row in db.execute(
        "SELECT duty, at, until, offset_min FROM log_entry WHERE rig_id = ? AND removed_at IS NULL "
        "AND duty != '' ORDER BY at",
        (rig_id,),
    ):
        if row["until"] is None:
            done[row["duty"]] = day(row, "at")
        else:
            put_off[row["duty"]] = day(row, "until")
    return LastDays(found, done, put_off)


def count(db: sqlite3.Connection, rig_id: int) -> int:
    """How many entries there are."""
    found = db.execute(
        "SELECT count(*) FROM log_entry WHERE rig_id = ? AND removed_at IS NULL", (rig_id,)
    ).fetchone()
    return int(found[0])
