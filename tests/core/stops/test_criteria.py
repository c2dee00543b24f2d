"""The criteria of a bank in its rig, each by hand: what the checks show and the search goes by."""

from dataclasses import replace

import pytest

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.datasheet import CUT_OFFS, EXTERNAL_BMS, Portable, Used
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.installation.packing import Place
from vast_harbor.core.rig.loads import AC, DC, Load
from vast_harbor.core.rig.plan_place import Installed, Loading, Locker
from vast_harbor.core.stops.banks.quick_life_cost import quick_life_cost
from vast_harbor.core.stops.banks.reasons import REASONS, against
from vast_harbor.core.stops.need import governing_day as days_stop

CATALOGUE = data.reference().catalogue
LAMP = Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24)
KETTLE = Load("k", "Kettle", AC, Draw(900, "W"), 230, hours=0.2, starts_at=8)
PUMP = Load("p", "Pump", DC, Draw(100, "W"), 12, hours=0.5, starts_at=8, start_w=600, start_s=3)


@pytest.fixture
def of(evaluated, reference):
    """The criteria of a bank of the catalogue in a plain boat that differs as it is told."""

    def build(model, series=1, parallel=1, loads=(LAMP,), places=(), protection=None, **plan):
        base = CATALOGUE[model] if isinstance(model, str) else model
        made = evaluated(loads, **({"battery_c": 25} | plan)).plan
        assumptions = reference.assumptions(made.house_rule, made.overrides)
        days = days_stop.evaluate(made, reference, assumptions)
        found = quick_life_cost(made, reference, assumptions, days).rig_limits.criteria(
            Bank(base, series, parallel)
        )
        changes = {"places": places} | ({"protection": protection} if protection else {})
        return replace(found, **changes)

    return build


def reasons(criteria) -> list[str]:
    return list(against(criteria))


# --- energy and current


def test_usable_energy_at_the_age_that_is_planned_for_and_at_another(of) -> None:
    # Keel 200: 2560 Wh · 0.9, and 0.9 of it at mid-life; 25 °C, a draw far below its rating.
    keel = of("ostrel-200")
    assert keel.rate == pytest.approx(1.0)
    assert keel.usable_wh() == pytest.approx(2560 * 0.81) and keel.usable_wh(1.0) == pytest.approx(2560 * 0.9)
    assert keel.covers_need.limit == pytest.approx(3000) and keel.covers_need.broken
    assert not of("ostrel-200", parallel=2).covers_need.broken
    # A used battery never had more than its own health.
    worn = of(replace(CATALOGUE["ostrel-200"], used=Used(measured_ah=140.0)))
    assert worn.usable_wh(1.0) == pytest.approx(2560 * 0.9 * 0.7)


def test_what_runs_at_once_and_what_starts_on_top(of) -> None:
    # Lamp 50 W, kettle 900/0.9 + 8 W idle, pump 100 W that starts with 600 W.
    # The pump's three seconds are within the five for which Keel 100 bears its peak.
    keel = of("ostrel-100", loads=(LAMP, KETTLE, PUMP))
    assert keel.lasting_w == pytest.approx(1158) and keel.start_w == pytest.approx(1658)
    assert keel.gives_a == 100 and keel.running.limit == 100 and keel.starting.limit == 200
    slow = replace(PUMP, start_s=6)
    assert of("ostrel-100", loads=(LAMP, KETTLE, slow)).lasting_w == pytest.approx(1658)
    # Two share unequally: 2 · 100 A · 0.8.
    two = of("ostrel-100", parallel=2, loads=(LAMP, KETTLE, PUMP))
    assert two.running.limit == pytest.approx(160) and two.starting.limit == pytest.approx(320)
    # The current gives the power at the volts to which it makes the bank sag.
    source, ohm = two.at_floor
    assert (source - two.running.value * ohm) * two.running.value == pytest.approx(1158)
    assert two.sag.value == pytest.approx(source - two.start_a * ohm) and two.sag.limit == pytest.approx(10.8)


