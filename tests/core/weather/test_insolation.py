"""Sunshine on panels against a reference implementation, step by step over the days of a year."""

import numpy as np
import pandas as pd
import pytest
from pvlib import clearsky, irradiance, solarposition

from sampled import sampled
from vast_harbor import data
from vast_harbor.core.weather.daily_weather import (
    CLOUD,
    STEP_H,
    STEPS_A_DAY,
    clear_share,
    draw_weather,
    shares,
)
from vast_harbor.core.weather.insolation import ALBEDO, MONTH_DAYS, position, sunshine
from vast_harbor.core.weather.sky import nearest, with_sky

SITES = [
    (54.4, -3.1, 0.0, 20.0, 180.0), (-25.3, 131.0, 9.5, 0.0, 0.0), (69.6, 18.9, 1.0, 70.0, 135.0),
    (0.2, -78.5, None, 15.0, 300.0), (-41.3, 174.8, None, 90.0, 10.0),
]  # fmt: skip


def times_of(zone: float) -> pd.DatetimeIndex:
    minutes = (np.arange(STEPS_A_DAY) + 0.5) * STEP_H * 60 - zone * 60
    days = np.array(MONTH_DAYS)[:, None] - 1
    return pd.Timestamp("2025-01-01", tz="UTC") + pd.to_timedelta((days * 1440 + minutes).ravel(), "min")


@pytest.mark.parametrize(("latitude", "longitude", "offset", "tilt", "azimuth"), SITES)
def test_every_quarter_of_an_hour_is_what_pvlib_gives(latitude, longitude, offset, tilt, azimuth) -> None:
    times = times_of(round(longitude / 15) if offset is None else offset)
    sun = solarposition.get_solarposition(times, latitude, longitude)
    zenith, beyond_air = sun["apparent_zenith"], irradiance.get_extra_radiation(times)
    clear = clearsky.simplified_solis(sun["apparent_elevation"], dni_extra=beyond_air)["ghi"]
    clear = clear.where(sun["apparent_elevation"] > 0, 0.0)
    made = sunshine(latitude, longitude, offset, tilt, azimuth)
    for ours, share in ((made.clear, 1.0), (made.cloudy, CLOUD)):
        split = irradiance.erbs(clear * share, zenith, times)
        theirs = irradiance.get_total_irradiance(
            tilt, azimuth, zenith, sun["azimuth"], split["dni"], clear * share, split["dhi"],
            dni_extra=beyond_air, albedo=ALBEDO, model="haydavies",
        )["poa_global"]  # fmt: skip
        theirs = np.where(zenith < 90, np.nan_to_num(theirs), 0.0).reshape(12, STEPS_A_DAY)
        # 2 W/m² but where the sun just passes the three degrees below which all light is diffuse.
        near = (np.abs(zenith.to_numpy() - 87) < 0.1).reshape(12, STEPS_A_DAY)
        assert np.abs(ours - theirs)[~near].max() < 2.0
        assert ours.sum(axis=1) == pytest.approx(theirs.sum(axis=1), rel=2e-3, abs=5.0)


@pytest.mark.parametrize(("latitude", "longitude"), [site[:2] for site in SITES])
def test_the_sun_stands_where_it_should_to_a_fiftieth_of_a_degree(latitude, longitude) -> None:
    times = times_of(0.0)
    theirs = solarposition.get_solarposition(times, latitude, longitude)
    ours = position(
        ((times - pd.Timestamp("2025-01-01", tz="UTC")) / pd.Timedelta(days=1)).to_numpy(),
        latitude,
        longitude,
    )
    # Near the horizon the two bend the light at slightly different heights.
    high = theirs["elevation"].to_numpy() > 1
    zenith = np.degrees(np.arccos(ours.cos_zenith))
    assert np.abs(zenith - theirs["apparent_zenith"].to_numpy())[high].max() < 0.02
    off = np.degrees(ours.azimuth) - theirs["azimuth"].to_numpy()
    across = np.abs((off + 180) % 360 - 180) * np.sin(np.radians(zenith))
    assert across[high].max() < 0.02


# North and south, by the sea and inland.
SOME = ("scotland", "central-europe", "california", "florida-gulf", "new-zealand")


@pytest.mark.parametrize("key", sampled(data.reference().regions, *SOME))
def test_the_weather_brings_the_long_term_sums_of_its_region(key) -> None:
    """Of every month that matters the drawn days bring within a tenth of the region's sum on the flat."""
    reference = data.reference()
    region = reference.regions[key]
    climate = with_sky(reference.climates[region.climate], region)
    sun = sunshine(region.latitude, region.longitude, region.utc_offset_h, 0.0, 180.0)
    south = region.latitude < 0
    for month, wanted in enumerate(region.sun_kwh, 1):
        drawn = draw_weather(climate, [month], 1500, south, [5]).sunlit.reshape(-1, STEPS_A_DAY)
        lit = np.where(drawn, sun.clear[month - 1], sun.cloudy[month - 1])
        if wanted >= 0.3:
            assert lit.sum(axis=1).mean() * STEP_H / 1000 == pytest.approx(wanted, rel=0.1), month
        expected = sun.daily_kwh(month, clear_share(climate, month, south))
        assert expected == pytest.approx(wanted, rel=0.025) or wanted < 0.3
        assert min(shares(climate, month, south)) >= -1e-9


def test_a_place_has_the_sky_of_the_nearest_region_of_its_climate() -> None:
    regions = data.reference().regions
    assert nearest(regions, 52.0, 4.5, "maritime").key == "low-countries"
    assert nearest(regions, 34.5, -111.0, "desert").key == "america-southwest"
    assert nearest(regions, -41.0, 174.0, "maritime").key == "new-zealand"
    # Where no region has that climate, the nearest of its half of the world.
    assert nearest(regions, -42.0, 172.0, "no such kind").key == "new-zealand"
