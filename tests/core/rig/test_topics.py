"""What a plan rests on: who stated it, and what of it is missing."""

from dataclasses import replace

import pytest

from vast_harbor import data
from vast_harbor.core.rig.sources import MAINS, Source
from vast_harbor.core.rig.topics import ASSUMED, BY_KEY, MISSING, STATED, TOPICS, stated_by, topics_of
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_document import QUESTIONS, RigFile, StatedPart
from vast_harbor.formats.rig_file_kept import with_stated


def paths_of(part: type, at: str = "") -> set[str]:
    return {f"{at}/{name}" for name in part.model_fields}


def test_every_topic_is_a_field_of_the_rig_file_and_asked_by_a_question() -> None:
    assert {t.key for t in TOPICS} == set(StatedPart.model_fields)
    assert {t.question for t in TOPICS} <= set(QUESTIONS)
    known = paths_of(RigFile) | paths_of(RigFile.model_fields["rig"].annotation, "/rig")
    known |= paths_of(RigFile.model_fields["day"].annotation, "/day")
    known |= paths_of(RigFile.model_fields["plan"].annotation, "/plan")
    known |= {f"/plan/overrides/{t.assumption}" for t in TOPICS if t.assumption}
    assert {p for t in TOPICS for p in t.paths} <= known


def test_a_price_that_is_assumed_is_stated_by_typing_or_confirming_it(demo_results) -> None:
    plan, price = demo_results("pebble").plan, BY_KEY["night_price"]
    typed = {**plan.overrides, "night_elsewhere": 20.0}
    assert price.status(replace(plan, stated={}, overrides={})) == ASSUMED
    assert price.status(replace(plan, stated={}, overrides=typed)) == STATED
    assert price.status(replace(plan, stated={"night_price": False}, overrides={})) == ASSUMED
    assert price.status(replace(plan, stated={"night_price": True}, overrides={})) == STATED
    assert stated_by("/plan/overrides/night_elsewhere") == ("night_price",)


@pytest.mark.parametrize(
    ("path", "topics"),
    [
        ("/rig/off_grid_nights", ("nights",)),
        ("/day/loads/3/hours", ("loads",)),
        ("/day/loads", ("loads",)),
        ("/day/loads_of", ()),
        ("/sources/0/amps", ("charging",)),
        ("/rig/name", ()),
        ("/old_bank/age_years", ()),
        ("/rig/locker_length", ()),
    ],
)
def test_an_edit_states_the_topic_whose_field_it_is(path, topics) -> None:
    assert stated_by(path) == topics


def test_what_nobody_stated_is_assumed_and_what_is_empty_is_missing(demo_results) -> None:
    plan = demo_results("pebble").plan
    nights, space = BY_KEY["nights"], BY_KEY["space"]
    # Older rig files do not tell: their owners filled them in.
    assert replace(plan, stated={}).stated == {} and nights.status(replace(plan, stated={})) == STATED
    assert nights.status(replace(plan, stated={"nights": False})) == ASSUMED
    assert nights.status(replace(plan, stated={"nights": True})) == STATED
    bare = replace(plan, locker=replace(plan.locker, rooms=()))
    assert (
        space.status(replace(bare, stated={}))
        == space.status(replace(bare, stated={"space": False}))
        == MISSING
    )
    # That there is no limit is an answer, too.
    assert space.status(replace(bare, stated={"space": True})) == STATED
    # A measure that is entered states it; one that is emptied again, or the first of three, does not.
    assert space.status(replace(plan, stated={"space": False})) == STATED
    # That nothing runs is no answer.
    assert BY_KEY["loads"].status(replace(plan, loads=(), stated={"loads": True})) == MISSING
    source = Source(id="m", kind=MAINS, amps=10.0, float_v=13.6)
    charging = BY_KEY["charging"]
    assert charging.status(replace(plan, sources=(source,), stated={"charging": True})) == STATED
    assert charging.status(replace(plan, sources=(replace(source, assumed=True),))) == ASSUMED
    unknown = replace(plan, sources=(), stated={}, installed=replace(plan.installed, charge_a=None))
    assert charging.status(unknown) == MISSING


def test_weight_is_no_topic_of_what_floats_or_stands(demo_results) -> None:
    plan = demo_results("pebble").plan
    matters = {
        k for k in ("van", "rv", "boat", "cabin") if BY_KEY["weight"] in topics_of(replace(plan, kind=k))
    }
    assert matters == {"van", "rv"}


def test_an_edit_states_what_was_filled_in_and_leaves_the_rest(reference) -> None:
    document = files.to_document(files.read(data.demo_rig("pebble"), reference))
    document["stated"] |= {"nights": False, "years": False, "row": None}
    edited = with_stated(document, ["/rig/off_grid_nights", "/rig/nights_in_a_row"])
    assert (edited["stated"]["nights"], edited["stated"]["years"], edited["stated"]["row"]) == (
        True,
        False,
        None,
    )
    # Who says in the same edit that it is not known is taken at their word.
    unsure = with_stated(document, ["/rig/off_grid_nights", "/stated/nights"])
    assert unsure["stated"]["nights"] is False
    assert with_stated(edited, ["/rig/name"]) is edited
