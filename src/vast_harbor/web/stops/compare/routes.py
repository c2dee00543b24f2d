"""The verdict as it is asked for apart from the plan: doubt, turns, rules, options, loads, equal terms."""

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.beliefs import Belief, beliefs
from vast_harbor.core.cost.monte_carlo import COUNT, sample_costs
from vast_harbor.core.figures.display import SIGNED, Style
from vast_harbor.core.figures.workings import Figure, unescaped
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.break_even import BreakEven, break_evens
from vast_harbor.core.sensitivity.equal_terms import equal_terms
from vast_harbor.core.sensitivity.load_costs import load_costs
from vast_harbor.core.sensitivity.open_topics import open_topics
from vast_harbor.core.sensitivity.purchase_sizes import purchase_sizes
from vast_harbor.core.sensitivity.purchase_timing import purchase_options
from vast_harbor.core.sensitivity.tornado import tornado
from vast_harbor.core.sensitivity.use_map import cheapest_map
from vast_harbor.core.sensitivity.verdict_changes import rule_verdicts, verdict_changes, years_changes
from vast_harbor.core.stops.compare import uncertainty_of
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import WORKED_OUT, Blueprint
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, tokens, view_of
from vast_harbor.web.state.evaluated import evaluated_results
from vast_harbor.web.stops.compare.models import (
    BandView,
    BeliefsView,
    BeliefView,
    BreakEvenView,
    DifferencesView,
    DoubtView,
    EqualTermsListView,
    EqualTermsView,
    LoadCostsView,
    LoadCostView,
    OpenTopicsView,
    OpenTopicView,
    OptionView,
    PurchaseSizesView,
    PurchaseSizeView,
    RuleVerdictsView,
    RuleVerdictView,
    SwingView,
    TornadoView,
    UseMapView,
    VerdictChangesView,
    VerdictChangeView,
    WhenView,
)

api = Blueprint(
    "verdict", __name__, url_prefix="/api", abp_tags=[Tag(name="verdict")], abp_responses={404: ProblemsView}
)


@api.get("/rigs/<int:rig_id>/compare/doubt", lane=WORKED_OUT, responses={200: DoubtView})
def doubt(path: RigPath) -> Response:
    """Bands of cost over the years, where costs meet, what moves the saving, and the map of use."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    return json_response(
        DoubtView(
            draws=COUNT,
            bands=bands(results),
            break_evens=[_flip(f, style) for f in break_evens(results)],
            tornado=_tornado(results, style),
            map=_map(results),
        )
    )


def bands(results: Results) -> list[BandView]:
    """P10 and P90 of what is spent by the end of each year, one for each candidate."""
    h = results.plan.years_kept
    at = np.unique(np.append(np.arange(0.0, h), h))
    life_cost_inputs = results.verdict.life_cost_inputs
    spent = sample_costs(life_cost_inputs, uncertainty_of(results.assumptions), h, at=at).spent
    out = []
    columns = {c.id for c in results.compare.compared_banks}
    for p, lines in zip(life_cost_inputs, spent, strict=True):
        if p.id not in columns:
            continue
        low, high = np.percentile(lines, (10, 90), axis=1)
        out.append(
            BandView(id=p.id, years=at.tolist(), p10=np.round(low, 2).tolist(),
                        p90=np.round(high, 2).tolist())
        )  # fmt: skip
    return out


def _flip(flip: BreakEven, style: Style) -> BreakEvenView:
    return view_of(BreakEvenView, flip, style, name=unescaped(flip.name))


def _tornado(results: Results, style: Style) -> TornadoView | None:
    found = tornado(results)
    if found is None:
        return None

    swings = [view_of(SwingView, s, style, name=unescaped(s.name)) for s in found.swings]
    return view_of(TornadoView, found, style, swings=swings)


def _map(results: Results) -> UseMapView | None:
    found = cheapest_map(results, data.reference())
    if found is None:
        return None
    return UseMapView(
        nights=found.nights.tolist(),
        years=np.round(found.years, 2).tolist(),
        ids=list(found.ids),
        cheapest=found.cheapest.tolist(),
        gap=np.round(found.gap, 3).tolist(),
        here=[results.plan.off_grid_nights, results.plan.years_kept],
        supposed=found.supposed,
    )


@api.get("/rigs/<int:rig_id>/compare/turns", lane=WORKED_OUT, responses={200: VerdictChangesView})
def list_turns(path: RigPath) -> Response:
    """At which nights a year the verdict itself changes."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    return json_response(
        VerdictChangesView(
            verdict_changes=[view_of(VerdictChangeView, c, style) for c in verdict_changes(results)],
            years_changes=[view_of(VerdictChangeView, c, style) for c in years_changes(results)],
            nights=results.plan.off_grid_nights,
            years=results.plan.years_kept,
            buys="" if results.verdict.winner is None else results.verdict.winner.banked.battery_class.key,
        )
    )


