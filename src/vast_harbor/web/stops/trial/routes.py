"""Trial: the stretch run, its flows, how long a bank lasts, the year, the laid-up months, and the odds."""

import json
from collections.abc import Iterator

from flask import Response
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.core.figures.units import to_display
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.schedule.day_pattern import in_a_row
from vast_harbor.core.simulation import parameters
from vast_harbor.core.stops.charging import MONTHS
from vast_harbor.core.stops.trial import (
    OLD,
    STRETCHES,
    SimulationResult,
    Trial,
    odds,
    outcomes,
    storage,
    time_to_empty,
)
from vast_harbor.core.weather.daily_weather import NAMES, STEPS_A_DAY
from vast_harbor.core.weather.insolation import MONTH_DAYS
from vast_harbor.core.weather.sun import sun_day
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import EVENTS, STREAM, WORKED_OUT, Blueprint
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.streams import Listener, PageQuery, Slots
from vast_harbor.web.base.views import ProblemsView, figure_view, tokens, view_of
from vast_harbor.web.state.evaluated import evaluated_results
from vast_harbor.web.stops.trial.models import (
    BankOddsView,
    BankRunView,
    BankYearView,
    EventView,
    FlowsView,
    FlowView,
    HowLongView,
    LaidUpRowView,
    LaidUpView,
    RunDownView,
    SpanView,
    StateView,
    StretchView,
    TrialDayView,
    TrialRunView,
    YearView,
)

