"""A property that is worked out once."""

import functools
from collections.abc import Callable
from typing import Any, Generic, TypeVar, overload

T = TypeVar("T")
U = TypeVar("U")
_NONE = object()


def kept_with(work_out: Callable[[T], U]) -> Callable[[T], U]:
    """A function of one object that is worked out once for each object, and kept with it; as
    :class:`cached_property` for what a lower package cannot know of.

    Args:
        work_out: the function; its object must have a ``__dict__`` and not change, and must not be what
            is worked out.
    """
    name = f"{work_out.__module__}.{work_out.__qualname__}"

    @functools.wraps(work_out)
    def of(instance: T) -> U:
        return _once(instance, name, work_out)

    return of


def _once(instance: T, name: str, work_out: Callable[[T], U]) -> U:
    value: Any = instance.__dict__.get(name, _NONE)
    if value is _NONE:
        # The first one done is the one for all: others hold parts of it and look for them by identity.
        value = instance.__dict__.setdefault(name, work_out(instance))
    found: U = value
    return found


class cached_property(Generic[T]):
    """Like :func:`functools.cached_property` from Python 3.12 on: without the one lock for all instances,
    behind which a quick answer would wait for a long one. Two threads that ask one instance at once may both
    work it out; both are given the value of the one that is done first.

    Args:
        work_out: the method.
    """

    def __init__(self, work_out: Callable[[Any], T]) -> None:
        self.work_out, self.name = work_out, work_out.__name__
        functools.update_wrapper(self, work_out)  # type: ignore[arg-type]

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    @overload
    def __get__(self, instance: None, owner: type | None = None) -> "cached_property[T]": ...

    @overload
    def __get__(self, instance: object, owner: type | None = None) -> T: ...

    def __get__(self, instance: object | None, owner: type | None = None) -> "cached_property[T] | T":
        if instance is None:
            return self
        return _once(instance, self.name, self.work_out)
