"""The guided start as the API serves it: patterns, what is stated, what is open, and offers."""

import pytest

from vast_harbor import data

from .conftest import patch


@pytest.fixture
def rig(client):
    """A new rig of some kind, as its answer shows it."""

    def make(**fields):
        made = client.post("/api/rigs", json={"name": "Skua", **fields}).get_json()
        return client.get(f"/api/rigs/{made['id']}").get_json()

    return make


def statuses(view) -> dict[str, str]:
    return {t["key"]: t["status"] for t in view["topics"]}


def test_a_new_rig_has_stated_only_what_was_said(rig) -> None:
    empty = statuses(rig(kind="van"))
    assert {k for k, s in empty.items() if s == "stated"} == set()
    assert empty["nights"] == "assumed" and empty["loads"] == empty["where"] == "missing"
    said = statuses(rig(kind="boat", region="low-countries", sources=["mains"]))
    assert said["where"] == said["charging"] == "stated"
    filled = statuses(rig(kind="boat", pattern="weekends"))
    assert filled["loads"] == filled["charging"] == filled["row"] == "assumed"


@pytest.mark.parametrize("key", [*data.patterns(), "usual"])
@pytest.mark.parametrize("kind", ["van", "cabin"])
def test_a_pattern_fills_a_rig_in_one_edit_and_is_assumed(client, rig, key, kind) -> None:
    view = rig(kind=kind, region="scotland")
    found = client.get(f"/api/rigs/{view['id']}/patterns/{key}").get_json()
    edited = patch(client, view, *found["operations"]).get_json()
    kinds = {t["kind"] for t in edited["document"]["day"]["types"]}
    assert "off_grid" in kinds and ("travelling" in kinds) == (kind != "cabin")
    rig_part = edited["document"]["rig"]
    # Only the kinds of day that occur.
    assert ("laid_up" in kinds) == (len(rig_part["months"]) < 12)
    assert ("hook_up" in kinds) == (rig_part["hook_up_nights"] > 0)
    now = statuses(edited)
    assert {now[k] for k in ("nights", "row", "loads", "charging", "months", "place")} == {"assumed"}
    assert now["where"] == "stated"
    assert edited["strip"][1]["figure"] != "0 Wh"


def test_in_the_south_the_months_of_a_pattern_are_turned(client, rig) -> None:
    north, south = (
        rig(region=r, pattern="winter")["document"]["rig"]["months"] for r in ("scotland", "patagonia")
    )
    assert sorted((m + 5) % 12 + 1 for m in north) == south
    assert set(south) & {6, 7, 8}


def test_an_edit_states_its_topic_and_not_knowing_takes_it_back(client, rig) -> None:
    view = rig(kind="boat", pattern="weekends")
    nights = {"op": "replace", "path": "/rig/off_grid_nights", "value": "30"}
    edited = patch(client, view, nights).get_json()
    assert statuses(edited)["nights"] == "stated" and statuses(edited)["row"] == "assumed"
    says = {t["key"]: t["says"] for t in edited["topics"]}
    assert says["nights"] == "30 nights" and "whether a bank fits" in says["space"]
    unsure = patch(client, edited, {"op": "replace", "path": "/stated/nights", "value": False}).get_json()
    assert statuses(unsure)["nights"] == "assumed"
    undone = client.post(f"/api/rigs/{view['id']}/undo", json={"revision": unsure["revision"]}).get_json()
    assert statuses(undone)["nights"] == "stated"


def test_what_is_open_is_told_and_a_question_left_is_kept(client, rig) -> None:
    view = rig(kind="boat", pattern="weekends", region="scotland", guide="old")
    found = client.get(f"/api/rigs/{view['id']}/compare/open").get_json()
    assert found["provisional"] and found["asks"] in {t["key"] for t in found["topics"]}
    assert {t["key"] for t in found["topics"]} == {k for k, s in statuses(view).items() if s != "stated"}
    card = client.get(f"/api/rigs/{view['id']}/card").get_json()
    # The line says so itself, or the card does beside it; never both.
    assert card["provisional"] != card["result"][0]["text"].startswith("For now") and card["guide"] == "old"
    report = client.get(f"/api/rigs/{view['id']}/report?paper=a4&annex=true").get_data(as_text=True)
    assert "What we assumed" in report and "typical of their kind" in report


OFFER = "Pellin 100 LiFePO4 12.8 V 100 Ah, 11.5 kg, 100 A continuous, € 549"


def test_an_offer_becomes_a_battery_with_its_typical_values_marked(client, rig) -> None:
    view = rig(kind="boat", pattern="weekends")
    found = client.post(f"/api/rigs/{view['id']}/quote", json={"text": OFFER}).get_json()
    texts = {f["field"]: f["text"] for f in found["said"]}
    assert texts["rated_ah"] == "100 Ah" and texts["kg"] == "11.5 kg" and "549" in texts["price"]
    assert found["problems"] == [] and set(found["model"]["typical"]) >= {"cycles", "warranty_years"}
    assert not set(found["model"]["typical"]) & set(texts)
    at = next(i for i, c in enumerate(view["document"]["candidates"]) if c["battery_class"] == "lfp")
    edited = patch(
        client, view,
        {"op": "add", "path": "/own_models/-", "value": {**found["model"], "id": "quote-1"}},
        {"op": "replace", "path": f"/candidates/{at}/model", "value": "quote-1"},
    ).get_json()  # fmt: skip
    column = next(c for c in edited["compare"]["compared_banks"] if c["index"] == at)
    assert column["own"] and "Pellin 100" in column["title"]
    # What the owner then enters is no longer typical, and stays so when the row moves.
    more = patch(
        client, edited,
        {"op": "add", "path": "/own_models/0", "value": {"id": "other", "name": "Other"}},
        {"op": "replace", "path": "/own_models/1/warranty_years", "value": "9.5"},
    ).get_json()  # fmt: skip
    kept = more["document"]["own_models"][1]["typical"]
    assert set(kept) == set(found["model"]["typical"]) - {"warranty_years"}


def test_what_is_in_doubt_is_asked_and_counts_once_it_is_answered(client, rig) -> None:
    path = f"/api/rigs/{rig(kind='boat', pattern='weekends')['id']}/quote"
    text = "LiFePO4 12 V 100 Ah, 349 € or 410 €, 3000 kg"
    found = client.post(path, json={"text": text}).get_json()
    asks = {a["field"]: [c["value"] for c in a["choices"]] for a in found["asks"]}
    assert asks == {"price": [349, 410], "kg": [3000]} and {"price", "kg"} <= set(found["model"]["typical"])
    told = client.post(
        path, json={"text": text, "answers": {"price": 410, "battery_class": 3, "kg": 4}}
    ).get_json()
    assert [a["field"] for a in told["asks"]] == ["kg"] and told["model"]["price"] == 410
    assert "price" not in told["model"]["typical"]


@pytest.mark.parametrize(
    ("text", "says"),
    [("nothing to see", "names no capacity"), ("LFP 12.8 V 9000 Ah", "capacity"), ("AGM 7 V 100 Ah", "")],
)
def test_what_is_no_battery_is_refused_with_a_sentence(client, rig, text, says) -> None:
    found = client.post(f"/api/rigs/{rig()['id']}/quote", json={"text": text}).get_json()
    assert (found["model"] is None) == bool(found["problems"])
    assert not says or says in found["problems"][0]
