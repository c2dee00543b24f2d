"""Single steps of the judgement, each by an example that only the right rule passes."""

from dataclasses import replace
from functools import partial

import pytest

from vast_harbor.core import passage
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.day_types import HOOK_UP, OFF_GRID, DayType
from vast_harbor.core.rig.loads import AC, DC, Load
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.stops.banks.criteria import Criterion
from vast_harbor.core.stops.need.label_requirement import label_requirement

# Only the owner's candidates are judged here; the catalogue has tests of its own.
evaluate = partial(passage.evaluate, found=())

LAMP = Load("lamp", "Lamp", DC, Draw(50, "W"), 12, hours=24)


def test_the_label_makes_up_for_age(evaluated, reference) -> None:
    # 1200 Wh · 2 nights · 1.25 = 3000 Wh; LFP at 25 °C: 3000 / (0.9 · 12.8) = 260.417 Ah when new.
    for allowance, ah in ((1.0, 260.417), (0.9, 289.352), (0.8, 325.521)):
        over = {"ageing_allowance": allowance, "temperature_factor.lfp": 1.0, "peukert.lfp": 1.0}
        results = evaluated((LAMP,), battery_c=25, overrides=over)
        assert results.need.classes["lfp"].nameplate_ah.number == pytest.approx(ah, abs=1e-3)
        plain = label_requirement(results.plan, reference, results.assumptions, results.day)
        assert plain.label_ah["lfp"] == pytest.approx(ah, abs=1e-3)


def test_a_hard_moment_on_hook_up_asks_nothing_of_the_bank(evaluated) -> None:
    # The 2 kW heater runs on hook-up only; off-grid the hardest moment is the 300 W drill.
    types = (DayType("away", "Away", OFF_GRID), DayType("mains", "On mains", HOOK_UP))
    heater = Load("h", "Heater", AC, Draw(2000, "W"), 230, hours=5, on={"away": None})
    drill = Load("d", "Drill", DC, Draw(300, "W"), 12, hours=0.5)
    days = evaluated((heater, drill), day_types=types).days
    assert days.days["mains"].peak.watts > 2000
    assert days.hardest.type.id == "away" and days.hardest.peak.watts == pytest.approx(300, abs=20)


@pytest.mark.parametrize(
    ("quantity", "start_w", "watts"),
    [
        (1, 600, 600),  # one starts
        (3, 600, 600 + 2 * 100),  # one starts while the other two run
        (3, 50, 3 * 100),  # what starts on less than it runs at
    ],
)
def test_several_of_a_kind_do_not_start_at_once(evaluated, quantity, start_w, watts) -> None:
    pump = Load("p", "Pump", DC, Draw(100, "W"), 12, hours=2, quantity=quantity, start_w=start_w, start_s=5)
    assert evaluated((pump,)).day.peak.watts == pytest.approx(watts)


@pytest.mark.parametrize(
    ("value", "limit", "is_minimum", "broken", "margin"),
    [
        (10, 12, False, False, 2),
        (12, 12, False, False, 0),
        (12.001, 12, False, True, -0.001),
        (12.000001, 12, False, False, -0.000001),  # rounding
        (10, 12, True, True, -2),
        (12, 12, True, False, 0),
        (-3, 0, True, True, -3),
        (0, 0, True, False, 0),
    ],
)
def test_a_criterion_is_broken_on_the_wrong_side_only(value, limit, is_minimum, broken, margin) -> None:
    criterion = Criterion(value, limit, is_minimum)
    assert criterion.broken is broken
    assert criterion.margin == pytest.approx(margin)


def test_a_bank_far_dearer_is_never_near(demo_results, reference) -> None:
    # On this barge gel, AGM and LFP cost about the same; the lightest, at ten times its price, does not.
    plan = demo_results("kittiwake").plan
    by_id = {c.id: c for c in plan.candidates}
    dear = replace(by_id["lfp"], id="dear", unit_price=9000.0)
    wide = plan.overrides | {"verdict_near": 0.0, "verdict_clear": 1.0}
    plan = replace(plan, candidates=(by_id["gel"], by_id["agm"], dear), overrides=wide)
    verdict = evaluate(plan, reference).verdict
    assert "dear" in {c.id for c in verdict.suitable} and not verdict.beaten(verdict.compared_banks[2])
    assert "dear" not in {c.id for c in verdict.near}
    # It is the limit of cost that keeps it out, nothing else.
    unlimited = replace(plan, overrides=wide | {"verdict_within": 50.0})
    assert "dear" in {c.id for c in evaluate(unlimited, reference).verdict.near}


