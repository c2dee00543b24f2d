"""The rig document: a battery that the owner entered, with all that its datasheet says."""

import itertools
from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import Field, ValidationInfo, field_validator

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
from vast_harbor.phrases import phrase

# What people use as a house bank and should not, with the reason.
REFUSED = {
    "starting": phrase("files.model_part.starting_battery_suitable_house"),
    "cobalt": phrase("files.model_part.lithium_cobalt_nmc_nca"),
}


class HouseClass(Choice):
    """A class of house battery; what is none is refused with its reason."""

    def read(self, value: Any, info: ValidationInfo) -> str | None:
        if isinstance(value, str) and value in REFUSED:
            raise ValueError(REFUSED[value])
        return super().read(value, info)


def _some(unit: str, least: float, most: float, what: str) -> Measure:
    return Measure(unit, least, most, phrase("files.model_part.must_between", what=what), True)


def _share(what: str) -> Measure:
    return Measure("1", 0, 1, phrase("files.model_part.share_must_between", what=what), percent=True)


CYCLES = phrase("files.model_part.number_cycles_must_between")
DEPTH = phrase("files.model_part.depth_cycle_count_must")
CASE = Measure(
    "mm", LEAST_CASE_MM, LARGEST_CASE_MM,
    phrase("files.model_part.battery_measures_between_mm"), True,
)  # fmt: skip
BMS_A = Measure(
    "A", 1, 5000,
    phrase("files.model_part.limit_bms_must_between"), True,
)  # fmt: skip
CELSIUS = _some("°C", -60, 100, phrase("files.model_part.temperature"))
UNIT_VOLTS = _some("V", 0.5, 70, phrase("files.model_part.voltage"))
COUNT = Measure("times", 0, 50_000, phrase("files.model_part.number_must_between"))


