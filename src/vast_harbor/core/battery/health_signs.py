"""What the signs of an ailing bank say of its health, each as a range."""

from collections.abc import Sequence

from vast_harbor.core.battery.ageing import state_of_health
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.soc_from_voltage import JUST_CHARGED, RESTED, SHORT_REST, read
from vast_harbor.core.battery.terminal_voltage import Terminal

Span = tuple[float, float]
# Doubt of a class's resistance, meter, clamp and cables together.
RESISTANCE_DOUBT = (0.55, 1.4)
# Nights are counted by memory, and weather was never the same.
NIGHTS_DOUBT = (0.8, 1.15)
LEAST_HEALTH, MOST_HEALTH = 0.05, 1.05


def clipped(low: float, high: float) -> Span:
    """A range of health kept between 5 and 105 %."""
    return max(LEAST_HEALTH, min(MOST_HEALTH, low)), max(LEAST_HEALTH, min(MOST_HEALTH, high))


def charge_by_volts(battery_class: BatteryClass, volts_12: float, rested_hours: float) -> Span:
    """State of charge by the rested volts of a 12 V unit.

    Args:
        battery_class: its class.
        volts_12: volts of the bank, brought to 12 V class [V].
        rested_hours: hours since the last charge or load [h].

    Returns:
        Lowest and highest SoC [-]. Lead-acid rested 8 h and more is read to ±0.05 V, 2 to 8 h to ±0.10 V;
        just charged it reads up to 0.30 V too high (surface charge). LFP to ±0.08 V, which says little in
        its middle.
    """
    state = RESTED if rested_hours >= 8 else SHORT_REST if rested_hours >= 2 else JUST_CHARGED
    said = read(Terminal(battery_class, 12, 0.0), volts_12, state)
    assert said.low is not None and said.high is not None
    return said.low, said.high


def health_by_sag(expected_ohm: float, rested_v: float, loaded_v: float, amps: float) -> Span:
    """Health by the resistance that a known load shows, against a new bank's: SoH = R_new / R.

    Args:
        expected_ohm: resistance of the bank when new, at the temperature of the reading [Ω].
        rested_v, loaded_v: volts just before and under the load [V].
        amps: current of the load [A], above 0.

    Returns:
        Lowest and highest SoH [-]; wide, since cables and the class's own spread are in it.
    """
    measured = max(1e-6, (rested_v - loaded_v) / amps)
    ratio = expected_ohm / measured
    return clipped(ratio * RESISTANCE_DOUBT[0], ratio * RESISTANCE_DOUBT[1])


def health_by_nights(nights_then: float, nights_now: float, use_ratio: float) -> Span:
    """Health by the nights that a bank lasts, if it is charged full as it was then.

    Args:
        nights_then, nights_now: when new and now, above 0.
        use_ratio: a day's energy now ÷ then [-].

    Returns:
        Lowest and highest SoH [-].
    """
    ratio = nights_now / nights_then * use_ratio
    return clipped(ratio * NIGHTS_DOUBT[0], ratio * NIGHTS_DOUBT[1])


def health_by_age(
    years: float, calendar_low: float, calendar_high: float, accident_wear: float, lead_acid: bool
) -> Span:
    """Health by age alone: SoH = 1 − 0.2·wear; lead-acid three times as fast beyond wear 1.

    Args:
        years: age [years].
        calendar_low, calendar_high: shortest and longest calendar life of the class [years].
        accident_wear: wear of times that it was left flat [-].
        lead_acid: whether it is of a lead-acid class.

    Returns:
        Lowest and highest SoH [-].
    """

    def health(life: float) -> float:
        return state_of_health(years / life + accident_wear, lead_acid)

    return clipped(health(calendar_low), health(calendar_high))


def together(spans: Sequence[Span]) -> tuple[Span, bool]:
    """What several signs say together: where they overlap; all that they span where they do not.

    Args:
        spans: (lowest, highest) of each sign, at least one.

    Returns:
        The range, and whether the signs agree.
    """
    low, high = max(s[0] for s in spans), min(s[1] for s in spans)
    if low <= high:
        return (low, high), True
    return (min(s[0] for s in spans), max(s[1] for s in spans)), False
