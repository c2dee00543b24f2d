"""The loop over time for one bank, compiled: plain arithmetic on plain numbers.

Charge moves between the two wells of the kinetic model; volts follow from charge, level and current; loads
come first and the bank gets the rest, as much as it accepts; and what protects the rig switches off and on.
Everything that does not depend on the state of the bank is laid out before, see
:mod:`vast_harbor.core.simulation.run`.
"""

from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from vast_harbor.core.battery.charge_acceptance import mean_acceptance
from vast_harbor.core.battery.kibam import available_after
from vast_harbor.core.battery.terminal_voltage import current_at_power, depth_factor, knee_share

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Flags = NDArray[np.bool_]

# What is noted of each step, as bits.
INVERTER_OFF, LOADS_OFF, BMS_OPEN, EMPTY, HEATING, TOO_COLD = 1, 2, 4, 8, 16, 32
RESTING, GENERATING, FULL, OVERLOAD, ASLEEP, SAGGED = 64, 128, 256, 512, 1024, 2048
# A charge this close to what the bank accepts is held at the set volts.
AT_VOLTS = 0.995
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
    table_soc: Floats
    table_v: Floats
    table_area: Floats
    generator_start: float
    generator_stop: float
    generator_a: float


class Series(NamedTuple):
    """What goes on around it, arrays of shape (stretches, steps)."""

    dc_w: Floats
    ac_w: Floats
    critical_dc_w: Floats
    critical_ac_w: Floats
    lasting_w: Floats
    peak_w: Floats
    generator_ok: Flags
    cold_ohm: Floats
    limit_a: Floats
    held_back: Floats
    leak_a: Floats
    cold_off: Flags
    heats: Flags


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
    order: NDArray[np.int64]
    unit: Floats
    starts: Flags
    set_v: Floats
    hold_v: Floats
    set_tau: Floats
    hold_tau: Floats
    rest_after_h: float


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


# The physics of a bank, as the battery package has it, compiled into the loop.
_current_at_power = njit(nogil=True, error_model="numpy")(current_at_power)
_depth_factor = njit(nogil=True, error_model="numpy")(depth_factor)
_knee_share = njit(nogil=True, error_model="numpy")(knee_share)
_available_after = njit(nogil=True, error_model="numpy")(available_after)
_mean_acceptance = njit(nogil=True, error_model="numpy")(mean_acceptance)


@njit(cache=True, nogil=True, error_model="numpy")
def _at(soc, xs, ys):  # type: ignore[no-untyped-def]
    """A table at a charge, linear between its points."""
    if soc <= xs[0]:
        return ys[0]
    for i in range(1, xs.size):
        if soc <= xs[i]:
            return ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
    return ys[-1]


@njit(cache=True, nogil=True, error_model="numpy")
def _area(soc, xs, ys, areas):  # type: ignore[no-untyped-def]
    """∫ V dSoC from empty, exactly; beyond the ends the volts stay as they are there."""
    if soc <= xs[0]:
        return ys[0] * (soc - xs[0])
    for i in range(1, xs.size):
        if soc <= xs[i]:
            v = ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
            return areas[i - 1] + (ys[i - 1] + v) / 2 * (soc - xs[i - 1])
    return areas[-1] + ys[-1] * (soc - xs[-1])


@njit(cache=True, nogil=True, error_model="numpy")
def _mean_v(soc, after, bank):  # type: ignore[no-untyped-def]
    """Mean rested volts from one charge to another."""
    if abs(after - soc) < 1e-9:
        return _at(soc, bank.table_soc, bank.table_v)
    xs, ys, areas = bank.table_soc, bank.table_v, bank.table_area
    return (_area(after, xs, ys, areas) - _area(soc, xs, ys, areas)) / (after - soc)


@njit(cache=True, nogil=True, error_model="numpy")
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


