"""More charge: from the alternator, from the mains, from a generator."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.improvements.improvement import Change, Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.plan import CABIN, Plan
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import CHARGE_V, DC_DC, ENGINE, GENERATOR, MAINS, MAINS_EFFICIENCY, Source
from vast_harbor.phrases import phrase

# A generator burns so much for each watt that it can give [l/h].
LITRES_PER_WH = 0.0006
# What even a small hook-up gives [W].
SURE_SUPPLY_W = 1000.0
# Without a stated alternator no more is advised than half of a small one gives [A].
UNKNOWN_ALTERNATOR_A = 30.0


def dc_dc(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A DC-DC charger for the alternator, new or in place of a relay or of a smaller one.

    None where the rig has no engine, where the alternator would be loaded over half its rating, or where what
    is there gives as much.
    """
    if plan.kind == CABIN or plan.drive_hours <= 0 or size <= 0:
        return None
    there = next((s for s in plan.sources if s.kind == ENGINE and (not target or s.id == target)), None)
    if target and there is None:
        return None
    known = there is not None and not there.assumed
    half = there.alternator_a / 2 / (plan.system_v / 12) if there is not None else 0.0
    most = half if known else UNKNOWN_ALTERNATOR_A / (plan.system_v / 12)
    if size > most or (there is not None and not there.is_relay and (there.amps or 0.0) >= size):
        return None
    amps = f"{size:g}"
    base = there or Source("planned-dc_dc", ENGINE, phrase("improvements.chargers.dc_dc_source", amps=amps))
    new = replace(
        base, link=DC_DC, amps=size, absorption_v=14.4, float_v=13.5, timeout_h=None, adjustable=True,
        wakes=True, rests=False,
    )  # fmt: skip

    return Improvement(
        kind, size, there.id if there is not None else "",
        phrase("improvements.chargers.dc_dc_says", amps=amps),
        _with(new),
        hidden=phrase("improvements.chargers.dc_dc_hidden"),
        worse=Sentence(phrase("improvements.chargers.dc_dc_worse")),
        asks=None if known else Sentence(phrase("improvements.chargers.dc_dc_asks")),
    )  # fmt: skip


def mains_charger(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A larger mains charger; None where nothing feeds one, or what is there gives as much."""
    there = next((s for s in plan.sources if s.kind == MAINS and (not target or s.id == target)), None)
    fed = plan.hook_up_nights > 0 or any(s.kind == GENERATOR for s in plan.sources)
    if (
        not fed
        or size <= 0
        or (target and there is None)
        or (there is not None and (there.amps or 0) >= size)
    ):
        return None
    amps = f"{size:g}"
    base = there or Source("planned-mains", MAINS, phrase("improvements.chargers.mains_source", amps=amps))
    new = replace(
        base, amps=size, adjustable=True, wakes=True, rests=False, built_in=False, timeout_h=None,
        absorption_v=base.absorption_v or 14.4, float_v=base.float_v or 13.5,
    )  # fmt: skip

    return Improvement(
        kind, size, there.id if there is not None else "",
        phrase("improvements.chargers.mains_says", amps=amps),
        _with(new),
        hidden=phrase("improvements.chargers.mains_hidden"),
        asks=_supply(plan, kind, size),
    )  # fmt: skip


def _supply(plan: Plan, kind: ImprovementKind, amps: float) -> Sentence | None:
    """Whether the hook-up bears a charger: asked where it takes more than the smallest supplies give."""
    watts = amps * CHARGE_V * plan.system_v / 12 / MAINS_EFFICIENCY
    if watts <= SURE_SUPPLY_W:
        return None
    takes = Figure(
        f"improvement.mains_charger.{amps:g}.watts", phrase("improvements.chargers.mains_watts"), watts, "W",
        REFERENCE, source=kind.source,
    )  # fmt: skip
    return Sentence(phrase("improvements.chargers.mains_asks"), {"watts": takes})


def lower(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A charger set to fewer amps, for a bank that takes no more.

    None where its owner did not say that it can be set, or where it gives no more than that.
    """
    there = next((s for s in plan.sources if s.id == target and s.kind in (ENGINE, MAINS)), None)
    if there is None or there.is_relay or not there.adjustable or not 0 < size < (there.amps or 0.0):
        return None
    return Improvement(
        kind, size, target,
        phrase("improvements.chargers.lower_says", name=name_of(there), amps=f"{size:g}"),
        _with(replace(there, amps=size)),
        worse=Sentence(phrase("improvements.chargers.lower_worse")),
    )  # fmt: skip


def lower_settings(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Fewer amps for each charger that can be set."""
    for source in plan.sources:
        for size in kind.sizes:
            if (one := lower(plan, assumptions, kind, size, source.id)) is not None:
                yield one


def generator(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A generator for the mains charger; None where there is one, or no charger that it could feed."""
    if size <= 0 or not any(s.kind == MAINS for s in plan.sources):
        return None
    if any(s.kind == GENERATOR for s in plan.sources):
        return None
    watts = f"{size:g}"
    new = Source(
        "planned-generator", GENERATOR, phrase("improvements.chargers.generator_source", watts=watts),
        watts=size, litres_per_h=LITRES_PER_WH * size,
    )  # fmt: skip
    return Improvement(
        kind, size, "",
        phrase("improvements.chargers.generator_says", watts=watts),
        _with(new),
        worse=Sentence(phrase("improvements.chargers.generator_worse")),
        asks=Sentence(phrase("improvements.chargers.generator_asks")),
    )  # fmt: skip


def _with(new: Source) -> Change:
    """The rig with a source in the place of the one of its id, or beside the others."""

    def change(plan: Plan) -> Plan:
        there = {s.id: s for s in plan.sources}
        return replace(plan, sources=tuple((there | {new.id: new}).values()))

    return change


def _target_of(plan: Plan, kind: str) -> str:
    return next((s.id for s in plan.sources if s.kind == kind), "")


def more_dc_dc(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """DC-DC chargers that the alternator bears."""
    for size in kind.sizes:
        if (one := dc_dc(plan, assumptions, kind, size, _target_of(plan, ENGINE))) is not None:
            yield one


def more_mains(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Mains chargers that give more than what is there."""
    for size in kind.sizes:
        if (one := mains_charger(plan, assumptions, kind, size, _target_of(plan, MAINS))) is not None:
            yield one


def generators(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Generators where there is none."""
    for size in kind.sizes:
        if (one := generator(plan, assumptions, kind, size, "")) is not None:
            yield one
