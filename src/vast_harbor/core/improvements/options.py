"""Everything that can be done beside the bank, and the rig as it is once what is planned is done."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, replace

from vast_harbor.core.improvements import chargers, loads, old_bank, panels, place
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import (
    PLANNED,
    REFUSED,
    WANTED,
    ImprovementKind,
    PlannedImprovement,
)
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference

STATES = (PLANNED, REFUSED)
Make = Callable[[Plan, Assumptions, ImprovementKind, float, str], Improvement | None]
Each = Callable[[Plan, Assumptions, ImprovementKind], Iterator[Improvement]]


@dataclass(frozen=True, slots=True)
class Kind:
    """How improvements of a kind are found.

    Attributes:
        make: one of them, of a size, for a load or source; None where it is not possible.
        each: all that are possible in a rig.
    """

    make: Make
    each: Each


KINDS: dict[str, Kind] = {
    "standby": Kind(loads.standby, loads.finding),
    "thrifty": Kind(loads.thrifty, loads.of_loads(loads.thrifty)),
    "drop": Kind(loads.drop, loads.of_loads(loads.drop)),
    "gas": Kind(loads.gas, loads.of_loads(loads.gas)),
    "daylight": Kind(loads.daylight, loads.of_loads(loads.daylight)),
    "panels": Kind(panels.panels, panels.more_panels),
    "controller": Kind(panels.controller, panels.better_controllers),
    "dc_dc": Kind(chargers.dc_dc, chargers.more_dc_dc),
    "mains_charger": Kind(chargers.mains_charger, chargers.more_mains),
    "lower": Kind(chargers.lower, chargers.lower_settings),
    "generator": Kind(chargers.generator, chargers.generators),
    old_bank.JOIN: Kind(old_bank.join, old_bank.more_strings),
    "indoors": Kind(place.indoors, place.inside),
    "insulated": Kind(place.insulated, place.lined),
    "heated": Kind(place.heated, place.pads),
    "hook_up": Kind(place.hook_up, place.shorter_stays),
}


def options(plan: Plan, reference: Reference, assumptions: Assumptions) -> tuple[Improvement, ...]:
    """What can be done beside the bank in addition to what is planned, in the order of doing.

    Args:
        plan: the rig as it is once what is planned is done.
        reference: shipped data.
        assumptions: what holds for the plan.

    Returns:
        Improvements; none that the owner refused, and none of a group of which one is planned.
    """
    refused = [r for r in plan.improvements if r.state == REFUSED]
    planned = {one.group for one in planned_improvements(plan, reference, assumptions)}
    return tuple(
        one
        for key, kind in KINDS.items()
        for one in kind.each(plan, assumptions, reference.improvements[key])
        if one.group not in planned and not any(_refuses(row, one) for row in refused)
    )


def is_refused(kind: str, target: str, plan: Plan) -> bool:
    """Whether the owner said that an improvement of a load is not possible for them.

    Args:
        kind: key of the improvement.
        target: id of the load.
        plan: the rig.
    """
    rows = plan.as_it_is.improvements
    return any(r.state == REFUSED and r.kind == kind and r.target in ("", target) for r in rows)


def _refuses(row: PlannedImprovement, one: Improvement) -> bool:
    same = row.kind == one.kind.key and row.target in ("", one.target)
    return same and row.size in (0.0, one.size)


def planned_improvements(
    plan: Plan, reference: Reference, assumptions: Assumptions
) -> tuple[Improvement, ...]:
    """What is planned beside the bank, in the order of doing; what is not possible any more is left out."""
    return _done(plan.as_it_is, plan.improvements, reference, assumptions)[0]


def _done(
    present: Plan, rows: Iterable[PlannedImprovement], reference: Reference, assumptions: Assumptions
) -> tuple[tuple[Improvement, ...], Plan]:
    """What is planned and still possible, and the rig with it done."""
    order, at, out = list(KINDS), present, []
    planned = [r for r in rows if r.state == PLANNED]
    for row in sorted(planned, key=lambda r: order.index(r.kind)):
        one = KINDS[row.kind].make(at, assumptions, reference.improvements[row.kind], row.size, row.target)
        if one is not None:
            own = one.own_price if row.price is None else row.price
            one = replace(one, id=row.id, own_price=own, wanted=row.tag == WANTED)
            at = one.apply(at)
            out.append(one)
    return tuple(out), at


def carried_out(plan: Plan, reference: Reference) -> Plan:
    """The rig as it is once everything that is planned beside the bank is done.

    Args:
        plan: the rig as it is today, with its rows of improvements.
        reference: shipped data.

    Returns:
        The plan, which remembers the rig as it is today; the same plan where nothing is planned.
    """
    present = plan.as_it_is
    assumptions = reference.assumptions(plan.house_rule, plan.overrides, plan.currency)
    done, made = _done(present, present.improvements, reference, assumptions)
    return replace(made, present=present) if done else present


def with_improvements(plan: Plan, more: Iterable[Improvement], reference: Reference) -> Plan:
    """A plan with more improvements planned.

    Args:
        plan: the plan.
        more: what is added; of a group that is planned already, it takes its place.
        reference: shipped data.
    """
    present, added = plan.as_it_is, list(more)
    groups = {(a.kind.key, a.target) for a in added}
    kept = [r for r in present.improvements if r.state != PLANNED or (r.kind, r.target) not in groups]
    rows = (*kept, *(a.row() for a in added))
    return carried_out(replace(present, improvements=rows), reference)
