"""No test may pass on nothing: one whose assertions all lie where the run never came is a defect.

``make thorough`` counts what was really asserted (pytest's ``enable_assertion_pass_hook``).
"""

import ast
import inspect
import textwrap
from collections.abc import Generator
from functools import cache
from typing import Any

import pytest
from _pytest.assertion import util

ASSERTED = pytest.StashKey[bool]()


@cache
def _asserts(function: Any) -> bool:
    """Whether a test has assertions of its own: others wait for the page, or for an error."""
    source = textwrap.dedent(inspect.getsource(inspect.unwrap(function)))
    return any(isinstance(node, ast.Assert) for node in ast.walk(ast.parse(source)))


class CountAsserted:
    """Plugin that fails a test in which nothing was asserted."""

    @pytest.hookimpl
    def pytest_assertion_pass(self, item: pytest.Item, lineno: int, orig: str, expl: str) -> None:
        item.stash[ASSERTED] = True
        # One is enough: telling each of thousands would take longer than the test.
        util._assertion_pass = None

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_call(self, item: pytest.Item) -> Generator[None, Any, Any]:
        result = yield
        if (
            isinstance(item, pytest.Function)
            and _asserts(item.function)
            and not item.stash.get(ASSERTED, False)
        ):
            pytest.fail("nothing was asserted", pytrace=False)
        return result
