"""Answers of the API."""

import re

from flask import Response, make_response
from pydantic import BaseModel


def json_response(model: BaseModel, status: int = 200) -> Response:
    """A response model as JSON."""
    response = make_response(model.model_dump_json(), status)
    response.mimetype = "application/json"
    return response


def as_file(text: str, kind: str, name: str, ending: str, save: bool = True) -> Response:
    """A text to be kept as a file, or to be shown.

    Args:
        text: what is in it.
        kind: its media type.
        name: of the rig, from which the file is named; empty where it is of none.
        ending: what the name of the file ends with.
        save: whether the browser keeps it instead of showing it.
    """
    response = make_response(text)
    response.headers["Content-Type"] = f"{kind}; charset=utf-8"
    if save:
        plain = re.sub(r"[^A-Za-z0-9]+", "-", name).strip("-").lower() or ("rig" if name else "")
        joined = ending if ending.startswith(".") or not plain else f"-{ending}"
        response.headers["Content-Disposition"] = f'attachment; filename="{plain}{joined}"'
    return response
