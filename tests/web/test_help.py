"""Help on every field: none is missing, none is left over, and what it says is assumed is assumed."""

import re
from dataclasses import replace

import pytest
from pydantic import BaseModel

from vast_harbor import data
from vast_harbor.core.rig.derating import air_temperature
from vast_harbor.core.schedule.day_pattern import in_a_row
from vast_harbor.core.stops.rig.old_bank import TEST_AT_C
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.web.plan.field_help import models_in
from web.conftest import patch

# What no owner types into a field of its own: ids, what is drawn, ticked or stepped, what a choice sets too.
NO_FIELD = re.compile(
    r"(^|\.)(id|format|version|guide|typical)$|^stated\.|^candidates\.(battery_class|series|parallel|places\..*|fixes\..*|struck)$"
    r"|^candidates\.(stages\.strings|extras\.covers)$|^day\.loads\.draw\.(value|unit)$"
    r"|^rig\.(utc_offset_h|cares)$|^sources\.(kind|assumed)$|^own_models\.water$|^plan\.overrides$"
    r"|^changeover\.(chosen|chosen_on|done|proof\..*)$|^candidates\.purchases\.have$"
)


def places(model: type[BaseModel], at: str = "") -> set[str]:
    """Every value of a part of the rig file, by its place."""
    found: set[str] = set()
    for name, info in model.model_fields.items():
        inside = models_in(info.annotation)
        found |= {p for part in inside for p in places(part, f"{at}{name}.")} if inside else {at + name}
    return found


def test_each_field_of_a_rig_has_help_and_nothing_else_has() -> None:
    fields = {place for place in places(RigFile) if not NO_FIELD.search(place)} | {"day.loads.draw"}
    helped = {place for place in data.field_help() if not place.startswith("tool.")}
    assert helped == fields


def test_each_text_is_whole_sentences_and_every_value_in_it_is_filled(client) -> None:
    rig = client.post("/api/rigs", json={"name": "Rig"}).get_json()["id"]
    for place in data.field_help():
        at = "/" + place.replace(".on.", ".on.winter.").replace(".", "/")
        told = client.get(f"/api/rigs/{rig}/help?field={at}").get_json()
        for text in told.values():
            assert re.match(r"[A-Z0-9“%]", text), place
            assert text.endswith((".", "?")), place
            assert not re.search(r"[{}]|nan|—", text), (place, text)


@pytest.mark.parametrize(
    ("field", "where", "metric", "us"),
    [
        ("/rig/locker_height", "where", "50 mm", "2 in"),
        ("/rig/climate", "unknown", "15 °C", "59 °F"),
        ("/day/inverter/efficiency", "unknown", "90 %", "90 %"),
        ("/rig/system_v", "unknown", "12 V", "12 V"),
        ("/day/loads/7/on/winter/hours", "what", "this kind of day", "this kind of day"),
        ("/plan/overrides/nights", "unknown", "2 nights", "2 nights"),
    ],
)
def test_values_are_those_of_a_new_entry_in_the_owners_units(client, field, where, metric, us) -> None:
    made = client.post("/api/rigs", json={"name": "Rig"}).get_json()["id"]
    rig = client.get(f"/api/rigs/{made}").get_json()
    for units, wanted in (("metric", metric), ("us", us)):
        rig = patch(client, rig, {"op": "replace", "path": "/rig/units", "value": units}).get_json()
        assert wanted in client.get(f"/api/rigs/{made}/help?field={field}").get_json()[where]


def test_what_is_not_known_is_assumed_as_the_help_says(demo_results) -> None:
    plan = demo_results("pebble").plan
    unknown = {place: texts.unknown for place, texts in data.field_help().items()}
    assert in_a_row(replace(plan, nights_in_a_row=None)) == 3
    assert "three nights" in unknown["rig.nights_in_a_row"]
    air = air_temperature(replace(plan, site=replace(plan.site, climate=None)), plan.day_types[0])
    assert f"{{{air.number:g} °C}}" in unknown["rig.climate"]
    assert f"{{{TEST_AT_C:g} °C}}" in unknown["old_bank.test_c"]


def test_what_is_no_field_has_no_help(client) -> None:
    rig = client.post("/api/rigs", json={"name": "Rig"}).get_json()["id"]
    for field in ("/rig/colour", "/plan/overrides/colour", "", "/"):
        assert client.get(f"/api/rigs/{rig}/help?field={field}").status_code == 404
