"""What a steady current takes from full, found by search: for the tests."""

from vast_harbor.core.battery.kibam import Wells, capacity


def capacity_at(wells: Wells, amps: float) -> float:
    """Charge that a steady current takes from full [Ah]; ``amps`` of the string, above 0 [A]."""
    low, high = 1e-6, wells.capacity / amps + 1e-6
    for _ in range(80):
        middle = (low * high) ** 0.5
        if capacity(wells, middle) > amps * middle:
            low = middle
        else:
            high = middle
    return amps * low
