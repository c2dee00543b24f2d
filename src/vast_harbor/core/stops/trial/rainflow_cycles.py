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


def swings(points: list[float], least: float) -> list[float]:
    """Turning points without the swings that are shallower than asked for, between those that are not.

    Args:
        points: as of :func:`turning_points`.
        least: depth of the shallowest swing that counts [-].

    Returns:
        Those that cycles of that depth turn at: each highest and lowest point before the charge turns back by
        as much.
    """
    out: list[float] = []
    low = high = points[0]
    way = 0
    for point in points:
        if way == 0:
            # Until it has moved so far, the first swing may begin at the lowest or at the highest point.
            if point < low:
                way, low = -int(high - point >= least), point
            elif point > high:
                way, high = int(point - low >= least), point
            if way:
                out.append(high if way < 0 else low)
                far = point
        elif (point - far) * way >= 0:
            far = point
        elif abs(point - far) >= least:
            out.append(far)
            way, far = -way, point
    return [*out, far] if way else []


def cycles(soc: Floats) -> Iterator[tuple[float, float]]:
    """Depth and count (a half or one) of each cycle of one per cent and more.

    Args:
        soc: state of charge over time [-], shape (n,).

    Source: rainflow counting, ASTM E1049-85.
    """
    points = swings(turning_points(soc).tolist(), LEAST_DEPTH)
    if len(points) == 2:
        # One swing is half a cycle; the package asks for a turn.
        yield abs(points[1] - points[0]), 0.5
    for depth, _mean, count, _start, _end in rainflow.extract_cycles(points):
        if depth >= LEAST_DEPTH:
            yield depth, count


def histogram(found: list[tuple[float, float]]) -> Floats:
    """Cycles by depth in tenths, shape (10,)."""
    out = np.zeros(BINS)
    for depth, count in found:
        out[min(BINS - 1, int(depth * BINS - 1e-9))] += count
    return out
