"""What a candidate costs over the years of keeping, with its workings."""

from collections.abc import Mapping
from dataclasses import dataclass
from math import isinf

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import WORKSHOP, Plan
from vast_harbor.core.stops.banks.candidates import BankFigures
from vast_harbor.core.stops.compare.extra_cost import add_extra_cost, again
from vast_harbor.core.stops.compare.life import Life, nights_a_year
from vast_harbor.core.stops.compare.required_extras import RequiredExtra
from vast_harbor.core.stops.compare.running_cost import running
from vast_harbor.core.stops.compare.unit_costs import prices
from vast_harbor.core.stops.day.energy_audit import Day
from vast_harbor.core.stops.need.energy_need import Need
from vast_harbor.core.stops.trial.year import YearOf


@dataclass(frozen=True, slots=True)
class Cost:
    """The money of one candidate.

    Attributes:
        figures: by name: ``lifetime``, ``lifetime_bare`` (without extras), ``per_cycle``,
            ``per_cycle_bare``, ``per_kwh``, ``per_year``, ``per_night``, ``label_per_cycle``,
            ``label_per_kwh``, ``ready`` (per kWh kept ready and year), ``cycles_made``, ``kwh_delivered``,
            ``extras``, ``hours``, ``labour``, ``contingency``, ``extra_cost`` (these together), ``outlay``,
            ``old_bank``, ``replacements``, ``replacement_count``, ``again``, ``running`` and its parts
            ``care``, ``water``, ``lost``, ``fuel`` a year, ``exit``.
        payments: each at its present value, extras included.
        costs: what they were made from.
        required_extras: what the bank asks for besides itself.
    """

    figures: Mapping[str, Figure]
    payments: tuple[cash_flow.Payment, ...]
    costs: cash_flow.Costs
    required_extras: tuple[RequiredExtra, ...] = ()

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]


def evaluate(
    plan: Plan,
    assumptions: Assumptions,
    day: Day,
    need: Need,
    banked: BankFigures,
    life: Life,
    old_kg: Figure | None,
    year: YearOf | None = None,
    required: tuple[RequiredExtra, ...] = (),
) -> Cost:
    """Lifetime cost of a candidate and the prices of a cycle.

    Args:
        plan, assumptions: the plan and what holds for it.
        day, need, banked, life: in figures.
        old_kg: weight of the old bank [kg]; None without one.
        year: its run year; None for the hand estimate.
        required: what it asks for besides itself.

    Returns:
        The money with its workings.
    """
    f: dict[str, Figure] = {}
    _delivered(f, plan, day, need, banked, year)
    running(f, assumptions, banked, year)
    add_extra_cost(f, plan, assumptions, banked, required)
    family = "lead_acid" if banked.battery_class.is_lead_acid else "lfp"
    drift, discount = assumptions.figure(f"drift.{family}"), assumptions.figure("discount_rate")
    kappa, years = assumptions.figure("exit_share"), _years(plan)
    swap = _swap(plan, assumptions, banked)
    credit, refit = _old_bank(plan, assumptions, old_kg), assumptions.figure("exit_refit")
    f["old_bank"] = credit
    costs = cash_flow.Costs(
        batteries=banked["purchase"].number,
        extras=f["extra_cost"].number,
        old_bank=credit.number,
        drift=drift.number,
        swap=swap.number,
        running=f["running_per_year"].number,
        exit_share=kappa.number,
        discount=discount.number,
        refit=refit.number,
        again=again(plan, banked),
    )
    paid = cash_flow.payments(costs, life.years, years.number)
    _replacements(f, banked, life, drift, discount, swap, years)
    _exit(f, banked, life, drift, discount, (kappa, refit), years)
    _running_total(f, paid, discount, years, banked)
    _again(f, paid, discount, years, banked)
    _lifetime(f, banked, credit, sum(p.amount for p in paid))
    prices(f, banked, life, plan, years)
    return Cost(f, paid, costs, required)


def _years(plan: Plan) -> Figure:
    return typed("rig.years_kept", "Years that the rig is kept", plan.years_kept, "years", "/rig/years_kept")


