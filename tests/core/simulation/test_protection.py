"""What opens, what closes again, and what is then not served: one bank, a few hours, by hand."""

from dataclasses import replace

import numpy as np
import pytest

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.kibam import fit_wells
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.simulation import parameters
from vast_harbor.core.simulation.conditions import Conditions, Feed
from vast_harbor.core.simulation.run import run
from vast_harbor.core.simulation.simulated_bank import CutOffs, simulate_bank_as

CATALOGUE = data.reference().catalogue
LFP, AGM = CATALOGUE["ostrel-100"], CATALOGUE["tarnmoor-100"]
NO_CUT_OFF = CutOffs(disconnect_v=None)
MAINS = Source("m", "mains", amps=20.0, timeout_h=4.0, wakes=True)


def bank_of(model, sources=(), cut_offs=NO_CUT_OFF, **changes):
    bank = Bank(model, 1, 1)
    wells = fit_wells(model.ratings, model.battery_class.peukert.likely)
    made = simulate_bank_as(model.id, bank, wells, 1.0, 0.0, bank_resistance(bank), 1.0, cut_offs, sources)
    return replace(made, standing_a=0.0, **changes)


def hours(count, dc=0.0, ac=0.0, critical_ac=0.0, critical_dc=0.0, plugged=0.0, celsius=25.0) -> Conditions:
    """Some hours of steady loads in steps of a quarter of an hour, mains from the start or not at all."""
    shape = (1, int(count * 4))

    def steady(value):
        return np.full(shape, float(value))

    first, nobody = np.zeros(shape, dtype=bool), np.zeros(shape, dtype=bool)
    first[0, 0] = True
    return Conditions(
        0.25, steady(dc), steady(ac), steady(critical_dc), steady(critical_ac), steady(dc + ac),
        ((0.0, steady(dc + ac)),), steady(celsius), nobody, nobody, steady(0),
        (Feed("m", steady(plugged), first),),
    )  # fmt: skip


def test_critical_loads_behind_an_inverter_that_gave_up_count_as_not_served() -> None:
    # 2.5 kW AC of which 200 W are critical, from a small cold AGM: its inverter gives up at once.
    traces = run([bank_of(AGM)], hours(2, dc=20, ac=2500, critical_ac=200, celsius=-10), 0.6)[0]
    assert (traces.state[0] & parameters.INVERTER_OFF).all()
    assert traces.unserved_ac.sum() == pytest.approx(2 * 2500)
    assert traces.unserved_critical.sum() == pytest.approx(2 * 200)
    assert traces.unserved_dc.sum() == 0


def test_what_an_inverter_still_serves_is_not_missed() -> None:
    traces = run([bank_of(AGM)], hours(1, dc=20, ac=200, critical_ac=100), 1.0)[0]
    assert traces.unserved_critical.sum() == 0 and traces.unserved_ac.sum() == 0


def test_lfp_opens_when_its_volts_fall_below_its_cut_off() -> None:
    # At 15 % and 15 °C: 12.845 V, R = 3 mΩ · 1.25 · e^0.3, so 400 W take it to about 12.68 V. With a cut-off
    # above that it opens, below it does not; nothing is overloaded, and it is not empty.
    made = bank_of(LFP, lasting_a=np.inf, peak_a=np.inf)
    terminal = Terminal(LFP.battery_class, 12, made.ohm, celsius=15)
    level = terminal.volts(0.15, 0.15, terminal.current(0.15, 0.15, 400))
    assert 12.6 < float(level) < 12.75
    for cut_v, opens in ((float(level) + 0.05, True), (float(level) - 0.05, False)):
        traces = run([replace(made, cut_v=cut_v)], hours(0.25, dc=400, celsius=15), 0.15)[0]
        state = int(traces.state[0, 0])
        assert bool(state & parameters.BMS_OPEN) is opens and bool(state & parameters.SAGGED) is opens
        assert not state & (parameters.OVERLOAD | parameters.EMPTY)
        assert traces.unserved_dc.sum() == pytest.approx(100 if opens else 0)


