"""What a pasted label or offer says of one battery, and what it leaves open or in doubt."""

import re
from collections.abc import Iterable, Mapping, Sequence
from math import log
from statistics import median
from types import MappingProxyType
from typing import Any

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.currency import currency_code, currency_symbol
from vast_harbor.core.figures.units import KG_PER_LB, celsius
from vast_harbor.core.rig.assumptions import PriceLevel
from vast_harbor.formats.quotes.figures import (
    Found,
    figures,
    length_mm,
    lexicon,
    masked,
    nearest,
    segments,
    words,
)
from vast_harbor.formats.quotes.quote import Ask, Quote, Said
from vast_harbor.phrases import phrase

# Volts that a battery is called by; any other is asked about.
CALLED_V = (2, 2.4, 3.2, 3.6, 6, 6.4, 8, 9.6, 12, 12.8, 13.2, 24, 25.6, 26.4, 36, 38.4, 48, 51.2)
# A price or a weight is believed up to so many times the usual of its class, or down to that part of it.
PRICE_WITHIN, KG_WITHIN = 5.0, 2.5
# Least and most that is believed without asking.
BELIEVED = {
    "rated_ah": (4.0, 2000.0), "warranty_years": (0.4, 15.0), "bms_continuous_a": (5.0, 1000.0),
    "bms_peak_a": (5.0, 3000.0), "charge_a": (2.0, 1000.0), "reserve_minutes": (15.0, 1500.0),
    "heater_w": (5.0, 600.0), "length_mm": (60.0, 1200.0), "width_mm": (40.0, 1000.0),
    "height_mm": (60.0, 1000.0),
}  # fmt: skip
CYCLES_LEAD, CYCLES_LFP = (50.0, 3000.0), (500.0, 15_000.0)
# Things that a lead-acid battery does not have.
OF_LITHIUM = ("bms_continuous_a", "bms_peak_a", "heater_w")
# One of two prices is taken as that of one battery where it is nearer to the usual by this factor.
CLEARLY = 1.5
DOLLARS = ("USD", "CAD", "AUD", "NZD")
NO_LEVELS: Mapping[str, PriceLevel] = MappingProxyType({})
# What lies this near to a figure is about it [characters].
NEAR = 40


# How a time of discharge stands behind a capacity: "@ 20hr", "(C5)", "bei 10 h".
_HOURS = re.compile(
    r"[\s(@/,:-]*(?:at|over|bei|en|à|a|bij|über|sur|in)?\s*(?:C\s*/?\s*(\d{1,3})\b|(\d{1,3})\s*-?\s*"
    r"(?:h\b|hrs?\b|hours?|std\b|stunden|stündig\w*|heures?|horas?|uur))", re.IGNORECASE,
)  # fmt: skip


