"""The changeover: complete for every bank of every demo rig, and its faults are found."""

from dataclasses import replace

import numpy as np
import pytest

from sampled import sampled
from vast_harbor import data
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.installation.bank_circuit import Fault, faults
from vast_harbor.core.installation.fault_finding import causes
from vast_harbor.core.installation.lifting import lifters
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.changeover import Devices, ProofReading, Purchase, Tick
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED
from vast_harbor.core.rig.loads import AC, DC, Inverter, Load
from vast_harbor.core.rig.plan import THERE, Candidate, OldBank
from vast_harbor.core.rig.plan_place import Locker
from vast_harbor.core.rig.sources import ENGINE, MAINS, SOLAR, UPKEEP, Source
from vast_harbor.core.stops.changeover import Changeover, Work, against, simulated
from vast_harbor.core.stops.changeover.acceptance import taken
from vast_harbor.core.stops.changeover.measurements import inequality
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_plan import to_plan

DEMOS = ("kittiwake", "tern-rock", "mulga", "pebble", "long-haul")


@pytest.fixture(scope="module")
def changeovers(demo_results):
    """A changeover to each bank of a demo rig."""
    made = {}

    def of(name: str) -> list[Changeover]:
        if name not in made:
            results = demo_results(name)
            made[name] = [
                found
                for c in results.verdict.compared_banks
                if (found := results.changeover_to(c.id)) is not None
            ]
        return made[name]

    return of


def noted(one: Changeover, **changes) -> Changeover:
    """The same changeover with something else in its record."""
    build = one.work.build
    record = replace(build.plan.changeover, **changes)
    build = replace(build, plan=replace(build.plan, changeover=record))
    return Changeover(Work(one.work.compared, build), one.verdict)


def name_of(one: Changeover, key: str, unit: str = "V") -> str:
    return f"{one.work.id}.{key}.{unit}"


@pytest.mark.parametrize("name", DEMOS)
def test_every_bank_has_a_whole_booklet(changeovers, name) -> None:
    assert len(changeovers(name)) >= 4
    for one in changeovers(name):
        steps = one.steps
        assert len({s.key for s in steps}) == len(steps) >= 30
        assert all(s.title and s.why and s.minutes > 0 for s in steps)
        kinds = {s.kind for s in one.work.plan.sources}
        keys = {s.key for s in steps}
        for kind, key in (
            (SOLAR, "off_solar"),
            (SOLAR, "solar_on"),
            (ENGINE, "off_engine"),
            (MAINS, "off_mains"),
        ):
            assert (key in keys) == (kind in kinds or (key == "off_mains" and "generator" in kinds))
        # Every thing that is bought or there goes in somewhere, and every part of a step is on the list.
        places = {part for s in steps for part in s.parts}
        lines = {line.key: line for line in one.shopping.lines}
        assert not [k for k, line in lines.items() if line.tag in (NEEDED, WANTED, THERE) and k not in places]
        assert one.shopping.total.number == pytest.approx(
            sum(line.price for line in lines.values() if line.tag in (NEEDED, WANTED) and line.price)
        )
        # What is bought for the wiring has the size that the wiring has.
        wiring = one.work.wiring
        fuse = lines.get("part-string_fuses")
        if fuse is not None:
            count = one.work.build.bank.parallel
            assert fuse.size.startswith(f"{count} × {wiring.string_fuse_a:g} A, ")
            assert wiring.string_kind is None or wiring.string_kind.name in fuse.size
        # No current, of loads or of chargers, is larger than its cable and fuse are for.
        for cable, amps in (
            (wiring.main, one.work.build.main_a.number),
            *((j.cable, j.amps) for j in wiring.joints),
        ):
            assert cable is None or 1.25 * amps <= cable.fuse_a <= cable.carries_a
        assert sum(j.amps for j in wiring.joints) == 0 or one.work.build.main_a.number >= max(
            j.amps for j in wiring.joints
        )
        if wiring.joints:
            assert "part-source_fuses" in lines
        for key in {"check-cable", "wire-main_cable"} & set(lines):
            assert wiring.main is None or f"{wiring.main.mm2:g} mm²" in lines[key].size
        # Every point of the drawing is measured, and what it should be is what the circuit shows.
        made = [m for s in steps for m in s.measured]
        assert {m.point for m in made if m.point} == set(one.work.points)
        for m in made:
            assert m.should.low <= m.should.likely <= m.should.high
            value = simulated(one.work, m.key, None)
            assert value is not None and m.should.holds(value), m.key
            if m.point is not None and m.kind not in ("unit", "link", "share", "string"):
                assert value == pytest.approx(m.should.likely)
        assert all(g.rows or g.note for g in one.settings)
        assert all(s.people >= 2 for s in steps if "heavy" in s.cautions)


