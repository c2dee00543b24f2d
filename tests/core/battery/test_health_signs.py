"""Is the old bank the culprit: signs, ranges and who is at fault."""

from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.ageing import state_of_health
from vast_harbor.core.battery.health_signs import (
    by_age,
    by_nights,
    by_sag,
    by_test,
    charge_by_volts,
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
        found.danger.startswith("The bank smells of rotten eggs and has a bulging case")
        and "Stop charging" in found.danger
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
    # 12.36 V is 60 %: rested 8 h ± 0.05 V, 2 h ± 0.10 V; just charged volts say nothing of the charge.
    rested, short = (charge_by_volts(agm, 12.36, h) for h in (8, 3))
    assert rested[0] < 0.6 < rested[1] and rested[1] - rested[0] == pytest.approx(0.1 / 0.14 * 0.1, rel=0.1)
    assert short[0] < rested[0] and short[1] > rested[1]
    assert charge_by_volts(agm, 12.36, 0.2) is None
    assert charge_by_volts(agm, 12.36, None) == short
    # The middle of LFP cannot be read by volts at all.
    low, high = charge_by_volts(lfp, 13.18, 10)
    assert high - low > 0.3


def test_signs_by_hand() -> None:
    # 12.6 V rested, 12.3 V under 20 A of 100 Ah: 0.30 less 0.048 of polarisation are 12.6 mΩ; a new one 6 mΩ.
    sag = by_sag(True, 0.006, 12.6, 12.3, 20, 0.2, 1.0)
    assert sag.likely == pytest.approx(0.12 / (0.3 - 0.05 * np.tanh(2)))
    assert sag.doubt == pytest.approx(np.hypot(0.25, 0.8 * 0.03 / 0.12))
    # 0.1 V at 10 A on a young 100 Ah battery is mostly polarisation and the meter: it says next to nothing.
    small = by_sag(True, 0.004, 12.8, 12.7, 10, 0.1, 1.0)
    assert small.likely > 0.6 and small.doubt > 0.6
    # From 3 nights to 1.5, while a day grew by a fifth: 0.6, filled to 97 % as far as anybody knows.
    assert by_nights(3, 1.5, 1.2, None).likely == pytest.approx(0.6 / 0.97)
    # Filled to 60 % only, the same nights are those of a sound bank.
    assert by_nights(3, 1.5, 1.2, (0.55, 0.65)).likely == pytest.approx(1.0)
    # Lead-acid of 10 years, life 5 to 10: wear 1 is 80 %; wear 2 is 0.8 − 0.6 = 20 %.
    assert by_age(10, 5, 10, 0, True).likely == pytest.approx(0.5)
    assert by_age(10, 5, 10, 0, False).likely == pytest.approx(0.7)
    # Two of one width meet in the middle, narrower by √2.
    both = together([by_test(0.5, 0.7), by_test(0.6, 0.8)], 0.75, 0.85)
    assert both.likely == pytest.approx(0.65, abs=2e-3)
    assert both.high - both.low == pytest.approx(0.2 / np.sqrt(2), rel=0.02)


SIGNS = st.one_of(
    st.builds(by_test, st.floats(0.3, 0.6), st.floats(0.65, 1.0)),
    st.builds(by_nights, st.floats(1, 6), st.floats(0.3, 6), st.floats(0.6, 1.6), st.none()),
    st.builds(by_age, st.floats(0, 14), st.just(4.0), st.just(10.0), st.floats(0, 0.3), st.just(True)),
    st.builds(by_sag, st.just(True), st.floats(0.003, 0.02), st.just(12.7), st.floats(11, 12.65),
              st.floats(4, 90), st.floats(0.04, 0.5), st.just(1.0)),
)  # fmt: skip


@given(st.lists(SIGNS, min_size=1, max_size=4), SIGNS)
def test_more_evidence_never_widens_the_answer(signs, more) -> None:
    before, after = (together(x, 0.75, 0.85) for x in (signs, [*signs, more]))
    assert after.high - after.low <= before.high - before.low + 5e-3


@given(st.lists(SIGNS, max_size=3), st.floats(0.5, 3), st.floats(0.05, 1.5), st.floats(11.2, 12.6))
def test_worse_evidence_never_raises_the_answer(signs, nights, fewer, loaded) -> None:
    def likely(sign) -> float:
        return together([*signs, sign], 0.75, 0.85).likely

    now = max(0.1, nights - fewer)
    assert likely(by_nights(3, now, 1, None)) <= likely(by_nights(3, nights, 1, None)) + 1e-9
    sags = [by_sag(True, 0.006, 12.7, v, 25, 0.25, 1.0) for v in (loaded - 0.1, loaded)]
    assert likely(sags[0]) <= likely(sags[1]) + 1e-9
    ages = [by_age(years, 4, 10, 0, True) for years in (fewer * 6 + 1, fewer * 6)]
    assert likely(ages[0]) <= likely(ages[1]) + 1e-9


def test_one_weak_sign_does_not_outvote_two(diagnose) -> None:
    # A year old and as many nights as ever: a sag read at 10 A does not make it a worn bank.
    sound = {"age_years": 1, "nights_then": 3, "nights_now": 3, "rested_v": 12.84, "rested_hours": 12}
    found = diagnose(**sound, loaded_v=12.70, load_a=10)
    assert verdicts(found)["bank"] != "at fault" and found.health.number > 0.85


def test_each_kind_of_accident_takes_its_share(diagnose) -> None:
    """Below a fifth 0.02, emptied 0.05, left empty for a week 0.3, frozen 1: each lowers it further."""
    plain = {"age_years": 3}
    found = [diagnose(**plain, **{k: 1}).health.number for k in
             ("left_low", "deep_accidents", "left_empty", "frozen")]  # fmt: skip
    assert diagnose(**plain).health.number > found[0] > found[1] > found[2] > found[3]


def test_the_verdict_does_not_jump_back_and_forth_with_the_volts(diagnose) -> None:
    """The lower the rested volts, the more it is the charger and the less the bank; never back again."""
    worn = {"nights_then": 3, "nights_now": 1.4, "age_years": 4, "rested_hours": 10}
    health, charger = [], []
    for volts in np.arange(12.90, 12.00, -0.02):
        found = diagnose(rested_v=round(float(volts), 2), **worn)
        health.append(found.health.number)
        charger.append(("unlikely", "possible", "at fault").index(verdicts(found)["charger"]))
    assert charger == sorted(charger) and all(b >= a - 1e-9 for a, b in pairwise(health))


def test_eight_of_ten_banks_lie_in_the_range_that_is_told() -> None:
    """300 banks of known health, each read as owners read: doubtful nights, cables, meters, ages."""
    rng = np.random.default_rng(300)
    inside, errors = 0, []
    for _ in range(300):
        years, life = rng.uniform(0.5, 9), rng.triangular(4, 7, 10)
        health = float(np.clip(state_of_health(years / life, True), 0.1, 1.0))
        filled, ohm = rng.uniform(0.92, 1.0), 0.006
        signs = []
        if rng.random() < 0.7:
            now = 3 * health * filled * rng.lognormal(0, 0.15)
            signs.append(by_nights(3, now, 1.0, None))
        if rng.random() < 0.6:
            amps = rng.uniform(10, 60)
            true = amps * ohm / health * rng.lognormal(0, 0.25) + 0.05 * np.tanh(amps / 10)
            signs.append(by_sag(True, ohm, 12.7, 12.7 - true + rng.normal(0, 0.02), amps, amps / 100, 1.0))
        if rng.random() < 0.8 or not signs:
            signs.append(by_age(years, 4, 10, 0, True))
        found = together(signs, 0.75, 0.85)
        inside += found.low <= health <= found.high
        errors.append(found.likely - health)
    assert 0.72 <= inside / 300 <= 0.92
    assert abs(np.mean(errors)) < 0.05  # neither too dark nor too bright on the whole


def test_series_banks_are_read_by_their_12_volt_units(evaluated, reference) -> None:
    # Four 6 V units in series at 25.2 V are 12.6 V for each 12 V.
    old = OldBank(reference.classes["flooded_deep"], 6, 225, 4, 1, rested_v=25.2, rested_hours=10)
    single = replace(old, series=2, rested_v=12.6)
    both = [evaluated(DAY, system_v=v, old_bank=o).banks.diagnosis for v, o in ((24, old), (12, single))]
    assert verdicts(both[0]) == verdicts(both[1])
