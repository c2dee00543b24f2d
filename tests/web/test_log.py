"""The log as the API serves it: lines, the form, changes, what cannot be, and all of it as files."""

import csv
import io
from datetime import UTC, datetime, timedelta

import pytest

from vast_harbor.web.log import routes

NOW = int(datetime.now(UTC).timestamp())


@pytest.fixture
def rig(client):
    """A demo rig: its number."""
    return client.post("/api/rigs/demo", json={"name": "tern-rock"}).get_json()["rigs"][0]["id"]


def line(text: str, id: str = "one", **more):
    return {"id": id, "line": text, "at": NOW, "offset_min": 60, **more}


def form(**more):
    return {"at": NOW, "offset_min": 60, "kind": "reading", **more}


def entries(client, rig, **query) -> list[dict]:
    return client.get(f"/api/rigs/{rig}/log", query_string=query).get_json()["entries"]


def test_a_line_is_shown_back_before_it_is_kept_and_kept_once(client, rig) -> None:
    at = f"/api/rigs/{rig}/log"
    typed = {k: v for k, v in line("12.9V load 34A 85% rested").items() if k != "id"}
    shown = client.post(f"{at}/understand", json=typed).get_json()
    assert [s["text"] for s in shown["said"]] == ["12.90 V", "34 A out of the bank", "85 %", "rested"]
    assert shown["kind_name"] == "Reading" and entries(client, rig) == []
    first = client.post(at, json=line("12.9V load 34A"))
    again = client.post(at, json=line("12.9V load 34A"))
    assert first.status_code == again.status_code == 200
    assert (first.headers["X-New"], again.headers["X-New"]) == ("1", "0")
    assert len(entries(client, rig)) == 1 and first.get_json() == again.get_json()


