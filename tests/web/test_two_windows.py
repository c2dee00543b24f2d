"""Two windows on one rig, and answers that get lost: an edit lands where it was meant, once."""

import json
import os
import shutil
import signal
import sqlite3
import subprocess
import sys

import pytest

from vast_harbor.store import rigs
from vast_harbor.store.database import Database
from web.conftest import back, patch


def load(name: str) -> dict:
    return {"id": name, "name": name.title(), "draw": "20 W", "hours": "2"}


@pytest.fixture
def rig(client):
    made = client.post("/api/rigs", json={"name": "Skua", "kind": "boat"}).get_json()
    view = client.get(f"/api/rigs/{made['id']}").get_json()
    rows = [{"op": "add", "path": "/day/loads/-", "value": load(n)} for n in ("pump", "lamp", "radio")]
    return patch(client, view, *rows).get_json()


def names(client, rig) -> list[str]:
    document = client.get(f"/api/rigs/{rig['id']}").get_json()["document"]
    return [x["name"] for x in document["day"]["loads"]]


def test_an_edit_says_which_row_it_means(client, rig) -> None:
    typed = {"op": "replace", "path": "/day/loads/1/name", "value": "Cabin lamp"}
    meant = {"op": "test", "path": "/day/loads/1/id", "value": "lamp"}
    gone = patch(client, rig, {"op": "remove", "path": "/day/loads/0"}).get_json()
    # Against the new revision, but with the row that the stale window meant.
    refused = patch(client, gone, meant, typed)
    assert refused.status_code == 409 and "A different row" in refused.get_json()["problems"][0]["message"]
    assert names(client, rig) == ["Lamp", "Radio"]
    moved = [o | {"path": o["path"].replace("/1/", "/0/")} for o in (meant, typed)]
    assert patch(client, gone, *moved).status_code == 200
    assert names(client, rig) == ["Cabin lamp", "Radio"]


@pytest.mark.parametrize("which", ["undo", "redo"])
def test_a_stale_window_takes_nothing_back(client, rig, which) -> None:
    edited = patch(
        client, rig, {"op": "replace", "path": "/rig/notes", "value": "one"}, label="notes"
    ).get_json()
    seen = back(client, edited).get_json() if which == "redo" else edited
    # Meanwhile another window adds a load.
    patch(client, seen, {"op": "add", "path": "/day/loads/-", "value": load("fan")}, label="add Fan")
    refused = back(client, seen, which)
    assert refused.status_code == 409 and names(client, rig) == ["Pump", "Lamp", "Radio", "Fan"]
    now = client.get(f"/api/rigs/{rig['id']}").get_json()
    assert json.loads(back(client, now).data)["did"] == "add Fan"
    assert names(client, rig) == ["Pump", "Lamp", "Radio"]


def test_what_two_windows_type_into_one_field_are_two_edits(client, rig) -> None:
    def typed(view, text, tab):
        notes = {"op": "replace", "path": "/rig/notes", "value": text}
        return patch(client, view, notes, label="notes", field="/rig/notes", tab=tab).get_json()

    view = typed(typed(typed(rig, "a", "one"), "ab", "one"), "other", "two")
    view = back(client, view).get_json()
    assert view["document"]["rig"]["notes"] == "ab"
    assert back(client, view).get_json()["document"]["rig"]["notes"] == ""


def test_what_is_sent_twice_is_done_once(client, rig) -> None:
    row = {"op": "add", "path": "/day/loads/-", "value": load("fan")}
    first = patch(client, rig, row, key="k1")
    # Its answer got lost: it is sent again as it was, or against the rig as it stands now.
    for seen in (rig, first.get_json()):
        assert patch(client, seen, row, key="k1").status_code == 200
    assert names(client, rig) == ["Pump", "Lamp", "Radio", "Fan"]


def test_what_makes_a_rig_does_it_once_under_its_key(client, rig) -> None:
    document = client.get(f"/api/rigs/{rig['id']}/file").data
    ways = [
        lambda key: client.post(f"/api/rigs?key={key}", json={"name": "Skua", "kind": "boat"}),
        lambda key: client.post(f"/api/rigs/{rig['id']}/copy?key={key}"),
        lambda key: client.post(f"/api/rigs/import?key={key}", data=document),
    ]
    for number, way in enumerate(ways):
        one, two, other = (way(key).get_json() for key in (f"k{number}", f"k{number}", ""))
        assert one == two and one["id"] != other["id"] and one["name"] != other["name"]
        # Deleted, it is not made again by what comes late.
        client.delete(f"/api/rigs/{one['id']}")
        assert way(f"k{number}").get_json() == one
        assert client.get(f"/api/rigs/{one['id']}").status_code == 404


