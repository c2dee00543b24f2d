"""The loop over time for one bank, compiled: plain arithmetic on plain numbers.

Charge moves between the two wells of the kinetic model; volts follow from charge, level and current; loads
come first and the bank gets the rest, as much as it accepts; and what protects the rig switches off and on.
Everything that does not depend on the state of the bank is laid out before, see
:mod:`vast_harbor.core.simulation.run`.
"""

import numpy as np

from vast_harbor.core.simulation.charging import begin_anew, charge_limit, into_bank, move_charge, offers, see
from vast_harbor.core.simulation.compiled import compiled, inner_resistance, knee_share, mean_v, volts_at
from vast_harbor.core.simulation.noting import note_part, note_sources, spread
from vast_harbor.core.simulation.parameters import BMS_OPEN, EMPTY, FULL, GENERATING, TOO_COLD, Level, Moment
from vast_harbor.core.simulation.switching import come_back, under_load

# Steps that are alike are taken at once only well away from empty: state of charge and level [-].
CALM_SOC, CALM_LEVEL = 0.35, 0.35
# A bank that lacks no more than this of its charge is full, but for what leaks away in some hours [-].
FULL_Q = 0.002
# How often one step may be parted.
PARTS = 6


@compiled
def at_once(  # type: ignore[no-untyped-def]
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


@compiled
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
        v = volts_at(start_soc[s], rested.soc, rested.volts)
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
            rested_v = volts_at(soc, rested.soc, rested.volts)
            switches = come_back(bank, rested_v, v, soc, charged, now.cold_off, switches)
            # Nobody lets it run for a bank that is too cold to take anything.
            generating = (
                series.generator_ok[s, t]
                and (now.limit_a > 0 or now.heats)
                and (soc < bank.generator_start or (generating and soc < bank.generator_stop))
            )
            state = GENERATING if generating else 0
            begin_anew(slots.starts, slots.rebulk_v, s, t, v, done, resting, timer, floated)
            taken = at_once(
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
                rested_v = volts_at(soc, rested.soc, rested.volts)
                ohm = inner_resistance(bank.ohm, bank.lfp, soc, level, series.cold_ohm[s, t]) + bank.cable_ohm
                knee = bank.knee_v * knee_share(level)
                source_v = rested_v - knee
                at = (soc, rested_v, source_v, max(v, source_v, 1.0), left)
                asleep = switches[2] and not (bank.by_itself or series.attended[s, t])
                supply, seen = offers(
                    bank, slots, s, t, at, generating, asleep, done, resting, given, accepts, set_v
                )
                stand = Level(here, source_v, ohm, knee, left)
                loads, switches, emptied, noted = under_load(
                    bank, rested, now, stand, supply, v, emptied, switches
                )
                state |= seen | noted
                low_v = min(low_v, loads[4])
                watts, amps = loads[0] + loads[1] + loads[2], loads[3]
                into, held = 0.0, 0.0
                if amps <= 0:
                    # The sources give more than the loads take: the bank gets what it accepts.
                    amps = 0.0
                    may = charge_limit(bank, now.limit_a, loads[2])
                    if may <= 0 and supply * source_v > watts - loads[2] + 1:
                        state |= TOO_COLD
                    into, held = into_bank(slots, given, accepts, set_v, may, watts / source_v, rested_v)
                empty_q = series.held_back[s, t] * c_q
                into, out_a, h, q_next, q_1_next, lost, dry = move_charge(
                    bank, q, q_1, amps, into, empty_q, series.leak_a[s, t], left
                )
                if dry:
                    emptied = True
                    state |= EMPTY
                    if bank.lfp:
                        switches = (switches[0], switches[1], True, switches[3])
                        state |= BMS_OPEN
                after = here - out_a * h / bank.ah
                mean = mean_v(here, after, rested) if out_a != 0 else rested_v
                if into > 0:
                    v = max(held, mean)
                    heat = (v - mean * bank.coulombic) * into
                elif amps > 0:
                    v = mean - knee - ohm * amps
                    heat = (mean - v) * amps
                else:
                    v, heat = max(source_v, held), 0.0
                leak_v = mean_v(after, after - lost / bank.ah, rested)
                share = h / length
                from_sources = note_part(
                    summed, s, t, now, share, h, (loads[0], loads[1], loads[2], amps, low_v), supply,
                    (into, lost, leak_v), (v, heat), switches[2],
                )  # fmt: skip
                note_sources(slots.order, given, v, share, from_sources, out.used_w, out.offered_w, s, t)
                if amps <= 0:
                    see(bank, slots, given, accepts, into, now.limit_a, soc, h, done, resting, timer, floated)
                charged = charged or into > 0
                q, q_1 = q_next, q_1_next
                left -= h
            if (1 - (bank.q_max - q) / bank.ah) >= bank.full_soc:
                state |= FULL
            out.state[s, t] = state
            out.peak_v[s, t] = low_v if low_v < np.inf else 0.0
            if taken > 1:
                spread(
                    summed, out, s, t, taken, q, min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah)), q_1 / c_q
                )
        out.charge[s, total] = q
        out.soc[s, total] = min(1.0, max(0.0, 1 - (bank.q_max - q) / bank.ah))
        out.level[s, total] = q_1 / c_q
