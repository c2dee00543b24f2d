"""The one door for all data that come in: what is not a rig's is refused with a sentence, or made clean."""

import json

import pytest

from vast_harbor import data
from vast_harbor.formats import csv_table, door
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.problem import RigFileError
from web.conftest import patch


def nested(depth: int):
    found: object = 1
    for _ in range(depth):
        found = [found]
    return found


@pytest.mark.parametrize(
    ("value", "words"),
    [
        (10**401, "too large"),
        (float("inf"), "too large"),
        (float("nan"), "not a number"),
        (nested(45), "nested more deeply"),
        ([0] * 100_001, "more entries"),
    ],
)
def test_what_no_rig_has_is_refused_at_its_place(value, words) -> None:
    with pytest.raises(RigFileError) as refused:
        door.admitted({"rig": {"x": value}})
    (problem,) = refused.value.problems
    assert words in problem.message and problem.path.startswith("/rig/x")
    assert door.admitted({"a": [True, None, 1e15, "x", nested(30)]}) == {
        "a": [True, None, 1e15, "x", nested(30)]
    }


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("a\x00b\x1b[31m\x9f", "ab[31m"),
        ("Two\nlines\tand a tab", "Two\nlines\tand a tab"),
        ("Sea\u202etar\u2066\u200b", "Seatar"),
        ("half \ud800 a one", "half \ufffd a one"),
        # Marks of scripts from right to left and joined emoji are what people write.
        ("\u05d0\u200f \U0001f469\u200d\U0001f692", "\u05d0\u200f \U0001f469\u200d\U0001f692"),
    ],
)
def test_what_nobody_sees_is_left_out(typed, kept) -> None:
    assert door.clean(typed) == kept
    assert door.admitted({typed: [typed]}) == {kept: [kept]}


@pytest.fixture
def rig(client):
    made = client.post("/api/rigs/demo", json={"name": "kittiwake"}).get_json()["rigs"][0]["id"]
    return client.get(f"/api/rigs/{made}").get_json()


NUMBER = '"off_grid_nights": 46'


@pytest.mark.parametrize(
    "change",
    [
        lambda text: text.replace(NUMBER, f'"off_grid_nights": {"9" * 401}'),
        lambda text: text.replace(NUMBER, f'"off_grid_nights": {"9" * 5000}'),
        lambda text: text.replace(NUMBER, '"off_grid_nights": NaN'),
        lambda text: text.replace(NUMBER, '"off_grid_nights": -1e999'),
        lambda text: "[" * 100_000,
        lambda text: '{"format":' * 50_000,
        lambda text: text.replace('"loads": [', '"loads": [' + "{}," * 110_000),
        lambda text: text.replace('"Kittiwake"', '"\u200b \u2060"'),
        lambda text: text.encode("utf-16"),
    ],
)
def test_odd_files_are_refused_with_a_sentence(client, rig, change) -> None:
    text = client.get(f"/api/rigs/{rig['id']}/file").get_data(as_text=True)
    assert NUMBER in text
    answer = client.post("/api/rigs/import", data=change(text))
    assert answer.status_code in (413, 422)
    assert answer.get_json()["problems"][0]["message"].endswith(".")


def test_odd_texts_come_in_clean(client, rig) -> None:
    notes = {"op": "replace", "path": "/rig/notes", "value": "a\ud800\u202eb"}
    body = json.dumps({"revision": rig["revision"], "operations": [notes]})
    changed = client.patch(f"/api/rigs/{rig['id']}", data=body, content_type="application/json")
    assert changed.get_json()["document"]["rig"]["notes"] == "a\ufffdb"
    load = {"id": "x", "name": "P\x07ump\u202e", "draw": {"value": 30, "unit": "W"}}
    kept = client.post("/api/appliances", json={"name": "x", "load": load}).get_json()["appliances"]
    assert "Pump" in {a["name"] for a in kept}
    sheet = client.post(f"/api/rigs/{rig['id']}/loads/preview", data="name,draw\nPu\u202emp,30 W\n".encode())
    assert "Pump" in sheet.get_data(as_text=True)


@pytest.mark.parametrize(
    "value", [10**401, "9" * 5000, float("nan"), nested(500), [{}] * 100_001, "\ud800" * 99]
)
def test_odd_edits_are_refused_with_a_sentence(client, rig, value) -> None:
    answer = patch(client, rig, {"op": "replace", "path": "/rig/off_grid_nights", "value": value})
    assert answer.status_code == 422 and answer.get_json()["problems"][0]["message"].endswith(".")
    deep = '{"revision":1,"operations":[{"op":"replace","path":"/rig","value":' + "[" * 90_000
    assert (
        client.patch(f"/api/rigs/{rig['id']}", data=deep, content_type="application/json").status_code == 422
    )


def test_one_id_is_one_source_and_one_thing_to_buy(reference) -> None:
    document = files.to_document(files.read(data.demo_rig("kittiwake"), reference))
    i = next(i for i, c in enumerate(document["candidates"]) if c["extras"])
    for rows, at in ((document["sources"], "/sources"),
                     (document["candidates"][i]["extras"], f"/candidates/{i}/extras")):  # fmt: skip
        path = f"{at}/{len(rows)}/id"
        rows.append(rows[0])
        with pytest.raises(RigFileError, match="used twice") as refused:
            files.read(document, reference)
        assert path in [p.path for p in refused.value.problems]
        # One that has lain so since before is still opened.
        assert files.read(document, reference, stored=document)
        rows.pop()


def test_a_name_is_one_line_on_the_way_in_and_out(client, rig) -> None:
    document = data.demo_rig("pebble")
    document["rig"]["name"], document["rig"]["notes"] = "Wren\nBEGIN:X\u2028 \r\nY", "Two\nlines"
    made = client.post("/api/rigs/import", json=document).get_json()
    assert made["name"] == "Wren BEGIN:X Y"
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    assert view["document"]["rig"]["notes"] == "Two\nlines"
    renamed = {"op": "replace", "path": "/rig/name", "value": "A\tB\nC "}
    assert patch(client, view, renamed).status_code == 200
    assert client.get(f"/api/rigs/{made['id']}").get_json()["document"]["rig"]["name"].strip() == "A B C"
    # One that came in before is written as one line.
    database = client.application.config["DATABASE"]
    with database.writing() as db:
        db.execute(
            "UPDATE rig SET document = json_set(document, '$.rig.name', ?) WHERE id = ?",
            ("Old\nEND:VCALENDAR", made["id"]),
        )
    text = client.get(f"/api/rigs/{made['id']}/log/duties.ics").text
    assert text.count("\nEND:VCALENDAR") == 1


@pytest.mark.parametrize("what", ["loads", "models"])
def test_a_cell_without_an_end_is_refused_with_a_sentence(client, rig, what) -> None:
    sent = f"Appliance;Watts\nLamp{'x' * 140_000};8\n".encode()
    answer = client.post(f"/api/rigs/1/{what}/preview", data=sent, headers={"Content-Type": "text/csv"})
    assert answer.status_code == 422
    assert "never closed" in answer.get_json()["problems"][0]["message"]


@pytest.mark.parametrize(
    "cell", ["=1+1", "\uff1d1", "\uff0b1", "\uff0d1", "\uff20x", "\ufe661", " =1", "\t=1", "-5"]
)
def test_no_cell_is_taken_for_a_formula_and_comes_back_as_it_was(cell) -> None:
    assert csv_table.safe(cell) == f"'{cell}"
    assert csv_table.plain(csv_table.safe(cell)) == cell
    assert csv_table.safe("a=1") == "a=1" and csv_table.plain("'tis") == "'tis"
