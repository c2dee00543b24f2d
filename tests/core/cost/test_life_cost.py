"""A bank's years and money in plain numbers, and drawn futures: they agree with the workings."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.cash_flow import annuity
from vast_harbor.core.cost.life_cost import AS_PLANNED, LifeCostInputs, Scenario, life_years, lifetime
from vast_harbor.core.cost.monte_carlo import Uncertainty, sample_costs, sampled_scenarios, triangular

CERTAIN = Uncertainty((1, 1), (0.02, 0.02, 0.02), (-0.05, -0.05, -0.05), (1, 1), 0, 0)
DOUBT = Uncertainty((0.8, 1.3), (0.0, 0.02, 0.04), (-0.1, -0.05, 0.02), (0.5, 2.5), 4, 0.005)
PROSPECTS = st.builds(
    LifeCostInputs,
    id=st.just("x"), lead=st.booleans(), batteries=st.floats(0, 9000), extras=st.floats(0, 3000),
    again=st.just(()), old_bank=st.floats(0, 200), drift=st.floats(-0.1, 0.04), swap=st.floats(-50, 300),
    maintenance=st.floats(0, 100), lost_kwh=st.floats(0, 100), tariff=st.floats(0, 1), fuel=st.floats(0, 100),
    exit_share=st.floats(0, 0.5), refit=st.floats(0, 200), discount=st.sampled_from([0.0, 0.03, 0.08]),
    nights=st.floats(1, 365), cycle_wear=st.floats(0, 0.5), exponent=st.floats(1, 1.3),
    years_25=st.floats(3, 20), use_c=st.floats(-20, 45), rest_c=st.floats(-20, 45),
    accidents=st.floats(0, 0.2), emptied=st.floats(0, 0.2), worn_out=st.floats(0.8, 1.4),
    covers=st.floats(0.2, 2), health_floor=st.floats(0.5, 0.8), start_wear=st.just(0.0),
    used=st.just(False), basis=st.sampled_from(["likely", "warranty", "label_cycles"]),
    label_years=st.floats(1, 60), warranty_years=st.floats(1, 10), full_years=st.floats(0, 5),
    price=st.just((0.8, 1.3)),    cycles=st.just((0.6, 1.6)), calendar=st.just((0.7, 1.4)),
)  # fmt: skip


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_plain_numbers_say_what_the_workings_say(demo_results, name) -> None:
    verdict = demo_results(name).verdict
    assert len(verdict.life_cost_inputs) >= 4
    for compared, inputs in zip(verdict.compared_banks, verdict.life_cost_inputs, strict=True):
        assert float(life_years(inputs)) == pytest.approx(compared.life.years)
        total = lifetime(inputs, AS_PLANNED, verdict.plan.years_kept)
        assert float(total) == pytest.approx(compared.cost["lifetime_planned"].number)


@given(p=PROSPECTS, years=st.floats(1, 30))
def test_cost_is_what_the_payments_add_up_to(p, years) -> None:
    costs = cash_flow.Costs(
        p.batteries, p.extras, p.old_bank, p.drift, p.swap, p.maintenance + p.lost_kwh * p.tariff + p.fuel,
        p.exit_share, p.discount, p.refit,
    )  # fmt: skip
    life = float(life_years(p))
    total = lifetime(p, AS_PLANNED, years)
    assert float(total) == pytest.approx(cash_flow.lifetime_cost(costs, life, years), rel=1e-6, abs=1e-3)


@given(p=PROSPECTS, years=st.floats(1, 30))
def test_draws_without_width_are_the_point_estimate(p, years) -> None:
    bare = replace(p, price=(1, 1), cycles=(1, 1), calendar=(1, 1))
    point = float(lifetime(p, AS_PLANNED, years))
    for inputs, uncertainty in ((bare, CERTAIN), (p, replace(DOUBT, width=0.0))):
        drawn = sample_costs([inputs], uncertainty, years, 40)
        assert drawn.costs == pytest.approx(np.full((1, 40), point))


@given(p=PROSPECTS, years=st.floats(1, 30))
def test_percentiles_are_in_order_and_shares_make_one(p, years) -> None:
    dearer = replace(p, batteries=p.batteries * 1.3 + 10)
    drawn = sample_costs([p, dearer, replace(p, extras=p.extras + 50)], DOUBT, years, 400)
    for bank in range(3):
        low, middle, high = drawn.percentiles(bank)
        assert low <= middle <= high
    assert sum(drawn.cheapest([0, 1, 2]).values()) == pytest.approx(1)
    assert set(drawn.cheapest([1, 2])) == {1, 2}


@given(p=PROSPECTS, years=st.integers(2, 20))
def test_what_is_spent_by_the_end_is_the_cost_before_the_worth_at_the_end(p, years) -> None:
    bare = replace(p, exit_share=0.0)
    at = np.arange(0.0, years + 1)
    drawn = sample_costs([bare], DOUBT, float(years), 50, at)
    assert drawn.spent[0, -1] == pytest.approx(drawn.costs[0])
    assert drawn.spent[0, 0] == pytest.approx(drawn.costs[0] * 0 + _first(bare, drawn, 50))


def _first(p, drawn, count):
    change = sampled_scenarios([p], DOUBT, count)[0]
    return p.batteries * change.price + p.extras - p.old_bank


@given(p=PROSPECTS, year=st.floats(1, 25))
def test_with_unused_life_credited_in_full_cost_has_no_steps(p, year) -> None:
    # Just before and after a replacement would fall, and anywhere else, a moment more costs next to nothing.
    life = float(life_years(p))
    for h in (year, max(1.0, life), max(1.0, 2 * life)):
        if h > 40:
            continue
        a, b = (float(lifetime(p, AS_PLANNED, h + d, in_full=True)) for d in (-1e-6, 1e-6))
        swapped = abs(p.swap) * 1.01
        assert abs(a - b) <= 1e-3 * max(1.0, p.batteries) + swapped


def test_triangular_draws_keep_to_their_range_and_middle() -> None:
    u = np.linspace(0.0005, 0.9995, 1000)
    values = triangular(u, 2.0, 3.0, 7.0)
    assert values.min() > 2 and values.max() < 7 and (np.diff(values) > 0).all()
    # Mean of a triangular distribution: (2 + 3 + 7) / 3; a quarter… one fifth of it lies below the mode.
    assert values.mean() == pytest.approx(4, abs=0.01)
    assert (values < 3).mean() == pytest.approx(0.2, abs=0.002)


@pytest.mark.parametrize(
    ("years", "rate", "worth"),
    [
        (3, 0.0, 3.0),
        (2.5, 0.0, 2.5),
        (2, 0.1, 1.1**-0.5 + 1.1**-1.5),
        (1.5, 0.1, 1.1**-0.5 + 0.5 * 1.1**-1.25),
    ],
)
def test_running_costs_fall_at_mid_year(years, rate, worth) -> None:
    assert float(annuity(years, rate)) == pytest.approx(worth)


def test_an_early_failure_is_replaced_free_then_pro_rata(demo_results) -> None:
    # 1000 of batteries, warranty of 10 years, 2 of them full, prices flat, life far beyond the 5 years kept.
    base = replace(
        demo_results("long-haul").verdict.life_cost_inputs[2],
        batteries=1000.0,
        extras=0.0,
        again=(),
        old_bank=0.0,
        drift=0.0,
        swap=0.0,
        maintenance=0.0,
        lost_kwh=0.0,
        fuel=0.0,
        elsewhere=0.0,
        exit_share=0.0,
        warranty_years=10.0,
        full_years=2.0,
        basis="likely",
        cycle_wear=0.0,
        accidents=0.0,
        emptied=0.0,
    )

    def cost(age: float) -> float:
        return float(lifetime(base, Scenario(fails=np.array([[age]])), 5.0)[0])

    assert cost(40.0) == pytest.approx(1000)
    assert cost(1.0) == pytest.approx(1000)  # replaced free
    assert cost(4.0) == pytest.approx(1000 + 1000 * 0.4)  # six tenths are given back
    assert cost(4.999) > cost(4.0)


def test_use_and_nights_wear_by_their_own_law(demo_results) -> None:
    p = replace(demo_results("pebble").verdict.life_cost_inputs[0], accidents=0.0, emptied=0.0, years_25=1e9)
    p = replace(p, most_years=float("inf"))
    one = float(life_years(p))
    assert float(life_years(p, Scenario(nights=2 * p.nights))) == pytest.approx(one / 2)
    assert float(life_years(p, Scenario(use=1.2))) == pytest.approx(one / 1.2**p.exponent)
    assert float(life_years(p, Scenario(lasts=2.0))) == pytest.approx(2 * one)


@given(PROSPECTS, st.floats(0.25, 4), st.floats(0.5, 2))
def test_a_bank_made_larger_on_paper_costs_and_covers_in_proportion(p, share, depth) -> None:
    made = p.scaled(share, depth)
    assert made.batteries == pytest.approx(share * p.batteries) and made.extras == p.extras
    assert made.covers * share == pytest.approx(p.covers)
    assert made.cycle_wear == pytest.approx(p.cycle_wear * depth**p.exponent)
    # Scrap is worth more the more there is; labour and carriage stay.
    assert made.swap == pytest.approx(p.swap * share if p.swap < 0 else p.swap)
    again = made.scaled(1 / share, 1 / depth)
    assert float(life_years(again)) == pytest.approx(float(life_years(p)))
