"""A rig with all its stops, as the interface is given it after every edit."""

from collections.abc import Iterable
from functools import lru_cache

import numpy as np
from pydantic import BaseModel

from vast_harbor.core.assumptions import Assumption, Assumptions
from vast_harbor.core.battery import Bank
from vast_harbor.core.display import Style, currency_symbol, trim
from vast_harbor.core.evaluate import Results
from vast_harbor.core.proposals import Fit
from vast_harbor.core.quantities import clock_text
from vast_harbor.core.stops import compare as compare_stop
from vast_harbor.core.stops.banks import BankFigures, Proposal
from vast_harbor.core.units import US, to_display
from vast_harbor.core.workings import Figure
from vast_harbor.formats.fields import Clock, Measure
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.store.rigs import StoredRig
from vast_harbor.web.plan_models import (
    AssumptionView,
    BanksView,
    CandidateView,
    ClassNeedView,
    ColumnView,
    CompareView,
    CorrectionView,
    DayView,
    FitView,
    LoadView,
    NeedView,
    ProposalView,
    RigView,
    RowView,
    RundownView,
    SeriesView,
    StepView,
    StripView,
    UnfitView,
    UnitsView,
)
from vast_harbor.web.views import FigureView, SchoolView, figure_view, finding_view, range_text, tokens

STOPS = ("rig", "day", "need", "banks", "compare")
SEVERITIES = ("note", "care", "stop")


def style_of(rig_file: RigFile) -> Style:
    """The owner's units and currency."""
    return Style(rig_file.rig.units, rig_file.rig.currency)


def rig_view(stored: StoredRig, rig_file: RigFile, results: Results) -> RigView:
    """A rig with all its stops.

    Args:
        stored: the rig as stored.
        rig_file: its checked document.
        results: its figures.

    Returns:
        What the interface shows.
    """
    style = style_of(rig_file)
    us = rig_file.rig.units == US
    return RigView.model_construct(
        id=stored.id,
        revision=stored.revision,
        undo=stored.undo,
        redo=stored.redo,
        document=stored.document,
        fields=_fields(rig_file, results, style),
        units=UnitsView(
            weight="lb" if us else "kg",
            temperature="°F" if us else "°C",
            currency=currency_symbol(rig_file.rig.currency),
        ),
        strip=strip(results, rig_file, style),
        day=_day(results, style),
        need=_need(results, style),
        banks=_banks(results, style),
        compare=_compare(results, style),
        findings=[finding_view(f, style) for f in results.findings],
    )


def strip(results: Results, rig_file: RigFile, style: Style) -> list[StripView]:
    """The strip: each stop with its one live figure."""
    need, columns = results.need, results.compare.columns
    nights = style.text(need.nights.value, "nights")
    best = min(
        (c for c in columns if c.cost["per_cycle"].value is not None),
        key=lambda c: c.cost["per_cycle"].number,
        default=None,
    )
    count = len(results.banks.candidates)
    figures = {
        "rig": f"{rig_file.rig.system_v:g} V · {style.text(rig_file.rig.off_grid_nights, 'nights')} a year",
        "day": style.text(results.day.bank_wh.value, "Wh"),
        "need": f"{style.text(need.energy.value, 'Wh')} for {nights}",
        "banks": f"{count} candidate{'' if count == 1 else 's'}",
        "compare": (
            f"{best.banked.battery_class.code} · {style.text(best.cost['per_cycle'].value, 'money/cycle')}"
            if best
            else "—"
        ),
    }
    out = []
    for stop in STOPS:
        here = [f for f in results.findings if f.stop == stop]
        worst = max((f.severity for f in here), key=SEVERITIES.index, default="")
        out.append(StripView(stop=stop, figure=figures[stop], attention=worst, findings=len(here)))
    return out


def _plain_number(value: float, unit: str, style: Style) -> str:
    shown, _ = to_display(value, unit, style.system)
    return (
        trim(f"{shown:.6f}").replace("-0", "0")
        if abs(shown) < 1e-9
        else trim(f"{shown:.6g}" if abs(shown) < 1e6 else f"{shown:.2f}")
    )


