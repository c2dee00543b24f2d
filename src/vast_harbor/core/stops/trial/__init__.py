"""Trial: every bank through the same days of use and weather, and what goes wrong when."""

from vast_harbor.core.stops.trial import storage, time_to_empty
from vast_harbor.core.stops.trial.battery_monitor import MonitorReading, readings
from vast_harbor.core.stops.trial.findings import trial_findings
from vast_harbor.core.stops.trial.outcome import outcomes
from vast_harbor.core.stops.trial.rainflow_cycles import cycles
from vast_harbor.core.stops.trial.simulated_banks import OLD, old_bank_as_bank
from vast_harbor.core.stops.trial.simulated_runs import SimulatedRuns
from vast_harbor.core.stops.trial.stretches import STRETCHES
from vast_harbor.core.stops.trial.trial import SimulationResult, Trial
from vast_harbor.core.stops.trial.unequal_nights import unequal_nights
from vast_harbor.core.stops.trial.weather_odds import odds
from vast_harbor.core.stops.trial.year import YearOf
from vast_harbor.core.stops.trial.year_plan import YearPlan

__all__ = (
    "OLD",
    "STRETCHES",
    "MonitorReading",
    "SimulatedRuns",
    "SimulationResult",
    "Trial",
    "YearOf",
    "YearPlan",
    "cycles",
    "odds",
    "old_bank_as_bank",
    "outcomes",
    "readings",
    "storage",
    "time_to_empty",
    "trial_findings",
    "unequal_nights",
)
