"""The demo rigs tell their stories in the trial, by computation; and what is made of a run."""

from dataclasses import replace

import numpy as np
import pytest
import rainflow

from vast_harbor.core.figures.display import Style
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.plan import Fix, TrialSettings
from vast_harbor.core.simulation import parameters
from vast_harbor.core.stops.trial import outcomes, storage, time_to_empty, weather_odds
from vast_harbor.core.stops.trial.battery_monitor import readings
from vast_harbor.core.stops.trial.rainflow_cycles import cycles, histogram, turning_points
from vast_harbor.core.stops.trial.short_of_full import short_of_full
from vast_harbor.core.stops.trial.stretches import STRETCHES
from vast_harbor.core.stops.trial.year import episodes
from vast_harbor.core.weather.daily_weather import STEPS_A_DAY
from vast_harbor.telling.figures import sentence_text


@pytest.fixture(scope="module")
def simulated(demo_results, reference):
    """The runs of a demo rig by candidate, with changes to its plan."""

    def build(name, trial=None, **changes):
        plan = replace(demo_results(name).plan, **changes)
        plan = replace(plan, trial=trial or plan.trial)
        return {r.simulated.id: r for r in evaluate(plan, reference).simulated.trial.results}

    return build


@pytest.mark.parametrize("name", ["tern-rock", "mulga"])
def test_each_bank_is_told_of_once_and_the_earliest_power_cut_first(simulated, name) -> None:
    results = list(simulated(name).values())
    told = [sentence_text(s, Style()) for s in outcomes(results, 14)]
    dark = sorted((r for r in results if r.dark), key=lambda r: r["first_dark"].number)
    assert 3 < len(dark) < len(results)
    for says, one in zip(told, dark[:3], strict=False):
        moment = Style().text(one["first_dark"].number, "moment")
        assert f": first power cut on {moment}. It serves " in says
    assert told[3].endswith("power cuts too.") and "14 days" in told[4] and len(told) == 5
    for one in results:
        title = "The old bank" if one.simulated.id == "old" else one.name
        lines = [says for says in told if title in says]
        assert len(lines) >= 1 and ("14 days" in lines[-1] or one.dark)
    alone = [r for r in results if not r.dark] * 2
    assert sentence_text(outcomes(alone, 14)[0], Style()) == f"All {len(alone)} banks last the 14 days."


def happened(run):
    return {e.code for e in run.events}


def test_lfp_in_the_cold_shed_takes_no_charge_and_in_the_porch_it_does(simulated, demo_results) -> None:
    shed = simulated("tern-rock", TrialSettings(month=1))
    types = demo_results("tern-rock").plan.day_types
    porch = simulated(
        "tern-rock", TrialSettings(month=1), place="living_space",
        day_types=tuple(replace(t, battery_c=8.0) for t in types),
    )  # fmt: skip
    for bank in ("lfp", "plain"):
        assert shed[bank].traces.amps.max() <= 1e-9 and "too_cold" in happened(shed[bank])
        assert shed[bank].dark
        assert porch[bank].traces.amps.max() > 5 and not porch[bank].dark
    # One with a heater of its own charges in the shed, too, and pays for it.
    assert shed["heated"].traces.amps.max() > 5 and shed["heated"]["heater"].number > 0


def test_the_tail_lift_trips_a_small_bms_and_sags_lead_acid(simulated) -> None:
    runs = simulated("long-haul", TrialSettings(month=1))
    trip = next(e for e in runs["small"].events if e.code == "bms_overload")
    assert trip.says.figures["amps"].number > trip.says.figures["limit"].number
    assert not any(e.code == "bms_overload" for e in runs["lfp"].events)
    old = next(e for e in runs["old"].events if e.code == "inverter")
    assert old.says.figures["watts"].number > 4000


def test_the_barges_charger_leaves_large_lead_acid_short_and_lfp_not(simulated) -> None:
    runs = simulated("kittiwake")
    days = len(runs["gel"].traces.soc[0]) // STEPS_A_DAY
    hooked = range(2, days, 3)

    def fullest(run):
        return [run.traces.soc[0, d * STEPS_A_DAY : (d + 1) * STEPS_A_DAY].max() for d in hooked]

    assert max(fullest(runs["flooded"])[1:]) < 0.93
    assert min(fullest(runs["lfp"])) > 0.99