@pytest.mark.parametrize("name", sampled(DEMOS, "kittiwake", "long-haul", "pebble"))
def test_every_fault_stops_a_gate_that_names_it_among_the_first_two_causes(changeovers, name) -> None:
    for one in changeovers(name):
        made = [m for s in one.steps for m in s.measured if m.point is not None]
        for fault in faults(one.work.wiring, one.work.sleeps):
            first = True
            for m in made:
                value = simulated(one.work, m.key, fault)
                assert value is not None
                if m.should.holds(value):
                    first = False
                    continue
                likely = causes_of(one, m, value, first)
                assert fault.kind in [c.kind for c in likely[:2]], (one.work.id, fault, m.key)
                break
            else:
                pytest.fail(f"{one.work.id}: {fault} is not found")


def causes_of(one: Changeover, m, value: float, first: bool):
    """The causes of a reading; by a meter that has read right before, or not."""
    from vast_harbor.core.stops.changeover.measurements import _rounds

    step = m.key.split(".")[0]
    at = next(r for r in _rounds(one.work) if r.step == step)
    circuit = one.work.circuit.at(at.stage, at.soc, at.amps)
    return causes(circuit, m.point, value, m.should, first, one.work.sleeps)


def test_a_reading_out_of_its_range_stops_the_gate_until_it_is_stated_why(changeovers) -> None:
    one = changeovers("kittiwake")[0]
    wrong = noted(one, readings={name_of(one, "arrived.unit-1-1"): 9.0})
    assert wrong.stopped is not None and wrong.stopped.key == "arrived" == wrong.next.key
    assert [c.kind for c in wrong.stopped.wrong[0].causes[:2]]
    assert wrong.gates[0].stopped and not wrong.gates[0].done
    passed = noted(
        wrong,
        readings={name_of(one, "arrived.unit-1-1"): 9.0},
        ticks={"arrived": Tick(done=True, passed="the shop sends another")},
    )
    assert passed.stopped is None and passed.gates[0].steps[-1].wrong


def test_strings_that_differ_are_charged_alone_first(changeovers) -> None:
    one = next(c for c in changeovers("kittiwake") if c.work.build.bank.parallel == 3)
    same = {name_of(one, f"strings.string-{s}"): 12.75 for s in (1, 2, 3)}
    assert inequality(noted(one, readings=same).work).equal
    apart = inequality(noted(one, readings={**same, name_of(one, "strings.string-2"): 12.45}).work)
    assert apart.low == 2 and not apart.equal and apart.volts == pytest.approx(0.3)
    # LFP, whose volts tell less, must agree more closely.
    flat = next(c for c in changeovers("kittiwake") if not c.work.lead and c.work.build.bank.parallel == 2)
    for volts, equal in ((13.36, True), (13.32, False)):
        read = {name_of(flat, "strings.string-1"): 13.40, name_of(flat, "strings.string-2"): volts}
        assert inequality(noted(flat, readings=read).work).equal == equal
    # 12.45 V of rested gel lies between 60 and 70 %.
    assert apart.ah == pytest.approx(apart.hours * apart.amps) and 0.2 < apart.ah / 210 < 0.45


