"""What a generator burns, and what that costs: as its owner says, else as such generators do."""

from vast_harbor.core.figures.workings import Figure, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.sources import GENERATOR_SHARE, Source
from vast_harbor.phrases import phrase


def litres_per_hour(generator: Source, assumptions: Assumptions) -> Figure:
    """Fuel of a generator at work [l/h].

    As stated; else litres for each kWh (0.45 to 0.6) times what it gives for hours, never nothing.
    """
    stated = generator.litres_per_h
    name = phrase("charging.sources_needed.litres_per_h")
    if stated > 0:
        return typed("source.litres_per_h", name, stated, "l/h", "/sources")
    each = assumptions.figure("fuel_l_kwh")
    usual = each.number * generator.watts * GENERATOR_SHARE / 1000
    return Figure(
        "source.litres_per_h", name, usual, "l/h", each.origin, source=each.source, note=each.note,
        assumption=each.assumption,
    )  # fmt: skip


def litre_price(generator: Source, assumptions: Assumptions) -> float:
    """What a litre of its fuel costs [money]: as stated, else a typical price of the region."""
    return generator.litre_price or assumptions.value("fuel_price")
