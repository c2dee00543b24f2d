"""Rig: the bank that is there now, and the rig at other system voltages."""

from vast_harbor.core.stops.rig.diagnosis import diagnose, health_seen, old_health
from vast_harbor.core.stops.rig.findings import forgotten, rig_findings
from vast_harbor.core.stops.rig.old_bank import (
    old_bank_carries,
    old_bank_findings,
    old_bank_kg,
    old_bank_wh,
    tested_health,
)
from vast_harbor.core.stops.rig.predecessor import life_factor, predecessor_finding, wear_a_year
from vast_harbor.core.stops.rig.suspects import AT_FAULT, BANK, CHARGER, DRAIN, UNKNOWN, USE, Diagnosis
from vast_harbor.core.stops.rig.system_voltage import VoltageChoice, voltage_choices

__all__ = (
    "AT_FAULT",
    "BANK",
    "CHARGER",
    "DRAIN",
    "UNKNOWN",
    "USE",
    "Diagnosis",
    "VoltageChoice",
    "diagnose",
    "forgotten",
    "health_seen",
    "life_factor",
    "old_bank_carries",
    "old_bank_findings",
    "old_bank_kg",
    "old_bank_wh",
    "old_health",
    "predecessor_finding",
    "rig_findings",
    "tested_health",
    "voltage_choices",
    "wear_a_year",
)
