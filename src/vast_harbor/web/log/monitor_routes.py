"""Logs of monitors: looked at, imported with progress, drawn and summed by the day."""

import hashlib
import json
import time
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from flask import Response, current_app, request
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.entry import BANKS
from vast_harbor.core.log.readings import QUANTITIES, Readings, Tidied, tidied
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import capacity_of
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.door import clean
from vast_harbor.formats.log_part import AHEAD_S, EARLIEST
from vast_harbor.formats.monitor_layout import (
    AMPS,
    CLOCK,
    DATE,
    HEAD_BYTES,
    MOMENT,
    ORDERS,
    OUT,
    ROLES,
    SOC,
    VOLTS,
    Column,
    Layout,
    guess,
    revised,
)
from vast_harbor.formats.monitor_log import LARGEST_BYTES, ReadFile, first_rows, read, zone_of
from vast_harbor.formats.monitor_told import told_of
from vast_harbor.formats.problem import Problem
from vast_harbor.formats.signal_k import as_csv, is_deltas
from vast_harbor.phrases import phrase
from vast_harbor.store import monitor
from vast_harbor.store.monitor import MonitorFile
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import CSV, EVENTS, STREAM, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.streams import Listener, PageQuery, Slots
from vast_harbor.web.base.views import ProblemsView, view_of
from vast_harbor.web.log.kept_readings import keep, sum_again
from vast_harbor.web.log.models import LogNameView
from vast_harbor.web.log.monitor_models import (
    MonitorChoiceView,
    MonitorColumnView,
    MonitorFilesView,
    MonitorFileView,
    MonitorLookBody,
    StagedFileView,
)
from vast_harbor.web.log.monitor_text import findings, quantity_names, role_names
from vast_harbor.web.log.routes import read_stored
from vast_harbor.web.log.staged import Staged, StagedFile
from vast_harbor.web.log.views import bank_names
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "monitor_files", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 413: ProblemsView, 422: ProblemsView, 503: ProblemsView},
)  # fmt: skip

IMPORTS = Slots(2, 1, phrase("log.monitor.one_at_a_time"))
READ_AT_ONCE, SHOWN = 1_000_000, 8


class FileQuery(BaseModel):
    """A file that comes."""

    name: str = Field(default="", max_length=200)
    zone: str = Field(default="UTC", max_length=60, description="IANA name of the owner's zone")
    bank: str = Field(default="present", max_length=20)


class FilePath(RigPath):
    """Which file that waits."""

    token: str = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")


class KeptFilePath(RigPath):
    """Which file that was imported."""

    file_id: int = Field(ge=1, le=2**53)


def _staged() -> Staged:
    found: Staged = current_app.config["STAGED"]
    return found


@api.post("/rigs/<int:rig_id>/log/files", takes=CSV, largest=LARGEST_BYTES, responses={200: StagedFileView})
def stage(path: RigPath, query: FileQuery) -> Response:
    """Look at a file, sent as the body of the request; nothing of it is kept yet."""
    rig_file, _, results = evaluated_results(path.rig_id)
    if query.bank not in BANKS:
        return problems(422, Problem("/bank", phrase("files.log_part.bank")))
    size = request.content_length or 0
    if size > LARGEST_BYTES:
        size_mb, most = f"{size / 1e6:.0f}", f"{LARGEST_BYTES / 1e6:.0f}"
        return problems(413, Problem("", phrase("files.monitor_log.size", size=size_mb, most=most)))
    staged = _staged().new(path.rig_id, query.bank, clean(query.name).strip() or phrase("log.monitor.file"))
    with staged.path.open("wb") as out:
        while part := request.stream.read(READ_AT_ONCE):
            out.write(part)
    try:
        if is_deltas(_head(staged.path)):
            # From here on it is a table like any other, with a column for each path.
            table = as_csv(staged.path.read_text("utf-8", errors="replace"))
            staged.path.write_text(table, "utf-8")
        staged.layout = guess(_head(staged.path), query.zone, rig_file.rig.system_v)
        return json_response(_staged_view(staged, staged.layout, results, rig_file.style))
    except CsvError as error:
        _staged().drop(staged.token)
        return problems(422, Problem("", str(error)))


def _head(path: Path) -> bytes:
    with path.open("rb") as file:
        return file.read(HEAD_BYTES)


