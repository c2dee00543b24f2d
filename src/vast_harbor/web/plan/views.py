"""A rig with all its stops, as the interface is given it after every edit."""

from collections.abc import Callable
from datetime import date
from typing import Any

from pydantic import BaseModel

from vast_harbor.core.figures.dates import english_of
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.review.bank_in_use import reminders
from vast_harbor.core.stops.compare import verdict_text
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.phrases import phrase
from vast_harbor.store.log import LastDays
from vast_harbor.store.rigs import StoredRig
from vast_harbor.telling.figures import text_of
from vast_harbor.web.base.views import FigureView, figure_view, finding_view
from vast_harbor.web.plan.field_texts import field_texts
from vast_harbor.web.plan.lists import unit_names
from vast_harbor.web.plan.models import RigView, StripView, WhatIfView
from vast_harbor.web.plan.stops import STOPS
from vast_harbor.web.plan.topics import topic_views
from vast_harbor.web.stops.banks.card_views import banks_view
from vast_harbor.web.stops.changeover.views import changeover_view
from vast_harbor.web.stops.charging.views import source_view
from vast_harbor.web.stops.compare.views import compare_view
from vast_harbor.web.stops.day.views import day_view
from vast_harbor.web.stops.need.views import assumptions_view, need_view
from vast_harbor.web.stops.rig.views import voltage_view

SEVERITIES = ("note", "caution", "blocking")


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
    style = rig_file.style
    view = RigView(
        id=stored.id,
        revision=stored.revision,
        undo=stored.undo,
        redo=stored.redo,
        document=stored.document,
        fields=field_texts(rig_file, results, style),
        units=unit_names(rig_file.rig.units, rig_file.rig.currency),
        dates=english_of(style.locale).replace("_", "-"),
        strip=strip(results, rig_file, style, stored.log),
        stop=stop,
        assumptions=assumptions_view(results, style),
        **{part: PART_VIEWS[part](results, style, show) for part in PARTS.get(stop, tuple(PART_VIEWS))},
        topics=topic_views(results, rig_file.rig.region, style),
        stale=results.stale,
        searching=results.searching,
        what_if=None if stored.base is None else WhatIfView(tried=list(stored.tried)),
        findings=[finding_view(f, style) for f in results.findings if f.stop != "banks" or not f.subject],
    )
    if base is not None:
        plan, figures = base
        _tell_what_was(view, figures, strip(plan, rig_file, style, stored.log), style)
    return view


# What the screen of each stop shows.
PARTS = {stop.key: stop.parts for stop in STOPS}
PART_VIEWS: dict[str, Callable[[Results, Style, str], Any]] = {
    "day": day_view,
    "need": lambda results, style, _: need_view(results, style),
    "banks": lambda results, style, _: banks_view(results, style),
    "compare": lambda results, style, _: compare_view(results, style),
    "changeover": lambda results, style, _: changeover_view(results, style),
    "voltages": lambda results, style, _: [voltage_view(c, results, style) for c in results.voltages],
    "seasons": lambda results, style, _: {k: figure_view(f, style) for k, f in results.seasons.items()},
    "sources": lambda results, style, _: [
        source_view(results, i, style) for i in range(len(results.plan.sources))
    ],
}


def _tell_what_was(view: RigView, base: dict[str, Figure], base_strip: list[StripView], style: Style) -> None:
    """Put beside every figure what it is in the plan, where it differs."""
    # No function that calls itself inside of this one: it would hold the view in a cycle.
    left: list[object] = [getattr(view, name) for name in PARTS.get(view.stop, tuple(PART_VIEWS))]
    while left:
        part = left.pop()
        if isinstance(part, FigureView):
            before = base.get(part.key)
            text = text_of(part.key, before.value, before.unit, style) if before is not None else None
            part.was = text if text != part.text else None
        elif isinstance(part, BaseModel):
            left += [getattr(part, name) for name in type(part).model_fields]
        elif isinstance(part, list):
            left += part
        elif isinstance(part, dict):
            left += part.values()
    for now, then in zip(view.strip, base_strip, strict=True):
        now.was = then.figure if then.figure != now.figure else None


