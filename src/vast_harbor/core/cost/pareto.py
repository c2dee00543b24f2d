"""The front of choices of which none is beaten in everything."""

import numpy as np
from numpy.typing import NDArray


def front(costs: NDArray[np.float64]) -> NDArray[np.bool_]:
    """Which rows no other row beats or equals in every column while beating it in one.

    Args:
        costs: shape (n, k), less is better.

    Returns:
        Mask of shape (n,). Of rows that are equal in all columns each is on the front or none.
    """
    kept = np.ones(len(costs), dtype=bool)
    for i, row in enumerate(costs):
        if kept[i]:
            beaten = (costs >= row).all(axis=1) & (costs > row).any(axis=1)
            kept &= ~beaten
    return kept
