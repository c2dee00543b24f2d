"""Charging: sources judged, curves, how much is needed, measured charges and the settings sheet."""

import numpy as np
from flask import Response
from flask_openapi3.models.tag import Tag
from numpy.typing import NDArray
from pydantic import BaseModel, Field

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Unreadable, parse, parse_share
from vast_harbor.core.figures.parsing_time import parse_clock
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.months import months_of_use
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import ENGINE, MAINS
from vast_harbor.core.simulation.simulated_bank import SimulatedBank
from vast_harbor.core.stops.banks import Build, acts, of_bank
from vast_harbor.core.stops.charging import (
    MONTHS,
    MOST_CHARGE_A,
    Curve,
    Setting,
    Suitability,
    curve,
    design_month,
    explain,
    possible_charge_volts,
    sheets,
    too_dark,
)
from vast_harbor.core.stops.trial import OLD, YearOf, old_bank_as_bank
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import and_list, phrase
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import WORKED_OUT, Blueprint
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, figure_view, operations_of, tokens, view_of
from vast_harbor.web.state.evaluated import evaluated_results
from vast_harbor.web.stops.charging.models import (
    AuditView,
    ChargeCurveView,
    ChargeStageView,
    ChargingView,
    CurvesView,
    ExplainedView,
    MonthSunView,
    NeededView,
    PointView,
    RungView,
    SettingView,
    SheetView,
    SuitabilityView,
    WeekView,
)

api = Blueprint(
    "charging", __name__, url_prefix="/api", abp_tags=[Tag(name="charging")],
    abp_responses={404: ProblemsView, 422: ProblemsView},
)  # fmt: skip

SKILLS = {
    "anyone": "anyone",
    "handy": phrase("answers.charging_routes.handy_owner"),
    "electrician": phrase("answers.charging_routes.electrician_mains_side"),
}


class OfQuery(BaseModel):
    """For which candidate the settings are."""

    candidate: str = Field(default="", max_length=60, description="Id of a candidate; the first if empty")


class CurvesQuery(BaseModel):
    """A charge: by which source, from where to where."""

    source: str = Field(default="", max_length=60, description="Id of a source; all together if empty")
    start: str = Field(default="50 %", max_length=20)
    end: str = Field(default="100 %", max_length=20)


class MeasuredQuery(BaseModel):
    """A charge as measured, typed by the owner."""

    candidate: str = Field(max_length=60)
    source: str = Field(max_length=60)
    amps: str = Field(default="", max_length=20)
    volts: str = Field(default="", max_length=20)
    soc: str = Field(default="", max_length=20)
    hour: str = Field(default="", max_length=20)
    month: int = Field(default=6, ge=1, le=12)


@api.get("/rigs/<int:rig_id>/charging", lane=WORKED_OUT, responses={200: ChargingView})
def charging(path: RigPath, query: OfQuery) -> Response:
    """Sources judged beside every candidate, sun, what is needed, and the settings of one."""
    rig, _, results = evaluated_results(path.rig_id)
    style = rig.style
    built = [c for c in results.banks.candidates if c.build is not None]
    one = next((c for c in built if c.candidate.id == query.candidate), built[0] if built else None)
    sun, timeline = results.simulated.sun, results.simulated.timeline
    used = months_of_use(results.plan)
    return json_response(
        ChargingView(
            audits=[
                AuditView(
                    id=c.candidate.id,
                    title=c.bank.model.title if c.bank else "",
                    battery_class=c.battery_class.key,
                    suitability=[_judged(j, results, i, style) for j in results.suitability[c.candidate.id]],
                )
                for i, c in enumerate(results.banks.candidates)
                if c.build is not None
            ],
            sun=[
                MonthSunView(name=MONTHS[m], kwh=round(kwh, 3), text=f"{kwh:.1f}", used=m + 1 in used)
                for m, kwh in enumerate(sun.monthly)
            ],
            sun_says=sun.says or too_dark(timeline, sun),
            sun_own=sun.own,
            design=MONTHS[design_month(timeline, sun) - 1] if sun.monthly else "",
            needed=[
                NeededView(
                    id=c.candidate.id,
                    title=c.bank.model.title if c.bank else "",
                    battery_class=c.battery_class.key,
                    figures={
                        k: figure_view(f, style) for k, f in results.simulated.needed[c.candidate.id].items()
                    },
                )
                for c in built
            ],
            weeks=_weeks(results, style),
            sheets=[]
            if one is None or one.build is None
            else [
                view_of(SheetView, s, style, settings=[_setting(x, style) for x in s.settings])
                for s in sheets(one.build)
            ],
            sheets_of=one.candidate.id if one is not None else "",
            acts=[]
            if one is None or one.build is None
            else [
                SettingView(
                    name=a.name,
                    value=style.text(a.loaded.value, "V"),
                    now=phrase("answers.charging_routes.left", value=style.text(a.soc.value, "%")),
                )
                for a in acts(one.build)
            ],
        )
    )


