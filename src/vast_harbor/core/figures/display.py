"""Figures as a person would write them: rounded, in the owner's units and currency."""

import re
from dataclasses import dataclass
from functools import lru_cache
from math import floor, isfinite, log10

from babel.numbers import get_currency_precision

from vast_harbor.core.figures import units
from vast_harbor.core.figures.currency import currency_symbol
from vast_harbor.core.figures.dates import ISO_DATE, date_text
from vast_harbor.core.figures.number_format import THIN, NumberFormat, number_format
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.phrases import phrase

NO_VALUE = "—"
# Before a unit: a change, shown with its sign.
SIGNED = "±"
MINUS = "−"
# Read in columns, so a zero after the point is kept: 3.0 beside 3.2.
KEPT = ("nights", "years", "kg/kWh", "lb/kWh")
# Longer than a day and a half is told in days.
LONGEST_HOURS = 36.0
# From here on a current is told in kA, as short circuits and fuses are [A].
LEAST_KA = 3_000.0


def duration(hours: float) -> str:
    """A time as people say it: ``40 min``, ``5 h 20``, ``2.5 days``.

    Args:
        hours: length [h].
    """
    if hours >= LONGEST_HOURS:
        days = hours / 24
        return phrase("figures.display.days", trim=trim(group(days, 0 if days >= 10 else 1)))
    minutes = round(hours * 60)
    if minutes < 60:
        return phrase("figures.display.min", minutes=minutes)
    return f"{minutes // 60} h {minutes % 60:02d}" if minutes % 60 and minutes < 600 else f"{round(hours)} h"


def awg(mm2: float) -> str:
    """The American wire size that has at least this cross-section, a tenth of rounding allowed.

    Args:
        mm2: cross-section [mm²].

    Returns:
        e.g. ``AWG 2/0``; the metric size where there is none so thick.
    """
    return next((f"AWG {name}" for area, name in units.AWG if area >= mm2 * 0.9), f"{mm2:g} mm²")


