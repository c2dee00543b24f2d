"""Use by the monitor against the plan: what is not in the plan is found, and only that."""

import numpy as np
import pytest

from vast_harbor.core.log.readings import Readings, by_hour
from vast_harbor.core.log.use import measured_use
from vast_harbor.core.rig.profile import Profile

# A fridge and standby all day, light in the evening: 20 W, and 60 W from six to ten.
PLANNED = Profile(np.array([0.0, 18.0, 22.0, 24.0]), np.array([20.0, 80.0, 20.0]))
BEGIN = 1_780_000_000 // 86_400 * 86_400


def logged(rng, days: int, drain_w=0.0, growth=0.0, sun=True) -> Readings:
    """What a monitor logs of this rig every ten minutes: noise, a fridge that cycles, sun by day."""
    at = BEGIN + 600 * np.arange(144 * days)
    clock = at % 86_400 / 3600
    use = np.where((clock >= 18) & (clock < 22), 80.0, 20.0)
    use = use + 18 * np.sign(np.sin(at / 1500 + rng.uniform(0, 6))) * (rng.random(len(at)) < 0.9)
    per_day = rng.normal(1, 0.12, days)[np.arange(len(at)) // 144]
    use *= per_day * (1 + growth * np.arange(len(at)) / len(at))
    use = np.maximum(0, use + drain_w + rng.normal(0, 2, len(at)))
    charge = np.where((clock > 9) & (clock < 15), rng.uniform(100, 200), 0.0) if sun else 0.0
    watts = charge - use
    volts = np.where(watts > 0, 13.8, 12.6)
    keep = rng.random(len(at)) > 0.03
    none = np.full(len(at), np.nan)
    return Readings(at, np.zeros(len(at), np.int64), volts, watts / volts, none, none).some(keep)


@pytest.mark.parametrize("seed", range(20))
def test_a_hidden_drain_is_found_in_the_night_and_none_where_there_is_none(seed) -> None:
    rng = np.random.default_rng(seed)
    quiet = measured_use(by_hour(logged(rng, 21)), PLANNED)
    assert quiet.drain_w == 0 and quiet.night_w == pytest.approx(20, abs=3)
    leaking = measured_use(by_hour(logged(rng, 21, drain_w=14.0)), PLANNED)
    assert leaking.drain_w == pytest.approx(14, abs=3) and leaking.nights >= 18


@pytest.mark.parametrize("seed", range(10))
def test_use_that_grows_is_found_and_use_that_varies_is_not(seed) -> None:
    rng = np.random.default_rng(100 + seed)
    same = measured_use(by_hour(logged(rng, 45)), PLANNED)
    assert same.then_wh == same.now_wh
    grown = measured_use(by_hour(logged(rng, 45, growth=0.6)), PLANNED)
    assert grown.now_wh / grown.then_wh == pytest.approx(1.35, abs=0.15)


def test_a_day_is_known_where_its_hours_are_and_not_where_the_sun_hides_it() -> None:
    rng = np.random.default_rng(1)
    whole = measured_use(by_hour(logged(rng, 14, sun=False)), PLANNED)
    assert abs(whole.day_wh - PLANNED.energy_wh) < 3 * whole.doubt_wh and whole.doubt_wh < 70
    sunny = measured_use(by_hour(logged(rng, 14)), PLANNED)
    assert np.isnan(sunny.day_wh) and np.isnan(sunny.watts[12]) and not np.isnan(sunny.watts[20])
    assert sunny.watts[20] == pytest.approx(80, rel=0.15)
    nothing = measured_use(by_hour(logged(rng, 1).some(slice(0, 0))), PLANNED)
    assert nothing.days == 0 and np.isnan(nothing.day_wh) and nothing.drain_w == 0
