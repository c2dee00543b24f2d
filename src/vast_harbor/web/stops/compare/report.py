"""The report to print or to keep, and the tables of the comparison as CSV."""

from typing import Literal

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.formats.report.document import report, style_of_page
from vast_harbor.formats.report.tables import cash_flow_csv, comparison_csv
from vast_harbor.web.base.answers import as_file
from vast_harbor.web.base.blueprint import CSV, HTML, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import today
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.security import content_policy
from vast_harbor.web.base.views import ProblemsView
from vast_harbor.web.state.evaluated import whole_results

api = Blueprint(
    "report", __name__, url_prefix="/api", abp_tags=[Tag(name="report")], abp_responses={404: ProblemsView}
)


class ReportQuery(BaseModel):
    """On which paper, and whether as a file."""

    paper: Literal["a4", "letter"] = "a4"
    save: bool = Field(default=False, description="As a file to keep")
    annex: bool = Field(default=False, description="With all that the answer rests on")


@api.get("/rigs/<int:rig_id>/report", lane=WORKED_OUT, answers=HTML)
def get_report(path: RigPath, query: ReportQuery) -> Response:
    """The report as one HTML document; the browser prints it or saves it as PDF."""
    rig, plan, results = whole_results(path.rig_id)
    html = report(results, data.reference(), rig.style, rig.style.date(today()), query.paper, query.annex)
    response = as_file(html, "text/html", plan.name, "report.html", query.save)
    response.headers["Content-Security-Policy"] = content_policy(style_of_page(html))
    return response


@api.get("/rigs/<int:rig_id>/report/comparison.csv", lane=WORKED_OUT, answers=CSV)
def get_comparison(path: RigPath) -> Response:
    """The comparison as CSV."""
    rig, plan, results = whole_results(path.rig_id)
    return as_file(comparison_csv(results, rig.style), CSV, plan.name, "comparison.csv")


@api.get("/rigs/<int:rig_id>/report/cash-flow.csv", lane=WORKED_OUT, answers=CSV)
def get_cash_flow(path: RigPath) -> Response:
    """The yearly cash flow of every bank as CSV."""
    rig, plan, results = whole_results(path.rig_id)
    return as_file(cash_flow_csv(results, rig.style), CSV, plan.name, "cash-flow.csv")
