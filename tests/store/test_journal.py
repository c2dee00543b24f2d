"""The journal as a machine: whatever is edited, undone, sent again, killed and restored, no state is lost and
nothing is done twice."""

import copy
import tempfile
from pathlib import Path

from hypothesis import settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, precondition, rule

from vast_harbor.formats.rig_file import new_rig
from vast_harbor.store import backup, journal, rigs
from vast_harbor.store.database import Database


class Journal(RuleBasedStateMachine):
    """A rig in a database beside a plain list of its states."""

    @initialize()
    def open(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.path = Path(self.folder.name) / "h.sqlite3"
        self.database = Database(self.path)
        with self.database.writing() as db:
            self.rig_id = rigs.add(db, new_rig("Test"))
        self.done = [new_rig("Test")]
        self.undone: list = []
        # What was sent, each under its key; and what a copy holds.
        self.sent: list = []
        self.count = 0
        self.copied: tuple | None = None

    def teardown(self) -> None:
        self.folder.cleanup()

    def apply(self, document) -> None:
        self.count += 1
        key = f"k{self.count}"
        with self.database.writing() as db:
            journal.change(db, rigs.get(db, self.rig_id), document, "edit", key=key)
        self.sent.append((key, document))
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

    @precondition(lambda self: self.sent)
    @rule(data=st.data())
    def send_again(self, data) -> None:
        key, document = data.draw(st.sampled_from(self.sent))
        with self.database.writing() as db:
            # As the server does: what is known by its key is done.
            if not journal.done(db, self.rig_id, key):
                journal.change(db, rigs.get(db, self.rig_id), document, "edit", key=key)

    @rule()
    def kill(self) -> None:
        # Nothing is closed or folded in before the next one opens the file.
        self.database = Database(self.path)

    @rule()
    def copy_all(self) -> None:
        backup.copy(self.path, self.path.with_name("copy.sqlite3"))
        self.copied = (self.done[:], self.undone[:], self.sent[:])

    @precondition(lambda self: self.copied)
    @rule()
    def put_in(self) -> None:
        copied = self.path.with_name("copy.sqlite3")
        before = self.database.put_in(
            copied, lambda: backup.keep_before_restore(copied, self.path, "2026-12-01")
        )
        assert backup.verify(before)
        self.done, self.undone, self.sent = (list(one) for one in self.copied)

    @rule()
    def undo(self) -> None:
        with self.database.writing() as db:
            moved = journal.undo(db, rigs.get(db, self.rig_id))
        assert bool(moved) == (len(self.done) > 1)
        if moved:
            self.undone.append(self.done.pop())

    @rule()
    def redo(self) -> None:
        with self.database.writing() as db:
            moved = journal.redo(db, rigs.get(db, self.rig_id))
        assert bool(moved) == bool(self.undone)
        if moved:
            self.done.append(self.undone.pop())

    @invariant()
    def stored_is_the_last_state(self) -> None:
        if hasattr(self, "done"):
            with self.database.reading() as db:
                stored = rigs.get(db, self.rig_id)
                assert all(journal.done(db, self.rig_id, key) for key, _ in self.sent)
            assert stored.document == self.done[-1]
            assert (stored.undo is not None) == (len(self.done) > 1)
            assert (stored.redo is not None) == bool(self.undone)


TestJournal = Journal.TestCase
TestJournal.settings = settings(max_examples=25, stateful_step_count=25, deadline=None)
