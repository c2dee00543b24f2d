"""The lines of a label or an offer, as pasted: what they say of a battery, and what they leave open."""

import csv
import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from math import log
from statistics import median
from typing import Any

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.units import KG_PER_LB, MM_IN, MM_PER_INCH, celsius
from vast_harbor.phrases import phrase

LONGEST = 20_000

# A number stands by itself: the 4 of LiFePO4 begins none. Amp-hours are not written in groups with spaces.
_ALONE = r"(?<![\w.,])"
_NUMBER = _ALONE + r"(\d{1,3}(?:[ .,\u202f\u00a0']\d{3})+(?:[.,]\d{1,2})?|\d+(?:[.,]\d+)?)"
_SOLID = _ALONE + r"(\d{1,3}(?:[.,']\d{3})+(?:[.,]\d{1,2})?|\d+(?:[.,]\d+)?)"
_CLASSES = (
    ("lfp", r"life\s*po\s*4|\blfp\b|lithium\s+iron|lithium"),
    ("agm", r"\bagm\b|absorbed glass"),
    ("gel", r"\bgel\b"),
    ("flooded_deep", r"traction|deep[- ]cycle|\bgc2\b|tubular"),
    ("flooded_dual", r"dual[- ]purpose|leisure|flooded|wet cell|wet battery"),
)


@dataclass(frozen=True, slots=True)
class Said:
    """One thing that a text says, or that is filled in.

    Attributes:
        field: of the battery entry.
        value: in the entry's unit.
        source: the words of the text; empty for what is filled in.
    """

    field: str
    value: Any
    source: str = ""


@dataclass(frozen=True, slots=True)
class Quote:
    """A battery as a text describes it.

    Attributes:
        said: what was understood.
        filled: what the text leaves open, filled with what is typical of the class.
        missing: what must be known and is in neither: the capacity.
    """

    said: tuple[Said, ...]
    filled: tuple[Said, ...]
    missing: tuple[str, ...]

    @property
    def fields(self) -> dict[str, Any]:
        """The entry."""
        return {s.field: s.value for s in (*self.filled, *self.said)}


def number(text: str) -> float:
    """A number as offers write it: ``1 299,00``, ``1,299.00``, ``12.8``.

    A mark before exactly three digits stands for thousands where another mark follows, or where the number is
    of four digits or more in groups.
    """
    plain = re.sub(r"[ \u202f\u00a0']", "", text)
    marks = [c for c in plain if c in ".,"]
    if len(set(marks)) == 2:
        last = marks[-1]
        return float(plain.replace("," if last == "." else ".", "").replace(last, "."))
    if marks and (len(marks) > 1 or re.fullmatch(r"\d{1,3}[.,]\d{3}", plain)):
        return float(re.sub(r"[.,]", "", plain))
    return float(plain.replace(",", "."))


def _length(value: float, unit: str) -> float:
    return value * MM_IN.get(unit.lower(), MM_PER_INCH)


def _first(pattern: str, text: str) -> re.Match[str] | None:
    return re.search(pattern, text, re.IGNORECASE)


def _ratings(text: str) -> Iterable[Said]:
    """Capacities, each with the time over which it is rated where the text says it."""
    hours = r"(?:\s*(?:[(@/,:-]|at|over|\s)*\s*(?:C\s*/?\s*(\d{1,3})\b|(\d{1,3})\s*(?:h\b|hr|hour)))?"
    found = list(re.finditer(_SOLID + r"\s*a\.?\s*h\b" + hours, text, re.IGNORECASE))
    for n, m in enumerate(found[:3], 1):
        rated = m[2] or m[3]
        if n > 1 and not rated:
            continue
        names = ("rated_ah", "rated_hours") if n == 1 else (f"ah_{n}", f"hours_{n}")
        yield Said(names[0], number(m[1]), m[0])
        if rated:
            yield Said(names[1], float(rated), m[0])


def _one(
    field: str, pattern: str, change: Callable[[re.Match[str]], Any] = lambda m: number(m[1])
) -> Callable[[str], Iterable[Said]]:
    def read(text: str) -> Iterable[Said]:
        if (m := _first(pattern, text)) is not None:
            yield Said(field, change(m), m[0].strip())

    return read


