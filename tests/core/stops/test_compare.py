"""The comparison: a whole rig worked by hand, the plain sentence, the rows, and the same label."""

from dataclasses import replace
from functools import partial

import pytest

from vast_harbor.core import passage
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate, Extra
from vast_harbor.telling.figures import sentence_text

# Only the owner's candidates are judged here; the catalogue has tests of its own.
evaluate = partial(passage.evaluate, found=())

LAMP = (Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24),)


def test_a_small_caravan_by_hand_where_lead_acid_wins(evaluated) -> None:
    # One load: 15 W all day, 360 Wh. One night, reserve 0.25: need 450 Wh. Battery at 25 °C, so k_T 1.
    # 10 off-grid nights a year, kept 8 years: 10 charges a year; 10·360/450 = 8 plan cycles a year, 64 in
    # all.
    #
    # Flooded 110 Ah: label 1320 Wh, DoD 0.5, age 0.9: 594 Wh usable. I = 15/12 = 1.25 A, below 5.5 A, so
    # k_rate is 1.
    #   Depth 360/1320 = 0.272727; N = 300 · (0.5/0.272727)^1.15 = 602.36; 10/602.36 = 0.016601 a year.
    #   Age 1/4.5 = 0.222222 (rest at 15 °C and in use at 25 °C are both cool). Accident 0.05.
    #   Together 0.288823: 3.46233 years, ended by age. Replaced at 3.46 and 6.92 years.
    #   129 + 129·1.02^3.46233 + 129·1.02^6.92466 − 2 · 26·0.5 of scrap; left
    #   1 − (8 − 6.92466)/3.46233 = 0.68942,
    #   credit 0.5·0.68942·129·1.02^8 = 52.1013. Energy lost: 3.6 kWh · (1/0.75 − 1) · 0.35 · 0.5 · 8 = 1.68.
    #   129 + 138.1580 + 147.9662 − 26 + 1.68 − 52.1013 = 338.7029; per cycle 338.7029/64 = 5.2922.
    #
    # LFP 60 Ah with a charger of 165: label 768 Wh, DoD 0.9, age 0.9: 622.08 Wh usable.
    #   It serves to max(360/691.2, 0.6) = 0.6: wear 2. Depth 0.46875: N = 3000·(0.8/0.46875)^1.15 = 5547.5;
    #   10/5547.5 = 0.0018026; age 1/14 = 0.0714286; together 0.0732312: 27.31 years, but its
    #   electronics last 16. Never replaced. Left 1 − 8/16 = 0.5; credit 0.5·0.5·269·0.95^8 = 44.6150.
    #   Lost: 3.6·(1/0.94−1)·0.175·8 = 0.321702. 269 + 165 + 0.3217 − 44.6150 = 389.7067; per cycle 6.0892.
    results = evaluated(
        (Load("a", "Control", DC, Draw(15, "W"), 12, hours=24),),
        off_grid_nights=10,
        place="outside_box",
        years_kept=8,
        battery_c=25,
        overrides={"nights": 1, "water_cost": 0},
        candidates=(
            Candidate("f", "flooded_dual", "marram-110", 1, 1),
            Candidate("l", "lfp", "ostrel-60", 1, 1, extras=(Extra("Charger", 165),)),
        ),
    )
    flooded, lfp = results.compare.compared_banks
    assert results.need.energy.value == pytest.approx(450)
    assert flooded.banked["usable_wh"].value == pytest.approx(594)
    assert lfp.banked["usable_wh"].value == pytest.approx(622.08)
    assert flooded.life.years == pytest.approx(3.46233, abs=1e-4)
    assert lfp.life.years == 16 and 2 / lfp.life["wear"].number == pytest.approx(27.3108, abs=2e-3)
    assert (flooded.life.ends, lfp.life.ends) == ("years", "electronics")
    assert flooded.cost["cycles_made"].value == pytest.approx(64)
    assert flooded.cost["lifetime_planned"].value == pytest.approx(338.703, abs=0.01)
    assert lfp.cost["lifetime_planned"].value == pytest.approx(389.707, abs=0.01)
    # What is told is the middle of the scenarios, and what a cycle costs follows from it.
    for compared in (flooded, lfp):
        total = compared.cost["lifetime"].number
        assert total == pytest.approx(results.verdict.spreads[compared.id][1].number)
        assert compared.cost["per_cycle"].value == pytest.approx(total / 64)
    assert lfp.cost["per_cycle_bare"].value == pytest.approx((lfp.cost["lifetime"].number - 165) / 64)
    # Used and without extras the answer is the other one: both are shown.
    assert lfp.cost["per_cycle_bare"].number < flooded.cost["per_cycle_bare"].number
    assert "flooded dual-purpose is the cheapest" in results.compare.sentence.template


def sentence(results) -> str:
    return sentence_text(results.compare.sentence, Style())


def test_sentence_presumes_no_winner(evaluated) -> None:
    def says(lead_price: float, lfp_price: float) -> str:
        return sentence(
            evaluated(
                LAMP,
                battery_c=25,
                candidates=(
                    Candidate("a", "agm", "tarnmoor-150", 1, 4, unit_price=lead_price),
                    Candidate("l", "lfp", "ostrel-200", 1, 2, unit_price=lfp_price),
                ),
            )
        )

    assert "AGM is the cheapest" in says(20, 2000)
    assert "LFP is the cheapest" in says(400, 500)
    assert "up-front cost of LFP is higher" not in says(400, 500)
    assert "The up-front cost of LFP is higher: €1\u202f600 compared with €1\u202f200" in says(300, 800)


