"""One plain bank whose life and money are worked out on paper, and what each change makes of it."""

from dataclasses import replace

import numpy as np
import pytest

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.cash_flow import Costs, life_left, price_at, warranty_credit
from vast_harbor.core.cost.life_cost import (
    LifeCostInputs,
    Scenario,
    calendar_wear_a_year,
    costs_of,
    life_years,
    lifetime,
    running_a_year,
    spent,
    stacked,
    wear_a_year,
    wear_at_replacement,
    years_until_worn,
)
from vast_harbor.core.cost.monte_carlo import Uncertainty, sample_costs, sampled_scenarios

AS_IT_IS = Scenario()
# A bank of 1000 that lasts 4 years, kept 10: bought at 0, 4 and 8, half of its last life left.
PLAIN = LifeCostInputs(
    id="plain", lead=True, batteries=1000.0, extras=200.0, again=((100.0, 4.0),), old_bank=50.0,
    drift=0.0, swap=30.0, maintenance=10.0, lost_kwh=20.0, tariff=0.5, fuel=5.0, exit_share=0.5,
    refit=40.0, discount=0.0, nights=73.0, cycle_wear=0.0, exponent=1.2, years_25=4.0, use_c=20.0,
    rest_c=20.0, accidents=0.0, emptied=0.0, worn_out=1.0, covers=0.5, health_floor=0.6, start_wear=0.0,
    used=False, basis="likely", label_years=3.0, warranty_years=2.0, full_years=1.0,
)  # fmt: skip
# Batteries 3 · 1000, two swaps, extras and twice 100 again, less 50; ten years of care, lost energy and fuel;
# and at the end ½ · ½ · 1000 less 40 for the refit.
TOTAL = 3000 + 60 + 200 + 200 - 50 + 100 + 100 + 50 - 210


def cost(scenario=AS_IT_IS, years=10.0, **changes) -> float:
    return float(lifetime(replace(PLAIN, **changes), scenario, years))


def test_the_plain_bank_on_paper() -> None:
    assert float(life_years(PLAIN)) == 4 and cost() == pytest.approx(TOTAL) == 3450
    # Credited in full, the unused half of the last bank gives its 500, and nothing is refitted.
    assert float(lifetime(PLAIN, Scenario(), 10.0, in_full=True)) == pytest.approx(TOTAL + 210 - 500)


@pytest.mark.parametrize(
    ("scenario", "more"),
    [
        (Scenario(price=1.2), 3 * 200 - 50),  # three purchases, and the last is worth more
        (Scenario(extras=1.5), 100 + 100),  # at first, and when they are bought again
        (Scenario(tariff=3.0), 2 * 100),  # lost energy only
        (Scenario(use=2.0), 100 + 50),  # lost energy and fuel, not care
        (Scenario(nights=146.0), 100 + 50),
        # A life of 8: one purchase and one swap fewer, and three quarters left instead of a half.
        (Scenario(lasts=2.0), -1000 - 30 - 125),
        # A life of 2: at 2, 4, 6 and 8; nothing left at the end, so nothing to refit.
        (Scenario(calendar=0.5), 2 * 1000 + 2 * 30 + 210),
        (Scenario(cycles=0.5), 0.0),  # no wear by cycles
        (Scenario(drift=0.1), 1000 * (1.1**4 + 1.1**8 - 2) - 250 * (1.1**10 - 1)),
        # 10 K warmer than 20 °C is 5 K above 25 °C: a life of 4/√2, at 2.83, 5.66 and 8.49.
        (Scenario(warmer=10.0), 1000 + 30 + 210 - (500 * (1 - (10 - 3 * 2**1.5) / 2**1.5) - 40)),
        (Scenario(warmer=5.0), 0.0),
    ],
)
def test_each_thing_that_comes_differently_changes_what_it_names(scenario, more) -> None:
    assert cost(scenario) == pytest.approx(TOTAL + more)


@pytest.mark.parametrize(
    ("years", "total"),
    [
        # Kept 4 years the bank dies on the last day: it is not replaced, and nothing is bought again.
        (4.0, 1000 + 200 - 50 + 4 * 25),
        (4.01, 2000 + 30 + 200 + 100 - 50 + 4.01 * 25 - (500 * (1 - 0.01 / 4) - 40)),
        (1.0, 1000 + 200 - 50 + 25 - (0.5 * 0.75 * 1000 - 40)),
        (8.0, 2000 + 30 + 200 + 100 - 50 + 8 * 25),
    ],
)
def test_the_years_of_keeping(years, total) -> None:
    assert cost(years=years) == pytest.approx(total)


def test_money_later_is_worth_less() -> None:
    q = 1.05
    running = 25 * sum(q ** -(t + 0.5) for t in range(10))
    expected = 1150 + (1030 + 100) * (q**-4 + q**-8) + running - 210 * q**-10
    assert cost(discount=0.05) == pytest.approx(expected)


