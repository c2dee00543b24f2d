"""The log of a battery monitor as CSV: of the simulated one, and of what was read from a real one."""

from collections.abc import Iterable, Iterator
from datetime import datetime, timedelta, timezone

from vast_harbor.core.stops.trial import MonitorReading
from vast_harbor.formats import csv_table
from vast_harbor.formats.monitor_rows import Row

COLUMNS = ("time", "volts [V]", "amps [A]", "soc [%]", "celsius [°C]")


def write(readings: Iterable[MonitorReading], start: datetime) -> str:
    """Readings as CSV with a heading line.

    Args:
        readings: in order.
        start: clock time of the first.

    Returns:
        :data:`COLUMNS`: ISO 8601 without a zone; amps above 0 into the bank.
    """
    return csv_table.write(
        COLUMNS,
        (
            (
                (start + timedelta(hours=r.hours)).isoformat(timespec="seconds"),
                round(r.volts, 2), round(r.amps, 1), round(r.soc * 100, 1), round(r.celsius, 1),
            )
            for r in readings
        ),
    )  # fmt: skip


def readings_as_csv(rows: Iterable[Row]) -> str:
    """Readings as they are kept, as CSV with a heading line.

    Args:
        rows: by :func:`monitor_rows.reading_rows`.

    Returns:
        :data:`COLUMNS`: ISO 8601 with the offset of the owner's clock; amps above 0 into the bank; empty
        where nothing was read.
    """
    zones: dict[int, timezone] = {}

    def cells(row: Row) -> Iterator[csv_table.Cell]:
        at, offset, volts, amps, soc, celsius = row
        minutes = int(offset or 0)
        zone = zones.setdefault(minutes, timezone(timedelta(minutes=minutes)))
        yield datetime.fromtimestamp(int(at or 0), zone).isoformat(timespec="seconds")
        for value in (volts, amps, csv_table.percent(soc), celsius):
            yield None if value is None else float(f"{value:.6g}")

    return csv_table.write(COLUMNS, map(cells, rows))
