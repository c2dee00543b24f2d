"""How the loop over time is compiled, the physics of a bank compiled for it, and its rested volts."""

from typing import Any

from numba import njit

from vast_harbor.core.battery import charge_acceptance, kibam, terminal_voltage

# References to an array are counted at each call that it is handed to: that took half the time of a run.
# Nothing here makes an array or outlives one, so that they need not be.
_HOW: dict[str, Any] = {"nogil": True, "error_model": "numpy", "_nrt": False}
compiled, _inlined = njit(cache=True, **_HOW), njit(**_HOW)

# The physics of a bank, as the battery package has it, compiled into the loop.
current_at_power = _inlined(terminal_voltage.current_at_power)
inner_resistance = _inlined(terminal_voltage.inner_resistance)
knee_share = _inlined(terminal_voltage.knee_share)
available_after = _inlined(kibam.available_after)
mean_acceptance = _inlined(charge_acceptance.mean_acceptance)
behind_cable = _inlined(charge_acceptance.behind_cable)


@compiled
def volts_at(soc, xs, ys):  # type: ignore[no-untyped-def]
    """A table at a charge, linear between its points."""
    if soc <= xs[0]:
        return ys[0]
    for i in range(1, xs.size):
        if soc <= xs[i]:
            return ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
    return ys[-1]


@compiled
def area(soc, xs, ys, areas):  # type: ignore[no-untyped-def]
    """∫ V dSoC from empty, exactly; beyond the ends the volts stay as they are there."""
    if soc <= xs[0]:
        return ys[0] * (soc - xs[0])
    for i in range(1, xs.size):
        if soc <= xs[i]:
            v = ys[i - 1] + (ys[i] - ys[i - 1]) * (soc - xs[i - 1]) / (xs[i] - xs[i - 1])
            return areas[i - 1] + (ys[i - 1] + v) / 2 * (soc - xs[i - 1])
    return areas[-1] + ys[-1] * (soc - xs[-1])


@compiled
def mean_v(soc, after, rested):  # type: ignore[no-untyped-def]
    """Mean rested volts from one charge to another."""
    if abs(after - soc) < 1e-9:
        return volts_at(soc, rested.soc, rested.volts)
    xs, ys, areas = rested.soc, rested.volts, rested.area
    return (area(after, xs, ys, areas) - area(soc, xs, ys, areas)) / (after - soc)
