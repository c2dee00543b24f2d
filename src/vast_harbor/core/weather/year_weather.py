"""Weather of whole seasons: each month has its own days, as many of each kind as its climate has."""

from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.weather.climate import Climate
from vast_harbor.core.weather.daily_weather import (
    KEEPS,
    MIXED,
    STEPS_A_DAY,
    SUNNY,
    Weather,
    air_over,
    blocks,
    shares,
)

# What days have in common whose weather is balanced together: month, and whether they are plugged in.
Group = tuple[int, bool]


@lru_cache(maxsize=32)
def draw_seasons(climate: Climate, groups: tuple[tuple[Group, ...], ...], south: bool, seed: int) -> Weather:
    """Draw the weather of seasons side by side.

    Kinds follow one another as a Markov chain; then as few of them as need be are changed so that each month
    has its share of sunny, mixed and overcast days, over all seasons together. So monthly sums of the sun
    agree with the climate's whatever the seed, and the order of the days is what is drawn.

    Args:
        climate: the kind of climate.
        groups: of each season its days, each with its month, 1 to 12, and whether it is plugged in.
        south: whether the site lies in the southern half of the world.
        seed: of all of it.

    Returns:
        Weather, one row a season.
    """
    rng = np.random.default_rng((seed, 29))
    kinds = np.stack([_chain(rng, climate, days, south) for days in groups])
    months = np.array([[month for month, _ in days] for days in groups])
    plugged = np.array([[mains for _, mains in days] for days in groups])
    for month in range(1, 13):
        for mains in (False, True):
            where = np.argwhere((months == month) & (plugged == mains))
            if len(where):
                _balance(rng, kinds, where, shares(climate, month, south))
    noise = rng.normal(0.0, climate.spread_k, kinds.shape)
    for day in range(1, kinds.shape[1]):
        noise[:, day] = KEEPS * noise[:, day - 1] + (1 - KEEPS**2) ** 0.5 * noise[:, day]
    for month in range(1, 13):
        here = months == month
        if here.any():
            noise[here] -= noise[here].mean()
    index = np.array([climate.turned(m, south) for m in range(1, 13)])[months - 1]
    mean = np.array(climate.mean_c)[index] + noise
    swing = np.array(climate.mean_c)[index] - np.array(climate.low_c)[index]
    sun = np.empty((*kinds.shape, STEPS_A_DAY), dtype=bool)
    for row, col in np.ndindex(*kinds.shape):
        kind = kinds[row, col]
        sun[row, col] = blocks(rng) if kind == MIXED else kind == SUNNY
    air = np.stack([air_over(m, s, k) for m, s, k in zip(mean, swing, kinds, strict=True)])
    return Weather(kinds, sun.reshape(len(kinds), -1), air, mean)


def _chain(
    rng: np.random.Generator, climate: Climate, days: Sequence[Group], south: bool
) -> NDArray[np.int64]:
    """Kinds of days: each stays as the one before, or is drawn from the shares of its month."""
    drawn, again = rng.random(len(days)), rng.random(len(days)) < climate.stays
    out = np.empty(len(days), dtype=np.int64)
    for day, (month, _) in enumerate(days):
        sunny, mixed, _overcast = shares(climate, month, south)
        fresh = int(drawn[day] >= sunny) + int(drawn[day] >= sunny + mixed)
        out[day] = out[day - 1] if day and again[day] else fresh
    return out


def _balance(
    rng: np.random.Generator,
    kinds: NDArray[np.int64],
    where: NDArray[np.int64],
    wanted: tuple[float, float, float],
) -> None:
    """Change as few of some days as need be, so that each kind has its share among them."""
    count = len(where)
    exact = np.array(wanted) * count
    target = np.floor(exact).astype(int)
    for kind in np.argsort(target - exact)[: count - int(target.sum())]:
        target[kind] += 1
    rows, cols = where[:, 0], where[:, 1]
    for short in range(len(target)):
        while (kinds[rows, cols] == short).sum() < target[short]:
            now = np.bincount(kinds[rows, cols], minlength=len(target))
            over = int(np.argmax(now - target))
            spare = np.flatnonzero(kinds[rows, cols] == over)
            at = spare[int(rng.integers(len(spare)))]
            kinds[rows[at], cols[at]] = short
