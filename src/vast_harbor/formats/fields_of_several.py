"""Fields that hold several values, or a value of two kinds."""

import re
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationInfo

from vast_harbor.core.figures import parsing
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.figures.parsing_time import parse_windows
from vast_harbor.formats.fields import (
    Field,
    check_bounds,
    context_of,
    plain_number,
    read_number,
    read_share,
    twelves,
)
from vast_harbor.phrases import phrase


@dataclass(frozen=True)
class Windows(Field):
    """Set times of a day, stored as (from, to) hours after midnight; ``to`` may lie on the next day."""

    most: int = 96

    def read(self, value: Any, info: ValidationInfo) -> list[tuple[float, float]]:
        if isinstance(value, str) and context_of(info).get("typed"):
            value = parse_windows(value)
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
                phrase("files.fields.set_time_must_end", plain=plain_number(start), plain_2=plain_number(end))
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
class Numbers(Field):
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
            return check_bounds(read_number(value, "1", context_of(info)), self.least, self.most, sentence)
        share = read_share(value, "1", self.least, self.most, context_of(info))
        sentence = phrase("files.fields.shares_must_between", what=self.what)
        return check_bounds(share, self.least, self.most, sentence, lambda x: 100 * x)

    def schema(self) -> dict[str, Any]:
        item = {"type": "number", "minimum": self.least, "maximum": self.most}
        return {"type": "array", "maxItems": self.count, "items": item}


@dataclass(frozen=True)
class Pairs(Field):
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
        if isinstance(value, str) and context_of(info).get("typed"):
            value = [part.split("/") for part in re.split(r"\s*[,;]\s+|\s*;\s*", value.strip()) if part]
        if not isinstance(value, list | tuple) or len(value) > self.count:
            raise ValueError(phrase("files.fields.must_up_pairs", what=self.what, count=self.count))
        return [self._pair(pair, info) for pair in value]

    def _pair(self, pair: Any, info: ValidationInfo) -> tuple[float, float]:
        if not isinstance(pair, list | tuple) or len(pair) != 2:
            raise ValueError(phrase("files.fields.written_14_4_13", what=self.what))
        first, second = (self._volts(v, context_of(info)) for v in pair)
        return first, second

    def _volts(self, value: Any, context: dict[str, Any]) -> float:
        scale = twelves(value, context)
        sentence = phrase("files.fields.must_between_v_v", what=self.what)
        volts = read_number(value, "V", context) / scale
        return check_bounds(volts, self.least, self.most, sentence, lambda x: x * scale)

    def schema(self) -> dict[str, Any]:
        volts = {"type": "number", "minimum": self.least, "maximum": self.most}
        pair = {"type": "array", "items": volts, "minItems": 2, "maxItems": 2}
        return {"type": "array", "maxItems": self.count, "items": pair, "description": "Unit: V"}


@dataclass(frozen=True, init=False)
class Names(Field):
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
class LimitOfDraw(Field):
    """Least or most that a load may draw, in the unit of its draw; empty for no doubt."""

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        if value is None or (isinstance(value, str) and not value.strip()):
            return None
        if isinstance(value, str) and context_of(info).get("typed"):
            unit = getattr(info.data.get("draw"), "unit", "W")
            value = parsing.parse(value, unit, written=number_format(context_of(info).get("numbers", "")))
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
class StartPower(Field):
    """Power of a load while it starts [W]; typed ``3x`` it is so many times the running power."""

    def read(self, value: Any, info: ValidationInfo) -> float | None:
        context = context_of(info)
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
