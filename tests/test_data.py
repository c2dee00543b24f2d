"""Shipped data: complete, believable, and as the documents say."""

import json
import re
from pathlib import Path

import pytest

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank, series_count
from vast_harbor.core.battery.sizing import usable_energy
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.passage import evaluate
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.patterns import from_pattern

ROOT = Path(__file__).parents[1]
CLASSES = ("flooded_dual", "flooded_deep", "agm", "gel", "lfp")


def test_catalogue_has_models_of_every_class(reference) -> None:
    models = reference.catalogue.values()
    assert len(models) >= 60
    assert {m.battery_class.key for m in models} == set(CLASSES)
    # Eight-volt, six-volt and two-volt units, and ready-made ones for 24 and 48 V.
    assert {m.unit_class_v for m in models} == {2, 6, 8, 12, 24, 48}
    assert {m.grade for m in models} == {"A", "B", "C"}
    assert {m.bms.switch for m in models if m.bms} == {"own", "monitor", "none"}
    assert len({m.title for m in models}) == len(models)


@pytest.mark.parametrize("model", data.reference().catalogue.values(), ids=lambda m: m.id)
def test_catalogue_entry_is_believable(model) -> None:
    energy = model.nominal_v * model.rated_ah
    assert 0.55 < energy / model.kg / model.battery_class.wh_per_kg < 1.6
    assert 60 < model.price / energy * 1000 < (450 if model.portable is None else 1000)
    depths, cycles = zip(*model.cycles, strict=True)
    assert list(depths) == sorted(depths) and list(cycles) == sorted(cycles, reverse=True)
    low, high = model.battery_class.cycles.low, model.battery_class.cycles.high
    for depth, count in model.cycles:
        if depth == model.battery_class.cycles_at_dod:
            assert low <= count <= high * 1.25
    if model.label_exponent is not None:
        assert 1.0 < model.label_exponent < 1.35
    own_switch = model.bms is not None and model.bms.switch == "own"
    assert own_switch == (model.bms is not None and model.bms.continuous_a is not None)
    assert (model.bms is None) == model.battery_class.is_lead_acid
    # 1.3 to 3 kg a litre is what batteries of lead weigh, 0.9 to 2.6 those of lithium.
    density = model.kg / (model.case.length_mm * model.case.width_mm * model.case.height_mm / 1e6)
    assert 1.1 < density < 3.1 if model.battery_class.is_lead_acid else 0.7 < density < 2.6, density
    assert model.offer.low <= model.price <= model.offer.high
    assert model.warranty.full_years <= model.warranty.years and model.note
    assert model.battery_class.vented != "always" or model.case.orientation == "upright"
    usable = {v for v in (12, 24, 48) if _makes(model, v)}
    assert usable, "no system can be built of it"


def _makes(model, volts: float) -> bool:
    try:
        return series_count(volts, model.unit_class_v) <= model.max_series
    except InvalidInput:
        return False


@pytest.mark.parametrize("key", CLASSES)
def test_every_class_has_a_bank_for_a_common_need(reference, key) -> None:
    # 2.5 kWh usable at half or nine tenths of the label, at 12 V, in no more strings than are advisable.
    models = [m for m in reference.catalogue.values() if m.battery_class.key == key and _makes(m, 12)]
    dod = reference.rules["customary"].dod[key]
    best = max(
        usable_energy(
            Bank(m, series_count(12, m.unit_class_v), min(3, m.max_parallel)).nameplate_wh, dod, 1, 1, 0.9
        )
        for m in models
    )
    assert best > (1500 if key == "flooded_dual" else 2500)


def test_assumptions_are_coherent(reference) -> None:
    for rule in reference.rules:
        for assumption in reference.assumptions(rule, {}):
            entry = assumption.entry
            assert entry.least <= entry.most and entry.name and entry.source and entry.note
            if assumption.value is not None:
                assert entry.least <= assumption.value <= entry.most, assumption.key
            if assumption.low is not None and assumption.high is not None:
                assert assumption.low <= assumption.high
                if not assumption.by_rule:
                    assert assumption.value is not None
                    assert assumption.low <= assumption.value <= assumption.high, assumption.key


def test_there_are_three_house_rules(reference) -> None:
    # The trade's table: depth of flooded dual, flooded deep, AGM, gel, LFP; then nights, reserve, ageing.
    expected = {
        "long_life": ((0.30, 0.35, 0.40, 0.40, 0.80), (3, 0.40, 0.8), "warranty", 0.9),
        "customary": ((0.50, 0.50, 0.50, 0.50, 0.90), (2, 0.25, 0.9), "likely", 1.0),
        "to_label": ((0.50, 0.80, 0.80, 0.80, 1.00), (1, 0.20, 1.0), "label_cycles", 1.3),
    }
    for key, (depths, values, basis, agm) in expected.items():
        rule = reference.rules[key]
        assert tuple(rule.dod[c] for c in CLASSES) == depths
        assert tuple(rule.values[v] for v in ("nights", "reserve", "ageing_allowance")) == values
        assert (rule.life_basis, rule.values["agm_life_factor"]) == (basis, agm)
        assert rule.argues.endswith(".")


