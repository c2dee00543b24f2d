"""The rig document: a battery that the owner entered, with all that its datasheet says."""

import itertools
from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import ValidationInfo, field_validator

from vast_harbor.core.battery.datasheet import (
    ANY,
    BY_CHARGER,
    BY_ITSELF,
    MONITOR,
    NO_SWITCH,
    ON_SIDES,
    OWN_SWITCH,
    UPRIGHT,
)
from vast_harbor.formats.fields import Choice, Date, Measure, Truth, Words
from vast_harbor.formats.parts import (
    CLASSES,
    IDENTIFIER,
    PRICE,
    PRICE_OR_NONE,
    STRINGS,
    TERMINALS,
    UNIT_AH,
    UNIT_V,
    Part,
    unit_volts,
)
from vast_harbor.formats.slips import LARGEST_CASE_MM, LEAST_CASE_MM

# What people put up as a house bank and should not, with the reason.
REFUSED = {
    "starting": "A starting battery is not offered as a house bank: a few deep discharges kill it. Choose a "
    "deep-cycle class, and keep this one for the engine.",
    "cobalt": "Lithium with cobalt (NMC, NCA) is not offered as a house bank: it makes fewer cycles and "
    "is less "
    "stable than lithium iron phosphate. Choose LFP.",
}


class HouseClass(Choice):
    """A class of house battery; what is none is refused with its reason."""

    def read(self, value: Any, info: ValidationInfo) -> str | None:
        if isinstance(value, str) and value in REFUSED:
            raise ValueError(REFUSED[value])
        return super().read(value, info)


def _some(unit: str, least: float, most: float, what: str) -> Measure:
    return Measure(
        unit, least, most, f"{what} lies between {{least}} and {{most}}: {{value}} does not.", True
    )


def _share(what: str) -> Measure:
    return Measure("1", 0, 1, f"{what} lies between {{least}} and {{most}}: {{value}} does not.")


CYCLES = "Between {least} and {most} cycles are believable: {value} is not."
DEPTH = "The depth of the cycle count lies between {least} and {most}: {value} does not."
CASE = Measure(
    "mm", LEAST_CASE_MM, LARGEST_CASE_MM,
    "A battery measures between {least} and {most} mm: {value} mm is not likely.", True,
)  # fmt: skip
BMS_A = Measure(
    "A", 1, 5000,
    "A BMS passes between {least} and {most} A: at {value} A it would never give anything. Leave it "
    "empty where "
    "it is not stated.", True,
)  # fmt: skip
CELSIUS = _some("°C", -60, 100, "A temperature")
UNIT_VOLTS = _some("V", 0.5, 70, "Such a voltage")
COUNT = Measure("times", 0, 50_000, "Between {least} and {most} are believable: {value} is not.")