def test_what_is_paid_is_what_the_comparison_counts(demo_results, reference) -> None:
    results = demo_results("kittiwake", found=())
    plan = results.plan
    lfp = next(c for c in plan.candidates if c.id == "lfp")

    def outlay(**purchases: Purchase) -> float:
        bought = replace(lfp, purchases={k.replace("_", "-"): p for k, p in purchases.items()})
        others = tuple(bought if c.id == "lfp" else c for c in plan.candidates)
        found = evaluate(replace(plan, candidates=others), reference, found=()).changeover_to("lfp")
        return found.work.compared.cost["outlay"].number

    before = outlay()
    one = results.changeover_to("lfp")
    batteries = next(line for line in one.shopping.lines if line.key == "batteries")
    assert outlay(batteries=Purchase(paid=batteries.price - 200)) == pytest.approx(before - 200)
    # What is paid for the batteries pays for the spare one too.
    spare = replace(lfp, spare=True, purchases={"batteries": Purchase(paid=1200)})
    others = tuple(spare if c.id == "lfp" else c for c in plan.candidates)
    bought = evaluate(replace(plan, candidates=others), reference, found=()).changeover_to("lfp")
    assert bought.work.compared.banked["purchase"].number == pytest.approx(1200)
    shunt = next(line for line in one.shopping.lines if line.key == "part-shunt")
    share = 1 + one.work.compared.cost["contingency"].number / (
        one.work.compared.cost["extras"].number + one.work.compared.cost["labour"].number
    )
    assert outlay(part_shunt=Purchase(quote=shunt.price + 100)) == pytest.approx(before + 100 * share)
    # What was only advised counts once it is bought.
    assert outlay(part_covers=Purchase(paid=10)) == pytest.approx(before + 10 * share)


@pytest.mark.parametrize(("health", "verdict"), [(1.0, "promised"), (0.94, "within"), (0.7, "short")])
def test_the_acceptance_test_judges_by_what_the_bank_gives(changeovers, health, verdict) -> None:
    one = next(c for c in changeovers("kittiwake") if c.work.lead)
    test = one.acceptance
    curve = test._curve(health)
    readings = tuple(
        ProofReading(60 * h, v, test.amps) for h, v in zip(curve.hours, curve.volts, strict=True)
    )
    last = replace(readings[-1], volts=test.stop_v)
    done = noted(one, proof=(*readings[:-1], last)).acceptance
    assert done.verdict == verdict
    assert done.measured_ah == pytest.approx(health * test.expected_ah, rel=0.06)
    # A bank that is clearly short is told before the end; a good one is not blamed.
    early = noted(one, proof=readings[:40]).acceptance
    assert early.verdict == ("short" if verdict == "short" else "running")


def test_settings_that_conflict_are_found_with_a_remedy(demo_results, reference) -> None:
    plan = demo_results("long-haul", found=()).plan
    chargers = tuple(
        replace(s, rests=True, rebulk_v=12.0, float_v=13.8) if s.kind == MAINS else s for s in plan.sources
    )
    overrides = {
        **plan.overrides,
        "reconnect_v.lfp": 13.6,
        "inverter_cut_off_v": 13.4,
        "disconnect_v.lfp": 13.3,
    }
    # What it demands of its sources is struck out: they stay as they are.
    struck = tuple(replace(c, struck=tuple(f"source-{s.id}" for s in chargers)) for c in plan.candidates)
    odd = replace(plan, sources=chargers, overrides=overrides, candidates=struck)
    found = evaluate(odd, reference, found=()).changeover_to("lfp")
    keys = {c.key.split("-")[0] for c in found.conflicts}
    assert keys >= {"reconnect", "inverter", "alarm", "float", "rest"}
    assert all(c.says and c.remedy for c in found.conflicts)


def test_a_device_that_cannot_be_set_counts_as_it_stands(lamp_rig) -> None:
    one = lamp_rig(inverter=Inverter(rated_w=1000))
    assert not one.conflicts
    row = next(r for g in one.settings for r in g.rows if r.setting.key == "disconnect")
    old = Devices(disconnect_v=10.5, charged_v=13.0)
    # What it is now says nothing as long as it may be set; where it cannot be, it stays, and that is told.
    assert not noted(one, devices=old).conflicts
    fixed = {f"setting.{k}": False for k in ("loads.disconnect", "monitor.charged")}
    stuck = noted(one, devices=old, settable=fixed)
    assert {c.key for c in stuck.conflicts} == {"stuck-loads-disconnect", "stuck-monitor-charged"}
    says = next(c.says for c in stuck.conflicts if c.key == "stuck-loads-disconnect")
    assert f"{row.setting.value:.1f} V" in says and "10.5 V" in says
    # Ticked as set, it is believed.
    ticks = {key: Tick(True) for key in fixed}
    assert not noted(one, devices=old, settable=fixed, ticks=ticks).conflicts


