"""The verdict over the API: what is asked for apart from the plan, workings, and the files that go out."""

import csv
import io

import pytest

from vast_harbor import data
from web.conftest import patch

pytestmark = pytest.mark.whole_catalogue

ASKED = ("doubt", "turns", "house-rules", "when", "loads", "terms")


@pytest.fixture
def rig(client):
    """Open a demo rig: its view."""

    def build(name):
        made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
        return client.get(f"/api/rigs/{made['id']}").get_json()

    return build


def keys_of(view) -> set[str]:
    if isinstance(view, dict):
        own = {view["key"]} if {"key", "text"} <= view.keys() and view["key"] else set()
        return own.union(*(keys_of(v) for v in view.values()))
    if isinstance(view, list):
        return set().union(*(keys_of(v) for v in view))
    return set()


@pytest.mark.parametrize("required", ASKED)
def test_what_is_asked_for_opens_its_workings(client, rig, required) -> None:
    view = rig("pebble")
    answer = client.get(f"/api/rigs/{view['id']}/compare/{required}")
    assert answer.status_code == 200
    keys = sorted(keys_of(answer.get_json()))
    assert keys
    for key in keys[:: max(1, len(keys) // 6)]:
        workings = client.get(f"/api/rigs/{view['id']}/workings", query_string={"key": key})
        assert workings.status_code == 200, key
        told = workings.get_json()
        assert told["name"] and (told["formula"] or told["source"] or told["path"]), key
    assert client.get(f"/api/rigs/999/compare/{required}").status_code == 404


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_the_answer_to_an_edit_holds_the_verdict_and_its_draws(client, rig, name) -> None:
    view = rig(name)
    verdict = view["compare"]["verdict"]
    assert verdict["kind"] == "buy" and verdict["winner"] in {
        c["id"] for c in view["compare"]["compared_banks"]
    }
    shares = {x["id"]: x["share"]["value"] for x in verdict["candidates"] if x["share"]}
    shares |= {f["id"]: f["figures"]["share"]["value"] for f in verdict["found"] if not f["out"]}
    assert sum(shares.values()) == pytest.approx(1)
    for lane in verdict["candidates"]:
        assert lane["p10"]["value"] <= lane["p50"]["value"] <= lane["p90"]["value"]
    out = {o["id"] for o in verdict["outs"]}
    stopped = {c["id"] for c in view["compare"]["compared_banks"] if c["out"]}
    assert out == stopped | {f["id"] for f in verdict["found"] if f["out"]}
    # A price that is quoted or paid for one bank alone is answered with its new draws at once.
    quoted = next(c for c in view["compare"]["compared_banks"] if not c["out"] and c["index"] >= 0)
    index = quoted["index"]
    paid = view["document"]["candidates"][index]["purchases"]["paid"]
    price = "purchases/paid/batteries" if paid else "unit_price"
    op = {"op": "replace", "path": f"/candidates/{index}/{price}", "value": 99999 if paid else 9999}
    after = patch(client, view, op).get_json()
    assert not after["stale"] and after["searching"]
    spread = {lane["id"]: lane["p50"]["value"] for lane in after["compare"]["verdict"]["candidates"]}
    before = {lane["id"]: lane["p50"]["value"] for lane in verdict["candidates"]}
    assert spread[quoted["id"]] > before[quoted["id"]]


def test_a_verdict_without_candidates_or_nights_is_an_answer_too(client, rig) -> None:
    view = rig("pebble")
    view = patch(client, view, {"op": "replace", "path": "/rig/off_grid_nights", "value": 0}).get_json()
    assert view["compare"]["verdict"]["kind"] == "hook_up"
    assert next(s["figure"] for s in view["strip"] if s["stop"] == "compare") == "spend nothing"
    for required in ASKED:
        assert client.get(f"/api/rigs/{view['id']}/compare/{required}").status_code == 200
    view = patch(client, view, {"op": "replace", "path": "/candidates", "value": []}).get_json()
    assert view["compare"]["verdict"]["kind"] == "hook_up"
    for required in ("doubt", "turns", "when"):
        assert client.get(f"/api/rigs/{view['id']}/compare/{required}").status_code == 200
    report = client.get(f"/api/rigs/{view['id']}/report?annex=true")
    html = report.get_data(as_text=True)
    # Of the pictures only the day's: there is no bank to draw.
    assert report.status_code == 200 and "Spend nothing" in html
    assert html.count("data:image/svg+xml") == 1


def test_differences_are_told_against_a_bank_that_is_there(client, rig) -> None:
    view = rig("kittiwake")
    at = f"/api/rigs/{view['id']}/compare/differences"
    rows = client.get(at, query_string={"reference": "lfp"}).get_json()["rows"]
    ids = [c["id"] for c in view["compare"]["compared_banks"]]
    lifetime = next(r for r in view["compare"]["rows"] if r["key"] == "lifetime")["figures"]
    gap = lifetime[0]["value"] - lifetime[ids.index("lfp")]["value"]
    assert rows["lifetime"][ids.index("lfp")] == ""
    assert rows["lifetime"][0].startswith("−" if gap < 0 else "+")
    assert rows["kg"][0] == "+156 kg" and rows["cold"][0] == "−20 K"
    assert client.get(at, query_string={"reference": "gone"}).status_code == 404


def test_demands_go_in_and_out_by_their_own_operations(client, rig) -> None:
    view = rig("kittiwake")

    def required_extra(view, key="check-short_circuit", id_="gel"):
        column = next(c for c in view["compare"]["compared_banks"] if c["id"] == id_)
        return next(d for d in column["required_extras"] if d["key"] == key)

    assert required_extra(view)["state"] == "counted"
    view = patch(client, view, *required_extra(view)["strike"]).get_json()
    assert required_extra(view)["state"] == "struck"
    view = patch(client, view, *required_extra(view)["strike"]).get_json()
    assert required_extra(view)["state"] == "counted"
    view = patch(client, view, *required_extra(view)["price_it"]).get_json()
    assert required_extra(view)["state"] == "covered" and required_extra(view)["price_it"] == []
    refused = patch(client, view, {"op": "replace", "path": "/candidates/0/extras/0/tag", "value": "maybe"})
    assert refused.status_code == 422
    assert "needed" in refused.get_json()["problems"][0]["message"]


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("/rig/years_kept", 0, "1 to 40 years"),
        ("/rig/years_kept", "60", "1 to 40 years"),
        ("/plan/overrides/discount_rate", "-5 %", "between 0 and 0.3"),
        ("/plan/overrides/verdict_clear", "20", "between 0.34 and 1"),
        ("/candidates/0/unit_price", "-3", "amount must be between"),
        ("/candidates/0/difficulty", "terrible", "easy"),
        ("/plan/labour", "robots", "own"),
        ("/day/loads/0/thrifty_w", "-1 W", "between 0 and"),
        ("/old_bank/sale_price", "-1", "amount must be between"),
    ],
)
def test_money_that_cannot_be_is_refused_at_its_field(client, rig, path, value, says) -> None:
    view = rig("pebble")
    op = "add" if "overrides" in path else "replace"
    answer = patch(client, view, {"op": op, "path": path, "value": value})
    assert answer.status_code == 422
    problem = answer.get_json()["problems"][0]
    assert problem["path"] == path and says in problem["message"]


