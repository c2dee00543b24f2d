"""Capacity at a rate: what labels say, and what follows."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.peukert import (
    capacity_at_current,
    capacity_over_time,
    exponent_from_two_ratings,
    rate_factor,
    reserve_capacity_ah,
)


def test_reserve_capacity_label() -> None:
    # 180 minutes at 25 A: 25 · 180 / 60 = 75 Ah at 25 A.
    assert reserve_capacity_ah(180) == 75


def test_exponent_from_two_ratings() -> None:
    # 100 Ah over 20 h is 5 A; 86 Ah over 5 h is 17.2 A.
    # k = ln(5/20) / ln(5/17.2) = −1.386294 / −1.235471 = 1.122077.
    assert exponent_from_two_ratings(100, 20, 86, 5) == pytest.approx(1.122077, abs=1e-6)


def test_capacity_at_ten_times_the_rated_current() -> None:
    # k 1.2, 100 Ah over 20 h: at 50 A, C = 100 · (5/50)^0.2 = 100 · 0.630957 = 63.10 Ah.
    assert capacity_at_current(100, 20, 1.2, 50) == pytest.approx(63.0957, abs=1e-4)
    assert rate_factor(100, 20, 1.2, 50) == pytest.approx(0.630957, abs=1e-6)


def test_a_trickle_gives_at_most_five_per_cent_more() -> None:
    assert capacity_at_current(100, 20, 1.2, 0.01) == pytest.approx(105)
    assert rate_factor(100, 20, 1.2, 0.01) == 1


@given(
    ah=st.floats(1, 2000),
    exponent=st.floats(1.001, 1.5),
    hours=st.floats(0.2, 100),
    other=st.floats(0.2, 100),
)
def test_two_ratings_of_a_peukert_battery_give_its_exponent(ah, exponent, hours, other) -> None:
    if abs(hours - other) < 0.05 * hours:
        return
    first = capacity_over_time(ah, 20, exponent, hours)
    second = capacity_over_time(ah, 20, exponent, other)
    assert exponent_from_two_ratings(first, hours, second, other) == pytest.approx(exponent, rel=1e-6)
