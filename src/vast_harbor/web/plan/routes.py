"""A rig: read, edited by JSON Patch, undone and redone, deleted; and the workings of its figures."""

import secrets
import sqlite3
from collections.abc import Callable
from typing import Any, Literal

from flask import Response
from flask_openapi3.models.tag import Tag
from jsonpatch import JsonPatchTestFailed
from pydantic import BaseModel, ConfigDict, Field

from vast_harbor import data
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.passage import Results
from vast_harbor.core.sensitivity.figure_lookup import asked_figure
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.door import admitted, clean
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.rig_file_kept import keep_ranges, with_stated, without_typical
from vast_harbor.phrases import phrase
from vast_harbor.store import journal, rigs
from vast_harbor.store.json_difference import difference
from vast_harbor.store.rigs import StoredRig
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database, today
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import (
    PREVIEW_ID,
    MadeView,
    ProblemsView,
    WorkingsView,
    operations_of,
    view_of,
    workings_view,
)
from vast_harbor.web.plan.field_help import FieldHelpView, field_help
from vast_harbor.web.plan.models import RigAnswer
from vast_harbor.web.plan.views import rig_view
from vast_harbor.web.state.evaluated import edited, of_document, settled

api = Blueprint(
    "plan",
    __name__,
    url_prefix="/api",
    abp_tags=[Tag(name="plan")],
    abp_responses={404: ProblemsView, 409: ProblemsView, 422: ProblemsView},
)


class Operation(BaseModel):
    """One operation of a JSON Patch (RFC 6902). A text value is read as typed by the owner."""

    model_config = ConfigDict(extra="forbid")

    op: Literal["add", "remove", "replace", "move", "test"]
    path: str = Field(max_length=300)
    value: Any = None
    source: str | None = Field(default=None, description="Where from, for a move")


class Edit(BaseModel):
    """An edit of a rig."""

    revision: int = Field(description="Revision that the edit was made against")
    operations: list[Operation] = Field(min_length=1, max_length=400)
    label: str = Field(default="edit", max_length=120, description="What is done, in words")
    field: str = Field(
        default="", max_length=300, pattern=r"^(/.*)?$", description="The one field that is typed into"
    )
    show: str = Field(
        default="", max_length=40, description="Kind of day to show; the governing one if empty"
    )
    stop: str = Field(
        default="", max_length=20, description="The stop whose parts are wanted; those of all if empty"
    )
    have: str = Field(default="", max_length=40, description="Version of the view that the asker has")
    tab: str = Field(
        default="", max_length=40, description="The window that edits; what others type is apart"
    )
    key: str = Field(
        default="",
        max_length=40,
        description="The sender's own key: what is sent twice under it is done once",
    )


class Step(BaseModel):
    """A step back or forth through the journal."""

    revision: int = Field(description="Revision at which it was asked for")


class JournalEntryView(BaseModel):
    """An edit of the journal; before and after where it changed one plain value."""

    id: int
    at: str
    label: str
    undone: bool
    before: str
    after: str


class JournalView(BaseModel):
    """The journal of a rig, the newest edit first."""

    changes: list[JournalEntryView]


class ShowQuery(BaseModel):
    """What to show."""

    show: str = Field(
        default="", max_length=40, description="Id of a kind of day; the governing one if empty"
    )
    stop: str = Field(
        default="", max_length=20, description="The stop whose parts are wanted; those of all if empty"
    )
    have: str = Field(default="", max_length=40, description="Version of the view that the asker has")


class EndWhatIf(BaseModel):
    """How a trial ends."""

    keep: bool = Field(description="Whether what was tried becomes the plan")


class WorkingsQuery(BaseModel):
    """Which figure."""

    key: str = Field(max_length=300)


class FieldQuery(BaseModel):
    """Which field."""

    field: str = Field(
        max_length=300, description="JSON pointer of it in the rig file, or of a tool: /tool/cable/amps"
    )


