"""Copies of the database: whole, verified, few; and one of them put back with all that it held."""

import os
import sqlite3
import subprocess
import sys
import time
from contextlib import closing

import pytest

from vast_harbor import cli
from vast_harbor.store import appliances, backup, rigs, scratch
from vast_harbor.store.database import Database
from vast_harbor.store.versions import MIGRATIONS, scripts

NEWEST = len(scripts())


def made(path, *names) -> Database:
    database = Database(path)
    with database.writing() as db:
        for name in names:
            rigs.add(db, {"rig": {"name": name}})
    return database


def names(path) -> set[str]:
    with closing(sqlite3.connect(path)) as db:
        return {r[0] for r in db.execute("SELECT name FROM rig")}


@pytest.fixture
def path(tmp_path):
    folder = tmp_path / "my #1 boat?"
    folder.mkdir()
    return folder / "harbor.sqlite3"


def test_a_copy_is_whole_while_the_database_is_written(path, tmp_path) -> None:
    database = made(path, "A", "B")
    with database.writing() as db:
        rigs.add(db, {"rig": {"name": "half"}})
        to = backup.copy(path, tmp_path / "copies" / "one.sqlite3")
    assert names(to) == {"A", "B"} and names(path) == {"A", "B", "half"}
    assert backup.verify(to) == NEWEST and to.stat().st_mode & 0o777 == 0o600
    assert [p.name for p in to.parent.iterdir()] == ["one.sqlite3"]


def test_one_copy_a_day_and_the_last_fourteen(path) -> None:
    made(path, "A")
    for day in range(1, 21):
        assert backup.keep(path, f"2026-11-{day:02}") is not None
        assert backup.keep(path, f"2026-11-{day:02}") is None
    assert [p.stem[-2:] for p in backup.kept(path)] == [f"{d:02}" for d in range(20, 6, -1)]


def damage(path) -> None:
    size = path.stat().st_size
    with path.open("r+b") as file:
        for page in range(2, size // 4096):
            file.seek(page * 4096)
            file.write(b"\xff" * 512)


@pytest.mark.parametrize("spoil", [damage, lambda p: p.write_bytes(b"words"), lambda p: p.unlink()])
def test_what_does_not_verify_is_not_put_back(path, tmp_path, spoil) -> None:
    made(path, "A").close()
    to = backup.copy(path, tmp_path / "copy.sqlite3")
    spoil(to)
    with pytest.raises(backup.BadCopy):
        backup.put_back(to, path, "2026-11-27")
    assert names(path) == {"A"}


def test_a_copy_put_back_holds_everything_and_what_was_there_is_kept(path, tmp_path, capsys) -> None:
    database = made(path, "A", "deleted")
    with database.writing() as db:
        appliances.keep(db, "My pump", {"draw": 1})
        rigs.delete(db, 2)
    database.close()
    file, data = str(tmp_path / "all.sqlite3"), ["--data", str(path)]
    assert cli.main(["backup", file, *data]) == 0
    later = Database(path)
    with later.writing() as db:
        rigs.delete(db, 1)
        rigs.add(db, {"rig": {"name": "later"}})
    later.close()
    assert cli.main(["restore", file, *data]) == 0
    again = Database(path)
    with again.writing() as db:
        assert rigs.names(db) == {"A"}
        assert [a.name for a in appliances.listed(db)] == ["My pump"]
        rigs.restore(db, 2)
        assert len(rigs.names(db)) == 2
    kept = backup.kept(path)
    assert len(kept) == 1 and "later" in names(kept[0]) and str(kept[0]) in capsys.readouterr().out


def test_a_database_in_use_is_left_alone(path, tmp_path) -> None:
    database = made(path, "A")
    to = backup.copy(path, tmp_path / "copy.sqlite3")
    # Idle, and in the middle of an edit.
    with pytest.raises(backup.BadCopy, match="End the program"):
        backup.put_back(to, path, "2026-11-27")
    with database.writing() as db:
        rigs.add(db, {"rig": {"name": "B"}})
        with pytest.raises(backup.BadCopy, match="End the program"):
            backup.put_back(to, path, "2026-11-27")
    with database.writing() as db:
        rigs.add(db, {"rig": {"name": "C"}})
    assert names(path) == {"A", "B", "C"}


def test_a_copy_is_kept_before_a_newer_program_changes_the_file(path) -> None:
    with closing(sqlite3.connect(path, isolation_level=None)) as db:
        scripts = sorted((p for p in MIGRATIONS.iterdir() if p.name.endswith(".sql")), key=lambda p: p.name)
        for script in scripts[:3]:
            db.executescript(script.read_text("utf-8"))
        document = '{"rig": {"name": "A"}}'
        db.execute("INSERT INTO rig (document, created_at, updated_at) VALUES (?, '', '')", (document,))
        db.execute("PRAGMA user_version = 3")
    Database(path)
    (kept,) = backup.kept(path)
    assert kept.name == "harbor-version-3.sqlite3" and backup.verify(kept) == 3
    assert names(kept) == names(path) == {"A"}


def test_what_killed_programs_left_is_swept_and_what_others_need_stays(path, tmp_path, monkeypatch) -> None:
    monkeypatch.setattr(scratch.tempfile, "gettempdir", lambda: str(tmp_path))
    monkeypatch.setattr(scratch.tempfile, "tempdir", str(tmp_path))
    made(path, "A").close()
    kept = backup.keep(path, "2026-11-27")
    halves = [path.with_name("harbor.sqlite3.new"), kept.with_name("harbor-x.sqlite3.new")]
    for half in halves:
        half.write_bytes(b"half")
    ended = subprocess.Popen([sys.executable, "-c", ""])
    ended.wait()
    folders = {}
    for name, owner, age in (
        ("ended", ended.pid, 0),
        ("nobodys", None, 2 * scratch.LEFT_S),
        ("new", None, 0),
    ):
        folders[name] = tmp_path / f"{scratch.PREFIX}{name}"
        folders[name].mkdir()
        (folders[name] / "rig.zip").write_bytes(b"")
        if owner is not None:
            (folders[name] / scratch.OWNER).write_text(str(owner))
        os.utime(folders[name], (time.time() - age,) * 2)
    other = tmp_path / "other"
    other.mkdir()
    with scratch.scratch() as mine:
        scratch.sweep(path)
        assert mine.is_dir() and other.is_dir() and folders["new"].is_dir()
    assert not any(one.exists() for one in (*halves, folders["ended"], folders["nobodys"], mine))
    assert path.exists() and kept.exists()


def test_only_what_is_damaged_is_set_aside_by_a_restore(path, tmp_path) -> None:
    made(path, "A").close()
    copied = backup.copy(path, tmp_path / "copy.sqlite3")
    with closing(sqlite3.connect(path)) as db:
        db.execute("PRAGMA user_version = 99")
    with pytest.raises(backup.BadCopy, match="Update the program"):
        backup.put_back(copied, path, "2026-12-01")
    assert not list(path.parent.glob("*damaged*"))
    path.write_bytes(path.read_bytes()[:5000])
    aside = backup.put_back(copied, path, "2026-12-01")
    assert aside.name == "harbor-damaged-2026-12-01-1.sqlite3" and backup.count(path) == 1
