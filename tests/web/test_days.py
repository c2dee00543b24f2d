"""Over the API: the day that is shown, what is tried, readings, labels, patterns and own appliances."""

import pytest

from sampled import sampled
from vast_harbor import data
from web.conftest import patch


@pytest.fixture
def rig(client):
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]
    return client.get(f"/api/rigs/{made['id']}").get_json()


def test_the_day_that_is_shown_is_the_one_asked_for(client, rig) -> None:
    assert rig["day"]["type"] == "winter" and rig["day"]["types"][1]["governs"]
    path = f"/api/rigs/{rig['id']}"
    shown = client.get(path, query_string={"show": "motoring"}).get_json()
    assert shown["day"]["type"] == "motoring" and shown["need"] == rig["need"]
    loads = {x["id"]: x for x in shown["day"]["loads"]}
    assert loads["nav"]["runs"] and loads["nav"]["own"] and not loads["laptop"]["runs"]
    assert client.get(path, query_string={"show": "nix"}).get_json()["day"]["type"] == "winter"
    assert shown["day"]["night"] and "standard time" in shown["day"]["sun"]


def test_figures_of_every_kind_of_day_open_their_workings(client, rig) -> None:
    for kind in rig["day"]["types"]:
        keys = [kind["need"]["key"], kind["total"]["key"], *(x["key"] for x in kind["labels"])]
        for key in keys:
            answer = client.get(f"/api/rigs/{rig['id']}/workings", query_string={"key": key})
            assert answer.status_code == 200 and answer.get_json()["formula"], key
            assert answer.get_json()["text"] in [
                x["text"] for x in (kind["need"], kind["total"], *kind["labels"])
            ]


def test_what_if_tells_beside_every_figure_what_it_was(client, rig) -> None:
    path = f"/api/rigs/{rig['id']}/what-if"
    started = client.post(path).get_json()
    assert started["what_if"] == {"tried": []} and started["need"]["energy"]["was"] is None
    edit = {"op": "add", "path": "/plan/overrides/nights", "value": 3}
    tried = patch(client, started, edit, label="nights").get_json()
    assert tried["what_if"] == {"tried": ["nights"]}
    assert tried["need"]["energy"]["was"] == rig["need"]["energy"]["text"] != tried["need"]["energy"]["text"]
    assert tried["day"]["total"]["was"] is None
    strip = {s["stop"]: s for s in tried["strip"]}
    assert strip["need"]["was"] and strip["day"]["was"] is None
    dropped = client.post(f"{path}/end", json={"keep": False}).get_json()
    assert dropped["what_if"] is None and dropped["document"] == rig["document"]
    client.post(path)
    again = patch(client, client.get(f"/api/rigs/{rig['id']}").get_json(), edit).get_json()
    kept = client.post(f"{path}/end", json={"keep": True}).get_json()
    assert kept["document"] == again["document"] and kept["need"]["energy"]["was"] is None


def test_a_slip_is_answered_with_readings_that_can_be_sent_back(client, rig) -> None:
    answer = patch(client, rig, {"op": "replace", "path": "/day/loads/6/draw", "value": "80 Wh/day"})
    assert answer.status_code == 422
    readings = answer.get_json()["problems"][0]["interpretations"]
    # The television runs 2.5 h: 80 Wh a day are its 32 W.
    assert "32 W over its 2.5 h" in readings[0]["label"]
    view = patch(client, rig, *readings[0]["operations"]).get_json()
    assert view["document"] == rig["document"]


def test_a_label_is_read_and_its_slips_are_told(client) -> None:
    ask = {"battery_class": "agm", "volts": "12.8", "ah": "100", "hours": "20", "cycles": "600"}
    found = client.post("/api/label", json=ask).get_json()
    assert {f["name"]: f["text"] for f in found["figures"]}["Energy"] == "1.20 kWh"
    said = " ".join(found["remarks"])
    assert "not a nominal lead-acid voltage" in said and "at what depth" in said
    wrong = client.post("/api/label", json=ask | {"reserve_minutes": "2", "ah": "x"})
    messages = {p["path"]: p["message"] for p in wrong.get_json()["problems"]}
    assert wrong.status_code == 422
    assert "120 minutes" in messages["/reserve_minutes"] and "amp-hours" in messages["/ah"]


