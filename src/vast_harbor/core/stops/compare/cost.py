"""What a candidate costs over the years of keeping, with its workings."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from math import isinf

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.life_cost import LifeCostInputs, costs_of
from vast_harbor.core.cost.monte_carlo import COUNT, spread
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import WORKSHOP, Plan
from vast_harbor.core.stops.banks import BankFigures, QuickLifeCost, Use
from vast_harbor.core.stops.compare.extra_cost import add_extra_cost, charged, with_extras
from vast_harbor.core.stops.compare.life import Life
from vast_harbor.core.stops.compare.required_extras import RequiredExtra
from vast_harbor.core.stops.compare.running_cost import running
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of
from vast_harbor.core.stops.compare.unit_costs import prices
from vast_harbor.core.stops.compare.wear import nights_a_year
from vast_harbor.core.stops.day import Day
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.trial import YearOf
from vast_harbor.phrases import phrase


@dataclass(frozen=True, eq=False)
class Cost:
    """The money of one candidate; its figures are put together when somebody asks for one.

    Attributes:
        inputs: the bank in numbers, from which all of it follows.
        required_extras: what the bank needs in addition.
        make: puts together figures and payments.
        outlay: cash on the day [money]; needed of every bank, so it does not wait for the others.
    """

    inputs: LifeCostInputs
    required_extras: tuple[RequiredExtra, ...]
    make: Callable[[], tuple[Mapping[str, Figure], tuple[cash_flow.Payment, ...]]]
    outlay: Figure

    @cached_property
    def _made(self) -> tuple[Mapping[str, Figure], tuple[cash_flow.Payment, ...]]:
        return self.make()

    @property
    def figures(self) -> Mapping[str, Figure]:
        """By name: ``lifetime``, ``lifetime_bare`` (without extras), ``per_cycle``, ``per_cycle_bare``,
        ``per_kwh``, ``per_year``, ``per_night``, ``label_per_cycle``, ``label_per_kwh``, ``ready`` (per kWh
        kept ready and year), ``cycles_made``, ``kwh_delivered``, ``extras``, ``hours``, ``labour``,
        ``contingency``, ``extra_cost`` (these together), ``outlay``, ``old_bank``, ``replacements``,
        ``replacement_count``, ``again``, ``running`` and its parts ``maintenance``, ``water``, ``lost``,
        ``fuel``, ``elsewhere`` a year, ``exit``."""
        return self._made[0]

    @property
    def payments(self) -> tuple[cash_flow.Payment, ...]:
        """Each at its present value, extras included."""
        return self._made[1]

    def __getitem__(self, name: str) -> Figure:
        return self.figures[name]


def evaluate(
    look: QuickLifeCost,
    banked: BankFigures,
    life: Callable[[], Life],
    use: Use,
    inputs: LifeCostInputs,
    old_kg: Figure | None,
    year: YearOf | None = None,
    required: tuple[RequiredExtra, ...] = (),
) -> Cost:
    """Lifetime cost of a candidate and the prices of a cycle.

    Args:
        look: what banks meet and cost in the rig.
        banked: the candidate in figures; its bank must exist.
        life: its life, asked for with the figures.
        use: how the rig uses the bank, in numbers.
        inputs: the bank in numbers, without its extras.
        old_kg: weight of the old bank [kg]; None without one.
        year: its simulated year; None for the hand estimate.
        required: what it needs in addition.

    Returns:
        The money with its workings.
    """
    limits = look.rig_limits
    plan, assumptions, days = limits.plan, limits.assumptions, limits.days
    f: dict[str, Figure] = {}
    add_extra_cost(f, plan, assumptions, banked, required)
    inputs = with_extras(inputs, f["extra_cost"].number, banked, required)

    def make() -> tuple[Mapping[str, Figure], tuple[cash_flow.Payment, ...]]:
        _delivered(f, plan, days.day, days.need, banked, use, year)
        running(f, assumptions, banked, use, year, charged(banked, required))
        return f, _figures(f, plan, assumptions, banked, life(), look, inputs, old_kg)

    return Cost(inputs, required, make, f["outlay"])


def _figures(
    f: dict[str, Figure],
    plan: Plan,
    assumptions: Assumptions,
    banked: BankFigures,
    life: Life,
    look: QuickLifeCost,
    inputs: LifeCostInputs,
    old_kg: Figure | None,
) -> tuple[cash_flow.Payment, ...]:
    """Put the figures of the cash flow to the others; returns the payments."""
    family = "lead_acid" if banked.battery_class.is_lead_acid else "lfp"
    drift, discount = assumptions.figure(f"drift.{family}"), assumptions.figure("discount_rate")
    kappa, years = assumptions.figure("exit_share"), _years(plan)
    swap, refit = _swap(plan, assumptions, banked, look), assumptions.figure("exit_refit")
    f["old_bank"] = _old_bank(plan, assumptions, old_kg, look.old_bank)
    paid = cash_flow.payments(costs_of(inputs), life.years, years.number)
    terms = _Terms(banked, life, drift, discount, years)
    _replacements(f, terms, paid, swap)
    _exit(f, terms, paid, kappa, refit)
    _running_total(f, paid, discount, years, banked)
    _again(f, paid, discount, years, banked)
    drawn = spread(inputs, uncertainty_of(assumptions), years.number)
    _lifetime(f, banked, f["old_bank"], sum(p.amount for p in paid), drawn)
    prices(f, banked, life, plan, years)
    return paid


@dataclass(frozen=True, slots=True)
class _Terms:
    """What the figures of one bank's money share."""

    banked: BankFigures
    life: Life
    drift: Figure
    discount: Figure
    years: Figure

    @property
    def at(self) -> str:
        return f"cost.{self.banked.candidate.id}"

    @property
    def price(self) -> Figure:
        return self.banked["purchase"]


