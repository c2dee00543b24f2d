"""Whole rigs worked by hand: what ends a bank, what heat does, what it costs, and what each rule says."""

from dataclasses import replace

import pytest

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.loads import AC, DC, USES, Inverter, Load
from vast_harbor.core.rig.plan import Candidate, OldBank

STEADY = (Load("a", "Steady", DC, Draw(50, "W"), 12, hours=24),)  # 1200 Wh a day, 4.1667 A at 12 V


def test_a_hard_used_bank_is_ended_by_cycles(evaluated) -> None:
    # 300 nights a year, charged every day (N 1): 300 cycles of 1200 Wh. Flooded dual 110 Ah, three strings:
    # 3960 Wh, so each is 30.303 % deep: N = 300 · (0.5/0.30303)^1.15 = 533.63; 300/533.63 = 0.56219 a year.
    # At 4.1667 A against C/5 = 66 A it is gentle. Age 1/4.5 = 0.22222, accident 0.05: together 0.83441 a
    # year, so 1.1985 years, and cycles are the largest part.
    results = evaluated(
        STEADY,
        off_grid_nights=300,
        battery_c=25,
        overrides={"nights": 1},
        candidates=(Candidate("f", "flooded_dual", "marram-110", 1, 3),),
    )
    life = results.compare.compared_banks[0].life
    assert life["cycles_at_depth"].value == pytest.approx(533.63, abs=0.1)
    assert life["cycle_wear"].value == pytest.approx(0.56219, abs=1e-4)
    assert life.years == pytest.approx(1.1985, abs=1e-3)
    assert life.ends == "cycles"


def test_deep_accidents_can_be_what_ends_it(evaluated) -> None:
    # Five accidents a year at 0.05 are 0.25 a year, more than age (1/7) and the few cycles.
    results = evaluated(
        STEADY, candidates=(Candidate("a", "agm", "tarnmoor-220", 1, 3),), overrides={"accidents_per_year": 5}
    )
    life = results.compare.compared_banks[0].life
    assert life["accident_wear"].value == pytest.approx(0.25)
    assert life.ends == "accidents"
    lfp = evaluated(
        STEADY, candidates=(Candidate("l", "lfp", "ostrel-200", 1, 2),), overrides={"accidents_per_year": 5}
    )
    assert lfp.compare.compared_banks[0].life["accident_wear"].value == 0


def test_heat_takes_years_by_its_share_of_the_year(evaluated) -> None:
    # 73 nights are a fifth of the year. In use at 45 °C LFP ages four times as fast (14/4 = 3.5 years), at
    # rest at 15 °C not: 0.2/3.5 + 0.8/14 = 0.057143 + 0.057143 = 0.114286 a year.
    results = evaluated(STEADY, off_grid_nights=73, battery_c=45, rest_c=15)
    lfp = results.compare.compared_banks[1].life
    assert lfp["calendar_wear"].value == pytest.approx(0.1142857)


def test_agm_factor_of_a_house_rule_touches_cycles_and_years(evaluated) -> None:
    candidates = (Candidate("a", "agm", "tarnmoor-150", 1, 3), Candidate("g", "gel", "vellan-120", 1, 3))
    plain = evaluated(STEADY, candidates=candidates, battery_c=25)
    longer = evaluated(STEADY, candidates=candidates, battery_c=25, overrides={"agm_life_factor": 1.3})
    agm, gel = ([c.life for c in r.compare.compared_banks] for r in (plain, longer))
    assert gel[0]["design_cycles"].number == pytest.approx(1.3 * agm[0]["design_cycles"].number)
    assert gel[0]["calendar_wear"].number == pytest.approx(agm[0]["calendar_wear"].number / 1.3)
    assert gel[1].years == pytest.approx(agm[1].years)


def test_lead_acid_run_down_to_sixty_per_cent_lasts_two_thirds_longer(evaluated) -> None:
    # From 80 % to 60 % lead-acid fades three times as fast: wear 1 + (2 − 1)/3 = 1.3333 instead of 1.
    candidates = (Candidate("a", "agm", "tarnmoor-150", 1, 3),)
    plain = evaluated(STEADY, candidates=candidates).compare.compared_banks[0].life.years
    longer = evaluated(STEADY, candidates=candidates, overrides={"worn_out.lead_acid": 0.6})
    assert longer.compare.compared_banks[0].life.years == pytest.approx(plain * 4 / 3)


