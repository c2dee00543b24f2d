"""One rule, one place: what two parts of the program say by one rule, they say alike."""

from typing import Annotated, Any

import numpy as np
import pytest
from pydantic import TypeAdapter, ValidationError

from random_rigs import random_document
from sampled import sampled
from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures import units
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import parse
from vast_harbor.core.installation.cables import CLAD, ampacity
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.plan import TrialSettings
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.stops.banks import BLOCKING, of_bank, quick_life_cost, shapes
from vast_harbor.core.stops.banks.find import Found
from vast_harbor.core.stops.banks.reasons import BROKEN, NEED, PUT_RIGHT, REASONS, against
from vast_harbor.core.stops.compare import extras_cost_of
from vast_harbor.core.stops.trial.simulated_banks import simulated_banks
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.fields import Measure
from vast_harbor.formats.parts import core_of
from vast_harbor.formats.quotes import read_quote
from vast_harbor.formats.report.document import report
from vast_harbor.formats.source_part import SourcePart, TrialPart
from vast_harbor.formats.table import comparison_table, results_json
from vast_harbor.telling.figures import figure_text, sentence_text
from vast_harbor.web.base.views import figure_view, tokens, workings_view
from vast_harbor.web.stops.banks.routes import _metered


@pytest.mark.parametrize("text", ["1", "1.4", "1,99", "2", "35", "0.4", "35 %", "101", "-5 %"])
@pytest.mark.parametrize("key", ["reserve", "discount_rate", "verdict_within", "cable_drop", "dod.agm"])
def test_a_share_is_typed_alike_as_a_field_and_as_an_assumption(reference, key, text) -> None:
    entry = reference.assumptions("customary", {}).get(key).entry
    unit = "1" if entry.unit == "%" else entry.unit
    field = Measure(unit, entry.least, entry.most, "{value}", percent=True)
    document = files.new_rig("Shares") | {"plan": {"overrides": {key: text}}}

    def outcome(read: Any) -> float | None:
        try:
            return read()
        except (ValidationError, files.RigFileError):
            return None

    as_field = outcome(
        lambda: TypeAdapter(Annotated[float, field]).validate_python(text, context={"typed": True})
    )
    as_override = outcome(lambda: files.read(document, reference, typed=True).plan.overrides[key])
    assert as_field == as_override


def test_a_rate_may_be_one_per_cent_and_a_depth_a_hundred(reference) -> None:
    def read(key: str, text: str) -> float:
        document = files.new_rig("Shares") | {"plan": {"overrides": {key: text}}}
        return files.read(document, reference, typed=True).plan.overrides[key]

    assert read("discount_rate", "1") == pytest.approx(0.01)
    assert read("discount_rate", "1.4") == pytest.approx(0.014)
    assert read("dod.lfp", "1") == 1.0
    with pytest.raises(files.RigFileError):
        read("dod.lfp", "1.4")


def test_who_leads_with_amp_hours_reads_them_on_screen_paper_table_and_export(
    demo_results, reference
) -> None:
    results = demo_results("kittiwake", found=())
    style = Style("metric", "EUR", lead_v=results.plan.system_v)
    paper, table = report(results, reference, style, "2026-11-25"), comparison_table(results, style)
    told = results_json(results, style)["figures"]
    for figure in (results.day.bank_wh, results.need.energy):
        text = figure_view(figure, style).text
        assert text.endswith(" Ah") and text == figure_text(figure, style)
        assert workings_view(figure, style, None).text == text
        assert told[figure.key]["text"] == text
        watt_hours = style.text(figure.value, figure.unit)
        assert text in table and watt_hours not in table
        assert text in paper and watt_hours not in paper
    for finding in results.findings:
        assert "".join(t.text for t in tokens(finding.says, style)) == sentence_text(finding.says, style)


def test_an_old_bank_of_which_nothing_is_known_is_as_worn_on_the_meter_as_in_the_trial(client) -> None:
    document = files.new_rig("Old")
    document["old_bank"] = {"battery_class": "agm", "unit_ah": 100}
    rig_id = client.post("/api/rigs/import", json=document).get_json()["id"]
    reference = data.reference()
    results = evaluate(files.to_plan(files.read(document, reference), reference), reference, found=())
    assert results.banks.diagnosis is not None and results.banks.diagnosis.health is None
    *_, old = simulated_banks(results.plan, results.assumptions, results.banks)
    loaded = {"bank": "old", "volts": "12.1", "amps": "20", "state": "loaded"}
    assert client.post(f"/api/rigs/{rig_id}/meter", json=loaded).status_code == 200

    assert _metered(results, "old").health == old.health


