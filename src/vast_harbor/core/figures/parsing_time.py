"""Times of day and windows of hours as people write them."""

import re

from vast_harbor.core.figures.parsing import Unreadable
from vast_harbor.phrases import phrase

_RANGE = re.compile(r"^(.+?)\s*(?:-|–|—|to|until|\.\.)\s*(.+)$")


def parse_windows(text: str) -> list[tuple[float, float]]:
    """Set times of a day: ``7-8:30, 18:00–22:00``; an end before its start is on the next day.

    Args:
        text: what was typed; times apart by commas, semicolons or ``and``.

    Returns:
        (from, to) clock hours, ``to`` up to 24 h after ``from``.

    Raises:
        Unreadable: when a part is no range of times.
    """
    out: list[tuple[float, float]] = []
    for part in re.split(r"[,;]|\band\b", text):
        if not part.strip():
            continue
        match = _RANGE.match(part.strip())
        if match is None:
            raise Unreadable(phrase("figures.parsing.range_times_try_18", part=part.strip()))
        start = parse_clock(match[1])
        end = 24.0 if match[2].strip().rstrip("h ") in ("24", "24:00") else parse_clock(match[2])
        out.append((start, end if end > start else end + 24))
    return out


def clock_text(hours: float) -> str:
    """A clock time as it is written: ``18:30``; 24 h is ``24:00``.

    Args:
        hours: hours after midnight; beyond 24 it is the next day.
    """
    minutes = round(hours * 60)
    if minutes != 1440:
        minutes %= 1440
    return f"{minutes // 60:02d}:{minutes % 60:02d}"


def parse_clock(text: str) -> float:
    """A time of day: ``18:30``, ``18h30``, ``18``, ``6 pm``, ``06:30:00 PM``.

    Args:
        text: what was typed.

    Returns:
        Hours after midnight, 0 to under 24.

    Raises:
        Unreadable: when it is no time of day.
    """
    match = re.match(r"^\s*(\d{1,2})(?:\s*[:.h]\s*(\d{2})(?::([0-5]\d))?)?\s*(am|pm)?\s*h?\s*$", text, re.I)
    if match:
        hour, minute = int(match[1]), int(match[2] or 0)
        if match[4] and hour <= 12:
            hour = hour % 12 + (12 if match[4].lower() == "pm" else 0)
        if hour < 24 and minute < 60:
            return hour + minute / 60 + int(match[3] or 0) / 3600
    raise Unreadable(phrase("figures.parsing.time_day_try_18", text=text.strip()))