def _years(plan: Plan) -> Figure:
    return typed(
        "rig.years_kept", phrase("compare.cost.years_kept"), plan.years_kept, "years", "/rig/years_kept"
    )


def _delivered(
    f: dict[str, Figure], plan: Plan, day: Day, need: Need, banked: BankFigures, use: Use, year: YearOf | None
) -> None:
    at, nights, years = f"cost.{banked.candidate.id}", nights_a_year(plan), _years(plan)
    if year is not None:
        f["kwh_delivered"] = computed(
            f"{at}.kwh", phrase("compare.cost.kwh"), use.kwh * years.number, "kWh",
            "{kWh_year} · {H}", {"kWh_year": year["through"], "H": years},
            phrase("compare.cost.kwh_source"),
        )  # fmt: skip
        _cycles_made(f, need, at)
        return
    usable = banked["usable_wh"]
    daily = min(day.bank_wh.number, usable.number / need.nights.number)
    per_night = computed(
        f"{at}.per_day",
        phrase("compare.cost.per_day"),
        daily,
        "Wh",
        "min({E_bank}, {E_usable} / {N})",
        {"E_bank": day.bank_wh, "E_usable": usable, "N": need.nights},
        phrase("compare.cost.per_day_source"),
    )
    f["kwh_delivered"] = computed(
        f"{at}.kwh",
        phrase("compare.cost.kwh"),
        use.kwh * years.number,
        "kWh",
        "{E_day} · {nights} · {H} / 1000",
        {"E_day": per_night, "nights": nights, "H": years},
    )
    _cycles_made(f, need, at)


def _cycles_made(f: dict[str, Figure], need: Need, at: str) -> None:
    has, kwh = need.energy.number > 0, f["kwh_delivered"].number
    f["cycles_made"] = computed(
        f"{at}.cycles_made",
        phrase("compare.cost.cycles_made"),
        kwh * 1000 / need.energy.number if has else 0.0,
        "cycles",
        "{kWh} · 1000 / {E_need}" if has else "0",
        {"kWh": f["kwh_delivered"], "E_need": need.energy},
        phrase("compare.cost.cycles_made_source"),
        phrase("compare.cost.cycles_made_note"),
    )


