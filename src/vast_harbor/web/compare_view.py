"""The comparison as the interface is given it: its table, its sentence, its pictures."""

from collections.abc import Iterable

import numpy as np

from vast_harbor.core.battery import Bank
from vast_harbor.core.display import Style
from vast_harbor.core.evaluate import Results
from vast_harbor.core.stops import compare as compare_stop
from vast_harbor.web.plan_models import (
    ColumnView,
    CompareView,
    CorrectionView,
    RowView,
    RundownView,
    SeriesView,
)
from vast_harbor.web.views import figure_view, tokens


def layout(bank: Bank) -> str:
    """A layout in words: ``2 in series × 3``."""
    if bank.units == 1:
        return "1 battery"
    if bank.series == 1:
        return f"{bank.parallel} in parallel"
    if bank.parallel == 1:
        return f"{bank.series} in series"
    return f"{bank.series} in series × {bank.parallel} in parallel"


def _points(pairs: Iterable[tuple[float, float]], digits: int) -> list[tuple[float, float]]:
    return [(round(float(x), 3), round(float(y), digits)) for x, y in pairs]


def compare_view(results: Results, style: Style) -> CompareView:
    """The comparison with its pictures."""
    compare = results.compare
    columns = [
        ColumnView.of(
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
        RowView.of(
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
        CorrectionView.of(
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
            RundownView.of(id=id_, state=state, kwh=np.round(line / 1000, 3).tolist())
            for (id_, state), line in zip(lines, compare.rundown.remaining_wh, strict=True)
        ]
    cumulative = [
        SeriesView.of(id=c.banked.candidate.id, points=_points(compare_stop.cumulative(c), 2))
        for c in compare.columns
    ]
    return CompareView.of(
        columns=columns,
        rows=rows,
        sentence=tokens(compare.sentence, style),
        corrections=corrections,
        rundown_start_h=compare_stop.EVENING_H,
        rundown_hours=hours,
        rundown=run_down,
        cumulative=cumulative,
    )
