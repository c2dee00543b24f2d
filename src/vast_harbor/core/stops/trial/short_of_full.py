"""Days that leave a bank short of full: what sulphates lead-acid."""

import numpy as np

from vast_harbor.core.arrays import Flags
from vast_harbor.phrases import phrase

# Days after the last off-grid one within which lead-acid wants to be full again.
WITHIN = 3
# Said with the count.
BY_THE_NEXT = phrase("trial.short_of_full.last_night_run_count")


def short_of_full(full: Flags, off_grid: Flags) -> Flags:
    """The off-grid days that leave the bank short of full.

    A day does so where the bank is not full at any moment of it, nor of the three days that follow as long as
    they are not off-grid: a bank that hook-up, or the sun on an idle day, fills in time suffers nothing, and
    no off-grid night begins with less.

    Args:
        full: whether the bank was full at a moment of the day, shape (stretches, days).
        off_grid: whether the day is an off-grid one, shape (days,) or (stretches, days).

    Returns:
        For each day whether it leaves the bank short, shape (stretches, days).
    """
    good = full.copy()
    off_grid = np.broadcast_to(off_grid, full.shape)
    calm = np.ones_like(full)
    for ahead in range(1, WITHIN + 1):
        calm[:, :-ahead] &= ~off_grid[:, ahead:]
        good[:, :-ahead] |= full[:, ahead:] & calm[:, :-ahead]
    return np.asarray(off_grid & ~good)
