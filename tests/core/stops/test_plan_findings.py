"""What is said of day, need, rig and charging: each with a plan that calls for it and one that does not."""

from dataclasses import replace
from typing import Any

import pytest

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.day_types import DayType
from vast_harbor.core.rig.loads import DC, Inverter, Load
from vast_harbor.core.rig.plan import Candidate, SecondBank
from vast_harbor.core.rig.plan_place import Site, Stay
from vast_harbor.core.rig.sources import Source
from vast_harbor.telling.figures import sentence_text

LAMP = Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24)  # 1200 Wh a day
FRIDGE = replace(LAMP, id="f", name="Fridge", duty=0.4)
PUMP = Load("p", "Pump", DC, Draw(10, "A"), 12, hours=2)
AT_SEA = Site(50.0, 0.0, 0.0)
PANELS = Source("s", "solar", watts=100.0)
MAINS = Source("m", "mains", amps=20.0)
GENERATOR = Source("g", "generator", watts=1000.0, quiet_from=20.0, quiet_to=8.0)


def said(evaluated, loads=(LAMP,), inverter: Inverter | None = None, **changes: Any) -> dict[str, str]:
    found = evaluated(loads, inverter, candidates=(), **changes).findings
    return {f.code: f"{f.severity}: {sentence_text(f.says, Style())} {f.remedy}" for f in found}


def day(kind: str = "off_grid", **fields: Any) -> DayType:
    return DayType("d", "Work day", kind, **fields)


# Code, what calls for it, what does not, and what is said.
CASES: list[tuple[str, dict[str, Any], dict[str, Any], str]] = [
    ("no_use", {"loads": ()}, {}, "note: The day has no loads yet, so there is no need to calculate."),
    (
        "overnight_window",
        {"overnight": True},
        {"overnight": True, "site": AT_SEA},
        "note: Overnight is taken as five in the afternoon to nine in the morning.",
    ),
    ("short_nights", {"overrides": {"nights": 0.5}}, {"overrides": {"nights": 1}}, "note: "),
    (
        "sunny_week",
        {"overrides": {"nights": 1, "reserve": 0.1}},
        {"overrides": {"nights": 1, "reserve": 0.2}},
        "caution: ",
    ),
    ("nights_in_a_row", {"nights_in_a_row": 1, "overrides": {"nights": 3}}, {"nights_in_a_row": 2}, "note: "),
    # Two nights and a quarter more are 2.5 nights.
    ("outlasts_stay", {"stay": Stay(water_nights=1)}, {"stay": Stay(water_nights=2)}, "caution: "),
    (
        "standby_drain",
        {"standby_w": 10},
        {"standby_w": 5},
        "caution: Even with everything off, 240 Wh a day is used. That alone empties the bank in 15 days.",
    ),
    (
        "amps_of_appliances",
        {"loads": (PUMP,), "system_v": 24},
        {"loads": (replace(PUMP, volts=24.0),), "system_v": 24},
        "note: Some loads are given in amps at 12 V, but the bank has a higher voltage.",
    ),
    (
        "amps_at_other_volts",
        {"loads": (PUMP,), "system_v": 24},
        {"loads": (PUMP,)},
        "note: “Pump” draws 10 A at 12 V. That is 120 W, not 10 A from the bank.",
    ),
    (
        "short_measurement",
        {"loads": (replace(FRIDGE, measured_wh=60.0, measured_hours=3.0),)},
        {"loads": (replace(FRIDGE, measured_wh=60.0, measured_hours=4.0),)},
        "note: “Fridge” was measured for less than four hours, although it cycles on and off.",
    ),
    ("standby_missing", {}, {"standby_w": 2}, "note: The list has no standby power."),
    (
        "measured_differs",
        {"day_types": (day(measured_wh=1500.0),)},
        {"day_types": (day(measured_wh=1300.0),)},
        "caution: Work day: the battery monitor counted 1.50 kWh, the list gives 1.20 kWh. That is 25 %",
    ),
    (
        "second_limit",
        {"loads": (replace(LAMP, bank="second"),), "second": SecondBank(limit_w=40.0)},
        {"loads": (replace(LAMP, bank="second"),), "second": SecondBank(limit_w=60.0)},
        "blocking: The loads on Services take 50 W on average, more than its charger supplies.",
    ),
    (
        "nights_of_year",
        {"off_grid_nights": 200, "hook_up_nights": 200},
        {"off_grid_nights": 200, "hook_up_nights": 166},
        "caution: 200 nights off-grid and 200 nights on hook-up are more nights than a year has.",
    ),
    (
        "nights_of_months",
        {"off_grid_nights": 62, "months": (6, 7)},
        {"off_grid_nights": 61, "months": (6, 7)},
        "caution: 62 nights off-grid do not fit into your months of use, which have 61 days.",
    ),
    (
        "row_beyond_year",
        {"off_grid_nights": 5, "nights_in_a_row": 6},
        {"off_grid_nights": 6, "nights_in_a_row": 6},
        "note: A run of 6 nights is longer than the 5 nights of the whole year.",
    ),
    ("no_source", {}, {"sources": (MAINS,)}, "note: No charging source is entered."),
    (
        "no_site",
        {"sources": (PANELS,)},
        {"sources": (PANELS,), "site": AT_SEA},
        "caution: Solar: without a place, the sun cannot be calculated.",
    ),
    (
        "no_watts",
        {"sources": (replace(PANELS, watts=0.0),), "site": AT_SEA},
        {"sources": (PANELS,), "site": AT_SEA},
        "caution: Solar: the power of the panels is missing.",
    ),
    (
        "polar_night",
        {"sources": (PANELS,), "site": Site(70.0, 20.0, 1.0)},
        {"sources": (PANELS,), "site": Site(60.0, 20.0, 1.0)},
        "note: Solar: the sun does not rise here in mid-winter.",
    ),
    (
        "no_amps",
        {"sources": (replace(MAINS, amps=None),)},
        {"sources": (MAINS,)},
        "caution: Mains charger: the charging current is missing.",
    ),
    (
        "no_charger",
        {"sources": (GENERATOR,)},
        {"sources": (GENERATOR, MAINS)},
        "caution: Generator has no mains charger to power, so it charges nothing. A charger of 50 A costs",
    ),
    (
        "quiet",
        {"sources": (MAINS, replace(GENERATOR, quiet_from=8.0, quiet_to=7.9))},
        {"sources": (MAINS, GENERATOR)},
        "caution: Generator: the quiet hours leave no time to run it.",
    ),
]


