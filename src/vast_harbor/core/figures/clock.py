"""Hours of the day, and blocks of them."""

from collections.abc import Sequence

DAY_H = 24.0
# (start, end) in clock hours, within 0..24.
Block = tuple[float, float]


def union_hours(blocks: list[Block]) -> tuple[Block, ...]:
    """Blocks merged where they touch or overlap, in order."""
    merged: list[Block] = []
    for start, end in sorted(blocks):
        if merged and start <= merged[-1][1] + 1e-12:
            merged[-1] = (merged[-1][0], max(end, merged[-1][1]))
        else:
            merged.append((start, end))
    return tuple(merged)


def within_day(windows: Sequence[Block]) -> tuple[Block, ...]:
    """Set times as blocks within one day: split at midnight, overlapping ones joined.

    Args:
        windows: (from, to) clock hours with 0 ≤ from < 24 and from < to ≤ from + 24.

    Returns:
        (start, end) blocks within 0..24, ascending, apart from each other.
    """
    parts: list[Block] = []
    for start, end in windows:
        parts.append((start, min(end, DAY_H)))
        if end > DAY_H:
            parts.append((0.0, end - DAY_H))
    return union_hours(parts)
