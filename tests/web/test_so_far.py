"""What a bank cost and went through so far, and the evidence on paper."""

import io
import time

import pytest
from PIL import Image


@pytest.fixture
def rig(client):
    """A demo rig whose bank was bought by the plan: its address."""
    return f"/api/rigs/{client.post('/api/rigs/demo', json={'name': 'pebble'}).get_json()['rigs'][0]['id']}"


def log(client, rig: str, line: str, id: str) -> None:
    body = {"id": id, "at": int(time.time()) - 60, "offset_min": 0, "line": line}
    assert client.post(f"{rig}/log", json=body).status_code == 200


def test_cost_wear_and_warranty_follow_what_is_logged(client, rig) -> None:
    before = client.get(f"{rig}/log/so-far").get_json()
    assert [r["key"] for r in before["wear"]] == ["life"] and before["warranty"]["state"] == "full"
    missing = {r["key"] for r in before["warranty"]["record"] if not r["there"]}
    assert {"tested", "pictures"} <= missing and all(
        r["how"] for r in before["warranty"]["record"] if not r["there"]
    )
    client.post(f"{rig}/log/live", json={"source": "trial", "hours_per_second": 2000})
    while client.get(f"{rig}/log/live").get_json()["running"]:
        time.sleep(0.05)
    log(client, rig, "capacity test 4 A 19 h 20 C", "t1")
    log(client, rig, "paid 20 for terminal covers", "c1")
    out = io.BytesIO()
    Image.new("RGB", (40, 30), "navy").save(out, "PNG")
    label = client.post(f"{rig}/pictures?id=p1&place=wiring&name=label.png", data=out.getvalue())
    assert label.status_code == 200
    after = client.get(f"{rig}/log/so-far").get_json()
    assert {r["key"] for r in after["wear"]} >= {"life", "energy", "full_cycles", "wear", "short", "low"}
    # Its charges are completed, and it was full on most days: its monitor is not doubted.
    short = next(r["now"] for r in after["wear"] if r["key"] == "short")
    assert short == "6 of 14"
    assert "completed" in after["charging_says"][0] and len(after["charging_says"]) == 1
    still = {r["key"] for r in after["warranty"]["record"] if not r["there"]}
    assert missing - still == {"tested", "pictures"}
    spent = [next(r["now"] for r in v["money"] if r["key"] == "all") for v in (before, after)]
    assert [float(s.strip("£")) for s in spent] == pytest.approx([86.24, 106.24], abs=0.5)
    assert "£20" in after["money_says"][0]
    paper = client.get(f"{rig}/log/warranty/paper").text
    for held in ("MW-2608-0114", "Fenwick Caravans", "Capacity test", "data:image/jpeg;base64,", "label.png"):
        assert held in paper, held
    assert "missing" not in paper and "Life used up" not in paper


def test_an_old_bank_has_wear_and_no_price(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}/log/so-far").get_json()
    assert view["wear"] and not view["money"] and view["warranty"] is None
    assert "not known" in view["money_says"][0]
    bare = client.post("/api/rigs", json={"name": "Heron", "kind": "boat"}).get_json()
    view = client.get(f"/api/rigs/{bare['id']}/log/so-far").get_json()
    assert view["age"] == "" and view["wear"] == []
    assert client.get(f"/api/rigs/{bare['id']}/log/warranty/paper").status_code == 200
    review = client.get(f"/api/rigs/{bare['id']}/log/review").get_json()
    assert review["answer"] == "unknown" and review["same"]
