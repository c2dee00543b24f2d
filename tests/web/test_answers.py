"""Answers that tell only what differs: applied to what the page has, they give what a fresh page is sent."""

import gc
from typing import Any

import jsonpatch
import pytest
from tests.web.conftest import patch

from sampled import sampled
from vast_harbor import data
from vast_harbor.core import passage
from vast_harbor.store import rigs
from vast_harbor.web.plan import routes
from vast_harbor.web.state import evaluated

STOPS = ("rig", "day", "need", "banks", "charging", "trial", "compare")


@pytest.fixture
def open_rig(client):
    """Imports a rig and opens it at a stop, as a page does: its id, version, revision and view."""

    def at(name: str, stop: str) -> dict[str, Any]:
        made = client.post("/api/rigs/import", json=data.demo_rig(name)).json
        return raw(client.get(f"/api/rigs/{made['id']}?stop={stop}"), {})

    return at


def raw(response, page: dict[str, Any]) -> dict[str, Any]:
    """The page after an answer."""
    assert response.status_code == 200, response.data
    answer = response.json
    if answer.get("whole") is None:
        operations = [{k: v for k, v in o.items() if k != "from"} for o in answer["patch"]]
        view = jsonpatch.apply_patch(page["view"], operations)
    else:
        view = answer["whole"]
    return {"id": view["id"], "version": answer["version"], "revision": answer["revision"], "view": view}


def edit(client, page, stop, *operations, **more):
    body = {"have": page["version"], "stop": stop, "field": "", **more}
    return patch(client, page, *operations, **body)


@pytest.fixture
def client(client):
    """Here the answers are looked at as they are sent."""
    client.application.test_client_class = None
    return client.application.test_client()


@pytest.mark.parametrize("stop", sampled(STOPS, "day", "charging", "compare"))
def test_what_differs_leads_to_what_a_fresh_page_is_sent(client, open_rig, stop) -> None:
    page = open_rig("kittiwake", stop)
    edits = [
        {"op": "replace", "path": "/day/loads/1/draw", "value": "77 W"},
        {"op": "replace", "path": "/rig/off_grid_nights", "value": "33"},
        {"op": "remove", "path": "/day/loads/0"},
        {"op": "remove", "path": "/candidates/1"},
        {"op": "add", "path": "/plan/overrides/discount_rate", "value": "6 %"},
        {"op": "replace", "path": "/rig/system_v", "value": "24"},
    ]
    # Each stop sees every second of them, its neighbour the others.
    for operation in edits[STOPS.index(stop) % 2 :: 2]:
        answer = edit(client, page, stop, operation)
        assert answer.json["patch"] is not None and "whole" not in {k for k, v in answer.json.items() if v}
        page = raw(answer, page)
        # The trial and the year are as they were until the hand rests and asks again.
        page = raw(client.get(f"/api/rigs/{page['id']}?stop={stop}&have={page['version']}"), page)
    # What was gone on with from edit to edit is what is worked out from nothing.
    evaluated.forget()
    fresh = client.get(f"/api/rigs/{page['id']}?stop={stop}").json["whole"]
    assert page["view"] == fresh
    for way in ("undo", "undo", "redo"):
        where = f"/api/rigs/{page['id']}/{way}?stop={stop}&have={page['version']}"
        answer = client.post(where, json={"revision": page["view"]["revision"]})
        page = raw(answer, page)
        assert page["view"] == client.get(f"/api/rigs/{page['id']}?stop={stop}").json["whole"]


def test_another_stop_is_told_as_it_differs_from_the_one_that_was_open(client, open_rig) -> None:
    page = open_rig("mulga", "rig")
    for stop in (*STOPS, "day"):
        answer = client.get(f"/api/rigs/{page['id']}?stop={stop}&have={page['version']}")
        page = raw(answer, page)
        assert page["view"] == client.get(f"/api/rigs/{page['id']}?stop={stop}").json["whole"]
        assert page["view"]["stop"] == stop


@pytest.mark.parametrize("have", ["", "never-sent"])
def test_who_has_no_view_that_is_known_is_sent_a_whole_one(client, open_rig, have) -> None:
    page = open_rig("pebble", "day")
    answer = edit(
        client, page, "day", {"op": "replace", "path": "/rig/off_grid_nights", "value": "8"}, have=have
    )
    assert answer.json["patch"] is None and answer.json["whole"]["fields"]["/rig/off_grid_nights"] == "8"


def test_a_view_of_another_rig_is_not_what_an_answer_differs_from(client, open_rig) -> None:
    one, other = open_rig("pebble", "day"), open_rig("mulga", "day")
    answer = client.get(f"/api/rigs/{one['id']}?stop=day&have={other['version']}")
    assert answer.json["patch"] is None and answer.json["whole"]["id"] == one["id"]


