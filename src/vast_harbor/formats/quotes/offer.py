"""The text of an offer: its figures, the words beside them, and what is usual for such a battery."""

import re
from collections.abc import Iterable, Mapping
from statistics import median

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.rig.assumptions import PriceLevel
from vast_harbor.formats.quotes.figures import Found, figures, lexicon, masked, nearest, segments, words
from vast_harbor.formats.quotes.quote import Ask, Said

# Least and most that is believed without asking.
BELIEVED = {
    "rated_ah": (4.0, 2000.0), "warranty_years": (0.4, 15.0), "bms_continuous_a": (5.0, 1000.0),
    "bms_peak_a": (5.0, 3000.0), "charge_a": (2.0, 1000.0), "reserve_minutes": (15.0, 1500.0),
    "heater_w": (5.0, 600.0), "length_mm": (60.0, 1200.0), "width_mm": (40.0, 1000.0),
    "height_mm": (60.0, 1000.0),
}  # fmt: skip
# What lies this near to a figure is about it [characters].
NEAR = 40


class OfferText:
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
        self.alike = [m for m in models if m.battery_class.key == self.key and not m.own and m.used is None]

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

    def _of(self, *units: str) -> list[Found]:
        return [f for f in self.found if f.unit in units]

    def _source(self, one: Found) -> str:
        return self.text[one.start : one.end].strip()

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

    def _line(self, one: Found) -> tuple[int, int]:
        end = self.plain.find("\n", one.end)
        return self.plain.rfind("\n", 0, one.start) + 1, len(self.plain) if end < 0 else end

    def _labelled(self, name: str, one: Found) -> bool:
        """Whether a word stands before a figure in its clause, with nothing but a colon between."""
        before = self.plain[max(0, one.start - NEAR) : one.start]
        return re.search(rf"{words(name).pattern}[^\d\n]{{0,12}}$", before, re.IGNORECASE) is not None

    def _besides(self, name: str, one: Found) -> bool:
        """Whether a figure is that of other words than the price: they stand nearer to it."""
        kinds = ("delivery", "old_price", "price", "each")
        return (one, name) in nearest(self.plain, self.found, kinds, self._clause(one), leads=True)

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
