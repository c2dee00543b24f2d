"""What the trials of ``make torture`` share: requests, edits, and the figures that they tell."""

import json
import statistics
import time
import urllib.error
import urllib.request
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True)
class Told:
    """What a trial found: what was tried, what came of it, and whether that is as promised."""

    what: str
    found: str
    kept: bool

    @property
    def line(self) -> str:
        """As Markdown."""
        return f"| {self.what} | {self.found} | {'yes' if self.kept else '**no**'} |"


class Client:
    """Asks one server.

    Args:
        address: of the server.
        patience: how long to wait for an answer [s].
    """

    def __init__(self, address: str, patience: float = 120) -> None:
        self.address, self.patience = address, patience

    def ask(self, path: str, body: Any = None, method: str | None = None) -> tuple[int, Any]:
        """Status and answer, JSON where it is."""
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(
            f"{self.address}{path}", data, {"Content-Type": "application/json"}, method=method
        )
        try:
            with urllib.request.urlopen(request, timeout=self.patience) as answer:
                return answer.status, _read(answer.read())
        except urllib.error.HTTPError as error:
            return error.code, _read(error.read())

    def get(self, path: str) -> Any:
        """The answer of what must be there."""
        status, found = self.ask(path)
        assert status == 200, (path, status, found)
        return found

    def make(self, count: int) -> list[int]:
        """Make rigs, copies of demo rigs in turn; their ids."""
        made = self.ask("/api/rigs/demo", {"name": ""})[1]["rigs"]
        ids = [r["id"] for r in made]
        while len(ids) < count:
            ids.append(self.ask(f"/api/rigs/{ids[len(ids) % 5]}/copy", {})[1]["id"])
        return ids[:count]


def _read(body: bytes) -> Any:
    try:
        return json.loads(body)
    except ValueError:
        return body


class Editor:
    """Edits one rig as a page does, one edit after the other.

    Args:
        client: who asks.
        rig: which rig.
        stop: the stop that is open.
    """

    def __init__(self, client: Client, rig: int, stop: str = "day") -> None:
        self.client, self.rig, self.stop = client, rig, stop
        found = client.get(f"/api/rigs/{rig}?stop={stop}")
        self.revision, self.have = found["revision"], found["version"]

    def edit(self, path: str, value: Any) -> tuple[int, float]:
        """Status, and how long it took [ms]."""
        began = time.perf_counter()
        body = {
            "revision": self.revision,
            "operations": [{"op": "replace", "path": path, "value": value}],
            "stop": self.stop,
            "have": self.have,
        }
        status, found = self.client.ask(f"/api/rigs/{self.rig}", body, "PATCH")
        if status == 200:
            self.revision, self.have = found["revision"], found["version"]
        return status, (time.perf_counter() - began) * 1e3


def spread(times: Sequence[float]) -> str:
    """Median, 95th of a hundred and worst [ms], in words."""
    ordered = sorted(times)
    p95 = ordered[min(len(ordered) - 1, int(len(ordered) * 0.95))]
    return f"{statistics.median(ordered):.0f} ms, 95th {p95:.0f} ms, worst {ordered[-1]:.0f} ms"


def p95(times: Sequence[float]) -> float:
    """The 95th of a hundred."""
    ordered = sorted(times)
    return ordered[min(len(ordered) - 1, int(len(ordered) * 0.95))]
