"""Day: loads out as CSV, and a CSV file looked through before it is taken in."""

from typing import Any

from flask import Response, request
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.formats import load_csv
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.phrases import phrase
from vast_harbor.store import rigs
from vast_harbor.telling.times import usual_time
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import CSV, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, view_of

api = Blueprint(
    "loads", __name__, url_prefix="/api", abp_tags=[Tag(name="day")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


class CsvRowView(BaseModel):
    """One line of a CSV file: a load to be added, or why it is none."""

    line: int
    name: str
    says: str = Field(description="What was read, in words; empty where it is none")
    load: dict[str, Any] | None = Field(description="As in the rig file, without id")
    problems: list[str]


class CsvColumnView(BaseModel):
    """A column of the file, and as what it is read."""

    heading: str
    read_as: str = Field(description="Empty where it is left out")


class CsvPreviewView(BaseModel):
    """A CSV file looked through; nothing is taken in yet."""

    columns: list[CsvColumnView]
    rows: list[CsvRowView]


NAMES = {
    "name": phrase("answers.load_csv.name"),
    "draw": phrase("answers.load_csv.draw"),
    "supply": phrase("answers.load_csv.supply"),
    "quantity": phrase("answers.load_csv.quantity"),
    "hours": phrase("answers.load_csv.hours"),
    "uses": phrase("answers.load_csv.uses"),
    "minutes": phrase("answers.load_csv.minutes"),
    "duty": phrase("answers.load_csv.duty"),
    "starts_at": phrase("answers.load_csv.starts_at"),
}


def _says(load: dict[str, Any] | None) -> str:
    """A load that was read, in words."""
    if load is None:
        return ""
    draw = f"{load['draw']['value']:g} {load['draw']['unit']} {load['supply'].upper()}"
    count = "" if load["quantity"] == 1 else f"{load['quantity']:g} × "
    duty = "" if load["duty"] == 1 else f" · {load['duty']:.0%}"
    return f"{count}{draw} · {usual_time(load)}{duty}"


@api.get("/loads-sample.csv", answers=CSV)
def sample_loads() -> Response:
    """A small file of loads to fill in."""
    return as_file(load_csv.sample(), CSV, "", "loads-sample.csv")


@api.get("/rigs/<int:rig_id>/loads.csv", answers=CSV)
def export_loads(path: RigPath) -> Response:
    """The loads of a rig as CSV."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    rig = files.read(document, data.reference(), stored=document)
    return as_file(load_csv.write(rig.day.loads), CSV, rig.rig.name, "loads.csv")


@api.post("/rigs/<int:rig_id>/loads/preview", takes=CSV, responses={200: CsvPreviewView})
def preview_loads(path: RigPath) -> Response:
    """Look through a CSV file, sent as the body of the request."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    try:
        types = [t["id"] for t in document["day"]["types"]]
        columns = load_csv.headings(request.get_data())
        rows = load_csv.read(request.get_data(), data.reference(), document["rig"]["units"], types)
    except CsvError as error:
        raise files.RigFileError([files.Problem("", str(error))]) from error
    return json_response(
        CsvPreviewView(
            columns=[CsvColumnView(heading=h, read_as=NAMES.get(key, key)) for h, key in columns],
            rows=[view_of(CsvRowView, r, says=_says(r.load)) for r in rows],
        )
    )
