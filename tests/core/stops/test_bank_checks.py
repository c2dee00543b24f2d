"""Every check of a bank in its rig: an example that passes and one that does not, the arithmetic "
"beside it."""

from dataclasses import replace

import pytest

from vast_harbor import data
from vast_harbor.core.battery.datasheet import CUT_OFFS, EXTERNAL_BMS, Portable, Proof, Used
from vast_harbor.core.battery.gassing import air_flow, gassing_ma, opening_cm2, spark_distance_mm
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.installation.packing import ON_SIDE, Place
from vast_harbor.core.rig.loads import AC, DC, Inverter, Load
from vast_harbor.core.rig.plan import Candidate, Fix, PurchaseStep, TrialSettings
from vast_harbor.core.rig.plan_place import Installed, Loading, Locker, Site
from vast_harbor.core.rig.sources import ENGINE, MAINS, RELAY, SOLAR, Source
from vast_harbor.core.stops.banks import wiring_of
from vast_harbor.core.stops.banks.reasons import against
from vast_harbor.telling.figures import sentence_text

CATALOGUE = data.reference().catalogue
LAMP = Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24)
KETTLE = Load("k", "Kettle", AC, Draw(900, "W"), 230, hours=0.2, starts_at=8)
THRUSTER = Load("t", "Thruster", DC, Draw(1800, "W"), 12, hours=0.05, starts_at=8, start_w=2900, start_s=1)
PANELS = Source("panels", SOLAR, watts=200.0)
ALARM = replace(LAMP, name="Alarm", critical=True)


@pytest.fixture
def look(evaluated):
    """A check of one bank by its code: its verdict and what it says; None where it was not made."""

    def at(
        code, model, series=1, parallel=1, loads=(LAMP,), inverter=None, candidate=None, changed=None, **plan
    ):
        base = changed or CATALOGUE[model]
        given = candidate or Candidate("x", base.battery_class.key, base.id, series, parallel)
        models = {**CATALOGUE, base.id: base}
        results = evaluated(loads, inverter, candidates=(given,), models=models, **plan)
        check = next((c for c in results.banks.candidates[0].checks if c.code == code), None)
        if check is None:
            return None, "", None
        return check.verdict, sentence_text(check.says, Style()), check

    return at


def test_covers_need(look) -> None:
    # 1200 Wh · 2 · 1.25 = 3000 Wh. Keel 200: 2560 · 0.9 · 0.975 · 0.9 = 2021.8 Wh; two give 4043.5 Wh.
    assert look("covers_need", "ostrel-200")[:2] == (
        "blocking", "It gives 2.02 kWh usable. That is 978 Wh less than the 3.00 kWh you need.",
    )  # fmt: skip
    verdict, _, check = look("covers_need", "ostrel-200", parallel=2)
    assert verdict == "ok" and check.margin.value == pytest.approx(4043.52 - 3000, abs=0.5)


def test_series_and_strings(look) -> None:
    # Plain 280 is permitted twice in series and twice side by side.
    assert look("series_limit", "skerry-280", 2, 2, system_v=24)[0] == "ok"
    assert look("series_limit", "skerry-280", 4, 1, system_v=48)[:2] == (
        "blocking", "4 batteries in series, but the maker allows only 2 batteries.",
    )  # fmt: skip
    assert look("parallel_limit", "skerry-280", 1, 2)[0] == "ok"
    assert look("parallel_limit", "skerry-280", 1, 3)[0] == "blocking"
    assert look("many_strings", "tarnmoor-100", 1, 3)[0] is None
    assert look("many_strings", "tarnmoor-100", 1, 4)[0] == "caution"
    # A fuse for each string from two of LFP, or three of lead-acid.
    assert look("string_fuses", "ostrel-100", 1, 2)[0] == "note"
    assert look("string_fuses", "tarnmoor-100", 1, 2)[0] is None
    assert look("joining", "ostrel-100", 1, 2)[0] == "note" and look("joining", "ostrel-100")[0] is None


def test_running_current_against_the_bms(look) -> None:
    # Kettle 900 W / 0.9 + idle 8 W + lamp 50 W = 1058 W. Keel 100 at its floor (10 %, 12.75 V), 15 °C:
    # SoH 0.9, R = 3·(1 + 0.5)·e^0.3/0.9 = 6.75 mΩ and the cable; about 87 A, and it passes 100 A.
    # Keel 60 passes 60 A; two of them 2·60·0.8 = 96 A.
    loads = (LAMP, KETTLE)
    verdict, _, check = look("continuous_current", "ostrel-100", loads=loads)
    assert verdict == "ok" and check.figure.value == pytest.approx(87, abs=2.5) and check.limit.value == 100
    assert look("continuous_current", "ostrel-60", loads=loads)[0] == "blocking"
    verdict, _, check = look("continuous_current", "ostrel-60", parallel=2, loads=loads)
    assert verdict == "ok" and check.limit.value == pytest.approx(96)
    # Without a stated limit there is nothing to hold it against.
    assert look("continuous_current", "moule-bare-230", loads=loads)[0] == "unknown"


