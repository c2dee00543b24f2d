"""Weather by the day, drawn with a seed: a stand-in for a record, which plays as such weather does.

Days are sunny, mixed or overcast, a Markov chain by month; on a mixed day sun and cloud change every 30 to
90 minutes. The temperature of a day lies about the mean of its month and stays near the day before's.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Floats
from vast_harbor.core.weather.climate import Climate

STEP_H, STEPS_A_DAY = 0.25, 96
SUNNY, MIXED, OVERCAST = 0, 1, 2
NAMES = ("sunny", "mixed", "overcast")
# Share of a clear sky that comes through cloud, and over the day of each kind.
CLOUD = 0.2
CLEAR_SHARE = (1.0, 0.55, 0.2)
# Steps of a block of sun and of cloud on a mixed day: 30 to 75 and 45 to 90 minutes, 0.55 of a clear sky.
SUN_BLOCK, CLOUD_BLOCK = (2, 5), (3, 6)
# How far the swing of a day's temperature goes, against the month's mean, and its warmest hour.
SWING = (1.3, 1.0, 0.55)
WARMEST_H = 15.0
# A day's temperature keeps so much of the day before's.
KEEPS = 0.6
# What the coldest night of a winter has below the mean minimum, in standard deviations of a day.
COLD_SNAP = 2.0


@dataclass(frozen=True, slots=True, eq=False)
class Weather:
    """Weather of several stretches side by side.

    Attributes:
        kinds: of each day, shape (stretches, days).
        sunlit: whether the sun is out in each step, shape (stretches, steps).
        air_c: temperature of the air in each step [°C], shape (stretches, steps).
        mean_c: of each day [°C], shape (stretches, days).
    """

    kinds: NDArray[np.int64]
    sunlit: NDArray[np.bool_]
    air_c: Floats
    mean_c: Floats


def shares(climate: Climate, month: int, south: bool) -> tuple[float, float, float]:
    """Shares of sunny, mixed and overcast days of a month [-]."""
    i = climate.turned(month, south)
    return climate.sunny[i], 1 - climate.sunny[i] - climate.overcast[i], climate.overcast[i]


def draw_weather(
    climate: Climate, months: Sequence[int], days: int, south: bool, seeds: Sequence[int],
    kinds: Sequence[int] | None = None, colder_k: float = 0.0,
) -> Weather:  # fmt: skip
    """Draw stretches of weather.

    Args:
        climate: the kind of climate.
        months: month of each stretch, 1 to 12.
        days: days of each.
        south: whether the site lies in the southern half of the world.
        seeds: seed of each stretch; the same seed and month give the same weather.
        kinds: the kinds of the days where they are not to be drawn.
        colder_k: how much colder than drawn it is [K].

    Returns:
        Weather, one row a stretch.
    """
    columns = [
        _stretch(climate, month, days, south, seed, kinds) for month, seed in zip(months, seeds, strict=True)
    ]
    kind, sun, air, mean = (np.stack(part) for part in zip(*columns, strict=True))
    return Weather(kind, sun, air - colder_k, mean - colder_k)


def _stretch(
    climate: Climate, month: int, days: int, south: bool, seed: int, kinds: Sequence[int] | None
) -> tuple[NDArray[np.int64], NDArray[np.bool_], Floats, Floats]:
    rng = np.random.default_rng((seed, month, 7))
    i = climate.turned(month, south)
    kind = _kinds(rng, shares(climate, month, south), climate.stays, days)
    if kinds is not None:
        kind = np.array([kinds[d % len(kinds)] for d in range(days)])
    sun = np.empty((days, STEPS_A_DAY), dtype=bool)
    for day in range(days):
        sun[day] = blocks(rng) if kind[day] == MIXED else kind[day] == SUNNY
    noise = rng.normal(0.0, climate.spread_k, days + 1)
    mean, near = np.empty(days), noise[0]
    for day in range(days):
        near = KEEPS * near + (1 - KEEPS**2) ** 0.5 * noise[day + 1]
        mean[day] = climate.mean_c[i] + near
    swing = np.full(days, climate.mean_c[i] - climate.low_c[i])
    return kind, sun.ravel(), air_over(mean, swing, kind), mean


def air_over(mean: Floats, swing: Floats, kind: NDArray[np.int64]) -> Floats:
    """Temperature of the air over days in a row [°C], shape (days · 96,).

    Args:
        mean: of each day [°C], shape (days,).
        swing: from the month's mean to its nightly minimum [K], same shape.
        kind: kind of each day, same shape.
    """
    hours = (np.arange(len(mean) * STEPS_A_DAY) + 0.5) * STEP_H
    # From one day to the next temperature does not jump: it is drawn between the noons.
    noons = np.arange(len(mean)) * 24 + 12.0
    reach = np.interp(hours, noons, swing * np.array(SWING)[kind])
    return np.asarray(np.interp(hours, noons, mean) + reach * np.cos(2 * np.pi * (hours - WARMEST_H) / 24))


def _kinds(
    rng: np.random.Generator, shares: tuple[float, float, float], stays: float, days: int
) -> NDArray[np.int64]:
    """A Markov chain whose long-run shares are those given: it stays as it was, or is drawn anew."""
    fresh = rng.choice(3, size=days, p=shares)
    again = rng.random(days) < stays
    out = fresh.copy()
    for day in range(1, days):
        if again[day]:
            out[day] = out[day - 1]
    return out


def blocks(rng: np.random.Generator) -> NDArray[np.bool_]:
    """Sun and cloud in turn over a mixed day."""
    out = np.empty(STEPS_A_DAY, dtype=bool)
    lit, at = bool(rng.integers(2)), 0
    while at < STEPS_A_DAY:
        low, high = SUN_BLOCK if lit else CLOUD_BLOCK
        length = int(rng.integers(low, high + 1))
        out[at : at + length] = lit
        lit, at = not lit, at + length
    return out


def clear_share(climate: Climate, month: int, south: bool) -> float:
    """Share of a clear sky's energy that a month brings on average [-]."""
    return sum(s * c for s, c in zip(shares(climate, month, south), CLEAR_SHARE, strict=True))


def coldest_c(climate: Climate, month: int, south: bool) -> float:
    """The coldest night that a month is likely to bring [°C]."""
    return climate.low_c[climate.turned(month, south)] - COLD_SNAP * climate.spread_k