def test_an_inverter_that_stops_in_every_charge_or_too_late_is_a_conflict(lamp_rig) -> None:
    cannot = replace(SHORE, equalise_v=15.6)
    one = lamp_rig("agm", inverter=Inverter(rated_w=1000), sources=(cannot,), struck=("source-shore",))
    assert {c.key for c in one.conflicts} == {"equalise-shore"}
    # Flooded batteries want it: the inverter is in the way of 15.5 V, even where nothing equalises yet; and a
    # charger that follows the temperature goes to 14.7 + 0.024 · 40 = 15.7 V at −15 °C.
    cold = lamp_rig(
        "flooded_deep", inverter=Inverter(rated_w=1000), sources=(replace(SHORE, compensates=True),),
        battery_c=-15.0,
    )  # fmt: skip
    assert {"equalise-shore", "cold-shore"} <= {c.key for c in cold.conflicts}
    assert any("15.7 V" in c.says for c in cold.conflicts)
    low = noted(one, devices=Devices(inverter_high_v=14.0), settable={"setting.loads.inverter_high": False})
    assert "high-shore" in {c.key for c in low.conflicts}
    late = noted(one, devices=Devices(inverter_low_v=10.0), settable={"setting.loads.inverter_low": False})
    assert "late" in {c.key for c in late.conflicts}


def test_what_acts_first_is_told_in_order(changeovers, lamp_rig) -> None:
    for name in DEMOS:
        for one in changeovers(name):
            for found, sign in zip(one.guards, (-1, 1), strict=True):
                known = [sign * g.value for g in found if g.value is not None]
                assert known == sorted(known) and len(found) >= 2
            assert ("bms" in {g.key for g in one.guards[0]}) == one.work.sleeps
    # What cannot be set takes its place by where it stands.
    one = lamp_rig(inverter=Inverter(rated_w=1000))
    early = noted(one, devices=Devices(inverter_low_v=13.2), settable={"setting.loads.inverter_low": False})
    assert early.guards[0][0].key == "inverter_low" and one.guards[0][0].key == "alarm"
    assert "inverter" in {c.key for c in early.conflicts}


def test_the_simulated_monitor_shows_the_curve_and_a_weak_battery_ends_it_early(changeovers) -> None:
    for one in changeovers("kittiwake"):
        test = one.acceptance
        end = 60 * test.curve.hours[-1]
        assert test.simulated(0.5 * end)[0] == pytest.approx(
            np.interp(0.5 * test.curve.hours[-1], test.curve.hours, test.curve.volts), abs=0.01
        )
        assert test.simulated(end + 1) == (test.stop_v, test.amps)
        strings = one.work.build.bank.parallel
        weak = Fault("weak", 1, 1, 0.6)
        assert test.simulated(end * (1 - 0.3 / strings), weak)[0] == test.stop_v
        assert test.simulated(0.0, Fault("main_fuse")) == (0.0, 0.0)
        assert (test.simulated(0.0, Fault("string_fuse", 1))[1] > 0) == (strings > 1)


def test_sources_are_measured_before_and_after_and_strings_both_ways(lamp_rig, reference) -> None:
    old = OldBank(reference.classes["agm"], 12, 100, 1, 2)
    one = lamp_rig("agm", loads=(replace(LAMP, draw=Draw(90, "W")),), sources=(SUN, SHORE), old_bank=old)
    made = {m.key: m for s in one.steps for m in s.measured}
    before, now = made["sources_before.shore"], made["sources.shore"]
    # Less than a charger gives is no fault of an old bank; more is odd.
    assert before.should.holds(0.0) and before.should.holds(30) and not before.should.holds(40)
    assert now.should.low == pytest.approx(0.7 * min(30, one.work.build.criteria.takes_a))
    assert "sources_before" not in keys_of(lamp_rig("agm", sources=(SHORE,)))
    strings = one.work.build.bank.parallel
    assert strings > 1
    shares = [made[f"shared_in.share-{s}"] for s in range(1, strings + 1)]
    assert sum(m.should.likely for m in shares) == pytest.approx(now.should.likely)
    # A loose joint takes less, and it is named.
    loose = simulated(one.work, "shared_in.share-1", Fault("loose", 1, 0, 0.02))
    assert loose < shares[0].should.low


