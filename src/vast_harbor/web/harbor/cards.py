"""The rigs as cards: a page of them, and what each shows, worked out once and kept with the rig."""

import logging
import sqlite3
import time
from collections.abc import Callable, Iterator
from datetime import timedelta
from functools import lru_cache
from importlib.resources import files as resources
from pathlib import Path
from threading import Thread

from flask import Flask, Response
from pydantic import BaseModel, Field

from vast_harbor import __version__, data, memory
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.packages import is_asked, packages_of
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import bank_in_use, reminders
from vast_harbor.core.sensitivity.open_topics import open_topics
from vast_harbor.core.stops.banks import BLOCKING, CAUTION
from vast_harbor.core.stops.compare import BUY, verdict_text
from vast_harbor.phrases import phrase
from vast_harbor.store import cards, rigs
from vast_harbor.store.database import Database
from vast_harbor.store.rigs import StoredRig, days_ago
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import ON_DUTIES, WORKED_OUT
from vast_harbor.web.base.database import database, today
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import TokenView, tokens, view_of
from vast_harbor.web.harbor.routes import api
from vast_harbor.web.plan.models import StripView
from vast_harbor.web.plan.views import strip
from vast_harbor.web.state.evaluated import known_or_new

log = logging.getLogger(__name__)

# The background looks this often [s], at so many rigs, once they have been left alone for a while.
LOOK_EVERY_S, LOOK_AT, LEFT_ALONE = 5, 200, timedelta(seconds=20)
# It works only when nothing has been asked for so long [s].
QUIET_S = 2.0


class CardCheckView(BaseModel):
    """Something to look at on a stop."""

    stop: str
    name: str = Field(description="What, in a word or two; empty where the name of the stop says it")


class CardFigures(BaseModel):
    """What of a card has to be worked out: the figures of its stops, and the result in a sentence."""

    strip: list[StripView]
    result: list[TokenView]
    looking: bool = Field(
        default=False, description="Whether it is still to be seen what helps beside the bank"
    )
    provisional: bool = Field(
        default=False, description="Whether what is not stated could turn a result that does not say so"
    )
    battery_class: str = Field(default="", description="Of the bank that is advised, kept or in use")
    cost: str = Field(default="", description="What the advised bank costs a cycle, else a year")
    outlay: str = Field(default="", description="Its up-front cost, with what is done beside it")
    worst: str = Field(default="", description="blocking or caution; empty where nothing is to be looked at")
    checks: list[CardCheckView] = Field(default=[], description="What is so, each once")
    due: list[str] = Field(default=[], description="Duties of its bank that are due")
    guide: str = Field(default="", description="The question of the guided start to go on with")


class CardView(BaseModel):
    """A rig as a card; its figures only where they are known already."""

    id: int
    name: str
    kind: str
    notes: str
    figures: CardFigures | None
    fresh: bool = Field(description="Whether its figures are of today; older ones are shown meanwhile")


class CardsQuery(BaseModel):
    """Which of the rigs."""

    search: str = Field(default="", max_length=200, description="Words that all occur in name, kind or notes")
    page: int = Field(default=1, ge=1, le=100_000)


class CardsView(BaseModel):
    """A page of the rigs, what was changed last first."""

    rigs: list[CardView]
    found: int = Field(description="How many the search found")
    all: int = Field(description="How many there are")
    pages: int


