"""The rig document: what the rig is, how and where it is used."""

from typing import Annotated

from babel.numbers import list_currencies
from pydantic import Field, field_validator

from vast_harbor.core.rig.sources import PITCHES
from vast_harbor.core.weather.climate import PLACES
from vast_harbor.formats.fields import Choice, Measure, Names, Numbers, Truth, Words
from vast_harbor.formats.parts import BATTERY_C, PRICE_OR_NONE, STAY, TERMINALS, Part

KINDS = ("van", "rv", "caravan", "boat", "cabin", "other")
CLIMATES = ("maritime", "continental", "mediterranean", "desert", "subarctic")
CARES = ("purse", "weight", "cold", "no_upkeep", "big_loads", "short_keeping", "long_keeping")
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
AXLE = Measure(
    "kg", -5000, 50_000, "What is left on an axle lies between {least} and {most} kg: {value} kg does not.",
    optional=True,
)  # fmt: skip


def _some(unit: str, least: float, most: float, what: str) -> Measure:
    """A quantity that may be left open."""
    says = f"{what} lies between {{least}} and {{most}} {unit}: {{value}} {unit} does not."
    return Measure(unit, least, most, says, optional=True)


class RigPart(Part):
    """What the rig is and how it is used."""

    name: Annotated[str, Words("The name of the rig", 80, required=True)]
    kind: Annotated[str, Choice("The kind of rig", *KINDS)] = "van"
    system_v: Annotated[
        float, Measure("V", 12, 48, "House systems have 12, 24, 36 or 48 V: {value} V is none of them.")
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
    drive_every: Annotated[
        int | None,
        Measure(
            "days", 1, 30, "It drives every {least} to {most} days: {value} does not fit.", optional=True,
            whole=True,
        ),
    ] = None  # fmt: skip
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
    locker2_length: Annotated[float | None, INSIDE] = None
    locker2_width: Annotated[float | None, INSIDE] = None
    locker2_height: Annotated[float | None, INSIDE] = None
    locker2_cable_m: Annotated[
        float, Measure("m", 0, 30, "A cable of {least} to {most} m is wanted: {value} m is not.")
    ] = 0.0
    locker_opens: Annotated[str, Choice("Where the locker opens", "top", "front")] = "top"
    locker_vented: Annotated[bool, Truth()] = False
    vent_cm2: Annotated[float | None, _some("cm²", 0, 5000, "An opening")] = None
    front_axle_kg: Annotated[float | None, AXLE] = None
    rear_axle_kg: Annotated[float | None, AXLE] = None
    cable_mm2: Annotated[float | None, _some("mm²", 0.5, 500, "A main cable")] = None
    cable_clad: Annotated[bool, Truth()] = False
    fuse_a: Annotated[float | None, _some("A", 1, 1000, "A main fuse")] = None
    fuse_breaks_a: Annotated[
        float | None, _some("A", 100, 200_000, "The short circuit that a fuse interrupts")
    ] = None
    lugs: Annotated[str, Choice("What the lugs are for", "", *TERMINALS)] = ""
    charge_a: Annotated[float | None, _some("A", 0, 2000, "The current of all chargers")] = None
    charge_v: Annotated[float | None, _some("V", 12, 17, "An absorption voltage for 12 V")] = None
    equalises: Annotated[bool, Truth()] = False
    pitch: Annotated[str, Choice("The usual pitch", *PITCHES)] = "open"
    sun_hours: Annotated[list[float], Numbers("Peak-sun-hours by month", 0, 14, 12, exactly=True)] = Field(
        default_factory=list
    )
    disconnect: Annotated[str, Choice("The load disconnect", "all", "not_critical", "none")] = "all"
    watched: Annotated[str, Choice("What warns you", "", "monitor")] = ""
    budget: Annotated[float | None, PRICE_OR_NONE] = None
    cares: Annotated[list[str], Names("What you care about", *CARES)] = Field(default_factory=list)
    notes: Annotated[str, Words("The note", 4000)] = ""

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 36.0, 48.0):
            raise ValueError(f"House systems have 12, 24, 36 or 48 V: {value:g} V is none of them.")
        return value

    @field_validator("currency")
    @classmethod
    def _currency(cls, value: str) -> str:
        code = value.strip().upper()
        if code not in list_currencies():
            raise ValueError(f"“{value}” is not a currency code: give three letters such as EUR or USD.")
        return code
