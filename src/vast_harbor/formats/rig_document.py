"""The rig document: the fields of a rig file, and what each accepts."""

from typing import Annotated, Any, Final, Literal

from babel.numbers import list_currencies
from pydantic import BaseModel, ConfigDict, Field, ValidationInfo, field_validator

from vast_harbor.core import quantities
from vast_harbor.core.battery import cells_of
from vast_harbor.core.climate import PLACES
from vast_harbor.core.day_types import KINDS as DAY_KINDS
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.plan import Reference
from vast_harbor.core.sun import SEASONS
from vast_harbor.formats.fields import (
    Choice,
    Clock,
    LimitOfDraw,
    Measure,
    Names,
    Numbers,
    StartPower,
    Truth,
    Windows,
    Words,
)

FORMAT: Final = "vast-harbor-rig"
VERSION: Final = 1
CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")
KINDS = ("van", "rv", "caravan", "boat", "cabin", "other")
CLIMATES = ("maritime", "continental", "mediterranean", "desert", "subarctic")
CARES = ("purse", "weight", "cold", "no_upkeep", "big_loads", "short_keeping", "long_keeping")
IDENTIFIER = Field(pattern=r"^[A-Za-z0-9_-]{1,40}$")
BATTERY_C = Measure(
    "°C", -40, 60, "A battery has between {least} and {most} °C: {value} °C is not likely.", optional=True
)
PRICE_SAYS = "An amount between {least} and {most} is wanted: {value} is not."
PRICE = Measure("money", 0, 10_000_000, PRICE_SAYS)
PRICE_OR_NONE = Measure("money", 0, 10_000_000, PRICE_SAYS, optional=True)
STAY = Measure(
    "nights", 0, 366, "Between {least} and {most} nights are wanted: {value} is not.", optional=True
)
LEVER = Measure("m", -30, 30, "A lever lies between {least} and {most} m: {value} m does not.", optional=True)
LEVER_ABOVE = Measure(
    "m", 0.3, 30, "Between {least} and {most} m are wanted: {value} m is not.", optional=True
)
COUPLING = Measure(
    "kg",
    0,
    2000,
    "A coupling carries between {least} and {most} kg: {value} kg is not likely.",
    optional=True,
)
INSIDE = Measure(
    "mm",
    50,
    10_000,
    "A locker measures between {least} and {most} mm: {value} mm is not likely.",
    optional=True,
)
USES = ("hours", "uses", "times", "standby")


class _Part(BaseModel):
    model_config = ConfigDict(extra="forbid", validate_default=True)


