"""What took long to compute, kept for a while: the least recently used goes first."""

from collections import OrderedDict
from collections.abc import Callable, Hashable
from threading import Event, Lock
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)
V = TypeVar("V")


class LruCache(Generic[K, V]):
    """A few values by their key; several threads may ask at once.

    Args:
        most: how many are kept, or how much of what ``size`` tells.
        size: how large a value is; one that is too large by itself is not kept.
    """

    def __init__(self, most: int, size: Callable[[V], int] = lambda _: 1) -> None:
        self._most, self._size = most, size
        self._values: OrderedDict[K, V] = OrderedDict()
        self._held = 0
        self._making: dict[K, Event] = {}
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
            if key in self._values:
                self._held -= self._size(self._values.pop(key))
            self._values[key] = value
            self._held += self._size(value)
            while self._held > self._most:
                self._held -= self._size(self._values.popitem(last=False)[1])
        return value

    def clear(self) -> None:
        """Keep nothing any more."""
        with self._lock:
            self._values.clear()
            self._held = 0

    def of(self, key: K, make: Callable[[], V]) -> V:
        """The value that is kept, or else a new one; who asks for it meanwhile waits for the same one.

        Args:
            key: which.
            make: makes it; where it fails, the next who waited tries.
        """
        while True:
            with self._lock:
                if key in self._values:
                    self._values.move_to_end(key)
                    return self._values[key]
                made = self._making.get(key)
                if made is None:
                    made = self._making[key] = Event()
                    break
            made.wait()
        try:
            return self.put(key, make())
        finally:
            with self._lock:
                del self._making[key]
            made.set()