def test_a_late_start_and_short_cables_speak_against_the_plan(changeovers) -> None:
    one = changeovers("pebble")[0]
    late = noted(
        one, return_by="2026-12-01", start_on="2026-12-05", reach_plus_mm=300.0, need_plus_mm=420.0,
        reach_minus_mm=500.0, need_minus_mm=420.0,
    )  # fmt: skip
    states = {q.key: q.state for q in late.questions}
    assert states["ask.return"] == states["ask.reach-plus"] == "wrong"
    assert states["ask.reach-minus"] == "known"
    assert "120 mm too short" in next(q.says for q in late.questions if q.key == "ask.reach-plus")


def test_a_reading_of_another_layout_is_kept_and_told(changeovers) -> None:
    one = changeovers("kittiwake")[0]
    assert noted(one, readings={name_of(one, "arrived.unit-9-9"): 12.6}).unplaced == (
        name_of(one, "arrived.unit-9-9"),
    )


@pytest.fixture
def lamp_rig(evaluated):
    """A changeover of a plain boat, with whatever differs."""

    def build(choose: str = "lfp", loads=None, struck=(), **changes) -> Changeover:
        if struck or choose not in ("agm", "lfp"):
            changes["candidates"] = (Candidate(choose, choose, struck=struck),)
        found = evaluated(loads or (LAMP,), **changes).changeover_to(choose)
        assert found is not None
        return found

    return build


def keys_of(one: Changeover) -> list[str]:
    return [s.key for s in one.steps]


LAMP = Load("lamp", "Lamp", DC, Draw(40, "W"), 12, hours=6)
KETTLE = Load("kettle", "Kettle", AC, Draw(1000, "W"), 230, use="uses", uses=2, minutes=4)
SUN = Source("sun", SOLAR, watts=300)
SHORE = Source("shore", MAINS, amps=30)
RELAY = Source("engine", ENGINE, link="relay")


def test_only_what_applies_is_a_step(lamp_rig) -> None:
    bare = keys_of(lamp_rig())
    assert not {"off_solar", "off_mains", "off_engine", "off_negative", "lift_out", "precharge"} & set(bare)
    assert not {"solar_on", "sources_on", "sources", "fortnight", "vent", "neutralise"} & set(bare)
    sunny = keys_of(lamp_rig(sources=(SUN,)))
    assert {"off_solar", "solar_on", "set-sun", "sources"} <= set(sunny) and "sources_on" not in sunny
    shore = keys_of(lamp_rig(sources=(SHORE,)))
    assert {"off_mains", "sources_on", "set-shore", "fortnight"} <= set(shore) and "solar_on" not in shore
    # A relay has no settings; a DC-DC charger that the bank demands in its place has.
    relay = keys_of(lamp_rig("agm", sources=(RELAY,)))
    assert "off_engine" in relay and "set-engine" not in relay
    assert {"fit-engine-dc_dc", "set-engine"} <= set(keys_of(lamp_rig(sources=(RELAY,))))
    assert "precharge" in [s.key for s in lamp_rig_with(lamp_rig, KETTLE).steps]


def lamp_rig_with(lamp_rig, load: Load) -> Changeover:
    one = lamp_rig()
    build = replace(one.work.build, plan=replace(one.work.plan, loads=(LAMP, load)))
    return Changeover(Work(one.work.compared, build), one.verdict)


def test_panels_go_off_first_and_on_last_and_the_negative_comes_last(lamp_rig, reference) -> None:
    old = OldBank(reference.classes["flooded_dual"], 12.0, 110.0, 1, 2)
    order = keys_of(lamp_rig(sources=(SUN, SHORE, RELAY), old_bank=old))

    def before(*keys: str) -> bool:
        places = [order.index(k) for k in keys]
        return places == sorted(places)

    assert before("photo", "off_solar", "off_mains", "off_loads", "off_negative", "lift_out", "neutralise")
    assert before("charge_each", "charged", "lift_in", "main_cables", "closed", "fused", "isolated")
    assert before(
        "isolated", "set_monitor", "sources_on", "solar_on", "loaded", "joints", "acceptance", "spent"
    )
    titles = {s.key: s.title for s in lamp_rig(old_bank=old).steps}
    assert titles["closed"].startswith("Connect positive first, negative last")
    assert titles["off_negative"].startswith("Take off the negative first")