def _swap(plan: Plan, assumptions: Assumptions, banked: BankFigures, look: QuickLifeCost) -> Figure:
    assert banked.bank is not None
    at, labour = f"cost.{banked.candidate.id}", assumptions.figure("swap_labour")
    if plan.labour == WORKSHOP and not assumptions.overridden("swap_labour"):
        hours, rate = assumptions.figure("install_hours"), assumptions.figure("workshop_rate")
        labour = computed(
            f"{at}.swap_labour", phrase("compare.cost.swap_labour"), look.swap_labour(), "money",
            "{h_in} · {c_shop}", {"h_in": hours, "c_shop": rate}, phrase("terms.names.done_workshop"),
        )  # fmt: skip
    if not banked.battery_class.is_lead_acid:
        return labour
    return computed(
        f"{at}.swap", phrase("compare.cost.swap"), look.swap(banked.bank), "money",
        "{C_swap} − {kg} · {scrap}",
        {"C_swap": labour, "kg": banked["kg"], "scrap": assumptions.figure("scrap_per_kg")},
    )  # fmt: skip


def _old_bank(plan: Plan, assumptions: Assumptions, old_kg: Figure | None, fetches: float) -> Figure:
    old = plan.old_bank
    if old is not None and old.sale_price is not None:
        return typed(
            "cost.old_bank", phrase("compare.cost.old_bank"), fetches, "money", "/old_bank/sale_price",
            phrase("compare.cost.old_bank_note"),
        )  # fmt: skip
    if old is None or old_kg is None or not old.battery_class.is_lead_acid:
        return computed(
            "cost.old_bank", phrase("compare.cost.scrap_value_old_bank"), fetches, "money", "0", {}
        )
    return computed(
        "cost.old_bank", phrase("compare.cost.scrap_value_old_bank"), fetches, "money", "{kg_old} · {scrap}",
        {"kg_old": old_kg, "scrap": assumptions.figure("scrap_per_kg")},
    )  # fmt: skip


def _replacements(
    f: dict[str, Figure], terms: _Terms, paid: tuple[cash_flow.Payment, ...], swap: Figure
) -> None:
    at, parts = terms.at, {}
    for j, payment in enumerate((p for p in paid if p.item == cash_flow.REPLACEMENT), 1):
        when = computed(
            f"{at}.t.{j}",
            phrase("compare.cost.time_replacement", j=j),
            float(payment.t),
            "years",
            f"{j} · {{life}}",
            {"life": terms.life["years"]},
        )
        parts[f"R{j}"] = computed(
            f"{at}.R.{j}", phrase("compare.cost.replacement", j=j), float(payment.amount), "money",
            "({P} · (1 + {drift})^{t} + {swap}) / (1 + {r})^{t}",
            {"P": terms.price, "drift": terms.drift, "t": when, "swap": swap, "r": terms.discount},
            phrase("compare.cost.price_year_plus_labour"),
        )  # fmt: skip
    f["replacements"] = computed(
        f"{at}.replacements",
        phrase("terms.names.replacements"),
        sum(p.number for p in parts.values()),
        "money",
        " + ".join(f"{{{s}}}" for s in parts) or "0",
        parts,
        phrase("compare.cost.replacements_source"),
    )
    f["replacement_count"] = computed(
        f"{at}.replacement_count",
        phrase("compare.cost.replacement_count"),
        float(len(parts)),
        "1",
        "",
        {"life": terms.life["years"], "H": terms.years},
        phrase("compare.cost.replacement_count_source"),
    )


def _exit(
    f: dict[str, Figure], terms: _Terms, paid: tuple[cash_flow.Payment, ...], kappa: Figure, refit: Figure
) -> None:
    at, years = terms.at, terms.years
    replaced = [float(p.t) for p in paid if p.item == cash_flow.REPLACEMENT]
    left = float(cash_flow.life_left(years.number - (replaced[-1] if replaced else 0.0), terms.life.years))
    formula, inputs = "1", {}
    if not isinf(terms.life.years):
        formula = "max(0, 1 − ({H} − {j} · {life}) / {life})"
        inputs = {"H": years, "j": f["replacement_count"], "life": terms.life["years"]}
    share = computed(f"{at}.left", phrase("compare.cost.left"), left, "%", formula, inputs)
    worth, inputs = (
        "{κ} · {left} · {P} · (1 + {drift})^{H}",
        {"κ": kappa, "left": share, "P": terms.price, "drift": terms.drift, "H": years, "r": terms.discount},
    )
    if refit.number:
        worth, inputs["C_refit"] = f"max(0, {worth} − {{C_refit}})", refit
    f["exit"] = computed(
        f"{at}.exit", phrase("terms.names.resale_value_end"),
        -sum(float(p.amount) for p in paid if p.item == cash_flow.EXIT), "money",
        f"{worth} / (1 + {{r}})^{{H}}", inputs, phrase("compare.cost.exit_source"),
    )  # fmt: skip