def strip(results: Results, rig_file: RigFile, style: Style, last: LastDays) -> list[StripView]:
    """The strip: each stop with its one live figure.

    Args:
        results: the plan in figures.
        rig_file: its checked document.
        style: the owner's units.
        last: when what was done last, by its log.
    """
    need, due = results.need, reminders(results, last)
    nights = "overnight" if results.plan.overnight else f"· {style.text(need.nights.value, 'nights')}"
    count = len(results.banks.candidates)
    figures = {
        "rig": f"{rig_file.rig.system_v:g} V · {style.text(rig_file.rig.off_grid_nights, 'nights')}",
        "day": style.use(results.day.bank_wh.value, "Wh"),
        "need": f"{style.use(need.energy.value, 'Wh')} {nights}",
        "banks": phrase("answers.plan_views.candidates", count=count),
        "charging": _charging_figure(results, style),
        "trial": _trial_figure(results),
        "compare": verdict_text.in_brief(results.verdict),
        "changeover": _changeover_figure(results, style),
        "log": _log_figure(last.last, len(due), results.plan.today),
    }
    out = []
    for stop in PARTS:
        here = [f for f in results.plan_findings if f.stop == stop]
        worst = max((f.severity for f in here), key=SEVERITIES.index, default="")
        if stop == "changeover" and results.changeover is not None and results.changeover.stopped:
            worst = "blocking"
        if stop == "log" and due:
            worst = "caution"
        out.append(StripView(stop=stop, figure=figures[stop], attention=worst, findings=len(here), was=None))
    return out


def _charging_figure(results: Results, style: Style) -> str:
    plan = results.plan
    charging = [s for s in plan.sources if s.charges]
    if not charging:
        return phrase("answers.plan_views.source_yet")
    count = phrase("answers.plan_views.sources", count=len(charging))
    return f"{count} · {style.text(plan.charge_a, 'A')}"


def _changeover_figure(results: Results, style: Style) -> str:
    """How far the work is; before it begins, how much is bought."""
    made = results.changeover
    if made is None:
        return "—" if not results.day.bank_wh.number else phrase("answers.plan_views.not_chosen")
    if made.done == len(made.steps):
        return phrase("answers.plan_views.finished")
    spent, total = made.shopping.spent, made.shopping.total
    if made.done or not spent.number:
        return phrase("answers.plan_views.done_of", done=made.done, total=len(made.steps))
    return phrase(
        "answers.plan_views.bought_of", spent=style.text(spent.value, "money"),
        total=style.text(total.value, "money"),
    )  # fmt: skip


def _log_figure(last: int | None, due: int, today: str) -> str:
    """How much is due; where nothing is, how long ago something was entered last."""
    if due:
        return phrase("answers.plan_views.due", count=due)
    if last is None:
        return phrase("answers.plan_views.no_entry")
    days = date.fromisoformat(today).toordinal() - last if today else 0
    return (
        phrase("answers.plan_views.logged_today")
        if days <= 0
        else phrase("answers.plan_views.logged_ago", count=days)
    )


def _trial_figure(results: Results) -> str:
    """How many candidates never go dark; of a single one, when it does."""
    simulated = results.simulated.trial.candidates
    if not simulated or not results.day.bank_wh.number:
        return "—"
    lit = sum(not r.dark for r in simulated)
    if len(simulated) == 1 and simulated[0].dark:
        return phrase(
            "answers.plan_views.power_cut_day", number=int(simulated[0]["first_dark"].number // 24) + 1
        )
    if not lit:
        first = max(r["first_dark"].number for r in simulated)
        return phrase("answers.plan_views.out_power_day", first=int(first // 24) + 1)
    return phrase("answers.plan_views.without_power_cut", lit=lit, simulated=len(simulated))
