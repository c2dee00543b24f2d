"""The loop over time for one bank, compiled: plain arithmetic on plain numbers.

Charge moves between the two wells of the kinetic model; volts follow from charge, level and current; loads
come first and the bank gets the rest, as much as it accepts; and what protects the rig switches off and on.
Everything that does not depend on the state of the bank is laid out before, see
:mod:`vast_harbor.core.simulation.run`.
"""

from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from vast_harbor.core.battery.charge_acceptance import behind_cable, mean_acceptance
from vast_harbor.core.battery.kibam import available_after
from vast_harbor.core.battery.terminal_voltage import current_at_power, inner_resistance, knee_share

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Flags = NDArray[np.bool_]

# What is noted of each step, as bits.
INVERTER_OFF, LOADS_OFF, BMS_OPEN, EMPTY, HEATING, TOO_COLD = 1, 2, 4, 8, 16, 32
RESTING, GENERATING, FULL, OVERLOAD, ASLEEP, SAGGED = 64, 128, 256, 512, 1024, 2048
# A charge this close to what the bank accepts is held at the set volts.
AT_VOLTS = 0.995
# Steps that are alike are taken at once only well away from empty: state of charge and level [-].
CALM_SOC, CALM_LEVEL = 0.35, 0.35
# A bank that lacks no more than this of its charge is full, but for what leaks away in some hours [-].
FULL_Q = 0.002
# How often one step may be parted, and things give up one after the other in it.
PARTS, GIVE_UPS = 6, 5
# A switch closes again at the next step; a BMS that was opened by low charge when it has so much again.
CLOSES_SOC = 0.05


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
    state: Ints
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


# References to an array are counted at each call that it is handed to: that took half the time of a run.
# Nothing here makes an array or outlives one, so that they need not be.
_HOW: dict[str, Any] = {"nogil": True, "error_model": "numpy", "_nrt": False}
_compiled, _inlined = njit(cache=True, **_HOW), njit(**_HOW)

# The physics of a bank, as the battery package has it, compiled into the loop.
_current_at_power = _inlined(current_at_power)
_inner_resistance = _inlined(inner_resistance)
_knee_share = _inlined(knee_share)
_available_after = _inlined(available_after)
_mean_acceptance = _inlined(mean_acceptance)
_behind_cable = _inlined(behind_cable)


@_compiled
def _at(soc, xs, ys):  # type: ignore[no-untyped-def]
    """A table at a charge, linear between its points."""
    if soc <= xs[0]:
        return ys[0]
    for i in range(1, xs.size):
        if soc <= xs[i]:
            return ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
    return ys[-1]


@_compiled
def _area(soc, xs, ys, areas):  # type: ignore[no-untyped-def]
    """∫ V dSoC from empty, exactly; beyond the ends the volts stay as they are there."""
    if soc <= xs[0]:
        return ys[0] * (soc - xs[0])
    for i in range(1, xs.size):
        if soc <= xs[i]:
            v = ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
            return areas[i - 1] + (ys[i - 1] + v) / 2 * (soc - xs[i - 1])
    return areas[-1] + ys[-1] * (soc - xs[-1])


@_compiled
def _mean_v(soc, after, rested):  # type: ignore[no-untyped-def]
    """Mean rested volts from one charge to another."""
    if abs(after - soc) < 1e-9:
        return _at(soc, rested.soc, rested.volts)
    xs, ys, areas = rested.soc, rested.volts, rested.area
    return (_area(after, xs, ys, areas) - _area(soc, xs, ys, areas)) / (after - soc)


@_compiled
def _until_dry(bank, q_1, q, amps, hours, empty_q):  # type: ignore[no-untyped-def]
    """How long a current can be drawn until the available well is down to what the cold holds back [h]."""
    low, high = 0.0, hours
    for _i in range(40):
        middle = (low + high) / 2
        if _available_after(q_1, q, bank.ratio, bank.rate, amps, middle) < empty_q:
            high = middle
        else:
            low = middle
    return max(low, 1e-9)


