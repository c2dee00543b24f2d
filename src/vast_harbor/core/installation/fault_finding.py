"""What a reading should be, and what most likely is wrong where it is not."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.soc_from_voltage import LFP_V, RESTED_V
from vast_harbor.core.installation.bank_circuit import (
    AMPS_SOCKET,
    APART,
    ASLEEP,
    BANK,
    DEAD_CELL,
    DROPS,
    FED,
    FUSED,
    ISOLATED,
    ISOLATOR_OFF,
    JOINED,
    LOADED,
    LOOSE,
    MAIN_FUSE,
    REVERSED,
    SHARE,
    SPENT,
    STRING,
    STRING_FUSE,
    SWAPPED,
    UNEQUAL,
    UNIT,
    WEAK,
    Circuit,
    Fault,
    Point,
)
from vast_harbor.core.installation.wiring import fuses_per_string

# Besides faults of the bank: it has not rested, a charger is on, the load is another than was thought.
NOT_RESTED, CHARGING, OTHER_LOAD = "not_rested", "charging", "other_load"
# How often each is met, before anything is measured: our own judgement, for want of a published count. Only
# the order of the causes follows from it, and only where several explain a reading equally well.
OFTEN: Mapping[str, float] = MappingProxyType(
    {
        UNEQUAL: 0.20, LOOSE: 0.20, ASLEEP: 0.20, SWAPPED: 0.15, REVERSED: 0.12, NOT_RESTED: 0.12,
        OTHER_LOAD: 0.10, AMPS_SOCKET: 0.10, STRING_FUSE: 0.10, MAIN_FUSE: 0.10, ISOLATOR_OFF: 0.10,
        CHARGING: 0.08, WEAK: 0.08, DEAD_CELL: 0.04,
    }
)  # fmt: skip
# A meter that read right before is hardly used wrongly now; batteries that were measured alike stay alike.
SEEN_RIGHT = 0.05
# Sizes that a fault may have: resistance [Ω], health [-], share of the charge that is missing [-].
SIZES: Mapping[str, tuple[float, ...]] = MappingProxyType(
    {
        LOOSE: (0.003, 0.01, 0.02, 0.05, 0.2, 1e6),
        WEAK: (0.3, 0.45, 0.6, 0.7, 0.8),
        UNEQUAL: (0.15, 0.25, 0.4, 0.6, 0.8, 1.0),
    }
)
# Strings side by side share the current within so much [-], and a clamp is off by so much [A].
SHARING, CLAMP_A = 0.10, 0.2
# A voltmeter on its lowest range is off by so much [V].
MILLIVOLTS = 0.0005


@dataclass(frozen=True, slots=True)
class Expected:
    """What a sound bank shows.

    Attributes:
        likely, low, high: the reading, and the range that is as it should be [V] or [A].
    """

    likely: float
    low: float
    high: float

    def holds(self, value: float) -> bool:
        """Whether a reading is as it should be."""
        return self.low <= value <= self.high


def expected(circuit: Circuit, point: Point, socs: tuple[float, float]) -> Expected:
    """What a meter shows at a point of a bank in which nothing is wrong.

    Args:
        circuit: the bank at that moment, at its likeliest charge.
        point: where.
        socs: least and most charge that it may then hold [-].

    Returns:
        Of volts, those of the charges, with the doubt of rested volts for each battery in the path, and of
        the sag half more and a third less; of a drop, from a fifth to twice of what cable and joints cause;
        of a share, a tenth around the mean.
    """
    likely = circuit.reading(point)
    if point.kind == SHARE:
        doubt = max(SHARING * likely, CLAMP_A)
        return Expected(likely, likely - doubt, likely + doubt)
    if point.kind in DROPS:
        return Expected(likely, max(0.0, 0.2 * likely - MILLIVOLTS), 2 * likely + MILLIVOLTS)
    bank = circuit.wiring.bank
    count = 1 if point.kind == UNIT else bank.series
    doubt = RESTED_V if bank.model.battery_class.is_lead_acid else LFP_V
    doubt *= count * bank.model.unit_class_v / 12
    ends = [circuit.at(circuit.stage, soc, circuit.amps).reading(point) for soc in socs]
    rested = circuit.at(JOINED, circuit.soc).reading(point) if circuit.load_a else likely
    sag = max(0.0, rested - likely)
    return Expected(likely, min(ends) - doubt - 0.5 * sag, max(ends) + doubt + 0.33 * sag)


@dataclass(frozen=True, slots=True)
class Cause:
    """Something that may be wrong.

    Attributes:
        kind: of a fault, or ``not_rested``, ``charging``, ``other_load``.
        string: in which string; 0 where the reading does not tell, −1 for another than the one measured.
        chance: how likely, of all that was thought of [-].
    """

    kind: str
    string: int
    chance: float


def causes(
    circuit: Circuit,
    point: Point,
    value: float,
    should: Expected,
    first: bool,
    sleeps: bool,
    often: Mapping[str, float] = OFTEN,
) -> tuple[Cause, ...]:
    """The causes of a reading that is not as it should be, the likeliest first.

    Each thing that can be wrong with exactly this layout is put into the circuit, in several sizes, and
    weighed by how often it is met and how near it comes to what was read (Bayes, a grid over the sizes).

    Args:
        circuit: the bank at that moment.
        point: where it was measured.
        value: what was read [V] or [A].
        should: what it should be.
        first: whether this meter has not read right before.
        sleeps: whether the batteries have a BMS that can be asleep.
        often: how often each is met [-].

    Returns:
        Causes whose chance is 2 % at least.
    """
    width = max((should.high - should.low) / 4, 0.02 if point.kind not in DROPS else MILLIVOLTS)
    weights: dict[tuple[str, int], float] = {}
    for kind, string, shown in _readings(circuit, point, should, sleeps):
        if kind in (AMPS_SOCKET, SWAPPED):
            odds = 1.0 if first else SEEN_RIGHT
        else:
            odds = SEEN_RIGHT if _found_before(kind, point, circuit.stage) else 1.0
        fit = sum(1 / (1 + ((value - x) / max(width, 0.15 * abs(x) if point.kind in DROPS else 0)) ** 2) ** 2
                  for x in shown) / len(shown)  # fmt: skip
        weights[kind, string] = weights.get((kind, string), 0.0) + often[kind] * odds * fit
    total = sum(weights.values()) or 1.0
    found = [Cause(kind, string, weight / total) for (kind, string), weight in weights.items()]
    return tuple(sorted((c for c in found if c.chance >= 0.02), key=lambda c: -c.chance))


def _found_before(kind: str, point: Point, stage: str) -> bool:
    """Whether an earlier step would have found it."""
    if kind in (UNEQUAL, NOT_RESTED, DEAD_CELL, ASLEEP):
        return point.kind != UNIT or stage != APART
    if kind in (REVERSED, STRING_FUSE):
        return stage != APART
    if kind in (MAIN_FUSE, ISOLATOR_OFF) and stage in (LOADED, SPENT, FED):
        return True
    return kind == MAIN_FUSE and point.kind == ISOLATED


def _readings(
    circuit: Circuit, point: Point, should: Expected, sleeps: bool
) -> Iterator[tuple[str, int, list[float]]]:
    """Kind, string and what it would show in each of its sizes, of all that may be wrong."""
    for kind, string, faults in _suspects(circuit, point, sleeps):
        yield kind, string, [circuit.reading(point, fault) for fault in faults]
    if point.kind in (UNIT, STRING, BANK, FUSED, ISOLATED):
        bank = circuit.wiring.bank
        scale = bank.model.unit_class_v / 12 * (1 if point.kind == UNIT else bank.series)
        if not circuit.load_a:
            yield NOT_RESTED, 0, [should.likely + x * scale for x in (0.15, 0.3, 0.5, 0.8)]
        yield CHARGING, 0, [x * scale for x in (13.5, 13.8, 14.1, 14.4, 14.7)]
    if circuit.load_a:
        shares = (0.0, 0.2, 0.4, 0.6, 1.5, 2.0, 3.0)
        others = [circuit.at(circuit.stage, circuit.soc, circuit.amps * x) for x in shares]
        yield OTHER_LOAD, 0, [other.reading(point) for other in others]


def _suspects(circuit: Circuit, point: Point, sleeps: bool) -> Iterator[tuple[str, int, list[Fault]]]:
    """Faults that differ in what they show: those of one kind in one string look alike from outside."""
    yield from ((kind, 0, [Fault(kind)]) for kind in (AMPS_SOCKET, SWAPPED))
    if circuit.stage != APART:
        yield from ((kind, 0, [Fault(kind)]) for kind in (MAIN_FUSE, ISOLATOR_OFF))
    own = point.string or 1
    yield from _in_string(circuit, point, own, point.string, sleeps)
    other = 1 + own % circuit.wiring.bank.parallel
    # Apart, what is wrong in another string shows nowhere.
    if point.string and other != own and circuit.stage != APART:
        yield from _in_string(circuit, point, other, -1, sleeps)
    if circuit.stage in (LOADED, SPENT, FED) and not point.string:
        yield LOOSE, 0, [Fault(LOOSE, 0, 0, size) for size in SIZES[LOOSE]]


def _in_string(
    circuit: Circuit, point: Point, string: int, told: int, sleeps: bool
) -> Iterator[tuple[str, int, list[Fault]]]:
    """Faults of one string, told as in the point's own or in another one (-1)."""
    bank, apart = circuit.wiring.bank, point.kind == UNIT and circuit.stage == APART
    at = min(point.at or 1, bank.series)
    for kind in (REVERSED, ASLEEP if sleeps else DEAD_CELL, WEAK, UNEQUAL):
        if not (apart and kind == REVERSED):
            yield kind, told, [Fault(kind, string, at, size) for size in SIZES.get(kind, (0.0,))]
    if apart:
        return
    if bank.parallel > 1 or bank.series > 1:
        place = _loose_joint(bank, at if point.kind == STRING or point.at else 0)
        yield LOOSE, told, [Fault(LOOSE, string, place, size) for size in SIZES[LOOSE]]
    if fuses_per_string(bank):
        yield STRING_FUSE, told, [Fault(STRING_FUSE, string)]


def _loose_joint(bank: Bank, near: int) -> int:
    """The joint of a string nearest to a place in it; 0 for the one where strings join."""
    if bank.parallel == 1:
        return min(max(near, 1), bank.series - 1)
    return near if near < bank.series else 0