def test_a_bms_closes_again_at_a_twentieth_of_the_charge() -> None:
    # Emptied, then 20 A in: after an hour 20 % are in it. It closes in the step after 5 % are passed.
    made = bank_of(LFP, (MAINS,), resets="charger", close_v=99.0, lasting_a=np.inf, peak_a=np.inf, cut_v=0.0)
    empty = hours(1, dc=1500)
    charged = hours(3, dc=0.0, plugged=1.0)
    joined = replace(
        charged,
        **{
            name: np.concatenate((getattr(empty, name), getattr(charged, name)), axis=1)
            for name in ("dc_w", "ac_w", "critical_dc_w", "critical_ac_w", "peak_w", "battery_c",
                         "generator_ok", "least_v")
        },
        starts_w=((0.0, np.concatenate((empty.starts_w[0][1], charged.starts_w[0][1]), axis=1)),),
        feeds=(Feed("m", *(np.concatenate((getattr(empty.feeds[0], n), getattr(charged.feeds[0], n)), axis=1)
                           for n in ("unit", "starts"))),),
    )  # fmt: skip
    traces = run([made], joined, 0.3)[0]
    is_open = (traces.state[0] & parameters.BMS_OPEN) > 0
    assert is_open[3], "it is emptied first"
    soc = traces.soc[0]
    closed = int(np.flatnonzero(~is_open[4:])[0]) + 4
    assert soc[closed - 1] < 0.05 <= soc[closed] < 0.12 and not is_open[closed:].any()


def test_lead_acid_has_no_bms_that_opens() -> None:
    traces = run([bank_of(AGM)], hours(6, dc=600), 1.0)[0]
    assert not (traces.state & parameters.BMS_OPEN).any()
    assert (traces.state & parameters.EMPTY).any() and traces.unserved_dc.sum() > 0


@pytest.mark.parametrize(("keeps", "missed"), [(True, 0.0), (False, 30.0)])
def test_a_load_disconnect_lets_go_of_all_but_what_is_wired_past_it(keeps, missed) -> None:
    # 60 W of which 30 W are critical, and a disconnect far above the volts that the bank has.
    made = bank_of(AGM, cut_offs=CutOffs(disconnect_v=14.0, keeps_critical=keeps))
    traces = run([made], hours(1, dc=60, critical_dc=30), 0.9)[0]
    assert traces.unserved_critical.sum() == pytest.approx(missed)
    assert traces.unserved_dc.sum() == pytest.approx(30 + missed)
    assert not (traces.state & parameters.BMS_OPEN).any()


@pytest.mark.parametrize(
    ("model", "celsius", "charged"),
    [(AGM, 50, True), (AGM, -25, True), (AGM, 25, True), (LFP, 50, False), (LFP, -5, False), (LFP, 25, True)],
)
def test_only_a_bms_stops_a_charge(model, celsius, charged) -> None:
    # Half full on a 20 A charger for an hour. Lead-acid has no switch: it takes what it accepts.
    bank = bank_of(model, (MAINS,))
    traces = run([bank], hours(1, plugged=20, celsius=celsius), 0.5)[0]
    assert bool(traces.charge[0, -1] > traces.charge[0, 0] + 0.5) is charged
    assert bool((traces.state[0] & parameters.TOO_COLD).any()) is not charged


def test_a_bms_that_states_no_peak_passes_no_more_for_a_start_than_for_long() -> None:
    # 100 A for long: a start of 110 A opens it; where 200 A are stated for a moment it is borne.
    bms = LFP.bms
    assert bms.peak_a == 200
    silent = replace(LFP, bms=replace(bms, peak_a=None))
    given = hours(1, dc=200)
    start = replace(given, peak_w=np.full_like(given.dc_w, 1400.0))
    for model, opens in ((LFP, False), (silent, True)):
        traces = run([bank_of(model)], start, 1.0)[0]
        assert bool((traces.state[0] & parameters.OVERLOAD).any()) is opens
