"""Charging as logged: whether absorption is carried through, and what the panels give of a clear sky."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Floats
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.readings import HOUR_S, Hours, Readings, longest_s

# A stretch this near its class's absorption volts is absorption [V/12 V]; it counts where it lasts so long
# and so much flowed at its beginning [s], [1/h].
NEAR_V, LEAST_S, BULK_C = 0.25, 600, 0.04
# It is carried through where no more than this flows at its end [1/h].
TAIL_C = 0.03
# After it, volts this near its class's float, and no current out, are a charger that holds [V/12 V].
HOLDS_V = 0.25
# Panels are judged between these hours, below this charge, on so many days, by the best tenth of them.
SUNNY, TAKES_ALL, LEAST_DAYS, BEST = (9, 15), 0.9, 10, 0.9
# A day on which more than this came in without sun, or more than that with it, was charged by something else:
# of what a clear day gives [-].
IN_THE_DARK, MORE_THAN_SUN = 0.05, 1.15


@dataclass(frozen=True, slots=True)
class Absorptions:
    """Charges that came to absorption volts.

    Attributes:
        count: how many.
        dropped: of them, those after which the charger held, though much still flowed.
        left: of them, those whose source went away while much still flowed.
        end_c: middle of the current at their end [1/h]; nan without any.
    """

    count: int
    dropped: int
    left: int
    end_c: float


def absorptions(bank: FollowedBank, readings: Readings) -> Absorptions:
    """Whether a lead-acid bank is charged through; LFP needs no absorption.

    Args:
        bank: the bank.
        readings: of its monitor, in order.
    """
    volts, amps = readings.volts / bank.per_12, readings.amps / bank.ah
    if not bank.battery_class.is_lead_acid or len(readings) < 3:
        return Absorptions(0, 0, 0, float("nan"))
    absorbs = (volts >= bank.battery_class.absorption_v - NEAR_V) & (amps > 0)
    whole = np.concatenate(([False], np.diff(readings.at) <= longest_s(readings.at)))
    begins = np.flatnonzero(absorbs & ~(np.concatenate(([False], absorbs[:-1])) & whole))
    ends, dropped, left = [], 0, 0
    for first in begins:
        last = int(first)
        while last + 1 < len(absorbs) and absorbs[last + 1] and whole[last + 1]:
            last += 1
        # What goes on beyond the log, or is a moment only, tells nothing.
        known = last + 1 < len(absorbs) and whole[last + 1]
        if not known or readings.at[last] - readings.at[first] < LEAST_S or amps[first] < BULK_C:
            continue
        ends.append(float(amps[last]))
        if ends[-1] > TAIL_C:
            holds = volts[last + 1] >= bank.battery_class.float_v - HOLDS_V and amps[last + 1] >= 0
            dropped, left = dropped + holds, left + (not holds)
    return Absorptions(len(ends), dropped, left, float(np.median(ends)) if ends else float("nan"))


@dataclass(frozen=True, slots=True)
class Panels:
    """What the panels gave against a clear sky.

    Attributes:
        days: that tell.
        share: of what a clear sky gives, on the best of them [-].
        clear_a: what it gives at noon [A].
    """

    days: int
    share: float
    clear_a: float


def panels(hours: Hours, clear_a: Floats, load_a: Floats) -> Panels | None:
    """What the panels gave; None where too few days tell.

    A monitor sees what they give less what is used meanwhile, which is added as planned. It does not see
    what charges: days on which mains, generator or engine did so are left out, by what came in in the dark or
    beyond a clear sky.

    Args:
        hours: of the monitor, in order.
        clear_a: what all panels give under a clear sky by month and hour of the clock [A], shape (12, 24).
        load_a: what is used by hour of the clock [A], shape (24,).
    """
    if not len(hours.hour):
        return None
    clock, day = hours.hour % 24, hours.hour // 24
    months = day.astype("datetime64[D]").astype("datetime64[M]").astype(int) % 12
    clear = clear_a[months, clock]
    gave = (hours.ah_in - hours.ah_out) / np.maximum(hours.covered_s, 1) * HOUR_S + load_a[clock]
    takes = np.nan_to_num(hours.high["soc"], nan=0.0) < TAKES_ALL
    told = (clock >= SUNNY[0]) & (clock < SUNNY[1]) & takes & (clear > 0) & (hours.covered_s >= 0.9 * HOUR_S)
    told &= hours.ah_in > 0
    told &= ~_charged_otherwise(hours, day, clear)
    days, place = np.unique(day[told], return_inverse=True)
    if len(days) < LEAST_DAYS:
        return None
    shares = np.bincount(place, gave[told]) / np.bincount(place, clear[told])
    shares = shares[shares <= MORE_THAN_SUN]
    if len(shares) < LEAST_DAYS:
        return None
    return Panels(len(shares), float(np.quantile(shares, BEST)), float(clear_a[:, 12].max()))


def _charged_otherwise(hours: Hours, day: NDArray[np.int64], clear: Floats) -> NDArray[np.bool_]:
    """Whether each hour lies in a day on which something charged without sun, shape of ``clear``."""
    _, place = np.unique(day, return_inverse=True)
    whole = np.bincount(place, clear * hours.covered_s / HOUR_S)
    dark = np.bincount(place, np.where(clear > 0, 0.0, hours.ah_in))
    found: NDArray[np.bool_] = (dark > IN_THE_DARK * np.maximum(whole, 1e-9))[place]
    return found