@pytest.mark.parametrize(
    ("choose", "model", "cautions", "absent"),
    [("agm", "flooded_deep", {"gas", "acid"}, {"cold"}), ("lfp", "lfp", {"cold"}, {"gas"})],
)
def test_cautions_stand_where_they_apply(lamp_rig, reference, choose, model, cautions, absent) -> None:
    old = OldBank(reference.classes["flooded_dual"], 12.0, 110.0, 1, 2)
    candidates = (Candidate(choose, model),)
    one = lamp_rig(choose, candidates=candidates, sources=(SHORE,), old_bank=old)
    bank = {c for s in one.steps if s.gate not in ("old", "place") for c in s.cautions}
    whole = {c for s in one.steps for c in s.cautions}
    assert cautions <= whole and not absent & bank
    assert "amps" in whole and "damaged" in whole


@pytest.mark.parametrize(("kg", "people"), [(12, 1), (25, 1), (25.1, 2), (40, 2), (40.1, 3)])
def test_two_lift_above_25_kg_and_a_hoist_above_40(kg, people) -> None:
    assert lifters(kg) == people


def test_a_steady_load_is_one_of_the_owners_that_lasts_or_a_resistor(lamp_rig) -> None:
    one = lamp_rig()
    ah = one.work.build.bank.rated_ah
    # Of two that last, the one that is nearer to a twelfth of the capacity an hour.
    heater = Load("heater", "Heater", DC, Draw(0.08 * ah * 12.8, "W"), 12, hours=4)
    one = lamp_rig_with(lamp_rig, heater)
    assert one.work.load.name == "Heater" and one.work.load.amps == pytest.approx(0.08 * ah)
    fridge = Load("fridge", "Fridge", DC, Draw(0.08 * ah * 12.8, "W"), 12, hours=24, duty=0.3)
    assert lamp_rig_with(lamp_rig, fridge).work.load.name != "Fridge"
    kettle = lamp_rig_with(lamp_rig, KETTLE).work.load
    assert kettle.name != "Kettle"
    # Where none lasts: a heater on the inverter if that carries it, else a resistor of the same current.
    large = (replace(LAMP, draw=Draw(400, "W"), duty=0.5),)
    for rated_w, name in ((2000, "heater"), (20, "resistor")):
        inverter = Inverter(rated_w=rated_w, efficiency=0.9, idle_w=10)
        found = lamp_rig(loads=large, inverter=inverter).work
        assert name in found.load.name
        assert found.load.amps == pytest.approx(0.05 * found.build.bank.rated_ah, rel=0.1)
    stated = noted(one, test_a=14.0)
    assert stated.work.load.stated and stated.acceptance.amps == 14.0
    # A quarter of the current lasts four times as long, a little more by the rate.
    slow = noted(one, test_a=3.5)
    assert slow.acceptance.hours[1] >= 4 * stated.acceptance.hours[1] * 0.999


def test_a_colder_place_is_expected_to_give_less(lamp_rig) -> None:
    one = lamp_rig("agm")
    ah = [noted(one, celsius=c, test_a=8.0).acceptance.expected_ah for c in (-10.0, 5.0, 20.0, 25.0)]
    assert ah == sorted(ah) and ah[0] < 0.85 * ah[-1]
    assert (
        not noted(one, celsius=5.0).acceptance.warm_enough and noted(one, celsius=15.0).acceptance.warm_enough
    )


def test_amp_hours_are_the_area_under_the_current() -> None:
    readings = [ProofReading(0, 12.8, 10), ProofReading(60, 12.6, 10), ProofReading(90, 12.5, 6)]
    assert taken(readings) == pytest.approx(10 + 8 * 0.5)
    assert taken(readings[:1]) == 0.0


