"""Days, and when something runs, in words."""

from collections.abc import Mapping
from datetime import date
from typing import Any

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.day import Day, charge_window
from vast_harbor.phrases import phrase


def day_text(day: int, style: Style) -> str:
    """A counted day (``date.toordinal``) as its owner writes it."""
    return style.date(date.fromordinal(day).isoformat())


def usual_time(load: Mapping[str, Any]) -> str:
    """When a load runs, in words.

    Args:
        load: as it stands in a rig file.
    """
    if load["use"] == "standby":
        return phrase("answers.reference.day")
    if load["use"] == "uses":
        return phrase("answers.reference.min", uses=f"{load['uses']:g}", minutes=f"{load['minutes']:g}")
    if load["use"] == "times":
        return phrase("answers.reference.times")
    return f"{load['hours']:g} h"


def charge_text(results: Results, day: Day) -> str:
    """When the sun or the engine charges on a day, in words."""
    window = charge_window(results.plan, day)
    if window is None:
        return phrase("answers.day_views.never_because_sun_rise")
    return f"{clock_text(window[0].number)} to {clock_text(window[1].number)}"
