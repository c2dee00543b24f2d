"""The year: representative weeks of every month of use, scaled to the rig's nights."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.battery.ageing import cycles_at_depth
from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.rig.months import months_of_use
from vast_harbor.core.rig.sources import GENERATOR, MAINS, SOLAR, Source
from vast_harbor.core.schedule.day_pattern import DaySpec, has_hook_up, stretch
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.simulation.conditions import Conditions, Floats
from vast_harbor.core.simulation.kernel import EMPTY, FULL, GENERATING
from vast_harbor.core.simulation.run import fed_by, power_offered, run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import YearOfUse
from vast_harbor.core.stops.trial.figure_factory import figure_factory
from vast_harbor.core.stops.trial.rainflow_cycles import cycles, histogram
from vast_harbor.core.stops.trial.short_of_full import BY_THE_NEXT, WITHIN, short_of_full
from vast_harbor.core.weather.daily_weather import STEPS_A_DAY
from vast_harbor.phrases import phrase

# Weathers of each month, and the most nights of a row that are counted.
SEEDS = (11, 12, 13)
LONGEST_ROW = 7
# Days before the counted ones: a short row and what follows it, so that it begins as it would.
BEFORE = 2
# Used on more nights of a month than this, rows follow one another with one night on hook-up between.
DENSE = 20
# Days for which nobody is there between two stays, where nothing is plugged in meanwhile.
AWAY = 5
SOURCE = phrase("trial.year.every_month_use_three")
DARK_WH = 0.5
# A night that lacks so much of its energy is spent elsewhere; one that lacks less counts in proportion [-].
SPOILT = 0.1
# Lead-acid suffers when it stays below this for more than a day.
LOW_SOC = 0.2


@dataclass(frozen=True)
class YearPlan:
    """The sample of days that stands for a year.

    Attributes:
        timeline: the rig's days.
    """

    timeline: Timeline

    @cached_property
    def row(self) -> int:
        """Nights of a row that are counted."""
        row = max(1, round(self.timeline.plan.nights_in_a_row or 3))
        return min(LONGEST_ROW, row)

    @cached_property
    def between(self) -> int:
        """Days on hook-up, at home, or with nobody there, between two rows."""
        plan = self.timeline.plan
        used = (plan.off_grid_nights + plan.hook_up_nights) / len(months_of_use(plan))
        if used > DENSE:
            return 1
        return 2 if has_hook_up(plan) else AWAY

    @cached_property
    def specs(self) -> tuple[tuple[DaySpec, ...], ...]:
        """The days of each stretch: a row and what follows it, then the counted row and what follows that."""
        out = []
        for month in self.months:
            row = stretch(self.timeline.plan, self.row, month, self.row)
            after = stretch(self.timeline.plan, 1, month, 0)
            out.append(row[:BEFORE] + after * self.between + row + after * min(self.between, WITHIN))
        return tuple(out)

    @cached_property
    def months(self) -> tuple[int, ...]:
        """Month of each stretch."""
        return tuple(m for m in months_of_use(self.timeline.plan) for _ in SEEDS)

    @cached_property
    def conditions(self) -> Conditions:
        """The days laid out."""
        seeds = [seed for _ in months_of_use(self.timeline.plan) for seed in SEEDS]
        calm = self.timeline.calm
        return calm.lay_out(self.specs, self.months, seeds)[0]

    @property
    def first(self) -> int:
        """First step of the counted row."""
        before = min(BEFORE, self.row)
        return (before + self.between) * STEPS_A_DAY

    @property
    def nights(self) -> int:
        """Counted off-grid nights in all stretches."""
        return self.row * len(self.months)

    @property
    def scale(self) -> float:
        """Off-grid nights of the year for each counted one."""
        return self.timeline.plan.off_grid_nights / self.nights


@dataclass(frozen=True)
class YearOf:
    """A year of one bank.

    Attributes:
        figures: by name: ``nights_served`` of the year and ``served_share`` [%], ``unserved`` and
            ``critical`` [kWh], ``critical_share`` of what critical loads ask [%] and ``critical_hours`` dark,
            ``elsewhere`` nights spoilt for want of energy, ``generator_hours``, ``litres``, ``fuel``,
            ``short_share`` of off-grid days not returned to full [%],
            ``through`` [kWh], ``cycle_wear`` [1/year], ``flat`` (times emptied), ``heater`` [kWh],
            ``low`` (times below a fifth for a day), ``sun_left`` [%], ``bought`` share of the charge [%] and
            that from ``hook_up`` [%], ``offered`` by the sources on a mean off-grid day [Wh].
        depths: cycles a year by depth in tenths, shape (10,).
    """

    figures: Mapping[str, Figure]
    depths: Floats

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]

    @property
    def numbers(self) -> YearOfUse:
        """What of it life and money follow from."""
        f = self.figures
        return YearOfUse(
            cycle_wear=f["cycle_wear"].number,
            short_share=f["short_share"].number,
            emptied=f["flat"].number,
            low=f["low"].number,
            through_kwh=f["through"].number,
            hook_up=f["hook_up"].value,
            fuel=f["fuel"].number,
            elsewhere=f["elsewhere"].number,
        )


@dataclass(frozen=True, slots=True)
class Sample:
    """What a bank did in the counted nights, before it is scaled to the nights of a year.

    Attributes:
        served, short: share of the nights fully served, of the days not returned to full [-].
        spoilt: share of the nights that lack a tenth of their energy; who lack less count in part [-].
        missing, critical, through, heater: energies in the counted nights [Wh].
        critical_share: of what critical loads ask, not served [-]; ``critical_h``: hours of it [h].
        emptied, low: times emptied, and times below a fifth for more than a day.
        generator_h: hours of the generator [h].
        wear: Palmgren–Miner sum of the cycles [-].
        sun_left, bought, hook_up: shares of the sun not taken, of the charge from mains or generator, and of
            that from mains alone [-]; None where there is none.
        offered: what the sources could give on a mean off-grid day [Wh].
        depths: cycles by depth in tenths, shape (10,).
    """

    served: float
    short: float
    spoilt: float
    missing: float
    critical: float
    critical_share: float
    critical_h: float
    through: float
    heater: float
    emptied: float
    low: float
    generator_h: float
    wear: float
    sun_left: float | None
    bought: float | None
    hook_up: float | None
    offered: float
    depths: Floats


# One bank's days depend on few of the things that are edited: they are kept for a while. The nights of the
# year only scale them.
_KEPT: LruCache[tuple[object, ...], Sample] = LruCache(256)


def is_kept(key: str, simulated: SimulatedBank, model: BatteryModel, exponent: float) -> bool:
    """Whether a bank's days were run before; arguments as of :func:`year_of`."""
    return (key, simulated, model.cycles, exponent) in _KEPT


