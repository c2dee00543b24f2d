"""The season review: whether the verdict would be the same today, and what to do before the next season."""

from collections.abc import Iterator, Mapping
from typing import Literal

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor import data
from vast_harbor.core.battery.ageing import health_at
from vast_harbor.core.figures.display import Style
from vast_harbor.core.log.duties import Duty
from vast_harbor.core.log.use import MeasuredUse
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import as_old_bank, duties_of
from vast_harbor.core.review.season import (
    CHARGE,
    DANGER,
    HEALTH,
    OVER,
    PREPARE,
    SMALL,
    UNKNOWN,
    USE,
    WAIT,
    Review,
    differs,
    drain_of,
    review,
)
from vast_harbor.core.review.so_far import SoFar
from vast_harbor.core.stops.compare import Verdict
from vast_harbor.formats.log_papers.document import paper
from vast_harbor.formats.report.document import style_of_page
from vast_harbor.phrases import phrase
from vast_harbor.store.log import last_days
from vast_harbor.telling.times import day_text
from vast_harbor.web.base.answers import as_file, json_response
from vast_harbor.web.base.blueprint import HTML, ON_LOG, WORKED_OUT, Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.security import content_policy
from vast_harbor.web.base.views import OperationView, ProblemsView, TokenView, View, tokens
from vast_harbor.web.log.health import LoggedHealth, logged_health, off_texts
from vast_harbor.web.log.use import logged_use, taken_over
from vast_harbor.web.log.went import went_so_far
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "review", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

# What is due within so long belongs to the review [days].
AHEAD_DAYS = 60


class ReviewedView(View):
    """Something that the log knows better than the plan."""

    key: str
    name: str
    planned: str
    logged: str


class ReviewView(View):
    """Whether the verdict would be the same today."""

    title: str = Field(description="Of the bank in use; empty where there is none")
    answer: str
    headline: str
    why: list[str]
    same: bool
    verdict: list[str] = Field(description="Whether the verdict is the same, and what turns it")
    planned: list[TokenView]
    now: list[TokenView]
    known: list[ReviewedView]
    todo: list[str]
    operations: list[OperationView] = Field(description="What enters the measured use into the plan")


@api.get("/rigs/<int:rig_id>/log/review", lane=WORKED_OUT, rests_on=ON_LOG, responses={200: ReviewView})
def season_review(path: RigPath) -> Response:
    """The season review."""
    return json_response(_reviewed(path.rig_id)[0])


class PaperQuery(BaseModel):
    """On which paper, and whether as a file."""

    paper: Literal["", "a4", "letter"] = Field(default="", description="That of the owner's units, if empty")
    save: bool = Field(default=False, description="As a file to keep")


@api.get("/rigs/<int:rig_id>/log/review/paper", lane=WORKED_OUT, rests_on=ON_LOG, answers=HTML)
def review_paper(path: RigPath, query: PaperQuery) -> Response:
    """The season review as one HTML document."""
    view, name, style = _reviewed(path.rig_id)
    return printed("review.html", view, name, style, query)


def printed(template: str, view: View, name: str, style: Style, query: PaperQuery) -> Response:
    """A page of the log on the owner's paper."""
    size = query.paper or ("letter" if style.system == "us" else "a4")
    today = day_text(counted_today(), style)
    html = paper(template, view.model_dump(), name, today, size)
    response = as_file(html, "text/html", name, f"{template}.html", query.save)
    response.headers["Content-Security-Policy"] = content_policy(style_of_page(html))
    return response


def _reviewed(rig_id: int) -> tuple[ReviewView, str, Style]:
    today = counted_today()
    rig_file, plan, results = evaluated_results(rig_id)
    style = rig_file.style
    told = logged_health(rig_id, results, today)
    use = logged_use(rig_id, results)
    in_use = as_old_bank(results, today)
    bought = in_use is not None and not in_use.kept
    counted = went_so_far(rig_id, results, told)
    went = None if counted is None else counted[1]
    found = review(results, data.reference(), use, told.bank, in_use, told.health, went)
    with database().reading() as db:
        due = duties_of(results, last_days(db, rig_id), today)
    todo = [*_of_log(told, use, style), *_of_prices(found.verdict, style)]
    todo += [_due(d, today, style) for d in due if d.due <= today + AHEAD_DAYS]
    operations = [
        operation
        for kind, measured in use.items()
        if differs(measured)
        for operation in taken_over(measured, plan.type_path(results.days.days[kind].type))
    ]
    return ReviewView(
        title=told.bank.title if told.bank else "",
        answer=found.answer,
        headline=_headline(found),
        why=_why(found, results, told, went, style),
        same=found.same,
        verdict=[*_turns(found), *_drain_first(found, use, style)],
        planned=tokens(found.planned, style),
        now=tokens(found.now, style),
        known=list(_known(results, told, use, bought, style)),
        todo=todo,
        operations=operations,
    ), plan.name, style  # fmt: skip


