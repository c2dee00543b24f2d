"""Banks: real batteries in series and parallel, their checks, and the search of the catalogue."""

from vast_harbor.core.stops.banks import find, reasons
from vast_harbor.core.stops.banks.bank_figures import END_OF_LIFE
from vast_harbor.core.stops.banks.bank_wiring import wiring_of
from vast_harbor.core.stops.banks.candidates import (
    NO_CHOICE,
    BankFigures,
    Banks,
    Choice,
    at_nights,
    build_of,
    chosen_anew,
    evaluate,
    of_bank,
    of_candidate,
)
from vast_harbor.core.stops.banks.checks import run_checks
from vast_harbor.core.stops.banks.checks.check import BLOCKING, CAUTION, NOTE, OK, Build, Check
from vast_harbor.core.stops.banks.class_proposals import Priced, Proposal, Proposals, next_string, why_unfit
from vast_harbor.core.stops.banks.criteria import HEATER, BankCriteria, Criterion, label_or_class_exponent
from vast_harbor.core.stops.banks.discharge_curves import Rates, discharging, rates_of
from vast_harbor.core.stops.banks.find import NAMES, Found, Search, Shape, Within, layouts, shapes
from vast_harbor.core.stops.banks.proposals import SizedLayout, most_strings, offered, size_layout
from vast_harbor.core.stops.banks.quick_life_cost import (
    LASTS_BY_GRADE,
    QuickLifeCost,
    Use,
    YearOfUse,
    about,
    class_years,
    quick_life_cost,
)
from vast_harbor.core.stops.banks.reasons import (
    COLD_UNGUARDED,
    COVERS_NEED,
    DOES_HARM,
    FIT,
    FUSE,
    LIVING_SPACE,
    NEED,
    ORIENTATION,
    SHORT_CIRCUIT,
    UNSWITCHED,
    VENTILATION,
)
from vast_harbor.core.stops.banks.rig_limits import RigLimits
from vast_harbor.core.stops.banks.volts_to_act_on import Act, acts

__all__ = (
    "BLOCKING",
    "CAUTION",
    "COLD_UNGUARDED",
    "COVERS_NEED",
    "DOES_HARM",
    "END_OF_LIFE",
    "FIT",
    "FUSE",
    "HEATER",
    "LASTS_BY_GRADE",
    "LIVING_SPACE",
    "NAMES",
    "NEED",
    "NOTE",
    "NO_CHOICE",
    "OK",
    "ORIENTATION",
    "SHORT_CIRCUIT",
    "UNSWITCHED",
    "VENTILATION",
    "Act",
    "BankCriteria",
    "BankFigures",
    "Banks",
    "Build",
    "Check",
    "Choice",
    "Criterion",
    "Found",
    "Priced",
    "Proposal",
    "Proposals",
    "QuickLifeCost",
    "Rates",
    "RigLimits",
    "Search",
    "Shape",
    "SizedLayout",
    "Use",
    "Within",
    "YearOfUse",
    "about",
    "acts",
    "at_nights",
    "build_of",
    "chosen_anew",
    "class_years",
    "discharging",
    "evaluate",
    "find",
    "label_or_class_exponent",
    "layouts",
    "most_strings",
    "next_string",
    "of_bank",
    "of_candidate",
    "offered",
    "quick_life_cost",
    "rates_of",
    "reasons",
    "run_checks",
    "shapes",
    "size_layout",
    "why_unfit",
    "wiring_of",
)