class ModelPart(Part):
    """A battery that the owner entered: its label, its datasheet, its price and its past."""

    id: Annotated[str, IDENTIFIER]
    maker: Annotated[str, Words("The maker", 60)] = ""
    name: Annotated[str, Words("The name of the battery", 60, required=True)]
    battery_class: Annotated[str, HouseClass("The battery class", *CLASSES)] = "lfp"
    unit_v: Annotated[float, UNIT_V] = 12.8
    rated_ah: Annotated[float, UNIT_AH] = 100.0
    rated_hours: Annotated[
        float, Measure("h", 0.05, 240, "Capacity is rated over {least} to {most} h: {value} is not.")
    ] = 20.0
    ah_2: Annotated[float | None, _some("Ah", 0.5, 5000, "A capacity")] = None
    hours_2: Annotated[float | None, _some("h", 0.05, 240, "Its time")] = None
    ah_3: Annotated[float | None, _some("Ah", 0.5, 5000, "A capacity")] = None
    hours_3: Annotated[float | None, _some("h", 0.05, 240, "Its time")] = None
    reserve_minutes: Annotated[float | None, _some("min", 15, 1500, "A reserve at 25 A")] = None
    cycles: Annotated[float, Measure("times", 1, 50_000, CYCLES)] = 3500.0
    cycles_at_dod: Annotated[float, Measure("1", 0.1, 1, DEPTH)] = 0.8
    cycles_2: Annotated[float | None, Measure("times", 1, 50_000, CYCLES, True)] = None
    cycles_at_2: Annotated[float | None, Measure("1", 0.1, 1, DEPTH, True)] = None
    cycles_3: Annotated[float | None, Measure("times", 1, 50_000, CYCLES, True)] = None
    cycles_at_3: Annotated[float | None, Measure("1", 0.1, 1, DEPTH, True)] = None
    length_mm: Annotated[float | None, CASE] = None
    width_mm: Annotated[float | None, CASE] = None
    height_mm: Annotated[float | None, CASE] = None
    kg: Annotated[
        float,
        Measure(
            "kg", 0.1, 500, "One battery weighs between {least} and {most} kg: {value} kg is not likely."
        ),
    ] = 11.0
    orientation: Annotated[str, Choice("The pose", UPRIGHT, ON_SIDES, ANY)] = UPRIGHT
    terminals: Annotated[str, Choice("The terminals", "", *TERMINALS)] = ""
    terminal_side: Annotated[str, Choice("Where they sit", "ends", "long_side", "one_end")] = "ends"
    water: Annotated[bool | None, Truth(optional=True)] = None
    ingress: Annotated[str, Words("The ingress class", 10)] = ""
    price: Annotated[float, PRICE] = 0.0
    price_low: Annotated[float | None, PRICE_OR_NONE] = None
    price_high: Annotated[float | None, PRICE_OR_NONE] = None
    price_date: Annotated[str, Date("The date of the price")] = ""
    tax: Annotated[float, _share("A tax")] = 0.0
    delivery: Annotated[float, PRICE] = 0.0
    deposit: Annotated[float, PRICE] = 0.0
    discount: Annotated[float, _share("A discount")] = 0.0
    warranty_years: Annotated[
        float, Measure("years", 0, 40, "A warranty has {least} to {most} years: {value} is not.")
    ] = 2.0
    warranty_full_years: Annotated[
        float, Measure("years", 0, 40, "A warranty has {least} to {most} years: {value} is not.")
    ] = 0.0
    warranty_conditions: Annotated[str, Words("The conditions", 200)] = ""
    charge_a: Annotated[float | None, _some("A", 0.5, 5000, "A charge current")] = None
    discharge_a: Annotated[float | None, _some("A", 0.5, 20_000, "A discharge current")] = None
    max_series: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    max_parallel: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    bms: Annotated[str, Choice("The BMS", OWN_SWITCH, MONITOR, NO_SWITCH)] = OWN_SWITCH
    bms_continuous_a: Annotated[float | None, BMS_A] = None
    bms_peak_a: Annotated[float | None, BMS_A] = None
    bms_peak_s: Annotated[float | None, _some("s", 0, 3600, "The time of a peak")] = None
    bms_cut_v: Annotated[float | None, UNIT_VOLTS] = None
    bms_reconnect_v: Annotated[float | None, UNIT_VOLTS] = None
    bms_resets: Annotated[str, Choice("How it resets", BY_ITSELF, BY_CHARGER)] = BY_ITSELF
    bms_warns: Annotated[bool, Truth()] = False
    bms_stops_cold: Annotated[bool, Truth()] = True
    bms_balance_v: Annotated[float | None, UNIT_VOLTS] = None
    heater_w: Annotated[
        float | None,
        Measure("W", 0, 2000, "A heater has {least} to {most} W: {value} W is not likely.", optional=True),
    ] = None
    radio: Annotated[bool, Truth()] = False
    charge_min_c: Annotated[float | None, CELSIUS] = None
    charge_max_c: Annotated[float | None, CELSIUS] = None
    discharge_min_c: Annotated[float | None, CELSIUS] = None
    discharge_max_c: Annotated[float | None, CELSIUS] = None
    storage_min_c: Annotated[float | None, CELSIUS] = None
    storage_max_c: Annotated[float | None, CELSIUS] = None
    certifications: Annotated[str, Words("The certifications", 120)] = ""
    curve_published: Annotated[bool, Truth()] = False
    serviceable: Annotated[bool, Truth()] = False
    support_years: Annotated[
        float, Measure("years", 0, 40, "Between {least} and {most} years: {value} is not.")
    ] = 0.0
    used: Annotated[bool, Truth()] = False
    cycles_made: Annotated[float, COUNT] = 0.0
    age_years: Annotated[
        float, Measure("years", 0, 40, "Between {least} and {most} years: {value} is not.")
    ] = 0.0
    measured_ah: Annotated[float | None, _some("Ah", 0.1, 6000, "A measured capacity")] = None
    cell_spread_mv: Annotated[float | None, _some("mV", 0, 2000, "A spread of cells")] = None
    faults: Annotated[float, COUNT] = 0.0
    spare: Annotated[bool, Truth()] = False
    pack_ac_w: Annotated[float | None, _some("W", 50, 20_000, "The inverter of a pack")] = None
    pack_surge_w: Annotated[float | None, _some("W", 50, 60_000, "The surge of a pack")] = None
    pack_in_w: Annotated[float | None, _some("W", 1, 20_000, "The inputs of a pack")] = None
    note: Annotated[str, Words("The note", 200)] = ""

    @field_validator("unit_v")
    @classmethod
    def _volts(cls, value: float, info: ValidationInfo) -> float:
        return unit_volts(value, info)


