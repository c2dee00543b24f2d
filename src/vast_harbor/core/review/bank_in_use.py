"""Which bank is in use, after the plan: the one that was changed over to, else the old one."""

from collections.abc import Collection, Mapping
from dataclasses import replace
from datetime import date
from typing import Protocol

from vast_harbor.core.log.before_trip import hours_on_mains
from vast_harbor.core.log.duties import DUE, Duty, InUse, Record, duties
from vast_harbor.core.log.entry import FULL, OLD, PRESENT
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.changeover import RUNS
from vast_harbor.core.rig.plan import OldBank
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.stops.compare import planned_beside
from vast_harbor.core.stops.trial import OLD as OLD_BANK

YEAR_DAYS = 365.25


class LastDays(Protocol):
    """When things were done last, by the log; days counted.

    Attributes:
        last: day of the last entry of all; None for none.
        kinds, done, put_off: as in :class:`~vast_harbor.core.log.duties.Record`.
    """

    @property
    def last(self) -> int | None: ...
    @property
    def kinds(self) -> Mapping[str, int]: ...
    @property
    def done(self) -> Mapping[str, int]: ...
    @property
    def put_off(self) -> Mapping[str, int]: ...


# A battery that gets colder than this in winter is looked at on the first cold morning [°C].
COLD_C = 8.0
# The step of the changeover that proves a bank.
PROVED = "acceptance"
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
    laid_up_from, used_from = season(plan.months, plan.today)
    if made is not None and (running := plan.changeover.tick(RUNS)).done:
        proved = plan.changeover.tick(PROVED).done
        return InUse(
            made.work.build.bank.model.battery_class,
            since=_day(running.on),
            changed_over=True,
            mains=mains,
            spare=bool(made.work.build.candidate.spare),
            return_by=None if proved else _day(plan.changeover.return_by),
            warranty_until=_warranty(made.work.build.bank.model.warranty.years, _day(running.on)),
            laid_up_from=laid_up_from,
            used_from=used_from,
            cold_from=_cold_from(results, _day(running.on)),
            beside=frozenset(one.kind.key for one in planned_beside(made.work.build)),
        )
    if plan.old_bank is None:
        return None
    old = plan.old_bank
    return InUse(old.battery_class, mains=mains, laid_up_from=laid_up_from, used_from=used_from)


def as_old_bank(results: Results, today: int) -> OldBank | None:
    """The bank in use as the one that is replaced next; None where the rig has none.

    Of a bank that was bought by this plan it is asked what would be bought in its place today.

    Args:
        results: the plan in figures.
        today: counted.
    """
    plan, in_use = results.plan, bank_in_use(results)
    if in_use is None or not in_use.changed_over or results.changeover is None:
        return plan.old_bank
    bank = results.changeover.work.build.bank
    return OldBank(
        bank.model.battery_class, bank.model.unit_class_v, bank.rated_ah / bank.parallel, bank.series,
        bank.parallel, None if in_use.since is None else (today - in_use.since) / YEAR_DAYS,
        unit_kg=bank.model.kg, kept=False,
    )  # fmt: skip


def _cold_from(results: Results, since: int | None) -> int | None:
    """First day of use in winter after a day, where the battery gets cold in it; None without such a day."""
    plan = results.plan
    if since is None or results.seasons["winter"].number >= COLD_C:
        return None
    winter = {6, 7, 8} if plan.site.south else {12, 1, 2}
    cold = winter & set(plan.months or range(1, 13))
    begun = date.fromordinal(since)
    days = (date.fromordinal(since + n) for n in range(366))
    return next((d.toordinal() for d in days if d.month in cold and (d.day == 1 or d == begun)), None)


def _warranty(years: float, since: int | None) -> int | None:
    return None if since is None or not years else since + round(YEAR_DAYS * years)


