"""Where the energy of a simulated bank is, for tests of whether it closes."""

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.simulation.parameters import Traces
from vast_harbor.core.simulation.simulated_bank import SimulatedBank


def stored_wh(made: SimulatedBank, charge: Floats) -> Floats:
    """∫V dq of a charge in the wells, by the class's table of rested volts [Wh].

    Args:
        made: the bank.
        charge: in both wells, any shape [Ah].
    """
    soc, volts = (np.array(x) for x in zip(*made.battery_class.rested_v, strict=True))
    fine = np.unique(np.concatenate((np.linspace(-0.3, 1, 2601), soc)))
    height = np.interp(fine, soc, volts) * made.class_v / 12
    area = np.concatenate(([0.0], np.cumsum((height[1:] + height[:-1]) / 2 * np.diff(fine))))
    here = 1 - (made.wells.capacity - charge) / made.nameplate_ah
    i = np.clip(np.searchsorted(fine, here, side="right") - 1, 0, len(fine) - 2)
    at = height[i] + (height[i + 1] - height[i]) * (here - fine[i]) / (fine[i + 1] - fine[i])
    return np.asarray((area[i] + (height[i] + at) / 2 * (here - fine[i])) * made.nameplate_ah)


def at_bus_wh(traces: Traces, dt: float) -> Floats:
    """What the sources give less what is served and what goes into the bank, (stretches, steps) [Wh]."""
    return (traces.used_w.sum(axis=0) - traces.served_w - traces.bank_w) * dt


def in_bank_wh(made: SimulatedBank, traces: Traces, dt: float) -> Floats:
    """What goes into the bank less what is stored, lost on the way and lost by standing, likewise [Wh]."""
    stored = np.diff(stored_wh(made, traces.charge), axis=1)
    return (traces.bank_w - traces.heat_w) * dt - stored - traces.lost_wh
