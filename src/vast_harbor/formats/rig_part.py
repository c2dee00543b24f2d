"""The rig document: what the rig is, how and where it is used."""

from typing import Annotated

from pydantic import field_validator

from vast_harbor.core.figures.currency import currency_code
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.sources import PITCHES
from vast_harbor.core.stops.compare import PRIORITIES as OF_COMPARE
from vast_harbor.core.weather.climate import PLACES
from vast_harbor.formats.fields import Choice, Measure, Truth, Words
from vast_harbor.formats.fields_of_several import Names, Numbers
from vast_harbor.formats.parts import BATTERY_C, PRICE_OR_NONE, STAY, TERMINALS, Part
from vast_harbor.phrases import phrase

KINDS = ("van", "rv", "caravan", "boat", "cabin", "other")
CLIMATES = ("maritime", "continental", "mediterranean", "desert", "subarctic")
PRIORITIES = tuple(OF_COMPARE)
LEVER = Measure("m", -30, 30, phrase("files.rig_part.position_must_between_m"), optional=True)
LEVER_ABOVE = Measure("m", 0.3, 30, phrase("files.rig_part.length_must_between_m"), optional=True)
COUPLING = Measure("kg", 0, 2000, phrase("files.rig_part.coupling_load_must_between"), optional=True)
INSIDE = Measure("mm", 50, 10_000, phrase("files.rig_part.locker_measures_between_mm"), optional=True)
AXLE = Measure(
    "kg", -5000, 50_000, phrase("files.rig_part.margin_axle_must_between"),
    optional=True,
)  # fmt: skip


def _some(unit: str, least: float, most: float, what: str) -> Measure:
    """A quantity that may be left open."""
    says = phrase("files.rig_part.must_between", what=what, unit=unit)
    return Measure(unit, least, most, says, optional=True)