@pytest.mark.parametrize("model", ["tarnmoor-150", "ostrel-200"])
def test_need_and_banks_have_one_resistance(of, model) -> None:
    criteria = of(model, parallel=2, loads=(LAMP, KETTLE), battery_c=-5)
    need = criteria.of_class
    # That of a bank of the need's label, in the cold and at its age, is this bank's by amp-hours.
    wanted = need.peak_current.inputs["R"].number * need.nameplate_ah.number / criteria.bank.rated_ah
    assert criteria.at_floor[1] - criteria.terminal.cable_ohm == pytest.approx(wanted)


def test_where_nothing_is_stated_nothing_is_judged(of) -> None:
    bare = of("moule-bare-230", loads=(LAMP, KETTLE))
    assert bare.bms is None and bare.gives_a is None and bare.running is None and bare.starting is None
    assert bare.charge is None and bare.opening is None and bare.packing is None
    # Without a stated payload it is held against what such a rig bears; a cabin stands on its own ground.
    assert bare.payload.limit == 500 and of("moule-bare-230", kind="cabin").payload is None
    assert of("hollin-6-330", series=2, parallel=3, kind="van").payload.broken
    assert of("tarnmoor-100").pack_power is None


def test_charge_current_is_of_all_strings(of) -> None:
    there = Installed(charge_a=60.0)
    agm = of("tarnmoor-100", parallel=2, installed=there)
    assert agm.takes_a == pytest.approx(60.0) and not agm.charge.broken
    assert of("tarnmoor-100", installed=there).charge.broken
    assert "charge" in reasons(of("tarnmoor-100", installed=there))


def test_the_cable_is_the_one_there_or_the_one_that_would_do(of) -> None:
    there = of("tarnmoor-100", loads=(LAMP, KETTLE), installed=Installed(cable_mm2=50.0))
    assert there.cable_mm2 == 50.0 and there.cable_m == 1.5
    # 0.02 Ω·mm²/m over 3 m of 50 mm²; copper-clad aluminium has 1.6 times as much.
    assert there.terminal.cable_ohm == pytest.approx(0.02 * 3 / 50)
    clad = of("tarnmoor-100", loads=(LAMP, KETTLE), installed=Installed(cable_mm2=50.0, clad=True))
    assert clad.terminal.cable_ohm == pytest.approx(1.6 * 0.02 * 3 / 50)
    free = of("tarnmoor-100", loads=(LAMP, KETTLE))
    assert free.cable_mm2 == free.sized.mm2 > 0


# --- room


def test_a_bank_in_the_second_compartment_has_more_cable(of) -> None:
    # 330 × 173 × 220 mm with clearances 380 × 223 × 270: one to each compartment.
    small, far = (380.0, 223.0, 270.0), {"overrides": {"main_cable_m": 1.0}}
    both = Locker((small, small), second_cable_m=2.0)
    assert not of("ostrel-100", locker=both, **far).in_second
    two = of("ostrel-100", parallel=2, locker=both, **far)
    assert two.in_second and two.cable_m == pytest.approx(3.0)
    near = of("ostrel-100", parallel=2, locker=replace(both, second_cable_m=0.0), **far)
    assert not near.in_second and near.cable_m == pytest.approx(1.0)
    # Without measures nobody knows where it stands.
    unknown = of("ostrel-100", parallel=2, locker=Locker(second_cable_m=2.0), **far)
    assert not unknown.in_second and unknown.cable_m == pytest.approx(1.0)


def test_boxes_stand_where_their_owner_puts_them(of) -> None:
    room = Locker(((800.0, 300.0, 300.0),))
    apart, over = (Place(0, 25, 25), Place(0, 400, 25)), (Place(0, 25, 25), Place(0, 300, 25))
    good = of("ostrel-100", parallel=2, locker=room, places=apart)
    assert good.packing.places == apart and good.clashes == () and reasons(good) == ["need"]
    bad = of("ostrel-100", parallel=2, locker=room, places=over)
    assert bad.clashes and "locker" in reasons(bad)
    # Places for two are none for three: the search's are taken, and it finds room for two only.
    three = of("ostrel-100", parallel=3, locker=room, places=over)
    assert three.placed == () and three.clashes == () and not three.packing.fits
    assert "locker" in reasons(three)
    # A case without measures clashes with nothing.
    flat = replace(CATALOGUE["ostrel-100"], case=replace(CATALOGUE["ostrel-100"].case, length_mm=None))
    unknown = of(flat, parallel=2, locker=room, places=over)
    assert unknown.packing is None and unknown.clashes == ()


