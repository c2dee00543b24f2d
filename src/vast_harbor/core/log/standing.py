"""What a bank loses while it stands: self-discharge against that of its class, by its volts at rest."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.battery.charge_acceptance import MONTH_H, self_discharge
from vast_harbor.core.battery.health_signs import charge_by_volts
from vast_harbor.core.log.entry import NOTE, READING, SETTING, WORK, Entry
from vast_harbor.core.log.followed_bank import FollowedBank
from vast_harbor.core.log.readings import DAY_S

# Two readings at rest tell of what was lost between them where they are so far apart, and nothing was done
# meanwhile [days]; volts at rest are of a bank that rested so long [h].
LEAST_D, MOST_D, RESTED_H = 14, 400, 12.0
# Temperature where none was read [°C].
USUAL_C = 20.0
# So many times what its class loses is told [-].
MUCH = 2.0
# Entries that change nothing of the charge.
IDLE = (NOTE, WORK, SETTING)


@dataclass(frozen=True, slots=True)
class Standing:
    """What a bank lost while it stood.

    Attributes:
        days: that it stood.
        low, high: what it lost in a month, at least and at most, of its capacity [-].
        usual: what its class loses at that temperature and health [-].
    """

    days: float
    low: float
    high: float
    usual: float

    @property
    def much(self) -> bool:
        """Whether that is surely more than its class loses."""
        return self.low > MUCH * self.usual


def standing(
    bank: FollowedBank, entries: Iterable[Entry], idle: Collection[int], health: float
) -> Standing | None:
    """The last time that a lead-acid bank stood laid up, and what it lost; None where no two readings tell.

    LFP shows next to nothing of its charge by its volts.

    Args:
        bank: the bank.
        entries: about it, in order.
        idle: months in which the rig is not used, 1 to 12.
        health: its state of health [-].
    """
    if not bank.battery_class.is_lead_acid:
        return None
    before: Entry | None = None
    found: Standing | None = None
    for e in entries:
        if e.battery or e.kind in IDLE:
            continue
        rests = e.kind == READING and e.volts is not None and not e.amps and e.rested is not False
        if rests and before is not None:
            found = _between(bank, before, e, idle, health) or found
        before = e if rests else None
    return found


def _between(
    bank: FollowedBank, first: Entry, last: Entry, idle: Collection[int], health: float
) -> Standing | None:
    days = (last.at - first.at) / DAY_S
    if not LEAST_D <= days <= MOST_D or any(
        _month(first.at + d * DAY_S) not in idle for d in range(int(days) + 1)
    ):
        return None
    assert first.volts is not None and last.volts is not None
    was = charge_by_volts(bank.battery_class, first.volts / bank.per_12, RESTED_H)
    left = charge_by_volts(bank.battery_class, last.volts / bank.per_12, RESTED_H)
    if was is None or left is None:
        return None
    warmth = [c for c in (first.celsius, last.celsius) if c is not None]
    celsius = sum(warmth) / len(warmth) if warmth else USUAL_C
    usual = float(self_discharge(bank.battery_class, celsius, health)) * MONTH_H
    months = days * 24 / MONTH_H
    low, high = (max(0.0, lost) / months for lost in (was[0] - left[1], was[1] - left[0]))
    return Standing(days, low, high, usual)


def _month(at: float) -> int:
    return int(np.datetime64(int(at), "s").astype("datetime64[M]").astype(int)) % 12 + 1