def _delivered(
    f: dict[str, Figure], plan: Plan, day: Day, need: Need, banked: BankFigures, year: YearOf | None
) -> None:
    at, nights, years = f"cost.{banked.candidate.id}", nights_a_year(plan), _years(plan)
    if year is not None:
        f["kwh_delivered"] = computed(
            f"{at}.kwh", "Delivered over the years", year["through"].number * years.number, "kWh",
            "{kWh_year} · {H}", {"kWh_year": year["through"], "H": years},
            "What the run year takes from the bank; what sun or engine carry at once is not in it",
        )  # fmt: skip
        _cycles_made(f, need, at)
        return
    usable = banked["usable_wh"]
    daily = min(day.bank_wh.number, usable.number / need.nights.number)
    per_night = computed(
        f"{at}.per_day",
        "Delivered on an off-grid day",
        daily,
        "Wh",
        "min({E_bank}, {E_usable} / {N})",
        {"E_bank": day.bank_wh, "E_usable": usable, "N": need.nights},
        "No more than the bank can give between charges",
    )
    kwh = daily * nights.number * years.number / 1000
    f["kwh_delivered"] = computed(
        f"{at}.kwh",
        "Delivered over the years",
        kwh,
        "kWh",
        "{E_day} · {nights} · {H} / 1000",
        {"E_day": per_night, "nights": nights, "H": years},
    )
    _cycles_made(f, need, at)


def _cycles_made(f: dict[str, Figure], need: Need, at: str) -> None:
    has, kwh = need.energy.number > 0, f["kwh_delivered"].number
    f["cycles_made"] = computed(
        f"{at}.cycles_made",
        "Cycles of the plan made over the years",
        kwh * 1000 / need.energy.number if has else 0.0,
        "cycles",
        "{kWh} · 1000 / {E_need}" if has else "0",
        {"kWh": f["kwh_delivered"], "E_need": need.energy},
        "One cycle is the plan's need, the same for all candidates",
        "Smaller than the count of charges, because the need holds a reserve.",
    )


def _swap(plan: Plan, assumptions: Assumptions, banked: BankFigures) -> Figure:
    at, labour = f"cost.{banked.candidate.id}", assumptions.figure("swap_labour")
    if plan.labour == WORKSHOP and not assumptions.overridden("swap_labour"):
        hours, rate = assumptions.figure("install_hours"), assumptions.figure("workshop_rate")
        labour = computed(
            f"{at}.swap_labour", "Labour for each replacement", hours.number * rate.number, "money",
            "{h_in} · {c_shop}", {"h_in": hours, "c_shop": rate}, "By a workshop",
        )  # fmt: skip
    if not banked.battery_class.is_lead_acid:
        return labour
    scrap = assumptions.figure("scrap_per_kg")
    return computed(
        f"{at}.swap",
        "Labour less scrap at each replacement",
        labour.number - banked["kg"].number * scrap.number,
        "money",
        "{C_swap} − {kg} · {scrap}",
        {"C_swap": labour, "kg": banked["kg"], "scrap": scrap},
    )


def _old_bank(plan: Plan, assumptions: Assumptions, old_kg: Figure | None) -> Figure:
    old = plan.old_bank
    if old is not None and old.sale_price is not None:
        return typed(
            "cost.old_bank", "Sale of the old bank", old.sale_price, "money", "/old_bank/sale_price",
            "In place of scrap.",
        )  # fmt: skip
    if old is None or old_kg is None or not old.battery_class.is_lead_acid:
        return computed("cost.old_bank", "Scrap of the old bank", 0.0, "money", "0", {})
    scrap = assumptions.figure("scrap_per_kg")
    return computed(
        "cost.old_bank",
        "Scrap of the old bank",
        old_kg.number * scrap.number,
        "money",
        "{kg_old} · {scrap}",
        {"kg_old": old_kg, "scrap": scrap},
    )


def _replacements(
    f: dict[str, Figure],
    banked: BankFigures,
    life: Life,
    drift: Figure,
    discount: Figure,
    swap: Figure,
    years: Figure,
) -> None:
    at, price = f"cost.{banked.candidate.id}", banked["purchase"]
    parts: dict[str, Figure] = {}
    for j, t in enumerate(cash_flow.replacement_times(life.years, years.number), 1):
        when = computed(
            f"{at}.t.{j}", f"Time of replacement {j}", t, "years", f"{j} · {{life}}", {"life": life["years"]}
        )
        value = (cash_flow.price_at(price.number, drift.number, t) + swap.number) * (
            1 + discount.number
        ) ** -t
        parts[f"R{j}"] = computed(
            f"{at}.R.{j}",
            f"Replacement {j}",
            value,
            "money",
            "({P} · (1 + {drift})^{t} + {swap}) / (1 + {r})^{t}",
            {"P": price, "drift": drift, "t": when, "swap": swap, "r": discount},
            "Price of that year, plus labour, less scrap",
        )
    f["replacements"] = computed(
        f"{at}.replacements",
        "Replacements",
        sum(p.number for p in parts.values()),
        "money",
        " + ".join(f"{{{s}}}" for s in parts) or "0",
        parts,
        "At t = life, 2 · life ... before the end of keeping",
    )
    f["replacement_count"] = computed(
        f"{at}.replacement_count",
        "Times it is replaced",
        float(len(parts)),
        "1",
        "",
        {"life": life["years"], "H": years},
        "Whole lives that end before the years of keeping do",
    )


