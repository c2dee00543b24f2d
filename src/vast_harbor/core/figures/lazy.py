"""Values by their key that are made when somebody asks for one."""

from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Generic, TypeVar

K = TypeVar("K")
V = TypeVar("V")


class LazyMapping(Mapping[K, V], Generic[K, V]):
    """A mapping whose values are made one by one, at first use.

    Args:
        keys: all of them.
        make: makes the value of a key.
    """

    def __init__(self, keys: Iterable[K], make: Callable[[K], V]) -> None:
        self._keys, self._make = tuple(keys), make
        self._made: dict[K, V] = {}

    def __getitem__(self, key: K) -> V:
        if key not in self._made:
            if key not in self._keys:
                raise KeyError(key)
            # Of two threads that ask at once, both are given the value that is made first.
            return self._made.setdefault(key, self._make(key))
        return self._made[key]

    def __iter__(self) -> Iterator[K]:
        return iter(self._keys)

    def __len__(self) -> int:
        return len(self._keys)