@_compiled
def _offers(  # type: ignore[no-untyped-def]
    bank, slots, s, t, at, generating, asleep, done, resting, given, accepts, set_v
):
    """What each source would give, and what the bank would accept of it; both are written into arrays.

    Returns:
        The sum that is offered [A], and what there is to note.
    """
    soc, rested, source_v, bus_v, left = at
    supply, top_v, takes, state = 0.0, source_v, 0.0, 0
    for i in slots.order:
        hold = done[i]
        set_v[i] = slots.hold_v[i, s, t] if hold else slots.set_v[i, s, t]
        tau = slots.hold_tau[i, s, t] if hold else slots.set_tau[i, s, t]
        unit = slots.unit[i, s, t]
        if slots.by_power[i]:
            a = min(slots.amps[i], slots.watts[i] * unit / bus_v)
        else:
            a = slots.amps[i] * unit
            if generating and slots.plugged[i]:
                a = max(a, min(slots.amps[i], bank.generator_a))
        if resting[i] and a > 0:
            state |= RESTING
            a = 0.0
        if asleep and a > 0 and not slots.wakes[i]:
            state |= ASLEEP
            a = 0.0
        if set_v[i] <= source_v:
            a = 0.0
        given[i] = a
        by_volts = (set_v[i] - rested) / (bank.charge_ohm + slots.more_ohm[i])
        by_charge = _mean_acceptance(soc, bank.ah, tau, bank.coulombic, left)
        by_charge = _behind_cable(by_charge, slots.softens[i])
        accepts[i] = max(0.0, min(by_charge, by_volts))
        supply += a
        if a > 0:
            top_v, takes = set_v[i], accepts[i]
    # Charged, its volts rise: a power then gives fewer amps than at the volts of before.
    risen = top_v if takes <= 0 else rested + (top_v - rested) * min(1.0, supply / takes)
    for i in range(given.size):
        if slots.by_power[i] and given[i] > 0 and risen > bus_v:
            less = min(given[i], slots.watts[i] * slots.unit[i, s, t] / risen)
            supply -= given[i] - less
            given[i] = less
    return supply, state


@_compiled
def _flow(slots, given, accepts, set_v, may, load_a, rested):  # type: ignore[no-untyped-def]
    """Current into the bank [A], and the volts at which it is then held, where the sources give more than
    the loads take: each gives until the bank, at that source's volts, takes no more."""
    flow, top, takes = 0.0, rested, 0.0
    for i in slots.order:
        if given[i] > 0:
            flow = max(flow, min(flow + given[i], load_a + min(accepts[i], may)))
            top, takes = set_v[i], accepts[i]
    into = max(0.0, flow - load_a)
    held = rested + (top - rested) * min(1.0, into / takes) if takes > 0 else 0.0
    return into, held


@_compiled
def _see(  # type: ignore[no-untyped-def]
    bank, slots, given, accepts, into, limit_a, soc, hours, done, resting, timer, floated
):
    """How each charger sees the bank: whether absorption is over, and whether it goes to rest."""
    for i in range(given.size):
        if given[i] <= 0:
            continue
        if not done[i] and (into >= AT_VOLTS * min(accepts[i], limit_a) or not into):
            timer[i] += hours
            if (into <= bank.tail_a and soc > 0.5) or timer[i] >= slots.timeout_h[i]:
                done[i] = True
        if done[i]:
            floated[i] += hours
            if slots.rests[i] and floated[i] >= slots.rest_after_h:
                resting[i] = True


@_compiled
def _come_back(bank, rested_v, v, soc, charged, cold_off, switches):  # type: ignore[no-untyped-def]
    """What went off in the step before comes back where its volts, or its charge, have.

    Args:
        bank: the bank.
        rested_v: its rested volts now [V].
        v: volts at the end of the step before [V].
        soc: state of charge [-].
        charged: whether charge went in during that step.
        cold_off: whether it is too cold to be used.
        switches: (inverter off, loads off, BMS open, BMS opened by the cold).

    Returns:
        The switches.
    """
    inverter_off, loads_off, opened, too_cold = switches
    if inverter_off and v >= bank.restart_v:
        inverter_off = False
    if loads_off and v >= bank.reconnect_v:
        loads_off = False
    if opened and not cold_off:
        woken = charged and soc >= CLOSES_SOC
        if too_cold or woken or (bank.by_itself and rested_v >= bank.close_v):
            opened = too_cold = False
    return inverter_off, loads_off, opened, too_cold


