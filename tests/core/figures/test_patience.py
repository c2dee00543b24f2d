"""Long work ends when nobody waits; a property is worked out once, and holds up no other."""

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.patience import Abandoned, Road, go_on, while_wanted
from vast_harbor.core.passage import evaluate
from vast_harbor.core.sensitivity.verdict_changes import verdict_changes


def test_work_goes_on_while_it_is_wanted_and_no_longer() -> None:
    go_on()
    left = [2]

    def wanted() -> bool:
        left[0] -= 1
        return left[0] >= 0

    with pytest.raises(Abandoned), while_wanted(wanted):
        for _ in range(10):
            go_on()
    assert left == [-1]
    # It is over with the work.
    go_on()


def test_long_work_stands_aside_while_something_quick_is_under_way() -> None:
    road, order, began = Road(10), [], threading.Event()

    def work() -> None:
        began.set()
        road.give_way()
        order.append("long")

    long = threading.Thread(target=work)
    with road.quick():
        long.start()
        began.wait(10)
        with road.quick():
            pass
        order.append("quick")
    long.join(10)
    assert order == ["quick", "long"]
    # Not for ever: what is quick may wait for what the long work is at.
    road = Road(0.01)
    with road.quick():
        road.give_way()
        order.append("waited enough")
    assert order[-1] == "waited enough"


def test_another_thread_is_not_asked_to_end() -> None:
    ended: list[bool] = []

    def other() -> None:
        go_on()
        ended.append(True)

    with while_wanted(lambda: False):
        thread = threading.Thread(target=other)
        thread.start()
        thread.join(10)
    assert ended == [True]


def test_what_takes_long_can_be_given_up_in_its_middle(demo_results, reference) -> None:
    results = evaluate(demo_results("pebble").plan, reference)
    asked = [0]

    def wanted() -> bool:
        asked[0] += 1
        return asked[0] < 5

    with pytest.raises(Abandoned), while_wanted(wanted):
        verdict_changes(results)
    # Nothing half done is left behind: asked again, it comes to the same as a fresh one.
    fresh = evaluate(results.plan, reference)
    turns = [c.at.value for c in verdict_changes(fresh)]
    assert turns and [c.at.value for c in verdict_changes(results)] == turns


def test_threads_that_ask_at_once_are_given_the_same_parts(demo_results) -> None:
    # A verdict looks for its banks by identity: half of one thread's and half of another's would not meet.
    results = demo_results("kittiwake")
    results.simulated.run()
    together = threading.Barrier(4)

    def ask(_: int) -> tuple[int, ...]:
        together.wait(10)
        verdict, compare = results.verdict, results.compare
        shares = verdict.class_shares
        return (id(shares), id(verdict.winner), *map(id, compare.compared_banks), *map(id, compare.rows))

    with ThreadPoolExecutor(4) as pool:
        found = list(pool.map(ask, range(4)))
    assert found == [found[0]] * 4


class Slow:
    """Two instances, one of which takes long."""

    def __init__(self, event: threading.Event | None = None) -> None:
        self.event, self.times = event, 0

    @cached_property
    def value(self) -> int:
        """What takes long."""
        self.times += 1
        if self.event is not None:
            self.event.wait(10)
        return self.times


def test_a_property_is_worked_out_once_and_waits_for_no_other_instance() -> None:
    held = threading.Event()
    slow, quick = Slow(held), Slow()
    thread = threading.Thread(target=lambda: slow.value)
    thread.start()
    assert quick.value == quick.value == quick.times == 1
    assert thread.is_alive()
    held.set()
    thread.join(10)
    assert slow.value == 1 and Slow.value.__doc__ == "What takes long."
