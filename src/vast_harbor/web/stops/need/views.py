"""The need and the assumptions, as the interface is given them."""

from dataclasses import replace
from functools import lru_cache

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.assumptions import Assumption, Assumptions
from vast_harbor.core.stops.need import evaluate as evaluate_need
from vast_harbor.data import reference
from vast_harbor.telling.figures import range_text
from vast_harbor.telling.inputs import field_number
from vast_harbor.telling.times import charge_text
from vast_harbor.web.base.views import ByRuleView, figure_view, view_of
from vast_harbor.web.stops.need.models import (
    AssumptionView,
    ClassNeedView,
    NeedView,
    RuleNeedView,
    SecondView,
    StepView,
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
    """What each house rule would make of the plan, the owner's own changes kept, as the verdict has it."""
    found = []
    for key in reference().rules:
        need = results.need
        if key != results.plan.house_rule:
            plan = replace(results.plan, house_rule=key)
            need = evaluate_need(
                plan, reference(), reference().assumptions(key, plan.overrides, plan.currency)
            ).need
        found.append(
            RuleNeedView(
                key=key,
                need=style.text(need.energy.number, "Wh"),
                labels=[style.text(c.nameplate_ah.number, "Ah") for c in need.classes.values()],
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
        view_of(
            ClassNeedView,
            c,
            style,
            battery_class=key,
            classical_ah=figure_view(c.classical_ah, style) if c.classical_ah else None,
            year_wh=figure_view(year[key], style) if key in year else None,
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
        overnight_text=charge_text(results, need.day),
        classes=classes,
        rules=_rules(results, style),
        second=_second(results, style),
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
        by_rule=[ByRuleView(name=n, text=style.text(v, unit)) for n, v in a.by_rule.items()],
        overridden=a.overridden,
        source=a.entry.source,
        note=a.entry.note,
    )
