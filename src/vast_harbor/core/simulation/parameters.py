"""What a run is given and what it leaves behind: plain numbers and arrays, as compiled code takes them."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from vast_harbor.core.arrays import Flags, Floats, SmallInts

# What is noted of each step, as bits.
INVERTER_OFF, LOADS_OFF, BMS_OPEN, EMPTY, HEATING, TOO_COLD = 1, 2, 4, 8, 16, 32
RESTING, GENERATING, FULL, OVERLOAD, ASLEEP, SAGGED = 64, 128, 256, 512, 1024, 2048


class BankParameters(NamedTuple):
    """A bank in numbers; currents and volts are those of the whole bank."""

    q_max: float
    ratio: float
    rate: float
    ah: float
    lfp: bool
    ohm: float
    cable_ohm: float
    charge_ohm: float
    knee_v: float
    lasting_a: float
    peak_a: float
    cut_v: float
    close_v: float
    by_itself: bool
    coulombic: float
    heater_w: float
    heated_a: float
    standing_w: float
    full_soc: float
    tail_a: float
    inverter_v: float
    restart_v: float
    disconnect_v: float
    reconnect_v: float
    keeps_critical: bool
    generator_start: float
    generator_stop: float
    generator_a: float


class RestedVolts(NamedTuple):
    """Rested volts against state of charge: points, and the area under them from empty."""

    soc: Floats
    volts: Floats
    area: Floats


class Moment(NamedTuple):
    """What goes on around a bank in one step; the fields of :class:`Series` there."""

    dc_w: float
    ac_w: float
    critical_dc_w: float
    critical_ac_w: float
    lasting_w: float
    peak_w: float
    limit_a: float
    cold_off: bool
    heats: bool


class Level(NamedTuple):
    """Where a bank stands at the start of a part of a step.

    ``soc`` by the label, below nought where the wells hold a little more [-]; ``source_v`` behind the
    resistance ``ohm``, less the fall ``knee`` over the knee [V], [Ω], [V]; ``left`` of the step [h].
    """

    soc: float
    source_v: float
    ohm: float
    knee: float
    left: float


class Series(NamedTuple):
    """What goes on around it, arrays of shape (stretches, steps).

    ``alike``: how many steps from each one on, itself included, are like it; ``held``: in how many mains
    gives easily all that is asked, so that a full bank stays full.
    """

    dc_w: Floats
    ac_w: Floats
    critical_dc_w: Floats
    critical_ac_w: Floats
    lasting_w: Floats
    peak_w: Floats
    generator_ok: Flags
    attended: Flags
    cold_ohm: Floats
    limit_a: Floats
    held_back: Floats
    leak_a: Floats
    cold_off: Flags
    heats: Flags
    alike: NDArray[np.int64]
    held: NDArray[np.int64]


class Slots(NamedTuple):
    """The sources, lowest set volts first: one value each, or arrays of (sources, stretches, steps)."""

    amps: Floats
    watts: Floats
    by_power: Flags
    plugged: Flags
    rests: Flags
    rebulk_v: Floats
    timeout_h: Floats
    wakes: Flags
    more_ohm: Floats
    softens: Floats
    order: NDArray[np.int64]
    unit: Floats
    starts: Flags
    set_v: Floats
    hold_v: Floats
    set_tau: Floats
    hold_tau: Floats
    rest_after_h: float


class Chargers(NamedTuple):
    """How each source stands, arrays of shape (sources,), to be filled while a run goes on.

    ``given``: what it would give [A]; ``accepts``: what the bank would accept of it [A]; ``set_v``: the volts
    it holds now [V]; ``timer``, ``floated``: how long it absorbs, and holds the bank full [h]; ``done``:
    whether absorption is over; ``resting``: whether it rests.
    """

    given: Floats
    accepts: Floats
    set_v: Floats
    timer: Floats
    floated: Floats
    done: Flags
    resting: Flags

    @staticmethod
    def of(count: int) -> "Chargers":
        """Room for so many sources."""
        given, accepts, set_v, timer, floated = np.zeros((5, count))
        done, resting = np.zeros((2, count), dtype=np.bool_)
        return Chargers(given, accepts, set_v, timer, floated, done, resting)


class Traces(NamedTuple):
    """How a run went, arrays of shape (stretches, steps) unless it says otherwise.

    ``charge`` (in both wells, [Ah]), ``soc`` and ``level`` have one column more: at the start of each step,
    and at the end of the last. ``amps`` is the mean current into the bank, ``volts`` that at its terminals
    and ``bank_w`` the mean power into them; ``peak_v`` the volts at the hardest moment. ``served_w`` is what
    loads and heater got from bank and sources; ``unserved_dc``, ``unserved_ac`` and ``unserved_critical``
    what they did not [Wh]. ``heat_w`` is lost in the bank and its cables, ``lost_ah`` and ``lost_wh`` by
    themselves. ``used_w`` and ``offered_w`` are by source, (sources, stretches, steps).
    """

    charge: Floats
    soc: Floats
    level: Floats
    amps: Floats
    volts: Floats
    bank_w: Floats
    peak_v: Floats
    served_w: Floats
    heater_w: Floats
    unserved_dc: Floats
    unserved_ac: Floats
    unserved_critical: Floats
    heat_w: Floats
    lost_ah: Floats
    lost_wh: Floats
    state: SmallInts
    used_w: Floats
    offered_w: Floats


# Traces that are summed up over the parts of a step lie in one array, (traces, stretches, steps).
SUMMED = (
    "amps", "volts", "bank_w", "served_w", "heater_w", "unserved_dc", "unserved_ac", "unserved_critical",
    "heat_w", "lost_ah", "lost_wh",
)  # fmt: skip
(
    AMPS, VOLTS, BANK_W, SERVED_W, HEATER_W, UNSERVED_DC, UNSERVED_AC, UNSERVED_CRITICAL, HEAT_W, LOST_AH,
    LOST_WH,
) = range(len(SUMMED))  # fmt: skip