def test_the_caravans_rest_stage_drains_lfp_as_far_as_the_threshold_says(simulated, demo_results) -> None:
    plan = demo_results("pebble").plan
    # Seven weeks on the lakeside pitch: the charger rests, and the loads draw LFP down to 12.6 V.
    pitch = TrialSettings(days=30, nights=0, month=6)
    bare = tuple(replace(c, fixes=(), struck=("source-mains",)) for c in plan.candidates)
    before = simulated("pebble", pitch, candidates=bare)["lfp"]
    # Not struck out, what the bank demands is in the trial, as its money counts it.
    asked = tuple(replace(c, fixes=()) for c in plan.candidates)
    assert simulated("pebble", pitch, candidates=asked)["lfp"].traces.soc.min() > 0.9
    rests = [e for e in before.events if e.code == "rests"]
    assert rests and rests[0].says.figures["low"].number < 0.13
    assert simulated("pebble", pitch)["dual"].traces.soc.min() > 0.5
    assert plan.candidates[2].fixes == (Fix("mains", "new"),)
    after = simulated("pebble", pitch)["lfp"]
    assert after.traces.soc.min() > 0.9 and "rests" not in happened(after)


def test_the_caravan_is_fine_with_lead_acid(simulated, demo_results) -> None:
    assert not simulated("pebble")["dual"].dark
    year = demo_results("pebble").simulated.years["dual"]
    assert year["served_share"].number == 1 and year["cycle_wear"].number < 0.1


@pytest.mark.parametrize("stretch", STRETCHES)
@pytest.mark.parametrize("name", ["kittiwake", "tern-rock"])
def test_every_stretch_runs_and_tells_itself(simulated, name, stretch) -> None:
    for run in simulated(name, TrialSettings(stretch=stretch)).values():
        figures = {k: f.value for k, f in run.figures.items()}
        assert 0 <= figures["served"] <= 1 and 0 <= figures["lowest"] <= 1
        assert (figures["first_dark"] is None) == (figures["unserved"] <= 0.5)
        assert all(0 <= e.step < e.until <= run.traces.state.shape[1] for e in run.events)
        assert list(run.events) == sorted(run.events, key=lambda e: e.step)
        spare, missed = figures["spare"], figures["missed"]
        if spare is None:
            assert missed is None
            continue
        assert spare >= -1e-9 and missed >= -1e-9 and spare + missed <= 1 + 1e-9
        # A bank that is full every day has missed nothing.
        highest = run.traces.soc[0][1:].reshape(-1, STEPS_A_DAY).max(axis=1)
        if (highest >= run.simulated.full_soc).all():
            assert missed == 0


def test_bad_stretches_are_as_bad_as_they_are_called(simulated, demo_results, reference) -> None:
    lost = simulated("kittiwake", TrialSettings(stretch="hook_up_lost"))["gel"]
    assert lost.traces.used_w[0, 0, 96:].max() == 0 and lost.traces.used_w[0, 0, :92].max() > 0
    cold = evaluate(
        replace(demo_results("tern-rock").plan, trial=TrialSettings(stretch="coldest_night")), reference
    ).simulated.trial
    climate = cold.timeline.climate
    assert cold.prepared.weather.air_c.min() <= climate.low_c[0] - 1.9 * climate.spread_k + 0.5
    wet = evaluate(
        replace(demo_results("long-haul").plan, trial=TrialSettings(stretch="wet_week")), reference
    )
    assert set(wet.simulated.trial.prepared.weather.kinds.ravel()) == {2}
    more, less = (
        simulated("long-haul", TrialSettings(month=3, pitches=p))["agm"] for p in (("open",), ("trees",))
    )
    assert more.traces.used_w.sum() > less.traces.used_w.sum()
    hidden = simulated("kittiwake", TrialSettings(hidden_w=25.0))["gel"]
    assert hidden["through"].number > simulated("kittiwake")["gel"]["through"].number


def test_worst_week_is_worse_than_any_other_weather(simulated, demo_results, reference) -> None:
    worst = sum(
        r["unserved"].number for r in simulated("tern-rock", TrialSettings(stretch="worst_week")).values()
    )
    usual = simulated("tern-rock", TrialSettings(days=7, month=1, seed=2))
    assert worst >= sum(r["unserved"].number for r in usual.values()) * 0.99


