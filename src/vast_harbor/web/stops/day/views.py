"""Day, as the interface is given it."""

import numpy as np

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.day import SECOND_BANK, Day, LoadFigures
from vast_harbor.core.stops.need import standby_days
from vast_harbor.core.weather.sun import POLAR_DAY
from vast_harbor.phrases import phrase
from vast_harbor.telling.loads import load_text
from vast_harbor.telling.times import charge_text
from vast_harbor.web.base.views import figure_view, shown
from vast_harbor.web.stops.day.models import DayTypeView, DayView, HabitView, LoadView


def _load(f: LoadFigures, day: Day, style: Style) -> LoadView:
    at = f"day.{f.type.id}.load.{f.load.id}"
    share = f.part_of(day.listed_wh.number)
    return LoadView(
        id=f.load.id,
        wh=shown(f"{at}.wh", f.load_wh, "Wh", style),
        bank_wh=shown(f"{at}.bank_wh", f.from_bank_wh, "Wh", style),
        share=shown(f"{at}.share", share, "%", style),
        blocks=[(round(a, 4), round(b, 4)) for a, b in f.blocks],
        runs=f.load.runs_on(f.type),
        own=f.load.on.get(f.type.id) is not None,
        says=load_text(f.load, style),
        duty=style.text(f.load.duty, "%") if f.load.duty_at else "",
        measured=f.load.measured_wh is not None,
    )


def _type(results: Results, key: str, index: int, style: Style) -> DayTypeView:
    days = results.days
    day, label_requirement = days.days[key], days.label_requirement[key]
    at = "need" if key == days.governing else f"need.on.{key}"
    return DayTypeView(
        id=key,
        index=index,
        total=figure_view(day.bank_wh, style),
        governs=key == days.governing,
        carried=day.type.carried,
        need=shown(f"{at}.energy", label_requirement.energy_wh, "Wh", style),
        labels=[
            shown(f"{at}.{k}.nameplate_ah", ah, "Ah", style) for k, ah in label_requirement.label_ah.items()
        ],
    )


def _sun_text(day: Day) -> str:
    if day.sun is None:
        return ""
    if day.sun.rise_h is None or day.sun.set_h is None:
        return (
            phrase("answers.day_views.sun_set")
            if day.sun.kind == POLAR_DAY
            else phrase("answers.day_views.sun_rise")
        )
    return phrase(
        "answers.day_views.sun_standard_time",
        clock_text=clock_text(day.sun.rise_h),
        clock_text_2=clock_text(day.sun.set_h),
    )


def day_view(results: Results, style: Style, show: str) -> DayView:
    """One kind of day in figures, and all of them beside each other.

    Args:
        results: the plan in figures.
        style: the owner's units.
        show: id of the kind of day; the governing one when there is none of that id.

    Returns:
        What the Day stop shows.
    """
    days = results.days
    day = days.days.get(show, days.day)
    key = day.type.id
    names = {f.load.id: f.load.name for f in day.loads}
    if results.plan.second is not None:
        names[SECOND_BANK] = results.plan.second.name
    left = standby_days(results.plan, days)
    return DayView(
        type=key,
        index=list(days.days).index(key),
        types=[_type(results, k, i, style) for i, k in enumerate(days.days)],
        chosen=days.chosen,
        loads=[_load(f, day, style) for f in day.loads],
        idle=figure_view(day.idle_wh, style),
        standby=figure_view(day.standby_wh, style),
        standby_left=figure_view(left, style) if left else None,
        inverter_hours=figure_view(day.inverter_hours, style),
        total=figure_view(day.bank_wh, style),
        listed=figure_view(day.listed_wh, style),
        cautious=figure_view(day.cautious_wh, style),
        habits=[
            HabitView(key=k, figure=figure_view(day.habits[k], style))
            for k in ("careful", "usual", "careless")
        ],
        measured=figure_view(day.measured_wh, style) if day.measured_wh else None,
        mean_current=figure_view(day.mean_a, style),
        peak=figure_view(day.peak_w, style),
        peak_current=figure_view(day.peak_a, style),
        peak_loads=[names[i] for i in day.peak.ids],
        peak_at=phrase("answers.day_views.time") if day.peak_any_time else clock_text(day.peak.at_h),
        air=figure_view(day.air_c, style),
        battery=figure_view(day.battery_c, style),
        sun=_sun_text(day),
        night=[(round(a, 3), round(b, 3)) for a, b in day.sun.night] if day.sun else [],
        charge=charge_text(results, day),
        edges_h=[round(float(x), 4) for x in day.profile.edges_h],
        watts=np.round(day.profile.watts, 2).tolist(),
        ac_watts=np.round(day.ac_watts, 2).tolist(),
        kwh=np.round(day.profile.energy_so_far() / 1000, 4).tolist(),
    )
