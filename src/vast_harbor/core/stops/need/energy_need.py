"""Need: usable energy between charges, and the nameplate of each chemistry that gives it."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.sizing import classical_nameplate
from vast_harbor.core.battery.terminal_voltage import Terminal, resistance_formula, unit_resistance
from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.day import Day, profile_sums
from vast_harbor.core.stops.need.label_requirement import ClassRequirement, label_requirement
from vast_harbor.core.stops.need.nights_off_grid import nights_of, overnight_of
from vast_harbor.phrases import phrase

NEED = "E_need = E_bank · N · (1 + m)"


@dataclass(frozen=True, slots=True)
class ClassNeed:
    """What one chemistry needs.

    Attributes:
        battery_class: the class.
        dod, temperature, rate, ageing: factors between label and usable energy [-].
        mean_current: energy-weighted mean current at the volts of the class [A].
        peak_current: current at the hardest moment, from a bank of that label at its floor [A]; its value is
            None when such a bank cannot deliver it.
        nameplate_wh, nameplate_ah: what the label must say [Wh], [Ah].
        classical_ah: what the classical solar method asks of the label [Ah]; None for LFP.
        steps: from the day's energy to the label, one factor after the other [Wh].
    """

    battery_class: BatteryClass
    dod: Figure
    temperature: Figure
    rate: Figure
    ageing: Figure
    mean_current: Figure
    peak_current: Figure
    nameplate_wh: Figure
    nameplate_ah: Figure
    classical_ah: Figure | None
    steps: tuple[Figure, ...]


@dataclass(frozen=True, slots=True)
class Need:
    """The need of one kind of day in figures.

    Attributes:
        day: that day.
        nights, reserve, ageing: assumptions that hold for all chemistries.
        overnight: energy from the last charge of a day to the next [Wh].
        energy: E_need, usable energy between charges [Wh].
        squared, area: Σ(P²·t) and Σ(P·t) of the day [W²h], [Wh].
        classes: the need by battery class.
        coldest, warmest: battery temperatures between which the rig is used [°C].
    """

    day: Day
    nights: Figure
    reserve: Figure
    ageing: Figure
    overnight: Figure
    energy: Figure
    squared: Figure
    area: Figure
    classes: Mapping[str, ClassNeed]
    coldest: Figure
    warmest: Figure

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the need."""
        yield from (self.energy, self.overnight, self.nights, self.coldest, self.warmest)
        for c in self.classes.values():
            yield from (c.nameplate_ah, c.nameplate_wh, c.mean_current, c.peak_current, c.rate, *c.steps)
            yield from [c.classical_ah] if c.classical_ah else []


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions, day: Day, at: str = "need") -> Need:
    """The need of a kind of day for every chemistry.

    Args:
        plan: what the owner entered.
        reference: shipped data, for the battery classes.
        assumptions: what holds for the plan.
        day: the day in figures.
        at: prefix of the keys; ``need`` for the day that the plan is made for.

    Returns:
        The need with its workings.
    """
    reserve, ageing = assumptions.figure("reserve"), assumptions.figure("ageing_allowance")
    overnight = overnight_of(plan, at, day)
    nights = nights_of(plan, at, assumptions, day, overnight)
    numbers = label_requirement(plan, reference, assumptions, day)
    energy = computed(
        f"{at}.energy",
        phrase("need.energy_need.energy"),
        numbers.energy_wh,
        "Wh",
        "{E_bank} · {N} · (1 + {m})",
        {"E_bank": day.bank_wh, "N": nights, "m": reserve},
        NEED,
    )
    squared, area = profile_sums(f"day.{day.type.id}", day.profile)

    def of_class(key: str) -> ClassNeed:
        battery_class, its = reference.classes[key], numbers.classes[key]
        return _class_need(
            plan, assumptions, f"{at}.{key}", battery_class, day, its, energy, squared, area, ageing
        )

    classes = LazyMapping(reference.classes, of_class)
    warmth = day.battery_c
    return Need(day, nights, reserve, ageing, overnight, energy, squared, area, classes, warmth, warmth)