def test_the_year_counts_nights_cycles_and_charge(demo_results, reference) -> None:
    results = demo_results("long-haul")
    plan, years = results.plan, results.simulated.years
    assert results.simulated.year_plan.scale * results.simulated.year_plan.nights == pytest.approx(
        plan.off_grid_nights
    )
    for key, year in years.items():
        assert year["nights_served"].number <= plan.off_grid_nights + 1e-9
        compared = next(c for c in results.compare.compared_banks if c.banked.candidate.id == key)
        assert compared.cost["kwh_delivered"].number == pytest.approx(
            year["through"].number * plan.years_kept
        )
    # Half the nights wear half as much by cycles; nothing else of the sample moves.
    half = evaluate(replace(plan, off_grid_nights=plan.off_grid_nights / 2), reference).simulated.years
    for key, year in half.items():
        assert year["cycle_wear"].number * 2 == pytest.approx(years[key]["cycle_wear"].number, rel=1e-3)
    # More sun never serves fewer nights.
    bright = tuple(replace(s, watts=3000.0) if s.kind == "solar" else s for s in plan.sources)
    better = evaluate(replace(plan, sources=bright), reference).simulated.years
    assert all(better[k]["served_share"].number >= years[k]["served_share"].number for k in years)
    assert (
        results.simulated.needs["lfp"].number
        > evaluate(replace(plan, sources=bright), reference).simulated.needs["lfp"].number
    )


def test_rainflow_counts_as_the_package_does_on_every_point() -> None:
    rng = np.random.default_rng(3)
    soc = np.clip(0.6 + np.cumsum(rng.normal(0, 0.03, 900)), 0, 1)
    ours = histogram(list(cycles(soc)))
    plain = [(rng_, count) for rng_, _m, count, _i, _j in rainflow.extract_cycles(soc) if rng_ >= 0.01]
    assert ours == pytest.approx(histogram(plain))
    assert len(turning_points(np.full(50, 0.4))) == 1
    # Ripples are left out before they are counted: every cycle that counts stays as it is.
    rng = np.random.default_rng(5)
    for wide in (0.002, 0.01, 0.05) * 40:
        soc = np.clip(0.5 + np.cumsum(rng.normal(0, wide, 300)), 0, 1)
        whole = rainflow.extract_cycles(turning_points(soc).tolist())
        plain = sorted((depth, count) for depth, _m, count, _i, _j in whole if depth >= 0.01)
        assert np.array(sorted(cycles(soc))).reshape(-1) == pytest.approx(np.array(plain).reshape(-1))
    # A single swing is half a cycle.
    assert list(cycles(np.linspace(0.9, 0.4, 30))) == [(pytest.approx(0.5), 0.5)]
    one = np.concatenate((np.linspace(1, 0.4, 50), np.linspace(0.4, 1, 50)))
    assert sum(count for _, count in cycles(one)) == pytest.approx(1.0)
    assert next(cycles(one))[0] == pytest.approx(0.6)


def test_how_long_a_bank_and_an_appliance_last(demo_results) -> None:
    results = demo_results("kittiwake")
    timeline, simulated_banks = results.simulated.timeline, results.simulated.trial.simulated_banks
    empties = time_to_empty.discharges(timeline, simulated_banks)
    dark = dict(zip([x.id for x in simulated_banks], (e.hours for e in empties), strict=True))
    assert dark["old"] < 40 < dark["gel"]
    for empty in empties:
        assert len(empty.soc) == int(empty.hours) + 1 and empty.soc[0] <= 1
        assert (np.diff(empty.soc) <= 1e-9).all()
    heater = next(x for x in results.plan.loads if "heater, fan" in x.name)
    lamp = next(x for x in results.plan.loads if x.watts < heater.watts)
    long = time_to_empty.runs_for(timeline, simulated_banks, (heater, lamp))
    short = time_to_empty.runs_for(timeline, simulated_banks, (heater,), 0.5)
    # What is asked together is as if each were asked alone.
    assert [r[0] for r in long] == [
        r[0] for r in time_to_empty.runs_for(timeline, simulated_banks, (heater,))
    ]
    for i, simulated in enumerate(simulated_banks):
        assert long[i][0] >= short[i][0]
        if simulated.lfp and long[i][0]:
            # Nearly all that its label holds, at the watts of the load and of standby.
            watts = heater.mean_w + results.plan.standby_w + simulated.standing_a * 12
            assert 0.75 < long[i][0] * watts / (simulated.nameplate_ah * 13.1) < 1.02


