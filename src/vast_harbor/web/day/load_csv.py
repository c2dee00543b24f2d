"""Day: loads out as CSV, and a CSV file looked through before it is taken in."""

from typing import Any

from flask import Response, make_response, request
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.formats import load_csv
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.store import rigs
from vast_harbor.web.harbor.routes import RigPath, database, json_response
from vast_harbor.web.views import ProblemsView

api = APIBlueprint(
    "loads", __name__, url_prefix="/api", abp_tags=[Tag(name="day")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


class CsvRowView(BaseModel):
    """One line of a CSV file: a load to be added, or why it is none."""

    line: int
    name: str
    load: dict[str, Any] | None = Field(description="As in the rig file, without id")
    problems: list[str]


class CsvPreviewView(BaseModel):
    """A CSV file looked through; nothing is taken in yet."""

    rows: list[CsvRowView]


@api.get("/rigs/<int:rig_id>/loads.csv")
def export_loads(path: RigPath) -> Response:
    """The loads of a rig as CSV."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    rig = files.read(document, data.reference(), stored=document)
    response = make_response("\ufeff" + load_csv.write(rig.day.loads))
    response.mimetype = "text/csv"
    response.headers["Content-Disposition"] = 'attachment; filename="loads.csv"'
    return response


@api.post("/rigs/<int:rig_id>/loads/preview", responses={200: CsvPreviewView})
def preview_loads(path: RigPath) -> Response:
    """Look through a CSV file, sent as the body of the request."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    try:
        types = [t["id"] for t in document["day"]["types"]]
        rows = load_csv.read(request.get_data(), data.reference(), document["rig"]["units"], types)
    except CsvError as error:
        raise files.RigFileError([files.Problem("", str(error))]) from error
    return json_response(
        CsvPreviewView(
            rows=[CsvRowView(line=r.line, name=r.name, load=r.load, problems=list(r.problems)) for r in rows]
        )
    )
