"""The acceptance test: how long it should take, the curve it should follow, and what came of it."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vast_harbor.core.battery.capacity_test import MEASURING_DOUBT, stop_v
from vast_harbor.core.battery.discharge import Battery, battery, steady
from vast_harbor.core.battery.health_signs import HealthSign, by_test
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.bank_circuit import (
    AMPS_SOCKET,
    ASLEEP,
    ISOLATOR_OFF,
    MAIN_FUSE,
    REVERSED,
    STRING_FUSE,
    UNEQUAL,
    WEAK,
    Fault,
)
from vast_harbor.core.rig.changeover import ProofReading
from vast_harbor.core.stops.banks import label_or_class_exponent
from vast_harbor.core.stops.changeover.work import Work

# What makers allow a new battery to lack of its rated capacity [-]: lead-acid reaches it after some cycles.
LEAD_TOLERANCE, LFP_TOLERANCE = 0.05, 0.0
# So warm, or cold, the test tells little about the label [°C].
TEST_C = (10.0, 30.0)
# Doubt of what it says of the label beyond that [-].
FAR_DOUBT = 0.10
# Points of the curve that is drawn.
POINTS = 60
AS_PROMISED, WITHIN, SHORT, RUNNING, NONE = "promised", "within", "short", "running", "none"
# Of the expected charge, so much must be taken before a curve that lies low tells anything [-].
TELLS = 0.25


@dataclass(frozen=True, slots=True)
class Curve:
    """Volts over time of a test.

    Attributes:
        hours, volts: shape (n,) [h], [V].
    """

    hours: tuple[float, ...]
    volts: tuple[float, ...]


@dataclass(frozen=True)
class Acceptance:
    """The acceptance test of a bank.

    Attributes:
        work: the bank that is bought.
    """

    work: Work

    @property
    def amps(self) -> float:
        """Current that it is taken with [A]."""
        return self.work.load.amps

    @property
    def tolerance(self) -> float:
        """What the maker may be short of the label [-]."""
        return LEAD_TOLERANCE if self.work.lead else LFP_TOLERANCE

    @property
    def stop_v(self) -> float:
        """Volts at the load at which it ends [V], as of every capacity test."""
        return stop_v(self.work.build.bank.model.battery_class) * self.work.plan.system_v / 12

    def _battery(self, health: float) -> Battery:
        build = self.work.build
        exponent = label_or_class_exponent(build.assumptions, build.bank.model)
        return battery(build.bank, exponent, self.work.celsius, health * build.bank.model.health)

    @cached_property
    def expected_ah(self) -> float:
        """Amp-hours that a bank as labelled gives at this current and temperature [Ah]."""
        return steady(self._battery(1.0), self.amps, self.stop_v).delivered_ah

    @property
    def least_ah(self) -> float:
        """The least within the maker's tolerance and the doubt of measuring [Ah]."""
        return self.expected_ah * (1 - self.tolerance) * (1 - MEASURING_DOUBT)

    @property
    def hours(self) -> tuple[float, float, float]:
        """Least, likely and most hours that it should take [h]."""
        likely = self.expected_ah / self.amps
        return self.least_ah / self.amps, likely, likely * (1 + MEASURING_DOUBT) * 1.05

    @cached_property
    def curve(self) -> Curve:
        """The volts that a bank as labelled shows over the test."""
        return self._curve(1.0)

    @cached_property
    def least_curve(self) -> Curve:
        """The volts of the worst bank that is still within the tolerance."""
        return self._curve((1 - self.tolerance) * (1 - MEASURING_DOUBT))

    def _curve(self, health: float) -> Curve:
        run = steady(self._battery(health), self.amps, self.stop_v)
        hours = np.linspace(0.0, float(run.hours[-1]), POINTS)
        volts = np.interp(hours, run.hours, run.volts)
        return Curve(tuple(float(h) for h in hours), tuple(float(v) for v in volts))

    @property
    def warm_enough(self) -> bool:
        """Whether the temperature lets the test tell anything of the label."""
        return TEST_C[0] <= self.work.celsius <= TEST_C[1]

    @cached_property
    def readings(self) -> tuple[ProofReading, ...]:
        """What was read, in the order of time."""
        return tuple(sorted(self.work.record.proof, key=lambda r: r.minutes))

    @cached_property
    def measured_ah(self) -> float:
        """Amp-hours taken so far: the current of each reading until the next one [Ah]."""
        return taken(self.readings)

    def simulated(self, minutes: float, fault: Fault | None = None) -> tuple[float, float]:
        """What a simulated monitor shows during the test of this bank [V], [A].

        Args:
            minutes: since it began from full [min].
            fault: what is wrong with the bank; None for nothing.

        Returns:
            Volts and amps; at the end of the charge the stop volts; zero where the bank gives nothing.
        """
        left = _capacity_left(fault, self.work.build.bank.parallel)
        if left <= 0:
            return 0.0, 0.0
        run = steady(self._battery(left), self.amps, self.stop_v)
        ended = minutes / 60 >= float(run.hours[-1])
        volts = self.stop_v if ended else float(np.interp(minutes / 60, run.hours, run.volts))
        return volts, self.amps

    @cached_property
    def health(self) -> HealthSign | None:
        """Health that the test says once it has ended, less surely in the cold or in heat; None before."""
        if not self.ended:
            return None
        share = self.measured_ah / self.expected_ah * self.work.build.bank.model.health
        doubt = MEASURING_DOUBT if self.warm_enough else FAR_DOUBT
        return by_test(share * (1 - doubt), share * (1 + doubt))

    @property
    def ended(self) -> bool:
        """Whether the last reading is at the stop volts or below."""
        return bool(self.readings) and self.readings[-1].volts <= self.stop_v + 1e-9

    @cached_property
    def foreseen_ah(self) -> float | None:
        """What it will give, from the last volts against the curve [Ah]; None before that tells anything.

        The bank whose curve runs through the last reading is looked for.
        """
        if not self.readings:
            return None
        if self.ended:
            return self.measured_ah
        if self.measured_ah < TELLS * self.expected_ah:
            return None
        last = self.readings[-1]
        at, low, high = self.measured_ah / self.amps, 0.2, 1.2
        for _ in range(25):
            middle = (low + high) / 2
            run = steady(self._battery(middle), self.amps, self.stop_v)
            shown = float(np.interp(at, run.hours, run.volts, right=0.0))
            if shown < last.volts:
                low = middle
            else:
                high = middle
        return steady(self._battery(low), self.amps, self.stop_v).delivered_ah

    @cached_property
    def verdict(self) -> str:
        """``promised``, ``within`` the tolerance, ``short``; ``running`` or ``none`` before it ends."""
        if not self.readings:
            return NONE
        found = self.foreseen_ah
        if found is None:
            return RUNNING
        if not self.ended:
            # Only a bank that is clearly short is told before the end.
            return SHORT if self._surely_short(found) else RUNNING
        if found >= self.expected_ah * (1 - MEASURING_DOUBT):
            return AS_PROMISED
        return WITHIN if found >= self.least_ah else SHORT

    def _surely_short(self, found: float) -> bool:
        # The flat middle of LFP tells nothing by volts.
        steep = self.work.lead or self.readings[-1].volts < 12.6 * self.work.plan.system_v / 12
        return steep and found < 0.9 * self.least_ah


def taken(readings: Sequence[ProofReading]) -> float:
    """Amp-hours between readings: the mean current of each two neighbours times the time between [Ah]."""
    return sum(
        (one.amps + two.amps) / 2 * (two.minutes - one.minutes) / 60
        for one, two in itertools.pairwise(readings)
    )


def _capacity_left(fault: Fault | None, strings: int) -> float:
    """Share of its capacity that a bank of some strings still gives with a fault [-].

    The weakest battery ends its string; what opens the way of a string, or of all, takes it out whole.
    """
    if fault is None:
        return 1.0
    if fault.kind in (MAIN_FUSE, ISOLATOR_OFF, AMPS_SOCKET):
        return 0.0
    given = {WEAK: fault.size, UNEQUAL: 1 - fault.size, ASLEEP: 0.0, STRING_FUSE: 0.0, REVERSED: 0.0}
    return (strings - 1 + given.get(fault.kind, 1.0)) / strings
