"""Store and outbox beside a plain model: windows edit, answers are lost, programs killed, copies put in."""

import contextlib
import json
import os
import shutil
import subprocess
import tempfile
from collections.abc import Iterator
from copy import deepcopy
from dataclasses import dataclass, field
from datetime import timedelta
from functools import cache
from pathlib import Path
from random import Random
from typing import Any
from unittest import mock

import pytest
from hypothesis import given, note, settings
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.formats import rig_file as files
from vast_harbor.store import backup, journal
from vast_harbor.store.database import Database
from vast_harbor.web.plan import routes, views
from vast_harbor.web.server.app import begin, create_app
from vast_harbor.web.state.evaluated import EvaluatedRig, forget

HOST = Path(__file__).parents[2] / "frontend" / "tests" / "windows" / "host.mjs"
LIGHT = files.new_rig("Skua") | {"candidates": []}
NETWORKS = ("up", "down", "lost", "held", "busy")
# What happens, and how often beside the others.
HAPPENS = {
    "type_notes": 2, "type_name": 2, "add_load": 3, "remove_load": 1, "undo": 2, "redo": 1, "look": 2,
    "up": 3, "down": 1, "lost": 2, "held": 1, "busy": 1, "release": 1, "wait": 3,
    "reload": 1, "close": 1, "fill_browser": 1, "repeat": 1, "kill": 1, "copy": 1, "restore": 1,
    "delete": 1, "bring_back": 2,
}  # fmt: skip
# More than the longest wait before the next try, and than the look for what closed windows left.
LONG_MS = 60_000


@dataclass(frozen=True)
class Meant:
    """What an owner did: typed a text, added a load or removed one."""

    does: str
    row: str = ""
    text: str = ""

    @property
    def field(self) -> str:
        return f"{self.does} {self.row}" if self.does == "type" else ""

    def on(self, now: dict[str, Any]) -> dict[str, Any]:
        """The rig after it; as it was where the load is gone."""
        then = deepcopy(now)
        if self.does == "type" and not self.row:
            then["notes"] = self.text
        elif self.does == "add" or (self.does == "type" and self.row in then["loads"]):
            then["loads"][self.row] = self.text
        elif self.does == "remove":
            then["loads"].pop(self.row, None)
        return then


@dataclass
class Journal:
    """The rig as it must be: its states, each with the field and the window that it was typed in."""

    done: list[tuple[dict[str, Any], str]] = field(default_factory=lambda: [({"notes": "", "loads": {}}, "")])
    undone: list[tuple[dict[str, Any], str]] = field(default_factory=list)
    # Keys of what was taken, and what it was.
    taken: dict[str, str] = field(default_factory=dict)
    deleted: bool = False

    def take(self, key: str, label: str, meant: Meant, window: str) -> None:
        if key in self.taken:
            return
        self.taken[key] = label
        then = meant.on(self.done[-1][0])
        if then == self.done[-1][0]:
            return
        self.undone = []
        typed = meant.field and f"{window} {meant.field}"
        if typed and typed == self.done[-1][1]:
            self.done.pop()
        self.done.append((then, typed))


def told(document: dict[str, Any]) -> dict[str, Any]:
    """Of a rig what is edited here."""
    return {
        "notes": document["rig"].get("notes", ""),
        "loads": {load["id"]: load["name"] for load in document["day"]["loads"]},
    }


def named(edit: dict[str, Any]) -> str:
    """What the owner did, as a name of its own: texts are typed once, and each row comes and goes once."""
    return edit["operations"][-1]["value"] if edit["field"] else edit["label"]


@cache
def host() -> subprocess.Popen:
    made = subprocess.Popen(
        [shutil.which("node") or "node", HOST],
        cwd=HOST.parents[2],
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
    )
    assert json.loads(made.stdout.readline()) == {"ready": True}
    return made


@cache
def nothing() -> Results:
    """The figures of a rig with nothing in it."""
    rig = files.read(LIGHT, data.reference(), stored=LIGHT)
    results = evaluate(files.to_plan(rig, data.reference(), "2026-06-01"), data.reference())
    results.simulated.run()
    return results


@contextlib.contextmanager
def figures_of_nothing() -> Iterator[None]:
    """Nothing is worked out anew: what is kept is on trial here, not what is computed of it."""

    def settled(_: int, document: dict[str, Any]) -> EvaluatedRig:
        return EvaluatedRig(files.read(document, data.reference(), stored=document), nothing())

    with (
        mock.patch.object(routes, "settled", settled),
        mock.patch.object(routes, "edited", lambda *_: nothing()),
        mock.patch.object(views, "strip", lambda *_: []),
        mock.patch.object(views, "topic_views", lambda *_: []),
        mock.patch.object(views, "assumptions_view", lambda *_: []),
        mock.patch.object(views, "PARTS", dict.fromkeys(views.PARTS, ())),
        # However slow the machine is, typing on is one edit.
        mock.patch.object(journal, "ONE_EDIT", timedelta(hours=1)),
    ):
        yield


@cache
def application(folder: str) -> Any:
    return create_app(Database(Path(folder) / "h.sqlite3"))


