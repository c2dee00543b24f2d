"""More sun: panels with a controller of their own, and a better controller for those that are there."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.plan import CABIN, Plan
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import MPPT, PWM, SOLAR, Source
from vast_harbor.phrases import phrase

# Free roof for panels where the owner did not state it, by the kind of rig [m²]. It is asked before they are
# bought.
TYPICAL_M2 = {"van": 2.2, "caravan": 2.2, "rv": 4.5, "boat": 1.6, "cabin": 6.5, "other": 2.2}
# Panels of a cabin stand about as steep as its latitude.
FLAT = 0.0


def panels(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """So many watts of panels; None where the sun of the place is not known, or the roof is too small."""
    if plan.site.latitude is None or size <= 0:
        return None
    square = kind.m2_each * size
    if square > (TYPICAL_M2[plan.kind] if plan.roof_m2 is None else plan.roof_m2) + 1e-9:
        return None
    like = next((s for s in plan.sources if s.kind == SOLAR), None)
    latitude = plan.site.latitude
    standing = (abs(latitude), 180.0 if latitude >= 0 else 0.0) if plan.kind == CABIN else (FLAT, 180.0)
    tilt, azimuth = standing if like is None else (like.tilt, like.azimuth)
    watts = f"{size:g}"
    area = Figure(
        f"improvement.panels.{watts}.area",
        phrase("improvements.panels.area"),
        square,
        "m²",
        REFERENCE,
        source=kind.source,
    )
    source = Source(
        f"planned-{kind.key}", SOLAR, phrase("improvements.panels.source", watts=watts), watts=size,
        controller=MPPT, tilt=tilt, azimuth=azimuth, adjustable=True, wakes=True,
    )  # fmt: skip
    return Improvement(
        kind, size, "",
        phrase("improvements.panels.says", watts=watts),
        lambda p: replace(p, sources=(*p.sources, source)),
        hidden=phrase("improvements.panels.hidden"),
        worse=Sentence(phrase("improvements.panels.worse"), {"area": area}),
        asks=None
        if plan.roof_m2 is not None
        else Sentence(phrase("improvements.panels.asks"), {"area": area}),
    )  # fmt: skip


def more_panels(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Panels in every size that the roof takes."""
    for size in kind.sizes:
        if (one := panels(plan, assumptions, kind, size, "")) is not None:
            yield one


def controller(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """An MPPT controller in place of a PWM one; None where the source has none of that kind."""
    source = next((s for s in plan.sources if s.id == target), None)
    if source is None or source.kind != SOLAR or source.controller != PWM or source.watts <= 0:
        return None
    new = replace(source, controller=MPPT, adjustable=True, amps=None)
    return Improvement(
        kind, source.watts, target,
        phrase("improvements.panels.controller_says", name=name_of(source)),
        lambda p: replace(p, sources=tuple(new if s.id == target else s for s in p.sources)),
        hidden=phrase("rig.source_remedies.disconnect_panels_before_replace"),
    )  # fmt: skip


def better_controllers(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """An MPPT controller for each source that has a PWM one."""
    for source in plan.sources:
        if (one := controller(plan, assumptions, kind, 0.0, source.id)) is not None:
            yield one
