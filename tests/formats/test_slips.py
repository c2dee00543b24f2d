"""Unit slips: both readings are computed, and each enters what it says."""

import pytest

from vast_harbor.formats import rig_file as files
from vast_harbor.store.rigs import patched


@pytest.fixture
def document(reference):
    made = files.new_rig("Skua")
    load = {"id": "a", "name": "Fridge", "draw": {"value": 45, "unit": "W"}, "hours": 6, "duty": 0.5}
    made["day"]["loads"] = [load]
    made["old_bank"] = {"battery_class": "agm"}
    return files.to_document(files.read(made, reference))


def problem(document, reference, path: str, value) -> files.Problem:
    changed = patched(document, [{"op": "add", "path": path, "value": value}])
    with pytest.raises(files.RigFileError) as caught:
        files.read(changed, reference, typed=True)
    return next(p for p in caught.value.problems if p.path == path)


def entered(document, reference, interpretation) -> files.RigFile:
    return files.read(patched(document, list(interpretation.operations)), reference, typed=True)


@pytest.mark.parametrize(
    ("typed", "watts"),
    [
        # 300 Wh a day over 6 h at half duty are 100 W; all day long 12.5 W; or 300 W while it is on.
        ("300 W/day", (100, 12.5, 300)),
        ("300 Wh", (100, 12.5, 300)),
        ("1,2 kWh/day", (400, 50, 1200)),
    ],
)
def test_an_amount_a_day_in_place_of_a_draw(document, reference, typed, watts) -> None:
    found = problem(document, reference, "/day/loads/0/draw", typed)
    assert len(found.interpretations) == 3
    for interpretation, expected in zip(found.interpretations, watts, strict=True):
        load = entered(document, reference, interpretation).day.loads[0]
        assert (load.draw.value, load.draw.unit) == (pytest.approx(expected), "W")
        assert f"{expected:g} W" in interpretation.label
    all_day = entered(document, reference, found.interpretations[1]).day.loads[0]
    assert (all_day.use, all_day.duty) == ("standby", 1)


def test_amp_hours_in_place_of_amps(document, reference) -> None:
    # 60 Ah at 12 V are 720 Wh: 240 W over 3 h of running, 30 W all day, or 60 A while it is on.
    interpretations = problem(document, reference, "/day/loads/0/draw", "60 Ah").interpretations
    draws = [entered(document, reference, r).day.loads[0].draw for r in interpretations]
    assert [(d.value, d.unit) for d in draws] == [(240, "W"), (30, "W"), (60, "A")]


def test_minutes_in_place_of_hours(document, reference) -> None:
    interpretations = problem(document, reference, "/day/loads/0/hours", "90").interpretations
    assert [entered(document, reference, r).day.loads[0].hours for r in interpretations] == [1.5, 24]


def test_lfp_volts_on_a_lead_acid_battery(document, reference) -> None:
    interpretations = problem(document, reference, "/old_bank/unit_v", "12.8").interpretations
    banks = [entered(document, reference, r).old_bank for r in interpretations]
    assert [(b.battery_class, b.unit_v) for b in banks] == [("agm", 12), ("lfp", 12.8)]


def test_watts_in_place_of_watt_hours_and_a_capacity_in_watt_hours(document, reference) -> None:
    interpretations = problem(document, reference, "/day/types/0/measured_wh", "1.2 kW").interpretations
    assert [entered(document, reference, r).day.types[0].measured_wh for r in interpretations] == [
        1200,
        28800,
    ]
    interpretations = problem(document, reference, "/old_bank/unit_ah", "1200 Wh").interpretations
    assert entered(document, reference, interpretations[0]).old_bank.unit_ah == pytest.approx(100)


def test_what_can_be_read_one_way_only_is_not_asked_about(document, reference) -> None:
    assert problem(document, reference, "/day/loads/0/draw", "-5").interpretations == ()
    assert problem(document, reference, "/day/loads/0/draw", "many").interpretations == ()
    # A monitor's amp-hours count at the system's volts.
    typed = patched(document, [{"op": "add", "path": "/day/types/0/measured_wh", "value": "85 Ah"}])
    assert files.read(typed, reference, typed=True).day.types[0].measured_wh == pytest.approx(85 * 12)


@pytest.mark.parametrize(
    ("path", "value", "says"),
    [
        ("/day/loads/0/low", "2 A", "amps"),
        ("/day/loads/0/duty_at", [0.1, 0.2], "4 numbers, or none"),
        ("/day/loads/0/on", {"nix": None}, "no kind of day"),
        ("/plan/day_type", "nix", "does not exist"),
        ("/rig/latitude", "95", "Latitude"),
        ("/rig/months", [13], "between 1 and 12"),
        ("/rig/cares", ["weight", "weight"], "at most once"),
    ],
)
def test_refusals_say_what_is_wrong_at_its_place(document, reference, path, value, says) -> None:
    changed = patched(document, [{"op": "add", "path": path, "value": value}])
    with pytest.raises(files.RigFileError) as caught:
        files.read(changed, reference, typed=True)
    found = caught.value.problems[0]
    assert found.path.startswith(path) and says in found.message and found.message.endswith(".")


def test_more_than_24_hours_of_uses_are_refused(document, reference) -> None:
    load = document["day"]["loads"][0] | {"use": "uses", "uses": 30, "minutes": 60}
    document["day"]["loads"] = [load]
    with pytest.raises(files.RigFileError, match="longer than a day"):
        files.read(document, reference)
    other = {"summer": {"use": "uses", "uses": 30, "minutes": 60}}
    document["day"]["loads"] = [load | {"use": "hours", "uses": 1, "on": other}]
    with pytest.raises(files.RigFileError, match="longer than a day"):
        files.read(document, reference)


def test_a_start_is_typed_as_so_many_times_the_draw(document, reference) -> None:
    changed = patched(document, [{"op": "add", "path": "/day/loads/0/start_w", "value": "3x"}])
    assert files.read(changed, reference, typed=True).day.loads[0].start_w == 135
