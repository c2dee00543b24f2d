"""The small parts of a bank are in its money: by the wiring drawing, and not where the old ones do again."""

import pytest

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate, Extra, OldBank
from vast_harbor.core.rig.sources import Source

LAMP = Load("lamp", "Lamp", DC, Draw(50, "W"), 12, hours=24)
PRICES = {
    "covers_price": 0.0, "consumables_price": 0.0,
    "hold_down_price": 10.0, "link_price": 5.0, "bars_price": 40.0, "lug_price": 2.0,
    "string_fuse_price": 20.0, "shunt_price": 90.0, "upkeep_price": 50.0,
}  # fmt: skip
RELAY = Source("engine", "engine", link="relay", alternator_a=90.0, cable_mohm=20.0)
SHORE = Source("shore", "mains", amps=30.0, absorption_v=14.4, adjustable=True)


@pytest.fixture
def parts(evaluated):
    """Price and state of each small part of one bank by its key without ``part-``, and the bank compared."""

    def build(battery_class, model, series, parallel, candidate=None, **plan):
        given = candidate or Candidate("x", battery_class, model, series, parallel)
        overrides = PRICES | plan.pop("overrides", {})
        results = evaluated((LAMP,), candidates=(given,), overrides=overrides, **plan)
        compared = results.compare.compared_banks[0]
        found = {
            d.key.removeprefix("part-"): (d.price.number, d.state)
            for d in compared.cost.required_extras
            if d.key.startswith("part-")
        }
        return found, compared

    return build


def test_they_follow_the_wiring_drawing(parts) -> None:
    # Two strings of two: 2 links and 4 cables to a pair of bars, 2 lugs: 6 · 5 + 40 + 4.
    found, _ = parts("flooded_deep", "hollin-6-225", 2, 2)
    assert found["hold_down"] == (40, "counted") and found["links"] == (74, "counted")
    # Three strings of lead-acid have a fuse each, two of LFP likewise; lead-acid is advised a shunt.
    assert "string_fuses" not in found and found["shunt"] == (90, "advised")
    found, compared = parts("lfp", "ostrel-200", 1, 2)
    assert found["string_fuses"] == (40, "counted") and found["shunt"] == (90, "counted")
    assert found["links"] == (4 * 5 + 40 + 2 * 2, "counted")
    counted = [d for d in compared.cost.required_extras if d.state == "counted"]
    assert compared.cost["extras"].number == pytest.approx(sum(d.price.number for d in counted))
    # One that stands alone has neither links nor bars. A monitor that is there is not bought again.
    found, _ = parts("lfp", "ostrel-200", 1, 1, watched="monitor")
    assert found == {"hold_down": (10, "counted"), "links": (4, "counted")}


def test_a_bank_like_the_old_one_takes_over_its_straps_and_links(parts, reference) -> None:
    old = OldBank(reference.classes["agm"], 12, 100, 1, 2)
    found, _ = parts("agm", "tarnmoor-100", 1, 2, old_bank=old, watched="monitor")
    assert found == {}
    for model, strings in (("tarnmoor-100", 3), ("tarnmoor-150", 2)):
        assert "hold_down" in parts("agm", model, 1, strings, old_bank=old)[0]
    assert "hold_down" in parts("lfp", "ostrel-100", 1, 2, old_bank=old)[0]


def test_the_starting_battery_is_kept_up_where_its_relay_goes(parts) -> None:
    # Over 1.2 kWh of LFP: a DC-DC charger is counted in place of the relay, which kept both full on hook-up.
    both = (SHORE, RELAY)
    assert parts("lfp", "ostrel-200", 1, 1, sources=both)[0]["upkeep"] == (50, "counted")
    for sources in ((RELAY,), (*both, Source("up", "upkeep", amps=1.5, hours=24))):
        assert "upkeep" not in parts("lfp", "ostrel-200", 1, 1, sources=sources)[0]
    assert "upkeep" not in parts("agm", "tarnmoor-100", 1, 2, sources=both)[0]


def test_the_owner_strikes_or_prices_them(parts) -> None:
    struck = Candidate("x", "lfp", "ostrel-200", 1, 1, struck=("part-shunt",))
    priced = Candidate("x", "lfp", "ostrel-200", 1, 1, extras=(Extra("Shunt", 70.0, covers="part-shunt"),))
    states = [parts("lfp", "", 1, 1, c)[0]["shunt"][1] for c in (struck, priced)]
    assert states == ["struck", "covered"]
    free, _ = parts("lfp", "ostrel-200", 1, 1, overrides={"shunt_price": 0.0})
    assert "shunt" not in free