def test_short_of_full_wears_lead_acid_and_not_lfp(evaluated) -> None:
    candidates = (Candidate("a", "agm", "tarnmoor-150", 1, 3), Candidate("l", "lfp", "ostrel-200", 1, 2))
    full = evaluated(STEADY, candidates=candidates)
    short = evaluated(STEADY, candidates=candidates, overrides={"short_of_full_share": 0.5})
    wear = [[c.life["cycle_wear"].number for c in r.compare.compared_banks] for r in (full, short)]
    assert wear[1][0] == pytest.approx(wear[0][0] * (1 + 0.7 * 0.5))
    assert wear[1][1] == pytest.approx(wear[0][1])


def test_discounting_at_five_per_cent_by_hand(evaluated) -> None:
    # No running costs, no scrap, no worth at the end, flat prices: 957 now and 957/1.05^4.293 at the
    # replacement after 4.293 years, another 957/1.05^8.586 at the next one.
    over = {
        "drift.lead_acid": 0, "mains_share": 0, "scrap_per_kg": 0, "exit_share": 0, "discount_rate": 0.05,
    }  # fmt: skip
    compared = evaluated(
        STEADY, candidates=(Candidate("a", "agm", "tarnmoor-150", 1, 3),), overrides=over
    ).compare.compared_banks[0]
    life = compared.life.years
    assert life == pytest.approx(4.293, abs=2e-3)
    expected = 957 * (1 + 1.05**-life + 1.05 ** (-2 * life))
    assert compared.cost["lifetime_planned"].value == pytest.approx(expected)
    assert compared.cost["replacement_count"].value == 2


def test_care_and_lost_energy_are_counted_each_year(evaluated) -> None:
    # 60 nights of 1200 Wh are 72 kWh a year. Flooded gives back 0.75: 72·(1/0.75 − 1) = 24 kWh lost, half of
    # it bought at 0.35: 4.20. Four hours of care at 10: 40. Ten years: 442.
    results = evaluated(
        STEADY,
        battery_c=25,
        overrides={"hour_rate": 10, "water_cost": 0},
        candidates=(Candidate("d", "flooded_deep", "hollin-6-330", 2, 2),),
    )
    cost = results.compare.compared_banks[0].cost
    assert cost["kwh_delivered"].value == pytest.approx(720)
    assert cost["running_per_year"].value == pytest.approx(44.2)
    assert cost["running"].value == pytest.approx(442)


def test_scrap_of_the_old_bank_is_a_credit_and_its_weight_is_compared(evaluated, reference) -> None:
    # Two gel batteries of 65 kg: 130 kg at 0.50 are 65. Without a weight: 12 V · 210 Ah / 39 Wh/kg = 64.6 kg
    # each.
    gel = reference.classes["gel"]
    old = OldBank(gel, 12, 210, 1, 2, 11, 65)
    with_old = evaluated(STEADY, old_bank=old)
    without = evaluated(STEADY)
    for a, b in zip(with_old.compare.compared_banks, without.compare.compared_banks, strict=True):
        assert b.cost["lifetime"].number - a.cost["lifetime"].number == pytest.approx(65)
        assert a.banked["kg_change"].value == pytest.approx(a.banked["kg"].number - 130)
        assert "kg_change" not in b.banked.figures
    guessed = evaluated(STEADY, old_bank=replace(old, unit_kg=None))
    assert guessed.banks.old_kg is not None
    assert guessed.banks.old_kg.value == pytest.approx(2 * 12 * 210 / 39)
    assert guessed.banks.old_wh is not None and guessed.banks.old_wh.value == pytest.approx(5040)


def test_old_lithium_has_no_scrap_value(evaluated, reference) -> None:
    old = OldBank(reference.classes["lfp"], 12.8, 100, 1, 1, 8, 11)
    assert evaluated(STEADY, old_bank=old).compare.compared_banks[0].cost["lifetime"].value == pytest.approx(
        evaluated(STEADY).compare.compared_banks[0].cost["lifetime"].value
    )