class Reader:
    """One offer while it is read.

    Args:
        text: as pasted.
        models: the catalogue, from which what is usual of a class is taken.
        cell_volts: class → volts of a cell [V].
        assumed_class: class where the text names none.
        answers: by field, what the owner answered to a question.
        currency: ISO 4217 code of the owner's money.
        price_levels: rates of other money, by code.
        price_factor: price level of the rig; what is usual is the catalogue's price times it [-].
    """

    def __init__(
        self,
        text: str,
        models: Iterable[BatteryModel],
        cell_volts: Mapping[str, float],
        assumed_class: str,
        answers: Mapping[str, float],
        currency: str,
        price_levels: Mapping[str, PriceLevel],
        price_factor: float,
    ) -> None:
        self.text = text
        self.plain = masked(text)
        self.found = figures(self.plain)
        self.segments = segments(self.plain)
        self.said: dict[str, Said] = {}
        self.asks: list[Ask] = []
        self.answers = answers
        self.currency, self.price_levels, self.price_factor = currency, price_levels, price_factor
        self.used: set[Found] = set()
        if (named := self._class()) is not None:
            self.said["battery_class"] = named
        self.key = named.value if named is not None else assumed_class
        self.cell_v = cell_volts[self.key]
        self.cells = cell_volts
        self.alike = [m for m in models if m.battery_class.key == self.key and not m.own and m.used is None]

    def read(self) -> Quote:
        """All that is said, filled with what is usual, and asked."""
        if (name := self._name()) is not None:
            self.said["name"] = name
        for part in (
            self._volts, self._ratings, self._temperatures, self._size, self._cycles, self._terms,
            self._currents, self._reserve, self._heater, self._weight, self._price,
        ):  # fmt: skip
            part()
        if self.key != "lfp":
            for field in OF_LITHIUM:
                self.said.pop(field, None)
        if "cycles" not in self.said:
            # A depth without its count says nothing.
            self.said.pop("cycles_at_dod", None)
        for field, value in self.answers.items():
            self.said[field] = Said(field, value, self._source_of(field))
        self.asks = [ask for ask in self.asks if ask.field not in self.answers]
        filled = [s for s in self._typical() if s.field not in self.said]
        missing = tuple(f for f in ("rated_ah",) if f not in self.said)
        return Quote(tuple(self.said.values()), tuple(filled), missing, tuple(self.asks))

    # What it is

    def _class(self) -> Said | None:
        lists = lexicon()
        for table in ("class", "class_by_use"):
            places = []
            for key, parts in lists[table].items():
                pattern = re.compile(rf"(?<![^\W\d])(?:{'|'.join(parts)})(?![^\W\d_])", re.IGNORECASE)
                for m in pattern.finditer(self.text):
                    before = self.text[max(0, m.start() - NEAR) : m.start()]
                    clause = re.split(r"[\n.;,]", before)[-1]
                    if not words("instead").search(clause):
                        places.append((m.start(), key, m[0]))
            if places:
                _, key, said = min(places)
                return Said("battery_class", key, said)
        return None

    def _name(self) -> Said | None:
        for line in self.text.splitlines():
            plain = re.sub(r"\s+", " ", line).strip(" \t-–•*:|")
            if re.search(r"[A-Za-z]{2}", plain) and ":" not in plain:
                return Said("name", plain[:60], line.strip())
        return None

    # Figures

    def _of(self, *units: str) -> list[Found]:
        return [f for f in self.found if f.unit in units]

    def _source(self, one: Found) -> str:
        return self.text[one.start : one.end].strip()

    def _source_of(self, field: str) -> str:
        return next((ask.source for ask in self.asks if ask.field == field), "")

    def _say(self, field: str, value: float, one: Found, believed: tuple[float, float] | None = None) -> None:
        """Take a figure, or ask about one that can hardly be true."""
        self.used.add(one)
        least, most = believed or BELIEVED.get(field, (0.0, float("inf")))
        if field in self.said or any(ask.field == field for ask in self.asks):
            return
        if least <= value <= most:
            self.said[field] = Said(field, value, self._source(one))
        else:
            self.asks.append(Ask(field, (value,), self._source(one)))

    def _within(self, name: str, one: Found, before: int = NEAR, after: int = NEAR) -> bool:
        """Whether words of a kind stand beside a figure in its clause."""
        span = self._clause(one)
        a, b = max(span[0], one.start - before), min(span[1], one.end + after)
        return words(name).search(self.plain, a, b) is not None

    def _clause(self, one: Found) -> tuple[int, int]:
        return next(((a, b) for a, b in self.segments if a <= one.start < b), (one.start, one.end))

    def _volts(self) -> None:
        plausible = [f for f in self._of("V") if f.value in CALLED_V]
        for one in plausible or self._of("V")[:1]:
            per_12 = 4 if self.key == "lfp" else 6
            cells = max(1, round(one.value / 12 * per_12 if one.value > 5 else one.value / self.cell_v))
            volts = round(cells * self.cell_v, 2)
            self._say("unit_v", volts, one, None if plausible else (0.0, 0.0))
            return

    def _ratings(self) -> None:
        """Capacities, each with the time over which it is rated where the text says it."""
        n = 0
        for one in self._of("Ah"):
            hours = self._rate(one)
            if n and hours is None:
                continue
            n += 1
            if n > 3:
                break
            names = ("rated_ah", "rated_hours") if n == 1 else (f"ah_{n}", f"hours_{n}")
            self._say(names[0], one.value, one)
            if hours is not None:
                self.said.setdefault(names[1], Said(names[1], hours, self._source(one)))
        if not n:
            energy = next(iter(self._of("Wh", "kWh")), None)
            if energy is not None:
                volts = self.said["unit_v"].value if "unit_v" in self.said else 12.8
                watt_hours = energy.value * (1000 if energy.unit == "kWh" else 1)
                self._say("rated_ah", round(watt_hours / volts, 1), energy)

    def _rate(self, one: Found) -> float | None:
        lead = self.plain[max(0, one.start - 10) : one.start]
        before = re.search(r"\(?C\s*/?\s*(\d{1,3})\)?\s*(:|=)?\s*$", lead, re.IGNORECASE)
        if before is not None and before[2]:
            return float(before[1])
        after = _HOURS.match(self.plain, one.end)
        if after is not None:
            return float(after[1] or after[2])
        return float(before[1]) if before is not None else None

    def _temperatures(self) -> None:
        span = re.compile(
            r"(?P<low>[-−–]?\d{1,3})\s*(?:°\s*[CF]?|[CF]\b)?\s*(?:to|bis|à|a|hasta|tot|\.\.+|…|/|~|–|-)\s*\+?"
            r"(?P<high>-?\d{1,3})\s*°?\s*(?P<unit>[CF])\b", re.IGNORECASE,
        )  # fmt: skip
        for m in span.finditer(self.plain):
            line = self.plain.rfind("\n", 0, m.start()) + 1
            said = [
                (w.end(), name)
                for name in ("charging", "discharging")
                for w in words(name).finditer(self.plain, line, m.start())
            ]
            if not said:
                continue
            field = max(said)[1].removesuffix("ing") + "e"
            low, high = (float(re.sub("[−–]", "-", m[g])) for g in ("low", "high"))
            ends = (low, high) if m["unit"].upper() == "C" else (celsius(low), celsius(high))
            for end, value in zip(("min", "max"), ends, strict=True):
                name = f"{field}_{end}_c"
                self.said.setdefault(name, Said(name, round(value, 1), self.text[m.start() : m.end()]))

    def _size(self) -> None:
        unit = r"\s*(mm|cm|m|in|inch|inches|\")?\s*"
        side = r"(?:[LWBHT]\s*)?(\d+(?:[.,]\d+)?)"
        by = re.compile(
            rf"{side}{unit}[x×*/]\s*{side}{unit}[x×*/]\s*{side}\s*(mm|cm|in\b|inch|inches|\")?", re.IGNORECASE
        )
        for m in by.finditer(self.plain):
            measured = m[6] or m[4] or m[2] or ("mm" if min(_plain(m[i]) for i in (1, 3, 5)) >= 60 else None)
            if measured is None:
                continue
            sides = [round(length_mm(_plain(m[i]), measured), 1) for i in (1, 3, 5)]
            source = Found(0.0, "mm", m.start(), m.end())
            for field, value in zip(("length_mm", "width_mm", "height_mm"), sides, strict=True):
                self._say(field, value, source)
            self.used |= {f for f in self.found if m.start() <= f.start < m.end()}
            return
        for span in self.segments:
            inside = [f for f in self._of("mm", "cm", "in") if f not in self.used]
            for one, name in nearest(self.plain, inside, ("length", "width", "height"), span):
                self._say(f"{name}_mm", round(length_mm(one.value, one.unit), 1), one)

    def _cycles(self) -> None:
        believed = CYCLES_LFP if self.key == "lfp" else CYCLES_LEAD
        depths = [f for f in self._of("%") if self._is_depth(f)]
        bare = [f for f in self._of("") if f.value >= 20 and f not in self.used]
        after = re.compile(rf"\s*\+?\s*{words('cycles').pattern}", re.IGNORECASE)
        pair = re.compile(r"\s*(?:x\s*)?(?:@|bei|at|à|a|al|bij|with|mit)\s*$", re.IGNORECASE)
        for one in bare:
            told = after.match(self.plain, one.end) is not None
            depth = next((d for d in depths if 0 <= d.start - one.end < NEAR), None)
            beside = depth is not None and pair.fullmatch(self.plain, one.end, depth.start) is not None
            if told or beside or self._labelled("cycles", one):
                before = [d for d in depths if 0 <= one.start - d.end < NEAR]
                depth = depth or (before[-1] if before else None)
                self._say("cycles", one.value, one, believed)
                if depth is not None:
                    self.used.add(depth)
                    value = min(1.0, depth.value / 100)
                    self.said.setdefault("cycles_at_dod", Said("cycles_at_dod", value, self._source(depth)))
                return

    def _is_depth(self, one: Found) -> bool:
        return 10 <= one.value <= 100

    def _labelled(self, name: str, one: Found) -> bool:
        """Whether a word stands before a figure in its clause, with nothing but a colon between."""
        before = self.plain[max(0, one.start - NEAR) : one.start]
        return re.search(rf"{words(name).pattern}[^\d\n]{{0,12}}$", before, re.IGNORECASE) is not None

    def _terms(self) -> None:
        for one in self._of("year", "month"):
            line = self._line(one)
            if words("warranty").search(self.plain, *line):
                self._say("warranty_years", one.value / (12 if one.unit == "month" else 1), one)
                return

    def _line(self, one: Found) -> tuple[int, int]:
        end = self.plain.find("\n", one.end)
        return self.plain.rfind("\n", 0, one.start) + 1, len(self.plain) if end < 0 else end

    def _currents(self) -> None:
        fields = {
            "continuous": "bms_continuous_a",
            "peak": "bms_peak_a",
            "charge": "charge_a",
            "cranking": "",
        }
        amps = self._of("A")
        for span in self.segments:
            for one, name in nearest(self.plain, amps, tuple(fields), span):
                if fields[name]:
                    self._say(fields[name], one.value, one)

    def _reserve(self) -> None:
        for one in self._of("min"):
            if self._within("reserve", one):
                self._say("reserve_minutes", one.value, one)

    def _heater(self) -> None:
        for one in self._of("W"):
            if self._within("heater", one):
                self._say("heater_w", one.value, one)

    # Weight and money, which pounds can be either of

    def _usual(self, of: str) -> float | None:
        """What is usual for a battery of this class and energy."""
        ah = self.said.get("rated_ah")
        if ah is None or not self.alike:
            return None
        each = [getattr(m, of) / (m.rated_ah * m.nominal_v) for m in self.alike]
        level = self.price_factor if of == "price" else 1.0
        return float(median(each)) * float(ah.value) * self._unit_v * level

    @property
    def _unit_v(self) -> float:
        if "unit_v" in self.said:
            return float(self.said["unit_v"].value)
        return self.cell_v * (4 if self.key == "lfp" else 6)

    def _weight(self) -> None:
        one = next(iter(self._of("kg", "lb")), None)
        pounds = [f for f in self._of("money") if re.search(r"pounds?$", self._source(f), re.IGNORECASE)]
        if one is None:
            signed = [f for f in self._of("money") if f not in pounds]
            one = next((f for f in pounds if signed or self._within("weight", f)), None)
        if one is None:
            return
        kilos = round(one.value * (1.0 if one.unit == "kg" else KG_PER_LB), 2)
        usual = self._usual("kg")
        believed = (1.0, 400.0) if usual is None else (usual / KG_WITHIN, usual * KG_WITHIN)
        self._say("kg", kilos, one, believed)

    def _price(self) -> None:
        priced = self._priced()
        if not priced:
            return
        lot, usual = self._lot(), self._usual("price")
        each = [f for f in priced if self._within("each", f, 12, 14)]
        whole = [f for f in priced if self._within("total", f, 24, 24) and f not in each]
        ones = each or [f for f in priced if f not in whole]
        if not ones and lot > 1:
            self._say_price(round(whole[0].value / lot, 2), whole[0], usual)
            return
        values = list(dict.fromkeys(f.value for f in ones or whole))
        one = (ones or whole)[0]
        if len(values) > 1:
            # Several prices, of which none is said to be the one.
            self.asks.append(Ask("price", tuple(values), " · ".join(self._source(f) for f in ones or whole)))
        elif lot > 1 and not each:
            self._of_one(one, lot, usual)
        elif whole and not each and lot == 1 and not ones:
            self.asks.append(Ask("price", (one.value,), self._source(one)))
        else:
            self._say_price(one.value, one, usual)

    def _of_one(self, one: Found, lot: int, usual: float | None) -> None:
        """A price beside a number of batteries: of one of them, or of all."""
        alone, shared = one.value, round(one.value / lot, 2)
        if usual is not None:
            off_alone, off_shared = abs(log(alone / usual)), abs(log(shared / usual))
            if abs(off_alone - off_shared) > log(CLEARLY):
                self._say_price(alone if off_alone < off_shared else shared, one, usual)
                return
        self.asks.append(Ask("price", (shared, alone), self._source(one)))

    def _say_price(self, value: float, one: Found, usual: float | None) -> None:
        code = self._money_of(one)
        if self.currency and code not in ("", self.currency):
            # In other money it is asked, and the rate proposed.
            known = [self.price_levels[c].rate for c in (self.currency, code) if c in self.price_levels]
            changed = (round(value * known[0] / known[1], 2),) if len(known) == 2 else ()
            self.asks.append(Ask("price", (*changed, value), self._source(one)))
            return
        within = (1.0, 100_000.0) if usual is None else (usual / PRICE_WITHIN, usual * PRICE_WITHIN)
        self._say("price", value, one, within)

    def _money_of(self, one: Found) -> str:
        """The code of the money that a price is in; empty where it names none, or where the owner's may be
        meant."""
        sign = re.sub(r"[\d.,\s'-]", "", self._source(one))
        if not sign or sign.casefold() in currency_symbol(self.currency).casefold():
            return ""
        if sign == "$" and self.currency in DOLLARS:
            return ""
        return currency_code(sign) or ""

    def _priced(self) -> list[Found]:
        """Figures that are the price of what is offered: not its delivery, nor what it cost before."""
        money = [f for f in self._of("money") if f not in self.used]
        if not money:
            money = [f for f in self._of("") if f not in self.used and self._labelled("price", f)]
        if not money:
            money = self._last_of_a_line()
        money = [f for f in money if not self._besides("delivery", f)]
        now = [f for f in money if not self._besides("old_price", f)]
        labelled = [f for f in now if self._labelled("price", f)]
        each = [f for f in now if self._within("each", f, 12, 14)]
        return each or labelled or now or money

    def _besides(self, name: str, one: Found) -> bool:
        """Whether a figure is that of other words than the price: they stand nearer to it."""
        kinds = ("delivery", "old_price", "price", "each")
        return (one, name) in nearest(self.plain, self.found, kinds, self._clause(one), leads=True)

    def _last_of_a_line(self) -> list[Found]:
        """At the end of a line that tells what is offered, or with its cents, a number is its price."""
        out = []
        for one in self._of(""):
            start, end = self._line(one)
            rest = self.plain[one.end : end].strip(" \t,-.")
            if one in self.used or rest:
                continue
            cents = re.search(r"\d{2,}[.,]\d{2}$", self._source(one)) is not None
            if cents or re.search(r"\d\s*(?:a\.?h|v)\b", self.plain[start : one.start], re.IGNORECASE):
                out.append(one)
        return out

    def _lot(self) -> int:
        """How many batteries are offered."""
        if words("pair").search(self.plain):
            return 2
        begins = rf"(?:^|\n)\s*(\d{{1,2}})\s*(?:{'|'.join(lexicon()['words']['lot'])})\s*(?=[^\W\d_]|\d)"
        sets = rf"{words('set_of').pattern}\s*(\d{{1,2}})\b|(\d{{1,2}})\s*er[- ]?set\b"
        for pattern in (begins, sets):
            if (m := re.search(pattern, self.plain, re.IGNORECASE)) is not None:
                return max(1, int(next(g for g in m.groups() if g)))
        return 1

    # What is usual

    def _typical(self) -> Iterable[Said]:
        """What is typical of the class: weight and price by its energy, terms by the middle."""
        yield Said("battery_class", self.key)
        yield Said("unit_v", self._unit_v)
        yield Said("name", phrase("files.quote_text.name"))
        hours = 5.0 if self.key == "lfp" else 20.0
        yield Said("rated_hours", self.said["rated_hours"].value if "rated_hours" in self.said else hours)
        if not self.alike:
            return
        points: Sequence[tuple[float, Any]] = [m.cycles[-1] for m in self.alike]
        dod = median(d for d, _ in points)
        yield Said("cycles_at_dod", dod)
        yield Said("cycles", round(median(n for d, n in points if abs(d - dod) < 0.06)))
        yield Said("warranty_years", median(m.warranty.years for m in self.alike))
        yield Said("max_series", int(median(m.max_series for m in self.alike)))
        yield Said("max_parallel", int(median(m.max_parallel for m in self.alike)))
        kg, price = self._usual("kg"), self._usual("price")
        if kg is not None and price is not None:
            yield Said("kg", round(kg, 1))
            yield Said("price", float(round(price)))


def _plain(text: str) -> float:
    return float(text.replace(",", "."))


def read_quote(
    text: str,
    models: Iterable[BatteryModel],
    cell_volts: Mapping[str, float],
    assumed_class: str,
    answers: Mapping[str, float] | None = None,
    currency: str = "",
    price_levels: Mapping[str, PriceLevel] = NO_LEVELS,
    price_factor: float = 1.0,
) -> Quote:
    """What a pasted label or offer says of one battery; what is missing is filled with what is typical.

    Args:
        text: as pasted.
        models: the catalogue, from which what is typical of a class is taken.
        cell_volts: class → volts of a cell [V].
        assumed_class: class where the text names none.
        answers: by field, what the owner answered where the text was in doubt; in the field's unit.
        currency: ISO 4217 code of the owner's money; empty to take every price as in it.
        price_levels: rates of other money, by code.
        price_factor: price level of the rig [-].

    Returns:
        What was understood, what was filled in, and what is asked.
    """
    return Reader(
        text, models, cell_volts, assumed_class, answers or {}, currency, price_levels, price_factor
    ).read()
