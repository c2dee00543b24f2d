"""Work that takes long lets what is quick go first, and ends early when nobody waits for it any more."""

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar

# Not long: what is quick may be waiting for what the long work is at [s].
ASIDE_S = 0.1


class Abandoned(Exception):
    """Nobody waits for the result any more."""


class Road:
    """What is quick and what takes long share the processor; what is quick has the right of way.

    Args:
        aside_s: so long at most does the long work stand aside, each time it is asked to [s].
    """

    def __init__(self, aside_s: float = ASIDE_S) -> None:
        self._quick, self._aside_s = 0, aside_s
        self._free = threading.Condition()

    @contextmanager
    def quick(self) -> Iterator[None]:
        """What is done inside is quick."""
        with self._free:
            self._quick += 1
        try:
            yield
        finally:
            with self._free:
                self._quick -= 1
                self._free.notify_all()

    def give_way(self) -> None:
        """Stand aside until nothing quick is under way, but not for long."""
        with self._free:
            self._free.wait_for(lambda: not self._quick, self._aside_s)


_WANTED: ContextVar[Callable[[], bool] | None] = ContextVar("wanted", default=None)


@contextmanager
def while_wanted(wanted: Callable[[], bool]) -> Iterator[None]:
    """Work inside ends with :class:`Abandoned` soon after it is no longer wanted.

    Args:
        wanted: whether somebody still waits; asked often, from the thread that works. It may take its time,
            for others to go first.
    """
    token = _WANTED.set(wanted)
    try:
        yield
    finally:
        _WANTED.reset(token)


def go_on() -> None:
    """To be called between the steps of long work.

    Raises:
        Abandoned: nobody waits any more.
    """
    wanted = _WANTED.get()
    if wanted is not None and not wanted():
        raise Abandoned
