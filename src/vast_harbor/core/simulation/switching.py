"""The loads of a part of a step, and what protects bank and loads: it gives up under them, and comes back."""

import numpy as np

from vast_harbor.core.simulation.compiled import compiled, current_at_power, mean_v
from vast_harbor.core.simulation.parameters import (
    BMS_OPEN,
    EMPTY,
    HEATING,
    INVERTER_OFF,
    LOADS_OFF,
    OVERLOAD,
    SAGGED,
)

# How often things give up one after the other in a part of a step.
GIVE_UPS = 5
# A switch closes again at the next step; a BMS that was opened by low charge when it has so much again.
CLOSES_SOC = 0.05


@compiled
def come_back(bank, rested_v, v, soc, charged, cold_off, switches):  # type: ignore[no-untyped-def]
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


@compiled
def _drawn(bank, rested, level, supply, watts):  # type: ignore[no-untyped-def]
    """Current out that gives a power at the mean volts of what is left of a step [A]; NaN where none does."""
    amps = current_at_power(level.source_v, level.ohm, supply, watts)
    if np.isnan(amps) or amps <= 0:
        return amps
    for _i in range(4):
        was = amps
        after = level.soc - amps * level.left / bank.ah
        amps = current_at_power(mean_v(level.soc, after, rested) - level.knee, level.ohm, supply, watts)
        if np.isnan(amps) or abs(amps - was) < 1e-10 * amps:
            break
    return amps


@compiled
def _bms_opens(bank, level, supply, lasting_w, amps, hardest):  # type: ignore[no-untyped-def]
    """Whether a BMS opens under its loads: what there is to note, nought where it does not.

    Args:
        bank, level: the bank and how it stands.
        supply: what the sources offer [A].
        lasting_w: the power that lasts, all loads and the heater together [W].
        amps, hardest: current out, in the mean and at the hardest moment [A]; NaN where none gives the power.
    """
    longer = current_at_power(level.source_v, level.ohm, supply, lasting_w)
    # Near empty the volts fall within the step: its mean current is the larger one.
    if amps > longer:
        longer = amps
    if longer > bank.lasting_a * (1 + 1e-9) or hardest > bank.peak_a * (1 + 1e-9):
        return OVERLOAD | BMS_OPEN
    if np.isnan(hardest) or level.source_v - level.ohm * hardest < bank.cut_v:
        return BMS_OPEN | SAGGED
    return 0


@compiled
def under_load(bank, rested, now, level, supply, v, emptied, switches):  # type: ignore[no-untyped-def]
    """The loads of a part of a step, and what gives up under them, one after the other.

    Args:
        bank, rested, now: the bank, its rested volts, and what goes on around it.
        level: how it stands.
        supply: what the sources offer [A].
        v: volts before [V].
        emptied: whether the available well is dry.
        switches: (inverter off, loads off, BMS open, BMS opened by the cold).

    Returns:
        (DC, AC and heater power [W], current out [A], lowest volts [V]), the switches, whether it is empty,
        and what there is to note.
    """
    inverter_off, loads_off, opened, too_cold = switches
    dc_w, ac_w = now.dc_w + bank.standing_w, now.ac_w
    dc = ac = heater = amps = 0.0
    low_v, state = np.inf, 0
    for _again in range(GIVE_UPS):
        dc = 0.0 if loads_off or opened or emptied else dc_w
        if loads_off and bank.keeps_critical and not (opened or emptied):
            dc = min(now.critical_dc_w, dc_w)
        ac = 0.0 if inverter_off or opened or emptied else ac_w
        watts = dc + ac
        heater = 0.0
        if now.heats and supply > 0 and not opened:
            heater = min(bank.heater_w, max(0.0, supply * max(v, level.source_v) - watts))
        amps = _drawn(bank, rested, level, supply, watts + heater)
        if opened or emptied:
            break
        extra = max(0.0, now.peak_w - dc_w - ac_w) if watts > 0 else 0.0
        hardest = current_at_power(level.source_v, level.ohm, supply, watts + heater + extra)
        low = 0.0 if np.isnan(hardest) else level.source_v - level.ohm * hardest
        low_v = min(low_v, low)
        draws = np.isnan(amps) or amps > 0 or hardest > 0
        if now.cold_off and bank.lfp:
            opened = too_cold = True
            continue
        if draws and bank.lfp:
            lasting = max(0.0, now.lasting_w - dc_w - ac_w) if watts > 0 else 0.0
            noted = _bms_opens(bank, level, supply, watts + heater + lasting, amps, hardest)
            if noted:
                opened = True
                state |= noted
                continue
        if draws and ac > 0 and low < bank.inverter_v:
            inverter_off = True
            state |= SAGGED
            continue
        held_v = 0.0 if np.isnan(amps) else level.source_v - level.ohm * amps
        if not loads_off and dc > 0 and held_v < bank.disconnect_v and (np.isnan(amps) or amps > 0):
            loads_off = True
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