def _size(text: str) -> Iterable[Said]:
    by = r"\s*(mm|cm|m|in|inch|inches|\")?\s*[x×*]\s*"
    m = _first(_NUMBER + by + _NUMBER + by + _NUMBER + r"\s*(mm|cm|in\b|inch|inches|\")", text)
    if m is None:
        return
    sides = [_length(number(m[i]), m[6]) for i in (1, 3, 5)]
    for field, value in zip(("length_mm", "width_mm", "height_mm"), sides, strict=True):
        yield Said(field, round(value, 1), m[0])


def _temperatures(text: str) -> Iterable[Said]:
    span = r"[^\n\d-]{0,30}(-?\d{1,3})\s*°?\s*[CF]?\s*(?:to|\.\.|–|…|/|~|-)\s*\+?(-?\d{1,3})\s*°?\s*([CF])"
    for word, name in (
        (r"(?<!dis)charg\w*(?:\s+temp\w*)?", "charge"),
        (r"discharg\w*(?:\s+temp\w*)?", "discharge"),
    ):
        if (m := _first(word + span, text)) is not None:
            ends = [float(x) if m[3].upper() == "C" else celsius(float(x)) for x in (m[1], m[2])]
            yield Said(f"{name}_min_c", round(ends[0], 1), m[0].strip())
            yield Said(f"{name}_max_c", round(ends[1], 1), m[0].strip())


_SIGNS = r"(?:€|\$|£|EUR|USD|GBP|CHF|NOK|SEK|DKK|AUD|CAD|NZD|kr\.?)"
_AMPS = _SOLID + r"\s*a\b"
_YEARS = _NUMBER + r"[\s-]*(years?|yrs?|months?)"
_EACH = r"\s*(?:each|apiece|per (?:battery|unit|piece)|/\s*(?:pc|piece|unit))"
_WORDS = r"(?:pounds?|quid|euros?|dollars?)\b"
_PRICE = (
    _NUMBER + r"\s*" + _WORDS + _EACH,
    _NUMBER + r"(?:,-|\.-)?\s*" + _SIGNS + r"?" + _EACH,
    _SIGNS + r"\s*" + _NUMBER + _EACH,
    _SIGNS + r"\s*" + _NUMBER,
    _NUMBER + r"(?:,-|\.-)?\s*" + _SIGNS,
    r"price\D{0,12}" + _NUMBER,
    r"(?<!weigh)(?<!weighs)(?<!weight)(?:^|[^\w.,])" + _NUMBER + r"\s*" + _WORDS,
)
# At the end of a line that tells what is offered, or with its cents, a number is its price.
_LAST = (
    r"(?:\d\s*a\.?h\b|\d\s*v\b)[^\n]*[\s,;:]" + _SOLID + r"(?:,-|\.-)?[ \t]*(?:\n|$)",
    r"[\s,;:]" + _ALONE + r"(\d{2,5}[.,]\d{2})[ \t]*(?:\n|$)",
)
_LOT = r"(?:^|\n)\s*(\d{1,2})\s*(?:[x×*]|pcs\.?|pieces?)\s*(?=[A-Za-z\d])"
_DEPTH = (r"cycles\D{0,20}(\d{2,3})\s*%", r"(\d{2,3})\s*%\s*(?:dod|depth)")
_CONTINUOUS = (
    r"(?:continuous|max\w*\.?)\s+(?:continuous\s+)?discharg\w*(?:\s+current)?\D{0,12}" + _AMPS,
    r"(?:bms|continuous)\D{0,20}" + _AMPS,
    _AMPS + r"\s+(?:continuous|bms)",
)
_PEAK = (r"(?:peak|surge|pulse)\D{0,24}" + _AMPS, _AMPS + r"\s+(?:peak|surge|pulse)")
_TERM = (r"(?:warranty|guarantee)\D{0,20}" + _YEARS, _YEARS + r"\D{0,12}(?:warranty|guarantee)")


def _given(m: re.Match[str]) -> float:
    """The number of whichever way of saying it was met."""
    return number(next(g for g in m.groups() if g is not None))


def _weight(text: str) -> Iterable[Said]:
    """Weight; pounds are money where nothing else is, unless the text says that it weighs them."""
    m = _first(_NUMBER + r"\s*(kg|kilo\w*|lbs?\b)", text) or _first(
        r"weigh\w*\D{0,12}" + _NUMBER + r"\s*(pounds?)", text
    )
    if m is None and _first(_SIGNS, text) is not None:
        m = _first(_NUMBER + r"\s*(pounds?)", text)
    if m is not None:
        yield Said("kg", _kg(m), m[0].strip())


