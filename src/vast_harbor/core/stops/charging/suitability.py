"""Will what charges the old bank do for a new one? Each source beside each candidate."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.cached import kept_with
from vast_harbor.core.figures.workings import Figure, Finding, Sentence, escaped
from vast_harbor.core.rig.source_remedies import Rung, ladder, name_of, sources_of
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, NOTE, OK, Build
from vast_harbor.core.stops.charging.source_beside_lead import BesideLead
from vast_harbor.core.stops.charging.source_beside_lithium import BesideLithium
from vast_harbor.core.stops.charging.source_judgement import Point
from vast_harbor.phrases import phrase

WORST = {BLOCKING: 3, CAUTION: 2, NOTE: 1, OK: 0}


@dataclass(frozen=True, slots=True)
class Suitability:
    """A source beside a candidate.

    Attributes:
        source, candidate: ids.
        source_name: what the source is called.
        points: what is wrong, worst first; none where it suits.
        before: what would be wrong without the remedies chosen.
        rungs: remedies that help, the least first.
        chosen: keys of those chosen.
    """

    source: str
    candidate: str
    source_name: str
    points: tuple[Point, ...]
    before: tuple[Point, ...]
    rungs: tuple[Rung, ...]
    chosen: tuple[str, ...]

    @property
    def counts(self) -> bool:
        """Whether something of it is counted in the money."""
        return any(p.counts for p in self.points)

    @property
    def verdict(self) -> str:
        """The worst severity; ``ok`` where it suits."""
        return max((p.severity for p in self.points), key=lambda s: WORST[s], default=OK)

    def finding(self) -> Finding | None:
        """As a finding of the stop; None where it suits."""
        if not self.points:
            return None
        worst = self.points[0]
        says = Sentence(f"{escaped(self.source_name)}: {worst.says.template}", worst.says.figures)
        remedy = self.rungs[0].says if self.rungs else phrase("terms.names.specialist_look")
        return Finding(f"source_{worst.code}", worst.severity, "charging", says, remedy, self.candidate)

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of its points."""
        yield from (f for point in (*self.points, *self.before) for f in point.says.figures.values())


def suitability_of(build: Build, only: str = "") -> tuple[Suitability, ...]:
    """Every source of a rig beside one candidate.

    Args:
        build: the candidate in its rig.
        only: id of the one source that is asked for; empty for all.

    Returns:
        One judgement for each source that charges.
    """
    return _judged(build, only) if only else _all_judged(build)


@kept_with
def _all_judged(build: Build) -> tuple[Suitability, ...]:
    return _judged(build, "")


def _judged(build: Build, only: str) -> tuple[Suitability, ...]:
    plan, battery_class = build.plan, build.bank.model.battery_class
    after = {s.id: s for s in sources_of(plan, build.candidate, battery_class, build.assumptions)}
    changed = bool(build.candidate.fixes)
    out = []
    for index, source in enumerate(plan.sources):
        if not source.charges or (only and source.id != only):
            continue
        before = _points(build, source, index, plan.sources)
        chosen = tuple(f.remedy for f in build.candidate.fixes if f.source == source.id)
        # Another source that wakes the bank is one of those as they are beside this candidate.
        now = _points(build, after[source.id], index, tuple(after.values())) if changed else before
        helps = {key for p in before for key in p.rungs}
        offered = ladder(source, battery_class, build.assumptions, plan.system_v) if helps or chosen else ()
        rungs = tuple(r for r in offered if r.key in chosen or r.key in helps or _in_group(r.key, helps))
        out.append(Suitability(source.id, build.candidate.id, name_of(source), now, before, rungs, chosen))
    return tuple(out)


def _in_group(key: str, helps: set[str]) -> bool:
    return key.startswith("position-") and "position" in helps


def _points(build: Build, source: Source, index: int, sources: Sequence[Source]) -> tuple[Point, ...]:
    beside = BesideLead if build.lead else BesideLithium
    points = beside(build, source, index, sources).points()
    return tuple(sorted(points, key=lambda p: -WORST[p.severity]))
