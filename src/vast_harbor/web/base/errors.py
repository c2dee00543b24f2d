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
from vast_harbor.phrases import phrase
from vast_harbor.store.rigs import Missing
from vast_harbor.store.trouble import Trouble, trouble

log = logging.getLogger(__name__)

KEPT = phrase("answers.errors.changes_kept_browser_saved")
SENTENCES = {
    400: phrase("answers.errors.request_could_read_json"),
    404: phrase("answers.errors.nothing_address"),
    405: phrase("answers.errors.cannot_done_address"),
    413: phrase("answers.errors.file_too_large_rig", largest_bytes=f"{LARGEST_BYTES / 1000000.0:.0f}"),
    415: phrase("answers.errors.request_must_json"),
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
        return problems(422, Problem("", phrase("answers.errors.data_nested_deeply_rig")))

    @app.errorhandler(Missing)
    def _missing(error: Missing) -> Response:
        return problems(404, Problem("", phrase("answers.errors.rig_exist_been_deleted")))

    @app.errorhandler(jsonpatch.JsonPatchException)
    @app.errorhandler(jsonpointer.JsonPointerException)
    def _patch(error: Exception) -> Response:
        return problems(409, Problem("", phrase("answers.errors.change_fit_rig_rig")))

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
        return problems(503, Problem("", phrase("answers.errors.answer_longer_needed")))

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
        return problems(500, Problem("", phrase("answers.errors.something_went_wrong_program")))
