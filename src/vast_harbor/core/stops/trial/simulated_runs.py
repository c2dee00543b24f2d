"""What is simulated rather than calculated: the trial, and a year of each candidate."""

from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from contextvars import copy_context
from dataclasses import dataclass
from functools import partial

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.sources import SOLAR
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import Banks, Build
from vast_harbor.core.stops.charging import Sun, needed, sun_of
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.trial.simulated_banks import (
    old_bank_as_bank,
    simulated_banks,
    simulated_candidate,
    simulated_old_bank,
)
from vast_harbor.core.stops.trial.trial import SimulationResult, Trial
from vast_harbor.core.stops.trial.year import YearOf, is_kept, key_of, largest_fall, year_of
from vast_harbor.core.stops.trial.year_plan import YearPlan
from vast_harbor.phrases import phrase

# Banks whose year is simulated at once.
WORKERS = 2
# Trials that were run: most edits change nothing in them.
_KEPT: LruCache[tuple[object, ...], Trial] = LruCache(6)
# Largest falls of a year, by its days and the efficiency.
_FALLS: LruCache[tuple[str, float], float] = LruCache(256)


@dataclass(frozen=True)
class SimulatedRuns:
    """Everything of a plan that is run.

    Attributes:
        plan, reference, assumptions, days, banks: the plan and what holds for it.
        weathers: of a year; None for as many as make it sure.
        like: the year of a rig that differs in its sources only; None without one.
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    banks: Banks
    weathers: int | None = None
    like: YearPlan | None = None

    @cached_property
    def timeline(self) -> Timeline:
        """The rig's days."""
        return Timeline(self.plan, self.reference, self.assumptions, self.days)

    @cached_property
    def _key(self) -> str:
        return f"{self.weathers}{key_of(self.timeline)}"

    @cached_property
    def _trial_key(self) -> tuple[object, ...]:
        titles = tuple(c.bank.model.title for c in self.banks.candidates if c.bank is not None)
        made = simulated_banks(self.plan, self.assumptions, self.banks)
        return self._key, self.plan.trial, self.days.governing, made, titles

    @cached_property
    def trial(self) -> Trial:
        """The stretch that is tried."""
        return _KEPT.of(self._trial_key, lambda: Trial(self.timeline, self.banks))

    @property
    def known(self) -> bool:
        """Whether all of it was run before, so that asking costs nothing."""
        if self._trial_key not in _KEPT:
            return False
        return not self.has_year or all(
            is_kept(self._key, simulated, model, exponent)
            for simulated, model, exponent in self._yearly.values()
        )

    def keep(self) -> None:
        """Keep what was run here, though others were run since: an edit goes on from it."""
        if "trial" in self.__dict__:
            _KEPT.put(self._trial_key, self.trial)

    def run(self) -> None:
        """Run all that is not yet run."""
        _ = self.trial.results, self.years, self.needs

    @cached_property
    def sun(self) -> Sun:
        """What the sun brings onto the first panels, or onto flat ones."""
        first = next((s for s in self.plan.sources if s.kind == SOLAR), None)
        return sun_of(self.timeline, first)

    @cached_property
    def needed(self) -> Mapping[str, Mapping[str, Figure]]:
        """How much source each candidate needs, by its id."""
        return {
            c.candidate.id: needed(c.build, self.timeline, self.sun)
            for c in self.banks.candidates
            if c.build is not None
        }

    @property
    def has_year(self) -> bool:
        """Whether a year can be run: there are nights, something is drawn, and something charges.

        The sun needs a site. Without a year life and money go by the hand estimate.
        """
        plan = self.plan
        sources = [s for s in plan.sources if s.charges]
        placed = plan.site.latitude is not None or not any(s.kind == SOLAR for s in sources)
        return bool(sources) and placed and plan.off_grid_nights > 0 and self.days.day.bank_wh.number > 0

    @cached_property
    def year_plan(self) -> YearPlan:
        """The days that stand for a year."""
        return YearPlan(self.timeline.calm, self.weathers, self.like)

    @cached_property
    def years(self) -> Mapping[str, YearOf]:
        """A year of each candidate that can be built, by its id; empty where none can be run."""
        if not self.has_year:
            return {}
        plan, key = self.year_plan, self._key
        missing = [made for made in self._yearly.values() if not is_kept(key, *made)]
        if len(missing) > 1:
            _ = plan.conditions
            # The loop over time lets others run: each core takes a bank.
            with ThreadPoolExecutor(WORKERS) as pool:
                for done in [
                    pool.submit(copy_context().run, partial(year_of, plan, key, *made)) for made in missing
                ]:
                    done.result()
        return {id: year_of(plan, key, *made) for id, made in self._yearly.items()}

    def year_of_build(self, build: Build) -> YearOf | None:
        """A year of a bank that is no candidate; None where none can be run."""
        if not self.has_year:
            return None
        return year_of(self.year_plan, self._key, *self._to_run(build))

    def through(self, build: Build) -> SimulationResult:
        """A bank that is no candidate through the trial."""
        return self.trial.through(build)

    def year_of_old(self, banks: Banks) -> YearOf | None:
        """A year of the bank that is there now, at its health; None without one, or where none can be run.

        Args:
            banks: with what is known of it.
        """
        bank, simulated = old_bank_as_bank(self.plan), simulated_old_bank(self.plan, self.assumptions, banks)
        if bank is None or simulated is None or not self.has_year:
            return None
        exponent = self.assumptions.value(f"cycle_exponent.{bank.model.battery_class.key}")
        return year_of(self.year_plan, self._key, simulated, bank.model, exponent)

    def _to_run(self, build: Build) -> tuple[SimulatedBank, BatteryModel, float]:
        model = build.bank.model
        exponent = self.assumptions.value(f"cycle_exponent.{model.battery_class.key}")
        return simulated_candidate(build), model, exponent

    @cached_property
    def _yearly(self) -> Mapping[str, tuple[SimulatedBank, BatteryModel, float]]:
        return {
            banked.candidate.id: self._to_run(banked.build)
            for banked in self.banks.candidates
            if banked.build is not None
        }

    def _fall(self, efficiency: float) -> float:
        plan = self.plan
        return _FALLS.of(
            (self._key, efficiency),
            lambda: largest_fall(self.year_plan, plan.sources, plan.system_v, efficiency),
        )

    @cached_property
    def needs(self) -> Mapping[str, Figure]:
        """The second view of the need: what a label must say so that a year's longest fall is borne [Wh]."""
        if not self.has_year:
            return {}
        out = {}
        for key, c in self.days.need.classes.items():
            eta = self.assumptions.figure(f"energy_efficiency.{key}")
            fall = self._fall(eta.number)
            at = f"need.{key}.year"
            longest = Figure(
                f"{at}.fall", phrase("trial.simulated_runs.fall"), fall, "Wh", REFERENCE,
                source=phrase("trial.simulated_runs.fall_source"),
            )  # fmt: skip
            out[key] = computed(
                at,
                phrase("trial.simulated_runs.rated_energy_year_weather"),
                fall / (c.dod.number * c.temperature.number * c.ageing.number),
                "Wh",
                "{fall} / ({DoD} · {k_T} · {k_age})",
                {"fall": longest, "DoD": c.dod, "k_T": c.temperature, "k_age": c.ageing},
                phrase("trial.simulated_runs.second_view_need_year"),
            )
        return out

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the years and of what they need."""
        for year in self.years.values():
            yield from year.figures.values()
        yield from self.needs.values()
        yield from (f for needed in self.needed.values() for f in needed.values())
