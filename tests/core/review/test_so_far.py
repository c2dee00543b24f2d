"""What a bank went through and cost so far: the same laws as in the plan, on what was logged."""

from dataclasses import replace
from math import isnan

import numpy as np
import pytest

from vast_harbor.core.battery.datasheet import Warranty
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.health import Expected
from vast_harbor.core.log.readings import Hours
from vast_harbor.core.review.so_far import so_far, spent
from vast_harbor.core.review.warranty import FULL, NONE, OVER, PRO_RATA, UNKNOWN, claim
from vast_harbor.core.rig.changeover import Purchase

# N(50 %) = 1000, N(25 %) = 2000.
CURVE = ((0.5, 1000.0),)


@pytest.fixture
def bank(reference):
    """Of 100 Ah."""
    return FollowedBank(
        "Bank", reference.classes["lfp"], 4, 100.0, 5.0, (1, 1.05, 1.1), 740_000,
        Expected(0.1, 0.3, 0.7, False), curve=CURVE, cycle_exponent=1.0, cycle_wear_a_year=0.04,
    )  # fmt: skip


def logged(soc: np.ndarray, first: int = 480_000) -> Hours:
    """Hours of a 100 Ah bank at 12.5 V whose charge goes so."""
    flow = np.diff(soc, prepend=soc[0]) * 100
    ah_in, ah_out = np.maximum(flow, 0), np.maximum(-flow, 0)
    whole = np.full(len(soc), 3600.0)
    warmth = np.where(np.arange(len(soc)) < 5, 35.0, 20.0)
    ends = {"soc": soc, "celsius": warmth}
    return Hours(first + np.arange(len(soc)), whole, ah_in, ah_out, 12.5 * ah_in, 12.5 * ah_out, ends, ends)


def days(depth: float, count: int) -> np.ndarray:
    """Days that begin and end full."""
    down = np.linspace(1, 1 - depth, 13)[:-1]
    return np.concatenate([np.concatenate((down, down[::-1])) for _ in range(count)])


@pytest.mark.parametrize("depth", [0.25, 0.5])
def test_cycles_wear_as_their_depth_says_and_energy_is_counted(bank, depth) -> None:
    went = so_far(bank, logged(days(depth, 20)), 0.5, planned_wh_a_year=1250.0 * depth * 40)
    lost = depth * (1 - 1 / 12)
    assert went.out_wh == pytest.approx(20 * 1250 * lost, rel=0.01)
    assert went.full_cycles == pytest.approx(20 * lost, rel=0.01)
    assert went.cycle_wear == pytest.approx(20 * lost / 500, rel=0.06)
    # The plan would make this energy of forty such days a year.
    assert went.planned_wear == pytest.approx(0.04 * 20 * (11 / 12) / 40, rel=0.02)
    assert went.days == went.days_told == 20 and went.short_days == 0 and went.low_hours == 0
    assert went.covered == pytest.approx(480 / 4383) and went.warm_hours == 5


def test_days_short_of_full_and_hours_near_empty_are_counted(bank, reference) -> None:
    soc = np.concatenate((days(0.5, 3), 0.6 - 0.5 * days(0.5, 3), np.full(24, 0.1)))
    went = so_far(bank, logged(soc), 0.1, 10_000)
    assert went.days_told == 7 and went.short_days == 4 and went.low_hours >= 24
    # What comes short of full wears lead-acid more, and LFP not.
    flooded = reference.classes["flooded_deep"]
    assert flooded.short_of_full_penalty.likely > 0 == bank.battery_class.short_of_full_penalty.likely
    lead = so_far(replace(bank, battery_class=flooded), logged(soc), 0.1, 10_000)
    assert lead.cycle_wear > went.cycle_wear


