"""Day: what the loads take from the bank in a day, and when."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.loads import AC, DC, STANDBY, TIMES, USES, Load, ac_windows, bank_energy, inverter_hours
from vast_harbor.core.plan import Plan
from vast_harbor.core.profile import DAY_H, Block, Part, Profile, on_edges, stack
from vast_harbor.core.workings import Figure, Finding, Sentence, computed, typed

AUDIT = "Energy audit: quantity · power · hours · duty cycle"


@dataclass(frozen=True, slots=True)
class LoadFigures:
    """What one load takes.

    Attributes:
        load: the load.
        wh: energy at the load [Wh/day].
        bank_wh: energy that it takes from the bank, losses included [Wh/day].
        share: of the day's energy from the bank [%].
    """

    load: Load
    wh: Figure
    bank_wh: Figure
    share: Figure


@dataclass(frozen=True, slots=True)
class Day:
    """The day in figures.

    Attributes:
        loads: each load's energy.
        idle_wh, standby_wh: inverter idle and unlisted standby [Wh/day].
        inverter_hours: hours that the inverter is on [h].
        bank_wh: E_bank [Wh/day].
        profile: power drawn from the bank over 24 h.
        ac_watts: that part of it which goes through the inverter [W].
        findings: what is to be looked at.
    """

    loads: tuple[LoadFigures, ...]
    idle_wh: Figure
    standby_wh: Figure
    inverter_hours: Figure
    bank_wh: Figure
    profile: Profile
    ac_watts: NDArray[np.float64]
    findings: tuple[Finding, ...]


def evaluate(plan: Plan, assumptions: Assumptions) -> Day:
    """Add up the day.

    Args:
        plan: what the owner entered.
        assumptions: what holds for it.

    Returns:
        The day in figures with their workings.
    """
    eta_dc = assumptions.figure("dc_efficiency")
    inverter = plan.inverter
    eta_inv = typed(
        "day.inverter.efficiency",
        "Inverter efficiency",
        inverter.efficiency,
        "1",
        "/day/inverter/efficiency",
        "Without its idle draw.",
        0.85,
        0.94,
    )
    energies = [_load_energy(load, i) for i, load in enumerate(plan.loads)]
    windows = ac_windows(list(plan.loads))
    hours = _inverter_hours(plan, windows)
    idle_w = typed(
        "day.inverter.idle_w",
        "Inverter idle draw",
        inverter.idle_w,
        "W",
        "/day/inverter/idle_w",
        "Small ones take 3 W, large ones 25 W.",
        3,
        25,
    )
    idle = computed(
        "day.idle_wh",
        "Inverter idle",
        idle_w.number * hours.number,
        "Wh",
        "{P_idle} · {h_inv}",
        {"P_idle": idle_w, "h_inv": hours},
        "Idle draw for as long as the inverter is switched on",
    )
    standby_w = typed(
        "day.standby_w",
        "Standby with everything off",
        plan.standby_w,
        "W",
        "/day/standby_w",
        "What the monitor still reads: alarms, displays, relays.",
    )
    standby = computed(
        "day.standby_wh",
        "Unlisted standby",
        24 * plan.standby_w,
        "Wh",
        "24 · {P_standby}",
        {"P_standby": standby_w},
        "Measured standby, round the clock",
    )
    sums = {
        s: _sum(s, [e for e, load in zip(energies, plan.loads, strict=True) if load.supply == s])
        for s in (DC, AC)
    }
    total = computed(
        "day.bank_wh",
        "The day, taken from the bank",
        bank_energy(
            sums[DC].number, sums[AC].number, eta_dc.number, inverter.efficiency, idle.number, plan.standby_w
        ),
        "Wh",
        "{E_dc} / {η_dc} + {E_ac} / {η_inv} + {E_idle} + {E_standby}",
        {
            "E_dc": sums[DC],
            "η_dc": eta_dc,
            "E_ac": sums[AC],
            "η_inv": eta_inv,
            "E_idle": idle,
            "E_standby": standby,
        },
        "Energy audit: loads, conversion losses, inverter idle and standby",
    )
    loads = tuple(
        _load_figures(load, energy, eta_inv if load.supply == AC else eta_dc, total)
        for load, energy in zip(plan.loads, energies, strict=True)
    )
    profile, ac_watts = _profile(plan, eta_dc.number, windows, hours.number)
    return Day(loads, idle, standby, hours, total, profile, ac_watts, _findings(plan, hours, windows))


def _load_energy(load: Load, index: int) -> Figure:
    at, path = f"day.load.{load.id}", f"/day/loads/{index}"
    inputs: dict[str, Figure] = {
        "n": typed(f"{at}.quantity", "How many", load.quantity, "1", f"{path}/quantity")
    }
    if load.draw.unit == "A":
        amps = typed(f"{at}.amps", "Current", load.draw.value, "A", f"{path}/draw")
        volts = typed(
            f"{at}.volts",
            "At volts",
            load.volts,
            "V",
            f"{path}/volts",
            "Class volts unless you state others, so that the need does not depend on the bank.",
        )
        inputs["P"] = computed(
            f"{at}.watts", f"Power of {load.name}", load.watts, "W", "{I} · {V}", {"I": amps, "V": volts}
        )
    else:
        inputs["P"] = typed(f"{at}.watts", f"Power of {load.name}", load.watts, "W", f"{path}/draw")
    duty = typed(
        f"{at}.duty",
        "Duty cycle",
        load.duty,
        "1",
        f"{path}/duty",
        "Share of the time switched on in which it really draws.",
    )
    if load.use == USES:
        inputs["u"] = typed(f"{at}.uses", "Uses a day", load.uses, "1", f"{path}/uses")
        inputs["t"] = typed(f"{at}.minutes", "Minutes a use", load.minutes, "min", f"{path}/minutes")
        formula = "{n} · {P} · {u} · {t} / 60 · {duty}"
    elif load.use == STANDBY:
        formula = "{n} · {P} · 24 · {duty}"
    elif load.use == TIMES:
        inputs["h"] = computed(
            f"{at}.hours",
            "Length of its set times",
            load.hours_on,
            "h",
            "",
            {},
            "Read off the 24-hour sheet; overlapping times count once",
        )
        formula = "{n} · {P} · {h} · {duty}"
    else:
        inputs["h"] = typed(f"{at}.hours", "Hours a day", load.hours, "h", f"{path}/hours")
        formula = "{n} · {P} · {h} · {duty}"
    inputs["duty"] = duty
    return computed(f"{at}.wh", load.name, load.wh, "Wh", formula, inputs, AUDIT)


def _sum(supply: str, energies: list[Figure]) -> Figure:
    inputs = {f"E{i}": e for i, e in enumerate(energies, 1)}
    formula = " + ".join(f"{{{symbol}}}" for symbol in inputs) or "0"
    return computed(
        f"day.{supply}_wh",
        f"All {supply.upper()} loads",
        sum(e.number for e in energies),
        "Wh",
        formula,
        inputs,
        AUDIT,
    )


def _inverter_hours(plan: Plan, windows: tuple[Block, ...]) -> Figure:
    union = computed(
        "day.ac_hours",
        "Hours in which any AC load runs",
        sum(e - s for s, e in windows),
        "h",
        "",
        {},
        "Union of the times of the AC loads; overlapping ones count once",
    )
    stated = typed(
        "day.inverter.hours_on",
        "Inverter switched on, as you state it",
        plan.inverter.hours_on or 0.0,
        "h",
        "/day/inverter/hours_on",
    )
    return computed(
        "day.inverter_hours",
        "Inverter on",
        inverter_hours(plan.inverter.hours_on, union.number),
        "h",
        "max({h_stated}, {h_AC})",
        {"h_stated": stated, "h_AC": union},
        "At least as long as any AC load runs",
    )


def _load_figures(load: Load, energy: Figure, eta: Figure, total: Figure) -> LoadFigures:
    at = f"day.load.{load.id}"
    bank = computed(
        f"{at}.bank_wh",
        f"{load.name}, taken from the bank",
        energy.number / eta.number,
        "Wh",
        "{E} / {η}",
        {"E": energy, "η": eta},
        "Losses of the inverter or the wiring are the bank's to carry",
    )
    has = total.number > 0
    share = computed(
        f"{at}.share",
        f"Share of {load.name}",
        bank.number / total.number if has else None,
        "%",
        "{E} / {E_bank}" if has else "",
        {"E": bank, "E_bank": total},
    )
    return LoadFigures(load, energy, bank, share)


def _profile(
    plan: Plan, eta_dc: float, windows: tuple[Block, ...], hours_on: float
) -> tuple[Profile, NDArray[np.float64]]:
    """Power from the bank over the day, and that part of it which goes through the inverter."""
    dc: list[Part] = [(((0.0, DAY_H),), plan.standby_w)]
    ac: list[Part] = [(windows, plan.inverter.idle_w)]
    for load in plan.loads:
        power = load.quantity * load.watts * load.duty
        if load.supply == AC:
            ac.append((load.blocks, power / plan.inverter.efficiency))
        else:
            dc.append((load.blocks, power / eta_dc))
    on = sum(e - s for s, e in windows)
    if hours_on > on and on < DAY_H:
        thin = plan.inverter.idle_w * (hours_on - on) / (DAY_H - on)
        ac += [(((0.0, DAY_H),), thin), (windows, -thin)]
    profile = stack(dc + ac)
    return profile, on_edges(profile.edges_h, ac)


def _findings(plan: Plan, hours: Figure, windows: tuple[Block, ...]) -> tuple[Finding, ...]:
    found: list[Finding] = []
    stated = plan.inverter.hours_on
    union = hours.inputs["h_AC"]
    if stated is not None and stated < union.number - 1e-6:
        found.append(
            Finding(
                "inverter_hours",
                "note",
                "day",
                Sentence(
                    "AC loads run {union} a day, longer than the {stated} for which the inverter is "
                    "said to be on; {union} is used.",
                    {"union": union, "stated": hours.inputs["h_stated"]},
                ),
                "State more hours, or leave the field empty.",
            )
        )
    if plan.loads and not windows and plan.inverter.hours_on:
        found.append(
            Finding(
                "inverter_idle",
                "note",
                "day",
                Sentence(
                    "The inverter is on {stated} a day with no AC load listed.",
                    {"stated": hours.inputs["h_stated"]},
                ),
                "List what it is on for, or switch it off.",
            )
        )
    return tuple(found)
