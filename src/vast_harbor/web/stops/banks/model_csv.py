"""Banks: batteries out as CSV, and a CSV file looked through before it is taken in."""

from typing import Any

from flask import Response, request
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.formats import model_csv
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.store import rigs
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import CSV, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, view_of

api = Blueprint(
    "models", __name__, url_prefix="/api", abp_tags=[Tag(name="banks")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


class ModelRowView(BaseModel):
    """One line of a CSV file: a battery to be added, or why it is none."""

    line: int
    name: str
    says: str = Field(description="What was read, in words; empty where it is none")
    model: dict[str, Any] | None = Field(description="As in the rig file, without id")
    problems: list[str]


class ModelPreviewView(BaseModel):
    """A CSV file looked through; nothing is taken in yet."""

    rows: list[ModelRowView]


def _says(model: dict[str, Any] | None) -> str:
    """A battery that was read, in words."""
    if model is None:
        return ""
    short = data.reference().classes[model["battery_class"]].short
    return f"{short} · {model['unit_v']:g} V · {model['rated_ah']:g} Ah · {model['kg']:g} kg"


@api.get("/catalogue.csv", answers=CSV)
def export_catalogue() -> Response:
    """The shipped catalogue as CSV, to be changed and taken in again."""
    return as_file(model_csv.catalogue_csv(data.catalogue_rows()), CSV, "", "catalogue.csv")


@api.get("/rigs/<int:rig_id>/models.csv", answers=CSV)
def export_models(path: RigPath) -> Response:
    """The owner's own batteries as CSV."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    rig = files.read(document, data.reference(), stored=document)
    return as_file(model_csv.write(rig.own_models), CSV, rig.rig.name, "batteries.csv")


@api.post("/rigs/<int:rig_id>/models/preview", takes=CSV, responses={200: ModelPreviewView})
def preview_models(path: RigPath) -> Response:
    """Look through a CSV file, sent as the body of the request."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    taken = [f"{m['maker']} {m['name']}".strip() for m in document["own_models"]]
    try:
        rows = model_csv.read(request.get_data(), data.reference(), document["rig"]["units"], taken)
    except CsvError as error:
        raise files.RigFileError([files.Problem("", str(error))]) from error
    return json_response(ModelPreviewView(rows=[view_of(ModelRowView, r, says=_says(r.model)) for r in rows]))
