"""A long series as few points: the lowest and highest of each stretch, so that no peak is lost."""

import numpy as np

from vast_harbor.core.arrays import Floats, Ints


def thinned(at: Ints, low: Floats, high: Floats, most: int) -> tuple[Ints, Floats, Floats]:
    """A series whose stretches hold their lowest and highest value.

    Args:
        at: times in order [s], shape (n,).
        low, high: values, the same where they are single readings, shape (n,); nan where there is none.
        most: how many stretches at most.

    Returns:
        Middle of each stretch [s], its lowest and highest value, shape (m,), m at most ``most``; stretches
        without a reading are not there.
    """
    if len(at) <= most:
        return at, low, high
    width = max(1, int(np.ceil((int(at[-1]) - int(at[0]) + 1) / most)))
    stretch, begin = np.unique((at - at[0]) // width, return_index=True)
    return (
        (at[0] + stretch * width + width // 2).astype(np.int64),
        np.fmin.reduceat(low, begin),
        np.fmax.reduceat(high, begin),
    )
