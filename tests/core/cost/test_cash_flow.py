"""Lifetime cost: laws, and one example worked by hand."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.cost.cash_flow import EXIT, REPLACEMENT, Costs, cumulative, lifetime_cost, payments
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate


def replaced_at(life: float, years: float) -> list[float]:
    """When banks of a life are replaced, by counting them off one after the other."""
    times, t = [], life
    while t < years - 1e-9:
        times.append(t)
        t = (len(times) + 1) * life
    return times


def times_of(costs: Costs, life: float, years: float) -> list[float]:
    return [p.t for p in payments(costs, life, years) if p.item == REPLACEMENT]


def worth_at_the_end(costs: Costs, life: float, years: float) -> float:
    last = (replaced_at(life, years) or [0.0])[-1]
    left = max(0.0, 1 - (years - last) / life)
    # Nobody is paid more for the rest of a bank than the rest of what was paid for it.
    then, paid = (costs.batteries * (1 + costs.drift) ** t for t in (years, last))
    return left * min(costs.exit_share * then, paid)


MONEY = st.floats(0, 20_000)
COSTS = st.builds(
    Costs,
    batteries=MONEY,
    extras=MONEY,
    old_bank=st.floats(0, 200),
    drift=st.floats(-0.1, 0.04),
    swap=st.floats(-50, 500),
    running=st.floats(0, 300),
    exit_share=st.floats(0, 0.5),
    discount=st.floats(0, 0.1),
)


def test_lifetime_cost_by_hand() -> None:
    # 1000 now; lives of 4 years in 10: replacements at 4 and 8, prices 1000·1.02^4 = 1082.43 and
    # 1000·1.02^8 = 1171.66, each less 20 of scrap. Running 30 a year: 300. The last bank is 2 of 4 years
    # old: half is left, at half its worth then: 0.5·0.5·1000·1.02^10 = 304.75. Extras 150, old bank 40.
    costs = Costs(1000, 150, 40, 0.02, -20, 30, 0.5)
    assert times_of(costs, 4, 10) == [4, 8]
    expected = 1000 + 150 - 40 + (1082.4322 - 20) + (1171.6594 - 20) + 300 - 304.7486
    assert lifetime_cost(costs, 4, 10) == pytest.approx(expected, abs=1e-3)


def test_a_bank_that_dies_on_the_last_day_is_not_replaced() -> None:
    costs = Costs(1000, exit_share=1.0)
    assert times_of(costs, 5, 10) == [5]
    assert times_of(costs, 5 - 1e-6, 10) == pytest.approx([5 - 1e-6, 2 * (5 - 1e-6)])
    assert next(p.amount for p in payments(costs, 5, 10) if p.item == EXIT) == pytest.approx(0)


@given(costs=COSTS, life=st.floats(0.5, 40), years=st.floats(1, 40))
def test_payments_add_up_to_the_lifetime_cost(costs, life, years) -> None:
    paid = payments(costs, life, years)
    assert sum(p.amount for p in paid) == pytest.approx(lifetime_cost(costs, life, years))
    points = cumulative(paid)
    assert points[-1] == (pytest.approx(years), pytest.approx(lifetime_cost(costs, life, years), abs=1e-6))
    assert all(a[0] <= b[0] for a, b in pairwise(points))


@given(costs=COSTS, life=st.floats(0.5, 40), years=st.floats(1, 25), more=st.floats(0, 5000))
def test_dearer_batteries_never_cost_less_over_the_years(costs, life, years, more) -> None:
    dearer = replace(costs, batteries=costs.batteries + more)
    assert lifetime_cost(dearer, life, years) >= lifetime_cost(costs, life, years) - 1e-6


@given(costs=COSTS, life=st.floats(0.5, 40), years=st.floats(1, 40))
def test_discounting_at_nothing_changes_nothing(costs, life, years) -> None:
    plain = payments(replace(costs, discount=0), life, years)
    by_hand = costs.batteries + costs.extras - costs.old_bank
    by_hand += sum(costs.batteries * (1 + costs.drift) ** t + costs.swap for t in replaced_at(life, years))
    by_hand += costs.running * years
    by_hand -= worth_at_the_end(costs, life, years)
    assert sum(p.amount for p in plain) == pytest.approx(by_hand, abs=1e-6)


def test_one_life_without_drift_or_extras_costs_purchase_over_cycles(evaluated) -> None:
    # Kept just as long as the bank lasts: lifetime cost = purchase, so per cycle = purchase ÷ cycles made.
    load = Load("a", "All day", DC, Draw(50, "W"), 12, hours=24)
    plain = {
        "battery_c": 25,
        "overrides": {"drift.lead_acid": 0, "mains_share": 0, "scrap_per_kg": 0},
        "candidates": (Candidate("a", "agm", "tarnmoor-150", 1, 3),),
    }
    life = evaluated((load,), **plain).compare.compared_banks[0].life.years
    compared = evaluated((load,), **plain, years_kept=life).compare.compared_banks[0]
    cost = compared.cost
    assert cost["lifetime_planned"].value == pytest.approx(compared.banked["purchase"].value)
    # Half of the scenarios end its life before that, so that the middle holds a part of the next bank.
    assert cost["lifetime"].value > cost["lifetime_planned"].value
    assert cost["per_cycle"].value == pytest.approx(cost["lifetime"].value / cost["cycles_made"].value)
    # 60 nights of 1200 Wh a year against a need of 1200 · 2 · 1.25: 24 cycles of the plan a year.
    assert cost["cycles_made"].value == pytest.approx(24 * life)


def test_doubling_the_price_doubles_the_battery_part(evaluated) -> None:
    load = Load("a", "All day", DC, Draw(50, "W"), 12, hours=24)
    over = {"scrap_per_kg": 0}

    def parts(price: float) -> dict[str, float]:
        candidate = Candidate("a", "agm", "tarnmoor-150", 1, 3, unit_price=price)
        compared = evaluated((load,), candidates=(candidate,), overrides=over).compare.compared_banks[0]
        sums = dict.fromkeys(("batteries", REPLACEMENT, EXIT), 0.0)
        for payment in compared.cost.payments:
            if payment.item in sums:
                sums[payment.item] += payment.amount
        return sums

    single, double = parts(300), parts(600)
    assert single[REPLACEMENT] > 0
    for item, amount in single.items():
        assert double[item] == pytest.approx(2 * amount)


def test_without_off_grid_nights_there_is_nothing_to_divide_by(evaluated) -> None:
    load = Load("a", "All day", DC, Draw(50, "W"), 12, hours=24)
    results = evaluated((load,), off_grid_nights=0)
    for compared in results.compare.compared_banks:
        assert compared.cost["per_cycle"].value is None
        assert compared.cost["per_kwh"].value is None
        assert compared.cost["per_year"].value is not None
    assert "{a}" in results.compare.sentence.template
    assert results.compare.sentence.figures["a"].unit == "money/year"
