"""Volts under a draw, delivered charge, and what a meter's reading may mean."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.core.battery import soc_from_voltage
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.discharge import BY_CHARGE, BY_VOLTS, battery, delivered, steady
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance, peak_current, unit_resistance

CLASSES = data.reference().classes


def bank_of(model: str, series: int = 1, parallel: int = 1) -> Bank:
    return Bank(data.reference().catalogue[model], series, parallel)


def terminal(key: str, **more: float) -> Terminal:
    return Terminal(CLASSES[key], 12, CLASSES[key].resistance_mohm / 1000, **more)


def test_resistance_adds_in_series_and_shares_in_parallel() -> None:
    # AGM 100 Ah: 4 mΩ. Four in two strings of two: 4·2/2. Six-volt 225 Ah flooded: 6·(6/12)·(100/225).
    assert bank_resistance(bank_of("tarnmoor-100")) == pytest.approx(0.004)
    assert bank_resistance(bank_of("tarnmoor-100", 2, 2)) == pytest.approx(0.004)
    assert bank_resistance(bank_of("hollin-6-225", 2, 1)) == pytest.approx(0.002667, abs=1e-6)


def test_current_of_a_sagging_bank_by_hand() -> None:
    # OCV 12.10 V, 20 mΩ, 1000 W: (12.1 − √(146.41 − 80)) / 0.04 = (12.1 − 8.14923) / 0.04 = 98.77 A.
    amps = peak_current(12.10, 0.020, 1000)
    assert amps == pytest.approx(98.769, abs=1e-3)
    assert amps * (12.10 - amps * 0.020) == pytest.approx(1000)
    # The most that it gives at all is OCV²/4R = 1830 W.
    assert peak_current(12.10, 0.020, 1830) is not None
    assert peak_current(12.10, 0.020, 1831) is None


def test_resistance_grows_with_cold_age_and_volts_and_falls_with_size() -> None:
    # AGM 4 mΩ: 200 Ah halve it, 24 V double it; at 5 °C a fifth more, at 80 % health a quarter more.
    agm = Terminal(CLASSES["agm"], 24, unit_resistance(CLASSES["agm"], 24, 200), celsius=5, health=0.8)
    assert float(agm.resistance(1, 1)) == pytest.approx(0.004 * 2 / 2 * 1.2 / 0.8)
    assert float(terminal("lfp", celsius=0).resistance(1, 1)) == pytest.approx(0.003 * np.exp(0.75))
    assert float(terminal("lfp", celsius=40).resistance(1, 1)) == pytest.approx(0.003)


def test_volts_under_a_draw_by_hand() -> None:
    # AGM, half full and rested (12.22 V, s₁ 0.5), 50 A at 5 °C, SoH 0.8:
    # R = 4·(2 − 0.5)·(1 + 0.01·20)/0.8 = 9 mΩ; 12.22 − 50·0.009 = 11.77 V.
    agm = terminal("agm", celsius=5, health=0.8)
    assert float(agm.volts(0.5, 0.5, 50)) == pytest.approx(11.77)
    # Its available well down to 5 % though a third is in it: 12.08 − 50·0.004·1.95·1.2/0.8 − 1·(1 − 0.5)
    assert float(agm.volts(0.4, 0.05, 50)) == pytest.approx(12.08 - 0.585 - 0.5)
    # LFP at 10 %, 100 A at −10 °C: R = 3·(1 + 0.5)·e^1.05 = 12.86 mΩ; 12.75 − 1.286 = 11.46 V.
    lfp = terminal("lfp", celsius=-10)
    assert float(lfp.volts(0.1, 0.1, 100)) == pytest.approx(12.75 - 1.28594, abs=1e-4)


@given(st.sampled_from(sorted(CLASSES)), st.floats(0.05, 1), st.floats(1, 3000))
def test_the_current_at_a_power_gives_that_power(key, soc, watts) -> None:
    bank = terminal(key, cable_ohm=0.001)
    amps = bank.current(soc, soc, watts)
    if amps is None:
        # It cannot: not even at half the volts, where a source gives most.
        assert float(bank.source_volts(soc, soc)) ** 2 / 4 / float(bank.resistance(soc, soc)) < watts
    else:
        assert float(bank.volts(soc, soc, amps)) * amps == pytest.approx(watts, rel=1e-6)


def test_the_inverter_gives_up_with_half_of_a_lead_acid_bank_left() -> None:
    # A 100 Ah AGM, cold and at end of life, on some 1.2 kW: about 115 A.
    worn = battery(bank_of("tarnmoor-100"), 1.1, 0, 0.8, cable_ohm=0.002)
    run = steady(worn, 115, 10.8)
    assert run.ended == BY_VOLTS and run.left > 0.4
    # New LFP of the same label gives nearly all of it before its volts fall.
    new = steady(battery(bank_of("ostrel-100"), 1.02, 20), 115, 10.8)
    assert new.left < 0.1 and new.delivered_ah > 1.8 * run.delivered_ah
    # At the 20 h current the AGM is emptied by its charge, down to 9 V or to 10.5 V alike.
    slow = steady(battery(bank_of("tarnmoor-100"), 1.1, 25), 5, 9)
    assert slow.ended == BY_CHARGE and slow.delivered_ah == pytest.approx(100, rel=0.01)
    assert slow.delivered_wh == pytest.approx(100 * 12.2, rel=0.03)


@pytest.mark.parametrize("model", ["tarnmoor-100", "hollin-12-150", "vellan-120", "ostrel-100"])
def test_a_harder_draw_never_gives_more(model) -> None:
    bank = battery(bank_of(model), 1.1, 15)
    by_charge, by_volts = delivered(bank, np.geomspace(2, 200, 30), 10.8)
    assert (np.diff(by_charge) <= 0.6).all() and (np.diff(by_volts) <= 0.6).all()
    assert (by_volts <= by_charge + 1e-9).all()


def test_strings_side_by_side_each_feel_their_share() -> None:
    one, two = battery(bank_of("tarnmoor-100"), 1.1, 25), battery(bank_of("tarnmoor-100", 1, 2), 1.1, 25)
    assert steady(two, 40, 10.5).delivered_ah == pytest.approx(
        2 * steady(one, 20, 10.5).delivered_ah, rel=1e-6
    )


@pytest.mark.parametrize("key", CLASSES)
@given(soc=st.floats(0.02, 0.98), noise=st.floats(-0.045, 0.045))
def test_a_rested_reading_holds_the_truth(key, soc, noise) -> None:
    bank = terminal(key)
    said = soc_from_voltage.read(bank, float(bank.source_volts(soc, 1.0)) + noise, soc_from_voltage.RESTED)
    assert said.low - 1e-9 <= soc <= said.high + 1e-9


def test_what_a_reading_says_and_why() -> None:
    # AGM at 12.36 V rested overnight: 12.31 to 12.41 V, 56 to 64 %.
    agm = terminal("agm")
    rested = soc_from_voltage.read(agm, 12.36, soc_from_voltage.RESTED)
    assert (rested.low, rested.high) == pytest.approx((0.5643, 0.6357), abs=1e-3) and not rested.wide
    # Just charged the same 12.36 V may be 12.06 to 12.36 V: 39 to 60 %, and never more.
    fresh = soc_from_voltage.read(agm, 12.36, soc_from_voltage.JUST_CHARGED)
    assert (fresh.low, fresh.high) == pytest.approx((0.3867, 0.6), abs=1e-3)
    assert "Surface charge" in fresh.why[0]
    # Under 20 A it sags: 12.0 V read is some 12.1 V rested.
    loaded = soc_from_voltage.read(agm, 12.0, soc_from_voltage.LOADED, 20)
    assert loaded.low < soc_from_voltage.soc_at(agm.battery_class, 12, 12.11) < loaded.high
    # LFP at 13.18 V: anything from 37 to 69 %. That is said to be so.
    lfp = soc_from_voltage.read(terminal("lfp"), 13.18, soc_from_voltage.RESTED)
    assert lfp.wide and lfp.high - lfp.low > 0.3 and "battery monitor with a shunt" in lfp.why[0]
    assert soc_from_voltage.read(agm, 14.2, soc_from_voltage.CHARGING).low is None
    assert "below the resting voltage of an empty battery" in " ".join(
        soc_from_voltage.read(agm, 6.1, soc_from_voltage.RESTED).why
    )
    with pytest.raises(ValueError, match="unknown state"):
        soc_from_voltage.read(agm, 12, "asleep")


def test_a_bank_of_24_volts_reads_as_two_of_12() -> None:
    agm = CLASSES["agm"]
    one, two = Terminal(agm, 12, 0.004), Terminal(agm, 24, 0.008)
    a, b = (
        soc_from_voltage.read(one, 12.36, soc_from_voltage.SHORT_REST),
        soc_from_voltage.read(two, 24.72, soc_from_voltage.SHORT_REST),
    )
    assert (a.low, a.high) == pytest.approx((b.low, b.high))
