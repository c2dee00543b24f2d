"""Packages as the interface is given them: the ladder, what money and nights buy, and what can be done."""

from dataclasses import asdict
from typing import Any

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import REFERENCE, Figure, unescaped
from vast_harbor.core.improvements import PLANNED, REFUSED, Improvement, planned_improvements
from vast_harbor.core.packages import packages_of, possible
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.quote_answers import quote_answers
from vast_harbor.core.stops.compare import LEVELS, Package, Packages, Verdict, package_text, verdict_text
from vast_harbor.phrases import phrase
from vast_harbor.telling.figures import figure_text, range_text
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import WORKED_OUT, Blueprint
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import (
    FigureView,
    OperationView,
    ProblemsView,
    TokenView,
    View,
    figure_view,
    operations_of,
    tokens,
)
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "packages",
    __name__,
    url_prefix="/api",
    abp_tags=[Tag(name="packages")],
    abp_responses={404: ProblemsView},
)


class ImprovementView(View):
    """One thing that can be done beside the bank, or that is planned."""

    key: str
    says: str
    price: str
    hours: str
    skill: str
    hidden: str
    worse: list[TokenView]
    asks: list[TokenView]
    source: str
    index: int
    take: list[OperationView]
    refuse: list[OperationView]


class BankPackageView(View):
    """A bank with what is done beside it."""

    key: str
    does: list[str]
    bank: str
    battery_class: str
    keeps: bool
    figures: dict[str, FigureView]
    outlay: float
    lifetime: float
    take: list[OperationView]


class LadderStepView(View):
    """A step of the ladder."""

    step: str
    name: str
    package: str


class LevelView(View):
    """The cheapest package that serves a share of the nights; empty where none does."""

    share: str
    package: str


class FamilyView(View):
    """The best package with a bank of a family; where there is none, its best bank and why it is out."""

    name: str
    package: str
    bank: str
    battery_class: str
    does: list[str]
    figures: dict[str, FigureView]
    why: list[TokenView]


class RefusedView(View):
    """What the owner said is not possible for them."""

    says: str
    allow: list[OperationView]


class ToFindOutView(View):
    """Something to find out before an improvement of the advised package is bought."""

    key: str
    says: str
    asks: list[TokenView]
    otherwise: list[TokenView]
    stop: str
    part: str
    refuse: list[OperationView]


class NearestView(View):
    """A bank that would do if a limit were another one, and how that is tried."""

    says: list[TokenView]
    stop: str
    try_it: list[OperationView]


class QuoteAnswerView(View):
    """What to think of a battery that the owner was quoted."""

    id: str
    title: str
    says: list[list[TokenView]]


class PackagesView(View):
    """What came of looking at packages."""

    strip: str = Field(description="What the strip says of the verdict, packages looked for")
    kept: str = Field(description="How long the rig is kept, which the costs over the years are counted for")
    headline: list[TokenView]
    advice: str
    card: list[list[TokenView]]
    packages: list[BankPackageView]
    ladder: list[LadderStepView]
    money: list[str]
    levels: list[LevelView]
    families: list[FamilyView]
    possible: list[ImprovementView]
    planned: list[ImprovementView]
    refused: list[RefusedView]
    find_out: list[ToFindOutView]
    nearest: list[NearestView]
    quotes: list[QuoteAnswerView]


@api.get("/rigs/<int:rig_id>/compare/packages", lane=WORKED_OUT, responses={200: PackagesView})
def packages(path: RigPath) -> Response:
    """A bank with what is done beside it: the ladder, and what more money or more nights buy."""
    rig, _, results = evaluated_results(path.rig_id)
    return json_response(_view(results, rig.style))


def _view(results: Results, style: Style) -> PackagesView:
    reference, plan = data.reference(), results.plan
    found = packages_of(results, reference)
    verdict = results.verdict
    advice = verdict_text.advised(verdict)
    planned = planned_improvements(plan, reference, results.assumptions)
    present = plan.as_it_is
    return PackagesView(
        strip=verdict_text.in_brief(verdict),
        kept=style.text(plan.years_kept, "years"),
        headline=tokens(verdict_text.headline(verdict), style),
        advice="" if advice is None else advice.key,
        card=[tokens(s, style) for s in verdict_text.card(verdict)],
        **(NOTHING_FOUND if found is None else _found(found, verdict, style)),
        possible=[_improvement(one, results, style) for one in possible(results, reference)],
        planned=[_improvement(one, results, style) for one in planned],
        refused=[
            RefusedView(
                says=package_text.label(row.kind, row.target, present),
                allow=operations_of([{"op": "remove", "path": f"/improvements/{i}"}]),
            )
            for i, row in enumerate(present.improvements)
            if row.state == REFUSED
        ],
        find_out=[_to_find_out(one, results, style) for one in package_text.to_find_out(verdict)],
        nearest=[
            NearestView(
                says=tokens(one.says, style),
                stop=one.stop,
                try_it=operations_of(
                    [{"op": "replace", "path": f"/rig/{c.field}", "value": c.value} for c in one.changes]
                ),
            )
            for one in verdict.answer.nearest
        ],
        quotes=[
            QuoteAnswerView(
                id=one.compared.id,
                title=unescaped(one.compared.title),
                says=[tokens(s, style) for s in one.says],
            )
            for one in quote_answers(results, reference)
        ],
    )