def test_own_appliances_are_found_in_every_rig(client, rig) -> None:
    load = rig["document"]["day"]["loads"][0] | {"name": "My fridge"}
    kept = client.post("/api/appliances", json={"load": load}).get_json()["appliances"]
    assert kept[0]["name"] == "My fridge" and "52 W DC" in kept[0]["says"] and "on" not in kept[0]["load"]
    other = client.post("/api/rigs", json={"name": "Other"}).get_json()
    view = client.get(f"/api/rigs/{other['id']}").get_json()
    entry = {"op": "add", "path": "/day/loads/-", "value": {**kept[0]["load"], "id": "mine"}}
    assert patch(client, view, entry).get_json()["day"]["loads"][0]["wh"]["value"] > 0
    assert client.post("/api/appliances", json={"load": {"name": ""}}).status_code == 422
    assert client.delete(f"/api/appliances/{kept[0]['own']}").get_json()["appliances"] == []


@pytest.mark.parametrize("pattern", data.patterns())
def test_a_rig_is_made_from_a_pattern_in_a_region(client, pattern) -> None:
    made = client.post(
        "/api/rigs", json={"name": "P", "pattern": pattern, "region": "new-zealand"}
    ).get_json()
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    assert view["document"]["rig"]["latitude"] == -42 and view["day"]["night"]
    assert len(view["day"]["loads"]) >= 7 and view["need"]["energy"]["value"] > 0
    assert client.post("/api/rigs", json={"pattern": "nix"}).status_code == 422
    assert client.post("/api/rigs", json={"region": "nix"}).status_code == 422


def test_use_is_told_in_amp_hours_where_the_owner_leads_with_them(client, rig) -> None:
    edit = {"op": "replace", "path": "/rig/lead", "value": "ah"}
    view = patch(client, rig, edit).get_json()
    # 1181 Wh at 12 V are 98 Ah; what labels say stays in its own units.
    assert view["day"]["total"]["text"] == "98 Ah" and view["day"]["loads"][0]["wh"]["text"] == "22 Ah"
    assert (
        view["strip"][1]["figure"].startswith("98 Ah") and view["strip"][2]["figure"] == "246 Ah · 2 nights"
    )
    assert (
        view["need"]["classes"][0]["nameplate_wh"]["text"]
        == rig["need"]["classes"][0]["nameplate_wh"]["text"]
    )
    key = view["day"]["total"]["key"]
    workings = client.get(f"/api/rigs/{rig['id']}/workings", query_string={"key": key}).get_json()
    assert "Wh" in workings["exact"]


@pytest.mark.parametrize("name", sampled(["kittiwake", "mulga"], "mulga"))
def test_findings_are_whole_sentences_on_every_kind_of_day(client, name) -> None:
    made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    # The hungriest thing that people put on a bank, so that more findings speak.
    value = {"id": "x", "name": "Fan {heater}", "supply": "ac", "draw": "2 kW", "high": 3000, "hours": 6}
    view = patch(client, view, {"op": "add", "path": "/day/loads/-", "value": value}).get_json()
    assert {"dominates", "doubt"} <= {f["code"] for f in view["findings"]}
    for kind in view["document"]["day"]["types"]:
        edit = {"op": "replace", "path": "/plan/day_type", "value": kind["id"]}
        view = patch(client, view, edit).get_json()
        checks = [c for banked in view["banks"]["candidates"] for c in banked["checks"]]
        for finding in view["findings"] + [c for c in checks if c["verdict"] != "unknown"]:
            text = "".join(t["text"] for t in finding["says"]).replace("Fan {heater}", "")
            assert "{" not in text and "}" not in text
            assert text.rstrip().endswith((".", "?")) and finding["remedy"].endswith("."), text


def test_weight_and_price_are_checked_with_the_bank(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "mulga"}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    agm = next(c for c in view["banks"]["candidates"] if c["id"] == "agm")
    assert {"payload"} <= {c["code"] for c in agm["checks"] if c["verdict"] == "blocking"}
    assert view["compare"]["compared_banks"][0]["out"]