def test_a_start_against_the_peak_of_the_bms(look) -> None:
    # The thruster starts with 2900 W + 50 W: some 250 A at 12 V. Keel 200 passes 300 A for 5 s. Ember 100
    # passes 300 A too; Keel 100 200 A. Plain 200 no peak current is stated: its 100 A for ever are taken.
    loads = (LAMP, THRUSTER)
    assert look("starting_current", "ostrel-200", loads=loads)[0] == "ok"
    assert look("starting_current", "ostrel-100", loads=loads)[0] == "blocking"
    verdict, says, _ = look("starting_current", "skerry-200", loads=loads)
    assert verdict == "blocking" and "no peak current is stated" in says
    # A start that lasts longer than the peak counts as running: 8 s against 5 s and 150 A.
    slow = (LAMP, replace(THRUSTER, start_s=8))
    assert look("continuous_current", "ostrel-200", loads=loads)[0] == "blocking"  # 1850 W are 155 A
    assert look("continuous_current", "ostrel-200", loads=slow)[2].figure.value > 230


def test_volts_under_the_hardest_load(look) -> None:
    # Kettle on a 60 Ah AGM at its floor, 12.22 V, at 20 °C: R = 4·(100/60)·1.5·1.05/0.9 = 11.67 mΩ, and
    # 0.02·3/25 = 2.4 mΩ of cable. 1058 W: V = (12.22 + √(12.22² − 4·0.01407·1058))/2 = 10.85 V, above 10.8.
    # At 15 °C R is 12.22 mΩ: 10.79 V.
    loads = (LAMP, KETTLE)
    verdict, _, check = look("sag", "tarnmoor-60", loads=loads, battery_c=20)
    assert verdict == "ok" and check.figure.value == pytest.approx(10.848, abs=0.003)
    assert look("sag", "tarnmoor-60", loads=loads, battery_c=15)[0] == "blocking"
    # Without an inverter nothing trips; lights dip.
    assert look("sag", "tarnmoor-60", loads=(LAMP, replace(THRUSTER, start_w=None)))[0] == "caution"
    # 3 kW are more than a cold 60 Ah battery has at any volts.
    big = replace(KETTLE, draw=Draw(3000, "W"))
    assert "cannot supply" in look("sag", "tarnmoor-60", loads=(LAMP, big), battery_c=-15)[1]


def test_charge_current(look) -> None:
    # Keel 200 may take 100 A. AGM 100 Ah states none: 0.3 C of its class, 30 A; two of them 60 A. Of 60 A it
    # accepts what half a charge takes: 0.5 · 100/1.2 = 42 A.
    at = {"installed": Installed(charge_a=60)}
    assert look("charge_current", "ostrel-200", **at)[0] == "ok"
    assert look("charge_current", "tarnmoor-100", **at)[:2] == (
        "blocking", "Your chargers give 42 A together, but it can take only 30 A.",
    )  # fmt: skip
    assert look("charge_current", "tarnmoor-100", parallel=2, **at)[0] == "ok"
    # A bank that is hardly drawn down takes little, however large the panels are.
    small = (replace(LAMP, draw=Draw(2.7, "W")),)
    large = {"installed": Installed(charge_a=70)}
    assert look("charge_current", "tarnmoor-80", loads=small, **large)[0] == "ok"
    assert look("charge_current", "tarnmoor-100")[0] == "unknown"


def test_cable_and_fuse(look) -> None:
    # 2 kW at η 0.9 and 10.8 V: 205.8 A over 1.5 m. In 70 mm²: 205.8·0.02·3/70/12 = 1.47 %. In 35 mm² 2.94 %,
    # and over 3 m 5.88 %. 35 mm² carries 210 A, 25 mm² 170 A.
    rated = Inverter(efficiency=0.9, rated_w=2000)

    def wires(code, **there):
        return look(code, "ostrel-300", inverter=rated, installed=Installed(**there),
                    overrides={"main_cable_m": there.pop("m", 1.5)})  # fmt: skip

    verdict, _, check = wires("cable_drop", cable_mm2=70)
    assert verdict == "ok" and check.figure.value == pytest.approx(0.0147, abs=1e-4)
    far = look("cable_drop", "ostrel-300", inverter=rated, installed=Installed(cable_mm2=35),
               overrides={"main_cable_m": 3})  # fmt: skip
    assert far[0] == "caution" and far[1] == "The cable loses 5.9 % at 206 A. The limit is 3 %."
    # 1.6 times as much in copper-clad aluminium.
    assert wires("cable_drop", cable_mm2=70, clad=True)[2].figure.value == pytest.approx(0.0235, abs=1e-4)
    assert wires("cable_load", cable_mm2=35)[0] == "ok" and wires("cable_load", cable_mm2=25)[0] == "caution"
    # Fuse: at least 1.25·205.8 = 257 A, and no more than the 330 A of 70 mm².
    assert wires("fuse", cable_mm2=70, fuse_a=300)[0] == "ok"
    assert "would blow in normal use" in wires("fuse", cable_mm2=70, fuse_a=250)[1]
    assert "would burn before the fuse" in wires("fuse", cable_mm2=70, fuse_a=350)[1]
    # No cable given: the one that would do. 6 kW at 12 V are 617 A: none will.
    assert "70 mm² and a fuse of 300 A" in wires("cable")[1]
    assert "AWG 2/0 and a fuse" in sentence_text(wires("cable")[2].says, Style("us"))
    assert look("cable", "ostrel-300", inverter=replace(rated, rated_w=6000))[0] == "caution"


