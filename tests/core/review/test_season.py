"""The season review: it sees what the log says, and stays with the plan where the log says the same."""

from dataclasses import replace
from math import isnan

import numpy as np
import pytest

from vast_harbor.core.battery.health_signs import HealthSign
from vast_harbor.core.figures.normal import Z_90
from vast_harbor.core.log.followed_bank import of_bought, of_old
from vast_harbor.core.log.health import TEST, Measured, followed
from vast_harbor.core.log.readings import Hours
from vast_harbor.core.log.use import use_by_kind
from vast_harbor.core.passage import evaluate
from vast_harbor.core.review.season import CHARGE, HEALTH, OVER, PREPARE, SMALL, UNKNOWN, USE, WAIT, review
from vast_harbor.core.review.so_far import SoFar
from vast_harbor.core.rig.loads import DC, Draw, Load
from vast_harbor.core.rig.plan import OldBank
from vast_harbor.core.stops.compare import KEEP

FRIDGE = Load("fridge", "Fridge", DC, Draw(40, "W"), 12, hours=24, duty=0.4)
# 384 Wh a day.
NO_LOG = Hours(np.zeros(0, np.int64), *(np.zeros(0),) * 5, {}, {})


def logged(days: int, watts: float, day: int = 20_600) -> Hours:
    """Hours in which nothing charges and the same power flows."""
    hour = 24 * day + np.arange(24 * days)
    even, none = np.full(len(hour), watts), np.zeros(len(hour))
    return Hours(hour, even * 0 + 3600, none, even / 12, none, even, {}, {})


@pytest.fixture
def rig(evaluated, reference):
    """A plan with an AGM bank of so many amp-hours and years."""

    def build(unit_ah: float, years: float = 4.0):
        old = OldBank(reference.classes["agm"], 12.0, unit_ah, 1, 1, age_years=years)
        return evaluated((FRIDGE,), old_bank=old)

    return build


def reviewed(results, reference, hours=NO_LOG, tests=(), old=None, went=None):
    """The review with some capacity tests: (years, health)."""
    bank = of_old(results.plan, results.banks.rig_limits, "Old bank", 740_000)
    health = None
    if bank is not None and bank.since is not None:
        now = results.plan.old_bank.age_years
        health = followed(bank.expected, [Measured(y, h, 0.02, TEST) for y, h in tests], now)
    use = use_by_kind(hours, results.plan, results.days)
    return review(results, reference, use, bank, old or results.plan.old_bank, health, went)


def test_a_sound_bank_that_gives_enough_is_kept_and_one_that_is_too_small_can_wait(rig, reference) -> None:
    sound = ((1, 0.99), (2, 0.97), (3, 0.96), (3.9, 0.95))
    enough = reviewed(rig(400), reference, tests=sound)
    assert enough.answer == WAIT and enough.verdict.kind == KEEP and enough.usable_wh > enough.need_wh
    assert not enough.same and [(c.key, c.turns) for c in enough.changes] == [(HEALTH, True)]
    small = reviewed(rig(90), reference, tests=sound)
    assert small.answer == SMALL and small.usable_wh < small.need_wh and small.verdict.winner is not None
    assert 0 < small.nights < 2


def test_the_nearer_the_end_the_sooner_it_is_prepared(rig, reference) -> None:
    order = (WAIT, PREPARE, OVER)
    answers = []
    for lost in (0.02, 0.12, 0.165, 0.19, 0.3):
        tests = tuple((y, 1 - lost * y / 4) for y in (1, 2, 3, 3.9))
        answers.append(order.index(reviewed(rig(500), reference, tests=tests).answer))
    assert answers == sorted(answers) and set(answers) == {0, 1, 2}


def test_use_is_taken_over_only_where_it_surely_differs_and_for_its_season(rig, reference) -> None:
    results = rig(400)
    planned = results.day.bank_wh.number
    as_planned = reviewed(results, reference, logged(14, planned / 24))
    assert USE not in {c.key for c in as_planned.changes}
    assert as_planned.need_wh == pytest.approx(results.need.energy.number)
    double = reviewed(results, reference, logged(14, 2 * planned / 24))
    assert USE in {c.key for c in double.changes}
    assert double.need_wh == pytest.approx(2 * results.need.energy.number, rel=0.02)
    few = reviewed(results, reference, logged(2, 2 * planned / 24))
    assert USE not in {c.key for c in few.changes}


