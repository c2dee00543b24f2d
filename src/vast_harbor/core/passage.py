"""The whole passage at once: every stop's figures from one plan."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.figures.workings import Figure, Finding
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan, Reference
from vast_harbor.core.stops import banks as banks_stop
from vast_harbor.core.stops import compare as compare_stop
from vast_harbor.core.stops import need as need_stop
from vast_harbor.core.stops.banks import BankFigures, Banks, acts
from vast_harbor.core.stops.charging import Suitability, charging_findings, suitability_of
from vast_harbor.core.stops.compare import Compare, Verdict, verdict_text
from vast_harbor.core.stops.day import Day, day_findings
from vast_harbor.core.stops.need import (
    Days,
    Need,
    Runtime,
    SecondNeed,
    need_findings,
    runtimes,
    second_need,
    standby_days,
)
from vast_harbor.core.stops.rig import VoltageChoice, rig_findings, voltage_choices
from vast_harbor.core.stops.trial import SimulatedRuns, trial_findings


@dataclass(frozen=True)
class Results:
    """All stops of a plan in figures.

    What only one screen shows is put together when somebody asks for it.

    Attributes:
        plan, reference: what they were computed from.
        assumptions: what held.
        days: the kinds of day, and which governs.
        banks, compare: the stops.
        suitability: every source beside every candidate, by the candidate's id.
        simulated: trial and year, which are run step by step; right after an edit, those of the plan
            before it.
        stale: whether ``simulated`` is that of the plan before.
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    banks: Banks
    compare: Compare
    suitability: Mapping[str, tuple[Suitability, ...]]
    simulated: SimulatedRuns
    stale: bool = False

    @cached_property
    def second(self) -> SecondNeed | None:
        """Need of the second bank; None without one."""
        return second_need(self.plan, self.reference, self.assumptions, self.days)

    @cached_property
    def voltages(self) -> tuple[VoltageChoice, ...]:
        """The rig at 12, 24 and 48 V."""
        return voltage_choices(self.plan, self.reference, self.assumptions, self.days)

    @cached_property
    def runtimes(self) -> tuple[Runtime, ...]:
        """How long the day and each load run."""
        return runtimes(self.plan, self.days, self.banks.old_carries)

    @cached_property
    def seasons(self) -> Mapping[str, Figure]:
        """Temperature of the battery by its place in each season [°C]."""
        return derating.season_temperatures(self.plan, self.assumptions)

    @cached_property
    def found(self) -> tuple[Finding, ...]:
        """Findings of Rig, Day and Need."""
        plan, days = self.plan, self.days
        classes = days.need.classes
        label_ah = LazyMapping(classes, lambda key: classes[key].nameplate_ah)
        return (
            rig_findings(plan, days)
            + day_findings(plan, days.days, days.day, label_ah)
            + need_findings(plan, self.reference, days)
        )

    @property
    def verdict(self) -> Verdict:
        """The answer."""
        return self.compare.verdict

    @property
    def day(self) -> Day:
        """The governing day."""
        return self.days.day

    @property
    def need(self) -> Need:
        """The need of the governing day."""
        return self.days.need

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Findings of all stops, in the order of the passage."""
        candidates = tuple(f for c in self.banks.candidates for f in c.findings)
        charging = charging_findings(self.plan, self.suitability)
        trial = trial_findings(self.simulated, self.need)
        return self.found + self.banks.findings + candidates + charging + trial + self.compare.findings

    def figures(self) -> dict[str, Figure]:
        """Every figure of the plan with all that went into it, by key."""
        roots = [*self._day_figures(), *self._need_figures(), *self.seasons.values()]
        roots += [f for c in self.banks.candidates for f in c.figures.values()]
        roots += [f for c in self.banks.candidates for f in _of_checks(c)]
        roots += [f for f in (self.banks.old_kg, self.banks.old_wh) if f is not None]
        roots += self.banks.old_carries.values()
        if self.banks.diagnosis is not None:
            roots += [self.banks.diagnosis.health] if self.banks.diagnosis.health else []
            roots += [f for s in self.banks.diagnosis.suspects for f in s.says.figures.values()]
        for choice in self.voltages:
            roots += [
                choice.peak_a,
                choice.cable,
                choice.converter_wh,
                choice.need_wh,
                *choice.label_ah.values(),
            ]
        for runtime in self.runtimes:
            roots += runtime.figures()
        for compared in self.compare.compared_banks:
            roots += [
                *compared.life.figures.values(),
                *compared.cost.figures.values(),
                *compared.figures.values(),
            ]
        for correction in self.compare.corrections:
            roots += [*correction.figures, *correction.ratios]
        roots += [f for finding in self.findings for f in finding.says.figures.values()]
        roots += [f for c in self.compare.compared_banks for d in c.cost.required_extras for f in (d.price,)]
        roots += self.compare.sentence.figures.values()
        roots += [*self.verdict.figures(), *verdict_text.figures(self.verdict)]
        roots += self._run_figures()
        roots += [a.figure() for a in self.assumptions]
        out: dict[str, Figure] = {}
        stack = roots
        while stack:
            figure = stack.pop()
            if figure.key not in out:
                out[figure.key] = figure
                stack.extend(figure.inputs.values())
        return out

    def _day_figures(self) -> Iterator[Figure]:
        for day in self.days.days.values():
            yield from (day.air_c, day.battery_c, day.idle_wh, day.standby_wh, day.inverter_hours)
            yield from (day.listed_wh, day.cautious_wh, day.bank_wh, day.peak_w, day.mean_a, day.peak_a)
            yield from day.habits.values()
            yield from (f for f in (day.measured_wh, day.second_wh) if f is not None)
            yield from (f for load in day.loads for f in (load.wh, load.bank_wh, load.share))

    def _need_figures(self) -> Iterator[Figure]:
        for need in self.days.needs.values():
            yield from (need.energy, need.overnight, need.nights, need.coldest, need.warmest)
            for c in need.classes.values():
                yield from (c.nameplate_ah, c.nameplate_wh, c.mean_current, c.peak_current, c.rate, *c.steps)
                yield from [c.classical_ah] if c.classical_ah else []
        if self.second is not None:
            yield from (self.second.day_wh, self.second.energy, self.second.from_main)
            yield from self.second.nameplate_ah.values()
        if (left := standby_days(self.plan, self.days)) is not None:
            yield left

    def _run_figures(self) -> Iterator[Figure]:
        for suitability in self.suitability.values():
            for one in suitability:
                yield from (f for p in (*one.points, *one.before) for f in p.says.figures.values())
        if not self.stale:
            for simulated in self.simulated.trial.results:
                yield from simulated.figures.values()
                yield from (f for e in simulated.events for f in e.says.figures.values())
            for year in self.simulated.years.values():
                yield from year.figures.values()
            yield from self.simulated.needs.values()
            for needed in self.simulated.needed.values():
                yield from needed.values()


def _of_checks(banked: BankFigures) -> Iterator[Figure]:
    for check in banked.checks:
        yield from (f for f in (check.figure, check.limit, check.margin) if f is not None)
        yield from check.says.figures.values()
        yield from (r.price for r in check.remedies if r.price is not None)
    if banked.build is not None:
        for act in acts(banked.build):
            yield from (act.soc, act.rested, act.loaded)
    for stage in banked.stages:
        yield from (stage.money, stage.so_far, stage.usable, stage.covered, stage.nights)


def evaluate(plan: Plan, reference: Reference, before: SimulatedRuns | None = None) -> Results:
    """Compute every stop of a plan.

    Args:
        plan: what the owner entered.
        reference: shipped data.
        before: trial and year of the plan as it was before an edit, to go on with until they are run anew;
            None to run them.

    Returns:
        All figures with their workings.

    Raises:
        KeyError: when the plan names a house rule, assumption, class or model that there is not.
    """
    assumptions = reference.assumptions(plan.house_rule, plan.overrides)
    days = need_stop.evaluate(plan, reference, assumptions)
    banks = banks_stop.evaluate(plan, reference, assumptions, days)
    simulated = SimulatedRuns(plan, reference, assumptions, days, banks)
    stale = before is not None and not simulated.known
    if stale and before is not None:
        simulated = before
    suitability = {c.candidate.id: suitability_of(c.build) for c in banks.candidates if c.build is not None}
    went = {r.simulated.id: r for r in simulated.trial.candidates}
    compare = compare_stop.evaluate(
        plan, reference, assumptions, days, banks, simulated.years, went, suitability
    )
    return Results(plan, reference, assumptions, days, banks, compare, suitability, simulated, stale)
