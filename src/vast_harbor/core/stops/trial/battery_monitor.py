"""A simulated battery monitor: what a shunt would read while a bank goes through the trial.

It stands in for a real one: volts, amps, state of charge by counting and temperature, with the grain and the
noise that such meters have.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.stops.trial.trial import SimulationResult, Trial
from vast_harbor.core.weather.daily_weather import STEP_H

# Grain of the readings, and noise of one standard deviation: volts, amps, °C.
VOLTS_STEP, AMPS_STEP = 0.01, 0.1
VOLTS_NOISE, AMPS_NOISE, WARMTH_NOISE = 0.005, 0.05, 0.2


@dataclass(frozen=True, slots=True)
class MonitorReading:
    """One reading.

    Attributes:
        hours: since the start of the stretch [h].
        volts, amps: at the terminals, amps into the bank positive [V], [A].
        soc: state of charge as a shunt counts it [-].
        celsius: temperature of the battery [°C].
    """

    hours: float
    volts: float
    amps: float
    soc: float
    celsius: float


def readings(trial: Trial, result: SimulationResult) -> Iterator[MonitorReading]:
    """What a monitor reads every quarter of an hour while a bank goes through the trial.

    Args:
        trial: the stretch.
        result: the bank in it.

    Yields:
        Readings in order; the noise is the same for the same seed.
    """
    rng = np.random.default_rng((trial.timeline.plan.trial.seed, 77))
    traces, conditions = result.traces, trial.prepared.conditions
    count = conditions.steps
    volts = traces.volts[0] + rng.normal(0, VOLTS_NOISE, count) * (traces.volts[0] > 0)
    amps = traces.amps[0] + rng.normal(0, AMPS_NOISE, count) * (traces.volts[0] > 0)
    celsius = conditions.battery_c[0] + rng.normal(0, WARMTH_NOISE, count)
    for t in range(count):
        yield MonitorReading(
            t * STEP_H, _grain(volts[t], VOLTS_STEP), _grain(amps[t], AMPS_STEP),
            round(float(traces.soc[0, t + 1]), 3), round(float(celsius[t]), 1),
        )  # fmt: skip


def _grain(value: float, step: float) -> float:
    return round(round(float(value) / step) * step, 3) + 0.0
