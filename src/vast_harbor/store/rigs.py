"""Rigs as they are stored."""

import sqlite3
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

import jsonpatch
import jsonpointer
from pydantic_core import from_json, to_json

from vast_harbor.phrases import phrase
from vast_harbor.store.database import drop_setting
from vast_harbor.store.edit_rows import first_undone, labels_after, last_done
from vast_harbor.store.log import LastDays, last_days

KEPT_AFTER_DELETION = timedelta(days=30)
# Stands in place of the time of deletion of a rig that is being taken in.
COMING = "coming"
# Begins the key of the setting that holds which monitor is listened to for a rig, its number behind.
LISTENS = "listens:"

Document = dict[str, Any]


class Missing(LookupError):
    """There is no such rig, or it was deleted."""


@dataclass(frozen=True, slots=True)
class StoredRig:
    """A rig as stored.

    Attributes:
        id, revision: which, and how often it was changed.
        document: its rig file document.
        undo, redo: label of the edit that would be undone or redone; None when there is none.
        base: the plan as it was before something was tried beside it; None when nothing is tried.
        tried: labels of the edits tried so far, the oldest first.
        log: when what was done last, by its log.
    """

    id: int
    revision: int
    document: Document
    undo: str | None
    redo: str | None
    base: Document | None = None
    tried: tuple[str, ...] = ()
    log: LastDays = field(default_factory=LastDays)

    @property
    def name(self) -> str:
        """What it is called, even where its document is odd."""
        rig = self.document.get("rig") if isinstance(self.document, dict) else None
        return called(rig.get("name") if isinstance(rig, dict) else None, self.id)


def called(name: object, rig_id: int) -> str:
    """The name of a rig as it is stored; where that is none, one by its number."""
    return name if isinstance(name, str) and name else phrase("keeping.rigs.unnamed", id=rig_id)


def now() -> str:
    return datetime.now(UTC).isoformat(timespec="milliseconds")


def days_ago(time: timedelta) -> str:
    """A time before now, as times are stored (ISO 8601, UTC)."""
    return (datetime.now(UTC) - time).isoformat(timespec="milliseconds")


def dumps(value: Any) -> str:
    return to_json(value).decode("utf-8")


def patched(document: Document, operations: list[dict[str, Any]]) -> Document:
    """A document after a JSON Patch; the given one stays as it is.

    Args:
        document: plain data.
        operations: JSON Patch (RFC 6902).

    Returns:
        The new document.

    Raises:
        jsonpatch.JsonPatchException, jsonpointer.JsonPointerException: the patch does not fit.
    """
    changed = dict(document)
    for operation in operations:
        for pointer in (operation["path"], operation.get("from", "")):
            _copy_along(changed, pointer)
        changed = jsonpatch.apply_patch(changed, [operation], in_place=True)
    return changed


def _copy_along(document: Document, pointer: str) -> None:
    """Copy all groups and lists on the way to a place, so that a change there leaves the others alone."""
    here: Any = document
    for part in jsonpointer.JsonPointer(pointer).parts[:-1]:
        key: Any = int(part) if isinstance(here, list) and part.isdigit() else part
        try:
            inside = here[key]
        except (LookupError, TypeError):
            return
        if not isinstance(inside, dict | list):
            return
        here[key] = here = inside.copy()


def get(db: sqlite3.Connection, rig_id: int, known: Document | None = None) -> StoredRig:
    """One rig; raises :class:`Missing`.

    Args:
        db: connection.
        rig_id: which.
        known: its document, where it was just stored from there and need not be read again.

    Returns:
        The rig.
    """
    row = db.execute(
        "SELECT id, revision, document, base, base_edit FROM rig WHERE id = ? AND deleted_at IS NULL",
        (rig_id,),
    ).fetchone()
    if row is None:
        raise Missing(rig_id)
    undo, redo = last_done(db, rig_id), first_undone(db, rig_id)
    base = None if row["base"] is None else from_json(row["base"])
    tried = () if base is None else labels_after(db, rig_id, row["base_edit"])
    if base is not None and undo is not None and undo["id"] <= row["base_edit"]:
        # What came before the trial is the plan; it is undone when the trial is over.
        undo = None
    return StoredRig(
        row["id"],
        row["revision"],
        from_json(row["document"]) if known is None else known,
        undo["label"] if undo else None,
        redo["label"] if redo else None,
        base,
        tried,
        last_days(db, rig_id),
    )


