"""The log: lines understood, entries kept, changed, removed and brought back; and all of it as files."""

import sqlite3
import time
from dataclasses import replace
from datetime import UTC, date, datetime
from typing import Any

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.log.duties import Duty, InUse
from vast_harbor.core.log.entry import NOTE, OLD, PRESENT, UNITS, Entry
from vast_harbor.core.review.bank_in_use import bank_in_use, duties_of
from vast_harbor.core.rig.changeover import RUNS
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.door import clean
from vast_harbor.formats.log_line import Hand, understand
from vast_harbor.formats.log_part import as_csv, checked, log_text
from vast_harbor.formats.problem import Problem, RigFileError
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.store import log, rigs
from vast_harbor.store.log import Changed, Kept, NoEntry, Row
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import CSV, Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, view_of
from vast_harbor.web.log.models import (
    DutiesView,
    DutyBody,
    DutyView,
    LogEntryBody,
    LogEntryView,
    LogLineBody,
    LogNameView,
    LogView,
    NewLogLineBody,
)
from vast_harbor.web.log.views import banks, entry_view, kinds, log_fields
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "log", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

GONE = Problem("", phrase("log.answers.gone"))
CHANGED = Problem("", phrase("log.answers.changed"))
MOST = 200


class EntryPath(RigPath):
    """Which entry of which rig."""

    entry_id: str = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")


class PageQuery(BaseModel):
    """Which page of the log."""

    limit: int = Field(default=50, ge=1, le=MOST)
    kind: str = Field(default="", max_length=20, description="Only of this kind; all if empty")
    at: int | None = Field(default=None, ge=0, le=2**53, description="Time of the last entry there is")
    id: str = Field(default="", max_length=40, description="Its id")


def read_stored(db: sqlite3.Connection, rig_id: int) -> RigFile:
    """A stored rig, read; raises :class:`rigs.Missing`."""
    document = rigs.get(db, rig_id).document
    return files.read(document, data.reference(), stored=document)


def _row(entry: Entry) -> Row:
    """An entry by column."""
    return {name: getattr(entry, name) for name in log.COLUMNS}


def _rig(rig_id: int) -> RigFile:
    with database().reading() as db:
        return read_stored(db, rig_id)


def _context(rig_file: RigFile, typed: bool) -> dict[str, Any]:
    rig = rig_file.rig
    return {
        "typed": typed, "system": rig.units, "system_v": rig.system_v, "numbers": rig.numbers,
        "currency": rig.currency,
    }  # fmt: skip


def _understood(body: LogLineBody, id: str, rig_file: RigFile) -> Entry:
    """A line as an entry that can be; where it says something impossible, it is refused in words."""
    hand = Hand(number_format(rig_file.rig.numbers), rig_file.rig.currency, body.bank)
    entry = understand(id, clean(body.line), body.at, body.offset_min, hand)
    values = {name: getattr(entry, name) for name in UNITS}
    return checked(entry, values, _context(rig_file, typed=False), _clock(body.at))


def _clock(sender: int) -> int:
    """What time it is [s]: of the clock here and the sender's the later, since one may have been set back."""
    return max(int(time.time()), sender)


def _there(rig_id: int, entry: Entry, rig_file: RigFile) -> Entry:
    """An entry about a battery that its bank has; one that it has not, or has no more, is told."""
    old = rig_file.old_bank
    olds = old.series * old.parallel if old is not None else 0
    if not entry.battery or entry.bank not in (PRESENT, OLD):
        return entry
    swapped = entry.bank == PRESENT and RUNS in rig_file.changeover.done
    made = evaluated_results(rig_id)[2].changeover if swapped else None
    has = made.work.build.bank.units if made is not None else olds
    if has and entry.battery > has:
        if made is not None and entry.battery <= olds:
            says = phrase("log.answers.swapped", count=has, number=entry.battery)
        else:
            says = phrase("log.answers.no_battery", count=has, number=entry.battery)
        raise RigFileError([Problem("/battery", says)])
    return entry