def test_a_worn_bank_is_empty_sooner_than_a_new_one(demo_results) -> None:
    results = demo_results("kittiwake")
    timeline = results.simulated.timeline
    bank = next(x for x in results.simulated.trial.simulated_banks if x.id == "gel")
    (new_state, new), (worn_state, worn) = time_to_empty.states_of(bank, 1.0)
    assert (new_state, worn_state) == ("new", "worn") and worn.nameplate_ah == pytest.approx(
        0.8 * new.nameplate_ah
    )
    first, second = time_to_empty.discharges(timeline, (new, worn))
    assert second.hours < first.hours
    # A used battery is not sold as new, and the old bank is as it is.
    assert (
        time_to_empty.states_of(bank, 0.7)[0][1].health
        == time_to_empty.states_of(bank, 0.7)[1][1].health
        == 0.7
    )
    old = next(x for x in results.simulated.trial.simulated_banks if x.id == "old")
    assert time_to_empty.states_of(old, 1.0) == [("now", old)]


def test_laid_up_lead_acid_freezes_when_it_is_flat_and_says_by_when_to_recharge(
    demo_results, reference
) -> None:
    plan = demo_results("tern-rock").plan
    summer = replace(plan, months=(6, 7, 8), sources=(), site=replace(plan.site))
    results = evaluate(summer, reference)
    timeline = results.simulated.timeline
    assert storage.months_laid_up(timeline) == (9, 10, 11, 12, 1, 2, 3, 4, 5)
    rows = {(r.id, r.connected): r for two in results.simulated.trial.laid_up.values() for r in two}
    old = rows["old", True]
    assert old.weeks is not None and old.weeks < 12 and old.recharge is not None
    assert old.frozen_c is not None and old.frozen_c < 0
    apart = rows["deep", False]
    assert apart.weeks is None and apart.lowest > 0.5 and apart.frozen_c is None
    assert rows["lfp", False].lowest > rows["lfp", True].lowest
    full = evaluate(replace(plan, months=()), reference)
    assert set(full.simulated.trial.laid_up.values()) == {()}


def test_odds_count_weathers_and_the_monitor_reads_the_run(demo_results) -> None:
    results = demo_results("mulga")
    told = list(weather_odds.odds(results.simulated.trial, 50))
    assert [t.done for t in told] == [20, 40, 50]
    assert all(0 <= n <= 50 for n in told[-1].dark.values())
    run = results.simulated.trial.of("agm")
    read = list(readings(results.simulated.trial, run))
    assert len(read) == run.traces.state.shape[1]
    volts = np.array([r.volts for r in read])
    assert np.abs(volts - run.traces.volts[0]).max() < 0.05
    assert read == list(readings(results.simulated.trial, run))
    assert read[-1].soc == pytest.approx(float(run.traces.soc[0, -1]), abs=0.001)


def test_an_edit_goes_on_with_the_last_run_until_it_is_run_anew(demo_results, reference) -> None:
    first = demo_results("pebble")
    first.simulated.run()
    moved = replace(first.plan, standby_w=first.plan.standby_w + 3.21)
    stale = evaluate(moved, reference, first.before)
    assert stale.stale and stale.simulated is first.simulated
    late_cost = {c.banked.candidate.id: c.cost["kwh_delivered"].number for c in stale.compare.compared_banks}
    now = evaluate(moved, reference)
    assert (
        not now.stale
        and {c.banked.candidate.id: c.cost["kwh_delivered"].number for c in now.compare.compared_banks}
        != late_cost
    )
    now.simulated.run()
    # What no run depends on is answered at once with everything.
    priced = evaluate(replace(moved, years_kept=3), reference, now.before)
    assert not priced.stale
    assert (now.simulated.trial.results[0].traces.state & parameters.FULL).any()


@pytest.mark.parametrize(
    ("where", "longer", "count"),
    [
        ([0, 0, 0], 1, 0),
        ([1, 1, 1], 2, 1),
        ([1, 1, 0, 1, 1], 2, 0),
        ([1, 1, 1, 0, 1, 1, 1], 2, 2),
        ([], 1, 0),
    ],
)
def test_episodes_are_runs_longer_than_so_many_steps(where, longer, count) -> None:
    assert episodes(np.array(where, dtype=bool), longer) == count