def test_refit_never_makes_the_worth_at_the_end_a_debt() -> None:
    assert cost(refit=900.0) == pytest.approx(TOTAL + 210) and cost(exit_share=0.0) == pytest.approx(
        TOTAL + 210
    )


def test_what_is_spent_by_a_time() -> None:
    at = np.array([0.0, 2.0, 3.999, 4.0, 10.0])
    by = spent(PLAIN, Scenario(), 10.0, at)
    expected = [1150, 1200, 1150 + 3.999 * 25, 1150 + 100 + 1130, TOTAL + 210]
    assert by.tolist() == pytest.approx(expected)


# --- wear and life


def test_wear_adds_up_from_cycles_age_and_accidents() -> None:
    p = replace(PLAIN, cycle_wear=0.1, accidents=0.05, emptied=0.02, use_c=35.0)
    # A fifth of the year in use at 35 °C, where a life lasts 2 years; the rest at 20 °C.
    age = 0.2 / 2 + 0.8 / 4
    assert float(calendar_wear_a_year(p)) == pytest.approx(age)
    assert float(wear_a_year(p)) == pytest.approx(0.1 + age + 0.05 + 0.02)
    assert float(life_years(p)) == pytest.approx(1 / (0.17 + age))
    # Twice the nights: twice the cycles and the times that it is emptied, and twice as long warm.
    twice = Scenario(nights=146.0)
    assert float(calendar_wear_a_year(p, twice)) == pytest.approx(0.4 / 2 + 0.6 / 4)
    assert float(wear_a_year(p, twice)) == pytest.approx(0.2 + 0.35 + 0.05 + 0.04)
    # More use makes deeper cycles; batteries of more cycles wear less by them.
    assert float(wear_a_year(p, Scenario(use=1.5))) == pytest.approx(0.1 * 1.5**1.2 + age + 0.07)
    assert float(wear_a_year(p, Scenario(cycles=2.0))) == pytest.approx(0.05 + age + 0.07)
    assert float(wear_a_year(p, Scenario(lasts=4.0))) == pytest.approx((0.17 + age) / 4)


def test_nights_beyond_a_year_are_a_year() -> None:
    p = replace(PLAIN, use_c=35.0)
    assert float(calendar_wear_a_year(p, Scenario(nights=500.0))) == pytest.approx(0.5)


def test_lead_acid_ends_by_health_and_lfp_by_what_it_covers() -> None:
    assert float(wear_at_replacement(replace(PLAIN, worn_out=1.3))) == 1.3
    lithium = replace(PLAIN, lead=False)
    # It must cover 0.7 of what it can do new: 0.3/0.2 lives; never below 60 %, never judged above 80 %.
    assert float(wear_at_replacement(replace(lithium, covers=0.7))) == pytest.approx(1.5)
    assert float(wear_at_replacement(replace(lithium, covers=0.3))) == pytest.approx(2.0)
    assert float(wear_at_replacement(replace(lithium, covers=0.95))) == pytest.approx(1.0)
    assert float(wear_at_replacement(replace(lithium, covers=0.5), Scenario(use=1.4))) == pytest.approx(1.5)


def test_a_used_battery_starts_worn_and_serves_a_year_at_least() -> None:
    half = replace(PLAIN, start_wear=0.5, used=True)
    assert float(years_until_worn(half)) == pytest.approx(2.0)
    assert float(years_until_worn(replace(half, start_wear=0.95))) == pytest.approx(1.0)
    assert float(years_until_worn(replace(PLAIN, start_wear=1.2))) == 0.0


def test_life_by_warranty_and_by_label() -> None:
    by_warranty = replace(PLAIN, basis="warranty")
    assert float(life_years(by_warranty)) == 2.0
    assert float(life_years(replace(by_warranty, warranty_years=9.0))) == 4.0
    # A warranty adds to what the class is sure to last, and never takes from it.
    assert float(life_years(replace(by_warranty, careful_years=3.0))) == 3.0
    assert float(life_years(replace(by_warranty, careful_years=3.0, warranty_years=0.0))) == 3.0
    assert float(life_years(replace(by_warranty, careful_years=9.0, warranty_years=0.0))) == 4.0
    by_label = replace(PLAIN, basis="label_cycles")
    assert float(life_years(by_label)) == 3.0
    assert float(life_years(by_label, Scenario(cycles=2.0))) == 6.0
    assert float(life_years(by_label, Scenario(nights=146.0))) == 1.5


def test_running_costs_of_a_year() -> None:
    assert running_a_year(PLAIN) == pytest.approx(25)
    assert running_a_year(replace(PLAIN, nights=0.0), Scenario(nights=9.0)) == pytest.approx(25)
    assert costs_of(PLAIN, Scenario(drift=0.03)).drift == pytest.approx(0.03)


