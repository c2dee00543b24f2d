"""Readings kept in the database with their sums by the hour."""

import json
import sqlite3
import time
from typing import Any

import numpy as np

from vast_harbor.core.log.readings import HOUR_S, QUANTITIES, Tidied, by_hour
from vast_harbor.formats.monitor_log import ReadFile
from vast_harbor.formats.monitor_rows import hour_rows, reading_rows, readings_of
from vast_harbor.store import monitor, rigs


def keep(
    db: sqlite3.Connection, rig_id: int, bank: str, name: str, digest: str, found: ReadFile, tidy: Tidied
) -> dict[str, Any]:
    """Keep readings and their sums.

    Args:
        db: connection, in a write transaction.
        rig_id, bank: whose they are.
        name, digest: of the file that they come from.
        found: what was read of it.
        tidy: its readings in order.

    Returns:
        What was found, as plain data; raises :class:`rigs.Missing` for a rig that is gone.
    """
    readings = tidy.readings
    first, last = int(readings.at[0]), int(readings.at[-1])
    told: dict[str, Any] = {
        "read": len(found.readings),
        "left_out": [
            {"why": o.why, "count": o.count, "line": int(found.lines[o.first]),
             "value": None if o.value != o.value else o.value}
            for o in tidy.left_out
        ],
        "twice": tidy.twice,
        "gaps": len(tidy.gaps),
        "longest_gap": max(tidy.gaps, key=lambda g: g[1] - g[0], default=None),
        "jumps": tidy.jumps[:20],
        "jumps_count": len(tidy.jumps),
        "turned": tidy.turned,
        "unread": found.unread, "unread_line": found.unread_line, "unread_text": found.unread_text,
        "usual_s": tidy.usual_s,
        "offset_min": int(readings.offset_min[0]),
    }  # fmt: skip
    rigs.revision(db, rig_id)
    there = readings_of(monitor.between(db, rig_id, bank, first, last))
    _, mine, theirs = np.intersect1d(readings.at, there.at, return_indices=True)
    unlike = np.zeros(len(mine), bool)
    for quantity in QUANTITIES:
        new, old = getattr(readings, quantity)[mine], getattr(there, quantity)[theirs]
        unlike |= (np.abs(new - old) > 1e-6) & ~np.isnan(new) & ~np.isnan(old)
    told |= {"there": len(mine), "unlike": int(unlike.sum())}
    if len(mine) < len(readings):
        number = monitor.add_file(db, rig_id, bank, name, digest, int(time.time()))
        told["new"] = monitor.add(db, rig_id, bank, number, reading_rows(readings))
        monitor.tell(db, number, json.dumps(told))
        sum_again(db, rig_id, bank, first, last)
    else:
        told["new"] = 0
    return told


# What was logged this long before and after takes part in the sums of an hour [s].
MARGIN_S = 4 * HOUR_S


def sum_again(db: sqlite3.Connection, rig_id: int, bank: str, first: int, last: int) -> None:
    """Sum the hours again in which readings came or went.

    Args:
        db: connection, in a write transaction.
        rig_id, bank: whose they are.
        first, last: times of the first and last of them [s].
    """
    near = readings_of(monitor.between(db, rig_id, bank, first - 30 * HOUR_S, last + 30 * HOUR_S))
    ahead = int(near.offset_min[0]) * 60 if len(near) else 0
    low, high = (first - MARGIN_S + ahead) // HOUR_S, (last + MARGIN_S + ahead) // HOUR_S
    sums = by_hour(near)
    rows = [row for row in hour_rows(sums) if low <= int(row[0] or 0) <= high]
    monitor.put_hours(db, rig_id, bank, low, high, rows)