NOTHING_FOUND: dict[str, Any] = {"packages": [], "ladder": [], "money": [], "levels": [], "families": []}


def _found(found: Packages, verdict: Verdict, style: Style) -> dict[str, Any]:
    """The fields that tell of the packages."""
    return {
        "packages": [_package(p, style) for p in _shown(found)],
        "ladder": [
            LadderStepView(step=k, name=package_text.STEP_NAMES[k], package=p.key) for k, p in found.ladder
        ],
        "money": [p.key for p in found.front],
        "levels": [_level(found, share, style) for share in LEVELS],
        "families": [_family(one, style) for one in package_text.families(verdict)],
    }


def _shown(found: Packages) -> list[Package]:
    """Every package that is told of, each once."""
    told = [p for _, p in found.ladder] + list(found.front)
    told += [p for share in LEVELS if (p := found.serving(share)) is not None]
    told += [p for lead in (True, False) if (p := found.best_of(lead)) is not None]
    return list({p.key: p for p in told}.values())


def _package(package: Package, style: Style) -> BankPackageView:
    return BankPackageView(
        key=package.key,
        does=[one.says for one in package.improvements],
        bank=phrase("compare.packages.old_bank") if package.keeps else unescaped(package.compared.title),
        battery_class=package.class_key,
        keeps=package.keeps,
        figures={name: figure_view(f, style) for name, f in package.figures.items()},
        outlay=round(package.outlay, 2),
        lifetime=round(package.lifetime, 2),
        take=operations_of([_row(one) for one in package.added]),
    )


def _row(one: Improvement, state: str = PLANNED) -> dict[str, Any]:
    """The operation that puts an improvement into the plan, or says that it is not possible."""
    return {"op": "add", "path": "/improvements/-", "value": asdict(one.row(state))}


def _family(one: package_text.Family, style: Style) -> FamilyView:
    bank = one.compared
    return FamilyView(
        name=one.name,
        package="" if one.package is None else one.package.key,
        bank="" if bank is None else unescaped(bank.title),
        battery_class="" if bank is None else bank.banked.battery_class.key,
        does=[] if one.package is None else [i.says for i in one.package.improvements],
        figures={name: figure_view(f, style) for name, f in one.figures.items()},
        why=[] if one.why is None else tokens(one.why, style),
    )


def _level(found: Packages, share: float, style: Style) -> LevelView:
    package = found.serving(share)
    # A tenth of a per cent is what sets these shares apart.
    text = style.numbers.number(f"{100 * share:g} %")
    return LevelView(share=text, package="" if package is None else package.key)


# Where the answer to what an improvement asks is entered: stop and part.
ENTERED = {"panels": ("rig", "space"), "indoors": ("rig", "space"), "dc_dc": ("charging", "")}


def _to_find_out(one: package_text.ToFindOut, results: Results, style: Style) -> ToFindOutView:
    stop, part = ENTERED.get(one.improvement.kind.key, ("", ""))
    made = _improvement(one.improvement, results, style)
    return ToFindOutView(
        key=made.key,
        says=made.says,
        asks=made.asks,
        otherwise=tokens(one.otherwise, style) if one.otherwise is not None else [],
        stop=stop,
        part=part,
        refuse=made.refuse,
    )


def _improvement(one: Improvement, results: Results, style: Style) -> ImprovementView:
    rows = results.plan.as_it_is.improvements
    index = next((i for i, row in enumerate(rows) if row.id == one.id and one.id), -1)
    low, likely, high = one.prices(results.assumptions.value("price_factor"))
    price = Figure(
        f"improvement.{one.key}.price", one.says, likely, "money", REFERENCE, source=one.kind.source, low=low,
        high=high,
    )  # fmt: skip
    remove = [{"op": "remove", "path": f"/improvements/{index}"}] if index >= 0 else []
    return ImprovementView(
        key=one.key,
        says=one.says,
        price=range_text(price.low, price.high, "money", style) or figure_text(price, style),
        hours=style.text(one.hours, "duration") if one.hours else "",
        skill=one.kind.skill,
        hidden=one.hidden,
        worse=tokens(one.worse, style) if one.worse is not None else [],
        asks=tokens(one.asks, style) if one.asks is not None else [],
        source=one.kind.source,
        index=index,
        take=operations_of(remove or [_row(one)]),
        refuse=operations_of([*remove, _row(one, REFUSED)]),
    )
