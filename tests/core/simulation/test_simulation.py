"""Laws of the simulation, for banks and days of all kinds."""

from dataclasses import fields, replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from energy_balance import at_bus_wh, in_bank_wh
from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.kibam import fit_wells
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance
from vast_harbor.core.rig.sources import CHARGE_V, Source, generator_watts
from vast_harbor.core.simulation import parameters
from vast_harbor.core.simulation.conditions import Conditions, Feed
from vast_harbor.core.simulation.run import bank_parameters, run
from vast_harbor.core.simulation.simulated_bank import CutOffs, simulate_bank_as

MODELS = {
    m.id: m
    for m in data.reference().catalogue.values()
    if m.unit_class_v == 12 and m.portable is None and m.used is None
}
MAINS = Source("m", "mains", amps=30.0, timeout_h=4.0)
RESTS = replace(MAINS, rests=True, timeout_h=None)
SUN = Source("s", "solar", watts=300.0)
PWM = Source("s", "solar", watts=120.0, controller="pwm", absorption_v=14.1)
RELAY = Source("e", "engine", link="relay", alternator_a=90.0)
DC_DC = Source("e", "engine", amps=30.0, wakes=True)
DAYS, STEPS = 4, 96


def simulated(model, parallel=1, sources=(), health=1.0, **cut_offs):
    bank = Bank(model, 1, parallel)
    made = CutOffs(**{"disconnect_v": 11.5, "reconnect_v": 12.6, **cut_offs})
    return simulate_bank_as(
        model.id,
        bank,
        fit_wells(model.ratings, 1.15),
        health,
        0.002,
        bank_resistance(bank),
        0.8,
        made,
        sources,
    )


