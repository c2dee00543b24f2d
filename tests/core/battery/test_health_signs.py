"""Is the old bank the culprit: signs, ranges and who is at fault."""

from dataclasses import replace

import pytest

from vast_harbor.core.battery.health_signs import (
    charge_by_volts,
    health_by_age,
    health_by_nights,
    health_by_sag,
    together,
)
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import OldBank

DAY = (Load("a", "Steady", DC, Draw(50, "W"), 12, hours=24),)


@pytest.fixture
def diagnose(evaluated, reference):
    """The diagnosis of a 200 Ah AGM bank with whatever else is known."""

    def build(standby_w: float = 1, **known):
        old = OldBank(reference.classes["agm"], 12, 100, 1, 2, **known)
        return evaluated(DAY, old_bank=old, standby_w=standby_w).banks.diagnosis

    return build


def verdicts(diagnosis) -> dict[str, str]:
    return {s.key: s.verdict for s in diagnosis.suspects}


def test_charger_that_never_fills_is_found_though_the_nights_are_few(diagnose) -> None:
    # AGM rested ten hours at 12.30 V: 12.25 to 12.35 V are 52 to 59 %: not full. A test says 95 % health.
    found = diagnose(rested_v=12.30, rested_hours=10, test_a=10, test_minutes=1100, test_c=25, age_years=2)
    assert verdicts(found)["charger"] == "at fault" and verdicts(found)["bank"] == "unlikely"
    assert "not the bank" in found.says


def test_a_test_decides_over_the_other_signs(diagnose) -> None:
    # 200 Ah at 10 A is the rate of the label: 600 min are 100 Ah, half of it.
    found = diagnose(test_a=10, test_minutes=600, test_c=25, nights_then=2, nights_now=2, age_years=1)
    assert found.health.value == pytest.approx(0.5, abs=0.01) and not found.agree
    assert verdicts(found)["bank"] == "at fault"


def test_grown_use_and_hidden_drain_are_told_from_a_worn_bank(diagnose) -> None:
    # 1200 Wh a day and 20 W of standby, 480 Wh: over a quarter of the day. Then it took 900 Wh.
    found = diagnose(
        standby_w=20, day_then_wh=900, nights_then=2, nights_now=1.1, rested_v=12.83, rested_hours=12
    )
    got = verdicts(found)
    assert got["drain"] == "at fault" and got["use"] == "at fault" and got["charger"] == "unlikely"
    assert got["bank"] != "at fault"


def test_smell_warmth_and_bulge_end_the_matter(diagnose) -> None:
    found = diagnose(smells=True, bulges=True)
    assert (
        found.danger.startswith("It smells of rotten eggs and has a bulging case")
        and "stop charging" in found.danger
    )
    assert verdicts(found)["bank"] == "at fault" and found.says == "The bank is damaged."


def test_volts_of_a_dead_cell(diagnose) -> None:
    assert verdicts(diagnose(rested_v=10.7, rested_hours=10))["bank"] == "at fault"


def test_nothing_known_is_said_to_be_nothing_known(diagnose) -> None:
    found = diagnose(standby_w=0)
    assert set(verdicts(found).values()) == {"not known"} and found.health is None
    assert all(s.next for s in found.suspects)


def test_meter_is_read_with_its_doubt(reference) -> None:
    agm, lfp = reference.classes["agm"], reference.classes["lfp"]
    # 12.36 V is 60 %: rested 8 h ± 0.05 V, 2 h ± 0.10 V; just charged the true volts lie up to 0.30 V lower.
    rested, short, surface = (charge_by_volts(agm, 12.36, h) for h in (8, 3, 0.2))
    assert rested[0] < 0.6 < rested[1] and rested[1] - rested[0] == pytest.approx(0.1 / 0.14 * 0.1, rel=0.1)
    assert short[0] < rested[0] and short[1] > rested[1]
    assert surface[1] == pytest.approx(0.6) and surface[0] == pytest.approx(0.385, abs=0.01)
    # The middle of LFP cannot be read by volts at all.
    low, high = charge_by_volts(lfp, 13.18, 10)
    assert high - low > 0.3


def test_signs_by_hand() -> None:
    # 12.6 V rested, 12.3 V under 20 A are 15 mΩ; a new one 6 mΩ: 0.4, widened 0.55 to 1.4.
    assert health_by_sag(0.006, 12.6, 12.3, 20) == pytest.approx((0.22, 0.56))
    # From 3 nights to 1.5, while a day grew by a fifth: 0.6.
    assert health_by_nights(3, 1.5, 1.2) == pytest.approx((0.48, 0.69))
    # Lead-acid of 10 years, life 5 to 10: wear 1 is 80 %; wear 2 is 0.8 − 0.6 = 20 %.
    assert health_by_age(10, 5, 10, 0, True) == pytest.approx((0.2, 0.8))
    assert health_by_age(10, 5, 10, 0, False) == pytest.approx((0.6, 0.8))
    assert together([(0.4, 0.7), (0.6, 0.9)]) == ((0.6, 0.7), True)
    assert together([(0.2, 0.4), (0.6, 0.9)]) == ((0.2, 0.9), False)


def test_series_banks_are_read_by_their_12_volt_units(evaluated, reference) -> None:
    # Four 6 V units in series at 25.2 V are 12.6 V for each 12 V.
    old = OldBank(reference.classes["flooded_deep"], 6, 225, 4, 1, rested_v=25.2, rested_hours=10)
    single = replace(old, series=2, rested_v=12.6)
    both = [evaluated(DAY, system_v=v, old_bank=o).banks.diagnosis for v, o in ((24, old), (12, single))]
    assert verdicts(both[0]) == verdicts(both[1])