GONE = Problem("", phrase("log.monitor.gone"))


@api.post("/rigs/<int:rig_id>/log/files/<string:token>/look", responses={200: StagedFileView})
def look(path: FilePath, body: MonitorLookBody) -> Response:
    """Look at a file that waits, understood in another way."""
    rig_file, _, results = evaluated_results(path.rig_id)
    staged = _staged().get(path.rig_id, path.token)
    if staged is None or staged.layout is None:
        return problems(404, GONE)
    names = [c.name for c in staged.layout.columns]
    wrong = [c.role for c in body.columns if c.role and c.role not in ROLES]
    wrong += [c.unit for c in body.columns if c.unit and c.unit not in ROLES.get(c.role, ())]
    if wrong or len(body.columns) != len(names) or (body.order and body.order not in ORDERS):
        return problems(422, Problem("/columns", phrase("log.monitor.columns")))
    columns = tuple(
        Column(name, c.role, c.unit or next(iter(ROLES.get(c.role, ())), ""))
        for name, c in zip(names, body.columns, strict=True)
    )
    try:
        zone_of(body.zone)
        layout = replace(
            staged.layout, columns=columns, decimal=body.decimal, zone=body.zone, order=body.order or "ymd"
        )
        staged.layout = revised(_head(staged.path), layout, not body.order, body.into_bank)
    except CsvError as error:
        return problems(422, Problem("", str(error)))
    return json_response(_staged_view(staged, staged.layout, results, rig_file.style))


def _staged_view(staged: StagedFile, layout: Layout, results: Results, style: Style) -> StagedFileView:
    problem, rows = wanting(layout, capacity_of(results, staged.bank)), list[list[str]]()
    if not problem:
        try:
            first = first_rows(_head(staged.path), layout, capacity_of(results, staged.bank), SHOWN)
            rows = reading_cells(first, style)
        except CsvError as error:
            problem = str(error)
    names, quantities = role_names(), quantity_names()
    return StagedFileView(
        token=staged.token,
        name=staged.name,
        columns=[MonitorColumnView(name=c.name, role=c.role, unit=c.unit) for c in layout.columns],
        decimal=layout.decimal,
        order=layout.order,
        order_sure=layout.order_sure,
        zone=layout.zone,
        into_bank=layout.into_bank,
        sign_from=layout.sign_from,
        roles=[MonitorChoiceView(key=r, name=names[r], units=list(u)) for r, u in ROLES.items()],
        head=[phrase("log.monitor.time"), *(quantities[q] for q in QUANTITIES)],
        rows=rows,
        problem=problem,
    )


def wanting(layout: Layout, capacity_ah: float | None) -> str:
    """Why a file cannot be imported as it is understood; empty where it can."""
    roles = [c.role for c in layout.columns if c.role]
    if MOMENT not in roles and not {DATE, CLOCK} <= set(roles):
        return phrase("files.monitor_log.no_time")
    if not {VOLTS, AMPS, OUT, SOC} & set(roles):
        return phrase("files.monitor_log.no_readings")
    if len(roles) > len(set(roles)):
        return phrase("log.monitor.twice")
    in_ah = any(c.role == SOC and c.unit.endswith("Ah") for c in layout.columns)
    return phrase("log.monitor.capacity") if in_ah and not capacity_ah else ""


def _moment(local_s: int) -> str:
    return datetime.fromtimestamp(local_s, UTC).strftime("%Y-%m-%d %H:%M:%S")


def reading_cells(readings: Readings, style: Style) -> list[list[str]]:
    """Readings as a table: time and quantities in the owner's units."""
    local = readings.local
    return [
        [_moment(at), *(_cell(q, float(getattr(readings, q)[i]), style) for q in QUANTITIES)]
        for i, at in enumerate(local.tolist())
    ]


def _cell(name: str, value: float, style: Style) -> str:
    if value != value:
        return "—"
    if name == "volts":
        return style.meter_volts(value)
    if name == "amps":
        amps = style.text(abs(value), "A")
        if not value:
            return amps
        return phrase("log.said.in", amps=amps) if value >= 0 else phrase("log.said.out", amps=amps)
    return style.text(value, {"soc": "%", "celsius": "°C"}[name])