class Windows:
    """Two windows, the server they ask, and what must be in both."""

    def __init__(self, folder: str) -> None:
        self.path = Path(folder) / "h.sqlite3"
        self.app = application(MADE)
        begin(self.app, Database(self.path))
        self.client = self.app.test_client()
        self.journal, self.copied = Journal(), None
        self.meant: dict[str, Meant] = {}
        # What was done in each window that there was, and which of them are open.
        self.done: list[list[str]] = [[], []]
        self.open = {"a": self.done[0], "b": self.done[1]}
        self.excused: set[str] = set()
        self.sent: list[tuple[str, str, str]] = []
        self.network, self.count = "up", 0
        self.rig = self.client.post("/api/rigs/import", data=json.dumps(LIGHT)).get_json()["id"]
        self.do("begin")
        for name in "ab":
            self.do("load", window=name)
            self.call(name, "open", self.rig)

    # What is asked of the windows, and what they ask of the server.

    def do(self, what: str, **more: Any) -> None:
        pipe = host()
        line: dict[str, Any] = {"do": what, **more}
        while True:
            pipe.stdin.write(json.dumps(line).encode() + b"\n")
            pipe.stdin.flush()
            asked = json.loads(pipe.stdout.readline())
            if "rest" in asked:
                break
            line = self.answer(asked)
        self.shown = asked["rest"]["windows"]
        self.stored = {named(entry) for entry in asked["rest"]["kept"]}
        self.waiting = self.stored | {named(e) for one in self.shown.values() for e in one["waiting"]}
        for one in self.shown.values():
            self.excused |= {name for name in self.meant if any(name in said for said in one["said"])}

    def call(self, window: str, name: str, *given: Any) -> None:
        self.do("call", window=window, name=name, given=given)

    def answer(self, asked: dict[str, str]) -> dict[str, Any]:
        if self.network == "down":
            return {"answer": None}
        if self.network == "busy":
            return {"answer": {"status": 503, "body": '{"problems": [{"path": "", "message": "Busy."}]}'}}
        response = self.send(asked["method"], asked["path"], asked["body"])
        if self.network == "lost":
            return {"answer": None}
        body = response.get_data(as_text=True)
        return {"answer": {"status": response.status_code, "body": body}, "hold": self.network == "held"}

    def send(self, method: str, path: str, text: str) -> Any:
        headers = {"Content-Type": "application/json"} if text else {}
        response = self.client.open(path, method=method, data=text, headers=headers)
        assert response.status_code in ((404,) if self.journal.deleted else (200, 409)), response.text
        body = json.loads(text) if text else {}
        if method == "PATCH":
            self.sent.append((method, path, text))
        if response.status_code == 404 and method == "PATCH":
            self.excused.add(named(body))
        if response.status_code == 200:
            if method == "PATCH":
                name = named(body)
                self.journal.take(body["key"], name, self.meant[name], body["tab"])
            elif "/undo" in path:
                self.journal.undone.append(self.journal.done.pop())
            elif "/redo" in path:
                # Typing after it is a step of its own.
                self.journal.done.append((self.journal.undone.pop()[0], ""))
        return response

    # What an owner does, in one of the windows; `at` chooses among what there is.

    def happens(self, dice: int) -> None:
        drawn = Random(dice)
        (what,) = drawn.choices(list(HAPPENS), list(HAPPENS.values()))
        window, at = drawn.choice("ab"), drawn.randrange(6)
        note(f"{what} {window} {at}")
        if what in NETWORKS:
            self.network = what
        else:
            getattr(self, what)(window, at)
        self.check()

    def push(self, window: str, name: str, meant: Meant, *call: Any) -> None:
        self.meant[name] = meant
        self.open[window].append(name)
        self.call(window, *call)

    def rows(self, window: str) -> list[str]:
        # Where nobody answered when it was opened there is nothing to edit.
        document = self.shown[window]["document"]
        return [load["id"] for load in document["day"]["loads"]] if document else []

    def new(self) -> str:
        self.count += 1
        return f"x{self.count:04d}"

    def type_notes(self, window: str, _: int) -> None:
        if self.shown[window]["document"]:
            text = self.new()
            self.push(window, text, Meant("type", "", text), "type", "/rig/notes", text, "notes")

    def type_name(self, window: str, at: int) -> None:
        if rows := self.rows(window):
            at %= len(rows)
            text = self.new()
            meant = Meant("type", rows[at], text)
            self.push(window, text, meant, "type", f"/day/loads/{at}/name", text, "load")

    def add_load(self, window: str, _: int) -> None:
        if self.shown[window]["document"]:
            row = self.new()
            value = {"id": row, "name": "Lamp", "draw": "20 W", "hours": "2"}
            operation = {"op": "add", "path": "/day/loads/-", "value": value}
            self.push(window, f"add {row}", Meant("add", row, "Lamp"), "edit", f"add {row}", operation)

    def remove_load(self, window: str, at: int) -> None:
        if rows := self.rows(window):
            at %= len(rows)
            name = f"remove {self.new()}"
            operation = {"op": "remove", "path": f"/day/loads/{at}"}
            self.push(window, name, Meant("remove", rows[at]), "edit", name, operation)

    def undo(self, window: str, _: int) -> None:
        before = self.waiting
        last = [name for name in self.open[window] if name in before - set(self.journal.taken.values())]
        self.call(window, "step", "undo")
        # What cannot have been stored is taken back at once, one at a time.
        if taken_back := before - self.waiting:
            assert len(taken_back) == 1 and not taken_back & set(self.journal.taken.values())
            self.excused |= taken_back
        elif last and any(said.startswith("Undone before") for said in self.shown[window]["said"]):
            # It is told; a browser without room keeps it for a while.
            self.excused.add(last[-1])

    def redo(self, window: str, _: int) -> None:
        self.call(window, "step", "redo")

    def look(self, window: str, _: int) -> None:
        self.call(window, *(["refresh"] if self.shown[window]["document"] else ["open", self.rig]))

    # What befalls them.

    def release(self, window: str, _: int) -> None:
        self.do("release", window=window)

    def wait(self, _: str, at: int) -> None:
        self.do("pass", ms=[300, 2_000, LONG_MS][at % 3])

    def reload(self, window: str, _: int) -> None:
        self.leave(window)
        self.do("reload", window=window)
        self.call(window, "open", self.rig)

    def close(self, window: str, _: int) -> None:
        self.leave(window)
        self.do("close", window=window)
        self.open[window] = []
        self.done.append(self.open[window])
        self.do("load", window=window)
        self.call(window, "open", self.rig)

    def leave(self, window: str) -> None:
        """With a window goes what the browser had no room for, which it said before."""
        if self.shown[window]["held"]:
            self.excused |= {named(e) for e in self.shown[window]["waiting"]} - self.stored

    def fill_browser(self, _: str, at: int) -> None:
        self.do("full", full=at % 2 == 0)

    def repeat(self, _: str, at: int) -> None:
        """A request arrives once more."""
        if self.sent:
            self.send(*self.sent[-1 - at % len(self.sent)])

    def kill(self, _: str, __: int) -> None:
        begin(self.app, Database(self.path))
        forget()

    def copy(self, _: str, __: int) -> None:
        backup.copy(self.path, self.path.with_name("copy.sqlite3"))
        self.copied = deepcopy(self.journal)

    def restore(self, _: str, __: int) -> None:
        if self.copied:
            content = self.path.with_name("copy.sqlite3").read_bytes()
            response = self.client.post("/api/restore", data=content, content_type="application/octet-stream")
            assert response.status_code == 200
            self.excused |= set(self.journal.taken.values()) - set(self.copied.taken.values())
            self.journal = deepcopy(self.copied)

    def delete(self, *_: Any) -> None:
        if not self.journal.deleted:
            assert self.client.delete(f"/api/rigs/{self.rig}").status_code == 200
        self.journal.deleted = True

    def bring_back(self, *_: Any) -> None:
        assert self.client.post(f"/api/rigs/{self.rig}/restore").status_code == 200
        self.journal.deleted = False

    # What must be.

    def check(self) -> None:
        with self.app.config["DATABASE"].reading() as db:
            row = db.execute("SELECT document FROM rig WHERE id = ?", (self.rig,)).fetchone()
        assert told(json.loads(row["document"])) == self.journal.done[-1][0]
        for name in set(self.meant) - set(self.journal.taken.values()) - self.waiting - self.excused:
            # It may only give way to what was typed into the same field after it.
            names = list(self.meant)
            field = self.meant[name].field
            later = [x for x in names[names.index(name) + 1 :] if self.meant[x].field == field]
            assert field and later, f"{name} is lost"

    def come_to_rest(self) -> None:
        self.network = "up"
        self.bring_back()
        self.do("full", full=False)
        for window in "ab":
            while self.shown[window]["holding"]:
                self.release(window, 0)
        for _ in range(3):
            self.do("pass", ms=LONG_MS)
        for window in "ab":
            self.look(window, 0)
        assert not self.waiting, self.waiting
        for window in self.shown.values():
            assert told(window["document"]) == self.journal.done[-1][0], (
                told(window["document"]),
                self.journal.done[-1][0],
            )
            assert not window["unsent"]
        # Each was done once, in the order of its window.
        for labels in self.done:
            taken = [x for x in self.journal.taken.values() if x in labels]
            assert taken == [x for x in labels if x in taken]


MADE = tempfile.mkdtemp()
RUNS = int(os.environ.get("OUTBOX", "20"))


def play(dice: list[int]) -> None:
    """All that happens: each number is one thing, and 0 is none."""
    with tempfile.TemporaryDirectory() as folder, figures_of_nothing():
        windows = Windows(folder)
        for one in filter(None, dice):
            windows.happens(one)
        windows.come_to_rest()


# In parts that run side by side.
@pytest.mark.parametrize("part", range(2))
def test_nothing_is_lost_between_window_and_store(part: int) -> None:
    @settings(max_examples=RUNS // 2, deadline=None, report_multiple_bugs=False)
    @given(st.lists(st.integers(0, 10**9), min_size=40, max_size=40))
    def any_order(dice: list[int]) -> None:
        play(dice)

    any_order()
