"""The journal as a machine: whatever is edited, undone and redone, it never loses a state."""

import copy

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from vast_harbor.formats.rig_file import new_rig
from vast_harbor.store import rigs
from vast_harbor.store.database import Database


class Journal(RuleBasedStateMachine):
    """A rig in a database beside a plain list of its states."""

    @initialize()
    def open(self) -> None:
        import tempfile
        from pathlib import Path

        self.folder = tempfile.TemporaryDirectory()
        self.database = Database(Path(self.folder.name) / "h.sqlite3")
        with self.database.writing() as db:
            self.rig_id = rigs.add(db, new_rig("Test"))
        self.done = [new_rig("Test")]
        self.undone: list = []

    def teardown(self) -> None:
        self.folder.cleanup()

    def apply(self, document) -> None:
        with self.database.writing() as db:
            rigs.change(db, rigs.get(db, self.rig_id), document, "edit")
        if document != self.done[-1]:
            self.done.append(document)
            self.undone = []

    @rule(nights=st.integers(0, 365))
    def set_nights(self, nights) -> None:
        document = copy.deepcopy(self.done[-1])
        document["rig"]["off_grid_nights"] = nights
        self.apply(document)

    @rule(name=st.text(min_size=1, max_size=5))
    def add_load(self, name) -> None:
        document = copy.deepcopy(self.done[-1])
        document["day"]["loads"].append({"id": f"l{len(document['day']['loads'])}", "name": name})
        self.apply(document)

    @precondition(lambda self: self.done[-1]["day"]["loads"])
    @rule(data=st.data())
    def remove_load(self, data) -> None:
        document = copy.deepcopy(self.done[-1])
        document["day"]["loads"].pop(data.draw(st.integers(0, len(document["day"]["loads"]) - 1)))
        self.apply(document)

    @rule()
    def undo(self) -> None:
        with self.database.writing() as db:
            moved = rigs.undo(db, rigs.get(db, self.rig_id))
        assert bool(moved) == (len(self.done) > 1)
        if moved:
            self.undone.append(self.done.pop())

    @rule()
    def redo(self) -> None:
        with self.database.writing() as db:
            moved = rigs.redo(db, rigs.get(db, self.rig_id))
        assert bool(moved) == bool(self.undone)
        if moved:
            self.done.append(self.undone.pop())

    @invariant()
    def stored_is_the_last_state(self) -> None:
        if hasattr(self, "done"):
            with self.database.reading() as db:
                stored = rigs.get(db, self.rig_id)
            assert stored.document == self.done[-1]
            assert (stored.undo is not None) == (len(self.done) > 1)
            assert (stored.redo is not None) == bool(self.undone)


TestJournal = Journal.TestCase
TestJournal.settings = settings(max_examples=25, stateful_step_count=25, deadline=None)
