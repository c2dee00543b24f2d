"""The loads of a day and what they take from the bank."""

from dataclasses import dataclass

from vast_harbor.core.profile import Block, spread_hours, spread_uses, union_hours, within_day
from vast_harbor.core.quantities import Draw

DC, AC = "dc", "ac"
HOURS, USES, TIMES, STANDBY = "hours", "uses", "times", "standby"


@dataclass(frozen=True, slots=True)
class Load:
    """One appliance of the day.

    Attributes:
        id: name within the rig.
        name: what it is.
        supply: ``dc`` or ``ac`` (through the inverter).
        draw: watts, or amps with ``volts``.
        volts: volts to which amps refer [V].
        quantity: how many of them.
        use: ``hours`` a day, ``uses`` × ``minutes``, at set ``times``, or ``standby`` round the clock.
        hours: hours on a day [h].
        uses: uses a day.
        minutes: length of a use [min].
        duty: share of the time on in which it really draws [-].
        starts_at: clock time at which it first runs [h]; None for a sensible spread.
        windows: set times as (from, to) clock hours; ``to`` beyond 24 runs past midnight.
    """

    id: str
    name: str
    supply: str
    draw: Draw
    volts: float
    quantity: float = 1
    use: str = HOURS
    hours: float = 0
    uses: float = 0
    minutes: float = 0
    duty: float = 1
    starts_at: float | None = None
    windows: tuple[Block, ...] = ()

    @property
    def watts(self) -> float:
        """Power of one of them while it draws [W]."""
        return self.draw.value * (self.volts if self.draw.unit == "A" else 1.0)

    @property
    def hours_on(self) -> float:
        """Hours on a day [h]."""
        if self.use == STANDBY:
            return 24.0
        if self.use == TIMES:
            return sum(end - start for start, end in self.blocks)
        return self.uses * self.minutes / 60 if self.use == USES else self.hours

    @property
    def wh(self) -> float:
        """E_load = quantity · P · hours · duty [Wh/day], at the load."""
        return self.quantity * self.watts * self.hours_on * self.duty

    @property
    def blocks(self) -> tuple[Block, ...]:
        """When it is on, as (start, end) clock hours."""
        if self.use == TIMES:
            return within_day(self.windows)
        if self.use == USES:
            return spread_uses(self.uses, self.minutes, self.starts_at)
        return spread_hours(self.hours_on, self.starts_at)


@dataclass(frozen=True, slots=True)
class Inverter:
    """The rig's inverter.

    Attributes:
        efficiency: out ÷ in without the idle draw [-].
        idle_w: what it takes while on [W].
        hours_on: hours on a day as the owner states them [h]; None for as long as AC loads run.
    """

    efficiency: float = 0.90
    idle_w: float = 8.0
    hours_on: float | None = None


def ac_windows(loads: list[Load]) -> tuple[Block, ...]:
    """The union of the times in which any AC load is on, as clock hours."""
    return union_hours([b for load in loads if load.supply == AC for b in load.blocks])


def ac_hours(loads: list[Load]) -> float:
    """Length of the union of the AC windows [h]."""
    return sum(end - start for start, end in ac_windows(loads))


def inverter_hours(stated: float | None, windows_h: float) -> float:
    """Hours that the inverter is on: at least the union of the AC windows.

    Args:
        stated: hours that the owner gave [h]; None for none given.
        windows_h: union of the AC windows [h].

    Returns:
        Hours a day [h].
    """
    return max(stated or 0.0, windows_h)


def bank_energy(
    dc_wh: float,
    ac_wh: float,
    dc_efficiency: float,
    inverter_efficiency: float,
    idle_wh: float,
    standby_w: float,
) -> float:
    """E_bank = Σ E_dc/η_dc + Σ E_ac/η_inv + P_idle · h_inverter_on + 24 · P_standby.

    Args:
        dc_wh: energy of the DC loads [Wh/day].
        ac_wh: energy of the AC loads [Wh/day].
        dc_efficiency: η_dc [-].
        inverter_efficiency: η_inv without idle [-].
        idle_wh: P_idle · h_inverter_on [Wh/day].
        standby_w: measured standby that is not listed as loads [W].

    Returns:
        Energy taken from the bank [Wh/day].
    """
    return dc_wh / dc_efficiency + ac_wh / inverter_efficiency + idle_wh + 24 * standby_w