class RigPart(_Part):
    """What the rig is and how it is used."""

    name: Annotated[str, Words("The name of the rig", 80, required=True)]
    kind: Annotated[str, Choice("The kind of rig", *KINDS)] = "van"
    system_v: Annotated[
        float, Measure("V", 12, 48, "House systems have 12, 24 or 48 V: {value} V is none of them.")
    ] = 12.0
    off_grid_nights: Annotated[
        float, Measure("nights", 0, 366, "A year has 365 nights: {value} does not fit.")
    ] = 40.0
    years_kept: Annotated[
        float,
        Measure("years", 1, 40, "Years to keep the rig must be between {least} and {most}: {value} is not."),
    ] = 10.0
    currency: Annotated[str, Words("The currency", 3)] = "EUR"
    units: Annotated[str, Choice("The units", "metric", "us")] = "metric"
    lead: Annotated[str, Choice("The lead figure", "wh", "ah")] = "wh"
    battery_c: Annotated[float | None, BATTERY_C] = None
    rest_c: Annotated[float | None, BATTERY_C] = None
    place: Annotated[str, Choice("The place of the battery", *PLACES)] = "living_space"
    region: Annotated[str, Words("The region", 40)] = ""
    latitude: Annotated[
        float | None,
        Measure(
            "°", -90, 90, "Latitude lies between {least} and {most}°, south negative: {value} does not.",
            optional=True,
        ),
    ] = None  # fmt: skip
    longitude: Annotated[
        float | None,
        Measure(
            "°", -180, 180, "Longitude lies between {least} and {most}°, west negative: {value} does not.",
            optional=True,
        ),
    ] = None  # fmt: skip
    utc_offset_h: Annotated[
        float | None,
        Measure(
            "h",
            -12,
            14,
            "Standard time lies between {least} and {most} h: {value} h does not.",
            optional=True,
        ),
    ] = None
    climate: Annotated[str | None, Choice("The climate", *CLIMATES, optional=True)] = None
    months: Annotated[list[int], Numbers("Months", 1, 12, 12)] = Field(default_factory=list)
    nights_in_a_row: Annotated[
        float | None, Measure("nights", 0, 366, "A year has 365 nights: {value} does not fit.", optional=True)
    ] = None
    hook_up_nights: Annotated[
        float, Measure("nights", 0, 366, "A year has 365 nights: {value} does not fit.")
    ] = 0.0
    drive_hours: Annotated[float, Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.")] = 2.0
    water_nights: Annotated[float | None, STAY] = None
    waste_nights: Annotated[float | None, STAY] = None
    gas_nights: Annotated[float | None, STAY] = None
    payload_kg: Annotated[
        float | None,
        Measure(
            "kg",
            -5000,
            50_000,
            "Payload lies between {least} and {most} kg: {value} kg does not.",
            optional=True,
        ),
    ] = None
    base_m: Annotated[float | None, LEVER_ABOVE] = None
    coupling_kg: Annotated[float | None, COUPLING] = None
    coupling_max_kg: Annotated[float | None, COUPLING] = None
    old_x_m: Annotated[float | None, LEVER] = None
    new_x_m: Annotated[float | None, LEVER] = None
    locker_length: Annotated[float | None, INSIDE] = None
    locker_width: Annotated[float | None, INSIDE] = None
    locker_height: Annotated[float | None, INSIDE] = None
    budget: Annotated[float | None, PRICE_OR_NONE] = None
    cares: Annotated[list[str], Names("What you care about", *CARES)] = Field(default_factory=list)
    notes: Annotated[str, Words("The note", 4000)] = ""

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 48.0):
            raise ValueError(f"House systems have 12, 24 or 48 V: {value:g} V is none of them.")
        return value

    @field_validator("currency")
    @classmethod
    def _currency(cls, value: str) -> str:
        code = value.strip().upper()
        if code not in list_currencies():
            raise ValueError(f"“{value}” is not a currency code: give three letters such as EUR or USD.")
        return code


def _unit_volts(value: float, info: ValidationInfo, reference: Reference | None) -> float:
    key = info.data.get("battery_class")
    if reference and key:
        try:
            cells_of(reference.classes[key], value)
        except InvalidInput as error:
            raise ValueError(error.message) from error
    return value


def _reference(info: ValidationInfo) -> Reference | None:
    return (info.context or {}).get("reference")


UNIT_V = Measure("V", 1, 60, "One battery has between {least} and {most} V: {value} V is not one.")
UNIT_AH = Measure("Ah", 0.5, 5000, "A label gives between {least} and {most} Ah: {value} Ah is not likely.")
DAY_WH = Measure(
    "Wh", 0.1, 200_000, "A day takes between {least} and {most} Wh: {value} Wh is not likely.", optional=True
)
BANK_V = Measure(
    "V", 1, 70, "A house bank reads between {least} and {most} V: {value} V is not likely.", optional=True
)
STRINGS = "Between {least} and {most} can be joined: {value} cannot."


