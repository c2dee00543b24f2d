"""A rig with all its stops, as the interface is given it after every edit."""

from collections.abc import Callable
from functools import lru_cache
from typing import Any

from pydantic import BaseModel

from vast_harbor.core.battery.datasheet import OWN_SWITCH
from vast_harbor.core.figures.display import Style, currency_symbol
from vast_harbor.core.figures.parsing import clock_text
from vast_harbor.core.figures.units import US
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.stops.banks import OK, BankFigures, Check
from vast_harbor.core.stops.charging import WORST
from vast_harbor.core.stops.compare import HOOK_UP, KEEP, MEND
from vast_harbor.core.stops.rig import VoltageChoice
from vast_harbor.formats.fields import Clock, Measure
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.store.rigs import StoredRig
from vast_harbor.web.charging.source_text import source_text
from vast_harbor.web.compare.views import compare_view, layout
from vast_harbor.web.day.views import assumptions_view, day_view, need_view
from vast_harbor.web.plan.models import (
    BanksView,
    CandidateView,
    CheckView,
    DiagnosisView,
    PurchaseStepView,
    RemedyView,
    RigView,
    SignView,
    SourceView,
    StripView,
    SuspectView,
    UnitsView,
    VoltageView,
    WhatIfView,
)
from vast_harbor.web.views import (
    FigureView,
    field_number,
    figure_view,
    finding_view,
    operations_of,
    plain_number,
    range_text,
    text_of,
    tokens,
)

STOPS = ("rig", "day", "need", "banks", "charging", "trial", "compare")
SEVERITIES = ("note", "care", "stop")


def style_of(rig_file: RigFile) -> Style:
    """The owner's units, currency and lead figure."""
    rig = rig_file.rig
    return Style(rig.units, rig.currency, rig.system_v if rig.lead == "ah" else None)


def rig_view(
    stored: StoredRig,
    rig_file: RigFile,
    results: Results,
    show: str = "",
    stop: str = "",
    base: tuple[Results, dict[str, Figure]] | None = None,
) -> RigView:
    """A rig with its strip, and the parts of one stop.

    Args:
        stored: the rig as stored.
        rig_file: its checked document.
        results: its figures.
        show: id of the kind of day to show; the governing one when there is none of that id.
        stop: the stop that is open; empty for the parts of all.
        base: the plan beside which something is tried, and its figures by key; None when nothing is.

    Returns:
        What the interface shows.
    """
    style = style_of(rig_file)
    us = rig_file.rig.units == US
    view = RigView(
        id=stored.id,
        revision=stored.revision,
        undo=stored.undo,
        redo=stored.redo,
        document=stored.document,
        fields=_fields(rig_file, results, style),
        units=UnitsView(
            weight="lb" if us else "kg",
            temperature="°F" if us else "°C",
            length="ft" if us else "m",
            small_length="in" if us else "mm",
            currency=currency_symbol(rig_file.rig.currency),
        ),
        strip=strip(results, rig_file, style),
        stop=stop,
        assumptions=assumptions_view(results, style),
        **{part: PART_VIEWS[part](results, style, show) for part in PARTS.get(stop, tuple(PART_VIEWS))},
        stale=results.stale,
        what_if=None if stored.base is None else WhatIfView(tried=list(stored.tried)),
        findings=[finding_view(f, style) for f in results.findings if f.stop != "banks" or not f.subject],
    )
    if base is not None:
        plan, figures = base
        _tell_what_was(view, figures, strip(plan, rig_file, style), style)
    return view


# What the screen of each stop shows.
PARTS = {
    "rig": ("day", "need", "banks", "voltages", "seasons"),
    "day": ("day",),
    "need": ("day", "need"),
    "banks": ("need", "banks"),
    "charging": ("need", "banks", "sources"),
    "trial": ("day", "need", "banks"),
    "compare": ("day", "need", "banks", "compare"),
}
PART_VIEWS: dict[str, Callable[[Results, Style, str], Any]] = {
    "day": day_view,
    "need": lambda results, style, _: need_view(results, style),
    "banks": lambda results, style, _: _banks(results, style),
    "compare": lambda results, style, _: compare_view(results, style),
    "voltages": lambda results, style, _: [_voltage(c, results, style) for c in results.voltages],
    "seasons": lambda results, style, _: {k: figure_view(f, style) for k, f in results.seasons.items()},
    "sources": lambda results, style, _: [
        _source(results, i, style) for i in range(len(results.plan.sources))
    ],
}


def _source(results: Results, index: int, style: Style) -> SourceView:
    source = results.plan.sources[index]
    verdicts = [j.verdict for one in results.suitability.values() for j in one if j.source == source.id]
    return SourceView(
        id=source.id,
        index=index,
        kind=source.kind,
        name=name_of(source),
        most=source_text(source, results.plan.system_v, style),
        worst=max(verdicts, key=lambda v: WORST[v], default="ok"),
    )


