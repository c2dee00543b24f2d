"""A monitor that is listened to: its readings are kept as they come, days are totalled, nothing is lost."""

import json
import socket
import threading
import time

import pytest

from vast_harbor.formats import signal_k
from vast_harbor.store import monitor
from vast_harbor.store.database import Database
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.log import live, live_routes

FAST = {"hours_per_second": 2000, "zone": "Europe/Oslo"}


@pytest.fixture
def rig(client):
    """The address of a demo rig; what listens for it ends with the test."""
    at = f"/api/rigs/{client.post('/api/rigs/demo', json={'name': 'pebble'}).get_json()['rigs'][0]['id']}"
    yield at
    client.delete(f"{at}/log/live")


def until(client, at: str, holds, patience_s: float = 20) -> dict:
    """The feed once something holds of it."""
    end = time.monotonic() + patience_s
    while not holds(view := client.get(f"{at}/log/live").get_json()):
        assert time.monotonic() < end, view
        time.sleep(0.05)
    return view


def readings(client, at: str, bank: str = "present") -> list:
    database: Database = client.application.config["DATABASE"]
    with database.reading() as db:
        return monitor.between(db, int(at.split("/")[-1]), bank)


@pytest.mark.parametrize("source", ["trial", "simulated"])
def test_what_is_simulated_is_kept_as_from_a_real_one_and_totalled_by_the_day(client, rig, source) -> None:
    body = {"source": source, **FAST}
    assert client.post(f"{rig}/log/live", json=body).get_json()["running"]
    view = until(client, rig, lambda v: not v["running"])
    kept = readings(client, rig)
    assert view["count"] == len(kept) > 600 and not view["problem"] and len(view["last"]) == 4
    days = client.get(f"{rig}/log/days").get_json()["days"]
    assert len(days) == len(kept) // 96 and all(d["whole"] for d in days[1:])
    (file,) = client.get(f"{rig}/log/files").get_json()["files"]
    assert file["count"] == len(kept) and "simulated" in file["name"]
    # They go out as CSV, and come in again from it as the same.
    text = client.get(f"{rig}/log/readings.csv").text
    assert len(text.splitlines()) == len(kept) + 1 and "+01:00,12." in text
    staged = client.post(f"{rig}/log/files?zone=Europe/Oslo&bank=old", data=text.encode()).get_json()
    client.get(f"{rig}/log/files/{staged['token']}/import").get_data()
    again = readings(client, rig, "old")
    assert [row[:2] for row in again] == [row[:2] for row in kept]
    assert all(new[2:] == pytest.approx(old[2:], abs=1e-4) for new, old in zip(again, kept, strict=True))
    # The same days heard again are there already.
    client.post(f"{rig}/log/live", json=body)
    assert until(client, rig, lambda v: not v["running"])["count"] == 0
    assert readings(client, rig) == kept
    assert len(client.get(f"{rig}/log/files").get_json()["files"]) == 2


def test_both_ways_give_the_same_readings(client, rig) -> None:
    client.post(f"{rig}/log/live", json={"source": "trial", **FAST})
    until(client, rig, lambda v: not v["running"])
    direct = readings(client, rig)
    (file,) = client.get(f"{rig}/log/files").get_json()["files"]
    client.delete(f"{rig}/log/files/{file['id']}")
    assert readings(client, rig) == [] and client.get(f"{rig}/log/days").get_json()["days"] == []
    client.post(f"{rig}/log/live", json={"source": "simulated", **FAST})
    until(client, rig, lambda v: not v["running"])
    heard = readings(client, rig)
    assert [r[:4] for r in heard] == [r[:4] for r in direct]
    assert [r[5] for r in heard] == pytest.approx([r[5] for r in direct], abs=0.01)


