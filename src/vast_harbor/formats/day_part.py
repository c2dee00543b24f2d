"""The rig document: the loads, and the kinds of day on which they run."""

from typing import Annotated, Any

from pydantic import Field, ValidationInfo, field_validator

from vast_harbor.core.figures import parsing
from vast_harbor.core.rig.day_types import KINDS as DAY_KINDS
from vast_harbor.core.weather.sun import SEASONS
from vast_harbor.formats.fields import (
    Choice,
    Clock,
    LimitOfDraw,
    Measure,
    Numbers,
    StartPower,
    Truth,
    Windows,
    Words,
)
from vast_harbor.formats.parts import BATTERY_C, DAY_WH, IDENTIFIER, PRICE_OR_NONE, Part

USES = ("hours", "uses", "times", "standby")

HOURS = Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.")
USES_A_DAY = Measure("times", 0, 1440, "Between {least} and {most} uses a day: {value} is not.")
MINUTES = Measure("min", 0, 1440, "A use takes between {least} and {most} minutes: {value} does not.")
DOUBT = LimitOfDraw()


class DrawPart(Part):
    """What a load draws."""

    value: Annotated[
        float, Measure("W", 0, 100_000, "A load draws between {least} and {most}: {value} is not a draw.")
    ]
    unit: Annotated[str, Choice("The unit of the draw", "W", "A")] = "W"


class TimesPart(Part):
    """When a load runs on one kind of day, where that is not as usual."""

    use: Annotated[str, Choice("The way of use", *USES)] = "hours"
    hours: Annotated[float, HOURS] = 0.0
    uses: Annotated[float, USES_A_DAY] = 0.0
    minutes: Annotated[float, MINUTES] = 0.0
    starts_at: Annotated[float | None, Clock()] = None
    windows: Annotated[list[tuple[float, float]], Windows()] = Field(default_factory=list)


class LoadPart(Part):
    """One appliance of the day."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words("The name of the load", 80, required=True)]
    supply: Annotated[str, Choice("The supply", "dc", "ac")] = "dc"
    draw: DrawPart = DrawPart(value=0)
    volts: Annotated[
        float | None,
        Measure("V", 1, 480, "Volts between {least} and {most} are wanted: {value} V is not.", optional=True),
    ] = None
    quantity: Annotated[
        float, Measure("times", 0, 1000, "Between {least} and {most} of them: {value} is not.")
    ] = 1.0
    use: Annotated[str, Choice("The way of use", *USES)] = "hours"
    hours: Annotated[float, HOURS] = 0.0
    uses: Annotated[float, USES_A_DAY] = 0.0
    minutes: Annotated[float, MINUTES] = 0.0
    duty: Annotated[
        float, Measure("1", 0, 1, "A duty cycle lies between 0 and 1 (0 and 100 %): {value} does not.")
    ] = 1.0
    starts_at: Annotated[float | None, Clock()] = None
    windows: Annotated[list[tuple[float, float]], Windows()] = Field(default_factory=list)
    low: Annotated[float | None, DOUBT] = None
    high: Annotated[float | None, DOUBT] = None
    start_w: Annotated[float | None, StartPower()] = None
    start_s: Annotated[
        float, Measure("s", 0, 600, "A start takes between {least} and {most} s: {value} s does not.")
    ] = 0.0
    together: Annotated[bool, Truth()] = True
    critical: Annotated[bool, Truth()] = False
    duty_at: Annotated[list[float], Numbers("Duties", 0, 1, 4, exactly=True)] = Field(default_factory=list)
    least_v: Annotated[
        float | None,
        Measure(
            "V", 9, 14, "Least volts at 12 V lie between {least} and {most}: {value} V do not.", optional=True
        ),
    ] = None
    measured_wh: Annotated[float | None, DAY_WH] = None
    measured_hours: Annotated[
        float,
        Measure("h", 0.1, 2000, "A measurement takes between {least} and {most} h: {value} h does not."),
    ] = 24.0
    bank: Annotated[str, Choice("The bank", "main", "second")] = "main"
    thrifty_w: Annotated[
        float | None,
        Measure(
            "W", 0, 20_000, "A thriftier one draws between {least} and {most} W: {value} W is not likely.",
            optional=True,
        ),
    ] = None  # fmt: skip
    thrifty_price: Annotated[float | None, PRICE_OR_NONE] = None
    on: dict[str, TimesPart | None] = Field(default_factory=dict, max_length=24)

    @field_validator("draw", mode="before")
    @classmethod
    def _draw(cls, value: Any, info: ValidationInfo) -> Any:
        if isinstance(value, str) and (info.context or {}).get("typed"):
            if not value.strip():
                raise ValueError("Nothing is entered: give watts or amps, for example 45 W or 12 A.")
            draw = parsing.parse_draw(value)
            if draw.value < 0:
                raise ValueError(
                    f"A load cannot draw less than nothing: {value.strip()}. Give what it "
                    "takes while it is on."
                )
            return {"value": draw.value, "unit": draw.unit}
        return value

    @field_validator("minutes")
    @classmethod
    def _fits_the_day(cls, value: float, info: ValidationInfo) -> float:
        uses = info.data.get("uses") or 0.0
        if uses * value > 1440:
            raise ValueError(f"{uses:g} uses of {value:g} minutes are more than a day has.")
        return value


class InverterPart(Part):
    """The rig's inverter."""

    efficiency: Annotated[
        float,
        Measure(
            "1",
            0.3,
            1,
            "An inverter gives out between {least} and {most} of what it takes: {value} does not.",
        ),
    ] = 0.90
    idle_w: Annotated[
        float, Measure("W", 0, 500, "An inverter idles on {least} to {most} W: {value} W is not likely.")
    ] = 8.0
    hours_on: Annotated[
        float | None, Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.", optional=True)
    ] = None
    rated_w: Annotated[
        float | None,
        Measure(
            "W",
            50,
            50_000,
            "An inverter gives between {least} and {most} W: {value} W is not likely.",
            optional=True,
        ),
    ] = None


