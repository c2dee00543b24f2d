"""What is kept is bounded by what it takes up, and made once for all who ask at the same time."""

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from vast_harbor.core.figures.lru_cache import LruCache


def test_the_least_recently_used_goes_first() -> None:
    kept: LruCache[str, str] = LruCache(2)
    first = kept.of("a", lambda: "".join(["A", "1"]))
    kept.put("b", "B")
    assert kept.of("a", lambda: "never made") is first
    kept.put("c", "C")
    assert "a" in kept and "c" in kept and "b" not in kept
    assert kept.get("b") is None and kept.of("b", lambda: "anew") == "anew"
    kept.clear()
    assert kept.get("b") is None


def test_threads_get_the_value_of_their_own_key() -> None:
    kept: LruCache[int, list[int]] = LruCache(3)
    asked = [i % 7 for i in range(4000)]
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda i: kept.of(i, lambda: [i]), asked))
    assert found == [[i] for i in asked]
    assert sum(i in kept for i in range(7)) == 3


def test_it_is_bounded_by_size_where_one_is_told() -> None:
    cache: LruCache[str, bytes] = LruCache(10, len)
    cache.put("a", b"1234")
    cache.put("b", b"12345")
    # A larger value in place of one counts once.
    cache.put("a", b"12345")
    assert cache.get("b") == b"12345"
    cache.put("c", b"1")
    assert [cache.get(k) is None for k in "abc"] == [True, False, False]
    # One that is too large by itself is given, and not kept.
    assert cache.of("d", lambda: b"1" * 11) == b"1" * 11
    assert cache.get("d") is None
    cache.put("e", b"1" * 10)
    assert cache.get("e") is not None


def test_who_asks_meanwhile_waits_for_the_same_one() -> None:
    cache: LruCache[str, object] = LruCache(5)
    started, go_on = threading.Event(), threading.Event()
    made: list[object] = []

    def make() -> object:
        made.append(object())
        started.set()
        go_on.wait(10)
        return made[-1]

    found: list[object] = []
    first = threading.Thread(target=lambda: found.append(cache.of("k", make)))
    first.start()
    started.wait(10)
    others = [threading.Thread(target=lambda: found.append(cache.of("k", make))) for _ in range(3)]
    for one in others:
        one.start()
    # Another key waits for nobody.
    assert cache.of("other", lambda: 1) == 1
    go_on.set()
    for one in (first, *others):
        one.join(10)
    assert len(made) == 1 and found == made * 4


def test_one_that_fails_is_made_by_the_next_who_asks() -> None:
    cache: LruCache[str, int] = LruCache(5)

    def fail() -> int:
        raise ZeroDivisionError

    with pytest.raises(ZeroDivisionError):
        cache.of("k", fail)
    assert cache.of("k", lambda: 3) == 3
