"""The factors between label and usable energy, as figures with their workings."""

from dataclasses import replace

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.temperature import temperature_factor
from vast_harbor.core.figures.interpolation import bracket
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, typed
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.day_types import LAID_UP, TRAVELLING, DayType
from vast_harbor.core.rig.plan import CABIN, Plan
from vast_harbor.core.rig.profile import mean_current as energy_weighted
from vast_harbor.core.rig.sources import SOLAR, STREAM
from vast_harbor.core.weather.climate import ENGINE, INSIDE, LIVING, Warmth, warmer, warmth_at
from vast_harbor.core.weather.sun import SEASONS
from vast_harbor.phrases import phrase

PEUKERT = phrase("terms.names.peukert_1897")
# Outside air where no climate is known [°C].
UNKNOWN_AIR_C = 15.0
# Sources that charge while nobody is there.
BY_THEMSELVES = (SOLAR, STREAM)
# With so many nights a year somebody always is there.
FULL_TIME_NIGHTS = 350


def air_temperature(plan: Plan, day_type: DayType) -> Figure:
    """Temperature of the outside air on a kind of day [°C]: as stated, else of climate and season."""
    at = f"day.{day_type.id}.air_c"
    if day_type.air_c is not None:
        return typed(
            at, phrase("rig.derating.outside_air"), day_type.air_c, "°C", f"{plan.type_path(day_type)}/air_c"
        )
    climate = plan.site.climate
    if climate is None:
        return Figure(
            at,
            phrase("rig.derating.outside_air"),
            UNKNOWN_AIR_C,
            "°C",
            REFERENCE,
            source=phrase("rig.derating.climate_chosen_rig_page"),
        )
    return Figure(
        at,
        phrase("rig.derating.outside_air_season", season=day_type.season),
        climate.season_c(day_type.season),
        "°C",
        REFERENCE,
        source=phrase("rig.derating.monthly_mean_climate", name=climate.name),
        note=phrase("rig.derating.know_temperature_day_enter"),
    )


def cold_cabin(plan: Plan, assumptions: Assumptions) -> bool:
    """Whether nobody stated how warm a cabin is: it is cold until its stove has warmed it, and over night."""
    return plan.kind == CABIN and not assumptions.overridden("room_c")


def living_c(plan: Plan, assumptions: Assumptions, air_c: Warmth) -> Warmth:
    """Temperature of the living space while somebody is there [°C]; in a cabin midway to the air."""
    room = assumptions.value("room_c")
    return warmer(air_c, (air_c + room) / 2) if cold_cabin(plan, assumptions) else 0 * air_c + room


def _by_place(
    at: str, name: str, plan: Plan, assumptions: Assumptions, air: Figure, heated: bool, running: bool
) -> Figure:
    room = assumptions.figure("room_c")
    if heated and cold_cabin(plan, assumptions):
        room = computed(
            f"{at}.room_c", phrase("rig.derating.room_c"),
            living_c(plan, assumptions, air.number), "°C",
            "max({T_air}, ({T_air} + {T_room}) / 2)", {"T_air": air, "T_room": room},
            phrase("rig.derating.room_c_source"),
        )  # fmt: skip
    value = warmth_at(plan.place, air.number, room.number, heated, running)
    inputs = {"T_air": air, "T_room": room}
    inside = "max({T_room}, {T_air})" if heated else "{T_air}"
    if plan.place == LIVING:
        formula = inside
    elif plan.place == INSIDE:
        formula = f"({{T_air}} + {inside}) / 2"
    else:
        formula = "{T_air} + 15" if plan.place == ENGINE and running else "{T_air}"
    used = {k: v for k, v in inputs.items() if f"{{{k}}}" in formula}
    return computed(
        at, name, value, "°C", formula, used, phrase("rig.derating.where_battery_installed"),
        phrase("rig.derating.living_space_room_temperature"),
    )  # fmt: skip


def battery_temperature(plan: Plan, assumptions: Assumptions, day_type: DayType) -> Figure:
    """The temperature of the battery on a kind of day [°C]: as stated, else by its place and the season."""
    note = phrase("rig.derating.temperature_battery_air")
    name = phrase("rig.derating.battery_temperature_use")
    if day_type.battery_c is not None:
        path = f"{plan.type_path(day_type)}/battery_c"
        return typed(f"day.{day_type.id}.battery_c", name, day_type.battery_c, "°C", path, note)
    if plan.battery_c is not None and day_type.kind != LAID_UP:
        return typed("rig.battery_c", name, plan.battery_c, "°C", "/rig/battery_c", note)
    air = air_temperature(plan, day_type)
    return _by_place(
        f"day.{day_type.id}.battery_c", name, plan, assumptions, air,
        day_type.kind != LAID_UP, day_type.kind == TRAVELLING,
    )  # fmt: skip


def season_temperatures(plan: Plan, assumptions: Assumptions) -> dict[str, Figure]:
    """The temperature of the battery by its place in each season, somebody being there [°C]."""
    by_place = replace(plan, battery_c=None)
    return {
        season: battery_temperature(by_place, assumptions, DayType(f"in-{season}", season, season=season))
        for season in SEASONS
    }


