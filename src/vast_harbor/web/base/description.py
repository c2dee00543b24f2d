"""The description of the API: what the views say of themselves, completed by what holds for all of them."""

from collections.abc import Mapping
from typing import Any

from vast_harbor.web.base.blueprint import COOKIE, EVENTS, JSON, PLAIN, Facts

REFUSALS = {
    "400": "The request cannot be read.",
    "403": "Another site asks.",
    "405": "That cannot be done under this address.",
    "413": "The body is too large.",
    "415": "The body is of another type.",
    "422": "Something in the request is wrong; each problem names its place.",
    "500": "Something went wrong inside the program.",
    "503": "The database cannot be used at the moment, or all places are taken.",
    "507": "The disk is full.",
}
_PROBLEMS = {JSON: {"schema": {"$ref": "#/components/schemas/ProblemsView"}}}


def complete(described: dict[str, Any], facts: Mapping[tuple[str, str], Facts]) -> dict[str, Any]:
    """The description with every status and type that is answered.

    Args:
        described: OpenAPI 3.1 as the views gave it.
        facts: what each call says of itself, by its path and method.

    Returns:
        The same, completed, and valid.
    """
    for empty in [k for k, v in described["components"].items() if v is None]:
        del described["components"][empty]
    described["servers"] = [{"url": "/", "description": "This program, on this computer or in its network."}]
    described["components"]["securitySchemes"] = {
        "phone": {
            "type": "apiKey", "in": "cookie", "name": COOKIE,
            "description": "Set when a phone is paired at /pair. This computer needs none.",
        }
    }  # fmt: skip
    described["security"] = [{}, {"phone": []}]
    for path, operations in described["paths"].items():
        for method, operation in operations.items():
            _complete(path, facts.get((path, method), PLAIN), operation)
    return described


def _complete(path: str, facts: Facts, operation: dict[str, Any]) -> None:
    answers = operation["responses"]
    if facts.answers != JSON or not {"200", "201"} & answers.keys():
        whole = facts.answers not in (JSON, EVENTS)
        schema: dict[str, Any] = {"type": "string"} if whole else {}
        answers["200"] = {"description": "OK", "content": {facts.answers: {"schema": schema}}}
    if facts.takes:
        schema = {} if facts.takes == JSON else {"type": "string"}
        operation["requestBody"] = {"required": True, "content": {facts.takes: {"schema": schema}}}
    for status, says in REFUSALS.items():
        only_with_body = status in ("400", "413", "415")
        if not only_with_body or "requestBody" in operation:
            answers[status] = {"description": says, "content": _PROBLEMS}
    if "{" in path and "404" not in answers:
        answers["404"] = {"description": "There is no such thing.", "content": _PROBLEMS}
