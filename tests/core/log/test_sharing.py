"""A battery that falls behind is found among its like, whatever the charge, the meter and the owner do."""

from dataclasses import replace

import numpy as np
import pytest

from vast_harbor.core.log.entry import READING, WORK, Entry
from vast_harbor.core.log.sharing import off_batteries, off_shares, rounds

DAY = 86_400


def measured(rng, count: int, unit_v: float, weak: int = 0, meter_off: float = 0.0) -> list[Entry]:
    """Rounds with a meter over half a year, some batteries left out; one may sink by 12 mV a month."""
    own = rng.normal(0, 0.008 * unit_v / 12, count + 1)
    out = []
    for i, day in enumerate(np.sort(rng.choice(180, 7, replace=False))):
        level = unit_v * (1.05 + 0.015 * rng.random())
        for n in range(1, count + 1):
            if rng.random() < 0.1:
                continue
            volts = level + own[n] + meter_off + rng.normal(0, 0.01 * unit_v / 12)
            volts -= max(1.0, unit_v / 6) * (0.0004 * day + 0.02) * (n == weak)
            at = int(day) * DAY + 60 * n
            out.append(Entry(f"r{i}-{n}", at, READING, battery=n, volts=round(volts, 2), rested=True))
    return out


@pytest.mark.parametrize("seed", range(20))
@pytest.mark.parametrize(("count", "unit_v"), [(8, 6.0), (2, 12.0), (12, 2.0)])
def test_it_is_found_where_it_is_and_not_where_it_is_not(seed, count, unit_v) -> None:
    rng = np.random.default_rng(seed)
    assert off_batteries(measured(rng, count, unit_v, meter_off=0.05), unit_v) == ()
    weak = int(rng.integers(1, count + 1))
    found = off_batteries(measured(rng, count, unit_v, weak), unit_v)
    assert [one.number for one in found] == [weak]
    assert found[0].off_v < -0.03 * unit_v / 6 and found[0].a_month_v < 0 and found[0].rounds >= 3


def test_one_round_or_a_load_tells_nothing() -> None:
    rng = np.random.default_rng(3)
    entries = measured(rng, 8, 6.0, weak=2)
    first = [e for e in entries if e.at < entries[0].at + DAY]
    assert len(rounds(first)) == 1 and off_batteries(first, 6.0) == ()
    alone = [e for e in entries if e.battery == 2]
    assert rounds(alone) == []


def test_what_was_read_before_a_battery_was_swapped_is_of_another() -> None:
    rng = np.random.default_rng(8)
    entries = measured(rng, 8, 6.0, weak=3)
    assert [one.number for one in off_batteries(entries, 6.0)] == [3]
    swap = Entry("w", entries[-1].at + DAY, WORK, battery=3, text="Replaced battery 3")
    assert off_batteries([*entries, swap], 6.0) == ()
    sound = [replace(e, id=f"n{e.id}", at=e.at + 200 * DAY) for e in measured(rng, 8, 6.0)]
    assert off_batteries([*entries, swap, *sound], 6.0) == ()


def shared(rng, count: int, weak: int = 0, times: float = 0.75) -> list[Entry]:
    """Rounds with a clamp under a load, and now and then under charge."""
    out = []
    for day in range(6):
        amps = rng.choice((-1, 1)) * rng.uniform(15, 40)
        for n in range(1, count + 1):
            one = amps * rng.normal(1, 0.03) * (times if n == weak else 1)
            out.append(Entry(f"{day}-{n}", day * 9 * DAY + 60 * n, READING, battery=n, amps=round(one, 1)))
    return out


@pytest.mark.parametrize("seed", range(20))
@pytest.mark.parametrize("count", [2, 4])
def test_a_string_that_carries_less_is_found_and_no_other(seed, count) -> None:
    rng = np.random.default_rng(seed)
    assert off_shares(shared(rng, count)) == ()
    weak = int(rng.integers(1, count + 1))
    found = off_shares(shared(rng, count, weak))
    assert [one.number for one in found] == [weak]
    assert found[0].share == pytest.approx(0.75, abs=0.06) and found[0].rounds == 6
