"""The result of the comparison in plain words."""

from collections.abc import Sequence

from vast_harbor.core.figures.workings import Sentence, computed
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.wear import nights_a_year
from vast_harbor.core.stops.day import Day
from vast_harbor.phrases import phrase

# Within this share two lifetime costs are called the same.
ALIKE = 0.05


def result_sentence(
    plan: Plan, day: Day, compared_banks: Sequence[ComparedBank], will_do: Sequence[ComparedBank]
) -> Sentence:
    """The result in plain words, presuming nothing about which class costs more.

    Args:
        plan, day: the plan and its day.
        compared_banks: candidates that can be built.
        will_do: those that the verdict does not leave out.

    Returns:
        One to three sentences.
    """
    if day.bank_wh.number <= 0:
        return Sentence(phrase("compare.summary_sentence.list_loads_day_see"))
    if len(compared_banks) < 2:
        return Sentence(phrase("compare.summary_sentence.add_least_two_banks"))
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
            "compare.more",
            phrase("terms.names.price_difference"),
            b.number - a.number,
            a.unit,
            "{b} − {a}",
            {"b": b, "a": a},
        ),
    }
    names = (first.short(compared_banks), second.short(compared_banks))
    among = phrase("compare.summary_sentence.suitable_banks") if out and ranked == suitable else ""
    start = phrase("compare.summary_sentence.over_off_grid_year")
    if b.number - a.number < ALIKE * abs(b.number):
        says = phrase(
            "compare.summary_sentence.cost_about_same", start=start, names=names[0], names_2=names[1]
        )
    else:
        says = phrase(
            "compare.summary_sentence.cheapest_next",
            start=start,
            names=names[0],
            among=among,
            names_2=names[1],
        )
    if first.cost["outlay"].number > second.cost["outlay"].number:
        says += phrase("compare.summary_sentence.up_front_cost_higher", names=names[0])
        figures |= {"out_a": first.cost["outlay"], "out_b": second.cost["outlay"]}
    return Sentence(says + _left_out(out, compared_banks, bool(among)), figures)


def _only(
    plan: Plan, compared: ComparedBank, out: Sequence[ComparedBank], compared_banks: Sequence[ComparedBank]
) -> Sentence:
    """The one that will do, where no other does."""
    counted = (compared.cost["cycles_made"].value or 0) >= plan.years_kept
    a = compared.cost["per_cycle" if counted else "per_year"]
    figures = {"H": compared_banks[0].cost["per_year"].inputs["H"], "nights": nights_a_year(plan), "a": a}
    says = phrase("compare.summary_sentence.suitable_over_off_grid", short=compared.short(compared_banks))
    return Sentence(
        says + phrase("compare.summary_sentence.year_costs") + _left_out(out, compared_banks, True), figures
    )


def _left_out(
    out: Sequence[ComparedBank], compared_banks: Sequence[ComparedBank], ranked_without: bool
) -> str:
    """Who will not do as it stands, in words."""
    if not out:
        return ""
    names = [c.short(compared_banks) for c in out]
    listed = (
        names[0]
        if len(names) == 1
        else phrase("compare.summary_sentence.and", names=", ".join(names[:-1]), names_2=names[-1])
    )
    if ranked_without:
        return phrase("compare.summary_sentence.left_out_unsuitable_verdict", listed=listed)
    return phrase("compare.summary_sentence.suitable_verdict_says_why", listed=listed)
