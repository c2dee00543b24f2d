"""What the tests of the API start from."""

from typing import Any

import pytest
from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from vast_harbor.store.database import Database
from vast_harbor.web.app import create_app


@pytest.fixture
def client(tmp_path) -> FlaskClient:
    """A client of an application with an empty database."""
    return create_app(Database(tmp_path / "h.sqlite3")).test_client()


def patch(client: FlaskClient, rig: dict[str, Any], *operations: dict[str, Any], **more: Any) -> TestResponse:
    """Edit a rig as it was last seen."""
    body = {"revision": rig["revision"], "operations": list(operations), **more}
    return client.patch(f"/api/rigs/{rig['id']}", json=body)
