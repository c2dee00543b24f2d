"""Another place for the bank, and other nights: indoors, and now and then on hook-up."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.plan_place import Locker
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.weather.climate import ENGINE, LIVING, OUTSIDE
from vast_harbor.phrases import phrase


def indoors(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """The bank in the living space instead of outside or beside the engine; None where it stands inside.

    Nothing is known of the new place: its size is asked for, and the temperature follows the place.
    """
    if plan.place not in (OUTSIDE, ENGINE):
        return None
    # Days whose battery temperature the owner measured were measured at the old place.
    days = tuple(replace(one, battery_c=None) for one in plan.day_types)
    return Improvement(
        kind, 0.0, "",
        phrase("improvements.place.indoors_says"),
        lambda p: replace(
            p, place=LIVING, battery_c=None, rest_c=None, day_types=days,
            locker=Locker(opens=p.locker.opens),
        ),
        hidden=phrase("improvements.place.indoors_hidden"),
        worse=Sentence(phrase("improvements.place.indoors_worse")),
        asks=Sentence(phrase("improvements.place.indoors_asks")),
    )  # fmt: skip


def inside(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Moving the bank indoors."""
    if (one := indoors(plan, assumptions, kind, 0.0, "")) is not None:
        yield one


def hook_up(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A night on hook-up after so many off-grid.

    None without a mains charger, or where stays are that short.
    """
    row = plan.nights_in_a_row
    if row is None or row <= size or size < 1 or not any(s.kind == MAINS for s in plan.sources):
        return None
    moved = plan.off_grid_nights / (size + 1)
    return Improvement(
        kind, size, "",
        phrase("improvements.place.hook_up_says", count=int(size)),
        lambda p: replace(
            p, nights_in_a_row=size, off_grid_nights=p.off_grid_nights - moved,
            hook_up_nights=p.hook_up_nights + moved,
        ),
        yearly=moved * assumptions.value("night_elsewhere"),
        worse=Sentence(phrase("improvements.place.hook_up_worse", nights=f"{moved:.0f}")),
    )  # fmt: skip


def shorter_stays(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Hook-up after one, two or three nights."""
    for size in kind.sizes:
        if (one := hook_up(plan, assumptions, kind, size, "")) is not None:
            yield one
