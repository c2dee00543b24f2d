"""Imports point one way, and the core has no interface, no database, no files and no clock."""

import ast
import sys
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
    "datetime",
    "json",
    "tomllib",
    "urllib",
    "random",
    "importlib",
    "logging",
}
ALLOWED = {"numpy", "babel", "numba", "pandas", "pvlib", "rainflow", "scipy", "vast_harbor"}
MAY_USE = {
    "core": {"core"},
    "data": {"core", "data"},
    "formats": {"core", "formats"},
    "store": {"store"},
    "web": {"core", "data", "formats", "store", "web"},
}


def imports(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module, *(f"{node.module}.{alias.name}" for alias in node.names)}
    return found


def called(path: Path) -> set[str]:
    """Plain names that are called in a file."""
    calls = (node.func for node in ast.walk(ast.parse(path.read_text("utf-8"))) if isinstance(node, ast.Call))
    return {func.id for func in calls if isinstance(func, ast.Name)}


def test_core_touches_nothing_outside_of_itself() -> None:
    files = list((ROOT / "core").rglob("*.py"))
    assert len(files) > 20
    for path in files:
        used = {name.split(".")[0] for name in imports(path)}
        assert not used & FORBIDDEN_IN_CORE, path
        assert not called(path) & {"open", "print"}, path
        assert used <= set(sys.stdlib_module_names) | ALLOWED, path


@pytest.mark.parametrize("package", MAY_USE)
def test_imports_point_one_way(package) -> None:
    for path in (ROOT / package).rglob("*.py"):
        for name in imports(path):
            parts = name.split(".")
            if parts[0] == "vast_harbor" and len(parts) > 1 and (ROOT / parts[1]).is_dir():
                assert parts[1] in MAY_USE[package], f"{path}: {name}"
