"""From when to when the bank is charged on a kind of day."""

from vast_harbor.core.figures.workings import REFERENCE, Figure, typed
from vast_harbor.core.rig.day_types import TRAVELLING
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.day.energy_audit import Day
from vast_harbor.phrases import phrase

# Without a site; while the sun does not set; and about when people drive.
DAYLIGHT, BRIGHT, NOON_H = (9.0, 17.0), (6.0, 20.0), 13.0
# The sun gives little in the first and the last hour.
LEAD_H = 1.0


def charge_window(plan: Plan, day: Day) -> tuple[Figure, Figure] | None:
    """From when to when the bank is charged on a kind of day.

    Args:
        plan: for the hours driven.
        day: the day in figures.

    Returns:
        Clock hours of the first and the last charge [h]; None when there is none (polar night).
    """
    kind, at = day.type, f"day.{day.type.id}"
    path = plan.type_path(kind)
    start, end = DAYLIGHT
    source = phrase("day.charge_window.typical_daylight_because_place")
    if kind.kind == TRAVELLING and plan.drive_hours > 0:
        half = min(12.0, plan.drive_hours / 2)
        start, end, source = (
            NOON_H - half,
            NOON_H + half,
            phrase("day.charge_window.driving_hours_around_afternoon"),
        )
    elif day.sun is not None:
        if not day.sun.daylight:
            return None
        if day.sun.rise_h is None or day.sun.set_h is None:
            start, end = BRIGHT
        else:
            length = (day.sun.set_h - day.sun.rise_h) % 24
            lead = min(LEAD_H, length / 4)
            start, end = (day.sun.rise_h + lead) % 24, (day.sun.set_h - lead) % 24
        source = phrase("day.charge_window.hour_after_sunrise_hour")

    def moment(name: str, title: str, stated: float | None, otherwise: float) -> Figure:
        if stated is not None:
            return typed(f"{at}.{name}", title, stated, "clock", f"{path}/{name}")
        return Figure(f"{at}.{name}", title, otherwise, "clock", REFERENCE, source=source)

    return (
        moment("charge_from", phrase("day.charge_window.charge_from"), kind.charge_from, start),
        moment("charge_to", phrase("day.charge_window.charge_to"), kind.charge_to, end),
    )
