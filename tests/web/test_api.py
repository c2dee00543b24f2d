"""The API: edits answer with every figure, refusals with sentences, and nothing ends in a bare error."""

import json
import sqlite3
import time
from datetime import timedelta

import pytest

from sampled import sampled
from vast_harbor.store import rigs
from vast_harbor.web.harbor import cards
from vast_harbor.web.server.app import create_app
from web.conftest import back, patch


@pytest.fixture
def rig(client):
    made = client.post("/api/rigs", json={"name": "Skua", "kind": "boat"}).get_json()
    return client.get(f"/api/rigs/{made['id']}").get_json()


def add_load(client, rig, **fields):
    load = {"id": "fridge", "name": "Fridge", "draw": "45 W", "hours": "24", "duty": "35 %"} | fields
    return patch(client, rig, {"op": "add", "path": "/day/loads/-", "value": load}, label="add Fridge")


def test_an_edit_moves_the_whole_strip(client, rig) -> None:
    view = add_load(client, rig).get_json()
    strip = {s["stop"]: s["figure"] for s in view["strip"]}
    # 45 W × 24 h × 0.35 = 378 Wh; two nights and a quarter more: 945 Wh.
    assert strip["day"] == "378 Wh" and strip["need"] == "945 Wh · 2 nights"
    assert strip["compare"] != "—" and view["undo"] == "add Fridge"
    undone = back(client, view).get_json()
    assert undone["document"] == rig["document"] and undone["redo"] == "add Fridge"


def test_a_refused_edit_changes_nothing_and_says_why(client, rig) -> None:
    add_load(client, rig)
    view = client.get(f"/api/rigs/{rig['id']}").get_json()
    answer = patch(client, view, {"op": "replace", "path": "/day/loads/0/hours", "value": "25"})
    assert answer.status_code == 422
    assert answer.get_json()["problems"][0]["path"] == "/day/loads/0/hours"
    assert client.get(f"/api/rigs/{rig['id']}").get_json() == view


def test_an_edit_of_an_older_state_is_refused(client, rig) -> None:
    add_load(client, rig)
    answer = add_load(client, rig, id="other")
    assert answer.status_code == 409
    assert "another window" in answer.get_json()["problems"][0]["message"]


def figures_of(view) -> set[str]:
    if isinstance(view, dict):
        own = {view["key"]} if {"key", "text"} <= view.keys() and view["key"] else set()
        return own.union(*(figures_of(v) for v in view.values()))
    if isinstance(view, list):
        return set().union(*(figures_of(v) for v in view))
    return set()


@pytest.mark.parametrize("name", sampled(["kittiwake", "pebble"], "pebble"))
def test_every_figure_on_every_stop_opens_its_workings(client, name) -> None:
    rig_id = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]["id"]
    view = client.get(f"/api/rigs/{rig_id}").get_json()
    assumptions = {a["key"] for a in view.pop("assumptions")}
    keys = figures_of(view)
    assert len(keys) > 100
    for key in keys | {f"assume.{a}" for a in assumptions}:
        answer = client.get(f"/api/rigs/{rig_id}/workings", query_string={"key": key})
        assert answer.status_code == 200, key
        workings = answer.get_json()
        assert workings["name"] and (workings["formula"] or workings["source"] or workings["path"]), key


def test_a_rig_file_goes_out_and_comes_back(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "pebble"}).get_json()["rigs"][0]
    sent = client.get(f"/api/rigs/{made['id']}/file")
    assert "attachment" in sent.headers["Content-Disposition"]
    back = client.post("/api/rigs/import", data=sent.data, content_type="application/json").get_json()
    assert back["name"] == "Pebble (2)"
    again = json.loads(client.get(f"/api/rigs/{back['id']}/file").data)
    first = json.loads(sent.data)
    assert again["rig"].pop("name") == "Pebble (2)" and first["rig"].pop("name") == "Pebble"
    assert again == first