def conditions(dc=40.0, ac=0.0, celsius=15.0, sun=0.5, engine=True, mains=(3,), days=DAYS, seed=0):
    """Some days: a steady DC load, AC in the evening, sun by day, an engine at noon, mains on some days."""
    rng = np.random.default_rng(seed)
    shape = (1, days * STEPS)
    hours = np.arange(days * STEPS) / 4 % 24
    through = np.where((hours > 18) & (hours < 20), ac, 0.0)[None, :]
    watts = np.full(shape, dc) * rng.uniform(0.5, 1.5, shape)
    bright = np.clip(np.sin((hours - 6) / 12 * np.pi), 0, None) * sun * rng.uniform(0.3, 1, days * STEPS)
    plugged = np.isin(np.arange(days * STEPS) // STEPS, mains).astype(float)
    runs = ((hours >= 12) & (hours < 14)).astype(float) * engine
    dawn = (np.arange(days * STEPS) % STEPS == 0)[None, :]
    feeds = (
        Feed("m", plugged[None, :], dawn & (plugged > 0)),
        Feed("s", bright[None, :], dawn),
        Feed("e", runs[None, :], (hours == 12)[None, :]),
    )
    peak = watts + through + 60
    nothing, nobody = np.zeros(shape), np.zeros(shape, dtype=bool)
    return Conditions(
        0.25, watts, through, watts * 0.1, nothing, peak, ((0.0, watts + through),),
        np.full(shape, celsius), nobody, nobody, nothing, feeds,
    )  # fmt: skip


def halved(days: Conditions) -> Conditions:
    """The same in steps half as long."""

    def twice(a):
        return np.repeat(a, 2, axis=1)

    feeds = []
    for feed in days.feeds:
        starts = twice(feed.starts)
        starts[:, 1::2] = False
        feeds.append(Feed(feed.id, twice(feed.unit), starts))
    plain = [f.name for f in fields(days) if f.name not in ("step_h", "feeds", "starts_w")]
    parts = {name: twice(getattr(days, name)) for name in plain}
    parts["starts_w"] = tuple((seconds, twice(watts)) for seconds, watts in days.starts_w)
    return replace(days, step_h=days.step_h / 2, feeds=tuple(feeds), **parts)


LANES = st.builds(
    simulated,
    st.sampled_from(sorted(MODELS)).map(MODELS.get),
    st.integers(1, 3),
    st.sampled_from([(), (MAINS,), (RESTS, SUN), (SUN, DC_DC), (PWM, RELAY), (MAINS, SUN, DC_DC)]),
    st.sampled_from([1.0, 0.8]),
)
DRIVES = st.builds(
    conditions,
    st.floats(0, 200), st.sampled_from([0.0, 300.0, 1500.0]), st.floats(-18, 45), st.floats(0, 1),
    st.booleans(), st.sampled_from([(), (3,), (0, 1, 2, 3)]), st.just(DAYS), st.integers(0, 9),
)  # fmt: skip


@settings(max_examples=60)
@given(LANES, DRIVES, st.floats(0.2, 1))
def test_energy_is_kept_in_every_step(made, days, soc) -> None:
    t = run([made], days, soc)[0]
    dt = days.step_h
    throughput = max(1.0, float(np.abs(t.bank_w).sum() * dt), float(t.served_w.sum() * dt))
    # At the bus: what the sources give is served or goes into the bank.
    assert np.abs(at_bus_wh(t, dt)).max() < 1e-6 * throughput
    # In the bank: what goes in is stored, or lost on the way, or lost by standing.
    assert np.abs(in_bank_wh(made, t, dt)).max() < 1e-6 * throughput
    assert (t.heat_w >= -1e-9).all()
    # And in charge: amp-hours in, less what does not come out again, are amp-hours held.
    held = np.where(t.amps > 0, t.amps * made.coulombic, t.amps) * dt
    steady = np.abs(np.diff(np.sign(t.amps[0]), prepend=0)) == 0
    difference = np.abs(np.diff(t.charge[0]) - held[0] + t.lost_ah[0])
    assert (
        difference[steady & (t.state[0] & parameters.FULL == 0)].max(initial=0.0) < 0.02 * made.nameplate_ah
    )


@settings(max_examples=60)
@given(LANES, DRIVES, st.floats(0.0, 1))
def test_nothing_goes_beyond_its_limits(made, days, soc) -> None:
    t = run([made], days, soc)[0]
    assert t.soc.min() >= 0 and t.soc.max() <= 1
    assert t.charge.max() <= made.wells.capacity * (1 + 1e-9) and t.charge.min() >= -1e-9
    limit = made.charge_a
    celsius = float(days.battery_c[0, 0])
    if made.lfp:
        assert (-t.amps <= made.lasting_a * (1 + 1e-6)).all()
        if celsius < 0 and made.heater_w == 0:
            assert t.amps.max() <= 1e-9
            assert (np.diff(t.soc[0]) <= 1e-12).all()
        elif celsius < 0:
            # One that warms itself takes a gentle charge, and only while its heater runs.
            assert (t.heater_w[t.amps > 1e-9] > 0).all()
            limit = 0.1 * made.nameplate_ah
        elif celsius < 5 and made.heater_w == 0:
            limit = 0.1 * made.nameplate_ah
    assert t.amps.max() <= limit * (1 + 1e-6)
    for i, feed in enumerate(f for f in days.feeds if any(s.id == f.id for s in made.sources)):
        source = next(s for s in made.sources if s.id == feed.id)
        most = {"mains": 30.0 * 15, "solar": source.watts, "engine": source.alternator_a / 2 * 15}[
            source.kind
        ]
        assert (t.used_w[i] <= most * np.maximum(feed.unit, 0) + 1e-6).all()
    asked = (days.dc_w + days.ac_w) * days.step_h
    missing = t.unserved_dc + t.unserved_ac
    assert (missing >= -1e-9).all() and (missing <= asked + 1e-6).all()
    standing = made.standing_a * made.class_v
    assert (t.served_w * days.step_h <= asked + (standing + made.heater_w) * days.step_h + 1e-6).all()


def first_dark(made, days):
    missing = (lambda t: (t.unserved_dc + t.unserved_ac)[0])(run([made], days)[0])
    dark = np.flatnonzero(missing > 1e-6)
    return int(dark[0]) if dark.size else missing.size


@settings(max_examples=40)
@given(st.sampled_from(sorted(MODELS)), DRIVES)
def test_a_larger_bank_never_goes_dark_sooner(model, days) -> None:
    alone = days.without_charge()
    times = [first_dark(simulated(MODELS[model], n), alone) for n in (1, 2, 3)]
    assert times == sorted(times)


@settings(max_examples=30)
@given(LANES, st.floats(20, 90), st.floats(6, 25), st.integers(0, 9))
def test_halving_the_step_changes_little(made, watts, celsius, seed) -> None:
    # Where nothing gives up: a cut-off in another quarter of an hour is a different story.
    days = conditions(watts, 0.0, celsius, seed=seed, days=3)
    whole, halves = run([made], days)[0], run([made], halved(days))[0]
    trouble = parameters.BMS_OPEN | parameters.LOADS_OFF | parameters.EMPTY | parameters.RESTING
    if not ((whole.state | halves.state[:, ::2]) & trouble).any():
        # Half a per cent nearly always; a relay on lithium, whose current falls within the step, takes more.
        assert np.abs(whole.soc[0, ::STEPS] - halves.soc[0, :: 2 * STEPS]).max() < 0.015


def test_full_and_empty_part_a_step() -> None:
    agm = next(m for m in MODELS.values() if m.battery_class.key == "agm")
    made = simulated(agm, disconnect_v=None)
    heavy = conditions(dc=made.nameplate_ah * 12 * 0.4, engine=False, mains=(), sun=0.0, days=1)
    t = run([made], heavy)[0]
    at = int(np.flatnonzero(t.state[0] & parameters.EMPTY)[0])
    asked, missing = heavy.dc_w[0, at] * 0.25, t.unserved_dc[0, at]
    assert 0 < missing < asked
    # After a rest it runs a small load again: what the kinetic model is for.
    assert t.charge[0, at + 1] > 0.1 * made.wells.capacity


@pytest.mark.parametrize("celsius", [-15.0, 5.0, 30.0])
@pytest.mark.parametrize("soc", [0.9, 0.15])
@pytest.mark.parametrize("key", ["flooded_deep", "lfp"])
def test_volts_of_a_run_are_those_of_the_battery_package(key, soc, celsius) -> None:
    model = next(m for m in MODELS.values() if m.battery_class.key == key and m.rated_ah >= 100)
    made = simulated(model, health=0.8, disconnect_v=None)
    # So short a step that the charge and the wells hardly move.
    watts = np.full((1, STEPS), 0.3 * made.nameplate_ah)
    short = replace(conditions(celsius=celsius, days=1), step_h=1e-5, dc_w=watts, ac_w=np.zeros((1, STEPS)))
    trace = run([made], short, soc)[0]
    level = 1 - made.nameplate_ah * (1 - soc) / made.wells.capacity
    terminal = Terminal(made.battery_class, made.class_v, made.ohm, made.cable_ohm, celsius, made.health)
    expected = terminal.volts(soc, level, -trace.amps[0, 0])
    assert trace.amps[0, 0] < 0 and trace.volts[0, 0] == pytest.approx(float(expected), abs=1e-4)


def test_the_same_days_give_the_same_run() -> None:
    made = simulated(next(iter(MODELS.values())), sources=(MAINS, SUN, DC_DC))
    first, second = run([made], conditions(seed=5))[0], run([made], conditions(seed=5))[0]
    for a, b in zip(first, second, strict=True):
        assert np.array_equal(a, b)


def test_a_heater_lets_lfp_charge_below_freezing() -> None:
    heated = next(m for m in data.reference().catalogue.values() if m.heater_w and m.unit_class_v == 12)
    cold = conditions(dc=5.0, celsius=-15.0, mains=(0, 1, 2, 3))
    with_heater = simulated(heated, sources=(MAINS,))
    without = replace(with_heater, heater_w=0.0)
    warm, bare = (run([x], cold, 0.5)[0] for x in (with_heater, without))
    assert bare.amps.max() <= 1e-9
    assert warm.soc[0, -1] > 0.9 and warm.heater_w.sum() > 0


def test_a_sleeping_battery_waits_for_a_charger_that_wakes_it() -> None:
    model = next(m for m in MODELS.values() if m.bms and m.bms.resets == "charger" and m.rated_ah >= 100)
    days = conditions(dc=150.0, engine=False, sun=0.0, mains=(2, 3))
    deaf, wakes = (
        simulated(model, sources=(replace(MAINS, wakes=w),), disconnect_v=None) for w in (False, True)
    )
    asleep, awake = (run([x], days)[0] for x in (deaf, wakes))
    assert (asleep.state[0] & parameters.ASLEEP).any() and asleep.amps[0, 2 * STEPS :].max() <= 1e-9
    assert awake.soc[0, -1] > 0.5


@pytest.mark.parametrize(("amps", "ah"), [(500.0, 50.0)])
def test_a_charger_far_too_large_gives_what_the_bank_takes(amps, ah) -> None:
    small = next(m for m in MODELS.values() if abs(m.rated_ah - ah) < 1 and m.battery_class.key == "lfp")
    t = run([simulated(small, sources=(replace(MAINS, amps=amps),))], conditions(mains=(0, 1, 2, 3)), 0.2)[0]
    assert t.amps.max() == pytest.approx(small.charge_a)


def test_a_generator_shares_its_watts_among_the_chargers_at_the_volts_of_the_bank() -> None:
    generator, charger = Source("g", "generator", watts=2000.0), Source("m", "mains", amps=50.0)
    lfp = next(m for m in MODELS.values() if m.battery_class.key == "lfp")
    one, two = (
        bank_parameters(simulated(lfp, sources=(generator, *chargers))).generator_a
        for chargers in ((charger,), (charger, charger))
    )
    assert one == pytest.approx(2 * two) and one == pytest.approx(generator_watts(generator) / CHARGE_V)
    bare = simulated(lfp, sources=(generator, charger))
    assert bank_parameters(replace(bare, class_v=24.0)).generator_a == pytest.approx(one / 2)
