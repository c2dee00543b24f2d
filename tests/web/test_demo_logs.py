"""The logs of the demo rigs tell their stories to who looks, and no field tells them."""

import time
from datetime import UTC, datetime

import pytest

from vast_harbor import data

pytestmark = pytest.mark.whole_catalogue


@pytest.fixture
def rig(client):
    """A demo rig by name: its address."""

    def of(name: str) -> str:
        return f"/api/rigs/{client.post('/api/rigs/demo', json={'name': name}).get_json()['rigs'][0]['id']}"

    return of


def health(client, at: str) -> dict:
    return client.get(f"{at}/log/health").get_json()


def test_what_flows_at_night_is_found_and_can_be_tried(client, rig) -> None:
    at = rig("kittiwake")
    use = client.get(f"{at}/log/use").get_json()
    drain = next(f for f in use["findings"] if f["key"] == "drain")
    assert drain["operations"][0]["path"] == "/day/standby_w"
    # Made of a winter day; beside a day of another season it is a little more.
    assert 2.5 + 13 < drain["operations"][0]["value"] < 2.5 + 25
    files = client.get(f"{at}/log/files").get_json()["files"]
    assert len(files) == 1 and "gaps" in {f["key"] for f in files[0]["findings"]}


def test_the_first_days_of_a_season_tell_nothing_yet(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(time, "time", lambda: datetime(2026, 12, 2, 12, tzinfo=UTC).timestamp())
    at = rig("kittiwake")
    shown = client.get(f"{at}/log/use").get_json()
    first, second = shown["kinds"]
    assert shown["kind"] == second["id"] and shown["measured"]
    of_the_last = client.get(f"{at}/log/use?kind={first['id']}").get_json()
    assert of_the_last["days"] == 1 and [f["key"] for f in of_the_last["findings"]] == ["few"]


def test_the_battery_that_falls_behind_is_named(client, rig) -> None:
    found = health(client, rig("long-haul"))["off"]
    assert len(found) == 1 and found[0].startswith("Battery 5 falls behind")


def test_a_bank_that_ages_slowly_is_said_to_last(client, rig) -> None:
    found = health(client, rig("mulga"))
    assert [s["kind"] for s in found["seen"]].count("test") == 5
    assert any("longer" in said for said in found["said"])
    assert found["ends"][0] > found["now_years"] and "left" in found["lasts"]


def test_the_review_says_wait_where_the_bank_ages_slowly_and_find_it_where_something_draws(
    client, rig
) -> None:
    at = rig("mulga")
    slow = client.get(f"{at}/log/review").get_json()
    assert slow["answer"] == "small" and slow["headline"].startswith("No need to buy yet") and slow["same"]
    # What is logged next is part of it at once.
    line = {"id": "t1", "at": int(time.time()) - 60, "offset_min": 0, "line": "capacity test 12 A 17 h 20 C"}
    assert client.post(f"{at}/log", json=line).status_code in (200, 201)
    worse = client.get(f"{at}/log/review").get_json()
    assert worse["known"] != slow["known"]
    paper = client.get(f"{at}/log/review/paper?paper=letter")
    assert worse["headline"] in paper.text and "size: letter" in paper.text.lower()
    at = rig("kittiwake")
    drained = client.get(f"{at}/log/review").get_json()
    assert "Find what draws" in drained["todo"][0] and "Find it before you buy" in drained["verdict"][-1]
    # What it would try is the use that it went by.
    operations = [{k: o[k] for k in ("op", "path", "value")} for o in drained["operations"]]
    tried = client.patch(at, json={"revision": 1, "operations": operations})
    assert tried.status_code == 200
    now = "".join(t["text"] for t in drained["now"])
    plan = "".join(t["text"] for t in client.get(f"{at}/log/review").get_json()["planned"])
    assert plan == now


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_every_line_of_a_demo_log_is_understood_and_lies_behind_us(client, rig, name) -> None:
    at = rig(name)
    page = client.get(f"{at}/log?limit=200").get_json()
    assert not page["more"] and page["count"] == len(page["entries"])
    for entry in page["entries"]:
        assert entry["kind"] != "note" or entry["text"], entry
    stories = {"kittiwake": 7, "long-haul": 50, "mulga": 8}
    assert page["count"] >= stories.get(name, 0) and bool(page["count"]) == (name in stories)


def test_what_the_log_found_stands_beside_diagnosis_and_verdict(client, rig) -> None:
    at = rig("kittiwake")
    drained, due = (
        client.get(f"{at}/log/found").get_json(),
        client.get(f"{at}/log/review").get_json()["todo"][0],
    )
    watts = due.removeprefix("Find what draws ").split(" W ")[0]
    assert f"a load of {watts} W at night" in drained["drain"] and drained["verdict"]
    aged = client.get(f"{rig('mulga')}/log/found").get_json()
    at = rig("mulga")
    assert aged["bank"].split("(")[1].split(" to ")[0].split()[0] in health(client, at)["now"]
    assert not any(client.get(f"{rig('pebble')}/log/found").get_json().values())
