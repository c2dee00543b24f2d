"""What can befall the file of the rigs: each has its sentence, and nothing is made up in its place."""

import json
import os
import re
import shutil
import socket
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path

import pytest

from vast_harbor import cli
from vast_harbor.store import backup, log, monitor, pictures, rigs
from vast_harbor.store import database as databases
from vast_harbor.store.database import Damaged, Database, NewerDatabase
from vast_harbor.store.pictures import StoredPicture
from vast_harbor.store.salvage import salvage
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.server.app import create_app

NAMES = [f"Skerry {i}" for i in range(60)]


@pytest.fixture
def path(tmp_path):
    """A database with many rigs, closed."""
    file = tmp_path / "harbor.sqlite3"
    database = Database(file)
    with database.writing() as db:
        for name in NAMES:
            rigs.add(db, {"rig": {"name": name, "kind": "boat", "notes": "n" * 3000}})
    database.close()
    return file


@pytest.fixture
def client(path):
    app = create_app(Database(path))
    return app.test_client()


def made(client):
    return client.post("/api/rigs", json={"name": "Mine"})


def told(answer, status: int, *words: str) -> None:
    """A sentence of the owner's, that says what to do, without a trace of Python."""
    assert answer.status_code == status
    message = answer.get_json()["problems"][0]["message"]
    assert all(w in message for w in words), message
    assert "kept in this browser" in message and "Traceback" not in message and "sqlite3." not in message


def test_a_lock_held_by_another_program_is_told_and_passes(path, client, monkeypatch) -> None:
    monkeypatch.setattr(databases, "WAIT_S", 0.05)
    with closing(sqlite3.connect(path, isolation_level=None)) as other:
        other.execute("BEGIN EXCLUSIVE")
        told(made(client), 503, "locked", "Close it")
        # Reading goes on meanwhile.
        assert client.get("/api/rigs").status_code == 200
        other.execute("ROLLBACK")
    assert made(client).status_code == 201


@pytest.mark.parametrize(
    ("pragma", "status", "words"),
    [
        ("max_page_count = 10", 507, ("disk is full", "Free some space")),
        ("query_only = 1", 503, ("cannot be written",)),
    ],
)
def test_a_full_disk_and_a_file_that_may_only_be_read(client, monkeypatch, pragma, status, words) -> None:
    connect = Database._connect

    def poor(self: Database) -> sqlite3.Connection:
        connection = connect(self)
        connection.execute(f"PRAGMA {pragma}")
        return connection

    edit = {"op": "replace", "path": "/rig/notes", "value": "x" * 1900}
    made_before = made(client).get_json()["id"]
    monkeypatch.setattr(Database, "_connect", poor)
    for _ in range(30):
        # A place or two may be left.
        answer = made(client)
        if answer.status_code != 201:
            break
    told(answer, status, *words)
    told(client.patch(f"/api/rigs/{made_before}", json={"revision": 1, "operations": [edit]}), status, *words)
    # Cards are worked out and shown; that they cannot be kept is nobody's business.
    assert client.get(f"/api/rigs/{made_before}/card").status_code == 200
    monkeypatch.setattr(Database, "_connect", connect)
    assert client.patch(
        f"/api/rigs/{made_before}", json={"revision": 1, "operations": [edit]}
    ).status_code == 200  # fmt: skip


def test_a_file_that_is_moved_away_is_missed_not_made_anew(path, client) -> None:
    away = path.with_name("away.sqlite3")
    path.rename(away)
    told(made(client), 503, "no longer there", str(path))
    told(client.get("/api/rigs"), 503, "Put it back")
    assert not path.exists()
    # Nor is a file written that took its place.
    shutil.copy(away, path)
    told(made(client), 503, "replaced")
    away.replace(path)
    assert made(client).status_code == 201 and client.get("/api/rigs").get_json()["all"] == len(NAMES) + 1


def damage(path, first: int, last: int) -> None:
    """Overwrite pages in the middle."""
    with path.open("r+b") as file:
        for page in range(first, last):
            file.seek(page * 4096)
            file.write(os.urandom(4096))


