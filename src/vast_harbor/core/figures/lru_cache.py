"""What took long to compute, kept for a while: the least recently used goes first."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Lock
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class LruCache(Generic[K, V]):
    """A few values by their key; several threads may ask at once.

    Args:
        most: how many are kept.
    """

    def __init__(self, most: int) -> None:
        self._most = most
        self._values: OrderedDict[K, V] = OrderedDict()
        self._lock = Lock()

    def __contains__(self, key: K) -> bool:
        return key in self._values

    def get(self, key: K) -> V | None:
        """The value of a key, or None where it is not kept (any more)."""
        with self._lock:
            if key in self._values:
                self._values.move_to_end(key)
            return self._values.get(key)

    def put(self, key: K, value: V) -> V:
        """Keep a value, and return it."""
        with self._lock:
            self._values[key] = value
            self._values.move_to_end(key)
            while len(self._values) > self._most:
                self._values.popitem(last=False)
        return value

    def clear(self) -> None:
        """Keep nothing any more."""
        with self._lock:
            self._values.clear()

    def of(self, key: K, make: Callable[[], V]) -> V:
        """The value that is kept, or else a new one, made without making others wait."""
        value = self.get(key)
        return self.put(key, make()) if value is None else value