def contradictions(part: ModelPart) -> Iterator[tuple[str, str]]:
    """What in an entry cannot be true together.

    Args:
        part: an entry whose fields are each acceptable.

    Yields:
        (field, sentence).
    """
    curve = [
        (part.cycles_at_dod, part.cycles, "cycles"),
        (part.cycles_at_2, part.cycles_2, "cycles_2"),
        (part.cycles_at_3, part.cycles_3, "cycles_3"),
    ]
    points = sorted((d, n, f) for d, n, f in curve if d is not None and n is not None)
    for (d_1, n_1, _), (d_2, n_2, name) in itertools.pairwise(points):
        if d_1 == d_2:
            yield name, f"There are two counts for a depth of {d_1:.0%}: take one of them out."
        elif n_2 >= n_1:
            yield (
                name,
                (
                    f"{n_2:g} cycles at {d_2:.0%} against {n_1:g} at {d_1:.0%}: a deeper cycle cannot "
                    f"wear less. "
                    "Look whether two figures were exchanged."
                ),
            )
    ratings = [(part.rated_hours, part.rated_ah, "rated_ah"), (part.hours_2, part.ah_2, "ah_2"),
               (part.hours_3, part.ah_3, "ah_3")]  # fmt: skip
    known = sorted((h, ah, f) for h, ah, f in ratings if h is not None and ah is not None)
    for (h_1, ah_1, _), (h_2, ah_2, name) in itertools.pairwise(known):
        if h_1 == h_2:
            yield name, f"There are two capacities for {h_1:g} h: take one of them out."
        elif ah_2 < ah_1:
            yield (
                name,
                f"{ah_2:g} Ah over {h_2:g} h are less than {ah_1:g} Ah over {h_1:g} h: slower gives more.",
            )
    if part.warranty_full_years > part.warranty_years:
        yield (
            "warranty_full_years",
            "The full years are part of the warranty, so they cannot be more than it has.",
        )
    if part.price_low is not None and part.price_low > part.price:
        yield "price_low", "The low price is above the price."
    if part.price_high is not None and part.price_high < part.price:
        yield "price_high", "The high price is below the price."
    if part.bms_peak_a is not None and part.bms_peak_a < (part.bms_continuous_a or 0):
        yield "bms_peak_a", "The peak is less than what it passes for ever."
    for name in ("charge", "discharge", "storage"):
        low, high = getattr(part, f"{name}_min_c"), getattr(part, f"{name}_max_c")
        if low is not None and high is not None and low >= high:
            yield f"{name}_max_c", f"The warmest, {high:g} °C, is not above the coldest, {low:g} °C."
        elif (low is None) != (high is None):
            yield f"{name}_{'max' if high is None else 'min'}_c", "Give both ends of the range, or neither."
    if part.measured_ah is not None and part.measured_ah > part.rated_ah * 1.3:
        yield (
            "measured_ah",
            f"{part.measured_ah:g} Ah measured are far above the label of {part.rated_ah:g} Ah.",
        )
