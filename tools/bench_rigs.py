"""What is measured, and how: a large rig, and the times of many runs."""

import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass
from math import inf
from typing import Any

from vast_harbor import data

RUNS = 100


@dataclass(frozen=True)
class Row:
    """A line of the table.

    Attributes:
        name: what was measured.
        values: median, the 95th of a hundred and the worst, or one value.
        unit: of the values.
    """

    name: str
    values: tuple[float, ...]
    unit: str

    def line(self, loop_ms: float) -> str:
        """The line as Markdown.

        Args:
            loop_ms: what :func:`loop` took just then [ms].
        """
        cells = [f"{value:g} {self.unit}" for value in self.values] + ["—"] * (3 - len(self.values))
        in_ms = {"ms": 1.0, "s": 1000.0}.get(self.unit)
        cells.append("—" if in_ms is None else f"{float(f'{self.values[0] * in_ms / loop_ms:.2g}'):g}")
        return f"| {self.name} | {' | '.join(cells)} |"


def loop() -> float:
    """How long a fixed loop of plain Python takes now, the best of five [ms]: a slow hour shows in it."""
    best = inf
    for _ in range(5):
        begun = time.perf_counter()
        total = 0
        for i in range(200_000):
            total += i % 7
        best = min(best, time.perf_counter() - begun)
    return 1000 * best


def row(name: str, times: dict[str, float]) -> Row:
    """A line of many runs."""
    return Row(name, (times["median_ms"], times["p95_ms"], times["worst_ms"]), "ms")


def large_rig(count: int, banks: int) -> dict[str, Any]:
    """A rig of so many loads and banks, with 4 kinds of day."""
    document = data.demo_rig("long-haul")
    types = [t for t in document["day"]["types"] if t["kind"] != "laid_up"]
    document["day"]["types"] = types
    candidates = document["candidates"]
    document["candidates"] = [{**candidates[i % len(candidates)], "id": f"bank-{i}"} for i in range(banks)]
    loads = document["day"]["loads"]
    document["day"]["loads"] = [
        {
            **{k: v for k, v in loads[i % len(loads)].items() if k not in ("low", "high", "start_w")},
            "id": f"l{i}",
            "name": f"Load {i + 1}",
            "draw": {"value": 20.0 + i, "unit": "W"},
            "on": {k: v for k, v in loads[i % len(loads)].get("on", {}).items() if k != "laid-up"},
        }
        for i in range(count)
    ]
    return document


def summary(times: list[float]) -> dict[str, float]:
    """Median, the 95th of a hundred, and the worst [ms]."""
    found = {
        "median_ms": statistics.median(times),
        "p95_ms": statistics.quantiles(times, n=20, method="inclusive")[-1],
        "worst_ms": max(times),
    }
    return {name: round(value, 1) for name, value in found.items()} | {"runs": len(times)}


def timed(work: Callable[[], object], runs: int = RUNS) -> dict[str, float]:
    """Many runs [ms]."""
    work()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return summary(times)
