"""When loads run: the profile is the table, spread over a day."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.clock import within_day
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import AC, DC, HOURS, STANDBY, TIMES, USES, Inverter, Load
from vast_harbor.core.rig.profile import spread_hours, spread_uses

CLOCK = st.none() | st.floats(0, 23.99)
LOADS = st.builds(
    Load,
    id=st.just("x"),
    name=st.just("x"),
    supply=st.sampled_from((DC, AC)),
    draw=st.builds(Draw, st.floats(0, 3000), st.just("W")),
    volts=st.just(12.0),
    quantity=st.integers(1, 5),
    use=st.sampled_from((HOURS, USES, TIMES, STANDBY)),
    hours=st.floats(0, 24),
    uses=st.floats(0, 30),
    minutes=st.floats(0, 48),
    duty=st.floats(0, 1),
    starts_at=CLOCK,
    windows=st.lists(st.tuples(st.floats(0, 23.9), st.floats(0.01, 24)), max_size=4).map(
        lambda pairs: tuple((start, start + length) for start, length in pairs)
    ),
)


@given(loads=st.lists(LOADS, max_size=6), stated=st.none() | st.floats(0, 24), idle=st.floats(0, 25))
def test_area_of_the_profile_is_the_energy_of_the_table(evaluated, loads, stated, idle) -> None:
    numbered = tuple(
        Load(**{f: getattr(x, f) for f in Load.__slots__} | {"id": str(i)}) for i, x in enumerate(loads)
    )
    day = evaluated(numbered, Inverter(0.88, idle, stated), standby_w=1.5).day
    assert day.profile.energy_wh == pytest.approx(day.bank_wh.number, rel=1e-9, abs=1e-6)
    assert (day.profile.watts >= 0).all()


@given(hours=st.just(0.0) | st.floats(1e-4, 24), starts=CLOCK)
def test_hours_fill_their_blocks_past_midnight_too(hours, starts) -> None:
    blocks = spread_hours(hours, starts)
    length = sum(end - start for start, end in blocks)
    assert length == pytest.approx(hours)
    assert all(0 <= start < end <= 24 for start, end in blocks)


@given(uses=st.floats(0, 300), minutes=st.floats(0, 60), starts=CLOCK)
def test_uses_never_overlap(uses, minutes, starts) -> None:
    if uses * minutes > 1440:
        return
    blocks = sorted(spread_uses(uses, minutes, starts))
    length = sum(end - start for start, end in blocks)
    total = uses * minutes / 60
    assert length == pytest.approx(total)
    assert all(a[1] <= b[0] + 1e-9 for a, b in pairwise(blocks))


def test_set_times_split_at_midnight_and_count_once_where_they_overlap() -> None:
    # 22:00 to 02:00 is two hours on either side of midnight; 18:00 to 20:00 with 19:00 to 21:00 is three.
    assert within_day([(22, 26)]) == ((0, 2), (22, 24))
    assert within_day([(18, 20), (19, 21)]) == ((18, 21),)
    load = Load(
        "a", "Lamp", DC, Draw(10, "W"), 12, use=TIMES, windows=((22, 26), (18, 20), (19, 21)), duty=0.5
    )
    assert (load.hours_on, load.wh) == (7, 35)


@given(start=st.floats(0, 12), length=st.floats(0.5, 12), cut=st.floats(0.1, 0.9))
def test_splitting_a_time_changes_nothing(evaluated, start, length, cut) -> None:
    def day(*windows: tuple[float, float]):
        load = Load("a", "Lamp", AC, Draw(300, "W"), 230, use=TIMES, windows=windows)
        return evaluated((load,), Inverter(0.9, 8), standby_w=1).day

    middle = start + cut * length
    whole, split = day((start, start + length)), day((start, middle), (middle, start + length))
    assert split.bank_wh.number == pytest.approx(whole.bank_wh.number)
    assert split.profile.power_squared_hours == pytest.approx(whole.profile.power_squared_hours)


def test_peak_of_the_profile_is_never_below_a_single_load(demo_results) -> None:
    for name in ("mulga", "long-haul", "kittiwake"):
        results = demo_results(name)
        for day in results.days.days.values():
            for f in day.loads:
                if f.runs:
                    assert day.profile.watts.max() >= f.load.mean_w / f.eta.number * (1 - 1e-9)
                    assert (
                        day.peak.watts >= f.load.run_w / f.eta.number * (1 - 1e-9) or f.load.bank == "second"
                    )
        assert (results.day.ac_watts <= results.day.profile.watts + 1e-9).all()
        assert results.day.profile.energy_so_far()[-1] == pytest.approx(results.day.bank_wh.number)
