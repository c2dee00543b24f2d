"""Readings and sums of a monitor as the rows of a table, and back."""

from collections.abc import Sequence

import numpy as np

from vast_harbor.core.log.readings import QUANTITIES, Hours, Readings

Row = tuple[int | float | None, ...]


def reading_rows(readings: Readings) -> list[Row]:
    """Readings as (time, offset, volts, amps, soc, celsius), None where nothing was read."""
    columns = [_plain(getattr(readings, name)) for name in QUANTITIES]
    return list(zip(readings.at.tolist(), readings.offset_min.tolist(), *columns, strict=True))


def readings_of(rows: Sequence[Row]) -> Readings:
    """The reverse of :func:`reading_rows`."""
    table = np.array(rows, dtype=float).reshape(-1, 2 + len(QUANTITIES))
    return Readings(table[:, 0].astype(np.int64), table[:, 1].astype(np.int64), *table[:, 2:].T)


def hour_rows(hours: Hours) -> list[Row]:
    """Sums as (hour, covered, in and out in Ah and Wh, lowest and highest of each quantity)."""
    sums = [_plain(getattr(hours, n)) for n in ("covered_s", "ah_in", "ah_out", "wh_in", "wh_out")]
    ends = (
        [_plain(part[n]) for n in QUANTITIES for part in (hours.low, hours.high)] if len(hours.hour) else []
    )
    return list(zip(hours.hour.tolist(), *sums, *ends, strict=True)) if len(hours.hour) else []


def hours_of(rows: Sequence[Row]) -> Hours:
    """The reverse of :func:`hour_rows`."""
    table = np.array(rows, dtype=float).reshape(-1, 6 + 2 * len(QUANTITIES))
    covered, ah_in, ah_out, wh_in, wh_out = table[:, 1:6].T
    ends = table[:, 6:].T
    hour = table[:, 0].astype(np.int64)
    return Hours(
        hour,
        covered,
        ah_in,
        ah_out,
        wh_in,
        wh_out,
        {n: ends[2 * i] for i, n in enumerate(QUANTITIES)},
        {n: ends[2 * i + 1] for i, n in enumerate(QUANTITIES)},
    )


def _plain(values: np.ndarray) -> list[float | None]:
    return [None if v != v else v for v in values.tolist()]
