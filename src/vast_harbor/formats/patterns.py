"""What a pattern of use fills a rig with: loads, sources, kinds of day and nights that suit such a rig."""

from collections.abc import Mapping, Sequence
from typing import Any

from vast_harbor.core.rig.plan import CABIN
from vast_harbor.core.rig.sources import USUAL
from vast_harbor.core.weather.sun import SEASON_MONTHS
from vast_harbor.formats.day_part import usual_day_types
from vast_harbor.formats.rig_document import StatedPart

RIG_FIELDS = ("off_grid_nights", "hook_up_nights", "nights_in_a_row", "drive_hours", "months", "place")
# The topics that a pattern fills in; the rest of what it does not know is missing.
FILLED = ("nights", "row", "hook_up", "months", "loads", "place")
# How many months a season lies to either side of its middle.
HALF_A_SEASON = 2


def nothing_stated() -> dict[str, bool]:
    """The ``stated`` part of a new rig: nobody has said anything yet."""
    return dict.fromkeys(StatedPart.model_fields, False)


def pattern_for(patterns: Mapping[str, Mapping[str, Any]], kind: str) -> str:
    """The pattern that a kind of rig follows most often: the first that names it, else the first.

    Args:
        patterns: by key, in their order.
        kind: of the rig.

    Returns:
        Its key.
    """
    return next((key for key, p in patterns.items() if p["kinds"][0] == kind), None) or next(
        (key for key, p in patterns.items() if kind in p["kinds"]), next(iter(patterns))
    )


def from_pattern(
    pattern: Mapping[str, Any],
    appliances: Mapping[str, Mapping[str, Any]],
    kind: str = "",
    south: bool = False,
) -> dict[str, Any]:
    """What a pattern of use fills a rig with, as it would be typed.

    Args:
        pattern: fields of the rig, ``assumptions``, ``standby_w``, and ``loads`` by the names of appliances,
            with their number before ``×``.
        appliances: name → load as it would be typed.
        kind: of the rig; a cabin does not travel.
        south: whether it is used in the southern half of the world, where the months are turned.

    Returns:
        ``rig``, ``day``, ``plan`` and ``sources`` parts of a document; the sources marked as assumed.

    Raises:
        KeyError: an appliance that is not in the list.
    """
    loads = []
    for i, entry in enumerate(pattern["loads"], 1):
        count, _, name = entry.rpartition(" × ")
        loads.append({"id": f"load-{i}", **appliances[name], "quantity": int(count or 1)})
    rig = {f: pattern[f] for f in RIG_FIELDS}
    rig["months"] = sorted((m + 5) % 12 + 1 for m in rig["months"]) if south else rig["months"]
    return {
        "rig": rig,
        "day": {"types": _day_types(pattern, kind), "loads": loads, "standby_w": pattern["standby_w"]},
        "plan": {"overrides": dict(pattern["assumptions"])},
        "sources": typical_sources(pattern["sources"], assumed=True),
    }


def _day_types(pattern: Mapping[str, Any], kind: str) -> list[dict[str, Any]]:
    """The kinds of day that occur: off-grid in the seasons of use, and what is done there."""

    def used(season: str) -> bool:
        middle = SEASON_MONTHS[season]
        months: Sequence[int] = pattern["months"]
        return min(min(abs(m - middle), 12 - abs(m - middle)) for m in months) < HALF_A_SEASON

    out = []
    for day_type in usual_day_types():
        keep = {
            "off_grid": used(day_type.season),
            "travelling": kind != CABIN and pattern["drive_hours"] > 0,
            "hook_up": pattern["hook_up_nights"] > 0,
            "laid_up": len(pattern["months"]) < 12,
        }[day_type.kind]
        if keep:
            # What is used in one season only is looked at in that one.
            season = day_type.season if used(day_type.season) or day_type.kind == "laid_up" else "winter"
            out.append(day_type.model_dump() | {"season": season})
    return out


def typical_sources(kinds: Sequence[str], *, assumed: bool) -> list[dict[str, Any]]:
    """Sources of some kinds as such rigs have them, for the owner to correct.

    Args:
        kinds: keys of ``sources.USUAL``.
        assumed: whether nobody has said yet that they are there.
    """
    return [{"id": f"{kind}-1", "kind": kind, "assumed": assumed, **USUAL[kind]} for kind in kinds]
