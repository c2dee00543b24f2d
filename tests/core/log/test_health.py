"""Health from the life model and what was measured: ranges that hold what they promise."""

from dataclasses import replace

import numpy as np
import pytest

from sampled import sampled
from vast_harbor.core.battery.ageing import health_at, state_of_health
from vast_harbor.core.log.health import (
    AS_EXPECTED,
    COUNT,
    LONGER,
    SAG,
    SHORTER,
    TEST,
    Expected,
    Measured,
    followed,
)

LEAD = Expected(wear_a_year=0.18, spread=0.35, end=0.8, lead=True)
LFP = Expected(wear_a_year=0.09, spread=0.4, end=0.7, lead=False)


def test_health_of_many_is_the_law_of_the_comparison() -> None:
    wears = np.array([0.0, 0.3, 1.0, 1.4, 5.0])
    for lead, known in ((True, [1, 0.94, 0.8, 0.56, 0]), (False, [1, 0.94, 0.8, 0.72, 0])):
        assert health_at(wears, lead) == pytest.approx(known)
        assert [state_of_health(wear, lead) for wear in wears] == pytest.approx(known)


# How the fade bends, and the resistance of the bank against its class; None where that is off by chance.
WORLDS = {"own": (1.0, None), "fast_at_last": (2.2, None), "slow_at_last": (0.7, None), "ohms": (1.0, 1.25)}


@pytest.mark.parametrize("expected", [LEAD, LFP], ids=["lead", "lfp"])
@pytest.mark.parametrize(
    "kinds", sampled([(TEST,), (SAG,), (COUNT, SAG, TEST)], (SAG,), (COUNT, SAG, TEST)), ids="-".join
)
@pytest.mark.parametrize("world", WORLDS)
def test_the_range_holds_the_truth_eight_times_of_ten(monkeypatch, expected, kinds, world) -> None:
    """200 banks whose wear is known, measured by clumsy owners; in worlds of other laws, too."""
    # The fan is not asked for.
    monkeypatch.setattr("vast_harbor.core.log.health.POINTS", 2)
    rng, (bend, ohms) = np.random.default_rng(4), WORLDS[world]
    doubts, common = {TEST: 0.03, COUNT: 0.06, SAG: 0.12}, {TEST: 0.02, COUNT: 0.04, SAG: 0.25}
    held = {"end": 0, "now": 0, "wear": 0}
    for _ in range(200):
        times = float(np.exp(expected.spread * rng.normal()))
        first, now = 1 + 0.03 * rng.normal(), rng.uniform(1, 5)
        rate = expected.wear_a_year * times
        off = {kind: rng.normal(0, common[kind]) for kind in kinds}
        measured = []

        def fade(years, rate=rate, first=first):
            return first * health_at((rate * years) ** bend, expected.lead)

        for i in range(rng.integers(1, 7)):
            kind, years = kinds[i % len(kinds)], rng.uniform(0, now)
            wide = doubts[kind] * (4 if rng.random() < 0.05 else 1)
            health, error = float(fade(years)), rng.normal(0, wide)
            health = health / ohms + error if ohms and kind == SAG else health + off[kind] + error
            measured.append(Measured(years, health, doubts[kind], kind))
        found = followed(expected, measured, now)
        ages = np.linspace(0, 60, 6001)
        fades = fade(ages)
        truth = {
            "end": min(40.0, float(ages[np.argmax(fades <= expected.end)])),
            "now": float(fade(now)),
            "wear": times,
        }
        ranges = {"end": found.ends, "now": found.now, "wear": found.faster}
        for key, (low, _, high) in ranges.items():
            held[key] += low - 1e-9 <= truth[key] <= high + 1e-9
    assert all(140 <= count <= 180 for count in held.values()), held


def test_more_measurements_narrow_it_and_many_of_one_kind_do_not_pretend() -> None:
    one = [Measured(3.0, 0.9, 0.03, TEST)]
    before, after = followed(LEAD, [], 3.0), followed(LEAD, one, 3.0)
    assert before.ends == before.before == after.before
    width = lambda three: three[2] - three[0]  # noqa: E731
    assert width(after.now) < width(before.now) and width(after.ends) < width(before.ends)
    # A hundred sags share the doubt of what the class's resistance is.
    many = followed(LEAD, [Measured(3.0, 0.9, 0.12, SAG)] * 100, 3.0)
    assert width(many.now) > 0.6 * width(followed(LEAD, [Measured(3.0, 0.9, 0.01, SAG)], 3.0).now)
    # One that is far off moves it less than its doubt alone would.
    tests = [Measured(t, 1 - 0.036 * t, 0.03, TEST) for t in (0.5, 1.0, 1.5, 2.0, 2.5)]
    calm, wild = followed(LEAD, tests, 3.0), followed(LEAD, [*tests, Measured(2.7, 0.4, 0.03, TEST)], 3.0)
    assert abs(wild.now[1] - calm.now[1]) < 0.03


def test_a_bank_that_ages_slowly_is_said_to_last_longer() -> None:
    slow = [Measured(t, 0.99, 0.03, TEST) for t in (1.0, 2.0, 3.0, 4.0)]
    found = followed(LEAD, slow, 4.0)
    assert found.ends[1] > 1.4 * found.before[1] and found.faster[2] < 0.9
    fast = followed(LEAD, [replace(m, health=1 - 0.07 * m.years) for m in slow], 4.0)
    assert fast.ends[1] < found.before[1] < found.ends[1] and fast.now[1] < found.now[1]
    for one in (found, fast):
        assert (
            (np.diff(one.likely) <= 1e-9).all()
            and (one.low <= one.likely).all()
            and (one.likely <= one.high).all()
        )
        at_now = np.interp(4.0, one.ages, one.likely)
        assert at_now == pytest.approx(one.now[1], abs=0.005)


@pytest.mark.parametrize("seed", range(20))
def test_a_bank_that_ages_slowly_is_found_and_one_that_ages_as_expected_is_not(seed) -> None:
    """Tested once a year by a clumsy owner, at half the wear that is expected and at all of it."""
    rng = np.random.default_rng(seed)

    def tested(times: float):
        at = [(year, state_of_health(times * LEAD.wear_a_year * year, True)) for year in range(1, 6)]
        measured = [Measured(year, h + rng.normal(0, 0.015), 0.02, TEST) for year, h in at]
        return followed(LEAD, measured, 5.2)

    slow, usual = tested(0.4), tested(1.0)
    assert slow.lasts == LONGER and slow.soon < 0.1
    assert usual.lasts == AS_EXPECTED and usual.soon > 0.2
    assert tested(2.0).lasts == SHORTER
