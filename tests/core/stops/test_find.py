"""Finding banks: what is dropped and why, the front of the rest, and that it agrees with the checks."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from sampled import sampled
from vast_harbor import data
from vast_harbor.core.cost.pareto import front
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.stops.banks.find import Ceiling, layouts, search, shapes, within
from vast_harbor.core.stops.banks.quick_life_cost import quick_life_cost
from vast_harbor.core.stops.banks.reasons import REASONS
from vast_harbor.core.stops.need import governing_day as days_stop
from vast_harbor.formats import rig_file as files

# What a check stops on that Find does not look at: a step of a purchase.
ELSEWHERE = {"mixed_ages"}


def plan_of(name: str, **changes):
    return replace(
        files.to_plan(files.read(data.demo_rig(name), data.reference()), data.reference()), **changes
    )


def look_at(plan):
    reference = data.reference()
    assumptions = reference.assumptions(plan.house_rule, plan.overrides)
    return quick_life_cost(plan, reference, assumptions, days_stop.evaluate(plan, reference, assumptions))


@pytest.mark.parametrize("name", sampled(["kittiwake", "long-haul"], "long-haul"))
def test_find_and_the_checks_agree_on_every_bank(name, reference) -> None:
    # Some candidates at a time through the full checks; Find's plain reasons must say the same of each.
    # Find works lives out directly, as the checks do of a rig whose sources are not known.
    plan = plan_of(name, sources=())
    look = look_at(plan)
    banks = [b for m in plan.models.values() for b in layouts(m, plan.system_v)]
    for start in range(0, len(banks), 24):
        some = banks[start : start + 24]
        candidates = tuple(
            Candidate(f"c{i}", b.model.battery_class.key, b.model.id, b.series, b.parallel)
            for i, b in enumerate(some)
        )
        results = evaluate(replace(plan, candidates=candidates), reference, found=())
        compared_banks = {c.banked.candidate.id: c for c in results.compare.compared_banks}
        for bank, banked in zip(some, results.banks.candidates, strict=True):
            stops = {f.code for f in banked.findings if f.severity == "blocking"} - ELSEWHERE
            said = {key for key, reason in REASONS.items() if stops & set(reason.codes)}
            assert said == set(look.rig_limits.against(bank)), bank.model.id
            assert stops <= {code for key in said for code in REASONS[key].codes}, bank.model.id
            assert banked["usable_wh"].number == pytest.approx(look.rig_limits.usable_wh(bank))
            assert banked["purchase"].number == pytest.approx(look.purchase(bank))
            compared = compared_banks[banked.candidate.id]
            assert compared.life.years == pytest.approx(look.years(bank)), bank.model.id
            cost = compared.cost
            bare = cost["lifetime_planned"].number - cost["extra_cost"].number - cost["again"].number
            assert bare == pytest.approx(look.lifetime(bank)), bank.model.id


@given(st.lists(st.tuples(*[st.integers(0, 6)] * 3), max_size=25))
def test_nothing_on_the_front_is_beaten_and_all_else_is(rows) -> None:
    costs = np.array(rows, dtype=float).reshape(-1, 3)
    kept = front(costs)

    def beaten(i: int) -> bool:
        return any((costs[j] <= costs[i]).all() and (costs[j] < costs[i]).any() for j in range(len(costs)))

    assert [beaten(i) for i in range(len(costs))] == [not k for k in kept]


def test_every_model_is_either_found_or_told_why_not(reference) -> None:
    plan = plan_of("pebble")
    found = search(look_at(plan), plan.models)
    good = {f.bank.model.id for f in found.found}
    assert good | set(found.reasons) == set(plan.models) and not good & set(found.reasons)
    assert sum(found.dropped.values()) == len(found.reasons)
    assert found.reasons["quenby-48-100"] == ("volts",)
    assert "switch" in found.reasons["moule-bare-230"]
    # The caravan's coupling bears 7 kg more; at 2.3 m ahead of an axle 3.1 m back that is 9.4 kg.
    assert "weight" in found.reasons["hollin-2-600"]
    lifetimes = [f.lifetime for f in found.found]
    assert lifetimes == sorted(lifetimes) and found.found[0].front


@pytest.mark.parametrize("name", ["long-haul", "pebble", "kittiwake"])
def test_find_knows_what_the_tool_would_propose_and_at_the_same_cost(name, reference) -> None:
    # What can be put right, such as a vented box for flooded cells, is priced in both places.
    plan = plan_of(name)
    proposals = evaluate(plan, reference, found=()).banks.proposals
    found = {f.bank: f for f in search(look_at(plan), plan.models, proposals.search.extras_cost).found}
    for key in reference.classes:
        for priced in proposals[key].suitable:
            assert priced.bank in found, priced.bank.model.id
            assert found[priced.bank].lifetime == pytest.approx(priced.lifetime)
            assert found[priced.bank].purchase == pytest.approx(priced.outlay)


def test_within_a_ceiling_the_most_nights(reference) -> None:
    plan = plan_of("mulga")
    look = look_at(plan)
    best = within(look, plan.models, Ceiling(money=1300, space=True))
    assert best and all(w.found.purchase <= 1300 for w in best)
    assert [w.found.usable_wh for w in best] == sorted((w.found.usable_wh for w in best), reverse=True)
    lfp = next(w for w in best if w.found.bank.model.battery_class.key == "lfp")
    day = look.rig_limits.days.day.bank_wh.number
    assert lfp.found.nights == pytest.approx(lfp.found.usable_wh / day)
    assert 0 < lfp.covered < 1 and lfp.next_string == pytest.approx(look.price(lfp.found.bank.model))
    # A lead-acid string must not be added later.
    assert all(w.next_string is None for w in best if w.found.bank.model.battery_class.is_lead_acid)
    richer = within(look, plan.models, Ceiling(money=4000, space=True))
    assert max(w.found.usable_wh for w in richer) >= max(w.found.usable_wh for w in best)


def test_one_large_against_several_small() -> None:
    plan = plan_of("pebble", loading=replace(plan_of("pebble").loading, coupling_max_kg=200.0))
    look = look_at(plan)
    pair = shapes(look, search(look, plan.models).found, "lfp")
    assert pair is not None
    few, many = pair
    assert few.found.bank.units == 1 and few.one_gone_wh == 0 and few.joints == 2
    assert many.found.bank.units > 1 and many.one_gone_wh > 0 and many.joints == 2 * many.found.bank.units