@pytest.mark.parametrize("seed", sampled(range(4), 1, 2))
def test_what_rules_a_bank_out_in_the_search_is_what_its_checks_say(seed, reference) -> None:
    document = random_document(np.random.default_rng(300 + seed))
    results = evaluate(files.to_plan(files.read(document, reference), reference), reference, found=())
    limits = results.banks.rig_limits
    volts = results.plan.system_v
    banks = [
        Bank(m, round(volts / m.unit_class_v), n)
        for m in results.plan.models.values()
        for n in (1, 4)
        if volts % m.unit_class_v == 0
    ]
    told = {code for reason in REASONS.values() for code in reason.codes}
    assert told == BROKEN.keys() and len(banks) > 20
    seen = set()
    for bank in banks:
        banked = of_bank(limits, bank, results.banks.old_kg)
        reasons = set(against(banked.build.criteria))
        stops = {c.code for c in banked.checks if c.verdict == BLOCKING}
        assert reasons == {key for key, reason in REASONS.items() if stops & set(reason.codes)}, bank
        # What nothing bought puts right is never priced in; whether a smaller bank will do is up to its year.
        extras = extras_cost_of(results.plan, results.assumptions)(banked)
        assert (extras is None) or not reasons - PUT_RIGHT - {NEED}, (bank.model.id, reasons)
        seen |= reasons
    assert len(seen) > 4


def test_strings_share_alike_in_the_search_and_in_the_checks(evaluated, reference) -> None:
    results = evaluated(())
    limits = results.banks.rig_limits
    model = next(m for m in reference.catalogue.values() if m.bms is not None and m.bms.switch != "own")
    banks = [Bank(model, round(12 / model.unit_class_v), n) for n in (1, 2)]
    found = tuple(Found(bank, limits.usable_wh(bank), 1.0, 1.0, 10.0, None, False) for bank in banks)
    few, many = shapes(
        quick_life_cost(results.plan, reference, results.assumptions, results.days),
        found,
        model.battery_class.key,
    )
    for shape in (few, many):
        criteria = limits.criteria(shape.found.bank)
        most = None if criteria.gives_a is None else criteria.shared(criteria.gives_a)
        assert shape.current_a == most


def test_clad_cable_carries_alike_in_the_tool_and_in_the_check(client, evaluated, reference) -> None:
    asked = {"amps": "80", "length": "2", "volts": "12", "drop": "3", "clad": True}
    answer = client.post("/api/cable", json=asked).get_json()
    rows = {row["size"]: row["carries"] for row in answer["rows"]}
    for mm2, copper in reference.cables.ampacity:
        assert ampacity(mm2, reference.cables, clad=True) == pytest.approx(copper / CLAD**0.5)
        assert rows[f"{mm2:g} mm²"] == Style().text(ampacity(mm2, reference.cables, clad=True), "A")


def test_inches_pounds_and_fahrenheit_are_one_wherever_they_are_read() -> None:
    quoted = read_quote(
        "LFP 100 Ah 12.8 V, 13 x 7 x 8.5 in, 24 lb, charge temp 32 to 113 °F", (), {"lfp": 3.2}, "lfp"
    ).fields
    assert quoted["length_mm"] == pytest.approx(parse("13 in", "mm"), abs=1)
    assert quoted["kg"] == pytest.approx(parse("24 lb", "kg"), abs=0.01)
    assert quoted["charge_min_c"] == pytest.approx(parse("32 °F", "°C"))
    assert units.celsius(units.fahrenheit(np.array([-40.0, 21.5]))) == pytest.approx([-40.0, 21.5])


def test_a_part_of_a_rig_file_has_the_defaults_of_the_core() -> None:

    assert core_of(TrialSettings, TrialPart.model_validate({})) == TrialSettings()
    part = SourcePart.model_validate({"id": "s", "kind": "mains"})
    assert core_of(Source, part) == Source("s", "mains")
    assert part.model_fields_set == {"id", "kind"}
