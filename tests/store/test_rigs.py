"""Rigs in the database: edits, undo over reopening, deletion with a way back."""

import sqlite3
from datetime import UTC, datetime, timedelta

import pytest

from vast_harbor.formats.rig_file import new_rig
from vast_harbor.store import journal, rigs
from vast_harbor.store.database import Database, NewerDatabase


@pytest.fixture
def path(tmp_path):
    return tmp_path / "deep" / "harbor.sqlite3"


def edit(database, rig_id, nights, label="nights", field="", key="") -> None:
    with database.writing() as db:
        stored = rigs.get(db, rig_id)
        document = {**stored.document, "rig": {**stored.document["rig"], "off_grid_nights": nights}}
        journal.change(db, stored, document, label, field, key)


def nights(database, rig_id) -> float:
    with database.reading() as db:
        return rigs.get(db, rig_id).document["rig"]["off_grid_nights"]


def step(database, rig_id, which) -> bool:
    with database.writing() as db:
        return which(db, rigs.get(db, rig_id))


def make(database) -> int:
    with database.writing() as db:
        return rigs.add(db, new_rig("Test", off_grid_nights=10))


def test_undo_and_redo_outlive_the_program(path) -> None:
    database = Database(path)
    rig_id = make(database)
    edit(database, rig_id, 20)
    edit(database, rig_id, 30)
    again = Database(path)
    assert step(again, rig_id, journal.undo) and nights(again, rig_id) == 20
    assert step(again, rig_id, journal.undo) and nights(again, rig_id) == 10
    assert not step(again, rig_id, journal.undo)
    assert step(again, rig_id, journal.redo) and nights(again, rig_id) == 20
    edit(again, rig_id, 99)
    assert not step(again, rig_id, journal.redo)
    assert step(again, rig_id, journal.undo) and nights(again, rig_id) == 20


def test_an_edit_is_known_by_its_key_whatever_became_of_it(path, monkeypatch) -> None:
    monkeypatch.setattr(journal, "JOURNAL_LENGTH", 2)
    monkeypatch.setattr(journal, "KEYS_KEPT", 6)
    database = Database(path)
    rig_id = make(database)
    # One is undone and another takes its place; two are typed into one field; one changes nothing.
    edit(database, rig_id, 20, key="undone")
    step(database, rig_id, journal.undo)
    edit(database, rig_id, 3, field="n", key="typed")
    edit(database, rig_id, 30, field="n", key="typed over")
    edit(database, rig_id, 30, key="the same")
    for i, number in enumerate((40, 50, 60)):
        edit(database, rig_id, number, key=f"later {i}")
    with database.reading() as db:
        keys = ("undone", "typed", "typed over", "the same", "later 0", "later 1", "later 2")
        assert [journal.done(db, rig_id, key) for key in keys] == [False] + [True] * 6
        assert not journal.done(db, rig_id, "") and not journal.done(db, rig_id, "never sent")
        assert len(journal.changes(db, rig_id)) == 2


def test_a_clock_that_is_set_back_makes_no_one_edit_of_all_typing(path) -> None:
    database = Database(path)
    rig_id = make(database)
    edit(database, rig_id, 20, field="n")
    with database.writing() as db:
        ahead = (datetime.now(UTC) + timedelta(days=1)).isoformat()
        db.execute("UPDATE edit SET at = ?", (ahead,))
    edit(database, rig_id, 30, field="n")
    assert step(database, rig_id, journal.undo) and nights(database, rig_id) == 20


def test_typing_on_in_one_field_is_one_edit(path) -> None:
    database = Database(path)
    rig_id = make(database)
    for typed in (1, 12, 120):
        edit(database, rig_id, typed, field="/rig/off_grid_nights")
    assert step(database, rig_id, journal.undo) and nights(database, rig_id) == 10


def test_journal_keeps_the_last_edits_only(path) -> None:
    database = Database(path)
    rig_id = make(database)
    for n in range(1, journal.JOURNAL_LENGTH + 20):
        edit(database, rig_id, 100 + n / 10)
    with database.reading() as db:
        assert db.execute("SELECT count(*) FROM edit").fetchone()[0] == journal.JOURNAL_LENGTH


def test_a_deleted_rig_comes_back(path) -> None:
    database = Database(path)
    rig_id = make(database)
    with database.writing() as db:
        rigs.delete(db, rig_id)
        assert rigs.names(db) == set()
        with pytest.raises(rigs.Missing):
            rigs.get(db, rig_id)
        rigs.restore(db, rig_id)
        assert len(rigs.names(db)) == 1


def test_a_failed_write_leaves_nothing_behind(path) -> None:
    database = Database(path)
    with pytest.raises(RuntimeError), database.writing() as db:
        rigs.add(db, new_rig("Half"))
        raise RuntimeError
    with database.reading() as db:
        assert rigs.names(db) == set()


def test_a_database_of_a_newer_version_is_left_alone(path) -> None:
    Database(path)
    with sqlite3.connect(path) as db:
        db.execute("PRAGMA user_version = 999")
    with pytest.raises(NewerDatabase, match="Update the program"):
        Database(path)
