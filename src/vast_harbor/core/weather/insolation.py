"""Sunshine on panels: what a clear sky, and a cloudy one, give by month and by the time of day.

Geometry of the sun and the way onto the plane of the panels, checked in the tests against ``pvlib``. Used
itself it would make a start slower by more than a second and the program larger by 90 MB.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import log

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.weather.daily_weather import CLOUD, STEP_H, STEPS_A_DAY

# The 15th stands for its month.
MONTH_DAYS = (15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349)
ALBEDO = 0.2
# Days from the epoch of the Astronomical Almanac, 2000-01-01 12:00, to the beginning of 2025.
DAYS_TO_2025 = 9131.5
# Air at sea level and 12 °C against that of the formula; height at which the rim of the sun is seen [°].
AIR = 1013.25 / 1010 * 283 / (273 + 12)
RISES = -0.26667 - 0.5667
# Cosine of 87° from the zenith.
LOW_SUN = 0.05234


@dataclass(frozen=True, slots=True, eq=False)
class Sunshine:
    """Irradiance on the plane of some panels.

    Attributes:
        clear, cloudy: under a clear sky and under full cloud [W/m²], shape (12, 96): by month and by step of
            the day in standard time.
    """

    clear: Floats
    cloudy: Floats

    def daily_kwh(self, month: int, share_of_clear: float) -> float:
        """Energy of a mean day [kWh/m²], which is peak-sun-hours and kWh for each kWp.

        Args:
            month: 1 to 12.
            share_of_clear: share of a clear sky that the month brings [-], from its days.
        """
        clear, cloudy = (float(a[month - 1].sum()) * STEP_H / 1000 for a in (self.clear, self.cloudy))
        # 1.0 is a clear sky, the share under full cloud is CLOUD: between them by the time under each.
        lit = (share_of_clear - CLOUD) / (1 - CLOUD)
        return lit * clear + (1 - lit) * cloudy

    def scaled(self, factors: Sequence[float]) -> "Sunshine":
        """The same with each month times a factor, such as to meet the owner's own peak-sun-hours."""
        by = np.asarray(factors, dtype=float)[:, None]
        return Sunshine(self.clear * by, self.cloudy * by)


@lru_cache(maxsize=64)
def sunshine(
    latitude: float, longitude: float, utc_offset_h: float | None, tilt: float, azimuth: float
) -> Sunshine:
    """Irradiance on a plane over the middle day of each month.

    Args:
        latitude, longitude: degrees, north and east positive.
        utc_offset_h: standard time against UTC [h]; None for the nautical zone of the longitude.
        tilt, azimuth: of the plane [°]: 0 is flat, 90 upright; north is 0, east 90.

    Returns:
        By month and time of day; all zero where the sun does not rise.

    Source: clear sky after Simplified Solis, P. Ineichen, Solar Energy 82 (2008) 758; its diffuse share after
        Erbs, Klein and Duffie, Solar Energy 28 (1982) 293; onto the
        plane after Hay and Davies (1980).
    """
    zone = round(longitude / 15) if utc_offset_h is None else utc_offset_h
    hours = (np.arange(STEPS_A_DAY) + 0.5) * STEP_H - zone
    # Days since 2025-01-01 00:00 UTC, shape (12, 96).
    days = np.array(MONTH_DAYS)[:, None] - 1 + hours / 24
    sun = position(days, latitude, longitude)
    clear = _clear_sky(sun)
    return Sunshine(*(_on_plane(clear * share, sun, tilt, azimuth) for share in (1.0, CLOUD)))


@dataclass(frozen=True, slots=True, eq=False)
class Sun:
    """Where the sun stands, in arrays of one shape.

    Attributes:
        cos_zenith: cosine of its distance from the zenith, lifted by the air [-].
        azimuth: its direction [rad], north 0, east a quarter turn.
        beyond_air: irradiance outside of the air, towards the sun [W/m²].
    """

    cos_zenith: Floats
    azimuth: Floats
    beyond_air: Floats


