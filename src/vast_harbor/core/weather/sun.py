"""Sunrise and sunset, in standard time without daylight saving."""

from dataclasses import dataclass
from math import acos, cos, degrees, pi, radians, sin, tan

from vast_harbor.core.figures.clock import DAY_H, Block

# Upper limb of the sun on the horizon, with refraction.
HORIZON_DEG = -0.833
SUMMER, AUTUMN, WINTER, SPRING = "summer", "autumn", "winter", "spring"
SEASONS = (SPRING, SUMMER, AUTUMN, WINTER)
# Day of the year that stands for a season in the northern half of the world, and its month.
SEASON_DAYS = {SPRING: 105, SUMMER: 172, AUTUMN: 288, WINTER: 355}
SEASON_MONTHS = {SPRING: 4, SUMMER: 7, AUTUMN: 10, WINTER: 1}
OPPOSITE = {SPRING: AUTUMN, SUMMER: WINTER, AUTUMN: SPRING, WINTER: SUMMER}
POLAR_DAY, POLAR_NIGHT, ORDINARY = "polar day", "polar night", "ordinary"


@dataclass(frozen=True, slots=True)
class SunDay:
    """When the sun is up on one day.

    Attributes:
        kind: ``ordinary``, ``polar day`` (it does not set) or ``polar night`` (it does not rise).
        rise_h, set_h: clock hours 0 to 24 [h]; None where it does not.
    """

    kind: str
    rise_h: float | None = None
    set_h: float | None = None

    @property
    def daylight(self) -> tuple[Block, ...]:
        """When it is light, as clock hours; two blocks where the day runs over midnight of the clock."""
        if self.rise_h is None or self.set_h is None:
            return ((0.0, DAY_H),) if self.kind == POLAR_DAY else ()
        if self.rise_h < self.set_h:
            return ((self.rise_h, self.set_h),)
        return ((0.0, self.set_h), (self.rise_h, DAY_H))

    @property
    def night(self) -> tuple[Block, ...]:
        """When it is dark, as clock hours."""
        if self.rise_h is None or self.set_h is None:
            return () if self.kind == POLAR_DAY else ((0.0, DAY_H),)
        if self.rise_h < self.set_h:
            return ((0.0, self.rise_h), (self.set_h, DAY_H))
        return ((self.set_h, self.rise_h),)


def day_of_year(season: str, latitude: float) -> int:
    """The day that stands for a season: the solstices, and the middle of spring and autumn.

    Args:
        season: one of :data:`SEASONS`.
        latitude: degrees, north positive; south of the equator the seasons are turned.

    Returns:
        Day of the year, 1 to 365.
    """
    return SEASON_DAYS[season if latitude >= 0 else OPPOSITE[season]]


def sun_day(latitude: float, longitude: float, utc_offset_h: float | None, day: int) -> SunDay:
    """Sunrise and sunset of a day.

    Args:
        latitude, longitude: degrees, north and east positive.
        utc_offset_h: standard time against UTC [h]; None for the nautical zone of the longitude.
        day: day of the year, 1 to 365.

    Returns:
        Clock times in standard time: there is no daylight saving.

    Source: Spencer, Search 2 (1971) 172: declination and equation of time as Fourier series.
    """
    zone = round(longitude / 15) if utc_offset_h is None else utc_offset_h
    angle = 2 * pi * (day - 1) / 365
    declination = (
        0.006918
        - 0.399912 * cos(angle)
        + 0.070257 * sin(angle)
        - 0.006758 * cos(2 * angle)
        + 0.000907 * sin(2 * angle)
        - 0.002697 * cos(3 * angle)
        + 0.00148 * sin(3 * angle)
    )
    equation_min = 229.18 * (
        0.000075
        + 0.001868 * cos(angle)
        - 0.032077 * sin(angle)
        - 0.014615 * cos(2 * angle)
        - 0.040849 * sin(2 * angle)
    )
    noon = 12 + zone - longitude / 15 - equation_min / 60
    # At the poles themselves the tangent has no bound.
    phi = radians(max(-89.9, min(89.9, latitude)))
    cosine = sin(radians(HORIZON_DEG)) / (cos(phi) * cos(declination)) - tan(phi) * tan(declination)
    if cosine <= -1:
        return SunDay(POLAR_DAY)
    if cosine >= 1:
        return SunDay(POLAR_NIGHT)
    half = degrees(acos(cosine)) / 15
    return SunDay(ORDINARY, (noon - half) % DAY_H, (noon + half) % DAY_H)
