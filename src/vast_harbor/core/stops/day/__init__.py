"""Day: the energy audit of each kind of day."""

from vast_harbor.core.stops.day.charge_window import NOON_H, charge_window
from vast_harbor.core.stops.day.energy_audit import BRIEF_S, SECOND_BANK, Day, evaluate, profile_sums
from vast_harbor.core.stops.day.energy_sums import MEASURED, inverter_efficiency, second_efficiency
from vast_harbor.core.stops.day.findings import day_findings
from vast_harbor.core.stops.day.load_energy import LoadFigures, hangs_on_second

__all__ = (
    "BRIEF_S",
    "MEASURED",
    "NOON_H",
    "SECOND_BANK",
    "Day",
    "LoadFigures",
    "charge_window",
    "day_findings",
    "evaluate",
    "hangs_on_second",
    "inverter_efficiency",
    "profile_sums",
    "second_efficiency",
)
