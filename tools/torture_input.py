"""Trials of input: mutants of the demo files followed by every read, and generated requests in many steps."""

import json
import random
import sys
import tempfile
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from torture_client import Told

from vast_harbor import data
from vast_harbor.store.database import Database
from vast_harbor.web.server.app import create_app

ODD: tuple[Any, ...] = (
    None, True, 0, -1, 1, 5, 1e-9, 1e9, 10**401, float("nan"), float("inf"), "", " ", "x", "12 V", "1,5",
    "25:61", "\ud800", "\u202e", "=1+1", "{N}", "%s", "../x", "<b>", [], {}, [[]], {"id": "x"}, "a" * 5000,
)  # fmt: skip
READS = (
    "", "/card", "/file", "/changes", "/catalogue", "/find", "/charging", "/trial", "/trial/year",
    "/trial/laid-up", "/trial/how-long", "/compare/doubt", "/compare/turns", "/compare/house-rules",
    "/compare/when", "/compare/loads", "/compare/terms", "/compare/beliefs", "/report",
    "/report/comparison.csv", "/report/cash-flow.csv", "/loads.csv", "/models.csv", "/wiring.svg?bank=old",
)  # fmt: skip


def _client(folder: str) -> FlaskClient:
    return create_app(Database(Path(folder) / "harbor.sqlite3")).test_client()


def _places(value: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    inside = value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ()
    return [path] * bool(path) + [p for k, v in inside for p in _places(v, (*path, k))]


def _mutant(document: dict[str, Any], rng: random.Random) -> dict[str, Any]:
    """A copy with one to three places changed, removed, doubled or exchanged."""
    changed: dict[str, Any] = json.loads(json.dumps(document))
    for _ in range(rng.randint(1, 3)):
        path = rng.choice(_places(changed))
        here: Any = changed
        for key in path[:-1]:
            here = here[key]
        how, last = rng.random(), path[-1]
        if how < 0.15:
            del here[last]
        elif how < 0.25 and isinstance(here, list):
            here.append(here[last])
        elif how < 0.5 and isinstance(here[last], int | float) and not isinstance(here[last], bool):
            here[last] *= rng.choice((-1, 0, 0.001, 0.5, 1.1, 3, 1000))
        else:
            here[last] = rng.choice(ODD)
    return changed


def in_parallel(trial: Callable[[int, int], Told], count: int) -> Told:
    """A trial in two halves, on two processors."""
    with ProcessPoolExecutor(2) as pool:
        halves = list(pool.map(trial, (count // 2, count - count // 2), (7, 8)))
    return Told(f"twice {halves[0].what}", "; ".join(h.found for h in halves), all(h.kept for h in halves))


def mutants(count: int, seed: int = 7) -> Told:
    """Import mutants of the demo files; of each that is taken, ask for everything."""
    rng = random.Random(seed)
    whole = [data.demo_rig(name) for name in data.DEMO_RIGS]
    # A bank takes as long as all the rest: with all of them every fourth, else with two.
    few = [{**rig, "candidates": rig["candidates"][:2]} for rig in whole]
    documents = [*whole, *few, *few, *few]
    taken = reads = 0
    bad: list[str] = []
    with tempfile.TemporaryDirectory() as folder:
        client = _client(folder)
        for number in range(count):
            body = json.dumps(_mutant(documents[number % len(documents)], rng))
            answer = client.post("/api/rigs/import", data=body)
            if answer.status_code >= 500:
                bad.append(f"mutant {number}: import {answer.status_code}")
            if answer.status_code != 201:
                continue
            taken += 1
            rig = answer.get_json()["id"]
            # All reads of some, a few of the others.
            for path in READS if taken % 40 == 20 else rng.sample(READS, 2):
                found = client.get(f"/api/rigs/{rig}{path}")
                reads += 1
                if found.status_code >= 500:
                    bad.append(f"mutant {number}: {path} {found.status_code}")
            client.delete(f"/api/rigs/{rig}")
    found = (
        f"{taken} taken, {reads} reads of them, {len(bad)} errors of the server {'; '.join(bad[:5])}".strip()
    )
    return Told(f"{count} mutants of the demo files", found, not bad)


def steps(count: int, seed: int = 11) -> Told:
    """Requests that follow one another as pages would send them, odd ones among them; edits, undo, copies,
    deletes, what-ifs and reads. After each the rig is still readable."""
    rng = random.Random(seed)
    bad: list[str] = []
    with tempfile.TemporaryDirectory() as folder:
        client = _client(folder)
        rigs = [r["id"] for r in client.post("/api/rigs/demo", json={}).get_json()["rigs"]]
        asked = 5
        while asked < count:
            rig = rng.choice(rigs)
            at = f"/api/rigs/{rig}"
            view = client.get(
                f"{at}?stop={rng.choice(('day', 'rig', 'banks', 'compare', 'charging', 'trial'))}"
            )
            asked += 1
            if view.status_code != 200:
                bad.append(f"{at}: {view.status_code}")
                rigs.remove(rig)
                continue
            whole = view.get_json()["whole"]
            for _ in range(rng.randint(1, 12)):
                answer = _step(client, at, whole, rng)
                asked += 1
                if answer.status_code >= 500:
                    bad.append(f"{answer.request.method} {answer.request.path}: {answer.status_code}")
                if answer.status_code == 201 and len(rigs) < 12:
                    rigs.append(answer.get_json()["id"])
                elif answer.status_code == 200 and "revision" in (answer.get_json(silent=True) or {}):
                    whole = {**whole, "revision": answer.get_json()["revision"]}
    return Told(
        f"{asked} requests in steps", f"{len(bad)} errors of the server {'; '.join(bad[:5])}".strip(), not bad
    )


def _step(client: FlaskClient, at: str, whole: dict[str, Any], rng: random.Random) -> Any:
    kind = rng.random()
    step = {"revision": whole["revision"]}
    if kind < 0.6:
        path = "".join(f"/{part}" for part in rng.choice(_places(whole["document"])))
        value = (
            rng.choice((*ODD, "20", "45 W", "12", "0.5", "3 h"))
            if rng.random() < 0.7
            else rng.uniform(0, 300)
        )
        operation = {
            "op": rng.choice(("replace", "replace", "add", "remove")),
            "path": path[:300],
            "value": value,
        }
        return client.patch(at, json={**step, "operations": [operation], "field": path[:300]})
    if kind < 0.75:
        return client.post(f"{at}/{rng.choice(('undo', 'redo'))}", json=step)
    if kind < 0.8:
        return client.post(f"{at}/what-if")
    if kind < 0.85:
        return client.post(f"{at}/what-if/end", json={"keep": rng.random() < 0.5})
    if kind < 0.87:
        return client.post(f"{at}/copy")
    return client.get(at + rng.choice(READS[:6]))


if __name__ == "__main__":
    told = in_parallel(steps, int(sys.argv[1]))
    print(told.line)
    sys.exit(0 if told.kept else 1)
