"""Kinds of day: what runs on them, which governs, how sure they are, and what is needed overnight."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.day_types import DayType, Times
from vast_harbor.core.rig.doubt import cautious_sum
from vast_harbor.core.rig.loads import AC, DC, STANDBY, TIMES, USES, Inverter, Load
from vast_harbor.core.rig.plan import SecondBank
from vast_harbor.core.rig.plan_place import Site
from vast_harbor.core.weather.climate import ENGINE, INSIDE, LIVING, OUTSIDE, warmth_at

SUMMER = DayType("summer", "Summer", "off_grid", "summer")
WINTER = DayType("winter", "Winter", "off_grid", "winter")
HOOK_UP = DayType("hook-up", "Hook-up", "hook_up", "winter")
LAID_UP = DayType("laid-up", "Laid up", "laid_up", "winter")
TYPES = (SUMMER, WINTER, HOOK_UP, LAID_UP)


def lamp(**changes) -> Load:
    return Load(
        **(
            {"id": "lamp", "name": "Lamp", "supply": DC, "draw": Draw(10, "W"), "volts": 12, "hours": 4}
            | changes
        )
    )


def test_the_day_that_asks_most_governs_and_is_named(evaluated) -> None:
    # 10 W: 4 h in summer, 9 h in winter: 40 and 90 Wh; hook-up asks 240 Wh, but mains carries it.
    load = lamp(on={"winter": Times("hours", 9), "hook-up": Times("standby")})
    results = evaluated((load,), day_types=TYPES)
    assert {k: d.bank_wh.number for k, d in results.days.days.items()} == {
        "summer": 40, "winter": 90, "hook-up": 240, "laid-up": 0,
    }  # fmt: skip
    assert results.days.governing == "winter" and results.need.energy.value == pytest.approx(90 * 2 * 1.25)
    chosen = evaluated((load,), day_types=TYPES, governing="summer")
    assert chosen.need.energy.value == pytest.approx(40 * 2 * 1.25)
    assert "governing_chosen" in {f.code for f in chosen.findings}


def test_a_colder_day_of_less_energy_may_govern(evaluated) -> None:
    # 100 Wh at 20 °C, k_T of flooded 0.98; 90 Wh at −20 °C, k_T 0.50: the cold one asks for more label.
    load = lamp(hours=10, on={"winter": Times("hours", 9)})
    types = (replace(SUMMER, battery_c=20), replace(WINTER, battery_c=-20))
    results = evaluated((load,), day_types=types, battery_c=None)
    assert results.days.governing == "winter"
    assert results.need.classes["flooded_deep"].temperature.value == pytest.approx(0.5)
    assert results.need.coldest.value == -20 and results.need.warmest.value == 20


def test_laid_up_only_what_must_runs_unless_the_owner_says_so(evaluated) -> None:
    loads = (
        lamp(),
        lamp(id="alarm", use=STANDBY, draw=Draw(1, "W")),
        lamp(id="bilge", use=USES, uses=2, minutes=3, critical=True),
        lamp(id="fence", on={"laid-up": Times("hours", 24)}),
        lamp(id="tv", use=STANDBY, on={"laid-up": None}),
    )
    day = evaluated(loads, day_types=TYPES).days.days["laid-up"]
    assert {f.load.id: f.wh.number for f in day.loads} == {
        "lamp": 0, "alarm": 24, "bilge": 1, "fence": 240, "tv": 0,
    }  # fmt: skip


@given(st.lists(st.tuples(st.floats(0, 24), st.booleans(), st.booleans()), min_size=1, max_size=5))
def test_profile_is_the_table_on_every_kind_of_day(evaluated, rows) -> None:
    loads = tuple(
        lamp(id=str(i), hours=hours, supply=AC if ac else DC, on={"winter": None} if off else {})
        for i, (hours, ac, off) in enumerate(rows)
    )
    results = evaluated(loads, Inverter(0.9, 8), standby_w=1, day_types=TYPES, habits="careless")
    for day in results.days.days.values():
        assert day.profile.energy_wh == pytest.approx(day.bank_wh.number)
        assert day.profile.watts.min() >= 0


def test_duty_follows_the_weather_of_the_day(evaluated, reference) -> None:
    # Duties 0.2, 0.3, 0.4, 0.7 at 0, 15, 25, 40 °C. Continental summer 20 °C: 0.35; winter −3 °C: 0.2.
    fridge = lamp(draw=Draw(50, "W"), hours=24, duty_at=(0.2, 0.3, 0.4, 0.7))
    site = Site(50, 14, 1, reference.climates["continental"])
    days = evaluated((fridge,), site=site, day_types=TYPES).days.days
    assert days["summer"].bank_wh.value == pytest.approx(50 * 24 * 0.35)
    assert days["winter"].bank_wh.value == pytest.approx(50 * 24 * 0.2)
    stated = evaluated((fridge,), site=site, day_types=(replace(SUMMER, air_c=40),))
    assert stated.day.bank_wh.value == pytest.approx(50 * 24 * 0.7)
    # South of the equator the same climate has its summer in January: the season stays the season.
    south = evaluated((fridge,), site=replace(site, latitude=-35), day_types=TYPES).days.days
    assert south["summer"].bank_wh.value == pytest.approx(days["summer"].bank_wh.number)


def test_battery_temperature_by_place() -> None:
    assert warmth_at(LIVING, 4, 18, True, False) == 18
    assert warmth_at(LIVING, 30, 18, True, False) == 30
    assert warmth_at(LIVING, 4, 18, False, False) == 4
    assert warmth_at(INSIDE, 4, 18, True, False) == 11
    assert warmth_at(OUTSIDE, 4, 18, True, True) == 4
    assert (warmth_at(ENGINE, 4, 18, True, True), warmth_at(ENGINE, 4, 18, True, False)) == (19, 4)


def test_a_measurement_replaces_the_estimate_and_knows_no_doubt(evaluated) -> None:
    # 310 Wh counted in 20 h switched on are 15.5 W; over 24 h 372 Wh, whatever the label says.
    fridge = lamp(draw=Draw(60, "W"), hours=24, duty=0.5, low=40, high=90, measured_wh=310, measured_hours=20)
    day = evaluated((fridge,)).day
    assert day.bank_wh.value == pytest.approx(372)
    assert day.cautious_wh.value == pytest.approx(372) and day.doubtful is None


def test_habits_change_only_what_is_switched_by_hand(evaluated) -> None:
    # Fridge 24 h 240 Wh, lamp 40 Wh: careful 240 + 32, careless 240 + 52.
    loads = (lamp(id="fridge", hours=24), lamp())
    usual = evaluated(loads).day
    assert usual.habits["careful"].value == pytest.approx(272)
    assert usual.habits["careless"].value == pytest.approx(292)
    careless = evaluated(loads, habits="careless")
    assert careless.need.energy.value == pytest.approx(292 * 2.5)
    # A cautious day of careless people adds both.
    doubt = (loads[0], lamp(low=5, high=20))
    both = evaluated(doubt, habits="careless", day_basis="cautious").day
    assert both.bank_wh.number == pytest.approx(both.cautious_wh.number + 12)


TRIPLES = st.lists(
    st.tuples(st.floats(0, 1), st.floats(10, 500), st.floats(1, 3)).map(
        lambda t: (t[0] * t[1], t[1], t[1] * t[2])
    ),
    min_size=4,
    max_size=30,
)


@given(TRIPLES)
def test_cautious_day_lies_between_likely_and_highest(parts) -> None:
    found = cautious_sum(parts, 100)
    assert 100 + sum(p[1] for p in parts) <= found + 1e-9
    assert found <= 100 + sum(p[2] for p in parts) + 1e-9
    assert cautious_sum([*parts, (5, 5, 5)], 100) == pytest.approx(found + 5)


def test_cautious_day_is_the_ninth_of_ten_in_drawn_days() -> None:
    rng = np.random.default_rng(7)
    parts = [(30, 45, 80), (100, 120, 260), (10, 12, 20), (200, 300, 330), (50, 60, 120), (0, 20, 60)]
    drawn = sum(rng.triangular(low, likely, high, 200_000) for low, likely, high in parts)
    assert cautious_sum(parts, 0) == pytest.approx(np.quantile(drawn, 0.9), rel=0.01)


def test_overnight_is_what_is_drawn_between_the_charges(evaluated) -> None:
    # 50 W round the clock and 100 W from 18 to 22; charged 9:00 to 16:30: 16.5 h · 50 + 400 = 1225 Wh.
    loads = (
        lamp(id="a", draw=Draw(50, "W"), use=STANDBY),
        lamp(id="b", draw=Draw(100, "W"), use=TIMES, windows=((18, 22),)),
    )
    types = (replace(SUMMER, charge_from=9, charge_to=16.5),)
    results = evaluated(loads, day_types=types, overnight=True)
    assert results.need.overnight.value == pytest.approx(1225)
    assert results.need.nights.value == pytest.approx(1225 / 1600)
    assert results.need.energy.value == pytest.approx(1225 * 1.25)
    whole = evaluated(loads, day_types=types)
    assert whole.need.overnight.value == pytest.approx(1225) and whole.need.nights.value == 2


def test_overnight_in_the_polar_night_is_the_whole_day(evaluated) -> None:
    results = evaluated((lamp(),), site=Site(70, 20, 1), day_types=(WINTER,), overnight=True)
    assert results.need.overnight.value == pytest.approx(results.day.bank_wh.number)


def test_second_bank_by_hand(evaluated) -> None:
    # 24 V main with a 240 Wh load; 12 V services with 5 A for 4 h: 240 Wh, through 0.8: 300 Wh from the main.
    loads = (lamp(id="main", hours=24), lamp(id="aux", draw=Draw(5, "A"), volts=12, bank="second"))
    second = SecondBank("Services", 12, 0.8, 200, 1.5)
    results = evaluated(loads, system_v=24, second=second)
    assert results.day.bank_wh.value == pytest.approx(540)
    assert results.day.profile.energy_wh == pytest.approx(540)
    assert results.second is not None
    assert results.second.energy.value == pytest.approx(240 * 1.5 * 1.25)
    assert results.second.from_main.value == pytest.approx(300)
    # LFP: 450 Wh / (0.9 · 1 · 0.9) / 12.8 V, k_T at 15 °C 0.975.
    assert results.second.nameplate_ah["lfp"].value == pytest.approx(450 / 0.9 / 0.975 / 0.9 / 12.8)
    # Without a second bank the same load is on the main one, and an AC load always does.
    assert evaluated(loads, system_v=24).day.bank_wh.value == pytest.approx(480)
    ac = evaluated((replace(loads[1], supply=AC, draw=Draw(60, "W")),), Inverter(0.9, 0), second=second)
    assert ac.day.bank_wh.value == pytest.approx(240 / 0.9) and ac.second.day_wh.value == 0
    # Its charger bounds what the main bank feels of it: of 60 W and 100 W at once 120 W, through 0.8.
    strong = (loads[1], replace(loads[1], id="aux2", draw=Draw(100, "W")))
    limited = evaluated(strong, system_v=24, second=replace(second, limit_w=120))
    assert limited.day.peak.watts == pytest.approx(150)
    weak = evaluated(loads, system_v=24, second=replace(second, limit_w=9))
    assert "second_limit" in {f.code for f in weak.findings}


def test_days_of_a_plan_do_not_depend_on_their_order(demo_results, reference) -> None:
    for name in ("kittiwake", "mulga", "long-haul"):
        plan = demo_results(name).plan
        turned = evaluate(replace(plan, day_types=plan.day_types[::-1]), reference)
        assert turned.days.governing == demo_results(name).days.governing
        assert turned.need.energy.value == pytest.approx(demo_results(name).need.energy.number)
