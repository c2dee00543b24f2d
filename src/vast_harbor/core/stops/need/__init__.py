"""Need: usable energy between charges, and the rated capacity that gives it."""

from vast_harbor.core.stops.need.energy_need import ClassNeed, Need, class_volts
from vast_harbor.core.stops.need.findings import need_findings, standby_days
from vast_harbor.core.stops.need.governing_day import Days, evaluate
from vast_harbor.core.stops.need.second_bank import SecondNeed, second_need

__all__ = (
    "ClassNeed",
    "Days",
    "Need",
    "SecondNeed",
    "class_volts",
    "evaluate",
    "need_findings",
    "second_need",
    "standby_days",
)