def _running_total(
    f: dict[str, Figure],
    paid: tuple[cash_flow.Payment, ...],
    discount: Figure,
    years: Figure,
    banked: BankFigures,
) -> None:
    total = float(sum(p.amount for p in paid if p.item == cash_flow.RUNNING))
    plain = discount.number == 0
    f["running"] = computed(
        f"cost.{banked.candidate.id}.running",
        phrase("compare.cost.running"),
        total,
        "money",
        "{year} · {H}" if plain else "",
        {"year": f["running_per_year"], "H": years, "r": discount},
        phrase("compare.cost.running_source"),
    )


def _again(
    f: dict[str, Figure],
    paid: tuple[cash_flow.Payment, ...],
    discount: Figure,
    years: Figure,
    banked: BankFigures,
) -> None:
    total = float(sum(p.amount for p in paid if p.item == cash_flow.EXTRAS and p.t > 0))
    f["again"] = computed(
        f"cost.{banked.candidate.id}.again",
        phrase("compare.cost.again"),
        total,
        "money",
        "" if total else "0",
        {"H": years, "r": discount},
        phrase("compare.cost.again_source"),
    )


def _lifetime(
    f: dict[str, Figure], banked: BankFigures, credit: Figure, total: float,
    drawn: tuple[float, float, float],
) -> None:  # fmt: skip
    """The lifetime cost, which is the middle of the scenarios, beside what likely values alone would make.

    Args:
        f: figures of the money so far.
        banked: the candidate.
        credit: what the old bank fetches.
        total: cost by likely values alone [money].
        drawn: P10, P50 and P90 of the scenarios [money].
    """
    at, (low, middle, high) = f"cost.{banked.candidate.id}", drawn
    extras = {"extra_cost": f["extra_cost"]} | ({"again": f["again"]} if f["again"].number else {})
    f["lifetime_planned"] = computed(
        f"{at}.lifetime_planned",
        phrase("compare.cost.lifetime_planned"),
        total,
        "money",
        "{batteries} + {replacements} + {running} − {exit} − {old} + {extra_cost}"
        + (" + {again}" if "again" in extras else ""),
        {
            "batteries": banked["purchase"], "replacements": f["replacements"], "running": f["running"],
            "exit": f["exit"], "old": credit, **extras,
        },
        phrase("compare.cost.lifetime_planned_source"),
    )  # fmt: skip
    f["doubt"] = Figure(
        f"{at}.doubt", phrase("compare.cost.doubt"), middle - total, "money", REFERENCE,
        source=phrase("compare.verdict.simulated_scenarios_price_cycles", count=COUNT),
        note=phrase("compare.cost.doubt_note"),
    )  # fmt: skip
    f["lifetime"] = computed(
        f"{at}.lifetime",
        phrase("terms.names.lifetime_cost"),
        middle,
        "money",
        "{planned} + {doubt}",
        {"planned": f["lifetime_planned"], "doubt": f["doubt"]},
        phrase("compare.cost.lifetime_source"),
        low=low,
        high=high,
    )
    f["lifetime_bare"] = computed(
        f"{at}.lifetime_bare",
        phrase("compare.cost.lifetime_bare"),
        middle - f["extra_cost"].number - f["again"].number,
        "money",
        "{lifetime} − {extra_cost}" + (" − {again}" if "again" in extras else ""),
        {"lifetime": f["lifetime"], **extras},
        phrase("compare.cost.lifetime_bare_source"),
    )