class OldBankPart(_Part):
    """The bank that is in the rig now."""

    battery_class: Annotated[str, Choice("The battery class", *CLASSES)] = "agm"
    unit_v: Annotated[float, UNIT_V] = 12.0
    unit_ah: Annotated[float, UNIT_AH] = 100.0
    series: Annotated[int, Measure("times", 1, 24, STRINGS, whole=True)] = 1
    parallel: Annotated[int, Measure("times", 1, 12, STRINGS, whole=True)] = 1
    age_years: Annotated[
        float | None,
        Measure(
            "years",
            0,
            60,
            "An age between {least} and {most} years is wanted: {value} is not.",
            optional=True,
        ),
    ] = None
    unit_kg: Annotated[
        float | None,
        Measure(
            "kg",
            0.1,
            500,
            "One battery weighs between {least} and {most} kg: {value} kg is not likely.",
            optional=True,
        ),
    ] = None

    test_a: Annotated[
        float | None,
        Measure(
            "A",
            0.1,
            1000,
            "A test draws between {least} and {most} A: {value} A is not likely.",
            optional=True,
        ),
    ] = None
    test_minutes: Annotated[
        float | None,
        Measure(
            "min", 1, 6000, "A test takes between {least} and {most} minutes: {value} is not.", optional=True
        ),
    ] = None
    test_c: Annotated[
        float | None,
        Measure(
            "°C",
            -20,
            60,
            "A battery is tested between {least} and {most} °C: {value} °C is not.",
            optional=True,
        ),
    ] = None

    nights_then: Annotated[float | None, STAY] = None
    nights_now: Annotated[float | None, STAY] = None
    day_then_wh: Annotated[float | None, DAY_WH] = None
    rested_v: Annotated[float | None, BANK_V] = None
    rested_hours: Annotated[
        float | None,
        Measure(
            "h", 0, 2000, "A rest lasts between {least} and {most} h: {value} h does not.", optional=True
        ),
    ] = None
    loaded_v: Annotated[float | None, BANK_V] = None
    load_a: Annotated[
        float | None,
        Measure(
            "A",
            0.1,
            2000,
            "A load draws between {least} and {most} A: {value} A is not likely.",
            optional=True,
        ),
    ] = None
    smells: Annotated[bool, Truth()] = False
    warm: Annotated[bool, Truth()] = False
    bulges: Annotated[bool, Truth()] = False
    deep_accidents: Annotated[
        float, Measure("times", 0, 100, "Between {least} and {most} times are believable: {value} is not.")
    ] = 0.0
    reason: Annotated[str, Words("The reason", 400)] = ""

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return _unit_volts(value, info, _reference(info))


HOURS = Measure("h", 0, 24, "A day has 24 hours: {value} h does not fit.")
USES_A_DAY = Measure("times", 0, 1440, "Between {least} and {most} uses a day: {value} is not.")
MINUTES = Measure("min", 0, 1440, "A use takes between {least} and {most} minutes: {value} does not.")
DOUBT = LimitOfDraw()


class DrawPart(_Part):
    """What a load draws."""

    value: Annotated[
        float, Measure("W", 0, 100_000, "A load draws between {least} and {most}: {value} is not a draw.")
    ]
    unit: Annotated[str, Choice("The unit of the draw", "W", "A")] = "W"


class TimesPart(_Part):
    """When a load runs on one kind of day, where that is not as usual."""

    use: Annotated[str, Choice("The way of use", *USES)] = "hours"
    hours: Annotated[float, HOURS] = 0.0
    uses: Annotated[float, USES_A_DAY] = 0.0
    minutes: Annotated[float, MINUTES] = 0.0
    starts_at: Annotated[float | None, Clock()] = None
    windows: Annotated[list[tuple[float, float]], Windows()] = Field(default_factory=list)


class LoadPart(_Part):
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
    measured_wh: Annotated[float | None, DAY_WH] = None
    measured_hours: Annotated[
        float,
        Measure("h", 0.1, 2000, "A measurement takes between {least} and {most} h: {value} h does not."),
    ] = 24.0
    bank: Annotated[str, Choice("The bank", "main", "second")] = "main"
    on: dict[str, TimesPart | None] = Field(default_factory=dict, max_length=24)

    @field_validator("draw", mode="before")
    @classmethod
    def _draw(cls, value: Any, info: ValidationInfo) -> Any:
        if isinstance(value, str) and (info.context or {}).get("typed"):
            if not value.strip():
                raise ValueError("Nothing is entered: give watts or amps, for example 45 W or 12 A.")
            draw = quantities.parse_draw(value)
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


class InverterPart(_Part):
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


class DayTypePart(_Part):
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


class DayPart(_Part):
    """The loads, and the kinds of day on which they run."""

    types: list[DayTypePart] = Field(default_factory=usual_day_types, min_length=1, max_length=12)
    loads: list[LoadPart] = Field(default_factory=list, max_length=300)
    inverter: InverterPart = InverterPart()
    standby_w: Annotated[
        float, Measure("W", 0, 5000, "Standby lies between {least} and {most} W: {value} W does not.")
    ] = 0.0


