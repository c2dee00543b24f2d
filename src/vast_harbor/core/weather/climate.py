"""Air by month for a kind of climate, and what becomes of it where the battery stands."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.weather.sun import SEASON_MONTHS

# One temperature, or an array of them [°C].
Warmth = TypeVar("Warmth", float, NDArray[np.float64])

LIVING, INSIDE, OUTSIDE, ENGINE = "living_space", "inside_locker", "outside_box", "engine_room"
PLACES = (LIVING, INSIDE, OUTSIDE, ENGINE)
ENGINE_RISE_K = 15.0


@dataclass(frozen=True, slots=True)
class Climate:
    """A kind of climate.

    Attributes:
        key, name, like: how it is called and told.
        mean_c: monthly mean of the air, January first, northern half [°C].
        low_c: monthly mean of the nightly minimum [°C].
        spread_k: standard deviation of a day's mean about the month's [K].
        sunny, overcast: share of such days by month [-]; the rest is mixed.
        stays: chance that a day is like the one before it, beyond that share [-].
    """

    key: str
    name: str
    like: str
    mean_c: tuple[float, ...]
    low_c: tuple[float, ...]
    spread_k: float
    sunny: tuple[float, ...]
    overcast: tuple[float, ...]
    stays: float

    @staticmethod
    def turned(month: int, south: bool) -> int:
        """Index of a month in the tables, 0 to 11: turned by half a year in the south."""
        return (month - 1 + (6 if south else 0)) % 12

    def month_c(self, month: int, south: bool = False) -> float:
        """Mean air temperature of a month [°C]; ``month`` 1 to 12, turned by half a year in the south."""
        return self.mean_c[self.turned(month, south)]

    def season_c(self, season: str) -> float:
        """Mean air temperature of the month in the middle of a season [°C]."""
        return self.mean_c[SEASON_MONTHS[season] - 1]

    def months_c(self, months: Iterable[int], south: bool = False) -> float:
        """Mean air temperature over some months [°C]; over the year when there are none."""
        chosen = list(months) or range(1, 13)
        return sum(self.month_c(m, south) for m in chosen) / len(chosen)


@dataclass(frozen=True, slots=True)
class Region:
    """A place to choose a site from.

    Attributes:
        key, name: how it is called.
        latitude, longitude: degrees, north and east positive.
        utc_offset_h: standard time against UTC [h].
        climate: key of the climate kind that comes nearest.
        currency: code of the money that is paid with there.
        units: ``metric`` or ``us``.
        numbers: whose way of writing numbers, e.g. ``en-US``; empty for none.
        sun_kwh: energy of a mean day on flat ground by month, January first [kWh/m²].
    """

    key: str
    name: str
    latitude: float
    longitude: float
    utc_offset_h: float
    climate: str
    currency: str = "EUR"
    units: str = "metric"
    numbers: str = ""
    sun_kwh: tuple[float, ...] = ()


def warmer(one: Warmth, other: Warmth) -> Warmth:
    """The larger of two temperatures, one by one [°C]."""
    if isinstance(one, np.ndarray) or isinstance(other, np.ndarray):
        return np.maximum(one, other)
    return max(one, other)


def warmth_at(place: str, air_c: Warmth, room_c: Warmth, heated: bool, running: bool) -> Warmth:
    """Temperature of a battery by where it stands.

    Args:
        place: one of :data:`PLACES`.
        air_c: temperature of the outside air, one or an array [°C].
        room_c: temperature of the living space while somebody is in it, likewise [°C].
        heated: whether somebody is in it.
        running: whether the engine runs.

    Returns:
        Temperature of the battery [°C]: the room's in the living space (the air's while nobody is there);
        midway between air and room in an inside locker; the air's in an outside box; 15 K above the air in
        an engine room while the engine runs, else the air's.
    """
    room = warmer(room_c, air_c) if heated else air_c
    if place == LIVING:
        return room
    if place == INSIDE:
        return (air_c + room) / 2
    if place == ENGINE and running:
        return air_c + ENGINE_RISE_K
    return air_c