class ModelPart(Part):
    """A battery that the owner entered: its label, its datasheet, its price and its past.

    ``typical`` names the fields that no label or offer said: they hold what is typical of the class.
    """

    id: Annotated[str, IDENTIFIER]
    maker: Annotated[str, Words(phrase("files.model_part.maker"), 60)] = ""
    name: Annotated[str, Words(phrase("files.model_part.name_battery"), 60, required=True)]
    battery_class: Annotated[str, HouseClass(phrase("terms.names.battery_class"), *CLASSES)] = "lfp"
    unit_v: Annotated[float, UNIT_V] = 12.8
    rated_ah: Annotated[float, UNIT_AH] = 100.0
    rated_hours: Annotated[
        float, Measure("h", 0.05, 240, phrase("files.model_part.discharge_time_must_between"))
    ] = 20.0
    ah_2: Annotated[float | None, _some("Ah", 0.5, 5000, phrase("files.model_part.capacity"))] = None
    hours_2: Annotated[float | None, _some("h", 0.05, 240, phrase("terms.names.discharge_time"))] = None
    ah_3: Annotated[float | None, _some("Ah", 0.5, 5000, phrase("files.model_part.capacity"))] = None
    hours_3: Annotated[float | None, _some("h", 0.05, 240, phrase("terms.names.discharge_time"))] = None
    reserve_minutes: Annotated[
        float | None, _some("min", 15, 1500, phrase("files.model_part.reserve_25"))
    ] = None
    cycles: Annotated[float, Measure("times", 1, 50_000, CYCLES)] = 3500.0
    cycles_at_dod: Annotated[float, Measure("1", 0.1, 1, DEPTH, percent=True)] = 0.8
    cycles_2: Annotated[float | None, Measure("times", 1, 50_000, CYCLES, True)] = None
    cycles_at_2: Annotated[float | None, Measure("1", 0.1, 1, DEPTH, True, percent=True)] = None
    cycles_3: Annotated[float | None, Measure("times", 1, 50_000, CYCLES, True)] = None
    cycles_at_3: Annotated[float | None, Measure("1", 0.1, 1, DEPTH, True, percent=True)] = None
    length_mm: Annotated[float | None, CASE] = None
    width_mm: Annotated[float | None, CASE] = None
    height_mm: Annotated[float | None, CASE] = None
    kg: Annotated[float, Measure("kg", 0.1, 500, phrase("files.model_part.weight_battery_must_between"))] = (
        11.0
    )
    orientation: Annotated[str, Choice(phrase("terms.names.position"), UPRIGHT, ON_SIDES, ANY)] = UPRIGHT
    terminals: Annotated[str, Choice(phrase("files.model_part.terminals"), "", *TERMINALS)] = ""
    terminal_side: Annotated[
        str, Choice(phrase("files.model_part.position_terminals"), "ends", "long_side", "one_end")
    ] = "ends"
    water: Annotated[bool | None, Truth(optional=True)] = None
    ingress: Annotated[str, Words(phrase("files.model_part.protection_class"), 10)] = ""
    price: Annotated[float, PRICE] = 0.0
    price_low: Annotated[float | None, PRICE_OR_NONE] = None
    price_high: Annotated[float | None, PRICE_OR_NONE] = None
    price_date: Annotated[str, Date(phrase("terms.names.date_price"))] = ""
    tax: Annotated[float, _share(phrase("files.model_part.tax"))] = 0.0
    delivery: Annotated[float, PRICE] = 0.0
    deposit: Annotated[float, PRICE] = 0.0
    discount: Annotated[float, _share(phrase("files.model_part.discount"))] = 0.0
    warranty_years: Annotated[
        float, Measure("years", 0, 40, phrase("files.model_part.warranty_lasts_years"))
    ] = 2.0
    warranty_full_years: Annotated[
        float, Measure("years", 0, 40, phrase("files.model_part.warranty_lasts_years"))
    ] = 0.0
    warranty_conditions: Annotated[str, Words(phrase("files.model_part.conditions"), 200)] = ""
    charge_a: Annotated[float | None, _some("A", 0.5, 5000, phrase("files.model_part.charge_current"))] = None
    discharge_a: Annotated[
        float | None, _some("A", 0.5, 20_000, phrase("files.model_part.discharge_current"))
    ] = None
    max_series: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    max_parallel: Annotated[int, Measure("times", 1, 32, STRINGS, whole=True)] = 4
    bms: Annotated[str, Choice(phrase("files.model_part.bms"), OWN_SWITCH, MONITOR, NO_SWITCH)] = OWN_SWITCH
    bms_continuous_a: Annotated[float | None, BMS_A] = None
    bms_peak_a: Annotated[float | None, BMS_A] = None
    bms_peak_s: Annotated[float | None, _some("s", 0, 3600, phrase("files.model_part.duration_peak"))] = None
    bms_cut_v: Annotated[float | None, UNIT_VOLTS] = None
    bms_reconnect_v: Annotated[float | None, UNIT_VOLTS] = None
    bms_resets: Annotated[str, Choice(phrase("files.model_part.way_reconnects"), BY_ITSELF, BY_CHARGER)] = (
        BY_ITSELF
    )
    bms_warns: Annotated[bool, Truth()] = False
    bms_stops_cold: Annotated[bool, Truth()] = False
    bms_balance_v: Annotated[float | None, UNIT_VOLTS] = None
    heater_w: Annotated[
        float | None,
        Measure("W", 0, 2000, phrase("files.model_part.power_heater_must_between"), optional=True),
    ] = None
    radio: Annotated[bool, Truth()] = False
    charge_min_c: Annotated[float | None, CELSIUS] = None
    charge_max_c: Annotated[float | None, CELSIUS] = None
    discharge_min_c: Annotated[float | None, CELSIUS] = None
    discharge_max_c: Annotated[float | None, CELSIUS] = None
    storage_min_c: Annotated[float | None, CELSIUS] = None
    storage_max_c: Annotated[float | None, CELSIUS] = None
    certifications: Annotated[str, Words(phrase("files.model_part.certifications"), 120)] = ""
    curve_published: Annotated[bool, Truth()] = False
    serviceable: Annotated[bool, Truth()] = False
    support_years: Annotated[float, Measure("years", 0, 40, phrase("files.model_part.enter_years"))] = 0.0
    used: Annotated[bool, Truth()] = False
    cycles_made: Annotated[float, COUNT] = 0.0
    age_years: Annotated[float, Measure("years", 0, 40, phrase("files.model_part.enter_years"))] = 0.0
    measured_ah: Annotated[
        float | None, _some("Ah", 0.1, 6000, phrase("files.model_part.measured_capacity"))
    ] = None
    cell_spread_mv: Annotated[
        float | None, _some("mV", 0, 2000, phrase("files.model_part.voltage_difference_between_cells"))
    ] = None
    faults: Annotated[float, COUNT] = 0.0
    spare: Annotated[bool, Truth()] = False
    pack_ac_w: Annotated[
        float | None, _some("W", 50, 20_000, phrase("files.model_part.inverter_power_pack"))
    ] = None
    pack_surge_w: Annotated[
        float | None, _some("W", 50, 60_000, phrase("files.model_part.surge_power_pack"))
    ] = None
    pack_in_w: Annotated[float | None, _some("W", 1, 20_000, phrase("files.model_part.input_power_pack"))] = (
        None
    )
    note: Annotated[str, Words(phrase("terms.names.note"), 200)] = ""
    typical: list[Annotated[str, IDENTIFIER]] = Field(default_factory=list, max_length=40)

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
    yield from _curve(part)
    yield from _ratings(part)
    yield from _temperatures(part)
    for name, wrong, says in (
        ("warranty_full_years", part.warranty_full_years > part.warranty_years,
         phrase("files.model_part.full_years_part_warranty")),
        ("price_low", part.price_low is not None and part.price_low > part.price,
         phrase("files.model_part.low_price_higher_price")),
        ("price_high", part.price_high is not None and part.price_high < part.price,
         phrase("files.model_part.high_price_lower_price")),
        ("bms_peak_a", part.bms_peak_a is not None and part.bms_peak_a < (part.bms_continuous_a or 0),
         phrase("files.model_part.peak_current_lower_continuous")),
    ):  # fmt: skip
        if wrong:
            yield name, says
    if part.measured_ah is not None and part.measured_ah > part.rated_ah * 1.3:
        measured, rated = f"{part.measured_ah:g}", f"{part.rated_ah:g}"
        says = phrase("files.model_part.measured_ah_far_rated", measured_ah=measured, rated_ah=rated)
        yield "measured_ah", says


