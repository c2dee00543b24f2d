"""The year: the months of use run through day by day, each month in its own weather."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.battery.ageing import cycles_at_depth
from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.rig.generator_fuel import litre_price, litres_per_hour
from vast_harbor.core.rig.sources import GENERATOR, MAINS, SOLAR, Source
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.simulation.parameters import EMPTY, FULL, GENERATING
from vast_harbor.core.simulation.run import fed_by, power_offered, run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import YearOfUse
from vast_harbor.core.stops.trial.figure_factory import figure_factory
from vast_harbor.core.stops.trial.rainflow_cycles import cycles, histogram
from vast_harbor.core.stops.trial.short_of_full import BY_THE_NEXT, short_of_full
from vast_harbor.core.stops.trial.year_plan import YearPlan
from vast_harbor.phrases import phrase

# Assumptions of which the days themselves are made.
_OF_THE_DAYS = (phrase("trial.year.day"), phrase("terms.names.temperature"), phrase("trial.year.charging"))
SOURCE = phrase("trial.year.every_month_use_three")
DARK_WH = 0.5
# A night that lacks so much of its energy is spent elsewhere; one that lacks less counts in proportion [-].
SPOILT = 0.1
# Lead-acid suffers when it stays below this for more than a day.
LOW_SOC = 0.2


@dataclass(frozen=True)
class YearOf:
    """A year of one bank.

    Attributes:
        figures: by name: ``nights_served`` of the year and ``served_share`` [%], ``unserved`` and
            ``critical`` [kWh], ``critical_share`` of what critical loads ask [%], ``critical_nights`` and
            ``critical_hours`` without it,
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
            critical_share=f["critical_share"].number,
            critical_nights=f["critical_nights"].number,
        )


@dataclass(frozen=True, slots=True)
class Sample:
    """What a bank did on the simulated days, before it is scaled to the nights of a year.

    Attributes:
        served, short: share of the nights fully served, of the off-grid days not returned to full [-].
        spoilt: share of the nights that lack a tenth of their energy; who lack less count in part [-].
        missing, critical, through, heater: energies on all simulated days [Wh].
        critical_share: of what critical loads ask, not served [-]; ``critical_h``: hours of it [h].
        dark: days, with nobody there too, that lack a tenth of their critical energy; those that lack less
            count in part.
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
    dark: float
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


# One bank's days depend on few of the things that are edited: they are kept for a while, and take little
# room. The nights of the year only scale them.
_KEPT: LruCache[tuple[object, ...], Sample] = LruCache(2048)


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
    """Run the days with one bank and count what came of it; arguments as of :func:`year_of`."""
    go_on()
    traces = run([simulated], plan.conditions, longer=True)[0]
    loads, dt = plan.conditions, plan.conditions.step_h
    days = (*plan.off_grid.shape, plan.a_day)
    off_grid = plan.off_grid
    missing = (traces.unserved_dc + traces.unserved_ac).reshape(days).sum(axis=2)
    asked = (loads.dc_w + loads.ac_w).reshape(days).sum(axis=2) * dt
    critical = traces.unserved_critical
    critical_by_day = critical.reshape(days).sum(axis=2)
    critical_asked = (loads.critical_dc_w + loads.critical_ac_w).reshape(days).sum(axis=2) * dt
    full = np.asarray(((traces.state & FULL) > 0).reshape(days).any(axis=2))
    empty = np.asarray(((traces.state & EMPTY) > 0).reshape(days).any(axis=2))
    # A day of several in a row that end empty is the same accident still.
    flat = empty.copy()
    flat[:, 1:] &= ~empty[:, :-1]
    generating = (traces.state & GENERATING) > 0
    # What happens on mains, once the bank is charged again, depends on how long it stands there, not on use.
    used = ~plan.plugged
    used[:, 1:] |= ~plan.plugged[:, :-1]
    of_use = np.repeat(used, plan.a_day, axis=1)
    found, wear, low = [], 0.0, 0
    for i, soc in enumerate(traces.soc):
        low += episodes((soc[:-1] < LOW_SOC) & ~np.repeat(empty[i], plan.a_day), plan.a_day)
        for depth, times in cycles(soc[:-1][of_use[i]]):
            found.append((depth, times))
            wear += times / cycles_at_depth(model.cycles, exponent, depth)
    sources = fed_by(simulated, plan.conditions)
    sun = [i for i, s in enumerate(sources) if s.kind == SOLAR]
    mains = [i for i, s in enumerate(sources) if s.kind == MAINS]
    total = float(traces.used_w.sum())
    hook_up = float(np.where(generating[None], 0.0, traces.used_w[mains]).sum())
    # What the sun offers to a bank that mains holds full is not left over for want of a larger one.
    free = np.repeat(~plan.plugged, plan.a_day, axis=1)
    sun_offered = float(traces.offered_w[sun][:, free].sum())
    sun_used = float(traces.used_w[sun][:, free].sum())
    nights = np.repeat(off_grid, plan.a_day, axis=1)
    by_night, asked = missing[off_grid], asked[off_grid]
    asked_in_all = critical_asked.sum()
    return Sample(
        served=float((by_night <= DARK_WH).mean()),
        short=float(short_of_full(full, off_grid)[off_grid].mean()),
        spoilt=float(_without(by_night, asked).mean()),
        missing=float(missing.sum()),
        critical=float(critical.sum()),
        critical_share=float(critical.sum() / asked_in_all) if asked_in_all > 0 else 0.0,
        critical_h=float((critical > 0).sum()) * dt,
        dark=float(_without(critical_by_day, critical_asked).sum()),
        # What a bank gives because a charger rests serves nobody: only days without mains count.
        through=float(np.maximum(-traces.bank_w, 0.0)[free].sum()) * dt,
        heater=float(traces.heater_w.sum()) * dt,
        emptied=float(flat[used].sum()),
        low=float(low),
        generator_h=float(generating.sum()) * dt,
        wear=wear,
        sun_left=1 - sun_used / sun_offered if sun_offered > 0 else None,
        bought=float(traces.used_w[mains].sum()) / total if total > 0 else None,
        hook_up=hook_up / total if total > 0 else None,
        offered=float(traces.offered_w[:, nights].sum()) * dt / plan.nights,
        depths=histogram(found),
    )


def _without(missing: Floats, asked: Floats) -> Floats:
    """How far each day counts as one without energy, 0 to 1, by what is missing and asked in it [Wh]."""
    return np.asarray(np.minimum(1.0, missing / np.maximum(SPOILT * asked, DARK_WH)))


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
    assume = plan.timeline.assumptions
    litres = hours * litres_per_hour(generator, assume).number if generator else 0.0
    price = litre_price(generator, assume) if generator else 0.0
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
        "critical_nights": of(
            "critical_nights",
            phrase("trial.year.critical_nights"),
            min(nights, sample.dark * scale),
            "nights",
            phrase("trial.year.night_lacks_tenth_critical"),
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
    """The largest fall of Σ(η·charge − discharge) of an unlimited store over the year [Wh].

    Args:
        plan: the days.
        sources: what charges.
        system_v: class volts [V].
        efficiency: η, energy out ÷ in [-].

    Returns:
        Energy at the terminals that the store must hold.
    """
    conditions = plan.conditions
    surplus = power_offered(sources, system_v, conditions) - (conditions.dc_w + conditions.ac_w)
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
    # Nights of the year count only as far as they set how close stays follow on one another.
    calendar = YearCalendar(plan).key
    values = [a.value for a in assume if a.entry.group in _OF_THE_DAYS]
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
            plan.locker.swing_share,
            calendar,
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
