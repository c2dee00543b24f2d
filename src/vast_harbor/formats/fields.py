"""Field types of the rig file: what is accepted, and the sentence for what is not.

A file holds plain SI numbers. What an owner types into the interface arrives as text and is read in
the owner's units; that is only allowed where the validation context says ``typed``.
"""

import re
from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler, ValidationInfo
from pydantic_core import core_schema

from vast_harbor.core.figures import parsing
from vast_harbor.core.figures.dates import parse_date
from vast_harbor.core.figures.display import digits_for, group, trim
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.figures.parsing_time import parse_clock
from vast_harbor.core.figures.units import METRIC, US, US_UNITS, to_display
from vast_harbor.phrases import phrase


def _amps(text: str) -> float | None:
    """Amps where they are typed in place of watts; None for anything else."""
    try:
        draw = parsing.parse_draw(text)
    except parsing.Unreadable:
        return None
    return draw.value if draw.unit == "A" else None


def context_of(info: ValidationInfo) -> dict[str, Any]:
    """What a file is read with: units, language, system voltage."""
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


def twelves(value: Any, context: dict[str, Any]) -> float:
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
        raise ValueError(sentence.format(**{name: plain_number(told(x)) for name, x in numbers.items()}))
    return value


def _in_us(sentence: str, unit: str) -> str:
    """A sentence with the name of a US unit after its numbers in place of the stored one."""
    pair = US_UNITS.get(unit)
    if pair is None:
        return sentence
    return re.sub(rf"(\{{(?:value|least|most)\}}) {re.escape(unit)}(?!\w)", rf"\1 {pair.us}", sentence)


def plain_number(value: float) -> str:
    """A number as it stands in a sentence."""
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


class Field(ABC):
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
class Measure(Field):
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
            number = amps * (context_of(info).get("system_v") or 12.0)
        elif self.percent:
            number = read_share(value, self.unit, self.least, self.most, context_of(info))
        else:
            number = read_number(value, self.unit, context_of(info))
        scale: float = 100 if self.percent else 1
        sentence, system = self.sentence, METRIC
        if isinstance(value, str) and context_of(info).get("system") == US:
            sentence, system = _in_us(sentence, self.unit), US
        if self.per_12:
            scale = twelves(value, context_of(info))
            number /= scale
            sentence = sentence.replace("{system}", f"{12 * scale:g}")
        check_bounds(
            number, self.least, self.most, sentence, lambda x: to_display(scale * x, self.unit, system)[0]
        )
        if self.whole and number != round(number):
            raise ValueError(phrase("files.fields.enter_whole_number", plain=plain_number(number)))
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
class Words(Field):
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
class Choice(Field):
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
                phrase(
                    "files.fields.known",
                    what=self.what,
                    value=value,
                    options=", ".join(filter(None, self.options)),
                )
            )
        return str(value)

    def schema(self) -> dict[str, Any]:
        return {"enum": [*self.options, *([None] if self.optional else [])]}


_ISO_DATE = re.compile(r"^\d{4}-(0[1-9]|1[0-2])(-(0[1-9]|[12]\d|3[01]))?$")


@dataclass(frozen=True)
class Date(Field):
    """An optional date, ISO ``2026-11-25``, or a month, ``2026-11``; empty for none. In the interface it is
    typed as people write dates, see :func:`~vast_harbor.core.figures.dates.parse_date`.

    Attributes:
        what: what it is, for the sentence.
        month: whether a month is wanted rather than a day.
    """

    what: str
    month: bool = False

    def read(self, value: Any, info: ValidationInfo) -> str:
        text = "" if value is None else value.strip() if isinstance(value, str) else "?"
        context = context_of(info)
        if text and context.get("typed"):
            today = context.get("today") or date.today()
            return parse_date(text, context.get("numbers", ""), today, self.month)
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
class Clock(Field):
    """An optional time of day, stored as hours after midnight."""

    unit: str = "clock"

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        if value is None or (isinstance(value, str) and not value.strip()):
            return None
        if isinstance(value, str) and context_of(info).get("typed"):
            return parse_clock(value)
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
class Truth(Field):
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
