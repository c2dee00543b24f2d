"""The log of a rig: entries, kept apart from its document."""

import sqlite3
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
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
    if done.rowcount:
        _touch(db, rig_id)
    return bool(done.rowcount)


def _touch(db: sqlite3.Connection, rig_id: int) -> None:
    """What the card of the rig says of its log is out of date."""
    db.execute("UPDATE rig SET card_revision = 0 WHERE id = ?", (rig_id,))


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
    _touch(db, rig_id)


def remove(db: sqlite3.Connection, rig_id: int, id: str) -> None:
    """Set an entry aside so that it can be brought back; raises :class:`NoEntry`."""
    get(db, rig_id, id)
    db.execute(
        "UPDATE log_entry SET removed_at = ? WHERE rig_id = ? AND id = ?",
        (datetime.now(UTC).isoformat(timespec="seconds"), rig_id, id),
    )
    _touch(db, rig_id)


def restore(db: sqlite3.Connection, rig_id: int, id: str) -> Kept:
    """Bring a removed entry back; raises :class:`NoEntry` where there never was one."""
    db.execute("UPDATE log_entry SET removed_at = NULL WHERE rig_id = ? AND id = ?", (rig_id, id))
    _touch(db, rig_id)
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


@dataclass(frozen=True, slots=True)
class LastDays:
    """When things were done last, as counted days (``date.toordinal``) by the owner's clock.

    Attributes:
        last: day of the last entry of all; None for none.
        kinds: kind of entry → day of the last one about the bank in use.
        done: duty → day on which it was done last.
        put_off: duty → day until which it was put off last.
    """

    last: int | None = None
    kinds: Mapping[str, int] = field(default_factory=dict)
    done: Mapping[str, int] = field(default_factory=dict)
    put_off: Mapping[str, int] = field(default_factory=dict)


def last_days(db: sqlite3.Connection, rig_id: int, bank: str = "present") -> LastDays:
    """When things were done last.

    Args:
        db: connection.
        rig_id: which rig.
        bank: of which of its banks the kinds are looked for.
    """

    def day(local: int) -> int:
        return datetime.fromtimestamp(local, UTC).date().toordinal()

    whose = "FROM log_entry WHERE rig_id = ? AND removed_at IS NULL "
    last = db.execute(f"SELECT max(at + 60 * offset_min) {whose}", (rig_id,)).fetchone()[0]
    if last is None:
        return LastDays()
    kinds = db.execute(
        f"SELECT kind, max(at + 60 * offset_min) {whose}AND bank = ? GROUP BY kind", (rig_id, bank)
    )
    done: dict[str, int] = {}
    put_off: dict[str, int] = {}
    for row in db.execute(
        f"SELECT duty, at + 60 * offset_min, until + 60 * offset_min {whose}AND duty != '' ORDER BY at",
        (rig_id,),
    ):
        if row[2] is None:
            done[row[0]] = day(row[1])
        else:
            put_off[row[0]] = day(row[2])
    return LastDays(day(last), {row[0]: day(row[1]) for row in kinds}, done, put_off)


def state(db: sqlite3.Connection, rig_id: int) -> str:
    """Which entries there are; another text as soon as one came, was changed, or went."""
    rows = db.execute(
        "SELECT id, revision, removed_at IS NULL FROM log_entry WHERE rig_id = ? ORDER BY id", (rig_id,)
    )
    return " ".join(f"{row[0]}:{row[1]}:{row[2]}" for row in rows)


def count(db: sqlite3.Connection, rig_id: int) -> int:
    """How many entries there are."""
    found = db.execute(
        "SELECT count(*) FROM log_entry WHERE rig_id = ? AND removed_at IS NULL", (rig_id,)
    ).fetchone()
    return int(found[0])
