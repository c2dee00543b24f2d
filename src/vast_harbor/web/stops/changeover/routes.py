"""Changeover: the drawing with its measuring points, the simulated meter, the list and the booklet."""

from collections.abc import Iterator
from typing import Literal

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.figures.units import US
from vast_harbor.core.installation.bank_circuit import Fault
from vast_harbor.core.installation.wiring import MOST_DRAWN
from vast_harbor.core.stops.changeover import Changeover, Line, simulated
from vast_harbor.formats import csv_table
from vast_harbor.formats.booklet.document import WORK_ORDER, booklet
from vast_harbor.formats.problem import Problem
from vast_harbor.formats.report.document import style_of_page
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.wiring_svg import draw
from vast_harbor.phrases import phrase
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import CSV, HTML, SVG, Blueprint
from vast_harbor.web.base.database import today
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.security import content_policy
from vast_harbor.web.base.views import ProblemsView
from vast_harbor.web.state.evaluated import evaluated_results
from vast_harbor.web.stops.changeover.models import ReadingView, TestMomentView
from vast_harbor.web.stops.changeover.views import changeover_view, fault_choices, reading_text

api = Blueprint(
    "changeover", __name__, url_prefix="/api", abp_tags=[Tag(name="changeover")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

NOT_CHOSEN = Problem("", phrase("answers.changeover_routes.not_chosen"))


class MeterQuery(BaseModel):
    """What is measured, and what is wrong with the bank."""

    key: str = Field(max_length=120, description="Key of a measurement")
    fault: str = Field(default="", max_length=40, description="Key of a fault; none if empty")


class MomentQuery(BaseModel):
    """A moment of the acceptance test, and what is wrong with the bank."""

    minutes: float = Field(ge=0, le=20_000, description="Since the test began")
    fault: str = Field(default="", max_length=40, description="Key of a fault; none if empty")


class PrintQuery(BaseModel):
    """What is printed, on which paper, and whether as a file."""

    what: Literal["booklet", "work_order"] = "booklet"
    paper: Literal["a4", "letter"] = "a4"
    save: bool = Field(default=False, description="As a file to keep")


def _with_fault(rig_id: int, fault: str) -> tuple[RigFile, Changeover, Fault | None] | Response:
    """The changeover of a rig and a fault by its key; a refusal where there is none."""
    rig, _, results = evaluated_results(rig_id)
    made = results.changeover
    if made is None:
        return problems(404, NOT_CHOSEN)
    if not fault:
        return rig, made, None
    known = fault_choices(made.work)
    if fault not in known:
        return problems(422, Problem("/fault", phrase("answers.changeover_routes.fault", fault=fault)))
    return rig, made, known[fault][1]


@api.get("/rigs/<int:rig_id>/changeover/meter", responses={200: ReadingView})
def meter(path: RigPath, query: MeterQuery) -> Response:
    """What a simulated meter shows for a measurement of the bank that is bought."""
    asked = _with_fault(path.rig_id, query.fault)
    if isinstance(asked, Response):
        return asked
    rig, made, fault = asked
    value = simulated(made.work, query.key, fault)
    if value is None:
        return problems(404, Problem("/key", phrase("answers.changeover_routes.measurement", key=query.key)))
    unit = next((m.unit for s in made.steps for m in s.measured if m.key == query.key), "V")
    return json_response(ReadingView(text=reading_text(value, unit, rig.style), value=value))


@api.get("/rigs/<int:rig_id>/changeover/monitor", responses={200: TestMomentView})
def monitor(path: RigPath, query: MomentQuery) -> Response:
    """What a simulated monitor shows during the acceptance test of the bank that is bought."""
    asked = _with_fault(path.rig_id, query.fault)
    if isinstance(asked, Response):
        return asked
    _, made, fault = asked
    test = made.acceptance
    volts, amps = test.simulated(query.minutes, fault)
    return json_response(
        TestMomentView(volts=round(volts, 2), amps=round(amps, 1), ended=volts <= test.stop_v + 1e-9)
    )


@api.get("/rigs/<int:rig_id>/changeover/drawing.svg", answers=SVG)
def drawing(path: RigPath) -> Response:
    """The wiring of the bank that is bought, with its measuring points."""
    rig, _, results = evaluated_results(path.rig_id)
    made = results.changeover
    if made is None or made.work.build.bank.units > MOST_DRAWN:
        return problems(404, NOT_CHOSEN)
    svg = drawn(made, rig.rig.units == US)
    return as_file(svg, "image/svg+xml", "", "", save=False)


def drawn(made: Changeover, us: bool) -> str:
    """The wiring drawing of a bank with its measuring points."""
    bank = made.work.build.bank
    title = f"{bank.model.title}, {layout(bank)}, {bank.nominal_v:g} V"
    return draw(made.work.wiring, title, us, made.work.points)


@api.get("/rigs/<int:rig_id>/changeover/shopping.csv", answers=CSV)
def shopping(path: RigPath) -> Response:
    """The shopping list as CSV."""
    rig, plan, results = evaluated_results(path.rig_id)
    made = results.changeover
    if made is None:
        return problems(404, NOT_CHOSEN)
    heading = phrase("answers.changeover_routes.columns", currency=rig.style.currency).split(",")

    def cells(line: Line) -> Iterator[csv_table.Cell]:
        noted = line.purchase
        yield from (line.count or 1, line.name, line.size, line.reason, line.tag)
        for price in (None if line.estimate is None else line.estimate.value, noted.quote, noted.paid):
            yield None if price is None else round(price, 2)
        yield from (noted.on, noted.seller, noted.serial)

    text = csv_table.write(heading, map(cells, made.shopping.lines))
    return as_file(text, CSV, plan.name, "shopping.csv")


@api.get("/rigs/<int:rig_id>/changeover/print", answers=HTML)
def printed(path: RigPath, query: PrintQuery) -> Response:
    """The booklet for own hands, or the work order for a workshop, as one HTML document."""
    rig, plan, results = evaluated_results(path.rig_id)
    made = results.changeover
    if made is None:
        return problems(404, NOT_CHOSEN)
    style = rig.style
    svg = drawn(made, rig.rig.units == US) if made.work.build.bank.units <= MOST_DRAWN else ""
    view = changeover_view(results, style).model_dump()
    html = booklet(view, plan.name, rig.style.date(today()), svg, query.what, query.paper)
    ending = "work-order.html" if query.what == WORK_ORDER else "changeover.html"
    response = as_file(html, "text/html", plan.name, ending, query.save)
    response.headers["Content-Security-Policy"] = content_policy(style_of_page(html))
    return response
