"""Cables and fuses: resistance, drop, size, and the current of a short circuit."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.terminal_voltage import bank_resistance, rested_volts

# Warm copper [Ω·mm²/m]; copper-clad aluminium has so many times its resistance.
COPPER, CLAD = 0.020, 1.6
FUSE_MARGIN, BREAKING_MARGIN = 1.25, 1.5
# Within this distance of the positive terminal.
FUSE_WITHIN_MM = 200


@dataclass(frozen=True, slots=True)
class FuseKind:
    """A kind of fuse.

    Attributes:
        name: what it is called.
        volts: highest volts at which it may be used [V].
        interrupts_a: short-circuit current that it opens [A].
    """

    name: str
    volts: float
    interrupts_a: float


@dataclass(frozen=True, slots=True)
class CableData:
    """Published sizes.

    Attributes:
        ampacity: (cross-section [mm²], current that it may carry [A]), ascending.
        source: where from.
        fuses: rated currents of fuses, ascending [A].
        kinds: kinds of fuse, the plainest first.
    """

    ampacity: tuple[tuple[float, float], ...]
    source: str
    fuses: tuple[float, ...]
    kinds: tuple[FuseKind, ...]


def resistance(mm2: float, length_m: float, clad: bool = False) -> float:
    """R = ρ·2L/A: resistance of a cable both ways [Ω].

    Args:
        mm2: cross-section [mm²], above 0.
        length_m: length one way [m].
        clad: copper-clad aluminium instead of copper.
    """
    return COPPER * (CLAD if clad else 1.0) * 2 * length_m / mm2


def inverter_current(watts: float, efficiency: float, cut_off_v: float) -> float:
    """I = P/(η·V_LVC): current of an inverter at its cut-off. 2 kW, η 0.90, 10.8 V: 206 A.

    Args:
        watts: AC power [W].
        efficiency: η [-].
        cut_off_v: volts at which it stops [V].
    """
    return watts / (efficiency * cut_off_v)


@dataclass(frozen=True, slots=True)
class Sized:
    """A cable with its fuse.

    Attributes:
        mm2: cross-section [mm²].
        carries_a: current that it may carry [A].
        drop_v: volts lost both ways [V].
        drop: the same as a share of the nominal volts [-].
        fuse_a: rated current of the fuse [A].
    """

    mm2: float
    carries_a: float
    drop_v: float
    drop: float
    fuse_a: float


def fuse_for(amps: float, carries_a: float, fuses: Sequence[float]) -> float | None:
    """The smallest fuse of at least 1.25 times the current that still protects the cable [A]; or None."""
    return next((f for f in fuses if FUSE_MARGIN * amps <= f <= carries_a), None)


def size(
    amps: float, length_m: float, nominal_v: float, most_drop: float, data: CableData, clad: bool = False
) -> Sized | None:
    """The smallest cable that carries a current, drops little enough, and can be fused.

    Args:
        amps: continuous current [A], above 0.
        length_m: length one way [m].
        nominal_v: volts of the system [V].
        most_drop: drop that is allowed [-].
        data: published sizes.
        clad: copper-clad aluminium; it carries less in proportion to the square root of its resistance.

    Returns:
        The cable with its fuse; None when none of the table will do.
    """
    for mm2, carries in data.ampacity:
        carries_a = carries / (CLAD**0.5 if clad else 1.0)
        drop_v = amps * resistance(mm2, length_m, clad)
        fuse = fuse_for(amps, carries_a, data.fuses)
        if carries_a >= amps and drop_v / nominal_v <= most_drop + 1e-12 and fuse is not None:
            return Sized(mm2, carries_a, drop_v, drop_v / nominal_v, fuse)
    return None


def short_circuit_current(battery_class: BatteryClass, class_v: float, ohm: float) -> float:
    """V_full/R_bank: current of a dead short across a new, full bank at 25 °C [A].

    Args:
        battery_class: its class.
        class_v: class volts of the bank [V].
        ohm: resistance of the bank [Ω].
    """
    return float(rested_volts(battery_class, class_v, 1.0)) / ohm


def breaking_a(bank: Bank) -> float:
    """What a fuse of a bank must be able to break [A]: 1.5 times its short circuit, new and full."""
    class_v = bank.series * bank.model.unit_class_v
    return BREAKING_MARGIN * short_circuit_current(bank.model.battery_class, class_v, bank_resistance(bank))


def fuse_kind(kinds: Sequence[FuseKind], highest_v: float, short_a: float) -> FuseKind | None:
    """The plainest kind of fuse that opens a short circuit safely.

    Args:
        kinds: kinds, the plainest first.
        highest_v: highest charge volts of the system [V].
        short_a: short-circuit current [A]; the fuse must open 1.5 times as much.

    Returns:
        The kind; None when none will do.
    """
    return next(
        (k for k in kinds if k.volts >= highest_v and k.interrupts_a > BREAKING_MARGIN * short_a), None
    )