def forget() -> None:
    """Forget every run, so that the next one takes its time: for measurements."""
    _KEPT.clear()


def year_of(
    plan: YearPlan, key: str, simulated: SimulatedBank, model: BatteryModel, exponent: float
) -> YearOf:
    """A year of one bank.

    Args:
        plan: the sample of days.
        key: what the sample depends on, as a text.
        simulated: the bank.
        model: its model, for its cycle life.
        exponent: b of the cycle law [-].

    Returns:
        Its year.
    """
    kept = (key, simulated, model.cycles, exponent)
    return scaled(plan, simulated, _KEPT.of(kept, lambda: count(plan, simulated, model, exponent)))


def count(plan: YearPlan, simulated: SimulatedBank, model: BatteryModel, exponent: float) -> Sample:
    """Run the sample of days with one bank and count what came of it; arguments as of :func:`year_of`."""
    go_on()
    traces = run([simulated], plan.conditions)[0]
    first, dt = plan.first, plan.conditions.step_h
    row = plan.row * STEPS_A_DAY
    # What the last night left behind is brought back within the day after it.
    counted, to_rest = slice(first, first + row), slice(first, first + row + STEPS_A_DAY)
    missing = (traces.unserved_dc + traces.unserved_ac)[:, counted]
    nightly = (len(plan.months), plan.row, STEPS_A_DAY)
    by_night = missing.reshape(nightly).sum(axis=2)
    loads = plan.conditions
    asked = (loads.dc_w + loads.ac_w)[:, counted].reshape(nightly).sum(axis=2) * dt
    critical = traces.unserved_critical[:, counted]
    critical_asked = float((loads.critical_dc_w + loads.critical_ac_w)[:, counted].sum()) * dt
    by_day = ((traces.state[:, first:] & FULL) > 0).reshape(len(plan.months), -1, STEPS_A_DAY)
    full = np.asarray(by_day.any(axis=2))
    off_grid = np.arange(full.shape[1]) < plan.row
    state = traces.state[:, to_rest]
    empty, generating = (state & EMPTY) > 0, (state & GENERATING) > 0
    found, wear, low = [], 0.0, 0
    flat = np.asarray(empty.any(axis=1))
    for i, soc in enumerate(traces.soc[:, to_rest]):
        low += 0 if flat[i] else episodes(soc < LOW_SOC, STEPS_A_DAY)
        for depth, times in cycles(soc):
            found.append((depth, times))
            wear += times / cycles_at_depth(model.cycles, exponent, depth)
    sources = fed_by(simulated, plan.conditions)
    used, offered = traces.used_w[:, :, to_rest], traces.offered_w[:, :, to_rest].sum(axis=(1, 2))
    sun = [i for i, s in enumerate(sources) if s.kind == SOLAR]
    mains = [i for i, s in enumerate(sources) if s.kind == MAINS]
    by_source, total = used.sum(axis=(1, 2)), float(used.sum())
    hook_up = float(np.where(generating[None], 0.0, used[mains]).sum())
    sun_offered = float(offered[sun].sum())
    return Sample(
        served=float((by_night <= DARK_WH).mean()),
        short=float(short_of_full(full, off_grid)[:, : plan.row].mean()),
        spoilt=float(np.minimum(1.0, by_night / np.maximum(SPOILT * asked, DARK_WH)).mean()),
        missing=float(missing.sum()),
        critical=float(critical.sum()),
        critical_share=float(critical.sum()) / critical_asked if critical_asked > 0 else 0.0,
        critical_h=float((critical > 0).sum()) * dt,
        through=float(np.maximum(-traces.bank_w, 0.0)[:, counted].sum()) * dt,
        heater=float(traces.heater_w[:, counted].sum()) * dt,
        emptied=float(flat.sum()),
        low=float(low),
        generator_h=float(generating[:, :row].sum()) * dt,
        wear=wear,
        sun_left=1 - float(by_source[sun].sum()) / sun_offered if sun_offered > 0 else None,
        bought=float(by_source[mains].sum()) / total if total > 0 else None,
        hook_up=hook_up / total if total > 0 else None,
        offered=float(traces.offered_w[:, :, counted].sum()) * dt / plan.nights,
        depths=histogram(found),
    )