class SecondBankPart(_Part):
    """A second house bank, fed from the main one."""

    name: Annotated[str, Words("The name of the second bank", 40, required=True)] = "Services"
    system_v: Annotated[
        float, Measure("V", 12, 48, "A second bank has 12, 24 or 48 V: {value} V is none of them.")
    ] = 12.0
    efficiency: Annotated[
        float, Measure("1", 0.5, 1, "An efficiency lies between {least} and {most}: {value} does not.")
    ] = 0.92
    limit_w: Annotated[
        float,
        Measure(
            "W", 10, 20_000, "Such a charger gives between {least} and {most} W: {value} W is not likely."
        ),
    ] = 360.0
    nights: Annotated[
        float, Measure("nights", 0.1, 30, "Between {least} and {most} nights are wanted: {value} is not.")
    ] = 1.0

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 48.0):
            raise ValueError(f"A second bank has 12, 24 or 48 V: {value:g} V is none of them.")
        return value


class PlanPart(_Part):
    """House rule and what the owner overrides."""

    house_rule: Annotated[str, Choice("The house rule", "long_life", "customary", "to_label")] = "customary"
    life_basis: Annotated[
        str | None, Choice("The life to reckon with", "likely", "warranty", "label_cycles", optional=True)
    ] = None
    overrides: dict[str, float] = Field(default_factory=dict)
    day_type: str | None = None
    day_basis: Annotated[str, Choice("The day to plan for", "likely", "cautious", "measured")] = "likely"
    habits: Annotated[str, Choice("The habits", "careful", "usual", "careless")] = "usual"
    overnight: Annotated[bool, Truth()] = False


class ModelPart(_Part):
    """A battery that the owner entered."""

    id: Annotated[str, IDENTIFIER]
    maker: Annotated[str, Words("The maker", 60)] = ""
    name: Annotated[str, Words("The name of the battery", 60, required=True)]
    battery_class: Annotated[str, Choice("The battery class", *CLASSES)] = "lfp"
    unit_v: Annotated[float, UNIT_V] = 12.8
    rated_ah: Annotated[float, UNIT_AH] = 100.0
    rated_hours: Annotated[
        float, Measure("h", 0.05, 240, "Capacity is rated over {least} to {most} h: {value} is not.")
    ] = 20.0
    kg: Annotated[
        float,
        Measure(
            "kg", 0.1, 500, "One battery weighs between {least} and {most} kg: {value} kg is not likely."
        ),
    ] = 11.0
    price: Annotated[float, PRICE] = 0.0
    cycles: Annotated[
        float,
        Measure("times", 1, 50_000, "Between {least} and {most} cycles are believable: {value} is not."),
    ] = 3500.0
    cycles_at_dod: Annotated[
        float,
        Measure(
            "1", 0.1, 1, "The depth of the cycle count lies between {least} and {most}: {value} does not."
        ),
    ] = 0.8
    warranty_years: Annotated[
        float, Measure("years", 0, 40, "A warranty has {least} to {most} years: {value} is not.")
    ] = 2.0
    max_series: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    max_parallel: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    heater_w: Annotated[
        float | None,
        Measure("W", 0, 2000, "A heater has {least} to {most} W: {value} W is not likely.", optional=True),
    ] = None

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return _unit_volts(value, info, _reference(info))


class ExtraPart(_Part):
    """Something that must be bought besides the batteries."""

    id: Annotated[str, IDENTIFIER]
    name: Annotated[str, Words("The name of the extra", 80)] = ""
    price: Annotated[float, PRICE] = 0.0


class CandidatePart(_Part):
    """A bank that is being considered."""

    id: Annotated[str, IDENTIFIER]
    battery_class: Annotated[str, Choice("The battery class", *CLASSES)]
    model: str | None = None
    series: Annotated[int | None, Measure("times", 1, 32, STRINGS, optional=True, whole=True)] = None
    parallel: Annotated[int | None, Measure("times", 1, 12, STRINGS, optional=True, whole=True)] = None
    unit_price: Annotated[float | None, PRICE_OR_NONE] = None
    extras: list[ExtraPart] = Field(default_factory=list, max_length=30)


class RigFile(_Part):
    """A rig with its day, plan and candidates."""

    format: Literal["vast-harbor-rig"] = FORMAT
    version: Literal[1] = VERSION
    rig: RigPart
    old_bank: OldBankPart | None = None
    second_bank: SecondBankPart | None = None
    day: DayPart = DayPart()
    plan: PlanPart = PlanPart()
    own_models: list[ModelPart] = Field(default_factory=list, max_length=100)
    candidates: list[CandidatePart] = Field(default_factory=list, max_length=8)