def test_cable_and_fuses_carry_the_chargers_too(evaluated) -> None:
    # 500 W of sun through MPPT: 500 · 0.95/14.4 = 33 A; a lamp of 50 W takes 5. The relay of a 90 A
    # alternator may pass all of it; mains of 20 A never charges beside the engine.
    sources = (
        Source("s", SOLAR, watts=500), Source("m", MAINS, amps=20.0),
        Source("e", ENGINE, link=RELAY, alternator_a=90.0),
    )  # fmt: skip
    bank = Candidate("x", "lfp", "ostrel-200", 1, 1)
    build = evaluated((LAMP,), candidates=(bank,), sources=sources[:2]).banks.candidates[0].build
    assert build.load_a.number == pytest.approx(50 / 10.8) and build.main_a.number == pytest.approx(
        52.99, abs=0.01
    )
    wiring = wiring_of(build)
    # 1.25 · 53 = 66 A: 70 A on 10 mm²; 1.25 · 33 = 41 A: 50 A on 6 mm²; 25 A for the 20 A charger.
    assert (wiring.main.mm2, wiring.main.fuse_a) == (10, 70)
    assert [(j.id, round(j.amps), j.cable.fuse_a) for j in wiring.joints] == [("s", 33, 50), ("m", 20, 25)]
    assert all(j.kind is not None and j.cable.fuse_a <= j.cable.carries_a for j in wiring.joints)
    parts = [p.what for p in wiring.parts]
    assert sum("fuse for" in p for p in parts) == 2 and "blade" not in "".join(parts)
    build = evaluated((LAMP,), candidates=(bank,), sources=sources).banks.candidates[0].build
    assert build.main_a.number == pytest.approx(90 + 500 * 0.95 / 14.4)
    # A DC-DC charger in place of the relay: its 40 A.
    fixed = replace(bank, fixes=(Fix("e", "dc_dc"),))
    build = evaluated((LAMP,), candidates=(fixed,), sources=sources).banks.candidates[0].build
    assert build.main_a.number == pytest.approx(40 + 500 * 0.95 / 14.4)
    # Chargers that are only stated as a sum count as well.
    stated = (
        evaluated((LAMP,), candidates=(bank,), installed=Installed(charge_a=36.6)).banks.candidates[0].build
    )
    assert wiring_of(stated).main.fuse_a == 50


def test_the_trial_charges_through_a_cable_that_carries_the_charge(evaluated) -> None:
    # LFP 200 Ah behind a 60 A DC-DC charger on a 150 A alternator: it gets its 60 A, and not the 23 A that a
    # cable sized on a lamp lets through.
    engine = Source("e", ENGINE, amps=60.0, absorption_v=14.3, alternator_a=150.0)
    results = evaluated(
        (LAMP,), candidates=(Candidate("x", "lfp", "ostrel-200", 1, 1),), sources=(engine,), drive_hours=2,
        drive_every=1, trial=TrialSettings(start_soc=0.5),
    )  # fmt: skip
    (run,) = results.simulated.trial.results
    assert 55 < run.traces.amps.max() <= 60 + 1e-6


def test_no_common_fuse_breaks_a_giant(evaluated, look) -> None:
    # Four Keel 200 in parallel: 36 kA, with the margin 54 kA; three others drive 40.5 kA through one fuse.
    verdict, says, _ = look("short_circuit", "ostrel-200", parallel=4)
    assert verdict == "caution" and "No common fuse breaks that" in says and "36 kA" in says
    # 6.75 kA at 48 V is no case for a terminal-block fuse.
    bank = Candidate("x", "lfp", "ostrel-100", 4, 1)
    build = evaluated((LAMP,), candidates=(bank,), system_v=48).banks.candidates[0].build
    assert wiring_of(build).main_kind.name == "class T fuse"


def test_short_circuit(look) -> None:
    # Keel 200: 1.5 mΩ, 13.5 V: 9000 A, and half as much again 13.5 kA.
    verdict, _, check = look("short_circuit", "ostrel-200", installed=Installed(fuse_breaks_a=20_000))
    assert verdict == "ok" and check.figure.value == pytest.approx(13_500)
    verdict, says, _ = look("short_circuit", "ostrel-200", installed=Installed(fuse_breaks_a=10_000))
    assert verdict == "caution" and "could keep arcing" in says
    assert look("short_circuit", "ostrel-200")[0] == "note"  # a class T fuse is wanted
    assert look("short_circuit", "tarnmoor-60")[0] == "ok"  # 12.85 V/6.67 mΩ · 1.5 = 2.9 kA


