"""What wears a bank in this rig: its cycles at the depth of use, its accidents, its years."""

from collections.abc import Mapping

from vast_harbor.core.battery.ageing import EACH_LOW
from vast_harbor.core.battery.temperature import calendar_years
from vast_harbor.core.cost.life_cost import LifeCostInputs, calendar_wear_a_year, wear_a_year
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, datasheet, typed
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.ageing_temperature import ageing_temperature
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import WATCHED, Plan
from vast_harbor.core.stops.banks import BankFigures, Use, about
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.trial import YearOf
from vast_harbor.phrases import phrase

MINER = phrase("compare.life.palmgren_miner_wear_cycles")


def nights_a_year(plan: Plan) -> Figure:
    """Off-grid nights a year as entered."""
    return typed(
        "rig.off_grid_nights",
        phrase("terms.names.off_grid_nights_year"),
        plan.off_grid_nights,
        "nights",
        "/rig/off_grid_nights",
    )


def _curve(
    banked: BankFigures,
    assumptions: Assumptions,
    depth: Figure,
    value: float,
    key: str,
    name: str,
    factors: Mapping[str, Figure],
) -> Figure:
    """N(d) of the entry at a depth, as a figure with the formula of the part that applies."""
    assert banked.bank is not None
    model, at = banked.bank.model, f"life.{banked.candidate.id}"
    entry = (
        phrase("terms.names.own_entry") if model.own else phrase("terms.names.catalogue_entry")
    ) + model.title
    exponent = assumptions.figure(f"cycle_exponent.{model.battery_class.key}")
    d = depth.number
    inside = max(d, 0.1)
    index = next((i for i, (p, _) in enumerate(model.cycles) if p >= inside), None)
    inputs: dict[str, Figure] = {"d": depth}
    points = model.cycles
    if index is None or index == 0:
        d_ref, n_ref = points[-1] if index is None else points[0]
        inputs["b"] = exponent
        power = "{b}"
    else:
        (d_ref, n_ref), (d_2, n_2) = points[index - 1], points[index]
        inputs["d_2"] = datasheet(f"{at}.d.{d_2}", phrase("compare.life.next_depth_curve"), d_2, "%", entry)
        inputs["N_2"] = datasheet(
            f"{at}.N.{d_2}", phrase("compare.life.cycles", d_2=f"{d_2:.0%}"), n_2, "cycles", entry
        )
        power = "(log({N_ref} / {N_2}) / log({d_2} / {d_ref}))"
    inputs["d_ref"] = datasheet(
        f"{at}.d.{d_ref}", phrase("compare.life.depth_rated_cycles"), d_ref, "%", entry
    )
    inputs["N_ref"] = datasheet(
        f"{at}.N.{d_ref}", phrase("compare.life.cycles_d_ref", d_ref=f"{d_ref:.0%}"), n_ref, "cycles", entry
    )
    formula = f"{{N_ref}} · ({{d_ref}} / {{d}})^{power}"
    if d < 0.1:
        formula = f"{{N_ref}} · ({{d_ref}} / 0.1)^{power} · 0.1 / {{d}}"
    inputs |= factors
    formula += "".join(f" · {{{symbol}}}" for symbol in factors)
    if d <= 0:
        return computed(f"{at}.{key}", name, None, "cycles", "", inputs, phrase("compare.life.use_cycles"))
    low, high = (value * end for end in about(model.battery_class.cycles, model.grade))
    return computed(
        f"{at}.{key}",
        name,
        value,
        "cycles",
        formula,
        inputs,
        phrase("compare.life.cycle_law_n_d"),
        note=phrase("compare.life.range_class_how_well", grade=model.grade),
        low=low,
        high=high,
    )


