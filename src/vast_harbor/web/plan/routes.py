"""A rig: read, edited by JSON Patch, undone and redone, deleted; and the workings of its figures."""

import json
import secrets
import sqlite3
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any, Literal

from flask import Response, current_app
from flask_openapi3.models.tag import Tag
from jsonpatch import JsonPatchTestFailed
from pydantic import BaseModel, ConfigDict, Field

from vast_harbor import data
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.passage import Before, Results, evaluate
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.sensitivity.figure_lookup import asked_figure
from vast_harbor.core.stops.banks import QuickLifeCost, quick_life_cost
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.door import admitted, clean
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.store import rigs
from vast_harbor.store.json_difference import difference
from vast_harbor.store.rigs import StoredRig
from vast_harbor.web.blueprint import Blueprint
from vast_harbor.web.errors import problems
from vast_harbor.web.harbor.routes import MadeView, RigPath, database, json_response
from vast_harbor.web.plan.field_help import FieldHelpView, field_help
from vast_harbor.web.plan.models import RigAnswer
from vast_harbor.web.plan.views import rig_view, style_of
from vast_harbor.web.views import PREVIEW_ID, ProblemsView, WorkingsView, operations_of, workings_view

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
# What was run for a rig last: an edit is answered with it, and what is new is run when it is asked for.
_LAST_RUN: LruCache[tuple[Path, int], Before] = LruCache(4)


def _evaluated(rig_id: int, document: dict[str, Any]) -> tuple[RigFile, Results]:
    """A rig with everything run."""
    rig, _, results, _ = _known(json.dumps(document), _today())
    _remember(rig_id, results)
    return rig, results


def _edited(rig_id: int, rig: RigFile, document: dict[str, Any]) -> Results:
    """A rig just edited: what takes long to run or to find is as it was."""
    plan = plan_of(rig)
    known = _noted(document, plan)
    if known is not None:
        return known
    before = _LAST_RUN.get((database().path, rig_id))
    results = evaluate(plan, data.reference(), before)
    if before is None:
        _remember(rig_id, results)
    return results


def forget() -> None:
    """Forget what was run for the rigs: others are there now."""
    _LAST_RUN.clear()


def _remember(rig_id: int, results: Results) -> None:
    results.simulated.run()
    _LAST_RUN.put((database().path, rig_id), results.before)


def plan_of(rig: RigFile) -> Plan:
    """What the core computes from, today."""
    return files.to_plan(rig, data.reference(), _today())


def evaluated_rig(rig_id: int) -> tuple[RigFile, Plan, Results, QuickLifeCost]:
    """A stored rig with all its figures, and how banks look at it.

    Raises:
        KeyError: no such rig.
    """
    with database().reading() as db:
        document = rigs.get(db, rig_id).document
    rig, plan, results, _ = _known(json.dumps(document), _today())
    return rig, plan, results, quick_life_cost(plan, data.reference(), results.assumptions, results.days)


def evaluated_results(rig_id: int) -> tuple[RigFile, Plan, Results]:
    """A stored rig with all its figures, everything run.

    Raises:
        KeyError: no such rig.
    """
    with database().reading() as db:
        document = rigs.get(db, rig_id).document
    return _known(json.dumps(document), _today())[:3]


# Workings of a battery that is looked at without being a candidate.
PREVIEW = f"bank.{PREVIEW_ID}"


class LazyFigures:
    """All figures of a plan by key, gathered when somebody asks for one.

    Args:
        results: the plan in figures.
    """

    def __init__(self, results: Results) -> None:
        self._results = results

    @cached_property
    def all(self) -> dict[str, Figure]:
        """By key."""
        return self._results.figures()


def _today() -> str:
    today: str = current_app.config["TODAY"]()
    return today


# Workings, pictures and the plan beside a trial are asked for again and again of one state of a rig.
# An undo comes back to one, and so does a second window.
_KNOWN: LruCache[tuple[str, str, str], tuple[RigFile, Plan, Results, LazyFigures]] = LruCache(5)
# The same without what is only noted: a copy, another name or a step that is ticked is not worked out anew.
_WORKED_OUT: LruCache[tuple[str, str, str], Results] = LruCache(5)


def known_or_new(document: Any, today: str) -> tuple[RigFile, Results]:
    """A stored document with its figures, which are not kept for it: for a look at many rigs.

    Args:
        document: of the rig.
        today: ISO date.
    """
    text = json.dumps(document)
    known = _KNOWN.get((text, today, ""))
    if known is not None:
        return known[0], known[2]
    rig = files.read(document, data.reference(), stored=document)
    plan = files.to_plan(rig, data.reference(), today)
    return rig, _noted(document, plan) or evaluate(plan, data.reference())


def _known(document: str, today: str, preview_of: str = "") -> tuple[RigFile, Plan, Results, LazyFigures]:
    return _KNOWN.of((document, today, preview_of), lambda: _worked_out(document, today, preview_of))


def _worked_out(document: str, today: str, preview_of: str) -> tuple[RigFile, Plan, Results, LazyFigures]:
    reference = data.reference()
    lies = json.loads(document)
    rig = files.read(lies, reference, stored=lies)
    plan = plan_of(rig)
    if preview_of in plan.models:
        preview = Candidate(
            f"{PREVIEW_ID}{preview_of}", plan.models[preview_of].battery_class.key, preview_of
        )
        plan = replace(plan, candidates=(*plan.candidates, preview))
    key = (_without_notes(lies), today, preview_of)
    results = _WORKED_OUT.of(key, lambda: evaluate(plan, reference))
    if results.plan is not plan:
        results = results.noted(plan)
    return rig, plan, results, LazyFigures(results)


