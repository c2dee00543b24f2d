"""The application factory."""

import mimetypes
import time
from datetime import date
from pathlib import Path

from flask import Flask, Response, jsonify, make_response, request, send_from_directory
from flask_compress import Compress
from flask_openapi3.models.info import Info
from flask_openapi3.openapi import OpenAPI
from werkzeug.exceptions import MethodNotAllowed
from werkzeug.security import safe_join

from vast_harbor import __version__
from vast_harbor.formats.rig_file import LARGEST_BYTES, Problem
from vast_harbor.store.database import Database
from vast_harbor.web.base import blueprint, description, errors, security
from vast_harbor.web.harbor import archive, cards, keeping, reference
from vast_harbor.web.log import (
    calendar,
    found,
    health,
    live_routes,
    measured,
    pictures,
    review,
    rounds,
    so_far,
    use,
    warranty_paper,
)
from vast_harbor.web.log import monitor_routes as monitor_files
from vast_harbor.web.log import routes as log
from vast_harbor.web.log.live import Feeds
from vast_harbor.web.log.staged import Staged
from vast_harbor.web.plan import routes as plan
from vast_harbor.web.server import about, pairing
from vast_harbor.web.state import shared_answers
from vast_harbor.web.stops.banks import cable_tool, label_reader, model_csv, quotes
from vast_harbor.web.stops.banks import routes as banks
from vast_harbor.web.stops.changeover import routes as changeover
from vast_harbor.web.stops.charging import routes as charging
from vast_harbor.web.stops.compare import packages, report, sizes
from vast_harbor.web.stops.compare import routes as compare
from vast_harbor.web.stops.day import load_csv
from vast_harbor.web.stops.trial import monitor
from vast_harbor.web.stops.trial import routes as trial

STATIC = Path(__file__).parents[1] / "static"
PARTS = (
    cards, keeping, plan, load_csv, banks, charging, trial, compare, packages, report, sizes,
    changeover, log, monitor_files, measured, health, use, found, review, rounds, so_far,
    warranty_paper, calendar, pictures, archive, live_routes, monitor,
    model_csv, quotes, cable_tool, label_reader, reference, about, pairing,
)  # fmt: skip
# How text is packed, the smallest first, and what a file of the interface that is packed so ends with.
CODINGS = {"br": ".br", "gzip": ".gz"}
PACKED = ["application/json", "text/html", "text/csv", "text/calendar", "image/svg+xml"]
# What is smaller goes as it is [bytes].
LEAST_PACKED = 2000
NOT_BUILT = "The interface is not built yet: run make build."


def create_app(database: Database, hosts: frozenset[str] = security.LOCAL_HOSTS) -> Flask:
    """Make the application.

    Args:
        database: where the rigs are kept.
        hosts: host names under which it may be reached.

    Returns:
        A WSGI application: the API under ``/api``, described at ``/api/openapi.json``; everything
        else is the interface.
    """
    app = _empty()
    app.config["MAX_CONTENT_LENGTH"] = LARGEST_BYTES + 1024
    blueprint.allow_sizes(app)
    begin(app, database)
    security.protect(app, hosts)
    _note_when_asked(app)
    errors.handle(app)
    for part in PARTS:
        app.register_api(part.api)
    shared_answers.share(app)
    _describe(app)
    _serve_interface(app)
    _pack(app)
    return app


def begin(app: Flask, database: Database) -> None:
    """Have an application serve a database, today, with nothing under way.

    Args:
        app: the application.
        database: where the rigs are kept.
    """
    app.config["DATABASE"] = database
    app.config["TODAY"] = lambda: date.today().isoformat()
    app.config["ASKED_AT"] = 0.0
    app.config["STAGED"] = Staged()
    app.config["FEEDS"] = Feeds()


def _empty() -> OpenAPI:
    return OpenAPI(
        __name__,
        info=Info(title="Vast Harbor", version=__version__),
        doc_prefix="/api",
        doc_ui=False,
        static_folder=None,
        validation_error_callback=errors.request_invalid,
    )


def _note_when_asked(app: Flask) -> None:
    """What works in the background leaves the machine to who asks."""

    @app.before_request
    def note() -> None:
        app.config["ASKED_AT"] = time.monotonic()


def _describe(app: OpenAPI) -> None:
    @app.route("/api/openapi.json")
    def openapi() -> Response:
        # An application takes over what its parts say of themselves when they are registered.
        described = _empty()
        facts: dict[tuple[str, str], blueprint.Facts] = {}
        for part in PARTS:
            part.api.describe()
            described.register_api(part.api)
            facts |= part.api.facts
        return jsonify(description.complete(described.api_doc, facts))


def _pack(app: Flask) -> None:
    """Send text that is worth it packed, to who can unpack it."""
    app.config["COMPRESS_MIMETYPES"] = PACKED
    app.config["COMPRESS_ALGORITHM"] = list(CODINGS)
    app.config["COMPRESS_MIN_SIZE"], app.config["COMPRESS_LEVEL"] = LEAST_PACKED, 4
    Compress(app)


def _packed_file(folder: Path, name: str) -> Response:
    """A file of the interface, packed when it was built where who asks can unpack it."""
    coding = next(
        (
            c
            for c, ending in CODINGS.items()
            if request.accept_encodings[c] and (inside := safe_join(str(folder), name + ending))
            and Path(inside).is_file()
        ),
        "",
    )  # fmt: skip
    kind = mimetypes.guess_type(name)[0]
    response = send_from_directory(folder, name + CODINGS.get(coding, ""), mimetype=kind)
    if coding:
        response.headers["Content-Encoding"] = coding
    response.vary.add("Accept-Encoding")
    return response


def _serve_interface(app: Flask) -> None:
    @app.route("/api/<path:rest>")
    def no_such_call(rest: str) -> Response:
        others = set(app.url_map.bind("").allowed_methods(f"/api/{rest}")) - {"GET", "HEAD", "OPTIONS"}
        if others:
            raise MethodNotAllowed(sorted(others))
        return errors.problems(404, Problem("", errors.SENTENCES[404]))

    app.add_url_rule(f"{calendar.CALENDARS}<string:secret>.ics", view_func=calendar.subscribed)

    @app.route("/assets/<path:name>")
    def asset(name: str) -> Response:
        response = _packed_file(STATIC / "assets", name)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        return response

    @app.route("/", defaults={"path": ""})
    @app.route("/<path:path>")
    def page(path: str) -> Response:
        # Resolved first: whether a file lies outside of the folder is nobody's business.
        inside = safe_join(str(STATIC), path)
        if path and inside is not None and Path(inside).is_file():
            return _packed_file(STATIC, path)
        # Pages have no dot in the last part of their address; a file that is not there is not a page.
        if "." in path.rsplit("/", 1)[-1]:
            return make_response(errors.SENTENCES[404], 404, {"Content-Type": "text/plain; charset=utf-8"})
        if not (STATIC / "index.html").is_file():
            return make_response(NOT_BUILT, 503)
        response = _packed_file(STATIC, "index.html")
        response.headers["Cache-Control"] = "no-cache"
        return response
