"""Day and Need, as the interface is given them."""

from functools import lru_cache

import numpy as np

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import clock_text
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.assumptions import Assumption, Assumptions
from vast_harbor.core.stops.day import SECOND_BANK, Day, LoadFigures, charge_window
from vast_harbor.core.stops.need import Runtime, label_requirement, standby_days
from vast_harbor.core.weather.sun import POLAR_DAY
from vast_harbor.data import reference
from vast_harbor.web.plan.models import (
    AssumptionView,
    ClassNeedView,
    DayTypeView,
    DayView,
    HabitView,
    LoadView,
    NeedView,
    RuleNeedView,
    RuntimeView,
    SecondView,
    StepView,
)
from vast_harbor.web.views import FigureView, SchoolView, field_number, figure_view, range_text, text_of


def _shown(key: str, value: float | None, unit: str, style: Style) -> FigureView:
    """A figure whose workings are built only when somebody opens them."""
    return FigureView(key=key, text=text_of(key, value, unit, style), value=value, was=None)


def _load(f: LoadFigures, style: Style) -> LoadView:
    at = f"day.{f.type.id}.load.{f.load.id}"
    share = f.from_bank_wh / f.total.number if f.total.number > 0 else None
    return LoadView(
        id=f.load.id,
        wh=_shown(f"{at}.wh", f.load_wh, "Wh", style),
        bank_wh=_shown(f"{at}.bank_wh", f.from_bank_wh, "Wh", style),
        share=_shown(f"{at}.share", share, "%", style),
        blocks=[(round(a, 4), round(b, 4)) for a, b in f.blocks],
        runs=f.load.runs_on(f.type),
        own=f.load.on.get(f.type.id) is not None,
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
        need=_shown(f"{at}.energy", label_requirement.energy_wh, "Wh", style),
        labels=[
            _shown(f"{at}.{k}.nameplate_ah", ah, "Ah", style) for k, ah in label_requirement.label_ah.items()
        ],
    )


def _sun_text(day: Day) -> str:
    if day.sun is None:
        return ""
    if day.sun.rise_h is None or day.sun.set_h is None:
        return "the sun does not set" if day.sun.kind == POLAR_DAY else "the sun does not rise"
    return f"sun {clock_text(day.sun.rise_h)} to {clock_text(day.sun.set_h)}, standard time"


def _charge_text(results: Results, day: Day) -> str:
    window = charge_window(results.plan, day)
    if window is None:
        return "never: the sun does not rise"
    return f"{clock_text(window[0].number)} to {clock_text(window[1].number)}"


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
        loads=[_load(f, style) for f in day.loads],
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
        peak_at=clock_text(day.peak.at_h),
        air=figure_view(day.air_c, style),
        battery=figure_view(day.battery_c, style),
        sun=_sun_text(day),
        night=[(round(a, 3), round(b, 3)) for a, b in day.sun.night] if day.sun else [],
        charge=_charge_text(results, day),
        edges_h=[round(float(x), 4) for x in day.profile.edges_h],
        watts=np.round(day.profile.watts, 2).tolist(),
        ac_watts=np.round(day.ac_watts, 2).tolist(),
        kwh=np.round(day.profile.energy_so_far() / 1000, 4).tolist(),
    )


def _steps(steps: tuple[Figure, ...], style: Style) -> list[StepView]:
    before = [None, *steps[:-1]]
    return [
        StepView(
            name=step.name,
            figure=figure_view(step, style),
            added="" if last is None else style.text(step.number - last.number, "±Wh"),
        )
        for last, step in zip(before, steps, strict=True)
    ]


def _rules(results: Results, style: Style) -> list[RuleNeedView]:
    """What each house rule alone would make of the governing day."""
    found = []
    for key in reference().rules:
        asked = label_requirement(results.plan, reference(), reference().assumptions(key, {}), results.day)
        found.append(
            RuleNeedView(
                key=key,
                need=style.text(asked.energy_wh, "Wh"),
                labels=[style.text(ah, "Ah") for ah in asked.label_ah.values()],
            )
        )
    return found


def _second(results: Results, style: Style) -> SecondView | None:
    second = results.second
    if second is None:
        return None
    return SecondView(
        day=figure_view(second.day_wh, style),
        energy=figure_view(second.energy, style),
        from_main=figure_view(second.from_main, style),
        labels=[figure_view(f, style) for f in second.nameplate_ah.values()],
    )


def _runtime(runtime: Runtime, style: Style) -> RuntimeView:
    at = f"runtime.{runtime.id}"
    old = runtime.on_old_h
    return RuntimeView(
        id=runtime.id,
        name=runtime.name,
        on_kwh=_shown(f"{at}.on_kwh", runtime.on_kwh_h, "duration", style),
        on_old=None if old is None else _shown(f"{at}.on_old", old, "duration", style),
    )


def need_view(results: Results, style: Style) -> NeedView:
    """The need of the governing day for every chemistry.

    Args:
        results: the plan in figures.
        style: the owner's units.

    Returns:
        What the Need stop shows.
    """
    need, year = results.need, results.simulated.needs
    classes = [
        ClassNeedView(
            battery_class=key,
            dod=figure_view(c.dod, style),
            temperature=figure_view(c.temperature, style),
            rate=figure_view(c.rate, style),
            ageing=figure_view(c.ageing, style),
            nameplate_wh=figure_view(c.nameplate_wh, style),
            nameplate_ah=figure_view(c.nameplate_ah, style),
            classical_ah=figure_view(c.classical_ah, style) if c.classical_ah else None,
            year_wh=figure_view(year[key], style) if key in year else None,
            peak_current=figure_view(c.peak_current, style),
            steps=_steps(c.steps, style),
        )
        for key, c in need.classes.items()
    ]
    return NeedView(
        day_name=need.day.type.name,
        day=figure_view(need.day.bank_wh, style),
        energy=figure_view(need.energy, style),
        nights=figure_view(need.nights, style),
        reserve=figure_view(need.reserve, style),
        ageing=figure_view(need.ageing, style),
        overnight=figure_view(need.overnight, style),
        overnight_text=_charge_text(results, need.day),
        classes=classes,
        rules=_rules(results, style),
        second=_second(results, style),
        runtimes=[_runtime(r, style) for r in results.runtimes],
    )


def assumptions_view(results: Results, style: Style) -> list[AssumptionView]:
    """Every assumption that may be overridden."""
    governing = results.days.label_requirement[results.days.governing]
    computed = ((f"temperature_factor.{k}", c.temperature) for k, c in governing.classes.items())
    return assumption_list(results.assumptions, tuple(computed), style)


# The list is long and changes only with the rule, the overrides and the temperature.
@lru_cache(maxsize=16)
def assumption_list(
    assumptions: Assumptions, computed: tuple[tuple[str, float | None], ...], style: Style
) -> list[AssumptionView]:
    return [_assumption(a, dict(computed), style) for a in assumptions]


def _assumption(a: Assumption, computed: dict[str, float | None], style: Style) -> AssumptionView:
    unit = a.entry.unit
    value = computed.get(a.key) if a.value is None else a.value
    default = value if a.default is None and not a.overridden else a.default
    return AssumptionView(
        key=a.key,
        name=a.name,
        symbol=a.symbol,
        group=a.entry.group,
        text=style.text(value, unit),
        value=value,
        field="" if value is None else field_number(value, unit, style),
        default=style.text(default, unit),
        range=range_text(a.low, a.high, unit, style),
        schools=[SchoolView(name=n, text=style.text(v, unit)) for n, v in a.schools.items()],
        overridden=a.overridden,
        source=a.entry.source,
        note=a.entry.note,
    )
