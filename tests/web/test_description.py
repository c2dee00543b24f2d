"""The API as it is described: valid, complete, and what is answered is what it says."""

import json
import os
import re
from importlib.util import find_spec
from pathlib import Path

import jsonschema_rs
import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi import checks

from vast_harbor.store.database import Database
from vast_harbor.web.server.app import create_app

# Of each call; more of them: make fuzz.
EXAMPLES = int(os.environ.get("FUZZ", "2"))
# Requests as described, and such as break the description.
MODES = (GenerationMode.POSITIVE, GenerationMode.NEGATIVE)
CHECKS = [
    not_a_server_error,
    checks.status_code_conformance,
    checks.content_type_conformance,
    checks.response_schema_conformance,
    checks.unsupported_method,
]


@pytest.fixture(scope="module")
def app(tmp_path_factory):
    made = create_app(Database(tmp_path_factory.mktemp("described") / "described.sqlite3"))
    made.test_client().post("/api/rigs/demo", json={"name": "pebble"})
    return made


# Read when it is wanted: each worker collects all tests, and only one runs these.
@pytest.fixture(scope="module")
def described_calls(app):
    return schemathesis.openapi.from_wsgi("/api/openapi.json", app)


def test_the_description_is_valid_and_names_what_every_call_answers(app) -> None:
    # Only its schema: to import the package takes five seconds.
    (folder,) = find_spec("openapi_spec_validator").submodule_search_locations
    rules = Path(folder, "resources", "schemas", "v3.1", "schema.json")
    text = app.test_client().get("/api/openapi.json").get_data(as_text=True)
    described = json.loads(text)
    jsonschema_rs.validate(json.loads(rules.read_text("utf-8")), described)
    assert described["servers"] == [{"url": "/", "description": described["servers"][0]["description"]}]
    # This computer needs no cookie, a phone does.
    assert described["security"] == [{}, {name: [] for name in described["components"]["securitySchemes"]}]
    for part in set(re.findall(r'"#/components/schemas/([^"]+)"', text)):
        assert part in described["components"]["schemas"]
    for path, operations in described["paths"].items():
        for method, operation in operations.items():
            good = [a for s, a in operation["responses"].items() if s.startswith("2")]
            assert len(good) == 1 and good[0]["content"], (method, path)


def test_every_call_answers_as_described(described_calls) -> None:
    calls = [found.ok() for found in described_calls.get_all_operations()]
    assert len(calls) > 50
    for call in calls:

        @settings(
            max_examples=EXAMPLES, derandomize=True, deadline=None, phases=[Phase.generate],
            suppress_health_check=list(HealthCheck),
        )  # fmt: skip
        @given(case=st.one_of(*(call.as_strategy(generation_mode=mode) for mode in MODES)))
        def answers(case) -> None:
            # Its client would ask for packed answers and not unpack them.
            case.call_and_validate(checks=CHECKS, headers={"Accept-Encoding": "identity"})

        answers()
