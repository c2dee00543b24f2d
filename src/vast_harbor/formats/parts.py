"""What several parts of the rig document share."""

from collections.abc import Iterator
from dataclasses import MISSING, fields
from functools import cache
from typing import Any, TypeVar, dataclass_transform

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo
from pydantic._internal._model_construction import ModelMetaclass

from vast_harbor.core.battery.bank import cells_of
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats.fields import Measure
from vast_harbor.phrases import phrase

T = TypeVar("T")
P = TypeVar("P", bound=BaseModel)
CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")
TERMINALS = ("tapered posts", "M6 threads", "M8 threads", "M10 threads", "M8 studs", "flags", "sockets")
IDENTIFIER = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")
BATTERY_C = Measure("°C", -40, 60, phrase("files.parts.battery_temperature_must_between"), optional=True)
PRICE_SAYS = phrase("files.parts.amount_must_between")
PRICE = Measure("money", 0, 10_000_000, PRICE_SAYS)
PRICE_OR_NONE = Measure("money", 0, 10_000_000, PRICE_SAYS, optional=True)
STAY = Measure("nights", 0, 366, phrase("files.parts.enter_nights"), optional=True)
UNIT_V = Measure("V", 1, 60, phrase("files.parts.voltage_battery_must_between"))
UNIT_AH = Measure("Ah", 0.5, 5000, phrase("files.parts.rated_capacity_must_between"))
DAY_WH = Measure("Wh", 0.1, 200_000, phrase("files.parts.energy_day_must_between"), optional=True)
BANK_V = Measure("V", 1, 70, phrase("files.parts.voltage_house_bank_must"), optional=True)
STRINGS = phrase("files.parts.enter")


def _defaults(core: type) -> Iterator[tuple[str, Any]]:
    """The default of every field of a part of the core that has one; a list in place of a tuple."""
    for one in fields(core):
        if one.default is not MISSING:
            yield one.name, Field(default_factory=list) if one.default == () else one.default
        elif one.default_factory is not MISSING:
            yield one.name, Field(default_factory=one.default_factory)


@dataclass_transform(kw_only_default=True, field_specifiers=(Field,))
class _PartMeta(ModelMetaclass):
    """Gives the fields of a part the defaults that they have in the core."""

    def __new__(
        mcs,
        name: str,
        bases: tuple[type, ...],
        namespace: dict[str, Any],
        core: type | None = None,
        **more: Any,
    ) -> type:
        """Make a part; ``core`` is what the core takes it as."""
        for field, default in () if core is None else _defaults(core):
            if field in namespace.get("__annotations__", {}):
                namespace.setdefault(field, default)
        return super().__new__(mcs, name, bases, namespace, **more)


class Part(BaseModel, metaclass=_PartMeta):
    """Base of the parts: nothing unknown is taken, and what was checked stays as it is.

    A field that is in the core under the same name has the default of there.
    """

    model_config = ConfigDict(extra="forbid", validate_default=True, frozen=True)


def made(kind: type[P], /, **fields: Any) -> P:
    """A part with some fields given, the others as in the core; type checkers do not see those defaults."""
    return kind(**fields)


def core_of(kind: type[T], part: BaseModel, /, **others: Any) -> T:
    """A part of the document as the core takes it: fields of the same names, lists as tuples.

    Args:
        kind: dataclass of the core.
        part: the checked part.
        others: fields that are not taken over as they stand.

    Raises:
        TypeError: a field without a default is in neither.
    """
    for name in _shared(kind, type(part)):  # type: ignore[arg-type]
        if name not in others:
            value = getattr(part, name)
            others[name] = tuple(value) if isinstance(value, list) else value
    return kind(**others)


@cache
def _shared(kind: type, part: type[BaseModel]) -> tuple[str, ...]:
    """Fields that are in the core and in the document."""
    return tuple(one.name for one in fields(kind) if one.name in part.model_fields)


def unit_volts(value: float, info: ValidationInfo) -> float:
    """Volts of one battery, checked against its class; ValueError with one sentence when they cannot be."""
    reference: Reference | None = (info.context or {}).get("reference")
    key = info.data.get("battery_class")
    if reference and key:
        try:
            cells_of(reference.classes[key], value)
        except InvalidInput as error:
            raise ValueError(error.message) from error
    return value