class RigPart(Part, core=Plan):
    """What the rig is and how it is used."""

    name: Annotated[str, Words(phrase("files.rig_part.name_rig"), 80, required=True)]
    kind: Annotated[str, Choice(phrase("files.rig_part.kind_rig"), *KINDS)] = "van"
    system_v: Annotated[float, Measure("V", 12, 48, phrase("files.rig_part.house_systems_12_24"))] = 12.0
    off_grid_nights: Annotated[
        float, Measure("nights", 0, 366, phrase("files.rig_part.year_365_nights_possible"))
    ] = 40.0
    years_kept: Annotated[float, Measure("years", 1, 40, phrase("files.rig_part.keep_rig_years"))] = 10.0
    currency: Annotated[str, Words(phrase("files.rig_part.currency"), 40)] = "EUR"
    units: Annotated[str, Choice(phrase("files.rig_part.units"), "metric", "us")] = "metric"
    numbers: Annotated[str, Choice(phrase("files.rig_part.numbers"), "", *LOCALES)] = ""
    lead: Annotated[str, Choice(phrase("files.rig_part.main_unit"), "wh", "ah")] = "wh"
    battery_c: Annotated[float | None, BATTERY_C] = None
    rest_c: Annotated[float | None, BATTERY_C] = None
    place: Annotated[str, Choice(phrase("files.rig_part.place_battery"), *PLACES)]
    region: Annotated[str, Words(phrase("files.rig_part.region"), 40)] = ""
    latitude: Annotated[
        float | None,
        Measure(
            "°", -90, 90, phrase("files.rig_part.latitude_must_between_south"),
            optional=True,
        ),
    ] = None  # fmt: skip
    longitude: Annotated[
        float | None,
        Measure(
            "°", -180, 180, phrase("files.rig_part.longitude_must_between_west"),
            optional=True,
        ),
    ] = None  # fmt: skip
    utc_offset_h: Annotated[
        float | None, Measure("h", -12, 14, phrase("files.rig_part.time_zone_must_between"), optional=True)
    ] = None
    climate: Annotated[str | None, Choice(phrase("files.rig_part.climate"), *CLIMATES, optional=True)] = None
    months: Annotated[list[int], Numbers(phrase("files.rig_part.months"), 1, 12, 12)]
    nights_in_a_row: Annotated[
        float | None,
        Measure("nights", 0, 366, phrase("files.rig_part.year_365_nights_possible"), optional=True),
    ]
    hook_up_nights: Annotated[
        float, Measure("nights", 0, 366, phrase("files.rig_part.year_365_nights_possible"))
    ] = 0.0
    drive_hours: Annotated[float, Measure("h", 0, 24, phrase("files.rig_part.day_24_hours_h"))] = 2.0
    drive_every: Annotated[
        int | None,
        Measure(
            "days", 1, 30, phrase("files.rig_part.move_every_days"), optional=True,
            whole=True,
        ),
    ]  # fmt: skip
    water_nights: Annotated[float | None, STAY] = None
    waste_nights: Annotated[float | None, STAY] = None
    gas_nights: Annotated[float | None, STAY] = None
    roof_m2: Annotated[
        float | None, Measure("m²", 0, 500, phrase("files.rig_part.roof_must_between"), optional=True)
    ]
    payload_kg: Annotated[
        float | None,
        Measure("kg", -5000, 50_000, phrase("files.rig_part.payload_must_between_kg"), optional=True),
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
    locker2_cable_m: Annotated[float, Measure("m", 0, 30, phrase("files.rig_part.cable_must_between_m"))] = (
        0.0
    )
    locker_opens: Annotated[str, Choice(phrase("files.rig_part.where_locker_opens"), "top", "front")] = "top"
    locker_vented: Annotated[bool, Truth()] = False
    locker_insulated: Annotated[bool, Truth()] = False
    vent_cm2: Annotated[float | None, _some("cm²", 0, 5000, phrase("files.rig_part.opening"))] = None
    front_axle_kg: Annotated[float | None, AXLE] = None
    rear_axle_kg: Annotated[float | None, AXLE] = None
    cable_mm2: Annotated[float | None, _some("mm²", 0.5, 500, phrase("files.rig_part.main_cable"))] = None
    cable_clad: Annotated[bool, Truth()] = False
    fuse_a: Annotated[float | None, _some("A", 1, 1000, phrase("files.rig_part.main_fuse"))] = None
    fuse_breaks_a: Annotated[
        float | None, _some("A", 100, 200_000, phrase("files.rig_part.breaking_capacity_fuse"))
    ] = None
    lugs: Annotated[str, Choice(phrase("files.rig_part.size_lugs"), "", *TERMINALS)] = ""
    charge_a: Annotated[float | None, _some("A", 0, 2000, phrase("files.rig_part.current_chargers"))] = None
    charge_v: Annotated[
        float | None,
        Measure("V", 12, 17, phrase("files.rig_part.absorption_voltage"), optional=True, per_12=True),
    ] = None
    equalises: Annotated[bool, Truth()] = False
    pitch: Annotated[str, Choice(phrase("files.rig_part.usual_place"), *PITCHES)]
    sun_hours: Annotated[
        list[float], Numbers(phrase("files.rig_part.sun_hours_month"), 0, 14, 12, exactly=True)
    ]
    disconnect: Annotated[
        str, Choice(phrase("files.rig_part.load_disconnect"), "all", "not_critical", "none")
    ]
    watched: Annotated[str, Choice(phrase("files.rig_part.warning_device"), "", "monitor")]
    budget: Annotated[float | None, PRICE_OR_NONE]
    cares: Annotated[list[str], Names(phrase("files.rig_part.care_about"), *PRIORITIES)]
    notes: Annotated[str, Words(phrase("terms.names.note"), 4000)] = ""

    @field_validator("system_v")
    @classmethod
    def _system(cls, value: float) -> float:
        if value not in (12.0, 24.0, 36.0, 48.0):
            raise ValueError(phrase("files.rig_part.house_systems_12_24", value=f"{value:g}"))
        return value

    @field_validator("currency")
    @classmethod
    def _currency(cls, value: str) -> str:
        code = currency_code(value)
        if code is None:
            raise ValueError(phrase("files.rig_part.currency_code_enter_three", value=value))
        return code
