"""Sunrise and sunset against almanac times, and where there are none."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.clock import union_hours
from vast_harbor.core.weather.sun import POLAR_DAY, POLAR_NIGHT, SEASONS, day_of_year, sun_day

MINUTES = 4 / 60


@pytest.mark.parametrize(
    ("latitude", "longitude", "zone", "day", "rise", "set_"),
    [
        # Greenwich, 21 June and 21 December, in GMT; Quito at the equinox; Sydney in January without saving.
        (51.48, 0.0, 0, 172, 3 + 43 / 60, 20 + 21 / 60),
        (51.48, 0.0, 0, 355, 8 + 4 / 60, 15 + 53 / 60),
        (-0.2, -78.5, -5, 80, 6 + 18 / 60, 18 + 25 / 60),
        (-33.87, 151.2, 10, 15, 4 + 59 / 60, 19 + 9 / 60),
    ],
)
def test_sunrise_and_sunset_of_the_almanac(latitude, longitude, zone, day, rise, set_) -> None:
    found = sun_day(latitude, longitude, zone, day)
    assert found.rise_h == pytest.approx(rise, abs=MINUTES)
    assert found.set_h == pytest.approx(set_, abs=MINUTES)


def test_latitude_70_in_december_has_no_day_and_in_june_no_night() -> None:
    december, june = (sun_day(70, 20, 1, day_of_year(s, 70)) for s in ("winter", "summer"))
    assert (december.kind, december.daylight, december.night) == (POLAR_NIGHT, (), ((0, 24),))
    assert (june.kind, june.daylight, june.night) == (POLAR_DAY, ((0, 24),), ())
    # In the south the seasons are turned: winter at 70° S is June.
    assert sun_day(-70, 20, 1, day_of_year("winter", -70)).kind == POLAR_NIGHT


@given(
    latitude=st.floats(-90, 90),
    longitude=st.floats(-180, 180),
    season=st.sampled_from(SEASONS),
    zone=st.none() | st.integers(-12, 14),
)
def test_day_and_night_share_the_24_hours(latitude, longitude, season, zone) -> None:
    found = sun_day(latitude, longitude, zone, day_of_year(season, latitude))
    parts = [*found.daylight, *found.night]
    assert sum(end - start for start, end in parts) == pytest.approx(24)
    assert all(0 <= start <= end <= 24 for start, end in parts)
    assert sum(end - start for start, end in union_hours(parts)) == pytest.approx(24)
    if abs(latitude) < 60:
        light = sum(end - start for start, end in found.daylight)
        summer = sum(
            e - s for s, e in sun_day(latitude, longitude, zone, day_of_year("summer", latitude)).daylight
        )
        assert light <= summer + 0.05
