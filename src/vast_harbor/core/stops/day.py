"""Day: what the loads of one kind of day take from the bank, and when."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core import factors
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.day_types import DayType
from vast_harbor.core.doubt import Triple, cautious_sum
from vast_harbor.core.loads import AC, DC, TIMES, Load, bank_energy, inverter_hours
from vast_harbor.core.peak import Peak, Runner, hardest_moment
from vast_harbor.core.plan import Plan
from vast_harbor.core.profile import DAY_H, Block, Part, Profile, mean_current, on_edges, stack, union_hours
from vast_harbor.core.stops.day_loads import AUDIT, LoadFigures, hangs_on_second
from vast_harbor.core.sun import SunDay, day_of_year, sun_day
from vast_harbor.core.workings import REFERENCE, Deferred, Figure, computed, typed

CAREFUL, USUAL, CARELESS = "careful", "usual", "careless"
LIKELY, CAUTIOUS, MEASURED = "likely", "cautious", "measured"


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
        """The hardest moment; what hangs on the second bank is met by it, beyond its charger's limit."""
        return _peak(self.plan, self.loads, self.inverter_hours.inputs["h_AC"].number > 0)

    @cached_property
    def peak_w(self) -> Figure:
        """Its power [W]."""
        return _peak_power(f"day.{self.type.id}", self.peak)

    @cached_property
    def peak_a(self) -> Figure:
        """Its current at class volts [A]."""
        return computed(
            f"day.{self.type.id}.peak_a",
            "Current at the hardest moment",
            self.peak.watts / self.plan.system_v,
            "A",
            "{P_peak} / {V}",
            {"P_peak": self.peak_w, "V": _system_volts(self.plan)},
            "At class volts; a bank that sags gives more amps for the same watts",
        )

    @cached_property
    def mean_a(self) -> Figure:
        """Mean current at class volts, weighted by energy [A]."""
        squared, area = profile_sums(f"day.{self.type.id}", self.profile)
        return computed(
            f"day.{self.type.id}.mean_a", "Mean current, weighted by energy",
            mean_current(squared.number, area.number, self.plan.system_v), "A",
            "{P²t} / ({Pt} · {V})" if area.number > 0 else "0",
            {"P²t": squared, "Pt": area, "V": _system_volts(self.plan)},
            "I_mean = Σ(P²·t) / (Σ(P·t) · V): hard draws weigh more",
        )  # fmt: skip

    @property
    def doubtful(self) -> LoadFigures | None:
        """The load whose doubt costs most battery; None where nothing is in doubt."""
        worst = max(self.loads, key=lambda f: f.high_wh - f.from_bank_wh, default=None)
        return worst if worst is not None and worst.high_wh > worst.from_bank_wh + 1e-9 else None


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
    air = factors.air_temperature(plan, day_type)
    on_day = [load.on_day(day_type, air.number) for load in plan.loads]
    blocks = [load.blocks for load in on_day]
    windows = union_hours(
        [b for load, own in zip(on_day, blocks, strict=True) if load.supply == AC for b in own]
    )
    eta_dc, eta_inv = assumptions.figure("dc_efficiency"), _inverter_efficiency(plan)
    eta_second = _second_efficiency(plan, eta_dc)
    hours = _inverter_hours(plan, at, windows)
    idle, standby = _idle(plan, at, hours), _standby(plan, at)
    loads: list[LoadFigures] = []
    etas = [_eta(plan, load, eta_dc, eta_inv, eta_second) for load in on_day]
    energies = [
        load.mean_w * (sum(e - s for s, e in own) if load.use == TIMES else load.hours_on)
        for load, own in zip(on_day, blocks, strict=True)
    ]

    def sum_of(name: str, title: str, of: Callable[[Load], bool]) -> Figure:
        return _sum(
            f"{at}.{name}", title, [wh for wh, load in zip(energies, on_day, strict=True) if of(load)],
            lambda: [f.wh for f in loads if of(f.load)],
        )  # fmt: skip

    sums = {
        DC: sum_of("dc_wh", "All DC loads", lambda x: x.supply == DC and not hangs_on_second(plan, x)),
        AC: sum_of("ac_wh", "All AC loads", lambda x: x.supply == AC),
    }
    second_wh = None
    if plan.second is not None:
        second_wh = sum_of(
            "second_wh", f"All loads on {plan.second.name}", lambda x: hangs_on_second(plan, x)
        )
    listed = _listed(plan, at, sums, eta_dc, eta_inv, eta_second, idle, standby, second_wh)
    loads += [
        LoadFigures(plan, day_type, air, load, i, own, wh, wh / eta.number, eta, listed)
        for i, (load, own, wh, eta) in enumerate(zip(on_day, blocks, energies, etas, strict=True))
    ]
    cautious = _cautious(at, listed, loads)
    habits = _habits(at, assumptions, listed, loads)
    measured = _measured(plan, at, day_type)
    planned = _planned(plan, at, listed, cautious, habits, measured)
    profile, ac_watts = _profile(plan, loads, windows, hours.number)
    scale = planned.number / listed.number if listed.number > 0 else 1.0
    if scale != 1.0:
        profile, ac_watts = Profile(profile.edges_h, profile.watts * scale), ac_watts * scale
    return Day(
        plan, day_type, air, factors.battery_temperature(plan, assumptions, day_type), tuple(loads), idle,
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


def _inverter_efficiency(plan: Plan) -> Figure:
    return typed(
        "day.inverter.efficiency", "Inverter efficiency", plan.inverter.efficiency, "1",
        "/day/inverter/efficiency", "Without its idle draw.", 0.85, 0.94,
    )  # fmt: skip


def _second_efficiency(plan: Plan, eta_dc: Figure) -> Figure:
    if plan.second is None:
        return eta_dc
    return typed(
        "second.efficiency", f"Efficiency of the charger to {plan.second.name}", plan.second.efficiency, "1",
        "/second_bank/efficiency", "DC-DC charger between the banks.", 0.85, 0.95,
    )  # fmt: skip


def _idle(plan: Plan, at: str, hours: Figure) -> Figure:
    idle_w = typed(
        "day.inverter.idle_w", "Inverter idle draw", plan.inverter.idle_w, "W", "/day/inverter/idle_w",
        "Small ones take 3 W, large ones 25 W.", 3, 25,
    )  # fmt: skip
    return computed(
        f"{at}.idle_wh", "Inverter idle", idle_w.number * hours.number, "Wh", "{P_idle} · {h_inv}",
        {"P_idle": idle_w, "h_inv": hours}, "Idle draw for as long as the inverter is switched on",
    )  # fmt: skip


def _standby(plan: Plan, at: str) -> Figure:
    standby_w = typed(
        "day.standby_w", "Standby with everything off", plan.standby_w, "W", "/day/standby_w",
        "What the monitor still reads: alarms, displays, relays.",
    )  # fmt: skip
    return computed(
        f"{at}.standby_wh", "Unlisted standby", 24 * plan.standby_w, "Wh", "24 · {P_standby}",
        {"P_standby": standby_w}, "Measured standby, round the clock",
    )  # fmt: skip


def _sum(key: str, name: str, energies: list[float], figures: Callable[[], list[Figure]]) -> Figure:
    formula = " + ".join(f"{{E{i}}}" for i in range(1, len(energies) + 1)) or "0"
    inputs = Deferred(lambda: {f"E{i}": f for i, f in enumerate(figures(), 1)})
    return computed(key, name, sum(energies), "Wh", formula, inputs, AUDIT)


def _listed(
    plan: Plan,
    at: str,
    sums: dict[str, Figure],
    eta_dc: Figure,
    eta_inv: Figure,
    eta_second: Figure,
    idle: Figure,
    standby: Figure,
    second: Figure | None,
) -> Figure:
    value = bank_energy(
        sums[DC].number, sums[AC].number, eta_dc.number, eta_inv.number, idle.number, plan.standby_w
    )
    formula = "{E_dc} / {η_dc} + {E_ac} / {η_inv} + {E_idle} + {E_standby}"
    inputs = {
        "E_dc": sums[DC], "η_dc": eta_dc, "E_ac": sums[AC], "η_inv": eta_inv, "E_idle": idle,
        "E_standby": standby,
    }  # fmt: skip
    if second is not None:
        value += second.number / eta_second.number
        formula += " + {E_2} / {η_2}"
        inputs |= {"E_2": second, "η_2": eta_second}
    return computed(
        f"{at}.bank_wh", "The day, taken from the bank", value, "Wh", formula, inputs,
        "Energy audit: loads, conversion losses, inverter idle and standby",
    )  # fmt: skip


def _cautious(at: str, listed: Figure, loads: list[LoadFigures]) -> Figure:
    in_doubt = [f for f in loads if f.high_wh - f.low_wh > 1e-9]
    triples: list[Triple] = [(f.low_wh, f.from_bank_wh, f.high_wh) for f in in_doubt]
    certain = listed.number - sum(t[1] for t in triples)
    return computed(
        f"{at}.cautious_wh", "The cautious day", cautious_sum(triples, certain), "Wh", "",
        Deferred(lambda: {"E_bank": listed} | {f"E{i}": f.bank_wh for i, f in enumerate(in_doubt, 1)}),
        "Nine days of ten stay below it (P90): triangular low, likely, high of each load, independent",
        "mean + 1.28 · √Σσ², not above the sum of the highs.",
    )  # fmt: skip


def _habits(at: str, assumptions: Assumptions, listed: Figure, loads: list[LoadFigures]) -> dict[str, Figure]:
    hand = [f for f in loads if f.load.by_hand and f.runs]
    by_hand = _sum(
        f"{at}.by_hand_wh", "Of it switched by hand", [f.from_bank_wh for f in hand],
        lambda: [f.bank_wh for f in hand],
    )  # fmt: skip
    out = {USUAL: listed}
    for name, key in ((CAREFUL, "habit_careful"), (CARELESS, "habit_careless")):
        factor = assumptions.figure(key)
        out[name] = computed(
            f"{at}.{name}_wh", f"The day of {name} people",
            listed.number + (factor.number - 1) * by_hand.number, "Wh", "{E_bank} + ({f} − 1) · {E_hand}",
            {"E_bank": listed, "f": factor, "E_hand": by_hand},
            "Habits change what is switched by hand, not what runs round the clock",
        )  # fmt: skip
    return out


def _measured(plan: Plan, at: str, day_type: DayType) -> Figure | None:
    if day_type.measured_wh is None:
        return None
    path = plan.type_path(day_type)
    counted = typed(
        f"{at}.counted_wh", "Counted by the monitor", day_type.measured_wh, "Wh", f"{path}/measured_wh"
    )
    hours = typed(f"{at}.counted_h", "Over hours", day_type.measured_hours, "h", f"{path}/measured_hours")
    return computed(
        f"{at}.measured_wh", "The day as measured", counted.number / hours.number * 24, "Wh",
        "{Wh} / {h} · 24", {"Wh": counted, "h": hours}, "A battery monitor's count, brought to 24 hours",
    )  # fmt: skip


def _planned(
    plan: Plan, at: str, listed: Figure, cautious: Figure, habits: dict[str, Figure], measured: Figure | None
) -> Figure:
    """The day that the plan goes by; the listed one itself where nothing else is chosen."""
    base, name = listed, "The day, as listed"
    if plan.day_basis == MEASURED and measured is not None:
        return measured
    if plan.day_basis == CAUTIOUS:
        base, name = cautious, "The cautious day"
    if plan.habits == USUAL:
        return base
    habit = habits[plan.habits]
    return computed(
        f"{at}.planned_wh", f"{name}, of {plan.habits} people",
        max(0.0, base.number + habit.number - listed.number), "Wh", "max(0, {E} + {E_habit} − {E_bank})",
        {"E": base, "E_habit": habit, "E_bank": listed}, "What habits change is added to the day",
    )  # fmt: skip


def _inverter_hours(plan: Plan, at: str, windows: tuple[Block, ...]) -> Figure:
    union = computed(
        f"{at}.ac_hours", "Hours in which any AC load runs", sum(e - s for s, e in windows), "h", "", {},
        "Union of the times of the AC loads; overlapping ones count once",
    )  # fmt: skip
    stated = typed(
        "day.inverter.hours_on", "Inverter switched on, as you state it", plan.inverter.hours_on or 0.0, "h",
        "/day/inverter/hours_on",
    )  # fmt: skip
    return computed(
        f"{at}.inverter_hours",
        "Inverter on",
        inverter_hours(plan.inverter.hours_on, union.number),
        "h",
        "max({h_stated}, {h_AC})",
        {"h_stated": stated, "h_AC": union},
        "At least as long as any AC load runs",
    )


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


def _peak(plan: Plan, loads: tuple[LoadFigures, ...], inverter_on: bool) -> Peak:
    runners = []
    for f in loads:
        load = f.load
        run = load.run_w
        start = max(run, (load.start_w or 0.0) + max(0.0, load.quantity - 1) * load.watts)
        if plan.second is not None and hangs_on_second(plan, load):
            run, start = min(run, plan.second.limit_w), min(start, plan.second.limit_w)
        eta = f.eta.number
        runners.append(Runner(load.id, f.blocks, run / eta, start / eta, load.together))
    return hardest_moment(runners, plan.standby_w + (plan.inverter.idle_w if inverter_on else 0.0))


def _system_volts(plan: Plan) -> Figure:
    return typed("rig.system_v", "System voltage", plan.system_v, "V", "/rig/system_v")


def _peak_power(at: str, peak: Peak) -> Figure:
    running = computed(
        f"{at}.peak_running_w", "Running together at the hardest moment", peak.running_w, "W", "", {},
        "Sum over the loads that are on at that moment, without their duty cycles, losses included",
    )  # fmt: skip
    jump = computed(
        f"{at}.peak_start_w", "Start of one of them on top", peak.watts - peak.running_w, "W", "", {},
        "Largest start-up power above the running one, losses included",
    )  # fmt: skip
    return computed(
        f"{at}.peak_w", "Hardest moment", peak.watts, "W", "{P_run} + {P_start}",
        {"P_run": running, "P_start": jump}, "P_peak = Σ P_run(together)/η + max(P_start − P_run)/η",
    )  # fmt: skip


def profile_sums(at: str, profile: Profile) -> tuple[Figure, Figure]:
    """Σ(P²·t) and Σ(P·t) of a profile [W²h], [Wh], as figures."""
    squared = computed(
        f"{at}.squared", "Power squared over the day", profile.power_squared_hours, "W²h", "", {},
        "Σ(P²·t) over the steps of the day's power profile",
    )  # fmt: skip
    area = computed(
        f"{at}.area", "Energy under the power profile", profile.energy_wh, "Wh", "", {},
        "Σ(P·t) over the steps of the day's power profile",
    )  # fmt: skip
    return squared, area


def charge_window(plan: Plan, day: Day) -> tuple[Figure, Figure] | None:
    """From when to when the bank is charged on a kind of day.

    Args:
        plan: for the hours driven.
        day: the day in figures.

    Returns:
        Clock hours of the first and the last charge [h]; None when there is none (polar night).
    """
    kind, at = day.type, f"day.{day.type.id}"
    path = plan.type_path(kind)
    start, end, source = 9.0, 17.0, "Customary daylight, as no site is chosen on the Rig stop"
    if kind.kind == "travelling" and plan.drive_hours > 0:
        half = min(12.0, plan.drive_hours / 2)
        start, end, source = 13 - half, 13 + half, "The hours driven, about one in the afternoon"
    elif day.sun is not None:
        if not day.sun.daylight:
            return None
        if day.sun.rise_h is None or day.sun.set_h is None:
            start, end = 6.0, 20.0
        else:
            length = (day.sun.set_h - day.sun.rise_h) % 24
            lead = min(1.0, length / 4)
            start, end = (day.sun.rise_h + lead) % 24, (day.sun.set_h - lead) % 24
        source = "An hour after sunrise to an hour before sunset, at the site in that season"

    def moment(name: str, title: str, stated: float | None, otherwise: float) -> Figure:
        if stated is not None:
            return typed(f"{at}.{name}", title, stated, "clock", f"{path}/{name}")
        return Figure(f"{at}.{name}", title, otherwise, "clock", REFERENCE, source=source)

    return (
        moment("charge_from", "First charge of the day", kind.charge_from, start),
        moment("charge_to", "Last charge of the day", kind.charge_to, end),
    )
