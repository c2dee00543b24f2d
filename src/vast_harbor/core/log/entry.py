"""One entry of the log."""

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

READING, DAY_TOTAL, CAPACITY_TEST, CHARGE, GENERATOR = "reading", "day", "test", "charge", "generator"
WATER, EQUALISE, FULL, DEEP, FAULT = "water", "equalise", "full", "deep", "fault"
SETTING, COST, RECEIPT, WORK, NOTE = "setting", "cost", "receipt", "work", "note"
KINDS = (
    READING, DAY_TOTAL, CAPACITY_TEST, CHARGE, GENERATOR, WATER, EQUALISE, FULL, DEEP, FAULT, SETTING, COST,
    RECEIPT, WORK, NOTE,
)  # fmt: skip

PRESENT, OLD, SECOND, STARTING = "present", "old", "second", "starting"
BANKS = (PRESENT, OLD, SECOND, STARTING)

# Numbers that an entry may hold, with their stored units.
UNITS: Mapping[str, str] = MappingProxyType(
    {
        "volts": "V", "amps": "A", "soc": "1", "celsius": "°C", "ah": "Ah", "wh": "Wh", "litres": "l fuel",
        "hours": "h", "price": "money",
    }
)  # fmt: skip
# Which of them, and which marks, a kind is asked for; what else is typed is kept with it all the same.
FIELDS: Mapping[str, tuple[str, ...]] = MappingProxyType(
    {
        READING: ("volts", "amps", "soc", "celsius", "rested"),
        DAY_TOTAL: ("wh", "ah"),
        CAPACITY_TEST: ("amps", "hours", "ah", "celsius"),
        CHARGE: ("source", "amps", "hours", "ah"),
        GENERATOR: ("hours", "litres"),
        WATER: ("litres",),
        EQUALISE: ("hours", "volts"),
        FULL: ("volts", "amps"),
        DEEP: ("soc", "hours", "frozen"),
        FAULT: ("volts", "amps", "celsius"),
        SETTING: (),
        COST: ("price",),
        RECEIPT: ("price",),
        WORK: ("hours", "price"),
        NOTE: (),
    }
)


@dataclass(frozen=True, slots=True)
class Entry:
    """Something that was read or done.

    Attributes:
        id: made by whoever enters it, so that what is sent twice is kept once.
        at: when, seconds since 1970 UTC [s].
        offset_min: how far the owner's clock was ahead of UTC then [min].
        kind: one of ``KINDS``.
        bank: ``present``, ``old``, ``second`` or ``starting``.
        battery: which battery of it, from 1; 0 for the whole bank.
        volts, amps: as read [V], [A]; amps above 0 flow into the bank. Of a capacity test, the load.
        soc, celsius: state of charge [-], temperature of the battery [°C].
        rested: whether it stood without load and charge for hours; None where not said.
        ah, wh: charge and energy: of a day used, of a test or charge moved [Ah], [Wh].
        litres: water or fuel [l].
        hours: how long it lasted [h].
        price: what it cost [money].
        frozen: whether it froze; None where not said.
        source: id of the source that charged; empty for none.
        duty: key of the duty that this did, or put off; empty for none.
        until: until when that duty is put off, seconds since 1970 UTC [s]; None where it was done.
        text: in words.
    """

    id: str
    at: int
    kind: str
    offset_min: int = 0
    bank: str = PRESENT
    battery: int = 0
    volts: float | None = None
    amps: float | None = None
    soc: float | None = None
    celsius: float | None = None
    rested: bool | None = None
    ah: float | None = None
    wh: float | None = None
    litres: float | None = None
    hours: float | None = None
    price: float | None = None
    frozen: bool | None = None
    source: str = ""
    duty: str = ""
    until: int | None = None
    text: str = ""
