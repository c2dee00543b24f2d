"""The loads of a day and what they take from the bank."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from vast_harbor.core.figures.clock import DAY_H, Block, within_day
from vast_harbor.core.figures.interpolation import interpolate
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.day_types import LAID_UP, DayType, Times
from vast_harbor.core.rig.profile import spread_hours, spread_uses

DC, AC = "dc", "ac"
HOURS, USES, TIMES, STANDBY = "hours", "uses", "times", "standby"
MAIN, SECOND = "main", "second"
# What its owner says could be done about a load: do without it, use gas, run it while the sun shines.
COULD_DROP, COULD_GAS, COULD_SHIFT = "drop", "gas", "daylight"
COULD = (COULD_DROP, COULD_GAS, COULD_SHIFT)
# Air temperatures at which the duty of a load that follows the weather is given [°C].
WEATHER_C = (0.0, 15.0, 25.0, 40.0)


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
        low, high: least and most that it may draw, in the unit of ``draw``; None for no doubt.
        start_w: power of one while it starts [W]; None for no more than it runs at.
        start_s: seconds that the start takes [s].
        together: whether it may run at the same time as other loads.
        critical: whether the rig is in danger without it.
        least_v: volts of a 12 V bank below which it suffers or stops [V]; None where it does not mind.
        duty_at: duty at the air temperatures of :data:`WEATHER_C`; empty when it does not follow the weather.
        measured_wh: what a meter counted for all of them [Wh]; None for none.
        measured_hours: hours switched on over which it counted [h].
        bank: ``main``, or ``second`` for a load on the second house bank.
        thrifty_w: what a thriftier one would draw in its place [W]; None where none is thought of.
        thrifty_price: what that costs [money].
        could: what its owner says could be done about it, of :data:`COULD`.
        on: day type → other times, or None where it does not run; as usual where it is not named.
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
    low: float | None = None
    high: float | None = None
    start_w: float | None = None
    start_s: float = 0
    together: bool = True
    critical: bool = False
    least_v: float | None = None
    duty_at: tuple[float, ...] = ()
    measured_wh: float | None = None
    measured_hours: float = 24
    bank: str = MAIN
    thrifty_w: float | None = None
    thrifty_price: float | None = None
    could: tuple[str, ...] = ()
    on: Mapping[str, Times | None] = field(default_factory=dict)

    @property
    def volt_factor(self) -> float:
        """Watts for one unit of the draw."""
        return self.volts if self.draw.unit == "A" else 1.0

    @property
    def watts(self) -> float:
        """Power of one of them while it draws [W]."""
        return self.draw.value * self.volt_factor

    @property
    def hours_on(self) -> float:
        """Hours on a day [h]."""
        if self.use == STANDBY:
            return DAY_H
        if self.use == TIMES:
            return sum(end - start for start, end in self.blocks)
        return self.uses * self.minutes / 60 if self.use == USES else self.hours

    @property
    def measured_w(self) -> float | None:
        """Mean power of all of them while switched on, as measured [W]; None without a measurement."""
        return None if self.measured_wh is None else self.measured_wh / self.measured_hours

    @property
    def mean_w(self) -> float:
        """Mean power of all of them while switched on [W]."""
        measured = self.measured_w
        return self.quantity * self.watts * self.duty if measured is None else measured

    @property
    def wh(self) -> float:
        """E_load = quantity · P · hours · duty, or as measured [Wh/day], at the load."""
        return self.mean_w * self.hours_on

    @property
    def run_w(self) -> float:
        """Power of all of them at once while they draw [W]; never below the measured mean."""
        return max(self.quantity * self.watts, self.measured_w or 0.0)

    @property
    def by_hand(self) -> bool:
        """Whether somebody switches it on and off, so that habits count; not what runs round the clock."""
        return self.hours_on < DAY_H

    @property
    def blocks(self) -> tuple[Block, ...]:
        """When it is on, as (start, end) clock hours."""
        if self.use == TIMES:
            return within_day(self.windows)
        if self.use == USES:
            return spread_uses(self.uses, self.minutes, self.starts_at)
        return spread_hours(self.hours_on, self.starts_at)

    @property
    def any_time(self) -> bool:
        """Whether nobody said when it runs: then its times are made up, and it may meet any other load."""
        return self.use in (HOURS, USES) and self.starts_at is None and 0 < self.hours_on < DAY_H

    def runs_on(self, day_type: DayType) -> bool:
        """Whether it runs on a kind of day: as the owner says, else always, but laid up only what must."""
        if day_type.id in self.on:
            return self.on[day_type.id] is not None
        return day_type.kind != LAID_UP or self.critical or self.use == STANDBY

    def on_day(self, day_type: DayType, air_c: float) -> "Load":
        """The load as it is on a kind of day.

        Args:
            day_type: the kind of day.
            air_c: temperature of the outside air on it [°C].

        Returns:
            With the times of that day, none where it does not run, and the duty that the weather asks for.
        """
        given = self.on.get(day_type.id)
        load = self
        if not self.runs_on(day_type):
            load = replace(load, use=HOURS, hours=0.0)
        elif given is not None:
            load = replace(
                load,
                use=given.use,
                hours=given.hours,
                uses=given.uses,
                minutes=given.minutes,
                starts_at=given.starts_at,
                windows=given.windows,
            )
        if self.duty_at:
            load = replace(load, duty=interpolate(tuple(zip(WEATHER_C, self.duty_at, strict=True)), air_c))
        return load


@dataclass(frozen=True, slots=True)
class Inverter:
    """The rig's inverter.

    Attributes:
        efficiency: out ÷ in without the idle draw [-].
        idle_w: what it takes while on [W].
        hours_on: hours on a day as the owner states them [h]; None for as long as AC loads run.
        rated_w: what it gives for long [W]; None where it is not known.
    """

    efficiency: float = 0.90
    idle_w: float = 8.0
    hours_on: float | None = None
    rated_w: float | None = None


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