def test_fit_and_pose(look) -> None:
    # Keel 100 has 330 × 173 × 220: 380 × 223 × 270 with its clearances.
    def inside(*size, model="ostrel-100", n=1, **more):
        return [
            look(code, model, parallel=n, locker=Locker((size,)), **more)[:2]
            for code in ("fit", "orientation")
        ]

    assert inside(380.0, 223.0, 270.0)[0] == ("ok", "It fits the locker with 0 l to spare.")
    assert inside(380.0, 223.0, 270.0)[1] == ("ok", "It stands upright.")
    # Two AGM of the same case, one behind the other: 2·173 + 5 + 50 = 401 wide, 101 more than there are.
    assert inside(390.0, 300.0, 270.0, model="tarnmoor-100", n=2)[0] == (
        "blocking",
        "2 batteries do not fit: 101 mm too wide for the locker. There is space for 1.",
    )
    # 10 mm too low for the flooded one, 240 high; lying would do, and is not permitted.
    (fit, says), (pose, why) = inside(400.0, 350.0, 280.0, model="corran-12-105")
    assert (fit, says) == ("blocking", "The battery does not fit: 10 mm too high for the locker.")
    assert pose == "blocking" and "would fit on their side" in why
    # The sealed one of the same case may lie: 220 + 50 beside its terminals, 173 high.
    (fit, _), (pose, why) = inside(400.0, 350.0, 200.0, model="tarnmoor-100")
    assert fit == "ok" and pose == "note" and "fits only on its side" in why
    assert look("fit", "ostrel-100")[0] == "unknown"


def test_places_of_the_owner(look) -> None:
    room = Locker(((800.0, 300.0, 300.0),))

    def stood(*places, model="ostrel-100"):
        key = CATALOGUE[model].battery_class.key
        given = Candidate("x", key, model, 1, 2, places=places)
        return [look(code, model, candidate=given, locker=room)[:2] for code in ("fit", "orientation")]

    assert stood(Place(0, 25, 25), Place(0, 400, 25))[0][0] == "ok"
    assert stood(Place(0, 25, 25), Place(0, 300, 25))[0] == (
        "blocking",
        "Batteries 2 and 1 overlap by 55 mm.",
    )
    assert stood(Place(0, 25, 25), Place(0, 460, 25))[0][1].startswith("Battery 2 takes 15 mm of")
    lying = stood(Place(0, 25, 25, ON_SIDE), Place(0, 400, 25), model="corran-12-105")
    assert "upright only" in lying[1][1]
    # A place for one is no place for two: the search's are taken.
    assert stood(Place(0, 25, 25))[0][0] == "ok"


def test_terminals_and_care(look) -> None:
    assert look("terminals", "ostrel-100", installed=Installed(lugs="M8 threads"))[0] == "ok"
    assert look("terminals", "ostrel-100", installed=Installed(lugs="tapered posts"))[0] == "note"
    # Traction 6-225 is 278 high: 450 leave 172 over its caps, 400 leave 122; 150 are wanted.
    for height, verdict in ((450.0, "ok"), (400.0, "caution")):
        front = Locker(((700.0, 300.0, height),), opens="front")
        assert look("care_access", "hollin-6-225", 2, locker=front)[0] == verdict
    assert look("care_access", "hollin-6-225", 2, locker=Locker(((700.0, 300.0, 400.0),)))[0] == "ok"
    assert look("care_access", "ostrel-100")[0] is None


def test_weight_on_axles_and_coupling(look) -> None:
    # Van, wheelbase 3 m, new bank 1 m ahead of the rear axle, no old one: 122 kg of Still 220 × 2 put
    # 122·1/3 = 40.7 kg on the front axle and 81.3 kg on the rear one.
    levers = {"base_m": 3.0, "old_x_m": 1.0, "new_x_m": 1.0}
    for front, rear, expected in ((41, 82, ("ok", "ok")), (40, 81, ("blocking", "blocking"))):
        loading = Loading(payload_kg=200, front_kg=front, rear_kg=rear, **levers)
        got = tuple(look(f"{side}_axle", "tarnmoor-220", 1, 2, kind="van", loading=loading)[0]
                    for side in ("front", "rear"))  # fmt: skip
        assert got == expected
    assert look("payload", "tarnmoor-220", 1, 2, kind="van", loading=Loading(payload_kg=122))[0] == "ok"
    assert look("payload", "tarnmoor-220", 1, 2, kind="van", loading=Loading(payload_kg=121))[0] == "blocking"
    # Caravan: 50 + 40.7 = 90.7 kg on the coupling.
    for most, verdict in ((91, "ok"), (90, "blocking")):
        loading = Loading(coupling_kg=50, coupling_max_kg=most, **levers)
        assert look("coupling", "tarnmoor-220", 1, 2, kind="caravan", loading=loading)[0] == verdict
    behind = Loading(coupling_kg=10, coupling_max_kg=90, base_m=3.0, old_x_m=0.0, new_x_m=-1.0)
    assert look("coupling_light", "tarnmoor-220", 1, 2, kind="caravan", loading=behind)[0] == "blocking"
    # Boat: 29.4 kg · 2 m = 59 kg·m is felt from 50; 22.4 kg of Keel 100 × 2 at 2 m are 45 kg·m.
    boat = {"kind": "boat", "loading": Loading(old_x_m=2.0, new_x_m=2.0)}
    assert (
        look("trim", "tarnmoor-100", **boat)[0] == "note"
        and look("trim", "ostrel-100", 1, 2, **boat)[0] == "ok"
    )


