"""Imports point one way, and the core has no interface, no database, no files and no clock."""

import ast
import importlib
import re
import sys
from functools import cache
from pathlib import Path

import pytest

import vast_harbor

ROOT = Path(vast_harbor.__file__).parent
FORBIDDEN_IN_CORE = {
    "flask",
    "flask_openapi3",
    "pydantic",
    "sqlite3",
    "os",
    "io",
    "pathlib",
    "shutil",
    "tempfile",
    "subprocess",
    "socket",
    "time",
    "json",
    "tomllib",
    "urllib",
    "random",
    "importlib",
    "logging",
}
ALLOWED = {"numpy", "babel", "dateutil", "numba", "rainflow", "scipy", "vast_harbor"}
# Packages of the core from the ground up: each may use itself and what stands before it.
ORDER = (
    "arrays",
    "errors",
    "figures",
    "battery",
    "weather",
    "installation",
    "rig",
    "improvements",
    "cost",
    "simulation",
    "stops.day",
    "stops.need",
    "stops.rig",
    "stops.banks",
    "schedule",
    "stops.charging",
    "stops.trial",
    "stops.compare",
    "stops.changeover",
    "log",
    "catalogue_banks",
    "passage",
    "packages",
    "review",
    "beliefs",
    "sensitivity",
)
# The same for what answers requests; no stop knows another one.
WEB_ORDER = ("base", "state", "stops", "plan", "log", "harbor", "server")
MAY_USE = {
    "phrases": {"phrases"},
    "core": {"core", "phrases"},
    "data": {"core", "data", "phrases"},
    "telling": {"core", "phrases", "telling"},
    "formats": {"core", "formats", "phrases", "telling"},
    "store": {"phrases", "store"},
    "web": {"core", "data", "formats", "phrases", "store", "telling", "web"},
}


@cache
def tree(path: Path) -> ast.Module:
    return ast.parse(path.read_text("utf-8"))


@cache
def imports(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(tree(path)):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module, *(f"{node.module}.{alias.name}" for alias in node.names)}
    return found


def called(path: Path) -> set[str]:
    """Plain names that are called in a file."""
    calls = (node.func for node in ast.walk(tree(path)) if isinstance(node, ast.Call))
    return {func.id for func in calls if isinstance(func, ast.Name)}


def test_core_touches_nothing_outside_of_itself() -> None:
    files = list((ROOT / "core").rglob("*.py"))
    assert len(files) > 20
    for path in files:
        used = {name.split(".")[0] for name in imports(path)}
        assert not used & FORBIDDEN_IN_CORE, path
        assert not called(path) & {"open", "print"}, path
        assert used <= set(sys.stdlib_module_names) | ALLOWED, path
        # A date is a value; which day it is, the core is told.
        text = path.read_text("utf-8")
        assert "import time" not in text and not re.search(r"(date|datetime)\.(today|now|utcnow)", text), path


@pytest.mark.parametrize("package", MAY_USE)
def test_imports_point_one_way(package) -> None:
    paths = list((ROOT / package).rglob("*.py"))
    used = {tuple(name.split(".")[:2]) for path in paths for name in imports(path)}
    ours = {name[1] for name in used if name[0] == "vast_harbor" and (ROOT / name[-1]).is_dir()}
    assert paths and ours <= MAY_USE[package]


def package_of(module: str) -> str:
    """The longest package of the order that a module of the core lies in; empty for none."""
    return max((name for name in ORDER if f"{module}.".startswith(f"{name}.")), key=len, default="")


def test_packages_of_the_core_depend_one_way() -> None:
    core = ROOT / "core"
    for path in core.rglob("*.py"):
        module = ".".join(path.relative_to(core).with_suffix("").parts).removesuffix(".__init__")
        if module in ("__init__", "stops"):
            continue
        own = package_of(module)
        assert own, f"{path} lies in no package of the order"
        for name in imports(path):
            used = (
                package_of(name.removeprefix("vast_harbor.core."))
                if name.startswith("vast_harbor.core.")
                else ""
            )
            assert not used or ORDER.index(used) <= ORDER.index(own), f"{path} uses {name}"


def test_packages_of_the_web_depend_one_way() -> None:
    web, seen = ROOT / "web", set()
    for path in web.rglob("*.py"):
        own, *inside = path.relative_to(web).parts
        if own == "__init__.py":
            continue
        seen.add(own)
        for name in imports(path):
            used, _, rest = name.removeprefix("vast_harbor.web.").partition(".")
            if not name.startswith("vast_harbor.web.") or used not in WEB_ORDER:
                continue
            assert WEB_ORDER.index(used) <= WEB_ORDER.index(own), f"{path} uses {name}"
            if own == used == "stops":
                assert rest.split(".")[0] == inside[0], f"{path} uses {name}"
    assert seen == set(WEB_ORDER)


def test_a_stop_is_entered_by_its_package() -> None:
    """From outside only what a stop's package offers is used, and what it offers is used."""
    used: dict[str, set[str]] = {}
    for path in ROOT.rglob("*.py"):
        inside = path.relative_to(ROOT).parts
        own = inside[2] if inside[:2] == ("core", "stops") else ""
        for node in ast.walk(tree(path)):
            if not isinstance(node, ast.ImportFrom) or "core.stops" not in (node.module or ""):
                continue
            _, _, *rest = (node.module or "").split(".")
            for name in (alias.name for alias in node.names):
                # A whole stop under a name of its own gives its evaluate.
                stop, what = (rest[1], name) if len(rest) > 1 else (name, "evaluate")
                if stop != own:
                    assert len(rest) < 3, f"{path}: {node.module}"
                    used.setdefault(stop, set()).add(what)
    assert len(used) == 8
    for stop, names in used.items():
        offered = set(importlib.import_module(f"vast_harbor.core.stops.{stop}").__all__)
        assert names == offered, stop


def test_shared_parts_of_the_interface_know_no_stop() -> None:
    source = ROOT.parents[1] / "frontend" / "src"
    shared = [p for part in ("ui", "charts", "stores", "api") for p in (source / part).rglob("*.[tv]*")]
    assert len(shared) > 40
    for path in shared:
        assert "@/stops" not in path.read_text("utf-8"), path
    stops = [p for p in (source / "stops").iterdir() if p.is_dir()]
    for stop in stops:
        others = {f"@/stops/{other.name}" for other in stops if other != stop}
        for path in stop.rglob("*.[tv]*"):
            text = path.read_text("utf-8")
            assert not [other for other in others if f"{other}/" in text], path


def test_the_guide_names_files_that_are_there() -> None:
    """Every path in docs/architecture.md, and its table of packages in the order held here."""
    text = (ROOT.parents[1] / "docs" / "architecture.md").read_text()
    named = set(re.findall(r"`((?:src|frontend|tests)/[\w./-]+)`", text))
    assert len(named) > 30
    assert [path for path in sorted(named) if not (ROOT.parents[1] / path).exists()] == []
    packages = re.findall(r"^\| `(\w+)(?:\.py)?` \|", text.split("Around the core")[0], re.MULTILINE)
    assert packages == [package for package in ORDER if package in packages]
