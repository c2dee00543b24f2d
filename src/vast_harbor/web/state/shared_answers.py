"""What is worked out of one state of a rig is worked out once: for all who ask, and for who asks again."""

import hashlib
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from functools import wraps
from typing import Any

from flask import Flask, Response, current_app, request
from werkzeug.datastructures import Headers

from vast_harbor.core.figures.lru_cache import LruCache
from vast_harbor.core.figures.patience import Road, while_wanted
from vast_harbor.store import log, monitor, pictures, rigs
from vast_harbor.store.database import Database
from vast_harbor.store.log import last_days
from vast_harbor.web.base.blueprint import ON_DUTIES, ON_LOG, PLAIN, QUICK, WORKED_OUT, facts_of
from vast_harbor.web.base.database import today
from vast_harbor.web.base.queries import LARGEST_ID

# Answers are kept until they take up this [bytes].
MOST_BYTES = 12_000_000


@dataclass(frozen=True, slots=True)
class _Answer:
    body: bytes
    status: int
    headers: tuple[tuple[str, str], ...]

    def response(self) -> Response:
        return Response(self.body, self.status, Headers(list(self.headers)))


class _Edited(Exception):
    """The rig was edited while this was worked out of it: it is told, and not kept for the rig as it was."""

    def __init__(self, answer: _Answer) -> None:
        self.answer = answer


ROAD = Road()
_ANSWERS: LruCache[tuple[str, ...], _Answer] = LruCache(MOST_BYTES, lambda a: len(a.body) + 1000)


def forget() -> None:
    """Forget what was answered."""
    _ANSWERS.clear()


def somebody_waits() -> bool:
    """Whether who asked is still there; other servers than ours do not tell."""
    gone = request.environ.get("waitress.client_disconnected")
    return gone is None or not gone()


def share(app: Flask) -> None:
    """Answer what is worked out from what was answered before, give up what nobody waits for, and let what is
    quick go first.

    Args:
        app: the application with all its routes.
    """
    for endpoint, view in app.view_functions.items():
        facts = facts_of(app, endpoint)
        if facts.lane == WORKED_OUT:
            app.view_functions[endpoint] = _shared(view, facts.rests_on)
        elif facts.lane == QUICK and facts is not PLAIN:
            app.view_functions[endpoint] = _quick(view)


def _quick(view: Callable[..., Any]) -> Callable[..., Any]:
    @wraps(view)
    def answer(**parts: Any) -> Any:
        with ROAD.quick():
            return view(**parts)

    return answer


def _still_wanted() -> bool:
    ROAD.give_way()
    return somebody_waits()


def _state(db: sqlite3.Connection, rig_id: int, rests_on: str) -> str:
    """What an answer is worked out from."""
    document = rigs.document_text(db, rig_id)
    if rests_on == ON_DUTIES:
        return f"{document}{last_days(db, rig_id)}"
    if rests_on == ON_LOG:
        shown = [picture.id for picture in pictures.listed(db, rig_id)]
        return f"{document}{log.state(db, rig_id)}{monitor.state(db, rig_id)}{shown}"
    return document


def _shared(view: Callable[..., Any], rests_on: str) -> Callable[..., Response]:
    @wraps(view)
    def answer(**parts: Any) -> Response:
        if parts["rig_id"] > LARGEST_ID:
            return current_app.make_response(view(**parts))
        database: Database = current_app.config["DATABASE"]
        with database.reading() as db:
            state = _state(db, parts["rig_id"], rests_on)
        digest = hashlib.sha256(state.encode()).hexdigest()
        key = (str(database.path), request.full_path, digest, today())

        def make() -> _Answer:
            with while_wanted(_still_wanted):
                made = current_app.make_response(view(**parts))
            found = _Answer(made.get_data(), made.status_code, tuple(made.headers))
            with database.reading() as db:
                if _state(db, parts["rig_id"], rests_on) != state:
                    raise _Edited(found)
            return found

        try:
            return _ANSWERS.of(key, make).response()
        except _Edited as edited:
            return edited.answer.response()

    return answer
