"""Logs of monitors through the API: looked at, imported once and whole, drawn, summed, removed."""

import json
import sqlite3
import time

import numpy as np
import pytest

from vast_harbor.formats.monitor_log import LARGEST_BYTES
from vast_harbor.store import monitor

DAY = 86_400
BEGIN = int(time.time()) // DAY * DAY - 40 * DAY


@pytest.fixture
def rig(client):
    """A demo rig: its address."""
    made = client.post("/api/rigs/demo", json={"name": "tern-rock"}).get_json()["rigs"][0]["id"]
    return f"/api/rigs/{made}"


def log(days=3, step=300, begin=BEGIN, amps=5.0) -> bytes:
    """Seconds since 1970; amps out all night and in by day."""
    at = begin + np.arange(0, days * DAY, step)
    day = (at % DAY >= 8 * 3600) & (at % DAY < 16 * 3600)
    rows = [
        f"{t},{14.0 if d else 12.6},{2 * amps if d else -amps},{0.7}" for t, d in zip(at, day, strict=True)
    ]
    return "\n".join(["timestamp,volts,amps,soc", *rows]).encode()


def stage(client, rig, data: bytes, **query) -> dict:
    answer = client.post(
        f"{rig}/log/files", data=data, query_string={"name": "log.csv", "zone": "UTC", **query}
    )
    return answer.get_json() | {"status": answer.status_code}


def run(client, rig, staged: dict) -> list[dict]:
    answer = client.get(f"{rig}/log/files/{staged['token']}/import")
    return [
        json.loads(part.removeprefix("data: "))
        for part in answer.get_data(as_text=True).split("\n\n")
        if part
    ]


def told(events: list[dict]) -> dict[str, str]:
    return {f["key"]: f["text"] for f in events[-1]["done"]}


def test_a_log_is_shown_then_kept_once_with_progress(client, rig) -> None:
    staged = stage(client, rig, log())
    assert staged["rows"][0][1:4] == ["12.60 V", "5 A out of the bank", "70 %"] and staged["problem"] == ""
    assert client.get(f"{rig}/log/files").get_json()["files"] == []
    events = run(client, rig, staged)
    shares = [e["share"] for e in events]
    assert shares == sorted(shares) and shares[-1] == 1
    assert told(events) == {"new": "864 readings are new."}
    again = told(run(client, rig, stage(client, rig, log())))
    assert again == {"new": "0 readings are new.", "there": "864 readings were there already."}
    assert len(client.get(f"{rig}/log/files").get_json()["files"]) == 1
    # A file that goes on from there adds only what is new.
    more = told(run(client, rig, stage(client, rig, log(days=4))))
    assert more["new"] == "288 readings are new." and "864" in more["there"]
    unlike = told(run(client, rig, stage(client, rig, log(days=1, amps=6.0))))
    assert "288 of them differ from what was there; what was there is kept." in unlike.values()
    days = client.get(f"{rig}/log/days").get_json()["days"]
    assert [d["day"] for d in days] == sorted((d["day"] for d in days), reverse=True) and len(days) == 4
    # 16 h of 5 A at 12.6 V; the nights end and begin at midnight.
    assert days[1]["cells"][0] == "1.01 kWh" and days[1]["cells"][2] == "315 Wh" and days[1]["whole"]


def test_what_is_drawn_holds_every_peak_however_long_it_is(client, rig) -> None:
    data = log(days=60, step=600, begin=BEGIN - 30 * DAY).replace(b",-5.0,", b",-180.0,", 1)
    run(client, rig, stage(client, rig, data))
    whole = client.get(f"{rig}/log/monitor").get_json()
    part = client.get(f"{rig}/log/monitor?from_day={whole['first']}&to_day={whole['first']}").get_json()
    for view, most in ((whole, 500), (part, 500)):
        amps = next(s for s in view["series"] if s["key"] == "amps")["points"]
        assert len(amps) <= most and min(p[1] for p in amps if p[1] is not None) == -180
    assert whole["last"] - whole["first"] == 59 and part["count"] == 144
    # The sums that are kept are those of what is kept, also where files were laid over one another.
    with client.application.config["DATABASE"].reading() as db:
        number = int(rig.rsplit("/", 1)[1])
        assert monitor.count(db, number, "present") == 8640
        assert sum(h[1] for h in monitor.hours(db, number, "present")) == 8639 * 600


