"""A monitor that is listened to: begun, looked at, ended."""

import time
from typing import Literal

import numpy as np
from flask import Flask, Response, current_app
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, ConfigDict, Field

from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import bank_in_use
from vast_harbor.core.stops.trial import OLD, MonitorReading, readings
from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.door import clean
from vast_harbor.formats.monitor_log import ahead_at, zone_of
from vast_harbor.formats.monitor_rows import readings_of
from vast_harbor.formats.problem import Problem, RigFileError
from vast_harbor.phrases import phrase
from vast_harbor.store import rigs
from vast_harbor.store.database import drop_setting, set_setting, settings_of
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.live import Feed, Feeds, SignalKSource, Source, TrialSource, address_of, begin_of
from vast_harbor.web.log.monitor_routes import reading_cells
from vast_harbor.web.log.routes import read_stored
from vast_harbor.web.log.signal_k_server import BATTERY, SignalKServer
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "live", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView, 503: ProblemsView},
)  # fmt: skip


class LiveBody(BaseModel):
    """What is listened to."""

    model_config = ConfigDict(extra="forbid")

    source: Literal["trial", "simulated", "signal_k"]
    bank: Literal["present", "old", "second", "starting"] = "present"
    zone: str = Field(default="UTC", max_length=60, description="IANA name of the owner's zone")
    host: str = Field(default="", max_length=200, description="Of a Signal K server")
    port: int = Field(default=8375, ge=1, le=65_535)
    battery: str = Field(default="", pattern=r"^[A-Za-z0-9_-]{0,40}$", description="The first, if empty")
    into_bank: bool = Field(default=True, description="Whether its current above 0 flows into the bank")
    hours_per_second: float = Field(default=6, ge=0.01, le=2000, description="Of what is simulated")


class LiveView(View):
    """What is listened to."""

    running: bool
    name: str
    count: int
    at: str = Field(description="Time of the newest reading by the owner's clock; empty before it")
    last: list[str] = Field(description="The newest reading, quantity by quantity")
    batteries: list[str] = Field(description="Those that a Signal K server tells of")
    problem: str


NOTHING = LiveView(running=False, name="", count=0, at="", last=[], batteries=[], problem="")


def _feeds() -> Feeds:
    found: Feeds = current_app.config["FEEDS"]
    return found


@api.get("/rigs/<int:rig_id>/log/live", responses={200: LiveView})
def look_live(path: RigPath) -> Response:
    """What is listened to, and what came last."""
    return json_response(_view(path.rig_id))


@api.post("/rigs/<int:rig_id>/log/live", responses={200: LiveView})
def begin_live(path: RigPath, body: LiveBody) -> Response:
    """Begin to listen; what was listened to before ends."""
    rig_file, _, results = evaluated_results(path.rig_id)
    try:
        zone_of(body.zone)
    except CsvError as error:
        return problems(422, Problem("/zone", str(error)))
    source = _source(body, results)
    if isinstance(source, Problem):
        return problems(422, source)
    _feeds().end(path.rig_id)
    system_v = 12.0 if body.bank == "starting" else rig_file.rig.system_v
    if not _feeds().begin(database(), Feed(path.rig_id, body.bank, body.zone, system_v, source)):
        return problems(503, Problem("", phrase("log.live.full")))
    with database().writing() as db:
        # What is simulated ends with the program; a real one is listened to again after it.
        if body.source == "signal_k":
            set_setting(db, f"{rigs.LISTENS}{path.rig_id}", body.model_dump_json())
        else:
            drop_setting(db, f"{rigs.LISTENS}{path.rig_id}")
    return json_response(_view(path.rig_id))


def go_on(app: Flask) -> None:
    """Listen again to what was listened to when the program ended.

    Args:
        app: the application, its database open.
    """
    where, feeds = app.config["DATABASE"], app.config["FEEDS"]
    with where.reading() as db:
        for rig_id, said in settings_of(db, rigs.LISTENS).items():
            try:
                body, rig_file = LiveBody.model_validate_json(said), read_stored(db, int(rig_id))
                zone_of(body.zone)
            except (ValueError, rigs.Missing, RigFileError):
                # A rig that is gone, or cannot be read.
                continue
            system_v = 12.0 if body.bank == "starting" else rig_file.rig.system_v
            source = SignalKSource(clean(body.host).strip(), body.port, body.battery, body.into_bank)
            feeds.begin(where, Feed(int(rig_id), body.bank, body.zone, system_v, source))


@api.delete("/rigs/<int:rig_id>/log/live", responses={200: LiveView})
def end_live(path: RigPath) -> Response:
    """Stop to listen; what was heard is kept."""
    _feeds().end(path.rig_id)
    with database().writing() as db:
        drop_setting(db, f"{rigs.LISTENS}{path.rig_id}")
    return json_response(_view(path.rig_id))


def _source(body: LiveBody, results: Results) -> Source | Problem:
    if body.source == "signal_k":
        host = clean(body.host).strip()
        if not host:
            return Problem("/host", phrase("log.live.host"))
        try:
            address = address_of(host)
        except (OSError, UnicodeError, ValueError):
            return Problem("/host", phrase("log.live.not_found", host=host))
        if address is None:
            return Problem("/host", phrase("log.live.not_own", host=host))
        return SignalKSource(host, body.port, body.battery, body.into_bank, address=address)
    played = played_trial(results)
    if not played:
        return Problem("", phrase("log.live.no_trial"))
    begin = begin_of(played, time.time(), zone_of(body.zone))
    if body.source == "trial":
        return TrialSource(played, body.hours_per_second, begin)
    server = SignalKServer(0, lambda: iter(played), begin, body.hours_per_second)
    server.begin_serving()
    return SignalKSource("127.0.0.1", server.port, BATTERY, True, phrase("log.live.simulated"), server)


def played_trial(results: Results) -> list[MonitorReading]:
    """What the simulated monitor reads of the bank in use; nothing where Trial runs none."""
    run, in_use = results.simulated.trial, bank_in_use(results)
    bought = results.plan.changeover.chosen if in_use is not None and in_use.changed_over else OLD
    found = run.of(bought) or next(iter(run.results), None)
    return [] if found is None else list(readings(run, found))


def _view(rig_id: int) -> LiveView:
    with database().reading() as db:
        rig_file = read_stored(db, rig_id)
    feed = _feeds().of(rig_id)
    if feed is None:
        return NOTHING
    at, cells = "", list[str]()
    if feed.last is not None:
        second, row = feed.last
        ahead = int(ahead_at(np.array([int(second)]), zone_of(feed.zone))[0])
        at, *cells = reading_cells(readings_of([(int(second), ahead, *row)]), rig_file.style)[0]
    odd = phrase("log.live.odd", count=feed.odd) if feed.odd else ""
    return LiveView(
        running=feed.running, name=feed.source.name, count=feed.count, at=at, last=cells,
        batteries=feed.source.batteries if isinstance(feed.source, SignalKSource) else [],
        problem=feed.unwritten or feed.problem or odd,
    )  # fmt: skip
