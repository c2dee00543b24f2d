"""A do-it-yourself capacity test of the old bank."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.capacity_test import health_range, state_of_health
from vast_harbor.core.battery.peukert import capacity_at_current
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import OldBank
from vast_harbor.telling.figures import sentence_text

LAMP = (Load("a", "Lamp", DC, Draw(20, "W"), 12, hours=24),)  # 480 Wh a day


def test_flooded_battery_by_hand() -> None:
    # 100 Ah over 20 h, k 1.2, drawn at 20 A for 150 minutes at 25 °C: 50 Ah measured. A new one gives
    # 100 · (5/20)^0.2 = 75.786 Ah at that rate, so 65.98 % are left, not the half that the label suggests.
    assert state_of_health(20, 150, 100, 20, 1.2, 1.0) == pytest.approx(0.65976, abs=1e-5)


def test_new_flooded_battery_tests_at_three_quarters_of_its_label() -> None:
    measured = capacity_at_current(100, 20, 1.2, 20)
    assert measured / 100 == pytest.approx(0.758, abs=1e-3)
    assert state_of_health(20, measured / 20 * 60, 100, 20, 1.2, 1.0) == pytest.approx(1)


@given(amps=st.floats(1, 40), minutes=st.floats(5, 2000), k=st.floats(1.0, 1.4), cold=st.floats(0.5, 1.03))
def test_range_holds_the_likely_value(amps, minutes, k, cold) -> None:
    likely = state_of_health(amps, minutes, 100, 20, k, cold)
    low, high = health_range(amps, minutes, 100, 20, (max(1.0, k - 0.05), k + 0.1), cold)
    assert low <= likely <= high
    # Colder at the same minutes means that more is left.
    assert state_of_health(amps, minutes, 100, 20, k, cold * 0.9) > likely


def old_bank(reference, **test) -> OldBank:
    return OldBank(reference.classes["gel"], 12, 210, 1, 2, 11, 65, **test)


def test_old_bank_in_nights_by_hand(evaluated, reference) -> None:
    # 420 Ah of gel, k 1.14, drawn at 20 A for 300 minutes at 25 °C: 100 Ah. New it gives 420·(21/20)^0.14 =
    # 422.9 Ah at 20 A: 23.65 % are left. Label 5040 Wh · 0.5 · k_T 0.95 (15 °C) · 0.2365 = 566.1 Wh: 1.179
    # nights of 480.
    results = evaluated(LAMP, old_bank=old_bank(reference, test_a=20, test_minutes=300, test_c=25))
    tested = results.banks.old_carries
    assert tested["soh"].value == pytest.approx(0.23648, abs=1e-4)
    assert tested["usable_wh"].value == pytest.approx(566.1, abs=0.5)
    assert tested["nights"].value == pytest.approx(1.1795, abs=1e-3)
    low, high = tested["soh"].low, tested["soh"].high
    assert low is not None and high is not None and low < tested["soh"].number < high


def findings(results) -> dict[str, str]:
    return {f.code: sentence_text(f.says, Style()) for f in results.findings if f.stop == "rig"}


def test_test_conditions_are_questioned(evaluated, reference) -> None:
    good = old_bank(reference, test_a=20, test_minutes=300, test_c=20)
    aside = {"predecessor_share": 0.0}
    assert findings(evaluated(LAMP, old_bank=good, overrides=aside)) == {}
    fast = findings(evaluated(LAMP, old_bank=replace(good, test_a=85.0)))
    assert fast["test_current"].startswith("The test current was 85 A")
    cold = findings(evaluated(LAMP, old_bank=replace(good, test_c=4.0)))
    assert cold["test_temperature"] == "The battery was at 4 °C during the test."


def test_a_bank_that_still_serves_is_said_to(evaluated, reference) -> None:
    # 1200 minutes at 20 A are 400 Ah, nearly all of it: 5040 · 0.5 · 0.95 · 0.946 = 2264 Wh, 4.7 nights of
    # 480 Wh, more than two nights and a quarter.
    healthy = findings(evaluated(LAMP, old_bank=old_bank(reference, test_a=20, test_minutes=1200, test_c=25)))
    assert "still lasts 4.7 nights" in healthy["old_bank_serves"]


def test_half_a_test_is_no_test(evaluated, reference, demo_results) -> None:
    young = replace(old_bank(reference, test_a=20), age_years=None)
    assert evaluated(LAMP, old_bank=young).banks.old_carries == {}
    plan = demo_results("kittiwake").plan
    assert evaluate(replace(plan, old_bank=None), reference).banks.old_carries == {}