@_compiled
def _begin_anew(starts, rebulk_v, s, t, v, done, resting, timer, floated):  # type: ignore[no-untyped-def]
    """Chargers that are plugged in, or that leave their rest stage, begin with bulk again."""
    for i in range(done.size):
        if starts[i, s, t] or (resting[i] and v < rebulk_v[i]):
            done[i], resting[i], timer[i], floated[i] = False, False, 0.0, 0.0


@_compiled
def _shed(bank, rested, now, here, level_v, supply, v, left, emptied, switches):  # type: ignore[no-untyped-def]
    """The loads of a part of a step, and what gives up under them, one after the other.

    Args:
        bank, rested, now: the bank, its rested volts, and what goes on around it.
        here: state of charge by the label, below nought where the wells hold a little more [-].
        level_v: (volts behind the resistance [V], resistance [Ω], fall over the knee [V]).
        supply: what the sources offer [A].
        v: volts before [V].
        left: what is left of the step [h].
        emptied: whether the available well is dry.
        switches: (inverter off, loads off, BMS open, BMS opened by the cold).

    Returns:
        (DC, AC and heater power [W], current out [A], lowest volts [V]), the switches, whether it is empty,
        and what there is to note.
    """
    source_v, ohm, knee = level_v
    inverter_off, loads_off, opened, too_cold = switches
    dc_w, ac_w = now.dc_w + bank.standing_w, now.ac_w
    dc = ac = heater = amps = 0.0
    low_v, state = np.inf, 0
    for _again in range(GIVE_UPS):
        off_dc, off_ac = loads_off or opened or emptied, inverter_off or opened or emptied
        dc = 0.0 if off_dc else dc_w
        if loads_off and bank.keeps_critical and not (opened or emptied):
            dc = min(now.critical_dc_w, dc_w)
        ac = 0.0 if off_ac else ac_w
        watts = dc + ac
        heater = 0.0
        if now.heats and supply > 0 and not opened:
            heater = min(bank.heater_w, max(0.0, supply * max(v, source_v) - watts))
        amps = _current_at_power(source_v, ohm, supply, watts + heater)
        if not np.isnan(amps) and amps > 0:
            # Volts fall over the step: find the mean that gives this power.
            for _i in range(4):
                was = amps
                after = here - amps * left / bank.ah
                amps = _current_at_power(_mean_v(here, after, rested) - knee, ohm, supply, watts + heater)
                if np.isnan(amps) or abs(amps - was) < 1e-10 * amps:
                    break
        extra = max(0.0, now.peak_w - dc_w - ac_w) if dc + ac > 0 else 0.0
        hardest = _current_at_power(source_v, ohm, supply, watts + heater + extra)
        if opened or emptied:
            break
        low = 0.0 if np.isnan(hardest) else source_v - ohm * hardest
        low_v = min(low_v, low)
        draws = np.isnan(amps) or amps > 0 or hardest > 0
        if now.cold_off and bank.lfp:
            opened = too_cold = True
            state |= BMS_OPEN
            continue
        if draws and bank.lfp:
            lasting = max(0.0, now.lasting_w - dc_w - ac_w) if dc + ac > 0 else 0.0
            longer = _current_at_power(source_v, ohm, supply, watts + heater + lasting)
            # Near empty the volts fall within the step: its mean current is the larger one.
            if amps > longer:
                longer = amps
            if longer > bank.lasting_a * (1 + 1e-9) or hardest > bank.peak_a * (1 + 1e-9):
                opened = True
                state |= OVERLOAD | BMS_OPEN
                continue
            if np.isnan(hardest) or low < bank.cut_v:
                opened = True
                state |= BMS_OPEN | SAGGED
                continue
        if draws and ac > 0 and low < bank.inverter_v:
            inverter_off = True
            state |= SAGGED | INVERTER_OFF
            continue
        mean_v = 0.0 if np.isnan(amps) else source_v - ohm * amps
        if not off_dc and dc > 0 and mean_v < bank.disconnect_v and (np.isnan(amps) or amps > 0):
            loads_off = True
            state |= LOADS_OFF
            continue
        if np.isnan(amps):
            emptied = True
            state |= EMPTY
            continue
        break
    if opened:
        state |= BMS_OPEN
    if inverter_off:
        state |= INVERTER_OFF
    if loads_off:
        state |= LOADS_OFF
    if heater > 0:
        state |= HEATING
    if np.isnan(amps):
        amps = 0.0
    return (dc, ac, heater, amps, low_v), (inverter_off, loads_off, opened, too_cold), emptied, state


