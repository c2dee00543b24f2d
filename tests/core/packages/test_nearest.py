"""The nearest banks: where none will do, what would have to be different is said, and is true."""

from dataclasses import replace

import numpy as np
import pytest

from random_rigs import random_plan
from sampled import sampled
from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.installation.packing import lacks, pack, roomier
from vast_harbor.core.packages import packages_of
from vast_harbor.core.packages.nearest import changed
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.plan import Locker
from vast_harbor.core.stops.compare import verdict_text
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_plan import to_plan
from vast_harbor.telling.figures import sentence_text

NARROW = {"locker_length": 250, "locker_width": 180, "locker_height": 200}


def demo(reference, name: str, **rig) -> Results:
    document = data.demo_rig(name)
    document["rig"].update(rig)
    # The panels are switched off when the owner leaves: every LFP bank is in the running.
    document["plan"]["overrides"]["sources_off"] = 1
    return evaluate(to_plan(files.read(document, reference), reference), reference)


@pytest.mark.parametrize(
    ("name", "rig", "asks"),
    [
        ("kittiwake", NARROW, "would do if the locker measured at least "),
        ("long-haul", {"locker_length": 350, "locker_width": 300, "locker_height": 260}, "mm wider"),
        ("pebble", {"payload_kg": -30}, "would do if the rig could carry 16 kg more"),
    ],
)
def test_where_no_bank_will_do_the_nearest_says_what_it_asks(name, rig, asks, reference) -> None:
    results = demo(reference, name, **rig)
    assert packages_of(results, reference) is None and results.verdict.winner is None
    line, card = (
        sentence_text(verdict_text.headline(results.verdict), Style()),
        " ".join(sentence_text(s, Style()) for s in verdict_text.card(results.verdict)),
    )
    assert line == "No bank works yet." and asks in card and "{" not in card
    for one in results.verdict.answer.nearest:
        assert one.compared is not None and one.compared.stopping is None
        # Entered as it asks, the rig has a bank; a little less, and that bank is out again.
        then = evaluate(changed(results.plan, one.changes), reference)
        assert then.verdict.winner is not None
        for change in one.changes:
            less = changed(results.plan, (*one.changes, replace(change, value=change.value - 2)))
            limits = evaluate(less, reference).banks.rig_limits
            assert set(limits.against(one.bank))


def test_what_the_first_compartment_cannot_take_may_stand_in_a_second_one(reference) -> None:
    results = demo(reference, "long-haul", locker_length=350, locker_width=300, locker_height=260)
    packages_of(results, reference)
    near = {tuple(c.field for c in one.changes): one for one in results.verdict.answer.nearest}
    longer, second = near[("locker_width",)], near[("locker2_length", "locker2_width", "locker2_height")]
    assert "a second compartment for the rest of it" in sentence_text(second.says, Style())
    rooms = changed(results.plan, second.changes).locker.rooms
    assert rooms[0] == results.plan.locker.rooms[0] and len(rooms) == 2
    case, units = second.bank.model.case, second.bank.units
    assert 0 < len(pack(rooms[:1], case.size, case.orientation, units).places) < units
    # A second compartment that is too small is asked to be larger, and the first one stays as it is.
    small = demo(
        reference, "long-haul", locker_length=350, locker_width=300, locker_height=260,
        locker2_length=100, locker2_width=100, locker2_height=100,
    )  # fmt: skip
    packages_of(small, reference)
    larger = [one for one in small.verdict.answer.nearest if one.changes[0].field.startswith("locker2_")]
    assert larger and longer.compared is not None
    for one in larger:
        assert "the second compartment measured at least" in sentence_text(one.says, Style())


def test_a_compartment_that_is_measured_alone_is_changed_where_it_was_entered(reference) -> None:
    alone = {"locker2_length": 250, "locker2_width": 180, "locker2_height": 200}
    results = demo(reference, "kittiwake", locker_length=None, locker_width=None, locker_height=None, **alone)
    packages_of(results, reference)
    fields = {c.field for one in results.verdict.answer.nearest for c in one.changes}
    assert fields and all(field.startswith("locker2_") for field in fields)


@pytest.mark.parametrize("seed", sampled(range(40), 6))
def test_a_rig_without_a_bank_is_never_a_dead_end(seed, reference) -> None:
    plan = random_plan(np.random.default_rng(seed), reference)
    plan = replace(plan, locker=Locker(rooms=((230.0, 150.0, 180.0),)), candidates=())
    results = evaluate(plan, reference)
    if results.verdict.suitable or not results.days.day.bank_wh.number:
        return
    found = packages_of(results, reference)
    near = results.verdict.answer.nearest
    assert found is not None or near
    assert len({tuple(c.field for c in one.changes) or one.stop for one in near}) == len(near)


def test_a_roomier_locker_takes_the_boxes_and_is_no_smaller_anywhere() -> None:
    rng = np.random.default_rng(3)
    for _ in range(60):
        room = tuple(float(x) for x in rng.integers(100, 500, 3))
        size = tuple(float(x) for x in rng.integers(100, 400, 3))
        count = int(rng.integers(1, 7))
        orientation = ("upright", "sides", "any")[int(rng.integers(3))]
        found = roomier(room, size, orientation, count)
        assert pack((found,), size, orientation, count).fits
        assert all(then >= now for then, now in zip(found, room, strict=True))
        # In one direction alone it never takes less than the way that needs only that direction.
        single = [by for by in lacks((room,), size, orientation, count) if by is not None]
        grown = [then - now for then, now in zip(found, room, strict=True)]
        if single and sum(g > 0 for g in grown) == 1:
            assert max(grown) >= min(single) - 1