def test_sentence_calls_like_costs_alike(evaluated) -> None:
    twin = [Candidate(i, "lfp", "ostrel-200", 1, 2, unit_price=p) for i, p in (("a", 500), ("b", 510))]
    assert "cost about the same" in sentence(evaluated(LAMP, candidates=tuple(twin)))


def test_sentence_ranks_those_that_will_do(demo_results) -> None:
    says = sentence(demo_results("tern-rock"))
    assert "Left out as unsuitable: Ostrel Keel 100 × 4" in says
    says = sentence(demo_results("pebble"))
    assert "cheapest of the suitable banks" in says
    assert "Left out as unsuitable: Swap-shop sealed 110 × 1" in says


def test_sentence_asks_for_what_is_missing(evaluated) -> None:
    assert "List the loads" in sentence(evaluated(()))
    assert "at least two banks" in sentence(evaluated(LAMP, candidates=(Candidate("l", "lfp"),)))


def test_headline_rows_come_first_and_best_values_are_marked(demo_results) -> None:
    compare = demo_results("pebble").compare
    assert [r.key for r in compare.rows[:4]] == ["usable_wh", "kg", "design_cycles", "per_cycle"]
    # The swapped one is too heavy for the coupling: nothing of it is best.
    out = [c not in compare.verdict.suitable for c in compare.compared_banks]
    assert out == [False, False, False, True]
    for row in compare.rows:
        values = [None if o else f.value for f, o in zip(row.figures, out, strict=True)]
        known = [v for v in values if v is not None]
        best = {values[i] for i in row.best}
        if row.better and len(set(known)) > 1:
            assert best == {max(known) if row.better == "high" else min(known)}, row.key
        else:
            assert best == set(), row.key


def test_where_one_bank_alone_will_do_nothing_is_best(demo_results, reference) -> None:
    plan = demo_results("tern-rock").plan
    candidates = tuple(c for c in plan.candidates if c.id != "heated")
    compare = evaluate(replace(plan, candidates=candidates), reference, found=()).compare
    assert len(compare.verdict.suitable) == 1
    assert all(row.best == () for row in compare.rows)


def test_same_label_ends_where_the_banks_do(demo_results) -> None:
    # Dividing the price of an amp-hour by volts, depth, temperature, rate, age and years served must end at
    # purchase ÷ usable kWh ÷ years served: nothing is lost or counted twice on the way.
    for name in ("mulga", "long-haul", "pebble"):
        results = demo_results(name)
        last = results.compare.corrections[-1]
        for compared, figure, ratio in zip(
            results.compare.compared_banks, last.figures, last.ratios, strict=True
        ):
            served = min(compared.life.years, results.plan.years_kept)
            usable = compared.banked["usable_wh"].number / 1000
            assert figure.value == pytest.approx(compared.banked["purchase"].number / usable / served)
            assert ratio.value == pytest.approx(figure.number / last.figures[0].number)


def test_same_label_begins_with_the_shop_window(evaluated) -> None:
    # 209 for 100 Ah of AGM is 2.09 per Ah; 389 for 100 Ah of LFP is 3.89: by the label AGM looks better.
    candidates = (Candidate("a", "agm", "tarnmoor-100", 1, 1), Candidate("l", "lfp", "ostrel-100", 1, 1))
    first, second, *_ = evaluated(LAMP, candidates=candidates).compare.corrections
    assert [f.value for f in first.figures] == pytest.approx([2.09, 3.89])
    assert [f.value for f in second.figures] == pytest.approx([2090 / 12, 3890 / 12.8])


def test_nights_without_charging_are_usable_over_the_day(demo_results) -> None:
    for compared in demo_results("mulga").compare.compared_banks:
        day = demo_results("mulga").day.bank_wh.number
        new, end = compared.figures["nights_new"].number, compared.figures["nights_end"].number
        assert new == pytest.approx(compared.banked["usable_new_wh"].number / day)
        assert end == pytest.approx(0.8 * new)


def test_more_nights_off_grid_favour_the_bank_that_lasts(demo_results, reference) -> None:
    plan = demo_results("pebble").plan

    def gap(nights: float) -> float:
        compared_banks = evaluate(replace(plan, off_grid_nights=nights), reference).compare.compared_banks
        lead = min(c.cost["lifetime"].number for c in compared_banks if c.banked.battery_class.is_lead_acid)
        return lead - next(
            c.cost["lifetime"].number for c in compared_banks if c.banked.battery_class.key == "lfp"
        )

    assert gap(9) < 0 < gap(140) and gap(9) < gap(60)


def test_braces_in_a_name_are_only_braces(evaluated, reference) -> None:
    model = replace(reference.catalogue["ostrel-200"], id="odd", name="{x} }{", own=True)
    candidates = tuple(
        Candidate(i, "lfp", "odd", 1, n, unit_price=p) for i, n, p in (("a", 2, 500), ("b", 3, 900))
    )
    says = sentence(evaluated(LAMP, candidates=candidates, models={"odd": model}))
    assert "{x} }{ × 2" in says


def test_cost_per_plan_cycle_times_the_cycles_made_is_the_cost(demo_results) -> None:
    for name in ("kittiwake", "pebble", "mulga"):
        compare = demo_results(name, found=()).compare
        rows = {r.key: r.figures for r in compare.rows}
        for per, made, cost in zip(rows["per_cycle"], rows["cycles_made"], rows["lifetime"], strict=True):
            if per.value is not None:
                assert per.number * made.number == pytest.approx(cost.number)