def test_several_banks_at_once_are_each_as_they_are_alone() -> None:
    banks = [
        replace(PLAIN, again=()),
        replace(PLAIN, again=(), lead=False, batteries=2500.0, years_25=14.0, covers=0.7, drift=-0.05),
        replace(PLAIN, again=(), used=True, start_wear=0.4, swap=-20.0, cycle_wear=0.2, fuel=0.0),
    ]
    for scenario in (Scenario(), Scenario(use=1.3, warmer=8.0, nights=200.0)):
        together = lifetime(stacked(banks), scenario, 10.0)
        alone = [float(lifetime(p, scenario, 10.0)) for p in banks]
        assert together.tolist() == pytest.approx(alone)


# --- single pieces of the cash flow


def test_prices_shares_and_credits() -> None:
    assert price_at(1000, -0.05, 2) == pytest.approx(902.5)
    assert life_left(np.array([0, 1, 5]), 4.0).tolist() == [1.0, 0.75, 0.0]
    assert life_left(3.0, np.inf) == 1.0
    ages = np.array([0.5, 2.0, 2.01, 8.0, 12.0])
    given = warranty_credit(ages, 10.0, 2.0)
    assert given.tolist() == pytest.approx([1.0, 1.0, 1 - 2.01 / 10, 0.2, 0.0])
    assert warranty_credit(0.5, 0.0, 0.0) == 0.0


def test_payments_come_in_their_order_and_by_the_year() -> None:
    costs = Costs(batteries=1000.0, extras=200.0, old_bank=50.0, swap=30.0, running=20.0, exit_share=0.5)
    paid = cash_flow.payments(costs, 2.0, 4.5)
    assert [p.t for p in paid] == sorted(p.t for p in paid)
    by_year = cash_flow.yearly(paid)
    assert len(by_year) == 6
    assert by_year[0] == {"batteries": 1000.0, "extras": 200.0, "old bank": -50.0}
    assert by_year[1] == pytest.approx({"running": 20.0})
    # Bought again at 2 and at 4; half a year of running and ¾ of a life are left at the end.
    assert by_year[2] == pytest.approx({"running": 20.0, "replacement": 1030.0})
    assert by_year[5] == pytest.approx({"running": 10.0, "exit": -375.0})
    points = cash_flow.cumulative(paid)
    assert points[:2] == [(0.0, 0.0), (0.0, 1150.0)]
    at_two = [money for t, money in points if t == 2.0]
    assert at_two == pytest.approx([1190.0, 2220.0])
    assert points[-1] == pytest.approx((4.5, 1150 + 90 + 2 * 1030 - 375))


# --- drawn futures


FLAT = Uncertainty((1, 1), (0, 0, 0), (0, 0, 0), (1, 1), 0, 0)


@pytest.mark.parametrize(
    ("width", "field", "low", "high"),
    [
        ({"use": (0.8, 1.5)}, "use", 0.8, 1.5),
        ({"tariff": (0.5, 2.0)}, "tariff", 0.5, 2.0),
        ({"warmer": 4.0}, "warmer", -4.0, 4.0),
        ({"drift_lead": (0.0, 0.02, 0.04)}, "drift", -0.02, 0.02),
    ],
)
def test_what_belongs_to_the_rig_is_drawn_once_for_all_banks(width, field, low, high) -> None:
    banks = [PLAIN, replace(PLAIN, id="other"), replace(PLAIN, lead=False)]
    drawn = sampled_scenarios(banks, replace(FLAT, **width), 4000)
    one, other, lithium = (np.asarray(getattr(s, field)) for s in drawn)
    assert (one == other).all()
    assert low <= one.min() < low + 0.05 * (high - low) and high - 0.05 * (high - low) < one.max() <= high
    if field == "drift":
        assert (lithium == 0).all()
    else:
        assert (lithium == one).all()
    for rest in {"use", "tariff", "warmer", "drift", "price"} - {field}:
        assert np.ptp(np.asarray(getattr(drawn[0], rest))) == 0


def test_what_belongs_to_a_bank_is_drawn_for_each() -> None:
    wide = replace(PLAIN, price=(0.8, 1.3), cycles=(0.6, 1.6), calendar=(0.7, 1.4))
    one, other = sampled_scenarios([wide, replace(wide, id="other")], FLAT, 4000)
    for field, low, high in (("price", 0.8, 1.3), ("cycles", 0.6, 1.6), ("calendar", 0.7, 1.4)):
        mine, its = np.asarray(getattr(one, field)), np.asarray(getattr(other, field))
        assert low <= mine.min() and mine.max() <= high and np.ptp(mine) > 0.8 * (high - low)
        assert abs(np.corrcoef(mine, its)[0, 1]) < 0.06
    assert abs(np.corrcoef(one.price, one.calendar)[0, 1]) < 0.06


