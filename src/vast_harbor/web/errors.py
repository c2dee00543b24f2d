"""Every refusal is a sentence at its place, never a bare error page."""

import logging
import sqlite3

import jsonpatch
import jsonpointer
from flask import Flask, Response, jsonify, make_response
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException, MethodNotAllowed

from vast_harbor.core.figures.patience import Abandoned
from vast_harbor.formats.rig_file import LARGEST_BYTES, Problem, RigFileError
from vast_harbor.store.rigs import Missing
from vast_harbor.store.trouble import Trouble, trouble

log = logging.getLogger(__name__)

KEPT = "What you typed is kept in this browser, and stored by itself when that is done."
SENTENCES = {
    400: "The request could not be read as JSON.",
    404: "There is nothing under this address.",
    405: "That cannot be done under this address.",
    413: f"The file is too large: a rig file has less than {LARGEST_BYTES / 1e6:.0f} MB, so this is "
    "something else.",
    415: "The request must be JSON.",
}


def problems(status: int, *found: Problem) -> Response:
    """A refusal with its problems."""
    body = {
        "problems": [
            {
                "path": p.path,
                "message": p.message,
                "interpretations": [
                    {"label": r.label, "operations": list(r.operations)} for r in p.interpretations
                ],
            }
            for p in found
        ]
    }
    return make_response(jsonify(body), status)


def request_invalid(error: ValidationError) -> Response:
    """A request whose shape is wrong; called by the API layer."""
    return problems(
        422,
        *(
            Problem("".join(f"/{x}" for x in e["loc"]), f"{e['msg']}.")
            for e in error.errors(include_url=False)
        ),
    )


def handle(app: Flask) -> None:
    """Answer every error of the application with a sentence."""

    @app.errorhandler(RigFileError)
    def _rig_file(error: RigFileError) -> Response:
        return problems(422, *error.problems)

    @app.errorhandler(RecursionError)
    def _too_deep(error: RecursionError) -> Response:
        return problems(422, Problem("", "The data are nested deeper than those of any rig."))

    @app.errorhandler(Missing)
    def _missing(error: Missing) -> Response:
        return problems(404, Problem("", "There is no such rig; it may have been deleted."))

    @app.errorhandler(jsonpatch.JsonPatchException)
    @app.errorhandler(jsonpointer.JsonPointerException)
    def _patch(error: Exception) -> Response:
        return problems(409, Problem("", "The edit does not fit the rig as it is now; it was loaded again."))

    @app.errorhandler(Trouble)
    def _trouble(error: Trouble) -> Response:
        log.warning("%s", error)
        return problems(507 if error.full else 503, Problem("", f"{error} {KEPT}"))

    @app.errorhandler(sqlite3.Error)
    @app.errorhandler(OSError)
    def _disk(error: sqlite3.Error | OSError) -> Response:
        # Of copies, which lie beside the database.
        return _trouble(trouble(error, app.config["DATABASE"].path))

    @app.errorhandler(Abandoned)
    def _abandoned(error: Abandoned) -> Response:
        return problems(503, Problem("", "Nobody waited for the answer any more."))

    @app.errorhandler(HTTPException)
    def _http(error: HTTPException) -> Response:
        code = error.code or 500
        answer = problems(code, Problem("", SENTENCES.get(code, error.description or error.name)))
        if isinstance(error, MethodNotAllowed) and error.valid_methods:
            answer.headers["Allow"] = ", ".join(error.valid_methods)
        return answer

    @app.errorhandler(Exception)
    def _unforeseen(error: Exception) -> Response:
        log.exception("unforeseen error", exc_info=error)
        return problems(
            500,
            Problem(
                "",
                "Something went wrong inside the program; nothing was changed. The details are in its log.",
            ),
        )
