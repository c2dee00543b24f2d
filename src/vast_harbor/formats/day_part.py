"""The rig document: the loads, and the kinds of day on which they run."""

from typing import Annotated, Any

from pydantic import Field, ValidationInfo, field_validator

from vast_harbor.core.figures import parsing
from vast_harbor.core.figures.number_format import number_format
from vast_harbor.core.rig.day_types import KINDS as DAY_KINDS
from vast_harbor.core.rig.day_types import DayType, Times
from vast_harbor.core.rig.loads import COULD, Inverter, Load
from vast_harbor.core.weather.sun import SEASONS
from vast_harbor.formats.fields import Choice, Clock, Measure, Truth, Words
from vast_harbor.formats.fields_of_several import LimitOfDraw, Names, Numbers, StartPower, Windows
from vast_harbor.formats.parts import BATTERY_C, DAY_WH, IDENTIFIER, PRICE_OR_NONE, Part, made
from vast_harbor.phrases import phrase

USES = ("hours", "uses", "times", "standby")

HOURS = Measure("h", 0, 24, phrase("files.day_part.day_24_hours_h"))
USES_A_DAY = Measure("times", 0, 1440, phrase("files.day_part.enter_uses_day"))
MINUTES = Measure("min", 0, 1440, phrase("files.day_part.use_must_take_between"))
DOUBT = LimitOfDraw()


class DrawPart(Part):
    """What a load draws."""

    value: Annotated[float, Measure("W", 0, 100_000, phrase("files.day_part.power_load_must_between"))]
    unit: Annotated[str, Choice(phrase("files.day_part.unit_power"), "W", "A")] = "W"


class TimesPart(Part, core=Times):
    """When a load runs on one kind of day, where that is not as usual."""

    use: Annotated[str, Choice(phrase("files.day_part.kind_use"), *USES)] = "hours"
    hours: Annotated[float, HOURS] = 0.0
    uses: Annotated[float, USES_A_DAY] = 0.0
    minutes: Annotated[float, MINUTES] = 0.0
    starts_at: Annotated[float | None, Clock()]
    windows: Annotated[list[tuple[float, float]], Windows()]


class LoadPart(Part, core=Load):
    """One appliance of the day."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words(phrase("files.day_part.name_load"), 80, required=True)]
    supply: Annotated[str, Choice(phrase("files.day_part.supply"), "dc", "ac")] = "dc"
    draw: DrawPart = DrawPart(value=0)
    volts: Annotated[
        float | None, Measure("V", 1, 480, phrase("files.day_part.voltage_must_between_v"), optional=True)
    ] = None
    quantity: Annotated[float, Measure("times", 0, 1000, phrase("files.day_part.enter"))] = 1.0
    use: Annotated[str, Choice(phrase("files.day_part.kind_use"), *USES)]
    hours: Annotated[float, HOURS] = 0.0
    uses: Annotated[float, USES_A_DAY] = 0.0
    minutes: Annotated[float, MINUTES] = 0.0
    duty: Annotated[
        float, Measure("1", 0, 1, phrase("files.day_part.duty_cycle_must_between"), percent=True)
    ] = 1.0
    starts_at: Annotated[float | None, Clock()]
    windows: Annotated[list[tuple[float, float]], Windows()]
    low: Annotated[float | None, DOUBT]
    high: Annotated[float | None, DOUBT]
    start_w: Annotated[float | None, StartPower()]
    start_s: Annotated[float, Measure("s", 0, 600, phrase("files.day_part.start_must_take_between"))] = 0.0
    together: Annotated[bool, Truth()]
    critical: Annotated[bool, Truth()]
    duty_at: Annotated[
        list[float], Numbers(phrase("files.day_part.duty_cycles"), 0, 1, 4, exactly=True, percent=True)
    ]
    least_v: Annotated[
        float | None, Measure("V", 9, 14, phrase("files.day_part.lowest_voltage_12_v"), optional=True)
    ]
    measured_wh: Annotated[float | None, DAY_WH]
    measured_hours: Annotated[
        float, Measure("h", 0.1, 2000, phrase("files.day_part.measurement_must_take_between"))
    ] = 24.0
    bank: Annotated[str, Choice(phrase("files.day_part.bank"), "main", "second")]
    thrifty_w: Annotated[
        float | None,
        Measure(
            "W", 0, 20_000, phrase("files.day_part.power_economical_must_between"),
            optional=True,
        ),
    ]  # fmt: skip
    thrifty_price: Annotated[float | None, PRICE_OR_NONE]
    could: Annotated[list[str], Names(phrase("files.day_part.could"), *COULD)]
    on: Annotated[dict[str, TimesPart | None], Field(max_length=24)]

    @field_validator("draw", mode="before")
    @classmethod
    def _draw(cls, value: Any, info: ValidationInfo) -> Any:
        if isinstance(value, str) and info.context and info.context.get("typed"):
            if not value.strip():
                raise ValueError(phrase("files.day_part.field_empty_enter_watts"))
            draw = parsing.parse_draw(value, number_format(info.context.get("numbers", "")))
            if draw.value < 0:
                raise ValueError(phrase("files.day_part.power_load_cannot_negative", value=value.strip()))
            return {"value": draw.value, "unit": draw.unit}
        return value

    @field_validator("minutes")
    @classmethod
    def _fits_the_day(cls, value: float, info: ValidationInfo) -> float:
        uses = info.data.get("uses") or 0.0
        if uses * value > 1440:
            raise ValueError(
                phrase("files.day_part.uses_minutes_longer_day", uses=f"{uses:g}", value=f"{value:g}")
            )
        return value


class InverterPart(Part, core=Inverter):
    """The rig's inverter."""

    efficiency: Annotated[
        float, Measure("1", 0.3, 1, phrase("files.day_part.efficiency_inverter_must_between"), percent=True)
    ]
    idle_w: Annotated[float, Measure("W", 0, 500, phrase("files.day_part.idle_power_inverter_must"))]
    hours_on: Annotated[
        float | None, Measure("h", 0, 24, phrase("files.day_part.day_24_hours_h"), optional=True)
    ]
    rated_w: Annotated[
        float | None,
        Measure("W", 50, 50_000, phrase("files.day_part.rated_power_inverter_must"), optional=True),
    ]