@njit(cache=True, nogil=True, error_model="numpy")
def _offers(  # type: ignore[no-untyped-def]
    bank, slots, s, t, at, generating, opened, done, resting, given, accepts, set_v
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
        if opened and a > 0 and not (slots.wakes[i] or bank.by_itself):
            state |= ASLEEP
            a = 0.0
        if set_v[i] <= source_v:
            a = 0.0
        given[i] = a
        by_volts = (set_v[i] - rested) / (bank.charge_ohm + slots.more_ohm[i])
        by_charge = _mean_acceptance(soc, bank.ah, tau, bank.coulombic, left)
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


@njit(cache=True, nogil=True, error_model="numpy")
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


@njit(cache=True, nogil=True, error_model="numpy")
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


@njit(cache=True, nogil=True, error_model="numpy")
def run(bank, series, slots, start_soc, dt, out):  # type: ignore[no-untyped-def]
    """Run one bank through every stretch.

    Args:
        bank, series, slots: a :class:`BankParameters`, :class:`Series` and :class:`Slots`.
        start_soc: state of charge at the start of each stretch, shape (stretches,).
        dt: length of a step [h].
        out: :class:`Traces` to fill.
    """
    count, stretches, total = slots.amps.size, series.dc_w.shape[0], series.dc_w.shape[1]
    c, c_q = bank.ratio, bank.ratio * bank.q_max
    given, accepts, set_v = np.zeros(count), np.zeros(count), np.zeros(count)
    for s in range(stretches):
        q = bank.q_max - (1 - start_soc[s]) * bank.ah
        q_1 = c * q
        inverter_off = loads_off = opened = too_cold = generating = False
        done, resting = np.zeros(count, dtype=np.bool_), np.zeros(count, dtype=np.bool_)
        timer, floated = np.zeros(count), np.zeros(count)
        v = _at(start_soc[s], bank.table_soc, bank.table_v)
        charged = False
        for t in range(total):
            soc = min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah))
            out.charge[s, t], out.soc[s, t], out.level[s, t] = q, soc, q_1 / c_q
            state = 0
            dc_w, ac_w = series.dc_w[s, t] + bank.standing_w, series.ac_w[s, t]
            critical = series.critical_dc_w[s, t]
            # What went off in the step before comes back where its volts have.
            if inverter_off and v >= bank.restart_v:
                inverter_off = False
            if loads_off and v >= bank.reconnect_v:
                loads_off = False
            if opened and not series.cold_off[s, t]:
                rested = _at(soc, bank.table_soc, bank.table_v)
                woken = charged and soc >= CLOSES_SOC
                if too_cold or woken or (bank.by_itself and rested >= bank.close_v):
                    opened = too_cold = False
            # Nobody lets it run for a bank that is too cold to take anything.
            takes = series.limit_a[s, t] > 0 or series.heats[s, t]
            generating = (
                series.generator_ok[s, t]
                and takes
                and (soc < bank.generator_start or (generating and soc < bank.generator_stop))
            )
            if generating:
                state |= GENERATING
            for i in range(count):
                if slots.starts[i, s, t]:
                    done[i], resting[i], timer[i], floated[i] = False, False, 0.0, 0.0
                if resting[i] and v < slots.rebulk_v[i]:
                    resting[i], done[i], timer[i], floated[i] = False, False, 0.0, 0.0
            left, charged = dt, False
            emptied = False
            low_v = np.inf
            for _part in range(PARTS):
                if left <= 1e-9:
                    break
                # The wells hold somewhat more than the label says: below nought there is a little.
                here = 1 - (bank.q_max - q) / bank.ah
                soc = min(1.0, max(0.0, here))
                level = q_1 / c_q
                rested = _at(soc, bank.table_soc, bank.table_v)
                deep = _depth_factor(bank.lfp, soc, level)
                ohm = bank.ohm * deep * series.cold_ohm[s, t] + bank.cable_ohm
                knee = bank.knee_v * _knee_share(level)
                source_v = rested - knee
                at = (soc, rested, source_v, max(v, source_v, 1.0), left)
                supply, seen = _offers(
                    bank, slots, s, t, at, generating, opened, done, resting, given, accepts, set_v
                )
                state |= seen
                # Loads and what gives up under them.
                for _again in range(GIVE_UPS):
                    off_dc, off_ac = loads_off or opened or emptied, inverter_off or opened or emptied
                    dc = 0.0 if off_dc else dc_w
                    if loads_off and bank.keeps_critical and not (opened or emptied):
                        dc = min(critical, dc_w)
                    ac = 0.0 if off_ac else ac_w
                    watts = dc + ac
                    heater = 0.0
                    if series.heats[s, t] and supply > 0 and not opened:
                        heater = min(bank.heater_w, max(0.0, supply * max(v, source_v) - watts))
                    amps = _current_at_power(source_v, ohm, supply, watts + heater)
                    if not np.isnan(amps) and amps > 0:
                        # Volts fall over the step: find the mean that gives this power.
                        for _i in range(4):
                            was = amps
                            after = here - amps * left / bank.ah
                            amps = _current_at_power(
                                _mean_v(here, after, bank) - knee, ohm, supply, watts + heater
                            )
                            if np.isnan(amps) or abs(amps - was) < 1e-10 * amps:
                                break
                    extra = max(0.0, series.peak_w[s, t] - dc_w - ac_w) if dc + ac > 0 else 0.0
                    hardest = _current_at_power(source_v, ohm, supply, watts + heater + extra)
                    if opened or emptied:
                        break
                    low = 0.0 if np.isnan(hardest) else source_v - ohm * hardest
                    low_v = min(low_v, low)
                    draws = np.isnan(amps) or amps > 0 or hardest > 0
                    if series.cold_off[s, t] and bank.lfp:
                        opened = too_cold = True
                        state |= BMS_OPEN
                        continue
                    if draws and bank.lfp:
                        lasting = max(0.0, series.lasting_w[s, t] - dc_w - ac_w) if dc + ac > 0 else 0.0
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
                into, held = 0.0, 0.0
                if amps <= 0:
                    # The sources give more than the loads take: the bank gets what it accepts.
                    amps = 0.0
                    may = series.limit_a[s, t]
                    if heater > 0 and heater >= 0.999 * bank.heater_w:
                        may = max(may, bank.heated_a)
                    if may <= 0 and supply * source_v > watts + 1:
                        state |= TOO_COLD
                    into, held = _flow(slots, given, accepts, set_v, may, (watts + heater) / source_v, rested)
                # How long this goes on: until full, or until the available well is dry.
                h = left
                if into > 0:
                    room = bank.q_max - q
                    if into * bank.coulombic * h > room:
                        if room <= 1e-9 * bank.q_max:
                            into = 0.0
                        else:
                            h = room / (into * bank.coulombic)
                out_a = amps if into == 0 else -into * bank.coulombic
                empty_q = series.held_back[s, t] * c_q
                q_1_next = _available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
                if out_a > 0 and q_1_next < empty_q:
                    h = _until_dry(bank, q_1, q, out_a, h, empty_q)
                    q_1_next = _available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
                    emptied = True
                    state |= EMPTY
                    if bank.lfp:
                        opened = True
                        state |= BMS_OPEN
                lost = min(series.leak_a[s, t] * h, max(0.0, q - out_a * h) * 0.5)
                q_next = q - out_a * h - lost
                # What the available well cannot hold goes to the bound one at once.
                q_1_next = min(q_1_next - c * lost, c_q)
                q_1_next = max(q_1_next, q_next - (bank.q_max - c_q), 0.0)
                after = here - out_a * h / bank.ah
                mean = _mean_v(here, after, bank) if out_a != 0 else rested
                if into > 0:
                    v = max(held, mean)
                    heat = (v - mean * bank.coulombic) * into
                elif amps > 0:
                    v = mean - knee - ohm * amps
                    heat = (mean - v) * amps
                else:
                    v, heat = max(source_v, held), 0.0
                # A steady current gives, to the last part, what its mean volts make of it.
                served = (supply + amps) * v if amps > 0 else watts + heater
                share = h / dt
                out.amps[s, t] += (into - amps) * share
                out.volts[s, t] += (0.0 if opened and not into else v) * share
                out.served_w[s, t] += served * share
                out.heater_w[s, t] += heater * share
                out.heat_w[s, t] += heat * share
                out.lost_ah[s, t] += lost
                out.lost_wh[s, t] += _mean_v(after, after - lost / bank.ah, bank) * lost
                out.bank_w[s, t] += (into - amps) * v * share
                missing_dc = max(0.0, series.dc_w[s, t] - dc)
                missing_ac = max(0.0, ac_w - ac)
                out.unserved_dc[s, t] += missing_dc * h
                out.unserved_ac[s, t] += missing_ac * h
                missing = max(0.0, critical - dc)
                if ac < ac_w:
                    missing += series.critical_ac_w[s, t]
                out.unserved_critical[s, t] += missing * h
                from_sources = max(0.0, served + (into - amps) * v)
                for i in slots.order[::-1]:
                    offered = given[i] * v
                    used = min(offered, from_sources)
                    out.offered_w[i, s, t] += offered * share
                    out.used_w[i, s, t] += used * share
                    from_sources -= used
                if amps <= 0:
                    limit_a = series.limit_a[s, t]
                    _see(bank, slots, given, accepts, into, limit_a, soc, h, done, resting, timer, floated)
                charged = charged or into > 0
                q, q_1 = q_next, q_1_next
                left -= h
            if (1 - (bank.q_max - q) / bank.ah) >= bank.full_soc:
                state |= FULL
            out.state[s, t] = state
            out.peak_v[s, t] = low_v if low_v < np.inf else 0.0
        out.charge[s, total] = q
        out.soc[s, total] = min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah))
        out.level[s, total] = q_1 / c_q
