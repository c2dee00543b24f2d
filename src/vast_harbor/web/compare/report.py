"""The report to print or to keep, and the tables of the comparison as CSV."""

import re
from typing import Literal

from flask import Response, current_app, make_response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.formats.report.document import report, style_of_page
from vast_harbor.formats.report.tables import cash_flow_csv, comparison_csv
from vast_harbor.web.blueprint import Blueprint
from vast_harbor.web.harbor.routes import RigPath
from vast_harbor.web.plan.routes import evaluated_results
from vast_harbor.web.plan.views import style_of
from vast_harbor.web.security import content_policy
from vast_harbor.web.views import ProblemsView

api = Blueprint(
    "report", __name__, url_prefix="/api", abp_tags=[Tag(name="report")], abp_responses={404: ProblemsView}
)


class ReportQuery(BaseModel):
    """On which paper, and whether as a file."""

    paper: Literal["a4", "letter"] = "a4"
    save: bool = Field(default=False, description="As a file to keep")


def as_file(text: str, kind: str, name: str, ending: str, save: bool = True) -> Response:
    response = make_response(text)
    response.headers["Content-Type"] = f"{kind}; charset=utf-8"
    if save:
        plain = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or "rig"
        response.headers["Content-Disposition"] = f'attachment; filename="{plain}-{ending}"'
    return response


@api.get("/rigs/<int:rig_id>/report")
def get_report(path: RigPath, query: ReportQuery) -> Response:
    """The report as one HTML document; the browser prints it or saves it as PDF."""
    rig, plan, results = evaluated_results(path.rig_id)
    today: str = current_app.config["TODAY"]()
    html = report(results, data.reference(), style_of(rig), today, query.paper)
    response = as_file(html, "text/html", plan.name, "report.html", query.save)
    response.headers["Content-Security-Policy"] = content_policy(style_of_page(html))
    return response


@api.get("/rigs/<int:rig_id>/report/comparison.csv")
def get_comparison(path: RigPath) -> Response:
    """The comparison as CSV."""
    rig, plan, results = evaluated_results(path.rig_id)
    return as_file(comparison_csv(results, style_of(rig)), "text/csv", plan.name, "comparison.csv")


@api.get("/rigs/<int:rig_id>/report/cash-flow.csv")
def get_cash_flow(path: RigPath) -> Response:
    """The yearly cash flow of every bank as CSV."""
    rig, plan, results = evaluated_results(path.rig_id)
    return as_file(cash_flow_csv(results, style_of(rig)), "text/csv", plan.name, "cash-flow.csv")
