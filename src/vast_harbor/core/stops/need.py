"""Need: usable energy between charges, and the nameplate of each chemistry that gives it."""

from collections.abc import Mapping
from dataclasses import dataclass

from vast_harbor.core import factors
from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.chemistry import BatteryClass
from vast_harbor.core.need import classical_nameplate, energy_need, nameplate_energy
from vast_harbor.core.peukert import nameplate_ah, rate_factor
from vast_harbor.core.plan import Plan, Reference
from vast_harbor.core.stops.day import Day
from vast_harbor.core.workings import Figure, Finding, Sentence, computed, typed

NEED = "E_need = E_bank · N · (1 + m)"


@dataclass(frozen=True, slots=True)
class ClassNeed:
    """What one chemistry needs.

    Attributes:
        battery_class: the class.
        dod, temperature, rate, ageing: factors between label and usable energy [-].
        mean_current: energy-weighted mean current at the volts of the class [A].
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
    nameplate_wh: Figure
    nameplate_ah: Figure
    classical_ah: Figure | None
    steps: tuple[Figure, ...]


@dataclass(frozen=True, slots=True)
class Need:
    """The need in figures.

    Attributes:
        nights, reserve, ageing: assumptions that hold for all chemistries.
        energy: E_need, usable energy between charges [Wh].
        squared, area: Σ(P²·t) and Σ(P·t) of the day [W²h], [Wh].
        classes: the need by battery class.
        findings: what is to be looked at.
    """

    nights: Figure
    reserve: Figure
    ageing: Figure
    energy: Figure
    squared: Figure
    area: Figure
    classes: Mapping[str, ClassNeed]
    findings: tuple[Finding, ...]


def evaluate(plan: Plan, reference: Reference, assumptions: Assumptions, day: Day) -> Need:
    """The need of a plan for every chemistry.

    Args:
        plan: what the owner entered.
        reference: shipped data, for the battery classes.
        assumptions: what holds for the plan.
        day: the day in figures.

    Returns:
        The need with its workings.
    """
    nights, reserve = assumptions.figure("nights"), assumptions.figure("reserve")
    ageing = assumptions.figure("ageing_allowance")
    energy = computed(
        "need.energy",
        "Usable energy needed between charges",
        energy_need(day.bank_wh.number, nights.number, reserve.number),
        "Wh",
        "{E_bank} · {N} · (1 + {m})",
        {"E_bank": day.bank_wh, "N": nights, "m": reserve},
        NEED,
    )
    squared = computed(
        "day.squared",
        "Power squared over the day",
        day.profile.power_squared_hours,
        "W²h",
        "",
        {},
        "Σ(P²·t) over the steps of the day's power profile",
    )
    area = computed(
        "day.area",
        "Energy under the power profile",
        day.profile.energy_wh,
        "Wh",
        "",
        {},
        "Σ(P·t) over the steps of the day's power profile",
    )
    classes = {
        key: _class_need(plan, assumptions, c, energy, squared, area, ageing)
        for key, c in reference.classes.items()
    }
    findings = _findings(nights, day)
    return Need(nights, reserve, ageing, energy, squared, area, classes, findings)


def class_volts(plan: Plan, battery_class: BatteryClass) -> Figure:
    """Nominal volts of a class in the rig's system [V]."""
    system = typed("rig.system_v", "System voltage", plan.system_v, "V", "/rig/system_v")
    per_class = "" if battery_class.is_lead_acid else " / 12 · 4 · 3.2"
    return computed(
        f"need.{battery_class.key}.V",
        f"Nominal volts, {battery_class.short}",
        battery_class.nominal_v(plan.system_v),
        "V",
        "{V_class}" + per_class,
        {"V_class": system},
        "2.0 V a cell for lead-acid, 3.2 V a cell for LFP",
    )