class DayTypePart(Part):
    """A kind of day."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words("The name of the day", 40, required=True)]
    kind: Annotated[str, Choice("The kind of day", *DAY_KINDS)] = "off_grid"
    season: Annotated[str, Choice("The season", *SEASONS)] = "summer"
    battery_c: Annotated[float | None, BATTERY_C] = None
    air_c: Annotated[
        float | None,
        Measure(
            "°C", -50, 55, "Air has between {least} and {most} °C: {value} °C is not likely.", optional=True
        ),
    ] = None
    charge_from: Annotated[float | None, Clock()] = None
    charge_to: Annotated[float | None, Clock()] = None
    measured_wh: Annotated[float | None, DAY_WH] = None
    measured_hours: Annotated[
        float, Measure("h", 1, 2000, "A measurement takes between {least} and {most} h: {value} h does not.")
    ] = 24.0


def usual_day_types() -> list[DayTypePart]:
    """The kinds of day that a new rig starts with."""
    return [
        DayTypePart(id="summer", name="Summer, off-grid", kind="off_grid", season="summer"),
        DayTypePart(id="winter", name="Winter, off-grid", kind="off_grid", season="winter"),
        DayTypePart(id="travelling", name="Travelling", kind="travelling", season="summer"),
        DayTypePart(id="hook-up", name="On hook-up", kind="hook_up", season="summer"),
        DayTypePart(id="laid-up", name="Laid up", kind="laid_up", season="winter"),
    ]


class DayPart(Part):
    """The loads, and the kinds of day on which they run."""

    types: list[DayTypePart] = Field(default_factory=usual_day_types, min_length=1, max_length=12)
    loads: list[LoadPart] = Field(default_factory=list, max_length=300)
    inverter: InverterPart = InverterPart()
    standby_w: Annotated[
        float,
        Measure("W", 0, 5000, "Standby lies between {least} and {most} W: {value} W does not.", draw=True),
    ] = 0.0