def test_heaviest_piece(look) -> None:
    assert look("heaviest", "ostrel-200")[0] == "ok"  # 21.8 kg
    assert look("heaviest", "tarnmoor-100")[0] == "note"  # 29.4 kg: two people
    assert look("heaviest", "tarnmoor-220")[0] == "caution"  # 61 kg: a hoist


def test_air_by_the_worked_example(look) -> None:
    # 24 V, 330 Ah vented, boost at 2.40 V a cell: 0.05·12·20·330/1000 = 3.96 m³/h; 28·3.96 = 110.9 cm².
    flooded, sealed, lfp = (data.reference().classes[k] for k in ("flooded_deep", "agm", "lfp"))
    assert air_flow(12, gassing_ma(flooded, 2.40), 330) == pytest.approx(3.96)
    assert opening_cm2(3.96) == pytest.approx(110.88)
    assert gassing_ma(sealed, 2.40) == 8 and gassing_ma(lfp, 2.5) == 0
    # At 2.45 V e^(11·0.05) = 1.733 times as much; equalising with 60 A on 330 Ah 181.8 mA/Ah, with 10 A at
    # least 50. Nothing that sparks within 28.8·∛(20·330) = 540 mm.
    assert gassing_ma(flooded, 2.45) == pytest.approx(20 * 1.7333, abs=0.01)
    assert gassing_ma(flooded, 2.40, 60 / 330 * 1000) == pytest.approx(181.8, abs=0.1)
    assert gassing_ma(flooded, 2.40, 10 / 330 * 1000) == 50
    assert spark_distance_mm(20, 330) == pytest.approx(540.2, abs=0.1)
    # The same through the check: four Traction 6-330, charged at 14.4 V; openings of 111 cm² do, 110 do not.
    for there, verdict in ((111, "ok"), (110, "blocking")):
        at = {"locker": Locker(vented=True, vent_cm2=there), "installed": Installed(charge_v=14.4)}
        assert look("ventilation", "hollin-6-330", 4, 1, system_v=24, **at)[0] == verdict
    assert look("ventilation", "hollin-6-330", 4, 1, system_v=24)[0] == "note"
    assert look("ventilation", "ostrel-200")[0] == "ok"
    # Sealed ones in too little air are a matter of care.
    small = {"locker": Locker(vented=True, vent_cm2=5)}
    assert look("ventilation", "tarnmoor-220", 1, 2, **small)[0] == "caution"


def test_gas_where_people_sleep(look) -> None:
    assert (
        look("living_space", "hollin-12-150")[0] == "blocking"
        and look("living_space", "tarnmoor-100")[0] == "caution"
    )
    assert look("living_space", "ostrel-100")[0] is None
    assert look("living_space", "hollin-12-150", locker=Locker(vented=True))[0] is None
    assert look("living_space", "hollin-12-150", place="outside_box")[0] is None


@pytest.mark.parametrize(
    ("code", "model", "passes", "fails", "verdict"),
    [
        ("cold_charge", "ostrel-200", 0, -1, "blocking"),
        ("cold_charge", "tarnmoor-100", -20, -21, "caution"),
        ("cold_heater", "quenby-280", 0, -1, "caution"),
        ("cold_unguarded", "skerry-200", 0, -1, "blocking"),
        ("hot_charge", "ostrel-200", 45, 46, "caution"),
        ("cold_use", "quenby-280", -20, -21, "blocking"),
        ("hot_use", "ostrel-200", 55, 56, "blocking"),
        ("freezing", "tarnmoor-100", -20, -21, "caution"),
    ],
)  # fmt: skip
def test_temperature_in_use(look, code, model, passes, fails, verdict) -> None:
    assert look(code, model, battery_c=passes)[0] in ("ok", None)
    assert look(code, model, battery_c=fails)[0] == verdict


def test_what_charges_an_empty_rig_in_frost_is_stopped_by_the_battery_or_by_its_owner(
    look, reference
) -> None:
    continental = Site(50, 14, 1, reference.climates["continental"])
    rig = {"place": "living_space", "sources": (PANELS,), "site": continental, "off_grid_nights": 40}

    def verdict(model="skerry-200", **other) -> str | None:
        return look("cold_unguarded", model, **{**rig, **other})[0]

    assert verdict() == "blocking"
    assert "as cold as −3" in look("cold_unguarded", "skerry-200", **rig)[1]
    # Its BMS stops it, or its heater warms it; nothing charges by itself; somebody is always there.
    assert verdict("ostrel-200") is None and verdict("quenby-280") is None and verdict("tarnmoor-100") is None
    assert verdict(sources=()) is None and verdict(off_grid_nights=360) is None
    # What is stated of the months without use, and of what is done on leaving, counts.
    summers = {"months": (6, 7, 8), "rest_c": 8.0}
    assert verdict(**summers) is None and verdict(**{**summers, "rest_c": -1.0}) == "blocking"
    assert verdict(overrides={"sources_off": 1.0}) is None


