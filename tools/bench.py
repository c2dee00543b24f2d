"""Speed and sizes as measured on this machine, in a table beside the figures of docs/speed.md.

    make bench             # print the table; fails where a figure is worse by half than the table says
    make bench WRITE=1     # put what was measured into docs/speed.md

The last column is the median in turns of a fixed loop of plain Python, timed just then: this machine's speed
changes, and a slow hour shows as such. Rigs of 30 and 60 loads have 4 kinds of day; the demo rigs stand for
owners with six candidates.
"""

import gc
import platform
import re
import sys
from collections.abc import Iterator
from pathlib import Path

import bench_browser as browser
import bench_core as core
import bench_log
from bench_rigs import Row, large_rig, loop, row, timed

from vast_harbor import data
from vast_harbor.core.passage import evaluate
from vast_harbor.formats import rig_file as files

TABLE = Path(__file__).parents[1] / "docs" / "speed.md"
BETWEEN = re.compile(r"(?<=<!-- measured -->\n).*?(?=<!-- end of measured -->)", re.DOTALL)
HEAD = "| | median | 95 of 100 under | worst | in loops |\n|---|---|---|---|---|\n"
# How much worse than the table a median may be before it is a fault.
WORSE = 1.5


def rows() -> Iterator[Row]:
    """Every measurement, one after the other."""
    yield from browser.start()
    yield from browser.bundle()
    for loads, banks in ((30, 3), (60, 6)):
        times, size = browser.key_to_figure(loads, banks)
        yield row(f"From key to figure on the strip, {loads} loads, {banks} banks", times)
        yield Row(f"Answer to an edit on Day, {loads} loads, {banks} banks", (size,), "kB")
    times, size = browser.money_on_screen()
    yield row("From key to the cost on the strip, 6 candidates with their 5 000 draws", times)
    yield Row("Answer to an edit on Compare, 6 candidates", (size,), "kB")
    for stop, what in (
        ("day", "a block of the sheet is stretched"),
        ("need", "the slider of the nights moves"),
    ):
        frames, times = browser.drag(stop)
        yield row(f"From an edit to its figure while {what}, 60 loads, 6 banks", times)
        yield Row(f"A frame on screen meanwhile ({stop.capitalize()})", frames, "ms")
    gc.freeze()
    reference = data.reference()
    yield row("Reading a rig file, 30 loads", timed(lambda: files.read(large_rig(30, 3), reference)))
    for loads, banks in ((30, 3), (60, 6)):
        plan = files.to_plan(files.read(large_rig(loads, banks), reference), reference)
        edited = timed(lambda plan=plan: evaluate(plan, reference).need)
        yield row(f"Computing the passage, {loads} loads, {banks} banks", edited)
    for name in data.DEMO_RIGS:
        measured = [core.banks, core.simulated, core.verdict] if name in IN_FULL else []
        for found in (measure(name) for measure in (*measured, core.packages)):
            for what, times in found.items():
                yield row(f"{what} ({name.replace('-', ' ').title()})", times)
    yield from bench_log.log()


# Demo rigs of which everything is measured; of the others what an owner waits longest for.
IN_FULL = ("kittiwake", "long-haul")


def known(text: str) -> dict[str, float]:
    """Medians of a table, by the name of their row."""
    found = re.findall(r"^\| ([^|]+?) \| ([\d. ]+?) (?:ms|s|kB|MB) \|", text, re.MULTILINE)
    return {name: float(value.replace(" ", "")) for name, value in found}


def main() -> int:
    """Measure and print; 1 where a figure is worse by half than the table says."""
    text = TABLE.read_text()
    found = BETWEEN.search(text)
    assert found is not None, "docs/speed.md has no table of figures"
    before = known(found[0])
    print(f"{platform.machine()}, Python {platform.python_version()}\n\n{HEAD}", end="")
    lines, worse = [], []
    for measured in rows():
        lines.append(measured.line(loop()))
        print(lines[-1], flush=True)
        said = before.get(measured.name)
        if said is not None and measured.values[0] > WORSE * said:
            worse.append(f"{measured.name}: {measured.values[0]:g} {measured.unit}, the table says {said:g}")
    print(core.beside_another_model())
    if "--write" in sys.argv:
        table = HEAD + "".join(f"{line}\n" for line in lines)
        TABLE.write_text(BETWEEN.sub(lambda _: table, text))
        return 0
    print(*(f"worse by half: {line}" for line in worse), sep="\n")
    return 1 if worse else 0


if __name__ == "__main__":
    sys.exit(main())
