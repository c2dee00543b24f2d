"""How long a candidate lasts in this rig, with its workings."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import inf, isfinite

from vast_harbor.core.battery.ageing import LEAST_YEARS, health_at_replacement_lfp
from vast_harbor.core.cost.life_cost import (
    BY_LABEL,
    BY_WARRANTY,
    LifeCostInputs,
    life_years,
    wear_at_replacement,
    years_until_worn,
)
from vast_harbor.core.figures.workings import HOUSE_RULE, REFERENCE, TYPED, Figure, computed, datasheet
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import LASTS_BY_GRADE, BankFigures, RigLimits, Use, about, class_years
from vast_harbor.core.stops.compare.wear import MINER, cycle_figures, wear_figures
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.trial import YearOf
from vast_harbor.phrases import phrase

CYCLES, YEARS, ACCIDENTS, WARRANTY = "cycles", "years", "accidents", "warranty"
ELECTRONICS = "electronics"


@dataclass(frozen=True, slots=True)
class Life:
    """The life of one candidate.

    Attributes:
        figures: by name: ``design_cycles`` at the design depth, ``cycles_per_year``, ``depth``,
            ``cycles_at_depth``, ``cycle_wear``, ``calendar_wear``, ``accident_wear``, ``wear``,
            ``years``, and those ``by_cycles`` and ``by_years`` alone.
        ends: what ends it: cycles, years, accidents or warranty.
        years: life [years]; infinite when nothing wears it by the rule in force.
    """

    figures: Mapping[str, Figure]
    ends: str
    years: float

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]


def evaluate(
    limits: RigLimits, banked: BankFigures, use: Use, inputs: LifeCostInputs, year: YearOf | None = None
) -> Life:
    """Life of a candidate in years, with its workings.

    Args:
        limits: the rig.
        banked: the candidate; its bank must exist.
        use: how the rig uses it, in numbers.
        inputs: what its life follows from, in numbers.
        year: its simulated year; None for the hand estimate.

    Returns:
        The life.
    """
    plan, assumptions, day, need = limits.plan, limits.assumptions, limits.days.day, limits.days.need
    f: dict[str, Figure] = {}
    key = banked.battery_class.key
    factors = _factors(assumptions, key, limits.predecessor(key))
    cycle_figures(f, plan, assumptions, day, need, banked, use, factors)
    wear_figures(f, plan, assumptions, need, banked, use, inputs, factors, year)
    return _life(f, plan, limits.reference, assumptions, day, need, banked, inputs)


def _factors(assumptions: Assumptions, key: str, predecessor: Figure | None) -> dict[str, Figure]:
    """What multiplies the cycles and the years of a class in this rig, by its symbol."""
    out = {"f_AGM": assumptions.figure("agm_life_factor")} if key == "agm" else {}
    if predecessor is not None:
        out["f_old"] = predecessor
    return out


def _life(
    f: dict[str, Figure],
    plan: Plan,
    reference: Reference,
    assumptions: Assumptions,
    day: Day,
    need: Need,
    banked: BankFigures,
    inputs: LifeCostInputs,
) -> Life:
    at, lead = f"life.{banked.candidate.id}", banked.battery_class.is_lead_acid
    end = _health_at_replacement(assumptions, day, need, banked, at, inputs)
    formula = "(1 − {SoH_end}) / 0.2"
    if lead and end.number < 0.8:
        formula = "1 + ((1 − {SoH_end}) / 0.2 − 1) / 3"
    worn_out = computed(
        f"{at}.worn_out",
        phrase("compare.life.worn_out"),
        float(wear_at_replacement(inputs)),
        "1",
        formula,
        {"SoH_end": end},
        phrase("compare.life.worn_out_source"),
    )
    start = banked.figures.get("start_wear")
    most = _most_years(assumptions, banked, at, inputs)
    parts = {"w_end": worn_out, "w": f["wear"]} | ({"w_start": start} if start is not None else {})
    likely = computed(
        f"{at}.years_likely",
        phrase("terms.names.expected_life"),
        float(years_until_worn(inputs)),
        "years",
        "min({L_most}, {w_end} / {w})"
        if start is None
        else f"max({LEAST_YEARS}, min({{L_most}}, ({{w_end}} − {{w_start}}) / {{w}}))",
        parts | {"L_most": most},
        MINER,
    )
    low, high = _life_range(f, likely.number, banked)
    likely = likely._replace(low=min(low, most.low or inf), high=min(high, most.high or inf))
    wears = {
        CYCLES: f["cycle_wear"].number,
        YEARS: f["calendar_wear"].number,
        ACCIDENTS: f["accident_wear"].number,
    }
    ends = max(wears, key=lambda k: wears[k])
    if likely.number >= most.number:
        ends = YEARS if most.number >= class_years(assumptions, banked.battery_class.key) else ELECTRONICS
    basis = inputs.basis
    name, why = reference.life_bases[basis]
    basis_figure = Figure(
        f"{at}.basis",
        phrase("compare.life.basis", name=name),
        None,
        "",
        TYPED if plan.life_basis else HOUSE_RULE,
        source=why,
        note=assumptions.rule.name,
    )
    assert banked.bank is not None
    # A warranty adds to what the class is sure to last, and never takes from it.
    if basis == BY_WARRANTY:
        warranty = datasheet(
            f"{at}.warranty",
            phrase("terms.names.warranty"),
            banked.bank.model.warranty.years,
            "years",
            banked.bank.model.title,
        )
        careful = Figure(
            f"{at}.careful", phrase("compare.life.careful"), float(inputs.careful_years), "years", REFERENCE,
            source=phrase("compare.life.careful_source"),
        )  # fmt: skip
        value = float(life_years(inputs))
        ends = WARRANTY if value < likely.number else ends
        years = computed(
            f"{at}.years",
            phrase("compare.life.years"),
            value,
            "years",
            "min({L_likely}, max({warranty}, {L_low}))",
            {"L_likely": likely, "warranty": warranty, "L_low": careful},
            why,
        )
    elif basis == BY_LABEL:
        per_year = f["cycles_per_year"]
        value = float(life_years(inputs))
        at_most = YEARS if lead or most.number >= class_years(assumptions, "lfp") else ELECTRONICS
        ends = at_most if value >= most.number else CYCLES
        years = computed(
            f"{at}.years",
            phrase("compare.life.years"),
            value,
            "years",
            "min({L_most}, {N_label} / {n})" if per_year.number > 0 else "{L_most}",
            {"L_most": most, "N_label": f["design_cycles"], "n": per_year},
            why,
        )
    else:
        value, years = likely.number, likely
    f["by_cycles"] = _alone(
        f["cycle_wear"], worn_out, at, "by_cycles", phrase("compare.life.life_cycles_alone")
    )
    f["by_years"] = _alone(
        f["calendar_wear"], worn_out, at, "by_years", phrase("compare.life.life_age_alone")
    )
    f["basis"], f["health_at_end"] = basis_figure, end
    f["years"], f["years_likely"] = years, likely
    return Life(f, ends, value if isfinite(value) else inf)


def _most_years(assumptions: Assumptions, banked: BankFigures, at: str, inputs: LifeCostInputs) -> Figure:
    """The most years that a bank is credited with, and for LFP its range."""
    assert banked.bank is not None
    key, model = banked.battery_class.key, banked.bank.model
    of_class = Figure(
        f"{at}.class_years", phrase("compare.life.class_years"), class_years(assumptions, key), "years",
        REFERENCE, source=phrase("compare.life.class_years_source"),
    )  # fmt: skip
    if model.battery_class.is_lead_acid:
        return of_class._replace(low=of_class.value, high=of_class.value)
    lasts = assumptions.figure("electronics_years")
    grade = Figure(
        f"{at}.electronics_grade", phrase("compare.life.electronics_grade", grade=model.grade),
        LASTS_BY_GRADE[model.grade], "1", REFERENCE, source=phrase("compare.life.electronics_grade_source"),
    )  # fmt: skip
    low, high = (
        min(of_class.number, (end or lasts.number) * grade.number) for end in (lasts.low, lasts.high)
    )
    return computed(
        f"{at}.most_years", phrase("compare.life.most_years"), float(inputs.most_years), "years",
        "min({L_class}, {L_BMS} · {f})", {"L_class": of_class, "L_BMS": lasts, "f": grade},
        phrase("compare.life.most_years_source"), low=low, high=high,
    )  # fmt: skip


def _alone(wear: Figure, worn_out: Figure, at: str, key: str, name: str) -> Figure:
    """How long it would last if one wear alone were at work; no value where that wears nothing."""
    has = wear.number > 0
    return computed(
        f"{at}.{key}", name, worn_out.number / wear.number if has else None, "years",
        "{w_end} / {w}" if has else "", {"w_end": worn_out, "w": wear},
        phrase("compare.life.nothing_else_wore_out") if has else phrase("compare.life.never_cycled"),
    )  # fmt: skip


def _life_range(f: Mapping[str, Figure], years: float, banked: BankFigures) -> tuple[float, float]:
    """Least and most years: cycles and calendar life both at the low, and both at the high end of
    their range."""
    assert banked.bank is not None
    battery_class, grade = banked.battery_class, banked.bank.model.grade
    wears = []
    for end in range(2):
        cycles = f["cycle_wear"].number / about(battery_class.cycles, grade)[end]
        calendar = f["calendar_wear"].number / about(battery_class.calendar_years, grade)[end]
        wears.append(cycles + calendar + f["accident_wear"].number)
    whole = years * f["wear"].number
    return whole / wears[0], whole / wears[1]


def _health_at_replacement(
    assumptions: Assumptions, day: Day, need: Need, banked: BankFigures, at: str, inputs: LifeCostInputs
) -> Figure:
    if banked.battery_class.is_lead_acid:
        return assumptions.figure("worn_out.lead_acid")
    floor, new = assumptions.figure("worn_out_floor.lfp"), banked["usable_new_wh"]
    value = float(health_at_replacement_lfp(inputs.covers, 1.0, floor.number))
    return computed(
        f"{at}.health_at_end",
        phrase("compare.life.health_at_end"),
        value,
        "1",
        "min(max({N} · {E_bank} / {E_new}, {SoH_floor}), max({SoH_floor}, 0.8))",
        {"N": need.nights, "E_bank": day.bank_wh, "E_new": new, "SoH_floor": floor},
        phrase("compare.life.health_at_end_source"),
    )
