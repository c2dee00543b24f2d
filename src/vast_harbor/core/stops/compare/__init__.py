"""The answer: who is cheapest, how sure that is, what would change it, and the verdict."""

from vast_harbor.core.stops.compare import package_text, verdict_text
from vast_harbor.core.stops.compare.compared_bank import FOUND, ComparedBank
from vast_harbor.core.stops.compare.comparison import Compare, compared_bank, cumulative, evaluate
from vast_harbor.core.stops.compare.comparison_rows import Row
from vast_harbor.core.stops.compare.extra_cost import extras_cost_of
from vast_harbor.core.stops.compare.found_banks import CatalogueSearch
from vast_harbor.core.stops.compare.nearest_bank import NearestBank, RigChange
from vast_harbor.core.stops.compare.package import LEVELS, NEW, OLD, Package, Packages, front_of
from vast_harbor.core.stops.compare.priorities import PRIORITIES
from vast_harbor.core.stops.compare.required_extras import (
    ADVISED,
    COUNTED,
    RequiredExtra,
    difficulty,
    may_do,
    planned_beside,
    required_extras,
)
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of, weigh
from vast_harbor.core.stops.compare.verdict import BUY, HARMFUL, HOOK_UP, KEEP, MEND, Verdict
from vast_harbor.core.stops.compare.verdict_charts import capacity, items
from vast_harbor.core.stops.compare.verdict_reasons import reasons
from vast_harbor.core.stops.compare.verdict_rules import steps

__all__ = (
    "ADVISED",
    "BUY",
    "COUNTED",
    "FOUND",
    "HARMFUL",
    "HOOK_UP",
    "KEEP",
    "LEVELS",
    "MEND",
    "NEW",
    "OLD",
    "PRIORITIES",
    "CatalogueSearch",
    "Compare",
    "ComparedBank",
    "NearestBank",
    "Package",
    "Packages",
    "RequiredExtra",
    "RigChange",
    "Row",
    "Verdict",
    "capacity",
    "compared_bank",
    "cumulative",
    "difficulty",
    "evaluate",
    "extras_cost_of",
    "front_of",
    "items",
    "may_do",
    "package_text",
    "planned_beside",
    "reasons",
    "required_extras",
    "steps",
    "uncertainty_of",
    "verdict_text",
    "weigh",
)
