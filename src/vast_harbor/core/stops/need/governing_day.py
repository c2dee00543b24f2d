"""The kinds of day side by side, and which of them the plan is made for."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import CARRIED, LAID_UP, DayType
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops import day as day_stop
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import energy_need as need_stop
from vast_harbor.core.stops.need.energy_need import Need
from vast_harbor.core.stops.need.label_requirement import LabelRequirement
from vast_harbor.core.stops.need.label_requirement import label_requirement as label_requirement_of


@dataclass(frozen=True)
class Days:
    """All kinds of day.

    Attributes:
        days: each kind of day, by its id.
        need: what the governing one needs.
        governing: id of the one that the plan is made for.
        chosen: whether the owner chose it, rather than that it asks most.
        label_requirement: id → what it asks, by which the governing one is found.
        disagree: battery classes for which another kind of day would ask more, with its id.
        build: the need of a kind of day with its workings, by its id.
    """

    days: Mapping[str, Day]
    need: Need
    governing: str
    chosen: bool
    label_requirement: Mapping[str, LabelRequirement]
    disagree: Mapping[str, str]
    build: Callable[[str], Need]

    @property
    def day(self) -> Day:
        """The governing day."""
        return self.days[self.governing]

    @cached_property
    def used(self) -> tuple[Day, ...]:
        """Kinds of day on which somebody is there; the governing one where there is no other."""
        return tuple(d for d in self.days.values() if d.type.kind != LAID_UP) or (self.day,)

    @cached_property
    def hardest(self) -> Day:
        """The kind of day with the hardest moment, of those that the bank carries alone."""
        carried = [d for d in self.used if d.type.kind in CARRIED]
        return max(carried or self.used, key=lambda d: d.peak.watts)

    @cached_property
    def coldest(self) -> Figure:
        """Coldest that the battery is on any kind of day in use [°C]."""
        return min((d.battery_c for d in self.used), key=lambda t: t.number)

    @cached_property
    def warmest(self) -> Figure:
        """Warmest that the battery is on any kind of day in use [°C]."""
        return max((d.battery_c for d in self.used), key=lambda t: t.number)

    @cached_property
    def needs(self) -> Mapping[str, Need]:
        """What each kind of day needs, built when somebody asks for it."""
        return {k: self.need if k == self.governing else self.build(k) for k in self.days}

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the types of day and of their needs."""
        for day in self.days.values():
            yield from day.all_figures()
        for need in self.needs.values():
            yield from need.all_figures()


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions) -> Days:
    """Every kind of day, and the one that governs.

    It is the one that asks most of the labels of all five classes together, of those that the bank must
    carry alone; hook-up and laid-up days only where there is no other. The owner may choose another.

    Args:
        plan: what the owner entered, with at least one kind of day.
        reference: shipped data.
        assumptions: what holds for the plan.

    Returns:
        All of them in figures.
    """
    days = {t.id: day_stop.evaluate(plan, assumptions, t) for t in plan.day_types}
    label_requirement = {
        k: label_requirement_of(plan, reference, assumptions, day) for k, day in days.items()
    }
    eligible = [t.id for t in _eligible(plan.day_types)]
    chosen = plan.governing in days
    most = max(eligible, key=lambda k: label_requirement[k].total)
    governing = plan.governing if chosen and plan.governing else most

    def build(key: str) -> Need:
        at = "need" if key == governing else f"need.on.{key}"
        return need_stop.evaluate(plan, reference, assumptions, days[key], at)

    in_use = [day.battery_c for day in days.values() if day.type.kind != LAID_UP]
    in_use = in_use or [days[governing].battery_c]
    need = replace(
        build(governing),
        coldest=min(in_use, key=lambda f: f.number),
        warmest=max(in_use, key=lambda f: f.number),
    )
    disagree = {}
    for key in reference.classes:
        other = max(eligible, key=lambda k: label_requirement[k].label_wh[key])
        if label_requirement[other].label_wh[key] > label_requirement[governing].label_wh[key] * (1 + 1e-9):
            disagree[key] = other
    return Days(days, need, governing, chosen, label_requirement, disagree, build)


def _eligible(types: tuple[DayType, ...]) -> list[DayType]:
    return [t for t in types if t.carried] or [t for t in types if t.kind != LAID_UP] or list(types)
