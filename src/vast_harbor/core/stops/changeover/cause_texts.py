"""What a reading means, in words: the cause, where it is, and what to look at next."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from vast_harbor.core.installation.bank_circuit import (
    AMPS_SOCKET,
    ASLEEP,
    DEAD_CELL,
    ISOLATOR_OFF,
    LOOSE,
    MAIN_FUSE,
    REVERSED,
    STRING_FUSE,
    SWAPPED,
    UNEQUAL,
    WEAK,
)
from vast_harbor.core.installation.fault_finding import CHARGING, NOT_RESTED, OTHER_LOAD, Cause
from vast_harbor.core.stops.changeover.measurements import JOINTS, SOURCE, Measurement
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class CauseText:
    """A cause in words.

    Attributes:
        kind: of the cause.
        says, next: what it is, and what to look at next.
        chance: how likely, of all that was thought of [-].
    """

    kind: str
    says: str
    next: str
    chance: float


def _where(cause: Cause) -> str:
    if cause.string > 0:
        return phrase("changeover.causes.in_string", string=cause.string)
    return phrase("changeover.causes.in_other") if cause.string < 0 else ""


_SAYS: Mapping[str, Callable[[str], tuple[str, str]]] = MappingProxyType(
    {
        REVERSED: lambda w: (
            phrase("changeover.causes.reversed", where=w), phrase("changeover.causes.reversed_next")
        ),
        LOOSE: lambda w: (phrase("changeover.causes.loose", where=w), phrase("changeover.causes.loose_next")),
        WEAK: lambda w: (phrase("changeover.causes.weak", where=w), phrase("changeover.causes.weak_next")),
        UNEQUAL: lambda w: (
            phrase("changeover.causes.unequal", where=w), phrase("changeover.causes.unequal_next")
        ),
        ASLEEP: lambda w: (
            phrase("changeover.causes.asleep", where=w), phrase("changeover.causes.asleep_next")
        ),
        DEAD_CELL: lambda w: (
            phrase("changeover.causes.dead_cell", where=w), phrase("changeover.causes.dead_cell_next")
        ),
        STRING_FUSE: lambda w: (
            phrase("changeover.causes.string_fuse", where=w), phrase("changeover.causes.string_fuse_next")
        ),
        MAIN_FUSE: lambda w: (
            phrase("changeover.causes.main_fuse"), phrase("changeover.causes.main_fuse_next")
        ),
        ISOLATOR_OFF: lambda w: (
            phrase("changeover.causes.isolator_off"), phrase("changeover.causes.isolator_off_next")
        ),
        AMPS_SOCKET: lambda w: (
            phrase("changeover.causes.amps_socket"), phrase("changeover.causes.amps_socket_next")
        ),
        SWAPPED: lambda w: (phrase("changeover.causes.swapped"), phrase("changeover.causes.swapped_next")),
        NOT_RESTED: lambda w: (
            phrase("changeover.causes.not_rested"), phrase("changeover.causes.not_rested_next")
        ),
        CHARGING: lambda w: (phrase("changeover.causes.charging"), phrase("changeover.causes.charging_next")),
        OTHER_LOAD: lambda w: (
            phrase("changeover.causes.other_load"), phrase("changeover.causes.other_load_next")
        ),
    }
)  # fmt: skip


def cause_texts(made: Measurement, most: int = 3) -> tuple[CauseText, ...]:
    """The likeliest causes of a reading that is not as it should be, in words.

    Args:
        made: the measurement.
        most: how many.
    """
    out = []
    for cause in made.causes[:most]:
        says, then = _SAYS[cause.kind](_where(cause))
        out.append(CauseText(cause.kind, says, then, cause.chance))
    return tuple(out)


def remark(made: Measurement, bank_v: float) -> str:
    """What is odd about a number before anything of the bank is suspected; empty for nothing.

    Args:
        made: the measurement, out of its range.
        bank_v: class volts of the bank [V].
    """
    value, should = made.value, made.should
    if value is None or made.verdict != "out":
        return ""
    if made.kind == SOURCE:
        return (
            phrase("changeover.causes.source_less")
            if value < should.low
            else phrase("changeover.causes.source_more")
        )
    if made.unit == "A" and 0.8 * bank_v <= value <= 1.3 * bank_v and should.high < 0.8 * bank_v:
        return phrase("changeover.causes.looks_like_volts", value=f"{value:g}")
    if made.unit == "V" and value < 0 and should.holds(-value):
        return phrase("changeover.causes.negative", value=f"{-value:g}")
    if made.unit == "V" and should.high < 1 and should.holds(value / 1000):
        return phrase("changeover.causes.millivolts", value=f"{value:g}")
    if made.kind == JOINTS:
        return phrase("changeover.causes.hot")
    return ""


def label(made: Measurement, units: int, strings: int, source: str) -> str:
    """What is measured, in words.

    Args:
        made: the measurement.
        units: batteries of the bank.
        strings: strings of the bank.
        source: name of its source; empty for none.
    """
    point = made.point
    if made.kind == JOINTS or point is None:
        return source if source else phrase("changeover.points.joints")
    if point.kind == "unit":
        if units == 1:
            return phrase("changeover.points.only_unit")
        if strings == 1:
            return phrase("changeover.points.unit", at=point.at)
        if units == strings:
            return phrase("changeover.points.unit", at=point.string)
        return phrase("changeover.points.unit_of_string", at=point.at, string=point.string)
    if point.kind == "string":
        return (
            phrase("changeover.points.only_string")
            if strings == 1
            else phrase("changeover.points.string", string=point.string)
        )
    if point.kind == "link":
        return phrase("changeover.points.link", string=point.string, one=point.at, two=point.at + 1)
    if point.kind == "share":
        return phrase("changeover.points.share", string=point.string)
    return {
        "bank": phrase("changeover.points.bank"),
        "fused": phrase("changeover.points.fused"),
        "isolated": phrase("changeover.points.isolated"),
        "plus": phrase("changeover.points.plus"),
        "minus": phrase("changeover.points.minus"),
    }[point.kind]
