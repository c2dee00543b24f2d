"""Pictures of the report as SVG, in ink that prints."""

import io
import re
from collections.abc import Sequence
from typing import Any

import numpy as np

from vast_harbor.core.cost.monte_carlo import sample_costs
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.compare import ComparedBank, capacity, cumulative, items, uncertainty_of
from vast_harbor.formats.html_page import SANS
from vast_harbor.phrases import phrase

# As on the screen: a colour, a line pattern and a point for each class.
LOOKS: dict[str, tuple[str, Any, str]] = {
    "flooded_dual": ("#a34a26", (0, (1, 2)), "^"),
    "flooded_deep": ("#6a5a12", (0, (6, 2, 1, 2)), "D"),
    "agm": ("#2b5aa0", (0, (4, 2.5)), "s"),
    "gel": ("#7c3c84", (0, (8, 3)), "v"),
    "lfp": ("#08756a", "solid", "o"),
}
INK, SOFT = "#16262c", "#4d5e63"
SPLIT = {
    "purchase": ("#0e5a66", ""), "replacements": ("#5d9199", "////"), "extras": ("#855400", ""),
    "labour": ("#c4a161", "\\\\\\\\"), "running": ("#355a86", ""), "exit": ("#a7aca9", ""),
    "old_bank": ("#7d8685", "|||"), "doubt": ("#9c8aa5", ".."),
}  # fmt: skip


def _figure(width: float, height: float) -> tuple[Any, Any]:
    # Loaded when a report is asked for: it takes half a second.
    from matplotlib import rcParams
    from matplotlib.figure import Figure
    from matplotlib.ticker import MaxNLocator

    rcParams["svg.fonttype"] = "none"
    rcParams["svg.hashsalt"] = "vast-harbor"
    # Owners’ names are names: a dollar sign begins no formula.
    rcParams["text.parse_math"] = False
    rcParams["font.family"] = "sans-serif"
    rcParams["font.size"] = 9
    rcParams["hatch.linewidth"] = 0.8
    figure = Figure(figsize=(width, height), layout="constrained")
    axes = figure.add_subplot()
    for side in ("top", "right"):
        axes.spines[side].set_visible(False)
    for side in ("left", "bottom"):
        axes.spines[side].set_color(SOFT)
    axes.tick_params(colors=SOFT)
    axes.grid(axis="y", color="#ddd7c8", linewidth=0.6)
    axes.set_axisbelow(True)
    axes.xaxis.set_major_locator(MaxNLocator(8, integer=True))
    return figure, axes


def _svg(figure: Any) -> str:
    out = io.StringIO()
    figure.savefig(out, format="svg", transparent=True, metadata={"Date": None, "Creator": None})
    text = out.getvalue()
    # Measured with the font that comes with the package, drawn with ours, which is narrower.
    text = text.replace("'DejaVu Sans'", f"'{SANS}', 'DejaVu Sans'")
    return re.sub(r"^.*?(?=<svg)", "", text, count=1, flags=re.DOTALL)


def _label(compared: ComparedBank, results: Results) -> str:
    bank = compared.banked.bank
    assert bank is not None
    number = _number(compared, results)
    return f"{compared.banked.battery_class.code}{number}  {bank.model.title} × {bank.units}"


def _number(compared: ComparedBank, results: Results) -> str:
    """Banks of one class share a colour and a line: where there are several, each has a number."""
    key = compared.banked.battery_class.key
    same = [c for c in shown(results) if c.banked.battery_class.key == key]
    return str(same.index(compared) + 1) if len(same) > 1 else ""


def _end(axes: Any, x: float, y: float, compared: ComparedBank, results: Results) -> None:
    """The number of a bank at the end of its line."""
    colour = LOOKS[compared.banked.battery_class.key][0]
    axes.annotate(
        _number(compared, results),
        (x, y),
        (4, 0),
        textcoords="offset points",
        color=colour,
        fontsize=9,
        fontweight="bold",
        va="center",
        annotation_clip=False,
    )


def shown(results: Results) -> Sequence[ComparedBank]:
    """The banks of a plan that are drawn: those that will do, else all that are compared."""
    columns = results.compare.compared_banks
    return [c for c in columns if c in results.verdict.suitable] or columns


