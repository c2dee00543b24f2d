"""A steady discharge: it agrees with the wells, the label and the volts, and keeps its energy."""

import numpy as np
import pytest

from core.battery.kibam_by_search import capacity_at
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.discharge import BY_CHARGE, BY_VOLTS, STEPS, battery, delivered, steady
from vast_harbor.core.battery.kibam import step

MODELS = ("tarnmoor-100", "ostrel-100")


@pytest.fixture(params=MODELS)
def model(request, reference):
    return reference.catalogue[request.param]


def test_by_charge_alone_it_gives_what_the_wells_say(model) -> None:
    made = battery(Bank(model, 1, 2), model.battery_class.peukert.likely, 25.0)
    amps = np.array([4.0, 20.0, 80.0])
    by_charge, with_volts = delivered(made, amps, 10.8)
    for current, ah in zip(amps, by_charge, strict=True):
        # Two strings share the current; it is looked at in 400 steps.
        expected = 2 * capacity_at(made.wells, current / 2)
        assert expected * (1 - 2 / STEPS) - 200 / STEPS <= ah <= expected
    assert (with_volts <= by_charge).all() and (np.diff(by_charge) <= 1e-9).all()


def test_it_ends_by_volts_or_by_charge_and_its_energy_is_volts_times_amp_hours(model) -> None:
    made = battery(Bank(model, 1, 1), model.battery_class.peukert.likely, 25.0)
    whole, cut = steady(made, 20.0, 0.0), steady(made, 20.0, 12.4)
    assert whole.ended == BY_CHARGE and cut.ended == BY_VOLTS
    assert 0 < cut.delivered_ah < whole.delivered_ah and cut.left > whole.left
    assert (cut.volts[:-1] >= 12.4).all() and cut.volts[-1] < 12.4
    for run in (whole, cut):
        assert run.delivered_ah == pytest.approx(20.0 * run.hours[-1])
        mean = (run.volts[1:] + run.volts[:-1]) / 2
        assert run.delivered_wh == pytest.approx(float((mean * np.diff(run.ah)).sum()))
        assert run.left == pytest.approx(1 - run.delivered_ah / made.label_ah, abs=0.01)


def test_cold_and_age_take_of_what_it_gives(model) -> None:
    exponent = model.battery_class.peukert.likely
    amps = np.array([5.0])
    given = [
        float(delivered(battery(Bank(model, 1, 1), exponent, c, health), amps, 0.0)[0][0])
        for c, health in ((25.0, 1.0), (-10.0, 1.0), (25.0, 0.8))
    ]
    assert given[1] < given[0] and given[2] == pytest.approx(0.8 * given[0], rel=0.05)


def test_volts_on_the_way_are_those_of_charge_level_and_current(model) -> None:
    made = battery(Bank(model, 1, 2), model.battery_class.peukert.likely, 25.0)
    run = steady(made, 40.0, 0.0)
    assert run.soc[0] == 1 and run.hours[0] == run.ah[0] == 0
    for i in (0, 100, len(run.hours) - 2, len(run.hours) - 1):
        q_1, q_2 = step(made.wells, *made.wells.full(), 20.0, run.hours[i])
        soc = 1 - (made.wells.capacity - q_1 - q_2) / made.label_ah
        level = max(0.0, made.wells.level(q_1))
        assert run.soc[i] == pytest.approx(max(0.0, soc), abs=1e-9)
        assert run.volts[i] == pytest.approx(float(made.terminal.volts(max(0.0, soc), level, 40.0)))
    # The knee of lead-acid is in its last tenth.
    if model.battery_class.is_lead_acid:
        assert run.volts[-1] < run.volts[-40] - 0.5


@pytest.mark.parametrize("cut_off_v", [0.0, 11.5, 12.4])
def test_a_point_of_the_curve_is_what_the_steady_discharge_gives(model, cut_off_v) -> None:
    made = battery(Bank(model, 1, 2), model.battery_class.peukert.likely, 10.0, 0.9)
    amps = np.array([3.0, 12.0, 45.0, 110.0])
    with_volts = delivered(made, amps, cut_off_v)[1]
    for current, ah in zip(amps, with_volts, strict=True):
        run = steady(made, float(current), cut_off_v)
        # One looks at the last step before the end, the other at the first after it.
        step_ah = 2 * made.wells.capacity / (STEPS - 1)
        assert ah == pytest.approx(run.delivered_ah, abs=1.01 * step_ah)
