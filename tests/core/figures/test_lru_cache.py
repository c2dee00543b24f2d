"""Keeping what took long: the least recently used goes, and threads do not disturb each other."""

from concurrent.futures import ThreadPoolExecutor

from vast_harbor.core.figures.lru_cache import LruCache


def test_the_least_recently_used_goes_first() -> None:
    kept: LruCache[str, str] = LruCache(2)
    first = kept.of("a", lambda: "".join(["A", "1"]))
    kept.put("b", "B")
    assert kept.of("a", lambda: "never made") is first
    kept.put("c", "C")
    assert "a" in kept and "c" in kept and "b" not in kept
    assert kept.get("b") is None and kept.of("b", lambda: "anew") == "anew"


def test_threads_get_the_value_of_their_own_key() -> None:
    kept: LruCache[int, list[int]] = LruCache(3)
    asked = [i % 7 for i in range(4000)]
    with ThreadPoolExecutor(8) as pool:
        found = list(pool.map(lambda i: kept.of(i, lambda: [i]), asked))
    assert found == [[i] for i in asked]
    assert sum(i in kept for i in range(7)) == 3