@pytest.mark.parametrize(
    ("text", "field", "says"),
    [
        ("130 V", "volts", "130 V cannot be right: this bank shows between 0 and 18 V."),
        ("140 %", "soc", "between 0 and 100 %, not 140 %"),
        ("2099-01-01 12.4 V", "at", "2099-01-01 cannot be right"),
        ("1970-01-02 12.4 V", "at", "1970-01-02 cannot be right"),
        ("9000 A", "amps", "between −2 000 and 2 000 A"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(client, rig, text, field, says) -> None:
    refused = client.post(f"/api/rigs/{rig}/log", json=line(text))
    assert refused.status_code == 422
    problem = refused.get_json()["problems"][0]
    assert problem["path"] == f"/{field}" and says in problem["message"].replace("\u202f", " ")
    assert entries(client, rig) == []


def test_a_clock_that_was_set_back_refuses_no_true_date(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(routes.time, "time", lambda: NOW - 400 * 86_400.0)
    assert client.post(f"/api/rigs/{rig}/log", json=line("12.9 V")).status_code == 200
    sent = form(values={"volts": "12.8"})
    # A form tells what the clock of its sender says, too; what neither clock says is refused.
    assert client.put(f"/api/rigs/{rig}/log/two", json=sent | {"clock": NOW}).status_code == 200
    for refused in (sent, sent | {"clock": NOW - 3 * 86_400}):
        assert client.put(f"/api/rigs/{rig}/log/three", json=refused).status_code == 422
    assert len(entries(client, rig)) == 2


def test_an_entry_of_the_form_is_changed_removed_and_brought_back(client, rig) -> None:
    at = f"/api/rigs/{rig}/log/first"
    made = client.put(at, json=form(values={"volts": "12,84", "celsius": "-3"}, rested=True)).get_json()
    assert made["values"] == {"volts": "12.84", "celsius": "-3"} and made["revision"] == 1
    changed = client.put(at, json=form(revision=1, values={"volts": "12.7 V"}, text="cold")).get_json()
    assert changed["values"] == {"volts": "12.7"} and changed["revision"] == 2 and changed["text"] == "cold"
    # A new one that was not answered is sent again as it is now; not over what was changed since.
    assert client.put(f"/api/rigs/{rig}/log/new", json=form(values={"volts": "12"})).status_code == 200
    again = client.put(f"/api/rigs/{rig}/log/new", json=form(values={"volts": "12.5"})).get_json()
    assert again["values"] == {"volts": "12.5"} and again["revision"] == 2
    assert client.put(f"/api/rigs/{rig}/log/new", json=form()).status_code == 409
    client.delete(f"/api/rigs/{rig}/log/new")
    # Who still has the first one does not overwrite the second.
    late = client.put(at, json=form(revision=1, values={"volts": "11"}))
    assert late.status_code == 409 and "changed elsewhere" in late.get_json()["problems"][0]["message"]
    assert client.delete(at).status_code == 200 and entries(client, rig) == []
    assert client.delete(at).status_code == 404
    # A line that is sent again does not bring a removed entry back.
    assert client.post(f"/api/rigs/{rig}/log", json=line("12 V", "first")).status_code == 200
    assert entries(client, rig) == []
    assert client.post(f"{at}/restore").get_json()["text"] == "cold"
    assert [e["id"] for e in entries(client, rig)] == ["first"]
    assert client.post(f"/api/rigs/{rig}/log/nix/restore").status_code == 404


def test_a_form_that_cannot_be_keeps_nothing(client, rig) -> None:
    at = f"/api/rigs/{rig}/log/first"
    wrong = client.put(at, json=form(values={"volts": "twelve", "soc": "140"}))
    assert {p["path"] for p in wrong.get_json()["problems"]} == {"/volts", "/soc"}
    assert client.put(at, json=form(kind="dream")).get_json()["problems"][0]["path"] == "/kind"
    assert client.put(at, json=form(bank="piggy")).get_json()["problems"][0]["path"] == "/bank"
    assert client.put(at, json=form(values={"wishes": "3"})).status_code == 422
    assert client.put(at, json=form(text="x" * 2001)).get_json()["problems"][0]["path"] == "/text"
    assert client.put("/api/rigs/999/log/first", json=form()).status_code == 404
    assert entries(client, rig) == []


def test_pages_go_back_in_time_without_gap_or_double(client, rig) -> None:
    # Several of one second, too: the id decides.
    for i in range(23):
        at = NOW - 60 * (i // 3)
        body = form(values={"volts": f"{12 + i / 100}"}) | {"at": at}
        client.put(f"/api/rigs/{rig}/log/e{i:02}", json=body)
    seen: list[str] = []
    query: dict = {"limit": 5}
    while True:
        page = client.get(f"/api/rigs/{rig}/log", query_string=query).get_json()
        seen += [e["id"] for e in page["entries"]]
        if not page["more"]:
            break
        last = page["entries"][-1]
        query = {"limit": 5, "at": last["at"], "id": last["id"]}
    assert sorted(seen) == [f"e{i:02}" for i in range(23)] and page["count"] == 23
    assert entries(client, rig, kind="water") == []


def test_the_whole_log_goes_out_as_csv_and_json(client, rig) -> None:
    client.post(f"/api/rigs/{rig}/log", json=line("12.9V load 34A rested", "a"))
    zero = {"volts": "0", "celsius": "0"}
    client.put(f"/api/rigs/{rig}/log/b", json=form(kind="note", text="=1+1", values=zero) | {"at": NOW + 60})
    rows = list(csv.DictReader(io.StringIO(client.get(f"/api/rigs/{rig}/log.csv").data.decode("utf-8-sig"))))
    assert rows[0]["volts [V]"] == "12.9" and rows[0]["amps [A]"] == "-34" and rows[0]["rested"] == "yes"
    assert not rows[1]["text"].startswith("=") and "1+1" in rows[1]["text"]
    whole = client.get(f"/api/rigs/{rig}/log.json").get_json()
    first = whole["entries"][0]
    assert whole["format"] == "vast-harbor-log" and first["amps"] == -34
    assert whole["entries"][1]["volts"] == whole["entries"][1]["celsius"] == 0
    local = datetime.fromisoformat(first["at"])
    assert int(local.timestamp()) == NOW and local.utcoffset() == timedelta(hours=1)


def test_a_log_goes_and_comes_back_with_its_rig(client, rig) -> None:
    client.post(f"/api/rigs/{rig}/log", json=line("12.9V"))
    assert client.delete(f"/api/rigs/{rig}").status_code == 200
    assert client.get(f"/api/rigs/{rig}/log").status_code == 404
    assert client.post(f"/api/rigs/{rig}/log", json=line("13V", "two")).status_code == 404
    assert client.post(f"/api/rigs/{rig}/restore").status_code == 200
    assert [e["id"] for e in entries(client, rig)] == ["one"]


def test_a_duty_is_done_once_or_put_off_with_a_reason(client, rig) -> None:
    at = f"/api/rigs/{rig}/log/duties"

    def state() -> dict[str, dict]:
        return {d["key"]: d for d in client.get(at).get_json()["duties"]}

    # The old bank of Tern Rock is still in use: the new one does not run yet.
    before = state()
    assert before["terminals"]["state"] == "due" and before["terminals"]["last"] == ""
    body = {"id": "did", "at": NOW, "offset_min": 0}
    assert client.post(f"{at}/terminals", json=body).get_json()["kind"] == "work"
    assert client.post(f"{at}/terminals", json=body).headers["X-New"] == "0"
    assert state()["terminals"]["state"] == "later" and len(entries(client, rig)) == 1
    off = {"id": "off", "at": NOW, "offset_min": 0, "put_off_days": 30}
    refused = client.post(f"{at}/starting", json=off)
    assert refused.get_json()["problems"][0]["path"] == "/reason"
    kept = client.post(f"{at}/starting", json=off | {"reason": "laid up"}).get_json()
    assert kept["kind"] == "note" and "laid up" in kept["text"]
    assert state()["starting"]["state"] == "later"
    # An entry that is changed stays what it was for its duty; one that is removed is no longer done.
    changed = client.put(f"/api/rigs/{rig}/log/did", json=form(revision=1, kind="work", text="all tight"))
    assert changed.status_code == 200 and state()["terminals"]["state"] == "later"
    client.delete(f"/api/rigs/{rig}/log/did")
    assert state()["terminals"]["state"] == "due"
    assert client.post(f"{at}/watering_the_flowers", json=body).status_code == 404


def test_a_look_that_was_ticked_in_the_changeover_is_no_duty_any_more(client) -> None:
    # Pebble was looked at after a day and after two weeks; three months are not over.
    rig = client.post("/api/rigs/demo", json={"name": "pebble"}).get_json()["rigs"][0]["id"]
    found = {d["key"] for d in client.get(f"/api/rigs/{rig}/log/duties").get_json()["duties"]}
    assert "look_quarter" in found and not {"look_day", "look_fortnight", "return"} & found


def test_a_battery_that_is_not_there_or_was_swapped_is_told(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "long-haul"}).get_json()["rigs"][0]
    at = f"/api/rigs/{made['id']}"
    assert client.post(f"{at}/log", json=line("battery 8 6.31 V rested")).status_code == 200
    refused = client.post(f"{at}/log", json=line("battery 9 6.31 V rested", "b"))
    assert refused.get_json()["problems"][0]["message"] == (
        "This bank has 8 batteries, so there is no battery 9."
    )
    # What was read of each stands in a row for each round, and the one that falls behind is named.
    told = client.get(f"{at}/log/rounds").get_json()
    assert told["numbers"] == list(range(1, 9)) and told["off"] == [5] and "Battery 5" in told["says"][0]
    assert all(len(r["texts"]) == 8 for r in told["rounds"])
    *_, before, last = told_before = told["rounds"]
    assert before["day"] < last["day"] and before["texts"][4] == min(filter(None, before["texts"]))
    volts = [v for v in last["volts"] if v is not None]
    assert last["apart"] == f"{max(volts) - min(volts):.2f} V"
    # It is changed over to a bank of two.
    view = client.get(at).get_json()
    two = {"id": "two", "battery_class": "lfp", "model": "quenby-100h", "parallel": 1}
    operations = [
        {"op": "add", "path": "/candidates/-", "value": two},
        {"op": "replace", "path": "/changeover/chosen", "value": "two"},
        {"op": "add", "path": "/changeover/done/isolated", "value": "2026-10-01"},
    ]
    done = client.patch(at, json={"revision": view["revision"], "operations": operations})
    assert done.status_code == 200, done.get_json()
    for words, swapped in (("battery 5 6.3 V", True), ("battery 30 6.3 V", False)):
        told = client.post(f"{at}/log", json=line(words, "c"))
        assert told.status_code == 422 and told.get_json()["problems"][0]["path"] == "/battery"
        assert ("was swapped" in told.get_json()["problems"][0]["message"]) == swapped
    assert client.post(f"{at}/log", json=line("old bank battery 5 6.3 V", "e")).status_code == 200
    assert client.post(f"{at}/log", json=line("battery 2 12.9 V", "f")).status_code == 200
    # What was read before the changeover is not told of the new bank.
    assert min(r["day"] for r in client.get(f"{at}/log/rounds").get_json()["rounds"]) >= "2026-10-01"
    assert min(r["day"] for r in told_before) < "2026-10-01"


def test_what_a_bank_left_connected_would_do_in_winter_comes_from_its_simulation(client) -> None:
    client.application.config["TODAY"] = lambda: "2026-11-28"
    rig = client.post("/api/rigs/demo", json={"name": "pebble"}).get_json()["rigs"][0]["id"]
    found = {d["key"]: d for d in client.get(f"/api/rigs/{rig}/log/duties").get_json()["duties"]}
    assert "Left connected, it would be low after 4 days" in found["lay_up"]["why"]
    assert found["stored"]["due"] == "2026-11-15"
    assert "hours on mains until it is full" in found["ready"]["why"]
