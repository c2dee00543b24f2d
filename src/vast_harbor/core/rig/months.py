"""The months in which a rig is used, and the kind of day that stands for each."""

from vast_harbor.core.rig.day_types import OFF_GRID, DayType
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.weather.sun import OPPOSITE, SEASON_MONTHS

# Days of each month.
DAYS = (31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31)


def season_month(day_type: DayType, south: bool) -> int:
    """The month in the middle of a kind of day's season, 1 to 12."""
    return SEASON_MONTHS[OPPOSITE[day_type.season] if south else day_type.season]


def season_of(month: int, south: bool) -> str:
    """The season whose middle month comes nearest to a month, 1 to 12."""

    def away(season: str) -> int:
        gap = abs(SEASON_MONTHS[OPPOSITE[season] if south else season] - month) % 12
        return min(gap, 12 - gap)

    return min(SEASON_MONTHS, key=away)


def type_for(plan: Plan, kind: str, month: int) -> DayType:
    """The kind of day that comes nearest to a month.

    Args:
        plan: with its kinds of day.
        kind: one of ``day_types.KINDS``.
        month: 1 to 12.

    Returns:
        Of that kind the one whose season is nearest; where there is none, one that is used off-grid.
    """

    def away(t: DayType) -> int:
        gap = abs(season_month(t, plan.site.south) - month) % 12
        return min(gap, 12 - gap)

    wanted = [t for t in plan.day_types if t.kind == kind]
    wanted = wanted or [t for t in plan.day_types if t.kind == OFF_GRID] or list(plan.day_types)
    return min(wanted, key=away)


def months_of_use(plan: Plan) -> tuple[int, ...]:
    """Months in which it is used, ascending."""
    return tuple(sorted(plan.months)) or tuple(range(1, 13))


def days_of_use(plan: Plan) -> int:
    """Days of the months in which it is used [1/year]."""
    return sum(DAYS[m - 1] for m in months_of_use(plan))