class DayTypePart(Part, core=DayType):
    """A kind of day."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words(phrase("files.day_part.name_day"), 40, required=True)]
    kind: Annotated[str, Choice(phrase("files.day_part.kind_day"), *DAY_KINDS)]
    season: Annotated[str, Choice(phrase("files.day_part.season"), *SEASONS)]
    battery_c: Annotated[float | None, BATTERY_C]
    air_c: Annotated[
        float | None,
        Measure("°C", -50, 55, phrase("files.day_part.air_temperature_must_between"), optional=True),
    ]
    charge_from: Annotated[float | None, Clock()]
    charge_to: Annotated[float | None, Clock()]
    measured_wh: Annotated[float | None, DAY_WH]
    measured_hours: Annotated[
        float, Measure("h", 1, 2000, phrase("files.day_part.measurement_must_take_between"))
    ]


def usual_day_types() -> list[DayTypePart]:
    """The kinds of day that a new rig starts with."""
    return [
        made(
            DayTypePart,
            id="summer",
            name=phrase("files.day_part.summer_off_grid"),
            kind="off_grid",
            season="summer",
        ),
        made(
            DayTypePart,
            id="winter",
            name=phrase("files.day_part.winter_off_grid"),
            kind="off_grid",
            season="winter",
        ),
        made(
            DayTypePart,
            id="travelling",
            name=phrase("files.day_part.travelling"),
            kind="travelling",
            season="summer",
        ),
        made(
            DayTypePart, id="hook-up", name=phrase("files.day_part.hook_up"), kind="hook_up", season="summer"
        ),
        made(
            DayTypePart, id="laid-up", name=phrase("files.day_part.laid_up"), kind="laid_up", season="winter"
        ),
    ]


class DayPart(Part):
    """The loads, and the kinds of day on which they run."""

    types: list[DayTypePart] = Field(default_factory=usual_day_types, min_length=1, max_length=12)
    loads: list[LoadPart] = Field(default_factory=list, max_length=300)
    inverter: InverterPart = made(InverterPart)
    standby_w: Annotated[
        float, Measure("W", 0, 5000, phrase("files.day_part.standby_power_must_between"), draw=True)
    ] = 0.0
