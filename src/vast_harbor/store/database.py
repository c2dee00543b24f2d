"""The database file: opening, migrating, and the one door for writing."""

import errno
import os
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from threading import Lock

from vast_harbor.phrases import phrase
from vast_harbor.store.backup import BadCopy, copy, keep
from vast_harbor.store.scratch import scratch
from vast_harbor.store.trouble import Moved, Trouble, is_damage, trouble
from vast_harbor.store.versions import scripts

# How long a write waits for another program that holds the file [s]; all workers must not wait for long.
WAIT_S = 2.0
# Tables that belong to this computer and not to its rigs: no copy brings them or takes them away.
OF_THIS_COMPUTER = ("phone",)


class NewerDatabase(Trouble):
    """The file was written by a newer version of the program."""


class Damaged(Trouble):
    """The file is damaged.

    Args:
        path: which.
        said: what SQLite says of it.
    """

    def __init__(self, path: Path, said: str) -> None:
        super().__init__(phrase("keeping.database.damaged", path=path, splitlines=said.splitlines()[0]))
        self.path = path


class Database:
    """One SQLite file. Connections are opened for each piece of work and closed after it.

    Args:
        path: the file; it and its folder are made when missing, readable by their owner only.

    Raises:
        NewerDatabase: the file is of a newer version.
        Damaged: it cannot be read in all its parts, or is not a database.
        Trouble: it cannot be opened or written.
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self._turns = Lock()
        try:
            # Where people are and for how long is told in it: it is the owner's to read.
            path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
            if path.is_dir():
                raise IsADirectoryError(errno.EISDIR, os.strerror(errno.EISDIR))
            path.touch(mode=0o600)
            path.chmod(0o600)
            self._is = _file(path)
            # Stays open: when the last connection closes, SQLite folds the journal in, at 4 ms an edit.
            self._keeper = self._connect()
            _wrap_malformed(self._keeper)
            _check(self._keeper, path)
            self._keeper.execute("PRAGMA journal_mode = WAL")
            version = self._keeper.execute("PRAGMA user_version").fetchone()[0]
            if 0 < version < len(scripts()):
                keep(path, f"version-{version}")
            _migrate(self._keeper)
        except (sqlite3.Error, OSError) as error:
            if is_damage(error):
                raise Damaged(path, str(error)) from error
            raise trouble(error, path) from error

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """A connection for reading; raises :class:`Trouble`."""
        with self._told(), closing(self._connect()) as connection:
            yield connection

    @contextmanager
    def writing(self) -> Iterator[sqlite3.Connection]:
        """A connection inside one write transaction: kept on return, undone on an exception; raises
        :class:`Trouble`."""
        with self._told(), self._turn(), closing(self._connect()) as connection, _transaction(connection):
            yield connection

    @contextmanager
    def _turn(self) -> Iterator[None]:
        """One writer of this program after the other: who waits here comes next, where SQLite would have it
        try from time to time."""
        if not self._turns.acquire(timeout=WAIT_S):
            raise Trouble(phrase("keeping.database.being_written"))
        try:
            yield
        finally:
            self._turns.release()

    @contextmanager
    def _told(self) -> Iterator[None]:
        try:
            yield
        except sqlite3.Error as error:
            raise trouble(error, self.path) from error

    def put_in(self, given: Path, keep_here: Callable[[], Path]) -> Path:
        """Put what a file holds in place of what is here: all of it, in one transaction, or nothing.

        Nobody writes from before the copy of what is here is made until the other is in its place: a write
        waits, or is told that it cannot be.

        Args:
            given: a database that was verified; it may be of an older version.
            keep_here: keeps a copy of what is here.

        Returns:
            That copy.

        Raises:
            BadCopy: the file lacks something that its version has.
            Trouble: it cannot be written here.
        """
        with self._told(), scratch() as folder:
            ready = copy(given, folder / "ready.sqlite3")
            with closing(sqlite3.connect(ready, isolation_level=None)) as there:
                _migrate(there)
            with self._turn(), closing(self._connect()) as here:
                # What is taken over row by row is whole when the transaction ends.
                here.execute("PRAGMA foreign_keys = OFF")
                here.execute("ATTACH DATABASE ? AS given", (f"{ready.resolve().as_uri()}?mode=ro",))
                with _transaction(here):
                    kept = keep_here()
                    _take_over(here, given)
        return kept

    def close(self) -> None:
        """Fold the journal into the file, which then holds everything by itself; to be called at the end."""
        with suppress(sqlite3.Error):
            self._keeper.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        self._keeper.close()

    def _connect(self) -> sqlite3.Connection:
        # A file that was moved away is not made anew, empty; nor is another one written that took its place.
        if _file(self.path) != self._is:
            raise Moved(self.path)
        connection = sqlite3.connect(
            f"{self.path.resolve().as_uri()}?mode=rw",
            uri=True,
            isolation_level=None,
            timeout=WAIT_S,
            check_same_thread=False,
        )
        connection.row_factory = sqlite3.Row
        connection.execute("PRAGMA foreign_keys = ON")
        # A commit returns when it lies on the disk: what was acknowledged outlives a power cut.
        connection.execute("PRAGMA synchronous = FULL")
        return connection


@contextmanager
def _transaction(connection: sqlite3.Connection) -> Iterator[None]:
    """One write transaction: kept at its end, undone on an exception."""
    connection.execute("BEGIN IMMEDIATE")
    try:
        yield
        connection.execute("COMMIT")
    except BaseException:
        # Where the disk is full, SQLite has undone it already.
        if connection.in_transaction:
            connection.execute("ROLLBACK")
        raise


def _take_over(here: sqlite3.Connection, given: Path) -> None:
    """Take over every row of the database that is attached as ``given``."""
    last = here.execute("SELECT coalesce(max(revision), 0) FROM rig").fetchone()[0]
    tables = here.execute(
        "SELECT name FROM main.sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
    ).fetchall()
    for (table,) in tables:
        if table in OF_THIS_COMPUTER:
            continue
        columns = [row["name"] for row in here.execute(f"PRAGMA main.table_info({table})")]
        there = {row["name"] for row in here.execute(f"PRAGMA given.table_info({table})")}
        if not there.issuperset(columns):
            raise BadCopy(phrase("keeping.backup.lacks", file=given, table=table))
        names = ", ".join(columns)
        here.execute(f"DELETE FROM main.{table}")
        here.execute(f"INSERT INTO main.{table} ({names}) SELECT {names} FROM given.{table}")
    # A window that still shows what was here must not take a rig of the copy for the same.
    here.execute("UPDATE main.rig SET revision = revision + ?, card_revision = 0", (last,))


def _file(path: Path) -> tuple[int, int] | None:
    """Which file lies under a name."""
    try:
        found = path.stat()
    except OSError:
        return None
    return found.st_dev, found.st_ino


def _wrap_malformed(connection: sqlite3.Connection) -> None:
    """Wrap a document that is no JSON into one that holds it as a text: nothing of it is lost, it can be
    exported and deleted, and the other rigs are not kept from being read."""
    # Where the file is damaged otherwise, the check says so.
    with suppress(sqlite3.DatabaseError):
        bad = connection.execute("SELECT 1 FROM rig NOT INDEXED WHERE NOT json_valid(document)").fetchone()
        if bad is None:
            return
        index = connection.execute("SELECT sql FROM sqlite_master WHERE name = 'rig_list'").fetchone()
        with _transaction(connection):
            # What the index is made of cannot be read of such a row, not even to take it out.
            if index is not None:
                connection.execute("DROP INDEX rig_list")
            connection.execute(
                "UPDATE rig SET document = json_object('unreadable', document) WHERE NOT json_valid(document)"
            )
            if index is not None:
                connection.execute(index["sql"])


def _check(connection: sqlite3.Connection, path: Path) -> None:
    try:
        said = connection.execute("PRAGMA quick_check(1)").fetchone()[0]
    except sqlite3.DatabaseError as error:
        if isinstance(error, sqlite3.OperationalError):
            raise
        raise Damaged(path, str(error)) from error
    if said != "ok":
        raise Damaged(path, said)


def _migrate(connection: sqlite3.Connection) -> None:
    steps = scripts()
    version = connection.execute("PRAGMA user_version").fetchone()[0]
    if version > len(steps):
        raise NewerDatabase(
            phrase("keeping.database.database_version_program_reads", version=version, steps=len(steps))
        )
    for number, script in enumerate(steps[version:], version + 1):
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


def drop_setting(connection: sqlite3.Connection, key: str) -> None:
    """Forget a setting of the database; nothing where it is not set."""
    connection.execute("DELETE FROM setting WHERE key = ?", (key,))


def settings_of(connection: sqlite3.Connection, prefix: str) -> dict[str, str]:
    """The settings whose keys begin so, by the rest of their keys."""
    rows = connection.execute(
        "SELECT key, value FROM setting WHERE substr(key, 1, ?) = ?", (len(prefix), prefix)
    )
    return {str(row["key"])[len(prefix) :]: str(row["value"]) for row in rows}