@api.get("/rigs/<int:rig_id>/log", responses={200: LogView})
def read_log(path: RigPath, query: PageQuery) -> Response:
    """A page of the log, from the newest entry back."""
    before = None if query.at is None else (query.at, query.id)
    with database().reading() as db:
        rig_file = read_stored(db, path.rig_id)
        found = log.page(db, path.rig_id, query.limit + 1, before, query.kind)
        count = log.count(db, path.rig_id)
    style = rig_file.style
    view = LogView(
        entries=[
            entry_view(Entry(**kept.row), kept.revision, rig_file, style) for kept in found[: query.limit]
        ],
        more=len(found) > query.limit,
        count=count,
        kinds=kinds(),
        fields=log_fields(style),
        banks=banks(rig_file),
        sources=[LogNameView(key=s.id, name=s.name or s.id) for s in rig_file.sources],
    )
    return json_response(view)


@api.post("/rigs/<int:rig_id>/log/understand", responses={200: LogEntryView})
def understand_line(path: RigPath, body: LogLineBody) -> Response:
    """What a line is understood as; nothing is kept."""
    rig_file = _rig(path.rig_id)
    entry = _there(path.rig_id, _understood(body, "-", rig_file), rig_file)
    return json_response(entry_view(entry, 0, rig_file, rig_file.style))


@api.post("/rigs/<int:rig_id>/log", responses={200: LogEntryView})
def add_line(path: RigPath, body: NewLogLineBody) -> Response:
    """Keep a new entry from its line; what was kept under its id before is answered as it is."""
    rig_file = _rig(path.rig_id)
    entry = _there(path.rig_id, _understood(body, body.id, rig_file), rig_file)
    return _added(path.rig_id, entry, rig_file)


def _added(rig_id: int, entry: Entry, rig_file: RigFile) -> Response:
    with database().writing() as db:
        rigs.revision(db, rig_id)
        new = log.add(db, rig_id, _row(entry))
        try:
            kept = log.get(db, rig_id, entry.id)
        except NoEntry:
            # It was kept, and removed meanwhile: that is not undone by sending it again.
            kept = Kept(_row(entry), 0)
    answer = json_response(entry_view(Entry(**kept.row), kept.revision, rig_file, rig_file.style))
    answer.headers["X-New"] = str(int(new))
    return answer


@api.put("/rigs/<int:rig_id>/log/<string:entry_id>", responses={200: LogEntryView, 409: ProblemsView})
def put_entry(path: EntryPath, body: LogEntryBody) -> Response:
    """Keep an entry as the form has it: a new one with revision 0, or in place of what it was."""
    rig_file = _rig(path.rig_id)
    unknown = body.values.keys() - UNITS.keys()
    if unknown:
        return problems(
            422, Problem("/values", phrase("log.answers.field", names=", ".join(sorted(unknown))))
        )
    given = body.model_dump(exclude={"revision", "values", "clock"})
    typed = {name: clean(text).strip() or None for name, text in body.values.items()}
    entry = checked(Entry(path.entry_id, **given), typed, _context(rig_file, typed=True), _clock(body.clock))
    if not body.revision:
        _there(path.rig_id, entry, rig_file)
    try:
        with database().writing() as db:
            rigs.revision(db, path.rig_id)
            if not body.revision and log.add(db, path.rig_id, _row(entry)):
                return json_response(entry_view(entry, 1, rig_file, rig_file.style))
            before = log.get(db, path.rig_id, path.entry_id).row
            entry = replace(entry, duty=before["duty"], until=before["until"])
            # A new one that is sent again was not answered: what it says now counts.
            log.change(db, path.rig_id, _row(entry), body.revision or 1)
            kept = log.get(db, path.rig_id, path.entry_id)
    except NoEntry:
        return problems(404, GONE)
    except Changed:
        return problems(409, CHANGED)
    return json_response(entry_view(Entry(**kept.row), kept.revision, rig_file, rig_file.style))