def test_settings_follow_the_bank_and_what_is_not_stated_is_not_known(lamp_rig) -> None:
    charger = Source("shore", MAINS, amps=30, absorption_v=14.8, float_v=13.8)
    one = lamp_rig(sources=(charger,), struck=("source-shore",))
    groups = {g.key: g for g in one.settings}
    assert {r.can for r in groups["shore"].rows} == {"unknown"} and groups["shore"].note
    rows = {r.setting.key: r.setting for r in groups["shore"].rows}
    assert rows["absorption"].value == pytest.approx(14.3) and rows["absorption"].is_now == pytest.approx(
        14.8
    )
    monitor = {r.setting.key: r.setting.value for r in groups["monitor"].rows}
    assert monitor["capacity"] == one.work.build.bank.rated_ah
    assert monitor["charged"] == pytest.approx(14.1)
    assert "upkeep" not in groups
    kept = lamp_rig(sources=(charger, Source("upkeep", UPKEEP, amps=3)))
    assert next(g for g in kept.settings if g.key == "upkeep").note
    assert "bms" in groups and "bms" not in {g.key for g in lamp_rig("agm").settings}
    able = lamp_rig(sources=(replace(charger, adjustable=True),))
    assert {r.can for g in able.settings if g.key == "shore" for r in g.rows} == {"yes"}
    ticked = noted(one, ticks={"setting.shore.absorption": Tick(True, "2026-11-28")})
    assert [r.tick.done for g in ticked.settings if g.key == "shore" for r in g.rows][:2] == [True, False]


def test_a_planned_device_has_settings_but_nothing_that_it_stands_at_now(reference) -> None:
    document = data.demo_rig("kittiwake")
    document["improvements"] = [
        {"id": "a", "kind": "dc_dc", "size": 20, "target": "engine"},
        {"id": "b", "kind": "panels", "size": 100, "target": ""},
        {"id": "c", "kind": "lower", "size": 20, "target": "shore"},
    ]
    shore = next(s for s in document["sources"] if s["id"] == "shore")
    shore["adjustable"] = True
    plan = to_plan(files.read(document, reference), reference)
    groups = {g.key: g for g in evaluate(plan, reference).changeover_to("gel").settings}
    for key in ("engine", "planned-panels"):
        assert groups[key].rows and not any(r.field or r.setting.is_now for r in groups[key].rows)
    # A device that is only set to fewer amps is there, and stands at what it gives today.
    amps = next(r for r in groups["shore"].rows if r.setting.key == "amps")
    assert amps.field and (amps.setting.value, amps.setting.is_now) == (20.0, shore["amps"])
    # What can be entered on the sheet is a field of a source that stands in the file, and of that one.
    places = {r.field.split("/")[2]: g.key for g in groups.values() for r in g.rows if "/sources/" in r.field}
    assert places and all(document["sources"][int(i)]["id"] == key for i, key in places.items())


def test_what_the_verdict_does_not_say_has_something_against_it(lamp_rig, evaluated) -> None:
    one = lamp_rig()
    others = [c for c in one.verdict.compared_banks if c.id != one.verdict.winner.id]
    assert against(one.verdict.winner, one.verdict) is None
    assert others and all(against(c, one.verdict) is not None for c in others)
    tiny = Candidate("tiny", "agm", "tarnmoor-60", 1, 1)
    hopeless = evaluated((LAMP,), candidates=(tiny, Candidate("lfp", "lfp"))).changeover_to("tiny")
    assert hopeless.against.hard and "usable" in hopeless.against.says.template


def test_questions_are_answered_by_the_plan_where_it_knows(lamp_rig) -> None:
    states = {q.key: q.state for q in lamp_rig(sources=(SHORE,)).questions}
    assert states["ask.height"] == "missing" and states["ask.manual-shore"] == "missing"
    roomy = lamp_rig(locker=Locker(rooms=((900.0, 600.0, 400.0),)))
    tight = lamp_rig(locker=Locker(rooms=((200.0, 100.0, 100.0),)))
    assert {q.key: q.state for q in roomy.questions}["ask.height"] == "known"
    assert {q.key: q.state for q in tight.questions}["ask.height"] == "wrong"
    asked = noted(roomy, ticks={"ask.access": Tick(True)}, deposit=0.0, start_on="2026-12-01")
    settled = {q.key: q.settled for q in asked.questions}
    assert (
        settled["ask.access"]
        and settled["ask.deposit"]
        and settled["ask.who"]
        and not settled["ask.terminals"]
    )