def test_the_harbor_is_there_before_its_figures(client, rig, monkeypatch) -> None:
    def card():
        return client.get("/api/rigs").get_json()["rigs"][0]

    bare = {"id": rig["id"], "name": "Skua", "kind": "boat", "notes": ""}
    assert card() == bare | {"figures": None, "fresh": False}
    figures = client.get(f"/api/rigs/{rig['id']}/card").get_json()
    assert [s["stop"] for s in figures["strip"]] == [s["stop"] for s in rig["strip"]]
    assert figures["result"] and card() == bare | {"figures": figures, "fresh": True}
    # They lie in the database: another run of the program knows them, tomorrow until they are renewed.
    other = create_app(client.application.config["DATABASE"])
    other.config["TODAY"] = lambda: "2031-01-01"
    tomorrow = other.test_client().get("/api/rigs").get_json()["rigs"][0]
    assert tomorrow == bare | {"figures": figures, "fresh": False}
    # Another version of the program would come to others.
    monkeypatch.setattr(cards, "build", lambda: "another")
    assert card()["figures"] is None
    monkeypatch.undo()
    # What was changed since is worked out again.
    patch(client, rig, {"op": "replace", "path": "/rig/off_grid_nights", "value": "33"})
    assert card()["figures"] is None
    again = client.get(f"/api/rigs/{rig['id']}/card").get_json()
    assert "33" in again["strip"][0]["figure"] and again != figures
    assert client.get("/api/rigs/99/card").status_code == 404


def test_a_card_says_the_bank_at_once_and_then_what_helps_beside_it(client) -> None:
    rig_id = client.post("/api/rigs/demo", json={"name": "mulga"}).get_json()["rigs"][0]["id"]

    def kept():
        card = client.get("/api/rigs").get_json()["rigs"][0]
        return card["figures"], card["fresh"]

    first = client.get(f"/api/rigs/{rig_id}/card").get_json()
    assert first["result"] and first["looking"] and kept() == (first, False)
    whole = client.get(f"/api/rigs/{rig_id}/card?whole=true").get_json()
    assert not whole["looking"] and kept() == (whole, True)
    # What is known is not forgotten by asking for less.
    app = client.application.config
    less = cards.work_out(app["DATABASE"], rig_id, app["TODAY"](), whole=False)
    assert less.model_dump() == whole and kept() == (whole, True)


def test_rigs_are_paged_and_searched(client) -> None:
    for i in range(30):
        made = client.post(
            "/api/rigs", json={"name": f"Skerry {i:02}", "kind": "boat" if i % 10 else "cabin"}
        )
        if i == 7:
            patch(client, {"id": made.get_json()["id"], "revision": 1},
                  {"op": "replace", "path": "/rig/notes", "value": "The ÖLAND one, 100 % sun"})  # fmt: skip

    def names(query: str) -> list[str]:
        return [r["name"] for r in client.get(f"/api/rigs?{query}").get_json()["rigs"]]

    first = client.get("/api/rigs").get_json()
    assert (first["found"], first["all"], first["pages"]) == (30, 30, 2)
    assert names("")[:2] == ["Skerry 29", "Skerry 28"] and names("page=2")[-1] == "Skerry 00"
    assert len(names("") + names("page=2")) == len(set(names("") + names("page=2"))) == 30
    # In any order and case, in names, kinds and notes; signs of the database's own are plain text.
    assert names("search=cabin+sker") == ["Skerry 20", "Skerry 10", "Skerry 00"]
    assert names("search=%C3%B6land") == names("search=100+%25") == ["Skerry 07"]
    assert names("search=sk_rry") == names("page=3") == []
    assert client.get("/api/rigs?search=cabin").get_json()["found"] == 3
    assert client.get("/api/rigs?page=0").status_code == 422


def test_a_card_that_cannot_be_kept_is_shown_all_the_same(client, rig, monkeypatch) -> None:
    def full(*_: object) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr(cards.cards, "keep", full)
    assert client.get(f"/api/rigs/{rig['id']}/card").status_code == 200


