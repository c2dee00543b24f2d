"""The result of the comparison in plain words."""

from collections.abc import Sequence

from vast_harbor.core.figures.workings import Sentence, computed
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.life import nights_a_year
from vast_harbor.core.stops.day import Day

# Within this share two lifetime costs are called the same.
ALIKE = 0.05


def result_sentence(
    plan: Plan, day: Day, compared_banks: Sequence[ComparedBank], will_do: Sequence[ComparedBank]
) -> Sentence:
    """The result in plain words, presuming nothing about which chemistry is dearer.

    Args:
        plan, day: the plan and its day.
        compared_banks: candidates that can be built.
        will_do: those that the verdict does not leave out.

    Returns:
        One to three sentences.
    """
    if day.bank_wh.number <= 0:
        return Sentence("List the loads of a day, and the comparison appears here.")
    if len(compared_banks) < 2:
        return Sentence("Put up at least two banks that can be built, and they are compared here.")
    suitable = list(will_do)
    out = [c for c in compared_banks if c not in suitable]
    if len(suitable) == 1 and out:
        return _only(plan, suitable[0], out, compared_banks)
    ranked = suitable if suitable else list(compared_banks)
    counted = all((c.cost["cycles_made"].value or 0) >= plan.years_kept for c in ranked)
    key = "per_cycle" if counted else "per_year"
    ranked.sort(key=lambda c: c.cost[key].number)
    first, second = ranked[:2]
    a, b = first.cost[key], second.cost[key]
    figures = {
        "H": compared_banks[0].cost["per_year"].inputs["H"],
        "nights": nights_a_year(plan),
        "a": a,
        "b": b,
        "more": computed(
            "compare.more", "Dearer by", b.number - a.number, a.unit, "{b} − {a}", {"b": b, "a": a}
        ),
    }
    names = (first.short(compared_banks), second.short(compared_banks))
    among = " of those that will do" if out and ranked == suitable else ""
    start = "Kept {H} with {nights} off-grid a year"
    if b.number - a.number < ALIKE * abs(b.number):
        says = f"{start}, {names[0]} and {names[1]} cost about the same: {{a}} and {{b}}."
    else:
        says = f"{start}, {names[0]} is cheapest{among} at {{a}}; next is {names[1]} at {{b}}, {{more}} more."
    if first.cost["outlay"].number > second.cost["outlay"].number:
        says += f" On the day you buy it, {names[0]} costs more: {{out_a}} against {{out_b}}."
        figures |= {"out_a": first.cost["outlay"], "out_b": second.cost["outlay"]}
    return Sentence(says + _left_out(out, compared_banks, bool(among)), figures)


def _only(
    plan: Plan, compared: ComparedBank, out: Sequence[ComparedBank], compared_banks: Sequence[ComparedBank]
) -> Sentence:
    """The one that will do, where no other does."""
    counted = (compared.cost["cycles_made"].value or 0) >= plan.years_kept
    a = compared.cost["per_cycle" if counted else "per_year"]
    figures = {"H": compared_banks[0].cost["per_year"].inputs["H"], "nights": nights_a_year(plan), "a": a}
    says = f"Of these only {compared.short(compared_banks)} will do: kept {{H}} with {{nights}} off-grid "
    return Sentence(says + "a year it costs {a}." + _left_out(out, compared_banks, True), figures)


def _left_out(
    out: Sequence[ComparedBank], compared_banks: Sequence[ComparedBank], ranked_without: bool
) -> str:
    """Who will not do as it stands, in words."""
    if not out:
        return ""
    names = [c.short(compared_banks) for c in out]
    listed = names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
    if ranked_without:
        return f" Left out: {listed}, which will not do; the verdict says why."
    return f" But {listed} will not do; the verdict says why."
