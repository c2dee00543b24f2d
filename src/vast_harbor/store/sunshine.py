"""Irradiance by site and plane, kept because it takes a second to work out."""

import sqlite3


def find(db: sqlite3.Connection, site: str) -> tuple[bytes, bytes] | None:
    """What is kept for a site and plane: two tables of doubles; None where nothing is."""
    row = db.execute("SELECT clear, cloudy FROM sunshine WHERE site = ?", (site,)).fetchone()
    return None if row is None else (bytes(row["clear"]), bytes(row["cloudy"]))


def keep(db: sqlite3.Connection, site: str, clear: bytes, cloudy: bytes) -> None:
    """Keep what was worked out for a site and plane.

    Args:
        db: connection, in a write transaction.
        site: which, as a text that tells sites and planes apart.
        clear, cloudy: tables of doubles.
    """
    db.execute(
        "INSERT INTO sunshine (site, clear, cloudy) VALUES (?, ?, ?) ON CONFLICT (site) DO NOTHING",
        (site, clear, cloudy),
    )