def _headline(found: Review) -> str:
    texts = {
        WAIT: phrase("log.review.wait"),
        SMALL: phrase("log.review.small"),
        CHARGE: phrase("log.review.charge"),
        PREPARE: phrase("log.review.prepare"),
        OVER: phrase("log.review.over"),
        DANGER: phrase("log.review.danger"),
        UNKNOWN: phrase("log.review.unknown"),
    }
    return texts[found.answer]


def _why(found: Review, results: Results, told: LoggedHealth, went: SoFar | None, style: Style) -> list[str]:
    if found.answer == DANGER:
        return [results.verdict.danger]
    if told.health is None or told.bank is None:
        return [phrase("log.review.unknown_why")]
    health, soon = style.text(told.health.now[1], "%"), _chance(told.health.soon, style)
    usable, need = style.text(found.usable_wh, "Wh"), style.use(found.need_wh, "Wh")
    out = []
    if found.answer == WAIT:
        out.append(phrase("log.review.wait_why", health=health, usable=usable, need=need, soon=soon))
    elif found.answer == SMALL:
        wanted = style.text(found.verdict.days.need.nights.number, "nights")
        nights = style.text(found.nights, "nights")
        out.append(
            phrase("log.review.small_why", health=health, usable=usable, need=need, soon=soon,
                   nights=nights, wanted=wanted)
        )  # fmt: skip
    elif found.answer == CHARGE and went is not None:
        days = phrase("log.so_far.of_days", count=went.days_told, number=went.short_days)
        out.append(phrase("log.review.charge_why", health=health, days=days))
    elif found.answer == PREPARE:
        out.append(phrase("log.review.prepare_why", health=health, soon=soon))
    else:
        out.append(phrase("log.review.over_why", health=health, end=style.text(told.bank.expected.end, "%")))
    if not told.seen:
        out.append(phrase("log.review.unmeasured"))
    return out


def _turns(found: Review) -> list[str]:
    if not found.changes:
        return [phrase("log.review.nothing")]
    if found.same:
        return [phrase("log.review.same")]
    texts = {USE: phrase("log.review.use_turns"), HEALTH: phrase("log.review.health_turns")}
    turning = [texts[c.key] for c in found.changes if c.turns]
    return [phrase("log.review.other"), *(turning or [phrase("log.review.both_turn")])]


def _drain_first(found: Review, use: Mapping[str, MeasuredUse], style: Style) -> Iterator[str]:
    """A bank is not bought for what a drain takes."""
    drain = drain_of(use)
    if drain and any(c.key == USE for c in found.changes):
        yield phrase("log.review.drain_first", more=style.use(24 * drain, "Wh"))


def _chance(chance: float, style: Style) -> str:
    least = 0.01
    if chance < least:
        return phrase("log.review.under", chance=style.text(least, "%"))
    return style.text(round(chance, 2), "%")


def _due(duty: Duty, today: int, style: Style) -> str:
    if duty.due == today:
        return phrase("log.review.due_now", title=duty.title)
    day = day_text(duty.due, style)
    if duty.due < today:
        return phrase("log.review.due_since", title=duty.title, day=day)
    return phrase("log.review.due", title=duty.title, day=day)


def _known(
    results: Results, told: LoggedHealth, use: Mapping[str, MeasuredUse], bought: bool, style: Style
) -> Iterator[ReviewedView]:
    for kind, found in use.items():
        if found.day_wh == found.day_wh:
            doubt = style.use(found.off_wh, "Wh")
            yield ReviewedView(
                key=USE, name=phrase("log.review.use", kind=results.days.days[kind].type.name),
                planned=style.use(found.planned_wh, "Wh"),
                logged=phrase("log.use.measured", day=style.use(found.day_wh, "Wh"), doubt=doubt),
            )  # fmt: skip
    if told.health is not None:
        low, likely, high = (style.text(x, "%") for x in told.health.now)
        bank, carries = told.bank, results.banks.old_carries
        assert bank is not None
        if bought:
            wear = np.array(bank.expected.wear_a_year * told.now)
            planned = style.text(float(health_at(wear, bank.expected.lead)), "%")
        else:
            planned = style.text(carries["soh"].number, "%") if carries else ""
        yield ReviewedView(
            key=HEALTH, name=phrase("log.review.health"),
            planned=planned or phrase("log.review.nothing_known"),
            logged=phrase("log.review.health_logged", likely=likely, low=low, high=high),
        )  # fmt: skip


def _of_log(told: LoggedHealth, use: Mapping[str, MeasuredUse], style: Style) -> Iterator[str]:
    drain = drain_of(use)
    if drain:
        yield phrase("log.review.drain", watts=style.text(drain, "W"), more=style.use(24 * drain, "Wh"))
    yield from off_texts(told, style)


def _of_prices(verdict: Verdict, style: Style) -> Iterator[str]:
    """Prices that are too old to decide by."""
    if verdict.winner is None:
        return
    for check in verdict.winner.banked.checks:
        if check.code == "price_age" and check.verdict == "caution" and check.figure is not None:
            months = style.text(check.figure.value, "months")
            yield phrase("log.review.price", title=verdict.winner.title, months=months)