def _class_need(
    plan: Plan,
    assumptions: Assumptions,
    battery_class: BatteryClass,
    energy: Figure,
    squared: Figure,
    area: Figure,
    ageing: Figure,
) -> ClassNeed:
    key = battery_class.key
    at = f"need.{key}"
    dod = assumptions.figure(f"dod.{key}")
    k_t = factors.temperature(plan, assumptions, battery_class)
    exponent = assumptions.figure(f"peukert.{key}")
    volts = class_volts(plan, battery_class)
    hours = Figure(
        f"{at}.r",
        "Rated time",
        battery_class.rated_hours,
        "h",
        "reference",
        source="Time over which the class is rated",
    )
    current = factors.mean_current(at, area, squared, volts)
    before = computed(
        f"{at}.A",
        "Amp-hours before the rate is reckoned with",
        energy.number / (volts.number * dod.number * k_t.number * ageing.number),
        "Ah",
        "{E_need} / ({V} · {DoD} · {k_T} · {k_age})",
        {"E_need": energy, "V": volts, "DoD": dod, "k_T": k_t, "k_age": ageing},
        NEED,
    )
    ah = computed(
        f"{at}.nameplate_ah",
        f"Amp-hours on the label, {battery_class.short}",
        nameplate_ah(before.number, hours.number, exponent.number, current.number),
        "Ah",
        "max({A}, {A}^(1 / {k}) · ({r} · {I_mean})^(({k} − 1) / {k}))",
        {"A": before, "k": exponent, "r": hours, "I_mean": current},
        f"{factors.PEUKERT}, solved so that the rate of the bank itself is used",
    )
    draws = current.number > 0
    rate = computed(
        f"{at}.k_rate",
        f"Rate factor, {battery_class.short}",
        rate_factor(ah.number, hours.number, exponent.number, current.number),
        "1",
        "min(1, ({Ah} / {r} / {I_mean})^({k} − 1))" if draws else "1",
        {"Ah": ah, "r": hours, "I_mean": current, "k": exponent},
        factors.PEUKERT,
    )
    wh = computed(
        f"{at}.nameplate_wh",
        f"Energy on the label, {battery_class.short}",
        nameplate_energy(energy.number, dod.number, k_t.number, rate.number, ageing.number),
        "Wh",
        "{E_need} / ({DoD} · {k_T} · {k_rate} · {k_age})",
        {"E_need": energy, "DoD": dod, "k_T": k_t, "k_rate": rate, "k_age": ageing},
        "E_nameplate = E_need / (DoD · k_T · k_rate · k_age)",
    )
    steps = _steps(at, energy, dod, k_t, rate, ageing)
    classical = _classical(at, assumptions, energy, dod, k_t, volts) if battery_class.is_lead_acid else None
    return ClassNeed(battery_class, dod, k_t, rate, ageing, current, wh, ah, classical, steps)


def _classical(
    at: str, assumptions: Assumptions, energy: Figure, dod: Figure, k_t: Figure, volts: Figure
) -> Figure:
    day, nights, reserve = (energy.inputs[symbol] for symbol in ("E_bank", "N", "m"))
    daily = assumptions.figure("daily_depth")
    wh = classical_nameplate(day.number, nights.number, reserve.number, dod.number, daily.number, k_t.number)
    return computed(
        f"{at}.classical_ah",
        "Amp-hours by the classical solar method",
        wh / volts.number,
        "Ah",
        "max({E_bank} · {N} / {DoD}, {E_bank} · {N} / 0.8, {E_bank} / {DoD_day}) · (1 + {m}) / {k_T} / {V}",
        {"E_bank": day, "N": nights, "DoD": dod, "DoD_day": daily, "m": reserve, "k_T": k_t, "V": volts},
        "After IEEE 1013, for lead-acid on sun alone",
        "It also limits what an ordinary day takes, so that the bank is full on most evenings.",
    )


def _steps(
    at: str, energy: Figure, dod: Figure, k_t: Figure, rate: Figure, ageing: Figure
) -> tuple[Figure, ...]:
    """From the day's energy to what the label must say, each factor adding its part."""
    day, nights, reserve = (energy.inputs[symbol] for symbol in ("E_bank", "N", "m"))
    factors_in_turn: list[tuple[str, str, str, Figure, float]] = [
        ("nights", "Nights", "{E} · {x}", nights, nights.number),
        ("reserve", "Reserve", "{E} · (1 + {x})", reserve, 1 + reserve.number),
        ("depth", "Usable depth", "{E} / {x}", dod, 1 / dod.number),
        ("temperature", "Temperature", "{E} / {x}", k_t, 1 / k_t.number),
        ("rate", "Rate", "{E} / {x}", rate, 1 / rate.number),
        ("age", "Age", "{E} / {x}", ageing, 1 / ageing.number),
    ]
    steps = [computed(f"{at}.step.day", "The day", day.number, "Wh", "{E_bank}", {"E_bank": day}, NEED)]
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
                "What has to be carried once this is reckoned with",
            )
        )
    return tuple(steps)


def _findings(nights: Figure, day: Day) -> tuple[Finding, ...]:
    if day.bank_wh.number <= 0:
        return (
            Finding(
                "no_use",
                "note",
                "need",
                Sentence("The day has no energy yet, so there is no need to work out."),
                "List the loads on the Day stop.",
            ),
        )
    if nights.number < 1:
        return (
            Finding(
                "short_nights",
                "note",
                "need",
                Sentence("Planned for {N} without a charge: one cloudy day empties it.", {"N": nights}),
                "Plan for at least one night unless the bank is charged every day.",
            ),
        )
    return ()