def day_profile(results: Results) -> str:
    """The day's draw hour by hour [W], as SVG."""
    figure, axes = _figure(7, 1.9)
    profile = results.day.profile
    axes.stairs(profile.watts, profile.edges_h, fill=True, color="#0e5a66", alpha=0.85)
    axes.set_xlim(0, 24)
    axes.set_xticks(range(0, 25, 3))
    axes.set_xlabel(phrase("report.pictures.time_day"), color=SOFT)
    axes.set_ylabel("W", color=SOFT)
    return _svg(figure)


def cost_over_years(results: Results, symbol: str) -> str:
    """Money spent so far with replacements as steps and the band of eight futures of ten, as SVG."""
    figure, axes = _figure(7, 2.9)
    h, verdict = results.plan.years_kept, results.verdict
    at = np.unique(np.append(np.arange(0.0, h), h))
    spent = sample_costs(verdict.life_cost_inputs, uncertainty_of(results.assumptions), h, at=at).spent
    tops = []
    for compared in shown(results):
        colour, dash, mark = LOOKS[compared.banked.battery_class.key]
        t, money = zip(*cumulative(compared), strict=True)
        low, high = np.percentile(spent[verdict.compared_banks.index(compared)], (10, 90), axis=1)
        axes.fill_between(at, low, high, color=colour, alpha=0.12, linewidth=0)
        axes.plot(t, money, color=colour, linestyle=dash, linewidth=1.8, marker=mark, markersize=3.5,
                  markevery=max(1, len(t) // 6), label=_label(compared, results))  # fmt: skip
        _end(axes, t[-1], money[-1], compared, results)
        tops.append(max(money))
    axes.set_xlim(0, h)
    axes.set_ylim(0, 1.5 * max(tops, default=1.0))
    axes.set_xlabel(phrase("report.pictures.years_now"), color=SOFT)
    axes.set_ylabel(symbol, color=SOFT)
    axes.legend(frameon=False, fontsize=8, loc="upper left")
    return _svg(figure)


def capacity_over_years(results: Results) -> str:
    """Usable energy as the banks age [kWh], as SVG."""
    figure, axes = _figure(7, 2.4)
    h = results.plan.years_kept
    for compared in shown(results):
        colour, dash, _ = LOOKS[compared.banked.battery_class.key]
        t, kwh = zip(*capacity(compared, h), strict=True)
        axes.plot(t, kwh, color=colour, linestyle=dash, linewidth=1.8, label=_label(compared, results))
        _end(axes, t[-1], kwh[-1], compared, results)
    need = results.need.energy.number / 1000
    axes.axhline(need, color=INK, linewidth=0.8)
    axes.annotate("need", (0.01 * h, need), color=INK, fontsize=8, va="bottom")
    axes.set_xlim(0, h)
    axes.set_ylim(0, None)
    axes.set_xlabel(phrase("report.pictures.years_now"), color=SOFT)
    axes.set_ylabel(phrase("report.pictures.usable_kwh"), color=SOFT)
    axes.legend(frameon=False, fontsize=8, loc="lower left", ncols=2)
    return _svg(figure)


def cost_by_item(results: Results, symbol: str) -> str:
    """Lifetime cost split by item, credits to the left of nought, as SVG."""
    compared_banks = list(shown(results))
    figure, axes = _figure(7, 0.9 + 0.42 * len(compared_banks))
    axes.grid(axis="y", visible=False)
    named: set[str] = set()
    for i, compared in enumerate(compared_banks):
        up = down = 0.0
        for item in items(compared):
            if abs(item.money) < 1e-9:
                continue
            colour, hatch = SPLIT[item.key]
            left = up if item.money > 0 else down + item.money
            label = item.name if item.name not in named else None
            named.add(item.name)
            axes.barh(
                i,
                abs(item.money),
                left=left,
                color=colour,
                hatch=hatch,
                edgecolor="white",
                height=0.62,
                label=label,
            )
            up, down = up + max(0.0, item.money), down + min(0.0, item.money)
    axes.axvline(0, color=INK, linewidth=1)
    axes.set_yticks(range(len(compared_banks)), [_label(c, results) for c in compared_banks])
    axes.invert_yaxis()
    axes.set_xlabel(phrase("report.pictures.over_years_keep_rig", symbol=symbol), color=SOFT)
    figure.legend(frameon=False, fontsize=7.5, ncols=4, loc="outside upper left")
    return _svg(figure)