def test_the_days_of_a_log_go_to_the_kind_of_day_of_their_season(demo_results) -> None:
    results = demo_results("tern-rock")
    assert len({t.season for t in results.plan.day_types if t.kind == "off_grid"}) > 1
    july, january = 20_650, 20_480
    found = use_by_kind(logged(14, 50.0, january), results.plan, results.days)
    later = use_by_kind(logged(14, 90.0, july), results.plan, results.days)
    (winter,), (summer,) = found, later
    assert winter != summer
    assert results.days.days[winter].type.season == "winter"
    assert found[winter].day_wh == pytest.approx(1200) and later[summer].day_wh == pytest.approx(2160)


def test_of_a_bank_that_was_bought_it_is_asked_what_would_be_bought_again(rig, reference) -> None:
    results = rig(600, 1.0)
    kept = reviewed(results, reference, tests=((0.9, 0.99),))
    again = reviewed(results, reference, tests=((0.9, 0.99),), old=replace(results.plan.old_bank, kept=False))
    assert kept.verdict.kind == KEEP and again.verdict.winner is not None
    assert again.answer == WAIT == kept.answer


def test_a_bank_that_is_hardly_ever_full_is_charged_first(rig, reference) -> None:
    results, tests = rig(400), ((1, 0.99), (2, 0.97), (3, 0.96), (3.9, 0.95))
    for short, answer in ((60, CHARGE), (20, WAIT)):
        went = SoFar(4.0, 0.1, 0.1, 60, 0.0, 0.0, 0.0, 0.0, 60, short, 0.0, 0.0)
        assert reviewed(results, reference, tests=tests, went=went).answer == answer


def test_another_bank_is_no_news_of_its_health(reference, demo_results) -> None:
    """A changed bank that ages as expected turns nothing, whatever the old one was."""
    plan = demo_results("mulga").plan
    chosen = next(c.id for c in demo_results("mulga").verdict.candidates if c.banked.build is not None)
    results = evaluate(replace(plan, changeover=replace(plan.changeover, chosen=chosen)), reference)
    compared = results.changeover.work.compared
    bank = compared.banked.bank
    in_use = OldBank(
        bank.model.battery_class, bank.model.unit_class_v, bank.rated_ah / bank.parallel, bank.series,
        bank.parallel, 0.5, unit_kg=bank.model.kg, kept=False,
    )  # fmt: skip
    follows = of_bought(compared, results.assumptions, 740_000)
    health = followed(follows.expected, [], 0.5)
    found = review(results, reference, {}, follows, in_use, health)
    assert [(c.key, c.turns) for c in found.changes] == [(HEALTH, False)]


def test_without_an_age_only_the_use_is_judged(evaluated, reference) -> None:
    old = OldBank(reference.classes["agm"], 12.0, 100.0, 1, 1)
    results = evaluated((FRIDGE,), old_bank=old)
    found = reviewed(results, reference)
    assert found.answer == UNKNOWN and found.same and not found.changes and isnan(found.usable_wh)


def test_what_its_log_says_of_a_bank_stands_above_what_is_stated(evaluated, reference) -> None:
    stated = OldBank(reference.classes["agm"], 12.0, 200.0, 1, 1, age_years=3, test_a=10, test_minutes=300)
    by_test = evaluated((FRIDGE,), old_bank=stated).banks.old_carries
    by_log = evaluated((FRIDGE,), old_bank=replace(stated, logged=HealthSign(0.9, 0.03))).banks
    assert by_test["soh"].number < 0.4 and by_log.old_carries["soh"].number == pytest.approx(0.9)
    assert by_log.old_carries["soh"].low == pytest.approx(0.9 - Z_90 * 0.03)
    assert [s.name for s in by_log.diagnosis.signs] == ["its log"]