CHANGED_ELSEWHERE = files.Problem("", phrase("answers.plan_routes.rig_changed_another_window"))
ANOTHER_ROW = files.Problem("", phrase("answers.plan_routes.different_row_now_nothing"))
# Workings of a battery that is looked at without being a candidate.
PREVIEW = f"bank.{PREVIEW_ID}"
# Views that were sent last, so that the next answer only tells what differs.
_SENT: LruCache[str, dict[str, Any]] = LruCache(6)


def _respond(
    stored: StoredRig, rig: RigFile, results: Results, asked: "ShowQuery | Edit", did: str = ""
) -> Response:
    """The rig as it stands, as it differs from the view that the asker has where that is known."""
    base = None
    if stored.base is not None:
        plan = of_document(stored.base)
        base = (plan.results, plan.figures)
    view = rig_view(stored, rig, results, asked.show, asked.stop, base)
    sent, version = view.model_dump(), secrets.token_urlsafe(12)
    before = _SENT.get(asked.have) if asked.have else None
    _SENT.put(version, sent)
    if before is not None and before["id"] == stored.id:
        patch = operations_of(difference(before, sent, moves=False))
        return json_response(RigAnswer(version=version, revision=stored.revision, did=did, patch=patch))
    return json_response(RigAnswer(version=version, revision=stored.revision, did=did, whole=view))


def _answer(rig_id: int, asked: ShowQuery, did: str = "") -> Response:
    """The rig as it stands; run outside of any transaction, so that nobody waits for it."""
    with database().reading() as db:
        stored = rigs.get(db, rig_id)
    known = settled(rig_id, stored.document)
    return _respond(stored, known.rig, known.results, asked, did)


@api.get("/rigs/<int:rig_id>", responses={200: RigAnswer})
def get_rig(path: RigPath, query: ShowQuery) -> Response:
    """A rig with all its stops."""
    return _answer(path.rig_id, query)


@api.patch("/rigs/<int:rig_id>", responses={200: RigAnswer})
def edit_rig(path: RigPath, body: Edit) -> Response:
    """Edit a rig; answers with what differs then.

    Everything is computed outside of the transaction, so that nobody waits for it; the revision is checked
    again inside.
    """
    with database().reading() as db:
        stored = rigs.get(db, path.rig_id)
        known = journal.done(db, path.rig_id, body.key)
    if known:
        found = settled(path.rig_id, stored.document)
        return _respond(stored, found.rig, found.results, body)
    if stored.revision != body.revision:
        return problems(409, CHANGED_ELSEWHERE)
    try:
        document = rigs.patched(files.brought_up(stored.document), [_operation(o) for o in body.operations])
    except JsonPatchTestFailed:
        return problems(409, ANOTHER_ROW)
    document = with_stated(document, [o.path for o in body.operations if o.op != "test"])
    read = files.read(document, data.reference(), typed=True, stored=stored.document, today=today())
    rig = keep_ranges(stored.document, read)
    document = without_typical(stored.document, files.to_document(rig))
    # Computed before it is kept: a rig that could not be shown must not be stored.
    results = edited(path.rig_id, rig, document)
    with database().writing() as db:
        if rigs.revision(db, path.rig_id) != body.revision:
            return problems(409, CHANGED_ELSEWHERE)
        journal.change(
            db, stored, document, clean(body.label), f"{body.tab}{body.field}" if body.field else "", body.key
        )
        changed = rigs.get(db, path.rig_id, document)
    return _respond(changed, rig, results, body)


def _operation(operation: Operation) -> dict[str, Any]:
    out: dict[str, Any] = {"op": operation.op, "path": operation.path}
    if operation.op == "move":
        out["from"] = operation.source or ""
    elif operation.op != "remove":
        out["value"] = admitted(operation.value, operation.path)
    return out


@api.delete("/rigs/<int:rig_id>", responses={200: MadeView})
def delete_rig(path: RigPath) -> Response:
    """Set a rig aside; it can be brought back."""
    with database().writing() as db:
        name = rigs.get(db, path.rig_id).name
        rigs.delete(db, path.rig_id)
    return json_response(MadeView(id=path.rig_id, name=name))


