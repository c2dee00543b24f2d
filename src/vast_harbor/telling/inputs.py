"""Values as they stand in their inputs: in the owner's unit, which stands beside the input."""

from vast_harbor.core.figures.display import Style, trim
from vast_harbor.core.figures.units import AWG, US, to_display

# What a converted value may be off by in its input: 45.2 lb for 20.5 kg.
NEAR = 5e-4


def plain_number(value: float, unit: str, style: Style) -> str:
    """A value as it stands in its input: in the owner's unit, without it, with the decimals of the region.

    Args:
        value: in ``unit``.
        unit: stored unit.
        style: the owner's units.
    """
    if unit == "mm²" and style.system == US:
        return next((f"AWG {name}" for area, name in AWG if area == value), f"{value:g} mm²")
    shown, _ = to_display(value, unit, style.system)
    if shown != value:
        text = _near(shown)
    elif abs(shown) < 1e-9:
        text = trim(f"{shown:.6f}").replace("-0", "0")
    else:
        text = trim(f"{shown:.6g}" if abs(shown) < 1e6 else f"{shown:.2f}")
    return text.replace(".", style.numbers.decimal)


def _near(shown: float) -> str:
    """A converted value with no more figures than it takes, three at least."""
    for figures in range(3, 7):
        text = f"{float(f'{shown:.{figures}g}'):.10g}"
        if abs(float(text) - shown) <= NEAR * abs(shown):
            break
    return text


def field_number(value: float, unit: str, style: Style) -> str:
    """As :func:`plain_number`, a share in per cent."""
    return f"{plain_number(100 * value, '1', style)} %" if unit == "%" else plain_number(value, unit, style)