@pytest.mark.parametrize(
    ("rule", "model", "battery_c", "code", "verdict"),
    [
        ("long_life", "quenby-280", 0, "cold_charge", "ok"),
        ("long_life", "quenby-280", -1, "cold_charge", "blocking"),
        ("customary", "quenby-280", -1, "cold_heater", "caution"),
        ("to_label", "quenby-280", -1, "cold_heater", "caution"),
        ("customary", "ostrel-200", -1, "cold_charge", "blocking"),
        # An afternoon is 3 K warmer than its day.
        ("to_label", "ostrel-200", -3, "cold_wait", "caution"),
        ("to_label", "ostrel-200", -3.1, "cold_charge", "blocking"),
        # Nothing makes it wait.
        ("to_label", "skerry-200", -1, "cold_charge", "blocking"),
        ("long_life", "tarnmoor-100", -21, "cold_charge", "caution"),
    ],
)
def test_a_cold_place_by_house_rule(look, evaluated, rule, model, battery_c, code, verdict) -> None:
    assert look(code, model, battery_c=battery_c, house_rule=rule)[0] == verdict
    # The search of the catalogue puts it out for the same reason.
    given = Candidate("x", CATALOGUE[model].battery_class.key, model, 1, 1)
    bank = evaluated((LAMP,), candidates=(given,), battery_c=battery_c, house_rule=rule).banks.candidates[0]
    assert ("cold" in set(against(bank.build.criteria))) == (verdict == "blocking")


def test_temperature_of_storage(look) -> None:
    # Keel 200: −10 to 45 °C; Ember from −20.
    assert look("storage", "ostrel-200", rest_c=-10)[0] == "ok"
    assert look("storage", "ostrel-200", rest_c=-11)[0] == "caution"
    assert look("storage", "quenby-280", rest_c=-11)[0] == "ok"
    assert look("storage", "ostrel-200", rest_c=46)[0] == "caution"


def test_remedies_of_a_cold_place_are_priced_and_can_be_tried(look, reference) -> None:
    check = look("cold_charge", "ostrel-200", parallel=2, battery_c=-4, place="outside_box")[2]
    remedies = {r.key: r for r in check.remedies}
    assert list(remedies) == ["indoors", "box", "heated", "lead", "later"]
    # Indoors: 2 m more, both ways, at 18 a metre: 72. A box is 6 K warmer: 2 °C, enough.
    assert remedies["indoors"].price.value == pytest.approx(72)
    assert remedies["box"].price.value == 140 and "enough here" in remedies["box"].says
    assert remedies["box"].edits[0]["value"] == pytest.approx(2)
    # The cheapest heated one of as much charge: Ember 280 (1090) instead of Keel 200 (729), twice.
    assert "Ember 280" in remedies["heated"].says and remedies["heated"].price.value == pytest.approx(722)
    assert not remedies["later"].edits and all(
        remedies[k].edits for k in ("indoors", "box", "heated", "lead")
    )
    assert not look("cold_charge", "ostrel-200", battery_c=4)[2].remedies


def test_redundancy_and_who_opens(look) -> None:
    loads = (ALARM,)
    assert look("redundancy", "ostrel-200")[0] == "ok"  # nothing critical
    assert look("redundancy", "ostrel-200", loads=loads)[0] == "caution"
    assert look("redundancy", "quenby-280", loads=loads)[0] == "note"  # warns before
    assert look("redundancy", "ostrel-200", parallel=2, loads=loads)[0] == "ok"
    assert look("redundancy", "hollin-6-225", 2, loads=loads)[0] == "note"
    assert look("bms_reset", "quenby-280")[0] == "ok" and look("bms_reset", "ostrel-200")[0] == "note"


@pytest.mark.parametrize(
    ("guard", "verdict"), [("none", "blocking"), (CUT_OFFS, "caution"), (EXTERNAL_BMS, "ok")]
)
def test_modules_without_a_switch(look, guard, verdict) -> None:
    for model in ("moule-320", "moule-bare-230"):
        given = Candidate("x", "lfp", model, 1, 1, protection=guard)
        assert look("external_bms", model, candidate=given)[0] == verdict
    assert look("external_bms", "ostrel-200")[0] is None


def test_batteries_of_different_age(look) -> None:
    def steps(model, series, *stages):
        key = CATALOGUE[model].battery_class.key
        given = Candidate("x", key, model, series, 2, stages=stages)
        return look("mixed_ages", model, candidate=given, today="2026-11-25")

    # 30 cycles a year of depth 0.9: N = 4200 to 3100 between 80 and 100 %, some 3580; 30/3580 + 1/14 = 0.0798
    # a year. Half a year: 0.2·0.0798/2 = 0.8 %. Seven years: 11 %.
    soon, stale = (
        (PurchaseStep("2026-12", 1), PurchaseStep("2027-06", 1)),
        (PurchaseStep("2026-12", 1), PurchaseStep("2033-12", 1)),
    )
    verdict, _, check = steps("quenby-280", 1, *soon)
    assert verdict == "ok" and check.figure.value == pytest.approx(0.008, abs=2e-4)
    assert steps("quenby-280", 1, *stale)[0] == "blocking"
    assert steps("hollin-6-225", 2, *soon)[0] == "blocking"
    assert (
        steps("quenby-280", 1, PurchaseStep("2026-12", 2), PurchaseStep("2027-06", 0, "Charger", 300))[0]
        is None
    )
    assert steps("quenby-280", 1, PurchaseStep("", 1), PurchaseStep("", 1))[0] == "note"


