"""What the log found that the plan does not know: beside the suspects of the old bank, and the verdict."""

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results
from vast_harbor.core.review.season import differs, drain_of, seldom_full
from vast_harbor.core.review.so_far import SoFar
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import ON_LOG, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import counted_today
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.log.health import LoggedHealth, logged_health
from vast_harbor.web.log.use import logged_use
from vast_harbor.web.log.went import went_so_far
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "found", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


class LogFoundView(View):
    """What the log found, one sentence each; empty where it found nothing."""

    bank: str = Field(description="Of the health of the bank that the diagnosis is about")
    charger: str
    drain: str
    verdict: str = Field(description="That the verdict does not count it yet")


@api.get("/rigs/<int:rig_id>/log/found", lane=WORKED_OUT, rests_on=ON_LOG, responses={200: LogFoundView})
def what_log_found(path: RigPath) -> Response:
    """What the log found that the plan does not know."""
    today = counted_today()
    rig_file, _, results = evaluated_results(path.rig_id)
    style, told = rig_file.style, logged_health(path.rig_id, results, today)
    counted = went_so_far(path.rig_id, results, told)
    use = logged_use(path.rig_id, results)
    drain = drain_of(use)
    bank, charger = _of_bank(told, results, style), _of_charger(told, counted[1] if counted else None)
    known = any(differs(u) for u in use.values()) or bool(drain or charger or told.by_log)
    return json_response(
        LogFoundView(
            bank=bank,
            charger=charger,
            drain=phrase("log.found_there.drain", watts=style.text(drain, "W")) if drain else "",
            verdict=phrase("log.found_there.verdict") if known else "",
        )
    )


def _of_bank(told: LoggedHealth, results: Results, style: Style) -> str:
    """Its health, while it is the bank of the diagnosis that runs."""
    if results.runs is not None or told.health is None or not told.seen:
        return ""
    low, likely, high = (style.text(x, "%") for x in told.health.now)
    return phrase("log.found_there.bank", likely=likely, low=low, high=high)


def _of_charger(told: LoggedHealth, went: SoFar | None) -> str:
    if not seldom_full(told.bank, went) or went is None:
        return ""
    days = phrase("log.so_far.of_days", count=went.days_told, number=went.short_days)
    return phrase("log.found_there.charger", days=days)
