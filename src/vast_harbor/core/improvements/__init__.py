"""What can be done beside the bank: more sun, a charger, a saved load, another place, other nights."""

from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.improvements.old_bank import JOIN
from vast_harbor.core.improvements.options import (
    KINDS,
    STATES,
    carried_out,
    is_refused,
    options,
    planned_improvements,
    with_improvements,
)
from vast_harbor.core.rig.improvement_rows import PLANNED, REFUSED

__all__ = (
    "JOIN",
    "KINDS",
    "PLANNED",
    "REFUSED",
    "STATES",
    "Improvement",
    "carried_out",
    "is_refused",
    "options",
    "planned_improvements",
    "with_improvements",
)
