"""Logs of monitors as CSV: what their columns, dates and signs mean is found out, or said to be open."""

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.monitor_layout import HEAD_BYTES, guess, revised
from vast_harbor.formats.monitor_log import ReadFile, first_rows, read

BEGIN = datetime(2026, 3, 4, 9)
ROWS = 240


def lines(time: str, delimiter=",", decimal=".", sign=1, volts=1.0, head="", first=BEGIN, soc=100.0) -> bytes:
    """A log of four hours: discharged, charged, and so on."""
    out, left = [head] if head else [], 0.8
    for i in range(ROWS):
        amps = -8.0 if i // 60 % 2 else 10.0
        left += amps / 60 / 200
        cells = [
            (first + timedelta(minutes=i)).strftime(time),
            f"{(13.2 if amps > 0 else 12.9) * volts:.2f}", f"{sign * amps:.1f}", f"{left * soc:.4g}",
        ]  # fmt: skip
        out.append(delimiter.join(c.replace(".", decimal) if i else c for i, c in enumerate(cells)))
    return "\n".join(out).encode()


def understood(tmp_path, data: bytes, zone="Europe/Berlin", capacity=200.0) -> ReadFile:
    file = tmp_path / "log.csv"
    file.write_bytes(data)
    *shares, found = read(file, guess(data[:HEAD_BYTES], zone, 12.0), capacity)
    assert isinstance(found, ReadFile) and all(0 < s < 1 for s in shares)
    return found


@pytest.mark.parametrize(
    ("data", "order", "sure"),
    [
        (lines("%Y-%m-%d %H:%M:%S", head="time,volts,amps,soc"), "ymd", True),
        (lines("%d.%m.%Y %H:%M", ";", ",", head="Zeit;Spannung [V];Strom [A];Ladezustand [%]"), "dmy", True),
        (lines("%m/%d/%Y %I:%M %p", "\t", sign=-1, head="Date\tVoltage\tCurrent\tSOC"), "mdy", False),
        (lines("%Y-%m-%dT%H:%M:%S+01:00", volts=1000, head="t,U (mV),I,State of charge"), "ymd", True),
        (lines("%Y-%m-%d %H:%M:%S+01", head="time,volts [V],amps [A],soc [%]"), "ymd", True),
        (lines("%Y-%m-%d %H:%M:%S+0100", head="time,volts [V],amps [A],soc [%]"), "ymd", True),
        (lines("%m/%d/%Y %I:%M:%S %p", head="time,volts [V],amps [A],soc [%]"), "mdy", False),
        (lines("%d/%m/%Y %H:%M", ";", first=datetime(2026, 3, 4, 9), head="x\ntime;V;A;%"), "dmy", False),
        (lines("%d/%m/%Y %H:%M", "|", first=datetime(2026, 3, 4, 9)), "dmy", False),
        (lines("%Y-%m-%d,%H:%M", head="Datum,Zeit,V,A,soc", soc=1.0), "ymd", True),
        (lines("%d.%m.%y;%H:%M:%S", ";", head="Datum;Uhrzeit;V;A;Remaining [Ah]", soc=200.0), "dmy", True),
        ("\ufeff".encode() + lines("%Y-%m-%d %H:%M", head="Zeit,Spannung,Strom,SoC"), "ymd", True),
        (lines("%Y-%m-%d %H:%M", head="Zeit,Spannung,Strom,SoC").decode().encode("utf-16"), "ymd", True),
    ],
)  # fmt: skip
def test_one_log_in_many_shapes_is_the_same_readings(tmp_path, data, order, sure) -> None:
    layout = guess(data[:HEAD_BYTES], "Europe/Berlin", 12.0)
    assert (layout.order, layout.order_sure) == (order, sure)
    found = understood(tmp_path, data)
    r = found.readings
    assert len(r) == ROWS and found.unread == 0
    # Nine o'clock in Berlin in March is eight in UTC.
    assert r.at[0] == int(datetime(2026, 3, 4, 8, tzinfo=UTC).timestamp()) and set(np.diff(r.at)) == {60}
    assert (r.volts[0], r.amps[0], r.amps[60]) == pytest.approx((13.2, 10.0, -8.0))
    assert r.soc[0] == pytest.approx(0.8 + 10 / 60 / 200, abs=1e-3)
    shown = first_rows(data[:HEAD_BYTES], layout, 200.0, 5)
    assert list(shown.at) == list(r.at[:5]) and list(shown.amps) == list(r.amps[:5])


@pytest.mark.parametrize("zone", ["Europe/Berlin", "America/St_Johns", "UTC"])
def test_the_hour_that_comes_twice_in_autumn_is_two_hours(tmp_path, zone) -> None:
    from zoneinfo import ZoneInfo

    begin = datetime(2026, 10, 24, 22, tzinfo=UTC)
    moments = [begin + timedelta(minutes=10 * i) for i in range(1500)]
    rows = [f"{m.astimezone(ZoneInfo(zone)):%Y-%m-%d %H:%M},12.5" for m in moments]
    found = understood(tmp_path, "\n".join(["time,volts", *rows]).encode(), zone)
    assert list(found.readings.at) == [int(m.timestamp()) for m in moments]


def test_times_since_1970_need_no_zone(tmp_path) -> None:
    begin = int(BEGIN.timestamp())
    for scale in (1, 1000):
        rows = "\n".join(f"{(begin + 60 * i) * scale},{12.5 + i % 3}" for i in range(30))
        found = understood(tmp_path, f"timestamp,voltage\n{rows}".encode())
        assert list(found.readings.at[:2]) == [begin, begin + 60]


def test_which_way_the_current_flows_is_told_by_what_rises_with_it() -> None:
    for sign in (1, -1):
        by_soc = guess(lines("%Y-%m-%d %H:%M", sign=sign, head="time,volts,amps,soc"), "UTC", 12.0)
        assert (by_soc.into_bank, by_soc.sign_from) == (sign == 1, "soc")
        by_volts = guess(lines("%Y-%m-%d %H:%M", sign=sign, head="time,volts,amps,else"), "UTC", 12.0)
        assert by_volts.into_bank == (sign == 1)
    still = "\n".join(f"2026-03-04 09:{i:02},12.5,-3" for i in range(30))
    open_ = guess(f"time,volts,amps\n{still}".encode(), "UTC", 12.0)
    assert open_.sign_from == ""
    said = revised(f"time,volts,amps\n{still}".encode(), open_, False, False)
    assert (said.into_bank, said.sign_from) == (False, "said")


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "empty"),
        (b"volts\n12.5\n12.6\n", "Only one column"),
        (b"a,b\nc,d\n", "No line with readings"),
        (b"\x00\x01\x02" * 100, "not text"),
    ],
)
def test_what_is_no_log_is_refused_with_a_sentence(data, says) -> None:
    with pytest.raises(CsvError, match=says):
        guess(data, "UTC", 12.0)


def test_lines_without_a_time_are_counted_and_the_first_is_shown(tmp_path) -> None:
    data = b"time,volts\n2026-03-04 09:00,12.5\nend of log,\n2026-13-04 09:00,12.6\n2026-03-04 09:01,x\n"
    found = understood(tmp_path, data)
    assert (found.unread, found.unread_line, found.unread_text) == (2, 3, "end of log,")
    assert len(found.readings) == 2 and np.isnan(found.readings.volts[1]) and list(found.lines) == [2, 5]