def _tell_what_was(view: RigView, base: dict[str, Figure], base_strip: list[StripView], style: Style) -> None:
    """Put beside every figure what it is in the plan, where it differs."""

    def walk(part: object) -> None:
        if isinstance(part, FigureView):
            before = base.get(part.key)
            text = text_of(part.key, before.value, before.unit, style) if before is not None else None
            part.was = text if text != part.text else None
        elif isinstance(part, BaseModel):
            for name in type(part).model_fields:
                walk(getattr(part, name))
        elif isinstance(part, list):
            for item in part:
                walk(item)
        elif isinstance(part, dict):
            for item in part.values():
                walk(item)

    for name in PARTS.get(view.stop, tuple(PART_VIEWS)):
        walk(getattr(view, name))
    for now, before in zip(view.strip, base_strip, strict=True):
        now.was = before.figure if before.figure != now.figure else None


def strip(results: Results, rig_file: RigFile, style: Style) -> list[StripView]:
    """The strip: each stop with its one live figure."""
    need = results.need
    nights = "overnight" if results.plan.overnight else f"· {style.text(need.nights.value, 'nights')}"
    count = len(results.banks.candidates)
    figures = {
        "rig": f"{rig_file.rig.system_v:g} V · {style.text(rig_file.rig.off_grid_nights, 'nights')}",
        "day": f"{style.use(results.day.bank_wh.value, 'Wh')} · {results.day.type.name}"
        if len(results.days.days) > 1
        else style.use(results.day.bank_wh.value, "Wh"),
        "need": f"{style.use(need.energy.value, 'Wh')} {nights}",
        "banks": f"{count} candidate{'' if count == 1 else 's'}",
        "charging": _charging_figure(results, style),
        "trial": _trial_figure(results),
        "compare": _verdict_figure(results, style),
    }
    out = []
    for stop in STOPS:
        here = [f for f in results.findings if f.stop == stop]
        worst = max((f.severity for f in here), key=SEVERITIES.index, default="")
        out.append(StripView(stop=stop, figure=figures[stop], attention=worst, findings=len(here), was=None))
    return out


@lru_cache
def _measures(model: type[BaseModel]) -> tuple[tuple[str, str], ...]:
    """Fields of a part of the document, with the unit of those that have one."""
    out = []
    for name, info in model.model_fields.items():
        marks = [m for m in info.metadata if isinstance(m, Measure | Clock)]
        percent = bool(marks) and isinstance(marks[0], Measure) and marks[0].percent
        out.append((name, "%" if percent else marks[0].unit if marks else "1"))
    return tuple(out)


def _fields(rig_file: RigFile, results: Results, style: Style) -> dict[str, str]:
    """Every value as it stands in its input, in the owner's units, by JSON pointer."""
    out: dict[str, str] = {}

    def walk(part: BaseModel, at: str) -> None:
        for name, unit in _measures(type(part)):
            value, path = getattr(part, name), f"{at}/{name}"
            if value is None:
                out[path] = ""
            elif isinstance(value, str):
                out[path] = value
            elif isinstance(value, bool):
                continue
            elif isinstance(value, int | float):
                out[path] = _field_text(float(value), unit, style)
            elif isinstance(value, BaseModel):
                walk(value, path)
            elif name == "on":
                for key, times in value.items():
                    if times is not None:
                        walk(times, f"{path}/{key}")
            elif name == "positions":
                pairs = (f"{plain_number(a, 'V', style)}/{plain_number(b, 'V', style)}" for a, b in value)
                out[path] = ", ".join(pairs)
            elif name == "windows":
                out[path] = ", ".join(f"{clock_text(a)}–{clock_text(b)}" for a, b in value)
            elif isinstance(value, list):
                for i, item in enumerate(value):
                    if isinstance(item, BaseModel):
                        walk(item, f"{path}/{i}")
                    elif isinstance(item, float):
                        out[f"{path}/{i}"] = _field_text(item, "1", style)

    walk(rig_file, "")
    for i, load in enumerate(rig_file.day.loads):
        unit = load.draw.unit
        out[f"/day/loads/{i}/draw"] = f"{plain_number(load.draw.value, unit, style)} {unit}"
    for key, value in rig_file.plan.overrides.items():
        unit = results.assumptions.get(key).entry.unit
        out[f"/plan/overrides/{key}"] = field_number(value, unit, style)
    return out


# The same few numbers stand in hundreds of fields, edit after edit.
@lru_cache(maxsize=10_000)
def _field_text(value: float, unit: str, style: Style) -> str:
    if unit == "clock":
        return clock_text(value)
    return field_number(value, unit, style)


