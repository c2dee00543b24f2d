"""Laws over random rigs: what may not change the answer, and which way it may move.

A few rigs in the suite; ``make laws`` tries hundreds (``LAWS=500``).
"""

import os
from dataclasses import replace

import numpy as np
import pytest

from energy_balance import at_bus_wh, in_bank_wh
from random_rigs import random_plan, scaled_loads, split_loads
from sampled import sampled
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.sources import SOLAR
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.simulation.run import run
from vast_harbor.core.stops.compare import BUY, ComparedBank, verdict_text
from vast_harbor.core.stops.trial.simulated_banks import simulated_candidate
from vast_harbor.telling.figures import sentence_text

SEEDS = range(int(os.environ.get("LAWS", "1")))
# What a small change may change at most: the tenth part that is rounded, the next size of a battery.
SMALL, LITTLE = 0.03, 0.15
# What is found may cost so much more than the best: another must do better by a margin, and by risk.
FOUND = 0.08
# Stays of other lengths fall on other days, and draws are many but not endless.
ROUNDING = 0.02


def cost(results: Results) -> float | None:
    """The least lifetime cost of a bank that will do [money]; None where none will."""
    costs = [c.cost["lifetime"].number for c in results.verdict.suitable]
    return min(costs, default=None)


def by_bank(results: Results) -> dict[Bank, tuple[float, float]]:
    """Lifetime cost and extras of each bank that will do [money]."""
    return {
        c.banked.bank: (c.cost["lifetime"].number, c.cost["extra_cost"].number)
        for c in results.verdict.suitable
        if c.banked.bank is not None
    }


def few_of_the_rest(plan: Plan, factor: float) -> float:
    """A factor on the nights, or 1 where it would change the few days that are left to charge by a tenth."""
    free = YearCalendar(plan).days_of_use - plan.off_grid_nights
    return 1.0 if 0 < free < abs(factor - 1) * plan.off_grid_nights / 0.1 else factor


def lacks_share(compared: ComparedBank) -> float:
    """Share of the energy asked off-grid that a bank does not supply in its year [-]."""
    missing, taken = compared.year["unserved"].number, compared.year["through"].number
    return missing / max(1e-9, missing + taken)


def is_lead(compared: ComparedBank) -> bool:
    return compared.banked.bank.model.battery_class.is_lead_acid


def answer(results: Results) -> tuple[str, str]:
    winner = results.verdict.winner
    return results.verdict.kind, "" if winner is None else winner.banked.bank.model.id


@pytest.fixture(scope="module", params=SEEDS)
def rig(request, reference):
    plan = random_plan(np.random.default_rng(1000 + request.param), reference)
    return plan, evaluate(plan, reference)


@pytest.fixture(scope="module", params=SEEDS)
def buying(request, reference):
    """A rig with sun for which a bank is bought: what is sought among the next of its seed."""
    rng = np.random.default_rng(5000 + request.param)
    while True:
        plan = random_plan(rng, reference)
        if any(s.kind == SOLAR for s in plan.sources):
            results = evaluate(plan, reference)
            if results.verdict.kind == BUY:
                return plan, results


def test_what_says_the_same_changes_nothing(rig, reference) -> None:
    plan, results = rig
    confirmed = {key: results.assumptions.value(key) for key in ("night_elsewhere", "mains_share")}
    for same in (
        split_loads(plan),
        replace(plan, loads=plan.loads[::-1], sources=plan.sources[::-1], overrides=confirmed),
    ):
        again = evaluate(same, reference)
        assert answer(again) == answer(results)
        before = cost(results)
        assert cost(again) == (None if before is None else pytest.approx(before, rel=1e-6))


def test_the_rows_of_a_day_add_up_to_the_day(rig) -> None:
    for day in rig[1].days.days.values():
        rows = sum(one.from_bank_wh for one in day.loads) + day.idle_wh.number + day.standby_wh.number
        assert day.listed_wh.number == pytest.approx(rows, abs=1e-6)


def test_twice_the_prices_are_twice_the_cost(rig, reference) -> None:
    plan, results = rig
    twice = evaluate(replace(plan, overrides={"price_factor": 2.0}), reference)
    assert answer(twice) == answer(results)
    if cost(results) is not None:
        assert cost(twice) == pytest.approx(2 * cost(results), rel=1e-6)


def test_energy_closes_over_a_year(buying) -> None:
    _, results = buying
    runs = results.simulated
    builds = [c.banked.build for c in results.verdict.compared_banks if c.banked.build is not None]
    assert runs.has_year and builds
    for made in map(simulated_candidate, builds):
        days = runs.year_plan.conditions
        traces = run([made], days, longer=True)[0]
        moved = max(1.0, float(np.abs(traces.bank_w).sum() * days.step_h))
        assert abs(at_bus_wh(traces, days.step_h).sum()) < 1e-6 * moved
        assert abs(in_bank_wh(made, traces, days.step_h).sum()) < 1e-6 * moved


