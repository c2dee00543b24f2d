"""What can still be read of a damaged database, saved into a whole one."""

import shutil
import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import closing, suppress
from pathlib import Path

from vast_harbor.store.database import Database
from vast_harbor.store.scratch import scratch

# So many ids are tried between the readable ones.
MOST_TRIED = 100_000
# What is saved, and the columns by which its rows are in order; rigs first, since the others belong to them.
# Of those with a number of their own what lies in the middle of the damage is tried number by number.
TABLES = {
    "rig": ("id",), "own_appliance": ("id",), "setting": ("rowid",), "log_entry": ("rig_id", "id"),
    "picture": ("rig_id", "id"), "monitor_file": ("id",), "monitor_reading": ("rig_id", "bank", "at"),
    "monitor_hour": ("rig_id", "bank", "hour"),
}  # fmt: skip
PAGE, HEADER = 4096, 100


def salvage(damaged: Path, to: Path, copies: Sequence[Path] = ()) -> int:
    """Save what can be read: rigs and appliances, logs, readings and pictures; the journal is left behind.

    Where the head of the file or its list of tables is gone, that of a copy stands in, or of a new file.

    Args:
        damaged: the database.
        to: a file that is not there yet.
        copies: whole copies of it, the newest first.

    Returns:
        How many rigs were saved, deleted ones included.

    Raises:
        sqlite3.Error, OSError: the new file cannot be written.
    """
    saved = Database(to)
    try:
        with scratch() as folder:
            for file in _as_it_may_be_read(damaged, folder, copies):
                with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True)) as db:
                    db.row_factory = sqlite3.Row
                    with saved.writing() as there:
                        found = [_table(db, there, name, order) for name, order in TABLES.items()]
                if found[0]:
                    return found[0]
        return 0
    finally:
        saved.close()


def _as_it_may_be_read(damaged: Path, folder: Path, copies: Sequence[Path]) -> Iterator[Path]:
    """A file as it is; with another header; and with the whole list of tables of a copy or of a new file."""
    yield damaged
    fresh = folder / "fresh.sqlite3"
    Database(fresh).close()
    pages = damaged.stat().st_size // PAGE
    for i, other in enumerate((*copies, fresh) if pages else ()):
        body = other.read_bytes()
        for j, taken in enumerate(({1: HEADER}, dict.fromkeys(_schema_pages(body), PAGE))):
            made = folder / f"{i}-{j}.sqlite3"
            shutil.copyfile(damaged, made)
            with made.open("r+b") as file:
                for page, length in taken.items():
                    file.seek((page - 1) * PAGE)
                    file.write(body[(page - 1) * PAGE :][:length])
                # How many pages there are, and none of them free; in the file, not in a journal.
                for at, value in ((18, b"\x01\x01"), (28, pages.to_bytes(4)), (32, bytes(8))):
                    file.seek(at)
                    file.write(value)
                file.truncate(pages * PAGE)
            yield made


def _schema_pages(body: bytes) -> list[int]:
    """The pages that hold the list of tables: the first one, and those that it points to.

    Source: the file format of SQLite, https://sqlite.org/fileformat.html, section 1.6.
    """
    head = body[HEADER : HEADER + 12]
    if head[:1] != b"\x05":
        return [1]
    cells = int.from_bytes(head[3:5])
    at = [int.from_bytes(body[HEADER + 12 + 2 * i :][:2]) for i in range(cells)]
    return [1, int.from_bytes(head[8:12]), *(int.from_bytes(body[where:][:4]) for where in at)]


def _table(db: sqlite3.Connection, there: sqlite3.Connection, name: str, order: tuple[str, ...]) -> int:
    # What a newer or older version does not know, or what the database makes by itself, is left out.
    known = {r["name"] for r in there.execute(f"PRAGMA table_xinfo({name})") if not r["hidden"]}
    saved = 0
    for row in _rows(db, name, order):
        # A row of another table, where the list of tables is guessed, is none of this one.
        columns = [c for c in row.keys() if c in known]  # noqa: SIM118
        marks = ", ".join("?" * len(columns))
        with suppress(sqlite3.IntegrityError):
            there.execute(
                f"INSERT OR IGNORE INTO {name} ({', '.join(columns)}) VALUES ({marks})",
                [row[c] for c in columns],
            )
            saved += 1
    return saved


def _rows(db: sqlite3.Connection, name: str, order: tuple[str, ...]) -> Iterator[sqlite3.Row]:
    """All rows that can be read: from both ends to the damage, and one by one between."""
    low, high, numbered = 0, 0, order == ("id",)
    try:
        for row in db.execute(f"SELECT * FROM {name} NOT INDEXED ORDER BY {', '.join(order)}"):
            low = row["id"] if numbered else low
            yield row
    except sqlite3.DatabaseError:
        pass
    else:
        return
    backwards = ", ".join(f"{column} DESC" for column in order)
    with suppress(sqlite3.DatabaseError):
        for row in db.execute(f"SELECT * FROM {name} NOT INDEXED ORDER BY {backwards}"):
            high = row["id"] if numbered else high
            yield row
    for one in range(low + 1, min(high or low + 1000, low + MOST_TRIED)) if numbered else ():
        with suppress(sqlite3.DatabaseError):
            row = db.execute(f"SELECT * FROM {name} WHERE id = ?", (one,)).fetchone()
            if row is not None:
                yield row