def _kg(m: re.Match[str]) -> float:
    return round(number(m[1]) * (KG_PER_LB if m[2].lower()[0] in "lp" else 1.0), 2)


def _term(m: re.Match[str]) -> float:
    months = any(g is not None and g.lower().startswith("m") for g in m.groups())
    return _given(m) / (12 if months else 1)


_READERS: tuple[Callable[[str], Iterable[Said]], ...] = (
    _one("unit_v", r"(?<![\d.,])(\d{1,2}(?:[.,]\d)?)\s*v(?:olts?|dc)?\b"),
    _ratings,
    _weight,
    _size,
    _one("price", "|".join(_PRICE[:3]), _given),
    _one("price", "|".join(_PRICE[3:]), _given),
    _one("price", "|".join(_LAST), _given),
    _one("cycles", _NUMBER + r"\s*(?:\+\s*)?(?:charge\s+|deep\s+|life\s+)?cycles"),
    _one("cycles_at_dod", "|".join(_DEPTH), lambda m: min(1.0, _given(m) / 100)),
    _one("warranty_years", "|".join(_TERM), _term),
    _one("bms_continuous_a", "|".join(_CONTINUOUS), _given),
    _one("bms_peak_a", "|".join(_PEAK), _given),
    _one("charge_a", r"(?<!dis)charg\w*\s+current\D{0,24}" + _AMPS),
    _one("reserve_minutes", r"(?:reserve|\brc\b)\D{0,24}" + _NUMBER + r"\s*min"),
    _one("heater_w", r"heat\w*\D{0,16}" + _NUMBER + r"\s*w\b"),
    _temperatures,
)
# Things that a lead-acid battery does not have.
_OF_LITHIUM = ("bms_continuous_a", "bms_peak_a", "heater_w")


def _class_of(text: str) -> Said | None:
    places = [(m.start(), key, m[0]) for key, pattern in _CLASSES if (m := _first(pattern, text)) is not None]
    if not places:
        return None
    # Lithium and a kind of lead are sometimes both named, as what it replaces: what comes first is meant.
    _, key, words = min(places)
    return Said("battery_class", key, words)


def _name_of(text: str) -> Said | None:
    for line in text.splitlines():
        words = re.sub(r"\s+", " ", line).strip(" \t-–•*:|")
        if re.search(r"[A-Za-z]{2}", words) and ":" not in words:
            return Said("name", words[:60], line.strip())
    return None


