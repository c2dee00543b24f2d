"""The logs that come with demo rigs, dated back from today."""

import csv
import gzip
import io
import sqlite3
from importlib.resources import files as resources

import numpy as np

from vast_harbor import data
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.log.entry import PRESENT, UNITS
from vast_harbor.core.log.readings import DAY_S, Readings, tidied
from vast_harbor.formats.log_line import Hand, understand
from vast_harbor.formats.log_part import EARLIEST, checked
from vast_harbor.formats.monitor_log import ReadFile
from vast_harbor.formats.rig_file import read as rig_file_of
from vast_harbor.phrases import phrase
from vast_harbor.store import log
from vast_harbor.web.log.kept_readings import keep


def add_demo_log(db: sqlite3.Connection, rig_id: int, name: str, now: int) -> None:
    """Give a demo rig the log that ships for it, if one does.

    Args:
        db: connection, in a write transaction.
        rig_id: the rig.
        name: of the demo rig.
        now: seconds since 1970 UTC [s].
    """
    folder = resources("vast_harbor.data") / "demo" / "logs"
    lines, logged = folder / f"{name}.csv", folder / f"{name}.monitor.csv.gz"
    if not lines.is_file():
        return
    rig_file = rig_file_of(data.demo_rig(name), data.reference())
    midnight = now // DAY_S * DAY_S
    hand = Hand(number_format(""), rig_file.rig.currency, PRESENT)
    rows = csv.DictReader(io.StringIO(lines.read_text("utf-8")))
    for i, row in enumerate(rows):
        hours, minutes = (int(part) for part in row["clock"].split(":"))
        at = midnight - DAY_S * int(row["days_back"]) + 3600 * hours + 60 * minutes
        entry = understand(f"demo-{i}", row["line"], at, 0, hand)
        values = {field: getattr(entry, field) for field in UNITS}
        context = {"typed": False, "system": rig_file.rig.units, "system_v": rig_file.rig.system_v}
        kept = checked(entry, values, context, now)
        log.add(db, rig_id, {column: getattr(kept, column) for column in log.COLUMNS})
    if logged.is_file():
        text = gzip.decompress(logged.read_bytes()).decode()
        table = np.genfromtxt(io.StringIO(text), delimiter=",", skip_header=1)
        back, volts, amps, soc, celsius = table.T
        at = midnight - back.astype(np.int64)
        readings = Readings(at, np.zeros(len(at), np.int64), volts, amps, soc, celsius)
        tidy = tidied(readings, rig_file.rig.system_v, EARLIEST, now)
        found = ReadFile(readings, np.arange(2, len(at) + 2), 0, 0, "")
        keep(db, rig_id, PRESENT, phrase("log.monitor.demo"), "demo", found, tidy)
