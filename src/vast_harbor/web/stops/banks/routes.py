"""Banks: banks found, why not this one, the locker, the wiring, volts and rates, and a meter that is read."""

from typing import Annotated, Any

from flask import Response, make_response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.battery import soc_from_voltage
from vast_harbor.core.battery.terminal_voltage import Terminal, unit_resistance
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Unreadable, parse
from vast_harbor.core.figures.units import US
from vast_harbor.core.installation.wiring import MOST_DRAWN
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.stops.banks import (
    BankFigures,
    acts,
    build_of,
    discharging,
    find,
    rates_of,
    run_checks,
    why_unfit,
    wiring_of,
)
from vast_harbor.core.stops.charging import as_built
from vast_harbor.core.stops.rig import old_health
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.fields import Choice
from vast_harbor.formats.wiring_svg import cable_text, draw, saved
from vast_harbor.phrases import phrase
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import SVG, WORKED_OUT, Blueprint
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import PREVIEW_ID, ProblemsView, view_of
from vast_harbor.web.state.evaluated import evaluated_rig
from vast_harbor.web.stops.banks.card_views import check_view, met_of
from vast_harbor.web.stops.banks.models import (
    ActsView,
    CatalogueView,
    ChecksView,
    FindView,
    LockerView,
    MeterView,
    RatesView,
    WhyView,
    WiringPartView,
    WiringView,
)
from vast_harbor.web.stops.banks.views import (
    acts_view,
    catalogue_view,
    find_view,
    locker_view,
    rates_view,
    why_view,
    within_view,
)

