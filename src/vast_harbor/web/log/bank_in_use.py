"""Which bank is in use, after the plan: the one that was changed over to, else the old one."""

from datetime import date

from vast_harbor.core.log.duties import InUse
from vast_harbor.core.log.entry import OLD, PRESENT
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.sources import MAINS

# The step of the changeover with which a bank runs, and the one that proves it.
RUNS, PROVED = "isolated", "acceptance"
# Steps of the changeover that are duties of the log, too: what is ticked there is done here.
LOOKS = {"look_day": "day_after", "look_fortnight": "fortnight", "look_quarter": "quarter"}


def _day(text: str) -> int | None:
    """A day as it was entered, counted; the first of a month that stands alone; None where there is none."""
    try:
        return date.fromisoformat(text if len(text) > 7 else f"{text}-01").toordinal()
    except ValueError:
        return None


def bank_in_use(results: Results) -> InUse | None:
    """The bank that the duties are about.

    Args:
        results: the plan in figures.

    Returns:
        The bank that is bought once its changeover has come to where it runs; before, the old bank; None
        where there is neither.
    """
    plan, made = results.plan, results.changeover
    mains = any(source.kind == MAINS for source in plan.sources)
    if made is not None and (running := plan.changeover.tick(RUNS)).done:
        proved = plan.changeover.tick(PROVED).done
        return InUse(
            made.work.build.bank.model.battery_class,
            since=_day(running.on),
            changed_over=True,
            mains=mains,
            spare=bool(made.work.build.candidate.spare),
            return_by=None if proved else _day(plan.changeover.return_by),
        )
    if plan.old_bank is None:
        return None
    return InUse(plan.old_bank.battery_class, mains=mains)


def looked(results: Results) -> dict[str, int]:
    """First looks after a changeover that were ticked there: duty → day, counted."""
    ticks = {duty: results.plan.changeover.tick(step) for duty, step in LOOKS.items()}
    days = {duty: _day(tick.on) for duty, tick in ticks.items() if tick.done}
    return {duty: day for duty, day in days.items() if day is not None}


def capacity_of(results: Results, bank: str) -> float | None:
    """Rated capacity of a bank of the rig [Ah]; None where the rig does not say it.

    Args:
        results: the plan in figures.
        bank: ``present``, ``old``, ``second`` or ``starting``.
    """
    plan, made = results.plan, results.changeover
    old = None if plan.old_bank is None else plan.old_bank.parallel * plan.old_bank.unit_ah
    if bank == PRESENT:
        changed = made is not None and plan.changeover.tick(RUNS).done
        return made.work.build.bank.rated_ah if made is not None and changed else old
    return old if bank == OLD else None