def test_defaults_that_follow_the_price_factor(reference) -> None:
    plain, dear = (
        reference.assumptions("customary", {}),
        reference.assumptions("customary", {"price_factor": 11.5}),
    )
    assert dear.value("tariff") == pytest.approx(11.5 * plain.value("tariff"))
    assert dear.value("scrap_per_kg") == pytest.approx(11.5 * plain.value("scrap_per_kg"))
    held = reference.assumptions("customary", {"price_factor": 11.5, "tariff": 2})
    assert held.value("tariff") == 2 and held.get("tariff").overridden


def test_appliance_list_covers_the_rooms() -> None:
    entries = data.appliances()
    assert len(entries) >= 120
    assert len({e.name for e in entries}) == len(entries)
    assert {e.load["supply"] for e in entries} == {"dc", "ac"}
    assert {e.load["use"] for e in entries} == {"hours", "uses", "standby"}
    for e in entries:
        likely = float(e.load["draw"].split()[0])
        assert e.load["low"] <= likely <= e.load["high"], e.name
        assert set(e.kinds) <= {"van", "rv", "caravan", "boat", "cabin", "other"}, e.name
    # Which loads are critical, only the owner says.
    assert not any("critical" in e.load for e in entries)
    rooms = {e.room for e in entries}
    assert {"Galley", "Water", "Light", "Heat", "Deck", "Vehicle", "Safety"} <= rooms


@pytest.mark.parametrize("key", data.patterns())
def test_a_pattern_fills_a_rig_that_can_be_computed(reference, key) -> None:
    filled = from_pattern(data.patterns()[key], {a.name: a.load for a in data.appliances()}, "van")
    document = files.new_rig("Pattern")
    document["sources"] = filled.pop("sources")
    for part, fields in filled.items():
        document[part] |= fields
    rig = files.read(document, reference, typed=True)
    results = evaluate(files.to_plan(rig, reference), reference)
    assert 100 < results.day.bank_wh.number < 6000
    # What charges it comes with it, and is asked about before the verdict is final.
    assert results.plan.sources and all(s.assumed for s in results.plan.sources)
    assert results.verdict.kind != "buy" or "Is this right?" in results.verdict.question.says.template
    assert rig.rig.off_grid_nights + rig.rig.hook_up_nights <= 366
    assert rig.rig.nights_in_a_row <= rig.rig.off_grid_nights


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_demo_rig_is_whole(reference, name) -> None:
    rig = files.read(data.demo_rig(name), reference)
    assert rig.rig.notes and rig.old_bank is not None
    assert len(rig.day.loads) >= 7 and len(rig.candidates) >= 3
    classes = {c.battery_class for c in rig.candidates}
    assert "lfp" in classes and classes & {"flooded_dual", "flooded_deep", "agm", "gel"}


def test_the_documented_example_is_a_rig_file(reference) -> None:
    text = (ROOT / "docs" / "formats.md").read_text("utf-8")
    example = re.search(r"```json\n(.*?)```", text, re.S)
    assert example is not None
    rig = files.read(json.loads(example[1]), reference)
    assert rig.rig.name == "Skua" and rig.day.loads[2].draw.unit == "A"


def test_readme_tells_what_is_there(reference) -> None:
    text = (ROOT / "README.md").read_text("utf-8")
    assert f"{len(data.appliances())} appliances" in text
    count = len(list(reference.assumptions("customary", {})))
    assert f"{count} assumptions" in text
    assert f"{len(reference.catalogue)} batteries" in text
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 5 <= len(pictures) < 20
    for picture in pictures:
        assert f"docs/screenshots/{picture.name}" in text
        assert picture.read_bytes()[:8] == b"\x89PNG\r\n\x1a\n"


def test_lock_files_hold_versions_and_hashes_and_no_addresses() -> None:
    for name in ("requirements.lock", *(f"requirements-{of}.lock" for of in ("build", "dev", "bench"))):
        text = (ROOT / name).read_text("utf-8")
        assert "://" not in text and "index-url" not in text
        for package in re.findall(r"^[\w.-]+==.*$", text, re.M):
            assert package.endswith("\\"), package
        assert text.count("--hash=sha256:") >= text.count("==")
    lock = json.loads((ROOT / "frontend" / "package-lock.json").read_text("utf-8"))
    for path, package in lock["packages"].items():
        assert "resolved" not in package
        assert not path or package.keys() & {"integrity", "link", "inBundle"}, path