def _noted(document: dict[str, Any], plan: Plan) -> Results | None:
    """A plan in figures where they are known already, whatever is noted with it."""
    known = _WORKED_OUT.get((_without_notes(document), plan.today, ""))
    return None if known is None else known.noted(plan)


def _without_notes(document: dict[str, Any]) -> str:
    """What figures are worked out of: all but the rig's name, its changeover and the open question."""
    return json.dumps(
        {**document, "rig": {**document["rig"], "name": ""}, "changeover": None, "guide": None},
        sort_keys=True,
    )


# Views that were sent last, so that the next answer only tells what differs.
_SENT: LruCache[str, dict[str, Any]] = LruCache(6)


def _respond(
    stored: StoredRig, rig: RigFile, results: Results, asked: "ShowQuery | Edit", did: str = ""
) -> Response:
    """The rig as it stands, as it differs from the view that the asker has where that is known."""
    base = None
    if stored.base is not None:
        plan, figures = _known(json.dumps(stored.base), _today())[2:]
        base = (plan, figures.all)
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
    rig, results = _evaluated(rig_id, stored.document)
    return _respond(stored, rig, results, asked, did)


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
        known = rigs.done(db, path.rig_id, body.key)
    if known:
        rig, results = _evaluated(path.rig_id, stored.document)
        return _respond(stored, rig, results, body)
    if stored.revision != body.revision:
        return problems(409, CHANGED_ELSEWHERE)
    try:
        document = rigs.patched(stored.document, [_operation(o) for o in body.operations])
    except JsonPatchTestFailed:
        return problems(409, ANOTHER_ROW)
    document = files.with_stated(document, [o.path for o in body.operations if o.op != "test"])
    read = files.read(document, data.reference(), typed=True, stored=stored.document)
    rig = files.keep_ranges(stored.document, read)
    document = files.without_typical(stored.document, files.to_document(rig))
    # Computed before it is kept: a rig that could not be shown must not be stored.
    results = _edited(path.rig_id, rig, document)
    with database().writing() as db:
        if rigs.revision(db, path.rig_id) != body.revision:
            return problems(409, CHANGED_ELSEWHERE)
        rigs.change(
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
        name = rigs.get(db, path.rig_id).document["rig"]["name"]
        rigs.delete(db, path.rig_id)
    return json_response(MadeView(id=path.rig_id, name=name))


@api.post("/rigs/<int:rig_id>/undo", responses={200: RigAnswer})
def undo_edit(path: RigPath, query: ShowQuery, body: Step) -> Response:
    """Take the last edit back; the answer says which. Nothing changes when there is none."""
    return _step(path.rig_id, query, body, rigs.undo)


@api.post("/rigs/<int:rig_id>/redo", responses={200: RigAnswer})
def redo_edit(path: RigPath, query: ShowQuery, body: Step) -> Response:
    """Do the last undone edit again; the answer says which. Nothing changes when there is none."""
    return _step(path.rig_id, query, body, rigs.redo)


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
        rigs.start_what_if(db, rigs.get(db, path.rig_id))
    return _answer(path.rig_id, query)


@api.post("/rigs/<int:rig_id>/what-if/end", responses={200: RigAnswer})
def end_what_if(path: RigPath, query: ShowQuery, body: EndWhatIf) -> Response:
    """Keep what was tried, or drop it."""
    with database().writing() as db:
        rigs.end_what_if(db, rigs.get(db, path.rig_id), body.keep)
    return _answer(path.rig_id, query)


@api.get("/rigs/<int:rig_id>/workings", responses={200: WorkingsView})
def workings(path: RigPath, query: WorkingsQuery) -> Response:
    """The workings of one figure."""
    with database().reading() as db:
        document = json.dumps(rigs.get(db, path.rig_id).document)
    preview_of = query.key[len(PREVIEW) :].split(".")[0] if query.key.startswith(PREVIEW) else ""
    rig, _, results, figures = _known(document, _today(), preview_of)
    figure = figures.all.get(query.key) or asked_figure(query.key, results, data.reference())
    if figure is None:
        return problems(404, files.Problem("", phrase("answers.plan_routes.figure_longer_part_plan")))
    default = None
    if figure.assumption in results.assumptions:
        default = results.assumptions.get(figure.assumption).default
    return json_response(workings_view(figure, style_of(rig), default))


@api.get("/rigs/<int:rig_id>/help", responses={200: FieldHelpView})
def help_on_field(path: RigPath, query: FieldQuery) -> Response:
    """What a field is, where to find it, and what is assumed when it is not known."""
    with database().reading() as db:
        document = json.dumps(rigs.get(db, path.rig_id).document)
    rig, _, results, _ = _known(document, _today())
    try:
        found = field_help(query.field, results.assumptions, style_of(rig), rig.rig.system_v)
    except KeyError:
        return problems(404, files.Problem("", phrase("answers.plan_routes.field_no_help")))
    return json_response(found)


@api.get("/rigs/<int:rig_id>/changes", responses={200: JournalView})
def list_changes(path: RigPath) -> Response:
    """What was changed, the newest first."""
    with database().reading() as db:
        journal = rigs.changes(db, path.rig_id)
    return json_response(
        JournalView(
            changes=[
                JournalEntryView(
                    id=c.id,
                    at=c.at,
                    label=c.label,
                    undone=c.undone,
                    before=_plain(c.backward),
                    after=_plain(c.forward),
                )
                for c in journal
            ]
        )
    )


def _plain(patch: list[dict[str, Any]]) -> str:
    """The value of a patch that sets one plain value; empty for any other."""
    values = [o.get("value") for o in patch]
    if len(values) == 1 and patch[0]["op"] == "replace" and isinstance(values[0], str | int | float):
        return f"{values[0]:g}" if isinstance(values[0], float) else str(values[0])
    return ""
