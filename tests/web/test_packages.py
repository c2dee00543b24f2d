"""Packages over the API: what is advised is planned in one edit, counted everywhere, and taken back."""

import json
from sqlite3 import connect

import pytest

from vast_harbor import data
from web.conftest import back, patch

pytestmark = pytest.mark.whole_catalogue


@pytest.fixture
def tern_rock(client):
    made = client.post("/api/rigs/demo", json={"name": "tern-rock"}).get_json()["rigs"][0]
    return client.get(f"/api/rigs/{made['id']}").get_json()


def edited(client, view, *operations) -> dict:
    answer = patch(client, view, *operations)
    assert answer.status_code == 200, answer.get_json()
    return client.get(f"/api/rigs/{view['id']}").get_json()


def packages_of(client, view) -> dict:
    answer = client.get(f"/api/rigs/{view['id']}/compare/packages")
    assert answer.status_code == 200
    return answer.get_json()


def text(tokens) -> str:
    return "".join(t["text"] for t in tokens)


def test_what_is_advised_is_planned_in_one_edit_and_undone(client, tern_rock) -> None:
    found = packages_of(client, tern_rock)
    by_key = {p["key"]: p for p in found["packages"]}
    advised = by_key[found["advice"]]
    assert text(found["headline"]).startswith("For now: move the bank indoors, then buy ")
    assert {s["step"] for s in found["ladder"]} >= {"nothing", "advised"} and len(found["families"]) == 2
    assert all(f["package"] in by_key or f["why"] for f in found["families"])
    assert all(s["package"] in by_key for s in (*found["ladder"], *found["levels"]) if s["package"])
    # Every figure that is told opens its workings.
    for token in (t for s in found["card"] for t in s if t.get("key")):
        key = {"key": token["key"]}
        assert client.get(f"/api/rigs/{tern_rock['id']}/workings", query_string=key).status_code == 200, key
    planned = edited(client, tern_rock, *advised["take"])
    after = packages_of(client, planned)
    assert [one["key"] for one in after["planned"]] == ["indoors"]
    assert after["planned"][0]["index"] == 0 and not any(o["key"] == "indoors" for o in after["possible"])
    # The report and the comparison say the same line.
    line = text(after["headline"])
    report = client.get(f"/api/rigs/{tern_rock['id']}/report").get_data(as_text=True)
    assert "Find out before you buy" in report
    assert line in report and report.index("each at its best") < report.index("Reasons for it")
    assert back(client, planned).status_code == 200
    assert packages_of(client, tern_rock)["planned"] == []


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_one_bank_has_one_cost_beside_the_verdict(client, name) -> None:
    made = client.post("/api/rigs/demo", json={"name": name}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    found = packages_of(client, view)
    by_key = {p["key"]: p for p in found["packages"]}
    class_of = {c["id"]: c["battery_class"] for c in view["compare"]["compared_banks"]}
    class_of |= {f"found:{key}": key for key in (*class_of.values(), "lfp", "agm", "gel")}
    told = [t for s in found["card"] for t in s if (t.get("key") or "").endswith("lifetime")]
    for family in found["families"]:
        package = by_key.get(family["package"])
        if package is None:
            continue
        # Its column and its step of the ladder tell the same.
        assert all(package["figures"][k]["text"] == family["figures"][k]["text"] for k in family["figures"])
        # What is done beside its bank is counted in what the words say of the family.
        banks = {k for k, c in class_of.items() if (c == "lfp") == (family["battery_class"] == "lfp")}
        alone = [t for t in told if t["key"].startswith("cost.") and t["key"].split(".")[1] in banks]
        assert not (family["does"] and alone), family["name"]
    kind = text(found["headline"]).rsplit("(", 1)[1].split(")")[0].split()[0]
    assert found["strip"] == f"{kind} bank"


def test_the_answer_on_paper_names_what_can_burn_with_a_bank_that_was_found(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]
    told = client.get(f"/api/rigs/{made['id']}/report").text
    assert "The cable would burn before the fuse blows" in told and "releases hydrogen" in told


def test_what_is_not_possible_is_not_proposed_until_it_is_allowed_again(client, tern_rock) -> None:
    (one,) = packages_of(client, tern_rock)["find_out"]
    assert one["key"] == "indoors" and one["stop"] == "rig" and text(one["otherwise"])
    view = edited(client, tern_rock, *one["refuse"])
    found = packages_of(client, view)
    assert [r["says"] for r in found["refused"]] == ["The bank indoors"]
    assert "indoors" not in json.dumps([p["key"] for p in found["packages"]])
    again = edited(client, view, *found["refused"][0]["allow"])
    assert any(o["key"] == "indoors" for o in packages_of(client, again)["possible"])


def test_a_rig_of_before_takes_improvements(client) -> None:
    made = client.post("/api/rigs/import", json=data.demo_rig("tern-rock")).get_json()
    with connect(client.application.config["DATABASE"].path) as db:
        document = json.loads(
            db.execute("SELECT document FROM rig WHERE id = ?", (made["id"],)).fetchone()[0]
        )
        del document["improvements"]
        db.execute("UPDATE rig SET document = ? WHERE id = ?", (json.dumps(document), made["id"]))
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    row = {"id": "sun", "kind": "panels", "size": 300, "target": "", "price": None, "state": "planned"}
    after = edited(client, view, {"op": "add", "path": "/improvements/-", "value": row | {"tag": "needed"}})
    assert after["revision"] > view["revision"]
    wrong = row | {"id": "gas", "kind": "windmill", "tag": "needed"}
    answer = patch(client, after, {"op": "add", "path": "/improvements/-", "value": wrong})
    assert answer.status_code == 422


def test_where_no_bank_will_do_what_comes_nearest_is_tried_in_one_edit(client) -> None:
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    sides = {"length": "250", "width": "180", "height": "200"}
    narrow = edited(client, view, *(
        {"op": "replace", "path": f"/rig/locker_{side}", "value": mm} for side, mm in sides.items()
    ))  # fmt: skip
    found = packages_of(client, narrow)
    (one,) = found["nearest"]
    assert found["packages"] == [] and text(found["card"][0]) == text(one["says"])
    for token in (t for t in one["says"] if t.get("key")):
        key = {"key": token["key"]}
        said = client.get(f"/api/rigs/{view['id']}/workings", query_string=key).get_json()
        assert token["text"] in json.dumps(said, ensure_ascii=False), key
    after = packages_of(client, edited(client, narrow, *one["try_it"]))
    assert after["nearest"] == [] and after["advice"]
