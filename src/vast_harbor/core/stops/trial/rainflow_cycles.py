"""Cycles counted in a record of the charge."""

from collections.abc import Iterator

import numpy as np
import rainflow

from vast_harbor.core.arrays import Floats

# Shallower cycles wear nothing that is known.
LEAST_DEPTH = 0.01
BINS = 10


def turning_points(soc: Floats) -> Floats:
    """The first and last value of a record, and those where it turns."""
    moves = soc[np.concatenate(([True], np.diff(soc) != 0))]
    if moves.size < 3:
        return moves
    way = np.sign(np.diff(moves))
    keep = np.concatenate(([True], way[1:] != way[:-1], [True]))
    return np.asarray(moves[keep])


def cycles(soc: Floats) -> Iterator[tuple[float, float]]:
    """Depth and count (a half or one) of each cycle of one per cent and more.

    Args:
        soc: state of charge over time [-], shape (n,).

    Source: rainflow counting, ASTM E1049-85.
    """
    for depth, _mean, count, _start, _end in rainflow.extract_cycles(turning_points(soc).tolist()):
        if depth >= LEAST_DEPTH:
            yield depth, count


def histogram(found: list[tuple[float, float]]) -> Floats:
    """Cycles by depth in tenths, shape (10,)."""
    out = np.zeros(BINS)
    for depth, count in found:
        out[min(BINS - 1, int(depth * BINS - 1e-9))] += count
    return out