@api.get("/rigs", responses={200: CardsView})
def list_rigs(query: CardsQuery) -> Response:
    """The rigs, with the figures that are known of them."""
    with database().reading() as db:
        found = cards.listed(db, today(), build(), query.search, query.page)
    return json_response(
        CardsView(
            rigs=[
                view_of(
                    CardView,
                    c,
                    fresh=c.fresh and c.figures is not None,
                    figures=None if c.figures is None else CardFigures.model_validate_json(c.figures),
                )
                for c in found.cards
            ],
            found=found.found,
            all=found.all,
            pages=max(1, -(-found.found // cards.PAGE)),
        )
    )


class CardQuery(BaseModel):
    """How much of a card is worked out."""

    whole: bool = Field(
        default=False, description="Whether what helps beside the bank is looked for, which takes seconds"
    )


@api.get("/rigs/<int:rig_id>/card", lane=WORKED_OUT, rests_on=ON_DUTIES, responses={200: CardFigures})
def rig_card(path: RigPath, query: CardQuery) -> Response:
    """The live figures of a rig for its card."""
    return json_response(work_out(database(), path.rig_id, today(), query.whole))


_WORKED_OUT: LruCache[tuple[Path, int, int, str, str, bool], CardFigures] = LruCache(64)


def work_out(where: Database, rig_id: int, today: str, whole: bool = True) -> CardFigures:
    """Work out what the card of a rig shows, and keep it with the rig.

    Args:
        where: the database.
        rig_id: which rig.
        today: ISO date.
        whole: whether what helps beside the bank is looked for, too.

    Returns:
        Its figures.

    Raises:
        Missing: there is no such rig.
        RigFileError: it cannot be read.
    """
    with where.reading() as db:
        stored = rigs.get(db, rig_id)
    key = (where.path, rig_id, stored.revision, today, repr(stored.log))
    known = _WORKED_OUT.get((*key, True))
    return known or _WORKED_OUT.of((*key, whole), lambda: _kept(where, stored, today, whole))


def _kept(where: Database, stored: StoredRig, today: str, whole: bool) -> CardFigures:
    figures = _figures(stored, today, whole)
    # A card with which it is not done is of no day: it is gone on with.
    day = "" if figures.looking else today
    try:
        with where.writing() as db:
            cards.keep(db, stored.id, stored.revision, day, build(), figures.model_dump_json())
    except (sqlite3.Error, Trouble) as error:
        # It is shown all the same, and worked out again the next time.
        log.info("the card of rig %s was not kept: %s", stored.id, error)
    return figures


def _figures(stored: StoredRig, today: str, whole: bool) -> CardFigures:
    rig, results = known_or_new(stored.document, today)
    style = rig.style
    asked = not results.runs and is_asked(results)
    if whole and asked:
        packages_of(results, data.reference())
    told = strip(results, rig, style, stored.log)
    worst = next((s for s in (BLOCKING, CAUTION) if any(view.attention == s for view in told)), "")
    return CardFigures(
        strip=told,
        **_answer(results, style),
        worst=worst,
        checks=list(_to_check(results, told, worst)),
        due=[duty.title for duty in reminders(results, stored.log)],
        result=tokens(results.runs or verdict_text.headline(results.verdict), style),
        looking=not whole
        and not results.runs
        and is_asked(results)
        and results.verdict.answer.packages is None,
        # "For now" says so already.
        provisional=not verdict_text.is_for_now(results.verdict)
        and open_topics(results, data.reference()).provisional,
        guide=rig.guide,
    )


def _answer(results: Results, style: Style) -> dict[str, str]:
    """Class and cost of what is advised; the class alone of a bank that is in and running."""
    verdict = results.verdict
    package, winner = verdict_text.advised(verdict), verdict.winner
    if (in_use := bank_in_use(results)) is not None and results.runs:
        return {"battery_class": in_use.battery_class.key}
    if package is not None:
        cost = package.figures["per_cycle"]
        per = "" if cost.value is None or package.keeps else style.text(cost.value, cost.unit)
        outlay = package.figures["outlay"]
        return {
            "battery_class": package.class_key, "cost": per, "outlay": style.text(outlay.value, outlay.unit)
        }  # fmt: skip
    if winner is None or verdict.kind != BUY:
        return {}
    cost = winner.cost["per_cycle"] if winner.cost["per_cycle"].value is not None else winner.cost["per_year"]
    outlay = winner.cost["outlay"]
    return {
        "battery_class": winner.banked.battery_class.key,
        "cost": style.text(cost.value, cost.unit),
        "outlay": style.text(outlay.value, outlay.unit),
    }


def _to_check(results: Results, told: list[StripView], worst: str) -> Iterator[CardCheckView]:
    """What the mark of a card means, in the order of the stops: a check of the bank by its name."""
    winner = results.verdict.winner
    names = {} if winner is None else {c.code: c.name for c in winner.banked.checks}
    seen = set()
    for stop in (view.stop for view in told if worst and view.attention == worst):
        found = [f for f in results.plan_findings if f.stop == stop and f.severity == worst]
        stopped = phrase("answers.cards.reading") if stop == "changeover" and worst == BLOCKING else ""
        for name in [names.get(f.code, "") for f in found] or [stopped]:
            if (stop, name) not in seen:
                seen.add((stop, name))
                yield CardCheckView(stop=stop, name=name)


@lru_cache(maxsize=1)
def build() -> str:
    """Which program works the cards out: its version, and when its files were changed last."""
    folder = Path(str(resources("vast_harbor")))
    of_it = [p for kind in ("*.py", "*.toml", "*.csv") for p in folder.rglob(kind)]
    return f"{__version__} {max(p.stat().st_mtime_ns for p in of_it)}"


def renew_in_background(app: Flask) -> None:
    """Work out cards that are out of date, one by one, beside the server.

    Args:
        app: the application.
    """

    def quiet() -> bool:
        asked: float = app.config["ASKED_AT"]
        return time.monotonic() - asked >= QUIET_S

    Thread(target=_renew, args=(app.config["DATABASE"], app.config["TODAY"], quiet), daemon=True).start()


def _renew(where: Database, today: Callable[[], str], quiet: Callable[[], bool]) -> None:
    failed: set[tuple[int, int]] = set()
    while True:
        day = today()
        try:
            with where.reading() as db:
                waiting = cards.outdated(db, day, build(), LOOK_AT, days_ago(LEFT_ALONE))
        except (sqlite3.Error, Trouble):
            waiting = []
        for rig_id, revision in waiting:
            if (rig_id, revision) in failed:
                continue
            while not quiet():
                time.sleep(QUIET_S / 2)
                memory.give_back()
            try:
                work_out(where, rig_id, day)
            except Exception as error:
                failed.add((rig_id, revision))
                log.info("the card of rig %s could not be worked out: %s", rig_id, error)
        memory.give_back()
        time.sleep(LOOK_EVERY_S)