@_compiled
def _charge_limit(bank, limit_a, heater):  # type: ignore[no-untyped-def]
    """The most that may go in at this temperature; more where its heater is fully on [A]."""
    if heater > 0 and heater >= 0.999 * bank.heater_w:
        return max(limit_a, bank.heated_a)
    return limit_a


@_compiled
def _move_charge(bank, q, q_1, amps, into, empty_q, leak_a, left):  # type: ignore[no-untyped-def]
    """Charge moved by a current, until the bank is full or the available well is dry.

    Args:
        bank: the bank.
        q, q_1: charge in both wells, and in the available one [Ah].
        amps, into: current out, or in [A]; one of them is nought.
        empty_q: what the cold holds back in the available well [Ah].
        leak_a: self-discharge [A].
        left: what is left of the step [h].

    Returns:
        The current in, nought where it was full already [A]; current out of the wells [A]; how long it went
        on [h]; charge in both wells and in the available one after it, and what leaked [Ah]; whether it ran
        dry.
    """
    c, c_q, h, dry = bank.ratio, bank.ratio * bank.q_max, left, False
    if into > 0:
        room = bank.q_max - q
        if into * bank.coulombic * h > room:
            if room <= 1e-9 * bank.q_max:
                into = 0.0
            else:
                h = room / (into * bank.coulombic)
    out_a = amps if into == 0 else -into * bank.coulombic
    q_1_next = _available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
    if out_a > 0 and q_1_next < empty_q:
        h = _until_dry(bank, q_1, q, out_a, h, empty_q)
        q_1_next = _available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
        dry = True
    lost = min(leak_a * h, max(0.0, q - out_a * h) * 0.5)
    q_next = q - out_a * h - lost
    # What the available well cannot hold goes to the bound one at once.
    q_1_next = min(q_1_next - c * lost, c_q)
    q_1_next = max(q_1_next, q_next - (bank.q_max - c_q), 0.0)
    return into, out_a, h, q_next, q_1_next, lost, dry


@_compiled
def _note_part(  # type: ignore[no-untyped-def]
    summed, s, t, now, share, h, loads, supply, flow, volts, opened
):
    """Add a part of a step to the traces.

    Args:
        summed, s, t: the traces that are summed up, stretch and step.
        now: what goes on around the bank.
        share, h: length of the part, against the step [-] and in hours [h].
        loads: (DC, AC and heater power served [W], current out of the bank [A], lowest volts [V]).
        supply: what the sources offer [A].
        flow: (current in [A], charge that leaked [Ah], mean rested volts at that leak [V]).
        volts: (at the terminals [V], heat in the bank and its cables [W]).
        opened: whether the BMS is open.

    Returns:
        Power served that comes from the sources [W].
    """
    dc, ac, heater, amps, _low = loads
    into, lost, leak_v = flow
    v, heat = volts
    # A steady current gives, to the last part, what its mean volts make of it.
    served = (supply + amps) * v if amps > 0 else dc + ac + heater
    summed[AMPS, s, t] += (into - amps) * share
    summed[VOLTS, s, t] += (0.0 if opened and not into else v) * share
    summed[SERVED_W, s, t] += served * share
    summed[HEATER_W, s, t] += heater * share
    summed[HEAT_W, s, t] += heat * share
    summed[LOST_AH, s, t] += lost
    summed[LOST_WH, s, t] += leak_v * lost
    summed[BANK_W, s, t] += (into - amps) * v * share
    summed[UNSERVED_DC, s, t] += max(0.0, now.dc_w - dc) * h
    summed[UNSERVED_AC, s, t] += max(0.0, now.ac_w - ac) * h
    missing = max(0.0, now.critical_dc_w - dc)
    if ac < now.ac_w:
        missing += now.critical_ac_w
    summed[UNSERVED_CRITICAL, s, t] += missing * h
    return max(0.0, served + (into - amps) * v)