def class_volts(plan: Plan, battery_class: BatteryClass) -> Figure:
    """Nominal volts of a class in the rig's system [V]."""
    system = typed("rig.system_v", phrase("terms.names.system_voltage"), plan.system_v, "V", "/rig/system_v")
    per_class = "" if battery_class.is_lead_acid else " / 12 · 4 · 3.2"
    return computed(
        f"need.{battery_class.key}.V",
        phrase("need.energy_need.nominal_voltage", short=battery_class.short),
        battery_class.nominal_v(plan.system_v),
        "V",
        "{V_class}" + per_class,
        {"V_class": system},
        phrase("need.energy_need.n2_0_v_per"),
    )


def _class_need(
    plan: Plan,
    assumptions: Assumptions,
    at: str,
    battery_class: BatteryClass,
    day: Day,
    numbers: ClassRequirement,
    energy: Figure,
    squared: Figure,
    area: Figure,
    ageing: Figure,
) -> ClassNeed:
    key = battery_class.key
    dod = assumptions.figure(f"dod.{key}")
    k_t = derating.temperature(at, day.battery_c, assumptions, battery_class)
    exponent = assumptions.figure(f"peukert.{key}")
    volts = class_volts(plan, battery_class)
    hours = Figure(
        f"{at}.r",
        phrase("terms.names.rated_time"),
        battery_class.rated_hours,
        "h",
        "reference",
        source=phrase("need.energy_need.r_source"),
    )
    current = derating.mean_current(at, area, squared, volts)
    before = computed(
        f"{at}.A",
        phrase("need.energy_need.amp_hours_before_discharge"),
        numbers.before_ah,
        "Ah",
        "{E_need} / ({V} · {DoD} · {k_T} · {k_age})",
        {"E_need": energy, "V": volts, "DoD": dod, "k_T": k_t, "k_age": ageing},
        NEED,
    )
    ah = computed(
        f"{at}.nameplate_ah",
        phrase("need.energy_need.nameplate_ah", short=battery_class.short),
        numbers.label_ah,
        "Ah",
        "max({A}, {A}^(1 / {k}) · ({r} · {I_mean})^(({k} − 1) / {k}))",
        {"A": before, "k": exponent, "r": hours, "I_mean": current},
        phrase("need.energy_need.nameplate_ah_source", peukert=derating.PEUKERT),
    )
    draws = current.number > 0
    rate = computed(
        f"{at}.k_rate",
        phrase("need.energy_need.k_rate", short=battery_class.short),
        numbers.rate,
        "%",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": ah, "r": hours, "I_mean": current, "k": exponent},
        derating.PEUKERT,
    )
    wh = computed(
        f"{at}.nameplate_wh",
        phrase("need.energy_need.nameplate_wh", short=battery_class.short),
        numbers.label_wh,
        "Wh",
        "{E_need} / ({DoD} · {k_T} · {k_rate} · {k_age})",
        {"E_need": energy, "DoD": dod, "k_T": k_t, "k_rate": rate, "k_age": ageing},
        phrase("need.energy_need.nameplate_wh_source"),
    )
    steps = _steps(at, energy, dod, k_t, rate, ageing)
    classical = _classical(at, assumptions, energy, dod, k_t, volts) if battery_class.is_lead_acid else None
    peak = _peak_current(plan, at, battery_class, day, dod, ageing, ah)
    return ClassNeed(battery_class, dod, k_t, rate, ageing, current, peak, wh, ah, classical, steps)


