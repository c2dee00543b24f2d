"""What the days ask of a bank and what they offer it, step by step: the same for every bank beside it."""

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from vast_harbor.core.arrays import Flags, Floats


@dataclass(frozen=True, slots=True, eq=False)
class Feed:
    """What one source offers.

    Attributes:
        id: of the source.
        unit: share of what it can give, at most about 1, shape (stretches, steps).
        starts: whether it begins anew in a step, as in the morning or when it is plugged in, same shape.
    """

    id: str
    unit: Floats
    starts: Flags


@dataclass(frozen=True, slots=True, eq=False)
class Conditions:
    """Days of use and weather of several stretches, arrays of shape (stretches, steps).

    Attributes:
        step_h: length of a step [h].
        dc_w, ac_w: mean power from the bank, through the inverter in the latter [W], losses included.
        critical_dc_w, critical_ac_w: those parts which must not go dark [W].
        peak_w: the most that runs at once in the step, with the hardest start [W].
        starts_w: (seconds, the same without starts that are over sooner), ascending from nought.
        battery_c: temperature of the battery [°C].
        generator_ok: whether a generator may run.
        attended: whether somebody is there who wakes a BMS by hand.
        least_v: volts that the loads which are on want, for 12 V [V]; 0 where none minds.
        feeds: the sources.
    """

    step_h: float
    dc_w: Floats
    ac_w: Floats
    critical_dc_w: Floats
    critical_ac_w: Floats
    peak_w: Floats
    starts_w: tuple[tuple[float, Floats], ...]
    battery_c: Floats
    generator_ok: Flags
    attended: Flags
    least_v: Floats
    feeds: tuple[Feed, ...] = ()

    @property
    def steps(self) -> int:
        """How many steps."""
        return int(self.dc_w.shape[1])

    @property
    def stretches(self) -> int:
        """How many stretches side by side."""
        return int(self.dc_w.shape[0])

    def lasting_w(self, seconds: float) -> Floats:
        """The most that runs at once, without starts that are over within so many seconds [W]."""
        return [watts for limit, watts in self.starts_w if limit <= seconds][-1]

    def without_charge(self) -> "Conditions":
        """The same days with no source at all."""
        return replace(self, generator_ok=np.zeros_like(self.generator_ok), feeds=())

    def doubled(self) -> "Conditions":
        """The same in steps twice as long: means of what flows, and the hardest of both moments.

        For whole seasons, of which sums are asked. The number of steps must be even.
        """

        def mean(a: Floats) -> Floats:
            return (a[:, ::2] + a[:, 1::2]) / 2

        def most(a: Floats) -> Floats:
            return np.maximum(a[:, ::2], a[:, 1::2])

        feeds = tuple(Feed(f.id, mean(f.unit), f.starts[:, ::2] | f.starts[:, 1::2]) for f in self.feeds)
        means = ("dc_w", "ac_w", "critical_dc_w", "critical_ac_w", "battery_c")
        changed: dict[str, Any] = {name: mean(getattr(self, name)) for name in means}
        changed |= {name: most(getattr(self, name)) for name in ("peak_w", "least_v")}
        for name in ("generator_ok", "attended"):
            both = getattr(self, name)
            changed[name] = both[:, ::2] & both[:, 1::2]
        changed["starts_w"] = tuple((seconds, most(watts)) for seconds, watts in self.starts_w)
        return replace(self, step_h=2 * self.step_h, feeds=feeds, **changed)
