"""The rig file: every wrong value gets a sentence at its field, and a good one comes back the same."""

import json
from pathlib import Path

import jsonschema_rs
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.formats import rig_file as files

SCHEMA = Path(__file__).parents[2] / "docs" / "rig-file.schema.json"


def document(**parts):
    found = files.new_rig("Test")
    for pointer, value in parts.items():
        at = found
        *way, last = pointer.split("__")
        for step in way:
            at = at[step]
        at[last] = value
    return found


def load(**fields):
    return [{"id": "a", "name": "Pump", "draw": {"value": 45, "unit": "W"}, **fields}]


def problems(reference, found, typed=False) -> dict[str, str]:
    with pytest.raises(files.RigFileError) as caught:
        files.read(found, reference, typed=typed)
    return {p.path: p.message for p in caught.value.problems}


@pytest.mark.parametrize(
    ("parts", "path", "says"),
    [
        ({"day__loads": load(draw="-5")}, "/day/loads/0/draw", "cannot be negative"),
        (
            {"day__loads": load(hours="25")},
            "/day/loads/0/hours",
            "A day has 24 hours, so 25 h is not possible",
        ),
        ({"day__loads": load(duty="1,4")}, "/day/loads/0/duty", "between 0 and 100 %, not 140 %"),
        ({"day__loads": load(uses="30", minutes="60")}, "/day/loads/0/minutes", "longer than a day"),
        ({"day__loads": load(name=" ")}, "/day/loads/0/name", "is empty"),
        ({"rig__name": ""}, "/rig/name", "is empty"),
        ({"rig__currency": "ABX"}, "/rig/currency", "not a currency"),
        ({"rig__off_grid_nights": "400"}, "/rig/off_grid_nights", "365 nights"),
        ({"rig__years_kept": "0"}, "/rig/years_kept", "1 to 40 years"),
        ({"rig__system_v": 32}, "/rig/system_v", "12, 24, 36 or 48 V"),
        ({"old_bank": {"battery_class": "agm", "unit_v": "7"}}, "/old_bank/unit_v", "do not come in 7 V"),
        (
            {"own_models": [{"id": "x", "name": "x", "battery_class": "agm", "unit_v": "7"}]},
            "/own_models/0/unit_v",
            "do not come in 7 V",
        ),
        (
            {"candidates": [{"id": "x", "battery_class": "agm", "model": "nix"}]},
            "/candidates/0/model",
            "no battery",
        ),
        ({"plan__overrides": {"nights": "0"}}, "/plan/overrides/nights", "between 0.25 and 30"),
        ({"plan__overrides": {"nix": 1}}, "/plan/overrides/nix", "no assumption"),
        ({"day__loads": load() + load()}, "/day/loads/1/id", "used twice"),
    ],
)
def test_wrong_values_get_one_sentence_at_their_field(reference, parts, path, says) -> None:
    found = problems(reference, document(**parts), typed=True)
    assert list(found) == [path]
    assert says in found[path]
    assert found[path].endswith(".")


def test_all_problems_are_told_at_once(reference) -> None:
    found = problems(reference, document(rig__name="", day__loads=load(hours=25, duty=2)))
    assert set(found) == {"/rig/name", "/day/loads/0/hours", "/day/loads/0/duty"}


def test_typed_text_is_read_and_a_file_holds_numbers(reference) -> None:
    typed = document(day__loads=load(draw="12A", hours="1h30", duty="35 %", starts_at="18:30"))
    part = files.read(typed, reference, typed=True).day.loads[0]
    assert (part.draw.value, part.draw.unit, part.hours, part.duty, part.starts_at) == (
        12,
        "A",
        1.5,
        0.35,
        18.5,
    )
    assert set(problems(reference, typed)) == {
        "/day/loads/0/draw",
        "/day/loads/0/hours",
        "/day/loads/0/duty",
        "/day/loads/0/starts_at",
    }


def test_amounts_are_read_as_the_region_of_the_rig_writes_them(reference) -> None:
    bank = {"id": "b", "battery_class": "agm", "unit_price": "$1,918"}
    found = document(
        rig__numbers="en-US", rig__currency="USD", candidates=[bank], day__loads=load(draw="1,030")
    )
    read = files.read(found, reference, typed=True)
    assert (read.candidates[0].unit_price, read.day.loads[0].draw.value) == (1918, 1030)
    found["rig"]["numbers"] = ""
    refused = problems(reference, found, typed=True)
    assert set(refused) == {"/day/loads/0/draw", "/candidates/0/unit_price"}


def test_us_units_are_read_as_such(reference) -> None:
    found = files.read(document(rig__units="us", rig__battery_c="50"), reference, typed=True)
    assert found.rig.battery_c == pytest.approx(10)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"\x00\x01", "not JSON"),
        (b"{", "not JSON (line 1)"),
        (b"[" * 100_000, "not JSON"),
        (b"[]", "not a rig file"),
        (b'{"format": "other"}', "not a rig file"),
        (b'{"format": "vast-harbor-rig"}', "does not state its rig file version"),
        (b'{"format": "vast-harbor-rig", "version": 99}', "reads versions up to 2"),
        (b'{"format": "vast-harbor-rig", "version": true}', "does not state its rig file version"),
        (b" " * 50_000_000, "50 MB"),
    ],
)
def test_a_file_that_is_no_rig_file_is_said_to_be_none(content, says) -> None:
    with pytest.raises(files.RigFileError) as caught:
        files.loads_text(content)
    assert says in str(caught.value)


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_a_rig_goes_out_and_comes_back_the_same(reference, name) -> None:
    first = files.read(data.demo_rig(name), reference)
    text = files.to_json(files.to_document(first))
    again = files.read(files.loads_text(text.encode()), reference)
    assert again == first
    jsonschema_rs.validate(files.json_schema(), json.loads(text))


def test_published_schema_is_the_one_in_force() -> None:
    assert json.loads(SCHEMA.read_text("utf-8")) == files.json_schema()


JSON = st.recursive(
    st.none() | st.booleans() | st.floats() | st.integers() | st.text(max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=6), inner, max_size=3),
    max_leaves=8,
)


@given(part=st.sampled_from(["rig", "day", "plan", "old_bank", "own_models", "candidates"]), junk=JSON)
def test_junk_is_refused_with_sentences_and_nothing_else(reference, part, junk) -> None:
    found = document() | {part: junk}
    try:
        files.read(found, reference, typed=True)
    except files.RigFileError as error:
        assert all(p.message.endswith(".") for p in error.problems)


@pytest.mark.parametrize(
    ("typed", "volts", "watts"), [("0.4 A", 12, 4.8), ("0,4A", 24, 9.6), ("3", 12, 3.0), ("3 W", 48, 3.0)]
)
def test_standby_is_read_off_a_monitor_in_amps_or_watts(reference, typed, volts, watts) -> None:
    document = files.new_rig("Test", system_v=volts)
    document["day"]["standby_w"] = typed
    assert files.read(document, reference, typed=True).day.standby_w == pytest.approx(watts)
