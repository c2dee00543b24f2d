"""What a bank's weight and size do to a rig."""

from vast_harbor.core.installation.packing import OVER_MM, SIDE_MM


def coupling_change(new_kg: float, new_x_m: float, old_kg: float, old_x_m: float, base_m: float) -> float:
    """Δ = (m_new·x_new − m_old·x_old)/L: change of the load on a coupling or a front axle.

    Args:
        new_kg, old_kg: masses of the new and the old bank [kg].
        new_x_m, old_x_m: how far ahead of the (rear) axle they stand [m]; behind it negative.
        base_m: axle to coupling, or wheelbase [m], above 0.

    Returns:
        Change [kg], positive for more.
    """
    return (new_kg * new_x_m - old_kg * old_x_m) / base_m


def trim_moment(new_kg: float, new_x_m: float, old_kg: float, old_x_m: float) -> float:
    """m_new·x_new − m_old·x_old: change of a boat's trim moment [kg·m]; positive by the bow."""
    return new_kg * new_x_m - old_kg * old_x_m


def locker_litres(length_mm: float, width_mm: float, height_mm: float) -> float:
    """Room in a locker less the clearances: 25 mm at each side, 50 mm over the terminals.

    Args:
        length_mm, width_mm, height_mm: inside measures [mm].

    Returns:
        Volume [l]; 0 where nothing is left.
    """
    length, width, height = length_mm - 2 * SIDE_MM, width_mm - 2 * SIDE_MM, height_mm - OVER_MM
    return max(0.0, length) * max(0.0, width) * max(0.0, height) / 1e6
