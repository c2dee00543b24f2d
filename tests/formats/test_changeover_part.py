"""The changeover in the rig file: what is kept by name, how it is read, and files from before it."""

import copy

import pytest

from vast_harbor import data
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.problem import RigFileError
from vast_harbor.formats.rig_document import VERSION

DEMOS = ("kittiwake", "tern-rock", "mulga", "pebble", "long-haul")


@pytest.fixture
def document(reference):
    return files.to_document(files.read(data.demo_rig("pebble"), reference))


def with_changeover(document, **fields):
    made = copy.deepcopy(document)
    made["changeover"] |= fields
    return made


@pytest.mark.parametrize("name", DEMOS)
def test_a_file_of_the_first_version_is_brought_up_to_date(reference, name) -> None:
    old = data.demo_rig(name)
    old["version"] = 1
    old.pop("changeover", None)
    for candidate in old["candidates"]:
        candidate.pop("purchases", None)
    before = copy.deepcopy(old)
    made = files.to_document(files.read(old, reference))
    assert old == before
    assert made["version"] == VERSION == 2
    assert made["changeover"]["chosen"] == "" and made["changeover"]["readings"] == {}
    assert all(c["purchases"]["paid"] == {} for c in made["candidates"])
    # What it held before is as it was.
    again = files.to_document(files.read(made, reference))
    assert again == made


@pytest.mark.parametrize("name", ["pebble", "tern-rock"])
def test_what_is_kept_comes_back_whole(reference, name) -> None:
    made = files.to_document(files.read(data.demo_rig(name), reference))
    plan = files.to_plan(files.read(made, reference), reference)
    record = plan.changeover
    assert record.chosen and len(record.readings) > 8
    assert {k for k, t in record.ticks.items() if t.done} == set(made["changeover"]["done"])
    assert record.tick("nothing-of-that-name").done is False
    bought = next(c for c in plan.candidates if c.id == record.chosen).purchases
    assert bought["batteries"].paid and bought["batteries"].serial and bought["batteries"].got


@pytest.mark.parametrize(
    ("key", "typed", "stored"),
    [
        ("dual.arrived.unit-1-1.V", "12,8", 12.8),
        ("dual.loaded.plus.V", "8 mV", 0.008),
        ("dual.sources.shore.A", "14.5 A", 14.5),
        ("dual.sources.shore.A", "900 mA", 0.9),
        ("dual.joints.hottest.C", "31 °C", 31.0),
        ("dual.joints.hottest.C", "100 °F", pytest.approx(37.78, abs=0.01)),
        ("dual.strings.string-1.V", "−12.6", -12.6),
        ("dual.closed.bank.V", "", None),
    ],
)
def test_a_reading_is_read_in_the_unit_that_its_name_ends_in(reference, document, key, typed, stored) -> None:
    made = files.read(with_changeover(document, readings={key: typed}), reference, typed=True)
    assert made.changeover.readings[key] == stored


@pytest.mark.parametrize(
    ("fields", "where", "says"),
    [
        ({"readings": {"dual.arrived.unit-1-1": 12.8}}, "readings", "must end in V, A or C"),
        ({"readings": {"a b": 12.8}}, "readings", ""),
        ({"readings": {"dual.a.b.V": 999}}, "readings", "between −200 and 200 V, not 999 V"),
        ({"readings": {"dual.a.b.C": -90}}, "readings", "between −40 and 300 °C"),
        ({"done": {"packing": "yesterday"}}, "done", "2026-11-25"),
        ({"notes": {"packing": 7}}, "notes", "must be"),
        ({"notes": {"packing": "x" * 601}}, "notes", "600"),
        ({"deposit": -5}, "deposit", "amount"),
        ({"test_a": 0}, "test_a", "between 0.5 and"),
        ({"proof": [{"id": "a", "minutes": -1}]}, "proof", "minutes"),
        ({"proof": [{"id": "a"}, {"id": "a"}]}, "proof/1/id", "used twice"),
        ({"devices": {"alarm_v": 230}}, "devices/alarm_v", "between 8 and 18 V"),
        ({"devices": {"efficiency": 1.2}}, "devices/efficiency", "%"),
        ({"settable": {"setting.loads.alarm": "perhaps"}}, "settable", ""),
        ({"chosen": "a b"}, "chosen", ""),
        ({"unknown": 1}, "unknown", ""),
    ],
)
def test_what_cannot_be_kept_is_refused_at_its_place(reference, document, fields, where, says) -> None:
    with pytest.raises(RigFileError) as refused:
        files.read(with_changeover(document, **fields), reference)
    problem = refused.value.problems[0]
    assert problem.path.startswith(f"/changeover/{where}")
    assert says in problem.message


def test_prices_are_kept_with_their_candidate(reference, document) -> None:
    made = copy.deepcopy(document)
    first = made["candidates"][0]
    first["purchases"]["paid"]["batteries"] = "£1,204.50"
    first["purchases"]["quoted"]["part-shunt"] = 80
    read = files.read(made, reference, typed=True)
    plan = files.to_plan(read, reference)
    bought = plan.candidates[0].purchases
    assert bought["batteries"].paid == 1204.5 and plan.candidates[0].known_price("batteries") == 1204.5
    assert bought["part-shunt"].price == 80 and plan.candidates[0].known_price("part-links") is None
    assert plan.candidates[1].known_price("batteries") is None
    made["candidates"][0]["purchases"]["paid"]["batteries"] = -1
    with pytest.raises(RigFileError):
        files.read(made, reference)
