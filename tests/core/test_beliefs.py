"""Common beliefs on the demo rigs: other rigs, other answers, and the figures of the other screens."""

import pytest

from vast_harbor.core.beliefs import FALSE, HALF, TRUE, UNKNOWN, beliefs
from vast_harbor.core.sensitivity.figure_lookup import asked_figure
from vast_harbor.phrases import places

RIGS = ("kittiwake", "tern-rock", "mulga", "pebble", "long-haul")


@pytest.fixture(scope="module")
def answers(demo_results, reference):
    return {rig: {b.key: b for b in beliefs(demo_results(rig), reference)} for rig in RIGS}


def test_at_least_fifteen_are_true_on_one_rig_and_not_on_another(answers) -> None:
    keys = answers["pebble"].keys()
    assert len(keys) == 25
    differ = {key for key in keys if len({answers[rig][key].answer for rig in RIGS} - {UNKNOWN}) > 1}
    assert len(differ) >= 15, sorted(differ)


def test_each_says_by_which_two_figures_and_what_follows(answers) -> None:
    for rig in RIGS:
        for belief in answers[rig].values():
            assert set(places(belief.says.template)) == set(belief.says.figures), belief.key
            assert (belief.answer == UNKNOWN) == (not belief.compared)
            assert belief.answer == UNKNOWN or (len(belief.compared) == 2 and belief.follows.endswith("."))


def test_the_answers_are_those_of_the_other_screens(answers, demo_results) -> None:
    for rig in RIGS:
        results, belief = demo_results(rig), answers[rig]["lfp_cheaper"]
        if belief.answer == UNKNOWN:
            continue
        lfp, lead = (f.number for f in belief.compared)
        costs = {c.cost["lifetime"].value for c in results.verdict.compared_banks}
        assert {lfp, lead} <= costs
        by_cost = TRUE if lfp < 0.97 * lead else HALF if lfp <= 1.03 * lead else FALSE
        # What does not suit is no bargain, and the verdict is never contradicted.
        assert belief.answer in (by_cost, HALF)
        winner = results.verdict.winner
        if results.verdict.kind == "buy":
            assert belief.answer != (TRUE if winner.banked.battery_class.is_lead_acid else FALSE)
        one_suits = [
            any(c.cost["lifetime"].value == f.value for c in results.verdict.suitable)
            for f in belief.compared
        ]
        assert all(one_suits) or belief.answer == HALF
    warm, cold = answers["mulga"]["lfp_fails_in_cold"], answers["tern-rock"]["lfp_fails_in_cold"]
    # The bank that is bought there has a heater of its own.
    assert (warm.answer, cold.answer) == (FALSE, FALSE)
    assert answers["tern-rock"]["lead_better_in_cold"].answer == FALSE
    assert answers["pebble"]["hook_up_needs_no_lfp"].answer == TRUE


def test_no_belief_contradicts_the_verdict(answers, demo_results) -> None:
    for rig in RIGS:
        verdict, told = demo_results(rig).verdict, answers[rig]
        lfp = [c for c in verdict.suitable if not c.banked.battery_class.is_lead_acid]
        if not lfp and told["lfp_drops_in"].answer != UNKNOWN:
            assert told["lfp_drops_in"].answer == FALSE
        if verdict.kind == "buy" and verdict.winner.banked.bank.model.unit_class_v != 6:
            assert told["six_volt_is_best_value"].answer != TRUE


def test_by_hand_a_hundred_watts_of_panel_give_less_at_twice_the_volts(answers) -> None:
    # Long Haul has 24 V: the same watts are half the amps.
    amps, said = answers["long-haul"]["six_amps_per_100_w"].compared
    assert said.value == 6 and 0 < amps.number * 28 <= 95
    one, other = answers["long-haul"]["equal_ah"].compared
    assert (one.value, other.value) == (2400, 1200)
    assert answers["long-haul"]["equal_ah"].answer == FALSE


def test_voltages_are_those_of_the_system(answers) -> None:
    for key, volts_12 in (
        ("v13_5_fills_lfp", 13.5),
        ("v13_after_charge_is_full", 13.0),
        ("v12_1_is_half", 12.1),
    ):
        for rig, n in (("pebble", 1), ("long-haul", 2)):
            belief = answers[rig][key]
            if belief.answer != UNKNOWN:
                assert belief.says.figures["volts"].value == pytest.approx(n * volts_12)
    balance = answers["long-haul"]["v13_5_fills_lfp"].says.figures.get("balance")
    assert balance is None or 27 <= balance.number <= 29


def test_every_figure_opens_its_workings(answers, demo_results, reference) -> None:
    results = demo_results("pebble")
    known = results.figures()
    for belief in answers["pebble"].values():
        for figure in belief.says.figures.values():
            assert figure.key in known or asked_figure(figure.key, results, reference) is not None, figure.key
