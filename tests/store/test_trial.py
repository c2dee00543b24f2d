"""What is tried beside the plan: kept, dropped, undone."""

import pytest

from vast_harbor.store import appliances, journal, rigs
from vast_harbor.store.database import Database

NAMED = {"rig": {"name": "Skua"}, "n": 1, "loads": []}


@pytest.fixture
def db(tmp_path):
    with Database(tmp_path / "h.sqlite3").writing() as connection:
        yield connection


def change(db, rig_id: int, **fields) -> None:
    stored = rigs.get(db, rig_id)
    journal.change(
        db, stored, {**stored.document, **fields}, f"set {', '.join(fields)}", "/n" if "n" in fields else ""
    )


def test_a_trial_dropped_is_the_plan_again_and_that_can_be_undone(db) -> None:
    rig_id = rigs.add(db, NAMED)
    change(db, rig_id, n=2)
    journal.start_what_if(db, rigs.get(db, rig_id))
    change(db, rig_id, n=3)
    change(db, rig_id, loads=["a"])
    stored = rigs.get(db, rig_id)
    assert stored.base is not None and stored.base["n"] == 2
    assert stored.tried == ("set n", "set loads")
    journal.end_what_if(db, stored, keep=False)
    stored = rigs.get(db, rig_id)
    assert (stored.document["n"], stored.document["loads"], stored.base) == (2, [], None)
    journal.undo(db, stored)
    assert rigs.get(db, rig_id).document["n"] == 3


def test_a_trial_kept_is_the_plan_and_each_edit_of_it_can_be_undone(db) -> None:
    rig_id = rigs.add(db, NAMED)
    journal.start_what_if(db, rigs.get(db, rig_id))
    change(db, rig_id, n=5)
    journal.end_what_if(db, rigs.get(db, rig_id), keep=True)
    stored = rigs.get(db, rig_id)
    assert stored.document["n"] == 5 and stored.base is None and stored.undo == "set n"
    journal.undo(db, stored)
    assert rigs.get(db, rig_id).document["n"] == 1


def test_undo_in_a_trial_stops_at_the_plan(db) -> None:
    rig_id = rigs.add(db, NAMED)
    change(db, rig_id, n=2)
    change(db, rig_id, loads=["x"])
    journal.undo(db, rigs.get(db, rig_id))
    journal.start_what_if(db, rigs.get(db, rig_id))
    change(db, rig_id, n=9)
    assert rigs.get(db, rig_id).tried == ("set n",)
    assert journal.undo(db, rigs.get(db, rig_id)) == "set n"
    stored = rigs.get(db, rig_id)
    assert stored.document["n"] == 2 and stored.undo is None and stored.tried == ()
    assert journal.undo(db, stored) == ""
    assert journal.redo(db, stored) == "set n" and rigs.get(db, rig_id).document["n"] == 9


def test_own_appliances_are_kept_by_name(db) -> None:
    appliances.keep(db, "Loom", {"name": "Loom", "hours": 1})
    appliances.keep(db, "anvil", {"name": "anvil"})
    appliances.keep(db, "Loom", {"name": "Loom", "hours": 2})
    found = appliances.listed(db)
    assert [a.name for a in found] == ["anvil", "Loom"] and found[1].load["hours"] == 2
    assert appliances.forget(db, found[0].id) and not appliances.forget(db, found[0].id)
