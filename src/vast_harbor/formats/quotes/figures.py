"""Figures in the text of an offer: each number with the unit beside it, and the words around it."""

import re
import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files as resources
from typing import Any

from vast_harbor.core.figures.units import MM_IN, MM_PER_INCH

# Letters that stand right before a number that counts: a rate, a reserve, a depth, a currency, a side.
_BEFORE = r"(?:rc|c|dod|eur|gbp|usd|chf|nok|sek|dkk|aud|cad|nzd|kr|rs|l|w|b|h|x)"
# Words that hold digits are names, and none of their digits counts: LiFePO4, GC2, M8, UN38.3, IP65.
_NAME = re.compile(rf"(?<![\w.,])(?!{_BEFORE}\d)[^\W\d_][^\W\d_]*\d[\w.]*", re.IGNORECASE)
_SPACED = re.compile(
    r"life\s*po\s*4|\bun\s*38\.3|bluetooth\s*\d(?:\.\d)?|\bip\s*\d\d|\biso\s*\d+|\bgroup\s*\d+", re.IGNORECASE
)
_GAPS = " \u202f\u00a0'"
NUMBER = rf"\d{{1,3}}(?:[{_GAPS}.,]\d{{3}})+(?:[.,]\d{{1,2}})?(?!\d)|\d+(?:[.,]\d+)?"
SOLID = r"\d{1,3}(?:[.,']\d{3})+(?:[.,]\d{1,2})?(?!\d)|\d+(?:[.,]\d+)?"
SIGNS = r"€|\$|£|eur(?:os?)?\b|usd\b|gbp\b|chf\b|fr\.|nok\b|sek\b|dkk\b|aud\b|cad\b|nzd\b|kr\b\.?"
# The longest first: what a unit is written like, after a number.
_UNITS = (
    ("Ah", r"a\.?\s?h\b|amp(?:ere)?[- ]?(?:hours?|stunden)|ampèreheures?|amperios? hora"),
    ("kWh", r"kwh\b"),
    ("Wh", r"wh\b|watt ?hours?|wattstunden"),
    ("kg", r"kgs?\b|kilos?\b"),
    ("lb", r"lbs?\b"),
    ("mm", r"mm\b"),
    ("cm", r"cm\b"),
    ("in", r"in\b\.?|inch(?:es)?\b|\""),
    ("min", r"min(?:utes?|uten|utos|uut)?\b"),
    ("month", None),
    ("year", None),
    ("V", r"v(?:olts?|dc|cc)?\b"),
    ("A", r"a(?:mps?|mpere|mpères?|mperios?)?\b"),
    ("W", r"w(?:atts?)?\b"),
    ("%", r"%"),
    ("°", r"°\s?[cf]\b|grad c\b"),
)


@dataclass(frozen=True, slots=True)
class Found:
    """A number of a text.

    Attributes:
        value: as it is written.
        unit: ``V``, ``Ah``, ``Wh``, ``A``, ``W``, ``kg``, ``lb``, ``mm``, ``cm``, ``in``, ``min``, ``year``,
            ``month``, ``%``, ``°`` or ``money``; empty for none.
        start, end: where it stands with its unit.
    """

    value: float
    unit: str
    start: int
    end: int


def number(text: str) -> float:
    """A number as offers write it: ``1 299,00``, ``1,299.00``, ``12.8``.

    A mark before exactly three digits stands for thousands where another mark follows, or where the number is
    of four digits or more in groups.
    """
    plain = re.sub(f"[{_GAPS}]", "", text)
    marks = [c for c in plain if c in ".,"]
    if len(set(marks)) == 2:
        last = marks[-1]
        return float(plain.replace("," if last == "." else ".", "").replace(last, "."))
    if marks and (len(marks) > 1 or re.fullmatch(r"\d{1,3}[.,]\d{3}", plain)):
        return float(re.sub(r"[.,]", "", plain))
    return float(plain.replace(",", "."))


@cache
def lexicon() -> Mapping[str, Mapping[str, Any]]:
    """Words of labels and offers: ``class``, ``class_by_use`` and ``words``, each in parts of patterns."""
    return tomllib.loads((resources("vast_harbor.formats.quotes") / "words.toml").read_text("utf-8"))


@cache
def words(name: str) -> re.Pattern[str]:
    """The words of something, see ``words.toml``; none of them within a longer word."""
    return re.compile(rf"(?<!\w)(?:{'|'.join(lexicon()['words'][name])})(?!\w)", re.IGNORECASE)


