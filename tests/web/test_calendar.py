"""Duties as a calendar: read by another library, moved rather than doubled, shown to who knows the secret."""

import json
from datetime import UTC, date, datetime

import pytest
import vobject

from vast_harbor import data

NOW = int(datetime.now(UTC).timestamp())


@pytest.fixture
def rig(client):
    """A rig that is used all the year, with an empty log: its address."""
    made = client.post("/api/rigs/import", data=json.dumps(data.demo_rig("long-haul"))).get_json()["id"]
    return f"/api/rigs/{made}"


def events(client, url: str) -> dict[str, dict]:
    """Events by UID, as another library reads them."""
    answer = client.get(url)
    assert answer.status_code == 200 and answer.mimetype == "text/calendar"
    calendar = vobject.readOne(answer.get_data(as_text=True))
    found = {
        e.uid.value: {
            "title": e.summary.value, "day": e.dtstart.value, "ends": e.dtend.value,
            "sequence": int(e.sequence.value), "why": e.description.value,
        }
        for e in calendar.vevent_list
    }  # fmt: skip
    assert len(found) == len(calendar.vevent_list)
    return found


def do(client, rig, duty: str, **more):
    body = {"id": f"{duty}-{len(more)}-{more.get('at', 0)}", "at": NOW, "offset_min": 0, **more}
    assert client.post(f"{rig}/log/duties/{duty}", json=body).status_code == 200


def test_every_duty_is_a_whole_day_and_moves_when_it_is_done_or_put_off(client, rig) -> None:
    duties = client.get(f"{rig}/log/duties").get_json()["duties"]
    before = events(client, f"{rig}/log/duties.ics")
    assert sorted(e["title"] for e in before.values()) == sorted(d["title"] for d in duties)
    today = date.today()
    for e in before.values():
        assert isinstance(e["day"], date) and (e["ends"] - e["day"]).days == 1 and e["day"] >= today
    do(client, rig, "water")
    do(client, rig, "terminals", put_off_days=30, reason="at sea")
    after = events(client, f"{rig}/log/duties.ics")
    assert after.keys() == before.keys()
    moved = {uid for uid in after if after[uid]["day"] != before[uid]["day"]}
    assert {after[uid]["title"] for uid in moved} == {
        "Check the water of each cell", "Look at terminals and hold-downs",
    }  # fmt: skip
    assert all((after[uid]["day"] - today).days == 30 for uid in moved)
    # Programs take an event for a later one where its number is higher: it counts changes.
    assert all(after[uid]["sequence"] - before[uid]["sequence"] == (uid in moved) for uid in after)
    assert events(client, f"{rig}/log/duties.ics") == after
    other = client.post("/api/rigs/demo", json={"name": "tern-rock"}).get_json()["rigs"][0]["id"]
    assert not events(client, f"/api/rigs/{other}/log/duties.ics").keys() & before.keys()


def test_the_address_counts_until_another_is_made_or_it_is_ended(client, rig) -> None:
    assert client.get(f"{rig}/log/calendar").get_json()["path"] == ""
    assert client.get("/calendar/x.ics").status_code == 404
    first = client.post(f"{rig}/log/calendar").get_json()["path"]
    assert len(first) > 40 and client.get(f"{rig}/log/calendar").get_json()["path"] == first
    assert events(client, first).keys() == events(client, f"{rig}/log/duties.ics").keys()
    second = client.post(f"{rig}/log/calendar").get_json()["path"]
    assert second != first
    assert client.get(first).status_code == 404 and client.get(second).status_code == 200
    other_end = "y" if second[-5] == "x" else "x"
    assert client.get(f"{second[:-5]}{other_end}.ics").status_code == 404
    client.delete(f"{rig}/log/calendar")
    assert client.get(second).status_code == 404


def test_what_is_due_stands_on_card_and_strip_of_who_keeps_a_log(client, rig) -> None:
    def figure() -> tuple[str, str]:
        strip = client.get(rig).get_json()["strip"]
        return next((s["figure"], s["attention"]) for s in strip if s["stop"] == "log")

    assert figure() == ("no entry yet", "") and client.get(f"{rig}/card").get_json()["due"] == []
    # What was never logged is told in the log alone; what was done too long ago is told everywhere.
    for duty in ("water", "terminals"):
        do(client, rig, duty, at=NOW - 300 * 86_400)
    due = ["Check the water of each cell", "Look at terminals and hold-downs"]
    assert figure() == ("2 due", "caution") and client.get(f"{rig}/card").get_json()["due"] == due
    do(client, rig, "water")
    assert figure() == ("1 due", "caution") and client.get(f"{rig}/card").get_json()["due"] == due[1:]
    do(client, rig, "terminals")
    assert figure() == ("entry today", "") and client.get(f"{rig}/card").get_json()["due"] == []