def _fields(rig_file: RigFile, results: Results, style: Style) -> dict[str, str]:
    """Every value as it stands in its input, in the owner's units, by JSON pointer."""
    out: dict[str, str] = {}

    def walk(part: BaseModel, at: str) -> None:
        for name, info in type(part).model_fields.items():
            value, path = getattr(part, name), f"{at}/{name}"
            if isinstance(value, BaseModel):
                walk(value, path)
            elif name == "windows":
                out[path] = ", ".join(f"{clock_text(a)}–{clock_text(b)}" for a, b in value)
            elif isinstance(value, list):
                for i, item in enumerate(value):
                    walk(item, f"{path}/{i}")
            elif value is None:
                out[path] = ""
            elif isinstance(value, str):
                out[path] = value
            elif isinstance(value, int | float):
                marks = [m for m in info.metadata if isinstance(m, Measure | Clock)]
                out[path] = _field_text(float(value), marks[0].unit if marks else "1", style)

    walk(rig_file, "")
    for i, load in enumerate(rig_file.day.loads):
        unit = load.draw.unit
        out[f"/day/loads/{i}/draw"] = f"{_plain_number(load.draw.value, unit, style)} {unit}"
    for key, value in rig_file.plan.overrides.items():
        unit = results.assumptions.get(key).entry.unit
        out[f"/plan/overrides/{key}"] = _plain_number(value, unit, style)
    return out


def _field_text(value: float, unit: str, style: Style) -> str:
    if unit == "clock":
        return clock_text(value)
    return _plain_number(value, unit, style)


def _day(results: Results, style: Style) -> DayView:
    day = results.day
    loads = [
        LoadView.model_construct(
            id=f.load.id,
            wh=figure_view(f.wh, style),
            bank_wh=figure_view(f.bank_wh, style),
            share=figure_view(f.share, style),
            blocks=[(round(a, 4), round(b, 4)) for a, b in f.load.blocks],
        )
        for f in day.loads
    ]
    return DayView.model_construct(
        loads=loads,
        idle=figure_view(day.idle_wh, style),
        standby=figure_view(day.standby_wh, style),
        inverter_hours=figure_view(day.inverter_hours, style),
        total=figure_view(day.bank_wh, style),
        edges_h=[round(float(x), 4) for x in day.profile.edges_h],
        watts=np.round(day.profile.watts, 2).tolist(),
        ac_watts=np.round(day.ac_watts, 2).tolist(),
        kwh=np.round(day.profile.energy_so_far() / 1000, 4).tolist(),
    )


def _need(results: Results, style: Style) -> NeedView:
    need = results.need
    classes = [
        ClassNeedView.model_construct(
            battery_class=key,
            dod=figure_view(c.dod, style),
            temperature=figure_view(c.temperature, style),
            rate=figure_view(c.rate, style),
            ageing=figure_view(c.ageing, style),
            nameplate_wh=figure_view(c.nameplate_wh, style),
            nameplate_ah=figure_view(c.nameplate_ah, style),
            classical_ah=figure_view(c.classical_ah, style) if c.classical_ah else None,
            steps=_steps(c.steps, style),
        )
        for key, c in need.classes.items()
    ]
    temperature = {f"temperature_factor.{k}": c.temperature.value for k, c in need.classes.items()}
    return NeedView.model_construct(
        energy=figure_view(need.energy, style),
        nights=figure_view(need.nights, style),
        reserve=figure_view(need.reserve, style),
        ageing=figure_view(need.ageing, style),
        classes=classes,
        assumptions=_assumption_list(results.assumptions, tuple(temperature.items()), style),
    )


def _steps(steps: tuple[Figure, ...], style: Style) -> list[StepView]:
    before = [None, *steps[:-1]]
    return [
        StepView.model_construct(
            name=step.name,
            figure=figure_view(step, style),
            added="" if last is None else style.text(step.number - last.number, "±Wh"),
        )
        for last, step in zip(before, steps, strict=True)
    ]


# The list is long and changes only with the rule, the overrides and the temperature.
@lru_cache(maxsize=16)
def _assumption_list(
    assumptions: Assumptions, computed: tuple[tuple[str, float | None], ...], style: Style
) -> list[AssumptionView]:
    return [_assumption(a, dict(computed), style) for a in assumptions]


def _assumption(a: Assumption, computed: dict[str, float | None], style: Style) -> AssumptionView:
    unit = a.entry.unit
    value = computed.get(a.key) if a.value is None else a.value
    default = value if a.default is None and not a.overridden else a.default
    return AssumptionView.model_construct(
        key=a.key,
        name=a.name,
        symbol=a.symbol,
        group=a.entry.group,
        text=style.text(value, unit),
        value=value,
        field="" if value is None else _plain_number(value, unit, style),
        default=style.text(default, unit),
        range=range_text(a.low, a.high, unit, style),
        schools=[SchoolView.model_construct(name=n, text=style.text(v, unit)) for n, v in a.schools.items()],
        overridden=a.overridden,
        source=a.entry.source,
        note=a.entry.note,
    )


def layout(bank: Bank) -> str:
    """A layout in words: ``2 in series × 3``."""
    if bank.units == 1:
        return "1 battery"
    if bank.series == 1:
        return f"{bank.parallel} in parallel"
    if bank.parallel == 1:
        return f"{bank.series} in series"
    return f"{bank.series} in series × {bank.parallel} in parallel"


