"""Boxes in a locker: no box overlaps, leaves the clearances, or stands as its maker forbids."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from vast_harbor.core.installation.packing import (
    ON_SIDE,
    OVER_MM,
    SIDE_MM,
    STANDING,
    Place,
    clashes,
    footprint,
    lacks,
    pack,
)

SIDE = st.integers(200, 1500).map(float)
CASE = st.tuples(*[st.integers(100, 520).map(float)] * 3)


@given(st.lists(st.tuples(SIDE, SIDE, SIDE), min_size=1, max_size=2), CASE,
       st.sampled_from(["upright", "sides"]), st.integers(1, 14))  # fmt: skip
def test_no_place_is_impossible(rooms, size, orientation, count) -> None:
    found = pack(tuple(rooms), size, orientation, count)
    assert len(found.places) <= count
    assert list(clashes(rooms, size, orientation, found.places)) == []


@given(st.tuples(SIDE, SIDE, SIDE), CASE, st.integers(1, 8))
def test_what_it_lacks_is_enough_and_no_more(room, size, count) -> None:
    assume(not pack((room,), size, "upright", count).fits)
    for axis, more in enumerate(lacks((room,), size, "upright", count)):
        if more is None:
            continue
        grown = [tuple(s + (by if i == axis else 0) for i, s in enumerate(room)) for by in (more, more - 1)]
        assert pack((grown[0],), size, "upright", count).fits
        assert not pack((grown[1],), size, "upright", count).fits


def test_four_boxes_by_hand() -> None:
    # 330 × 173 × 220: 2·330 + 5 + 50 = 715 long, 2·173 + 5 + 50 = 401 wide, 220 + 50 = 270 high.
    size = (330.0, 173.0, 220.0)
    assert pack(((715.0, 401.0, 270.0),), size, "upright", 4).fits
    for short in ((714.0, 401.0, 270.0), (715.0, 400.0, 270.0), (715.0, 401.0, 269.0)):
        assert not pack((short,), size, "upright", 4).fits
    # One millimetre too low, in each way: it says by how much, and which.
    assert lacks(((715.0, 401.0, 269.0),), size, "upright", 4) == (None, None, 1.0)
    assert lacks(((714.0, 401.0, 270.0),), size, "upright", 4)[0] == 1.0


def test_a_turned_box_fills_what_a_grid_would_leave() -> None:
    # Three of 300 × 150 in 455 × 305: two abreast, the third across. A plain grid takes two.
    room = (455.0 + 50 + 10, 305.0 + 50 + 5, 400.0)
    found = pack((room,), (300.0, 150.0, 200.0), "upright", 3)
    assert found.fits and len({p.turned for p in found.places}) == 2


def test_lying_takes_less_height_and_room_for_the_terminals() -> None:
    # 200 high needs 250; lying on the long side 150 are enough, and 300 × (200 + 50) on the floor.
    size, low = (300.0, 150.0, 200.0), (350.0, 300.0, 160.0)
    assert not pack((low,), size, "upright", 1).fits
    found = pack((low,), size, "sides", 1)
    assert found.fits and found.places[0].pose == ON_SIDE
    assert footprint(size, found.places[0]) in ((300, 200, 150), (200, 300, 150))
    assert not pack(((350.0, 299.0, 160.0),), size, "sides", 1).fits


def test_the_second_compartment_takes_what_the_first_does_not() -> None:
    size, room = (330.0, 173.0, 220.0), (390.0, 230.0, 280.0)
    found = pack((room, room), size, "upright", 2)
    assert found.fits and [p.compartment for p in found.places] == [0, 1]
    assert not pack((room, room), size, "upright", 3).fits


@pytest.mark.parametrize(
    ("places", "what"),
    [
        ([Place(0, SIDE_MM, SIDE_MM), Place(0, 400, SIDE_MM)], []),
        ([Place(0, 10, SIDE_MM), Place(0, 400, SIDE_MM)], ["outside"]),
        ([Place(0, SIDE_MM, SIDE_MM), Place(0, 300, 60)], ["overlap"]),
        ([Place(0, SIDE_MM, SIDE_MM), Place(0, 400, SIDE_MM, ON_SIDE)], ["pose"]),
        ([Place(0, SIDE_MM, SIDE_MM), Place(1, SIDE_MM, SIDE_MM)], ["outside"]),
        ([Place(0, SIDE_MM, SIDE_MM), Place(0, 700, SIDE_MM, STANDING, True)], []),
        ([Place(0, SIDE_MM, SIDE_MM), Place(0, 760, SIDE_MM, STANDING, True)], ["outside"]),
    ],
)
def test_what_an_owner_may_not_do(places, what) -> None:
    room = (900.0, 400.0, 220.0 + OVER_MM)
    assert [c.what for c in clashes([room], (330.0, 173.0, 220.0), "upright", places)] == what
