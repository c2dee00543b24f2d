"""What monitors logged: drawn over a stretch, and summed by the day."""

from datetime import date
from typing import Any

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.units import US, fahrenheit
from vast_harbor.core.log.entry import BANKS
from vast_harbor.core.log.readings import HOUR_S, QUANTITIES, by_day
from vast_harbor.core.log.thinned import thinned
from vast_harbor.formats.monitor_csv import readings_as_csv
from vast_harbor.formats.monitor_rows import hours_of, readings_of
from vast_harbor.phrases import phrase
from vast_harbor.store import monitor
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import CSV, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView
from vast_harbor.web.log.monitor_models import (
    MonitorChartView,
    MonitorChoiceView,
    MonitorDaysView,
    MonitorDayView,
    MonitorSeriesView,
)
from vast_harbor.web.log.monitor_text import quantity_names
from vast_harbor.web.log.routes import read_stored
from vast_harbor.web.log.views import bank_names

api = Blueprint(
    "measured", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

# Stretches of a drawn line; up to how many days single readings are drawn, beyond them hours.
POINTS, DAYS_OF_READINGS = 500, 21


class StretchQuery(BaseModel):
    """Of which bank, and which days."""

    bank: str = Field(default="", max_length=20, description="The first that has readings, if empty")
    from_day: int | None = Field(default=None, ge=-(2**20), le=2**20, description="Days since 1970")
    to_day: int | None = Field(default=None, ge=-(2**20), le=2**20)


class DaysQuery(BaseModel):
    """Of which bank, and before which day."""

    bank: str = Field(default="", max_length=20)
    before: int | None = Field(default=None, ge=-(2**20), le=2**20, description="Days since 1970")
    limit: int = Field(default=31, ge=1, le=400)


@api.get("/rigs/<int:rig_id>/log/monitor", responses={200: MonitorChartView})
def chart(path: RigPath, query: StretchQuery) -> Response:
    """What was logged over a stretch of days, thinned so that no peak is lost."""
    with database().reading() as db:
        style = read_stored(db, path.rig_id).style
        banks = monitor.banks(db, path.rig_id)
        bank = query.bank or next((b for b in BANKS if b in banks), "present")
        every = hours_of(monitor.hours(db, path.rig_id, bank))
        days = every.hour // 24
        first, last = (int(days[0]), int(days[-1])) if len(days) else (0, 0)
        start = max(first, min(last, first if query.from_day is None else query.from_day))
        end = max(start, min(last, last if query.to_day is None else query.to_day))
        # A day more on both sides, as readings are found by UTC and shown by the owner's clock.
        ends = (start - 1) * 86_400, (end + 2) * 86_400
        if end - start < DAYS_OF_READINGS and len(days):
            near = readings_of(monitor.between(db, path.rig_id, bank, *ends))
            within = (near.local // 86_400 >= start) & (near.local // 86_400 <= end)
            near = near.some(within)
            count, at = len(near), near.local
            low = high = {name: getattr(near, name) for name in QUANTITIES}
        else:
            within = (days >= start) & (days <= end)
            count = monitor.count(db, path.rig_id, bank, *ends) if len(days) else 0
            at = every.hour[within] * HOUR_S + HOUR_S // 2
            low, high = ({n: part[n][within] for n in QUANTITIES} for part in (every.low, every.high))
    names = quantity_names()
    shown = {"volts": "V", "amps": "A", "soc": "%", "celsius": "°F" if style.system == "us" else "°C"}
    series = []
    for name in QUANTITIES:
        if not len(at) or np.isnan(low[name]).all():
            continue
        t, a, b = thinned(at, low[name], high[name], POINTS)
        points = _points(t, _shown(name, a, style), _shown(name, b, style))
        series.append(MonitorSeriesView(key=name, name=names[name], unit=shown[name], points=points))
    bank_called = bank_names()
    view = MonitorChartView(
        bank=bank,
        banks=[MonitorChoiceView(key=b, name=bank_called[b], units=[]) for b in banks],
        first=first, last=last, from_day=start, to_day=end, series=series, count=count,
    )  # fmt: skip
    return json_response(view)


def _shown(name: str, values: np.ndarray, style: Style) -> np.ndarray:
    if name == "soc":
        return np.round(values * 100, 1)
    if name == "celsius":
        return np.round(fahrenheit(values) if style.system == US else values, 1)
    return np.round(values, 2)


def _points(at: np.ndarray, low: np.ndarray, high: np.ndarray) -> list[list[float | None]]:
    """Points, and one without a value in each gap, so that no line is drawn through it."""
    steps = np.diff(at)
    gap = max(3 * float(np.median(steps)), 900) if len(steps) else 0
    out: list[list[float | None]] = []
    for i, (t, a, b) in enumerate(zip(at.tolist(), low.tolist(), high.tolist(), strict=True)):
        if i and steps[i - 1] > gap:
            out.append([(t - int(steps[i - 1]) // 2) * 1000, None, None])
        out.append([t * 1000, None if a != a else a, None if b != b else b])
    return out


@api.get("/rigs/<int:rig_id>/log/days", responses={200: MonitorDaysView})
def days(path: RigPath, query: DaysQuery) -> Response:
    """Days with what went in and out, the newest first."""
    with database().reading() as db:
        style = read_stored(db, path.rig_id).style
        banks = monitor.banks(db, path.rig_id)
        bank = query.bank or next((b for b in BANKS if b in banks), "present")
        last = monitor.END if query.before is None else query.before * 24 - 1
        rows = monitor.hours(db, path.rig_id, bank, 0, last)
    found = by_day(hours_of(rows))
    shown = found[::-1][: query.limit]

    def cells(d: Any) -> list[str]:
        night = "—" if d.night_wh != d.night_wh else style.text(d.night_wh, "Wh")
        lowest = "—" if d.lowest["soc"] != d.lowest["soc"] else style.text(d.lowest["soc"], "%")
        highest = "—" if d.highest["soc"] != d.highest["soc"] else style.text(d.highest["soc"], "%")
        return [
            style.text(d.wh_out, "Wh"), style.text(d.wh_in, "Wh"), night, lowest, highest,
            style.text(d.covered, "%"),
        ]  # fmt: skip

    view = MonitorDaysView(
        head=[
            phrase("log.monitor.day"), phrase("log.monitor.out"), phrase("log.monitor.in"),
            phrase("log.monitor.night"), phrase("log.monitor.lowest"), phrase("log.monitor.highest"),
            phrase("log.monitor.covered"),
        ],
        days=[
            MonitorDayView(
                day=date.fromordinal(d.day + date(1970, 1, 1).toordinal()).isoformat(), cells=cells(d),
                whole=d.covered >= 0.9,
            )
            for d in shown
        ],
        more=len(found) > len(shown),
    )  # fmt: skip
    return json_response(view)


@api.get("/rigs/<int:rig_id>/log/readings.csv", answers=CSV)
def readings_csv(path: RigPath, query: DaysQuery) -> Response:
    """All readings of a bank as CSV, the oldest first, by the owner's clock."""
    with database().reading() as db:
        rig_file = read_stored(db, path.rig_id)
        banks = monitor.banks(db, path.rig_id)
        bank = query.bank or next((b for b in BANKS if b in banks), "present")
        rows = monitor.between(db, path.rig_id, bank)
    return as_file(readings_as_csv(rows), CSV, rig_file.rig.name, f"{bank}-readings.csv")
