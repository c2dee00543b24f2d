"""Folders for what is needed for a moment, and what a program that was killed left of them."""

import os
import shutil
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from vast_harbor.store.backup import FOLDER

PREFIX = "vast-harbor-"
# The process that a folder belongs to is written into it; one that names none is left for so long [s].
OWNER, LEFT_S = "owner", 86_400


@contextmanager
def scratch() -> Iterator[Path]:
    """A folder that is gone at the end, and at the next start where there was no end."""
    with tempfile.TemporaryDirectory(prefix=PREFIX) as folder:
        mark(Path(folder))
        yield Path(folder)


def mark(folder: Path) -> None:
    """Write into a folder which process it belongs to."""
    (folder / OWNER).write_text(str(os.getpid()), "ascii")


def sweep(database: Path) -> None:
    """Remove what programs that were killed left: halves of copies, and folders of processes that are gone.

    Args:
        database: beside which copies are kept; it is not in use yet.
    """
    for half in (*database.parent.glob("*.sqlite3.new"), *(database.parent / FOLDER).glob("*.sqlite3.new")):
        with suppress(OSError):
            half.unlink()
    for folder in Path(tempfile.gettempdir()).glob(f"{PREFIX}*"):
        with suppress(OSError):
            if folder.is_dir() and not folder.is_symlink() and _is_left(folder):
                shutil.rmtree(folder)


def _is_left(folder: Path) -> bool:
    if folder.stat().st_uid != os.getuid():
        return False
    owner = folder / OWNER
    if not owner.is_file():
        return time.time() - folder.stat().st_mtime > LEFT_S
    try:
        os.kill(int(owner.read_text("ascii")), 0)
    except ProcessLookupError:
        return True
    except (PermissionError, ValueError):
        return False
    return False
