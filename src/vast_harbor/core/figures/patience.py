"""Work that takes long ends early when nobody waits for its result any more."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar


class Abandoned(Exception):
    """Nobody waits for the result any more."""


_WANTED: ContextVar[Callable[[], bool] | None] = ContextVar("wanted", default=None)


@contextmanager
def while_wanted(wanted: Callable[[], bool]) -> Iterator[None]:
    """Work inside ends with :class:`Abandoned` soon after it is no longer wanted.

    Args:
        wanted: whether somebody still waits; asked often, from the thread that works.
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
