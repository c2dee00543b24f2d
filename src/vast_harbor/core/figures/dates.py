"""Dates as people of a region write them, and as they type them."""

import re
from datetime import date, datetime, timedelta
from functools import lru_cache

from babel.core import Locale
from babel.dates import format_date
from dateutil.parser import ParserError, parse

from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.figures.parsing import Unreadable
from vast_harbor.phrases import phrase

DAY, MONTH, YEAR = "d", "M", "y"
# A date of a rig lies between these years.
FIRST_YEAR, LAST_YEAR = 1990, 2100
# An ISO day inside a text.
ISO_DATE = re.compile(r"\b(?:19|20)\d\d-\d\d-\d\d\b")
_ISO = re.compile(r"^(\d{4})-(\d{1,2})(?:-(\d{1,2}))?$")
_NUMBERS = re.compile(r"^(\d{1,2})\s*[./ -]\s*(\d{1,2})\s*[./ -]?\s*(\d{4}|\d{2})?$")
_MONTH_ONLY = re.compile(r"^([a-z]{3,9})\.?\s+(\d{4})$|^(\d{1,2})/(\d{4})$", re.I)
_AGO = re.compile(r"^(?:(\d{1,3}|an?|one|two|three)\s+(day|week|month|year)s?\s+ago)$", re.I)
_COUNT = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3}
_LAST = re.compile(r"^(?:last\s+|on\s+)?(mon|tue|wed|thu|fri|sat|sun)[a-z]*$", re.I)
_WEEKDAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
_DAYS_AGO = {"today": 0, "yesterday": 1, "tomorrow": -1}


@lru_cache(maxsize=64)
def first_of(locale: str) -> str:
    """What a region writes first in a date of numbers: ``d``, ``M`` or ``y``, which leaves the order of day
    and month open.

    Args:
        locale: one of :data:`~vast_harbor.core.figures.number_format.LOCALES`; empty for none (``y``).
    """
    if locale not in LOCALES:
        return YEAR
    pattern = Locale.parse(locale, sep="-").date_formats["short"].pattern
    return next(sign for sign in str(pattern) if sign in (DAY, MONTH, YEAR))


def english_of(locale: str) -> str:
    """The English in which a region's dates are written: ``en_US`` where the month comes first, else
    ``en_GB``."""
    return "en_US" if first_of(locale) == MONTH else "en_GB"


def date_text(iso: str, locale: str) -> str:
    """A date as it is written: ``25 Nov 2026``, in the United States ``Nov 25, 2026``; ``Nov 2026``.

    Args:
        iso: ``2026-11-25`` or ``2026-11``; what is neither is given back as it is.
        locale: of the owner's region; empty for none.
    """
    found = _ISO.match(iso)
    if found is None:
        return iso
    if found[3] is None:
        return str(format_date(date(int(found[1]), int(found[2]), 1), "MMM y", english_of(locale)))
    english = english_of(locale)
    pattern = "MMM d, y" if english == "en_US" else "d MMM y"
    return str(format_date(date.fromisoformat(iso), pattern, english))


def parse_date(text: str, locale: str, today: date, month: bool = False) -> str:
    """A date as somebody types it: ``25 Nov 2026``, ``25/11/26``, ``Nov 2026``, ``last Sunday``,
    ``2 days ago``. Without a year, the day of that name that is nearest to today.

    Args:
        text: what was typed.
        locale: of the owner's region, for the order of numbers.
        today: the day of typing.
        month: whether a month is wanted rather than a day.

    Returns:
        ISO ``2026-11-25``; ``2026-11`` where no day is said.

    Raises:
        Unreadable: where it is no date, or can be two.
    """
    typed = " ".join(text.split())
    try:
        said = (
            _relative(typed.lower(), today) or _numbers(typed, locale, today) or _words(typed, locale, today)
        )
    except Unreadable as error:
        if not month:
            raise
        example = date_text("2027-04", locale)
        raise Unreadable(phrase("figures.dates.unread_month", text=text, example=example)) from error
    if not FIRST_YEAR <= int(said[:4]) <= LAST_YEAR:
        raise Unreadable(phrase("figures.dates.year", year=int(said[:4]), first=FIRST_YEAR, last=LAST_YEAR))
    return said[:7] if month else said


def _relative(text: str, today: date) -> str:
    if text in _DAYS_AGO:
        return (today - timedelta(_DAYS_AGO[text])).isoformat()
    if weekday := _LAST.match(text):
        back = (today.weekday() - _WEEKDAYS.index(weekday[1])) % 7
        return (today - timedelta(back or 7)).isoformat()
    if ago := _AGO.match(text):
        count, unit = _COUNT.get(ago[1]) or int(ago[1]), ago[2]
        if unit in ("day", "week"):
            return (today - timedelta(count * (7 if unit == "week" else 1))).isoformat()
        months = today.year * 12 + today.month - 1 - count * (12 if unit == "year" else 1)
        return _last_of(months // 12, months % 12 + 1, today.day)
    return ""


def _last_of(year: int, month: int, day: int) -> str:
    """A day of a month, or its last one where it has fewer."""
    while True:
        try:
            return date(year, month, day).isoformat()
        except ValueError:
            day -= 1


def _numbers(text: str, locale: str, today: date) -> str:
    """A date of numbers alone; empty for another."""
    if iso := _ISO.match(text):
        year, month = int(iso[1]), int(iso[2])
        return _made(text, year, month, int(iso[3])) if iso[3] else _made(text, year, month, 1)[:7]
    found = _NUMBERS.match(text)
    if found is None:
        return ""
    first, second = int(found[1]), int(found[2])
    order = first_of(locale)
    # With points the day comes first everywhere.
    if order == YEAR and "." not in text and max(first, second) <= 12 and first != second:
        raise Unreadable(phrase("figures.dates.two", text=text))
    day, month = (second, first) if (order == MONTH and first <= 12) or second > 12 else (first, second)
    if found[3] is None:
        return _nearest(text, month, day, today)
    year = int(found[3])
    return _made(text, year + 2000 if year < 100 else year, month, day)


def _words(text: str, locale: str, today: date) -> str:
    """A date with the name of its month."""
    only = _MONTH_ONLY.match(text)
    # Read beside two other days: what the text leaves open differs between them.
    beside = datetime(2001, 2, 3), datetime(2004, 6, 7)
    try:
        one, two = (parse(text, default=d, dayfirst=first_of(locale) != MONTH) for d in beside)
    except (ParserError, OverflowError) as error:
        raise Unreadable(_unread(text, locale)) from error
    if one.month != two.month or (one.day != two.day and not only):
        raise Unreadable(_unread(text, locale))
    if only:
        return f"{one.year:04d}-{one.month:02d}"
    return one.date().isoformat() if one.year == two.year else _nearest(text, one.month, one.day, today)


def _made(text: str, year: int, month: int, day: int) -> str:
    try:
        return date(year, month, day).isoformat()
    except ValueError as error:
        raise Unreadable(phrase("figures.dates.no_day", text=text)) from error


def _nearest(text: str, month: int, day: int, today: date) -> str:
    """The day of a name that is nearest to today."""
    days = []
    for year in (today.year - 1, today.year, today.year + 1):
        try:
            days.append(date(year, month, day))
        except ValueError:
            continue
    if not days:
        raise Unreadable(phrase("figures.dates.no_day", text=text))
    return min(days, key=lambda d: abs(d - today)).isoformat()


def _unread(text: str, locale: str) -> str:
    return phrase("figures.dates.unread", text=text, example=date_text("2026-11-25", locale))
