"""How much of a clear sky a place gets: the shares of its weather brought to its long-term sums."""

from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache
from math import cos, hypot, radians

from vast_harbor.core.weather.climate import Climate, Region
from vast_harbor.core.weather.daily_weather import CLEAR_SHARE, MIXED, OVERCAST, SUNNY
from vast_harbor.core.weather.insolation import sunshine

# Of a clear sky, no month of any place brings more or less than this on average [-].
MOST_CLEAR, LEAST_CLEAR = 0.98, 0.22
# Where the sun hardly rises nothing is known by division [kWh/m² a day].
HARDLY_ANY = 0.05


@lru_cache(maxsize=64)
def sky_shares(region: Region) -> tuple[float, ...]:
    """Share of a clear sky's energy that each month of a region brings on flat ground [-], January first.

    Its long-term daily sums over those of a clear sky there.
    """
    sun = sunshine(region.latitude, region.longitude, region.utc_offset_h, 0.0, 180.0)
    out = []
    for month, kwh in enumerate(region.sun_kwh, 1):
        clear = sun.daily_kwh(month, 1.0)
        share = kwh / clear if clear > HARDLY_ANY else 0.5
        out.append(min(MOST_CLEAR, max(LEAST_CLEAR, share)))
    return tuple(out)


def nearest(regions: Mapping[str, Region], latitude: float, longitude: float, climate: str) -> Region | None:
    """The region whose sky stands for a place: the nearest of its climate kind and half of the world.

    Args:
        regions: by key.
        latitude, longitude: of the place, degrees.
        climate: key of its climate kind.

    Returns:
        A region; None where there is none of that kind.
    """

    def away(r: Region) -> float:
        turn = abs((r.longitude - longitude + 180) % 360 - 180)
        return hypot(r.latitude - latitude, turn * cos(radians(latitude)) / 4)

    same = [r for r in regions.values() if r.sun_kwh and (r.latitude < 0) == (latitude < 0)]
    return min([r for r in same if r.climate == climate] or same, key=away, default=None)


@lru_cache(maxsize=128)
def with_sky(climate: Climate, region: Region) -> Climate:
    """A climate kind with the sky of a region: its shares of sunny and overcast days moved, the rest kept.

    Where a month must be brighter, all its days give up the same share of themselves to sunny ones; where it
    must be darker, to overcast ones.

    Args:
        climate: the kind.
        region: whose long-term sums are to be met.
    """
    south = region.latitude < 0
    sunny, overcast = list(climate.sunny), list(climate.overcast)
    for month, wanted in enumerate(sky_shares(region), 1):
        i = climate.turned(month, south)
        kinds = {SUNNY: sunny[i], MIXED: 1 - sunny[i] - overcast[i], OVERCAST: overcast[i]}
        now = sum(share * CLEAR_SHARE[kind] for kind, share in kinds.items())
        end = SUNNY if wanted > now else OVERCAST
        moved = (wanted - now) / (CLEAR_SHARE[end] - now) if wanted != now else 0.0
        sunny[i] = kinds[SUNNY] * (1 - moved) + (moved if end == SUNNY else 0.0)
        overcast[i] = kinds[OVERCAST] * (1 - moved) + (moved if end == OVERCAST else 0.0)
    return replace(climate, sunny=tuple(sunny), overcast=tuple(overcast))