def test_steps_of_a_purchase_add_up(evaluated, look) -> None:
    stages = (PurchaseStep("2026-12", 1, "Charger", 300), PurchaseStep("2027-06", 1))
    given = Candidate("x", "lfp", "quenby-280", 1, 2, stages=stages)
    first, second = evaluated((LAMP,), candidates=(given,)).banks.candidates[0].stages
    # 1090 + 300, then 1090 more. Half the usable energy, then all of it.
    assert (first.money.value, second.money.value, second.so_far.value) == (1390, 1090, 2480)
    assert second.usable.value == pytest.approx(2 * first.usable.value)
    assert second.covered.value == pytest.approx(first.covered.value * 2)
    wrong = replace(given, stages=(PurchaseStep("2027-06", 0), PurchaseStep("2026-12", 1)))
    for code in ("stages_sum", "stages_first"):
        assert look(code, "quenby-280", candidate=wrong)[0] == "caution"
        assert look(code, "quenby-280", candidate=given)[0] is None
    back = replace(given, stages=(PurchaseStep("2027-06", 1), PurchaseStep("2026-12", 1)))
    assert look("stages_order", "quenby-280", candidate=back)[0] == "caution"
    assert look("stages_order", "quenby-280", candidate=given)[0] is None


def test_ceiling_and_age_of_the_price(look) -> None:
    # Two Keel 200 are 1458.
    assert look("budget", "ostrel-200", 1, 2, budget=1458)[0] == "ok"
    assert look("budget", "ostrel-200", 1, 2, budget=1457)[0] == "caution"
    for dated, verdict in (("2025-11-25", "ok"), ("2025-10-25", "caution"), ("", None)):
        given = Candidate("x", "lfp", "ostrel-200", 1, 2, unit_price=700, price_date=dated)
        assert look("price_age", "ostrel-200", candidate=given, today="2026-11-25")[0] == verdict


def test_doubt_widens_ranges_and_leaves_the_middle(look, evaluated) -> None:
    assert look("confidence", "skerry-200")[0] == "note" and look("confidence", "quenby-280")[0] is None
    at = {}
    for model in ("quenby-280", "skerry-280"):
        banks = evaluated((LAMP,), candidates=(Candidate("x", "lfp", model, 1, 2),)).banks
        at[model] = banks.candidates[0]["unit_price"]
    # Ember 280, grade A: 959 to 1286 by its entry. Plain 280, grade C: 475 to 637 about 540, × 1.6.
    assert (at["quenby-280"].low, at["quenby-280"].high) == pytest.approx((959, 1286))
    assert (at["skerry-280"].low, at["skerry-280"].high) == pytest.approx((540 - 65 * 1.6, 540 + 97 * 1.6))
    assert at["skerry-280"].value == 540


def test_doubt_of_a_life_spans_its_middle(evaluated) -> None:
    # One of grade A and the same with nothing to back it up: the same years, and 1.6 times as wide a range.
    sure = CATALOGUE["quenby-280"]
    unsure = replace(sure, id="unsure", own=True, proof=Proof(), bms=replace(sure.bms, peak_a=None))
    assert (sure.grade, unsure.grade) == ("A", "C")
    pair = (Candidate("a", "lfp", sure.id, 1, 2), Candidate("c", "lfp", "unsure", 1, 2))
    compared_banks = evaluated(
        (LAMP,), models={**CATALOGUE, "unsure": unsure}, candidates=pair, battery_c=40, rest_c=40
    ).compare.compared_banks
    a, c = (compared.life for compared in compared_banks)
    for name in ("design_cycles", "years_likely"):
        assert a[name].value == pytest.approx(c[name].value)
        assert c[name].low < a[name].low < a[name].value < a[name].high < c[name].high
    # LFP: 2000 to 6000 about 3500, so N · 2000/3500 to N · 6000/3500; 1.6 times as far from the middle.
    n = a["design_cycles"]
    assert (n.low, n.high) == pytest.approx((n.value * 2000 / 3500, n.value * 6000 / 3500))
    wide = c["design_cycles"]
    assert wide.value - wide.low == pytest.approx(1.6 * (n.value - n.low))


def used(**past):
    model = CATALOGUE["ostrel-200"]
    return replace(model, id="second-hand", own=True, used=Used(**past))


