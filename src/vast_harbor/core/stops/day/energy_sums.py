"""The energy of a day, as listed, in doubt, by habits and as measured."""

from collections.abc import Callable

from vast_harbor.core.figures.clock import Block
from vast_harbor.core.figures.workings import Deferred, Figure, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import DayType
from vast_harbor.core.rig.doubt import Triple, cautious_sum
from vast_harbor.core.rig.loads import AC, DC, bank_energy, inverter_hours
from vast_harbor.core.rig.plan import Plan, SecondBank
from vast_harbor.core.stops.day.load_energy import AUDIT, LoadFigures
from vast_harbor.phrases import phrase

CAREFUL, USUAL, CARELESS = "careful", "usual", "careless"
CAUTIOUS, MEASURED = "cautious", "measured"


def inverter_efficiency(plan: Plan) -> Figure:
    """Efficiency of the inverter as the owner states it [-]."""
    return typed(
        "day.inverter.efficiency", phrase("day.energy_sums.efficiency"), plan.inverter.efficiency, "%",
        "/day/inverter/efficiency", phrase("day.energy_sums.efficiency_note"), 0.85, 0.94,
    )  # fmt: skip


def second_efficiency(second: SecondBank) -> Figure:
    """Efficiency of the charger between the banks as the owner states it [-]."""
    return typed(
        "second.efficiency", phrase("day.energy_sums.charger_efficiency", name=second.name),
        second.efficiency, "%",
        "/second_bank/efficiency", phrase("day.energy_sums.efficiency_dc_dc_note"), 0.85, 0.95,
    )  # fmt: skip


def idle_energy(plan: Plan, at: str, hours: Figure) -> Figure:
    """What the inverter takes for being on [Wh/day]."""
    idle_w = typed(
        "day.inverter.idle_w",
        phrase("day.energy_sums.idle_w"),
        plan.inverter.idle_w,
        "W",
        "/day/inverter/idle_w",
        phrase("day.energy_sums.idle_w_note"),
        3,
        25,
    )
    return computed(
        f"{at}.idle_wh",
        phrase("day.energy_sums.idle_wh"),
        idle_w.number * hours.number,
        "Wh",
        "{P_idle} · {h_inv}",
        {"P_idle": idle_w, "h_inv": hours},
        phrase("day.energy_sums.idle_wh_source"),
    )


def standby_energy(plan: Plan, at: str) -> Figure:
    """What draws with everything off [Wh/day]."""
    standby_w = typed(
        "day.standby_w", phrase("day.energy_sums.standby_w"), plan.standby_w, "W", "/day/standby_w",
        phrase("day.energy_sums.standby_w_note"),
    )  # fmt: skip
    return computed(
        f"{at}.standby_wh",
        phrase("day.energy_sums.standby_wh"),
        24 * plan.standby_w,
        "Wh",
        "24 · {P_standby}",
        {"P_standby": standby_w},
        phrase("day.energy_sums.standby_wh_source"),
    )


def sum_energy(key: str, name: str, energies: list[float], figures: Callable[[], list[Figure]]) -> Figure:
    """A sum of energies whose parts are built only when somebody looks at its workings [Wh]."""
    formula = " + ".join(f"{{E{i}}}" for i in range(1, len(energies) + 1)) or "0"
    inputs = Deferred(lambda: {f"E{i}": f for i, f in enumerate(figures(), 1)})
    return computed(key, name, sum(energies), "Wh", formula, inputs, AUDIT)


def listed_energy(
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
    """E_bank by the list of loads [Wh/day]."""
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
        f"{at}.bank_wh", phrase("day.energy_sums.bank_wh"), value, "Wh", formula, inputs,
        phrase("day.energy_sums.bank_wh_source"),
    )  # fmt: skip


def cautious_energy(at: str, listed: Figure, loads: list[LoadFigures]) -> Figure:
    """What nine days of ten stay below [Wh/day]."""
    in_doubt = [f for f in loads if f.high_wh - f.low_wh > 1e-9]
    triples: list[Triple] = [(f.low_wh, f.from_bank_wh, f.high_wh) for f in in_doubt]
    certain = listed.number - sum(t[1] for t in triples)
    return computed(
        f"{at}.cautious_wh", phrase("day.energy_sums.cautious_wh"), cautious_sum(triples, certain), "Wh", "",
        Deferred(lambda: {"E_bank": listed} | {f"E{i}": f.bank_wh for i, f in enumerate(in_doubt, 1)}),
        phrase("day.energy_sums.cautious_wh_source"),
        phrase("day.energy_sums.cautious_wh_note"),
    )  # fmt: skip


