"""How much source is needed, the other way round."""

from collections.abc import Mapping
from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, typed
from vast_harbor.core.rig.generator_fuel import litres_per_hour
from vast_harbor.core.rig.months import months_of_use
from vast_harbor.core.rig.sources import (
    CHARGE_V,
    ENGINE,
    GENERATOR,
    MAINS,
    MPPT_EFFICIENCY,
    PITCHES,
    SOLAR,
    Source,
    generator_watts,
)
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.stops.banks import Build
from vast_harbor.core.weather.daily_weather import clear_share
from vast_harbor.core.weather.sun import POLAR_NIGHT, sun_day
from vast_harbor.phrases import phrase

MONTHS = (
    phrase("charging.sources_needed.january"),
    phrase("charging.sources_needed.february"),
    phrase("charging.sources_needed.march"),
    phrase("charging.sources_needed.april"),
    phrase("charging.sources_needed.may"),
    phrase("charging.sources_needed.june"),
    phrase("charging.sources_needed.july"),
    phrase("charging.sources_needed.august"),
    phrase("charging.sources_needed.september"),
    phrase("charging.sources_needed.october"),
    phrase("charging.sources_needed.november"),
    phrase("charging.sources_needed.december"),
)
# With less sun than this no array that fits a rig carries the day [kWh/kWp].
LEAST_SUN = 0.15
# Panels by house rule: W for each kWh of nameplate, lead-acid and LFP; the third goes by the charge current.
MOST_W_PER_KWH = {"long_life": (80.0, 150.0), "customary": (150.0, 400.0)}


@dataclass(frozen=True)
class Sun:
    """What the sun brings at the site.

    Attributes:
        monthly: kWh for each kWp of a mean day by month, January first, on the plane of the panels.
        own: whether they are the owner's.
        says: why there is none; empty where there is.
    """

    monthly: tuple[float, ...]
    own: bool
    says: str


def sun_of(timeline: Timeline, source: Source | None) -> Sun:
    """Mean daily kWh for each kWp by month; flat panels where none are entered."""
    plan = timeline.plan
    if plan.sun_hours:
        return Sun(plan.sun_hours, True, "")
    site = plan.site
    if site.latitude is None or site.longitude is None:
        return Sun((), False, phrase("charging.sources_needed.choose_region_enter_latitude"))
    over = timeline.sunshine_of(source or Source("flat", SOLAR))
    assert over is not None
    monthly = tuple(over.daily_kwh(m, clear_share(timeline.climate, m, site.south)) for m in range(1, 13))
    dark = [
        MONTHS[m - 1] for m in range(1, 13)
        if sun_day(site.latitude, site.longitude, site.utc_offset_h, (m - 1) * 30 + 15).kind == POLAR_NIGHT
    ]  # fmt: skip
    says = phrase("charging.sources_needed.sun_rise_panels_give", dark=", ".join(dark)) if dark else ""
    return Sun(monthly, False, says)


def design_month(timeline: Timeline, sun: Sun) -> int:
    """The month of use with the least sun, 1 to 12."""
    return min(months_of_use(timeline.plan), key=lambda m: sun.monthly[m - 1])


def too_dark(timeline: Timeline, sun: Sun) -> str:
    """What to say where the design month has too little sun for any array; empty where it has enough."""
    if not sun.monthly or sun.monthly[design_month(timeline, sun) - 1] >= LEAST_SUN:
        return ""
    month = MONTHS[design_month(timeline, sun) - 1]
    return phrase("charging.sources_needed.too_little_sun_number", month=month)


