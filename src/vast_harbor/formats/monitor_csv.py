"""The log of a battery monitor as CSV: what a stand-in writes, and later a real one may be read from."""

import csv
import io
from collections.abc import Iterable
from datetime import datetime, timedelta, timezone

from vast_harbor.core.stops.trial import MonitorReading
from vast_harbor.formats.monitor_rows import Row

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


def readings_as_csv(rows: Iterable[Row]) -> str:
    """Readings as they are kept, as CSV with a heading line.

    Args:
        rows: by :func:`monitor_rows.reading_rows`.

    Returns:
        ``time`` ISO 8601 with the offset of the owner's clock, ``volts``, ``amps`` into the bank,
        ``soc_percent``, ``celsius``; empty where nothing was read.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    zones: dict[int, timezone] = {}
    for at, offset, volts, amps, soc, celsius in rows:
        minutes = int(offset or 0)
        zone = zones.setdefault(minutes, timezone(timedelta(minutes=minutes)))
        moment = datetime.fromtimestamp(int(at or 0), zone).isoformat(timespec="seconds")
        charge = None if soc is None else soc * 100
        writer.writerow([moment, *("" if v is None else f"{v:.6g}" for v in (volts, amps, charge, celsius))])
    return out.getvalue()