@api.get("/rigs/<int:rig_id>/compare/open", lane=WORKED_OUT, responses={200: OpenTopicsView})
def list_open_topics(path: RigPath) -> Response:
    """What is not stated, and how far each of it could move the answer."""
    rig, _, results = evaluated_results(path.rig_id)
    style, found = rig.style, open_topics(results, data.reference())
    topics = [
        OpenTopicView(
            key=o.topic.key,
            swing="" if o.swing is None else style.text(o.swing, "money"),
            turns=[] if o.turns is None else tokens(o.turns, style),
        )
        for o in found.topics
    ]
    asks = found.asks.key if found.asks is not None else ""
    return json_response(OpenTopicsView(provisional=found.provisional, asks=asks, topics=topics))


@api.get("/rigs/<int:rig_id>/compare/house-rules", lane=WORKED_OUT, responses={200: RuleVerdictsView})
def list_rule_verdicts(path: RigPath) -> Response:
    """The verdict under each house rule."""
    rig, plan, results = evaluated_results(path.rig_id)
    style = rig.style
    found = [
        view_of(RuleVerdictView, s, style, here=s.key == plan.house_rule)
        for s in rule_verdicts(results, data.reference())
    ]
    return json_response(RuleVerdictsView(verdicts=found))


@api.get("/rigs/<int:rig_id>/compare/when", lane=WORKED_OUT, responses={200: WhenView})
def when(path: RigPath) -> Response:
    """When to buy, and how much at once."""
    rig, _, results = evaluated_results(path.rig_id)
    style, reference = rig.style, data.reference()
    options = [view_of(OptionView, o, style) for o in purchase_options(results, reference)]
    candidates = [
        PurchaseSizesView(id=id_, purchase_sizes=[view_of(PurchaseSizeView, p, style) for p in some])
        for id_, some in purchase_sizes(results, reference).items()
    ]
    return json_response(WhenView(purchase_options=options, candidates=candidates))


@api.get("/rigs/<int:rig_id>/compare/loads", lane=WORKED_OUT, responses={200: LoadCostsView})
def loads(path: RigPath) -> Response:
    """What battery each load causes."""
    rig, _, results = evaluated_results(path.rig_id)
    style, verdict = rig.style, results.verdict
    compared = verdict.winner or (verdict.compared_banks[0] if verdict.compared_banks else None)
    return json_response(
        LoadCostsView(
            bank="" if compared is None else unescaped(compared.title),
            loads=[view_of(LoadCostView, c, style) for c in load_costs(results, data.reference())],
        )
    )


def _shares(belief: Belief) -> list[float]:
    """Lengths of the bars of a belief's picture."""
    values = [f.value or 0.0 for f in belief.compared]
    most = max(values, default=0.0)
    units = {f.unit for f in belief.compared}
    # Volts and degrees have no nothing that a bar could begin at; a share is one of the whole.
    if len(units) != 1 or units & {"V", "°C"} or min(values, default=0.0) < 0 or not most:
        return []
    if units == {"%"}:
        most = max(1.0, most)
    return [round(value / most, 4) for value in values]


@api.get("/rigs/<int:rig_id>/compare/beliefs", lane=WORKED_OUT, responses={200: BeliefsView})
def common_beliefs(path: RigPath) -> Response:
    """Which common beliefs hold on this rig."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    views = [
        view_of(BeliefView, b, style, names=[f.name for f in b.compared], shares=_shares(b))
        for b in beliefs(results, data.reference())
    ]
    return json_response(BeliefsView(beliefs=views))


@api.get("/rigs/<int:rig_id>/compare/terms", lane=WORKED_OUT, responses={200: EqualTermsListView})
def get_equal_terms(path: RigPath) -> Response:
    """The candidates made equal on paper."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    found = [view_of(EqualTermsView, t, style) for t in equal_terms(results)]
    return json_response(EqualTermsListView(equal_terms=found))


class ReferenceQuery(BaseModel):
    """Against which candidate."""

    reference: str = Field(max_length=60, description="Id of a candidate")


@api.get("/rigs/<int:rig_id>/compare/differences", lane=WORKED_OUT, responses={200: DifferencesView})
def differences(path: RigPath, query: ReferenceQuery) -> Response:
    """The comparison as differences to one candidate."""
    rig, _, results = evaluated_results(path.rig_id)
    style, compared_banks = rig.style, results.compare.compared_banks
    at = next((i for i, c in enumerate(compared_banks) if c.id == query.reference), None)
    if at is None:
        return problems(404, Problem("/reference", phrase("answers.compare_routes.bank_longer_comparison")))

    def difference_text(figures: tuple[Figure, ...], i: int) -> str:
        a, b = figures[at], figures[i]
        if i == at or a.value is None or b.value is None or a.unit == "moment":
            return ""
        return style.text(b.value - a.value, f"{SIGNED}{a.unit.replace('°C', 'K')}")

    rows = {
        r.key: [difference_text(r.figures, i) for i in range(len(compared_banks))]
        for r in results.compare.rows
    }
    return json_response(DifferencesView(rows=rows))
