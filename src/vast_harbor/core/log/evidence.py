"""What the log says of a bank's health: capacity tests, charge counted from full to empty, sag under load."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import hypot

import numpy as np

from vast_harbor.core.battery.capacity_test import health_range, left_below_stop, state_of_health
from vast_harbor.core.battery.health_signs import METER_V, HealthSign, by_test, resistance_ratio
from vast_harbor.core.battery.temperature import temperature_factor
from vast_harbor.core.battery.terminal_voltage import Terminal, unit_resistance
from vast_harbor.core.log.entry import CAPACITY_TEST, READING, Entry
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.health import COUNT, SAG, STATED, TEST, Measured
from vast_harbor.core.log.readings import DAY_S, HOUR_S, Readings, longest_s

YEAR_S = 365.25 * DAY_S
# Temperature where none was read, and doubt where the current was not [°C], [-].
USUAL_C, NO_AMPS_DOUBT = 20.0, 0.06
# A monitor calls it full from here on; a 12 V unit is empty under a load from here on [-], [V].
FULL_SOC, EMPTY_12 = 0.99, {True: 11.0, False: 12.0}
# Below this a BMS is open [V/12 V]. Doubt of one count [-].
OPEN_12, COUNT_DOUBT = 4.0, 0.06
# A sag: two readings at most so far apart, from a small to a large current [s], [1/h]; by hand a few minutes.
SAG_S, HAND_S, SMALL_C, LARGE_C = 120, 900, 0.03, 0.08
# Sags of a month are one measurement, where there are so many; what differs between months [-].
LEAST_SAGS, SAG_OWN_DOUBT = 3, 0.05
# A ratio of resistances outside of these tells of the meter or of a joint, not of the cells [-].
SAG_TELLS = (0.5, 5.0)
MONTH_S = 30 * DAY_S


# When, the health it says, the doubt of it alone, its kind, and of how many readings it is made.
Found = tuple[int, float, float, str, int]


@dataclass(frozen=True, slots=True)
class Seen:
    """Something that tells of the health.

    Attributes:
        at: when, seconds since 1970 UTC [s].
        measured: what it says.
        count: how many readings it is made of.
    """

    at: int
    measured: Measured
    count: int = 1


def of_monitor(bank: FollowedBank, readings: Readings) -> tuple[Found, ...]:
    """What a monitor says of a bank's health: counts from full to empty, and sags.

    Args:
        bank: the bank.
        readings: of its monitor, in order.
    """
    return (*_counts(bank, readings), *_sags(bank, readings))


def of_acceptance(at: int, sign: HealthSign) -> Found:
    """What the acceptance test of a new bank says of its health.

    Args:
        at: day of the test, seconds since 1970 UTC [s].
        sign: what it says.
    """
    return at, sign.likely, sign.doubt, TEST, 1


def seen(
    bank: FollowedBank, began: int, now: int, entries: Iterable[Entry], more: Iterable[Found]
) -> tuple[Seen, ...]:
    """All that the log says of a bank's health, in order.

    Args:
        bank: the bank; only what is about it is given here.
        began, now: when it was put into use, and now, seconds since 1970 UTC [s].
        entries: of the log by hand, in order.
        more: what its monitor and its acceptance test say.
    """
    by_hand = list(entries)
    found = [*_tests(bank, by_hand), *_by_hand(bank, by_hand), *more]
    if bank.stated is not None:
        found.append((now, bank.stated.likely, bank.stated.doubt, STATED, 1))
    placed = [
        Seen(at, Measured(max(0.0, (at - began) / YEAR_S), health, doubt, kind), count)
        for at, health, doubt, kind, count in found
    ]
    return tuple(sorted(placed, key=lambda s: s.at))


def _tests(bank: FollowedBank, entries: Sequence[Entry]) -> Iterator[Found]:
    """Capacity tests: amp-hours that came out, against what its label gives at that current and warmth."""
    for e in entries:
        if e.kind != CAPACITY_TEST or e.battery:
            continue
        amps = e.amps or (e.ah / e.hours if e.ah and e.hours else None)
        ah = e.ah or (abs(amps) * e.hours if amps and e.hours else None)
        if not ah:
            continue
        rate = abs(amps) if amps else bank.ah / bank.rated_hours
        warm = temperature_factor(bank.battery_class, USUAL_C if e.celsius is None else e.celsius)
        minutes = 60 * ah / rate
        low, likely, high = bank.exponents
        left = left_below_stop(bank.battery_class, rate / bank.ah)
        sign = by_test(*health_range(rate, minutes, bank.ah, bank.rated_hours, (low, high), warm, left))
        health = state_of_health(rate, minutes, bank.ah, bank.rated_hours, likely, warm, left)
        yield e.at, health, hypot(sign.doubt, 0.0 if amps else NO_AMPS_DOUBT), TEST, 1


def _sag(
    bank: FollowedBank, celsius: float, rested: float, loaded: float, amps: float
) -> tuple[float, float] | None:
    """Health by a sag and the doubt of it alone; what it shares with all others is counted apart.

    It may lie above a new bank's: a class's resistance may be a quarter off, and what sinks from there still
    sinks. None where it tells nothing.
    """
    ohm = unit_resistance(bank.battery_class, bank.class_v, bank.ah)
    new = float(Terminal(bank.battery_class, bank.class_v, ohm, celsius=celsius).resistance(1.0, 1.0))
    lead = bank.battery_class.is_lead_acid
    seen = resistance_ratio(lead, new, rested, loaded, amps, amps / bank.ah, bank.per_12)
    if not SAG_TELLS[0] <= seen <= SAG_TELLS[1]:
        return None
    return 1 / seen, hypot(SAG_OWN_DOUBT, 0.8 * METER_V * bank.per_12 / (amps * new))


def _by_hand(bank: FollowedBank, entries: Sequence[Entry]) -> Iterator[Found]:
    """A rested reading, and one under a load right after it."""
    rested: Entry | None = None
    for e in entries:
        if e.kind != READING or e.battery or e.volts is None:
            continue
        out = -(e.amps or 0.0)
        if rested is not None and e.at - rested.at <= HAND_S and out >= LARGE_C * bank.ah:
            assert rested.volts is not None
            if e.volts < rested.volts:
                celsius = next((c for c in (e.celsius, rested.celsius) if c is not None), USUAL_C)
                said = _sag(bank, celsius, rested.volts, e.volts, out)
                if said is not None:
                    yield e.at, *said, SAG, 1
        rested = e if e.rested or abs(e.amps if e.amps is not None else 1e9) <= SMALL_C * bank.ah else None


def _counts(bank: FollowedBank, readings: Readings) -> Iterator[Found]:
    """Charge from where the monitor called it full down to where it was empty, without a gap between."""
    if len(readings) < 3:
        return
    step = np.diff(readings.at).astype(float)
    known = (step > 0) & (step <= longest_s(readings.at)) & ~np.isnan(readings.amps[:-1] + readings.amps[1:])
    moved = np.where(known, (readings.amps[:-1] + readings.amps[1:]) / 2 * step / HOUR_S, 0.0)
    ah = np.concatenate(([0.0], np.cumsum(moved)))
    broken = np.concatenate(([0], np.cumsum(~known)))
    full = np.flatnonzero(readings.soc >= FULL_SOC)
    volts = readings.volts / bank.per_12
    limit = EMPTY_12[bank.battery_class.is_lead_acid]
    empty = np.flatnonzero((volts <= limit) & ((readings.amps < 0) | (volts < OPEN_12)))
    last_full = -1
    for at in empty:
        i = int(np.searchsorted(full, at)) - 1
        if i < 0 or full[i] == last_full or broken[full[i]] != broken[at]:
            continue
        last_full = int(full[i])
        out, hours = float(ah[last_full] - ah[at]), float(readings.at[at] - readings.at[last_full]) / HOUR_S
        draws = readings.amps[last_full : at + 1]
        # What flows while it is used, not the mean with its idle hours.
        busy = draws[draws < -SMALL_C * bank.ah]
        rate = float(-busy.mean()) if len(busy) else max(out / max(hours, 1.0), 0.01)
        if out <= 0.2 * bank.ah:
            continue
        warm = readings.celsius[last_full : at + 1]
        celsius = float(np.nanmean(warm)) if not np.isnan(warm).all() else USUAL_C
        k_t = temperature_factor(bank.battery_class, celsius)
        health = state_of_health(rate, 60 * out / rate, bank.ah, bank.rated_hours, bank.exponents[1], k_t)
        yield int(readings.at[at]), health, COUNT_DOUBT, COUNT, 1


def _sags(bank: FollowedBank, readings: Readings) -> Iterator[Found]:
    """What the volts lose when a load starts, the middle of each month."""
    if len(readings) < 2:
        return
    amps, volts = readings.amps, readings.volts
    starts = (
        (np.diff(readings.at) <= SAG_S)
        & (np.abs(amps[:-1]) <= SMALL_C * bank.ah)
        & (amps[1:] <= -LARGE_C * bank.ah)
        & (volts[1:] < volts[:-1])
        & (volts[1:] > OPEN_12 * bank.per_12)
    )
    found = []
    for i in np.flatnonzero(starts):
        celsius = float(readings.celsius[i])
        warm = USUAL_C if celsius != celsius else celsius
        said = _sag(bank, warm, float(volts[i]), float(volts[i + 1]), float(-amps[i + 1]))
        if said is not None:
            found.append((int(readings.at[i]), *said))
    months: dict[int, list[tuple[int, float, float]]] = {}
    for one in found:
        months.setdefault(one[0] // MONTH_S, []).append(one)
    for part in months.values():
        if len(part) >= LEAST_SAGS:
            at, health, doubt = (float(np.median([one[k] for one in part])) for k in range(3))
            yield int(at), health, hypot(SAG_OWN_DOUBT, doubt / np.sqrt(len(part))), SAG, len(part)