@api.get("/rigs/<int:rig_id>/log/files/<string:token>/import", lane=STREAM, answers=EVENTS)
def import_staged(path: FilePath, query: PageQuery) -> Response:
    """Import a file as it is understood now: progress as server-sent events, then what was found.

    Nothing is kept before all is read; who leaves before leaves nothing behind.
    """
    rig_file, _, results = evaluated_results(path.rig_id)
    staged = _staged().get(path.rig_id, path.token)
    if staged is None or staged.layout is None:
        return problems(404, GONE)
    capacity = capacity_of(results, staged.bank)
    problem = wanting(staged.layout, capacity)
    if problem:
        return problems(422, Problem("", problem))
    work = _Import(staged, staged.layout, rig_file.rig.system_v, capacity, rig_file.style)
    app = current_app._get_current_object()  # type: ignore[attr-defined]

    def events(listener: Listener) -> Iterator[str]:
        with app.app_context():
            for event in work.run(listener):
                yield f"data: {json.dumps(event)}\n\n"

    return IMPORTS.stream(query.page, events)


class _Import:
    """One import."""

    def __init__(
        self, staged: StagedFile, layout: Layout, system_v: float, capacity: float | None, style: Style
    ) -> None:
        self.staged, self.layout, self.capacity, self.style = staged, layout, capacity, style
        self.system_v = system_v if staged.bank != "starting" else 12.0

    def run(self, listener: Listener) -> Iterator[dict[str, Any]]:
        found: ReadFile | None = None
        try:
            for event in read(self.staged.path, self.layout, self.capacity):
                if listener.gone():
                    return
                if isinstance(event, ReadFile):
                    found = event
                else:
                    yield {"share": round(0.7 * event, 3)}
        except (CsvError, OSError) as error:
            yield {"problem": str(error)}
            return
        assert found is not None
        tidy = tidied(found.readings, self.system_v, EARLIEST, int(time.time()) + AHEAD_S)
        yield {"share": 0.75}
        if not len(tidy.readings):
            yield {"problem": phrase("files.monitor_log.nothing")}
            return
        if listener.gone():
            return
        try:
            told = self._keep(found, tidy)
        except Trouble as error:
            yield {"problem": str(error)}
            return
        _staged().drop(self.staged.token)
        yield {"share": 1.0, "done": [f.model_dump() for f in findings(told, self.style)]}

    def _keep(self, found: ReadFile, tidy: Tidied) -> dict[str, Any]:
        staged = self.staged
        with staged.path.open("rb") as file:
            digest = hashlib.file_digest(file, "sha256").hexdigest()
        with database().writing() as db:
            return keep(db, staged.rig_id, staged.bank, staged.name, digest, found, tidy)


@api.get("/rigs/<int:rig_id>/log/files", responses={200: MonitorFilesView})
def list_files(path: RigPath) -> Response:
    """The files that were imported, the newest first."""
    with database().reading() as db:
        style = read_stored(db, path.rig_id).style
        found = monitor.files(db, path.rig_id)
    names = bank_names()
    return json_response(
        MonitorFilesView(
            files=[
                view_of(
                    MonitorFileView,
                    f,
                    style,
                    bank_name=names[f.bank],
                    period=_period(f),
                    findings=findings(told, style) if (told := told_of(f.told)) is not None else [],
                )
                for f in found
            ]
        )
    )


def _period(file: MonitorFile) -> str:
    if file.first is None or file.last is None:
        return ""
    told = told_of(file.told)
    ahead = 60 * told["offset_min"] if told is not None else 0
    ends = [_moment(at + ahead)[:10] for at in (file.first, file.last)]
    return phrase("log.monitor.period", first=ends[0], last=ends[1])


@api.delete("/rigs/<int:rig_id>/log/files/<int:file_id>", responses={200: LogNameView})
def remove_file(path: KeptFilePath) -> Response:
    """Forget a file with its readings; imported again, they are there again."""
    with database().writing() as db:
        file = next((f for f in monitor.files(db, path.rig_id) if f.id == path.file_id), None)
        if file is None:
            return problems(404, Problem("", phrase("log.monitor.no_file")))
        monitor.remove_file(db, path.rig_id, file.id)
        if file.first is not None and file.last is not None:
            sum_again(db, path.rig_id, file.bank, file.first, file.last)
    return json_response(LogNameView(key=str(file.id), name=file.name))
