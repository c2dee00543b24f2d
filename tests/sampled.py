"""How much of what could be tried is tried: a sample by ``make test``, all of it by ``make thorough``."""

import os
from collections.abc import Iterable
from typing import TypeVar

T = TypeVar("T")
THOROUGH = os.environ.get("THOROUGH", "") == "1"


def sampled(every: Iterable[T], *few: T) -> list[T]:
    """All of some cases, or the few of them that stand for the others."""
    cases = list(every)
    assert all(one in cases for one in few)
    return cases if THOROUGH else list(few)
