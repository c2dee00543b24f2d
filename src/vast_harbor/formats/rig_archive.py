"""A rig with all that belongs to it as one ZIP: its file, its log, what monitors logged, and its pictures.

Inside lie ``archive.json`` (what is in it), ``rig.json`` (a rig file), ``log.json`` (as the log is exported),
``readings/<n>.csv`` for each file of a monitor, ``pictures/<id>.jpg`` and ``previews/<id>.jpg``.
"""

import io
import json
import re
import zipfile
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import islice
from pathlib import Path
from typing import IO, Annotated, Any, Final, Literal, TypeVar

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator

from vast_harbor.core.log.entry import BANKS, UNITS, Entry
from vast_harbor.core.log.readings import Readings, tidied
from vast_harbor.formats.log_part import EARLIEST, checked, entry_of
from vast_harbor.formats.monitor_rows import Row, reading_rows
from vast_harbor.formats.monitor_told import told_of
from vast_harbor.formats.picture import PictureError, cleaned
from vast_harbor.formats.problem import Problem, RigFileError
from vast_harbor.formats.rig_file import LARGEST_BYTES as LARGEST_RIG
from vast_harbor.formats.rig_file import loads_text
from vast_harbor.phrases import phrase

FORMAT: Final = "vast-harbor-archive"
LARGEST_BYTES, LARGEST_UNPACKED, MOST_MEMBERS = 300_000_000, 800_000_000, 1_500
# What one member may unfold to [bytes].
LARGEST_TEXT, LARGEST_READINGS, LARGEST_PICTURE = 8_000_000, 200_000_000, 8_000_000
# Readings of all its monitors; so many lines are read at once; none is longer [bytes].
MOST_READINGS, BLOCK, LONGEST_LINE = 3_000_000, 20_000, 400
ID = r"[A-Za-z0-9_-]{1,40}"
MEMBER = re.compile(
    rf"archive\.json|rig\.json|log\.json|readings/[0-9]{{1,6}}\.csv|(pictures|previews)/{ID}\.jpg"
)
# What programs that pack add by themselves.
ADDED = frozenset({".DS_Store", "Thumbs.db", "desktop.ini"})
HEAD = "at,offset_min,volts,amps,soc,celsius"
_HEADS = {name: n for n, name in enumerate(HEAD.split(","))}

Name = Annotated[str, Field(max_length=200)]
M = TypeVar("M", bound=BaseModel)


class _Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", strict=True)


class MonitorMember(_Strict):
    """A file of a monitor: its readings lie in ``readings/<n>.csv``."""

    bank: str = Field(pattern=f"^({'|'.join(BANKS)})$")
    name: Name
    digest: Name
    added_at: int = Field(ge=0, le=2**36)
    told: str = Field(max_length=100_000)

    @field_validator("told")
    @classmethod
    def is_told(cls, told: str) -> str:
        """What was found in it is what this program writes: it is read whenever the files are listed."""
        if told_of(told) is None:
            raise ValueError("told")
        return told


class PictureMember(_Strict):
    """A picture: it lies in ``pictures/<id>.jpg``, its preview in ``previews/<id>.jpg``."""

    id: str = Field(pattern=f"^{ID}$")
    place: str = Field(pattern=rf"^(wiring|(entry|step):{ID})$")
    at: int = Field(ge=0, le=2**36)
    name: Name
    width: int = Field(ge=1, le=100_000)
    height: int = Field(ge=1, le=100_000)


class Contents(_Strict):
    """What is in an archive."""

    format: Literal["vast-harbor-archive"]
    version: Literal[1]
    readings: list[MonitorMember] = Field(max_length=1000)
    pictures: list[PictureMember] = Field(max_length=300)


@dataclass(frozen=True, slots=True)
class MonitorPart:
    """A file of a monitor with its readings, as rows of a table in order of time."""

    about: MonitorMember
    rows: Sequence[Row]


@dataclass(frozen=True, slots=True)
class PicturePart:
    """A picture, large and small, JPEG."""

    about: PictureMember
    large: bytes
    small: bytes


@dataclass(frozen=True, slots=True)
class Archive:
    """A rig with all that belongs to it, in a file that was looked through whole.

    Attributes:
        path: the file.
        document: the rig file, not checked.
        entries: of the log.
        monitor: files of monitors.
        pictures: of entries, steps and the old wiring.
        system_v: of the rig [V].
        now: when it was read, seconds since 1970 UTC [s].
    """

    path: Path
    document: dict[str, Any]
    entries: tuple[Entry, ...]
    monitor: tuple[MonitorMember, ...]
    pictures: tuple[PictureMember, ...]
    system_v: float
    now: int

    def readings(self, number: int) -> Iterator[list[Row]]:
        """The readings of a file of a monitor, in order of time, block by block."""
        with zipfile.ZipFile(self.path) as packed:
            yield from _readings(_Folder(packed), number, self.system_v, self.now)

    def picture(self, about: PictureMember) -> PicturePart:
        """One of its pictures."""
        with zipfile.ZipFile(self.path) as packed:
            return _picture(_Folder(packed), about)


