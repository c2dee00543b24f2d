"""Day: what the loads of one kind of day take from the bank, and when."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from math import inf

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.clock import DAY_H, Block, union_hours
from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import DayType
from vast_harbor.core.rig.loads import AC, DC, TIMES, Load
from vast_harbor.core.rig.peak import ActiveLoad, Peak, hardest_moment, hardest_over
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.profile import Part, Profile, mean_current, on_edges, stack
from vast_harbor.core.stops.day.energy_sums import (
    cautious_energy,
    habit_energies,
    hours_of_inverter,
    idle_energy,
    inverter_efficiency,
    listed_energy,
    measured_energy,
    planned_energy,
    second_efficiency,
    standby_energy,
    sum_energy,
)
from vast_harbor.core.stops.day.load_energy import LoadFigures, hangs_on_second
from vast_harbor.core.weather.sun import SunDay, day_of_year, sun_day
from vast_harbor.phrases import phrase

# Stands for all loads of the second bank in the hardest moment; no load can be called so.
SECOND_BANK = "second bank"
# A draw that is over sooner heats neither cable nor fuse, and is not what a device does for long.
BRIEF_S = 10.0


@dataclass(frozen=True)
class Day:
    """One kind of day in figures; its hardest moment is looked for when somebody asks for it.

    Attributes:
        plan: the plan.
        type: the kind of day.
        air_c, battery_c: temperatures on it [°C].
        loads: each load's energy.
        idle_wh, standby_wh: inverter idle and unlisted standby [Wh/day].
        inverter_hours: hours that the inverter is on [h].
        listed_wh: E_bank by the list of loads [Wh/day].
        cautious_wh: what nine days of ten stay below [Wh/day].
        habits: the listed day of careful, usual and careless people [Wh/day].
        measured_wh: E_bank as a monitor counted it; None without a measurement [Wh/day].
        bank_wh: E_bank that the plan goes by: one of these [Wh/day].
        second_wh: energy that the second bank's loads take from it [Wh/day]; None without one.
        profile: power drawn from the bank over 24 h, its area the ``bank_wh``.
        ac_watts: that part of it which goes through the inverter [W].
        sun: when the sun is up; None without a site.
    """

    plan: Plan
    type: DayType
    air_c: Figure
    battery_c: Figure
    loads: tuple[LoadFigures, ...]
    idle_wh: Figure
    standby_wh: Figure
    inverter_hours: Figure
    listed_wh: Figure
    cautious_wh: Figure
    habits: dict[str, Figure]
    measured_wh: Figure | None
    bank_wh: Figure
    second_wh: Figure | None
    profile: Profile
    ac_watts: NDArray[np.float64]
    sun: SunDay | None

    @cached_property
    def peak(self) -> Peak:
        """The highest peak; what is connected to the second bank is met by it, beyond its charger's limit."""
        return _peak(self.plan, self.loads, self._inverter_on)

    def lasting(self, seconds: float = BRIEF_S) -> float:
        """Largest power that lasts longer than some seconds: starts that are over sooner are left out [W]."""
        starting = [f.load for f in self.loads if f.load.start_w]
        if not any(load.start_s <= seconds for load in starting):
            return self.peak.watts
        longer = tuple(load.start_s > seconds for load in starting)
        if longer not in self._lasting:
            self._lasting[longer] = _peak(self.plan, self.loads, self._inverter_on, seconds).watts
        return self._lasting[longer]

    @cached_property
    def _lasting(self) -> dict[tuple[bool, ...], float]:
        return {}

    def hardest_over(self, edges: NDArray[np.float64], seconds: float | None = None) -> NDArray[np.float64]:
        """Largest power between clock hours, starts over sooner left out [W]; n for n + 1 edges.

        Loads without a stated time are on at the times that were made up for them.
        """
        loads = _active_loads(self.plan, self.loads, self._inverter_on, seconds, by_the_clock=True)
        return hardest_over(*loads, edges)

    @cached_property
    def ac_peak_w(self) -> float:
        """Largest sum of AC loads that run at once, without the inverter's losses [W]."""
        active_loads = [_active_load(f, 1.0, inf) for f in self.loads if f.load.supply == AC]
        return hardest_moment(active_loads, 0.0).watts

    def ac_over(self, edges: NDArray[np.float64]) -> NDArray[np.float64]:
        """What AC loads ask for at once above the inverter's rating, from the bank [W]; n for n + 1 edges.

        Zero where the rating is not known, or nothing goes above it.
        """
        inverter = self.plan.inverter
        active_loads = [
            _active_load(f, f.eta.number, inf, by_the_clock=True) for f in self.loads if f.load.supply == AC
        ]
        most = inf if inverter.rated_w is None else inverter.rated_w / inverter.efficiency
        return np.maximum(0.0, hardest_over(active_loads, 0.0, edges) - most)

    @property
    def peak_any_time(self) -> bool:
        """Whether the hardest moment may come at any time, as nothing in it has a stated one."""
        parts = [f.load for f in self.loads if f.load.id in self.peak.ids]
        return all(load.any_time or load.hours_on >= DAY_H for load in parts)

    @property
    def _inverter_on(self) -> bool:
        return self.inverter_hours.inputs["h_AC"].number > 0

    @cached_property
    def peak_w(self) -> Figure:
        """Its power [W]."""
        return _peak_power(f"day.{self.type.id}", self.peak)

    @cached_property
    def peak_a(self) -> Figure:
        """Its current at class volts [A]."""
        return computed(
            f"day.{self.type.id}.peak_a",
            phrase("terms.names.highest_peak_current"),
            self.peak.watts / self.plan.system_v,
            "A",
            "{P_peak} / {V}",
            {"P_peak": self.peak_w, "V": _system_volts(self.plan)},
            phrase("day.energy_audit.peak_a_source"),
        )

    @cached_property
    def mean_a(self) -> Figure:
        """Mean current at class volts, weighted by energy [A]."""
        squared, area = profile_sums(f"day.{self.type.id}", self.profile)
        return computed(
            f"day.{self.type.id}.mean_a", phrase("day.energy_audit.mean_a"),
            mean_current(squared.number, area.number, self.plan.system_v), "A",
            "{P²t} / ({Pt} · {V})" if area.number > 0 else "0",
            {"P²t": squared, "Pt": area, "V": _system_volts(self.plan)},
            phrase("day.energy_audit.mean_a_source"),
        )  # fmt: skip

    @property
    def doubtful(self) -> LoadFigures | None:
        """The load whose doubt costs most battery; None where nothing is in doubt."""
        worst = max(self.loads, key=lambda f: f.high_wh - f.from_bank_wh, default=None)
        return worst if worst is not None and worst.high_wh > worst.from_bank_wh + 1e-9 else None

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the day."""
        yield from (self.air_c, self.battery_c, self.idle_wh, self.standby_wh, self.inverter_hours)
        yield from (self.listed_wh, self.cautious_wh, self.bank_wh, self.peak_w, self.mean_a, self.peak_a)
        yield from self.habits.values()
        yield from (f for f in (self.measured_wh, self.second_wh) if f is not None)
        yield from (f for load in self.loads for f in (load.wh, load.bank_wh, load.share(self.listed_wh)))


def evaluate(plan: Plan, assumptions: Assumptions, day_type: DayType) -> Day:
    """Add up one kind of day.

    Args:
        plan: what the owner entered.
        assumptions: what holds for it.
        day_type: the kind of day.

    Returns:
        The day in figures with their workings.
    """
    at = f"day.{day_type.id}"
    air = derating.air_temperature(plan, day_type)
    on_day = [load.on_day(day_type, air.number) for load in plan.loads]
    blocks = [load.blocks for load in on_day]
    windows = union_hours(
        [b for load, own in zip(on_day, blocks, strict=True) if load.supply == AC for b in own]
    )
    eta_dc, eta_inv = assumptions.figure("dc_efficiency"), inverter_efficiency(plan)
    eta_second = eta_dc if plan.second is None else second_efficiency(plan.second)
    hours = hours_of_inverter(plan, at, windows)
    idle, standby = idle_energy(plan, at, hours), standby_energy(plan, at)
    loads: list[LoadFigures] = []
    etas = [_eta(plan, load, eta_dc, eta_inv, eta_second) for load in on_day]
    energies = [
        load.mean_w * (sum(e - s for s, e in own) if load.use == TIMES else load.hours_on)
        for load, own in zip(on_day, blocks, strict=True)
    ]

    def sum_of(name: str, title: str, of: Callable[[Load], bool]) -> Figure:
        return sum_energy(
            f"{at}.{name}", title, [wh for wh, load in zip(energies, on_day, strict=True) if of(load)],
            lambda: [f.wh for f in loads if of(f.load)],
        )  # fmt: skip

    sums = {
        DC: sum_of(
            "dc_wh",
            phrase("day.energy_audit.dc_wh"),
            lambda x: x.supply == DC and not hangs_on_second(plan, x),
        ),
        AC: sum_of("ac_wh", phrase("day.energy_audit.ac_wh"), lambda x: x.supply == AC),
    }
    second_wh = None
    if plan.second is not None:
        second_wh = sum_of(
            "second_wh",
            phrase("day.energy_audit.second_wh", name=plan.second.name),
            lambda x: hangs_on_second(plan, x),
        )
    listed = listed_energy(plan, at, sums, eta_dc, eta_inv, eta_second, idle, standby, second_wh)
    loads += [
        LoadFigures(plan, day_type, air, load, i, own, wh, wh / eta.number, eta)
        for i, (load, own, wh, eta) in enumerate(zip(on_day, blocks, energies, etas, strict=True))
    ]
    cautious = cautious_energy(at, listed, loads)
    habits = habit_energies(at, assumptions, listed, loads)
    measured = measured_energy(plan, at, day_type)
    planned = planned_energy(plan, at, listed, cautious, habits, measured)
    profile, ac_watts = _profile(plan, loads, windows, hours.number)
    scale = planned.number / listed.number if listed.number > 0 else 1.0
    if scale != 1.0:
        profile, ac_watts = Profile(profile.edges_h, profile.watts * scale), ac_watts * scale
    return Day(
        plan, day_type, air, derating.battery_temperature(plan, assumptions, day_type), tuple(loads), idle,
        standby, hours, listed, cautious, habits, measured, planned, second_wh, profile, ac_watts,
        _sun(plan, day_type),
    )  # fmt: skip


def _eta(plan: Plan, load: Load, eta_dc: Figure, eta_inv: Figure, eta_second: Figure) -> Figure:
    if load.supply == AC:
        return eta_inv
    return eta_second if hangs_on_second(plan, load) else eta_dc


def _sun(plan: Plan, day_type: DayType) -> SunDay | None:
    site = plan.site
    if site.latitude is None or site.longitude is None:
        return None
    day = day_of_year(day_type.season, site.latitude)
    return sun_day(site.latitude, site.longitude, site.utc_offset_h, day)


def _profile(
    plan: Plan, loads: list[LoadFigures], windows: tuple[Block, ...], hours_on: float
) -> tuple[Profile, NDArray[np.float64]]:
    """Power from the bank over the day, and that part of it which goes through the inverter."""
    dc: list[Part] = [(((0.0, DAY_H),), plan.standby_w)]
    ac: list[Part] = [(windows, plan.inverter.idle_w)]
    for f in loads:
        (ac if f.load.supply == AC else dc).append((f.blocks, f.load.mean_w / f.eta.number))
    on = sum(e - s for s, e in windows)
    if hours_on > on and on < DAY_H:
        thin = plan.inverter.idle_w * (hours_on - on) / (DAY_H - on)
        ac += [(((0.0, DAY_H),), thin), (windows, -thin)]
    profile = stack(dc + ac)
    return profile, on_edges(profile.edges_h, ac)


def _active_load(
    f: LoadFigures, eta: float, longer_s: float | None = None, *, by_the_clock: bool = False
) -> ActiveLoad:
    """A load as the bank feels it; one without a stated time may meet any other, unless made-up times do."""
    load = f.load
    blocks = f.blocks if by_the_clock or not load.any_time else ((0.0, DAY_H),)
    start = max(load.run_w, (load.start_w or 0.0) + max(0.0, load.quantity - 1) * load.watts)
    if longer_s is not None and load.start_s <= longer_s:
        start = load.run_w
    return ActiveLoad(load.id, blocks, load.run_w / eta, start / eta, load.together)


def _peak(
    plan: Plan, loads: tuple[LoadFigures, ...], inverter_on: bool, longer_s: float | None = None
) -> Peak:
    return hardest_moment(*_active_loads(plan, loads, inverter_on, longer_s))


def _active_loads(
    plan: Plan,
    loads: tuple[LoadFigures, ...],
    inverter_on: bool,
    longer_s: float | None,
    *,
    by_the_clock: bool = False,
) -> tuple[list[ActiveLoad], float]:
    """The loads as the bank feels them, without starts that are over sooner, and what always draws [W]."""
    active_loads = [
        _active_load(f, f.eta.number, longer_s, by_the_clock=by_the_clock)
        for f in loads
        if not hangs_on_second(plan, f.load)
    ]
    there = [
        _active_load(f, 1.0, longer_s, by_the_clock=by_the_clock)
        for f in loads
        if f.runs and hangs_on_second(plan, f.load)
    ]
    if plan.second is not None and there:
        # What its charger takes while any of its loads runs; beyond the limit the second bank gives the rest.
        watts = min(plan.second.limit_w, hardest_moment(there, 0.0).watts) / plan.second.efficiency
        active_loads.append(
            ActiveLoad(SECOND_BANK, union_hours([b for r in there for b in r.blocks]), watts, watts)
        )
    return active_loads, plan.standby_w + (plan.inverter.idle_w if inverter_on else 0.0)


def _system_volts(plan: Plan) -> Figure:
    return typed("rig.system_v", phrase("terms.names.system_voltage"), plan.system_v, "V", "/rig/system_v")


def _peak_power(at: str, peak: Peak) -> Figure:
    running = computed(
        f"{at}.peak_running_w", phrase("day.energy_audit.peak_running_w"), peak.running_w, "W", "", {},
        phrase("day.energy_audit.peak_running_w_source"),
    )  # fmt: skip
    jump = computed(
        f"{at}.peak_start_w",
        phrase("day.energy_audit.peak_start_w"),
        peak.watts - peak.running_w,
        "W",
        "",
        {},
        phrase("day.energy_audit.peak_start_w_source"),
    )
    return computed(
        f"{at}.peak_w", phrase("terms.names.highest_peak_power"), peak.watts, "W", "{P_run} + {P_start}",
        {"P_run": running, "P_start": jump}, phrase("day.energy_audit.peak_w_source"),
    )  # fmt: skip


def profile_sums(at: str, profile: Profile) -> tuple[Figure, Figure]:
    """Σ(P²·t) and Σ(P·t) of a profile [W²h], [Wh], as figures."""
    squared = computed(
        f"{at}.squared", phrase("day.energy_audit.squared"), profile.power_squared_hours, "W²h", "", {},
        phrase("day.energy_audit.squared_source"),
    )  # fmt: skip
    area = computed(
        f"{at}.area", phrase("day.energy_audit.area"), profile.energy_wh, "Wh", "", {},
        phrase("day.energy_audit.area_source"),
    )  # fmt: skip
    return squared, area
