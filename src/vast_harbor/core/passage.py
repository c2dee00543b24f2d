"""The whole passage at once: every stop's figures from one plan."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, fields, replace
from typing import TypeVar, cast

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.catalogue_banks import CatalogueBanks
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import Figure, Finding, Sentence
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.changeover import RUNS
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops import banks as banks_stop
from vast_harbor.core.stops import compare as compare_stop
from vast_harbor.core.stops import need as need_stop
from vast_harbor.core.stops.banks import NO_CHOICE, Banks, Choice, at_nights, chosen_anew
from vast_harbor.core.stops.changeover import Changeover, Work
from vast_harbor.core.stops.charging import Suitability, charging_findings, suitability_of
from vast_harbor.core.stops.compare import Compare, ComparedBank, Verdict, extras_cost_of, verdict_text
from vast_harbor.core.stops.day import Day, day_findings
from vast_harbor.core.stops.need import Days, Need, SecondNeed, need_findings, second_need, standby_days
from vast_harbor.core.stops.rig import Diagnosis, VoltageChoice, forgotten, rig_findings, voltage_choices
from vast_harbor.core.stops.trial import (
    SimulatedRuns,
    SimulationResult,
    YearOf,
    trial_findings,
    unequal_nights,
)
from vast_harbor.phrases import phrase

T = TypeVar("T")
# What is worked out apart and follows from the day and the need alone.
_OF_THE_DAY = ("second", "voltages", "seasons", "found")
# How much of what is asked for apart is kept with a plan.
MOST_ASKED = 16


@dataclass(frozen=True, slots=True)
class Before:
    """What took long to find of a plan, to go on with right after an edit.

    Attributes:
        simulated: trial and year.
        chosen: by class, the model that the tool chose.
        found: the bank that the verdict found beyond the candidates, with its year; None where it chose one
            of those.
    """

    simulated: SimulatedRuns
    chosen: Mapping[str, Choice]
    found: tuple[Bank, YearOf | None] | None


@dataclass(frozen=True, repr=False)
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
        searching: whether the catalogue is still to be looked through for the verdict.
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
    searching: bool = False

    @cached_property
    def second(self) -> SecondNeed | None:
        """Need of the second bank; None without one."""
        return second_need(self.plan, self.reference, self.assumptions, self.days)

    @cached_property
    def voltages(self) -> tuple[VoltageChoice, ...]:
        """The rig at 12, 24 and 48 V."""
        return voltage_choices(self.plan, self.reference, self.assumptions, self.days)

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
            forgotten(plan, self.assumptions)
            + rig_findings(plan, days)
            + day_findings(plan, days.days, days.day, label_ah)
            + need_findings(plan, self.reference, days)
        )

    @cached_property
    def _asked_for(self) -> LruCache[str, object]:
        return LruCache(MOST_ASKED)

    def once(self, name: str, make: Callable[[], T]) -> T:
        """What is asked for apart from the plan, made once for page, report and workings.

        Args:
            name: of it.
            make: makes it.
        """
        return cast(T, self._asked_for.of(name, make))

    def forget(self) -> None:
        """Forget what was asked for apart, so that it takes its time again: for measurements."""
        self._asked_for.clear()

    def noted(self, plan: Plan) -> "Results":
        """The same with all that was worked out so far, for a plan that differs only in what is noted.

        Args:
            plan: as this one, but for its name and for what was done, read and bought of its changeover.
        """
        same = replace(self, plan=plan)
        anew = {field.name for field in fields(self)} | {"changeover", "runs"}
        # Copied first: another thread may be working something out.
        known = self.__dict__.copy()
        same.__dict__.update({key: value for key, value in known.items() if key not in anew})
        return same

    def settled(self) -> "Results":
        """The same with everything run and found: what an edit went on with is worked out anew, and what
        follows from it; the day, the need and the checks of the banks stay as they are."""
        if not self.stale and not self.searching:
            return self
        go_on()
        banks = chosen_anew(self.banks)
        simulated = self.simulated
        if self.stale or banks is not self.banks:
            simulated = SimulatedRuns(self.plan, self.reference, self.assumptions, self.days, banks)
        suitability = {
            c.candidate.id: self.suitability[c.candidate.id] if c is then else suitability_of(c.build)
            for c, then in zip(banks.candidates, self.banks.candidates, strict=True)
            if c.build is not None
        }
        catalogue = CatalogueBanks(banks, simulated)
        compare = _compared(catalogue, suitability, catalogue.best)
        anew = replace(
            self, banks=banks, compare=compare, suitability=suitability, simulated=simulated, stale=False,
            searching=False,
        )  # fmt: skip
        known = self.__dict__.copy()
        anew.__dict__.update({key: known[key] for key in _OF_THE_DAY if key in known})
        return anew

    @cached_property
    def trial_runs(self) -> tuple[SimulationResult, ...]:
        """Every bank through the trial: what the verdict found, the candidates and the old bank."""
        winner, results = self.verdict.winner, self.simulated.trial.results
        if winner is None or winner.is_own or winner.simulated is None:
            return results
        return (winner.simulated, *results)

    def trial_run(self, bank: str) -> SimulationResult | None:
        """How a bank went through the trial, by its id; None of one that is not run."""
        return next((r for r in self.trial_runs if r.simulated.id == bank), None)

    @property
    def verdict(self) -> Verdict:
        """The answer."""
        return self.compare.verdict

    @cached_property
    def unequal_nights(self) -> Sentence | None:
        """Why candidates of about the same usable energy do not supply the same nights."""
        return unequal_nights(self.banks.candidates, self.simulated.years)

    def changeover_to(self, id: str) -> Changeover | None:
        """The changeover to a candidate; None where there is none of that id, or it cannot be built."""
        for compared in self.verdict.compared_banks:
            build = compared.banked.build
            if compared.id == id and build is not None:
                return Changeover(Work(compared, replace(build, plan=self.plan)), self.verdict)
        return None

    @cached_property
    def changeover(self) -> Changeover | None:
        """The changeover to the bank that is bought; None before one is chosen."""
        chosen = self.plan.changeover.chosen
        return self.changeover_to(chosen) if chosen else None

    @cached_property
    def runs(self) -> Sentence | None:
        """That the bank that was bought is in and runs, so that the verdict is history; None before."""
        if self.changeover is None or not self.plan.changeover.tick(RUNS).done:
            return None
        title = self.changeover.work.compared.title
        return Sentence(phrase("compare.verdict_text.runs", title=title))

    @property
    def before(self) -> Before:
        """What took long to find, to go on with after an edit."""
        winner = self.verdict.winner
        found = None
        if winner is not None and winner in self.verdict.found and winner.banked.bank is not None:
            found = winner.banked.bank, winner.year
        return Before(self.simulated, self.banks.chosen, found)

    def at_nights(self, nights: float) -> "Results":
        """The plan at another number of off-grid nights a year, beside the same banks.

        Those that were found are not looked for anew; what a bank needs in addition does not depend on the
        nights.

        Args:
            nights: off-grid nights a year.
        """
        found = [c.banked.bank for c in self.verdict.found if c.banked.bank is not None]
        plan = replace(self.plan, off_grid_nights=nights)
        return evaluate(plan, self.reference, found=found, known=self.banks.proposals.search.known)

    def roughly(self, plan: Plan) -> Verdict:
        """The verdict of a plan that differs little from this one, beside the same banks, in one weather.

        Args:
            plan: the plan that differs; of its candidates the tool chooses those that it chose here.
        """
        return self.roughly_at(plan).verdict

    def roughly_at(self, plan: Plan) -> "Results":
        """All stops of such a plan; see :meth:`roughly`."""
        found = [c.banked.bank for c in self.verdict.found if c.banked.bank is not None]
        if replace(plan, off_grid_nights=self.plan.off_grid_nights) != self.plan:
            return evaluate(plan, self.reference, found=found, chosen=self.banks.chosen, rough=True)
        go_on()
        assumptions, days = self.assumptions, self.days
        banks = at_nights(self.banks, plan, extras_cost_of(plan, assumptions))
        simulated = SimulatedRuns(plan, self.reference, assumptions, days, banks, 1)
        catalogue = CatalogueBanks(banks, simulated)
        compare = _compared(
            catalogue, self.suitability, lambda: tuple(catalogue.in_full(bank) for bank in found), rough=True
        )
        return replace(
            self, plan=plan, banks=banks, compare=compare, simulated=simulated, stale=False, searching=False
        )

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
        charging = charging_findings(self.plan, self.assumptions, self.suitability)
        trial = trial_findings(self.simulated, self.need)
        return self.found + self.banks.findings + candidates + charging + trial + self.compare.findings

    @cached_property
    def plan_findings(self) -> tuple[Finding, ...]:
        """Findings of the plan: the rig's own, and those of the bank that the verdict says to buy.

        What stands against other banks is why they are left out. Of the bank to buy, what is priced in to be
        put right is a caution. Where no bank is to be bought, what stands against all candidates.
        """
        winner = self.verdict.winner
        if winner is None:
            return self.findings
        out = [f for f in self.findings if not f.subject]
        charging = charging_findings(self.plan, self.assumptions, {winner.id: winner.suitability})
        own = winner.banked.findings + tuple(f for f in charging if f.subject)
        for finding in (*own, *(f for f in self.findings if f.subject == winner.id and f.stop == "trial")):
            out.append(replace(finding, severity="caution") if finding.code in winner.met else finding)
        return tuple(out)

    def figures(self) -> dict[str, Figure]:
        """Every figure of the plan with all that went into it, by key."""
        out: dict[str, Figure] = {}
        stack = [*self._shown()]
        while stack:
            figure = stack.pop()
            if figure.key not in out:
                out[figure.key] = figure
                stack.extend(figure.inputs.values())
        return out

    def _shown(self) -> Iterator[Figure]:
        """What the stops show, each its own."""
        yield from self.days.all_figures()
        yield from self.seasons.values()
        if self.second is not None:
            yield from self.second.all_figures()
        if (left := standby_days(self.plan, self.days)) is not None:
            yield left
        for choice in self.voltages:
            yield from choice.all_figures()
        yield from self.banks.all_figures()
        for of_bank in self.suitability.values():
            for one in of_bank:
                yield from one.all_figures()
        if not self.stale:
            yield from self.simulated.all_figures()
            yield from (f for run in self.trial_runs for f in run.all_figures())
            yield from self.unequal_nights.figures.values() if self.unequal_nights is not None else ()
        for compared in self.verdict.compared_banks:
            yield from compared.all_figures()
        yield from self.compare.all_figures()
        yield from (*self.verdict.figures(), *verdict_text.figures(self.verdict))
        yield from (f for finding in self.findings for f in finding.says.figures.values())
        if self.changeover is not None:
            yield from self.changeover.shopping.all_figures()
        yield from (assumption.figure() for assumption in self.assumptions)


def evaluate(
    plan: Plan,
    reference: Reference,
    before: Before | None = None,
    found: Sequence[Bank] | None = None,
    known: dict[Bank, float | None] | None = None,
    chosen: Mapping[str, Choice] = NO_CHOICE,
    rough: bool = False,
    days: Days | None = None,
    diagnosis: Diagnosis | None = None,
) -> Results:
    """Compute every stop of a plan.

    Args:
        plan: what the owner entered.
        reference: shipped data.
        before: what took long of the plan as it was before an edit, to go on with until that is done anew;
            None to do it.
        found: banks of the catalogue that the verdict looks at beyond the candidates; None to look for the
            best of each class when the verdict is asked for.
        known: money for what banks need in addition, of a plan that differs in nothing on which that
            depends; it is added to.
        chosen: by class, the model to go on with where the tool chooses; those not named are looked for.
        rough: whether a first look will do: no trial, and one weather of a year instead of several.
        days: day and need of a plan that differs in nothing on which they depend; None to compute them.
        diagnosis: what the old bank shows, where that is known already; None to work it out.

    Returns:
        All figures with their workings.

    Raises:
        KeyError: when the plan names a house rule, assumption, class or model that there is not.
    """
    go_on()
    assumptions = reference.assumptions(plan.house_rule, plan.overrides, plan.currency)
    days = days or need_stop.evaluate(plan, reference, assumptions)
    chosen = before.chosen if before is not None else chosen
    extras_cost = extras_cost_of(plan, assumptions)
    banks = banks_stop.evaluate(plan, reference, assumptions, days, extras_cost, chosen, known, diagnosis)
    simulated = SimulatedRuns(plan, reference, assumptions, days, banks, 1 if rough else None)
    if before is not None:
        before.simulated.keep()
    stale = before is not None and not simulated.known
    if stale and before is not None:
        simulated = before.simulated
    suitability = {c.candidate.id: suitability_of(c.build) for c in banks.candidates if c.build is not None}
    catalogue = CatalogueBanks(banks, simulated)

    def find() -> tuple[ComparedBank, ...]:
        if before is not None and found is None:
            return catalogue.gone_on_with(before.found)
        return catalogue.best() if found is None else tuple(catalogue.in_full(bank) for bank in found)

    compare = _compared(catalogue, suitability, find, rough)
    searching = before is not None and found is None
    return Results(
        plan, reference, assumptions, days, banks, compare, suitability, simulated, stale, searching
    )


def _compared(
    catalogue: CatalogueBanks,
    suitability: Mapping[str, tuple[Suitability, ...]],
    find: Callable[[], tuple[ComparedBank, ...]],
    rough: bool = False,
) -> Compare:
    """The comparison of the candidates, and of what is found for them."""
    banks, simulated = catalogue.banks, catalogue.simulated
    limits = banks.rig_limits
    went = {} if rough else {r.simulated.id: r for r in simulated.trial.candidates}
    return compare_stop.evaluate(
        limits.plan, limits.assumptions, limits.days, banks, simulated.years, went, suitability, find,
        catalogue.smallest,
    )  # fmt: skip
