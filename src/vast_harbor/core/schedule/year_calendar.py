"""The year of a rig day by day: stays off-grid, and what lies between them, in the months of use."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import log

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.rig.day_types import HOOK_UP, LAID_UP, OFF_GRID, TRAVELLING
from vast_harbor.core.rig.months import DAYS, days_of_use, months_of_use, type_for
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.sources import ENGINE, MAINS
from vast_harbor.core.schedule.day_pattern import IN_A_ROW, DaySpec, has_hook_up, idle_type

# Days between two stays, as they are laid out: near enough that a step changes little, so few that a plan at
# other nights often meets days that were run before.
GAPS = (
    *(n / 8 for n in range(16)), 2.0, 2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 7.0, 8.0, 10.0, 12.0, 14.0,
    17.0, 20.0, 24.0, 28.0, 34.0, 40.0, 48.0, 58.0, 70.0, 84.0, 100.0, 120.0, 150.0, 180.0, 364.0,
)  # fmt: skip
# A few of them.
SPACINGS = (0.0, 0.5, 1.0, 2.0, 4.0, 6.0, 12.0, 28.0, 70.0, 180.0)
# After so many days on mains nothing changes any more: longer ones between stays are cut to it.
PLUGGED = 6.0
# Where stays are far apart and the rig is plugged in between, so many nights of each month are laid out.
NIGHTS_A_MONTH = 4
# Days with nobody there before a season, where nothing is plugged in: who lays a rig up full finds it so.
BEFORE_SEASON = 14


@dataclass(frozen=True)
class YearCalendar:
    """How the days of a year follow one another.

    Attributes:
        plan: with its nights, months and sources.
    """

    plan: Plan

    @cached_property
    def months(self) -> tuple[int, ...]:
        """Months of use in the order in which they are gone through.

        A season begins after the longest time without use; who is out all the year begins in midsummer.
        """
        used = months_of_use(self.plan)
        if len(used) == 12:
            first = 12 if self.plan.site.south else 6
            return tuple((first - 1 + i) % 12 + 1 for i in range(12))

        def unused_before(month: int) -> int:
            return next(n for n in range(12) if (month - 2 - n) % 12 + 1 in used)

        first = max(used, key=unused_before)
        return tuple(m for i in range(12) if (m := (first - 1 + i) % 12 + 1) in used)

    @cached_property
    def days_of_use(self) -> int:
        """Days of the months of use."""
        return days_of_use(self.plan)

    @cached_property
    def nights(self) -> float:
        """Off-grid nights a year, no more than there are."""
        return min(self.plan.off_grid_nights, float(self.days_of_use))

    @cached_property
    def row(self) -> int:
        """Nights off-grid in a row."""
        row = max(1, round(self.plan.nights_in_a_row or IN_A_ROW))
        return min(row, self.days_of_use, max(1, round(self.nights)))

    @cached_property
    def plugged(self) -> bool:
        """Whether a charger on mains works between two stays."""
        return has_hook_up(self.plan) and any(s.kind == MAINS for s in self.plan.sources)

    @cached_property
    def gap(self) -> float:
        """Days between two stays."""
        if self.nights <= 0:
            return GAPS[-1]
        real = self.row * (self.days_of_use / self.nights - 1)
        if self.plugged and real >= PLUGGED:
            return PLUGGED
        return min(GAPS, key=lambda g: abs(g - real))

    @cached_property
    def spacing(self) -> float:
        """Days between two stays, more roughly: one of a few, for a look at many numbers of nights."""
        return min(SPACINGS, key=lambda g: abs(log(1 + g) - log(1 + self.gap)))

    def nights_at(self, spacing: float) -> float:
        """Nights a year at which stays are so many days apart."""
        row = max(1, round(self.plan.nights_in_a_row or IN_A_ROW))
        return max(1.0, self.days_of_use * row / (row + spacing))

    @cached_property
    def sparse(self) -> bool:
        """Whether each stay begins as any other, so that some of each month stand for all."""
        return self.plugged and self.gap >= PLUGGED

    @cached_property
    def hook_ups(self) -> float:
        """Of the days between two stays, those on hook-up with somebody there."""
        stays = self.nights / self.row
        return min(self.gap, self.plan.hook_up_nights / stays) if stays > 0 else 0.0

    @cached_property
    def key(self) -> tuple[object, ...]:
        """What the days depend on, beyond what each is like."""
        return self.months, self.row, self.gap, self.plugged, round(self.hook_ups, 2), self._drives

    @cached_property
    def _drives(self) -> bool:
        """Whether the engine charges, so that days of driving are told apart."""
        return any(s.kind == ENGINE for s in self.plan.sources) and self.plan.drive_hours > 0

    def days(self, shift: float) -> tuple[DaySpec, ...]:
        """The days one after the other.

        Args:
            shift: how much later stays fall, as a share of the time from one to the next [-].

        Returns:
            All of them, each with its month; as many whatever the shift.
        """
        days = self._sparse() if self.sparse else self._in_full(shift)
        return tuple(days)

    def _sparse(self) -> Iterator[DaySpec]:
        stays = max(1, -(-NIGHTS_A_MONTH // self.row))
        for i, month in enumerate(self.months):
            for k in range(stays):
                for night in range(self.row):
                    later = self.months[min(len(self.months) - 1, i + night // 30)]
                    yield self._stay(later, night)
                for day in range(int(PLUGGED)):
                    yield self._between(month, day, i * stays + k)

    def _in_full(self, shift: float) -> Iterator[DaySpec]:
        period, before, at = self.row + self.gap, 0, 0
        for month in self.months:
            if before and (before % 12) + 1 != month:
                for day in range(int(PLUGGED) if self.plugged else BEFORE_SEASON):
                    yield self._between(month, day + PLUGGED, 0)
            before = month
            for _ in range(DAYS[month - 1]):
                stay, place = divmod(at + shift * period, period)
                at += 1
                if place < self.row:
                    yield self._stay(month, int(place))
                else:
                    yield self._between(month, int(place - self.row), int(stay))

    def _stay(self, month: int, night: int) -> DaySpec:
        plan, every = self.plan, self.plan.drive_every
        drives = self._drives and (night == 0 if every is None else night % every == 0)
        places = plan.trial.pitches or (plan.pitch,)
        kind = TRAVELLING if drives else OFF_GRID
        return DaySpec(kind, type_for(plan, kind, month), False, drives, places[night % len(places)], month)

    def _between(self, month: int, day: float, stay: int) -> DaySpec:
        plan = self.plan
        # As many whole days as bring the mean to what the owner stated.
        there = int((stay + 1) * self.hook_ups) - int(stay * self.hook_ups)
        if day < there:
            return DaySpec(HOOK_UP, type_for(plan, HOOK_UP, month), True, False, plan.pitch, month)
        return DaySpec(LAID_UP, idle_type(plan, month), self.plugged, False, plan.pitch, month)
