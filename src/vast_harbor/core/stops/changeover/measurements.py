"""What is measured during the changeover: where, what it should be, what was read, and what that means."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from vast_harbor.core.battery.soc_from_voltage import soc_at
from vast_harbor.core.installation.bank_circuit import (
    APART,
    BANK,
    FED,
    FUSED,
    ISOLATED,
    JOINED,
    LINK,
    LOADED,
    LOOSE,
    MINUS,
    PLUS,
    SHARE,
    SPENT,
    STRING,
    UNIT,
    Circuit,
    Fault,
    Point,
)
from vast_harbor.core.installation.fault_finding import Cause, Expected, causes, expected
from vast_harbor.core.rig.sources import SOLAR, STREAM, UPKEEP, Source
from vast_harbor.core.stops.changeover.work import Work

# Charge of batteries as they arrive from a shop: LFP is sent half full, lead-acid full and ages on the shelf.
LEAD_ARRIVES, LFP_ARRIVES = (0.70, 1.00), (0.20, 0.70)
# Charge after each battery was charged alone, and while the load test runs [-].
CHARGED, TESTED = (0.95, 1.00), (0.90, 1.00)
# The end of the acceptance test is met within so much of the charge [-].
SPENT_DOUBT = 0.05
# Joints at full load: warmer than the place by so much at most [K]. Warm to the touch is well below it.
JOINT_K = 20.0
# Of what a source should give, so much must come for it to be in order [-]; sun and wind give what they have.
GIVES = (0.7, 1.1)
# Batteries side by side differ by no more than so much before they are joined, for 12 V [V].
LEAD_EQUAL_V, LFP_EQUAL_V = 0.1, 0.05
# At so much of the capacity an hour they are made equal [1/h].
EQUALISE_C = 0.1
OK, OUT = "ok", "out"
JOINTS, SOURCE = "joints", "source"


@dataclass(frozen=True, slots=True)
class Measurement:
    """One thing that is measured.

    Attributes:
        key: step and point: ``charged.unit-1-2``.
        kind: of the point, or ``joints`` or ``source``.
        point: on the drawing; None for what is not on it.
        source: id of the source whose current it is; empty for none.
        unit: V, A or °C.
        should: what it should be.
        celsius, soc: at which temperature and charge that is meant [°C], [-].
        value: what was read; None for nothing yet.
        causes: what most likely is wrong, the likeliest first; none where it is as it should be.
    """

    key: str
    kind: str
    point: Point | None
    source: str
    unit: str
    should: Expected
    celsius: float
    soc: float
    value: float | None = None
    causes: tuple[Cause, ...] = ()

    @property
    def verdict(self) -> str:
        """``ok``, ``out``, or empty where nothing was read yet."""
        if self.value is None:
            return ""
        return OK if self.should.holds(self.value) else OUT


# Steps that measure, in order: name, stage, kinds of points, least and most charge.
@dataclass(frozen=True, slots=True)
class _Round:
    step: str
    stage: str
    kinds: tuple[str, ...]
    socs: tuple[float, float]
    soc: float
    amps: float = 0.0


def _rounds(work: Work) -> Iterator[_Round]:
    arrives = LEAD_ARRIVES if work.lead else LFP_ARRIVES
    left = 1 - work.build.figures["dod"].number
    yield _Round("arrived", APART, (UNIT,), arrives, 0.9 if work.lead else 0.5)
    yield _Round("charged", APART, (UNIT,), CHARGED, 1.0)
    yield _Round("strings", APART, (STRING,), CHARGED, 1.0)
    yield _Round("closed", JOINED, (BANK,), CHARGED, 1.0)
    yield _Round("fused", JOINED, (FUSED,), CHARGED, 1.0)
    yield _Round("isolated", JOINED, (ISOLATED,), CHARGED, 1.0)
    amps, spent = work.load.amps, (max(0.0, left - SPENT_DOUBT), min(1.0, left + SPENT_DOUBT))
    yield _Round("loaded", LOADED, (LINK, PLUS, MINUS), TESTED, 0.97, amps)
    yield _Round("shared", LOADED, (SHARE,), TESTED, 0.97, amps)
    yield _Round("spent", SPENT, (UNIT,), spent, left, amps)
    strongest = strongest_source(work)
    if strongest is not None:
        yield _Round("shared_in", FED, (SHARE,), spent, left, into_bank(work, strongest))


def read(work: Work, step: str, point: str, unit: str = "V") -> float | None:
    """What was read at a point in a step; None for nothing yet."""
    return work.record.readings.get(name_of_reading(work, f"{step}.{point}", unit))


def name_of_reading(work: Work, key: str, unit: str) -> str:
    """The name under which a reading of this bank is kept: bank, step, point, and V, A or C."""
    return f"{work.id}.{key}.{unit.removeprefix('°')}"


def measurements(work: Work) -> dict[str, tuple[Measurement, ...]]:
    """Everything that is measured, by the step that does it.

    Args:
        work: the bank that is bought.

    Returns:
        step → its measurements; steps that have none for this layout are not there.
    """
    out: dict[str, tuple[Measurement, ...]] = {}
    seen_right = False
    for one in _rounds(work):
        circuit = work.circuit.at(one.stage, one.soc, one.amps)
        found: list[Measurement] = []
        for point in work.points:
            if point.kind in one.kinds:
                made = _of_point(work, one, circuit, point, not seen_right, found)
                seen_right |= made.verdict == OK
                found.append(made)
        if found:
            out[one.step] = tuple(found)
    out["joints"] = (_joints(work),)
    before, now = sources_before(work), sources_now(work)
    if before:
        out["sources_before"] = before
    return {**out, "sources": now} if now else out


def _of_point(
    work: Work, one: _Round, circuit: Circuit, point: Point, first: bool, before: Sequence[Measurement]
) -> Measurement:
    # Batteries of one string, and strings, are alike: what they should show is computed once.
    like = next((m for m in before if m.kind == point.kind), None)
    should = like.should if like is not None else expected(circuit, point, one.socs)
    made = Measurement(
        f"{one.step}.{point.id}",
        point.kind,
        point,
        "",
        point.unit,
        should,
        work.celsius,
        one.soc,
        read(work, one.step, point.id, point.unit),
    )
    if made.value is None or made.verdict == OK:
        return made
    return replace(made, causes=causes(circuit, point, made.value, should, first, work.sleeps))


def _joints(work: Work) -> Measurement:
    should = Expected(work.celsius + JOINT_K / 4, work.celsius - JOINT_K, work.celsius + JOINT_K)
    made = Measurement(
        "joints.hottest",
        JOINTS,
        None,
        "",
        "°C",
        should,
        work.celsius,
        0.97,
        read(work, "joints", "hottest", "C"),
    )
    return replace(made, causes=(Cause(LOOSE, 0, 1.0),)) if made.verdict == OUT else made


def into_bank(work: Work, source: Source) -> float:
    """The current of a source into the emptied bank, which then limits it least [A]."""
    return min(source.most_a(work.plan.system_v), work.build.criteria.takes_a)


def strongest_source(work: Work) -> Source | None:
    """The source that charges with the most current; None where none does."""
    found = [s for s in work.sources if s.charges and into_bank(work, s) > 0]
    return max(found, key=lambda s: into_bank(work, s), default=None)


def sources_now(work: Work) -> tuple[Measurement, ...]:
    """The current of each source into the new bank."""
    left = 1 - work.build.figures["dod"].number
    return tuple(
        _of_source(work, "sources", s, into_bank(work, s), left)
        for s in work.sources
        if s.charges and into_bank(work, s) > 0
    )


def sources_before(work: Work) -> tuple[Measurement, ...]:
    """The current of each source of the plan into the old bank; none where there is none."""
    old, volts = work.plan.old_bank, work.plan.system_v
    if old is None:
        return ()
    takes = old.battery_class.charge_c_rate * old.unit_ah * old.parallel
    # Whatever charge the old bank holds and whatever it still takes, less than the source gives is no fault.
    return tuple(
        replace(made, should=replace(made.should, likely=min(made.should.likely, takes), low=0.0))
        for s in work.plan.sources
        if s.charges and s.most_a(volts) > 0
        for made in (_of_source(work, "sources_before", s, s.most_a(volts), 0.5),)
    )


def _of_source(work: Work, step: str, source: Source, most: float, soc: float) -> Measurement:
    low = 0.0 if source.kind in (SOLAR, STREAM, UPKEEP) else GIVES[0] * most
    should = Expected(most, low, GIVES[1] * most)
    return Measurement(
        f"{step}.{source.id}",
        SOURCE,
        None,
        source.id,
        "A",
        should,
        work.celsius,
        soc,
        read(work, step, source.id, "A"),
    )


@dataclass(frozen=True, slots=True)
class Inequality:
    """How far strings are apart before they are joined.

    Attributes:
        volts: between the highest and the lowest [V].
        most: as much as is allowed [V].
        low: the string, or battery, that is lowest, from 1.
        ah: charge that it lacks [Ah]; amps, hours: a charge that brings it there [A], [h].
    """

    volts: float
    most: float
    low: int
    ah: float
    amps: float
    hours: float

    @property
    def equal(self) -> bool:
        """Whether they may be joined."""
        return self.volts <= self.most + 1e-9


def equal_v(work: Work) -> float:
    """By how much strings may differ before they are joined [V]: the rested volts of LFP tell less."""
    bank = work.build.bank
    return (LEAD_EQUAL_V if work.lead else LFP_EQUAL_V) * bank.series * bank.model.unit_class_v / 12


def inequality(work: Work) -> Inequality | None:
    """How far the strings are apart as measured; None for one string, or before all were measured."""
    bank = work.build.bank
    if bank.parallel < 2:
        return None
    volts = [read(work, "strings", f"string-{s}") for s in range(1, bank.parallel + 1)]
    known = [v for v in volts if v is not None]
    if len(known) < bank.parallel:
        return None
    class_v = bank.series * bank.model.unit_class_v
    high, low = max(known), min(known)
    full, short = (soc_at(bank.model.battery_class, class_v, v) for v in (high, low))
    ah, amps = max(0.0, full - short) * bank.model.rated_ah, EQUALISE_C * bank.model.rated_ah
    most = equal_v(work)
    return Inequality(high - low, most, known.index(low) + 1, ah, amps, ah / amps)


def simulated(work: Work, key: str, fault: Fault | None) -> float | None:
    """What a meter would show for a measurement of this bank, with a fault in it or none.

    Args:
        work: the bank that is bought.
        key: of the measurement.
        fault: what is wrong.

    Returns:
        The reading [V], [A] or [°C]; None where there is no such measurement.
    """
    step, _, name = key.partition(".")
    for one in _rounds(work):
        for point in work.points:
            if one.step == step and point.kind in one.kinds and point.id == name:
                return work.circuit.at(one.stage, one.soc, one.amps).reading(point, fault)
    for made in (_joints(work), *sources_before(work), *sources_now(work)):
        if made.key == key:
            hot = made.kind == JOINTS and fault is not None and fault.kind == LOOSE
            return made.should.likely + (40.0 if hot else 0.0)
    return None
