"""Use by the monitor against the plan, and what of it can be tried in the plan."""

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.entry import PRESENT
from vast_harbor.core.log.use import LEAST_KNOWN, MeasuredUse, measured_use
from vast_harbor.formats.monitor_rows import hours_of
from vast_harbor.phrases import phrase
from vast_harbor.store import monitor
from vast_harbor.web.blueprint import Blueprint
from vast_harbor.web.harbor.routes import RigPath, database, json_response
from vast_harbor.web.plan.routes import evaluated_results
from vast_harbor.web.plan.views import style_of
from vast_harbor.web.views import OperationView, ProblemsView, View

api = Blueprint(
    "use", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


class UseFindingView(View):
    """Something that the monitor shows of the use, and what of it can be tried in the plan."""

    key: str
    text: str
    label: str = Field(description="What would be tried; empty for nothing")
    operations: list[OperationView]


class MeasuredUseView(View):
    """Use by the monitor against the plan."""

    days: int = Field(description="Days of use that count; 0 where nothing can be said")
    measured: str
    planned: str
    measured_w: list[float | None] = Field(description="By hour of the clock [W]")
    planned_w: list[float]
    findings: list[UseFindingView]


@api.get("/rigs/<int:rig_id>/log/use", responses={200: MeasuredUseView})
def use(path: RigPath) -> Response:
    """What is used, by the monitor of the bank in use, against the plan."""
    rig_file, _, results = evaluated_results(path.rig_id)
    style = style_of(rig_file)
    with database().reading() as db:
        hours = hours_of(monitor.hours(db, path.rig_id, PRESENT))
    found = measured_use(hours, results.day.profile)
    known = not np.isnan(found.day_wh)
    doubt = style.text(1.2816 * found.doubt_wh, "Wh") if known else ""
    view = MeasuredUseView(
        days=found.days,
        measured=phrase("log.use.measured", day=style.text(found.day_wh, "Wh"), doubt=doubt) if known else "",
        planned=style.text(found.planned_wh, "Wh"),
        measured_w=[None if w != w else round(w, 1) for w in found.watts.tolist()],
        planned_w=[round(w, 1) for w in found.planned_w.tolist()],
        findings=_findings(found, results.plan.standby_w, style),
    )
    return json_response(view)


def _findings(found: MeasuredUse, standby_w: float, style: Style) -> list[UseFindingView]:
    out = []
    if found.drain_w:
        more = max(1, round(standby_w + found.drain_w))
        out.append(
            UseFindingView(
                key="drain",
                text=phrase(
                    "log.use.drain", watts=style.text(found.night_w, "W"), count=found.nights,
                    planned=style.text(found.planned_night_w, "W"),
                    more=style.text(24 * found.drain_w, "Wh"),
                ),
                label=phrase("log.use.try_standby", watts=style.text(more, "W")),
                operations=[OperationView(op="replace", path="/day/standby_w", value=more)],
            )
        )  # fmt: skip
    if found.then_wh != found.now_wh:
        then, now = style.text(found.then_wh, "Wh"), style.text(found.now_wh, "Wh")
        text = (
            phrase("log.use.grew", then=then, now=now)
            if found.now_wh > found.then_wh
            else phrase("log.use.fell", then=then, now=now)
        )
        out.append(UseFindingView(key="change", text=text, label="", operations=[]))
    unknown = int(np.isnan(found.watts).sum())
    if found.days and unknown > 24 - LEAST_KNOWN:
        text = phrase("log.use.charged", count=unknown)
        out.append(UseFindingView(key="charged", text=text, label="", operations=[]))
    elif (
        found.days
        and not found.drain_w
        and abs(found.day_wh - found.planned_wh) <= max(2 * found.doubt_wh, 0.1 * found.planned_wh)
    ):
        out.append(UseFindingView(key="fits", text=phrase("log.use.fits"), label="", operations=[]))
    return out
