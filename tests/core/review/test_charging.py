"""Charging as logged: what ends early is counted, what is carried through is not."""

from dataclasses import replace
from math import isnan

import numpy as np
import pytest

from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.health import Expected
from vast_harbor.core.log.readings import Hours, Readings
from vast_harbor.core.review.charging import absorptions, panels

AT = 1_780_000_000


@pytest.fixture
def bank(reference):
    """A 24 V bank of 200 Ah by the key of its class."""

    def of(key: str) -> FollowedBank:
        cells = 12 if reference.classes[key].is_lead_acid else 8
        return FollowedBank(
            "Bank",
            reference.classes[key],
            cells,
            200.0,
            20.0,
            (1.1, 1.15, 1.2),
            1,
            Expected(0.1, 0.3, 0.7, True),
        )

    return of


def charged(end_a: float, then_v: float, then_a: float, days: int = 3, minutes: int = 60) -> Readings:
    """Days on which a bank is charged with 40 A, absorbs until so much flows, and then stands so."""
    volts, amps = [], []
    for _ in range(days):
        bulk = np.linspace(25.5, 28.5, 60), np.full(60, 40.0)
        hold = np.full(minutes, 28.8), np.geomspace(38, end_a, minutes)
        rest = np.full(240, then_v), np.full(240, then_a)
        for v, a in (bulk, hold, rest):
            volts.append(v)
            amps.append(a)
    v, a = np.concatenate(volts), np.concatenate(amps)
    at, none = AT + 60 * np.arange(len(v)), np.full(len(v), np.nan)
    return Readings(at, np.zeros(len(v), np.int64), v, a, none, none)


@pytest.mark.parametrize(
    ("end_a", "then_v", "then_a", "counts"),
    [
        (3.0, 27.2, 2.0, (3, 0, 0)),  # 1.5 % of the capacity: carried through
        (20.0, 27.2, 10.0, (3, 3, 0)),  # a timer that is too short
        (20.0, 25.6, -5.0, (3, 0, 3)),  # the sun went down, or the engine stopped
    ],
)
def test_absorption_that_ends_early_is_told_by_what_follows(bank, end_a, then_v, then_a, counts) -> None:
    found = absorptions(bank("agm"), charged(end_a, then_v, then_a))
    assert (found.count, found.dropped, found.left) == counts
    assert found.end_c == pytest.approx(end_a / 200, rel=0.15)


def test_what_tells_nothing_is_not_counted(bank) -> None:
    none = absorptions(bank("lfp"), charged(20.0, 27.2, 10.0))
    assert none.count == 0 and isnan(none.end_c)
    moment = charged(38.0, 27.2, 1.0, minutes=4)
    assert absorptions(bank("agm"), moment.some(moment.volts != 28.5)).count == 0
    held = charged(3.0, 28.8, 2.0)
    assert absorptions(bank("agm"), held.some(slice(0, 200))).count == 0


def sunny(
    share: float, days: int = 20, soc: float = 0.6, seed: int = 1
) -> tuple[Hours, np.ndarray, np.ndarray]:
    """Days of a rig whose panels give a share of the clear sky on clear days, and less on others."""
    rng = np.random.default_rng(seed)
    hour = 24 * 20_600 + np.arange(24 * days)
    clock = hour % 24
    clear = np.tile(np.maximum(0, 12 * np.sin((np.arange(24) - 6) / 12 * np.pi)), (12, 1))
    sky = rng.choice((1.0, 0.9, 0.4), days)[np.arange(len(hour)) // 24]
    net = share * sky * clear[0][clock] - 2.0
    whole, none = np.full(len(hour), 3600.0), np.zeros(len(hour))
    ends = {"soc": np.full(len(hour), soc)}
    into, out = np.maximum(net, 0), np.maximum(-net, 0)
    return Hours(hour, whole, into, out, none, none, ends, ends), clear, np.full(24, 2.0)


@pytest.mark.parametrize("share", [1.0, 0.7, 0.4])
@pytest.mark.parametrize("seed", range(5))
def test_panels_are_judged_by_their_best_days(share, seed) -> None:
    found = panels(*sunny(share, seed=seed))
    assert found is not None and 10 <= found.days <= 20
    assert found.share == pytest.approx(share, rel=0.03)


@pytest.mark.parametrize("seed", range(3))
def test_mains_and_engine_are_not_taken_for_sun(seed) -> None:
    """Every second day something else charges as well: by night, or far more than a clear sky gives."""
    hours, clear, load = sunny(0.7, days=40, seed=seed)
    day = (hours.hour // 24) % 4
    plugged = np.where((day == 1) | ((day == 3) & (hours.hour % 24 >= 9) & (hours.hour % 24 < 15)), 25.0, 0.0)
    mixed = replace(hours, ah_in=hours.ah_in + plugged)
    found = panels(mixed, clear, load)
    assert found is not None and found.days <= 20 and found.share == pytest.approx(0.7, rel=0.03)
    # Where it always charges, nothing is said of the panels.
    assert panels(replace(hours, ah_in=hours.ah_in + 25.0), clear, load) is None


def test_a_full_bank_or_few_days_say_nothing_of_the_panels() -> None:
    assert panels(*sunny(0.4, soc=0.97)) is None
    assert panels(*sunny(0.4, days=5)) is None
