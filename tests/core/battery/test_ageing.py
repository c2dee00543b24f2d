"""How long a bank lasts."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.ageing import (
    calendar_wear,
    cycle_wear,
    cycles_at_depth,
    emptied_wear,
    health_at_replacement_lfp,
    rate_wear_factor,
    state_of_health,
    wear_at_health,
    wear_when_bought,
)
from vast_harbor.core.battery.temperature import calendar_years
from vast_harbor.core.cost.life_cost import life_years
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.stops.banks.quick_life_cost import LASTS_BY_GRADE


def test_cycle_law_from_one_point() -> None:
    # 650 cycles at half, b 1.2: at four fifths 650 · (0.5/0.8)^1.2 = 650 · 0.568939 = 369.8.
    assert cycles_at_depth([(0.5, 650)], 1.2, 0.8) == pytest.approx(369.8, abs=0.05)
    # Below a tenth the throughput stays: N(0.05) = 2 · N(0.1).
    assert cycles_at_depth([(0.5, 650)], 1.2, 0.05) == pytest.approx(
        2 * cycles_at_depth([(0.5, 650)], 1.2, 0.1)
    )


def test_cycle_law_runs_through_its_points() -> None:
    points = [(0.3, 1800), (0.5, 1000), (0.8, 560)]
    for depth, cycles in points:
        assert cycles_at_depth(points, 1.2, depth) == pytest.approx(cycles)
    assert 560 < cycles_at_depth(points, 1.2, 0.65) < 1000


@given(st.floats(0.01, 1), st.floats(0.01, 1))
def test_deeper_never_gives_more_cycles(a, b) -> None:
    points = [(0.3, 1800), (0.5, 1000), (0.8, 560)]
    low, high = sorted((a, b))
    assert cycles_at_depth(points, 1.2, high) <= cycles_at_depth(points, 1.2, low) * (1 + 1e-12)


def test_heat_halves_calendar_life() -> None:
    assert calendar_years(14, 35) == pytest.approx(7)
    assert calendar_years(14, 5) == 14
    # A quarter of the year at 35 °C (7 years), the rest at 25 °C (14): 0.25/7 + 0.75/14 = 0.089286.
    assert calendar_wear(7, 14, 0.25) == pytest.approx(0.0892857)


def test_hard_use_wears_faster_up_to_a_half_more() -> None:
    assert rate_wear_factor(10, 20) == 1
    assert rate_wear_factor(40, 20) == pytest.approx(1.3)
    assert rate_wear_factor(400, 20) == 1.5


@given(wear=st.floats(0, 2.5), lead=st.booleans())
def test_health_and_wear_are_inverse(wear, lead) -> None:
    health = state_of_health(wear, lead)
    if health > 0:
        assert wear_at_health(health, lead) == pytest.approx(wear, abs=1e-9)


def test_lfp_serves_until_it_no_longer_covers_the_need() -> None:
    assert health_at_replacement_lfp(2000, 2800, 0.6) == pytest.approx(0.714286)
    assert health_at_replacement_lfp(1000, 2800, 0.6) == 0.6
    assert health_at_replacement_lfp(2700, 2800, 0.6) == 0.8


def test_life_of_a_plain_agm_bank_by_hand(evaluated) -> None:
    # 50 W all day are 1200 Wh. Two nights a cycle, 60 nights: 30 cycles a year, each of 2400 Wh.
    # Still 150, three strings: 5400 Wh, so each cycle is 44.4 % deep and lasts
    # N = 650 · (0.5/0.4444)^1.2 = 748.7 cycles: 30/748.7 = 0.04007 a year. I = 50/12 = 4.17 A is gentle
    # (limit 90 A). Age: 1/7 = 0.14286. One accident: 0.05. Together 0.23293: 4.293 years, ended by age.
    load = Load("a", "All day", DC, Draw(50, "W"), 12, hours=24)
    candidates = (Candidate("a", "agm", "tarnmoor-150", 1, 3), Candidate("l", "lfp"))
    results = evaluated((load,), candidates=candidates)
    life = results.compare.compared_banks[0].life
    assert life["depth"].value == pytest.approx(0.44444, abs=1e-5)
    assert life["cycle_wear"].value == pytest.approx(0.04007, abs=5e-5)
    assert life.years == pytest.approx(4.293, abs=2e-3)
    assert life.ends == "years"


@pytest.mark.parametrize(
    ("rule", "ends"), [("long_life", "warranty"), ("customary", "electronics"), ("to_label", "cycles")]
)
def test_house_rules_reckon_with_different_lives(demo_results, reference, rule, ends) -> None:
    nights = 300.0 if rule == "to_label" else 160.0
    plan = replace(demo_results("long-haul").plan, house_rule=rule, off_grid_nights=nights)
    compared = evaluate(plan, reference).compare.compared_banks[2]
    assert compared.life.ends == ends
    if rule == "long_life":
        # As its maker promises, or as the short end of its class if that is longer.
        low = compared.cost.inputs.careful_years
        warranty = compared.banked.bank.model.warranty.years
        assert compared.life.years == pytest.approx(max(warranty, low))
        # The same battery without a warranty lasts no longer.
        bare = replace(compared.cost.inputs, warranty_years=0.0)
        assert float(life_years(bare)) <= compared.life.years
    if rule == "customary":
        # Electronics last by what backs the datasheet up: 16 years of grade B. Its cells would go on.
        grade = LASTS_BY_GRADE[compared.banked.bank.model.grade]
        assert compared.life.years == pytest.approx(16 * grade)
        assert compared.life["years"].high == pytest.approx(20 * grade)
    if rule == "to_label":
        # Label cycles at full depth, 300 cycles a year of one night each.
        cycles = compared.life["design_cycles"].value
        assert compared.life.years == pytest.approx(cycles / 300)


def test_wears_by_hand() -> None:
    # 0.05 of cycles a year, drawn a tenth above the rate: f = 1 + 0.3 · 0.1; half of the days short, p 0.7.
    assert rate_wear_factor(22, 20) == pytest.approx(1.03)
    assert cycle_wear(0.05, 1.03, 0.7, 0.5) == pytest.approx(0.05 * 1.03 * 1.35)
    # Emptied twice at 0.05 each, and three days below a fifth at 0.02 each.
    assert emptied_wear(2, 0.05, 3) == pytest.approx(0.1 + 0.06)
    # 365 of 1000 cycles and 3.5 of 7 years make 0.865; a test at 90 % only 0.5, one at 80 % a whole life.
    assert wear_when_bought(365, 1000, 3.5, 7, 0.9) == pytest.approx(0.865)
    assert wear_when_bought(365, 1000, 3.5, 7, 0.8) == pytest.approx(1.0)


def test_calendar_life_falls_from_25_degrees_on() -> None:
    assert [float(calendar_years(10, t)) for t in (-20, 24.9, 25)] == [10, 10, 10]
    assert float(calendar_years(10, 30)) == pytest.approx(10 * 2**-0.5)
    assert float(calendar_years(10, 45)) == pytest.approx(2.5)
    assert float(calendar_years(10, 45, halves_k=20)) == pytest.approx(5)


def test_fading_by_hand() -> None:
    # Lead-acid after one and a half lives: 0.8 − 3 · 0.5 · 0.2 = 0.5; LFP goes on straight to 0.7.
    assert state_of_health(1.5, True) == pytest.approx(0.5)
    assert state_of_health(1.5, False) == pytest.approx(0.7)
    assert float(wear_at_health(0.5, True)) == pytest.approx(1.5)
    assert float(wear_at_health(0.7, False)) == pytest.approx(1.5)
    assert state_of_health(9, True) == 0


def test_a_year_in_two_temperatures() -> None:
    # A quarter of the year where a life lasts 5 years, the rest where it lasts 10: 0.25/5 + 0.75/10.
    assert calendar_wear(5, 10, 0.25) == pytest.approx(0.125)
