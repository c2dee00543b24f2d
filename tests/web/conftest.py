"""What the tests of the API start from."""

from typing import Any

import pytest
from flask import Flask
from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from vast_harbor.core.stops.compare.found_banks import CatalogueSearch
from vast_harbor.store.database import Database
from vast_harbor.web.server.app import begin, create_app
from vast_harbor.web.state import evaluated, shared_answers

# Whether what is remembered was worked out with the whole catalogue.
WORKED_OUT: dict[str, bool] = {}


class Answer(TestResponse):
    """A response; of an answer about a rig its whole view, which is sent where no version is told."""

    def get_json(self, *args: Any, **more: Any) -> Any:
        found = super().get_json(*args, **more)
        return found["whole"] if isinstance(found, dict) and found.get("whole") else found


class Client(FlaskClient):
    """A client that tells no version, and so is given whole views."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self.response_wrapper = Answer


@pytest.fixture(scope="session")
def made(tmp_path_factory: pytest.TempPathFactory) -> Flask:
    """An application, made once: most of its making is the compiling of its addresses."""
    return create_app(Database(tmp_path_factory.mktemp("made") / "h.sqlite3"))


@pytest.fixture
def client(made: Flask, tmp_path) -> FlaskClient:
    """A client of an application with an empty database."""
    begin(made, Database(tmp_path / "h.sqlite3"))
    made.test_client_class = Client
    return made.test_client()


@pytest.fixture(autouse=True)
def few_banks(request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> None:
    """The verdict looks at a rig's own banks only, unless a test is marked ``whole_catalogue``.

    The search takes most of the time of an edit, and most tests here are not about what it finds. What one
    kind of test had worked out of a rig is not for the other kind.
    """
    whole = request.node.get_closest_marker("whole_catalogue") is not None
    if whole != WORKED_OUT.get("whole"):
        WORKED_OUT["whole"] = whole
        evaluated.forget()
        shared_answers.forget()
    if not whole:
        monkeypatch.setattr(CatalogueSearch, "best", lambda _: iter(()))


def patch(client: FlaskClient, rig: dict[str, Any], *operations: dict[str, Any], **more: Any) -> TestResponse:
    """Edit a rig as it was last seen."""
    body = {"revision": rig["revision"], "operations": list(operations), **more}
    return client.patch(f"/api/rigs/{rig['id']}", json=body)


def back(client: FlaskClient, rig: dict[str, Any], which: str = "undo") -> TestResponse:
    """Undo or redo, as the rig was last seen."""
    return client.post(f"/api/rigs/{rig['id']}/{which}", json={"revision": rig["revision"]})
