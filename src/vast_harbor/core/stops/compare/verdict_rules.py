"""What each of the five rules of the verdict came to."""

from dataclasses import dataclass

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.stops.compare.priorities import PRIORITIES
from vast_harbor.core.stops.compare.verdict import BUY, HOOK_UP, KEEP, MEND, Verdict
from vast_harbor.core.stops.compare.wear import nights_a_year
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class Step:
    """What one rule came to.

    Attributes:
        rule: 1 to 5.
        name: the rule in words.
        says: what it came to here.
    """

    rule: int
    name: str
    says: Sentence


NAMES = (
    phrase("compare.verdict_text.new_bank_needed"),
    phrase("compare.verdict_text.unsuitable_banks"),
    phrase("compare.verdict_text.banks_fail_critical_loads"),
    phrase("compare.verdict_text.cost_then_care_about"),
    phrase("compare.verdict_text.smallest_suitable_purchase"),
)


def steps(v: Verdict) -> tuple[Step, ...]:
    """What each rule came to."""
    says = (_rule_1(v), _gone(v), _rule_3(v), _rule_4(v), _rule_5(v))
    return tuple(Step(i, n, s) for i, (n, s) in enumerate(zip(NAMES, says, strict=True), 1))


def _rule_1(v: Verdict) -> Sentence:
    nights = nights_a_year(v.plan)
    return {
        KEEP: Sentence(phrase("compare.verdict_text.tested_old_bank_still"))
        if v.tested
        else Sentence(phrase("compare.verdict_text.young_old_bank_still")),
        MEND: Sentence(phrase("compare.verdict_text.bank_cause_cause_charges")),
        HOOK_UP: Sentence(phrase("compare.verdict_text.off_grid_almost_nothing"), {"nights": nights})
        if v.without is None
        else Sentence(
            phrase("compare.verdict_text.no_bank_pays"),
            {"nights": nights, "bank": v.without[0], "elsewhere": v.without[1]},
        ),
    }.get(v.kind, Sentence(phrase("compare.verdict_text.yes_old_bank_worn")))


def _rule_3(v: Verdict) -> Sentence:
    """What is not supplied, and what it costs: beside the winner, else beside the cheapest."""
    missing = [c for c in v.suitable if c.cost["elsewhere"].number + c.cost["critical"].number > 0]
    if not missing:
        return Sentence(phrase("compare.verdict_text.all_supplied"))
    one = v.winner if v.winner in missing else missing[0]
    assert one is not None
    return Sentence(
        phrase("compare.verdict_text.missing_priced", count=len(missing), name=one.title),
        {"elsewhere": one.cost["elsewhere"], "critical": one.cost["critical"]},
    )


def _gone(v: Verdict) -> Sentence:
    gone = [o.compared for o in v.outs]
    return Sentence(", ".join(c.title for c in gone) + "." if gone else "None.")


def _rule_4(v: Verdict) -> Sentence:
    if v.kind != BUY or v.decided is None:
        return Sentence(phrase("compare.verdict_text.applicable"))
    winner, why = v.decided
    name, clear = winner.title, v.assumptions.figure("verdict_clear")
    if why == "only":
        return Sentence(phrase("compare.verdict_text.left", name=name))
    if why == "money":
        within, kind = v.assumptions.figure("verdict_within"), winner.banked.battery_class.short
        share = v.shares[winner.id]
        if share.number > clear.number:
            return Sentence(
                phrase("compare.verdict_text.cheapest_scenarios", name=name), {"share": share, "clear": clear}
            )
        if v.clear:
            return Sentence(
                phrase("compare.verdict_text.cheapest_scenarios_banks_costs", kind=kind, name=name),
                {"clear": clear},
            )
        says = phrase("compare.verdict_text.cheapest_scenarios_other_close", name=name)
        says += phrase("compare.verdict_text.when_expensive_scenarios_included")
        says += phrase("compare.verdict_text.worse_another_everything")
        return Sentence(says, {"share": share, "within": within})
    decides = {
        "": phrase("compare.verdict_text.its_up_front_cost_is"),
        "risk": phrase("compare.verdict_text.costs_less_when_expensive_scenarios"),
    }.get(why) or phrase("compare.verdict_text.care_about", name=PRIORITIES[why].name)
    near = _listed([c.title for c in v.near])
    return Sentence(
        phrase("compare.verdict_text.clear_winner_cost_bank", near=near, name=name, decides=decides),
        {"clear": clear},
    )


def _listed(names: list[str]) -> str:
    return phrase("compare.verdict_text.and", names=", ".join(names[:-1]), names_2=names[-1])


def _rule_5(v: Verdict) -> Sentence:
    if v.winner is None:
        return Sentence(phrase("compare.verdict_text.buy_nothing"))
    return Sentence(
        phrase("compare.verdict_text.up_front_cost_until_later"), {"outlay": v.winner.cost["outlay"]}
    )
