"""What is to be done about a bank, and when: from its class, its rig and what the log says was done.

Days are counted: day 1 is the first of January of the year 1 (proleptic Gregorian).
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from math import ceil

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.log.entry import CAPACITY_TEST, EQUALISE, FULL, NOTE, READING, WATER, WORK
from vast_harbor.phrases import phrase

DUE, SOON, LATER = "due", "soon", "later"
# So long before it is due it is told [days].
SOON_DAYS = 14
# How often, where nothing better is known [days]: water and equalising of vented lead-acid, a full charge of
# LFP that balances its cells, terminals and hold-downs, a look at the spare and the starting battery, a test.
WATER_DAYS, EQUALISE_DAYS, FULL_DAYS, TERMINALS_DAYS, SPARE_DAYS, TEST_DAYS = 30, 60, 30, 182, 182, 365
# What stands beside a bank is looked after so often [days].
QUARTER, HALF_YEAR, YEAR = 91, 182, 365
# While laid up: lead-acid is recharged, LFP looked at [days]. So long before the season it is made ready, and
# before the warranty ends tested; a bank may be laid up so long before the months without use [days].
RECHARGE_DAYS, READY_DAYS, WARRANTY_DAYS, EARLY_DAYS = {True: 45, False: 90}, 14, 60, 60
# After the changeover: the first evening, a day, two weeks on hook-up, the first long trip, a season [days].
FIRST_LOOKS = (
    ("look_evening", 0), ("look_day", 1), ("look_fortnight", 14), ("look_trip", 30), ("look_quarter", 90),
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class InUse:
    """The bank in use, as far as its duties depend on it.

    Attributes:
        battery_class: its class.
        since: when it was put into use; None where that is not known.
        changed_over: whether that was a changeover of this plan, which asks for first looks.
        mains: whether the rig has hook-up.
        spare: whether a spare battery lies by.
        return_by: until when it can be sent back; None where that is not known, or it has been proved.
        warranty_until: until when its maker answers for it; None where that is not known.
        laid_up_from: first day of the months without use, of those that run now or come next; None where it
            is used all the year.
        used_from: first day of the season after them, while they run; None in the season.
        cold_from: first day of the first cold months after it was put into use; None where it stays warm.
        recharge_on: day by which the simulation asks to recharge it, laid up and disconnected; None where it
            lasts.
        low_in: days until it is low where it is left connected; None where it lasts, or is charged.
        mains_h: hours on mains until it is full again before the season [h]; None where that is not known.
        beside: keys of the improvements that were made beside it.
    """

    battery_class: BatteryClass
    since: int | None = None
    changed_over: bool = False
    mains: bool = False
    spare: bool = False
    return_by: int | None = None
    warranty_until: int | None = None
    laid_up_from: int | None = None
    used_from: int | None = None
    cold_from: int | None = None
    recharge_on: int | None = None
    low_in: int | None = None
    mains_h: float | None = None
    beside: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class Record:
    """What the log says of duties.

    Attributes:
        kinds: kind of entry → day of the last one of the bank in use.
        done: duty → day on which it was last done by name.
        put_off: duty → day until which it was put off last.
    """

    kinds: Mapping[str, int] = field(default_factory=dict)
    done: Mapping[str, int] = field(default_factory=dict)
    put_off: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Duty:
    """Something that is to be done.

    Attributes:
        key, title, why: which, and why.
        kind: of the entry that doing it makes.
        last: when it was done last; None for never.
        due: the day on which it is to be done.
        every: days from one time to the next; 0 for once.
        state: ``due``, ``soon`` or ``later``.
    """

    key: str
    title: str
    why: str
    kind: str
    last: int | None
    due: int
    every: int
    state: str


@dataclass(frozen=True, slots=True)
class _Asked:
    """A duty before the record is looked at; ``first`` is the day on which it is due for the first time."""

    key: str
    title: str
    why: str
    kind: str
    every: int
    first: int | None
    by_kind: bool = False


# What is looked after of what was done beside a bank, by the key of the improvement.
_BESIDE = {
    "panels": _Asked(
        "panels", phrase("log.duties.panels"), phrase("log.duties.panels_why"), WORK, HALF_YEAR, None
    ),
    "dc_dc": _Asked("dc_dc", phrase("log.duties.dc_dc"), phrase("log.duties.dc_dc_why"), WORK, YEAR, None),
    "mains_charger": _Asked(
        "residual_current", phrase("log.duties.residual_current"), phrase("log.duties.residual_current_why"),
        WORK, HALF_YEAR, None,
    ),
    "generator": _Asked(
        "generator", phrase("log.duties.generator"), phrase("log.duties.generator_why"), WORK, QUARTER, None
    ),
    "gas": _Asked("gas", phrase("log.duties.gas"), phrase("log.duties.gas_why"), WORK, YEAR, None),
    "heated": _Asked("pads", phrase("log.duties.pads"), phrase("log.duties.pads_why"), WORK, YEAR, None),
    "join": _Asked(
        "strings", phrase("log.duties.strings"), phrase("log.duties.strings_why"), READING, HALF_YEAR, None
    ),
}  # fmt: skip


def duties(bank: InUse, record: Record, today: int) -> tuple[Duty, ...]:
    """What is to be done about a bank, the most urgent first.

    Args:
        bank: the bank in use.
        record: what was done.
        today: by the owner's clock.

    Returns:
        Duties with the day on which each is due. One that is repeated is due so many days after it was done
        last, or after the bank was put into use; where neither is known, today. One that is done once is no
        longer there.
    """
    found = [duty for asked in _asked(bank) if (duty := _of(asked, record, bank, today)) is not None]
    return tuple(sorted(found, key=lambda d: (d.due, d.key)))


def _of(asked: _Asked, record: Record, bank: InUse, today: int) -> Duty | None:
    days = [record.done.get(asked.key), record.kinds.get(asked.kind) if asked.by_kind else None]
    last = max((day for day in days if day is not None), default=None)
    if not asked.every:
        if asked.first is None or (last is not None and last >= asked.first - EARLY_DAYS):
            return None
        due = asked.first
    elif asked.first is not None:
        # Not before its months begin, whatever was done before them.
        due = max(asked.first, last + asked.every) if last is not None else asked.first
    else:
        begun = last or bank.since
        due = today if begun is None else begun + asked.every
    put_off = record.put_off.get(asked.key)
    if put_off is not None and (last is None or put_off > last):
        due = max(due, put_off)
    state = DUE if due <= today else SOON if due <= today + SOON_DAYS else LATER
    return Duty(asked.key, asked.title, asked.why, asked.kind, last, due, asked.every, state)


def _asked(bank: InUse) -> Iterator[_Asked]:
    lead = bank.battery_class.is_lead_acid
    if bank.battery_class.water:
        yield _Asked(
            "water", phrase("log.duties.water"), phrase("log.duties.water_why"), WATER, WATER_DAYS, None, True
        )
        if bank.battery_class.equalise_v:
            yield _Asked(
                "equalise", phrase("log.duties.equalise"), phrase("log.duties.equalise_why"), EQUALISE,
                EQUALISE_DAYS, None, True,
            )  # fmt: skip
    if not lead:
        yield _Asked(
            "full", phrase("log.duties.full"), phrase("log.duties.full_why"), FULL, FULL_DAYS, None, True
        )
    yield _Asked(
        "terminals", phrase("log.duties.terminals"), phrase("log.duties.terminals_why"), WORK, TERMINALS_DAYS,
        None,
    )  # fmt: skip
    yield _Asked(
        "starting",
        phrase("log.duties.starting"),
        phrase("log.duties.starting_why"),
        READING,
        SPARE_DAYS,
        None,
    )
    if bank.spare:
        yield _Asked(
            "spare", phrase("log.duties.spare"), phrase("log.duties.spare_why"), READING, SPARE_DAYS, None
        )
    yield _Asked(
        "test", phrase("log.duties.test"), phrase("log.duties.test_why"), CAPACITY_TEST, TEST_DAYS, None, True
    )
    for key, duty in _BESIDE.items():
        if key in bank.beside:
            yield duty
    yield from _over_the_year(bank)
    yield from _after_changeover(bank)


def _over_the_year(bank: InUse) -> Iterator[_Asked]:
    """Laying up, looking after it meanwhile, getting ready, and the end of the warranty."""
    lead = bank.battery_class.is_lead_acid
    if bank.laid_up_from is not None:
        why = phrase("log.duties.lay_up_lead") if lead else phrase("log.duties.lay_up_lfp")
        if bank.low_in is not None:
            why = f"{why} {phrase('log.duties.lay_up_low', count=bank.low_in)}"
        yield _Asked("lay_up", phrase("log.duties.lay_up"), why, NOTE, 0, bank.laid_up_from)
        if bank.used_from is not None:
            every = RECHARGE_DAYS[lead]
            title = phrase("log.duties.recharge") if lead else phrase("log.duties.look_stored")
            why = phrase("log.duties.recharge_why") if lead else phrase("log.duties.look_stored_why")
            first = bank.laid_up_from + every
            if bank.recharge_on is not None:
                first = min(first, bank.recharge_on)
            yield _Asked("stored", title, why, FULL if lead else READING, every, first, lead)
            ready = bank.used_from - READY_DAYS
            why = phrase("log.duties.ready_lead") if lead else phrase("log.duties.ready_lfp")
            if bank.mains_h is not None:
                why = f"{why} {phrase('log.duties.ready_hours', count=ceil(bank.mains_h))}"
            yield _Asked("ready", phrase("log.duties.ready"), why, NOTE, 0, ready)
    if bank.warranty_until is not None:
        yield _Asked(
            "warranty", phrase("log.duties.warranty"), phrase("log.duties.warranty_why"), CAPACITY_TEST, 0,
            bank.warranty_until - WARRANTY_DAYS,
        )  # fmt: skip


def _after_changeover(bank: InUse) -> Iterator[_Asked]:
    """What is looked at once after a changeover, and the last day to send the batteries back."""
    titles = {
        "look_evening": (phrase("log.duties.look_evening"), phrase("log.duties.look_evening_why")),
        "look_day": (phrase("log.duties.look_day"), phrase("log.duties.look_day_why")),
        "look_fortnight": (phrase("log.duties.look_fortnight"), phrase("log.duties.look_fortnight_why")),
        "look_trip": (phrase("log.duties.look_trip"), phrase("log.duties.look_trip_why")),
        "look_quarter": (phrase("log.duties.look_quarter"), phrase("log.duties.look_quarter_why")),
    }
    if bank.changed_over and bank.since is not None:
        for key, days in FIRST_LOOKS:
            if key != "look_fortnight" or bank.mains:
                first = bank.since + days
                # Nobody goes on a trip while it is laid up.
                laid_up = bank.used_from is not None and bank.laid_up_from is not None
                if key == "look_trip" and laid_up and first >= (bank.laid_up_from or 0):
                    first = (bank.used_from or 0) + days
                yield _Asked(key, *titles[key], NOTE, 0, first)
        if bank.cold_from is not None:
            title, why = phrase("log.duties.look_cold"), phrase("log.duties.look_cold_why")
            yield _Asked("look_cold", title, why, NOTE, 0, bank.cold_from)
    if bank.return_by is not None:
        yield _Asked(
            "return", phrase("log.duties.return"), phrase("log.duties.return_why"), NOTE, 0, bank.return_by
        )