@api.post("/rigs/<int:rig_id>/undo", responses={200: RigAnswer})
def undo_edit(path: RigPath, query: ShowQuery, body: Step) -> Response:
    """Take the last edit back; the answer says which. Nothing changes when there is none."""
    return _step(path.rig_id, query, body, journal.undo)


@api.post("/rigs/<int:rig_id>/redo", responses={200: RigAnswer})
def redo_edit(path: RigPath, query: ShowQuery, body: Step) -> Response:
    """Do the last undone edit again; the answer says which. Nothing changes when there is none."""
    return _step(path.rig_id, query, body, journal.redo)


def _step(
    rig_id: int, query: ShowQuery, body: Step, step: Callable[[sqlite3.Connection, StoredRig], str]
) -> Response:
    with database().writing() as db:
        stored = rigs.get(db, rig_id)
        if stored.revision != body.revision:
            return problems(409, CHANGED_ELSEWHERE)
        label = step(db, stored)
    return _answer(rig_id, query, label)


@api.post("/rigs/<int:rig_id>/what-if", responses={200: RigAnswer})
def start_what_if(path: RigPath, query: ShowQuery) -> Response:
    """Try something beside the plan, from here on; every figure then tells what it is in the plan."""
    with database().writing() as db:
        journal.start_what_if(db, rigs.get(db, path.rig_id))
    return _answer(path.rig_id, query)


@api.post("/rigs/<int:rig_id>/what-if/end", responses={200: RigAnswer})
def end_what_if(path: RigPath, query: ShowQuery, body: EndWhatIf) -> Response:
    """Keep what was tried, or drop it."""
    with database().writing() as db:
        journal.end_what_if(db, rigs.get(db, path.rig_id), body.keep)
    return _answer(path.rig_id, query)


@api.get("/rigs/<int:rig_id>/workings", responses={200: WorkingsView})
def workings(path: RigPath, query: WorkingsQuery) -> Response:
    """The workings of one figure."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    preview_of = query.key[len(PREVIEW) :].split(".")[0] if query.key.startswith(PREVIEW) else ""
    known = of_document(document, preview_of)
    results = known.results
    figure = known.figures.get(query.key) or asked_figure(query.key, results, data.reference())
    if figure is None:
        return problems(404, files.Problem("", phrase("answers.plan_routes.figure_longer_part_plan")))
    default = None
    if figure.assumption in results.assumptions:
        default = results.assumptions.get(figure.assumption).default
    return json_response(workings_view(figure, known.rig.style, default))


@api.get("/rigs/<int:rig_id>/help", responses={200: FieldHelpView})
def help_on_field(path: RigPath, query: FieldQuery) -> Response:
    """What a field is, where to find it, and what is assumed when it is not known."""
    with database().reading() as db:
        document = rigs.get(db, path.rig_id).document
    known = of_document(document)
    rig = known.rig
    try:
        found = field_help(query.field, known.results.assumptions, rig.style, rig.rig.system_v)
    except KeyError:
        return problems(404, files.Problem("", phrase("answers.plan_routes.field_no_help")))
    return json_response(found)


@api.get("/rigs/<int:rig_id>/changes", responses={200: JournalView})
def list_changes(path: RigPath) -> Response:
    """What was changed, the newest first."""
    with database().reading() as db:
        entries = journal.changes(db, path.rig_id)
    return json_response(
        JournalView(
            changes=[
                view_of(JournalEntryView, c, before=_plain(c.backward), after=_plain(c.forward))
                for c in entries
            ]
        )
    )


def _plain(patch: list[dict[str, Any]]) -> str:
    """The value of a patch that sets one plain value; empty for any other."""
    values = [o.get("value") for o in patch]
    if len(values) == 1 and patch[0]["op"] == "replace" and isinstance(values[0], str | int | float):
        return f"{values[0]:g}" if isinstance(values[0], float) else str(values[0])
    return ""
