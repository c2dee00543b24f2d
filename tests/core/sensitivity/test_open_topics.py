"""What is not stated, tried: what is said to turn the verdict turns it, and what is said not to does not."""

from dataclasses import replace

import pytest

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.loads import Load
from vast_harbor.core.rig.topics import BY_KEY, TOPICS
from vast_harbor.core.sensitivity.open_topics import ALTERNATIVES, OpenTopics, open_topics

ALL = {t.key: False for t in TOPICS}


@pytest.fixture(scope="module")
def opened(demo_results, reference):
    """A demo rig of which nobody stated anything but what is named."""

    def build(name: str, *stated: str, **changes: object) -> tuple[Results, OpenTopics]:
        results = demo_results(name)
        given = ALL | dict.fromkeys(stated, True)
        plan = replace(results.plan, stated=given, **changes)
        found = [c.banked.bank for c in results.verdict.found if c.banked.bank is not None]
        made = evaluate(plan, reference, found=found)
        return made, open_topics(made, reference)

    return build


def test_where_all_is_stated_nothing_is_open(demo_results, reference) -> None:
    results = demo_results("pebble")
    plan = replace(results.plan, stated={t.key: True for t in TOPICS})
    found = open_topics(evaluate(plan, reference, found=()), reference)
    assert found.topics == () and found.asks is None
    assert found.provisional == (evaluate(plan, reference, found=()).verdict.question is not None)


def test_what_turns_the_verdict_comes_first_and_is_asked(opened, reference) -> None:
    results, found = opened("pebble", "space", "weight")
    turning = [o for o in found.topics if o.turns is not None]
    assert turning and list(found.topics)[: len(turning)] == turning
    swings = [o.swing or 0.0 for o in found.topics if o.turns is None]
    assert swings == sorted(swings, reverse=True)
    assert found.provisional and found.asks is turning[0].topic
    # Each that is said to turn it does so at one of the values that are tried, and the others at none.
    banks = [c.banked.bank for c in results.verdict.found if c.banked.bank is not None]
    for one in found.topics:
        kinds = set()
        for _, plan in ALTERNATIVES.get(one.topic.key, lambda *_: ())(results.plan, reference):
            verdict = evaluate(plan, reference, found=banks).verdict
            winner = verdict.winner
            kinds.add((verdict.kind, winner and winner.banked.battery_class.key))
        now = results.verdict.kind, results.verdict.winner.banked.battery_class.key
        if one.turns is None:
            assert kinds <= {now}, one.topic.key


def test_a_space_that_nobody_measured_names_the_bank_that_takes_less(opened) -> None:
    results, found = opened("pebble", *(t.key for t in TOPICS if t.key not in ("space", "weight")),
                            locker=replace(opened("pebble")[0].plan.locker, rooms=()))  # fmt: skip
    space = next(o for o in found.topics if o.topic.key == "space")
    winner = results.verdict.winner
    assert space.status == "missing" and space.turns is not None
    assert winner.banked.bank.model.title in space.turns.template
    # What would be bought instead costs more, else it would be the verdict already.
    assert space.swing > 0
    stated = replace(results.plan, stated=dict.fromkeys(ALL, True))
    assert "space" not in {o.topic.key for o in open_topics(evaluate(stated, results.reference, found=()),
                                                            results.reference).topics}  # fmt: skip


def test_an_empty_rig_has_no_verdict_that_could_turn(evaluated, reference) -> None:
    results = evaluated((), stated=ALL)
    found = open_topics(results, reference)
    assert all(o.turns is None and o.swing is None for o in found.topics)
    assert not found.provisional and found.asks is None
    assert {o.topic.key for o in found.topics if o.status == "missing"} >= {"loads", "charging", "where"}


def test_loads_are_tried_with_all_that_depends_on_them(evaluated, reference) -> None:
    lamp = Load("lamp", "Lamp", "dc", draw=Draw(10, "W"),
                volts=12, hours=5, low=8, high=14, measured_wh=60)  # fmt: skip
    plan = evaluated((lamp,)).plan
    less, more = (p for _, p in ALTERNATIVES["loads"](plan, reference))
    assert less.loads[0].draw.value == pytest.approx(7) and more.loads[0].high == pytest.approx(19.6)
    assert more.loads[0].wh == pytest.approx(1.4 * lamp.wh)


def test_every_topic_that_can_be_tried_is_tried(demo_results, reference) -> None:
    plan = replace(demo_results("kittiwake").plan, stated=ALL)
    for key, tried in ALTERNATIVES.items():
        others = list(tried(plan, reference))
        assert others and all(words and other != plan for words, other in others), key
    assert set(ALTERNATIVES) | {"old_bank", "space", "weight"} == set(BY_KEY)
