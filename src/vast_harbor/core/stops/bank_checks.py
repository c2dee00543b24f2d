"""Checks of a candidate bank: each finding says what, how much, and what to do (part of Banks)."""

from collections.abc import Mapping

from vast_harbor.core.battery import Bank
from vast_harbor.core.plan import Candidate, Plan
from vast_harbor.core.proposals import LEAD_ACID_STRINGS
from vast_harbor.core.stops.need import Need
from vast_harbor.core.temperature import FREEZING_MARGIN_K, freezing_point_c
from vast_harbor.core.workings import Figure, Finding, Sentence, computed, datasheet


def bank_findings(
    plan: Plan, need: Need, candidate: Candidate, bank: Bank, f: Mapping[str, Figure]
) -> tuple[Finding, ...]:
    """What the checks have to say about a bank.

    Args:
        plan, need: the plan and its need.
        candidate, bank: the candidate and its layout.
        f: its figures.

    Returns:
        Findings, the need first.
    """
    found: list[Finding] = []
    model, battery_class = bank.model, bank.model.battery_class

    def add(code: str, severity: str, says: str, remedy: str, **figures: Figure) -> None:
        found.append(Finding(code, severity, "banks", Sentence(says, figures), remedy, candidate.id))

    gap = need.energy.number - f["usable_wh"].number
    if gap > 1e-6 * max(1.0, need.energy.number):
        short = computed(
            f"bank.{candidate.id}.short",
            "Short of the need",
            gap,
            "Wh",
            "{E_need} − {E_usable}",
            {"E_need": need.energy, "E_usable": f["usable_wh"]},
        )
        add(
            "covers_need",
            "stop",
            "Gives {usable} usable, {short} short of the {need} needed.",
            "Add a string, choose a larger model, or plan for fewer nights.",
            usable=f["usable_wh"],
            short=short,
            need=need.energy,
        )
    if bank.parallel > model.max_parallel:
        add(
            "parallel_limit",
            "stop",
            f"{bank.parallel} strings in parallel, but the maker permits {model.max_parallel}.",
            "Use fewer strings of a larger model.",
        )
    elif battery_class.is_lead_acid and bank.parallel > LEAD_ACID_STRINGS:
        add(
            "many_strings",
            "care",
            f"{bank.parallel} lead-acid strings in parallel share the current badly.",
            "Prefer larger units, two or six volts, in fewer strings.",
        )
    temperature = need.coldest
    too_cold = temperature.number < battery_class.charge_min_c
    if too_cold and model.heater_w is None:
        add(
            "cold_charge",
            "stop",
            "At {T} it must not be charged: lithium cells are damaged by charge below freezing.",
            "Move it to a warm place, choose a model with a heater, or stay with lead-acid.",
            T=temperature,
        )
    elif too_cold and model.heater_w is not None:
        watts = datasheet(f"bank.{candidate.id}.heater_w", "Its heater", model.heater_w, "W", model.title)
        most = computed(
            f"bank.{candidate.id}.heater_day",
            "Heater round the clock, at most",
            model.heater_w * bank.units * 24,
            "Wh",
            "{W} · {n} · 24",
            {"W": watts, "n": f["units"]},
            "Upper bound: it heats only while it is below 5 °C",
        )
        add(
            "cold_heater",
            "care",
            "At {T} its heaters take the first charge power, up to {most} a day if they run without a "
            "pause. That energy is not in the day above.",
            "Prefer a warmer place where there is one.",
            T=temperature,
            most=most,
        )
    elif need.warmest.number > battery_class.charge_max_c:
        add(
            "hot_charge",
            "care",
            "At {T} it is warmer than it should be while charged.",
            "Shade and air the locker, or charge in the cool of the day.",
            T=need.warmest,
        )
    if battery_class.is_lead_acid:
        floor = 1 - f["dod"].number
        if temperature.number < freezing_point_c(floor) + FREEZING_MARGIN_K:
            add(
                "freezing",
                "care",
                f"Discharged to {floor:.0%} it freezes at {freezing_point_c(floor):.0f} °C; the battery "
                "is used at {T}.",
                "Keep it fuller or warmer. Never charge a frozen battery.",
                T=temperature,
            )
    return tuple(found)