def test_pages_damaged_in_the_middle_are_told_and_the_rest_is_saved(path, tmp_path) -> None:
    pages = path.stat().st_size // 4096
    damage(path, pages // 2, pages // 2 + 3)
    with pytest.raises(Damaged, match="damaged"):
        Database(path)
    to = tmp_path / "saved.sqlite3"
    count = salvage(path, to)
    with Database(to).reading() as db:
        saved = rigs.names(db)
    assert count == len(saved) and len(NAMES) - 6 <= count < len(NAMES) and saved < set(NAMES)


@pytest.fixture
def run(capsys) -> Callable[..., tuple[int, str]]:
    """Call the command line: its exit status, and what it says is wrong."""
    return lambda *args: (cli.main(list(args)), capsys.readouterr().err)


def test_a_damaged_file_is_not_served_and_what_is_saved_can_be_put_back(path, run) -> None:
    damage(path, path.stat().st_size // 8192, path.stat().st_size // 8192 + 2)
    status, said = run("serve", "--data", str(path), "--port", "0")
    assert status == 2 and "is saved in" in said and "vast-harbor restore " in said
    saved = next(path.parent.glob("harbor-saved-*.sqlite3"))
    assert str(saved) in said
    restored = path.with_name("again.sqlite3")
    assert run("restore", str(saved), "--data", str(restored))[0] == 0
    with Database(restored).reading() as db:
        assert len(rigs.names(db)) >= len(NAMES) - 6


def header(body: bytes) -> bytes:
    return bytes(100) + body[100:]


def first_page(body: bytes) -> bytes:
    return os.urandom(4096) + body[4096:]


def schema(body: bytes) -> bytes:
    return body.replace(b"CREATE TABLE rig", b"CREATE TABLF rig")


def cut(body: bytes) -> bytes:
    return body[: len(body) // 2]


def cut_to_pieces(body: bytes) -> bytes:
    return body[:5000]


@pytest.mark.parametrize("with_copy", [True, False], ids=["copy", "no copy"])
@pytest.mark.parametrize("harm", [header, first_page, schema, cut, cut_to_pieces], ids=lambda f: f.__name__)
def test_whatever_is_damaged_what_is_left_is_saved_and_one_command_restores(
    path, tmp_path, run, harm, with_copy
) -> None:
    if with_copy:
        backup.keep(path, "2026-11-30")
    whole = path.read_bytes()
    path.write_bytes(harm(whole))
    with pytest.raises(Damaged):
        Database(path)
    status, said = run("serve", "--data", str(path), "--port", "0")
    assert status == 2 and "Traceback" not in said and "start it again" not in said
    files = re.findall(r"vast-harbor restore (\S+) --data (\S+)", said)
    readable = 1 if harm is not cut_to_pieces else 0
    assert len(files) == readable + with_copy and all(to == str(path) for _, to in files), said
    if readable:
        with Database(copy_of(files[0][0], tmp_path)).reading() as db:
            least = len(NAMES) // 3 if harm is cut else len(NAMES)
            assert len(rigs.names(db)) >= least and rigs.names(db) <= set(NAMES)
    elif not with_copy:
        return
    # The last one named is the newest copy where there is one.
    assert run("restore", files[-1][0], "--data", str(path))[0] == 0
    with Database(path).reading() as db:
        assert len(rigs.names(db)) >= (len(NAMES) if with_copy else least)
    (aside,) = path.parent.glob("harbor-damaged-*.sqlite3")
    assert aside.read_bytes() == harm(whole)[: aside.stat().st_size] or harm is first_page


def copy_of(file: str, folder) -> Path:
    return Path(shutil.copy(file, folder / "looked-at.sqlite3"))


def test_logs_readings_and_pictures_are_saved_too(path, tmp_path) -> None:
    database = Database(path)
    with database.writing() as db:
        none = dict.fromkeys(log.COLUMNS)
        said = {"kind": "note", "bank": "present", "source": "", "duty": "", "text": "Full"}
        assert log.add(db, 1, {**none, **said, "id": "e1", "at": 1, "offset_min": 0, "battery": 0})
        number = monitor.add_file(db, 1, "present", "m.csv", "d", 1)
        monitor.add(db, 1, "present", number, [(60 * i, 0, 12.5, -3.0, None, None) for i in range(500)])
        pictures.add(db, 1, StoredPicture("p1", "wiring", 1, "n", 8, 8), b"large", b"small")
    database.close()
    to = tmp_path / "saved.sqlite3"
    path.write_bytes(header(path.read_bytes()))
    assert salvage(path, to) == len(NAMES)
    with Database(to).reading() as db:
        assert len(monitor.between(db, 1, "present")) == 500 and len(list(log.each(db, 1))) == 1
        assert [one.id for one in pictures.listed(db, 1)] == ["p1"]


def test_what_cannot_be_started_says_why(path, tmp_path, run) -> None:
    with socket.create_server(("127.0.0.1", 0)) as other:
        port = other.getsockname()[1]
        status, said = run("serve", "--data", str(path), "--port", str(port))
        assert status == 2 and f"Port {port} is in use" in said and "--port" in said
    text = tmp_path / "letter.txt"
    text.write_text("Dear owner, " * 500)
    for file, words in ((text, "not a database"), (text / "h.sqlite3", "its folder is a file"),
                        (tmp_path, "it is a folder")):  # fmt: skip
        status, said = run("serve", "--data", str(file), "--port", "0")
        assert status == 2 and words in said, said
    assert text.read_text() == "Dear owner, " * 500
    with closing(sqlite3.connect(path)) as db:
        db.execute("PRAGMA user_version = 999")
    with pytest.raises(NewerDatabase, match="Update the program"):
        Database(path)


def test_an_error_nobody_foresaw_is_still_a_sentence(path) -> None:
    error = sqlite3.OperationalError("something else")
    assert "could not be used (something else)" in str(databases.trouble(error, path))
    assert isinstance(databases.trouble(OSError(28, "No space left"), path), Trouble)
    assert (
        json.dumps(str(databases.trouble(PermissionError(13, "no"), path))).count("do not have permission")
        == 1
    )