def cycle_figures(
    f: dict[str, Figure],
    plan: Plan,
    assumptions: Assumptions,
    day: Day,
    need: Need,
    banked: BankFigures,
    use: Use,
    factors: Mapping[str, Figure],
) -> None:
    """Add to ``f`` the cycles that it has, at the planned depth and at that of the rig."""
    at = f"life.{banked.candidate.id}"
    f["design_cycles"] = _curve(
        banked,
        assumptions,
        banked["dod"],
        use.design_cycles,
        "design_cycles",
        phrase("compare.life.rated_cycles_planned_depth"),
        {k: v for k, v in factors.items() if k != "f_old"},
    )
    nights, n = nights_a_year(plan), need.nights
    f["cycles_per_year"] = computed(
        f"{at}.cycles_per_year",
        phrase("compare.life.cycles_per_year"),
        use.cycles_per_year,
        "cycles/year",
        "{nights} / {N}",
        {"nights": nights, "N": n},
        phrase("compare.life.cycles_per_year_source"),
    )
    label = banked["nameplate_wh"]
    f["depth"] = computed(
        f"{at}.depth",
        phrase("compare.life.depth"),
        use.depth,
        "%",
        "min(1, {N} · {E_bank} / {E_label})",
        {"N": n, "E_bank": day.bank_wh, "E_label": label},
        phrase("compare.life.depth_source"),
    )
    f["cycles_at_depth"] = _curve(
        banked,
        assumptions,
        f["depth"],
        use.cycles_at_depth,
        "cycles_at_depth",
        phrase("compare.life.cycles_lasts_depth"),
        factors,
    )


def wear_figures(
    f: dict[str, Figure],
    plan: Plan,
    assumptions: Assumptions,
    need: Need,
    banked: BankFigures,
    use: Use,
    inputs: LifeCostInputs,
    factors: Mapping[str, Figure],
    year: YearOf | None,
) -> None:
    """Add to ``f`` what wears it in a year: cycles, accidents and years, by the year simulated or by hand."""
    battery_class, at = banked.battery_class, f"life.{banked.candidate.id}"
    c_rate = Figure(
        f"{at}.wear_c",
        phrase("compare.life.wear_c"),
        battery_class.wear_c_rate,
        "1/h",
        REFERENCE,
        source=phrase("compare.life.wear_c_source"),
    )
    current, ah = banked["mean_current"], banked["nameplate_ah"]
    f["rate"] = computed(
        f"{at}.f_rate",
        phrase("compare.life.f_rate"),
        use.rate_factor,
        "1",
        "min(1.5, 1 + 0.3 · max(0, {I_mean} / ({c} · {Ah}) − 1))",
        {"I_mean": current, "c": c_rate, "Ah": ah},
        phrase("compare.life.f_rate_source"),
    )
    f["cycle_wear"] = _cycle_wear(f, assumptions, banked, use, factors, year)
    _calendar(f, plan, assumptions, battery_class.key, at, inputs, factors)
    f["accident_wear"] = _accidents(plan, assumptions, battery_class.is_lead_acid, at, use, year)
    f["wear"] = computed(
        f"{at}.wear",
        phrase("compare.life.wear"),
        float(wear_a_year(inputs)),
        "1/year",
        "{w_cycles} + {w_years} + {w_accidents}",
        {"w_cycles": f["cycle_wear"], "w_years": f["calendar_wear"], "w_accidents": f["accident_wear"]},
        MINER,
    )


def _expected(plan: Plan, assumptions: Assumptions, at: str) -> Figure:
    """Deep accidents expected a year with what this rig has against them."""
    count = assumptions.figure("accidents_per_year")
    formula, inputs, number = "{n}", {"n": count}, count.number
    if plan.disconnect != "all":
        factor = assumptions.figure("accidents_no_disconnect")
        inputs["f_disc"], part = factor, plan.disconnect == "not_critical"
        formula += " · (1 + {f_disc}) / 2" if part else " · {f_disc}"
        number *= (1 + factor.number) / 2 if part else factor.number
    if plan.watched == WATCHED:
        factor = assumptions.figure("accidents_watched")
        inputs["f_watch"], formula, number = factor, f"{formula} · {{f_watch}}", number * factor.number
    if len(inputs) == 1:
        return count
    return computed(
        f"{at}.accidents", phrase("compare.life.accidents"), number, "1/year", formula, inputs,
        phrase("compare.life.accidents_source"),
    )  # fmt: skip


