"""Reading one line of a log: ``12.9V 34A 85% 4C rested``, ``water 0.4 l``, ``yesterday full charge``."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta, timezone
from types import MappingProxyType
from typing import Any

from vast_harbor.core.figures.currency import currency_symbol
from vast_harbor.core.figures.number_format import INTERNATIONAL, NumberFormat
from vast_harbor.core.figures.parsing import NUMBER, Unreadable, number
from vast_harbor.core.figures.units import LITRES_PER_GALLON, celsius
from vast_harbor.core.log.entry import (
    CAPACITY_TEST,
    CHARGE,
    COST,
    DAY_TOTAL,
    DEEP,
    EQUALISE,
    FAULT,
    FULL,
    GENERATOR,
    NOTE,
    OLD,
    PRESENT,
    READING,
    RECEIPT,
    SECOND,
    SETTING,
    STARTING,
    WATER,
    WORK,
    Entry,
)  # fmt: skip

# Words that tell the kind, the longest first; what else they say stays in the text.
KIND_WORDS: tuple[tuple[str, str], ...] = (
    (r"capacity test|test", CAPACITY_TEST),
    (r"full charge|fully charged|charged full|full", FULL),
    (r"equali[sz](?:e|ed|ing|ation)", EQUALISE),
    (r"(?:distilled )?water(?:ed)?|topped up", WATER),
    (r"generator|genset", GENERATOR),
    (r"deep discharge|(?:left )?(?:empty|flat)|emptied|ran out", DEEP),
    (r"fault|trip(?:ped)?|cut out|shut ?down|reset|low[- ]?volts? cut(?:[- ]?off)?|nuisance|alarm", FAULT),
    (r"setting|set to|changed setting", SETTING),
    (r"receipt|warranty|invoice", RECEIPT),
    (r"cost|paid|bought", COST),
    (r"work|fitted|replaced|repaired|tightened|cleaned", WORK),
    (r"day total|used today|total", DAY_TOTAL),
    (r"charg(?:e|ed|ing)", CHARGE),
    (r"note", NOTE),
)
# How a currency is written at home, beside its sign and its code.
LOCAL_SIGNS: Mapping[str, str] = MappingProxyType({"NOK": "kr", "SEK": "kr", "DKK": "kr", "CHF": "Fr"})
_BARE = re.compile(rf"(?<![\w.,])({NUMBER})(?![\w%°.,])")
# Kinds whose words are all that they say; of the others the whole line is kept as the text.
PLAIN = (FULL, WATER, EQUALISE, GENERATOR, CAPACITY_TEST, CHARGE, DAY_TOTAL, READING)
BANK_WORDS: Mapping[str, str] = MappingProxyType(
    {
        r"old (?:bank|battery)|(?<!.)old": OLD,
        r"second (?:bank|battery)|(?<!.)second": SECOND,
        r"start(?:ing|er)(?: bank| battery)?": STARTING,
    }
)
# What stands behind a number: field, and what it is multiplied by; temperatures are turned below.
_UNITS: Mapping[str, tuple[str, float]] = MappingProxyType(
    {
        "mv": ("volts", 1e-3), "volts": ("volts", 1), "volt": ("volts", 1), "v": ("volts", 1),
        "mah": ("ah", 1e-3), "kah": ("ah", 1e3), "amp-hours": ("ah", 1), "ah": ("ah", 1),
        "ma": ("amps", 1e-3), "amps": ("amps", 1), "amp": ("amps", 1), "a": ("amps", 1),
        "kwh": ("wh", 1e3), "wh": ("wh", 1),
        "%": ("soc", 1e-2), "percent": ("soc", 1e-2),
        "°c": ("celsius", 1), "c": ("celsius", 1), "°f": ("fahrenheit", 1), "f": ("fahrenheit", 1),
        "litres": ("litres", 1), "liters": ("litres", 1), "litre": ("litres", 1), "liter": ("litres", 1),
        "ml": ("litres", 1e-3), "cl": ("litres", 1e-2), "dl": ("litres", 0.1), "l": ("litres", 1),
        "gallons": ("litres", LITRES_PER_GALLON), "gal": ("litres", LITRES_PER_GALLON),
        "hours": ("hours", 1), "hour": ("hours", 1), "hrs": ("hours", 1), "h": ("hours", 1),
        "minutes": ("hours", 1 / 60), "min": ("hours", 1 / 60), "days": ("hours", 24), "day": ("hours", 24),
    }
)  # fmt: skip
# 2h30, 2 h 30 min; not the 5 h 20 of "17.5 h 20 C".
_SPAN = re.compile(r"(?<![\w.,])(\d{1,3})\s*h(?:\s*([0-5]?\d)\s*(?:min|m)|([0-5]\d))\b", re.I)
_CLOCK = re.compile(r"\b([01]?\d|2[0-3]):([0-5]\d)\b")
_DATE = re.compile(r"\b(\d{4})-(\d{2})-(\d{2})\b")
_BATTERY = re.compile(r"(?:\bbatter(?:y|ies)|\bno\.?|\bb|#)\s*(\d{1,2})\b(?!\s*[%°])", re.I)
_QUANTITY = re.compile(
    rf"(?<![\w.,])({NUMBER})\s*({'|'.join(sorted(map(re.escape, _UNITS), key=len, reverse=True))})(?![\w°])",
    re.I,
)


@dataclass(frozen=True, slots=True)
class Hand:
    """How the owner of a log writes.

    Attributes:
        numbers: decimal sign and digit groups.
        currency: ISO code of the rig's money.
        bank: the bank that is meant where the line names none.
    """

    numbers: NumberFormat = INTERNATIONAL
    currency: str = "EUR"
    bank: str = PRESENT


def understand(id: str, line: str, at: int, offset_min: int, hand: Hand = Hand()) -> Entry:
    """One line of a log as an entry; what is not understood becomes its text, so that nothing is lost.

    Args:
        id: of the new entry.
        line: as typed.
        at: now, seconds since 1970 UTC [s].
        offset_min: how far the owner's clock is ahead of UTC [min].
        hand: how the owner writes.

    Returns:
        The entry. A line in which nothing is understood is a note.
    """
    line = " ".join(line.split())
    left = line
    when, left = _when(left, at, offset_min)
    entry = Entry(id, when, NOTE, offset_min, hand.bank, text=line)
    bank, left = _bank(left, hand.bank)
    battery, left = _found(_BATTERY, left)
    price, left = _price(left, hand)
    found, left = _quantities(left, hand.numbers)
    rested, left = _said(r"rested|at rest|resting", left)
    frozen, left = _said(r"frozen|froze", left)
    outwards = False
    if "amps" in found:
        # Without a current these are words like any others.
        inwards, left = _said(r"into?|in", left)
        outwards, left = _said(r"load|out|draw|drawn|discharg\w*", left)
        outwards = outwards and not inwards and found["amps"] > 0
    kind, left = _kind(left, found, price)
    if outwards and kind != CAPACITY_TEST:
        found["amps"] = -found["amps"]
    if kind in (COST, RECEIPT) and price is None and (bare := _BARE.search(left)):
        price = _number_or_none(bare[1], hand)
    words = left.strip(" ,.;:–-")
    numbers: dict[str, Any] = dict(found)
    return replace(
        entry,
        kind=kind,
        bank=bank,
        battery=int(battery[1]) if battery else 0,
        price=price,
        rested=True if rested else None,
        frozen=True if frozen else None,
        text=words if kind in PLAIN else line,
        **numbers,
    )


def _kind(left: str, found: dict[str, float], price: float | None) -> tuple[str, str]:
    """The kind, and the line without the words that tell it."""
    matches = [
        (match.start(), i, kind, match)
        for i, (words, kind) in enumerate(KIND_WORDS)
        if (match := re.search(rf"\b(?:{words})\b", left, re.I))
    ]
    if matches:
        # Of "full charge" and "charge" the one that comes first in the list, of others the first in the line.
        _, _, kind, match = min(matches, key=lambda m: (m[0], m[1]))
        return kind, left[: match.start()] + " " + left[match.end() :] if kind in PLAIN else left
    if price is not None:
        return COST, left
    if found.keys() & {"volts", "amps", "soc", "celsius"}:
        return READING, left
    return (DAY_TOTAL if found.keys() & {"wh", "ah"} else NOTE), left


def _when(left: str, at: int, offset_min: int) -> tuple[int, str]:
    """When it was, by a day and a time of day that the line names; now where it names none."""
    zone = timezone(timedelta(minutes=offset_min))
    now = datetime.fromtimestamp(at, zone)
    day, clock = now.date(), None
    match, rest = _found(_DATE, left)
    if match:
        try:
            day = datetime(int(match[1]), int(match[2]), int(match[3]), tzinfo=UTC).date()
            left = rest
        except ValueError:
            pass
    else:
        said, left = _said("yesterday", left)
        if said:
            day -= timedelta(days=1)
        _, left = _said("today", left)
    match, rest = _found(_CLOCK, left)
    if match:
        clock, left = (int(match[1]), int(match[2])), rest
    if clock is None and day == now.date():
        return at, left
    hour, minute = clock or (12, 0)
    return int(datetime(day.year, day.month, day.day, hour, minute, tzinfo=zone).timestamp()), left


def _bank(left: str, usual: str) -> tuple[str, str]:
    for words, bank in BANK_WORDS.items():
        said, rest = _said(words, left)
        if said:
            return bank, rest
    return usual, left


def _price(left: str, hand: Hand) -> tuple[float | None, str]:
    known = (currency_symbol(hand.currency), hand.currency, LOCAL_SIGNS.get(hand.currency, ""))
    signs = {re.escape(x) for x in known if x}
    sign = "|".join(sorted(signs, key=len, reverse=True))
    for pattern in (rf"(?:{sign})\s*({NUMBER})", rf"({NUMBER})\s*(?:{sign})(?!\w)"):
        match, rest = _found(re.compile(pattern, re.I), left)
        if match:
            found = _number_or_none(match[1], hand)
            return found, left if found is None else rest
    return None, left


def _number_or_none(text: str, hand: Hand) -> float | None:
    try:
        return number(text, hand.numbers)
    except Unreadable:
        return None


def _quantities(left: str, numbers: NumberFormat) -> tuple[dict[str, float], str]:
    """Numbers with units, each field once; a second of the same field stays in the words."""
    found: dict[str, float] = {}
    match, rest = _found(_SPAN, left)
    if match:
        found["hours"], left = int(match[1]) + int(match[2] or match[3]) / 60, rest

    def take(match: re.Match[str]) -> str:
        field, factor = _UNITS[match[2].lower()]
        try:
            value = number(match[1], numbers) * factor
        except Unreadable:
            return match[0]
        if field == "fahrenheit":
            field, value = "celsius", celsius(value)
        if field in found:
            return match[0]
        found[field] = value
        return " "

    left = _QUANTITY.sub(take, left)
    return found, left


def _found(pattern: re.Pattern[str], left: str) -> tuple[re.Match[str] | None, str]:
    match = pattern.search(left)
    return (None, left) if match is None else (match, f"{left[: match.start()]} {left[match.end() :]}")


def _said(words: str, left: str) -> tuple[bool, str]:
    match, rest = _found(re.compile(rf"\b(?:{words})\b", re.I), left)
    return match is not None, rest