def test_early_failures_come_at_their_rate() -> None:
    (drawn,) = sampled_scenarios([PLAIN], replace(FLAT, failures=0.02), 5000)
    assert drawn.fails.shape == (3, 5000)
    assert drawn.fails.mean() == pytest.approx(50, rel=0.05)
    assert (drawn.fails < 5).mean() == pytest.approx(1 - np.exp(-0.1), abs=0.01)
    assert sampled_scenarios([PLAIN], FLAT, 10)[0].fails.size == 0
    assert sampled_scenarios([PLAIN], replace(FLAT, failures=0.02, width=0.5), 5000)[0].fails.mean() > 95


def test_a_share_is_how_often_a_bank_is_the_cheapest_of_those_that_are_looked_at() -> None:
    banks = [
        replace(PLAIN, price=(0.5, 1.5)),
        replace(PLAIN, batteries=1010.0),
        replace(PLAIN, batteries=10.0),
    ]
    drawn = sample_costs(banks, FLAT, 10.0, 2000, np.array([0.0, 10.0]))
    assert drawn.cheapest([0, 1, 2]) == {0: 0.0, 1: 0.0, 2: 1.0} and drawn.cheapest([]) == {}
    two = drawn.cheapest([0, 1])
    assert two[0] == pytest.approx(0.54, abs=0.04) and two[0] + two[1] == pytest.approx(1)
    low, middle, high = drawn.percentiles(0)
    # Triangular over ±50 %: nine tenths lie below 1 + 0.5 · (1 − √0.2), of 3000 − 250 that follow the price.
    assert middle == pytest.approx(TOTAL, rel=0.01)
    assert high - middle == pytest.approx(2750 * 0.5 * (1 - 0.2**0.5), rel=0.05)
    assert middle - low == pytest.approx(high - middle, rel=0.06)
    assert drawn.spent.shape == (3, 2, 2000)
    assert drawn.spent[1, 0] == pytest.approx(1160) and drawn.spent[1, 1] == pytest.approx(TOTAL + 210 + 30)


# --- what no bank is credited with


def test_no_bank_is_credited_with_more_years_than_its_class_is_seen_to_last() -> None:
    long = replace(PLAIN, years_25=50.0, most_years=12.0)
    assert float(life_years(long)) == 12.0
    assert float(life_years(replace(long, basis="label_cycles", label_years=300.0))) == 12.0
    assert float(life_years(replace(long, basis="label_cycles", label_years=9.0))) == 9.0
    assert float(life_years(replace(long, basis="warranty", warranty_years=25.0))) == 12.0
    # Use that never wears it does not make it last for ever either.
    assert float(life_years(replace(long, years_25=np.inf, use_c=0, rest_c=0))) == 12.0
    # A used one is no exception, and serves a year at least.
    assert float(life_years(replace(long, used=True, start_wear=0.9))) == pytest.approx(5.0)


def test_worth_at_the_end_is_never_above_what_was_paid_and_is_not_used_up() -> None:
    # Prices that double in four years: bought at 8 for 4000, half used up at 10; half of 5657 would be more.
    drift = 2**0.25 - 1
    steep = cash_flow.Costs(batteries=1000.0, drift=drift, exit_share=1.0)
    exit_ = next(p for p in cash_flow.payments(steep, 4.0, 10.0) if p.item == cash_flow.EXIT)
    assert exit_.amount == pytest.approx(-0.5 * 4000)
    mild = replace(steep, exit_share=0.5)
    exit_ = next(p for p in cash_flow.payments(mild, 4.0, 10.0) if p.item == cash_flow.EXIT)
    assert exit_.amount == pytest.approx(-0.5 * 0.5 * 1000 * 2**2.5)


@pytest.mark.parametrize("years", [0.5, 3.0, 8.0, 9.5, 25.0])
@pytest.mark.parametrize("share", [0.0, 0.3, 0.5, 1.0])
def test_a_bank_never_earns_money(years, share) -> None:
    p = replace(PLAIN, drift=0.04, exit_share=share, old_bank=0.0, refit=0.0, swap=0.0)
    assert float(lifetime(p, AS_IT_IS, years)) >= 200 - 1e-9


def test_the_electronics_of_a_bms_fail_in_the_draws_beside_early_failures() -> None:
    weak, sound = replace(PLAIN, lead=False, electronics=0.02), replace(PLAIN, lead=False)
    one, other = sampled_scenarios([weak, sound], replace(FLAT, failures=0.005), 5000)
    assert one.fails.mean() == pytest.approx(1 / 0.025, rel=0.05)
    assert other.fails.mean() == pytest.approx(1 / 0.005, rel=0.05)