def _judged(suitability: Suitability, results: Results, index: int, style: Style) -> SuitabilityView:
    left = {p.code for p in suitability.points}
    candidate = results.plan.candidates[index]
    fixes = [{"source": f.source, "remedy": f.remedy} for f in candidate.fixes]
    return SuitabilityView(
        source=suitability.source,
        name=suitability.source_name,
        verdict=suitability.verdict,
        points=[view_of(PointView, p, style) for p in suitability.points],
        solved=[
            PointView(code=p.code, severity="ok", says=tokens(p.says, style))
            for p in suitability.before
            if p.code not in left
        ],
        rungs=[
            view_of(
                RungView,
                r,
                style,
                price=style.text(r.price, "money"),
                hours=style.text(r.hours, "duration"),
                skill=SKILLS[r.skill],
                chosen=r.key in suitability.chosen,
                operations=operations_of(
                    [
                        {
                            "op": "replace",
                            "path": f"/candidates/{index}/fixes",
                            "value": _toggled(fixes, suitability.source, r.key),
                        }
                    ]
                ),
            )
            for r in suitability.rungs
        ],
    )


def _toggled(fixes: list[dict[str, str]], source: str, remedy: str) -> list[dict[str, str]]:
    one = {"source": source, "remedy": remedy}
    return [f for f in fixes if f != one] if one in fixes else [*fixes, one]


def _setting(setting: Setting, style: Style) -> SettingView:
    value = setting.words if setting.value is None else style.text(setting.value, setting.unit)
    now = setting.now(style)
    return SettingView(name=setting.name, value=value, now=now if now != value else "")


def _weeks(results: Results, style: Style) -> list[WeekView]:
    """A mean week of use: the year's figures for seven off-grid nights."""
    out = []
    nights = results.plan.off_grid_nights
    for c in results.banks.candidates:
        year = results.simulated.years.get(c.candidate.id)
        if year is None or c.bank is None or nights <= 0:
            continue
        share = 7 / nights

        def text(name: str, unit: str, year: YearOf = year, share: float = share) -> str:
            value = year[name].value
            return style.text(None if value is None else value * share, unit)

        out.append(
            WeekView(
                id=c.candidate.id,
                title=c.bank.model.title,
                battery_class=c.battery_class.key,
                generator=text("generator_hours", "h"),
                litres=text("litres", "l fuel"),
                fuel=text("fuel", "money"),
                sun_left=style.text(year["sun_left"].value, "%"),
                short=style.text(year["short_share"].value, "%"),
            )
        )
    return out


@api.get("/rigs/<int:rig_id>/charging/curves", lane=WORKED_OUT, responses={200: CurvesView})
def curves(path: RigPath, query: CurvesQuery) -> Response:
    """Every bank charged by one source, or by all that charge at once."""
    rig, plan, results = evaluated_results(path.rig_id)
    style = rig.style
    found = []
    ends: dict[str, float] = {}
    for field, text in (("start", query.start), ("end", query.end)):
        try:
            ends[field] = _share(text)
        except (Unreadable, ValueError) as error:
            found.append(Problem(f"/{field}", str(error)))
    if not found and ends["start"] >= ends["end"]:
        found.append(Problem("/end", phrase("answers.charging_routes.end_charge_must_above")))
    if found:
        return problems(422, *found)
    by = [s for s in plan.sources if s.charges and query.source in ("", s.id)]
    if query.source == "":
        # Mains and engine are not there at once.
        kinds = {s.kind for s in by}
        by = [s for s in by if s.kind != (ENGINE if MAINS in kinds else "")]
    if not by:
        return json_response(
            CurvesView(curves=[], by="", says=phrase("answers.charging_routes.add_source_see_charge"))
        )
    titles = {
        c.candidate.id: (c.bank.model.title, c.battery_class.key) for c in results.banks.candidates if c.bank
    }
    out = []
    for simulated in results.simulated.trial.simulated_banks:
        mine = tuple(s for s in simulated.sources if s.id in {b.id for b in by})
        celsius = results.day.battery_c.number
        made = curve(simulated, mine, ends["start"], ends["end"], celsius)
        title, key = titles.get(simulated.id, (phrase("terms.names.old_bank"), simulated.battery_class.key))
        out.append(_curve(simulated, made, title, key, style))
    return json_response(CurvesView(curves=out, by=and_list(name_of(s) for s in by), says=""))


