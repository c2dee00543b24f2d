"""Trial: the candidates and the old bank through one stretch of days together."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field

import numpy as np

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.rig.generator_fuel import litres_per_hour
from vast_harbor.core.rig.sources import GENERATOR, MAINS, Source
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.parameters import (
    BMS_OPEN,
    EMPTY,
    FULL,
    GENERATING,
    INVERTER_OFF,
    LOADS_OFF,
    Traces,
)
from vast_harbor.core.simulation.run import fed_by, run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import Banks, Build
from vast_harbor.core.stops.trial.events import Event, events
from vast_harbor.core.stops.trial.figure_factory import figure_factory
from vast_harbor.core.stops.trial.short_of_full import BY_THE_NEXT, short_of_full
from vast_harbor.core.stops.trial.simulated_banks import OLD, simulated_banks, simulated_candidate
from vast_harbor.core.stops.trial.storage import LaidUp, laid_up
from vast_harbor.core.stops.trial.stretch_setup import PreparedStretch, prepare_stretch, start_soc
from vast_harbor.core.weather.daily_weather import STEPS_A_DAY
from vast_harbor.phrases import phrase

# Less than this is not a dark rig but a rounding [Wh].
DARK_WH = 0.5
SOURCE = phrase("trial.trial.simulated_steps_quarter_hour")


@dataclass(frozen=True)
class SimulationResult:
    """How one bank went through the stretch.

    Attributes:
        simulated: the bank.
        title: name of its model.
        name: its name in a sentence, safe inside a template: how many of which model.
        sources: what charged it, in the order of its traces.
        traces: step by step, one stretch wide.
        events: what happened, in order.
        figures: ``first_dark`` [h], ``served`` [%], ``unserved`` and ``critical`` [Wh], ``nights_served``,
            ``lowest`` [%], ``days_short`` of full, ``through`` [Wh], ``resets``, ``low_hours``,
            ``generator_hours``, ``litres``, ``fuel``, ``heater`` [Wh], ``spare`` and ``missed`` charge [%].
    """

    simulated: SimulatedBank
    title: str
    name: str
    sources: tuple[Source, ...]
    traces: Traces
    events: tuple[Event, ...]
    figures: Mapping[str, Figure]

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]

    @property
    def dark(self) -> bool:
        """Whether anything was ever not served."""
        return self.figures["first_dark"].value is not None

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of it, and of what happened."""
        yield from self.figures.values()
        yield from (f for e in self.events for f in e.says.figures.values())


@dataclass(frozen=True)
class Trial:
    """A stretch of days with every bank in it.

    Attributes:
        timeline: the rig's days.
        banks: the candidates.
        nights: how many it has.
    """

    timeline: Timeline
    banks: Banks
    _made: dict[str, object] = field(default_factory=dict)
    _others: dict[SimulatedBank, SimulationResult] = field(default_factory=dict)

    @cached_property
    def simulated_banks(self) -> tuple[SimulatedBank, ...]:
        """The candidates that can be built, and the old bank."""
        return simulated_banks(self.timeline.plan, self.timeline.assumptions, self.banks)

    @cached_property
    def prepared(self) -> PreparedStretch:
        """The stretch."""
        return prepare_stretch(self.timeline, self.simulated_banks)

    @cached_property
    def laid_up(self) -> Mapping[str, tuple[LaidUp, ...]]:
        """Every bank through the months without use, connected and disconnected, by its id; nothing of a rig
        that is used all the year."""
        by_id = {simulated.id: simulated for simulated in self.simulated_banks}
        return LazyMapping(by_id, lambda id: laid_up(self.timeline, by_id[id]))

    @cached_property
    def results(self) -> tuple[SimulationResult, ...]:
        """Every bank through it."""
        banks = {c.candidate.id: c.bank for c in self.banks.candidates if c.bank is not None}
        return tuple(self._through(one, banks.get(one.id)) for one in self.simulated_banks)

    def through(self, build: Build) -> SimulationResult:
        """A bank that is no candidate through the same stretch, run once.

        Args:
            build: the bank in its rig.
        """
        simulated = simulated_candidate(build)
        if simulated not in self._others:
            self._others[simulated] = self._through(simulated, build.bank)
        return self._others[simulated]

    def _through(self, simulated: SimulatedBank, bank: Bank | None) -> SimulationResult:
        start = start_soc(self.timeline, self.prepared, simulated)
        traces = run([simulated], self.prepared.conditions, start)[0]
        title = bank.model.title if bank is not None else phrase("terms.names.old_bank")
        name = bank.title if bank is not None else phrase("trial.outcome.old")
        found = events(simulated, self.prepared, traces)
        sources = tuple(fed_by(simulated, self.prepared.conditions))
        figures = _figures(self, simulated, traces)
        return SimulationResult(simulated, title, name, sources, traces, found, figures)

    def of(self, candidate: str) -> SimulationResult | None:
        """A candidate's run; None where it cannot be built."""
        return next((r for r in self.results if r.simulated.id == candidate), None)

    @property
    def candidates(self) -> tuple[SimulationResult, ...]:
        """Those of the candidates, without the old bank's."""
        return tuple(r for r in self.results if r.simulated.id != OLD)


