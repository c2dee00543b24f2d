"""The rig questioned: its voltage, its weight and space, its stays; and the traps that owners fall into."""

import pytest

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.installation.axle_load import coupling_change, locker_litres, trim_moment
from vast_harbor.core.rig.loads import AC, DC, Inverter, Load
from vast_harbor.core.rig.plan import Candidate, OldBank
from vast_harbor.core.rig.plan_place import Loading, Stay

FRIDGE = Load("fridge", "Compressor fridge", DC, Draw(50, "W"), 12, hours=24, duty=0.4)
LAMP = Load("lamp", "Lamp", DC, Draw(20, "W"), 12, hours=5)


def codes(results) -> set[str]:
    return {f.code for f in results.findings}


def test_watt_hours_stay_and_amps_shrink_with_the_volts(evaluated) -> None:
    # 580 Wh of DC a day; at 24 and 48 V through converters of 0.92: 580·(1/0.92 − 1) = 50.4 Wh more.
    results = evaluated((FRIDGE, LAMP))
    at = {c.system_v: c for c in results.voltages}
    assert at[12].need_wh.value == pytest.approx(results.need.energy.number)
    assert at[12].label_ah["agm"].value == pytest.approx(results.need.classes["agm"].nameplate_ah.number)
    assert at[24].converter_wh.value == pytest.approx(50.43, abs=0.01)
    assert at[24].need_wh.value == pytest.approx((580 + 50.43) * 2.5, abs=0.1)
    assert at[48].peak_a.value == pytest.approx(at[12].peak_a.number / 4)
    assert at[24].label_ah["lfp"].number < at[12].label_ah["lfp"].number
    assert at[12].replaced == () and any("converter" in r for r in at[24].replaced)
    # A 24 V rig has 24 V appliances: 48 V need converters for them, 12 V other appliances.
    at = {c.system_v: c for c in evaluated((FRIDGE, LAMP), system_v=24).voltages}
    assert at[48].converter_wh.value == pytest.approx(50.43, abs=0.01) and at[12].converter_wh.value == 0
    assert any("every DC appliance" in r for r in at[12].replaced)
    rated = evaluated((FRIDGE,), Inverter(0.9, 8, None, 2000))
    assert rated.voltages[0].peak_a.value == pytest.approx(205.76, abs=0.01)


def test_weights_and_levers_by_hand(evaluated, reference) -> None:
    # 2.5 m ahead of the axle of a caravan with 4 m to the coupling: 40 kg instead of 20 add 12.5 kg there.
    assert coupling_change(40, 2.5, 20, 2.5, 4) == pytest.approx(12.5)
    assert coupling_change(40, -1, 20, -1, 4) == pytest.approx(-5)
    assert trim_moment(100, -3, 130, -3) == pytest.approx(90)
    # 400 × 300 × 250 mm less clearances: 350 · 250 · 200 mm = 17.5 l.
    assert locker_litres(400, 300, 250) == pytest.approx(17.5)
    assert locker_litres(40, 300, 250) == 0
    old = OldBank(reference.classes["flooded_dual"], 12, 85, 1, 1, unit_kg=20)
    heavy = (Candidate("a", "agm", "tarnmoor-220", 1, 2),)

    def caravan(**loading):
        return evaluated(
            (FRIDGE,), kind="caravan", old_bank=old, candidates=heavy, loading=Loading(**loading)
        )

    at = {"base_m": 4, "old_x_m": 2.5, "new_x_m": 2.5}
    assert "coupling" in codes(caravan(coupling_kg=60, coupling_max_kg=75, **at))
    assert "coupling" not in codes(caravan(coupling_kg=20, coupling_max_kg=150, **at))
    behind = at | {"new_x_m": -2.5}
    assert "coupling_light" in codes(caravan(coupling_kg=60, coupling_max_kg=75, **behind))
    assert "payload" in codes(caravan(payload_kg=50)) and "payload" not in codes(caravan(payload_kg=500))
    boat = evaluated((FRIDGE,), old_bank=old, candidates=heavy, loading=Loading(old_x_m=2, new_x_m=-2))
    assert "trim" in codes(boat) and "coupling" not in codes(boat)
    assert "budget" in codes(evaluated((FRIDGE,), candidates=heavy, budget=100))