def test_a_removed_file_takes_its_readings_and_no_others(client, rig) -> None:
    run(client, rig, stage(client, rig, log(days=1)))
    run(client, rig, stage(client, rig, log(days=2, begin=BEGIN + 5 * DAY)))
    first = client.get(f"{rig}/log/days").get_json()
    newest = client.get(f"{rig}/log/files").get_json()["files"][0]
    assert client.delete(f"{rig}/log/files/{newest['id']}").status_code == 200
    left = client.get(f"{rig}/log/days").get_json()
    assert left["days"] == first["days"][-1:]
    assert client.delete(f"{rig}/log/files/{newest['id']}").status_code == 404
    run(client, rig, stage(client, rig, log(days=2, begin=BEGIN + 5 * DAY)))
    assert client.get(f"{rig}/log/days").get_json() == first


def test_who_leaves_or_fails_leaves_nothing_behind(client, rig, monkeypatch) -> None:
    staged = stage(client, rig, log())
    gone = {"waitress.client_disconnected": lambda: True}
    client.get(f"{rig}/log/files/{staged['token']}/import", environ_overrides=gone).get_data()
    assert client.get(f"{rig}/log/files").get_json()["files"] == []
    # The file still waits: it can be imported after all.
    full = sqlite3.OperationalError("database or disk is full")
    monkeypatch.setattr(monitor, "put_hours", lambda *_: (_ for _ in ()).throw(full))
    assert "disk is full" in run(client, rig, staged)[-1]["problem"]
    assert client.get(f"{rig}/log/files").get_json()["files"] == []
    assert client.get(f"{rig}/log/monitor").get_json()["count"] == 0
    monkeypatch.undo()
    assert told(run(client, rig, staged))["new"] == "864 readings are new."


def test_what_the_owner_says_of_the_columns_counts(client, rig) -> None:
    data = b"time,a1,b1\n" + b"\n".join(b"2026-03-04 09:%02d,%d,%d" % (i, i % 7, 80 - i) for i in range(30))
    staged = stage(client, rig, data)
    assert "No column of volts, amps or state of charge" in staged["problem"] and staged["rows"] == []
    assert client.get(f"{rig}/log/files/{staged['token']}/import").status_code == 422
    body = {
        "columns": [{"role": "moment"}, {"role": "amps", "unit": "A"}, {"role": "soc", "unit": "%"}],
        "decimal": ".", "order": "ymd", "zone": "Europe/Oslo", "into_bank": False,
    }  # fmt: skip
    view = client.post(f"{rig}/log/files/{staged['token']}/look", json=body).get_json()
    assert view["problem"] == "" and view["rows"][3][1:4] == ["—", "3 A out of the bank", "77 %"]
    body["columns"][2]["unit"] = "-Ah"
    in_ah = client.post(f"{rig}/log/files/{staged['token']}/look", json=body).get_json()
    assert in_ah["rows"][0][3].endswith(" %") and in_ah["rows"][0][3] != "80 %"
    for wrong in ({"zone": "Nowhere/Else"}, {"columns": body["columns"][:2]}, {"order": "xyz"}):
        assert client.post(f"{rig}/log/files/{staged['token']}/look", json=body | wrong).status_code == 422


def test_what_is_no_log_is_refused_and_what_waits_no_more_is_told(client, rig) -> None:
    one = stage(client, rig, b"volts\n12\n13\n")
    assert one["status"] == 422 and "Only one column" in one["problems"][0]["message"]
    big = client.post(f"{rig}/log/files", data=b"x", environ_overrides={"CONTENT_LENGTH": "300000000"})
    assert big.status_code == 413
    said = big.get_json()["problems"][0]["message"]
    assert said.startswith("This file has 300 MB; at most 64 MB") and LARGEST_BYTES == 64_000_000
    assert client.get(f"{rig}/log/files/nothing/import").status_code == 404
    other = client.post("/api/rigs/demo", json={"name": "mulga"}).get_json()["rigs"][0]["id"]
    staged = stage(client, rig, log())
    # A file belongs to its rig.
    assert client.get(f"/api/rigs/{other}/log/files/{staged['token']}/import").status_code == 404
