"""The log of a battery monitor as CSV: what a stand-in writes, and later a real one may be read from."""

import csv
import io
from collections.abc import Iterable
from datetime import datetime, timedelta

from vast_harbor.core.stops.trial import MonitorReading

COLUMNS = ("time", "volts", "amps", "soc_percent", "celsius")


def write(readings: Iterable[MonitorReading], start: datetime) -> str:
    """Readings as CSV with a heading line.

    Args:
        readings: in order.
        start: clock time of the first.

    Returns:
        ``time`` ISO 8601 without a zone, ``volts``, ``amps`` into the bank, ``soc_percent``, ``celsius``.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for r in readings:
        at = (start + timedelta(hours=r.hours)).isoformat(timespec="seconds")
        writer.writerow([at, f"{r.volts:.2f}", f"{r.amps:.1f}", f"{r.soc * 100:.1f}", f"{r.celsius:.1f}"])
    return out.getvalue()