def _share(text: str) -> float:
    value = parse_share(text, 0, 1)
    if not 0 <= value <= 1:
        raise ValueError(phrase("answers.charging_routes.charge_lies_between_0", text=text.strip()))
    return value


def _curve(simulated: SimulatedBank, made: Curve, title: str, key: str, style: Style) -> ChargeCurveView:
    step = max(1, len(made.hours) // 240)

    def thin(values: NDArray[np.float64], digits: int) -> list[float]:
        return [round(float(v), digits) for v in values[::step]]

    def time(mark: float) -> str:
        hours = made.reached[mark]
        return (
            "never"
            if hours is None
            else phrase("terms.names.once")
            if hours == 0
            else style.text(hours, "duration")
        )

    return ChargeCurveView(
        id=simulated.id,
        title=title,
        battery_class=key,
        hours=thin(made.hours, 3),
        soc=thin(made.soc, 4),
        amps=thin(made.amps, 2),
        volts=thin(made.volts, 3),
        stages=[ChargeStageView(name=name, hours=round(h, 3)) for name, h in made.stages],
        to_80=time(0.8),
        to_95=time(0.95),
        to_full=time(simulated.full_soc),
        ends=style.text(made.ends_soc, "%"),
    )


def _charged(results: Results, id_: str) -> Build | None:
    """A candidate, or the old bank, as it is charged; None where it is not there."""
    if id_ != OLD:
        one = next((c for c in results.banks.candidates if c.candidate.id == id_), None)
        return None if one is None else one.build
    bank = old_bank_as_bank(results.plan)
    return None if bank is None else of_bank(results.banks.rig_limits, bank, results.banks.old_kg, OLD).build


@api.get("/rigs/<int:rig_id>/charging/measured", lane=WORKED_OUT, responses={200: ExplainedView})
def measured(path: RigPath, query: MeasuredQuery) -> Response:
    """A charge as measured, explained."""
    rig, plan, results = evaluated_results(path.rig_id)
    index = next((i for i, s in enumerate(plan.sources) if s.id == query.source and s.charges), None)
    build = _charged(results, query.candidate)
    if index is None or build is None:
        return problems(404, Problem("", phrase("answers.charging_routes.source_bank_longer_part")))
    values: dict[str, float] = {}
    found = []
    for field, unit in (("amps", "A"), ("volts", "V"), ("soc", "1"), ("hour", "clock")):
        text = getattr(query, field)
        try:
            if not text.strip():
                raise ValueError(phrase("answers.charging_routes.entered_anything_yet"))
            values[field] = (
                _share(text)
                if unit == "1"
                else parse_clock(text)
                if unit == "clock"
                else parse(text, unit, written=rig.style.numbers)
            )
        except (Unreadable, ValueError) as error:
            found.append(Problem(f"/{field}", str(error)))
    if "amps" in values and not 0 <= values["amps"] <= MOST_CHARGE_A:
        found.append(Problem("/amps", phrase("answers.charging_routes.charge_current_between_0")))
    low, high = possible_charge_volts(plan.system_v)
    if "volts" in values and not low <= values["volts"] <= high:
        found.append(
            Problem(
                "/volts",
                phrase(
                    "answers.charging_routes.v_bank_between_v",
                    system_v=f"{plan.system_v:g}",
                    value=f"{low:g}",
                    value_2=f"{high:g}",
                ),
            )
        )
    if found:
        return problems(422, *found)
    explanation = explain(
        build,
        results.simulated.timeline,
        index,
        values["amps"],
        values["volts"],
        values["soc"],
        values["hour"],
        query.month,
    )
    style = rig.style
    return json_response(
        ExplainedView(
            says=tokens(explanation.says, style),
            edit_says=explanation.edit_says,
            operations=operations_of(explanation.edits),
        )
    )
