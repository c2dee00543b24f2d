"""A charge over time, by any source from any charge to any other."""

from dataclasses import dataclass, replace

import numpy as np

from vast_harbor.core.arrays import Floats
from vast_harbor.core.rig.sources import SOLAR, Source
from vast_harbor.core.simulation.conditions import Conditions, Feed
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import SimulatedBank

STEP_H = 1 / 30
# A charge that is not done by then is never done.
LONGEST_H = 72.0
BULK, ABSORPTION, FLOAT, DONE = "bulk", "absorption", "float", "resting"
MARKS = (0.8, 0.95)
# Below this change in a quarter of the time a charge has come to its end [-].
STILL = 0.001


@dataclass(frozen=True, slots=True, eq=False)
class Curve:
    """A charge.

    Attributes:
        hours, soc, amps, volts: over time, from its start [h], [-], [A], [V].
        stages: (stage, first hour).
        reached: state of charge → hours until then; None where it is never reached.
        ends_soc: the charge that it approaches [-].
    """

    hours: Floats
    soc: Floats
    amps: Floats
    volts: Floats
    stages: tuple[tuple[str, float], ...]
    reached: dict[float, float | None]
    ends_soc: float


def curve(
    simulated: SimulatedBank,
    sources: tuple[Source, ...],
    from_soc: float,
    to_soc: float,
    celsius: float,
    load_w: float = 0.0,
) -> Curve:
    """Charge a bank with steady sources.

    Args:
        simulated: the bank.
        sources: what charges it, each giving all that it can; the sun as at noon.
        from_soc: where it begins [-].
        to_soc: where the picture may end [-].
        celsius: temperature of the battery [°C].
        load_w: what is drawn meanwhile [W].

    Returns:
        The charge, to the end that it comes to.
    """
    steps = int(LONGEST_H / STEP_H)
    flat = np.zeros((1, steps))
    begins = np.zeros((1, steps), dtype=bool)
    begins[0, 0] = True
    feeds = tuple(
        Feed(s.id, np.ones((1, steps)) * (0.9 if s.kind == SOLAR else 1.0), begins) for s in sources
    )
    load = flat + load_w
    conditions = Conditions(
        step_h=STEP_H,
        dc_w=load,
        ac_w=flat,
        critical_dc_w=flat,
        critical_ac_w=flat,
        peak_w=load,
        starts_w=((0.0, load),),
        battery_c=flat + celsius,
        generator_ok=np.zeros((1, steps), dtype=bool),
        attended=np.zeros((1, steps), dtype=bool),
        least_v=flat,
        feeds=feeds,
    )
    ready = replace(simulated, sources=sources, standing_a=0.0)
    traces = run([ready], conditions, from_soc)[0]
    soc, amps, volts = traces.soc[0], traces.amps[0], traces.volts[0]
    hours: Floats = np.asarray(np.arange(steps + 1) * STEP_H, dtype=float)
    end = _end(soc, to_soc)
    reached: dict[float, float | None] = {}
    for mark in (*MARKS, simulated.full_soc):
        at = np.flatnonzero(soc >= mark - 1e-9)
        reached[mark] = float(hours[at[0]]) if at.size else None
    return Curve(
        hours[: end + 1], soc[: end + 1], np.append(amps[:end], amps[end - 1]),
        np.append(volts[:end], volts[end - 1]), _stages(sources, simulated, volts[:end], amps[:end]), reached,
        float(soc.max()),
    )  # fmt: skip


def _end(soc: Floats, to_soc: float) -> int:
    """Where the picture ends: at the charge wanted, or where nothing moves any more."""
    at = np.flatnonzero(soc >= to_soc - 1e-9)
    if at.size:
        return max(2, int(at[0]))
    top = float(soc.max())
    still = np.flatnonzero(soc >= top - STILL)
    return max(30, min(len(soc) - 1, int(still[0] * 1.25)))


def _stages(
    sources: tuple[Source, ...], simulated: SimulatedBank, volts: Floats, amps: Floats
) -> tuple[tuple[str, float], ...]:
    """Bulk while the source gives all, absorption while the bank takes less, then float."""
    if not sources:
        return ()
    top = max(s.set_v for s in sources) * simulated.class_v / 12
    at_top = volts >= top - 0.03 * simulated.class_v / 12
    out = [(BULK, 0.0)]
    first = np.flatnonzero(at_top)
    if first.size:
        out.append((ABSORPTION, float(first[0]) * STEP_H))
        after = np.flatnonzero(~at_top[first[0] :])
        if after.size:
            step = int(first[0] + after[0])
            resting = amps[step] <= 1e-9 and any(s.rests or not s.hold_v for s in sources)
            out.append((DONE if resting else FLOAT, step * STEP_H))
    return tuple(out)