def spoil(database, rig_id, change) -> None:
    """A rig as another version of the program left it."""
    with database.writing() as db:
        document = json.loads(db.execute("SELECT document FROM rig WHERE id = ?", (rig_id,)).fetchone()[0])
        change(document)
        db.execute("UPDATE rig SET document = ? WHERE id = ?", (json.dumps(document), rig_id))


def test_a_rig_that_names_what_is_gone_opens_and_says_so(client, rig) -> None:
    def change(document) -> None:
        document["candidates"][0]["model"] = "gone-100"
        document["plan"]["overrides"]["renamed_thing"] = 0.5

    spoil(client.application.config["DATABASE"], rig["id"], change)
    assert client.get(f"/api/rigs/{rig['id']}/card").status_code == 200
    view = client.get(f"/api/rigs/{rig['id']}").get_json()
    codes = {f["code"] for f in view["findings"]}
    assert "assumption_gone" in codes
    told = view["banks"]["candidates"][0]["findings"]
    assert "gone-100" in "".join(t["text"] for t in told[0]["says"])
    # It can be edited, and keeps the names; a name that was never there is refused.
    view = patch(client, view, {"op": "replace", "path": "/rig/notes", "value": "x"}).get_json()
    assert view["document"]["candidates"][0]["model"] == "gone-100"
    assert view["document"]["plan"]["overrides"] == {"renamed_thing": 0.5}
    wrong = {"op": "replace", "path": "/candidates/1/model", "value": "never-there"}
    assert patch(client, view, wrong).status_code == 422
    gone = {"op": "remove", "path": "/plan/overrides/renamed_thing"}
    assert patch(client, view, gone).get_json()["document"]["plan"]["overrides"] == {}


def test_a_rig_that_does_not_validate_hides_no_other(client, rig) -> None:
    other = client.post("/api/rigs", json={"name": "Tern", "kind": "boat"}).get_json()
    spoil(client.application.config["DATABASE"], rig["id"], lambda d: d["rig"].update(years_kept=900))
    assert [c["name"] for c in client.get("/api/rigs").get_json()["rigs"]] == ["Tern", "Skua"]
    card = client.get(f"/api/rigs/{rig['id']}/card")
    assert card.status_code == 422 and "900" in card.get_json()["problems"][0]["message"]
    assert client.get(f"/api/rigs/{other['id']}/card").status_code == 200
    assert client.get(f"/api/rigs/{rig['id']}/file").get_json()["rig"]["years_kept"] == 900
    assert client.delete(f"/api/rigs/{rig['id']}").status_code == 200


def test_the_file_and_its_folder_are_the_owners_alone(tmp_path) -> None:
    path = tmp_path / "new" / "h.sqlite3"
    database = Database(path)
    with database.writing() as db:
        rigs.add(db, {"rig": {"name": "A"}})
    modes = {p.name: p.stat().st_mode & 0o777 for p in (path.parent, *path.parent.iterdir())}
    assert modes["new"] == 0o700
    assert all(mode == 0o600 for name, mode in modes.items() if name != "new"), modes


def test_a_commit_waits_for_the_disk(tmp_path) -> None:
    with Database(tmp_path / "h.sqlite3").writing() as db:
        assert db.execute("PRAGMA synchronous").fetchone()[0] == 2
        assert db.execute("PRAGMA journal_mode").fetchone()[0] == "wal"


@pytest.mark.parametrize("end", [signal.SIGTERM, signal.SIGINT])
def test_the_file_alone_holds_everything_after_the_end(tmp_path, end) -> None:
    path = tmp_path / "h.sqlite3"
    line = [sys.executable, "-m", "vast_harbor.cli", "demo", "--port", "0", "--data", str(path)]
    with subprocess.Popen(line, stdout=subprocess.PIPE, text=True, env=os.environ) as process:
        assert process.stdout is not None and "http://" in process.stdout.readline()
        process.send_signal(end)
        try:
            assert process.wait(timeout=60) == 0
        finally:
            process.kill()
    shutil.copy(path, tmp_path / "copy.sqlite3")
    with sqlite3.connect(tmp_path / "copy.sqlite3") as db:
        assert db.execute("SELECT count(*) FROM rig").fetchone()[0] == 5