@_compiled
def _note_sources(order, given, v, share, from_sources, used_w, offered_w, s, t):  # type: ignore[no-untyped-def]
    """Add to the traces what each source offered, and what of it was used, the first in order last [W]."""
    for i in order[::-1]:
        offered = given[i] * v
        used = min(offered, from_sources)
        offered_w[i, s, t] += offered * share
        used_w[i, s, t] += used * share
        from_sources -= used


@_compiled
def _at_once(  # type: ignore[no-untyped-def]
    bank, series, slots, s, t, charge, switches, generating, resting
):
    """How many steps are taken at once: those that are alike, where nothing can happen within them."""
    q, soc, level = charge
    if series.alike[s, t] <= 1 and series.held[s, t] <= 1:
        return 1
    if generating or switches[0] or switches[1] or switches[2]:
        return 1
    if soc < CALM_SOC or level < CALM_LEVEL:
        return 1
    fed = False
    for i in slots.order:
        if resting[i]:
            return 1
        fed = fed or slots.unit[i, s, t] > 0
    if not fed:
        return series.alike[s, t]
    # What is charged is followed step by step, until it is full.
    if q < bank.q_max * (1 - FULL_Q):
        return 1
    return max(series.alike[s, t], series.held[s, t])


@_compiled
def _spread(summed, out, s, t, taken, q, soc, level):  # type: ignore[no-untyped-def]
    """Steps that were taken at once, noted one by one: the same means, and energies shared out."""
    for k in (UNSERVED_DC, UNSERVED_AC, UNSERVED_CRITICAL, LOST_AH, LOST_WH):
        summed[k, s, t] /= taken
    was_q, was_soc, was_level = out.charge[s, t], out.soc[s, t], out.level[s, t]
    for j in range(1, taken):
        for k in range(summed.shape[0]):
            summed[k, s, t + j] = summed[k, s, t]
        for i in range(out.used_w.shape[0]):
            out.used_w[i, s, t + j] = out.used_w[i, s, t]
            out.offered_w[i, s, t + j] = out.offered_w[i, s, t]
        part = j / taken
        out.charge[s, t + j] = was_q + (q - was_q) * part
        out.soc[s, t + j] = was_soc + (soc - was_soc) * part
        out.level[s, t + j] = was_level + (level - was_level) * part
        out.state[s, t + j] = out.state[s, t]
        out.peak_v[s, t + j] = out.peak_v[s, t]