# --- guard, cold, gas


def test_modules_without_a_switch_want_one(of) -> None:
    assert of("moule-bare-230").unswitched and "switch" in reasons(of("moule-bare-230"))
    for guard in (EXTERNAL_BMS, CUT_OFFS):
        assert not of("moule-bare-230", protection=guard).unswitched
    assert not of("ostrel-200").unswitched and not of("tarnmoor-100").unswitched


@pytest.mark.parametrize(
    ("model", "celsius", "reason"),
    [
        ("ostrel-200", 0, None),
        ("ostrel-200", -1, "cold"),
        ("quenby-280", -1, None),  # it has a heater
        ("quenby-280", -21, "temperature"),
        ("tarnmoor-100", -21, None),  # lead-acid is charged slower, not harmed
        ("ostrel-200", 56, "temperature"),
    ],
)
def test_cold_and_heat(of, model, celsius, reason) -> None:
    found = set(reasons(of(model, battery_c=celsius))) & {"cold", "temperature"}
    assert found == ({reason} if reason else set())


def test_gas_goes_by_class_volts_and_equalising(of) -> None:
    # Traction 12-150, charged at 14.4 V: 20 mA/Ah; 0.05 · 6 · 20 · 150 / 1000 = 0.9 m³/h; 28 · 0.9 cm².
    plain = of("hollin-12-150", installed=Installed(charge_v=14.4))
    assert plain.gassing == pytest.approx(20) and plain.air_m3h == pytest.approx(0.9)
    assert plain.opening_cm2 == pytest.approx(25.2)
    assert plain.spark_mm == pytest.approx(28.8 * (20 * 150) ** (1 / 3))
    # Two strings gas twice as much; at 14.7 V, 2.45 a cell, e^0.55 times.
    assert of("hollin-12-150", parallel=2, installed=Installed(charge_v=14.4)).air_m3h == pytest.approx(1.8)
    assert of("hollin-12-150", installed=Installed(charge_v=14.7)).gassing == pytest.approx(
        20 * 1.73325, rel=1e-4
    )
    # Equalised with 30 A: 200 mA/Ah; with a charger that nobody stated at least 50.
    equalised = of("hollin-12-150", installed=Installed(charge_v=14.4, equalises=True, charge_a=30.0))
    assert equalised.gassing == pytest.approx(200)
    small = of("hollin-12-150", installed=Installed(charge_v=14.4, equalises=True))
    assert small.gassing == pytest.approx(50)
    # A sealed one is not equalised.
    agm = of("tarnmoor-100", installed=Installed(charge_v=14.4, equalises=True, charge_a=30.0))
    assert agm.gassing == pytest.approx(8)


@pytest.mark.parametrize(
    ("model", "locker", "place", "out"),
    [
        ("hollin-12-150", Locker(), "living_space", True),
        ("hollin-12-150", Locker(vented=True), "living_space", False),
        ("hollin-12-150", Locker(), "outside_box", False),
        ("hollin-12-150", Locker(vented=True, vent_cm2=25.0), "living_space", True),
        ("hollin-12-150", Locker(vented=True, vent_cm2=26.0), "living_space", False),
        ("tarnmoor-100", Locker(vent_cm2=1.0), "living_space", False),
        ("ostrel-200", Locker(vent_cm2=0.0), "living_space", False),
    ],
)
def test_gas_puts_out_what_always_gives_it_off(of, model, locker, place, out) -> None:
    there = Installed(charge_v=14.4)
    found = reasons(of(model, locker=locker, place=place, installed=there))
    assert ("air" in found) is out


# --- weight