def test_a_bank_that_outlasts_the_water_is_partly_unused(evaluated) -> None:
    results = evaluated((FRIDGE,), stay=Stay(water_nights=1.5, gas_nights=10))
    said = next(f for f in results.findings if f.code == "outlasts_stay")
    assert "water ends your stay" in said.says.template and said.says.figures["limit"].value == 1.5
    assert "outlasts_stay" not in codes(evaluated((FRIDGE,), stay=Stay(water_nights=4)))
    assert "nights_in_a_row" in codes(evaluated((FRIDGE,), nights_in_a_row=1, overrides={"nights": 3}))
    # Where nobody asks for more nights, no more than a stay lasts are planned for.
    assert evaluated((FRIDGE,), nights_in_a_row=1).need.nights.number == 1


def test_traps_are_told_where_they_apply(evaluated) -> None:
    kettle = Load("k", "Kettle", DC, Draw(900, "W"), 12, hours=0.2)
    assert "mains_appliance" in codes(evaluated((kettle, FRIDGE)))
    ac = Load("k", "Kettle", AC, Draw(900, "W"), 230, hours=0.2)
    assert "inverter_forgotten" in codes(evaluated((ac,), Inverter(1.0, 0)))
    assert "inverter_too_small" in codes(evaluated((ac,), Inverter(0.9, 8, None, 500)))
    assert "inverter_too_small" not in codes(evaluated((ac,), Inverter(0.9, 8, None, 1000)))
    amps = Load("k", "Kettle", AC, Draw(4, "A"), 230, hours=0.2)
    assert "amps_at_other_volts" in codes(evaluated((amps,)))
    assert "standby_missing" in codes(evaluated((LAMP,)))
    assert "standby_missing" not in codes(evaluated((LAMP,), standby_w=2))
    assert "standby_drain" in codes(evaluated((LAMP,), standby_w=2))
    sunny = evaluated((LAMP,), overrides={"nights": 1, "reserve": 0.1})
    assert "sunny_week" in codes(sunny) and "sunny_week" not in codes(evaluated((LAMP,)))


def test_a_load_that_makes_up_most_of_the_day_is_questioned(evaluated) -> None:
    # 480 of 580 Wh are the fridge's.
    said = next(f for f in evaluated((FRIDGE, LAMP)).findings if f.code == "dominates")
    assert said.subject == "fridge" and "insulation" in said.remedy
    assert said.says.figures["share"].value == pytest.approx(480 / 580)
    label = evaluated((FRIDGE, LAMP)).need.classes["lfp"].nameplate_ah.number
    assert said.says.figures["lfp"].value == pytest.approx(label * 480 / 580)
    assert "dominates" not in codes(evaluated((FRIDGE,)))
    plate = Load("p", "Plate", AC, Draw(1800, "W"), 230, hours=0.1)
    alone = next(f for f in evaluated((FRIDGE, LAMP, plate)).findings if f.code == "peak_alone")
    assert alone.subject == "p"
    # Doubt: 20 to 60 W on the lamp, twice what the fridge may add.
    doubts = (Load(**{f: getattr(LAMP, f) for f in Load.__slots__} | {"high": 60}), FRIDGE)
    doubt = next(f for f in evaluated(doubts).findings if f.code == "doubt")
    assert doubt.subject == "lamp" and doubt.says.figures["wh"].value == pytest.approx(200)


@pytest.mark.parametrize(
    ("wrong", "says"),
    [({"low": 60}, "at least"), ({"high": 10}, "at most"), ({"start_w": 5}, "while starting")],
)
def test_limits_on_the_wrong_side_are_told_and_the_draw_is_used(evaluated, wrong, says) -> None:
    load = Load(**{f: getattr(LAMP, f) for f in Load.__slots__} | wrong)
    results = evaluated((load,))
    said = next(f for f in results.findings if f.code == "limits_crossed")
    assert says in said.says.template
    day = results.day
    assert day.cautious_wh.number == day.listed_wh.number and day.peak.watts == 20
