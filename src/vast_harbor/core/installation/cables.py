"""Cables and fuses: resistance, drop, size, and the current of a short circuit."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.terminal_voltage import bank_resistance, rested_volts
from vast_harbor.core.figures.interpolation import interpolate

# Warm copper [Ω·mm²/m]; copper-clad aluminium has so many times its resistance.
COPPER, CLAD = 0.020, 1.6
FUSE_MARGIN, BREAKING_MARGIN = 1.25, 1.5
# Systems for which breaking capacity is stated, by their class volts [V]: at 14, 32 and 58 V of charge.
BREAKING_V = (12.0, 24.0, 48.0)
# Within this distance of the positive terminal.
FUSE_WITHIN_MM = 200


@dataclass(frozen=True, slots=True)
class FuseKind:
    """A kind of fuse.

    Attributes:
        name: what it is called.
        breaks_a: DC short circuit that such a fuse typically breaks in a 12, 24 and 48 V system [A]; 0 where
            it must not be used.
        amps: smallest and largest rated current in which it is sold [A].
        dc_label: whether only those will do whose label states a DC voltage and breaking capacity.
        price_share: its price with holder, as a share of the main fuse's typical price [-].
    """

    name: str
    breaks_a: tuple[float, float, float]
    amps: tuple[float, float]
    dc_label: bool
    price_share: float

    def breaks(self, class_v: float) -> float:
        """What it breaks at the highest charge volts of a system [A]; 0 where it must not be used.

        Args:
            class_v: class volts of the system, 12 to 48 [V].
        """
        return next((a for v, a in zip(BREAKING_V, self.breaks_a, strict=True) if class_v <= v), 0.0)


@dataclass(frozen=True, slots=True)
class CableData:
    """Published sizes.

    Attributes:
        ampacity: (cross-section [mm²], current that it may carry [A]), ascending.
        source: where from.
        fuses: rated currents of fuses, ascending [A].
        kinds: kinds of fuse, the plainest first.
        fuse_source: where what they break is from.
        usual: name of the kind that strings and sources usually get.
    """

    ampacity: tuple[tuple[float, float], ...]
    source: str
    fuses: tuple[float, ...]
    kinds: tuple[FuseKind, ...]
    fuse_source: str = ""
    usual: str = ""


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


def ampacity(mm2: float, data: CableData, clad: bool = False) -> float:
    """Current that a cable may carry [A], between the sizes of the table in proportion.

    Args:
        mm2: cross-section [mm²].
        data: published sizes.
        clad: copper-clad aluminium; it carries less in proportion to the square root of its resistance.
    """
    return interpolate(data.ampacity, mm2) * _carried(clad)


def _carried(clad: bool) -> float:
    """What a cable carries, as a share of what a copper one of its size does [-]."""
    return CLAD**-0.5 if clad else 1.0


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
        clad: copper-clad aluminium instead of copper.

    Returns:
        The cable with its fuse; None when none of the table will do.
    """
    for mm2, carries in data.ampacity:
        carries_a = carries * _carried(clad)
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


def string_breaking_a(bank: Bank) -> float:
    """What the fuse of one string must be able to break [A]: 1.5 times what its own string, or all others
    together, drive through it."""
    return breaking_a(bank) * max(1, bank.parallel - 1) / bank.parallel


def fuse_kind(
    kinds: Sequence[FuseKind], class_v: float, breaks_a: float, rated_a: float | None = None
) -> FuseKind | None:
    """The plainest kind of fuse that breaks a short circuit safely.

    Args:
        kinds: kinds, the plainest first.
        class_v: class volts of the system [V]; what a kind breaks falls with the volts.
        breaks_a: what it must break, the margin included, see :func:`breaking_a` [A].
        rated_a: its rated current [A]; None where that is not known yet.

    Returns:
        The kind; None when none will do.
    """
    return next(
        (
            k
            for k in kinds
            if k.breaks(class_v) >= breaks_a and (rated_a is None or k.amps[0] <= rated_a <= k.amps[1])
        ),
        None,
    )
