"""Change the code in small ways and see whether a test notices: how much of what it says is held.

Signs, comparisons, ``and``/``or``, ``min``/``max`` and numbers of battery, cost, simulation and verdict are
changed one at a time, in copies of the tree, a fixed sample of them. A change that no test notices is printed
with its place.

    make mutants                # the whole sample
    tools/mutants.py 40 kernel  # forty of the changes in files whose path holds a word
"""

import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

ROOT = Path(__file__).parents[1]
CORE = Path("src/vast_harbor/core")
SEED, SAMPLE, WORKERS = 12, 160, 2
# What is changed, and the tests that are asked: the nearest first, the others only where those pass.
BATTERY = ("tests/core/battery",)
STOPS = ("tests/core/stops", "tests/core/rig")
TARGETS: dict[str, tuple[tuple[str, ...], ...]] = {
    "battery": (BATTERY, ("tests/core/simulation", "tests/core/cost"), STOPS),
    "cost": (("tests/core/cost",), STOPS),
    "simulation": (("tests/core/simulation",), BATTERY, ("tests/core/stops/test_trial.py",)),
    "stops/compare/verdict.py": (
        ("tests/core/stops/test_judgement.py", "tests/core/stops/test_verdict.py"),
        STOPS,
    ),
    "stops/banks/criteria": (
        ("tests/core/stops/test_criteria.py", "tests/core/stops/test_judgement.py"),
        STOPS,
    ),
    "stops/compare/winner_saving.py": (("tests/core/stops/test_verdict.py",), STOPS),
    "stops/banks/quick_life_cost.py": (("tests/core/cost", "tests/core/battery/test_ageing.py"), STOPS),
}
COMPARE = {
    ast.Lt: ast.GtE, ast.LtE: ast.Gt, ast.Gt: ast.LtE, ast.GtE: ast.Lt, ast.Eq: ast.NotEq, ast.NotEq: ast.Eq,
}  # fmt: skip
SIGNS = {ast.Add: ast.Sub, ast.Sub: ast.Add, ast.Mult: ast.Div, ast.Div: ast.Mult}


@dataclass(frozen=True)
class Mutant:
    """One change.

    Attributes:
        path: the file, from the root.
        line: where.
        what: in words.
        text: the whole file, changed.
    """

    path: Path
    line: int
    what: str
    text: str


def changes(node: ast.AST) -> Iterator[tuple[str, ast.AST]]:
    """What may be put in place of a piece of code."""
    if isinstance(node, ast.Compare) and len(node.ops) == 1 and type(node.ops[0]) in COMPARE:
        other = COMPARE[type(node.ops[0])]()
        yield "comparison turned round", ast.Compare(node.left, [other], node.comparators)
    elif isinstance(node, ast.BinOp) and type(node.op) in SIGNS:
        yield "sign changed", ast.BinOp(node.left, SIGNS[type(node.op)](), node.right)
    elif isinstance(node, ast.BoolOp):
        yield ("and for or", ast.BoolOp(ast.Or() if isinstance(node.op, ast.And) else ast.And(), node.values))
    elif isinstance(node, ast.Constant) and isinstance(node.value, int | float) and node.value is not True:
        if node.value is not False:
            yield "number changed", ast.Constant(node.value * 1.5 + (1 if node.value == 0 else 0))
    elif isinstance(node, ast.Call) and getattr(node.func, "attr", getattr(node.func, "id", "")) in (
        "min", "max", "minimum", "maximum",
    ):  # fmt: skip
        swap = {"min": "max", "max": "min", "minimum": "maximum", "maximum": "minimum"}
        func = node.func
        if isinstance(func, ast.Name):
            yield "min for max", ast.Call(ast.Name(swap[func.id], ast.Load()), node.args, node.keywords)
        elif isinstance(func, ast.Attribute):
            turned = ast.Attribute(func.value, swap[func.attr], ast.Load())
            yield "min for max", ast.Call(turned, node.args, node.keywords)


