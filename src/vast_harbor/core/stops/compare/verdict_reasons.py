"""The reasons for the verdict and against it: money, what the owner cares about, use."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure, Sentence, escaped, typed
from vast_harbor.core.stops.compare import life as life_stop
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.priorities import ALIKE, PRIORITIES
from vast_harbor.core.stops.compare.verdict import BUY, Verdict
from vast_harbor.phrases import phrase

FOR, AGAINST = "for", "against"


# What ends a bank, and what does not.
ENDS = {
    life_stop.CYCLES: phrase("compare.verdict_text.use_wears_out"),
    life_stop.YEARS: phrase("compare.verdict_text.age_use_wears_out"),
    life_stop.ELECTRONICS: phrase("compare.verdict_text.electronics_fail_before_cells"),
    life_stop.ACCIDENTS: phrase("compare.verdict_text.deep_discharges_end_life"),
    life_stop.WARRANTY: phrase("compare.verdict_text.plan_counts_warranty_period"),
}


@dataclass(frozen=True, slots=True)
class Reason:
    """One reason.

    Attributes:
        side: ``for`` or ``against``.
        says: the reason, its figures in it.
        stop: where it is looked at.
        cared: whether it is about something that the owner cares about.
    """

    side: str
    says: Sentence
    stop: str
    cared: bool = False


def reasons(v: Verdict) -> tuple[Reason, ...]:
    """Reasons for and against what it says to buy; what the owner cares about comes first."""
    if v.winner is None or v.kind != BUY:
        return ()
    found = [
        *_money_reasons(v, v.winner),
        *_beside_runner(v, v.winner),
        *_priority_reasons(v, v.winner),
        *_use_reasons(v, v.winner),
    ]
    return tuple(sorted(found, key=lambda r: (r.side != FOR, not r.cared)))


def _money_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    if v.saving is not None and v.runner_up in v.suitable:
        low, saved, high = v.saving
        figures = {"saved": saved, "low": low, "high": high}
        if low.number > 0:
            yield Reason(
                FOR, Sentence(phrase("compare.verdict_text.saves_compared_runner_up"), figures), "compare"
            )
        elif saved.number > 0:
            yield Reason(
                AGAINST,
                Sentence(phrase("compare.verdict_text.saving_uncertain_eight_ten"), figures),
                "compare",
            )
        else:
            yield Reason(
                AGAINST,
                Sentence(phrase("compare.verdict_text.planned_costs_runner_up"), {"more": _positive(saved)}),
                "compare",
            )
    if v.pays_back is not None and v.pays_back.number < v.plan.years_kept:
        yield Reason(
            FOR, Sentence(phrase("compare.verdict_text.higher_up_front_cost"), {"t": v.pays_back}), "compare"
        )
    budget, outlay = v.plan.budget, winner.cost["outlay"]
    if budget is not None and outlay.number > budget:
        ceiling = typed("rig.budget", phrase("terms.names.spending_limit"), budget, "money", "/rig/budget")
        yield Reason(
            AGAINST, Sentence(phrase("compare.verdict_text.up_front_cost_wanted"),
                              {"outlay": outlay, "budget": ceiling}), "rig", True,
        )  # fmt: skip


def _beside_runner(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    """What it has over the runner-up, apart from the money over the years."""
    active_load = v.runner_up
    if active_load is None or active_load not in v.suitable:
        return
    ours, theirs = winner.cost["outlay"], active_load.cost["outlay"]
    if ours.number < theirs.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(phrase("compare.verdict_text.up_front_cost_lower_than"), {"x": ours, "y": theirs}),
            "compare",
            "purse" in v.plan.cares,
        )
    extra_cost, more = winner.cost["extra_cost"], active_load.cost["extra_cost"]
    if extra_cost.number < more.number * (1 - ALIKE):
        yield Reason(
            FOR,
            Sentence(phrase("compare.verdict_text.extras_labour_cost_less"), {"x": extra_cost, "y": more}),
            "compare",
        )
    kept = winner.cost["per_year"].inputs["H"]
    if winner.cost["replacement_count"].number == 0 and winner.life["years"].value is not None:
        yield Reason(
            FOR, Sentence(phrase("compare.verdict_text.lasts_longer_keep_rig"),
                          {"years": winner.life["years"], "kept": kept}), "compare",
        )  # fmt: skip


def _positive(saved: Figure) -> Figure:
    inputs = {"a": saved.inputs["a"], "b": saved.inputs["b"]}
    return Figure(
        "verdict.dearer",
        phrase("compare.verdict_text.dearer"),
        -saved.number,
        "money",
        formula="{a} − {b}",
        inputs=inputs,
    )


def _priority_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    suitable = v.suitable if len(v.suitable) > 1 else v.compared_banks
    for key in PRIORITIES:
        priority, cared = PRIORITIES[key], key in v.plan.cares
        losses = {c.id: priority.loss(c) for c in suitable}
        least, own = min(losses.values()), losses.get(winner.id, 0.0)
        if max(losses.values()) - least <= ALIKE * max(abs(least), 1e-9):
            continue
        figure = priority.figure(winner)
        if own <= least + 1e-9:
            if cared or key in ("weight", "purse"):
                yield Reason(FOR, Sentence(f"It {priority.best}: {{x}}.", {"x": figure}), "compare", cared)
        elif cared and own - least > ALIKE * max(abs(least), 1e-9):
            best = min(suitable, key=lambda c: losses[c.id])
            yield Reason(
                AGAINST,
                Sentence(
                    phrase(
                        "compare.verdict_text.compared",
                        worst=priority.worst,
                        short=best.short(v.compared_banks),
                    ),
                    {"x": figure, "y": priority.figure(best)},
                ),
                "compare",
                True,
            )


def _use_reasons(v: Verdict, winner: ComparedBank) -> Iterator[Reason]:
    year, life = winner.year, winner.life
    if year is not None:
        yield Reason(
            FOR,
            Sentence(
                phrase("compare.verdict_text.supplies_off_grid_nights"), {"share": year["served_share"]}
            ),
            "trial",
        )
        if winner.banked.battery_class.is_lead_acid and year["short_share"].number > 0.3:
            yield Reason(
                AGAINST, Sentence(phrase("compare.verdict_text.off_grid_days_full"),
                                  {"share": year["short_share"]}), "trial",
            )  # fmt: skip
    per_year, stands = life["cycles_per_year"], life["cycles_at_depth"]
    if life.ends != life_stop.CYCLES and stands.value is not None and per_year.number > 0:
        yield Reason(
            AGAINST,
            Sentence(phrase("compare.verdict_text.use_pay_rest_without"), {"stands": stands, "n": per_year}),
            "compare",
        )
    met = {"budget", *winner.met}
    cautions = [f for f in winner.banked.findings if f.severity == "caution" and f.code not in met]
    for finding in cautions[:2]:
        yield Reason(AGAINST, finding.says, "banks")
    for suitability in winner.suitability:
        left = [p for p in suitability.points if f"source_{p.code}" not in met and p.severity != "note"]
        if left:
            says = left[0].says
            named = Sentence(f"{escaped(suitability.source_name)}: {says.template}", says.figures)
            yield Reason(AGAINST, named, "charging")
