"""The tests of the interface's own code, run by vitest and reported one by one beside all others.

They stand in ``frontend/tests``, where they find what they import.
"""

import fcntl
import json
import shutil
import subprocess
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any

import pytest

from whole_run import shared_folder

FRONTEND = Path(__file__).parents[2] / "frontend"


def vitest(*arguments: str) -> Any:
    """What vitest prints as JSON.

    Raises:
        RuntimeError: it printed none: not installed, or a file that does not even load.
    """
    npx = shutil.which("npx") or "npx"
    line = [npx, "--no-install", "vitest", *arguments]
    done = subprocess.run(line, cwd=FRONTEND, capture_output=True, text=True, check=False)
    start = min((i for i in (done.stdout.find("{"), done.stdout.find("[")) if i >= 0), default=-1)
    if start < 0:
        raise RuntimeError(f"{done.stdout}\n{done.stderr}")
    return json.loads(done.stdout[start:])


def once(folder: Path, name: str, *arguments: str) -> Any:
    """What vitest prints, once for all workers: the first to ask runs it, the others wait for it."""
    kept = folder / f"{name}.json"
    with kept.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not kept.exists():
            kept.write_text(json.dumps(vitest(*arguments)), "utf-8")
        return json.loads(kept.read_text("utf-8"))


@cache
def results(folder: Path) -> dict[str, dict[str, Any]]:
    """Every case that was run, by its file and name; the report lies in a folder that all workers share."""
    report = once(folder, "vitest", "run", "--reporter=json")
    found = {}
    for one in report["testResults"]:
        file = Path(one["name"]).name
        for case in one["assertionResults"]:
            found[f"{file}::{' > '.join([*case['ancestorTitles'], case['title']])}"] = case
    return found


class OfTheRun(pytest.Item):
    """What is read from the one run."""

    def results(self) -> dict[str, dict[str, Any]]:
        return results(shared_folder(self.config))


class Case(OfTheRun):
    """One case of a test file of the interface."""

    def runtest(self) -> None:
        case = self.results().get(self.name)
        if case is None:
            pytest.fail(f"{self.name} was not run: its file does not load.", pytrace=False)
        if case["status"] != "passed":
            pytest.fail("\n".join(case["failureMessages"]) or case["status"], pytrace=False)

    def reportinfo(self) -> tuple[Path, None, str]:
        return self.path, None, self.name


class Complete(OfTheRun):
    """That every case that was run is one of those that are reported here."""

    listed: frozenset[str] = frozenset()

    def runtest(self) -> None:
        unknown = self.results().keys() - self.listed
        if unknown:
            pytest.fail(f"These cases have names made while they run: {sorted(unknown)}", pytrace=False)

    def reportinfo(self) -> tuple[Path, None, str]:
        return self.path, None, self.name


class Interface(pytest.File):
    """All test files of the interface."""

    def collect(self) -> Iterator[pytest.Item]:
        # Read, not run: so it takes three seconds in place of thirty.
        found = once(shared_folder(self.config), "cases", "list", "--json", "--staticParse")
        cases = {f"{Path(c['file']).name}::{c['name']}" for c in found}
        complete = Complete.from_parent(self, name="every case is reported")
        complete.listed = frozenset(cases)
        yield complete
        for name in sorted(cases):
            yield Case.from_parent(self, name=name)


def pytest_collect_file(file_path: Path, parent: pytest.Collector) -> Interface | None:
    if file_path == Path(__file__).with_name("vitest.txt"):
        return Interface.from_parent(parent, path=file_path)
    return None
