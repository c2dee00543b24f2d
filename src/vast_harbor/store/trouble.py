"""What can befall the database file, each with a sentence that says what to do."""

import errno
import sqlite3
from pathlib import Path

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
        super().__init__(
            f"The file of your rigs, {path}, is not there any more: it was moved, renamed or replaced while "
            "the program runs. Put it back, or end the program and start it with the file as it lies now."
        )


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
        return Trouble(
            f"Another program holds {path} locked: a copy of Vast Harbor, a backup or a database tool. Close "
            f"it there."
        )
    if code == _FULL:
        return Full(f"The disk is full: {path} cannot grow. Make room on it.")
    if code == _READONLY:
        return Trouble(
            f"{path}, or its folder, may not be written. Give yourself the right to write there, or move the "
            f"file to another folder and start the program with it (--data FILE)."
        )
    if code in (_CORRUPT, _NOTADB):
        return Trouble(
            f"{path} is damaged ({error}). End the program and start it again: it then saves what can be "
            "read, and says how to put a copy back."
        )
    if code == _CANTOPEN:
        return Trouble(
            f"{path} cannot be opened: it is not there, or you may not read it. Look whether its disk is "
            f"connected, or name another file (--data FILE)."
        )
    if code == _IOERR:
        return Trouble(
            f"The disk with {path} could not be read or written ({error}). Look whether it is connected and "
            f"has room."
        )
    return Trouble(f"{path} could not be used ({error}).")


def _of_the_system(error: OSError, path: Path) -> Trouble:
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return Full(f"The disk is full: nothing can be written to {path.parent}. Make room on it.")
    if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return Trouble(
            f"You may not write to {path.parent}. Give yourself the right to, or name a file elsewhere "
            "(--data FILE)."
        )
    if error.errno in (errno.ENOTDIR, errno.EEXIST, errno.EISDIR):
        return Trouble(f"{path} cannot be a file: there is a folder, or its folder is a file. Name another.")
    return Trouble(f"{path} could not be used: {error.strerror or error}.")
