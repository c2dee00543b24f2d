"""Field types of the rig file: what is accepted, and the sentence for what is not.

A file holds plain SI numbers. What an owner types into the interface arrives as text and is read in
the owner's units; that is only allowed where the validation context says ``typed``.
"""

import re
from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler, ValidationInfo
from pydantic_core import core_schema

from vast_harbor.core.figures import parsing
from vast_harbor.core.figures.display import digits_for, group, trim
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.figures.units import METRIC, US, US_UNITS, to_display
from vast_harbor.phrases import phrase


def _amps(text: str) -> float | None:
    """Amps where they are typed in place of watts; None for anything else."""
    try:
        draw = parsing.parse_draw(text)
    except parsing.Unreadable:
        return None
    return draw.value if draw.unit == "A" else None


def _context(info: ValidationInfo) -> dict[str, Any]:
    return info.context or {}


def read_number(value: Any, unit: str, context: dict[str, Any]) -> float:
    """A number of a file, or what was typed in the interface.

    Args:
        value: number, or text when the context allows typing.
        unit: stored unit.
        context: ``typed``, ``system``, ``system_v``, ``numbers`` and ``currency``.

    Returns:
        Value in ``unit``.

    Raises:
        ValueError: one sentence saying what is wrong.
    """
    if isinstance(value, str) and context.get("typed"):
        if not value.strip():
            raise ValueError(
                phrase(
                    "files.fields.field_empty_enter_example",
                    get=parsing.NAMES.get(unit, phrase("terms.names.number")),
                    get_2=parsing.EXAMPLES.get(unit, "1"),
                )
            )
        return parsing.parse(
            value,
            unit,
            context.get("system", METRIC),
            context.get("system_v"),
            written=number_format(context.get("numbers", "")),
            currency=context.get("currency"),
        )
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError(
            phrase("files.fields.enter_number", name=type(value).__name__ if value else "nothing")
        )
    return float(value)


def _twelves(value: Any, context: dict[str, Any]) -> float:
    """How many times 12 V the system has, for volts that are typed for it; 1 for a number of a file."""
    volts = context.get("system_v")
    return volts / 12 if isinstance(value, str) and volts in (24, 36, 48) else 1.0


def check_bounds(
    value: float, least: float, most: float, sentence: str, told: Callable[[float], float] = float
) -> float:
    """The value itself when it is within bounds.

    Args:
        value, least, most: in the stored unit.
        sentence: what to say outside of them.
        told: a number as the sentence tells it, where that is not as it is stored.

    Raises:
        ValueError: ``sentence`` with ``{value}``, ``{least}`` and ``{most}`` filled in.
    """
    if not least <= value <= most:
        numbers = {"value": value, "least": least, "most": most}
        raise ValueError(sentence.format(**{name: _plain(told(x)) for name, x in numbers.items()}))
    return value


def _in_us(sentence: str, unit: str) -> str:
    """A sentence with the name of a US unit after its numbers in place of the stored one."""
    pair = US_UNITS.get(unit)
    if pair is None:
        return sentence
    return re.sub(rf"(\{{(?:value|least|most)\}}) {re.escape(unit)}(?!\w)", rf"\1 {pair.us}", sentence)


def _plain(value: float) -> str:
    if not abs(value) < 1e12:
        return f"{value:.6g}"
    return trim(group(value, digits_for(value, 6)))


def read_share(value: Any, unit: str, least: float, most: float, context: dict[str, Any]) -> float:
    """As :func:`read_number`, a share; see :func:`~vast_harbor.core.figures.parsing.parse_share`.

    Args:
        value: number, or text when the context allows typing.
        unit: ``1``, or ``1/year`` for a rate.
        least, most: what the share may be [-].
        context: as there.
    """
    if isinstance(value, str) and value.strip() and context.get("typed"):
        return parsing.parse_share(value, least, most, unit, number_format(context.get("numbers", "")))
    return read_number(value, unit, context)


