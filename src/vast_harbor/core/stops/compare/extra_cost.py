"""What comes in addition to the batteries: extras, labour and contingency, with their workings."""

from collections.abc import Callable, Sequence
from dataclasses import replace

from vast_harbor.core.cost.life_cost import LifeCostInputs
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import NEEDED
from vast_harbor.core.rig.plan import HOUR_OF, WORKSHOP, Plan
from vast_harbor.core.stops.banks import BankFigures
from vast_harbor.core.stops.charging import suitability_of
from vast_harbor.core.stops.compare.required_extras import (
    COUNTED,
    WANTED,
    RequiredExtra,
    difficulty,
    hours_of,
    may_do,
    planned_beside,
    required_extras,
)
from vast_harbor.phrases import phrase


def add_extra_cost(
    f: dict[str, Figure],
    plan: Plan,
    assumptions: Assumptions,
    banked: BankFigures,
    required: Sequence[RequiredExtra],
) -> None:
    """Put ``extras``, ``hours``, ``labour``, ``contingency``, ``extra_cost`` and ``outlay`` to the money.

    Args:
        f: figures of the money so far.
        plan, assumptions: the plan and what holds for it.
        banked: the candidate.
        required: what it demands.
    """
    at, build = f"cost.{banked.candidate.id}", banked.build
    parts = {f"D{i}": d.price for i, d in enumerate((d for d in required if d.state == COUNTED), 1)}
    own = banked["extras"]
    f["extras"] = computed(
        f"{at}.extras",
        phrase("terms.names.extras"),
        own.number + sum(p.number for p in parts.values()),
        "money",
        " + ".join(["{own}", *(f"{{{s}}}" for s in parts)]),
        {"own": own, **parts},
        phrase("compare.extra_cost.extras_source"),
    )
    swap = assumptions.figure("install_hours")
    more = Figure(
        f"{at}.extra_hours",
        phrase("compare.extra_cost.extra_hours"),
        hours_of(build, required) if build is not None else 0.0,
        "h",
        REFERENCE,
        source=phrase("compare.extra_cost.extra_hours_source"),
    )
    f["hours"] = computed(
        f"{at}.hours", phrase("compare.extra_cost.hours"), swap.number + more.number, "h", "{h_in} + {h_X}",
        {"h_in": swap, "h_X": more},
    )  # fmt: skip
    shop = plan.labour == WORKSHOP
    rate = assumptions.figure(HOUR_OF[plan.labour])
    f["labour"] = computed(
        f"{at}.labour",
        phrase("compare.extra_cost.labour"),
        f["hours"].number * rate.number,
        "money",
        "{h} · {c}",
        {"h": f["hours"], "c": rate},
        phrase("terms.names.done_workshop") if shop else phrase("compare.extra_cost.labour_source"),
    )
    level = difficulty(build, required) if build is not None else "easy"
    f["contingency"] = _contingency(f, assumptions, level, at)
    f["extra_cost"] = computed(
        f"{at}.extra_cost", phrase("terms.names.extras_labour"),
        f["extras"].number + f["labour"].number + f["contingency"].number, "money", "{X} + {W} + {Y}",
        {"X": f["extras"], "W": f["labour"], "Y": f["contingency"]},
    )  # fmt: skip
    inputs = {"P": banked["purchase"], "X": f["extra_cost"]}
    anyway = {"Z": banked["wanted"]} | {
        f"Z{i}": d.price for i, d in enumerate((d for d in required if d.state == WANTED), 1)
    }
    inputs |= {s: price for s, price in anyway.items() if price.number}
    formula = " + ".join(f"{{{s}}}" for s in inputs)
    f["outlay"] = computed(
        f"{at}.outlay",
        phrase("terms.names.up_front_cost"),
        sum(part.number for part in inputs.values()),
        "money",
        formula,
        inputs,
        phrase("compare.extra_cost.outlay_source"),
    )


def cost_besides(
    plan: Plan, assumptions: Assumptions, banked: BankFigures, required: Sequence[RequiredExtra]
) -> float:
    """What comes on top of the batteries, labour and contingency included [money]; arguments as above."""
    f: dict[str, Figure] = {}
    add_extra_cost(f, plan, assumptions, banked, required)
    return f["extra_cost"].number


def _contingency(f: dict[str, Figure], assumptions: Assumptions, level: str, at: str) -> Figure:
    base = {"X": f["extras"], "W": f["labour"]}
    if level == "easy":
        return computed(
            f"{at}.contingency",
            phrase("compare.extra_cost.contingency"),
            0.0,
            "money",
            "0",
            base,
            phrase("compare.extra_cost.contingency_source"),
        )
    share = assumptions.figure(f"contingency.{level}")
    return computed(
        f"{at}.contingency",
        phrase("compare.extra_cost.contingency"),
        share.number * (f["extras"].number + f["labour"].number),
        "money",
        "{f} · ({X} + {W})",
        {"f": share, **base},
        phrase("compare.extra_cost.contingency_some_difficulty_source")
        if level == "some"
        else phrase("compare.extra_cost.contingency_difficult_new_wiring_carpentry_source"),
    )


def with_extras(
    inputs: LifeCostInputs, extra_cost: float, banked: BankFigures, required: Sequence[RequiredExtra]
) -> LifeCostInputs:
    """A bank in numbers with what comes in addition: bought once, again, sold at the end, paid each year.

    Args:
        inputs: the bank without it.
        extra_cost: extras, labour and contingency [money].
        banked: the candidate.
        required: what it needs, and what is planned beside it.
    """
    again = [
        (e.price, e.life_years)
        for e in banked.candidate.extras
        if e.tag == NEEDED and e.life_years is not None
    ]
    kept = []
    for one, price in charged(banked, required):
        again.append((price.number, one.kind.life_years))
        kept.append((price.number, one.kind.life_years, one.kind.kept))
    yearly = sum(one.yearly for one, _ in charged(banked, required))
    return replace(
        inputs,
        extras=extra_cost,
        again=tuple(again),
        kept=tuple(kept),
        maintenance=inputs.maintenance + yearly,
    )


def charged(banked: BankFigures, required: Sequence[RequiredExtra]) -> tuple[tuple[Improvement, Figure], ...]:
    """What is planned beside the bank and charged to it, each with its price."""
    if banked.build is None:
        return ()
    prices = {d.key: d.price for d in required if d.state == COUNTED}
    return tuple(
        (one, prices[key])
        for one in planned_beside(banked.build)
        if (key := f"improvement-{one.id}") in prices
    )


def extras_cost_of(plan: Plan, assumptions: Assumptions) -> Callable[[BankFigures], float | None]:
    """What a bank needs in addition [money]; None where it is unsuitable even so."""

    def of(banked: BankFigures) -> float | None:
        assert banked.build is not None
        suitability = suitability_of(banked.build)
        required = required_extras(banked.build, banked.checks, suitability)
        may = may_do(banked, suitability, required)
        return cost_besides(plan, assumptions, banked, required) if may else None

    return of
