"""How far a day may be off: low, likely and high draws, and the cautious day that follows."""

from collections.abc import Sequence
from math import sqrt

from vast_harbor.core.figures.normal import Z_90

Triple = tuple[float, float, float]


def triangular_mean(low: float, likely: float, high: float) -> float:
    """Mean of a triangular distribution, (a + c + b)/3, in its own unit."""
    return (low + likely + high) / 3


def triangular_variance(low: float, likely: float, high: float) -> float:
    """Variance of a triangular distribution, in its own unit squared.

    Source: Kotz & van Dorp, Beyond Beta (2004), chapter 1.
    """
    return (low**2 + likely**2 + high**2 - low * likely - low * high - likely * high) / 18


def cautious_sum(parts: Sequence[Triple], certain: float) -> float:
    """The sum that nine days of ten stay below (P90), the doubts independent of each other.

    Args:
        parts: (low, likely, high) of each part.
        certain: what is not in doubt.

    Returns:
        mean + 1.2816·√Σσ², by the central limit; never above the sum of the highs, nor below that of the
        likely values, in the unit of the parts.
    """
    mean = sum(triangular_mean(*p) for p in parts)
    spread = Z_90 * sqrt(sum(triangular_variance(*p) for p in parts))
    likely, high = sum(p[1] for p in parts), sum(p[2] for p in parts)
    return certain + max(likely, min(high, mean + spread))
