"""The cards of the candidates, as the interface is given them."""

from collections.abc import Set as AbstractSet

from vast_harbor.core.battery.datasheet import OWN_SWITCH
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, OK, BankFigures, Check
from vast_harbor.phrases import phrase
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.views import FigureView, figure_view, finding_view, operations_of, view_of
from vast_harbor.web.stops.banks.card_models import (
    BanksView,
    CandidateView,
    CheckView,
    PurchaseStepView,
    RemedyView,
)
from vast_harbor.web.stops.banks.diagnosis import diagnosis_view


def _candidate(banked: BankFigures, index: int, met: AbstractSet[str], style: Style) -> CandidateView:
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
        no_switch=bool(bank and bank.model.bms and bank.model.bms.switch != OWN_SWITCH),
        figures={k: figure_view(f, style) for k, f in banked.figures.items()},
        checks=[check_view(c, met, style) for c in banked.checks if c.verdict != OK],
        passed=sum(c.verdict == OK for c in banked.checks),
        stages=[view_of(PurchaseStepView, s, style) for s in banked.stages],
        findings=[] if banked.checks else [finding_view(f, style) for f in banked.findings],
    )


def _margin(check: Check, style: Style) -> FigureView | None:
    """What is left, or lacks, without a sign: the words beside it say which."""
    if check.margin is None:
        return None
    value = check.margin.number
    text = style.text(abs(value), check.margin.unit.removeprefix("±"))
    return FigureView(key=check.margin.key, text=text, value=value, was=None)


def met_of(results: Results, candidate: str) -> AbstractSet[str]:
    """Codes of the checks whose remedy is in the price of a candidate, so that they do not rule it out."""
    compared = next((c for c in results.compare.compared_banks if c.id == candidate), None)
    return frozenset() if compared is None else compared.met


def check_view(check: Check, met: AbstractSet[str], style: Style) -> CheckView:
    """One thing that was looked at; what is priced in to be put right is a caution, as in the verdict."""
    priced = check.verdict == BLOCKING and check.code in met
    return view_of(
        CheckView,
        check,
        style,
        verdict=CAUTION if priced else check.verdict,
        priced=priced,
        remedy=phrase("answers.banks_card_views.priced_in", remedy=check.remedy) if priced else check.remedy,
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
        candidates=[
            _candidate(c, i, met_of(results, c.candidate.id), style)
            for i, c in enumerate(results.banks.candidates)
        ],
        old_carries={k: figure_view(f, style) for k, f in results.banks.old_carries.items()},
        diagnosis=diagnosis_view(results, style),
        old=[figure_view(f, style) for f in (results.banks.old_wh, results.banks.old_kg) if f],
    )
