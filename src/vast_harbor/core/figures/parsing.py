"""Reading what people type: ``1,5``, ``1h30``, ``12A``, ``20°F``, ``35 %``, ``0.3 kW``, ``$1,918``."""

import re
from dataclasses import dataclass

from vast_harbor.core.figures import units
from vast_harbor.core.figures.currency import currency_code, currency_symbol
from vast_harbor.core.figures.number_format import INTERNATIONAL, NumberFormat
from vast_harbor.phrases import phrase

NUMBER = r"[-+−]?(?:\d[\d\s'’\u00a0\u202f]*(?:[.,]\d+)*|[.,]\d+)"
_NUMBER_AND_UNIT = re.compile(rf"^\s*({NUMBER})\s*(.*?)\s*$")
_SIGNS_ABOUT_AMOUNT = re.compile(rf"^\s*([^\d.,'+−-]*?)\s*({NUMBER})\s*(.*?)\s*$")
_PER_FUEL = re.compile(r"\s*(/|per|a)\s*(l|litre|gal|gallon)\s*$", re.IGNORECASE)
_HOURS_AND_MINUTES = re.compile(
    r"^\s*(\d+)\s*(?:h|hrs?|hours?|:)\s*(\d{1,2})\s*(?:m|min|minutes?)?\s*$", re.I
)

# What may follow a number, by stored unit: suffix (lower case) → multiplier, or the unit it is in.
_SUFFIXES: dict[str, dict[str, float]] = {
    "W": {"w": 1, "watt": 1, "watts": 1, "kw": 1000, "mw": 0.001},
    "A": {"a": 1, "amp": 1, "amps": 1, "ma": 0.001, "ka": 1000},
    "Ah": {"ah": 1, "mah": 0.001},
    "V": {"v": 1, "volt": 1, "volts": 1, "mv": 0.001, "millivolt": 0.001, "millivolts": 0.001},
    "h": {
        "h": 1,
        "hr": 1,
        "hrs": 1,
        "hour": 1,
        "hours": 1,
        "h/day": 1,
        "min": 1 / 60,
        "minutes": 1 / 60,
        "m": 1 / 60,
    },
    "min": {"min": 1, "minutes": 1, "m": 1, "h": 60, "hours": 60, "s": 1 / 60, "sec": 1 / 60},
    "1": {"%": 0.01, "percent": 0.01},
    "1/year": {"%": 0.01, "% a year": 0.01, "%/year": 0.01},
    "kg": units.KG_IN,
    "°C": {"c": 1, "°c": 1},
    "years": {"y": 1, "yr": 1, "yrs": 1, "year": 1, "years": 1, "months": 1 / 12},
    "nights": {"night": 1, "nights": 1, "n": 1},
    "times": {"x": 1, "×": 1, "times": 1},
    "h/year": {"h": 1, "h/year": 1, "hours": 1},
    "Wh": {"wh": 1, "kwh": 1000, "wh/day": 1, "kwh/day": 1000},
    "mm": units.MM_IN,
    "m": {"m": 1, "cm": 0.01, "mm": 0.001, "ft": units.M_PER_FOOT, "feet": units.M_PER_FOOT},
    "mm²": {"mm²": 1, "mm2": 1, "sq mm": 1},
    "m²": {"m²": 1, "m2": 1, "sq m": 1, "ft²": units.M_PER_FOOT**2, "sq ft": units.M_PER_FOOT**2},
    "cm²": {"cm²": 1, "cm2": 1, "sq cm": 1, "in²": 6.4516, "sq in": 6.4516},
    "mV": {"mv": 1, "v": 1000},
    "mΩ": {"mω": 1, "mohm": 1, "milliohm": 1, "ω": 1000, "ohm": 1000},
    "l/h": {"l/h": 1, "l": 1, "litres": 1, "gal/h": units.LITRES_PER_GALLON, "gph": units.LITRES_PER_GALLON},
    "l fuel": {
        "l": 1,
        "litre": 1,
        "litres": 1,
        "ml": 0.001,
        "cl": 0.01,
        "dl": 0.1,
        "gal": units.LITRES_PER_GALLON,
    },
    "days": {"d": 1, "day": 1, "days": 1, "weeks": 7},
    "s": {"s": 1, "sec": 1, "seconds": 1, "min": 60},
    "°": {"°": 1, "n": 1, "°n": 1, "e": 1, "°e": 1, "s": -1, "°s": -1, "w": -1, "°w": -1},
}

_ELSEWHERE = {
    "w": "watts",
    "kw": "kilowatts",
    "a": "amps",
    "ah": "amp-hours",
    "wh": "watt-hours",
    "kwh": "kilowatt-hours",
    "v": "volts",
    "h": "hours",
    "min": "minutes",
    "kg": "kilograms",
}

