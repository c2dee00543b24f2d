"""Sunshine on panels: what a clear sky, and a cloudy one, give by month and by the time of day.

Geometry of the sun and the way onto the plane of the panels by ``pvlib``, loaded only when it is needed.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.weather.daily_weather import CLOUD, STEP_H, STEPS_A_DAY

Floats = NDArray[np.float64]
# The 15th stands for its month.
MONTH_DAYS = (15, 46, 74, 105, 135, 166, 196, 227, 258, 288, 319, 349)
ALBEDO = 0.2


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


# latitude, longitude, utc_offset_h, tilt, azimuth → sunshine
SunshineOf = Callable[[float, float, float | None, float, float], "Sunshine"]


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

    Source: clear sky after Haurwitz, J. Meteorology 2 (1945) 154 (as in Reno, Hansen and Stein,
        SAND2012-2389); its diffuse share after Erbs, Klein and Duffie, Solar Energy 28 (1982) 293; onto the
        plane after Hay and Davies (1980).
    """
    import pandas as pd
    from pvlib import clearsky, irradiance, solarposition

    zone = round(longitude / 15) if utc_offset_h is None else utc_offset_h
    minutes = (np.arange(STEPS_A_DAY) + 0.5) * STEP_H * 60 - zone * 60
    days = np.array(MONTH_DAYS)[:, None] - 1
    times = pd.Timestamp("2025-01-01", tz="UTC") + pd.to_timedelta((days * 1440 + minutes).ravel(), "min")
    sun = solarposition.get_solarposition(times, latitude, longitude)
    clear = clearsky.haurwitz(sun["apparent_zenith"])["ghi"].to_numpy()
    extra = irradiance.get_extra_radiation(times).to_numpy()
    planes = [
        _on_plane(clear * share, sun, extra, tilt, azimuth, times).reshape(12, STEPS_A_DAY)
        for share in (1.0, CLOUD)
    ]
    return Sunshine(*planes)


def _on_plane(global_w: Floats, sun: Any, extra: Floats, tilt: float, azimuth: float, times: Any) -> Floats:
    """Global irradiance parted into direct and diffuse, and both brought onto the plane [W/m²]."""
    from pvlib import irradiance

    zenith = sun["apparent_zenith"].to_numpy()
    split = irradiance.erbs(global_w, zenith, times)
    total = irradiance.get_total_irradiance(
        tilt, azimuth, zenith, sun["azimuth"].to_numpy(), np.asarray(split["dni"]), global_w,
        np.asarray(split["dhi"]), dni_extra=extra, albedo=ALBEDO, model="haydavies",
    )  # fmt: skip
    on_plane = np.nan_to_num(np.asarray(total["poa_global"]))
    return np.asarray(np.maximum(np.where(zenith < 90, on_plane, 0.0), 0.0))
