"""Files that are looked at before they are imported: kept aside for a day, and a few at once."""

import secrets
import tempfile
import time
from dataclasses import dataclass, field
from pathlib import Path
from threading import Lock

from vast_harbor.formats.monitor_layout import Layout
from vast_harbor.store.scratch import PREFIX, mark

MOST, LONGEST_S = 6, 86_400


@dataclass(slots=True)
class StagedFile:
    """A file that waits.

    Attributes:
        token: its name.
        rig_id, bank: whose readings it holds.
        name: as its owner calls it.
        path: where it lies.
        layout: how it is understood now.
        since: when it came [s].
    """

    token: str
    rig_id: int
    bank: str
    name: str
    path: Path
    layout: Layout | None = None
    since: float = field(default_factory=time.time)


class Staged:
    """The files that wait, in a folder that goes with the program."""

    def __init__(self) -> None:
        self._folder = tempfile.TemporaryDirectory(prefix=PREFIX)
        mark(Path(self._folder.name))
        self._files: dict[str, StagedFile] = {}
        self._lock = Lock()

    def new(self, rig_id: int, bank: str, name: str) -> StagedFile:
        """A place for a file; those that waited too long, or are too many, give way."""
        with self._lock:
            token = secrets.token_urlsafe(9)
            made = StagedFile(token, rig_id, bank, name, Path(self._folder.name) / token)
            self._files[token] = made
            kept = sorted(self._files.values(), key=lambda f: -f.since)
            for old in kept[MOST:] + [f for f in kept[:MOST] if time.time() - f.since > LONGEST_S]:
                self._drop(old.token)
            return made

    def get(self, rig_id: int, token: str) -> StagedFile | None:
        """A file of a rig; None where it waits no more."""
        found = self._files.get(token)
        return found if found is not None and found.rig_id == rig_id and found.path.is_file() else None

    def drop(self, token: str) -> None:
        """Forget a file."""
        with self._lock:
            self._drop(token)

    def _drop(self, token: str) -> None:
        gone = self._files.pop(token, None)
        if gone is not None:
            gone.path.unlink(missing_ok=True)
