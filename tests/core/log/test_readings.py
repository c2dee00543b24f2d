"""What a monitor logged: put in order, and summed by laws that hold for every log."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.log.readings import QUANTITIES, Readings, by_day, by_hour, tidied
from vast_harbor.core.log.thinned import thinned

BEGIN = 1_780_000_000 // 86_400 * 86_400


def made(at, volts=None, amps=None, soc=None, celsius=None, offset=0) -> Readings:
    at = np.array(at, np.int64)
    none = np.full(len(at), np.nan)
    columns = [none if c is None else np.array(c, float) for c in (volts, amps, soc, celsius)]
    return Readings(at, np.full(len(at), offset, np.int64), *columns)


def tidy(readings: Readings):
    return tidied(readings, 12.0, BEGIN - 10**8, BEGIN + 10**8)


def test_a_steady_current_gives_what_it_gives_by_hand() -> None:
    # 12 A out at 12.5 V from half past one for two hours, then 20 A in at 14 V for one.
    at = BEGIN + np.arange(90 * 60, 90 * 60 + 3 * 3600 + 1, 60)
    out = at <= BEGIN + 210 * 60
    sums = by_hour(made(at, np.where(out, 12.5, 14.0), np.where(out, -12.0, 20.0)))
    assert list(sums.hour % 24) == [1, 2, 3, 4]
    # The minute of the change runs straight from one to the other.
    assert sums.ah_out.sum() == pytest.approx(24.0, abs=0.2) and sums.ah_in.sum() == pytest.approx(
        20, abs=0.4
    )
    assert sums.ah_out[:3] == pytest.approx([6.0, 12.0, 6.0], abs=0.2)
    assert sums.wh_out[:2] == pytest.approx([75.0, 150.0])
    (day,) = by_day(sums)
    assert day.covered == pytest.approx(3 / 24) and day.lowest["volts"] == 12.5 and day.highest["amps"] == 20
    assert np.isnan(day.night_wh)  # only three of the five hours are known


def test_nothing_is_known_in_a_gap() -> None:
    at = [BEGIN, BEGIN + 60, BEGIN + 120, BEGIN + 9000, BEGIN + 9060]
    found = tidy(made(at, amps=[-10] * 5))
    assert found.gaps == ((BEGIN + 120, BEGIN + 9000),)
    sums = by_hour(found.readings)
    assert sums.covered_s.sum() == 180 and sums.ah_out.sum() == pytest.approx(10 * 180 / 3600)


SERIES = st.lists(
    st.tuples(st.integers(30, 600), st.floats(-200, 200), st.floats(10, 16)), min_size=2, max_size=60
)


@given(SERIES, st.integers(-720, 840), st.integers(1, 58))
def test_hours_and_days_lose_and_add_nothing(series, offset, cut) -> None:
    steps, amps, volts = (np.array(c) for c in zip(*series, strict=True))
    readings = made(BEGIN + np.cumsum(steps), volts, amps, offset=offset)
    sums = by_hour(readings)
    # In less out is the integral, however it is cut into hours.
    whole = np.trapezoid(amps, readings.at) / 3600
    assert sums.ah_in.sum() - sums.ah_out.sum() == pytest.approx(whole, abs=1e-6)
    assert sums.covered_s.sum() == pytest.approx(readings.at[-1] - readings.at[0])
    assert (sums.covered_s <= 3600 + 1e-6).all()
    days = by_day(sums)
    assert sum(d.wh_out for d in days) == pytest.approx(sums.wh_out.sum())
    assert min(d.lowest["amps"] for d in days) == amps.min()
    t, low, high = thinned(readings.at, amps, amps, cut)
    assert len(t) <= cut and (np.diff(t) > 0).all()
    assert low.min() == amps.min() and high.max() == amps.max()


@given(st.permutations(range(12)), st.lists(st.integers(0, 11), max_size=5))
def test_readings_in_any_order_and_twice_are_the_same_readings(order, again) -> None:
    at = BEGIN + 60 * np.arange(12)
    volts, amps = 12 + 0.01 * np.arange(12), np.arange(12.0)
    sent = [*order, *again]
    found = tidy(made(at[sent], volts[sent], amps[sent]))
    assert list(found.readings.at) == list(at) and list(found.readings.amps) == list(amps)
    assert found.twice == len(again)


def test_what_cannot_be_is_left_out_and_told_with_its_place() -> None:
    at = [BEGIN, BEGIN + 60, 86_400, BEGIN + 120, BEGIN + 2 * 10**8, BEGIN + 120, BEGIN + 180]
    volts = [12.5, 130.0, 12.5, 12.6, 12.6, 12.9, np.nan]
    soc = [0.8, 0.8, 0.8, 1.4, 0.8, 0.8, np.nan]
    found = tidy(made(at, volts, soc=soc))
    told = {o.why: (o.count, o.first) for o in found.left_out}
    assert told == {
        "volts": (1, 1), "soc": (1, 3), "early": (1, 2), "late": (1, 4), "nothing": (1, 6), "differs": (1, 5),
    }  # fmt: skip
    # What is possible of a reading stays; of two that differ the first does.
    assert [found.readings.volts[i] for i in (0, 2)] == [12.5, 12.6] and np.isnan(found.readings.volts[1])
    assert list(found.readings.at) == [BEGIN, BEGIN + 60, BEGIN + 120]


def test_the_newest_first_is_turned_and_a_clock_put_back_is_told() -> None:
    at = BEGIN + 60 * np.arange(30)
    assert tidy(made(at[::-1], 12 + np.zeros(30))).turned
    back = np.concatenate((at, at[-1] - 600 + 60 * np.arange(20) + 7))
    found = tidy(made(back, 12 + np.zeros(50)))
    assert found.jumps == ((int(at[-1]), -593),) and not found.turned
    assert len(found.readings) == 50
    assert len(tidy(made([], volts=[])).readings) == 0 and len(by_hour(made([], volts=[])).hour) == 0
    assert set(QUANTITIES) == {"volts", "amps", "soc", "celsius"}