def _accidents(
    plan: Plan, assumptions: Assumptions, lead: bool, at: str, use: Use, year: YearOf | None
) -> Figure:
    """Mistakes as expected, and the times that a run year empties it or leaves it low."""
    name = phrase("compare.life.wear_year_deep_discharges")
    if not lead:
        return computed(
            f"{at}.accident_wear", name, 0.0, "1/year", "0", {}, phrase("compare.life.accident_wear_source")
        )
    count, each = _expected(plan, assumptions, at), assumptions.figure("wear_per_accident")
    inputs, formula = {"n_acc": count, "w_acc": each}, "{n_acc} · {w_acc}"
    if year is not None and (year["flat"].number or year["low"].number):
        low = Figure(
            f"{at}.wear_low", phrase("compare.life.wear_low"), EACH_LOW, "%", REFERENCE,
            source=phrase("compare.life.wear_low_source"), note=phrase("compare.life.wear_low_note"),
        )  # fmt: skip
        inputs |= {"n_flat": year["flat"], "n_low": year["low"], "w_low": low}
        formula = "({n_acc} + {n_flat}) · {w_acc} + {n_low} · {w_low}"
    return computed(
        f"{at}.accident_wear", name, use.accidents + use.emptied, "1/year", formula, inputs,
        phrase("compare.life.accident_wear_emptied_mistake_recharged_within_sourc"),
    )  # fmt: skip


def _cycle_wear(
    f: dict[str, Figure],
    assumptions: Assumptions,
    banked: BankFigures,
    use: Use,
    factors: Mapping[str, Figure],
    year: YearOf | None,
) -> Figure:
    key, at = banked.battery_class.key, f"life.{banked.candidate.id}.cycle_wear"
    p, short = assumptions.figure(f"short_of_full_penalty.{key}"), assumptions.figure("short_of_full_share")
    name = phrase("compare.life.wear_year_cycles")
    if year is not None:
        if not assumptions.overridden("short_of_full_share"):
            short = year["short_share"]
        formula = "{w_n} · {f_rate} · (1 + {p} · {s_short})" + "".join(f" / {{{k}}}" for k in factors)
        inputs = {"w_n": year["cycle_wear"], "f_rate": f["rate"], "p": p, "s_short": short, **factors}
        return computed(at, name, use.cycle_wear, "1/year", formula, inputs, MINER)
    known = f["cycles_at_depth"].value is not None
    return computed(
        at,
        name,
        use.cycle_wear,
        "1/year",
        "{n} / {N_d} · {f_rate} · (1 + {p} · {s_short})" if known else "0",
        {
            "n": f["cycles_per_year"],
            "N_d": f["cycles_at_depth"],
            "f_rate": f["rate"],
            "p": p,
            "s_short": short,
        },
        MINER,
    )


def _calendar(
    f: dict[str, Figure],
    plan: Plan,
    assumptions: Assumptions,
    key: str,
    at: str,
    numbers: LifeCostInputs,
    factors: Mapping[str, Figure],
) -> None:
    base = assumptions.figure(f"calendar_years.{key}")
    times = "".join(f" · {{{symbol}}}" for symbol in factors)

    def life_at(name: str, title: str, temperature: Figure) -> Figure:
        hot = temperature.number > 25
        formula = "{L_25}" + times + (" · 2^((25 − {T}) / 10)" if hot else "")
        return computed(
            f"{at}.{name}",
            title,
            float(calendar_years(numbers.years_25, temperature.number)),
            "years",
            formula,
            {"L_25": base, **factors, "T": temperature},
            phrase("compare.life.halves_every_10_k"),
        )

    use = life_at("years_use", phrase("compare.life.years_use"), ageing_temperature(plan, assumptions))
    rest = life_at(
        "years_rest", phrase("compare.life.years_rest"), derating.rest_temperature(plan, assumptions)
    )
    nights = nights_a_year(plan)
    share = computed(
        "rig.share_in_use",
        phrase("compare.life.share_in_use"),
        min(1.0, nights.number / 365),
        "%",
        "min(1, {nights} / 365)",
        {"nights": nights},
    )
    f["calendar_wear"] = computed(
        f"{at}.calendar_wear",
        phrase("compare.life.calendar_wear"),
        float(calendar_wear_a_year(numbers)),
        "1/year",
        "{s} / {L_use} + (1 − {s}) / {L_rest}",
        {"s": share, "L_use": use, "L_rest": rest},
        phrase("compare.life.calendar_wear_source"),
    )