def rest_temperature(plan: Plan, assumptions: Assumptions) -> Figure:
    """The temperature of the battery the rest of the year [°C]: as stated, else by its place, unheated."""
    name = phrase("rig.derating.battery_temperature_outside_season")
    if plan.rest_c is not None:
        return typed("rig.rest_c", name, plan.rest_c, "°C", "/rig/rest_c")
    climate = plan.site.climate
    others = [m for m in range(1, 13) if m not in plan.months] if plan.months else []
    mean = 12.0 if climate is None else climate.months_c(others, plan.site.south)
    air = Figure(
        "rig.rest_air_c",
        phrase("rig.derating.rest_air_c"),
        mean,
        "°C",
        REFERENCE,
        source=phrase("rig.derating.rest_air_c_source", name=climate.name)
        if climate
        else phrase("rig.derating.rest_air_c_no_climate_chosen_source"),
    )
    return _by_place("rig.rest_c", name, plan, assumptions, air, False, False)


def left_temperature(plan: Plan, assumptions: Assumptions) -> Figure | None:
    """The coldest that the battery gets while nobody is there and something charges it by itself [°C].

    The mean of the coldest month by its place, unheated; for the months without use what is stated for them.

    Returns:
        None where somebody always is there, where nothing charges by itself, where the sources are switched
        off, or where neither climate nor temperature is known.
    """
    alone = any(s.kind in BY_THEMSELVES and s.charges for s in plan.sources)
    always = plan.off_grid_nights + plan.hook_up_nights >= FULL_TIME_NIGHTS
    if always or not alone or assumptions.value("sources_off") >= 1:
        return None
    rest, climate = rest_temperature(plan, assumptions), plan.site.climate
    stated = plan.rest_c is not None
    if climate is None:
        return rest if stated else None
    south = plan.site.south
    months = plan.months if stated and plan.months else range(1, 13)
    air = Figure(
        "rig.left_air_c",
        phrase("rig.derating.left_air_c"),
        min(climate.month_c(month, south) for month in months),
        "°C",
        REFERENCE,
        source=phrase("rig.derating.monthly_mean_climate", name=climate.name),
    )
    name = phrase("rig.derating.left_c")
    left = _by_place("rig.left_c", name, plan, assumptions, air, False, False)
    return min(left, rest, key=lambda f: f.number) if stated else left


def temperature(at: str, warmth: Figure, assumptions: Assumptions, battery_class: BatteryClass) -> Figure:
    """k_T of a class at a temperature of the battery, or the owner's override.

    Args:
        at: prefix of its key.
        warmth: temperature of the battery [°C].
        assumptions: for an override.
        battery_class: one of the five classes.

    Returns:
        k_T [-], interpolated in the table of the class.
    """
    key = f"temperature_factor.{battery_class.key}"
    shown = assumptions.figure(key)
    if shown.value is not None:
        return shown
    (t_1, k_1), (t_2, k_2) = bracket(battery_class.temperature_factor, warmth.number)
    at = f"{at}.k_T"
    value = temperature_factor(battery_class, warmth.number)

    def point(which: str, value: float, unit: str, name: str) -> Figure:
        return Figure(f"{at}.{which}", name, value, unit, REFERENCE, source=shown.source)

    if t_1 == t_2:
        inputs = {"k_end": point("k1", k_1, "%", phrase("rig.derating.table_value_c", t_1=f"{t_1:g}"))}
        formula = "{k_end}"
    else:
        inputs = {
            "k_1": point("k1", k_1, "%", phrase("rig.derating.table_value_c", t_1=f"{t_1:g}")),
            "k_2": point("k2", k_2, "%", phrase("rig.derating.table_value_t_2", t_2=f"{t_2:g}")),
            "T": warmth,
            "T_1": point("t1", t_1, "°C", phrase("rig.derating.lower_point_table")),
            "T_2": point("t2", t_2, "°C", phrase("rig.derating.upper_point_table")),
        }
        formula = "{k_1} + ({k_2} − {k_1}) · ({T} − {T_1}) / ({T_2} − {T_1})"
    return Figure(
        at, shown.name, value, "%", formula=formula, inputs=inputs, source=shown.source, note=shown.note,
        assumption=key,
    )  # fmt: skip


def mean_current(at: str, profile_wh: Figure, squared: Figure, volts: Figure) -> Figure:
    """I_mean = Σ(P²·t) / (Σ(P·t) · V), as a figure.

    Args:
        at: key prefix.
        profile_wh: Σ(P·t) [Wh].
        squared: Σ(P²·t) [W²h].
        volts: nominal volts [V].

    Returns:
        Energy-weighted mean current [A].
    """
    has = profile_wh.number > 0
    value = energy_weighted(squared.number, profile_wh.number, volts.number)
    return computed(
        f"{at}.I_mean",
        phrase("rig.derating.mean_current_weighted_energy"),
        value,
        "A",
        "{P²t} / ({Pt} · {V})" if has else "0",
        {"P²t": squared, "Pt": profile_wh, "V": volts},
        phrase("rig.derating.current_averaged_over_energy"),
        phrase("rig.derating.loads_without_set_times"),
    )
