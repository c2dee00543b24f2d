"""What an offer says of a battery apart from its weight and price."""

import re

from vast_harbor.core.figures.units import celsius
from vast_harbor.formats.quotes.figures import Found, length_mm, nearest, words
from vast_harbor.formats.quotes.offer import NEAR, OfferText
from vast_harbor.formats.quotes.quote import Said

# Volts that a battery is called by; any other is asked about.
CALLED_V = (2, 2.4, 3.2, 3.6, 6, 6.4, 8, 9.6, 12, 12.8, 13.2, 24, 25.6, 26.4, 36, 38.4, 48, 51.2)
CYCLES_LEAD, CYCLES_LFP = (50.0, 3000.0), (500.0, 15_000.0)
# How a time of discharge stands behind a capacity: "@ 20hr", "(C5)", "bei 10 h".
_HOURS = re.compile(
    r"[\s(@/,:-]*(?:at|over|bei|en|à|a|bij|über|sur|in)?\s*(?:C\s*/?\s*(\d{1,3})\b|(\d{1,3})\s*-?\s*"
    r"(?:h\b|hrs?\b|hours?|std\b|stunden|stündig\w*|heures?|horas?|uur))", re.IGNORECASE,
)  # fmt: skip


class PrintedFigures(OfferText):
    """Volts, capacities, sizes, currents, temperatures, cycles and terms of an offer."""

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

    def _terms(self) -> None:
        for one in self._of("year", "month"):
            line = self._line(one)
            if words("warranty").search(self.plain, *line):
                self._say("warranty_years", one.value / (12 if one.unit == "month" else 1), one)
                return

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


def _plain(text: str) -> float:
    return float(text.replace(",", "."))