def habit_energies(
    at: str, assumptions: Assumptions, listed: Figure, loads: list[LoadFigures]
) -> dict[str, Figure]:
    """The listed day of careful, usual and careless people [Wh/day]."""
    hand = [f for f in loads if f.load.by_hand and f.runs]
    by_hand = sum_energy(
        f"{at}.by_hand_wh", phrase("day.energy_sums.by_hand_wh"), [f.from_bank_wh for f in hand],
        lambda: [f.bank_wh for f in hand],
    )  # fmt: skip
    out = {USUAL: listed}
    for name, key in ((CAREFUL, "habit_careful"), (CARELESS, "habit_careless")):
        factor = assumptions.figure(key)
        out[name] = computed(
            f"{at}.{name}_wh", phrase("day.energy_sums.day_people", name=name),
            listed.number + (factor.number - 1) * by_hand.number, "Wh", "{E_bank} + ({f} − 1) · {E_hand}",
            {"E_bank": listed, "f": factor, "E_hand": by_hand},
            phrase("day.energy_sums.habits_change_switch_hand"),
        )  # fmt: skip
    return out


def measured_energy(plan: Plan, at: str, day_type: DayType) -> Figure | None:
    """The day as a monitor counted it [Wh/day]; None without a measurement."""
    if day_type.measured_wh is None:
        return None
    path = plan.type_path(day_type)
    counted = typed(
        f"{at}.counted_wh",
        phrase("day.energy_sums.counted_wh"),
        day_type.measured_wh,
        "Wh",
        f"{path}/measured_wh",
    )
    hours = typed(
        f"{at}.counted_h",
        phrase("day.energy_sums.counted_h"),
        day_type.measured_hours,
        "h",
        f"{path}/measured_hours",
    )
    return computed(
        f"{at}.measured_wh", phrase("day.energy_sums.measured_wh"), counted.number / hours.number * 24, "Wh",
        "{Wh} / {h} · 24", {"Wh": counted, "h": hours}, phrase("day.energy_sums.measured_wh_source"),
    )  # fmt: skip


def planned_energy(
    plan: Plan, at: str, listed: Figure, cautious: Figure, habits: dict[str, Figure], measured: Figure | None
) -> Figure:
    """The day that the plan goes by; the listed one itself where nothing else is chosen."""
    base, name = listed, phrase("day.energy_sums.day_listed")
    if plan.day_basis == MEASURED and measured is not None:
        return measured
    if plan.day_basis == CAUTIOUS:
        base, name = cautious, phrase("day.energy_sums.cautious_day")
    if plan.habits == USUAL:
        return base
    habit = habits[plan.habits]
    return computed(
        f"{at}.planned_wh", phrase("day.energy_sums.planned_wh", name=name, habits=plan.habits),
        max(0.0, base.number + habit.number - listed.number), "Wh", "max(0, {E} + {E_habit} − {E_bank})",
        {"E": base, "E_habit": habit, "E_bank": listed}, phrase("day.energy_sums.planned_wh_source"),
    )  # fmt: skip


def hours_of_inverter(plan: Plan, at: str, windows: tuple[Block, ...]) -> Figure:
    """Hours that the inverter is on: as stated, but at least as long as any AC load runs [h]."""
    union = computed(
        f"{at}.ac_hours", phrase("day.energy_sums.ac_hours"), sum(e - s for s, e in windows), "h", "", {},
        phrase("day.energy_sums.ac_hours_source"),
    )  # fmt: skip
    stated = typed(
        "day.inverter.hours_on", phrase("day.energy_sums.hours_on"), plan.inverter.hours_on or 0.0, "h",
        "/day/inverter/hours_on",
    )  # fmt: skip
    return computed(
        f"{at}.inverter_hours",
        phrase("day.energy_sums.inverter_hours"),
        inverter_hours(plan.inverter.hours_on, union.number),
        "h",
        "max({h_stated}, {h_AC})",
        {"h_stated": stated, "h_AC": union},
        phrase("day.energy_sums.inverter_hours_source"),
    )
