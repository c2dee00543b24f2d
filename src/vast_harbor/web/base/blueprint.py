"""Parts of the API: what each call says of itself beside what it takes and answers.

A call names its lane, its media types, the size of what it takes and what its answer rests on where it is
declared::

    @api.get("/rigs/<int:rig_id>/report", lane=WORKED_OUT, answers=HTML)
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from flask import Flask, request
from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.types import ParametersTuple
from flask_openapi3.utils import parse_rule
from werkzeug.exceptions import HTTPException

QUICK, WORKED_OUT, STREAM, UNPACKED = "quick", "worked_out", "stream", "unpacked"
# Workers of each lane. Each stream holds one for as long as it plays. One works things out: with two, edits
# beside 50 costly questions took half as long again, and the questions ended only a fifth sooner.
# Pictures and archives take room when they are unpacked: one at a time.
LANES = {QUICK: 6, WORKED_OUT: 1, STREAM: 16, UNPACKED: 1}
JSON, CSV, BYTES = "application/json", "text/csv", "application/octet-stream"
HTML, SVG, JPEG, EVENTS = "text/html", "image/svg+xml", "image/jpeg", "text/event-stream"
# By which a paired phone is known.
COOKIE = "vast-harbor-phone"
# What an answer that is kept rests on: the rig alone, also what is due by its log, or all of its log.
ON_RIG, ON_DUTIES, ON_LOG = "rig", "duties", "log"


@dataclass(frozen=True, slots=True)
class Facts:
    """What a call says of itself.

    Attributes:
        lane: where it is answered: at once, worked out and then kept, as a stream, or one at a time.
        answers: media type of what is answered.
        takes: media type of the file that is its body; empty for JSON.
        largest: the largest body [bytes]; None for that of a rig file.
        rests_on: what a kept answer rests on.
    """

    lane: str = QUICK
    answers: str = JSON
    takes: str = ""
    largest: int | None = None
    rests_on: str = ON_RIG


PLAIN = Facts()
_NAMES = tuple(Facts.__dataclass_fields__)


class Blueprint(APIBlueprint):
    """A part of the API. What its calls take and answer is worked out by ``describe`` only, so that the
    program starts sooner."""

    def __init__(self, *names: Any, **options: Any) -> None:
        super().__init__(*names, **options)
        self._undescribed: list[tuple[str, Callable[..., Any], dict[str, Any]]] = []
        # By path and method, as the description of the API names them.
        self.facts: dict[tuple[str, str], Facts] = {}

    def _add_url_rule(
        self,
        rule: str,
        endpoint: str | None = None,
        view_func: Callable[..., Any] | None = None,
        provide_automatic_options: bool | None = None,
        **options: Any,
    ) -> None:
        facts = Facts(**{name: options.pop(name) for name in _NAMES if name in options})
        view_func.facts = facts  # type: ignore[union-attr]
        for method in options["methods"]:
            self.facts[parse_rule(rule, url_prefix=self.url_prefix), method.lower()] = facts
        super()._add_url_rule(rule, endpoint, view_func, provide_automatic_options, **options)

    def _collect_openapi_info(self, rule: str, func: Callable[..., Any], **told: Any) -> ParametersTuple:
        self._undescribed.append((rule, func, told))
        return super()._collect_openapi_info(rule, func, **told | {"doc_ui": False})

    def describe(self) -> None:
        """Work out the description of every call, once; an application that registers it then has it."""
        for rule, func, told in self._undescribed:
            super()._collect_openapi_info(rule, func, **told)
        self._undescribed.clear()


def facts_of(app: Flask, endpoint: str | None) -> Facts:
    """What a call says of itself; that of a plain one for all else.

    Args:
        app: the application.
        endpoint: name of the call in it.
    """
    found: Facts = getattr(app.view_functions.get(endpoint or ""), "facts", PLAIN)
    return found


def facts_at(app: Flask, path: str, method: str) -> Facts:
    """The same of the call at an address, before it is made."""
    try:
        endpoint, _ = app.url_map.bind("").match(path, method)
    except HTTPException:
        return PLAIN
    return facts_of(app, endpoint)


def allow_sizes(app: Flask) -> None:
    """Have the application take bodies as large as each call says."""

    @app.before_request
    def allow() -> None:
        largest = facts_of(app, request.endpoint).largest
        if largest is not None:
            # A little more, so that what is just too large is refused with the call's own sentence.
            request.max_content_length = largest + 1024