def needed(build: Build, timeline: Timeline, sun: Sun) -> Mapping[str, Figure]:
    """What each kind of source must give for one candidate.

    Args:
        build: the candidate in its rig.
        timeline: the rig's days.
        sun: what the sun brings.

    Returns:
        Figures by name: ``panel_w`` to carry the day, ``refill_w`` to refill the need as well in so many
        days, ``recover_days`` with the panels that are there, ``most_w`` that suit the bank, ``charger_a``
        for eight hours, ``generator_h`` and ``litres``, ``drive_h``. A figure without a value cannot be met.
    """
    plan, assume, at = build.plan, build.assumptions, f"charging.{build.candidate.id}.needed"
    day, need = build.days.day.bank_wh, build.need.energy
    key = build.bank.model.battery_class.key
    eta = assume.figure(f"energy_efficiency.{key}")
    out: dict[str, Figure] = {}
    if sun.monthly:
        month = design_month(timeline, sun)
        hours = Figure(
            "charging.design_sun",
            phrase("charging.sources_needed.design_sun", months=MONTHS[month - 1]),
            sun.monthly[month - 1],
            "kWh/kWp",
            REFERENCE,
            source=phrase("charging.sources_needed.design_sun_source")
            if sun.own
            else phrase("charging.sources_needed.design_sun_clear_sky_place_weather_source"),
        )
        dirt = assume.figure("panel_dirt")
        pitch = Figure(
            "charging.pitch",
            phrase("charging.sources_needed.place_where_park"),
            PITCHES[plan.pitch],
            "%",
            REFERENCE,
            source=phrase("charging.sources_needed.pitch_source"),
            path="/rig/pitch",
        )
        control = Figure(
            "charging.mppt",
            phrase("charging.sources_needed.mppt"),
            MPPT_EFFICIENCY,
            "%",
            REFERENCE,
            source=phrase("charging.sources_needed.mppt_source"),
        )
        days = assume.figure("reaches_full_in")
        gives = sun.monthly[month - 1] * dirt.number * pitch.number * control.number
        inputs = {"E_day": day, "h_sun": hours, "f_dirt": dirt, "f_pitch": pitch, "η_c": control, "η": eta}
        if sun.monthly[month - 1] >= LEAST_SUN:
            carry = day.number / eta.number / gives
            out["panel_w"] = computed(
                f"{at}.panel_w",
                phrase("charging.sources_needed.panel_w"),
                carry,
                "W",
                "{E_day} / {η} / ({h_sun} · {f_dirt} · {f_pitch} · {η_c})",
                inputs,
                phrase("charging.sources_needed.panel_w_source"),
            )
            refill = (day.number + need.number / days.number) / eta.number / gives
            out["refill_w"] = computed(
                f"{at}.refill_w", phrase("charging.sources_needed.refill_w"), refill, "W",
                "({E_day} + {E_need} / {d}) / {η} / ({h_sun} · {f_dirt} · {f_pitch} · {η_c})",
                inputs | {"E_need": need, "d": days},
                phrase("charging.sources_needed.refill_w_source"),
            )  # fmt: skip
            if (there := _panels(build)) is not None:
                out["recover_days"] = _recovers(at, day, need, there, inputs, gives)
        else:
            out["panel_w"] = computed(
                f"{at}.panel_w", phrase("charging.sources_needed.panel_w"), None, "W", "", {"h_sun": hours},
                phrase("charging.sources_needed.panel_w_there_too_little_sun_source"),
            )  # fmt: skip
    out |= _suits(build, at)
    volts = build.figures["volts"]
    eight = Figure(
        f"{at}.hours",
        phrase("charging.sources_needed.hours"),
        8.0,
        "h",
        REFERENCE,
        source=phrase("charging.sources_needed.hours_source"),
    )
    out["charger_a"] = computed(
        f"{at}.charger_a",
        phrase("charging.sources_needed.charger_a"),
        need.number / eta.number / volts.number / 8,
        "A",
        "{E_need} / {η} / {V} / {h}",
        {"E_need": need, "η": eta, "V": volts, "h": eight},
        phrase("charging.sources_needed.charger_a_source"),
    )
    out |= _bought(build, at, eta)
    return out


def _panels(build: Build) -> Figure | None:
    """Peak power of all panels that are there [W]; None without any."""
    watts = [s.watts for s in build.plan.sources if s.kind == SOLAR]
    return (
        typed("charging.panels", phrase("charging.sources_needed.panels"), sum(watts), "W", "/sources")
        if watts
        else None
    )


def _recovers(
    at: str, day: Figure, need: Figure, there: Figure, inputs: Mapping[str, Figure], gives: float
) -> Figure:
    """Days of mean sun in which the panels that are there bring back the need, beside the day's own use."""
    eta = inputs["η"]
    spare = there.number * gives - day.number / eta.number
    name = phrase("charging.sources_needed.days_sun_refill_need")
    if spare <= 0:
        return computed(f"{at}.recover_days", name, None, "days", "", {"W": there, **inputs},
                        phrase("charging.sources_needed.recover_days_source"))  # fmt: skip
    return computed(
        f"{at}.recover_days", name, need.number / eta.number / spare, "days",
        "{E_need} / {η} / ({W} · {h_sun} · {f_dirt} · {f_pitch} · {η_c} − {E_day} / {η})",
        {"W": there, "E_need": need, **inputs}, phrase("charging.sources_needed.recover_days_now_source"),
    )  # fmt: skip


