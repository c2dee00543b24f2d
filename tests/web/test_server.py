"""The server itself, over real connections: lanes, streams, half-open and large requests, shared answers."""

import json
import socket
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import ExitStack, closing
from http.client import HTTPConnection, HTTPResponse

import pytest

from vast_harbor.core.figures import patience
from vast_harbor.store.database import Database
from vast_harbor.web.base.blueprint import LANES, facts_of
from vast_harbor.web.server import http_server as served
from vast_harbor.web.server.app import create_app
from vast_harbor.web.stops.compare import report as compare_report
from vast_harbor.web.stops.compare import routes as compare


@pytest.fixture
def server(tmp_path) -> Iterator[served.HarborServer]:
    """A server with one demo rig."""
    app = create_app(Database(tmp_path / "h.sqlite3"))
    assert app.test_client().post("/api/rigs/demo", json={"name": "pebble"}).status_code == 201
    running = served.make_server(app, 0)
    threading.Thread(target=running.run, daemon=True).start()
    yield running
    running.task_dispatcher.shutdown(timeout=2)


@pytest.fixture
def port(server) -> int:
    """Its port."""
    return int(server.effective_port)


def ask(port: int, path: str, method: str = "GET", body: object = None) -> HTTPResponse:
    """One request on a connection of its own; its answer is to be read."""
    connection = HTTPConnection("127.0.0.1", port, timeout=60)
    sent = None if body is None else json.dumps(body)
    connection.request(method, path, sent, {"Content-Type": "application/json"})
    return connection.getresponse()


def edited(port: int, path: str = "/rig/notes", value: object = None) -> int:
    """Status of an edit of the rig."""
    revision = json.load(ask(port, "/api/rigs/1"))["revision"]
    name = {"op": "replace", "path": path, "value": value or f"at {revision}"}
    answer = ask(port, "/api/rigs/1", "PATCH", {"revision": revision, "operations": [name]})
    answer.read()
    return answer.status


def until(so: Callable[[], bool]) -> None:
    """Wait for what must come."""
    for _ in range(600):
        if so():
            return
        time.sleep(0.05)
    raise AssertionError("It did not come.")


def test_two_hundred_streams_hold_nothing_up_and_end_with_their_listeners(port) -> None:
    with ExitStack() as listening:
        statuses = []
        for i in range(200):
            path = f"/api/rigs/1/monitor?bank=dual&hours_per_second=0.01&page=p{i // 3}"
            answer = listening.enter_context(closing(ask(port, path)))
            statuses.append(answer.status)
            if answer.status == 503:
                assert "monitors are already playing" in json.load(answer)["problems"][0]["message"]
        # Two of a page, twelve of all.
        assert statuses[:6] == [200, 200, 503, 200, 200, 503]
        assert statuses.count(200) == 12
        assert edited(port) == 200

    def plays_again() -> bool:
        with closing(ask(port, "/api/rigs/1/monitor?bank=dual&hours_per_second=2000")) as answer:
            return answer.status == 200

    until(plays_again)


def test_half_open_connections_make_room_and_end(port, monkeypatch) -> None:
    monkeypatch.setattr(served, "MOST_CONNECTIONS", 60)
    with ExitStack() as open_ones:
        for _ in range(150):
            half = open_ones.enter_context(socket.create_connection(("127.0.0.1", port), timeout=30))
            half.sendall(b"POST /api/rigs HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 99\r\n\r\n{")
        assert edited(port) == 200
        # What never ends its request is closed in the end.
        monkeypatch.setattr(served, "READ_S", 0)
        assert half.recv(10) == b""


def test_what_is_too_large_or_no_request_is_refused_with_a_sentence_unread(port) -> None:
    for path, length, status in (
        ("/api/rigs/import", 10**9, 413),
        ("/api/rigs/import", 10**400, 413),
        ("/api/" + "x" * 32_768, 0, 431),
    ):
        with socket.create_connection(("127.0.0.1", port), timeout=30) as asking:
            asking.sendall(
                f"POST {path} HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: {length}\r\n\r\n".encode()
            )
            answer = b"".join(iter(lambda: asking.recv(65536), b""))
        assert answer.split(maxsplit=2)[1] == str(status).encode()
        assert json.loads(answer.split(b"\r\n\r\n", 1)[1])["problems"][0]["message"].endswith(".")
    assert edited(port) == 200


