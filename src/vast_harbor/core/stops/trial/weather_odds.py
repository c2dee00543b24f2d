"""How often a bank goes dark: the same stretch in many weathers."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.schedule.day_pattern import in_a_row, stretch
from vast_harbor.core.schedule.timeline import Course
from vast_harbor.core.simulation.run import run
from vast_harbor.core.stops.trial.stretch_setup import usual_month
from vast_harbor.core.stops.trial.trial import DARK_WH, Trial

# So many weathers are run at once, between two tellings.
AT_ONCE = 20


@dataclass(frozen=True, slots=True)
class Odds:
    """How often each bank went dark so far.

    Attributes:
        done, of: weathers run, and to be run.
        dark: id of a bank → how often something was not served.
        lowest: id of a bank → the lowest charge of all [-].
    """

    done: int
    of: int
    dark: dict[str, int]
    lowest: dict[str, float]


def odds(trial: Trial, weathers: int) -> Iterator[Odds]:
    """Run the plan's own days in many weathers, telling how far it is.

    Args:
        trial: for its days and banks.
        weathers: how many.

    Yields:
        What is known after each portion; the last one is the whole.
    """
    course: Course = trial.course
    plan = course.plan
    month = plan.tried.month or usual_month(course)
    days = plan.tried.days or 14
    specs = stretch(plan, days, month, in_a_row(plan))
    dark = {lane.id: 0 for lane in trial.lanes}
    lowest = {lane.id: 1.0 for lane in trial.lanes}
    done = 0
    while done < weathers:
        count = min(AT_ONCE, weathers - done)
        seeds = list(range(done + 1, done + count + 1))
        drive, _ = course.lay_out([specs] * count, [month] * count, seeds)
        for lane, traces in zip(trial.lanes, run(trial.lanes, drive, plan.tried.start_soc), strict=True):
            missing = (traces.unserved_dc + traces.unserved_ac).sum(axis=1)
            dark[lane.id] += int((missing > DARK_WH).sum())
            lowest[lane.id] = min(lowest[lane.id], float(traces.soc.min()))
        done += count
        yield Odds(done, weathers, dict(dark), dict(lowest))
