"""Which kind of day follows which: off-grid nights in a row, drives, nights on hook-up."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.rig.day_types import HOOK_UP, LAID_UP, OFF_GRID, TRAVELLING, DayType
from vast_harbor.core.rig.months import season_of, type_for
from vast_harbor.core.rig.plan import CABIN, Plan
from vast_harbor.core.rig.sources import ENGINE
from vast_harbor.phrases import phrase

# Nights in a row where the owner does not say.
IN_A_ROW = 3


@dataclass(frozen=True, slots=True)
class DaySpec:
    """One day of a stretch.

    Attributes:
        kind: one of ``day_types.KINDS``.
        type: the kind of day of the rig whose loads it has.
        hook_up: whether it has mains, from midnight to midnight.
        drives: whether the engine runs.
        pitch: key of ``sources.PITCHES``.
        month: 1 to 12; 0 for the month of its stretch.
    """

    kind: str
    type: DayType
    hook_up: bool
    drives: bool
    pitch: str
    month: int = 0


def has_hook_up(plan: Plan) -> bool:
    """Whether mains is there between two rows of nights: a cabin cannot be driven to it."""
    return plan.kind != CABIN or plan.hook_up_nights > 0


def idle_type(plan: Plan, month: int) -> DayType:
    """The kind of day on which nobody is there: the owner's, else one on which only what must stays on."""
    own = next((t for t in plan.day_types if t.kind == LAID_UP), None)
    return own if own is not None else nobody_there(season_of(month, plan.site.south))


def nobody_there(season: str) -> DayType:
    """A day on which nobody is there: standby, and what is marked to stay on."""
    name = phrase("trial.year.nobody_there")
    return DayType(f"nobody-there-{season}", name, kind=LAID_UP, season=season)


def in_a_row(plan: Plan) -> int:
    """Nights off-grid in a row: as tried, as the rig has them, else three."""
    if plan.trial.nights is not None:
        return plan.trial.nights
    return max(1, round(plan.nights_in_a_row or IN_A_ROW))


def stretch(
    plan: Plan, days: int, month: int, row: int, first: int = 0, pitches: Sequence[str] = ()
) -> tuple[DaySpec, ...]:
    """The days of a stretch: so many nights off-grid, then one on hook-up, and again.

    Where there is none to be had, a cabin is left for a day instead.

    Args:
        plan: the plan.
        days: how many.
        month: 1 to 12.
        row: nights off-grid in a row.
        first: day of the pattern with which it begins; 0 is the first off-grid one.
        pitches: where it stands night by night; none for the rig's pitch.

    Returns:
        The days. It drives on the first day of each row, or as often as the rig does; where no kind of day is
        a travelling one but the engine charges, an ordinary day is driven on.
    """
    has_engine = any(s.kind == ENGINE for s in plan.sources) and plan.drive_hours > 0
    places = tuple(pitches) or plan.trial.pitches or (plan.pitch,)
    out = []
    for d in range(days):
        at = (d + first) % (row + 1)
        place = places[d % len(places)]
        if at == row and not has_hook_up(plan):
            out.append(DaySpec(LAID_UP, idle_type(plan, month), False, False, place))
            continue
        hook_up = at == row
        every = plan.drive_every
        drives = has_engine and not hook_up and (at == 0 if every is None else at % every == 0)
        kind = HOOK_UP if hook_up else TRAVELLING if drives else OFF_GRID
        out.append(DaySpec(kind, type_for(plan, kind, month), hook_up, drives, place))
    return tuple(out)


def laid_up(plan: Plan, days: int, month: int) -> tuple[DaySpec, ...]:
    """Days on which nobody is there and nothing is plugged in."""
    return (DaySpec(LAID_UP, idle_type(plan, month), False, False, plan.pitch),) * days
