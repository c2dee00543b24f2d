"""What can befall the database file, each with a sentence that says what to do."""

import errno
import sqlite3
from pathlib import Path

from vast_harbor.phrases import phrase

# SQLite's primary result codes (https://sqlite.org/rescode.html).
_BUSY, _LOCKED, _READONLY, _IOERR, _CORRUPT, _FULL, _CANTOPEN, _NOTADB = 5, 6, 8, 10, 11, 13, 14, 26


class Trouble(RuntimeError):
    """The database cannot be read or written; the message is for the owner.

    Attributes:
        full: whether it is for want of space.
    """

    full = False


class Full(Trouble):
    """The disk is full."""

    full = True


class Moved(Trouble):
    """The file is not where it was when it was opened."""

    def __init__(self, path: Path) -> None:
        super().__init__(phrase("keeping.trouble.file_rigs_longer_moved", path=path))


def is_damage(error: Exception) -> bool:
    """Whether an error says that the file itself is damaged, or no database."""
    return getattr(error, "sqlite_errorcode", 0) & 0xFF in (_CORRUPT, _NOTADB)


def trouble(error: sqlite3.Error | OSError, path: Path) -> Trouble:
    """What an error of the database or its folder means.

    Args:
        error: as SQLite or the system gave it.
        path: the database file.

    Returns:
        To be raised, or told, instead.
    """
    if isinstance(error, OSError):
        return _of_the_system(error, path)
    code = getattr(error, "sqlite_errorcode", 0) & 0xFF
    if code in (_BUSY, _LOCKED):
        return Trouble(phrase("keeping.trouble.another_program_locked_another", path=path))
    if code == _FULL:
        return Full(phrase("keeping.trouble.disk_full_cannot_grow", path=path))
    if code == _READONLY:
        return Trouble(phrase("keeping.trouble.folder_cannot_written_give", path=path))
    if code in (_CORRUPT, _NOTADB):
        return Trouble(phrase("keeping.trouble.damaged_end_program_start", path=path, error=error))
    if code == _CANTOPEN:
        return Trouble(phrase("keeping.trouble.cannot_opened_permission_read", path=path))
    if code == _IOERR:
        return Trouble(phrase("keeping.trouble.disk_could_read_written", path=path, error=error))
    return Trouble(phrase("keeping.trouble.could_used", path=path, error=error))


def _of_the_system(error: OSError, path: Path) -> Trouble:
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return Full(phrase("keeping.trouble.disk_full_nothing_written", parent=path.parent))
    if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return Trouble(phrase("keeping.trouble.permission_write_get_permission", parent=path.parent))
    if error.errno in (errno.ENOTDIR, errno.EEXIST, errno.EISDIR):
        return Trouble(phrase("keeping.trouble.cannot_file_because_folder", path=path))
    return Trouble(phrase("keeping.trouble.path_could_not_used", path=path, strerror=error.strerror or error))