def episodes(where: np.ndarray, longer: int) -> int:
    """How often something lasts for more than so many steps in a row.

    Args:
        where: for each step whether it holds, shape (steps,).
        longer: steps.

    Returns:
        Number of runs longer than that.
    """
    edges = np.flatnonzero(np.diff(np.concatenate(([0], where.astype(np.int8), [0]))))
    return int(((edges[1::2] - edges[::2]) > longer).sum())


def scaled(plan: YearPlan, simulated: SimulatedBank, sample: Sample) -> YearOf:
    """The counted nights of a bank as a year.

    Args:
        plan: the sample of days.
        simulated: the bank.
        sample: what came of it.

    Returns:
        The year with its figures.
    """
    nights, scale = plan.timeline.plan.off_grid_nights, plan.scale
    note = phrase("trial.year.nights_simulated_off_grid", nights=plan.nights, nights_2=f"{nights:g}")
    of = figure_factory(f"year.{simulated.id}", SOURCE, note)
    generator = next((s for s in simulated.sources if s.kind == GENERATOR), None)
    hours, kwh = sample.generator_h * scale, scale / 1000
    litres = hours * (generator.litres_per_h if generator else 0.0)
    price = generator.litre_price if generator else 0.0
    figures = {
        "nights_served": of(
            "nights_served", phrase("trial.year.nights_served"), sample.served * nights, "nights"
        ),
        "served_share": of("served_share", phrase("trial.year.served_share"), sample.served, "%"),
        "unserved": of("unserved", phrase("trial.year.unserved"), sample.missing * kwh, "kWh"),
        "critical": of("critical", phrase("trial.year.critical"), sample.critical * kwh, "kWh"),
        "critical_share": of(
            "critical_share", phrase("trial.year.critical_share"), sample.critical_share, "%"
        ),
        "critical_hours": of(
            "critical_hours", phrase("trial.year.critical_hours"), sample.critical_h * scale, "h"
        ),
        "elsewhere": of(
            "elsewhere",
            phrase("trial.year.elsewhere"),
            sample.spoilt * nights,
            "nights",
            phrase("trial.year.night_lacks_tenth_energy"),
        ),
        "generator_hours": of("generator_hours", phrase("trial.year.generator_hours"), hours, "h/year"),
        "litres": of("litres", phrase("trial.year.litres"), litres, "l fuel"),
        "fuel": of("fuel", phrase("trial.year.fuel"), litres * price, "money"),
        "short_share": of(
            "short_share", phrase("terms.names.off_grid_days_ending"), sample.short, "%", BY_THE_NEXT
        ),
        "through": of("through", phrase("trial.year.through"), sample.through * kwh, "kWh"),
        "cycle_wear": of(
            "cycle_wear",
            phrase("trial.year.cycle_wear"),
            sample.wear * scale,
            "1/year",
            phrase("trial.year.cycle_counts_own_depth"),
        ),
        "flat": of("flat", phrase("trial.year.flat"), sample.emptied * scale, "times"),
        "low": of("low", phrase("trial.year.low"), sample.low * scale, "times"),
        "heater": of("heater", phrase("trial.year.heater"), sample.heater * kwh, "kWh"),
        "sun_left": of("sun_left", phrase("trial.year.sun_left"), sample.sun_left, "%"),
        "bought": of("bought", phrase("trial.year.bought"), sample.bought, "%"),
        "hook_up": of("hook_up", phrase("trial.year.hook_up"), sample.hook_up, "%"),
        "offered": of("offered", phrase("trial.year.offered"), sample.offered, "Wh"),
    }
    return YearOf(figures, sample.depths * scale)