def test_cards_are_renewed_in_the_background(client, rig, monkeypatch) -> None:
    monkeypatch.setattr(cards, "LEFT_ALONE", timedelta(0))
    monkeypatch.setattr(cards, "QUIET_S", 0.0)
    # One that cannot be worked out does not end it.
    with client.application.config["DATABASE"].writing() as db:
        rigs.add(db, {"rig": {"name": "Broken", "kind": "van", "years_kept": 900}})
    cards.renew_in_background(client.application)
    for _ in range(400):
        known = {r["name"]: r["figures"] for r in client.get("/api/rigs").get_json()["rigs"]}
        if known["Skua"]:
            break
        time.sleep(0.05)
    assert known["Skua"]["strip"] and known["Broken"] is None


def test_delete_copy_and_restore(client, rig) -> None:
    copy = client.post(f"/api/rigs/{rig['id']}/copy").get_json()
    assert copy["name"] == "Skua copy"
    assert client.delete(f"/api/rigs/{rig['id']}").status_code == 200
    assert [r["name"] for r in client.get("/api/rigs").get_json()["rigs"]] == ["Skua copy"]
    assert client.get(f"/api/rigs/{rig['id']}").status_code == 404
    client.post(f"/api/rigs/{rig['id']}/restore")
    assert client.get(f"/api/rigs/{rig['id']}").get_json()["document"] == rig["document"]


@pytest.mark.parametrize(
    ("method", "path", "body", "status"),
    [
        ("post", "/api/rigs/import", b"x" * 3_000_000, 413),
        ("post", "/api/rigs/import", b"not json", 422),
        ("post", "/api/rigs", b"{", 422),
        ("post", "/api/rigs", b'{"name": 5}', 422),
        ("patch", "/api/rigs/1", b"[]", 422),
        ("patch", "/api/rigs/1", b'{"revision": 1, "operations": [{"op": "remove", "path": "/nix/3"}]}', 409),
        ("patch", "/api/rigs/1", b'{"revision": 1, "operations": [{"op": "remove", "path": "nix"}]}', 409),
        ("patch", "/api/rigs/1", b'{"revision": 1, "operations": [{"op": "remove", "path": "/rig"}]}', 422),
        (
            "patch",
            "/api/rigs/1",
            b'{"revision": 1, "operations": [{"op": "replace", "path": "", "value": 3}]}',
            422,
        ),
        ("get", "/api/rigs/1/workings?key=nix", b"", 404),
        ("get", "/api/nix", b"", 404),
        ("put", "/api/rigs", b"", 405),
        ("get", "/api/rigs/99999999999999999999999", b"", 422),
    ],
)
def test_bad_requests_are_answered_with_a_sentence(client, rig, method, path, body, status) -> None:
    answer = getattr(client, method)(path, data=body, content_type="application/json")
    assert answer.status_code == status
    for problem in answer.get_json()["problems"]:
        assert problem["message"].strip().endswith(".")


def test_other_sites_cannot_reach_in(client) -> None:
    foreign = client.post("/api/rigs", json={"name": "x"}, headers={"Origin": "http://elsewhere.example"})
    assert foreign.status_code == 403
    assert client.get("/api/rigs", headers={"Host": "elsewhere.example"}).status_code == 403
    own = client.post("/api/rigs", json={"name": "x"}, headers={"Origin": "http://localhost"})
    assert own.status_code == 201
    headers = client.get("/api/rigs").headers
    assert "default-src 'self'" in headers["Content-Security-Policy"]
    assert headers["X-Frame-Options"] == "DENY" and headers["Cross-Origin-Resource-Policy"] == "same-origin"


@pytest.mark.parametrize(
    ("path", "site", "mode", "dest", "status"),
    [
        ("/api/rigs", "cross-site", "no-cors", "image", 403),
        ("/api/rigs", "same-site", "cors", "empty", 403),
        ("/api/rigs", "cross-site", "navigate", "document", 403),
        ("/", "cross-site", "navigate", "iframe", 403),
        ("/", "cross-site", "navigate", "document", 200),
        ("/api/rigs", "same-origin", "cors", "empty", 200),
        ("/api/rigs", "none", "navigate", "document", 200),
    ],
)
def test_other_sites_are_told_nothing(client, path, site, mode, dest, status) -> None:
    asks = {"Sec-Fetch-Site": site, "Sec-Fetch-Mode": mode, "Sec-Fetch-Dest": dest}
    assert client.get(path, headers=asks).status_code == status