def _curve(part: ModelPart) -> Iterator[tuple[str, str]]:
    """Cycles that do not fall with the depth."""
    for (d_1, n_1, _), (d_2, n_2, name) in _in_pairs(
        (part.cycles_at_dod, part.cycles, "cycles"),
        (part.cycles_at_2, part.cycles_2, "cycles_2"),
        (part.cycles_at_3, part.cycles_3, "cycles_3"),
    ):
        if d_1 == d_2:
            yield name, phrase("files.model_part.two_cycle_counts_depth", d_1=f"{d_1:.0%}")
        elif n_2 >= n_1:
            says = phrase(
                "files.model_part.cycles_deeper_cycles_cannot",
                n_1=f"{n_1:g}", d_1=f"{d_1:.0%}", n_2=f"{n_2:g}", d_2=f"{d_2:.0%}",
            )  # fmt: skip
            yield name, says


def _ratings(part: ModelPart) -> Iterator[tuple[str, str]]:
    """Amp-hours that do not grow with the hours."""
    for (h_1, ah_1, _), (h_2, ah_2, name) in _in_pairs(
        (part.rated_hours, part.rated_ah, "rated_ah"),
        (part.hours_2, part.ah_2, "ah_2"),
        (part.hours_3, part.ah_3, "ah_3"),
    ):
        if h_1 == h_2:
            yield name, phrase("files.model_part.two_capacities_h_remove", h_1=f"{h_1:g}")
        elif ah_2 < ah_1:
            says = phrase(
                "files.model_part.ah_over_h_less",
                h_1=f"{h_1:g}", ah_1=f"{ah_1:g}", h_2=f"{h_2:g}", ah_2=f"{ah_2:g}",
            )  # fmt: skip
            yield name, says


_Rated = tuple[float, float, str]


def _in_pairs(*rated: tuple[float | None, float | None, str]) -> Iterator[tuple[_Rated, _Rated]]:
    """Neighbours among those that are known, the least first."""
    return itertools.pairwise(sorted((x, y, f) for x, y, f in rated if x is not None and y is not None))


def _temperatures(part: ModelPart) -> Iterator[tuple[str, str]]:
    """Ranges without an end, or upside down."""
    for name in ("charge", "discharge", "storage"):
        low, high = getattr(part, f"{name}_min_c"), getattr(part, f"{name}_max_c")
        if low is not None and high is not None and low >= high:
            says = phrase("files.model_part.highest_temperature_c_above", high=f"{high:g}", low=f"{low:g}")
            yield f"{name}_max_c", says
        elif (low is None) != (high is None):
            missing = "max" if high is None else "min"
            yield f"{name}_{missing}_c", phrase("files.model_part.enter_both_ends_range")
