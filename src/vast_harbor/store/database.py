"""The database file: opening, migrating, and the one door for writing."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from importlib.resources import files
from importlib.resources.abc import Traversable
from pathlib import Path

from vast_harbor.store.backup import keep

MIGRATIONS = files(__package__) / "migrations"


class NewerDatabase(RuntimeError):
    """The file was written by a newer version of the program."""


class Database:
    """One SQLite file. Connections are opened for each piece of work and closed after it.

    Args:
        path: the file; it and its folder are made when missing, readable by their owner only.

    Raises:
        NewerDatabase: the file is of a newer version.
        sqlite3.DatabaseError: the file is not a database.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        # Where people are and for how long is told in it: it is the owner's to read.
        path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
        path.touch(mode=0o600)
        path.chmod(0o600)
        # Stays open: when the last connection closes, SQLite folds the journal in, at 4 ms an edit.
        self._keeper = self._connect()
        self._keeper.execute("PRAGMA journal_mode = WAL")
        version = self._keeper.execute("PRAGMA user_version").fetchone()[0]
        if 0 < version < len(_scripts()):
            keep(path, f"version-{version}")
        _migrate(self._keeper)

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """A connection for reading."""
        with closing(self._connect()) as connection:
            yield connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """A connection inside one write transaction: kept on return, undone on an exception."""
        with closing(self._connect()) as connection:
            connection.execute("BEGIN IMMEDIATE")
            try:
                yield connection
            except BaseException:
                connection.execute("ROLLBACK")
                raise
            connection.execute("COMMIT")

    def close(self) -> None:
        """Fold the journal into the file, which then holds everything by itself; to be called at the end."""
        self._keeper.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        self._keeper.close()

    def _connect(self) -> sqlite3.Connection:
        connection = sqlite3.connect(self.path, isolation_level=None, timeout=10, check_same_thread=False)
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        # A commit returns when it lies on the disk: what was acknowledged outlives a power cut.
        connection.execute("PRAGMA synchronous = FULL")
        return connection


def _scripts() -> list[Traversable]:
    return sorted((p for p in MIGRATIONS.iterdir() if p.name.endswith(".sql")), key=lambda p: p.name)


def _migrate(connection: sqlite3.Connection) -> None:
    scripts = _scripts()
    version = connection.execute("PRAGMA user_version").fetchone()[0]
    if version > len(scripts):
        raise NewerDatabase(
            f"The database is of version {version}; this program knows up to {len(scripts)}. "
            "Update the program, or choose another file."
        )
    for number, script in enumerate(scripts[version:], version + 1):
        connection.executescript(
            f"BEGIN IMMEDIATE; {script.read_text('utf-8')} PRAGMA user_version = {number}; COMMIT;"
        )


def get_setting(connection: sqlite3.Connection, key: str) -> str | None:
    """A setting of the database; None when it is not set."""
    row = connection.execute("SELECT value FROM setting WHERE key = ?", (key,)).fetchone()
    return None if row is None else str(row["value"])


def set_setting(connection: sqlite3.Connection, key: str, value: str) -> None:
    """Set a setting of the database."""
    connection.execute(
        "INSERT INTO setting (key, value) VALUES (?, ?) "
        "ON CONFLICT (key) DO UPDATE SET value = excluded.value",
        (key, value),
    )
