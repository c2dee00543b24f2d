"""The journal of the edits of a rig: what was done, undone and tried."""

import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from pydantic_core import from_json

from vast_harbor.store.edit_rows import first_undone, last_done
from vast_harbor.store.json_difference import difference
from vast_harbor.store.rigs import Document, StoredRig, dumps, get, now, patched

JOURNAL_LENGTH = 200
# Keys of so many edits of a rig are remembered: what is sent once more is done once.
KEYS_KEPT = 5_000
# Typing on in one field within this time is one edit to undo.
ONE_EDIT = timedelta(seconds=4)


def done(db: sqlite3.Connection, rig_id: int, key: str) -> bool:
    """Whether an edit was stored before under its sender's own key."""
    row = db.execute("SELECT 1 FROM sent WHERE rig_id = ? AND key = ?", (rig_id, key)).fetchone()
    return bool(key) and row is not None


def change(
    db: sqlite3.Connection, stored: StoredRig, document: Document, label: str, field: str = "", key: str = ""
) -> None:
    """Store an edit of a rig and put it into the journal.

    Args:
        db: connection, in a write transaction.
        stored: the rig as it was read in the same transaction.
        document: the checked document after the edit.
        label: what was done, for undo.
        field: the one field that was typed into, and by which window; further typing there is the same edit.
        key: the sender's own key of the edit.
    """
    _remember(db, stored.id, key)
    if document == stored.document:
        return
    db.execute("DELETE FROM edit WHERE rig_id = ? AND undone = 1", (stored.id,))
    last = last_done(db, stored.id)
    before = stored.document
    same = field and last is not None and last["field"] == field and _recent(last["at"])
    if same and last is not None:
        before = patched(stored.document, from_json(last["backward"]))
    forward = dumps(difference(before, document))
    backward = dumps(difference(document, before))
    if same and last is not None:
        db.execute(
            "UPDATE edit SET at = ?, forward = ?, backward = ? WHERE id = ?",
            (now(), forward, backward, last["id"]),
        )
    else:
        db.execute(
            "INSERT INTO edit (rig_id, at, label, field, forward, backward) VALUES (?, ?, ?, ?, ?, ?)",
            (stored.id, now(), label, field, forward, backward),
        )
        db.execute(
            "DELETE FROM edit WHERE rig_id = ? AND id NOT IN "
            "(SELECT id FROM edit WHERE rig_id = ? ORDER BY id DESC LIMIT ?)",
            (stored.id, stored.id, JOURNAL_LENGTH),
        )
    _put(db, stored.id, document)


def _remember(db: sqlite3.Connection, rig_id: int, key: str) -> None:
    """Remember the key of an edit, for the last edits of a rig."""
    if not key:
        return
    db.execute("INSERT OR IGNORE INTO sent (rig_id, key) VALUES (?, ?)", (rig_id, key))
    db.execute(
        "DELETE FROM sent WHERE rig_id = ? AND id <= "
        "(SELECT id FROM sent WHERE rig_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?)",
        (rig_id, rig_id, KEYS_KEPT),
    )


@dataclass(frozen=True, slots=True)
class JournalEntry:
    """One edit of the journal.

    Attributes:
        id, at, label: which, when (ISO 8601, UTC) and what was done.
        undone: whether it is undone at present.
        forward, backward: JSON Patch there and back.
    """

    id: int
    at: str
    label: str
    undone: bool
    forward: list[dict[str, Any]]
    backward: list[dict[str, Any]]


def changes(db: sqlite3.Connection, rig_id: int) -> list[JournalEntry]:
    """The journal of a rig, the newest edit first; raises :class:`Missing`."""
    get(db, rig_id)
    rows = db.execute(
        "SELECT id, at, label, undone, forward, backward FROM edit WHERE rig_id = ? ORDER BY id DESC",
        (rig_id,),
    )
    return [
        JournalEntry(
            r["id"], r["at"], r["label"], bool(r["undone"]), from_json(r["forward"]), from_json(r["backward"])
        )
        for r in rows
    ]


def undo(db: sqlite3.Connection, stored: StoredRig) -> str:
    """Take the last edit back; its label, empty when there is none."""
    edit = last_done(db, stored.id)
    if edit is None or stored.undo is None:
        return ""
    _put(db, stored.id, patched(stored.document, from_json(edit["backward"])))
    db.execute("UPDATE edit SET undone = 1 WHERE id = ?", (edit["id"],))
    return str(edit["label"])


def redo(db: sqlite3.Connection, stored: StoredRig) -> str:
    """Do the last undone edit again; its label, empty when there is none."""
    edit = first_undone(db, stored.id)
    if edit is None:
        return ""
    _put(db, stored.id, patched(stored.document, from_json(edit["forward"])))
    db.execute("UPDATE edit SET undone = 0, field = '' WHERE id = ?", (edit["id"],))
    return str(edit["label"])


def start_what_if(db: sqlite3.Connection, stored: StoredRig) -> None:
    """Try something beside the plan: what follows can be kept or dropped as a whole.

    Args:
        db: connection, in a write transaction.
        stored: the rig as it was read in the same transaction.
    """
    if stored.base is not None:
        return
    # An undone edit could give its number to the first one tried.
    db.execute("DELETE FROM edit WHERE rig_id = ? AND undone = 1", (stored.id,))
    last = db.execute("SELECT max(id) AS id FROM edit WHERE rig_id = ?", (stored.id,)).fetchone()["id"]
    db.execute(
        "UPDATE rig SET base = ?, base_edit = ?, revision = revision + 1 WHERE id = ?",
        (dumps(stored.document), last or 0, stored.id),
    )
    # Further typing in the same field is part of the trial, not of the edit before it.
    db.execute("UPDATE edit SET field = '' WHERE rig_id = ?", (stored.id,))


def end_what_if(db: sqlite3.Connection, stored: StoredRig, keep: bool) -> None:
    """Keep what was tried, or go back to the plan as it was; both can be undone.

    Args:
        db: connection, in a write transaction.
        stored: the rig as it was read in the same transaction.
        keep: whether what was tried becomes the plan.
    """
    if stored.base is None:
        return
    if not keep:
        change(db, stored, stored.base, "drop what was tried")
    db.execute(
        "UPDATE rig SET base = NULL, base_edit = NULL, revision = revision + 1 WHERE id = ?", (stored.id,)
    )


def _put(db: sqlite3.Connection, rig_id: int, document: Document) -> None:
    db.execute(
        "UPDATE rig SET document = ?, revision = revision + 1, updated_at = ? WHERE id = ?",
        (dumps(document), now(), rig_id),
    )


def _recent(at: str) -> bool:
    # A clock that was set back makes nothing recent.
    return timedelta(0) <= datetime.now(UTC) - datetime.fromisoformat(at) < ONE_EDIT