def season(months: Collection[int], today: str) -> tuple[int | None, int | None]:
    """The months without use that run now or come next.

    Args:
        months: of use, 1 to 12; none for all the year.
        today: ISO date; empty where it is not known.

    Returns:
        Their first day, and while they run the first day after them, counted; None where there are none.
    """
    if not today or not months or len(set(months)) == 12:
        return None, None
    now = date.fromisoformat(today)
    first = [
        date(now.year + (now.month - 1 + i) // 12, (now.month - 1 + i) % 12 + 1, 1) for i in range(-12, 13)
    ]
    used = [day.month in months for day in first]
    if used[12]:
        begins = next(i for i in range(12, 25) if not used[i])
        return first[begins].toordinal(), None
    begins = next(i for i in range(12, -1, -1) if used[i]) + 1
    ends = next(i for i in range(12, 25) if used[i])
    return first[begins].toordinal(), first[ends].toordinal()


def looked(results: Results) -> dict[str, int]:
    """First looks after a changeover that were ticked there: duty → day, counted."""
    ticks = {duty: results.plan.changeover.tick(step) for duty, step in LOOKS.items()}
    # The acceptance test is the look of the first evening.
    ticks["look_evening"] = results.plan.changeover.tick(PROVED)
    days = {duty: _day(tick.on) for duty, tick in ticks.items() if tick.done}
    return {duty: day for duty, day in days.items() if day is not None}


def duties_of(results: Results, last: LastDays, today: int) -> tuple[Duty, ...]:
    """What is to be done about the bank in use, the most urgent first; nothing without a bank.

    Args:
        results: the plan in figures.
        last: when what was done last, by the log.
        today: counted.
    """
    bank = bank_in_use(results)
    if bank is None:
        return ()
    if bank.used_from is not None:
        recharge_on, low_in = _stored(results, bank)
        mains_h = _mains_hours(results, bank, last.kinds.get(FULL))
        bank = replace(bank, mains_h=mains_h, recharge_on=recharge_on, low_in=low_in)
    record = Record(last.kinds, {**looked(results), **last.done}, last.put_off)
    return duties(bank, record, today)


def _stored(results: Results, bank: InUse) -> tuple[int | None, int | None]:
    """When a bank that is laid up must be recharged by its simulation, disconnected, as a counted day; and
    after how many days it is low where it is left connected."""
    trial = results.simulated.trial
    id = results.plan.changeover.chosen if bank.changed_over else OLD_BANK
    assert bank.laid_up_from is not None
    begun = date.fromordinal(bank.laid_up_from)
    found: dict[bool, int] = {}
    for one in trial.laid_up.get(id, ()):
        if one.recharge is not None:
            month, day = one.recharge
            year = begun.year + ((month, day) < (begun.month, begun.day))
            found[one.connected] = date(year, month, day).toordinal()
    low = found.get(True)
    return found.get(False), None if low is None else max(1, low - bank.laid_up_from)


def _mains_hours(results: Results, bank: InUse, full: int | None) -> float | None:
    """Hours on mains before the season, from the days that the bank stood by then; None where its mains
    charger or its size is not known, or it is not laid up."""
    amps = sum(s.amps or 0.0 for s in results.plan.sources if s.kind == MAINS)
    ah = capacity_of(results, PRESENT)
    if bank.used_from is None or bank.laid_up_from is None or not amps or not ah:
        return None
    stood = bank.used_from - max(bank.laid_up_from, full or 0)
    celsius = results.banks.rig_limits.rest_c
    return hours_on_mains(bank.battery_class, ah, amps, max(0, stood), celsius)


def reminders(results: Results, last: LastDays) -> tuple[Duty, ...]:
    """Duties that are due and are told outside of the log: to who keeps one, or has changed over.

    What is due only because nobody knows when it was done last is told in the log alone.

    Args:
        results: the plan in figures.
        last: when what was done last, by the log.
    """
    bank = bank_in_use(results)
    if not results.plan.today or bank is None or (last.last is None and not bank.changed_over):
        return ()
    today = date.fromisoformat(results.plan.today).toordinal()
    due = (d for d in duties_of(results, last, today) if d.state == DUE)
    return tuple(d for d in due if not d.every or d.last is not None or d.due < today)


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
