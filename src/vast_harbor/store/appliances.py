"""Appliances that the owner entered once and wants to find again in every rig."""

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

MOST = 500


@dataclass(frozen=True, slots=True)
class OwnAppliance:
    """An appliance of the owner's own list.

    Attributes:
        id, name: which.
        load: the load as a rig file holds it, without its id and the kinds of day.
    """

    id: int
    name: str
    load: dict[str, Any]


def listed(db: sqlite3.Connection) -> list[OwnAppliance]:
    """The owner's appliances by name."""
    rows = db.execute("SELECT id, name, load FROM own_appliance ORDER BY name COLLATE NOCASE")
    return [OwnAppliance(r["id"], r["name"], json.loads(r["load"])) for r in rows]


def keep(db: sqlite3.Connection, name: str, load: dict[str, Any]) -> None:
    """Keep an appliance; one of the same name is replaced.

    Args:
        db: connection, in a write transaction.
        name: what it is called.
        load: a checked load.
    """
    db.execute(
        "INSERT INTO own_appliance (name, load) VALUES (?, ?) "
        "ON CONFLICT (name) DO UPDATE SET load = excluded.load",
        (name, json.dumps(load, ensure_ascii=False)),
    )
    db.execute(
        "DELETE FROM own_appliance WHERE id NOT IN (SELECT id FROM own_appliance ORDER BY id DESC LIMIT ?)",
        (MOST,),
    )


def forget(db: sqlite3.Connection, appliance_id: int) -> bool:
    """Take an appliance out of the owner's list; False when it is not there."""
    return bool(db.execute("DELETE FROM own_appliance WHERE id = ?", (appliance_id,)).rowcount)
