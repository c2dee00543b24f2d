"""The cards of the candidates, as the interface is given them."""

from vast_harbor.core.battery.datasheet import OWN_SWITCH
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.banks import OK, BankFigures, Check
from vast_harbor.phrases import phrase
from vast_harbor.web.banks.card_models import (
    BanksView,
    CandidateView,
    CheckView,
    PurchaseStepView,
    RemedyView,
)
from vast_harbor.web.compare.views import layout
from vast_harbor.web.rig.views import diagnosis_view
from vast_harbor.web.views import FigureView, figure_view, finding_view, operations_of, tokens


def _candidate(banked: BankFigures, index: int, style: Style) -> CandidateView:
    bank = banked.bank
    given = banked.candidate
    return CandidateView(
        id=given.id,
        index=index,
        battery_class=banked.battery_class.key,
        title=bank.model.title if bank else banked.battery_class.name,
        layout=layout(bank) if bank else "",
        model=bank.model.id if bank else given.model,
        proposed_model=banked.proposed_model,
        proposed_parallel=banked.proposed_parallel,
        series=bank.series if bank else given.series,
        parallel=bank.parallel if bank else given.parallel,
        grade=bank.model.grade if bank else "",
        no_switch=bool(bank and bank.model.bms and bank.model.bms.switch != OWN_SWITCH),
        figures={k: figure_view(f, style) for k, f in banked.figures.items()},
        checks=[check_view(c, style) for c in banked.checks if c.verdict != OK],
        passed=sum(c.verdict == OK for c in banked.checks),
        stages=[
            PurchaseStepView(
                index=s.index,
                strings=s.strings,
                money=figure_view(s.money, style),
                so_far=figure_view(s.so_far, style),
                usable=figure_view(s.usable, style),
                covered=figure_view(s.covered, style),
                nights=figure_view(s.nights, style),
            )
            for s in banked.stages
        ],
        findings=[] if banked.checks else [finding_view(f, style) for f in banked.findings],
    )


def _margin(check: Check, style: Style) -> FigureView | None:
    """What is left, or lacks, without a sign: the words beside it say which."""
    if check.margin is None:
        return None
    value = check.margin.number
    text = style.text(abs(value), check.margin.unit.removeprefix("±"))
    return FigureView(key=check.margin.key, text=text, value=value, was=None)


def check_view(check: Check, style: Style) -> CheckView:
    """One thing that was looked at."""
    return CheckView(
        code=check.code,
        name=check.name,
        verdict=check.verdict,
        says=tokens(check.says, style),
        remedy=check.remedy,
        margin=_margin(check, style),
        gap=phrase("answers.banks_card_views.spare")
        if check.verdict == OK
        else phrase("answers.banks_card_views.short_limit")
        if check.is_minimum
        else phrase("answers.banks_card_views.over_limit"),
        remedies=[
            RemedyView(
                key=r.key,
                says=r.says,
                price=None if r.price is None else figure_view(r.price, style),
                operations=operations_of(r.edits),
            )
            for r in check.remedies
        ],
    )


def banks_view(results: Results, style: Style) -> BanksView:
    return BanksView(
        candidates=[_candidate(c, i, style) for i, c in enumerate(results.banks.candidates)],
        old_carries={k: figure_view(f, style) for k, f in results.banks.old_carries.items()},
        diagnosis=diagnosis_view(results, style),
        old=[figure_view(f, style) for f in (results.banks.old_wh, results.banks.old_kg) if f],
    )
