"""What a source gives, in words."""

from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.sources import GENERATOR, SOLAR, STREAM, UPKEEP, Source
from vast_harbor.phrases import phrase


def source_text(source: Source, system_v: float, style: Style) -> str:
    """The most that a source gives, in words; empty where it gives nothing by itself."""
    if source.kind == GENERATOR:
        return style.text(source.watts, "W") + " AC"
    most = source.most_a(system_v)
    if source.kind == SOLAR:
        return phrase(
            "answers.charging_source_text.noon",
            watts=style.text(source.watts, "W"),
            most=style.text(most, "A"),
        )
    if source.kind == STREAM:
        return phrase(
            "answers.charging_source_text.best", max=style.text(max(source.monthly_w, default=0.0), "W")
        )
    if source.kind == UPKEEP:
        return phrase("answers.charging_source_text.takes", amps=style.text(source.amps or 0.0, "A"))
    return style.text(most, "A") if most else phrase("answers.charging_source_text.current_entered")