def offers_in(text: str) -> list[str]:
    """The offers of a pasted text: one, or of a list with a heading one for each line.

    Args:
        text: as pasted; a list has commas, semicolons or tabs, and at least three columns.

    Returns:
        At least one text, each to be read by :func:`read_quote`: of a list, every value beside its heading.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    delimiter = max(";\t,", key=lines[0].count) if lines else ";"
    if len(lines) < 2 or lines[0].count(delimiter) < 2 or re.search(r"\d", lines[0]):
        return [text]
    rows = [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=delimiter)]
    heading, found = rows[0], []
    for row in rows[1:]:
        pairs = [(name, value) for name, value in zip(heading, row, strict=False) if value]
        called = [
            value
            for name, value in pairs
            if re.fullmatch(r"name|model|product|battery|article|title", name, re.I)
        ]
        pairs = [pair for pair in pairs if pair[1] not in called]
        # A number stands before its unit or after its name: both are written down.
        found.append("\n".join([*called, *(f"{value} {name}\n{name}: {value}" for name, value in pairs)]))
    return found or [text]


def read_quote(
    text: str, models: Iterable[BatteryModel], cell_volts: Mapping[str, float], assumed_class: str
) -> Quote:
    """What a pasted label or offer says of one battery; what is missing is filled with what is typical.

    Args:
        text: as pasted.
        models: the catalogue, from which what is typical of a class is taken.
        cell_volts: class → volts of a cell [V].
        assumed_class: class where the text names none.

    Returns:
        What was understood and what was filled in.
    """
    said: dict[str, Said] = {}
    found = _class_of(text)
    battery_class = found.value if found is not None else assumed_class
    if found is not None:
        said["battery_class"] = found
    if (name := _name_of(text)) is not None:
        said["name"] = name
    for reader in _READERS:
        for one in reader(text):
            if not (battery_class != "lfp" and one.field in _OF_LITHIUM):
                said.setdefault(one.field, one)
    if "cycles" not in said:
        # A depth without its count says nothing.
        said.pop("cycles_at_dod", None)
    _brought_to_class(said, battery_class, cell_volts[battery_class])
    _from_energy(said, text)
    models = list(models)
    _of_one(said, text, battery_class, models)
    filled = [s for s in _typical(said, battery_class, models, cell_volts) if s.field not in said]
    missing = tuple(f for f in ("rated_ah",) if f not in said)
    return Quote(tuple(said.values()), tuple(filled), missing)


def _brought_to_class(said: dict[str, Said], battery_class: str, cell_v: float) -> None:
    """Volts as the class counts them: 12 V of lithium are four cells of 3.2 V, 12.8 V of lead six of 2 V."""
    volts = said.get("unit_v")
    if volts is None:
        return
    per_12 = 4 if battery_class == "lfp" else 6
    cells = (
        max(1, round(volts.value / 12 * per_12)) if volts.value > 5 else max(1, round(volts.value / cell_v))
    )
    said["unit_v"] = Said("unit_v", round(cells * cell_v, 2), volts.source)


def _of_one(said: dict[str, Said], text: str, battery_class: str, models: list[BatteryModel]) -> None:
    """The price of one battery where the text names a lot: its share, where that is nearer to the usual."""
    lot, price, ah = _first(_LOT, text), said.get("price"), said.get("rated_ah")
    if lot is None or price is None or re.search(_EACH, price.source, re.IGNORECASE):
        return
    count = int(lot[1])
    alike = [m for m in models if m.battery_class.key == battery_class and not m.own and m.used is None]
    if count < 2 or ah is None or not alike:
        return
    volts = said["unit_v"].value if "unit_v" in said else 12.0
    usual = median(m.price / (m.rated_ah * m.nominal_v) for m in alike) * ah.value * volts
    if abs(log(price.value / count / usual)) < abs(log(price.value / usual)):
        said["price"] = Said("price", round(price.value / count, 2), price.source)


def _from_energy(said: dict[str, Said], text: str) -> None:
    """A capacity from the energy, where the text says only that."""
    if "rated_ah" in said:
        return
    m = _first(_NUMBER + r"\s*(k?)wh\b", text)
    if m is not None:
        volts = said["unit_v"].value if "unit_v" in said else 12.8
        said["rated_ah"] = Said("rated_ah", round(number(m[1]) * (1000 if m[2] else 1) / volts, 1), m[0])


def _typical(
    said: Mapping[str, Said], battery_class: str, models: list[BatteryModel], cell_volts: Mapping[str, float]
) -> Iterable[Said]:
    """What is typical of the class: weight and price by its energy, terms as the middle of the catalogue."""
    alike = [m for m in models if m.battery_class.key == battery_class and not m.own and m.used is None]
    volts = (
        said["unit_v"].value
        if "unit_v" in said
        else cell_volts[battery_class] * (4 if battery_class == "lfp" else 6)
    )
    yield Said("battery_class", battery_class)
    yield Said("unit_v", volts)
    yield Said("name", phrase("files.quote_text.name"))
    hours = 5.0 if battery_class == "lfp" else 20.0
    yield Said("rated_hours", said["rated_hours"].value if "rated_hours" in said else hours)
    if not alike:
        return
    points = [m.cycles[-1] for m in alike]
    dod = median(d for d, _ in points)
    yield Said("cycles_at_dod", dod)
    yield Said("cycles", round(median(n for d, n in points if abs(d - dod) < 0.06)))
    yield Said("warranty_years", median(m.warranty.years for m in alike))
    yield Said("max_series", int(median(m.max_series for m in alike)))
    yield Said("max_parallel", int(median(m.max_parallel for m in alike)))
    ah = said.get("rated_ah")
    if ah is not None:
        energy = ah.value * volts
        yield Said("kg", round(median(m.kg / (m.rated_ah * m.nominal_v) for m in alike) * energy, 1))
        yield Said(
            "price", float(round(median(m.price / (m.rated_ah * m.nominal_v) for m in alike) * energy))
        )