@_compiled
def run(bank, rested, series, slots, chargers, start_soc, dt, summed, out):  # type: ignore[no-untyped-def]
    """Run one bank through every stretch.

    Args:
        bank, rested: the bank, and its rested volts.
        series, slots, chargers: what goes on around it, its sources, and room for how they stand.
        start_soc: state of charge at the start of each stretch, shape (stretches,).
        dt: length of a step [h].
        summed: the traces named in :data:`SUMMED`, to fill; nought at first.
        out: all traces, of which it fills the others.
    """
    count, stretches, total = slots.amps.size, series.dc_w.shape[0], series.dc_w.shape[1]
    c_q = bank.ratio * bank.q_max
    given, accepts, set_v, timer, floated, done, resting = chargers
    for s in range(stretches):
        q = bank.q_max - (1 - start_soc[s]) * bank.ah
        q_1 = bank.ratio * q
        switches = (False, False, False, False)
        generating = charged = False
        for i in range(count):
            done[i], resting[i], timer[i], floated[i] = False, False, 0.0, 0.0
        v = _at(start_soc[s], rested.soc, rested.volts)
        t = -1
        taken = 1
        while t + taken < total:
            t += taken
            soc = min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah))
            out.charge[s, t], out.soc[s, t], out.level[s, t] = q, soc, q_1 / c_q
            now = Moment(
                series.dc_w[s, t], series.ac_w[s, t], series.critical_dc_w[s, t], series.critical_ac_w[s, t],
                series.lasting_w[s, t], series.peak_w[s, t], series.limit_a[s, t], series.cold_off[s, t],
                series.heats[s, t],
            )  # fmt: skip
            rested_v = _at(soc, rested.soc, rested.volts)
            switches = _come_back(bank, rested_v, v, soc, charged, now.cold_off, switches)
            # Nobody lets it run for a bank that is too cold to take anything.
            generating = (
                series.generator_ok[s, t]
                and (now.limit_a > 0 or now.heats)
                and (soc < bank.generator_start or (generating and soc < bank.generator_stop))
            )
            state = GENERATING if generating else 0
            _begin_anew(slots.starts, slots.rebulk_v, s, t, v, done, resting, timer, floated)
            taken = _at_once(
                bank, series, slots, s, t, (q, soc, q_1 / c_q), switches, generating, resting
            )  # fmt: skip
            length = dt * taken
            left, charged, emptied, low_v = length, False, False, np.inf
            for _part in range(PARTS):
                if left <= 1e-9:
                    break
                # The wells hold somewhat more than the label says: below nought there is a little.
                here = 1 - (bank.q_max - q) / bank.ah
                soc, level = min(1.0, max(0.0, here)), q_1 / c_q
                rested_v = _at(soc, rested.soc, rested.volts)
                ohm = (
                    _inner_resistance(bank.ohm, bank.lfp, soc, level, series.cold_ohm[s, t]) + bank.cable_ohm
                )
                knee = bank.knee_v * _knee_share(level)
                source_v = rested_v - knee
                at = (soc, rested_v, source_v, max(v, source_v, 1.0), left)
                asleep = switches[2] and not (bank.by_itself or series.attended[s, t])
                supply, seen = _offers(
                    bank, slots, s, t, at, generating, asleep, done, resting, given, accepts, set_v
                )
                loads, switches, emptied, shed = _shed(
                    bank, rested, now, here, (source_v, ohm, knee), supply, v, left, emptied, switches
                )
                state |= seen | shed
                low_v = min(low_v, loads[4])
                watts, amps = loads[0] + loads[1] + loads[2], loads[3]
                into, held = 0.0, 0.0
                if amps <= 0:
                    # The sources give more than the loads take: the bank gets what it accepts.
                    amps = 0.0
                    may = _charge_limit(bank, now.limit_a, loads[2])
                    if may <= 0 and supply * source_v > watts - loads[2] + 1:
                        state |= TOO_COLD
                    into, held = _flow(slots, given, accepts, set_v, may, watts / source_v, rested_v)
                empty_q = series.held_back[s, t] * c_q
                into, out_a, h, q_next, q_1_next, lost, dry = _move_charge(
                    bank, q, q_1, amps, into, empty_q, series.leak_a[s, t], left
                )
                if dry:
                    emptied = True
                    state |= EMPTY
                    if bank.lfp:
                        switches = (switches[0], switches[1], True, switches[3])
                        state |= BMS_OPEN
                after = here - out_a * h / bank.ah
                mean = _mean_v(here, after, rested) if out_a != 0 else rested_v
                if into > 0:
                    v = max(held, mean)
                    heat = (v - mean * bank.coulombic) * into
                elif amps > 0:
                    v = mean - knee - ohm * amps
                    heat = (mean - v) * amps
                else:
                    v, heat = max(source_v, held), 0.0
                leak_v = _mean_v(after, after - lost / bank.ah, rested)
                share = h / length
                from_sources = _note_part(
                    summed, s, t, now, share, h, (loads[0], loads[1], loads[2], amps, low_v), supply,
                    (into, lost, leak_v), (v, heat), switches[2],
                )  # fmt: skip
                _note_sources(slots.order, given, v, share, from_sources, out.used_w, out.offered_w, s, t)
                if amps <= 0:
                    _see(
                        bank, slots, given, accepts, into, now.limit_a, soc, h, done, resting, timer, floated
                    )
                charged = charged or into > 0
                q, q_1 = q_next, q_1_next
                left -= h
            if (1 - (bank.q_max - q) / bank.ah) >= bank.full_soc:
                state |= FULL
            out.state[s, t] = state
            out.peak_v[s, t] = low_v if low_v < np.inf else 0.0
            if taken > 1:
                _spread(
                    summed, out, s, t, taken, q, min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah)), q_1 / c_q
                )
        out.charge[s, total] = q
        out.soc[s, total] = min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah))
        out.level[s, total] = q_1 / c_q