def test_used_batteries(look, evaluated) -> None:
    # 700 cycles at 90 %: N = 3500·(0.8/0.9)^1.15 = 3056.7; 700/3056.7 + 4/14 = 0.5147. Tested at 170 of
    # 200 Ah: (1 − 0.85)/0.2 = 0.75, the larger.
    made = used(cycles_made=700, age_years=4)
    tested = replace(made, used=replace(made.used, measured_ah=170))
    for model, wear in ((made, 0.5147), (tested, 0.75)):
        check = look("used", "", changed=model)[2]
        assert check.says.figures["wear"].value == pytest.approx(wear, abs=1e-4)
    # It lasts so much shorter, and gives no more than it has: 0.85 instead of the allowance of 0.9.
    pair = (Candidate("n", "lfp", "ostrel-200", 1, 2), Candidate("u", "lfp", "second-hand", 1, 2))
    results = evaluated((LAMP,), models={**CATALOGUE, "second-hand": tested}, candidates=pair)
    new, old = results.compare.compared_banks
    assert old.banked["usable_wh"].number == pytest.approx(new.banked["usable_wh"].number * 0.85 / 0.9)
    worn = old.life["years_likely"].inputs["w_end"].number
    assert old.life.years == pytest.approx(min(20, (worn - 0.75) / old.life["wear"].number))
    assert old.life.years < new.life.years
    assert look("used_untested", "", changed=made)[0] == "caution"
    assert look("used_untested", "", changed=tested)[0] is None
    for past, code, verdict in (
        ({"spread_mv": 50}, "cell_spread", "ok"), ({"spread_mv": 51}, "cell_spread", "caution"),
        ({"faults": 1}, "used_faults", "caution"), ({"faults": 0}, "used_faults", None),
        ({"spare": True}, "used", "note"), ({"spare": False}, "used", "caution"),
    ):  # fmt: skip
        assert look(code, "", changed=used(**past))[0] == verdict, past


def test_a_spare_and_what_hangs_on_a_price_are_paid(evaluated) -> None:
    model = replace(used(spare=True), price=300.0)
    deep = CATALOGUE["hollin-6-225"]
    offer = replace(deep.offer, tax=0.2, discount=0.1, delivery=45, deposit=18)
    terms = replace(deep, id="terms", own=True, price=200.0, offer=offer)
    pair = (Candidate("u", "lfp", "second-hand", 1, 2), Candidate("t", "flooded_deep", "terms", 2, 1))
    models = {"second-hand": model, "terms": terms}
    results = evaluated((LAMP,), models=models, candidates=pair)
    spare, paid = results.banks.candidates
    assert spare["purchase"].value == 900  # two and a spare
    # 200·0.9·1.2 = 216 each; two, delivery, and a deposit for two, as no old one is handed in.
    assert paid["purchase"].value == pytest.approx(2 * 216 + 45 + 2 * 18)


def test_portable_packs(look) -> None:
    # Kettle 900 W and a 400 W pan: 1300 W; Carry 1000 gives 1200 W.
    pan = replace(KETTLE, id="p", name="Pan", draw=Draw(400, "W"))
    assert look("pack_power", "lantern-1000", loads=(LAMP, KETTLE))[0] == "ok"
    verdict, says, _ = look("pack_power", "lantern-1000", loads=(LAMP, KETTLE, pan))
    assert verdict == "blocking"
    assert (
        says.replace("\u202f", "") == "AC loads take 1300 W together, but its inverter supplies only 1200 W."
    )
    assert look("pack_fixed", "lantern-1000", loads=(LAMP,))[0] == "caution"
    assert look("pack_fixed", "lantern-1000", loads=(KETTLE,))[0] == "note"
    rated = Inverter(rated_w=1000)
    assert look("pack_inverter", "lantern-1000", loads=(KETTLE,), inverter=rated)[0] == "note"
    assert look("pack_inverter", "lantern-1000", loads=(KETTLE,))[0] is None
    assert look("pack_power", "ostrel-200", loads=(KETTLE,))[0] is None
    assert CATALOGUE["lantern-1000"].portable == Portable(1200, 2000, 500)


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_every_margin_is_limit_less_figure(demo_results, name) -> None:
    for banked in demo_results(name).banks.candidates:
        for check in banked.checks:
            if check.margin is None:
                continue
            gap = abs(check.limit.number - check.figure.number)
            assert abs(check.margin.number) == pytest.approx(gap)
            assert (check.margin.number < -1e-6 * max(1, abs(check.limit.number))) == (check.verdict != "ok")
            assert check.remedy or check.verdict == "ok"


def test_the_demo_rigs_show_every_kind_of_finding(demo_results) -> None:
    found = {
        f.code
        for name in data.DEMO_RIGS
        for banked in demo_results(name, ).banks.candidates
        for f in banked.findings
    }  # fmt: skip
    # One block of words for each page of the reasons.
    wanted = """
        covers_need cannot_build series_limit parallel_limit many_strings string_fuses joining
        continuous_current
        starting_current sag charge_current cable_drop cable_load fuse short_circuit fit terminals
        care_access payload coupling front_axle rear_axle trim heaviest living_space ventilation cold_charge
        cold_unguarded cold_heater hot_charge storage freezing redundancy bms_reset external_bms
        mixed_ages used
        used_untested used_faults cell_spread budget confidence pack_power pack_fixed pack_inverter
    """
    assert set(wanted.split()) <= found
