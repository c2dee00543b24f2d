"""Speed as measured on this machine, as JSON: medians, with the tail beside them.

The rig has 30 loads and 3 banks. ``key_to_figure`` is taken in the browser, from the key going down to the
figure on the strip being painted anew.
"""

import gc
import json
import platform
import statistics
import time
from collections.abc import Callable
from typing import Any

from served import served

from vast_harbor import data
from vast_harbor.core.evaluate import evaluate
from vast_harbor.formats import rig_file as files

RUNS = 100
OBSERVE = """() => {
  window.times = []
  let down = 0
  window.addEventListener('keydown', () => (down = performance.now()), true)
  const figure = document.querySelector('[data-stop=day] [data-strip-figure]')
  new MutationObserver(() => {
    if (down) requestAnimationFrame(() => window.times.push(performance.now() - down))
  }).observe(figure, { characterData: true, childList: true, subtree: true })
}"""


def large_rig() -> dict[str, Any]:
    """A rig of 30 loads and 3 banks."""
    document = data.demo_rig("long-haul")
    loads = document["day"]["loads"]
    document["day"]["loads"] = [
        {
            **loads[i % len(loads)],
            "id": f"l{i}",
            "name": f"Load {i + 1}",
            "draw": {"value": 20.0 + i, "unit": "W"},
        }
        for i in range(30)
    ]
    return document


def summary(times: list[float]) -> dict[str, float]:
    """Median, the 95th of a hundred, and the worst [ms]."""
    found = {
        "median_ms": statistics.median(times),
        "p95_ms": statistics.quantiles(times, n=20)[-1],
        "worst_ms": max(times),
    }
    return {name: round(value, 1) for name, value in found.items()} | {"runs": len(times)}


def timed(work: Callable[[], object]) -> dict[str, float]:
    """Many runs [ms]."""
    work()
    times = []
    for _ in range(RUNS):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return summary(times)


def key_to_figure() -> dict[str, float]:
    """From key to figure in the browser, typing into one load of the large rig."""
    with served("serve") as (address, browser):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        made = page.request.post(f"{address}/api/rigs/import", data=large_rig()).json()
        page.goto(f"{address}/rigs/{made['id']}/day")
        page.wait_for_load_state("networkidle")
        field = page.locator("[data-path='/day/loads/3/draw']")
        field.fill("5")
        page.wait_for_timeout(500)
        page.evaluate(OBSERVE)
        for i in range(RUNS):
            field.press("End")
            field.press(str(1 + i % 9)) if i % 2 == 0 else field.press("Backspace")
            page.wait_for_timeout(220)
        times = page.evaluate("window.times")
    return summary(times)


def main() -> None:
    """Measure and print."""
    reference = data.reference()
    gc.freeze()
    rig = files.read(large_rig(), reference)
    plan = files.to_plan(rig, reference)
    found = {
        "machine": f"{platform.machine()}, Python {platform.python_version()}",
        "read_a_rig_file": timed(lambda: files.read(large_rig(), reference)),
        "evaluate_30_loads_3_banks": timed(lambda: evaluate(plan, reference)),
        "key_to_figure_30_loads_3_banks": key_to_figure(),
    }
    print(json.dumps(found, indent=2))


if __name__ == "__main__":
    main()
