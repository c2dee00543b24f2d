"""A part of a step, and steps that were taken at once, noted in the traces of a run."""

from vast_harbor.core.simulation.compiled import compiled
from vast_harbor.core.simulation.parameters import (
    AMPS,
    BANK_W,
    HEAT_W,
    HEATER_W,
    LOST_AH,
    LOST_WH,
    SERVED_W,
    UNSERVED_AC,
    UNSERVED_CRITICAL,
    UNSERVED_DC,
    VOLTS,
)


@compiled
def note_part(  # type: ignore[no-untyped-def]
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


@compiled
def note_sources(order, given, v, share, from_sources, used_w, offered_w, s, t):  # type: ignore[no-untyped-def]
    """Add to the traces what each source offered, and what of it was used, the first in order last [W]."""
    for i in order[::-1]:
        offered = given[i] * v
        used = min(offered, from_sources)
        offered_w[i, s, t] += offered * share
        used_w[i, s, t] += used * share
        from_sources -= used


@compiled
def spread(summed, out, s, t, taken, q, soc, level):  # type: ignore[no-untyped-def]
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
