"""Changeover: from the verdict to a bank that runs."""

from vast_harbor.core.stops.changeover.acceptance import Acceptance
from vast_harbor.core.stops.changeover.before_buying import Question
from vast_harbor.core.stops.changeover.cause_texts import cause_texts, label, remark
from vast_harbor.core.stops.changeover.changeover import Against, Changeover, against
from vast_harbor.core.stops.changeover.measurements import Measurement, inequality, name_of_reading, simulated
from vast_harbor.core.stops.changeover.order_of_work import GATES, Gate, Step
from vast_harbor.core.stops.changeover.settings import Conflict, Group, Row
from vast_harbor.core.stops.changeover.shopping_list import Line, ShoppingList
from vast_harbor.core.stops.changeover.work import Work

__all__ = (
    "GATES",
    "Acceptance",
    "Against",
    "Changeover",
    "Conflict",
    "Gate",
    "Group",
    "Line",
    "Measurement",
    "Question",
    "Row",
    "ShoppingList",
    "Step",
    "Work",
    "against",
    "cause_texts",
    "inequality",
    "label",
    "name_of_reading",
    "remark",
    "simulated",
)