def _figures(trial: Trial, simulated: SimulatedBank, traces: Traces) -> dict[str, Figure]:
    prepared, dt = trial.prepared, trial.prepared.conditions.step_h
    note = phrase(
        "trial.trial.days_weather", name=prepared.stretch.name, specs=len(prepared.specs), seed=prepared.seed
    )

    of = figure_factory(f"trial.{simulated.id}", SOURCE, note)

    missing = (traces.unserved_dc + traces.unserved_ac)[0]
    dark = np.flatnonzero(np.cumsum(missing) > DARK_WH)
    asked = float(((prepared.conditions.dc_w + prepared.conditions.ac_w)[0] * dt).sum())
    state = traces.state[0]
    days = len(prepared.specs)
    full = ((state & FULL) > 0).reshape(1, days, STEPS_A_DAY).any(axis=2)
    off_grid = np.array([not s.hook_up for s in prepared.specs])
    if not off_grid.any():
        off_grid[:] = True
    short = int(short_of_full(full, off_grid).sum())
    nights = _nights(missing, days)
    away = off_grid[: len(nights)]
    served = int((nights <= DARK_WH)[away].sum())
    generator = next((s for s in simulated.sources if s.kind == GENERATOR), None)
    hours = float(((state & GENERATING) > 0).sum()) * dt
    litres = hours * litres_per_hour(generator, trial.timeline.assumptions).number if generator else 0.0
    # What a charger on mains could give on top is not lost, and one that is not plugged in offers nothing.
    free = [i for i, s in enumerate(fed_by(simulated, prepared.conditions)) if s.kind != MAINS]
    left = (traces.offered_w[free] - traces.used_w[free]).sum(axis=0)[0]
    offered = float(traces.offered_w[free].sum())
    # Of what was offered and not taken, a day misses what its bank lacked to be full; the rest is to spare.
    highest = traces.soc[0][1:].reshape(days, STEPS_A_DAY).max(axis=1)
    lacked = np.maximum(0.0, simulated.full_soc - highest) * simulated.nameplate_ah * simulated.class_v / dt
    of_day = left.reshape(days, STEPS_A_DAY).sum(axis=1)
    missed = float(np.minimum(of_day, lacked).sum())
    spare = float(of_day.sum()) - missed
    through = float(np.maximum(-traces.bank_w, 0.0).sum()) * dt
    least = prepared.conditions.least_v[0] * simulated.class_v / 12
    low = (traces.volts[0] < least) & (traces.volts[0] > 0)
    off = (state & (INVERTER_OFF | LOADS_OFF | BMS_OPEN | EMPTY)) > 0
    resets = int((off & ~np.concatenate(([False], off[:-1]))).sum())
    return {
        "first_dark": of(
            "first_dark",
            phrase("trial.trial.first_power_cut"),
            float(dark[0]) * dt if dark.size else None,
            "moment",
        ),
        "served": of(
            "served",
            phrase("trial.trial.served"),
            max(0.0, 1 - float(missing.sum()) / asked) if asked > 0 else 1.0,
            "%",
        ),
        "unserved": of("unserved", phrase("trial.trial.unserved"), float(missing.sum()), "Wh"),
        "critical": of(
            "critical", phrase("trial.trial.critical"), float(traces.unserved_critical.sum()), "Wh"
        ),
        "nights_served": of(
            "nights_served",
            phrase("trial.trial.nights_served"),
            served,
            "nights",
            phrase("trial.trial.off_grid", sum=int(away.sum())),
        ),
        "lowest": of("lowest", phrase("trial.trial.lowest"), float(traces.soc.min()), "%"),
        "days_short": of(
            "days_short", phrase("terms.names.off_grid_days_ending"), short, "days", BY_THE_NEXT
        ),
        "through": of("through", phrase("trial.trial.through"), through, "Wh"),
        "resets": of("resets", phrase("trial.trial.resets"), resets, "times"),
        "low_hours": of("low_hours", phrase("trial.trial.low_hours"), float(low.sum()) * dt, "h"),
        "generator_hours": of("generator_hours", phrase("terms.names.generator"), hours, "h"),
        "litres": of("litres", phrase("trial.trial.litres"), litres, "l fuel"),
        "fuel": of(
            "fuel",
            phrase("trial.trial.fuel"),
            litres * (generator.litre_price if generator else 0.0),
            "money",
        ),
        "heater": of("heater", phrase("trial.trial.heater"), float(traces.heater_w.sum()) * dt, "Wh"),
        "spare": of(
            "spare",
            phrase("trial.trial.spare"),
            spare / offered if offered > 0 else None,
            "%",
            phrase("trial.trial.spare_note"),
        ),
        "missed": of(
            "missed",
            phrase("trial.trial.missed"),
            missed / offered if offered > 0 else None,
            "%",
            phrase("trial.trial.missed_note"),
        ),
    }


def _nights(missing: np.ndarray, days: int) -> np.ndarray:
    """What is missing from noon to noon, one value for each night; the last ends with the stretch [Wh]."""
    half = STEPS_A_DAY // 2
    padded = np.concatenate((missing[half:], np.zeros(half)))
    return np.asarray(padded.reshape(days, STEPS_A_DAY).sum(axis=1))