class Boat:
    """A Signal K server of another maker: it hangs up, sends what nobody asked for, and turns the current."""

    def __init__(self, port: int = 0) -> None:
        self.listener = socket.create_server(("127.0.0.1", port))
        self.port = self.listener.getsockname()[1]
        self.begun = int(time.time()) - 5000

    def play(self, first: int, last: int, hang_up: bool = True) -> threading.Thread:
        def serve() -> None:
            line, _ = self.listener.accept()
            with line:
                line.sendall(signal_k.line_of(signal_k.hello("Boat", 0)) + b"no json\r\n\r\n")
                line.recv(4096)
                for n in range(first, last):
                    row = (12.6, 7.5, 0.5, None)
                    for battery in ("start", "house"):
                        line.sendall(signal_k.line_of(signal_k.delta(self.begun + 30 * n, battery, row, "x")))
                if not hang_up:
                    line.recv(1)

        thread = threading.Thread(target=serve, daemon=True)
        thread.start()
        return thread


def test_a_server_that_hangs_up_is_asked_again_and_its_current_is_turned(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(live, "AGAIN_S", 0.05)
    monkeypatch.setattr(live, "WRITE_EVERY_S", 0.05)
    boat = Boat()
    boat.play(0, 10).join(0)
    body = {
        "source": "signal_k", "host": "127.0.0.1", "port": boat.port, "battery": "house", "into_bank": False,
        **FAST,
    }  # fmt: skip
    assert client.post(f"{rig}/log/live", json=body).status_code == 200
    until(client, rig, lambda v: v["count"] >= 9)
    boat.play(10, 20, hang_up=False)
    view = until(client, rig, lambda v: v["count"] >= 19)
    assert view["batteries"] == ["start", "house"]
    view = client.delete(f"{rig}/log/live").get_json()
    kept = readings(client, rig)
    assert not view["running"] and view["count"] == len(kept) == 20
    assert all(row[2:5] == (12.6, -7.5, 0.5) for row in kept)
    assert [row[0] for row in kept] == [boat.begun + 30 * n for n in range(20)]


def test_a_server_is_asked_and_its_silence_is_told(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(live, "SILENT_S", 0.0)
    monkeypatch.setattr(live, "WRITE_EVERY_S", 0.05)
    now, asked = time.time() - 100, []
    with socket.create_server(("127.0.0.1", 0)) as server:
        go_on = threading.Event()

        def serve() -> None:
            line, _ = server.accept()
            with line, line.makefile() as said:
                line.sendall(signal_k.line_of(signal_k.hello("Boat", 0)))
                asked.append(json.loads(said.readline()))
                speed = {"path": "navigation.speedOverGround", "value": 3.1}
                line.sendall(signal_k.line_of({"context": "vessels.self", "updates": [{"values": [speed]}]}))
                go_on.wait(20)
                for n in range(40):
                    row = (12.6, -8.5 if n % 6 else 25.5, None, None)
                    line.sendall(signal_k.line_of(signal_k.delta(now + n, "house", row, "shunt")))
                line.recv(1)

        threading.Thread(target=serve, daemon=True).start()
        body = {"source": "signal_k", "host": "127.0.0.1", "port": server.getsockname()[1], "zone": "UTC"}
        assert client.post(f"{rig}/log/live", json=body).status_code == 200
        view = until(client, rig, lambda v: v["problem"])
        assert "reports no battery" in view["problem"] and view["running"]
        assert asked and signal_k.asks_for_batteries(asked[0])
        monkeypatch.setattr(live, "SILENT_S", 60.0)
        go_on.set()
        view = until(client, rig, lambda v: v["count"] >= 3 and not v["problem"])
        # Who stops it is not told that it is tried again.
        view = client.delete(f"{rig}/log/live").get_json()
    assert not view["running"] and not view["problem"]
    # Every sixth second it charges: the mean of ten seconds is kept, not what came last.
    amps = [row[3] for row in readings(client, rig)]
    assert len(amps) == 4 and amps[0] == pytest.approx((2 * 25.5 - 8 * 8.5) / 10)


def test_what_cannot_be_written_is_tried_again(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(live, "WRITE_EVERY_S", 0.02)
    writing, failed = Database.writing, []

    def full(self, *args, **more):
        if threading.current_thread() is not threading.main_thread() and len(failed) < 5:
            failed.append(1)
            raise Trouble("The disk is full.")
        return writing(self, *args, **more)

    monkeypatch.setattr(Database, "writing", full)
    client.post(f"{rig}/log/live", json={"source": "trial", **FAST})
    view = until(client, rig, lambda v: not v["running"])
    assert len(failed) == 5 and view["count"] == len(readings(client, rig)) > 600 and not view["problem"]


@pytest.mark.parametrize(
    ("body", "path", "says"),
    [
        ({"source": "signal_k", "host": ""}, "/host", "Enter the name"),
        ({"source": "signal_k", "host": "8.8.8.8"}, "/host", "outside your own network"),
        ({"source": "signal_k", "host": "no.such.host.invalid"}, "/host", "not found"),
        ({"source": "trial", "zone": "Mars/North"}, "/zone", "Mars/North"),
        ({"source": "radio"}, "/source", ""),
    ],
)
def test_what_cannot_be_listened_to_is_told_at_its_place(client, rig, body, path, says) -> None:
    answer = client.post(f"{rig}/log/live", json=body)
    assert answer.status_code == 422
    assert answer.get_json()["problems"][0]["path"] == path
    assert says in answer.get_json()["problems"][0]["message"]


def test_a_server_that_does_not_answer_is_told_and_given_up_at_once(client, rig) -> None:
    with socket.create_server(("127.0.0.1", 0)) as closed:
        port = closed.getsockname()[1]
    client.post(f"{rig}/log/live", json={"source": "signal_k", "host": "localhost", "port": port})
    view = until(client, rig, lambda v: v["problem"])
    assert "Nothing comes from" in view["problem"] and view["running"]
    assert not client.delete(f"{rig}/log/live").get_json()["running"]
    assert client.get(f"{rig}/log/files").get_json()["files"] == []


def test_the_feed_of_a_rig_that_is_gone_ends(client, rig) -> None:
    client.post(f"{rig}/log/live", json={"source": "trial", "hours_per_second": 100})
    feed = client.application.config["FEEDS"].of(int(rig.split("/")[-1]))
    client.delete(rig)
    for _ in range(400):
        if not feed.running:
            break
        time.sleep(0.05)
    assert not feed.running and client.get(f"{rig}/log/live").status_code == 404


@pytest.mark.parametrize(
    ("found", "own"),
    [
        (["127.0.0.1"], True), (["10.1.2.3"], True), (["172.31.0.9"], True), (["192.168.1.4"], True),
        (["fd12::7"], True), (["::1"], True), (["::ffff:192.168.1.4"], True),
        (["169.254.169.254"], False), (["192.0.2.7"], False), (["198.18.0.1"], False), (["240.0.0.1"], False),
        (["100.64.0.1"], False), (["0.0.0.0"], False), (["fe80::1%eth0"], False), (["8.8.8.8"], False),
        (["192.168.1.4", "8.8.8.8"], False), ([], False),
    ],
)  # fmt: skip
def test_only_what_anybody_may_set_up_at_home_is_ones_own_network(monkeypatch, found, own) -> None:
    answers = [(0, 0, 0, "", (address, 0)) for address in found]
    monkeypatch.setattr(live.socket, "getaddrinfo", lambda *_, **__: answers)
    assert live.address_of("harbor.example") == (found[0] if own else None)


def test_the_address_that_was_looked_at_is_the_one_that_is_dialled(client, rig, monkeypatch) -> None:
    dialled = []

    def dial(at: tuple[str, int], patience: float) -> None:
        dialled.append(at)
        raise ConnectionRefusedError("refused")

    # A name whose next look-up would lead elsewhere.
    answers = iter([[(0, 0, 0, "", ("192.168.1.4", 0))]])
    monkeypatch.setattr(live.socket, "getaddrinfo", lambda *_, **__: next(answers))
    monkeypatch.setattr(live.socket, "create_connection", dial)
    body = {"source": "signal_k", "host": "boat.example", "port": 3000, "zone": "UTC"}
    assert client.post(f"{rig}/log/live", json=body).status_code == 200
    view = until(client, rig, lambda v: v["problem"])
    assert dialled[0] == ("192.168.1.4", 3000) and "refused" not in view["problem"]


def test_odd_numbers_and_times_are_left_out_and_told_and_the_feed_goes_on(client, rig) -> None:
    def said(volts: str, at: str = "") -> bytes:
        stamp = f'"timestamp": "{at}", ' if at else ""
        value = f'[{{"path": "electrical.batteries.house.voltage", "value": {volts}}}]'
        return f'{{"updates": [{{{stamp}"values": {value}}}]}}\n'.encode()

    now = time.time()
    times = [
        time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime(now + ahead)) for ahead in (-60, 200_000, -40, -20)
    ]
    sent = [
        said("12.5", times[0]), said("9" * 400), said("true"), said("12.6", times[1]),
        said("12.7", "0001-01-01T00:00:00+14:00"), said("12.8", "9999-12-31T23:59:59-14:00"),
        said("12.9", times[2]), said("13.0", times[3]),
    ]  # fmt: skip
    with socket.create_server(("127.0.0.1", 0)) as server:

        def serve() -> None:
            line, _ = server.accept()
            with line:
                for one in sent:
                    line.sendall(one)
                while line.recv(4096):
                    pass

        threading.Thread(target=serve, daemon=True).start()
        body = {"source": "signal_k", "host": "127.0.0.1", "port": server.getsockname()[1], "zone": "UTC"}
        assert client.post(f"{rig}/log/live", json=body).status_code == 200
        view = until(client, rig, lambda v: v["problem"])
        client.delete(f"{rig}/log/live")
    assert "values or times that cannot be" in view["problem"]
    kept = [row[2] for row in readings(client, rig)]
    assert 12.5 in kept and len(kept) > 1 and all(12.5 <= v <= 13.0 for v in kept)


def test_a_server_that_was_listened_to_is_so_again_when_the_program_starts_again(client, rig) -> None:
    app, number = client.application, int(rig.split("/")[-1])
    with socket.create_server(("127.0.0.1", 0)) as server:
        heard = threading.Semaphore(0)

        def serve() -> None:
            while True:
                try:
                    line, _ = server.accept()
                except OSError:
                    return
                heard.release()
                line.recv(1)
                line.close()

        threading.Thread(target=serve, daemon=True).start()
        body = {"source": "signal_k", "host": "localhost", "port": server.getsockname()[1], "zone": "UTC"}
        assert client.post(f"{rig}/log/live", json=body).status_code == 200
        assert heard.acquire(timeout=20)

        def started_again() -> bool:
            """Whether it is listened to in a program that starts now."""
            app.config["FEEDS"].end(number)
            app.config["FEEDS"] = live.Feeds()
            live_routes.go_on(app)
            return app.config["FEEDS"].of(number) is not None and heard.acquire(timeout=20)

        assert started_again() and client.get(f"{rig}/log/live").get_json()["running"]
        # What was stopped stays so, and what was simulated ends with the program.
        client.delete(f"{rig}/log/live")
        assert not started_again()
        client.post(f"{rig}/log/live", json=body)
        client.post(f"{rig}/log/live", json={"source": "trial", **FAST})
        assert not started_again()
        # A rig that was deleted is not listened for, nor is another one that is given its number.
        client.post(f"{rig}/log/live", json=body)
        client.delete(rig)
        client.post(f"{rig}/restore")
        assert not started_again()
