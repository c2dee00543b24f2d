"""The description of the API: what the views say of themselves, completed by what holds for all of them."""

from typing import Any

JSON, CSV, BYTES = "application/json", "text/csv", "application/octet-stream"
EVENTS = "text/event-stream"
_RIG = "/api/rigs/{rig_id}"

# What is answered where it is not JSON.
ANSWERS = {
    "/api/backup": "application/vnd.sqlite3",
    "/api/catalogue.csv": CSV,
    "/api/loads-sample.csv": CSV,
    f"{_RIG}/loads.csv": CSV,
    f"{_RIG}/models.csv": CSV,
    f"{_RIG}/monitor.csv": CSV,
    f"{_RIG}/report/cash-flow.csv": CSV,
    f"{_RIG}/report/comparison.csv": CSV,
    f"{_RIG}/file": JSON,
    f"{_RIG}/archive": "application/zip",
    f"{_RIG}/report": "text/html",
    f"{_RIG}/wiring.svg": "image/svg+xml",
    f"{_RIG}/changeover/drawing.svg": "image/svg+xml",
    f"{_RIG}/changeover/print": "text/html",
    f"{_RIG}/log/review/paper": "text/html",
    f"{_RIG}/log/warranty/paper": "text/html",
    f"{_RIG}/changeover/shopping.csv": CSV,
    f"{_RIG}/log.csv": CSV,
    f"{_RIG}/log.json": JSON,
    f"{_RIG}/log/readings.csv": CSV,
    f"{_RIG}/log/duties.ics": "text/calendar",
    f"{_RIG}/log/files/{{token}}/import": EVENTS,
    f"{_RIG}/monitor": EVENTS,
    f"{_RIG}/pictures/{{picture_id}}.jpg": "image/jpeg",
    f"{_RIG}/pictures/{{picture_id}}/small.jpg": "image/jpeg",
    f"{_RIG}/trial/odds": EVENTS,
}
# Files that are sent as the body of a request.
BODIES = {
    "/api/rigs/import": JSON,
    "/api/rigs/import-archive": BYTES,
    "/api/restore": BYTES,
    f"{_RIG}/loads/preview": CSV,
    f"{_RIG}/log/files": CSV,
    f"{_RIG}/pictures": BYTES,
    f"{_RIG}/models/preview": CSV,
}
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


def complete(described: dict[str, Any]) -> dict[str, Any]:
    """The description with every status and type that is answered.

    Args:
        described: OpenAPI 3.1 as the views gave it.

    Returns:
        The same, completed, and valid.
    """
    for empty in [k for k, v in described["components"].items() if v is None]:
        del described["components"][empty]
    for path, operations in described["paths"].items():
        for method, operation in operations.items():
            _complete(path, method, operation)
    return described


def _complete(path: str, method: str, operation: dict[str, Any]) -> None:
    answers = operation["responses"]
    if path in ANSWERS:
        whole = ANSWERS[path] not in (JSON, EVENTS)
        schema: dict[str, Any] = {"type": "string"} if whole else {}
        answers["200"] = {"description": "OK", "content": {ANSWERS[path]: {"schema": schema}}}
    if path in BODIES and method == "post":
        schema = {} if BODIES[path] == JSON else {"type": "string"}
        operation["requestBody"] = {"required": True, "content": {BODIES[path]: {"schema": schema}}}
    for status, says in REFUSALS.items():
        only_with_body = status in ("400", "413", "415")
        if not only_with_body or "requestBody" in operation:
            answers[status] = {"description": says, "content": _PROBLEMS}
    if "{" in path and "404" not in answers:
        answers["404"] = {"description": "There is no such thing.", "content": _PROBLEMS}