@api.delete("/rigs/<int:rig_id>/log/<string:entry_id>", responses={200: LogNameView})
def remove_entry(path: EntryPath) -> Response:
    """Remove an entry; it can be brought back."""
    try:
        with database().writing() as db:
            log.remove(db, path.rig_id, path.entry_id)
    except NoEntry:
        return problems(404, GONE)
    return json_response(LogNameView(key=path.entry_id, name=""))


@api.post("/rigs/<int:rig_id>/log/<string:entry_id>/restore", responses={200: LogEntryView})
def restore_entry(path: EntryPath) -> Response:
    """Bring a removed entry back."""
    rig_file = _rig(path.rig_id)
    try:
        with database().writing() as db:
            kept = log.restore(db, path.rig_id, path.entry_id)
    except NoEntry:
        return problems(404, GONE)
    return json_response(entry_view(Entry(**kept.row), kept.revision, rig_file, rig_file.style))


def _iso(day: int) -> str:
    return date.fromordinal(day).isoformat()


def _duties(rig_id: int, today: int) -> tuple[RigFile, InUse | None, tuple[Duty, ...]]:
    rig_file, _, results = evaluated_results(rig_id)
    with database().reading() as db:
        last = log.last_days(db, rig_id)
    return rig_file, bank_in_use(results), duties_of(results, last, today)


@api.get("/rigs/<int:rig_id>/log/duties", responses={200: DutiesView})
def read_duties(path: RigPath) -> Response:
    """What is to be done about the bank in use, and when."""
    _, bank, found = _duties(path.rig_id, counted_today())
    view = DutiesView(
        duties=[
            view_of(DutyView, d, due=_iso(d.due), last="" if d.last is None else _iso(d.last))
            for d in found
        ],
        battery_class="" if bank is None else bank.battery_class.key,
    )  # fmt: skip
    return json_response(view)


class DutyPath(RigPath):
    """Which duty of which rig."""

    duty: str = Field(pattern=r"^[a-z_]{1,40}$")


@api.post("/rigs/<int:rig_id>/log/duties/<string:duty>", responses={200: LogEntryView})
def do_duty(path: DutyPath, body: DutyBody) -> Response:
    """Note that a duty is done, or put it off with a reason; sent twice, it is noted once."""
    now = datetime.fromtimestamp(body.at + 60 * body.offset_min, UTC)
    rig_file, _, found = _duties(path.rig_id, now.date().toordinal())
    duty = next((d for d in found if d.key == path.duty), None)
    if duty is None:
        return problems(404, Problem("", phrase("log.answers.duty")))
    reason = clean(body.reason).strip()
    if body.put_off_days and not reason:
        return problems(422, Problem("/reason", phrase("log.answers.reason")))
    text = duty.title
    if body.put_off_days:
        text = phrase("log.said.put_off", title=duty.title, reason=reason)
    entry = Entry(
        body.id,
        body.at,
        NOTE if body.put_off_days else duty.kind,
        body.offset_min,
        duty=duty.key,
        until=body.at + 86_400 * body.put_off_days if body.put_off_days else None,
        text=text,
    )
    entry = checked(entry, {}, _context(rig_file, typed=False), _clock(body.at))
    return _added(path.rig_id, entry, rig_file)


@api.get("/rigs/<int:rig_id>/log.csv", answers=CSV)
def log_csv(path: RigPath) -> Response:
    """The whole log as CSV, the oldest entry first."""
    with database().reading() as db:
        rig_file = read_stored(db, path.rig_id)
        text = as_csv((Entry(**row) for row in log.each(db, path.rig_id)), rig_file.style.currency)
    return as_file(text, CSV, rig_file.rig.name, "log.csv")


@api.get("/rigs/<int:rig_id>/log.json")
def log_json(path: RigPath) -> Response:
    """The whole log as JSON, the oldest entry first."""
    with database().reading() as db:
        rig_file = read_stored(db, path.rig_id)
        text = log_text(Entry(**row) for row in log.each(db, path.rig_id))
    return as_file(text, "application/json", rig_file.rig.name, "log.json")