def test_views_that_are_no_longer_known_are_sent_whole(client, open_rig) -> None:
    page = open_rig("pebble", "day")
    for _ in range(20):
        client.get(f"/api/rigs/{page['id']}?stop=day")
    answer = edit(client, page, "day", {"op": "replace", "path": "/rig/off_grid_nights", "value": "8"})
    assert answer.json["whole"] is not None and answer.json["patch"] is None


def test_an_edit_that_comes_in_between_wins_and_the_other_stores_nothing(
    client, open_rig, monkeypatch
) -> None:
    page = open_rig("pebble", "day")
    between = {"op": "replace", "path": "/rig/name", "value": "Renamed meanwhile"}
    compute, done = routes.edited, []

    def slow(*of):
        results = compute(*of)
        if not done:
            # While the first is computed, another window's edit is stored.
            done.append(True)
            assert edit(client, page, "day", between).status_code == 200
        return results

    monkeypatch.setattr(routes, "edited", slow)
    answer = edit(client, page, "day", {"op": "replace", "path": "/day/loads/0/name", "value": "Lost"})
    assert answer.status_code == 409 and "another window" in answer.json["problems"][0]["message"]
    with client.application.config["DATABASE"].reading() as db:
        stored = rigs.get(db, page["id"])
    assert stored.document["rig"]["name"] == "Renamed meanwhile"
    assert stored.document["day"]["loads"][0]["name"] != "Lost"
    assert stored.revision == page["revision"] + 1


# An edit that is made at each stop.
TYPICAL = {
    "rig": {"op": "replace", "path": "/rig/off_grid_nights", "value": "41"},
    "day": {"op": "replace", "path": "/day/loads/0/draw", "value": "41 W"},
    "need": {"op": "add", "path": "/plan/overrides/reserve", "value": "12 %"},
    "banks": {"op": "replace", "path": "/candidates/0/parallel", "value": "3"},
    "charging": {"op": "replace", "path": "/sources/0/absorption_v", "value": 14.3},
    "trial": {"op": "replace", "path": "/trial/days", "value": "9"},
    "compare": {"op": "add", "path": "/plan/overrides/discount_rate", "value": "6 %"},
}


@pytest.mark.parametrize("stop", sampled(STOPS, "day", "compare"))
def test_an_edit_is_answered_in_under_40_kb(client, open_rig, stop) -> None:
    for name in ("kittiwake", "long-haul"):
        page = open_rig(name, stop)
        answer = edit(client, page, stop, TYPICAL[stop])
        assert answer.status_code == 200, answer.json
        assert answer.json["patch"] is not None
        assert len(answer.data) < 40_000, (name, len(answer.data))


def test_an_edit_leaves_nothing_of_ours_to_the_collector(client, open_rig) -> None:
    # What it makes goes at once; in a cycle, views of a thousand edits would lie about until collected.
    page = open_rig("kittiwake", "compare")

    def changed(nights: str, page: dict[str, Any]) -> dict[str, Any]:
        operation = {"op": "replace", "path": "/rig/off_grid_nights", "value": nights}
        return raw(edit(client, page, "compare", operation), page)

    page = changed("33", page)
    gc.collect()
    gc.disable()
    try:
        gc.set_debug(gc.DEBUG_SAVEALL)
        changed("34", page)
        gc.collect()
    finally:
        gc.set_debug(0)
        gc.enable()
    ours = {f"{type(o).__module__} {getattr(o, '__module__', '')} {type(o).__qualname__}" for o in gc.garbage}
    gc.garbage.clear()
    assert [name for name in ours if "vast_harbor" in name] == []


def test_when_the_hand_rests_neither_day_nor_need_nor_banks_are_worked_out_again(
    client, open_rig, monkeypatch
) -> None:
    page = open_rig("kittiwake", "day")
    operation = {"op": "replace", "path": "/day/loads/1/draw", "value": "51 W"}
    page = raw(edit(client, page, "day", operation), page)
    assert page["view"]["stale"]
    worked_out: list[str] = []
    for stop in (passage.need_stop, passage.banks_stop):

        def noted(*of, made=stop.evaluate, name=stop.__name__, **more):
            worked_out.append(name)
            return made(*of, **more)

        monkeypatch.setattr(stop, "evaluate", noted)
    page = raw(client.get(f"/api/rigs/{page['id']}?stop=day&have={page['version']}"), page)
    assert not page["view"]["stale"] and not page["view"]["searching"]
    assert worked_out == []
