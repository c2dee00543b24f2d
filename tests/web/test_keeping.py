"""All rigs as one file and back, the copies of each day, deleted rigs: over HTTP."""

import errno
import io
import json
import sqlite3
from contextlib import closing
from pathlib import Path
from threading import Thread

import pytest

from vast_harbor.store import backup, phones
from vast_harbor.store.database import Database, get_setting, set_setting
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.server.app import create_app
from web.conftest import patch


@pytest.fixture
def harbor(client):
    """Two rigs, one of them deleted, and an own appliance."""
    for name in ("Skua", "Tern"):
        client.post("/api/rigs", json={"name": name, "kind": "boat"})
    client.delete("/api/rigs/2")
    load = {"id": "x", "name": "My pump", "draw": {"value": 30, "unit": "W"}}
    assert client.post("/api/appliances", json={"name": "My pump", "load": load}).status_code < 300
    return client


def names(client) -> list[str]:
    return [r["name"] for r in client.get("/api/rigs").get_json()["rigs"]]


def test_one_file_holds_all_and_is_put_back(harbor, tmp_path) -> None:
    sent = harbor.get("/api/backup")
    assert sent.mimetype == "application/vnd.sqlite3" and "attachment" in sent.headers["Content-Disposition"]
    copy = tmp_path / "all.sqlite3"
    copy.write_bytes(sent.data)
    assert backup.verify(copy) and int(sent.headers["Content-Length"]) == len(sent.data)
    rig = harbor.get("/api/rigs/1").get_json()
    patch(harbor, rig, {"op": "replace", "path": "/rig/name", "value": "Changed since"})
    harbor.post("/api/rigs", json={"name": "Made since", "kind": "van"})
    answer = harbor.post("/api/restore", data=copy.read_bytes()).get_json()
    assert answer["rigs"] == 1 and names(harbor) == ["Skua"]
    assert [d["name"] for d in harbor.get("/api/kept").get_json()["deleted"]] == ["Tern"]
    assert [a["name"] for a in harbor.get("/api/appliances").get_json()["appliances"]] == ["My pump"]
    # A window that still shows what was here cannot write into what is here now.
    stale = {
        "revision": rig["revision"] + 1,
        "operations": [{"op": "replace", "path": "/rig/notes", "value": "x"}],
    }
    assert harbor.patch("/api/rigs/1", json=stale).status_code == 409
    again = harbor.get("/api/rigs/1").get_json()
    assert patch(harbor, again, {"op": "replace", "path": "/rig/notes", "value": "x"}).status_code == 200
    # What was there before is kept, and can be put back in its turn.
    kept = harbor.get("/api/kept").get_json()["copies"]
    assert answer["kept"] in [c["name"] for c in kept] and kept[0]["rigs"] == 2
    assert harbor.post("/api/kept/restore", json={"name": answer["kept"]}).get_json()["rigs"] == 2
    assert names(harbor) == ["Made since", "Changed since"]
    assert harbor.post("/api/kept/restore", json={"name": "../h.sqlite3"}).status_code == 404


