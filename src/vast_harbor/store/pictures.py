"""Pictures of a rig: of entries of its log, of steps of its changeover, and of its old wiring."""

import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime

MOST = 300


class NoPicture(LookupError):
    """There is no such picture, or it was removed."""


class TooMany(ValueError):
    """The rig has as many pictures as are kept."""


@dataclass(frozen=True, slots=True)
class StoredPicture:
    """A picture without its bytes.

    Attributes:
        id, place: which, and of what it is.
        at: when it was kept, seconds since 1970 UTC [s].
        name: of the file that it came from.
        width, height: [px].
    """

    id: str
    place: str
    at: int
    name: str
    width: int
    height: int


def add(db: sqlite3.Connection, rig_id: int, picture: StoredPicture, large: bytes, small: bytes) -> None:
    """Keep a picture; one that was kept under its id before stays as it is.

    Args:
        db: connection, in a write transaction.
        rig_id: which rig; it must exist.
        picture: what is kept.
        large, small: JPEG.

    Raises:
        TooMany: there is no place for it.
    """
    count = db.execute("SELECT count(*) FROM picture WHERE rig_id = ?", (rig_id,)).fetchone()[0]
    if count >= MOST:
        # What was removed gives way first.
        gone = db.execute(
            "DELETE FROM picture WHERE rig_id = ? AND removed_at IS NOT NULL", (rig_id,)
        ).rowcount
        if not gone:
            raise TooMany(str(MOST))
    db.execute(
        "INSERT OR IGNORE INTO picture (rig_id, id, place, at, name, width, height, large, small) "
        "VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
        (
            rig_id,
            picture.id,
            picture.place,
            picture.at,
            picture.name,
            picture.width,
            picture.height,
            large,
            small,
        ),
    )  # fmt: skip


def listed(db: sqlite3.Connection, rig_id: int) -> list[StoredPicture]:
    """The pictures of a rig in the order in which they were kept."""
    rows = db.execute(
        "SELECT id, place, at, name, width, height FROM picture WHERE rig_id = ? AND removed_at IS NULL "
        "ORDER BY at, id",
        (rig_id,),
    )
    return [StoredPicture(*row) for row in rows]


def content(db: sqlite3.Connection, rig_id: int, id: str, small: bool) -> bytes:
    """A picture, JPEG; raises :class:`NoPicture`."""
    row = db.execute(
        "SELECT large, small FROM picture WHERE rig_id = ? AND id = ? AND removed_at IS NULL", (rig_id, id)
    ).fetchone()
    if row is None:
        raise NoPicture(id)
    return bytes(row["small" if small else "large"])


def remove(db: sqlite3.Connection, rig_id: int, id: str) -> None:
    """Set a picture aside so that it can be brought back; raises :class:`NoPicture`."""
    content(db, rig_id, id, True)
    now = datetime.now(UTC).isoformat(timespec="seconds")
    db.execute("UPDATE picture SET removed_at = ? WHERE rig_id = ? AND id = ?", (now, rig_id, id))


def restore(db: sqlite3.Connection, rig_id: int, id: str) -> None:
    """Bring a removed picture back; raises :class:`NoPicture` where there never was one."""
    db.execute("UPDATE picture SET removed_at = NULL WHERE rig_id = ? AND id = ?", (rig_id, id))
    content(db, rig_id, id, True)
