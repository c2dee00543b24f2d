"""What the system voltage changes: current, cable, converter losses; and what it leaves alone."""

from collections.abc import Sequence

# Warm copper, Ω·mm²/m; the drop that is customary to allow.
COPPER, DROP = 0.020, 0.03
# Lowest volts at which a 12 V inverter still runs.
CUT_OFF_V = 10.8


def main_current(watts: float, inverter_efficiency: float, class_v: float) -> float:
    """I = P/(η·V_LVC): current of an inverter at its cut-off.

    Args:
        watts: AC power at the moment [W].
        inverter_efficiency: η [-].
        class_v: 12, 24 or 48 [V].

    Returns:
        Current [A]. 2 kW at η 0.90 and 10.8 V: 206 A.
    """
    return watts / (inverter_efficiency * CUT_OFF_V * class_v / 12)


def cable_mm2(
    amps: float, length_m: float, class_v: float, table: Sequence[tuple[float, float]]
) -> float | None:
    """The smallest cable of a table that carries a current and drops no more than 3 % of the volts.

    Args:
        amps: current [A].
        length_m: length one way [m].
        class_v: nominal volts [V].
        table: (cross-section [mm²], current that it may carry [A]), ascending.

    Returns:
        Cross-section [mm²]; None when none of the table will do.

    Source: R = ρ·2L/A.
    """
    least = COPPER * 2 * length_m * amps / (DROP * class_v)
    return next((mm2 for mm2, carries in table if carries >= amps and mm2 >= least - 1e-9), None)
