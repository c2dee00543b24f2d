"""The health of the bank in use, as the log tells it."""

import sqlite3
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, date, datetime

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.log.entry import PRESENT, Entry
from vast_harbor.core.log.evidence import YEAR_S, Found, Seen, of_acceptance, of_monitor, seen
from vast_harbor.core.log.followed_bank import FollowedBank, of_bought, of_old
from vast_harbor.core.log.health import COUNT, LONGER, SAG, SHORTER, STATED, TEST, Health, followed
from vast_harbor.core.log.readings import DAY_S
from vast_harbor.core.log.sharing import OffBattery, OffShare, off_batteries, off_shares
from vast_harbor.core.log.standing import Standing, standing
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import bank_in_use, looked
from vast_harbor.core.review.charging import Absorptions, absorptions
from vast_harbor.formats.monitor_rows import readings_of
from vast_harbor.phrases import phrase
from vast_harbor.store import log, monitor
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import Blueprint
from vast_harbor.web.base.database import counted_today, database
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View
from vast_harbor.web.state.evaluated import evaluated_results

api = Blueprint(
    "health", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip


EPOCH = date(1970, 1, 1).toordinal()


class HealthSeenView(View):
    """A measurement of the health."""

    day: str = Field(description="ISO date")
    years: float = Field(description="Age of the bank then [years]")
    kind: str
    name: str
    health: float
    low: float
    high: float
    text: str


class HealthView(View):
    """The health of the bank in use over its life."""

    why_not: str = Field(description="Why nothing can be said; empty where something can")
    title: str
    battery_class: str
    since: str = Field(description="ISO date; empty where it is not known")
    now: str
    lasts: str
    said: list[str] = Field(description="What follows, one sentence each")
    off: list[str] = Field(description="Batteries that are not like the others, one sentence each")
    ages: list[float]
    low: list[float]
    likely: list[float]
    high: list[float]
    now_years: float
    end: float = Field(description="Health at which it is replaced")
    ends: list[float] = Field(description="Age at which that is so: P10, P50, P90 [years]")
    before: list[float] = Field(description="The same before anything was measured")
    seen: list[HealthSeenView]


def followed_bank(results: Results, today: int) -> FollowedBank | None:
    """The bank in use with what is expected of it; None where the rig has none."""
    in_use = bank_in_use(results)
    if in_use is not None and in_use.changed_over and results.changeover is not None:
        return of_bought(results.changeover.work.compared, results.assumptions, in_use.since)
    return of_old(results.plan, results.banks.rig_limits, phrase("terms.names.old_bank"), today)


@dataclass(frozen=True, slots=True)
class LoggedHealth:
    """What the log says of the health of the bank in use.

    Attributes:
        bank: the bank; None where the rig has none.
        seen: what was measured of it; by_log: whether any of it is in the log, and not only its acceptance.
        off: its batteries that are not like the others; shares: those that share the current badly.
        stood: what it lost while it stood; None where nothing tells.
        now: its age [years].
        health: over its life; None where its age is not known.
        absorbed: its charges that came to absorption.
    """

    bank: FollowedBank | None = None
    seen: tuple[Seen, ...] = ()
    by_log: bool = False
    off: tuple[OffBattery, ...] = ()
    shares: tuple[OffShare, ...] = ()
    stood: Standing | None = None
    now: float = 0.0
    health: Health | None = None
    absorbed: Absorptions | None = None


def logged_health(rig_id: int, results: Results, today: int) -> LoggedHealth:
    """What the log says of the health of the bank in use.

    Args:
        rig_id, results: the rig, and its plan in figures.
        today: counted.
    """
    bank = followed_bank(results, today)
    if bank is None or bank.since is None or bank.since > today:
        return LoggedHealth(bank)
    began = (bank.since - EPOCH) * DAY_S
    with database().reading() as db:
        # What is told of the old bank was told before it was replaced, too.
        rows = [row for row in log.each(db, rig_id) if row["bank"] == PRESENT and row["at"] >= began]
        monitored, absorbed = _monitored(db, rig_id, bank, began)
    entries = [Entry(**row) for row in rows]
    accepted = tuple(_accepted(results, began))
    found = seen(bank, began, (today - EPOCH) * DAY_S, entries, (*monitored, *accepted))
    now = (today - bank.since) / (YEAR_S / DAY_S)
    made = followed(bank.expected, [s.measured for s in found], now)
    off = off_batteries(entries, bank.unit_v)
    idle = set(range(1, 13)) - set(results.plan.months or range(1, 13))
    stood = standing(bank, entries, idle, made.now[1])
    by_log = len(found) > len(accepted)
    return LoggedHealth(bank, found, by_log, off, off_shares(entries), stood, now, made, absorbed)


def _accepted(results: Results, began: int) -> Iterator[Found]:
    """What the acceptance test says of the bank in use, if that is the one that was bought."""
    in_use, made = bank_in_use(results), results.changeover
    if in_use is None or not in_use.changed_over or made is None or made.acceptance.health is None:
        return
    day = looked(results).get("look_evening")
    at = began if day is None else max(began, (day - EPOCH) * DAY_S)
    yield of_acceptance(at, made.acceptance.health)


@api.get("/rigs/<int:rig_id>/log/health", responses={200: HealthView})
def health(path: RigPath) -> Response:
    """Health over time from the life model and all that was measured, and when the bank ends."""
    today = counted_today()
    rig_file, _, results = evaluated_results(path.rig_id)
    told = logged_health(path.rig_id, results, today)
    if told.bank is None:
        return json_response(_none(phrase("log.health.no_bank")))
    if told.health is None:
        return json_response(_none(phrase("log.health.no_date"), told.bank))
    return json_response(_view(told, told.bank, told.health, rig_file.style))


# What needs every reading: what they say of the health, and charges that came to absorption.
Monitored = tuple[tuple[Found, ...], Absorptions]
_MONITORED: LruCache[tuple[str, int, str, str], Monitored] = LruCache(64)


def _monitored(db: sqlite3.Connection, rig_id: int, bank: FollowedBank, began: int) -> Monitored:
    """What the monitor says of a bank, read again only when readings came or went."""
    state = monitor.state(db, rig_id)
    what = repr((bank.battery_class.key, bank.cells, bank.ah, bank.exponents, began))

    def work_out() -> Monitored:
        readings = readings_of(monitor.between(db, rig_id, PRESENT, began))
        return of_monitor(bank, readings), absorptions(bank, readings)

    return _MONITORED.of((str(database().path), rig_id, state, what), work_out)


def _none(why: str, bank: FollowedBank | None = None) -> HealthView:
    return HealthView(
        why_not=why, title=bank.title if bank else "", battery_class=bank.battery_class.key if bank else "",
        since="", now="", lasts="", said=[], off=[], ages=[], low=[], likely=[], high=[], now_years=0,
        end=0, ends=[], before=[], seen=[],
    )  # fmt: skip


def _percent(style: Style, value: float) -> str:
    return style.text(value, "%")


def _years(style: Style, value: float) -> str:
    return style.text(value, "years")


def _range(low: str, high: str) -> str:
    if low == high:
        return low
    # The unit stands once, after both.
    number, _, unit = low.replace("\u202f", " ").rpartition(" ")
    same = number and high.replace("\u202f", " ").endswith(f" {unit}")
    return phrase("log.health.range", low=number if same else low, high=high)


def _view(told: LoggedHealth, bank: FollowedBank, made: Health, style: Style) -> HealthView:
    found, now = told.seen, told.now
    names = {
        TEST: phrase("log.health.by_test"),
        COUNT: phrase("log.health.by_count"),
        SAG: phrase("log.health.by_sag"),
        STATED: phrase("log.health.stated"),
    }
    likely = _percent(style, made.now[1])
    now_range = _range(_percent(style, made.now[0]), _percent(style, made.now[2]))
    left = [max(0.0, end - now) for end in made.ends]
    assert bank.since is not None
    return HealthView(
        why_not="",
        title=bank.title,
        battery_class=bank.battery_class.key,
        since=date.fromordinal(bank.since).isoformat(),
        now=phrase("log.health.now", likely=likely, range=now_range),
        lasts=_lasts(left, style),
        said=_said(bank, made, found, style),
        off=off_texts(told, style),
        ages=_list(made.ages),
        low=_list(made.low),
        likely=_list(made.likely),
        high=_list(made.high),
        now_years=round(now, 3),
        end=bank.expected.end,
        ends=list(made.ends),
        before=list(made.before),
        seen=[
            HealthSeenView(
                day=datetime.fromtimestamp(s.at, UTC).date().isoformat(),
                years=round(s.measured.years, 3),
                kind=s.measured.kind,
                name=names[s.measured.kind],
                health=round(s.measured.health, 4),
                low=round(s.measured.range[0], 4),
                high=round(s.measured.range[1], 4),
                text=_percent(style, s.measured.health),
            )
            for s in found
        ],
    )


def off_texts(told: LoggedHealth, style: Style) -> list[str]:
    """What is not as it should be between the batteries, and while the bank stands, one sentence each."""
    out = [off_text(one, style) for one in told.off]
    out += [
        phrase("log.health.share", number=s.number, share=style.text(s.share, "%"), count=s.rounds)
        for s in told.shares
    ]
    if told.stood is not None and told.stood.much:
        low, high, usual = (style.text(x, "%") for x in (told.stood.low, told.stood.high, told.stood.usual))
        days = style.text(round(told.stood.days), "days")
        out.append(phrase("log.health.stood", days=days, range=_range(low, high), usual=usual))
    return out


def off_text(one: OffBattery, style: Style) -> str:
    """How a battery is off the others, in one sentence."""

    def volts(value: float) -> str:
        return style.meter_volts(abs(value))

    if one.off_v > 0:
        return phrase("log.health.ahead", number=one.number, off=volts(one.off_v), count=one.rounds)
    if one.a_month_v < 0 and abs(one.a_month_v) >= 0.005:
        a_month = volts(one.a_month_v)
        return phrase(
            "log.health.falls_behind",
            number=one.number,
            off=volts(one.off_v),
            count=one.rounds,
            a_month=a_month,
        )
    return phrase("log.health.behind", number=one.number, off=volts(one.off_v), count=one.rounds)


def _list(values: np.ndarray) -> list[float]:
    return [round(float(v), 4) for v in values]


def _lasts(left: list[float], style: Style) -> str:
    if left[1] == 0:
        return phrase("log.health.over")
    low, likely, high = (_years(style, x) for x in left)
    return phrase("log.health.lasts", likely=likely, range=_range(low, high))


def _said(bank: FollowedBank, made: Health, found: tuple[Seen, ...], style: Style) -> list[str]:
    """What follows from it, in words that claim no more than the ranges do."""
    if not found:
        return [phrase("log.health.nothing_measured")]
    out = []
    likely = made.before[1]
    times = f"{made.ends[1] / max(likely, 0.1):.1f}".replace(".", style.numbers.decimal)
    if made.lasts == SHORTER:
        out.append(phrase("log.health.shorter", times=times))
    elif made.lasts == LONGER:
        out.append(phrase("log.health.longer", times=times))
    else:
        out.append(phrase("log.health.as_expected"))
    kinds = {s.measured.kind for s in found}
    if kinds == {SAG}:
        out.append(phrase("log.health.only_sag"))
    if made.test_helps(kinds):
        out.append(phrase("log.health.test_helps"))
    return out