def _candidate(banked: BankFigures, index: int, style: Style) -> CandidateView:
    bank = banked.bank
    given = banked.candidate
    return CandidateView(
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
        grade=bank.model.grade if bank else "",
        no_switch=bool(bank and bank.model.bms and bank.model.bms.switch != OWN_SWITCH),
        figures={k: figure_view(f, style) for k, f in banked.figures.items()},
        checks=[check_view(c, style) for c in banked.checks if c.verdict != OK],
        passed=sum(c.verdict == OK for c in banked.checks),
        stages=[
            PurchaseStepView(
                index=s.index,
                strings=s.strings,
                money=figure_view(s.money, style),
                so_far=figure_view(s.so_far, style),
                usable=figure_view(s.usable, style),
                covered=figure_view(s.covered, style),
                nights=figure_view(s.nights, style),
            )
            for s in banked.stages
        ],
        findings=[] if banked.checks else [finding_view(f, style) for f in banked.findings],
    )


def _charging_figure(results: Results, style: Style) -> str:
    plan = results.plan
    charging = [s for s in plan.sources if s.charges]
    if not charging:
        return "no source yet"
    count = f"{len(charging)} source{'' if len(charging) == 1 else 's'}"
    return f"{count} · {style.text(plan.charge_a, 'A')}"


def _verdict_figure(results: Results, style: Style) -> str:
    """The verdict in two words and its price."""
    verdict = results.verdict
    winner = verdict.winner
    if winner is None:
        words = {KEEP: "keep what you have", MEND: "mend first", HOOK_UP: "spend nothing"}
        return words.get(verdict.kind, "none yet" if verdict.compared_banks else "—")
    code, cost = winner.banked.battery_class.code, winner.cost
    per = cost["per_cycle"] if cost["per_cycle"].value is not None else cost["per_year"]
    return f"{code} · {style.text(per.value, per.unit)}"


def _trial_figure(results: Results) -> str:
    """How many candidates never go dark; of a single one, when it does."""
    simulated = results.simulated.trial.candidates
    if not simulated:
        return "—"
    lit = sum(not r.dark for r in simulated)
    if len(simulated) == 1 and simulated[0].dark:
        return f"dark on day {int(simulated[0]['first_dark'].number // 24) + 1}"
    if not lit:
        first = max(r["first_dark"].number for r in simulated)
        return f"all dark by day {int(first // 24) + 1}"
    return f"{lit} of {len(simulated)} never dark"


def _margin(check: Check, style: Style) -> FigureView | None:
    """What is left, or lacks, without a sign: the words beside it say which."""
    if check.margin is None:
        return None
    value = check.margin.number
    text = style.text(abs(value), check.margin.unit.removeprefix("±"))
    return FigureView(key=check.margin.key, text=text, value=value, was=None)


def check_view(check: Check, style: Style) -> CheckView:
    """One thing that was looked at."""
    return CheckView(
        code=check.code,
        name=check.name,
        verdict=check.verdict,
        says=tokens(check.says, style),
        remedy=check.remedy,
        margin=_margin(check, style),
        gap="to spare" if check.verdict == OK else "short by" if check.is_minimum else "over by",
        remedies=[
            RemedyView(
                key=r.key,
                says=r.says,
                price=None if r.price is None else figure_view(r.price, style),
                operations=operations_of(r.edits),
            )
            for r in check.remedies
        ],
    )


def _banks(results: Results, style: Style) -> BanksView:
    return BanksView(
        candidates=[_candidate(c, i, style) for i, c in enumerate(results.banks.candidates)],
        old_carries={k: figure_view(f, style) for k, f in results.banks.old_carries.items()},
        diagnosis=_diagnosis(results, style),
        old=[figure_view(f, style) for f in (results.banks.old_wh, results.banks.old_kg) if f],
    )


def _diagnosis(results: Results, style: Style) -> DiagnosisView | None:
    found = results.banks.diagnosis
    if found is None:
        return None
    health = found.health
    return DiagnosisView(
        says=found.says,
        danger=found.danger,
        health=figure_view(health, style) if health else None,
        range=range_text(health.low, health.high, health.unit, style) if health else "",
        agree=found.agree,
        signs=[
            SignView(name=s.name, text=range_text(s.low, s.high, "%", style), low=s.low, high=s.high)
            for s in found.signs
        ],
        suspects=[
            SuspectView(key=s.key, verdict=s.verdict, says=tokens(s.says, style), next=s.next)
            for s in found.suspects
        ],
    )


def _voltage(choice: VoltageChoice, results: Results, style: Style) -> VoltageView:
    return VoltageView(
        system_v=choice.system_v,
        here=choice.system_v == results.plan.system_v,
        peak=figure_view(choice.peak_a, style),
        cable=figure_view(choice.cable, style),
        lost=figure_view(choice.converter_wh, style),
        need=figure_view(choice.need_wh, style),
        labels=[figure_view(f, style) for f in choice.label_ah.values()],
        replaced=list(choice.replaced),
    )