def test_a_little_more_or_less_of_anything_changes_little(buying, reference) -> None:
    plan, results = buying
    for factor in sampled((1 - SMALL, 1 + SMALL), 1 + SMALL):
        sources = tuple(
            replace(s, watts=s.watts and s.watts * factor, amps=s.amps and s.amps * factor)
            for s in plan.sources
        )
        for near in (
            scaled_loads(plan, factor),
            replace(plan, off_grid_nights=plan.off_grid_nights * few_of_the_rest(plan, factor)),
            replace(plan, sources=sources),
            replace(plan, overrides={"price_factor": factor}),
        ):
            there = evaluate(near, reference)
            for one, other in ((results, there), (there, results)):
                if other.verdict.kind != BUY:
                    continue
                # The bank of one there: it costs about the same, but for what lacks energy more often; and
                # what is found there is as good. Where it no longer will do the step is a whole battery.
                best = min(one.verdict.suitable, key=lambda c: c.cost["lifetime"].number)
                beside = evaluate(other.plan, reference, found=[best.banked.bank]).verdict
                same = next(c for c in beside.compared_banks if c.banked.bank == best.banked.bank)
                if same in beside.suitable:
                    here, then = (c.cost["lifetime"].number for c in (best, same))
                    lacks = abs(same.cost.inputs.elsewhere - best.cost.inputs.elsewhere) * plan.years_kept
                    assert abs(then - here) <= LITTLE * here + lacks
                    assert cost(other) <= then * (1 + FOUND)
                assert lacks_share(same) == pytest.approx(lacks_share(best), abs=2 * SMALL)


def test_more_nights_and_years_never_turn_from_lithium_to_lead(buying, reference) -> None:
    plan, results = buying
    if is_lead(results.verdict.winner):
        return
    for more in (
        replace(plan, off_grid_nights=min(365.0, plan.off_grid_nights * 1.4)),
        replace(plan, years_kept=plan.years_kept + 4),
    ):
        verdict = evaluate(more, reference).verdict
        least = {
            lead: min(
                (c.cost["lifetime"].number for c in verdict.suitable if is_lead(c) is lead), default=np.inf
            )
            for lead in (True, False)
        }
        assert least[False] <= least[True] * (1 + ROUNDING)


def test_a_worse_copy_changes_nothing_and_a_better_or_cheaper_one_is_never_dearer(buying, reference) -> None:
    plan, results = buying
    winner = results.verdict.winner
    model = winner.banked.bank.model
    worse = replace(model, id="worse", name="Worse", price=model.price * 1.3, kg=model.kg * 1.05)
    again = evaluate(replace(plan, models={**plan.models, "worse": worse}), reference)
    assert answer(again) == answer(results)
    longer = tuple((depth, cycles * 1.2) for depth, cycles in model.cycles)
    for change in ({"price": model.price * 0.8}, {"cycles": longer, "kg": model.kg * 0.95}):
        copy = replace(model, id="copy", name="Copy", **change)
        again = evaluate(replace(plan, models={**plan.models, "copy": copy}), reference)
        # One of another datasheet meets futures of its own.
        assert cost(again) <= cost(results) * (1 + ROUNDING)


def test_more_money_and_more_tolerance_are_never_dearer(buying, reference) -> None:
    plan, results = buying
    outlay = results.verdict.winner.cost["outlay"].number

    def told(**more) -> tuple[float, float]:
        again = evaluate(replace(plan, **more), reference)
        return cost(again), again.verdict.winner.cost["lifetime"].number

    for less, more in (
        ({"budget": outlay / 2}, {"budget": outlay * 2}),
        ({"overrides": {"verdict_critical": 0.0}}, {"overrides": {"verdict_critical": 0.1}}),
    ):
        for strict, free in zip(told(**less), told(**more), strict=True):
            assert free <= strict * (1 + ROUNDING)


def test_more_payload_is_never_dearer_and_more_use_never_cheaper(buying, reference) -> None:
    plan, results = buying
    free = evaluate(replace(plan, loading=replace(plan.loading, payload_kg=5000.0)), reference)
    assert cost(free) <= cost(results) * (1 + ROUNDING)
    more = evaluate(scaled_loads(plan, 1.5), reference)
    assert cost(more) is None or cost(more) >= cost(results) * (1 - ROUNDING)


def test_more_sun_is_never_dearer(buying, reference) -> None:
    plan, results = buying
    bright = tuple(replace(s, watts=s.watts * 1.5) if s.kind == SOLAR else s for s in plan.sources)
    # The same banks: a larger array may be too much for a small one. Its cables and fuses are larger, too.
    found = [c.banked.bank for c in results.verdict.compared_banks]
    before, after = by_bank(results), by_bank(evaluate(replace(plan, sources=bright), reference, found=found))
    for bank in before.keys() & after.keys():
        (cost_before, extras_before), (cost_after, extras_after) = before[bank], after[bank]
        larger = max(0.0, extras_after - extras_before)
        assert cost_after <= cost_before * (1 + ROUNDING) + larger


def test_text_figures_and_strip_name_the_same_bank_and_cost(buying) -> None:
    _, results = buying
    verdict = results.verdict
    winner, style = verdict.winner, Style()
    assert winner.banked.bank.model.title in sentence_text(verdict_text.headline(verdict), style)
    total = winner.cost["lifetime"]
    assert total.number == pytest.approx(verdict.spreads[winner.id][1].number)
    assert style.text(total.number, "money") in " ".join(
        sentence_text(s, style) for s in verdict_text.card(verdict)
    )
    parts = winner.cost
    assert parts["lifetime"].number == pytest.approx(parts["lifetime_planned"].number + parts["doubt"].number)