CARE_PAIRS = [("purse",), ("weight", "cold"), ("big_loads",), ("long_keeping", "no_upkeep"), ()]


@pytest.mark.parametrize("cares", CARE_PAIRS)
@pytest.mark.parametrize("more", [0.03, 0.09, 0.3])
def test_what_another_beats_in_everything_never_wins(evaluated, cares, more) -> None:
    # The same bank twice, one at a somewhat higher price: no care, and no luck of the draws, makes it win.
    price = 600.0
    candidates = (
        Candidate("dear", "lfp", "ostrel-200", 1, 2, unit_price=price * (1 + more)),
        Candidate("plain", "lfp", "ostrel-200", 1, 2, unit_price=price),
    )
    verdict = evaluated((LAMP,), battery_c=20, candidates=candidates, cares=cares).verdict
    dear, plain = verdict.compared_banks
    assert verdict.beaten(dear) and not verdict.beaten(plain)
    assert verdict.winner is plain and dear not in verdict.near


def test_the_futures_that_turn_out_dear_are_weighed(demo_results, reference) -> None:
    # AGM asks less on the day than LFP, but costs more in the middle and 900 more in one future of ten.
    plan = demo_results("kittiwake").plan
    pair = (
        Candidate("agm", "agm", "tarnmoor-220", 1, 3),
        Candidate("lfp", "lfp", "ostrel-200", 1, 2, unit_price=540.0),
    )

    def at(risk: float, **overrides):
        wide = {"verdict_risk": risk, "verdict_clear": 1.0, "verdict_near": 0.0} | overrides
        changed = replace(plan, candidates=pair, cares=(), overrides=plan.overrides | wide)
        return evaluate(changed, reference).verdict

    weighed = at(0.5)
    agm, lfp = (weighed.spreads[i] for i in ("agm", "lfp"))
    assert agm[1].number > lfp[1].number and agm[2].number > lfp[2].number + 900
    for id_, (_, p50, p90) in weighed.spreads.items():
        assert weighed.weighed[id_] == pytest.approx(p50.number + 0.5 * (p90.number - p50.number))
    assert weighed.winner.id == "lfp" and [c.id for c in weighed.near] == ["lfp"]
    # Without that weight they are alike in the middle, and the one that asks less on the day is taken.
    unweighed = at(0.0)
    assert unweighed.winner.id == "agm" and unweighed.decided[1] == ""
    # Where both are let in, cost decides before the price on the day.
    both = at(0.5, verdict_within=1.0)
    assert both.winner.id == "lfp" and both.decided[1] == "risk"


def test_the_runner_up_is_the_likeliest_of_the_rest(demo_results, reference) -> None:
    sunny = demo_results("mulga").plan
    sunny = replace(sunny, sources=tuple(replace(s, watts=640.0) if s.watts else s for s in sunny.sources))
    seen = 0
    for results in (
        passage.evaluate(sunny, reference),
        *map(demo_results, ("kittiwake", "long-haul", "pebble")),
    ):
        verdict = results.verdict
        rest = [c for c in verdict.near if c is not verdict.winner]
        rest = rest or [c for c in verdict.suitable if c is not verdict.winner]
        if verdict.kind != "buy" or len(rest) < 2:
            continue
        shares = sorted(verdict.shares[c.id].number for c in rest)
        assert verdict.shares[verdict.runner_up.id].number == shares[-1]
        seen += shares[0] < shares[-1]
    assert seen >= 1


def test_of_two_that_are_left_the_likelier_is_the_runner_up(evaluated, reference) -> None:
    candidates = (
        Candidate("cheap", "lfp", "ostrel-200", 1, 2, unit_price=100.0),
        Candidate("next", "lfp", "ostrel-200", 1, 2, unit_price=140.0),
        Candidate("last", "lfp", "ostrel-200", 1, 2, unit_price=900.0),
    )
    verdict = evaluated((LAMP,), off_grid_nights=60, battery_c=20, candidates=candidates).verdict
    assert verdict.winner.id == "cheap" and verdict.runner_up.id == "next"