api = Blueprint(
    "banks", __name__, url_prefix="/api", abp_tags=[Tag(name="banks")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

OLD = "old"


class OfCandidate(BaseModel):
    """Which candidate."""

    candidate: str = Field(max_length=60, description="Id of a candidate")


class FindQuery(BaseModel):
    """A ceiling instead of the need; none where both are empty."""

    money: str = Field(default="", max_length=40, description="The most to spend, as typed")
    kg: str = Field(default="", max_length=40, description="The most that it may weigh, as typed")
    space: bool = Field(default=True, description="Whether it must fit the locker")


class OfModel(BaseModel):
    """Which model."""

    model: str = Field(max_length=60)


class RatesQuery(BaseModel):
    """At which current."""

    amps: str = Field(default="", max_length=40, description="As typed; empty for the hardest lasting load")


class MeterText(BaseModel):
    """What is read on a voltmeter, as typed."""

    bank: str = Field(max_length=60, description="Id of a candidate, or “old”")
    volts: str = Field(max_length=40)
    amps: str = Field(default="", max_length=40)
    state: Annotated[str, Choice(phrase("answers.banks_routes.state"), *soc_from_voltage.STATES)] = (
        soc_from_voltage.RESTED
    )


def _typed(text: str, unit: str, field: str, style: Style, found: list[files.Problem]) -> float | None:
    """A typed quantity; None where nothing is typed, and a problem where it cannot be read."""
    if not text.strip():
        return None
    try:
        value = parse(text, unit, style.system, written=style.numbers, currency=style.currency)
    except Unreadable as error:
        found.append(files.Problem(f"/{field}", str(error)))
        return None
    if value < 0:
        found.append(
            files.Problem(
                f"/{field}", phrase("answers.banks_routes.value_cannot_negative", value=f"{value:g}")
            )
        )
        return None
    return value


def _candidate(banks: tuple[BankFigures, ...], key: str) -> BankFigures | None:
    return next((c for c in banks if c.candidate.id == key and c.build is not None), None)


NOT_BUILT = files.Problem("", phrase("answers.banks_routes.bank_cannot_built_card"))


@api.get("/rigs/<int:rig_id>/catalogue", responses={200: CatalogueView})
def catalogue(path: RigPath) -> Response:
    """Every model by class, each in the fewest strings that cover the need."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    return json_response(catalogue_view(results, rig.style))


@api.get("/rigs/<int:rig_id>/checks", responses={200: ChecksView})
def list_checks(path: RigPath, query: OfCandidate) -> Response:
    """Everything that was looked at of a candidate, what passes too."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    banked = _candidate(results.banks.candidates, query.candidate)
    if banked is None:
        return problems(404, NOT_BUILT)
    style = rig.style
    return json_response(
        ChecksView(checks=[check_view(c, met_of(results, query.candidate), style) for c in banked.checks])
    )


@api.get("/rigs/<int:rig_id>/find", lane=WORKED_OUT, responses={200: FindView})
def find_banks(path: RigPath, query: FindQuery) -> Response:
    """Go through the whole catalogue in every layout; within a ceiling instead of the need if one is "
    "given."""
    rig, plan, results, look = evaluated_rig(path.rig_id)
    style = rig.style
    wrong: list[files.Problem] = []
    money = _typed(query.money, "money", "money", style, wrong)
    kg = _typed(query.kg, "kg", "kg", style, wrong)
    if wrong:
        raise files.RigFileError(wrong)
    found = find.as_compared(
        find.search(look, plan.models, results.banks.proposals.search.extras_cost),
        {
            c.banked.bank: (c.life.years, c.cost["lifetime"].number)
            for c in results.verdict.compared_banks
            if c.banked.bank is not None
        },
    )
    view = find_view(found, look, plan, results, style)
    if money is not None or kg is not None:
        best = find.within(look, plan.models, find.Ceiling(money, kg, query.space))
        view.within = [within_view(w, style) for w in best]
        view.ceiling = True
    return json_response(view)


@api.get("/rigs/<int:rig_id>/why", lane=WORKED_OUT, responses={200: WhyView})
def why_not(path: RigPath, query: OfModel) -> Response:
    """Everything that is checked of a model, in the fewest strings that cover the need."""
    rig, plan, results, look = evaluated_rig(path.rig_id)
    model = plan.models.get(query.model)
    if model is None:
        return problems(404, files.Problem("", phrase("answers.banks_routes.battery_longer_exists")))
    banks = find.layouts(model, plan.system_v)
    if not banks:
        return json_response(
            WhyView(
                model=model.id, title=model.title, layout="", unfit=why_unfit(model, plan.system_v), checks=[]
            )
        )
    need = results.need.energy.number
    bank = next((b for b in banks if look.rig_limits.usable_wh(b) >= need * (1 - 1e-6)), banks[-1])
    given = Candidate(
        f"{PREVIEW_ID}{model.id}", model.battery_class.key, model.id, bank.series, bank.parallel
    )
    build = build_of(look.rig_limits, given, bank, len(plan.candidates), results.banks.old_kg)
    return json_response(why_view(model, layout(bank), run_checks(build), rig.style))


@api.get("/rigs/<int:rig_id>/locker", responses={200: LockerView})
def locker(path: RigPath, query: OfCandidate) -> Response:
    """The locker to scale with the boxes of a candidate in it."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    banked = _candidate(results.banks.candidates, query.candidate)
    if banked is None or banked.build is None:
        return problems(404, NOT_BUILT)
    return json_response(locker_view(banked.build, banked.checks, rig.style))


@api.get("/rigs/<int:rig_id>/wiring", responses={200: WiringView})
def wiring(path: RigPath, query: OfCandidate) -> Response:
    """The wiring of a candidate as a drawing, with its list of parts."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    banked = _candidate(results.banks.candidates, query.candidate)
    if banked is None or banked.build is None:
        return problems(404, NOT_BUILT)
    us, wired = rig.rig.units == US, wiring_of(as_built(banked.build))
    drawn = banked.build.bank.units <= MOST_DRAWN
    parts = [
        view_of(WiringPartView, p, size="" if p.mm2 is None else cable_text(p.mm2, us)) for p in wired.parts
    ]
    says = (
        ""
        if drawn
        else phrase(
            "answers.banks_routes.drawing_shows_up_batteries",
            most_drawn=MOST_DRAWN,
            units=banked.build.bank.units,
        )
    )
    svg = draw(wired, _title(banked), us) if drawn else ""
    return json_response(
        WiringView(svg=svg, says=says, parts=parts, source=banked.build.reference.cables.source)
    )


def _title(banked: BankFigures) -> str:
    assert banked.bank is not None
    return f"{banked.bank.model.title}, {layout(banked.bank)}, {banked.bank.nominal_v:g} V"


@api.get("/rigs/<int:rig_id>/wiring.svg", answers=SVG)
def export_wiring(path: RigPath, query: OfCandidate) -> Response:
    """The wiring drawing as a file."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    banked = _candidate(results.banks.candidates, query.candidate)
    if banked is None or banked.build is None or banked.build.bank.units > MOST_DRAWN:
        return problems(404, NOT_BUILT)
    title = _title(banked)
    response = make_response(
        saved(draw(wiring_of(as_built(banked.build)), title, rig.rig.units == US), title)
    )
    response.mimetype = "image/svg+xml"
    response.headers["Content-Disposition"] = f'attachment; filename="wiring-{banked.candidate.id}.svg"'
    return response


@api.get("/rigs/<int:rig_id>/rates", responses={200: RatesView})
def rates(path: RigPath, query: RatesQuery) -> Response:
    """What the candidates deliver at a steady current, and what ends it."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    style = rig.style
    wrong: list[files.Problem] = []
    amps = _typed(query.amps, "A", "amps", style, wrong)
    if amps is not None and not 0.1 <= amps <= 5000:
        wrong.append(
            files.Problem("/amps", phrase("answers.banks_routes.current_0_1_5000", amps=f"{amps:g}"))
        )
    if wrong:
        raise files.RigFileError(wrong)
    builds = tuple(c.build for c in results.banks.candidates if c.build is not None)
    return json_response(rates_view(rates_of(builds, amps), results, style))


@api.get("/rigs/<int:rig_id>/volts", responses={200: ActsView})
def volts(path: RigPath) -> Response:
    """Volts to act on, for every candidate."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    builds = [c.build for c in results.banks.candidates if c.build is not None]
    return json_response(acts_view([(b, acts(b)) for b in builds], results, rig.style))


@api.post("/rigs/<int:rig_id>/meter", responses={200: MeterView})
def read_meter(path: RigPath, body: MeterText) -> Response:
    """What a number of volts may mean."""
    rig, _, results, _ = evaluated_rig(path.rig_id)
    style = rig.style
    wrong: list[files.Problem] = []
    seen = _typed(body.volts, "V", "volts", style, wrong)
    amps = _typed(body.amps, "A", "amps", style, wrong)
    bank = _metered(results, body.bank)
    if seen is None and not wrong:
        wrong.append(files.Problem("/volts", phrase("answers.banks_routes.enter_voltage_meter_example")))
    if body.state == soc_from_voltage.LOADED and amps is None and not any(p.path == "/amps" for p in wrong):
        wrong.append(files.Problem("/amps", phrase("answers.banks_routes.enter_current_time_reading")))
    if bank is None:
        wrong.append(files.Problem("/bank", phrase("answers.banks_routes.bank_longer_exists")))
    elif seen is not None and not soc_from_voltage.is_possible(bank, seen):
        wrong.append(
            files.Problem(
                "/volts",
                phrase(
                    "answers.banks_routes.v_possible_v_bank", seen=f"{seen:g}", class_v=f"{bank.class_v:g}"
                ),
            )
        )
    if wrong or seen is None or bank is None:
        raise files.RigFileError(wrong)
    said = soc_from_voltage.read(bank, seen, body.state, amps or 0.0)
    spans = ""
    if said.low is not None and said.high is not None:
        low, high = (f"{100 * v:.0f}" for v in (said.low, said.high))
        spans = (
            phrase("answers.banks_routes.charged", low=low, high=high)
            if low != high
            else phrase("answers.banks_routes.low_charged", low=low)
        )
    return json_response(
        MeterView(low=said.low, high=said.high, text=spans, wide=said.wide, why=list(said.why))
    )


def _metered(results: Any, key: str) -> Terminal | None:
    plan = results.plan
    if key == OLD:
        old = plan.old_bank
        if old is None:
            return None
        battery_class = old.battery_class
        class_v = old.unit_v / battery_class.nominal_v(12) * 12
        ohm = unit_resistance(battery_class, class_v, old.unit_ah) * old.series / old.parallel
        health = old_health(results.banks.diagnosis)
        return Terminal(battery_class, class_v * old.series, ohm, 0.0, results.day.battery_c.number, health)
    banked = _candidate(results.banks.candidates, key)
    return None if banked is None or banked.build is None else discharging(banked.build).terminal