def test_without_a_monitor_nothing_is_claimed_and_the_plan_counts(bank) -> None:
    none = np.zeros(0)
    went = so_far(bank, Hours(np.zeros(0, np.int64), none, none, none, none, none, {}, {}), 2.0, 10_000)
    assert went.days == 0 and isnan(went.cycle_wear)
    cost = spent(1000, 50, went, cycles_a_year=25, day_wh=1000, nights_a_year=50)
    assert cost.gave == pytest.approx((50, 100, 100)) and cost.each == pytest.approx((21, 10.5, 10.5))


def test_what_it_gave_is_counted_where_it_was_logged_and_planned_where_not(bank) -> None:
    logged_half = so_far(bank, logged(days(0.5, 60)), 120 / 365.25, 10_000)
    assert logged_half.covered == pytest.approx(0.5)
    cost = spent(500, 0, logged_half, cycles_a_year=100, day_wh=500, nights_a_year=100)
    assert cost.gave[1] == pytest.approx(logged_half.out_wh / 1000 + 60 / 365.25 * 100 * 0.5)
    assert all(each * gave == pytest.approx(500) for each, gave in zip(cost.each, cost.gave, strict=True))
    assert all(isnan(e) for e in spent(500, 0, replace(logged_half, out_wh=0, years=0), 0, 0, 0).each)


@pytest.mark.parametrize("sleeps", [True, False])
def test_a_monitor_that_sleeps_between_stays_misses_no_use(bank, sleeps) -> None:
    """Stays of three days every ten: its log tells all of the use, or only that of a third of the time."""
    whole = logged(days(0.5, 90))
    used = (whole.hour - whole.hour[0]) // 24 % 10 < 3
    idle = np.where(used, 1.0, 0.0)
    whole = replace(
        whole, **{name: getattr(whole, name) * idle for name in ("ah_in", "ah_out", "wh_in", "wh_out")}
    )
    shown = used if sleeps else np.ones_like(used)
    part = {n: getattr(whole, n)[shown] for n in ("hour", "covered_s", "ah_in", "ah_out", "wh_in", "wh_out")}
    ends = {name: values[shown] for name, values in whole.low.items()}
    went = so_far(bank, Hours(*part.values(), ends, ends), 90 / 365.25, 10_000)
    cost = spent(500, 0, went, cycles_a_year=100, day_wh=575, nights_a_year=0.3 * 365.25)
    assert went.covered == pytest.approx(0.3 if sleeps else 1.0, abs=0.02)
    assert cost.gave[1] == pytest.approx(27 * 12.5 * 100 * 0.5 * 11 / 12 / 1000, rel=0.1)


SINCE, WARRANTY = 740_000, Warranty(years=4, full_years=1, conditions="dry")


@pytest.mark.parametrize(
    ("age_d", "state", "share"),
    [(0, FULL, 1), (365, FULL, 1), (731, PRO_RATA, 0.5), (1460, PRO_RATA, 0.0007), (1462, OVER, 0)],
)
def test_a_maker_answers_in_full_then_pro_rata_then_no_more(age_d, state, share) -> None:
    found = claim(WARRANTY, SINCE, SINCE + age_d, Purchase(), False, {}, 0, ())
    assert found.state == state and found.share == pytest.approx(share, abs=0.001)
    assert found.until == SINCE + 1461


def test_the_record_holds_what_was_noted_and_nothing_else() -> None:
    bare = claim(WARRANTY, None, SINCE, Purchase(), False, {}, 0, ("water",))
    assert bare.state == UNKNOWN and not any(bare.record.values())
    bought = Purchase(paid=300, on="2026-01-02", serial="A1")
    full = claim(WARRANTY, SINCE, SINCE + 500, bought, True, {"test": SINCE + 200}, 2, ())
    assert all(full.record.values())
    late = claim(WARRANTY, SINCE, SINCE + 900, bought, True, {"test": SINCE + 200}, 2, ())
    assert not late.record["tested"]
    assert claim(Warranty(0), SINCE, SINCE, bought, True, {}, 0, ()).state == NONE
