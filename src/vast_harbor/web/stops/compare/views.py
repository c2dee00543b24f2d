"""The comparison as the interface is given it: its table, its sentence, its pictures."""

from collections.abc import Iterable

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import unescaped
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.compare import (
    ComparedBank,
    RequiredExtra,
    Verdict,
    capacity,
    cumulative,
    difficulty,
    items,
    reasons,
    steps,
    verdict_text,
)
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.views import figure_view, operations_of, tokens, view_of
from vast_harbor.web.state.choosing import choosing
from vast_harbor.web.stops.compare.table_models import (
    CandidateShareView,
    ComparedBankView,
    CompareView,
    CorrectionView,
    FoundForYouView,
    ItemView,
    OutView,
    ReasonView,
    RequiredExtraView,
    RowView,
    RuleStepView,
    SeriesView,
    VerdictView,
)


def _points(pairs: Iterable[tuple[float, float]], digits: int) -> list[tuple[float, float]]:
    return [(round(float(x), 3), round(float(y), digits)) for x, y in pairs]


def compare_view(results: Results, style: Style) -> CompareView:
    """The comparison with its pictures."""
    compare = results.compare
    compared_banks = [_compared(c, results, style) for c in compare.compared_banks]
    rows = [view_of(RowView, r, style) for r in compare.rows]
    corrections = [view_of(CorrectionView, c, style) for c in compare.corrections]
    spent = [
        SeriesView(id=c.banked.candidate.id, points=_points(cumulative(c), 2)) for c in compare.compared_banks
    ]
    lasts = [
        SeriesView(id=c.id, points=_points(capacity(c, results.plan.years_kept), 3))
        for c in compare.compared_banks
    ]
    return CompareView(
        verdict=_verdict(results, style),
        unequal=any(f.code == "unequal" for f in compare.findings),
        compared_banks=compared_banks,
        rows=rows,
        sentence=tokens(compare.sentence, style),
        corrections=corrections,
        cumulative=spent,
        capacity=lasts,
    )


# Money of a column that is told beside its pictures.
MONEY = (
    "purchase",
    "extras",
    "labour",
    "contingency",
    "extra_cost",
    "outlay",
    "old_bank",
    "wanted",
    "lifetime",
    "per_cycle",
)


def _compared(compared: ComparedBank, results: Results, style: Style) -> ComparedBankView:
    banked, bank, cost = compared.banked, compared.banked.bank, compared.cost
    index = next((i for i, c in enumerate(results.plan.candidates) if c.id == compared.id), -1)
    of = {"purchase": banked["purchase"], "wanted": banked["wanted"], **cost.figures}
    level = difficulty(banked.build, cost.required_extras) if banked.build is not None else "easy"
    return ComparedBankView(
        id=compared.id,
        index=index,
        code=banked.battery_class.code,
        battery_class=banked.battery_class.key,
        title=bank.model.title if bank else "",
        layout=layout(bank) if bank else "",
        ends=compared.life.ends,
        out=compared not in results.verdict.suitable,
        own=bank is not None and bank.model.own,
        money={k: figure_view(of[k], style) for k in MONEY if k in of},
        difficulty=level,
        required_extras=[_required_extra(d, compared, index, style) for d in cost.required_extras],
        items=[
            ItemView(
                key=i.key,
                name=i.name,
                amount=style.text(i.money, "money"),
                value=round(i.money, 2),
                per=None if i.per_cycle is None else round(i.per_cycle, 4),
                per_text=style.text(i.per_cycle, "money/cycle"),
            )
            for i in items(compared)
        ],
    )


def _required_extra(
    required_extra: RequiredExtra, compared: ComparedBank, index: int, style: Style
) -> RequiredExtraView:
    at, key = f"/candidates/{index}", required_extra.key
    candidate = compared.banked.candidate
    # A bank that was found is changed once it is a candidate.
    editable = index >= 0
    taken = {e.covers for e in candidate.extras}
    new = {
        "id": f"for-{key}"[:40],
        "name": required_extra.name[:80],
        "price": round(required_extra.price.number, 2),
        "covers": key,
    }
    price_it = [] if key in taken or not editable else [{"op": "add", "path": f"{at}/extras/-", "value": new}]
    strike = [{"op": "add", "path": f"{at}/struck/-", "value": key}]
    if not editable:
        strike = []
    elif key in candidate.struck:
        strike = [{"op": "remove", "path": f"{at}/struck/{candidate.struck.index(key)}"}]
    fix = required_extra.fix
    do = [] if fix is None or not editable else [
        {"op": "add", "path": f"{at}/fixes/-", "value": {"source": fix.source, "remedy": fix.remedy}}
    ]  # fmt: skip
    return view_of(
        RequiredExtraView,
        required_extra,
        style,
        key=key,
        hours=style.text(required_extra.hours, "duration") if required_extra.hours else "",
        price_it=operations_of(price_it),
        strike=operations_of(strike),
        do=operations_of(do),
    )


def _verdict(results: Results, style: Style) -> VerdictView:
    v = results.verdict
    return VerdictView(
        kind=v.kind,
        runs=[] if results.runs is None else tokens(results.runs, style),
        headline=tokens(verdict_text.headline(v), style),
        card=[tokens(s, style) for s in verdict_text.card(v)],
        winner=v.winner.id if v.winner is not None else None,
        runner_up=v.runner_up.id if v.runner_up is not None else None,
        runner_text="" if v.runner_up is None else unescaped(v.runner_up.title),
        reasons=[view_of(ReasonView, r, style) for r in reasons(v)],
        steps=[view_of(RuleStepView, s, style) for s in steps(v)],
        outs=[view_of(OutView, o, style, id=o.compared.id) for o in v.outs],
        candidates=[
            CandidateShareView(
                id=c.id,
                share=figure_view(v.shares[c.id], style) if c.id in v.shares else None,
                p10=figure_view(v.spreads[c.id][0], style),
                p50=figure_view(v.spreads[c.id][1], style),
                p90=figure_view(v.spreads[c.id][2], style),
            )
            for c in results.compare.compared_banks
        ],
        danger=v.danger,
        question=v.question.stop if v.question is not None else "",
        found=[_found(c, v, style) for c in v.found],
        buying=choosing(v.winner, results.plan)
        if v.winner is not None and v.winner.banked.build is not None
        else [],
        doubt=tokens(why, style) if (why := verdict_text.doubt(v)) is not None else [],
    )


def _found(compared: ComparedBank, v: Verdict, style: Style) -> FoundForYouView:
    bank = compared.banked.bank
    assert bank is not None
    _, middle, dear = v.spreads[compared.id]
    of = {"outlay": compared.cost["outlay"], "kg": compared.banked["kg"], "p50": middle, "p90": dear}
    if compared.id in v.shares:
        of["share"] = v.shares[compared.id]
    return FoundForYouView(
        id=compared.id,
        battery_class=bank.model.battery_class.key,
        model=bank.model.id,
        series=bank.series,
        parallel=bank.parallel,
        title=bank.model.title,
        layout=layout(bank),
        wins=compared is v.winner,
        out=compared not in v.suitable,
        figures={key: figure_view(f, style) for key, f in of.items()},
    )
