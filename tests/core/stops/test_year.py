"""The year runs through: its energy closes, nobody there is nobody there, and months have their own days."""

from dataclasses import replace

import numpy as np
import pytest

from random_rigs import random_plan
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.day_types import LAID_UP, DayType
from vast_harbor.core.rig.loads import DC, STANDBY, Draw, Load
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.rig.plan_place import Site
from vast_harbor.core.rig.sources import SOLAR, Source
from vast_harbor.core.schedule.year_calendar import YearCalendar
from vast_harbor.core.simulation.run import run
from vast_harbor.core.stops.trial.simulated_banks import simulated_candidate
from vast_harbor.core.weather.daily_weather import STEP_H, STEPS_A_DAY
from vast_harbor.core.weather.insolation import sunshine
from vast_harbor.core.weather.sky import with_sky
from vast_harbor.core.weather.year_weather import draw_seasons

BANKS = (
    Candidate("agm", "agm", "tarnmoor-220", 1, 1), Candidate("lfp", "lfp", "ostrel-100", 1, 1),
    Candidate("deep", "flooded_deep", "hollin-6-225", 2, 1),
)  # fmt: skip
SUN = Source("panels", SOLAR, watts=200.0)
FRIDGE = Load("fridge", "Fridge", DC, Draw(45, "W"), 12, use=STANDBY, duty=0.4)
LAMPS = Load("lamps", "Lamps", DC, Draw(60, "W"), 12, hours=6)


def a_rig(seed: int, reference) -> Results:
    """A rig at random with three banks, so that its year can be run."""
    plan = random_plan(np.random.default_rng(seed), reference, candidates=BANKS)
    return evaluate(replace(plan, sources=(SUN, *plan.sources)), reference, found=())


@pytest.mark.parametrize("seed", range(12))
def test_no_more_comes_out_than_went_in_and_one_bank(reference, seed) -> None:
    simulated = a_rig(seed, reference).simulated
    plan = simulated.year_plan
    assert plan.calendar.days(0.0)
    for banked in simulated.banks.candidates:
        one = simulated_candidate(banked.build)
        traces = run([one], plan.conditions, longer=True)[0]
        amps = traces.amps * plan.conditions.step_h
        taken, given = -np.minimum(amps, 0).sum(axis=1), np.maximum(amps, 0).sum(axis=1)
        # Amp-hours: what came out is what went in at its efficiency, less leaks, and what the bank held.
        assert (taken <= given * one.coulombic + one.wells.capacity * (1 + 1e-6)).all()
        left = traces.charge[:, -1] - traces.charge[:, 0]
        leaked = traces.lost_ah.sum(axis=1)
        assert left == pytest.approx(given * one.coulombic - taken - leaked, abs=0.02 * one.wells.capacity)


@pytest.mark.parametrize("seed", [3, 5, 8])
def test_the_year_says_what_its_days_do_in_short_steps(reference, seed) -> None:
    simulated = a_rig(seed, reference).simulated
    plan = simulated.year_plan
    fine = plan.timeline.calm.seasons(plan.specs, 11)[0]
    free = np.repeat(~plan.plugged, STEPS_A_DAY, axis=1)
    for banked in simulated.banks.candidates:
        traces = run([simulated_candidate(banked.build)], fine)[0]
        through = float(np.maximum(-traces.bank_w, 0.0)[free].sum()) * STEP_H * plan.scale / 1000
        found = simulated.years[banked.candidate.id]["through"].number
        assert found == pytest.approx(through, rel=0.01, abs=0.05)


def test_a_bank_does_not_stand_in_for_charging(evaluated, reference) -> None:
    # A cabin in use all the year: 120 W · 6 h = 720 Wh a day, and a brook that gives 480 of it steadily.
    stream = Source("brook", "stream", monthly_w=(20.0,) * 12)
    loads = (replace(LAMPS, draw=Draw(120, "W")),)
    results = evaluated(
        loads, candidates=BANKS, kind="cabin", off_grid_nights=365, sources=(stream,), months=(), battery_c=20
    )
    for banked in results.banks.candidates:
        year = results.simulated.years[banked.candidate.id]
        needed = results.days.day.bank_wh.number * 365 / 1000
        unserved = year["unserved"].number
        # 480 of 720 Wh: a third is missing, plus what charging loses, less one bank in the year.
        assert needed - unserved <= 480 * 365 / 1000 + banked.bank.nameplate_wh / 1000
        assert year["served_share"].number < 0.8


@pytest.mark.parametrize("seed", [3, 5, 8])
def test_nights_without_critical_loads_are_those_on_which_they_went_without(reference, seed) -> None:
    rig = a_rig(seed, reference).plan
    loads = tuple(replace(x, critical=True) for x in rig.loads)
    told = replace(rig, loads=loads, overrides={"verdict_critical": 0.02})
    results = evaluate(told, reference, found=())
    simulated, price = results.simulated, results.assumptions.value("critical_night")
    plan = simulated.year_plan
    for compared in results.verdict.compared_banks:
        traces = run([simulated_candidate(compared.banked.build)], plan.conditions, longer=True)[0]
        missing = traces.unserved_critical.reshape(-1, plan.a_day).sum(axis=1)
        asked = (plan.conditions.critical_dc_w + plan.conditions.critical_ac_w).reshape(missing.size, -1)
        lacks = missing / np.maximum(asked.sum(axis=1) * plan.conditions.step_h, 1e-9)
        share = compared.year["critical_share"].number
        beyond = max(0.0, 1 - 0.02 / share) if share > 0 else 0.0
        most = min(rig.off_grid_nights, (missing > 0).sum() * plan.scale)
        least = min(rig.off_grid_nights, (lacks > 0.1).sum() * plan.scale)
        charged = compared.cost["critical"].number / price
        assert beyond * least - 1e-9 <= charged <= beyond * most + 1e-9