def _peak_current(
    plan: Plan, at: str, battery_class: BatteryClass, day: Day, dod: Figure, ageing: Figure, ah: Figure
) -> Figure:
    """I_peak of a bank of that label at its planned floor, cold and aged."""
    if ah.number <= 0:
        return Figure(
            f"{at}.I_peak",
            phrase("terms.names.highest_peak_current"),
            0.0,
            "A",
            source=phrase("need.energy_need.load"),
        )
    floor = 1 - dod.number
    terminal = Terminal(
        battery_class, plan.system_v, unit_resistance(battery_class, plan.system_v, ah.number),
        celsius=day.battery_c.number, health=ageing.number,
    )  # fmt: skip
    rested = computed(
        f"{at}.OCV",
        phrase("need.energy_need.resting_voltage_planned_minimum"),
        float(terminal.source_volts(floor, floor)),
        "V",
        "",
        {"DoD": dod},
        phrase("need.energy_need.resting_voltage_class_state"),
    )
    grows = resistance_formula(battery_class.is_lead_acid, "(1 − {DoD})", "{T}")
    inner = Figure(
        f"{at}.R_ref", phrase("need.energy_need.resistance_12_v_100"), battery_class.resistance_mohm / 1000,
        "Ω", "reference", source=phrase("terms.names.reference_value_battery_class"),
    )  # fmt: skip
    system = typed("rig.system_v", phrase("terms.names.system_voltage"), plan.system_v, "V", "/rig/system_v")
    resistance = computed(
        f"{at}.R",
        phrase("need.energy_need.resistance_bank"),
        float(terminal.resistance(floor, floor)),
        "Ω",
        f"{{R_ref}} · {{V}} / 12 · 100 / {{Ah}} · {grows} / {{k_age}}",
        {"R_ref": inner, "V": system, "Ah": ah, "DoD": dod, "T": day.battery_c, "k_age": ageing},
        phrase("need.energy_need.rises_depth_discharge_cold"),
        phrase("need.energy_need.cables_add"),
    )
    value = terminal.current(floor, floor, day.peak_w.number)
    return computed(
        f"{at}.I_peak",
        phrase("need.energy_need.highest_peak_current", short=battery_class.short),
        value,
        "A",
        "" if value is None else "({OCV} − ({OCV}^2 − 4 · {R} · {P})^0.5) / (2 · {R})",
        {"OCV": rested, "R": resistance, "P": day.peak_w},
        phrase("need.energy_need.i_peak_ocv_ocv"),
        phrase("need.energy_need.bank_size_cannot_supply"),
    )


def _classical(
    at: str, assumptions: Assumptions, energy: Figure, dod: Figure, k_t: Figure, volts: Figure
) -> Figure:
    day, nights, reserve = (energy.inputs[symbol] for symbol in ("E_bank", "N", "m"))
    daily = assumptions.figure("daily_depth")
    wh = classical_nameplate(day.number, nights.number, reserve.number, dod.number, daily.number, k_t.number)
    return computed(
        f"{at}.classical_ah",
        phrase("need.energy_need.classical_ah"),
        wh / volts.number,
        "Ah",
        "max({E_bank} · {N} / {DoD}, {E_bank} · {N} / 0.8, {E_bank} / {DoD_day}) · (1 + {m}) / {k_T} / {V}",
        {"E_bank": day, "N": nights, "DoD": dod, "DoD_day": daily, "m": reserve, "k_T": k_t, "V": volts},
        phrase("need.energy_need.classical_ah_source"),
        phrase("need.energy_need.classical_ah_note"),
    )


def _steps(
    at: str, energy: Figure, dod: Figure, k_t: Figure, rate: Figure, ageing: Figure
) -> tuple[Figure, ...]:
    """From the day's energy to what the label must say, each factor adding its part."""
    day, nights, reserve = (energy.inputs[symbol] for symbol in ("E_bank", "N", "m"))
    factors_in_turn: list[tuple[str, str, str, Figure, float]] = [
        ("nights", phrase("need.energy_need.nights"), "{E} · {x}", nights, nights.number),
        ("reserve", phrase("terms.names.reserve"), "{E} · (1 + {x})", reserve, 1 + reserve.number),
        ("depth", phrase("terms.names.usable_depth"), "{E} / {x}", dod, 1 / dod.number),
        ("temperature", phrase("terms.names.temperature"), "{E} / {x}", k_t, 1 / k_t.number),
        ("rate", phrase("terms.names.rate"), "{E} / {x}", rate, 1 / rate.number),
        ("age", phrase("terms.names.age"), "{E} / {x}", ageing, 1 / ageing.number),
    ]
    steps = [
        computed(
            f"{at}.step.day",
            phrase("need.energy_need.energy_day"),
            day.number,
            "Wh",
            "{E_bank}",
            {"E_bank": day},
            NEED,
        )
    ]
    for key, name, formula, factor, times in factors_in_turn:
        before = steps[-1]
        steps.append(
            computed(
                f"{at}.step.{key}",
                name,
                before.number * times,
                "Wh",
                formula,
                {"E": before, "x": factor},
                phrase("need.energy_need.energy_after_step"),
            )
        )
    return tuple(steps)
