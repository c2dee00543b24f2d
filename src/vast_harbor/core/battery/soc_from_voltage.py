"""Reading a voltmeter: the states of charge that a number of volts may mean, and why so many."""

from dataclasses import dataclass

import numpy as np

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.terminal_voltage import Terminal, rested_volts
from vast_harbor.phrases import phrase

CHARGING, JUST_CHARGED, SHORT_REST, RESTED, LOADED = (
    "charging", "just_charged", "short_rest", "rested", "loaded",
)  # fmt: skip
STATES = (CHARGING, JUST_CHARGED, SHORT_REST, RESTED, LOADED)
# Half widths of the doubt [V] for a 12 V unit.
RESTED_V, SHORT_REST_V, SURFACE_V, LOADED_V, LFP_V = 0.05, 0.10, 0.30, 0.15, 0.08


@dataclass(frozen=True, slots=True)
class MeterReading:
    """What a meter says.

    Attributes:
        low, high: states of charge between which the bank is [-]; None where volts say nothing.
        why: reasons for the width, one sentence each.
        wide: whether it is too wide to act on.
    """

    low: float | None
    high: float | None
    why: tuple[str, ...]

    @property
    def wide(self) -> bool:
        """Whether the range spans more than a quarter of the charge, or there is none."""
        return self.low is None or self.high is None or self.high - self.low > 0.25


def soc_at(battery_class: BatteryClass, class_v: float, volts: float) -> float:
    """State of charge at which a rested bank shows volts: inverse of the class's table, 0 to 1 [-]."""
    soc, rested = zip(*battery_class.rested_v, strict=True)
    return float(np.interp(volts * 12 / class_v, rested, soc))


def is_possible(terminal: Terminal, volts: float) -> bool:
    """Whether a bank can stand at so many volts [V] at all: else the meter or its owner is mistaken."""
    return 0.4 <= volts / terminal.class_v <= 1.6


def read(terminal: Terminal, volts: float, state: str, amps: float = 0.0) -> MeterReading:
    """States of charge that a reading may mean: OCV(V ± u).

    Args:
        terminal: the bank, its resistance and temperature.
        volts: as read at its terminals [V].
        state: one of :data:`STATES`.
        amps: current that it gives, when loaded [A].

    Returns:
        The range, and why it is so wide.

    Raises:
        ValueError: an unknown state.
    """
    if state not in STATES:
        raise ValueError(f"unknown state {state!r}")
    battery_class, scale = terminal.battery_class, terminal.class_v / 12
    lead = battery_class.is_lead_acid
    if state == CHARGING:
        return MeterReading(
            None, None,
            (phrase("battery.soc_from_voltage.while_battery_charging_voltage"),),
        )  # fmt: skip
    why: list[str] = []
    rested = volts
    down = up = (RESTED_V if lead else LFP_V) * scale
    if state == JUST_CHARGED:
        down, up = (SURFACE_V * scale, 0.0) if lead else (down, up)
        why.append(
            phrase("battery.soc_from_voltage.surface_charge_raises_voltage")
            if lead
            else phrase("battery.soc_from_voltage.battery_just_charged_reads")
        )
    elif state == SHORT_REST and lead:
        down = up = SHORT_REST_V * scale
        why.append(phrase("battery.soc_from_voltage.after_two_eight_hours"))
    elif state == LOADED:
        soc = soc_at(battery_class, terminal.class_v, volts)
        for _ in range(20):
            rested = volts + amps * float(terminal.resistance(soc, soc))
            soc = soc_at(battery_class, terminal.class_v, rested)
        down = up = LOADED_V * scale
        why.append(
            phrase(
                "battery.soc_from_voltage.voltage_drops_about_v",
                amps=f"{amps:g}",
                rested=f"{rested - volts:.2f}",
            )
        )
    low = soc_at(battery_class, terminal.class_v, rested - down)
    high = soc_at(battery_class, terminal.class_v, rested + up)
    full = float(rested_volts(battery_class, terminal.class_v, 1.0))
    if volts > full + 0.25 * scale:
        why.append(phrase("battery.soc_from_voltage.above_resting_voltage_full"))
    if volts < float(rested_volts(battery_class, terminal.class_v, 0.0)) - 0.5 * scale:
        why.append(phrase("battery.soc_from_voltage.below_resting_voltage_empty"))
    if not lead and high - low > 0.25:
        why.append(phrase("battery.soc_from_voltage.voltage_lfp_hardly_changes"))
    elif high - low > 0.25:
        why.append(phrase("battery.soc_from_voltage.range_wide_use_tell"))
    return MeterReading(low, high, tuple(why))
