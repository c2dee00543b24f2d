"""Phones that may use the program over the local network."""

import hashlib
import secrets
import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

# Paired for longer than this without a visit, a phone must be paired again.
LASTS = timedelta(days=365)
# When it was seen last is written down this often.
SEEN_EVERY = timedelta(hours=1)
MOST = 12


@dataclass(frozen=True, slots=True)
class Phone:
    """A paired phone: its number and name, and when it was paired and seen last (ISO 8601, UTC)."""

    id: int
    name: str
    paired_at: str
    seen_at: str


def _now() -> datetime:
    return datetime.now(UTC)


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


def pair(db: sqlite3.Connection, name: str) -> str:
    """Pair a phone.

    Args:
        db: connection, in a write transaction.
        name: what it calls itself.

    Returns:
        The token that it shows from now on; only its hash is kept. The phone seen longest ago makes room
        where there are too many.
    """
    token, now = secrets.token_urlsafe(32), _now().isoformat(timespec="seconds")
    db.execute(
        "INSERT INTO phone (name, token_hash, paired_at, seen_at) VALUES (?, ?, ?, ?)",
        (name, _hash(token), now, now),
    )
    db.execute(
        "DELETE FROM phone WHERE id NOT IN (SELECT id FROM phone ORDER BY seen_at DESC, id DESC LIMIT ?)",
        (MOST,),
    )
    return token


def known(db: sqlite3.Connection, token: str) -> Phone | None:
    """The phone that shows a token; None where none does, or it was not seen for too long."""
    row = db.execute("SELECT * FROM phone WHERE token_hash = ?", (_hash(token),)).fetchone()
    if row is None or datetime.fromisoformat(row["seen_at"]) < _now() - LASTS:
        return None
    return Phone(row["id"], row["name"], row["paired_at"], row["seen_at"])


def due(phone: Phone) -> bool:
    """Whether it is time to write down that a phone was seen."""
    return datetime.fromisoformat(phone.seen_at) < _now() - SEEN_EVERY


def seen(db: sqlite3.Connection, phone_id: int) -> None:
    """Write down that a phone was seen now."""
    now = _now().isoformat(timespec="seconds")
    db.execute("UPDATE phone SET seen_at = ? WHERE id = ?", (now, phone_id))


def listed(db: sqlite3.Connection) -> list[Phone]:
    """The paired phones, what was seen last first."""
    rows = db.execute("SELECT * FROM phone ORDER BY seen_at DESC, id DESC")
    return [Phone(r["id"], r["name"], r["paired_at"], r["seen_at"]) for r in rows]


def revoke(db: sqlite3.Connection, phone_id: int) -> None:
    """Forget a phone: it may no longer open the rigs. Nothing happens if there is no such phone."""
    db.execute("DELETE FROM phone WHERE id = ?", (phone_id,))