def mutants(path: Path) -> Iterator[Mutant]:
    """Every change of a file; docstrings, texts, types and module names are left alone."""
    source = (ROOT / path).read_text("utf-8")
    lines = source.splitlines(keepends=True)
    starts = [0]
    for line in lines:
        starts.append(starts[-1] + len(line.encode()))
    raw = source.encode()
    tree = ast.parse(source)
    # Bits and rounding are no rules: their numbers may be others.
    plain = {id(n) for a in ast.walk(tree) if isinstance(a, ast.Assign) for n in ast.walk(a) if is_bits(a)}
    inside = {
        id(n)
        for f in ast.walk(tree)
        if isinstance(f, ast.FunctionDef)
        for part in (*f.body, *f.args.defaults, *(d for d in f.args.kw_defaults if d is not None))
        for n in ast.walk(part)
    }
    for node in ast.walk(tree):
        if id(node) not in inside or id(node) in plain or tiny(node) or not hasattr(node, "lineno"):
            continue
        for what, other in changes(node):
            a = starts[node.lineno - 1] + node.col_offset
            b = starts[node.end_lineno - 1] + node.end_col_offset
            new = f"({ast.unparse(ast.fix_missing_locations(other))})".encode()
            yield Mutant(
                path, node.lineno, f"{what}: {raw[a:b].decode()}", (raw[:a] + new + raw[b:]).decode()
            )


def is_bits(node: ast.Assign) -> bool:
    return isinstance(node.targets[0], ast.Tuple) and isinstance(node.value, ast.Tuple)


def tiny(node: ast.AST) -> bool:
    """Whether a number only allows for rounding."""
    return isinstance(node, ast.Constant) and isinstance(node.value, float) and 0 < abs(node.value) < 1e-5


def killed(tree: Path, mutant: Mutant, tests: tuple[tuple[str, ...], ...]) -> bool:
    """Whether a test notices."""
    file = tree / mutant.path
    before = file.read_text("utf-8")
    file.write_text(mutant.text, "utf-8")
    env = os.environ | {
        "PYTHONPATH": str(tree / "src"),
        "PYTHONDONTWRITEBYTECODE": "1",
        "NUMBA_CACHE_DIR": str(tree / "cache"),
        "HYPOTHESIS_PROFILE": "quick",
    }
    compiled = "simulation" in str(mutant.path) or "njit" in before
    if compiled or mutant.path.name in ("kibam.py", "terminal_voltage.py", "charge_acceptance.py"):
        shutil.rmtree(tree / "cache", ignore_errors=True)
    try:
        for some in tests:
            line = [sys.executable, "-m", "pytest", "-q", "-x", "-p", "no:cacheprovider", *some]
            try:
                done = subprocess.run(line, cwd=tree, env=env, capture_output=True, timeout=300, check=False)
            except subprocess.TimeoutExpired:
                return True
            if done.returncode != 0:
                return True
        return False
    finally:
        file.write_text(before, "utf-8")
        if compiled:
            shutil.rmtree(tree / "cache", ignore_errors=True)


def main() -> int:
    """Change, ask, and print; fails where less than 85 of 100 are noticed."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else SAMPLE
    word = sys.argv[2] if len(sys.argv) > 2 else ""
    found = []
    for target, tests in TARGETS.items():
        at = ROOT / CORE / target
        for file in sorted(at.rglob("*.py")) if at.is_dir() else [at]:
            path = file.relative_to(ROOT)
            if word in str(path):
                found += [(m, tests) for m in mutants(path)]
    chosen = random.Random(SEED).sample(found, min(count, len(found)))
    trees: Queue[Path] = Queue()
    with tempfile.TemporaryDirectory() as folder:
        for i in range(WORKERS):
            tree = Path(folder) / str(i)
            ignore = shutil.ignore_patterns("__pycache__", "static", "node_modules")
            for part in ("src", "tests"):
                shutil.copytree(ROOT / part, tree / part, ignore=ignore)
            shutil.copy(ROOT / "pyproject.toml", tree)
            trees.put(tree)

        def try_one(one: tuple[Mutant, tuple[tuple[str, ...], ...]]) -> bool:
            tree = trees.get()
            try:
                return killed(tree, *one)
            finally:
                trees.put(tree)

        survived = 0
        with ThreadPoolExecutor(WORKERS) as pool:
            for i, ((mutant, _), dead) in enumerate(zip(chosen, pool.map(try_one, chosen), strict=True), 1):
                if not dead:
                    survived += 1
                    print(f"not noticed: {mutant.path}:{mutant.line}: {mutant.what}", flush=True)
                if i % 20 == 0:
                    print(f"{i} of {len(chosen)} tried, {i - survived} noticed", flush=True)
    share = 1 - survived / max(1, len(chosen))
    noticed = len(chosen) - survived
    print(f"{noticed} of {len(chosen)} changes were noticed ({share:.0%}), of {len(found)} possible")
    return 0 if share >= 0.85 else 1


if __name__ == "__main__":
    sys.exit(main())
