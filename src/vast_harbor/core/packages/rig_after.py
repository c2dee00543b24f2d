"""A rig once some improvements are made, and the banks that are tried in it."""

from dataclasses import dataclass, replace

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.catalogue_banks import CatalogueBanks, that_will_do
from vast_harbor.core.cost.monte_carlo import spread
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.improvements import Improvement, planned_improvements, with_improvements
from vast_harbor.core.packages.old_bank import KeptBank, kept_bank
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.stops.banks import RigLimits, of_candidate
from vast_harbor.core.stops.compare import NEW, OLD, ComparedBank, Package, uncertainty_of, weigh
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.trial import SimulatedRuns, YearOf, YearPlan


@dataclass(frozen=True, eq=False)
class RigAfter:
    """A rig once some improvements are made.

    Attributes:
        base: the plan as it stands, in figures.
        reference: shipped data.
        added: improvements in addition to what is planned.
        weathers: of the simulated years; None for as many as make them sure.
        today: whether what is planned is left out, too.
        like: a rig whose days are gone on with where this one differs in its sources only; None for none.
    """

    base: Results
    reference: Reference
    added: tuple[Improvement, ...]
    weathers: int | None = 1
    today: bool = False
    like: "RigAfter | None" = None

    @cached_property
    def plan(self) -> Plan:
        """The rig as it is then, without candidates."""
        if self.today:
            return replace(self.base.plan.as_it_is, candidates=(), improvements=())
        plan = with_improvements(self.base.plan, self.added, self.reference) if self.added else self.base.plan
        return replace(plan, candidates=())

    @cached_property
    def results(self) -> Results:
        """The rig in figures."""
        return evaluate(
            self.plan, self.reference, found=(), chosen=self.base.banks.chosen, rough=True, days=self._days,
            diagnosis=self.base.banks.diagnosis,
        )  # fmt: skip

    @cached_property
    def same_days(self) -> bool:
        """Whether day and need are those of the base: it differs in sources, weight, compartment or
        candidates only."""
        return _same_days(self.plan, self.base.plan)

    @cached_property
    def _days(self) -> Days | None:
        """Day and need, where they are those of another rig."""
        if self.same_days:
            return self.base.days
        return None if self._alike is None else self._alike.results.days

    @cached_property
    def _alike(self) -> "RigAfter | None":
        """The rig that is gone on with, where its day and need are those of this one."""
        return self.like if self.like is not None and _same_days(self.plan, self.like.plan) else None

    @cached_property
    def improvements(self) -> tuple[Improvement, ...]:
        """All that is done beside the bank, in the order of doing."""
        return planned_improvements(self.plan, self.reference, self.base.assumptions)

    @cached_property
    def runs(self) -> SimulatedRuns:
        """What is simulated in the rig."""
        runs = replace(self.results.simulated, weathers=self.weathers, like=self._year_of_like)
        if self.same_days:
            runs.year_plan.timeline.take_over(self.base.simulated.year_plan.timeline)
        elif self._alike is not None:
            runs.year_plan.timeline.take_over(self._alike.runs.year_plan.timeline)
        return runs

    @cached_property
    def _year_of_like(self) -> YearPlan | None:
        like = self._alike
        # How stays follow one another may depend on what charges.
        if like is None:
            return None
        if self.plan.locker.insulated != like.plan.locker.insulated:
            return None
        year = like.runs.year_plan
        return year if YearCalendar(self.plan).key == year.calendar.key else None

    @cached_property
    def _banks(self) -> CatalogueBanks:
        return CatalogueBanks(self.results.banks, self.runs)

    def compared(self, bank: Bank) -> ComparedBank | None:
        """A bank of the catalogue in the rig, with its year; None where it will not do there."""
        # What is done beside a bank may be done to it: the rig knows the battery as it will be.
        model = self.plan.models.get(bank.model.id, bank.model)
        return self._banks.that_will_do(bank if model is bank.model else replace(bank, model=model))

    def candidate(self, candidate: Candidate) -> ComparedBank | None:
        """A candidate of the owner in the rig, with its quote and what they chose for it; None where it will
        not do there."""
        banks, limits = self.results.banks, self._limits
        index = next(i for i, c in enumerate(limits.plan.candidates) if c.id == candidate.id)
        made = of_candidate(limits, banks.proposals, candidate, index, banks.old_kg, self.base.banks.chosen)
        return that_will_do(limits, made, banks.old_kg, self.runs.year_of_build)

    @cached_property
    def _limits(self) -> RigLimits:
        """The rig as the candidates of its owner meet it."""
        limits = self.results.banks.rig_limits
        return replace(limits, plan=replace(self.plan, candidates=self.base.plan.candidates))

    @cached_property
    def kept(self) -> KeptBank | None:
        """The old bank in the rig, with its year; None where it cannot be told how it would do."""
        return kept_bank(self.base.banks, self.results.banks, self.runs)

    @cached_property
    def _added(self) -> tuple[Improvement, ...]:
        keys = {one.key for one in self.added}
        return tuple(one for one in self.improvements if one.key in keys)

    @cached_property
    def _kg(self) -> float:
        return sum(one.kg for one in self.improvements)

    @property
    def _old_kg(self) -> float:
        old = self.base.banks.old_kg
        return old.number if old is not None else 0.0

    @property
    def _wanted_nights(self) -> float:
        """Off-grid nights that the owner wants [1/year]: before any of them is spent on hook-up."""
        return self.plan.as_it_is.off_grid_nights

    def _served(self, year: YearOf | None) -> float:
        if year is None or self._wanted_nights <= 0:
            return 1.0
        return year["served_share"].number * self.plan.off_grid_nights / self._wanted_nights

    def package(self, compared: ComparedBank) -> Package:
        """The package with a new bank."""
        years, assumptions = self.plan.years_kept, self.base.assumptions
        _, middle, dear = spread(compared.cost.inputs, uncertainty_of(assumptions), years)
        return Package(
            self.plan, self.improvements, self._added, NEW, compared,
            weigh(assumptions, middle, dear), middle, compared.cost.outlay.number,
            self._served(compared.year), compared.banked["kg"].number + self._kg,
        )  # fmt: skip

    def package_kept(self, later: ComparedBank) -> Package | None:
        """The package that keeps the old bank as long as it lasts.

        Args:
            later: what is bought then, in this rig.
        """
        kept = self.kept
        if kept is None:
            return None
        assumptions, years = self.base.assumptions, self.plan.years_kept
        prices = [one.prices(assumptions.value("price_factor"))[1] for one in self.improvements]
        money = later.cost
        work = money["extras"].number + money["labour"].number
        contingency = money["contingency"].number / work if work else 0.0
        done = kept.beside(self.improvements, prices, contingency)
        middle, dear = kept.cost(done, later.cost.inputs, years)
        return Package(
            self.plan, self.improvements, self._added, OLD, later,
            weigh(assumptions, middle, dear), middle, done.once + done.wanted, self._served(kept.year),
            self._old_kg + self._kg, min(kept.years, years),
        )  # fmt: skip


def _same_days(plan: Plan, other: Plan) -> bool:
    """Whether day and need of two plans are the same: they differ in sources, weight, compartment or
    candidates."""
    return replace(
        plan, sources=other.sources, candidates=other.candidates, loading=other.loading,
        locker=other.locker, improvements=other.improvements, present=other.present,
    ) == other  # fmt: skip
