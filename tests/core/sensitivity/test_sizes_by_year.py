"""Sizing by the year: the halving finds what running every bank finds, and the rule is judged by it."""

import numpy as np
import pytest

from random_rigs import random_plan
from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import evaluate
from vast_harbor.core.sensitivity.figure_lookup import asked_figure
from vast_harbor.core.sensitivity.sizes_by_year import AGREE, JUDGED, SHARES, sizes_by_year
from vast_harbor.core.stops.banks import of_bank
from vast_harbor.core.stops.compare import LEVELS
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_plan import to_plan
from vast_harbor.telling.figures import sentence_text

# Two banks of nearly the same size may serve the nights in the other order: by so much of the need at most.
STEP = 0.1


@pytest.mark.parametrize("name", ["pebble", "long-haul"])
def test_no_clearly_smaller_bank_of_the_class_serves_as_many_nights(name: str, reference) -> None:
    plan = to_plan(files.read(data.demo_rig(name), reference), reference)
    results = evaluate(plan, reference)
    found = sizes_by_year(results, reference)
    need = results.need.energy.number
    search = results.banks.proposals.search
    for one in found.classes:
        held = {p.bank for s in SHARES for p in search.holding(one.battery_class.key, s * need, 1)}
        made = [of_bank(results.banks.rig_limits, bank, None) for bank in held]
        served = [
            (m["usable_wh"].number, results.simulated.year_of_build(m.build)["served_share"].number)
            for m in made
        ]
        for share, size in zip(LEVELS, one.sizes, strict=True):
            serving = [usable for usable, s in served if s >= share - 1e-9]
            if size is None:
                assert not serving or min(serving) < max(usable for usable, _ in served)
                continue
            assert size.served.number >= share - 1e-9 and size.bank in held
            assert asked_figure(size.usable.key, results, reference) is size.usable
            assert size.usable.number <= min(serving) + STEP * need
        usable = [size.usable.number for size in one.sizes if size is not None]
        assert usable == sorted(usable)


@pytest.mark.parametrize(
    ("seed", "way"),
    [(3, "leaves you a margin"), (6, "asks for more"), (20, "agree"), (11, "No bank that would do here")],
)
def test_the_rule_is_said_to_ask_for_more_less_or_the_same(seed: int, way: str, reference) -> None:
    results = evaluate(random_plan(np.random.default_rng(seed), reference), reference)
    found = sizes_by_year(results, reference)
    judged = [s for one in found.classes for s in one.sizes if s is not None and s.share == JUDGED]
    text = sentence_text(found.says, Style())
    assert way in text
    if not judged:
        assert way == "No bank that would do here"
        return
    least = min(judged, key=lambda s: s.usable.number)
    apart = least.usable.number / results.need.energy.number - 1
    told = "agree" if abs(apart) <= AGREE else "leaves you a margin" if apart < 0 else "asks for more"
    assert way == told and Style().text(least.usable.number, "Wh") in text


def test_it_says_why_a_class_needs_so_much_more_than_another(demo_results, reference) -> None:
    def why(name: str) -> dict[str, str]:
        found = sizes_by_year(demo_results(name), reference)
        return {c.battery_class.key: sentence_text(c.why, Style()) for c in found.classes if c.why}

    # On the winter island no LFP bank serves enough, whatever its size; the cold stands against it there.
    assert why("tern-rock") == {
        "lfp": "On the coldest days its heater takes the charge first.",
        "gel": "No smaller bank of this class will do here, whatever the nights.",
    }
    # The caravan asks for little: the smallest LFP bank that will do there serves every night.
    assert "No smaller bank of this class" in why("pebble")["lfp"]