def document_text(db: sqlite3.Connection, rig_id: int) -> str:
    """The document of a rig as it is stored, JSON; raises :class:`Missing`."""
    row = db.execute("SELECT document FROM rig WHERE id = ? AND deleted_at IS NULL", (rig_id,)).fetchone()
    if row is None:
        raise Missing(rig_id)
    return str(row["document"])


def revision(db: sqlite3.Connection, rig_id: int) -> int:
    """How often a rig was changed; raises :class:`Missing`."""
    row = db.execute("SELECT revision FROM rig WHERE id = ? AND deleted_at IS NULL", (rig_id,)).fetchone()
    if row is None:
        raise Missing(rig_id)
    return int(row["revision"])


def names(db: sqlite3.Connection) -> set[str]:
    """Names of all rigs that are not deleted."""
    return {r["name"] for r in db.execute("SELECT name FROM rig WHERE deleted_at IS NULL")}


def add(
    db: sqlite3.Connection, document: Document, key: str = "", place: int = 0, *, whole: bool = True
) -> int:
    """Store a new rig.

    Args:
        db: connection, in a write transaction.
        document: its checked document.
        key: the sender's own key of it; see :func:`made_under`.
        place: of several that are stored at once, in which place the list is to show it, from 0.
        whole: whether it is there at once, or only after :func:`reveal`, when all that belongs to it is.

    Returns:
        Its id.
    """
    # The list shows what was changed last first.
    now = days_ago(timedelta(milliseconds=place))
    cursor = db.execute(
        "INSERT INTO rig (document, created_at, updated_at, key, deleted_at) VALUES (?, ?, ?, ?, ?)",
        (dumps(document), now, now, key, None if whole else COMING),
    )
    assert cursor.lastrowid is not None
    return cursor.lastrowid


def reveal(db: sqlite3.Connection, rig_id: int) -> None:
    """Show a rig of which all has come."""
    db.execute("UPDATE rig SET deleted_at = NULL WHERE id = ? AND deleted_at = ?", (rig_id, COMING))


def drop_coming(db: sqlite3.Connection, rig_id: int | None = None) -> None:
    """Give up a rig of which not all has come; at the start all that there are."""
    db.execute("DELETE FROM rig WHERE deleted_at = ? AND ? IN (id, -1)", (COMING, rig_id or -1))


def made_under(db: sqlite3.Connection, key: str) -> tuple[int, str] | None:
    """Id and name of the rig, deleted or not, that was stored under the sender's own key before."""
    if not key:
        return None
    # Of one that did not come whole nothing was acknowledged: it comes anew.
    db.execute("DELETE FROM rig WHERE key = ? AND deleted_at = ?", (key, COMING))
    row = db.execute("SELECT id, name FROM rig WHERE key = ?", (key,)).fetchone()
    return None if row is None else (int(row["id"]), str(row["name"]))


def delete(db: sqlite3.Connection, rig_id: int) -> None:
    """Set a rig aside so that it can be brought back; raises :class:`Missing`."""
    done = db.execute("UPDATE rig SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL", (now(), rig_id))
    if not done.rowcount:
        raise Missing(rig_id)
    # Its number may be another rig's one day: no monitor goes on being listened to for it.
    drop_setting(db, f"{LISTENS}{rig_id}")
    db.execute("DELETE FROM rig WHERE deleted_at < ?", (days_ago(KEPT_AFTER_DELETION),))


def restore(db: sqlite3.Connection, rig_id: int) -> None:
    """Bring a deleted rig back; raises :class:`Missing` where there is none, or its time is over."""
    done = db.execute(
        "UPDATE rig SET deleted_at = NULL WHERE id = ? AND (deleted_at IS NULL OR deleted_at >= ?) "
        "AND deleted_at IS NOT ?",
        (rig_id, days_ago(KEPT_AFTER_DELETION), COMING),
    )
    if not done.rowcount:
        raise Missing(rig_id)