def _exit(
    f: dict[str, Figure],
    banked: BankFigures,
    life: Life,
    drift: Figure,
    discount: Figure,
    exit_: tuple[Figure, Figure],
    years: Figure,
) -> None:
    kappa, refit = exit_
    at, price = f"cost.{banked.candidate.id}", banked["purchase"]
    left = 1.0
    formula, inputs = "1", {}
    if not isinf(life.years):
        last = (cash_flow.replacement_times(life.years, years.number) or (0.0,))[-1]
        left = max(0.0, 1 - (years.number - last) / life.years)
        count = f["replacement_count"]
        formula = "max(0, 1 − ({H} − {j} · {life}) / {life})"
        inputs = {"H": years, "j": count, "life": life["years"]}
    share = computed(f"{at}.left", "Life left in the last bank", left, "%", formula, inputs)
    value = (
        cash_flow.exit_credit(
            price.number, drift.number, years.number, life.years, kappa.number, refit.number
        )
        * (1 + discount.number) ** -years.number
    )
    worth, inputs = (
        "{κ} · {left} · {P} · (1 + {drift})^{H}",
        {"κ": kappa, "left": share, "P": price, "drift": drift, "H": years, "r": discount},
    )
    if refit.number:
        worth, inputs["C_refit"] = f"max(0, {worth} − {{C_refit}})", refit
    f["exit"] = computed(
        f"{at}.exit",
        "Worth at the end",
        value,
        "money",
        f"{worth} / (1 + {{r}})^{{H}}",
        inputs,
        "Unused life of the last bank, taken along or sold",
    )


def _running_total(
    f: dict[str, Figure],
    paid: tuple[cash_flow.Payment, ...],
    discount: Figure,
    years: Figure,
    banked: BankFigures,
) -> None:
    total = sum(p.amount for p in paid if p.item == cash_flow.RUNNING)
    plain = discount.number == 0
    f["running"] = computed(
        f"cost.{banked.candidate.id}.running",
        "Running costs",
        total,
        "money",
        "{year} · {H}" if plain else "",
        {"year": f["running_per_year"], "H": years, "r": discount},
        "Each year's at mid-year, discounted",
    )


def _again(
    f: dict[str, Figure],
    paid: tuple[cash_flow.Payment, ...],
    discount: Figure,
    years: Figure,
    banked: BankFigures,
) -> None:
    total = sum(p.amount for p in paid if p.item == cash_flow.EXTRAS and p.t > 0)
    f["again"] = computed(
        f"cost.{banked.candidate.id}.again", "Extras bought again", total, "money", "" if total else "0",
        {"H": years, "r": discount}, "Those whose life ends before the years of keeping do",
    )  # fmt: skip


def _lifetime(f: dict[str, Figure], banked: BankFigures, credit: Figure, total: float) -> None:
    at = f"cost.{banked.candidate.id}"
    inputs = {
        "batteries": banked["purchase"],
        "replacements": f["replacements"],
        "running": f["running"],
        "exit": f["exit"],
        "old": credit,
    }
    formula = "{batteries} + {replacements} + {running} − {exit} − {old}"
    f["lifetime_bare"] = computed(
        f"{at}.lifetime_bare",
        "Lifetime cost without extras",
        total - f["extra_cost"].number - f["again"].number,
        "money",
        formula,
        inputs,
        "Over the years of keeping, at present value",
    )
    f["lifetime"] = computed(
        f"{at}.lifetime",
        "Lifetime cost",
        total,
        "money",
        "{without} + {extra_cost}" + (" + {again}" if f["again"].number else ""),
        {"without": f["lifetime_bare"], "extra_cost": f["extra_cost"]}
        | ({"again": f["again"]} if f["again"].number else {}),
        "Over the years of keeping, at present value",
    )
