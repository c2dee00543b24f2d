"""What ``docs/reliability.md`` promises, tried: ``make torture``, and a short form in the tests.

``--write`` puts the table into ``docs/reliability.md``; ``--long`` adds what takes half an hour more.
"""

import os
import subprocess
import sys
import time
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path

import torture_disk as disk
import torture_input as odd
import torture_load as load
from torture_client import Told

ROOT = Path(__file__).parent.parent
PAGE = ROOT / "docs" / "reliability.md"
BEGIN, END = "<!-- torture -->", "<!-- /torture -->"


def windows(part: int, runs: int) -> Told:
    """Windows of the interface beside the store and a plain model: half of the runs."""
    test = f"tests/web/test_outbox.py::test_nothing_is_lost_between_window_and_store[{part}]"
    line = [sys.executable, "-m", "pytest", "-q", test]
    env = os.environ | {"OUTBOX": str(2 * runs)}
    done = subprocess.run(line, cwd=ROOT, env=env, capture_output=True, text=True, check=False)
    told = "0 differences" if done.returncode == 0 else done.stdout[-2000:]
    return Told(f"{runs} runs of two windows beside the store", told, done.returncode == 0)


# What may run beside something else; the longest first.
FIRST: tuple[Callable[[], Told], ...] = (
    partial(load.flat, 3000),
    partial(windows, 0, 1000),
    partial(windows, 1, 1000),
    partial(odd.mutants, 500, 7),
    partial(odd.mutants, 500, 8),
    partial(odd.steps, 600, 7),
    partial(odd.steps, 600, 8),
    partial(disk.kills, 25),
    partial(disk.synced, 50),
    disk.full_disk,
    partial(disk.damage, 60),
    partial(disk.restore, 60),
)
# What takes the time of an answer, and so runs alone.
THEN: tuple[Callable[[], Told], ...] = (
    lambda: disk.lock(12),
    lambda: load.streams(200),
    lambda: load.half_open(600),
    lambda: load.costly(50),
    lambda: load.many_rigs(2000),
    lambda: load.largest(20),
    lambda: load.memory(600, 200),
)
LONG: tuple[Callable[[], Told], ...] = (
    lambda: load.memory(20_000, 200),
    lambda: odd.in_parallel(odd.steps, 50_000),
)
SHORT: dict[str, Callable[[], Told]] = {
    "kills": lambda: disk.kills(1),
    "full disk": disk.full_disk,
    "lock": lambda: disk.lock(2.2),
    "restore": lambda: disk.restore(6),
    "mutants": lambda: odd.mutants(30),
    "steps": lambda: odd.steps(40),
}


def timed(trial: Callable[[], Told]) -> Told:
    """What a trial found, told with the time that it took."""
    began = time.monotonic()
    told = trial()
    print(f"{told.line}  ({time.monotonic() - began:.0f} s)", flush=True)
    return told


def main() -> int:
    """Try all; 1 where something is not as promised."""
    with ProcessPoolExecutor(2) as pool:
        found = list(pool.map(timed, FIRST))
    found += map(timed, THEN + (LONG if "--long" in sys.argv else ()))
    if "--write" in sys.argv:
        table = "\n".join(["| Tried | Found | As promised |", "|---|---|---|", *(t.line for t in found)])
        text = PAGE.read_text("utf-8")
        before, rest = text.split(BEGIN)
        PAGE.write_text(f"{before}{BEGIN}\n{table}\n{END}{rest.split(END)[1]}", "utf-8")
    return 0 if all(t.kept for t in found) else 1


if __name__ == "__main__":
    sys.exit(main())