def test_a_bank_that_is_too_small_delivers_only_what_it_has(evaluated) -> None:
    # 60 Ah of AGM: 720 · 0.5 · 0.95 · 0.9 = 307.8 Wh (less the rate) for two nights, half of it a day.
    compared = evaluated(
        STEADY, candidates=(Candidate("a", "agm", "tarnmoor-60", 1, 1),)
    ).compare.compared_banks[0]
    usable = compared.banked["usable_wh"].number
    assert usable < 308
    assert compared.cost["kwh_delivered"].value == pytest.approx(usable / 2 * 60 * 10 / 1000)


def test_peak_rate_takes_more_from_lead_acid(evaluated) -> None:
    # A kettle of 1 kW six times ten minutes: 1000 Wh, all at 1000/0.9/12 = 92.6 A (the idle of 8 W aside).
    # 100 Ah of AGM rated at 5 A with k 1.122 gives (5/92.6)^0.122 = 0.70 of its label at that rate.
    kettle = (Load("k", "Kettle", AC, Draw(1000, "W"), 230, use=USES, uses=6, minutes=10),)
    results = evaluated(kettle, Inverter(0.9, 0), candidates=(Candidate("a", "agm", "tarnmoor-100", 1, 1),))
    rate = results.compare.compared_banks[0].banked["rate"]
    assert results.need.classes["agm"].mean_current.value == pytest.approx(1000 / 0.9 / 12, rel=1e-6)
    assert rate.value == pytest.approx((5 / (1000 / 0.9 / 12)) ** 0.122077, rel=1e-4)
    lfp = evaluated(kettle, Inverter(0.9, 0), candidates=(Candidate("l", "lfp", "ostrel-100", 1, 1),))
    assert lfp.compare.compared_banks[0].banked["rate"].number > 0.95


@pytest.mark.parametrize("volts", [12, 24, 36, 48])
def test_watt_hours_stay_and_amp_hours_shrink_with_the_voltage(evaluated, volts) -> None:
    # Loads in watts take the same energy at any voltage; the amp-hours on the label go down with it.
    base, other = evaluated(STEADY, system_v=12), evaluated(STEADY, system_v=volts)
    assert other.day.bank_wh.value == pytest.approx(base.day.bank_wh.number)
    for key, need in other.need.classes.items():
        assert need.nameplate_wh.value == pytest.approx(base.need.classes[key].nameplate_wh.number)
        assert need.nameplate_ah.value == pytest.approx(
            base.need.classes[key].nameplate_ah.number * 12 / volts
        )


@pytest.mark.parametrize("rule", ["long_life", "customary", "to_label"])
def test_each_house_rule_sizes_by_its_own_table(demo_results, reference, rule) -> None:
    plan = demo_results("kittiwake").plan
    results = evaluate(replace(plan, house_rule=rule, overrides={}), reference)
    own = reference.rules[rule]
    # No more nights than a stay lasts: two.
    nights = min(own.values["nights"], plan.nights_in_a_row)
    need = results.day.bank_wh.number * nights * (1 + own.values["reserve"])
    assert results.need.energy.value == pytest.approx(need)
    for key, found in results.need.classes.items():
        assert found.dod.value == own.dod[key]
        by_hand = need / own.dod[key] / found.temperature.number / found.rate.number
        assert found.nameplate_wh.value == pytest.approx(by_hand / own.values["ageing_allowance"])


def test_careful_house_rules_never_size_a_smaller_bank(demo_results, reference) -> None:
    plan = replace(demo_results("long-haul").plan, overrides={})
    sizes = [
        evaluate(replace(plan, house_rule=rule), reference).need.classes["lfp"].nameplate_wh.number
        for rule in ("long_life", "customary", "to_label")
    ]
    assert sizes == sorted(sizes, reverse=True)


def test_own_two_ratings_give_way_to_an_override(evaluated, reference) -> None:
    candidates = (Candidate("a", "agm", "tarnmoor-100", 1, 2),)
    label = evaluated(STEADY, candidates=candidates).compare.compared_banks[0].banked["exponent"]
    assert (label.value, label.origin) == (pytest.approx(1.122077, abs=1e-6), "computed")
    mine = evaluated(STEADY, candidates=candidates, overrides={"peukert.agm": 1.2})
    exponent = mine.compare.compared_banks[0].banked["exponent"]
    assert (exponent.value, exponent.origin) == (1.2, "override")
