"""Resistance to charge, self-discharge, full and absorption volts: each by hand."""

import numpy as np
import pytest

from vast_harbor import data
from vast_harbor.core.battery.charge_acceptance import (
    acceptance,
    charge_ohm,
    full_soc,
    mean_acceptance,
    self_discharge,
    time_constant,
    wanted_v,
)

CLASSES = data.reference().classes
LFP, AGM, FLOODED = CLASSES["lfp"], CLASSES["agm"], CLASSES["flooded_deep"]


def test_lfp_resists_charge_two_and_a_half_times_as_much() -> None:
    assert charge_ohm(LFP, 0.004, 0.001) == pytest.approx(0.011)
    assert charge_ohm(AGM, 0.004, 0.001) == pytest.approx(0.005)


def test_worn_lead_acid_loses_twice_as_much_by_itself() -> None:
    sound, worn = (float(self_discharge(AGM, 20, health)) for health in (0.86, 0.85))
    assert sound == pytest.approx(0.03 / 730) and worn == pytest.approx(2 * sound)
    assert float(self_discharge(LFP, 20, 0.6)) == pytest.approx(float(self_discharge(LFP, 20, 1.0)))


def test_self_discharge_doubles_for_every_ten_degrees() -> None:
    at = self_discharge(FLOODED, np.array([10.0, 20.0, 30.0]), 1.0)
    assert at[1] / at[0] == pytest.approx(2) and at[2] / at[1] == pytest.approx(2)


def test_full_is_where_hardly_anything_more_goes_in() -> None:
    assert full_soc(AGM) == pytest.approx(1 - 0.005 * 1.2)
    assert full_soc(LFP) == pytest.approx(1 - 0.02 * 0.08)


def test_absorption_volts_follow_the_temperature_between_freezing_and_forty() -> None:
    assert float(wanted_v(AGM, 25)) == pytest.approx(14.5)
    assert float(wanted_v(AGM, 5)) == pytest.approx(14.5 + 20 * 0.024)
    assert float(wanted_v(AGM, -15)) == pytest.approx(float(wanted_v(AGM, 0)))
    assert float(wanted_v(AGM, 60)) == pytest.approx(14.5 - 15 * 0.024)
    assert float(wanted_v(LFP, 0)) == pytest.approx(14.3)


def test_acceptance_by_hand() -> None:
    # 100 Ah at 70 %, τ 1.2 h: 25 A by charge; by volts (14.5 − 12.5)/0.1 = 20 A, the smaller one.
    assert float(acceptance(0.7, 12.5, 14.5, 100, 0.004, 1.2)) == pytest.approx(25)
    assert float(acceptance(0.7, 12.5, 14.5, 100, 0.1, 1.2)) == pytest.approx(20)
    assert float(acceptance(0.7, 12.5, 12.4, 100, 0.1, 1.2)) == 0
    # Over an hour it falls: 30 · (1 − e^(−1/1.2)) Ah go in.
    assert mean_acceptance(0.7, 100, 1.2, 1.0, 1.0) == pytest.approx(30 * (1 - np.exp(-1 / 1.2)))
    assert mean_acceptance(0.7, 100, 1.2, 0.9, 1e-9) == pytest.approx(25)


def test_time_constant_grows_below_absorption_volts_and_in_the_cold() -> None:
    tau = AGM.acceptance_h
    assert float(time_constant(AGM, 14.5, 25)) == pytest.approx(tau)
    assert float(time_constant(AGM, 13.9, 25)) == pytest.approx(tau * np.e)
    # Never below half of it, and no faster in the heat than at absorption volts.
    assert float(time_constant(AGM, 16.5, 25)) == pytest.approx(tau / 2)
    assert float(time_constant(AGM, float(wanted_v(AGM, 5)), 5)) == pytest.approx(tau)
    assert float(time_constant(AGM, 14.5, 5)) == pytest.approx(tau * np.exp(0.48 / 0.6))
    assert float(time_constant(LFP, 13.3, -5)) == pytest.approx(LFP.acceptance_h)
