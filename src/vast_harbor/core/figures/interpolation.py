"""Reference tables: linear between points, held at the ends."""

from bisect import bisect_right
from collections.abc import Sequence

Points = Sequence[tuple[float, float]]


def bracket(points: Points, x: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """The two neighbouring points of a table between which ``x`` lies.

    Args:
        points: (x, y) pairs in ascending x, at least one.
        x: where to look.

    Returns:
        The lower and the upper point; the same point twice at and beyond the ends.
    """
    if x <= points[0][0]:
        return points[0], points[0]
    if x >= points[-1][0]:
        return points[-1], points[-1]
    upper = bisect_right([p[0] for p in points], x)
    return points[upper - 1], points[upper]


def interpolate(points: Points, x: float) -> float:
    """Value of a table at ``x``: linear between points, held at the ends.

    Args:
        points: (x, y) pairs in ascending x, at least one.
        x: where to read the table.

    Returns:
        y in the unit of the table.
    """
    (x1, y1), (x2, y2) = bracket(points, x)
    return y1 if x1 == x2 else y1 + (y2 - y1) * (x - x1) / (x2 - x1)