NAMES = {
    "W": "watts",
    "A": "amps",
    "Ah": "amp-hours",
    "V": "volts",
    "h": "hours",
    "min": "minutes",
    "1": phrase("figures.parsing.number_percentage"),
    "kg": phrase("figures.parsing.weight"),
    "°C": phrase("figures.parsing.temperature"),
    "years": "years",
    "nights": "nights",
    "money": phrase("figures.parsing.amount_money"),
    "money/l": phrase("figures.parsing.amount_money"),
    "l/h": phrase("figures.parsing.consumption"),
    "times": phrase("figures.parsing.count"),
    "Wh": "watt-hours",
    "mm": phrase("figures.parsing.length"),
    "m": phrase("figures.parsing.length"),
    "s": "seconds",
    "mm²": phrase("figures.parsing.cross_section"),
    "m²": phrase("figures.parsing.area"),
    "cm²": phrase("figures.parsing.area"),
    "mV": "millivolts",
    "°": "degrees",
    "l fuel": "litres",
}

EXAMPLES = {
    "W": "45, 45 W or 0.3 kW",
    "A": "12 or 12 A",
    "Ah": "100 or 100 Ah",
    "V": "12",
    "h": phrase("figures.parsing.n6_1h30_90_min"),
    "min": phrase("figures.parsing.n10_10_min"),
    "1": "0.35 or 35 %",
    "kg": "29.5",
    "°C": "10, 10 °C or 50 °F",
    "years": "10",
    "nights": "60",
    "money": "249.50",
    "money/l": "1.80",
    "l/h": phrase("figures.parsing.n0_6_l_h"),
    "times": "3",
    "1/year": "2 %",
    "Wh": phrase("figures.parsing.n850_850_wh_0"),
    "mm": "520, 52 cm or 20.5 in",
    "m": "1.2, 1.2 m or 4 ft",
    "s": "3",
    "mm²": "35, 35 mm² or AWG 2",
    "m²": "2.5, 2.5 m² or 27 sq ft",
    "cm²": "110 or 110 cm²",
    "mV": "20",
    "°": "52.2 or 52.2 N",
    "l fuel": "0.4, 0.4 l or 400 ml",
}


class Unreadable(ValueError):
    """Typed text that is not a quantity of the kind wanted; the message is for the owner."""


@dataclass(frozen=True, slots=True)
class Draw:
    """What a load draws, as the owner stated it.

    Attributes:
        value: number in ``unit``.
        unit: ``W`` or ``A``.
    """

    value: float
    unit: str


def number(text: str, written: NumberFormat = INTERNATIONAL) -> float:
    """A plain number with comma or point decimals and optional digit grouping by spaces.

    Args:
        text: digits as typed.
        written: how the owner's region writes numbers, which decides where a text could be read two ways.

    Returns:
        The number.

    Raises:
        Unreadable: when it is no number, or could be read two ways (``1,030`` without a region).
    """
    plain = re.sub(r"[\s'’\u00a0\u202f]", "", text).replace("−", "-")
    grouped = written.group in (".", ",") and re.fullmatch(
        rf"[-+]?[1-9]\d{{0,2}}({re.escape(written.group)}\d{{3}})+", plain
    )
    if grouped:
        return float(plain.replace(written.group, ""))
    if "," in plain and "." in plain:
        decimal = max(plain.rfind(","), plain.rfind("."))
        whole = re.sub(r"[.,]", "", plain[:decimal])
        return float(f"{whole}.{plain[decimal + 1 :]}")
    if written.decimal != "," and re.fullmatch(r"[-+]?[1-9]\d{0,2}(,\d{3})+", plain):
        whole = plain.replace(",", "")
        if plain.count(",") > 1:
            return float(whole)
        raise Unreadable(
            phrase(
                "figures.parsing.could_mean_write_without",
                text=text.strip(),
                whole=whole,
                replace=plain.replace(",", "."),
            )
        )
    if plain.count(".") > 1:
        plain = plain.replace(".", "")
    return float(plain.replace(",", "."))


def _wrong_unit(suffix: str, unit: str, text: str) -> Unreadable:
    other = _ELSEWHERE.get(suffix.lower())
    wanted = NAMES.get(unit, unit)
    if other:
        return Unreadable(
            phrase("figures.parsing.field_takes", text=text.strip(), other=other, wanted=wanted)
        )
    return Unreadable(
        phrase("figures.parsing.try", text=text.strip(), wanted=wanted, get=EXAMPLES.get(unit, "12.5"))
    )


def _without_currency(text: str, currency: str) -> str:
    """An amount without the sign or name of the rig's currency, before it or after it.

    Raises:
        Unreadable: when it is stated in another currency.
    """
    match = _SIGNS_ABOUT_AMOUNT.match(text)
    if not match:
        return text
    signs = [sign for sign in (match[1], match[3]) if sign]
    for sign in signs:
        code = currency_code(sign)
        if sign.casefold() in currency_symbol(currency).casefold() or code == currency:
            continue
        if code is None:
            return text
        raise Unreadable(
            phrase("figures.parsing.other_currency", text=text.strip(), other=code, currency=currency)
        )
    return match[2]


