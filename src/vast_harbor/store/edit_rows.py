"""The rows of the journal that say what can be undone."""

import sqlite3


def labels_after(db: sqlite3.Connection, rig_id: int, edit_id: int) -> tuple[str, ...]:
    """What was done after an edit, the oldest first."""
    rows = db.execute(
        "SELECT label FROM edit WHERE rig_id = ? AND id > ? AND undone = 0 ORDER BY id", (rig_id, edit_id)
    )
    return tuple(r["label"] for r in rows)


def last_done(db: sqlite3.Connection, rig_id: int) -> sqlite3.Row | None:
    """The last edit that is not undone; None where there is none."""
    row: sqlite3.Row | None = db.execute(
        "SELECT * FROM edit WHERE rig_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1", (rig_id,)
    ).fetchone()
    return row


def first_undone(db: sqlite3.Connection, rig_id: int) -> sqlite3.Row | None:
    """The edit that would be done again; None where there is none."""
    row: sqlite3.Row | None = db.execute(
        "SELECT * FROM edit WHERE rig_id = ? AND undone = 1 ORDER BY id LIMIT 1", (rig_id,)
    ).fetchone()
    return row
