"""The rigs as a list of cards: paged, searched, and with what was worked out of each last."""

import sqlite3
from dataclasses import dataclass

from vast_harbor.store.rigs import COMING, KEPT_AFTER_DELETION, called, days_ago

PAGE = 24


@dataclass(frozen=True, slots=True)
class Card:
    """A rig in the list.

    Attributes:
        id, name, kind, notes: which, and what its owner says of it.
        figures: what was worked out of the rig as it is, JSON; None where nothing was.
        fresh: whether that was done on this day.
    """

    id: int
    name: str
    kind: str
    notes: str
    figures: str | None
    fresh: bool


@dataclass(frozen=True, slots=True)
class Found:
    """A page of the list.

    Attributes:
        cards: those of the page, what was changed last first.
        found, all: how many the search found, and how many there are.
    """

    cards: list[Card]
    found: int
    all: int


def listed(db: sqlite3.Connection, day: str, build: str, search: str = "", page: int = 1) -> Found:
    """A page of the rigs that are not deleted.

    Args:
        db: connection.
        day: today, ISO date.
        build: which program works cards out; what another one worked out is not shown.
        search: words that must all occur in name, kind or notes; all rigs if empty.
        page: which page, from 1.

    Returns:
        The page, of :data:`PAGE` cards at most.
    """
    db.create_function("matches", 3, lambda *texts: _matches(search, *texts), deterministic=True)
    where = "deleted_at IS NULL AND matches(name, kind, notes)"
    rows = db.execute(
        "SELECT id, name, kind, notes, card_day = ? AS fresh, CASE WHEN card_revision = revision "
        f"AND card_build = ? THEN card END AS figures FROM rig WHERE id IN (SELECT id FROM rig WHERE {where} "
        "ORDER BY updated_at DESC, id DESC LIMIT ? OFFSET ?) ORDER BY updated_at DESC, id DESC",
        (day, build, PAGE, (page - 1) * PAGE),
    ).fetchall()
    there = db.execute("SELECT count(*) FROM rig WHERE deleted_at IS NULL").fetchone()[0]
    found = (
        there if not search.split() else db.execute(f"SELECT count(*) FROM rig WHERE {where}").fetchone()[0]
    )
    cards = [
        Card(
            r["id"], called(r["name"], r["id"]), _text(r["kind"]), _text(r["notes"]), r["figures"],
            bool(r["fresh"]),
        )
        for r in rows
    ]  # fmt: skip
    return Found(cards, found, there)


def _text(stored: object) -> str:
    """What an odd document holds where a text belongs is shown as none."""
    return stored if isinstance(stored, str) else ""


def _matches(search: str, *texts: object) -> bool:
    inside = " ".join(_text(t) for t in texts).casefold()
    return all(word in inside for word in search.casefold().split())


def keep(db: sqlite3.Connection, rig_id: int, revision: int, day: str, build: str, figures: str) -> None:
    """Keep what was worked out of a rig.

    Args:
        db: connection, in a write transaction.
        rig_id, revision: of which rig, as it was then.
        day, build: when, and by which program; no day where the card is to be gone on with.
        figures: JSON.
    """
    db.execute(
        "UPDATE rig SET card = ?, card_revision = ?, card_day = ?, card_build = ? WHERE id = ?",
        (figures, revision, day, build, rig_id),
    )


def outdated(db: sqlite3.Connection, day: str, build: str, most: int, before: str) -> list[tuple[int, int]]:
    """Rigs whose cards have to be worked out anew, what was changed last first.

    Args:
        db: connection.
        day, build: as of :func:`keep`.
        most: how many of the list are looked at.
        before: only what was changed before this time (ISO 8601, UTC).

    Returns:
        Id and revision of each.
    """
    rows = db.execute(
        "SELECT id, revision FROM (SELECT * FROM rig WHERE deleted_at IS NULL "
        "ORDER BY updated_at DESC, id DESC LIMIT ?) "
        "WHERE updated_at < ? AND (card_revision != revision OR card_day != ? OR card_build != ?)",
        (most, before, day, build),
    )
    return [(r["id"], r["revision"]) for r in rows]


@dataclass(frozen=True, slots=True)
class Deleted:
    """A rig that can be brought back: which, its name, and when it was deleted (ISO 8601, UTC)."""

    id: int
    name: str
    at: str


def deleted(db: sqlite3.Connection) -> list[Deleted]:
    """The rigs that can be brought back, what was deleted last first."""
    rows = db.execute(
        "SELECT id, name, deleted_at FROM rig WHERE deleted_at >= ? AND deleted_at != ? "
        "ORDER BY deleted_at DESC",
        (days_ago(KEPT_AFTER_DELETION), COMING),
    )
    return [Deleted(r["id"], called(r["name"], r["id"]), r["deleted_at"]) for r in rows]
