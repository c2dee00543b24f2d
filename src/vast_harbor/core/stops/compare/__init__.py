"""The answer: who is cheapest, how sure that is, what would change it, and the verdict."""

from vast_harbor.core.stops.compare import verdict_text
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.comparison import EVENING_H, Compare, cumulative, evaluate
from vast_harbor.core.stops.compare.required_extras import ADVISED, COUNTED, RequiredExtra, difficulty
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of
from vast_harbor.core.stops.compare.verdict import HOOK_UP, KEEP, MEND, Verdict
from vast_harbor.core.stops.compare.verdict_charts import capacity, items

__all__ = (
    "ADVISED",
    "COUNTED",
    "EVENING_H",
    "HOOK_UP",
    "KEEP",
    "MEND",
    "Compare",
    "ComparedBank",
    "RequiredExtra",
    "Verdict",
    "capacity",
    "cumulative",
    "difficulty",
    "evaluate",
    "items",
    "uncertainty_of",
    "verdict_text",
)
