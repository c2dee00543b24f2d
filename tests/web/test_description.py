"""The API as it is described: valid, complete, and what is answered is what it says."""

import os
from pathlib import Path
from tempfile import mkdtemp

import schemathesis
from hypothesis import HealthCheck, Phase, settings
from openapi_spec_validator import validate
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi import checks

from vast_harbor.store.database import Database
from vast_harbor.web.app import create_app

APP = create_app(Database(Path(mkdtemp()) / "described.sqlite3"))
APP.test_client().post("/api/rigs/demo", json={"name": "pebble"})
SCHEMA = schemathesis.openapi.from_wsgi("/api/openapi.json", APP)
# Of each call; more of them: make fuzz.
EXAMPLES = int(os.environ.get("FUZZ", "4"))
CHECKS = [
    not_a_server_error,
    checks.status_code_conformance,
    checks.content_type_conformance,
    checks.response_schema_conformance,
    checks.unsupported_method,
]


def test_the_description_is_valid_and_names_what_every_call_answers() -> None:
    described = APP.test_client().get("/api/openapi.json").get_json()
    validate(described)
    for path, operations in described["paths"].items():
        for method, operation in operations.items():
            good = [a for s, a in operation["responses"].items() if s.startswith("2")]
            assert len(good) == 1 and good[0]["content"], (method, path)


@SCHEMA.parametrize()
@settings(
    max_examples=EXAMPLES, derandomize=True, deadline=None, suppress_health_check=list(HealthCheck),
    phases=[Phase.explicit, Phase.generate],
)  # fmt: skip
def test_every_call_answers_as_described(case) -> None:
    case.call_and_validate(checks=CHECKS)
