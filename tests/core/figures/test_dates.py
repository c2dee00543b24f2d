"""Dates as people type them, by the order of their region."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.dates import date_text, parse_date
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.figures.parsing import Unreadable

WEDNESDAY = date(2026, 11, 25)


@pytest.mark.parametrize(
    ("typed", "locale", "iso"),
    [
        ("2026-11-05", "", "2026-11-05"),
        ("5 Nov 2026", "", "2026-11-05"),
        ("Nov 5, 2026", "en-US", "2026-11-05"),
        ("3/4/2027", "en-GB", "2027-04-03"),
        ("3/4/2027", "en-US", "2027-03-04"),
        ("4/25/27", "en-GB", "2027-04-25"),
        ("3.4.2027", "de-DE", "2027-04-03"),
        ("3.4.2027", "", "2027-04-03"),
        ("25/4/2027", "", "2027-04-25"),
        ("3/4/2027", "", Unreadable),
        ("1 Oct", "", "2026-10-01"),
        ("2 Jan", "", "2027-01-02"),
        ("29 Feb", "", Unreadable),
        ("Apr 2027", "", "2027-04"),
        ("Nov 2", "en-AU", "2026-11-02"),
        ("yesterday", "", "2026-11-24"),
        ("2 days ago", "", "2026-11-23"),
        ("last Sunday", "", "2026-11-22"),
        ("Wed", "", "2026-11-18"),
        ("a month ago", "", "2026-10-25"),
        ("3/4/2027", "en-CA", Unreadable),
        ("31 Nov 2026", "", Unreadable),
        ("13.3 V", "", Unreadable),
        ("12", "", Unreadable),
        ("5 Nov 1826", "", Unreadable),
        ("soon", "", Unreadable),
    ],
)
def test_a_date_is_read_as_its_region_writes_it(typed, locale, iso) -> None:
    if iso is Unreadable:
        with pytest.raises(Unreadable):
            parse_date(typed, locale, WEDNESDAY)
    else:
        assert parse_date(typed, locale, WEDNESDAY) == iso


@given(st.dates(date(1990, 1, 1), date(2100, 12, 31)), st.sampled_from(("", *LOCALES)), st.dates())
def test_what_is_shown_reads_as_the_same_day(day, locale, today) -> None:
    assert parse_date(date_text(day.isoformat(), locale), locale, today) == day.isoformat()
    assert parse_date(date_text(day.isoformat(), locale), locale, today, month=True) == f"{day:%Y-%m}"
    assert parse_date(date_text(f"{day:%Y-%m}", locale), locale, today) == f"{day:%Y-%m}"


@given(st.text(max_size=12))
def test_anything_else_is_a_date_or_refused(text) -> None:
    try:
        date.fromisoformat(f"{parse_date(text, '', WEDNESDAY)}-01"[:10])
    except Unreadable as error:
        assert str(error)
