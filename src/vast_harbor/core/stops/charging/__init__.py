"""Charging: whether the sources suit each bank, how fast they charge it, and how much is needed."""

from vast_harbor.core.stops.charging.charge_curves import Curve, curve
from vast_harbor.core.stops.charging.findings import charging_findings
from vast_harbor.core.stops.charging.measured_charge import (
    MOST_CHARGE_A,
    clear_sky_amps,
    explain,
    possible_charge_volts,
)
from vast_harbor.core.stops.charging.required_fixes import as_built, asks_for_more, demand_key, enough
from vast_harbor.core.stops.charging.settings_sheet import Setting, sheets
from vast_harbor.core.stops.charging.sources_needed import MONTHS, Sun, design_month, needed, sun_of, too_dark
from vast_harbor.core.stops.charging.suitability import WORST, Suitability, suitability_of

__all__ = (
    "MONTHS",
    "MOST_CHARGE_A",
    "WORST",
    "Curve",
    "Setting",
    "Suitability",
    "Sun",
    "as_built",
    "asks_for_more",
    "charging_findings",
    "clear_sky_amps",
    "curve",
    "demand_key",
    "design_month",
    "enough",
    "explain",
    "needed",
    "possible_charge_volts",
    "sheets",
    "suitability_of",
    "sun_of",
    "too_dark",
)