def _candidate(banked: BankFigures, index: int, style: Style) -> CandidateView:
    bank = banked.bank
    given = banked.candidate
    return CandidateView.model_construct(
        id=given.id,
        index=index,
        battery_class=banked.battery_class.key,
        title=bank.model.title if bank else banked.battery_class.name,
        layout=layout(bank) if bank else "",
        model=bank.model.id if bank else given.model,
        proposed_model=banked.proposed_model,
        proposed_parallel=banked.proposed_parallel,
        series=bank.series if bank else given.series,
        parallel=bank.parallel if bank else given.parallel,
        figures={k: figure_view(f, style) for k, f in banked.figures.items()},
        findings=[finding_view(f, style) for f in banked.findings],
    )


def _fit(fit: Fit, results: Results, style: Style) -> FitView:
    model = fit.bank.model
    price = model.price * (1.0 if model.own else results.assumptions.value("price_factor")) * fit.bank.units

    def shown(name: str, value: float, unit: str) -> FigureView:
        return FigureView.model_construct(
            key=f"bank.fit-{model.id}.{name}", text=style.text(value, unit), value=value
        )

    return FitView.model_construct(
        model=model.id,
        title=model.title,
        layout=layout(fit.bank),
        covers=fit.covers,
        usable=shown("usable_wh", fit.usable_wh, "Wh"),
        kg=shown("kg", fit.bank.kg, "kg"),
        purchase=shown("purchase", price, "money"),
        note=model.note,
        own=model.own,
    )


def _proposal(proposal: Proposal, results: Results, style: Style) -> ProposalView:
    return ProposalView.model_construct(
        battery_class=proposal.battery_class.key,
        best=proposal.best.bank.model.id if proposal.best else None,
        fits=[_fit(f, results, style) for f in proposal.fits],
        unfit=[
            UnfitView.model_construct(model=m.id, title=m.title, reason=why, own=m.own)
            for m, why in proposal.unfit
        ],
    )


def _banks(results: Results, style: Style) -> BanksView:
    return BanksView.model_construct(
        candidates=[_candidate(c, i, style) for i, c in enumerate(results.banks.candidates)],
        proposals=[_proposal(p, results, style) for p in results.banks.proposals.values()],
        old_tested={k: figure_view(f, style) for k, f in results.banks.old_tested.items()},
        old_range=_old_range(results, style),
        old=[figure_view(f, style) for f in (results.banks.old_wh, results.banks.old_kg) if f],
    )


def _old_range(results: Results, style: Style) -> str:
    soh = results.banks.old_tested.get("soh")
    return "" if soh is None else range_text(soh.low, soh.high, soh.unit, style)


def _points(pairs: Iterable[tuple[float, float]], digits: int) -> list[tuple[float, float]]:
    return [(round(float(x), 3), round(float(y), digits)) for x, y in pairs]


def _compare(results: Results, style: Style) -> CompareView:
    compare = results.compare
    columns = [
        ColumnView.model_construct(
            id=c.banked.candidate.id,
            battery_class=c.banked.battery_class.key,
            title=c.banked.bank.model.title if c.banked.bank else "",
            layout=layout(c.banked.bank) if c.banked.bank else "",
            ends=c.life.ends,
            stop=any(f.severity == "stop" for f in c.banked.findings),
        )
        for c in compare.columns
    ]
    rows = [
        RowView.model_construct(
            key=r.key,
            name=r.name,
            group=r.group,
            headline=r.headline,
            best=list(r.best),
            figures=[figure_view(f, style) for f in r.figures],
        )
        for r in compare.rows
    ]
    corrections = [
        CorrectionView.model_construct(
            key=c.key,
            name=c.name,
            says=c.says,
            figures=[figure_view(f, style) for f in c.figures],
            ratios=[figure_view(f, style) for f in c.ratios],
        )
        for c in compare.corrections
    ]
    run_down: list[RundownView] = []
    hours: list[float] = []
    if compare.rundown is not None:
        hours = compare.rundown.hours.tolist()
        lines = [(c.banked.candidate.id, s) for c in compare.columns for s in ("new", "worn")]
        run_down = [
            RundownView.model_construct(id=id_, state=state, kwh=np.round(line / 1000, 3).tolist())
            for (id_, state), line in zip(lines, compare.rundown.remaining_wh, strict=True)
        ]
    cumulative = [
        SeriesView.model_construct(id=c.banked.candidate.id, points=_points(compare_stop.cumulative(c), 2))
        for c in compare.columns
    ]
    return CompareView.model_construct(
        columns=columns,
        rows=rows,
        sentence=tokens(compare.sentence, style),
        corrections=corrections,
        rundown_start_h=compare_stop.EVENING_H,
        rundown_hours=hours,
        rundown=run_down,
        cumulative=cumulative,
    )
