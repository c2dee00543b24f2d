"""One line of the log is read as people write it, and nothing of it is lost."""

from datetime import UTC, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.log.entry import KINDS, UNITS
from vast_harbor.formats.log_line import Hand, understand

# Saturday the 28th of November 2026, 09:00 by a clock an hour ahead of UTC.
NOW = int(datetime(2026, 11, 28, 8, 0, tzinfo=UTC).timestamp())


def read(line: str, **hand):
    return understand("a", line, NOW, 60, Hand(**hand))


@pytest.mark.parametrize(
    ("line", "kind", "says"),
    [
        ("12.9V 34A 85% 4C", "reading", {"volts": 12.9, "amps": 34, "soc": 0.85, "celsius": 4}),
        ("12.9V rested", "reading", {"volts": 12.9, "rested": True, "text": ""}),
        ("water 0.4 l", "water", {"litres": 0.4, "text": ""}),
        ("12.7V in the port locker", "reading", {"volts": 12.7, "text": "in the port locker"}),
        ("12,3 V load 12A", "reading", {"volts": 12.3, "amps": -12}),
        ("−8.5 A 13100 mV", "reading", {"volts": 13.1, "amps": -8.5}),
        ("50F", "reading", {"celsius": 10}),
        ("generator 2h30 1.2 l", "generator", {"hours": 2.5, "litres": 1.2}),
        ("generator 2 h 30 min", "generator", {"hours": 2.5}),
        ("capacity test 10 A 17.5 h 20 C", "test", {"amps": 10, "hours": 17.5, "celsius": 20}),
        ("test 8 A 11 h 5 C", "test", {"amps": 8, "hours": 11, "celsius": 5}),
        ("capacity test 20 A 5h 12 min", "test", {"amps": 20, "hours": 5.2}),
        ("discharge test 20A 97 Ah", "test", {"amps": 20, "ah": 97}),
        ("Fully charged 14.4V", "full", {"volts": 14.4}),
        ("charged 40 A 90 min", "charge", {"amps": 40, "hours": 1.5}),
        ("equalised 3 h", "equalise", {"hours": 3}),
        ("left empty 3 days frozen", "deep", {"hours": 72, "frozen": True}),
        ("BMS tripped 14.6 V", "fault", {"volts": 14.6, "text": "BMS tripped 14.6 V"}),
        ("paid €45 for lugs", "cost", {"price": 45, "text": "paid €45 for lugs"}),
        ("1.18 kWh used today", "day", {"wh": 1180}),
        ("tightened the terminals 30 min", "work", {"hours": 0.5}),
        ("battery 3 13.1 V", "reading", {"battery": 3, "volts": 13.1}),
        ("starter 12.6V", "reading", {"bank": "starting", "volts": 12.6}),
        ("old bank 11.8 V", "reading", {"bank": "old"}),
        ("threw the old lugs away on a sunny day", "note", {"bank": "present"}),
        ("second bank 13.2 V", "reading", {"bank": "second"}),
        ("seen a seal", "note", {"text": "seen a seal"}),
    ],
)  # fmt: skip
def test_a_line_is_read_as_it_is_meant(line, kind, says) -> None:
    entry = read(line)
    assert entry.kind == kind and entry.at == NOW
    for name, value in says.items():
        assert getattr(entry, name) == (pytest.approx(value) if isinstance(value, float | int) else value)


@pytest.mark.parametrize(
    ("line", "day", "clock"),
    [
        ("yesterday water", "2026-11-27", "12:00"),
        ("07:30 12.4 V", "2026-11-28", "07:30"),
        ("yesterday 21:15 12.4 V", "2026-11-27", "21:15"),
        ("2026-10-03 full charge", "2026-10-03", "12:00"),
    ],
)
def test_day_and_time_are_those_of_the_owners_clock(line, day, clock) -> None:
    at = datetime.fromtimestamp(read(line).at + 3600, UTC)
    assert at.date().isoformat() == day and at.strftime("%H:%M") == clock


def test_a_day_that_is_none_stays_in_the_words() -> None:
    entry = read("2026-13-45 noise in the locker")
    assert entry.at == NOW and "2026-13-45" in entry.text


def test_numbers_and_money_are_read_as_the_region_writes_them() -> None:
    german = Hand(number_format("de-DE"), "EUR")
    assert understand("a", "cost € 1.375", NOW, 60, german).price == 1375
    assert read("cost € 1.375", currency="EUR").price == pytest.approx(1.375)
    for line in ("kr 240 for lugs", "paid 240 kr for lugs", "paid 240 for 6 lugs"):
        entry = read(line, currency="NOK")
        assert (entry.kind, entry.price, entry.text) == ("cost", 240, line)


@given(st.text(max_size=80))
def test_whatever_is_typed_is_an_entry_that_keeps_what_was_not_understood(line) -> None:
    entry = read(line)
    assert entry.kind in KINDS
    assert all(
        getattr(entry, name) is None or isinstance(getattr(entry, name), float | int) for name in UNITS
    )
    if entry.kind == "note" and not any(getattr(entry, name) is not None for name in UNITS):
        assert entry.text == " ".join(line.split())