def _suits(build: Build, at: str) -> dict[str, Figure]:
    rule = build.plan.house_rule
    if rule not in MOST_W_PER_KWH:
        most = Figure(
            f"{at}.charge_a", phrase("charging.sources_needed.charge_a"),
            build.bank.parallel * build.bank.model.charge_a, "A", REFERENCE, source=build.entry,
        )  # fmt: skip
        volts = Figure(
            f"{at}.charge_v",
            phrase("charging.sources_needed.charge_v"),
            CHARGE_V * build.plan.system_v / 12,
            "V",
            REFERENCE,
            source=phrase("charging.sources_needed.charge_v_source"),
        )
        control = Figure(
            "charging.mppt",
            phrase("charging.sources_needed.mppt"),
            MPPT_EFFICIENCY,
            "%",
            REFERENCE,
            source=phrase("charging.sources_needed.mppt_source"),
        )
        return {
            "most_w": computed(
                f"{at}.most_w", phrase("charging.sources_needed.most_w"),
                most.number * volts.number / control.number, "W", "{I} · {V} / {η_c}",
                {"I": most, "V": volts, "η_c": control}, phrase("charging.sources_needed.most_w_source"),
            )
        }  # fmt: skip
    each = MOST_W_PER_KWH[rule][0 if build.lead else 1]
    per = Figure(
        f"{at}.per_kwh",
        phrase("charging.sources_needed.per_kwh"),
        each,
        "W/kWh",
        REFERENCE,
        source=phrase("terms.names.house_rule"),
    )
    label = build.figures["nameplate_wh"]
    return {
        "most_w": computed(
            f"{at}.most_w",
            phrase("charging.sources_needed.most_w"),
            each * label.number / 1000,
            "W",
            "{w} · {E_label} / 1000",
            {"w": per, "E_label": label},
            phrase("charging.sources_needed.most_w_house_rule_large_array_source"),
        )
    }


def _bought(build: Build, at: str, eta: Figure) -> dict[str, Figure]:
    plan, need, out = build.plan, build.need.energy, {}
    generator = next((s for s in plan.sources if s.kind == GENERATOR), None)
    chargers = [s for s in plan.sources if s.kind == MAINS]
    if generator is not None and chargers:
        amps = sum(s.amps or 0 for s in chargers)
        watts = min(generator_watts(generator), amps * build.figures["volts"].number * 1.05)
        gives = Figure(
            f"{at}.generator_w",
            phrase("charging.sources_needed.generator_w"),
            watts,
            "W",
            REFERENCE,
            source=phrase("charging.sources_needed.generator_w_source"),
        )
        if watts > 0:
            out["generator_h"] = computed(
                f"{at}.generator_h",
                phrase("charging.sources_needed.generator_h"),
                need.number / eta.number / watts,
                "h",
                "{E_need} / {η} / {P}",
                {"E_need": need, "η": eta, "P": gives},
            )
            burns = litres_per_hour(generator, build.assumptions)
            out["litres"] = computed(
                f"{at}.litres",
                phrase("charging.sources_needed.litres"),
                out["generator_h"].number * burns.number,
                "l fuel",
                "{h} · {b}",
                {"h": out["generator_h"], "b": burns},
            )
    engine = next((s for s in plan.sources if s.kind == ENGINE), None)
    if engine is not None and not (engine.is_relay and engine.smart):
        amps = engine.most_a(plan.system_v)
        if amps > 0:
            amp = Figure(
                f"{at}.engine_a",
                phrase("charging.sources_needed.engine_a"),
                amps,
                "A",
                REFERENCE,
                source=phrase("charging.sources_needed.engine_a_source"),
            )
            out["drive_h"] = computed(
                f"{at}.drive_h",
                phrase("charging.sources_needed.drive_h"),
                need.number / eta.number / build.figures["volts"].number / amps,
                "h",
                "{E_need} / {η} / {V} / {I}",
                {"E_need": need, "η": eta, "V": build.figures["volts"], "I": amp},
                phrase("charging.sources_needed.drive_h_source") if build.lead else "",
            )
    return out
