"""The simulated battery monitor: a trial played as a stream of readings, and its log as CSV.

A stand-in for a shunt with a radio: whoever reads it, reads a real one in the same way.
"""

import json
import time
from collections.abc import Iterator
from datetime import datetime

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.stops.trial import MonitorReading, readings
from vast_harbor.core.weather.daily_weather import STEP_H
from vast_harbor.formats import monitor_csv
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import as_file
from vast_harbor.web.base.blueprint import CSV, EVENTS, STREAM, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import today
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.streams import Listener, PageQuery, Slots
from vast_harbor.web.base.views import ProblemsView
from vast_harbor.web.state.evaluated import evaluated_results
from vast_harbor.web.stops.trial.routes import BankQuery

api = Blueprint(
    "monitor", __name__, url_prefix="/api", abp_tags=[Tag(name="monitor")],
    abp_responses={404: ProblemsView, 422: ProblemsView, 503: ProblemsView},
)  # fmt: skip

GONE = phrase("answers.trial_monitor.bank_longer_part_trial")
# A stream is not kept open for longer, nor left more often than this [s].
LONGEST_S, OFTENEST_S = 120.0, 0.02
PLAYERS = Slots(12, 2, phrase("answers.trial_monitor.two_monitors_already_playing"))


class StreamQuery(PageQuery):
    """Which bank, and how fast."""

    bank: str = Field(max_length=60, description="Id of a candidate, or old")
    hours_per_second: float = Field(default=6, ge=0.01, le=2000, description="How fast the days go by")
    start_step: int = Field(default=0, ge=0, le=100_000, description="First reading")


@api.get("/rigs/<int:rig_id>/monitor", lane=STREAM, answers=EVENTS)
def stream(path: RigPath, query: StreamQuery) -> Response:
    """Readings as server-sent events, accelerated."""
    results = evaluated_results(path.rig_id)[2]
    run, result = results.simulated.trial, results.trial_run(query.bank)
    if result is None:
        return problems(404, Problem("", GONE))
    left = list(readings(run, result))[query.start_step :]
    return PLAYERS.stream(query.page, lambda listener: _played(left, query.hours_per_second, listener))


def _played(left: list[MonitorReading], hours_per_second: float, listener: Listener) -> Iterator[str]:
    wait = STEP_H / hours_per_second
    begun = time.monotonic()
    for i, r in enumerate(left):
        due = begun + i * wait
        if due - begun > LONGEST_S:
            break
        pause = due - time.monotonic()
        if pause > OFTENEST_S:
            listener.sleep(pause)
        body = {"hours": r.hours, "volts": r.volts, "amps": r.amps, "soc": r.soc, "celsius": r.celsius}
        yield f"data: {json.dumps(body)}\n\n"
    yield "event: end\ndata: {}\n\n"


@api.get("/rigs/<int:rig_id>/monitor.csv", lane=WORKED_OUT, answers=CSV)
def log(path: RigPath, query: BankQuery) -> Response:
    """The log of the whole trial as CSV."""
    _, plan, results = evaluated_results(path.rig_id)
    run, result = results.simulated.trial, results.trial_run(query.bank)
    if result is None:
        return problems(404, Problem("", GONE))
    year = int(today()[:4])
    start = datetime(year, run.prepared.month, 1)
    text = monitor_csv.write(readings(run, result), start)
    return as_file(text, CSV, plan.name, f"monitor-{query.bank}.csv")