def test_weight_against_payload_axles_and_coupling(of) -> None:
    # Two Still 220 weigh 122 kg; 1 m ahead of the rear axle of a wheelbase of 3 m: 40.7 and 81.3 kg.
    levers = {"base_m": 3.0, "old_x_m": 1.0, "new_x_m": 1.0}

    def two(kind="van", **loading):
        return of("tarnmoor-220", parallel=2, kind=kind, loading=Loading(**(levers | loading)))

    assert two().kg_change == pytest.approx(122) and two().shift_kg == pytest.approx(122 / 3)
    axles = two(front_kg=41, rear_kg=81).axles
    assert not axles["front"].broken and axles["rear"].broken
    assert axles["rear"].value == pytest.approx(122 * 2 / 3)
    assert "weight" in reasons(two(front_kg=41, rear_kg=81))
    assert "weight" not in reasons(two(front_kg=41, rear_kg=82))
    assert set(two(front_kg=41).axles) == {"front"}
    assert two(payload_kg=121).payload.broken and not two(payload_kg=122).payload.broken
    # A caravan has a coupling instead of axles; it must be pressed on, and not too hard.
    light, heavy = two("caravan", coupling_kg=50, coupling_max_kg=90).coupling
    assert not light.broken and heavy.broken and heavy.value == pytest.approx(50 + 122 / 3)
    assert two("caravan", front_kg=1).axles == {}
    behind = two("caravan", coupling_kg=10, coupling_max_kg=90, new_x_m=-1.0)
    assert behind.snakes and "weight" in reasons(behind)
    assert not two("caravan", coupling_kg=50, coupling_max_kg=91).snakes
    assert two("caravan", coupling_kg=50).coupling is None
    # Nobody asks how a cabin sits on its wheels, or a boat on its axle.
    for kind in ("cabin", "boat"):
        assert two(kind, front_kg=1, rear_kg=1).axles == {} and two(kind).shift_kg is None
    assert two("cabin", payload_kg=1).payload is None and two("boat", payload_kg=1).payload.broken
    assert two("van", base_m=None).shift_kg is None


# --- all together


def test_a_portable_pack_is_bound_by_its_inverter(of) -> None:
    base = replace(CATALOGUE["ostrel-200"], portable=Portable(900.0, 1800.0, 200.0))
    assert "pack" not in reasons(of(base, loads=(LAMP, KETTLE)))
    assert "pack" in reasons(of(base, loads=(LAMP, replace(KETTLE, draw=Draw(950, "W")))))


def test_every_reason_is_looked_for_in_its_order(of) -> None:
    # Far too small, too weak, too heavy, too cold and nowhere to stand.
    bad = of(
        "ostrel-60",
        loads=(LAMP, KETTLE, replace(PUMP, start_w=900)),
        battery_c=-25,
        installed=Installed(charge_a=500.0),
        loading=Loading(payload_kg=1.0),
        locker=Locker(((200.0, 200.0, 200.0),)),
    )
    wrong = ["need", "current", "start", "sag", "charge", "cold", "temperature", "weight", "locker"]
    assert reasons(bad) == wrong == [r for r in REASONS if r in wrong]
    assert reasons(of("skerry-280", 3, system_v=36))[0] == "series"
    # A bank to which nothing applies has none.
    assert reasons(of("ostrel-200", parallel=2)) == []


def test_a_sag_counts_only_where_an_inverter_could_give_up(of) -> None:
    hard = replace(PUMP, start_w=1000, start_s=1)
    assert of("tarnmoor-60", loads=(LAMP, hard)).sag.broken
    assert "sag" not in reasons(of("tarnmoor-60", loads=(LAMP, hard)))
    small = replace(KETTLE, draw=Draw(20, "W"))
    assert "sag" in reasons(of("tarnmoor-60", loads=(LAMP, hard, small)))
    # What it cannot give at any volts counts without one, too.
    none = of("tarnmoor-60", loads=(LAMP, replace(hard, start_w=6000)), battery_c=-15)
    assert none.start_a is None and none.sag is None and "sag" in reasons(none)
