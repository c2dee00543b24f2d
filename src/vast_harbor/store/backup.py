"""Copies of the database: consistent, verified, the last fourteen kept; and one of them put back."""

import sqlite3
from contextlib import closing, suppress
from pathlib import Path

from vast_harbor.phrases import phrase
from vast_harbor.store.trouble import is_damage
from vast_harbor.store.versions import scripts

MOST = 14
FOLDER = "backups"


class BadCopy(ValueError):
    """A file that cannot be put back; the message is for the owner."""


def copy(source: Path, to: Path) -> Path:
    """A consistent copy of a database, even while it is used; it is there whole or not at all.

    Which phones are paired stays on this computer: one that was removed must not come back with a copy.

    Args:
        source: the database.
        to: the file to write; one that is there is replaced.

    Returns:
        The copy.

    Raises:
        sqlite3.Error: the database cannot be read.
        OSError: the copy cannot be written.
        BadCopy: what was written does not verify.

    Source: SQLite's online backup API.
    """
    to.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    new = to.with_name(f"{to.name}.new")
    new.unlink(missing_ok=True)
    new.touch(mode=0o600)
    try:
        with closing(_reading(source)) as here, closing(_open(new)) as there:
            here.backup(there)
            _without_phones(there)
            there.execute("PRAGMA journal_mode = DELETE")
        verify(new)
        new.replace(to)
    finally:
        new.unlink(missing_ok=True)
    return to


def _without_phones(db: sqlite3.Connection) -> None:
    db.execute("PRAGMA secure_delete = ON")
    # Before version 6 there were none.
    if db.execute("SELECT 1 FROM sqlite_master WHERE name = 'phone'").fetchone() is not None:
        db.execute("DELETE FROM phone")


def verify(file: Path) -> int:
    """Look whether a file is a whole database of rigs.

    Args:
        file: which.

    Returns:
        Its version.

    Raises:
        BadCopy: it is not.
    """
    if not file.is_file():
        raise BadCopy(phrase("keeping.backup.file", file=file))
    try:
        with closing(_reading(file)) as db:
            said = db.execute("PRAGMA quick_check(1)").fetchone()[0]
            version = int(db.execute("PRAGMA user_version").fetchone()[0])
            db.execute("SELECT count(*) FROM rig").fetchone()
            # What a database of rigs never has, and what would run by itself.
            strange = db.execute("SELECT 1 FROM sqlite_master WHERE type IN ('trigger', 'view')").fetchone()
    except sqlite3.Error as error:
        raise BadCopy(phrase("keeping.backup.database_rigs", file=file, error=error)) from error
    if said != "ok":
        raise BadCopy(phrase("keeping.backup.damaged", file=file, said=said))
    if strange is not None:
        raise BadCopy(phrase("keeping.backup.database_rigs_contains_triggers", file=file))
    if version > (newest := len(scripts())):
        raise BadCopy(
            phrase("keeping.backup.version_program_reads_up", file=file, version=version, newest=newest)
        )
    return version


def kept(database: Path) -> list[Path]:
    """The copies of a database, the newest first."""
    found = (database.parent / FOLDER).glob(f"{database.stem}-*.sqlite3")
    return sorted(found, key=lambda p: (p.stat().st_mtime_ns, p.name), reverse=True)


def keep(database: Path, why: str, spare: Path | None = None) -> Path | None:
    """Keep a copy beside a database under a name that says why, once for each; older ones than the last
    fourteen go.

    Args:
        database: which.
        why: a date, or what comes next.
        spare: a copy that must not go now, because it is about to be put back.

    Returns:
        The copy; None where one of that name is there already.
    """
    to = database.parent / FOLDER / f"{database.stem}-{why}.sqlite3"
    if to.exists():
        return None
    made = copy(database, to)
    for old in kept(database)[MOST:]:
        if spare is None or old.resolve() != spare.resolve():
            with suppress(OSError):
                old.unlink()
    return made


def keep_before_restore(file: Path, database: Path, today: str) -> Path:
    """Keep a copy of what a restore takes the place of; the arguments are those of :func:`put_back`."""
    number = 1
    while (made := keep(database, f"{today}-before-restore-{number}", file)) is None:
        number += 1
    return made


def count(file: Path) -> int | None:
    """How many rigs, but deleted ones, are in a copy; None where it cannot be read."""
    try:
        with closing(_reading(file)) as db:
            return int(db.execute("SELECT count(*) FROM rig WHERE deleted_at IS NULL").fetchone()[0])
    except sqlite3.Error:
        return None


def put_back(file: Path, database: Path, today: str) -> Path | None:
    """Put a copy in place of a database; what was there is kept as a copy first.

    Args:
        file: the copy.
        database: where it goes.
        today: ISO date.

    Returns:
        The copy of what was there, or where the file was moved that is damaged; None where nothing was.

    Raises:
        BadCopy: the file cannot be put back, or the database is in use.
    """
    verify(file)
    before = None
    if database.exists() and _is_damaged(database):
        before = _set_aside(database, today)
    elif database.exists():
        before = keep_before_restore(file, database, today)
        with closing(_open(database)) as there:
            # The journal is only given up where nobody else has the file open; it is in the file then.
            with suppress(sqlite3.OperationalError):
                there.execute("PRAGMA journal_mode = DELETE")
            if there.execute("PRAGMA journal_mode").fetchone()[0] != "delete":
                raise BadCopy(phrase("keeping.backup.use_end_program_first", database=database))
    copy(file, database)
    return before


def _is_whole(file: Path) -> bool:
    try:
        verify(file)
    except BadCopy:
        return False
    return True


def _is_damaged(file: Path) -> bool:
    """Whether a database is damaged: not one that is locked, of a newer version, or of another program."""
    try:
        with closing(_reading(file)) as db:
            return bool(db.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok")
    except sqlite3.Error as error:
        return is_damage(error)


def _set_aside(database: Path, today: str) -> Path:
    """Move a damaged database out of the way, its journal with it."""
    number = 1
    while (to := database.with_name(f"{database.stem}-damaged-{today}-{number}{database.suffix}")).exists():
        number += 1
    for ending in ("", "-wal", "-shm"):
        part = database.with_name(f"{database.name}{ending}")
        if part.exists():
            part.rename(to.with_name(f"{to.name}{ending}"))
    return to


def whole_copies(database: Path) -> list[Path]:
    """Those of the copies of a database that can be put back, the newest first."""
    return [copy for copy in kept(database) if _is_whole(copy)]


def _reading(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)


def _open(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(path, isolation_level=None, timeout=1)
