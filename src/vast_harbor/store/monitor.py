"""What monitors logged of a rig's banks: readings, the files they came from, and sums by the hour."""

import sqlite3
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

READING = ("at", "offset_min", "volts", "amps", "soc", "celsius")
SUMS = (
    "hour", "covered_s", "ah_in", "ah_out", "wh_in", "wh_out", "volts_low", "volts_high", "amps_low",
    "amps_high", "soc_low", "soc_high", "celsius_low", "celsius_high",
)  # fmt: skip
# Later than any time that is stored [s].
END = 2**40

# A reading or an hour, by column; None where nothing was read.
Row = tuple[int | float | None, ...]


@dataclass(frozen=True, slots=True)
class MonitorFile:
    """A file whose readings were kept.

    Attributes:
        id: its number.
        bank: of which bank it is.
        name: as its owner calls it.
        digest: of what it holds.
        added_at: when it was imported, seconds since 1970 UTC [s].
        told: what was found in it, JSON.
        count: how many readings are kept of it.
        first, last: times of the first and last of them [s]; None for none.
    """

    id: int
    bank: str
    name: str
    digest: str
    added_at: int
    told: str
    count: int
    first: int | None
    last: int | None


def add_file(db: sqlite3.Connection, rig_id: int, bank: str, name: str, digest: str, added_at: int) -> int:
    """Note a file; its readings follow.

    Args:
        db: connection, in a write transaction.
        rig_id, bank: whose readings it holds.
        name: as its owner calls it.
        digest: of what it holds.
        added_at: now, seconds since 1970 UTC [s].

    Returns:
        Its number.
    """
    done = db.execute(
        "INSERT INTO monitor_file (rig_id, bank, name, digest, added_at, told) VALUES (?, ?, ?, ?, ?, '{}')",
        (rig_id, bank, name, digest, added_at),
    )
    return int(done.lastrowid or 0)


def tell(db: sqlite3.Connection, id: int, told: str) -> None:
    """Keep what was found in a file."""
    db.execute("UPDATE monitor_file SET told = ? WHERE id = ?", (told, id))


def renew(db: sqlite3.Connection, id: int, digest: str, told: str) -> None:
    """A file that grows holds something else now."""
    db.execute("UPDATE monitor_file SET digest = ?, told = ? WHERE id = ?", (digest, told, id))


def files(db: sqlite3.Connection, rig_id: int) -> list[MonitorFile]:
    """The files of a rig, the newest import first."""
    rows = db.execute(
        "SELECT f.id, f.bank, f.name, f.digest, f.added_at, f.told, count(r.at), min(r.at), max(r.at) "
        "FROM monitor_file f LEFT JOIN monitor_reading r ON r.file_id = f.id "
        "WHERE f.rig_id = ? GROUP BY f.id ORDER BY f.added_at DESC, f.id DESC",
        (rig_id,),
    )
    return [MonitorFile(*row) for row in rows]


def state(db: sqlite3.Connection, rig_id: int) -> str:
    """Which files there are; another text as soon as one came or went."""
    rows = db.execute("SELECT id, digest FROM monitor_file WHERE rig_id = ? ORDER BY id", (rig_id,))
    return " ".join(f"{row[0]}:{row[1]}" for row in rows)


def remove_file(db: sqlite3.Connection, rig_id: int, id: int) -> bool:
    """Forget a file with its readings; whether it was there."""
    return bool(db.execute("DELETE FROM monitor_file WHERE rig_id = ? AND id = ?", (rig_id, id)).rowcount)


def add(db: sqlite3.Connection, rig_id: int, bank: str, file_id: int, rows: Iterable[Row]) -> int:
    """Keep readings; an instant that is there stays as it is. Returns how many are new.

    Args:
        db: connection, in a write transaction.
        rig_id, bank: whose they are.
        file_id: from which file.
        rows: readings by :data:`READING`.
    """
    before = db.total_changes
    marks = ", ".join("?" * len(READING))
    db.executemany(
        f"INSERT OR IGNORE INTO monitor_reading (rig_id, bank, file_id, {', '.join(READING)}) "
        f"VALUES ({rig_id:d}, ?, {file_id:d}, {marks})",
        ((bank, *row) for row in rows),
    )
    return db.total_changes - before


def between(db: sqlite3.Connection, rig_id: int, bank: str, first: int = 0, last: int = END) -> list[Row]:
    """Readings by :data:`READING` from one time to another, both included, in order."""
    rows = db.execute(
        f"SELECT {', '.join(READING)} FROM monitor_reading WHERE rig_id = ? AND bank = ? "
        "AND at BETWEEN ? AND ? ORDER BY at",
        (rig_id, bank, first, last),
    )
    return [tuple(row) for row in rows]


def of_file(db: sqlite3.Connection, id: int) -> list[Row]:
    """Readings by :data:`READING` that are kept of a file, in order."""
    rows = db.execute(
        f"SELECT {', '.join(READING)} FROM monitor_reading WHERE file_id = ? ORDER BY at", (id,)
    )
    return [tuple(row) for row in rows]


def count(db: sqlite3.Connection, rig_id: int, bank: str, first: int = 0, last: int = END) -> int:
    """How many readings there are from one time to another."""
    found = db.execute(
        "SELECT count(*) FROM monitor_reading WHERE rig_id = ? AND bank = ? AND at BETWEEN ? AND ?",
        (rig_id, bank, first, last),
    ).fetchone()
    return int(found[0])


def put_hours(
    db: sqlite3.Connection, rig_id: int, bank: str, first: int, last: int, rows: Sequence[Row]
) -> None:
    """Put sums in place of those of some hours.

    Args:
        db: connection, in a write transaction.
        rig_id, bank: whose they are.
        first, last: hours by the owner's clock, both included [h].
        rows: the hours among them in which there are readings, by :data:`SUMS`.
    """
    db.execute(
        "DELETE FROM monitor_hour WHERE rig_id = ? AND bank = ? AND hour BETWEEN ? AND ?",
        (rig_id, bank, first, last),
    )
    marks = ", ".join("?" * len(SUMS))
    db.executemany(
        f"INSERT INTO monitor_hour (rig_id, bank, {', '.join(SUMS)}) VALUES ({rig_id:d}, ?, {marks})",
        ((bank, *row) for row in rows),
    )


def hours(db: sqlite3.Connection, rig_id: int, bank: str, first: int = 0, last: int = END) -> list[Row]:
    """Sums by :data:`SUMS` of hours by the owner's clock, both included, in order."""
    rows = db.execute(
        f"SELECT {', '.join(SUMS)} FROM monitor_hour WHERE rig_id = ? AND bank = ? "
        "AND hour BETWEEN ? AND ? ORDER BY hour",
        (rig_id, bank, first, last),
    )
    return [tuple(row) for row in rows]


def banks(db: sqlite3.Connection, rig_id: int) -> list[str]:
    """The banks of which there are readings."""
    rows = db.execute("SELECT DISTINCT bank FROM monitor_hour WHERE rig_id = ? ORDER BY bank", (rig_id,))
    return [row[0] for row in rows]