def test_who_is_there_wakes_a_bms_that_only_a_charger_closes(reference) -> None:
    # 40 W take more than the sun gives in winter: the BMS opens, and the controller does not wake it.
    rig = replace(
        random_plan(np.random.default_rng(3), reference), kind="boat", months=(), off_grid_nights=365.0,
        loads=(replace(FRIDGE, draw=Draw(100, "W")),), sources=(SUN,), battery_c=15.0,
        disconnect="none", candidates=BANKS, site=Site(50.0, 8.0, 1.0, reference.climates["continental"]),
    )  # fmt: skip
    simulated = evaluate(rig, reference, found=()).simulated
    lfp = next(b for b in simulated.banks.candidates if b.candidate.id == "lfp")
    days, one = simulated.year_plan.conditions, simulated_candidate(lfp.build)
    asleep = tuple(replace(s, wakes=False) for s in one.sources)

    def goes_without(resets: str, there: bool) -> float:
        flags = np.full_like(days.attended, there)
        bank = replace(one, resets=resets, sources=asleep)
        return float(run([bank], replace(days, attended=flags), longer=True)[0].unserved_dc.sum())

    nobody = goes_without("charger", False)
    assert days.attended.all() and goes_without("charger", True) < 0.8 * nobody
    assert goes_without("itself", False) < 0.8 * nobody


def test_nobody_there_takes_standby_and_what_must_stay_on_only(evaluated, reference) -> None:
    # Nobody is there 50 weeks of the year: the lamps are off, the fridge that runs round the clock is not.
    fields = {
        "candidates": BANKS, "kind": "cabin", "off_grid_nights": 10, "nights_in_a_row": 5,
        "sources": (SUN,), "battery_c": None, "rest_c": None,
        "site": Site(50.0, 8.0, 1.0, reference.climates["continental"]),
    }  # fmt: skip
    plain = evaluated((LAMPS, replace(LAMPS, id="heater", draw=Draw(300, "W"))), **fields)
    timeline, specs = plain.simulated.timeline, plain.simulated.year_plan.specs[0]
    idle = next(d for d in specs if d.kind == LAID_UP)
    assert timeline.day_of(idle.type).bank_wh.number == 0
    # A laid-up kind of day that says the same changes nothing.
    types = (*plain.plan.day_types, DayType("idle", "Idle", kind=LAID_UP, season="winter"))
    told = evaluated(plain.plan.loads, day_types=types, **fields)
    for key, year in plain.simulated.years.items():
        assert told.simulated.years[key]["served_share"].number == pytest.approx(
            year["served_share"].number, abs=0.02
        )
    kept_on = evaluated((FRIDGE, LAMPS), **fields)
    assert kept_on.simulated.timeline.day_of(idle.type).bank_wh.number == pytest.approx(45 * 0.4 * 24)


@pytest.mark.parametrize("key", ["scotland", "low-countries", "california", "new-south-wales"])
def test_each_month_has_the_sun_of_its_place(reference, key) -> None:
    regions = reference.regions
    region = regions.get(key) or min(
        (r for r in regions.values() if r.sun_kwh),
        key=lambda r: abs(r.latitude - {"california": 33, "new-south-wales": -35}[key]),
    )
    climate = with_sky(reference.climates[region.climate], region)
    south = region.latitude < 0
    sun = sunshine(region.latitude, region.longitude, region.utc_offset_h, 0.0, 180.0)
    days = [(m, False) for m in range(1, 13) for _ in range(30)]
    for seed in (1, 2):
        weather = draw_seasons(climate, (tuple(days),) * 3, south, seed)
        month = np.array([m for m, _ in days]) - 1
        lit = weather.sunlit.reshape(3, -1, STEPS_A_DAY)
        daily = np.where(lit, sun.clear[month], sun.cloudy[month]).sum(axis=2) * STEP_H / 1000
        for m, kwh in enumerate(region.sun_kwh):
            if kwh > 0.2:
                assert daily[:, month == m].mean() == pytest.approx(kwh, rel=0.05), (m + 1, seed)


def test_stays_fill_the_months_and_their_number(evaluated) -> None:
    plan = evaluated((LAMPS,), sources=(SUN,), kind="cabin").plan
    for nights in (1, 9, 45, 120, 200, 365):
        for row in (1, 3, 10):
            calendar = YearCalendar(replace(plan, off_grid_nights=nights, nights_in_a_row=row))
            days = calendar.days(0.0)
            found = sum(d.kind == "off_grid" for d in days)
            assert found == pytest.approx(nights, rel=0.12, abs=row)
            assert len(days) == len(calendar.days(0.5)) == 365