@pytest.mark.parametrize(("code", "calls", "does_not", "says"), CASES, ids=[c[0] for c in CASES])
def test_it_is_said_where_the_plan_calls_for_it_and_only_there(
    evaluated, code, calls, does_not, says
) -> None:
    found = said(evaluated, **calls)
    assert code in found
    assert found[code].startswith(says)
    assert code not in said(evaluated, **does_not)


def test_less_than_listed_is_told_as_less(evaluated) -> None:
    found = said(evaluated, day_types=(day(measured_wh=900.0),))["measured_differs"]
    assert "counted 900 Wh, the list gives 1.20 kWh. That is 25 % less." in found
    assert "run for less time" in found


def test_the_shortest_of_water_waste_and_gas_ends_the_stay(evaluated) -> None:
    stay = Stay(water_nights=9, waste_nights=1.5, gas_nights=4)
    found = said(evaluated, stay=stay)["outlasts_stay"]
    assert "the waste tank" in found and "1.5 nights" in found and found.endswith("carry more tank capacity.")
    results = evaluated((LAMP,), candidates=(), stay=stay)
    limit = next(f for f in results.findings if f.code == "outlasts_stay").says.figures["limit"]
    assert limit.path == "/rig/waste_nights"


def test_a_class_that_another_day_sizes_is_told(evaluated) -> None:
    # Warm days ask for more energy; in the cold a class may lose more than they add.
    types = (DayType("warm", "Warm day", battery_c=25), DayType("cold", "Cold day", battery_c=-20))
    more = replace(LAMP, id="b", name="Fan", hours=6, on={"cold": None})
    results = evaluated((LAMP, more), candidates=(), day_types=types)
    asked = {k: {d: n.classes[k].nameplate_ah.number for d, n in results.days.needs.items()}
             for k in ("agm", "lfp")}  # fmt: skip
    sizes = {k: max(asked[k], key=lambda d, k=k: asked[k][d]) for k in asked}
    codes = {f.code for f in results.findings}
    assert ("governing_differs" in codes) == (len(set(sizes.values())) > 1)


def test_a_chosen_day_that_another_outweighs_is_told(evaluated) -> None:
    types = (DayType("calm", "Calm day"), DayType("busy", "Busy day"))
    more = replace(LAMP, id="b", name="Saw", hours=6, on={"calm": None})
    chosen = said(evaluated, loads=(LAMP, more), day_types=types, governing="calm")["governing_chosen"]
    assert chosen.startswith(
        "caution: You plan for “Calm day”, but “Busy day” needs more: 3.75 kWh instead of 3.00 kWh."
    )
    assert "governing_chosen" not in said(evaluated, loads=(LAMP, more), day_types=types, governing="busy")


def agm(parallel: int) -> Candidate:
    return Candidate("a", "agm", "tarnmoor-100", 1, parallel)


def trial_says(evaluated, parallel: int, **changes: Any) -> dict[str, str]:
    results = evaluated(
        (LAMP,),
        candidates=(agm(parallel),),
        sources=(replace(MAINS, amps=100.0),),
        site=AT_SEA,
        hook_up_nights=20,
        **changes,
    )
    found = [f for f in results.findings if f.stop == "trial"]
    return {f.code: sentence_text(f.says, Style()) for f in found}


def test_a_bank_that_runs_empty_is_told_with_its_moment_and_its_year(evaluated) -> None:
    # 1200 Wh a day for five nights are 6 kWh; 100 Ah of AGM hold 1.2 kWh, seven of them 8.4.
    short = trial_says(evaluated, 1, nights_in_a_row=5)
    assert short["goes_dark"].startswith("Tarnmoor Still 100 has a power cut on day ")
    assert "is not supplied" in short["goes_dark"]
    assert short["nights_unserved"].startswith("Tarnmoor Still 100 supplies ")
    ample = trial_says(evaluated, 7, nights_in_a_row=5)
    assert not {"goes_dark", "nights_unserved"} & set(ample)


@pytest.mark.parametrize(("nights", "dark"), [(0.5, False), (6, True)])
def test_the_trial_follows_the_longest_stay(evaluated, nights, dark) -> None:
    assert ("goes_dark" in trial_says(evaluated, 3, nights_in_a_row=nights)) == dark