class _Field(ABC):
    """Metadata of a field: reads the value before pydantic does, and describes it."""

    @abstractmethod
    def read(self, value: Any, info: ValidationInfo) -> Any:
        """The value in its stored form; ValueError with one sentence when it cannot be taken."""

    @abstractmethod
    def schema(self) -> dict[str, Any]:
        """JSON Schema of the field."""

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> core_schema.CoreSchema:
        return core_schema.with_info_before_validator_function(self.read, handler(source))

    def __get_pydantic_json_schema__(
        self, _schema: core_schema.CoreSchema, _handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        return self.schema()


@dataclass(frozen=True)
class Measure(_Field):
    """A quantity.

    Attributes:
        unit: stored unit.
        least, most: accepted range.
        sentence: what to say outside of it, with ``{value}``, ``{least}``, ``{most}``.
        optional: whether it may be empty (None).
        whole: whether it must be a whole number.
        percent: whether a share is typed and shown in per cent: ``40``, ``0.4`` and ``40 %`` are 0.4.
        draw: whether amps at the system's volts may be typed in place of watts.
        per_12: whether volts are stored as for a 12 V system; they are typed and shown for the rig's own. The
            sentence then has ``{system}`` for its volts.
    """

    unit: str
    least: float
    most: float
    sentence: str
    optional: bool = False
    whole: bool = False
    percent: bool = False
    draw: bool = False
    per_12: bool = False

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        if self.optional and (value is None or (isinstance(value, str) and not value.strip())):
            return None
        if self.draw and isinstance(value, str) and (amps := _amps(value)) is not None:
            number = amps * (_context(info).get("system_v") or 12.0)
        elif self.percent:
            number = read_share(value, self.unit, self.least, self.most, _context(info))
        else:
            number = read_number(value, self.unit, _context(info))
        scale: float = 100 if self.percent else 1
        sentence, system = self.sentence, METRIC
        if isinstance(value, str) and _context(info).get("system") == US:
            sentence, system = _in_us(sentence, self.unit), US
        if self.per_12:
            scale = _twelves(value, _context(info))
            number /= scale
            sentence = sentence.replace("{system}", f"{12 * scale:g}")
        check_bounds(
            number, self.least, self.most, sentence, lambda x: to_display(scale * x, self.unit, system)[0]
        )
        if self.whole and number != round(number):
            raise ValueError(phrase("files.fields.enter_whole_number", plain=_plain(number)))
        return number

    def schema(self) -> dict[str, Any]:
        kind = "integer" if self.whole else "number"
        found: dict[str, Any] = {
            "type": [kind, "null"] if self.optional else kind,
            "minimum": self.least,
            "maximum": self.most,
        }
        return found if self.unit in ("1", "times") else found | {"description": f"Unit: {self.unit}"}


@dataclass(frozen=True)
class Words(_Field):
    """A text.

    Attributes:
        what: what it is, for the sentence.
        most: longest text accepted [characters].
        required: whether it may not be empty.
    """

    what: str
    most: int
    required: bool = False

    def read(self, value: Any, info: ValidationInfo) -> str:
        if not isinstance(value, str):
            raise ValueError(phrase("files.fields.must_text", what=self.what))
        if self.required and not value.strip():
            raise ValueError(phrase("files.fields.empty_enter_something_recognise", what=self.what))
        if len(value) > self.most:
            raise ValueError(
                phrase("files.fields.characters_limit", what=self.what, value=len(value), most=self.most)
            )
        return value

    def schema(self) -> dict[str, Any]:
        return {"type": "string", "maxLength": self.most} | ({"minLength": 1} if self.required else {})


@dataclass(frozen=True, init=False)
class Choice(_Field):
    """One of a few words.

    Args:
        what: what it is, for the sentence.
        options: accepted words.
        optional: whether it may be empty (None).
    """

    what: str
    options: tuple[str, ...]
    optional: bool

    def __init__(self, what: str, *options: str, optional: bool = False) -> None:
        object.__setattr__(self, "what", what)
        object.__setattr__(self, "options", options)
        object.__setattr__(self, "optional", optional)

    def read(self, value: Any, info: ValidationInfo) -> str | None:
        if self.optional and value in (None, ""):
            return None
        if value not in self.options:
            raise ValueError(
                phrase("files.fields.known", what=self.what, value=value, options=", ".join(self.options))
            )
        return str(value)

    def schema(self) -> dict[str, Any]:
        return {"enum": [*self.options, *([None] if self.optional else [])]}


_ISO_DATE = re.compile(r"^\d{4}-(0[1-9]|1[0-2])(-(0[1-9]|[12]\d|3[01]))?$")


@dataclass(frozen=True)
class Date(_Field):
    """An optional date, ISO ``2026-11-25``, or a month, ``2026-11``; empty for none.

    Attributes:
        what: what it is, for the sentence.
        month: whether a month is wanted rather than a day.
    """

    what: str
    month: bool = False

    def read(self, value: Any, info: ValidationInfo) -> str:
        text = "" if value is None else value.strip() if isinstance(value, str) else "?"
        if text and not (_ISO_DATE.match(text) and "1990" <= text[:4] <= "2100"):
            raise ValueError(
                phrase(
                    "files.fields.must_written",
                    what=self.what,
                    month="2027-04" if self.month else "2026-11-25 or 2026-11",
                    value=value,
                )
            )
        return text[:7] if self.month else text

    def schema(self) -> dict[str, Any]:
        return {"type": "string", "pattern": r"^(\d{4}-\d{2}(-\d{2})?)?$"}


@dataclass(frozen=True)
class Clock(_Field):
    """An optional time of day, stored as hours after midnight."""

    unit: str = "clock"

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        if value is None or (isinstance(value, str) and not value.strip()):
            return None
        if isinstance(value, str) and _context(info).get("typed"):
            return parsing.parse_clock(value)
        return check_bounds(
            read_number(value, "h", {}), 0, 23.9999, phrase("files.fields.time_day_must_between")
        )

    def schema(self) -> dict[str, Any]:
        return {
            "type": ["number", "null"],
            "minimum": 0,
            "exclusiveMaximum": 24,
            "description": "Unit: h after midnight",
        }


@dataclass(frozen=True)
class Windows(_Field):
    """Set times of a day, stored as (from, to) hours after midnight; ``to`` may lie on the next day."""

    most: int = 96

    def read(self, value: Any, info: ValidationInfo) -> list[tuple[float, float]]:
        if isinstance(value, str) and _context(info).get("typed"):
            value = parsing.parse_windows(value)
        if not isinstance(value, list | tuple) or len(value) > self.most:
            raise ValueError(phrase("files.fields.set_times_must_list", most=self.most))
        return [self._pair(pair) for pair in value]

    def _pair(self, pair: Any) -> tuple[float, float]:
        if not isinstance(pair, list | tuple) or len(pair) != 2:
            raise ValueError(phrase("files.fields.set_time_must_pair"))
        start, end = read_number(pair[0], "h", {}), read_number(pair[1], "h", {})
        check_bounds(start, 0, 23.9999, phrase("files.fields.time_day_must_between"))
        if not start < end <= start + 24:
            raise ValueError(
                phrase("files.fields.set_time_must_end", plain=_plain(start), plain_2=_plain(end))
            )
        return start, end

    def schema(self) -> dict[str, Any]:
        pair = {"type": "array", "items": {"type": "number", "minimum": 0, "maximum": 48}}
        return {
            "type": "array",
            "maxItems": self.most,
            "items": pair | {"minItems": 2, "maxItems": 2},
            "description": "Unit: h after midnight",
        }


@dataclass(frozen=True)
class Truth(_Field):
    """Yes or no; where it is optional also neither (None)."""

    optional: bool = False

    def read(self, value: Any, info: ValidationInfo) -> bool | None:
        if self.optional and value in (None, ""):
            return None
        if not isinstance(value, bool):
            raise ValueError(phrase("files.fields.enter_yes_true_false"))
        return value

    def schema(self) -> dict[str, Any]:
        return {"type": ["boolean", "null"] if self.optional else "boolean"}


@dataclass(frozen=True)
class Numbers(_Field):
    """A list of numbers.

    Attributes:
        what: what they are, for the sentence.
        least, most: accepted range of each.
        count: how many at most.
        exactly: whether it must be so many, or none.
        percent: whether they are shares, typed and shown in per cent.
    """

    what: str
    least: float
    most: float
    count: int
    exactly: bool = False
    percent: bool = False

    def read(self, value: Any, info: ValidationInfo) -> list[float]:
        if not isinstance(value, list | tuple) or len(value) > self.count:
            raise ValueError(phrase("files.fields.must_list_up_numbers", what=self.what, count=self.count))
        if self.exactly and value and len(value) != self.count:
            raise ValueError(phrase("files.fields.must_numbers_none", what=self.what, count=self.count))
        return [self._number(v, info) for v in value]

    def _number(self, value: Any, info: ValidationInfo) -> float:
        if not self.percent:
            sentence = phrase("files.fields.must_between", what=self.what)
            return check_bounds(read_number(value, "1", _context(info)), self.least, self.most, sentence)
        share = read_share(value, "1", self.least, self.most, _context(info))
        sentence = phrase("files.fields.shares_must_between", what=self.what)
        return check_bounds(share, self.least, self.most, sentence, lambda x: 100 * x)

    def schema(self) -> dict[str, Any]:
        item = {"type": "number", "minimum": self.least, "maximum": self.most}
        return {"type": "array", "maxItems": self.count, "items": item}


@dataclass(frozen=True)
class Pairs(_Field):
    """Pairs of volts, typed as ``14.4/13.6, 14.7/13.8`` for a 12 V system, and as twice that for 24 V.

    Attributes:
        what: what they are, for the sentence.
        least, most: accepted range of each, for 12 V.
        count: how many at most.
    """

    what: str
    least: float
    most: float
    count: int

    def read(self, value: Any, info: ValidationInfo) -> list[tuple[float, float]]:
        if isinstance(value, str) and _context(info).get("typed"):
            value = [part.split("/") for part in re.split(r"\s*[,;]\s+|\s*;\s*", value.strip()) if part]
        if not isinstance(value, list | tuple) or len(value) > self.count:
            raise ValueError(phrase("files.fields.must_up_pairs", what=self.what, count=self.count))
        return [self._pair(pair, info) for pair in value]

    def _pair(self, pair: Any, info: ValidationInfo) -> tuple[float, float]:
        if not isinstance(pair, list | tuple) or len(pair) != 2:
            raise ValueError(phrase("files.fields.written_14_4_13", what=self.what))
        first, second = (self._volts(v, _context(info)) for v in pair)
        return first, second

    def _volts(self, value: Any, context: dict[str, Any]) -> float:
        scale = _twelves(value, context)
        sentence = phrase("files.fields.must_between_v_v", what=self.what)
        volts = read_number(value, "V", context) / scale
        return check_bounds(volts, self.least, self.most, sentence, lambda x: x * scale)

    def schema(self) -> dict[str, Any]:
        volts = {"type": "number", "minimum": self.least, "maximum": self.most}
        pair = {"type": "array", "items": volts, "minItems": 2, "maxItems": 2}
        return {"type": "array", "maxItems": self.count, "items": pair, "description": "Unit: V"}


@dataclass(frozen=True, init=False)
class Names(_Field):
    """A list of some of a few words, each at most once.

    Args:
        what: what they are, for the sentence.
        options: accepted words.
    """

    what: str
    options: tuple[str, ...]

    def __init__(self, what: str, *options: str) -> None:
        object.__setattr__(self, "what", what)
        object.__setattr__(self, "options", options)

    def read(self, value: Any, info: ValidationInfo) -> list[str]:
        known = isinstance(value, list) and all(v in self.options for v in value)
        if not known or len(set(value)) != len(value):
            raise ValueError(
                phrase("files.fields.must_list_once", what=self.what, options=", ".join(self.options))
            )
        return list(value)

    def schema(self) -> dict[str, Any]:
        return {"type": "array", "items": {"enum": list(self.options)}, "uniqueItems": True}


@dataclass(frozen=True)
class LimitOfDraw(_Field):
    """Least or most that a load may draw, in the unit of its draw; empty for no doubt."""

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        if value is None or (isinstance(value, str) and not value.strip()):
            return None
        if isinstance(value, str) and _context(info).get("typed"):
            unit = getattr(info.data.get("draw"), "unit", "W")
            value = parsing.parse(value, unit, written=number_format(_context(info).get("numbers", "")))
        return check_bounds(
            read_number(value, "W", {}), 0, 100_000, phrase("files.fields.power_load_must_between")
        )

    def schema(self) -> dict[str, Any]:
        return {
            "type": ["number", "null"],
            "minimum": 0,
            "maximum": 100_000,
            "description": "In the unit of the draw",
        }


_TIMES = re.compile(r"^\s*([\d.,]+)\s*[x×]\s*$", re.IGNORECASE)


@dataclass(frozen=True)
class StartPower(_Field):
    """Power of a load while it starts [W]; typed ``3x`` it is so many times the running power."""

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        context = _context(info)
        if value is None or (isinstance(value, str) and not value.strip()):
            return None
        times = _TIMES.match(value) if isinstance(value, str) and context.get("typed") else None
        if times is not None:
            draw = info.data.get("draw")
            volts = info.data.get("volts") or context.get("system_v") or 12.0
            watts = draw.value * (volts if draw.unit == "A" else 1.0) if draw is not None else 0.0
            value = parsing.number(times[1]) * watts
        return check_bounds(
            read_number(value, "W", context), 0, 200_000, phrase("files.fields.starting_power_must_between")
        )

    def schema(self) -> dict[str, Any]:
        return {"type": ["number", "null"], "minimum": 0, "maximum": 200_000, "description": "Unit: W"}