api = Blueprint(
    "trial", __name__, url_prefix="/api", abp_tags=[Tag(name="trial")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

STATES = {
    parameters.INVERTER_OFF: phrase("answers.trial_routes.inverter_off"),
    parameters.LOADS_OFF: phrase("answers.trial_routes.loads_disconnected"),
    parameters.BMS_OPEN: phrase("answers.trial_routes.bms_shut_down"),
    parameters.EMPTY: "empty",
    parameters.HEATING: phrase("answers.trial_routes.heater"),
    parameters.TOO_COLD: phrase("answers.trial_routes.too_cold_too_warm"),
    parameters.RESTING: phrase("answers.trial_routes.charger_resting"),
    parameters.GENERATING: phrase("answers.trial_routes.generator_running"),
    parameters.FULL: "full",
    parameters.OVERLOAD: "overload",
    parameters.ASLEEP: "asleep",
    parameters.SAGGED: phrase("answers.trial_routes.low_voltage"),
}
PITCH_NAMES = {
    "open": "open",
    "half": phrase("answers.trial_routes.half_shade"),
    "trees": phrase("answers.trial_routes.under_trees"),
}
KIND_NAMES = {
    "off_grid": "off-grid",
    "travelling": phrase("answers.trial_routes.off_grid_driving"),
    "hook_up": phrase("answers.trial_routes.hook_up"),
    "laid_up": phrase("answers.trial_routes.laid_up"),
}
MOST_WEATHERS = 400


class BankQuery(BaseModel):
    """Which bank."""

    bank: str = Field(max_length=60, description="Id of a candidate, or old")


class OddsQuery(PageQuery):
    """How many weathers."""

    weathers: int = Field(default=100, ge=20, le=MOST_WEATHERS)


@api.get("/rigs/<int:rig_id>/trial", lane=WORKED_OUT, responses={200: TrialRunView})
def trial(path: RigPath) -> Response:
    """The stretch that the plan tries, every bank through it."""
    rig, plan, results = evaluated_results(path.rig_id)
    style, run = rig.style, results.simulated.trial
    prepared = run.prepared
    floors = {c.candidate.id: 1 - c["dod"].number for c in results.banks.candidates if c.bank is not None}

    def warm(values: object) -> list[float]:
        return [round(to_display(float(v), "°C", style.system)[0], 1) for v in values]  # type: ignore[attr-defined]

    return json_response(
        TrialRunView(
            stretch=prepared.stretch.key,
            says=prepared.stretch.says,
            month=prepared.month,
            seed=prepared.seed,
            nights=in_a_row(plan),
            days=[
                TrialDayView(
                    name=phrase("answers.trial_routes.day", d=d + 1),
                    weather=NAMES[int(prepared.weather.kinds[0, d])],
                    kind=KIND_NAMES["hook_up" if s.hook_up else s.kind],
                    drives=s.drives,
                    pitch=PITCH_NAMES[s.pitch],
                    air=style.text(float(prepared.weather.mean_c[0, d]), "°C"),
                )
                for d, s in enumerate(prepared.specs)
            ],
            step_h=prepared.conditions.step_h,
            air=warm(prepared.weather.air_c[0]),
            battery=warm(prepared.conditions.battery_c[0]),
            night=[
                SpanView(begins=a, ends=b) for a, b in _night(results, prepared.month, len(prepared.specs))
            ],
            banks=[_simulated(r, floors, style) for r in results.trial_runs],
            drawn=_drawn(results),
            outcomes=[tokens(s, style) for s in outcomes(results.trial_runs, len(prepared.specs))],
            stretches=[view_of(StretchView, s, style) for s in STRETCHES.values()],
            months=list(MONTHS),
        )
    )


def _drawn(results: Results) -> list[str]:
    """Banks that are drawn until others are picked: the verdict's, and one that goes otherwise."""
    winner, runs = results.verdict.winner, [r for r in results.trial_runs if r.simulated.id != OLD]
    chosen = next((r for r in runs if winner is not None and r.simulated.id == winner.id), None)
    first = chosen or next(iter(runs), None)
    if first is None:
        return [r.simulated.id for r in results.trial_runs]
    lead = first.simulated.battery_class.is_lead_acid
    rest = [r for r in runs if r is not first]
    # Another outcome tells most; else another kind of battery.
    second = next((r for r in rest if r.dark != first.dark), None) or next(
        (r for r in rest if r.simulated.battery_class.is_lead_acid != lead), None
    )
    return [r.simulated.id for r in (second, first) if r is not None]


def _night(results: Results, month: int, days: int) -> list[tuple[float, float]]:
    """Darkness from the start of the stretch; from nine to seven where no site is known."""
    site = results.plan.site
    rise, fall = 7.0, 21.0
    if site.latitude is not None and site.longitude is not None:
        sun = sun_day(site.latitude, site.longitude, site.utc_offset_h, MONTH_DAYS[month - 1])
        if sun.rise_h is None or sun.set_h is None:
            return [(0.0, days * 24.0)] if sun.night else []
        rise, fall = sun.rise_h, sun.set_h
        if rise > fall:
            return [(d * 24 + fall, d * 24 + rise) for d in range(days)]
    spans = [(0.0, rise)]
    spans += [(d * 24 + fall, (d + 1) * 24 + rise) for d in range(days - 1)]
    return [*spans, ((days - 1) * 24 + fall, days * 24.0)]


def _simulated(result: SimulationResult, floors: dict[str, float], style: Style) -> BankRunView:
    traces = result.traces
    return BankRunView(
        id=result.simulated.id,
        title=result.title,
        battery_class=result.simulated.battery_class.key,
        code=result.simulated.battery_class.code,
        floor=round(floors.get(result.simulated.id, 0.5), 4),
        soc=[round(float(v), 3) for v in traces.soc[0]],
        volts=[round(float(v), 2) for v in traces.volts[0]],
        amps=[round(float(v), 1) for v in traces.amps[0]],
        events=[view_of(EventView, e, style, at=style.text(e.step * 0.25, "moment")) for e in result.events],
        figures={k: figure_view(f, style) for k, f in result.figures.items()},
    )


@api.get("/rigs/<int:rig_id>/trial/flows", lane=WORKED_OUT, responses={200: FlowsView})
def flows(path: RigPath, query: BankQuery) -> Response:
    """All flows of power of one bank at every step."""
    _, _, results = evaluated_results(path.rig_id)
    run = results.simulated.trial
    result = results.trial_run(query.bank)
    if result is None:
        return problems(404, Problem("", phrase("answers.trial_routes.bank_longer_part_trial")))
    traces, conditions = result.traces, run.prepared.conditions

    def whole(values: object) -> list[float]:
        return [float(round(float(v))) for v in values]  # type: ignore[attr-defined]

    served_ac = conditions.ac_w[0] - traces.unserved_ac[0] / conditions.step_h
    served_dc = conditions.dc_w[0] - traces.unserved_dc[0] / conditions.step_h
    out = [
        FlowView(key="dc", name=phrase("answers.trial_routes.dc_loads"), kind="load", watts=whole(served_dc)),
        FlowView(
            key="ac",
            name=phrase("answers.trial_routes.ac_loads_inverter"),
            kind="load",
            watts=whole(served_ac),
        ),
    ]
    if result.simulated.heater_w > 0:
        out.append(
            FlowView(
                key="heater",
                name=phrase("terms.names.built_heater"),
                kind="heater",
                watts=whole(traces.heater_w[0]),
            )
        )
    steps = conditions.steps
    return json_response(
        FlowsView(
            id=result.simulated.id,
            into=[
                FlowView(key=s.id, name=name_of(s), kind=s.kind, watts=whole(traces.used_w[i, 0]))
                for i, s in enumerate(result.sources)
            ],
            out=out,
            unserved=whole((traces.unserved_dc + traces.unserved_ac)[0] / conditions.step_h),
            bank=whole(traces.bank_w[0]),
            state=[int(v) for v in traces.state[0]],
            states=[StateView(bit=bit, name=name) for bit, name in STATES.items()],
            labels=[
                phrase(
                    "answers.trial_routes.day_t_clock_text",
                    t=t // STEPS_A_DAY + 1,
                    clock_text=clock_text(t % STEPS_A_DAY / 4),
                )
                for t in range(steps)
            ],
        )
    )


@api.get("/rigs/<int:rig_id>/trial/how-long", lane=WORKED_OUT, responses={200: HowLongView})
def how_long(path: RigPath) -> Response:
    """How long every bank lasts with no charging, new and worn: on whole days, and under one load alone."""
    rig, plan, results = evaluated_results(path.rig_id)
    style, timeline = rig.style, results.simulated.timeline
    loads = [load for load in plan.loads if load.watts > 0]
    sold_with = {
        c.candidate.id: c.build.bank.model.health for c in results.banks.candidates if c.build is not None
    }
    states = [
        (r, state, simulated)
        for r in results.simulated.trial.results
        for state, simulated in time_to_empty.states_of(r.simulated, sold_with.get(r.simulated.id, 1.0))
    ]
    simulated_banks = tuple(simulated for _, _, simulated in states)
    empties = time_to_empty.discharges(timeline, simulated_banks)
    runs = time_to_empty.runs_for(timeline, simulated_banks, loads) if loads else [[]] * len(states)

    def text(hours: float | None) -> str:
        if hours is None:
            return phrase("answers.trial_routes.over_60_days")
        return phrase("terms.names.once") if hours <= 0 else style.text(hours, "duration")

    banks = [
        RunDownView(
            id=r.simulated.id,
            title=r.title,
            battery_class=r.simulated.battery_class.key,
            state=state,
            until_empty=text(empty.hours),
            soc=[round(float(x), 3) for x in empty.soc],
            runs=[text(h) for h in hours],
        )
        for (r, state, _), empty, hours in zip(states, empties, runs, strict=True)
    ]
    return json_response(
        HowLongView(start_h=time_to_empty.EVENING_H, loads=[x.name for x in loads], banks=banks)
    )


@api.get("/rigs/<int:rig_id>/trial/year", lane=WORKED_OUT, responses={200: YearView})
def year(path: RigPath) -> Response:
    """The year of every candidate."""
    rig, plan, results = evaluated_results(path.rig_id)
    style, result = rig.style, results.simulated
    says = ""
    if not result.has_year:
        says = phrase("answers.trial_routes.year_simulated_when_entered")
    titles = {
        c.candidate.id: (c.bank.model.title, c.battery_class.key) for c in results.banks.candidates if c.bank
    }
    sample = ""
    if result.has_year:
        days = result.year_plan
        sample = phrase(
            "answers.trial_routes.nights_simulated_runs_every",
            nights=days.nights,
            row=days.calendar.row,
            seeds=len(days.specs),
            off_grid_nights=f"{plan.off_grid_nights:g}",
        )
    unequal = results.unequal_nights
    return json_response(
        YearView(
            says=says,
            sample=sample,
            unequal=[] if unequal is None else tokens(unequal, style),
            banks=[
                BankYearView(
                    id=key, title=titles[key][0], battery_class=titles[key][1],
                    figures={k: figure_view(f, style) for k, f in one.figures.items()},
                    depths=[round(float(d), 2) for d in one.depths],
                )
                for key, one in result.years.items()
            ],
        )
    )  # fmt: skip


@api.get("/rigs/<int:rig_id>/trial/laid-up", lane=WORKED_OUT, responses={200: LaidUpView})
def idle_months(path: RigPath) -> Response:
    """Every bank through the months without use."""
    rig, _, results = evaluated_results(path.rig_id)
    style, run = rig.style, results.simulated.trial
    titles = {r.simulated.id: (r.title, r.simulated.battery_class.key) for r in run.results}
    months = storage.months_laid_up(results.simulated.timeline)
    says = (
        phrase("answers.trial_routes.laid_up_lead_acid", months=", ".join(MONTHS[m - 1] for m in months))
        if months
        else phrase("answers.trial_routes.use_year_never_laid")
    )
    rows = []
    for one in (each for bank in run.laid_up.values() for each in bank):
        title, key = titles[one.id]
        frost = ""
        if one.frozen_c is not None:
            frost = phrase(
                "answers.trial_routes.left",
                frozen_c=style.text(one.frozen_c, "°C"),
                frozen_soc=style.text(one.frozen_soc, "%"),
            )
        rows.append(
            LaidUpRowView(
                id=one.id,
                title=title,
                battery_class=key,
                connected=one.connected,
                lasts="lasts"
                if one.weeks is None
                else phrase("answers.trial_routes.weeks", count=round(one.weeks))
                if one.weeks >= 1
                else phrase("answers.trial_routes.under_week"),
                recharge="" if one.recharge is None else f"{one.recharge[1]} {MONTHS[one.recharge[0] - 1]}",
                lowest=style.text(one.lowest, "%"),
                cold="" if not one.cold_tries else style.text(one.cold_tries, "days"),
                frost=frost,
            )
        )
    return json_response(LaidUpView(says=says, rows=rows))


# One that was cancelled ends with its next answer: there is a place for the next one meanwhile.
ODDS = Slots(2, 2, phrase("answers.trial_routes.simulation_already_running_perhaps"))


@api.get("/rigs/<int:rig_id>/trial/odds", lane=STREAM, answers=EVENTS, responses={503: ProblemsView})
def how_often(path: RigPath, query: OddsQuery) -> Response:
    """How often every bank goes dark, as server-sent events: progress, then the result."""
    rig, _, results = evaluated_results(path.rig_id)
    style, run = rig.style, results.simulated.trial
    return ODDS.stream(query.page, lambda listener: _odds(run, query.weathers, style, listener))


def _odds(run: Trial, weathers: int, style: Style, listener: Listener) -> Iterator[str]:
    for odds_so_far in odds(run, weathers):
        if listener.gone():
            return
        simulated_banks = [
            BankOddsView(
                id=r.simulated.id,
                title=r.title,
                battery_class=r.simulated.battery_class.key,
                dark=f"{odds_so_far.dark[r.simulated.id]} of {odds_so_far.done}",
                share=odds_so_far.dark[r.simulated.id] / odds_so_far.done,
                lowest=style.text(odds_so_far.lowest[r.simulated.id], "%"),
            ).model_dump()
            for r in run.results
        ]
        body = {"done": odds_so_far.done, "of": odds_so_far.of, "banks": simulated_banks}
        yield f"data: {json.dumps(body)}\n\n"