def position(days: Floats, latitude: float, longitude: float) -> Sun:
    """The sun in 2025, to about 0.01°.

    Args:
        days: since 2025-01-01 00:00 UTC, with their fractions.
        latitude, longitude: degrees, north and east positive.

    Returns:
        The sun, in the shape of ``days``.

    Source: J. J. Michalsky, Solar Energy 40 (1988) 227; bending by the air after Reda and Andreas, Solar
        Energy 76 (2004) 577; distance after Spencer, Search 2 (1971) 172.
    """
    n = days + DAYS_TO_2025
    anomaly = np.radians(357.528 + 0.9856003 * n)
    longitude_of_sun = np.radians(
        280.460 + 0.9856474 * n + 1.915 * np.sin(anomaly) + 0.020 * np.sin(2 * anomaly)
    )
    tilt_of_earth = np.radians(23.439 - 4e-7 * n)
    ascension = np.arctan2(np.cos(tilt_of_earth) * np.sin(longitude_of_sun), np.cos(longitude_of_sun))
    declination = np.arcsin(np.sin(tilt_of_earth) * np.sin(longitude_of_sun))
    sidereal_h = 6.697375 + 0.0657098242 * n + 24 * (days % 1)
    hour_angle = np.radians(15 * sidereal_h + longitude) - ascension
    at = np.radians(latitude)
    height = np.arcsin(
        np.sin(declination) * np.sin(at) + np.cos(declination) * np.cos(at) * np.cos(hour_angle)
    )
    azimuth = np.arctan2(
        -np.cos(declination) * np.sin(hour_angle),
        np.sin(declination) * np.cos(at) - np.cos(declination) * np.sin(at) * np.cos(hour_angle),
    )
    degrees = np.degrees(height)
    bent = AIR * 1.02 / (60 * np.tan(np.radians(degrees + 10.3 / (degrees + 5.11))))
    lifted = np.radians(degrees + np.where(degrees > RISES, bent, 0.0))
    turn = 2 * np.pi * np.floor(days) / 365
    beyond_air = 1366.1 * (
        1.00011 + 0.034221 * np.cos(turn) + 0.00128 * np.sin(turn)
        + 0.000719 * np.cos(2 * turn) + 0.000077 * np.sin(2 * turn)
    )  # fmt: skip
    return Sun(np.sin(lifted), azimuth, beyond_air)


# Haze and water of the air over a clear day: aerosol optical depth at 700 nm [-], precipitable water [cm].
HAZE, WATER_CM = 0.1, 1.0


def _clear_sky(sun: Sun) -> Floats:
    """Global irradiance on flat ground under a clear sky [W/m²], at sea level, after Simplified Solis."""
    w, aod = log(WATER_CM), HAZE
    enhanced = sun.beyond_air * (0.12 * WATER_CM**0.56 * aod**2 + 0.97 * WATER_CM**0.032 * aod
                                 + 1.08 * WATER_CM**0.0051)  # fmt: skip
    tau = (1.24 + 0.047 * w + 0.0061 * w**2) * aod + 0.27 + 0.043 * w + 0.0090 * w**2
    g = -0.0147 * w - 0.3079 * aod**2 + 0.2846 * aod + 0.3798
    up = sun.cos_zenith > 0
    cosine = np.where(up, sun.cos_zenith, 1.0)
    return np.where(up, enhanced * np.exp(-tau / cosine**g) * cosine, 0.0)


def _diffuse_share(clearness: Floats) -> Floats:
    """Share of the global irradiance that comes from the sky, after Erbs, Klein and Duffie."""
    between = 0.9511 + clearness * (
        -0.1604 + clearness * (4.388 + clearness * (-16.638 + clearness * 12.336))
    )
    return np.where(clearness <= 0.22, 1 - 0.09 * clearness, np.where(clearness <= 0.8, between, 0.165))


def _on_plane(flat_w: Floats, sun: Sun, tilt: float, azimuth: float) -> Floats:
    """Global irradiance parted into direct and diffuse, and both brought onto the plane [W/m²]."""
    cosine = sun.cos_zenith
    clearness = np.clip(flat_w / (sun.beyond_air * np.maximum(cosine, 0.065)), 0.0, 1.0)
    diffuse = _diffuse_share(clearness) * flat_w
    # Within three degrees of the horizon all light is diffuse.
    low = cosine < LOW_SUN
    diffuse = np.where(low, flat_w, diffuse)
    direct = np.where(low, 0.0, (flat_w - diffuse) / np.where(low, 1.0, cosine))
    lean = np.radians(tilt)
    incidence = cosine * np.cos(lean) + np.sqrt(np.maximum(0.0, 1 - cosine**2)) * np.sin(lean) * np.cos(
        sun.azimuth - np.radians(azimuth)
    )
    faced = np.maximum(0.0, incidence)
    around_sun = direct / sun.beyond_air
    sky = diffuse * (
        around_sun * faced / np.maximum(cosine, 0.01745) + (1 - around_sun) * (1 + np.cos(lean)) / 2
    )
    ground = flat_w * ALBEDO * (1 - np.cos(lean)) / 2
    return np.where(cosine > 0, direct * faced + sky + ground, 0.0)
