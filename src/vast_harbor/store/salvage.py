"""What can still be read of a damaged database, saved into a whole one."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, suppress
from pathlib import Path

from vast_harbor.store.database import Database

# So many ids are tried between the readable ones.
MOST_TRIED = 100_000
TABLES = {"rig": "id", "own_appliance": "id", "setting": "rowid"}


def salvage(damaged: Path, to: Path) -> int:
    """Save the rigs and own appliances that can be read; the journal of edits is left behind.

    Args:
        damaged: the database.
        to: a file that is not there yet.

    Returns:
        How many rigs were saved, deleted ones included.

    Raises:
        sqlite3.Error, OSError: the new file cannot be written.
    """
    saved = Database(to)
    try:
        with closing(sqlite3.connect(f"{damaged.resolve().as_uri()}?mode=ro", uri=True)) as db:
            db.row_factory = sqlite3.Row
            with saved.writing() as there:
                return max(_table(db, there, name, key) for name, key in TABLES.items())
    finally:
        saved.close()


def _table(db: sqlite3.Connection, there: sqlite3.Connection, name: str, key: str) -> int:
    # What a newer or older version does not know, or what the database makes by itself, is left out.
    known = {r["name"] for r in there.execute(f"PRAGMA table_xinfo({name})") if not r["hidden"]}
    saved = 0
    for row in _rows(db, name, key):
        columns = [c for c in row.keys() if c in known]  # noqa: SIM118
        marks = ", ".join("?" * len(columns))
        with suppress(sqlite3.IntegrityError):
            there.execute(
                f"INSERT OR IGNORE INTO {name} ({', '.join(columns)}) VALUES ({marks})",
                [row[c] for c in columns],
            )
            saved += 1
    return saved if name == "rig" else 0


def _rows(db: sqlite3.Connection, name: str, key: str) -> Iterator[sqlite3.Row]:
    """All rows that can be read: from both ends to the damage, and one by one between."""
    low, high = 0, 0
    try:
        for row in db.execute(f"SELECT {key} AS key_, * FROM {name} NOT INDEXED ORDER BY {key}"):
            low = row["key_"]
            yield row
    except sqlite3.DatabaseError:
        pass
    else:
        return
    with suppress(sqlite3.DatabaseError):
        for row in db.execute(f"SELECT {key} AS key_, * FROM {name} NOT INDEXED ORDER BY {key} DESC"):
            high = row["key_"]
            yield row
    for one in range(low + 1, min(high or low + 1000, low + MOST_TRIED)):
        with suppress(sqlite3.DatabaseError):
            row = db.execute(f"SELECT {key} AS key_, * FROM {name} WHERE {key} = ?", (one,)).fetchone()
            if row is not None:
                yield row
