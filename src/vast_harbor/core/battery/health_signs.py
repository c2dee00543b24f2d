"""What the signs of an ailing bank say of its health: each a likelihood, put together on a grid of health."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, tanh

import numpy as np

from vast_harbor.core.battery.ageing import state_of_health
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.soc_from_voltage import RESTED, SHORT_REST, read
from vast_harbor.core.battery.terminal_voltage import Terminal
from vast_harbor.core.figures.normal import Z_90

Span = tuple[float, float]
LEAST_HEALTH, MOST_HEALTH = 0.05, 1.05
# Volts that a load of a tenth of the capacity and more takes on top of I·R, after minutes, for 12 V.
POLARISATION_V = {True: 0.05, False: 0.03}
POLARISED_C = 0.1
# Doubt of a class's resistance, clamp and cables; of a meter read twice [V].
SAG_DOUBT, METER_V = 0.25, 0.03
# Nights are counted by memory, and weather was never the same; more where nobody knows whether it was full.
NIGHTS_DOUBT, FULLNESS_DOUBT, LIKELY_FULL = 0.15, 0.10, 0.97
# Age tells little of one bank.
AGE_DOUBT = 0.15
# Health that is considered, wider than there is, so that a sign beyond an end counts like any other.
GRID = np.linspace(-0.6, 1.7, 1151)


@dataclass(frozen=True, slots=True)
class HealthSign:
    """What one sign says of the health: a normal likelihood, its width set by how it was read, not by what.

    Attributes:
        likely: the health that it points to [-].
        doubt: standard deviation [-].
    """

    likely: float
    doubt: float

    @property
    def span(self) -> Span:
        """Eight of ten of what it may mean, kept between 5 and 105 % [-]."""
        return clipped(self.likely - Z_90 * self.doubt, self.likely + Z_90 * self.doubt)


@dataclass(frozen=True, slots=True)
class HealthTogether:
    """What several signs say together.

    Attributes:
        low, likely, high: P10, P50 and P90 of the health [-], not clipped.
        worn, sound: how likely it is below and above two marks [-].
        agree: whether no sign stands far off from all together.
    """

    low: float
    likely: float
    high: float
    worn: float
    sound: float
    agree: bool


def clipped(low: float, high: float) -> Span:
    """A range of health kept between 5 and 105 %."""
    return max(LEAST_HEALTH, min(MOST_HEALTH, low)), max(LEAST_HEALTH, min(MOST_HEALTH, high))


def charge_by_volts(battery_class: BatteryClass, volts_12: float, rested_hours: float | None) -> Span | None:
    """State of charge by the rested volts of a 12 V unit.

    Args:
        battery_class: its class.
        volts_12: volts of the bank, brought to 12 V class [V].
        rested_hours: hours since the last charge or load [h]; None where nobody knows, taken as a short rest.

    Returns:
        Lowest and highest SoC [-]; None less than two hours after a charge, when volts say nothing of it.
        Lead-acid rested 8 h and more is read to ±0.05 V, 2 to 8 h to ±0.10 V. LFP to ±0.08 V, which says
        little in its middle.
    """
    if rested_hours is not None and rested_hours < 2:
        return None
    state = RESTED if rested_hours is not None and rested_hours >= 8 else SHORT_REST
    said = read(Terminal(battery_class, 12, 0.0), volts_12, state)
    assert said.low is not None and said.high is not None
    return said.low, said.high


def by_test(low: float, high: float) -> HealthSign:
    """A capacity test, by the range in which it leaves the health [-]."""
    return HealthSign((low + high) / 2, max(0.01, (high - low) / 2 / Z_90))


def by_sag(
    lead: bool,
    expected_ohm: float,
    rested_v: float,
    loaded_v: float,
    amps: float,
    c_rate: float,
    scale: float,
) -> HealthSign:
    """Health by the resistance that a known load shows, against a new bank's: SoH = I·R_new / (ΔV − V_pol).

    Args:
        lead: whether it is lead-acid.
        expected_ohm: resistance of the bank when new, at the temperature of the reading [Ω].
        rested_v, loaded_v: volts just before and under the load [V].
        amps: current of the load [A], above 0.
        c_rate: that current against the capacity [1/h].
        scale: class volts ÷ 12 [-].

    Returns:
        The sign; a small load says next to nothing, because the meter is read to hundredths.
    """
    signal = amps * expected_ohm
    seen = resistance_ratio(lead, expected_ohm, rested_v, loaded_v, amps, c_rate, scale)
    likely = MOST_HEALTH if seen <= 1 / MOST_HEALTH else max(0.2, 1 / seen)
    return HealthSign(likely, hypot(SAG_DOUBT, 0.8 * METER_V * scale / max(1e-6, signal)))


def resistance_ratio(
    lead: bool,
    expected_ohm: float,
    rested_v: float,
    loaded_v: float,
    amps: float,
    c_rate: float,
    scale: float,
) -> float:
    """Resistance that a known load shows, against a new bank's: (ΔV − V_pol) / (I·R_new).

    Args:
        lead, expected_ohm, rested_v, loaded_v, amps, c_rate, scale: as of :func:`by_sag`.

    Returns:
        The ratio [-]; 0 or less where the load took no more than its polarisation.
    """
    polarised = POLARISATION_V[lead] * scale * tanh(c_rate / POLARISED_C)
    return (rested_v - loaded_v - polarised) / max(1e-9, amps * expected_ohm)


def by_nights(nights_then: float, nights_now: float, use_ratio: float, charge: Span | None) -> HealthSign:
    """Health by the nights that a bank lasts, by how full it is now, and was then.

    Args:
        nights_then, nights_now: when new and now, above 0.
        use_ratio: a day's energy now ÷ then [-].
        charge: charge to which it is filled [-]; None where that is not known.

    Returns:
        The sign.
    """
    filled, doubt = LIKELY_FULL, FULLNESS_DOUBT
    if charge is not None:
        filled, doubt = max(0.3, sum(charge) / 2), (charge[1] - charge[0]) / 2
    likely = min(1.3, nights_now / nights_then * use_ratio / filled)
    return HealthSign(likely, hypot(NIGHTS_DOUBT, doubt))


def by_age(
    years: float, calendar_low: float, calendar_high: float, accident_wear: float, lead_acid: bool
) -> HealthSign:
    """Health by age alone: SoH = 1 − 0.2·wear; lead-acid three times as fast beyond wear 1.

    Args:
        years: age [years].
        calendar_low, calendar_high: shortest and longest calendar life of the class [years].
        accident_wear: wear of times that it was left flat [-].
        lead_acid: whether it is of a lead-acid class.

    Returns:
        The sign.
    """
    ends = [
        state_of_health(years / life + accident_wear, lead_acid) for life in (calendar_low, calendar_high)
    ]
    return HealthSign(max(LEAST_HEALTH, sum(float(e) for e in ends) / 2), AGE_DOUBT)


def together(signs: Sequence[HealthSign], worn_below: float, sound_above: float) -> HealthTogether:
    """What several signs say together: the product of their likelihoods over a grid of health.

    More signs never widen the answer, and a sign that is worse never raises it.

    Args:
        signs: at least one.
        worn_below, sound_above: the two marks [-].
    """
    log = sum(-0.5 * ((GRID - s.likely) / s.doubt) ** 2 for s in signs)
    weight = np.exp(log - np.max(log))
    share = np.cumsum(weight) / np.sum(weight)
    low, likely, high = (float(np.interp(x, share, GRID)) for x in (0.1, 0.5, 0.9))
    worn = float(np.interp(worn_below, GRID, share))
    agree = all(abs(s.likely - likely) <= 2 * s.doubt for s in signs)
    return HealthTogether(low, likely, high, worn, 1 - float(np.interp(sound_above, GRID, share)), agree)