def head(length: int) -> bytes:
    """The head of a request with a body of so many bytes."""
    return f"POST /api/restore HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: {length}\r\n\r\n".encode()


def begun(port: int, length: int) -> bytes:
    """The answer to the head of a request that says how long its body is; none of it is sent."""
    with socket.create_connection(("127.0.0.1", port), timeout=30) as asking:
        asking.sendall(head(length))
        return b"".join(iter(lambda: asking.recv(65536), b""))


def test_bodies_of_strangers_and_too_many_large_ones_are_refused_unread(port, server, monkeypatch) -> None:
    with ExitStack() as open_ones:
        for _ in range(served.MOST_LARGE):
            half = open_ones.enter_context(socket.create_connection(("127.0.0.1", port), timeout=30))
            half.sendall(head(served.LARGE + 1) + b"{")
        until(lambda: sum(c.request is not None for c in list(server.active_channels.values())) >= 4)
        assert b" 503 " in begun(port, served.LARGE + 1)[:20] and edited(port) == 200
    monkeypatch.setattr(server, "may_send", lambda address, cookies: False)
    assert b" 413 " in begun(port, served.LARGEST_OF_STRANGERS + 1)[:20]


def test_who_asks_twice_is_given_one_answer_and_nobody_waits_for_what_nobody_wants(port, monkeypatch) -> None:
    made, started, let_go = [], threading.Event(), threading.Event()
    terms = compare.equal_terms

    def slow(results):
        made.append(1)
        started.set()
        while not let_go.wait(0.02):
            patience.go_on()
        return terms(results)

    monkeypatch.setattr(compare, "equal_terms", slow)
    path = "/api/rigs/1/compare/terms"
    # The first asker leaves: the work ends, and is done anew for the next ones, once for both.
    leaving = HTTPConnection("127.0.0.1", port, timeout=60)
    leaving.request("GET", path)
    started.wait(30)
    answers: list[bytes] = []
    asking = [threading.Thread(target=lambda: answers.append(ask(port, path).read())) for _ in range(2)]
    for one in asking:
        one.start()
    assert ask(port, "/api/rigs/1").status == 200
    leaving.close()
    until(lambda: len(made) == 2)
    let_go.set()
    for one in asking:
        one.join(30)
    assert len(answers) == 2 and answers[0] == answers[1] and b"equal_terms" in answers[0]
    assert len(made) == 2


def test_an_answer_is_kept_for_the_state_that_it_was_worked_out_of(port, monkeypatch) -> None:
    path, table = "/api/rigs/1/report/comparison.csv", compare_report.comparison_csv
    before = ask(port, path).read()
    edits = iter([1])

    def edited_meanwhile(results, style):
        if next(edits, None):
            assert edited(port, "/rig/years_kept", 3) == 200
        return table(results, style)

    assert edited(port, "/rig/off_grid_nights", 77) == 200
    monkeypatch.setattr(compare_report, "comparison_csv", edited_meanwhile)
    while_edited = ask(port, path).read()
    after = ask(port, path).read()
    assert len({before, after}) == 2
    # Back to the state in between: it is worked out anew, and not what was told of a mixture.
    revision = json.load(ask(port, "/api/rigs/1"))["revision"]
    ask(port, "/api/rigs/1/undo", "POST", {"revision": revision}).read()
    assert ask(port, path).read() == while_edited
    assert next(edits, "used") == "used"


def test_every_address_has_its_lane(tmp_path) -> None:
    app = create_app(Database(tmp_path / "h.sqlite3"))
    of = {lane: set[str]() for lane in LANES}
    for rule in app.url_map.iter_rules():
        of[facts_of(app, rule.endpoint).lane].add(rule.rule)
    streams = {"monitor", "trial/odds", "log/files/<string:token>/import"}
    assert of["stream"] == {f"/api/rigs/<int:rig_id>/{stream}" for stream in streams}
    for costly in ("find", "report", "compare/turns", "compare/doubt", "trial/year", "card"):
        assert f"/api/rigs/<int:rig_id>/{costly}" in of["worked_out"]
    for quick in ("", "/undo", "/workings", "/file", "/changes"):
        assert f"/api/rigs/<int:rig_id>{quick}" in of["quick"]
