"""The duties as a calendar: a file, and an address to subscribe to, for which one must know a secret."""

import json
import secrets
import sqlite3
import time
from collections.abc import Sequence
from contextlib import suppress

from flask import Response, current_app, make_response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.log.duties import Duty
from vast_harbor.core.review.bank_in_use import duties_of
from vast_harbor.formats.calendar_file import Versions, calendar, calendar_name, versions
from vast_harbor.formats.problem import Problem
from vast_harbor.phrases import phrase
from vast_harbor.store import log, rigs
from vast_harbor.store.database import Database, get_setting, set_setting
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "calendar", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView},
)  # fmt: skip

CALENDARS = "/calendar/"
TYPE = "text/calendar"


class CalendarView(View):
    """Where the calendar of a rig can be subscribed to."""

    path: str = Field(description="Of its address, with the secret; empty where there is none")
    hosts: list[str] = Field(description="Addresses under which other devices reach this machine")


def _secret(db: sqlite3.Connection, rig_id: int) -> str:
    return get_setting(db, f"calendar.{rig_id}") or ""


def _owner(where: Database, rig_id: int) -> str:
    """What the events of a rig are told by, the same for ever."""
    key = f"calendar_owner.{rig_id}"
    with where.reading() as db:
        known = get_setting(db, key)
    if known:
        return known
    with where.writing() as db:
        known = get_setting(db, key) or secrets.token_hex(8)
        set_setting(db, key, known)
    return known


def _versions(where: Database, rig_id: int, duties: Sequence[Duty], today: int, now: int) -> Versions:
    """The versions of the events of a rig; kept where one has changed since it was told last."""
    key = f"calendar_told.{rig_id}"

    def told(db: sqlite3.Connection) -> tuple[Versions, Versions]:
        before = {k: (v[0], v[1]) for k, v in json.loads(get_setting(db, key) or "{}").items()}
        return before, versions(duties, before, today, now)

    with where.reading() as db:
        before, after = told(db)
    if after != before:
        # Where it cannot be kept, the same is found again next time.
        with suppress(Trouble), where.writing() as db:
            _, after = told(db)
            set_setting(db, key, json.dumps(after))
    return after


def _calendar(rig_id: int) -> tuple[bytes, str]:
    """The calendar of a rig, and what the rig is called; raises :class:`rigs.Missing`."""
    rig_file, _, results = evaluated_results(rig_id)
    today = counted_today()
    with database().reading() as db:
        last = log.last_days(db, rig_id)
    name = rig_file.rig.name
    found = duties_of(results, last, today)
    owner = _owner(database(), rig_id)
    now = int(time.time())
    told = _versions(database(), rig_id, found, today, now)
    return calendar(found, owner, calendar_name(name), told, today, now), name


@api.get("/rigs/<int:rig_id>/log/duties.ics", answers="text/calendar")
def calendar_file(path: RigPath) -> Response:
    """The duties as a calendar file."""
    body, name = _calendar(path.rig_id)
    return as_file(body.decode(), TYPE, name, "duties.ics")


@api.get("/rigs/<int:rig_id>/log/calendar", responses={200: CalendarView})
def calendar_address(path: RigPath) -> Response:
    """Where the calendar can be subscribed to."""
    with database().reading() as db:
        rigs.revision(db, path.rig_id)
        return _answer(_secret(db, path.rig_id))


@api.post("/rigs/<int:rig_id>/log/calendar", responses={200: CalendarView})
def renew_address(path: RigPath) -> Response:
    """Make an address to subscribe to; one that was made before no longer works."""
    with database().writing() as db:
        rigs.revision(db, path.rig_id)
        secret = secrets.token_urlsafe(24)
        set_setting(db, f"calendar.{path.rig_id}", secret)
    return _answer(secret)


@api.delete("/rigs/<int:rig_id>/log/calendar", responses={200: CalendarView})
def end_address(path: RigPath) -> Response:
    """The address no longer works."""
    with database().writing() as db:
        rigs.revision(db, path.rig_id)
        set_setting(db, f"calendar.{path.rig_id}", "")
    return _answer("")


def _answer(secret: str) -> Response:
    port, addresses = current_app.config.get("LAN", (0, []))
    hosts = [f"http://{address}:{port}" for address in addresses]
    return json_response(CalendarView(path=secret and f"{CALENDARS}{secret}.ics", hosts=hosts))


def subscribed(secret: str) -> Response:
    """The calendar whose secret is shown; whoever shows another is told nothing."""
    with database().reading() as db:
        rows = db.execute("SELECT key, value FROM setting WHERE key LIKE 'calendar.%' AND value != ''")
        found = [row["key"] for row in rows if secrets.compare_digest(row["value"].encode(), secret.encode())]
    if not found:
        return problems(404, Problem("", phrase("log.calendar.none")))
    try:
        body, _ = _calendar(int(found[0].partition(".")[2]))
    except rigs.Missing:
        return problems(404, Problem("", phrase("log.calendar.none")))
    response = make_response(body)
    response.mimetype = TYPE
    response.headers["Cache-Control"] = "private, max-age=900"
    return response