def largest_fall(plan: YearPlan, sources: Sequence[Source], system_v: float, efficiency: float) -> float:
    """The largest fall of Σ(η·charge − discharge) of an unlimited store over the counted rows [Wh].

    Args:
        plan: the sample of days.
        sources: what charges.
        system_v: class volts [V].
        efficiency: η, energy out ÷ in [-].

    Returns:
        Energy at the terminals that the store must hold.
    """
    conditions = plan.conditions
    row = slice(plan.first, plan.first + plan.row * STEPS_A_DAY)
    offered = power_offered(sources, system_v, conditions)[:, row]
    asked = (conditions.dc_w + conditions.ac_w)[:, row]
    surplus = offered - asked
    flow = np.where(surplus > 0, surplus * efficiency, surplus) * conditions.step_h
    level = np.cumsum(flow, axis=1)
    highest = np.maximum.accumulate(np.concatenate((np.zeros((len(level), 1)), level), axis=1), axis=1)[
        :, :-1
    ]
    return float(np.max(highest - level, initial=0.0))


def key_of(timeline: Timeline) -> str:
    """What a year's sample of days depends on, as a text."""
    plan = timeline.plan
    assume = timeline.assumptions
    # Nights of the year count only as far as they set how close rows follow on one another.
    between = YearPlan(timeline).between
    values = [
        a.value
        for a in assume
        if a.entry.group
        in (phrase("trial.year.day"), phrase("terms.names.temperature"), phrase("trial.year.charging"))
    ]
    return repr(
        (
            plan.loads,
            plan.inverter,
            plan.standby_w,
            plan.day_types,
            plan.day_basis,
            plan.habits,
            plan.second,
            plan.site,
            plan.place,
            plan.battery_c,
            plan.months,
            plan.nights_in_a_row,
            between,
            has_hook_up(plan),
            plan.drive_hours,
            plan.drive_every,
            plan.sources,
            plan.sun_hours,
            plan.pitch,
            plan.system_v,
            plan.kind,
            values,
        )
    )
