"""The days that stand for a year, in several weathers."""

from dataclasses import dataclass

import numpy as np

from vast_harbor.core.arrays import Flags
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.clock import DAY_H
from vast_harbor.core.rig.day_types import CARRIED
from vast_harbor.core.schedule.day_pattern import DaySpec
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.weather.daily_weather import Weather

# Years side by side, each with its own weather; more where a year has few nights.
WEATHERS, MOST_WEATHERS = 3, 9
# Nights that are enough to count shares of them.
ENOUGH = 12
SEED = 11


@dataclass(frozen=True)
class YearPlan:
    """The days that stand for a year, in several weathers.

    Attributes:
        timeline: the rig's days.
        weathers: how many; None for three, or more where a year has few nights.
        like: the year of a rig that differs in its sources only, in as many weathers; None to lay all out.
    """

    timeline: Timeline
    weathers: int | None = None
    like: "YearPlan | None" = None

    @cached_property
    def calendar(self) -> YearCalendar:
        """How the days follow one another."""
        return YearCalendar(self.timeline.plan)

    @cached_property
    def specs(self) -> tuple[tuple[DaySpec, ...], ...]:
        """The days of each weather; stays fall on other days in each."""
        if self.like is not None and self.like.calendar.key == self.calendar.key:
            return self.like.specs
        first = self.calendar.days(0.0)
        a_year = sum(map(_is_night, first))
        count = self.weathers or min(MOST_WEATHERS, max(WEATHERS, -(-ENOUGH // max(1, a_year))))
        return (first, *(self.calendar.days(k / count) for k in range(1, count)))

    @cached_property
    def conditions(self) -> Conditions:
        """The days laid out."""
        if self.like is None:
            return self.laid[0].doubled()
        laid, weather = self.like.laid
        return self.timeline.with_own_sources(self.like.timeline, laid, self.specs, weather).doubled()

    @cached_property
    def laid(self) -> tuple[Conditions, Weather]:
        """The days laid out once, and their weather."""
        return self.timeline.calm.seasons(self.specs, SEED)

    @property
    def a_day(self) -> int:
        """Steps of a day."""
        return round(DAY_H / self.conditions.step_h)

    @cached_property
    def off_grid(self) -> Flags:
        """Whether each day is one off-grid, shape (weathers, days)."""
        return np.array([[_is_night(d) for d in days] for days in self.specs], dtype=bool)

    @cached_property
    def plugged(self) -> Flags:
        """Whether each day has mains, same shape."""
        return np.array([[d.hook_up for d in days] for days in self.specs], dtype=bool)

    @cached_property
    def nights(self) -> int:
        """Off-grid nights in all weathers."""
        return int(self.off_grid.sum())

    @property
    def scale(self) -> float:
        """Off-grid nights of the year for each simulated one."""
        return self.timeline.plan.off_grid_nights / self.nights


def _is_night(day: DaySpec) -> bool:
    return day.kind in CARRIED