def write(
    path: Path, rig: str, log: str, monitor: Iterable[MonitorPart], pictures: Iterable[PicturePart]
) -> None:
    """Write an archive.

    Args:
        path: where.
        rig, log: the texts of the rig file and of the log.
        monitor, pictures: one by one, so that they need not fit into memory together.
    """
    readings: list[MonitorMember] = []
    shown: list[PictureMember] = []
    with zipfile.ZipFile(path, "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("rig.json", rig)
        out.writestr("log.json", log)
        for part in monitor:
            with (
                out.open(f"readings/{len(readings)}.csv", "w") as raw,
                io.TextIOWrapper(raw, "utf-8") as text,
            ):
                text.write(f"{HEAD}\n")
                text.writelines(_line(row) for row in part.rows)
            readings.append(part.about)
        for picture in pictures:
            # JPEG does not get smaller.
            for folder, body in (("pictures", picture.large), ("previews", picture.small)):
                out.writestr(f"{folder}/{picture.about.id}.jpg", body, zipfile.ZIP_STORED)
            shown.append(picture.about)
        contents = Contents(format=FORMAT, version=1, readings=readings, pictures=shown)
        out.writestr("archive.json", contents.model_dump_json(indent=1))


def _line(row: Row) -> str:
    return ",".join("nan" if v is None else repr(v) for v in row) + "\n"


def _refused(says: str) -> RigFileError:
    return RigFileError([Problem("", says)])


def read(path: Path, now: int) -> Archive:
    """Look through an archive whole; nothing is unpacked to the disk, and only its log is held.

    Args:
        path: the file.
        now: seconds since 1970 UTC [s].

    Raises:
        RigFileError: no ZIP, damaged, too large unfolded, with members that do not belong, or with something
            in it that cannot be.
    """
    try:
        with zipfile.ZipFile(path) as packed:
            archive = _Folder(packed)
            _look(archive)
            return _read(path, archive, now)
    except (zipfile.BadZipFile, EOFError, OSError, RuntimeError, UnicodeDecodeError) as error:
        # A runtime error is a password, or a way to pack that is not known here.
        raise _refused(phrase("files.archive.damaged")) from error


class _Folder:
    """What lies in a ZIP as this program packed it, without what another one that packed it anew has added:
    names of folders, one folder round all of it, and files of its own.

    Args:
        packed: the ZIP, open.
    """

    def __init__(self, packed: zipfile.ZipFile) -> None:
        self._packed = packed
        self.count = len(packed.namelist())
        kept = [m for m in packed.infolist() if not m.is_dir() and not _is_added(m.filename)]
        firsts = {m.filename.partition("/")[0] for m in kept}
        first = firsts.pop() if len(firsts) == 1 else ""
        round_all = "" if first in ("", ".", "..") else f"{first}/"
        self._members = [(m.filename.removeprefix(round_all), m) for m in kept]
        self._by_name = dict(self._members)

    @property
    def names(self) -> list[str]:
        """Names of all that lies in it; one that lies there twice, twice."""
        return [name for name, _ in self._members]

    @property
    def sizes(self) -> list[tuple[str, int]]:
        """How large each is unfolded [bytes]."""
        return [(name, member.file_size) for name, member in self._members]

    def read(self, name: str) -> bytes:
        """One of them, unfolded."""
        return self._packed.read(self._by_name[name])

    def open(self, name: str) -> IO[bytes]:
        """The same, to be read bit by bit."""
        return self._packed.open(self._by_name[name])


def _is_added(name: str) -> bool:
    """Whether a program that packs puts such a file in by itself."""
    *folders, last = name.split("/")
    return "__MACOSX" in folders or last in ADDED or last.startswith("._")


def _look(archive: _Folder) -> None:
    """Whether it holds only what belongs, before anything is unfolded."""
    names = archive.names
    for name in names:
        if not MEMBER.fullmatch(name):
            raise _refused(phrase("files.archive.stranger", name=name[:60]))
    if len(set(names)) < len(names) or archive.count > MOST_MEMBERS:
        raise _refused(phrase("files.archive.damaged"))
    size = sum(size for _, size in archive.sizes)
    if size > LARGEST_UNPACKED or any(size > _most(name) for name, size in archive.sizes):
        raise _refused(phrase("files.archive.bomb", size=f"{size / 1e6:.0f}"))
    for name in ("archive.json", "rig.json", "log.json"):
        if name not in names:
            raise _refused(phrase("files.archive.missing", name=name))


def _most(name: str) -> int:
    if name.startswith("readings/"):
        return LARGEST_READINGS
    if name.endswith(".jpg"):
        return LARGEST_PICTURE
    return LARGEST_RIG if name == "rig.json" else LARGEST_TEXT


def _read(path: Path, archive: _Folder, now: int) -> Archive:
    contents = _contents(_json(archive, "archive.json"))
    named = {f"readings/{n}.csv" for n in range(len(contents.readings))}
    named |= {f"{folder}/{p.id}.jpg" for p in contents.pictures for folder in ("pictures", "previews")}
    named |= {"archive.json", "rig.json", "log.json"}
    if named != set(archive.names):
        other = sorted(named ^ set(archive.names))[0]
        raise _refused(phrase("files.archive.missing", name=other))
    document = loads_text(archive.read("rig.json"))
    volts = _volts(document)
    entries = tuple(_entries(_json(archive, "log.json"), volts, now))
    # All of it is looked at before any of it is kept; none of it is held.
    count = 0
    for n in range(len(contents.readings)):
        for block in _readings(archive, n, volts, now):
            count += len(block)
            if count > MOST_READINGS:
                raise _refused(phrase("files.archive.rows", most=f"{MOST_READINGS / 1e6:.0f}"))
    for about in contents.pictures:
        _picture(archive, about)
    return Archive(path, document, entries, tuple(contents.readings), tuple(contents.pictures), volts, now)


def _json(archive: _Folder, name: str) -> Any:
    try:
        return json.loads(archive.read(name))
    except (ValueError, RecursionError) as error:
        raise _refused(phrase("files.archive.unread", name=name)) from error


def _contents(said: Any) -> Contents:
    try:
        return Contents.model_validate(said)
    except ValidationError as error:
        raise _refused(phrase("files.archive.unread", name="archive.json")) from error


def _volts(document: dict[str, Any]) -> float:
    rig = document.get("rig")
    volts = rig.get("system_v") if isinstance(rig, dict) else None
    return float(volts) if isinstance(volts, int | float) and 0 < volts < 1000 else 12.0


def _entries(said: Any, system_v: float, now: int) -> Iterator[Entry]:
    listed = said.get("entries") if isinstance(said, dict) else None
    if not isinstance(listed, list):
        raise _refused(phrase("files.archive.unread", name="log.json"))
    context = {"typed": False, "system": "metric", "system_v": system_v}
    known: set[str] = set()
    for n, one in enumerate(listed, 1):
        try:
            entry = entry_of(one)
        except ValueError as error:
            raise _refused(phrase("files.archive.entry", number=n, why="")) from error
        if entry.id in known:
            raise _refused(phrase("files.archive.entry", number=n, why=""))
        known.add(entry.id)
        try:
            yield checked(entry, {name: getattr(entry, name) for name in UNITS}, context, now)
        except RigFileError as error:
            raise _refused(phrase("files.archive.entry", number=n, why=error.problems[0].message)) from error


def _readings(archive: _Folder, number: int, system_v: float, now: int) -> Iterator[list[Row]]:
    """Readings in order of time, without what cannot be; a file that was written here loses none."""
    name = f"readings/{number}.csv"
    with archive.open(name) as member:
        if member.readline(LONGEST_LINE).strip().decode("ascii", "replace") != HEAD:
            raise _refused(phrase("files.archive.unread", name=name))
        lines = iter(lambda: member.readline(LONGEST_LINE), b"")
        while block := list(islice(lines, BLOCK)):
            if any(len(line) == LONGEST_LINE for line in block):
                raise _refused(phrase("files.archive.unread", name=name))
            if rows := _block([line for line in block if line.strip()], name, system_v, now):
                yield rows


def _block(lines: list[bytes], name: str, system_v: float, now: int) -> list[Row]:
    if not lines:
        return []
    try:
        table = np.loadtxt(lines, delimiter=",", ndmin=2, comments=None)
    except ValueError as error:
        raise _refused(phrase("files.archive.unread", name=name)) from error
    whole = table[:, :2]
    if table.shape[1] != len(_HEADS) or not (np.abs(whole) < 2**53).all() or (whole != whole.round()).any():
        raise _refused(phrase("files.archive.unread", name=name))
    volts, amps, soc, celsius = np.where(np.isinf(table[:, 2:]), np.nan, table[:, 2:]).T
    at, offset = whole.astype(np.int64).T
    raw = Readings(at, np.clip(offset, -1440, 1440), volts, amps, soc, celsius)
    return reading_rows(tidied(raw, system_v, EARLIEST, now).readings)


def _picture(archive: _Folder, about: PictureMember) -> PicturePart:
    try:
        large, small = (
            cleaned(archive.read(f"{folder}/{about.id}.jpg")) for folder in ("pictures", "previews")
        )
    except PictureError as error:
        raise _refused(
            phrase("files.archive.picture", name=about.name or about.id, why=str(error))
        ) from error
    return PicturePart(about, large, small)
