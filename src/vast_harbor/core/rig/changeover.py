"""What an owner enters of the changeover: the bank that is bought, what is done, measured and paid."""

from collections.abc import Mapping
from dataclasses import dataclass, field

# The step of the order of work with which a bank runs.
RUNS = "isolated"


@dataclass(frozen=True, slots=True)
class Tick:
    """A step, question or setting that is done.

    Attributes:
        done: whether it is.
        on: ISO date; empty where it was not said.
        note: what was noted.
        passed: why its gate was passed although a reading is not as it should be; empty where it was not.
    """

    done: bool = False
    on: str = ""
    note: str = ""
    passed: str = ""


@dataclass(frozen=True, slots=True)
class Purchase:
    """What became of a line of the shopping list.

    Attributes:
        quote: price offered for all of it [money]; None for the estimate.
        paid: price paid [money]; None where it is not bought yet.
        have: whether it is there already, or borrowed.
        on: ISO date on which it was bought.
        seller, serial: from whom; serial numbers.
    """

    quote: float | None = None
    paid: float | None = None
    have: bool = False
    on: str = ""
    seller: str = ""
    serial: str = ""

    @property
    def price(self) -> float | None:
        """What it costs as far as the owner knows [money]; None for the estimate."""
        return self.paid if self.paid is not None else self.quote

    @property
    def got(self) -> bool:
        """Whether it is there."""
        return self.have or self.paid is not None


@dataclass(frozen=True, slots=True)
class ProofReading:
    """One reading of the acceptance test.

    Attributes:
        minutes: since it began [min].
        volts, amps: of the whole bank [V], [A].
    """

    minutes: float
    volts: float
    amps: float


@dataclass(frozen=True, slots=True)
class Devices:
    """What the devices around the bank are set to now; None where it is not known.

    Attributes:
        alarm_v, disconnect_v, reconnect_v: of the low-voltage alarm and of the loads, for 12 V [V].
        inverter_low_v, inverter_restart_v, inverter_high_v: where the inverter stops, starts again, and stops
            for too many volts, for 12 V [V].
        capacity_ah, charged_v, tail_a, minutes: of the monitor: capacity [Ah], volts for 12 V [V], current
            [A] and time [min] at which it calls the bank full.
        exponent, efficiency: the same: Peukert exponent and charge efficiency [-].
    """

    alarm_v: float | None = None
    disconnect_v: float | None = None
    reconnect_v: float | None = None
    inverter_low_v: float | None = None
    inverter_restart_v: float | None = None
    inverter_high_v: float | None = None
    capacity_ah: float | None = None
    charged_v: float | None = None
    tail_a: float | None = None
    minutes: float | None = None
    exponent: float | None = None
    efficiency: float | None = None


@dataclass(frozen=True, slots=True)
class Changeover:
    """The owner's record of the changeover.

    Attributes:
        chosen: id of the candidate that is bought; empty for none.
        chosen_on: ISO date of that.
        return_by: ISO date until which the shop takes the batteries back; empty where not known.
        start_on: ISO date on which the work is to begin.
        deposit: paid in advance [money].
        reach_plus_mm, reach_minus_mm: how far the old main cables reach beyond where they are fixed last
            [mm]; None where not measured.
        need_plus_mm, need_minus_mm: how far the new terminals are from there [mm].
        celsius: temperature of the batteries while they are measured [°C]; None for that of the plan.
        test_a: steady current that the owner has for tests [A]; None for the proposed one.
        ticks: step → what was done.
        readings: measurement → what was read [V], [A] or [K]; see ``stops.changeover``.
        proof: readings of the acceptance test, in their order.
        devices: what the devices around the bank are set to now.
        settable: setting → whether its device can be set so; not there where the owner did not say.
    """

    chosen: str = ""
    chosen_on: str = ""
    return_by: str = ""
    start_on: str = ""
    deposit: float | None = None
    reach_plus_mm: float | None = None
    reach_minus_mm: float | None = None
    need_plus_mm: float | None = None
    need_minus_mm: float | None = None
    celsius: float | None = None
    test_a: float | None = None
    ticks: Mapping[str, Tick] = field(default_factory=dict)
    readings: Mapping[str, float] = field(default_factory=dict)
    proof: tuple[ProofReading, ...] = ()
    devices: Devices = Devices()
    settable: Mapping[str, bool] = field(default_factory=dict)

    def tick(self, key: str) -> Tick:
        """What was done of a step; nothing where it was not touched."""
        return self.ticks.get(key, NOT_TOUCHED)


NOT_TOUCHED = Tick()