def parse(
    text: str,
    unit: str,
    system: str = units.METRIC,
    system_v: float | None = None,
    written: NumberFormat = INTERNATIONAL,
    currency: str | None = None,
) -> float:
    """A typed quantity in the stored unit.

    Args:
        text: what was typed.
        unit: stored unit of the field: ``W``, ``A``, ``Ah``, ``V``, ``h``, ``min``, ``1`` (a ratio),
            ``1/year``, ``kg``, ``°C``, ``years``, ``nights``, ``money``, ``times``.
        system: ``metric`` or ``us``: the unit of a bare number.
        system_v: volts at which amp-hours count where watt-hours are wanted [V]; None to refuse them.
        written: how the owner's region writes numbers.
        currency: ISO 4217 code that an amount of money is in, whose sign may stand beside it; None to
            refuse signs.

    Returns:
        Value in ``unit``.

    Raises:
        Unreadable: one sentence saying what is wrong and what would do.
    """
    if unit in ("h", "min") and (clock := _HOURS_AND_MINUTES.match(text)):
        minutes = int(clock[1]) * 60 + int(clock[2])
        return minutes / 60 if unit == "h" else float(minutes)
    if unit == "mm²" and (area := units.awg_area(text, system == units.US)) is not None:
        return area
    if unit == "money/l":
        text = _PER_FUEL.sub("", text)
    if unit.startswith("money") and currency:
        text = _without_currency(text, currency)
    match = _NUMBER_AND_UNIT.match(text)
    if not match:
        raise Unreadable(
            phrase(
                "figures.parsing.text_not_get_try",
                text=text.strip(),
                get=NAMES.get(unit, phrase("terms.names.number")),
                get_2=EXAMPLES.get(unit, "12.5"),
            )
        )
    value, suffix = number(match[1], written), match[2].strip()
    if not suffix:
        return units.from_display(value, unit, system)
    if unit == "°C" and suffix.lower() in ("f", "°f"):
        return units.celsius(value)
    if unit == "Wh" and system_v and suffix.lower() in ("ah", "ah/day"):
        return value * system_v
    scale = _SUFFIXES.get(unit, {}).get(suffix.lower())
    if scale is None or suffix == "MW":
        raise _wrong_unit(suffix, unit, text)
    # 35 % is 0.35, not 0.35000000000000003.
    return value / round(1 / scale) if scale in (0.01, 0.001) else value * scale


def share(number: float, least: float, most: float) -> float:
    """A share that was typed without a per cent sign.

    From 2 on it is meant in per cent, and up to 1 as it stands. What is typed for a rate, which is never
    nearly whole, is in per cent wherever it cannot be meant as it stands: 1.4 is 1.4 %. Anywhere else 1.4 is
    too much, and left to be refused.

    Args:
        number: what was typed.
        least, most: what the share may be [-].

    Returns:
        The share [-].
    """
    if number >= 2:
        return number / 100
    is_rate = most < 1
    return number / 100 if is_rate and not least <= number <= most else number


def parse_share(
    text: str, least: float, most: float, unit: str = "1", written: NumberFormat = INTERNATIONAL
) -> float:
    """A typed share: ``35 %``, ``35``, ``0.35``; see :func:`share`.

    Args:
        text: what was typed.
        least, most: what the share may be [-].
        unit: ``1``, or ``1/year`` for a rate.
        written: how the owner's region writes numbers.

    Returns:
        The share [-]; it may lie outside of what it may be.

    Raises:
        Unreadable: one sentence saying what is wrong and what would do.
    """
    number = parse(text, unit, written=written)
    return number if "%" in text or "percent" in text.lower() else share(number, least, most)


# Units of an amount for a time, which belong beside the hours and not in place of a draw.
PER_DAY = (
    "ah", "wh", "kwh", "wh/day", "kwh/day", "ah/day", "w/day", "kw/day", "a/day", "w/d", "wh/d", "ah/d",
    "w per day", "wh per day", "ah per day", "wh a day", "ah a day", "w a day",
)  # fmt: skip


def parse_draw(text: str, written: NumberFormat = INTERNATIONAL) -> Draw:
    """What a load draws, in watts unless amps are said: ``45``, ``45 W``, ``12A``, ``0.3 kW``.

    Args:
        text: what was typed.
        written: how the owner's region writes numbers.

    Returns:
        The draw in W or A.

    Raises:
        Unreadable: one sentence saying what is wrong and what would do.
    """
    match = _NUMBER_AND_UNIT.match(text)
    if match and match[2].strip().lower() in _SUFFIXES["A"]:
        return Draw(parse(text, "A", written=written), "A")
    if match and match[2].strip().lower() in PER_DAY:
        raise Unreadable(phrase("figures.parsing.energy_over_time_power", text=text.strip()))
    return Draw(parse(text, "W", written=written), "W")