@pytest.mark.parametrize(
    ("full", "off_grid", "short"),
    [
        # Three nights, then hook-up: two nights suffer, the last is made good on one of the next three days.
        ([0, 0, 0, 1, 0], [1, 1, 1, 0, 0], [1, 1, 0, 0, 0]),
        ([0, 0, 0, 0, 1], [1, 1, 1, 0, 0], [1, 1, 0, 0, 0]),
        ([0, 1, 0, 0, 0], [1, 1, 1, 0, 0], [1, 0, 1, 0, 0]),
        # Too late after four days; and what comes after the next off-grid night helps nothing.
        ([0, 0, 0, 0, 1], [1, 0, 0, 0, 0], [1, 0, 0, 0, 0]),
        ([0, 0, 1], [1, 1, 1], [1, 1, 0]),
        ([0, 0, 0, 1], [1, 0, 1, 0], [1, 0, 0, 0]),
    ],
)
def test_short_of_full_counts_where_a_night_suffers_or_the_plates_do(full, off_grid, short) -> None:
    found = short_of_full(np.array([full], dtype=bool), np.array(off_grid, dtype=bool))
    assert found[0].tolist() == [bool(x) for x in short]


def test_single_nights_between_hook_ups_leave_only_a_weak_charger_short(demo_results, reference) -> None:
    plan = replace(demo_results("kittiwake").plan, nights_in_a_row=1.0)
    one = evaluate(plan, reference, found=()).simulated.years["flooded"]
    assert one["short_share"].number < 0.05
    # Held at 13.3 V and with no way to it: nothing makes the night good.
    weak = tuple(replace(s, absorption_v=13.3, float_v=13.3) for s in plan.sources if s.kind == "mains")
    held = evaluate(replace(plan, sources=weak), reference, found=()).simulated.years["flooded"]
    assert held["short_share"].number > 0.98


def test_the_nights_of_the_year_only_scale_a_run_year(demo_results, reference) -> None:
    # Days are run anew only where stays follow closer on one another than six days on mains.
    results = demo_results("pebble")
    results.simulated.run()
    base = results.simulated.years["dual"]
    for nights in (18.0, 90.0):
        again = evaluate(replace(results.plan, off_grid_nights=nights), reference)
        assert again.simulated.known or nights > 80
        year = again.simulated.years["dual"]
        assert year["served_share"].number == pytest.approx(base["served_share"].number)
        if again.simulated.year_plan.calendar.key == results.simulated.year_plan.calendar.key:
            for key in ("through", "cycle_wear"):
                assert year[key].number == pytest.approx(base[key].number * nights / 9)


def test_what_a_run_year_burns_and_empties_reaches_money_and_life(demo_results) -> None:
    compared_banks = {c.id: c for c in demo_results("tern-rock").compare.compared_banks}
    burnt = [c for c in compared_banks.values() if c.year["fuel"].number > 0]
    for compared in burnt:
        assert compared.cost["fuel"].number == compared.year["fuel"].number
        assert compared.cost["running_per_year"].number >= compared.cost["fuel"].number
    # The old sort, drawn to four fifths, is emptied in some weathers: each is an accident on top of the one
    # a year that is expected.
    same = compared_banks["same"]
    flat, low = same.year["flat"].number, same.year["low"].number
    assert same.life["accident_wear"].number == pytest.approx((1 + flat) * 0.05 + low * 0.02)
    assert flat + low > 0


def test_a_bms_that_opens_on_current_is_told_with_more_than_it_passes(simulated, demo_results) -> None:
    # The start of a motor, or what runs for long, just above what a BMS passes: the figure says so.
    told = 0
    for name in ("long-haul", "mulga", "kittiwake"):
        loads = demo_results(name).plan.loads
        for factor in (1.0, 2.0):
            heavy = tuple(replace(x, start_w=x.start_w and x.start_w * factor) for x in loads)
            for run in simulated(name, TrialSettings(month=1), loads=heavy).values():
                for event in (e for e in run.events if e.code == "bms_overload"):
                    told += 1
                    assert event.says.figures["amps"].number > event.says.figures["limit"].number
    assert told > 2
