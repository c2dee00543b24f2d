"""Air for batteries that gas while they are charged.

After IEC 62485-2, which is written for stationary batteries; taken here as the careful guide.
"""

from math import cbrt, exp

from vast_harbor.core.battery.chemistry import BatteryClass

BOOST_CELL_V = 2.40
LEAST_EQUALISING_MA = 50.0


def gassing_ma(battery_class: BatteryClass, cell_v: float, equalise_ma: float | None = None) -> float:
    """I_gas: current that makes gas [mA/Ah].

    Args:
        battery_class: its class; none of LFP gases.
        cell_v: charge volts of a cell [V]; up to 2.40 the table's boost value, above it × e^(11·(V − 2.40)).
        equalise_ma: current of the charger while it equalises [mA/Ah], at least 50; None when it does not.

    Returns:
        Current [mA/Ah]: vented 20, valve-regulated 8, at boost.
    """
    base = battery_class.gas_ma[1]
    boost = base * exp(11 * max(0.0, cell_v - BOOST_CELL_V))
    if equalise_ma is None or not base:
        return boost
    return max(boost, equalise_ma, LEAST_EQUALISING_MA)


def air_flow(cells: int, gas_ma: float, ah: float) -> float:
    """Q = 0.05·n_cells·I_gas·C·10⁻³: air that must flow [m³/h]. 24 V, 330 Ah vented: 3.96.

    Args:
        cells: cells in series.
        gas_ma: I_gas [mA/Ah].
        ah: capacity of the bank [Ah].
    """
    return 0.05 * cells * gas_ma * ah / 1000


def opening_cm2(flow: float) -> float:
    """A = 28·Q: free area of each of two openings, low and high [cm²]."""
    return 28 * flow


def spark_distance_mm(gas_ma: float, ah: float) -> float:
    """28.8·∛(I_gas·C): within it there must be nothing that sparks or glows [mm]."""
    return 28.8 * cbrt(gas_ma * ah)