@pytest.mark.parametrize("path", ["/../app.py", "/..%2fapp.py", "/%2e%2e/app.py", "/../no-such-file"])
def test_a_path_tells_nothing_of_files_outside(client, path) -> None:
    other = "/robots.txt" if path.endswith(".py") else "/no-such-page"
    answers = [client.get(p) for p in (path, other)]
    assert answers[0].status_code == answers[1].status_code and answers[0].data == answers[1].data
    # A file that is not there is no page.
    assert (answers[1].status_code == 404) == (other == "/robots.txt")


def test_a_battery_called_like_a_formula_is_words_in_every_csv(client, rig) -> None:
    own = {"id": "own", "name": "x", "maker": "=HYPERLINK(1)", "battery_class": "lfp", "unit_v": 12.8}
    own |= {"rated_ah": 100, "rated_hours": 5, "kg": 12, "price": 400, "cycles": 3000}
    rows = [
        {"op": "add", "path": "/own_models/-", "value": own},
        {"op": "replace", "path": "/candidates/2/model", "value": "own"},
    ]
    add_load(client, rig)
    view = patch(client, client.get(f"/api/rigs/{rig['id']}").get_json(), *rows)
    assert view.status_code == 200, view.data
    for name in ("report/comparison.csv", "report/cash-flow.csv"):
        text = client.get(f"/api/rigs/{rig['id']}/{name}").get_data(as_text=True)
        assert "'=HYPERLINK" in text and ",=HYPERLINK" not in text and not text.startswith("=")


def test_appliance_list_can_be_added_as_it_is(client, rig) -> None:
    appliances = client.get("/api/reference").get_json()["appliances"]
    assert len(appliances) >= 120
    operations = [
        {"op": "add", "path": "/day/loads/-", "value": {"id": f"a{i}"} | entry["load"]}
        for i, entry in enumerate(appliances)
    ]
    view = patch(client, rig, *operations).get_json()
    assert len(view["day"]["loads"]) == len(appliances)
    assert all(load["wh"]["value"] > 0 for load in view["day"]["loads"])


@pytest.mark.parametrize(("volts", "draw", "low", "high"), [(None, "4 A", 2.5, 5.0), (24, "2 A", 1.25, 2.5)])
def test_a_range_of_watts_stays_that_range_when_the_draw_is_typed_in_amps(
    client, rig, volts, draw, low, high
):
    view = add_load(client, rig, draw="48 W", low="30", high="60", volts=volts).get_json()
    load = {"op": "replace", "path": "/day/loads/0/draw"}
    before = view["day"]["loads"][0]["wh"]["text"], view["need"]["energy"]["text"]
    amps = patch(client, view, load | {"value": draw}).get_json()
    stored = amps["document"]["day"]["loads"][0]
    assert stored["draw"]["unit"] == "A" and (stored["low"], stored["high"]) == pytest.approx((low, high))
    assert (amps["day"]["loads"][0]["wh"]["text"], amps["need"]["energy"]["text"]) == before
    # Typed back, and undone, it is as it was; a range that is typed with the draw is taken as it stands.
    watts = patch(client, amps, load | {"value": "48 W"}).get_json()["document"]["day"]["loads"][0]
    assert (watts["low"], watts["high"]) == pytest.approx((30, 60))
    back(client, client.get(f"/api/rigs/{rig['id']}").get_json())
    now = client.get(f"/api/rigs/{rig['id']}").get_json()
    typed = {"op": "replace", "path": "/day/loads/0/low", "value": "20"}
    both = patch(client, now, load | {"value": "48 W"}, typed).get_json()["document"]["day"]["loads"][0]
    assert (both["low"], both["high"]) == pytest.approx((20, 60))
