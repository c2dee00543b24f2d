"""What a source gives, in words."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.sources import GENERATOR, SOLAR, STREAM, UPKEEP, Source


def source_text(source: Source, system_v: float, style: Style) -> str:
    """The most that a source gives, in words; empty where it gives nothing by itself."""
    if source.kind == GENERATOR:
        return style.text(source.watts, "W") + " AC"
    most = source.most_a(system_v)
    if source.kind == SOLAR:
        return f"{style.text(source.watts, 'W')}, {style.text(most, 'A')} at noon"
    if source.kind == STREAM:
        return f"{style.text(max(source.monthly_w, default=0.0), 'W')} at best"
    if source.kind == UPKEEP:
        return f"takes {style.text(source.amps or 0.0, 'A')}"
    return style.text(most, "A") if most else "amps not entered"