def masked(text: str) -> str:
    """A text of the same length in which names that hold digits hold none."""
    for pattern in (_SPACED, _NAME):
        text = pattern.sub(lambda m: re.sub(r"\d", "·", m[0]), text)
    return text


@cache
def _unit_pattern() -> re.Pattern[str]:
    lists = lexicon()["words"]
    own = {unit: rf"(?:{'|'.join(lists[unit + 's'])})(?!\w)" for unit in ("month", "year")}
    parts = [f"(?P<u{i}>{pattern or own[unit]})" for i, (unit, pattern) in enumerate(_UNITS)]
    return re.compile(rf"[\s-]?(?:{'|'.join(parts)})", re.IGNORECASE)


@cache
def _money_pattern() -> re.Pattern[str]:
    named = "|".join(lexicon()["words"]["price_word"])
    return re.compile(rf"(?:,-|\.-)?\s?(?:{SIGNS}|(?:{named})\b)", re.IGNORECASE)


# A number stands by itself, or right after the letter of a side, a sign of times, or the volts before it.
_START = re.compile(
    rf"(?:(?<![\w.,])|(?<=(?<!\w)[lwbhx])|(?<=[x×*])|(?<=\dv))(?:(?P<money>{SIGNS})\s?)?(?P<number>{NUMBER})",
    re.IGNORECASE,
)
_SOLID = re.compile(SOLID)
# What is not written in groups with spaces: "2 100 Ah" are two of 100.
_UNGROUPED = ("Ah", "V", "A")


def figures(text: str) -> list[Found]:
    """Every number of a masked text with its unit, in their order."""
    found: list[Found] = []
    at = 0
    while (m := _START.search(text, at)) is not None:
        digits, end, unit = m["number"], m.end("number"), "money" if m["money"] else ""
        if not unit:
            unit, after = _unit_after(text, end)
            if unit in _UNGROUPED and re.search(f"[{_GAPS}]", digits):
                first = _SOLID.match(digits)
                assert first is not None
                digits, after, unit = first[0], m.start("number") + first.end(), ""
            end = after
        found.append(Found(number(digits), unit, m.start(), end))
        at = max(end, m.start() + 1)
    return found


def _unit_after(text: str, end: int) -> tuple[str, int]:
    """The unit that stands behind a number, and where it ends; empty where there is none."""
    if (m := _unit_pattern().match(text, end)) is not None:
        return _UNITS[int((m.lastgroup or "u0")[1:])][0], m.end()
    if (m := _money_pattern().match(text, end)) is not None:
        return "money", m.end()
    return "", end


def segments(text: str) -> list[tuple[int, int]]:
    """Where the clauses of a text begin and end: at line ends, semicolons, bars, commas, spaced slashes."""
    cuts = [m.span() for m in re.finditer(r"\n|;|\||•|\s[/–—-]\s|,\s|\.\s(?=[^\W\d])|[()]", text)]
    starts = [0, *(end for _, end in cuts)]
    ends = [*(begin for begin, _ in cuts), len(text)]
    return [(a, b) for a, b in zip(starts, ends, strict=True) if a < b]


def nearest(
    text: str, found: Sequence[Found], names: Sequence[str], span: tuple[int, int], leads: bool = False
) -> Iterator[tuple[Found, str]]:
    """Which word each figure of a clause belongs to: the pairs that stand nearest, each word and figure once.

    Args:
        text: masked.
        found: figures.
        names: of kinds of words, see :func:`words`.
        span: of the clause.
        leads: of two figures as near, whether a word belongs to the one behind it.
    """
    inside = [f for f in found if span[0] <= f.start < span[1]]
    said = [(m, name) for name in names for m in words(name).finditer(text, *span)]
    pairs = sorted(
        (max(f.start - m.end(), m.start() - f.end), leads and f.start < m.start(), i, j)
        for i, f in enumerate(inside)
        for j, (m, _) in enumerate(said)
    )
    figures_done: set[int] = set()
    words_done: set[int] = set()
    for _, _, i, j in pairs:
        if i not in figures_done and j not in words_done:
            figures_done.add(i)
            words_done.add(j)
            yield inside[i], said[j][1]


def length_mm(value: float, unit: str) -> float:
    """A length in mm."""
    return value * MM_IN.get(unit.lower(), MM_PER_INCH)