def moment(hours: float) -> str:
    """A moment of a stretch of days: ``day 4, 02:15``.

    Args:
        hours: since midnight before its first day [h].
    """
    return phrase("figures.display.day", hours=int(hours // 24) + 1, clock_text=clock_text(hours % 24))


# Units that are not a number and a name.
WORDED = {"clock": clock_text, "duration": duration, "moment": moment}
PER = {
    "money/cycle": phrase("figures.display.cycle"),
    "money/kWh": phrase("figures.display.per_kwh"),
    "money/year": phrase("figures.display.year"),
    "money/night": phrase("figures.display.night"),
    "money/kg": phrase("figures.display.per_kg"),
    "money/lb": phrase("figures.display.per_lb"),
    "money/h": phrase("figures.display.hour"),
    "money/l": phrase("figures.display.per_l"),
    "money/gal": phrase("figures.display.per_gal"),
    "money/Ah": phrase("figures.display.per_ah"),
    "money/kWh·year": phrase("figures.display.per_kwh_per_year"),
}


@lru_cache(maxsize=256)
def _currency_digits(code: str) -> int:
    return int(get_currency_precision(code))


def group(number: float, digits: int) -> str:
    """A number with a thin space between thousands and a true minus sign.

    Args:
        number: any finite number.
        digits: decimals.

    Returns:
        e.g. ``−1 030.5``.
    """
    text = f"{abs(number):,.{digits}f}".replace(",", THIN)
    return (MINUS if number < 0 and float(f"{abs(number):.{digits}f}") else "") + text


def digits_for(value: float, significant: int) -> int:
    """Decimals that show a value with so many significant figures, whole numbers kept whole.

    Args:
        value: any finite number.
        significant: figures wanted.

    Returns:
        Decimals, 0 or more.
    """
    if value == 0:
        return 0
    return max(0, significant - 1 - floor(log10(abs(value)) + 1e-12))


def trim(text: str) -> str:
    """A number text without needless zeros after the point."""
    return text.rstrip("0").rstrip(".") if "." in text else text


# Numbers before one of the units that are told otherwise in the US, with what stands behind it in brackets.
_NUMBER = re.compile(rf"\d[\d{THIN}]*(?:\.\d+)?")
_MEASURES = re.compile(
    rf"(?<![\w.])({_NUMBER.pattern}(?:(?: × | to |, ){_NUMBER.pattern})*) (mm|kg|cm²)(?!\w)"
    r"(?: \((\d[^)]*(?:in|lb|sq in))\))?"
)


@dataclass(frozen=True, slots=True)
class Style:
    """How one owner wants figures written.

    Attributes:
        system: ``metric`` or ``us``.
        currency: ISO 4217 code.
        lead_v: class volts at which the energy of use is told in amp-hours [V]; None for watt-hours.
        locale: whose way of writing numbers, e.g. ``en-US``; empty for none (``1 918.5``).
    """

    system: str = units.METRIC
    currency: str = "EUR"
    lead_v: float | None = None
    locale: str = ""

    @property
    def numbers(self) -> NumberFormat:
        """How numbers are written."""
        return number_format(self.locale)

    def date(self, iso: str) -> str:
        """A date, ISO ``2026-11-25`` or ``2026-11``, as its owner writes it."""
        return date_text(iso, self.locale)

    def dated(self, text: str) -> str:
        """A text with every ISO date in it as its owner writes it."""
        return ISO_DATE.sub(lambda found: self.date(found[0]), text)

    def in_units(self, text: str) -> str:
        """A text with the lengths, weights and areas in it in the owner's units: ``25 mm``, ``300 × 200 mm``,
        ``47 kg``. What stands in both is told in the owner's alone."""
        return _MEASURES.sub(self._measured, text) if self.system == "us" else text

    def _measured(self, found: re.Match[str]) -> str:
        numbers, unit, other = found[1], found[2], found[3]
        if other is not None and _NUMBER.fullmatch(numbers):
            return other
        digits = 0 if unit == "kg" else 1

        def told(one: re.Match[str]) -> str:
            value = units.to_display(float(one[0].replace(THIN, "")), unit, "us")[0]
            return trim(f"{value:.{digits}f}")

        return f"{_NUMBER.sub(told, numbers)} {units.US_UNITS[unit].us}"

    def meter_volts(self, value: float) -> str:
        """Volts as a meter shows them, to a hundredth."""
        return f"{value:.2f} V".replace(".", self.numbers.decimal)

    def money(self, value: float) -> str:
        """An amount: whole from 100 on, else with the currency's decimals."""
        return self.numbers.number(self._money(value))

    def _money(self, value: float) -> str:
        symbol = currency_symbol(self.currency)
        digits = _currency_digits(self.currency)
        # 35 that was computed as 34.9999 is told as 35 that was typed.
        if abs(value) >= 100 or round(value, digits) == round(value):
            digits = 0
        text = group(abs(value), digits)
        sign = MINUS if value < 0 and float(text.replace(THIN, "")) else ""
        return self.numbers.money(sign, symbol, text)

    def text(self, value: float | None, unit: str, exact: bool = False) -> str:
        """A value with its unit, rounded as a person would; ``—`` for none.

        Args:
            value: in the stored unit.
            unit: stored unit.
            exact: seven significant figures instead of a person's rounding.

        Returns:
            e.g. ``2.58 kWh``, ``248 Ah``, ``€1 240``, ``5.2 years``, ``90 %``.
        """
        return _text(self, value, unit, exact)

    def use(self, value: float | None, unit: str) -> str:
        """As :meth:`text`, but the energy of use in amp-hours at class volts where the owner leads with them.

        Args:
            value: in the stored unit.
            unit: stored unit.
        """
        if self.lead_v and unit in ("Wh", SIGNED + "Wh"):
            value, unit = None if value is None else value / self.lead_v, unit.replace("Wh", "Ah")
        return self.text(value, unit)

    def _write(self, value: float, unit: str, exact: bool) -> str:
        if unit in WORDED:
            return WORDED[unit](value)
        if unit == "mm²" and self.system == units.US:
            return awg(value)
        if unit.startswith(SIGNED + "money"):
            return ("+" if value > 0 else "") + self._write(value, unit[1:], exact)
        value, unit = units.to_display(value, unit, self.system)
        if unit.startswith("money"):
            amount = self._exact_money(value) if exact else self._money(value)
            return amount + PER.get(unit, "/" + unit[6:] if unit != "money" else "")
        if exact and unit.removeprefix(SIGNED) in ("%", "1/year"):
            percent = trim(group(100 * value, digits_for(100 * value, 7)))
            return f"{percent} %" + (phrase("figures.display.year") if unit.endswith("year") else "")
        if exact:
            number = trim(group(value, digits_for(value, 7)))
            return number if unit == "1" else f"{number} {_unit_name(unit)}"
        return self._rounded(value, unit)

    def _exact_money(self, value: float) -> str:
        symbol = currency_symbol(self.currency)
        sign = MINUS if value < 0 else ""
        return self.numbers.money(sign, symbol, trim(group(abs(value), max(2, digits_for(value, 7)))))

    def _rounded(self, value: float, unit: str) -> str:
        if unit in ("Wh", "W") and abs(value) >= (1000 if unit == "Wh" else 10_000):
            kilo = value / 1000
            return f"{group(kilo, digits_for(kilo, 3))} k{unit}"
        if unit == "A" and abs(value) >= LEAST_KA:
            return f"{trim(group(value / 1000, 1))} kA"
        if unit in ("1/year", "%"):
            percent = value * 100
            digits = 0 if abs(percent) >= 10 else 1
            return f"{trim(group(percent, digits))} %" + (
                phrase("figures.display.year") if unit == "1/year" else ""
            )
        if unit == "1":
            return trim(group(value, digits_for(value, 3)))
        if unit.startswith(SIGNED):
            plain = self._rounded(value, unit[1:])
            return f"+{plain}" if value > 0 and plain[0] != "0" else plain
        if unit == "cycles" and abs(value) >= 1000:
            value = round(value, -1)
        digits = _digits(value, unit)
        number = group(value, digits)
        if unit not in KEPT or abs(value - round(value)) < 1e-9:
            number = trim(number)
        return f"{number} {_unit_name(unit, number)}"


# An edit changes few of the figures on a screen, so most are asked for again and again.
@lru_cache(maxsize=20_000)
def _text(style: Style, value: float | None, unit: str, exact: bool) -> str:
    if value is None or not isfinite(value):
        return NO_VALUE
    return style.numbers.number(style._write(value, unit, exact))


def _digits(value: float, unit: str) -> int:
    """Decimals that a person would give a value of this unit."""
    if unit in ("nights", "years", "h", "°C", "°F", "l", "l fuel", "gal", "cu ft", "m", "ft", "m²", "sq ft"):
        return 0 if abs(value) >= 10 else 1
    if unit in ("mm", "cm²", "sq in"):
        return 0
    if unit == "mΩ":
        return 0 if abs(value) >= 10 else 1 if abs(value) >= 1 else 2
    if unit == "in":
        return 1
    if unit in (
        "K",
        "kg",
        "lb",
        "Ah",
        "A",
        "days",
        "times",
        "mm²",
        "cycles",
        "cycles/year",
        "Wh",
        "W",
        "batteries",
        "strings",
    ):
        return 0 if abs(value) >= 10 else 1
    return min(3, digits_for(value, 3))


# Units whose name in a text is another.
NAMES = {
    "1/year": phrase("figures.display.a_year"),
    "1/h": "C",
    "l fuel": "l",
    "cycles/year": phrase("figures.display.cycles_year"),
    "h/year": phrase("figures.display.h_year"),
}
PLURAL = ("nights", "years", "cycles", "batteries", "strings", "days", "times")


def _unit_name(unit: str, number: str = "") -> str:
    unit = unit.removeprefix(SIGNED)
    name = NAMES.get(unit, unit)
    if number == "1" and name in PLURAL:
        return "battery" if name == "batteries" else name[:-1]
    return name
