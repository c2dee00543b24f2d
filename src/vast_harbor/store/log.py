"""The log of a rig: entries, kept apart from its document."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass, fields
from datetime import UTC, datetime
from typing import Any

from vast_harbor.core.log.entry import Entry

COLUMNS = tuple(field.name for field in fields(Entry))
_FLAGS = ("rested", "frozen")


class NoEntry(LookupError):
    """There is no such entry, or it was removed."""


class Changed(ValueError):
    """The entry was changed meanwhile."""


@dataclass(frozen=True, slots=True)
class Kept:
    """An entry as kept.

    Attributes:
        entry: what it says.
        revision: how often it was changed, from 1.
    """

    entry: Entry
    revision: int


def _values(entry: Entry) -> tuple[Any, ...]:
    return tuple(getattr(entry, name) for name in COLUMNS)


def _kept(row: sqlite3.Row) -> Kept:
    values = {name: row[name] for name in COLUMNS}
    values |= {name: None if row[name] is None else bool(row[name]) for name in _FLAGS}
    return Kept(Entry(**values), row["revision"])


def add(db: sqlite3.Connection, rig_id: int, entry: Entry) -> bool:
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


def change(db: sqlite3.Connection, rig_id: int, entry: Entry, revision: int) -> None:
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
    if get(db, rig_id, entry.id).revision != revision:
        raise Changed(entry.id)
    sets = ", ".join(f"{name} = ?" for name in (*COLUMNS, "revision"))
    values = (*_values(entry), revision + 1, rig_id, entry.id)
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


def each(db: sqlite3.Connection, rig_id: int) -> Iterator[Entry]:
    """All entries in the order of time, one by one."""
    rows = db.execute(
        "SELECT * FROM log_entry WHERE rig_id = ? AND removed_at IS NULL ORDER BY at, id", (rig_id,)
    )
    return (_kept(row).entry for row in rows)


def last_on(db: sqlite3.Connection, rig_id: int) -> str:
    """ISO date of the last entry by the owner's clock; empty for none."""
    row = db.execute(
        "SELECT at + 60 * offset_min AS local FROM log_entry WHERE rig_id = ? AND removed_at IS NULL "
        "ORDER BY at DESC LIMIT 1",
        (rig_id,),
    ).fetchone()
    return "" if row is None else datetime.fromtimestamp(row["local"], UTC).date().isoformat()


def count(db: sqlite3.Connection, rig_id: int) -> int:
    """How many entries there are."""
    found = db.execute(
        "SELECT count(*) FROM log_entry WHERE rig_id = ? AND removed_at IS NULL", (rig_id,)
    ).fetchone()
    return int(found[0])
