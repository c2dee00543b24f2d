"""A figure's workings are true: its formula, computed again from its inputs, gives its value."""

import math
import re
from dataclasses import replace

import pytest

from vast_harbor import data
from vast_harbor.core.figures.workings import COMPUTED
from vast_harbor.core.passage import evaluate

RULES = ("long_life", "customary", "to_label")


def again(figure) -> float:
    """A figure's formula as arithmetic."""
    values = {}

    def name(match: re.Match[str]) -> str:
        values[f"v{len(values)}"] = figure.inputs[match[1]].number
        return f"v{len(values) - 1}"

    text = re.sub(r"\{([^{}]+)\}", name, figure.formula)
    text = text.replace("·", "*").replace("−", "-").replace("^", "**")
    return float(eval(text, {"__builtins__": {}, "min": min, "max": max, "log": math.log}, values))


@pytest.mark.parametrize("rule", RULES)
@pytest.mark.parametrize("rig", ["tern-rock", "mulga", "long-haul"])
def test_every_formula_gives_its_figure(demo_results, reference, rig, rule) -> None:
    plan = replace(demo_results(rig).plan, house_rule=rule)
    checked = 0
    for figure in evaluate(plan, reference).figures().values():
        if figure.formula:
            assert again(figure) == pytest.approx(figure.number, rel=1e-9, abs=1e-9), figure.key
            checked += 1
        elif figure.origin == COMPUTED and figure.value is not None:
            # A computed figure without a formula must say in words where it comes from.
            assert figure.source, figure.key
    assert checked > 150


@pytest.mark.parametrize("rig", data.DEMO_RIGS)
def test_every_figure_can_be_traced_to_what_was_put_in(demo_results, rig) -> None:
    results = demo_results(rig)
    for figure in results.figures().values():
        assert figure.name and figure.unit is not None, figure.key
        assert figure.formula or figure.source or figure.path, figure.key


def test_override_is_marked_and_reaches_the_need(demo_results, reference) -> None:
    plan = demo_results("mulga").plan
    changed = evaluate(replace(plan, overrides={**plan.overrides, "dod.agm": 0.8}), reference)
    before = evaluate(plan, reference)
    dod = changed.need.classes["agm"].dod
    assert (dod.value, dod.origin) == (0.8, "override")
    ratio = before.need.classes["agm"].nameplate_wh.number / changed.need.classes["agm"].nameplate_wh.number
    assert 1.55 < ratio < 1.65  # 0.8/0.5, less what the smaller bank loses to its higher rate


def test_three_house_rules_put_different_nights(demo_results) -> None:
    nights = demo_results("kittiwake").need.nights
    assert sorted(nights.by_rule.values()) == [1, 2, 3]
