"""How often a bank goes dark: the same stretch in many weathers."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.schedule.day_pattern import in_a_row, stretch
from vast_harbor.core.schedule.timeline import Timeline
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
    timeline: Timeline = trial.timeline
    plan = timeline.plan
    month = plan.trial.month or usual_month(timeline)
    days = plan.trial.days or 14
    specs = stretch(plan, days, month, in_a_row(plan))
    dark = {simulated.id: 0 for simulated in trial.simulated_banks}
    lowest = {simulated.id: 1.0 for simulated in trial.simulated_banks}
    done = 0
    while done < weathers:
        count = min(AT_ONCE, weathers - done)
        seeds = list(range(done + 1, done + count + 1))
        conditions, _ = timeline.lay_out([specs] * count, [month] * count, seeds)
        for simulated, traces in zip(
            trial.simulated_banks, run(trial.simulated_banks, conditions, plan.trial.start_soc), strict=True
        ):
            missing = (traces.unserved_dc + traces.unserved_ac).sum(axis=1)
            dark[simulated.id] += int((missing > DARK_WH).sum())
            lowest[simulated.id] = min(lowest[simulated.id], float(traces.soc.min()))
        done += count
        yield Odds(done, weathers, dict(dark), dict(lowest))
