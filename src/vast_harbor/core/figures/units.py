"""Units: the core computes in SI and hours; display and typing convert here, both ways."""

import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

KG_PER_LB, MM_PER_INCH, M_PER_FOOT = 0.45359237, 25.4, 0.3048
LITRES_PER_GALLON = 3.785411784
METRIC = "metric"
US = "us"
# A number, or an array of them.
T = TypeVar("T", bound=Any)
# Cross-section in mm² of the American wire sizes, thinnest first.
AWG = (
    (0.82, "18"), (1.31, "16"), (2.08, "14"), (3.31, "12"), (5.26, "10"), (8.37, "8"), (13.3, "6"),
    (21.2, "4"), (33.6, "2"), (42.4, "1"), (53.5, "1/0"), (67.4, "2/0"), (85.0, "3/0"), (107.2, "4/0"),
)  # fmt: skip
# ``AWG 2/0``, ``2/0``, ``00``, ``4 AWG``, ``#8``; a bare ``8`` only where it is an American cable.
_AWG = re.compile(r"^\s*(awg|#|gauge)?\s*(\d{1,2}|[1-4]/0|0{1,4})\s*(awg|ga|gauge)?\s*$", re.IGNORECASE)


def awg_area(text: str, american: bool) -> float | None:
    """The cross-section of an American wire size as typed.

    Args:
        text: what was typed.
        american: whether a bare number is a wire size too.

    Returns:
        Cross-section [mm²]; None where it is no wire size.
    """
    found = _AWG.match(text)
    if found is None:
        return None
    name = f"{len(found[2])}/0" if set(found[2]) == {"0"} else found[2]
    if not (american or found[1] or found[3] or "/" in name):
        return None
    return {size: area for area, size in AWG}.get(name)


def celsius(fahrenheit: T) -> T:
    """A temperature in °F as °C; numbers or arrays of them."""
    found: T = (fahrenheit - 32) * 5 / 9
    return found


def fahrenheit(celsius: T) -> T:
    """A temperature in °C as °F; numbers or arrays of them."""
    found: T = celsius * 9 / 5 + 32
    return found


# Other units of a stored one, as they are typed and written on labels, in lower case.
MM_IN = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": MM_PER_INCH, "inch": MM_PER_INCH, '"': MM_PER_INCH}
KG_IN = {"kg": 1.0, "g": 0.001, "t": 1000.0, "lb": KG_PER_LB, "lbs": KG_PER_LB}


@dataclass(frozen=True, slots=True)
class UnitPair:
    """How one stored unit is shown to those who think in US units.

    Attributes:
        us: name of the US unit.
        to_us: stored value → US value.
        from_us: US value → stored value.
    """

    us: str
    to_us: Callable[[float], float]
    from_us: Callable[[float], float]


US_UNITS = {
    "kg": UnitPair("lb", lambda v: v / KG_PER_LB, lambda v: v * KG_PER_LB),
    "±kg": UnitPair("±lb", lambda v: v / KG_PER_LB, lambda v: v * KG_PER_LB),
    "°C": UnitPair("°F", fahrenheit, celsius),
    "kg/kWh": UnitPair("lb/kWh", lambda v: v / KG_PER_LB, lambda v: v * KG_PER_LB),
    "mm": UnitPair("in", lambda v: v / MM_PER_INCH, lambda v: v * MM_PER_INCH),
    "m": UnitPair("ft", lambda v: v / M_PER_FOOT, lambda v: v * M_PER_FOOT),
    # Room for batteries; fuel is told in gallons.
    "l": UnitPair("cu ft", lambda v: v / 28.316846592, lambda v: v * 28.316846592),
    "l fuel": UnitPair("gal", lambda v: v / LITRES_PER_GALLON, lambda v: v * LITRES_PER_GALLON),
    "l/h": UnitPair("gal/h", lambda v: v / LITRES_PER_GALLON, lambda v: v * LITRES_PER_GALLON),
    "money/l": UnitPair("money/gal", lambda v: v * LITRES_PER_GALLON, lambda v: v / LITRES_PER_GALLON),
    "K": UnitPair("°F more", lambda v: v * 1.8, lambda v: v / 1.8),
    "cm²": UnitPair("sq in", lambda v: v / 6.4516, lambda v: v * 6.4516),
    "m²": UnitPair("sq ft", lambda v: v / M_PER_FOOT**2, lambda v: v * M_PER_FOOT**2),
    "m³/h": UnitPair("cu ft/min", lambda v: v * 0.588578, lambda v: v / 0.588578),
    "kg·m": UnitPair("lb·ft", lambda v: v / KG_PER_LB / M_PER_FOOT, lambda v: v * KG_PER_LB * M_PER_FOOT),
    "money/kg": UnitPair("money/lb", lambda v: v * KG_PER_LB, lambda v: v / KG_PER_LB),
}


def to_display(value: float, unit: str, system: str) -> tuple[float, str]:
    """A stored value in the unit that the owner thinks in.

    Args:
        value: stored value in ``unit``.
        unit: stored unit, e.g. ``kg`` or ``°C``.
        system: ``metric`` or ``us``.

    Returns:
        Value and unit to show; unchanged where both systems use the same unit.
    """
    pair = US_UNITS.get(unit) if system == US else None
    return (value, unit) if pair is None else (pair.to_us(value), pair.us)


def from_display(value: float, unit: str, system: str) -> float:
    """The stored value for a number typed in the owner's unit; inverse of :func:`to_display`.

    Args:
        value: typed number.
        unit: stored unit of the field.
        system: ``metric`` or ``us``.

    Returns:
        Value in ``unit``.
    """
    pair = US_UNITS.get(unit) if system == US else None
    return value if pair is None else pair.from_us(value)