def test_what_is_no_copy_changes_nothing(harbor, tmp_path) -> None:
    whole = harbor.get("/api/backup").data
    strange = tmp_path / "strange.sqlite3"
    strange.write_bytes(whole)
    with closing(sqlite3.connect(strange)) as db, db:
        db.execute("CREATE TRIGGER t AFTER UPDATE ON rig BEGIN DELETE FROM setting; END")
    newer = tmp_path / "newer.sqlite3"
    newer.write_bytes(whole)
    with closing(sqlite3.connect(newer)) as db:
        db.execute("PRAGMA user_version = 99")
    other = tmp_path / "other.sqlite3"
    with closing(sqlite3.connect(other)) as db:
        db.execute("CREATE TABLE song (name TEXT)")
    bad = {
        "not a database": b"{}", "no such table: rig": other.read_bytes(), "triggers": strange.read_bytes(),
        "Update the program": newer.read_bytes(), "damaged": whole[: len(whole) // 8192 * 4096],
    }  # fmt: skip
    for words, body in bad.items():
        answer = harbor.post("/api/restore", data=io.BytesIO(body))
        message = answer.get_json()["problems"][0]["message"]
        assert answer.status_code == 422 and message.startswith("This file") and "/tmp" not in message, words
        assert words in message or words == "damaged", message
    assert names(harbor) == ["Skua"] and harbor.get("/api/kept").get_json()["copies"] == []


def test_what_is_written_while_a_copy_is_put_back_is_there_or_refused(harbor, monkeypatch) -> None:
    where = harbor.application.config["DATABASE"]
    whole, kept_before = harbor.get("/api/backup").data, backup.keep_before_restore
    told = []

    def write() -> None:
        try:
            with where.writing() as db:
                set_setting(db, "meanwhile", "kept")
            told.append("kept")
        except Trouble:
            told.append("refused")

    writer = Thread(target=write)

    def slowly(*args: object) -> Path:
        made = kept_before(*args)
        # The copy of what is here is made: from now on nothing may be acknowledged that is not in it.
        writer.start()
        writer.join(0.5)
        return made

    monkeypatch.setattr(backup, "keep_before_restore", slowly)
    assert harbor.post("/api/restore", data=whole).status_code == 200
    writer.join()
    with where.reading() as db:
        assert (get_setting(db, "meanwhile") == "kept") == (told == ["kept"])


def test_a_copy_is_put_in_whole_or_not_at_all(harbor, monkeypatch) -> None:
    where = harbor.application.config["DATABASE"]
    whole = harbor.get("/api/backup").data
    harbor.post("/api/rigs", json={"name": "Made since", "kind": "van"})

    def all_there() -> list[tuple]:
        with where.reading() as db:
            return [tuple(r) for r in db.execute("SELECT id, name, revision, document FROM rig ORDER BY id")]

    before, connect = all_there(), where._connect

    def cut_off() -> sqlite3.Connection:
        """A connection that ends at the last step: the change of the revisions."""
        connection = connect()
        last = (sqlite3.SQLITE_UPDATE, "rig", "card_revision")
        connection.set_authorizer(
            lambda *what: sqlite3.SQLITE_DENY if what[:3] == last else sqlite3.SQLITE_OK
        )
        return connection

    monkeypatch.setattr(where, "_connect", cut_off)
    assert harbor.post("/api/restore", data=whole).status_code == 503
    monkeypatch.undo()
    assert all_there() == before


def test_a_removed_phone_does_not_come_back_with_a_copy(harbor, tmp_path) -> None:
    where = harbor.application.config["DATABASE"]
    with where.writing() as db:
        phones.pair(db, "lost")
    # A copy of before pairings stayed behind held them.
    old = tmp_path / "old.sqlite3"
    with closing(sqlite3.connect(where.path)) as here, closing(sqlite3.connect(old)) as there:
        here.backup(there)
    with where.writing() as db:
        (lost,) = phones.listed(db)
        phones.revoke(db, lost.id)
        phones.pair(db, "mine")
    assert harbor.post("/api/restore", data=old.read_bytes()).status_code == 200
    with where.reading() as db:
        assert [p.name for p in phones.listed(db)] == ["mine"]
    assert b"token_hash" in harbor.get("/api/backup").data
    with closing(sqlite3.connect(backup.copy(old, tmp_path / "new.sqlite3"))) as db:
        assert db.execute("SELECT count(*) FROM phone").fetchone()[0] == 0


ODD = (
    "{}",
    "[]",
    '{"rig": 5}',
    '{"rig": {"name": "No kind"}}',
    '{"rig": {"name": 5, "kind": [], "notes": 7}}',
)


def test_an_odd_rig_hides_no_other_and_can_be_exported_and_deleted(harbor) -> None:
    where, at = harbor.application.config["DATABASE"], "2026-11-01T00:00:00+00:00"
    with where.writing() as db:
        ids = [
            db.execute(
                "INSERT INTO rig (document, created_at, updated_at) VALUES (?, ?, ?)", (odd, at, at)
            ).lastrowid
            for odd in ODD
        ]
    assert sorted(names(harbor)) == ["5", "No kind", *(f"Rig {i}" for i in ids[:3]), "Skua"]
    for rig_id, odd in zip(ids, ODD, strict=True):
        assert json.loads(harbor.get(f"/api/rigs/{rig_id}/file").data) == json.loads(odd)
        assert harbor.get(f"/api/rigs/{rig_id}/archive").status_code == 200
        for answer in (
            harbor.get(f"/api/rigs/{rig_id}/card"), harbor.post(f"/api/rigs/{rig_id}/copy"),
            harbor.get(f"/api/rigs/{rig_id}"),
        ):  # fmt: skip
            # What can be read in part is shown as that.
            assert answer.status_code in ((200, 201) if "No kind" in odd else (422,)), (odd, answer.text)
        assert harbor.delete(f"/api/rigs/{rig_id}").status_code == 200
    assert len(harbor.get("/api/kept").get_json()["deleted"]) == 1 + len(ODD)


def test_a_rig_that_is_no_json_keeps_the_program_from_nothing(tmp_path) -> None:
    path = tmp_path / "h.sqlite3"
    client = create_app(first := Database(path)).test_client()
    for name in ("Skua", "Wren"):
        client.post("/api/rigs", json={"name": name, "kind": "boat"})
    first.close()
    whole = path.read_bytes()
    assert whole.count(b'"name":"Wren"') == 1
    path.write_bytes(whole.replace(b'"name":"Wren"', b'"name":!Wren"'))
    client = create_app(Database(path)).test_client()
    assert names(client) == ["Rig 2", "Skua"]
    assert "!Wren" in client.get("/api/rigs/2/file").text
    assert client.delete("/api/rigs/2").status_code == 200 and names(client) == ["Skua"]


def test_deleted_rigs_are_listed_and_come_back(harbor) -> None:
    kept = harbor.get("/api/kept").get_json()
    assert Path(kept["file"]).is_file() and [d["id"] for d in kept["deleted"]] == [2]
    assert harbor.post("/api/rigs/2/restore").status_code == 200
    assert sorted(names(harbor)) == ["Skua", "Tern"]
    assert harbor.get("/api/kept").get_json()["deleted"] == []
    # After thirty days they are gone.
    harbor.delete("/api/rigs/2")
    with harbor.application.config["DATABASE"].writing() as db:
        db.execute("UPDATE rig SET deleted_at = '2020-01-01T00:00:00.000+00:00' WHERE id = 2")
    assert harbor.get("/api/kept").get_json()["deleted"] == []
    assert harbor.post("/api/rigs/2/restore").status_code == 404


def test_the_oldest_copy_is_not_lost_to_the_copy_made_before_it_is_put_back(harbor, monkeypatch) -> None:
    path = harbor.application.config["DATABASE"].path
    for day in range(1, backup.MOST + 1):
        backup.keep(path, f"2020-01-{day:02}")
    harbor.delete("/api/rigs/1")
    oldest = harbor.get("/api/kept").get_json()["copies"][-1]["name"]
    assert harbor.post("/api/kept/restore", json={"name": oldest}).get_json()["rigs"] == 1
    assert names(harbor) == ["Skua"]

    def full(*_: object) -> None:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(backup, "copy", full)
    for answer in (harbor.get("/api/backup"), harbor.post("/api/kept/restore", json={"name": oldest})):
        assert answer.status_code == 507 and "disk is full" in answer.get_json()["problems"][0]["message"]
    assert names(harbor) == ["Skua"]
