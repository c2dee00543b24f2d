"""Use by the monitor against the plan, and what of it can be tried in the plan."""

from collections.abc import Mapping

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.entry import PRESENT
from vast_harbor.core.log.use import LEAST_HOURS, LEAST_KNOWN, MeasuredUse, use_by_kind
from vast_harbor.core.passage import Results
from vast_harbor.core.review.season import differs
from vast_harbor.core.stops.day import MEASURED
from vast_harbor.formats.monitor_rows import hours_of
from vast_harbor.phrases import phrase
from vast_harbor.store import monitor
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import OperationView, ProblemsView, View
from vast_harbor.web.state.evaluated import evaluated_results

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


class DayKindView(View):
    """A kind of day."""

    id: str
    name: str


class UseQuery(BaseModel):
    """Of which kind of day."""

    kind: str = Field(default="", max_length=40, description="The one that was logged last, if empty")


class MeasuredUseView(View):
    """Use by the monitor against the plan."""

    kind: str = Field(description="Id of the kind of day that it is about")
    kinds: list[DayKindView] = Field(description="Kinds of day of which there is a log, the latest first")
    days: int = Field(description="Days of use that count; 0 where nothing can be said")
    measured: str
    planned: str
    measured_w: list[float | None] = Field(description="By hour of the clock [W]")
    planned_w: list[float]
    findings: list[UseFindingView]


def logged_use(rig_id: int, results: Results) -> Mapping[str, MeasuredUse]:
    """What the monitor of the bank in use counted, by kind of day, the latest first."""
    with database().reading() as db:
        hours = hours_of(monitor.hours(db, rig_id, PRESENT))
    return use_by_kind(hours, results.plan, results.days)


@api.get("/rigs/<int:rig_id>/log/use", responses={200: MeasuredUseView})
def use(path: RigPath, query: UseQuery) -> Response:
    """What is used, by the monitor of the bank in use, against the plan."""
    rig_file, _, results = evaluated_results(path.rig_id)
    style = rig_file.style
    uses = logged_use(path.rig_id, results)
    # At the beginning of a season the last kind of day has nothing to tell yet.
    telling = (k for k, one in uses.items() if not np.isnan(one.day_wh))
    kind = query.kind if query.kind in uses else next(telling, next(iter(uses)))
    found = uses[kind]
    known = not np.isnan(found.day_wh)
    doubt = style.use(found.off_wh, "Wh") if known else ""
    view = MeasuredUseView(
        kind=kind,
        kinds=[DayKindView(id=k, name=results.days.days[k].type.name) for k in uses],
        days=found.days,
        measured=phrase("log.use.measured", day=style.use(found.day_wh, "Wh"), doubt=doubt) if known else "",
        planned=style.use(found.planned_wh, "Wh"),
        measured_w=[None if w != w else round(w, 1) for w in found.watts.tolist()],
        planned_w=[round(w, 1) for w in found.planned_w.tolist()],
        findings=_findings(
            found, results.plan.standby_w, results.plan.type_path(results.days.days[kind].type), style
        ),
    )
    return json_response(view)


def taken_over(found: MeasuredUse, type_path: str) -> list[OperationView]:
    """What enters a measured day into the plan."""
    fields = ((f"{type_path}/measured_wh", round(found.day_wh)), (f"{type_path}/measured_hours", 24),
              ("/plan/day_basis", MEASURED))  # fmt: skip
    return [OperationView(op="replace", path=p, value=v) for p, v in fields]


def _findings(found: MeasuredUse, standby_w: float, type_path: str, style: Style) -> list[UseFindingView]:
    out = []
    if differs(found):
        day = style.use(found.day_wh, "Wh")
        out.append(
            UseFindingView(
                key="measured", text=phrase("log.use.differs"),
                label=phrase("log.use.try_measured", day=day), operations=taken_over(found, type_path),
            )
        )  # fmt: skip
    if found.drain_w:
        more = max(1, round(standby_w + found.drain_w))
        out.append(
            UseFindingView(
                key="drain",
                text=phrase(
                    "log.use.drain", watts=style.text(found.night_w, "W"), count=found.nights,
                    planned=style.text(found.planned_night_w, "W"),
                    more=style.use(24 * found.drain_w, "Wh"),
                ),
                label=phrase("log.use.try_standby", watts=style.text(more, "W")),
                operations=[OperationView(op="replace", path="/day/standby_w", value=more)],
            )
        )  # fmt: skip
    if found.then_wh != found.now_wh:
        then, now = style.use(found.then_wh, "Wh"), style.use(found.now_wh, "Wh")
        text = (
            phrase("log.use.grew", then=then, now=now)
            if found.now_wh > found.then_wh
            else phrase("log.use.fell", then=then, now=now)
        )
        out.append(UseFindingView(key="change", text=text, label="", operations=[]))
    unknown = int(np.isnan(found.watts).sum())
    if 0 < found.days < LEAST_HOURS:
        text = phrase("log.use.few_days", least=LEAST_HOURS)
        out.append(UseFindingView(key="few", text=text, label="", operations=[]))
    elif found.days and unknown > 24 - LEAST_KNOWN:
        text = phrase("log.use.charged", count=unknown)
        out.append(UseFindingView(key="charged", text=text, label="", operations=[]))
    elif found.days and not found.drain_w and not differs(found):
        out.append(UseFindingView(key="fits", text=phrase("log.use.fits"), label="", operations=[]))
    return out
