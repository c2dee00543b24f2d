"""Changeover: from the verdict to a bank that runs."""

from vast_harbor.core.stops.changeover.acceptance import Acceptance
from vast_harbor.core.stops.changeover.cause_texts import cause_texts, label, remark
from vast_harbor.core.stops.changeover.changeover import Changeover, against
from vast_harbor.core.stops.changeover.measurements import Measurement, name_of_reading, read, simulated
from vast_harbor.core.stops.changeover.order_of_work import Gate, Step, test_cautions
from vast_harbor.core.stops.changeover.settings import Guard, Row
from vast_harbor.core.stops.changeover.shopping_list import Line
from vast_harbor.core.stops.changeover.work import Work

__all__ = (
    "Acceptance",
    "Changeover",
    "Gate",
    "Guard",
    "Line",
    "Measurement",
    "Row",
    "Step",
    "Work",
    "against",
    "cause_texts",
    "label",
    "name_of_reading",
    "read",
    "remark",
    "simulated",
    "test_cautions",
)
