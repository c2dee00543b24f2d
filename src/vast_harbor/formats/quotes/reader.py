"""What a pasted label or offer says of one battery, and what it leaves open or in doubt."""

import re
from collections.abc import Iterable, Mapping, Sequence
from statistics import median
from types import MappingProxyType
from typing import Any

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.rig.assumptions import PriceLevel
from vast_harbor.formats.quotes.price import PriceAndWeight
from vast_harbor.formats.quotes.printed_figures import PrintedFigures
from vast_harbor.formats.quotes.quote import Quote, Said
from vast_harbor.phrases import phrase

# Things that a lead-acid battery does not have.
OF_LITHIUM = ("bms_continuous_a", "bms_peak_a", "heater_w")
NO_LEVELS: Mapping[str, PriceLevel] = MappingProxyType({})


class Reader(PrintedFigures, PriceAndWeight):
    """One offer while it is read."""

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
        for ask in self.asks:
            # Only what was asked can be answered, with a value that was proposed.
            if (value := self.answers.get(ask.field)) in ask.values:
                self.said[ask.field] = Said(ask.field, value, ask.source)
        self.asks = [ask for ask in self.asks if ask.field not in self.said]
        filled = [s for s in self._typical() if s.field not in self.said]
        missing = tuple(f for f in ("rated_ah",) if f not in self.said)
        return Quote(tuple(self.said.values()), tuple(filled), missing, tuple(self.asks))

    def _name(self) -> Said | None:
        for line in self.text.splitlines():
            plain = re.sub(r"\s+", " ", line).strip(" \t-–•*:|")
            if re.search(r"[A-Za-z]{2}", plain) and ":" not in plain:
                return Said("name", plain[:60], line.strip())
        return None

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