@pytest.mark.parametrize(("typed", "means"), [("95", 0.95), ("95 %", 0.95), ("0.95", 0.95), ("1", 1.0)])
def test_a_share_is_typed_in_per_cent(client, rig, typed, means) -> None:
    view = rig("pebble")
    op = {"op": "add", "path": "/plan/overrides/verdict_served", "value": typed}
    after = patch(client, view, op).get_json()
    assert after["document"]["plan"]["overrides"]["verdict_served"] == pytest.approx(means)
    assert after["fields"]["/plan/overrides/verdict_served"] == f"{means * 100:g} %"


def test_files_go_out_under_the_rigs_name(client, rig) -> None:
    view = rig("pebble")
    at = f"/api/rigs/{view['id']}/report"
    for path, kind, ending in (
        (f"{at}?save=true", "text/html", "report.html"),
        (f"{at}/comparison.csv", "text/csv", "comparison.csv"),
        (f"{at}/cash-flow.csv", "text/csv", "cash-flow.csv"),
    ):
        answer = client.get(path)
        assert answer.mimetype == kind
        assert f"pebble-{ending}" in answer.headers["Content-Disposition"]
    assert "Content-Disposition" not in client.get(at).headers
    assert client.get(f"{at}?paper=a3").status_code == 422
    rows = list(csv.reader(io.StringIO(client.get(f"{at}/cash-flow.csv").get_data(as_text=True))))
    columns = len(view["compare"]["compared_banks"])
    assert len(rows) == 1 + columns * 10
    lifetime = next(r for r in view["compare"]["rows"] if r["key"] == "lifetime")["figures"]
    ends = [float(r[-1]) for r in rows[10::10]]
    assert ends == pytest.approx([figure["value"] for figure in lifetime], abs=0.01)
    assert all(len(r) == len(rows[0]) for r in rows)
