"""The parts of the loop over time, one by one and by hand; uncompiled they are plain Python."""

import numpy as np
import pytest

from vast_harbor.core.battery.charge_acceptance import mean_acceptance
from vast_harbor.core.simulation import charging, compiled, kernel, noting, parameters, run, switching
from vast_harbor.core.simulation.parameters import BankParameters, Level, Moment, RestedVolts, Slots

FLAT = RestedVolts(np.array([0.0, 1.0]), np.array([12.0, 12.0]), np.array([0.0, 12.0]))
SLOPE = RestedVolts(np.array([0.0, 0.5, 1.0]), np.array([11.0, 12.0, 14.0]), np.array([0.0, 5.75, 12.25]))


@pytest.fixture(autouse=True)
def uncompiled(monkeypatch) -> None:
    for module in (charging, compiled, kernel, noting, switching):
        for name, part in list(vars(module).items()):
            if hasattr(part, "py_func"):
                monkeypatch.setattr(module, name, part.py_func)


def bank_of(**changes) -> BankParameters:
    """100 Ah of LFP without cables; its BMS passes 100 A for long and 200 A for a start."""
    plain = BankParameters(
        q_max=100.0, ratio=0.5, rate=1.0, ah=100.0, lfp=True, ohm=0.01, cable_ohm=0.0, charge_ohm=0.025,
        knee_v=0.0, lasting_a=100.0, peak_a=200.0, cut_v=10.4, close_v=12.0, by_itself=True, coulombic=0.9,
        heater_w=0.0, heated_a=0.0, standing_w=0.0, full_soc=0.99, tail_a=2.0, inverter_v=10.8,
        restart_v=12.4, disconnect_v=11.5, reconnect_v=12.6, keeps_critical=False, generator_start=0.5,
        generator_stop=0.9, generator_a=40.0,
    )  # fmt: skip
    return plain._replace(**changes)


def around(**changes) -> Moment:
    plain = Moment(
        dc_w=0.0, ac_w=0.0, critical_dc_w=0.0, critical_ac_w=0.0, lasting_w=0.0, peak_w=0.0, limit_a=50.0,
        cold_off=False, heats=False,
    )  # fmt: skip
    return plain._replace(**changes)


def slots_of(*sources: dict) -> Slots:
    """Sources in one stretch of one step; what is not said of one is what a plain 20 A charger has."""
    plain = {
        "amps": 20.0, "watts": 0.0, "by_power": False, "plugged": False, "rests": False, "rebulk_v": 12.8,
        "timeout_h": 4.0, "wakes": True, "more_ohm": 0.0, "softens": 0.0, "unit": 1.0, "starts": False,
        "set_v": 14.4, "hold_v": 13.6, "set_tau": 1.0, "hold_tau": 2.0,
    }  # fmt: skip
    each = [plain | s for s in sources]
    over_time = ("unit", "starts", "set_v", "hold_v", "set_tau", "hold_tau")
    columns = {
        key: np.array([[[s[key]]] for s in each]) if key in over_time else np.array([s[key] for s in each])
        for key in plain
    }
    return Slots(**columns, order=np.arange(len(each)), rest_after_h=1.0)


# --- tables of volts


@pytest.mark.parametrize(
    ("soc", "volts"), [(-0.1, 11.0), (0.0, 11.0), (0.25, 11.5), (0.5, 12.0), (0.75, 13.0), (1.2, 14.0)]
)
def test_a_table_is_linear_between_its_points_and_held_at_its_ends(soc, volts) -> None:
    assert compiled.volts_at(soc, SLOPE.soc, SLOPE.volts) == pytest.approx(volts)


@pytest.mark.parametrize("ends", [(0.0, 1.0), (0.3, 0.4), (0.45, 0.7), (-0.2, 0.2), (0.9, 1.3), (0.8, 0.1)])
def test_mean_volts_between_two_charges_are_those_of_a_thousand_points(ends) -> None:
    low, high = min(ends), max(ends)
    points = np.linspace(low, high, 20_001)
    middle = (points[1:] + points[:-1]) / 2
    expected = np.interp(middle, SLOPE.soc, SLOPE.volts).mean()
    assert compiled.mean_v(*ends, SLOPE) == pytest.approx(expected, rel=1e-6)
    assert compiled.mean_v(low, low, SLOPE) == pytest.approx(np.interp(low, SLOPE.soc, SLOPE.volts))


# --- what sources offer


def offers(
    slots, *, bank=None, soc=0.5, rested=12.0, v=12.0, done=(), resting=(), asleep=False, running=False
):
    count = slots.amps.size
    given, accepts, set_v = np.zeros(count), np.zeros(count), np.zeros(count)
    flags = [np.array([i in marked for i in range(count)]) for marked in (done, resting)]
    supply, state = charging.offers(
        bank or bank_of(), slots, 0, 0, (soc, rested, v, max(v, 1.0), 0.25), running, asleep, *flags,
        given, accepts, set_v,
    )  # fmt: skip
    return supply, state, given, accepts, set_v


def test_a_charger_offers_its_amps_for_the_part_of_the_step_in_which_it_is_on() -> None:
    supply, state, given, accepts, set_v = offers(slots_of({"unit": 0.5}))
    assert supply == 10.0 and state == 0 and given.tolist() == [10.0] and set_v.tolist() == [14.4]
    by_charge = mean_acceptance(0.5, 100.0, 1.0, 0.9, 0.25)
    assert accepts[0] == pytest.approx(by_charge)
    # Its volts may be what bars it: (14.4 − 14.2)/(0.025 + 0.015).
    near = offers(slots_of({"more_ohm": 0.015}), rested=14.2, v=14.2)[3]
    assert near[0] == pytest.approx(0.2 / 0.04)
    assert offers(slots_of({}), rested=14.6, v=14.2)[3][0] == 0.0


def test_after_absorption_a_charger_holds_its_float_volts() -> None:
    _, _, _, accepts, set_v = offers(slots_of({}), done=(0,))
    assert set_v.tolist() == [13.6]
    assert accepts[0] == pytest.approx(mean_acceptance(0.5, 100.0, 2.0, 0.9, 0.25))


def test_a_panel_offers_power_so_fewer_amps_at_higher_volts() -> None:
    panel = {"by_power": True, "watts": 120.0, "amps": 30.0}
    # Charged with 10 A of the 20 A or so that it takes, the bank rises from 12 V towards 14.4 V.
    supply, _, given, accepts, _ = offers(slots_of(panel))
    risen = 12.0 + 2.4 * 10.0 / accepts[0]
    assert supply == pytest.approx(120 / risen) and given[0] == pytest.approx(supply) and supply < 10
    # Its controller may be the smaller one.
    assert offers(slots_of(panel | {"amps": 4.0}))[0] == pytest.approx(4.0)


def test_what_rests_sleeps_or_is_below_the_bank_s_volts_gives_nothing() -> None:
    assert offers(slots_of({}), resting=(0,))[:2] == (0.0, parameters.RESTING)
    assert offers(slots_of({"wakes": False}), asleep=True)[:2] == (0.0, parameters.ASLEEP)
    assert offers(slots_of({"wakes": True}), asleep=True)[:2] == (20.0, 0)
    assert offers(slots_of({"set_v": 11.9}))[0] == 0.0
    # What gives nothing anyway has nothing to note.
    assert offers(slots_of({"unit": 0.0}), resting=(0,))[:2] == (0.0, 0)


def test_a_generator_runs_what_is_plugged_in_up_to_what_it_can() -> None:
    charger = {"plugged": True, "unit": 0.0, "amps": 60.0}
    assert offers(slots_of(charger))[0] == 0.0
    assert offers(slots_of(charger), running=True)[0] == 40.0
    assert offers(slots_of(charger | {"amps": 25.0}), running=True)[0] == 25.0
    assert offers(slots_of(charger | {"plugged": False}), running=True)[0] == 0.0


def test_offers_add_up() -> None:
    supply, _, given, *_ = offers(slots_of({"set_v": 13.8}, {"amps": 5.0}))
    assert given.tolist() == [20.0, 5.0] and supply == 25.0


# --- what of it goes in


def flow(given, accepts, may=1000.0, load_a=0.0, set_v=(14.0, 14.4), rested=12.0):
    slots = slots_of(*({} for _ in given))
    return charging.into_bank(
        slots, np.array(given), np.array(accepts), np.array(set_v[: len(given)]), may, load_a, rested
    )


def test_each_source_gives_until_the_bank_takes_no_more_at_its_volts() -> None:
    into, held = flow([30.0], [20.0])
    assert (into, held) == (20.0, 14.0)
    # Half of what it takes: half of the way from rest to the set volts.
    into, held = flow([10.0], [20.0])
    assert (into, held) == (10.0, pytest.approx(13.0))
    # The one with the lower volts stops at 5 A; the other goes on to its own 12 A.
    assert flow([30.0, 30.0], [5.0, 12.0])[0] == 12.0
    assert flow([30.0, 4.0], [5.0, 12.0])[0] == 9.0


def test_loads_come_first_and_the_bank_takes_no_more_than_it_may() -> None:
    assert flow([30.0], [20.0], load_a=18.0)[0] == 12.0
    assert flow([30.0], [20.0], load_a=40.0) == (0.0, pytest.approx(12.0))
    assert flow([30.0], [20.0], may=3.0)[0] == 3.0
    assert flow([0.0], [20.0]) == (0.0, 0.0)


def test_a_heater_that_is_fully_on_lets_more_in() -> None:
    warm = bank_of(heater_w=40.0, heated_a=50.0)
    limit = charging.charge_limit
    assert limit(warm, 0.0, 40.0) == 50.0 and limit(warm, 0.0, 39.0) == 0.0
    assert limit(warm, 60.0, 40.0) == 60.0 and limit(bank_of(heated_a=50.0), 0.0, 0.0) == 0.0


# --- how a charger sees the bank


def see(*, into, hours=0.25, done=False, timer=0.0, floated=0.0, soc=0.9, given=20.0, accepts=10.0, **source):
    arrays = [np.array([x]) for x in (done, False, timer, floated)]
    charging.see(
        bank_of(), slots_of(source), np.array([given]), np.array([accepts]), into, 50.0, soc, hours, *arrays
    )
    return [a[0] for a in arrays]


def test_absorption_ends_at_its_tail_or_at_its_time() -> None:
    assert not see(into=9.0)[0]
    # At its volts the clock runs; below them it does not.
    assert see(into=10.0)[2] == 0.25 and see(into=9.9)[2] == 0.0
    assert see(into=2.0, accepts=2.0)[0] and not see(into=2.1, accepts=2.1)[0]
    # A bank that takes little because it is empty or cold is not full.
    assert not see(into=1.0, accepts=1.0, soc=0.4)[0]
    assert see(into=10.0, timer=3.75)[0] and not see(into=10.0, timer=3.5)[0]
    assert see(into=10.0, timer=0.5, timeout_h=0.75)[0]
    # The bank may be what holds back: 60 A accepted, 50 A allowed.
    assert see(into=50.0, accepts=60.0)[2] == 0.25


def test_a_charger_goes_to_rest_after_an_hour_of_float_where_it_rests_at_all() -> None:
    assert see(into=5.0, done=True, floated=0.75, rests=True) == [True, True, 0.0, 1.0]
    assert not see(into=5.0, done=True, floated=0.5, rests=True)[1]
    assert not see(into=5.0, done=True, floated=9.0)[1]
    assert see(into=5.0, done=True, given=0.0)[3] == 0.0


def test_a_charger_begins_anew_when_it_is_plugged_in_or_its_rest_is_over() -> None:
    def anew(starts, resting, v):
        arrays = [np.array([x]) for x in (True, resting, 2.0, 3.0)]
        slots = slots_of({"starts": starts})
        charging.begin_anew(slots.starts, slots.rebulk_v, 0, 0, v, *arrays)
        return [a[0] for a in arrays]

    fresh, old = [False, False, 0.0, 0.0], [True, True, 2.0, 3.0]
    assert anew(True, True, 13.5) == fresh and anew(False, True, 12.7) == fresh
    assert anew(False, True, 12.8) == old
    assert anew(False, False, 12.0) == [True, False, 2.0, 3.0]


# --- what comes back


@pytest.mark.parametrize(
    ("before", "now", "after"),
    [
        # An inverter and a load disconnect come back with the volts.
        ((True, False, False, False), {"v": 12.3}, (True, False, False, False)),
        ((True, False, False, False), {"v": 12.4}, (False, False, False, False)),
        ((False, True, False, False), {"v": 12.5}, (False, True, False, False)),
        ((False, True, False, False), {"v": 12.6}, (False, False, False, False)),
        # A BMS that closes by itself does so at its rested volts.
        ((False, False, True, False), {"rested_v": 12.0}, (False, False, False, False)),
        ((False, False, True, False), {"rested_v": 11.9}, (False, False, True, False)),
        # Charged, it closes at a twentieth of its charge.
        ((False, False, True, False), {"charged": True, "soc": 0.05}, (False, False, False, False)),
        ((False, False, True, False), {"charged": True, "soc": 0.04}, (False, False, True, False)),
        # Opened by the cold it closes when that is over, and not before.
        ((False, False, True, True), {}, (False, False, False, False)),
        ((False, False, True, True), {"cold_off": True, "rested_v": 13.0}, (False, False, True, True)),
    ],
)
def test_what_went_off_comes_back(before, now, after) -> None:
    state = {"rested_v": 11.0, "v": 0.0, "soc": 0.02, "charged": False, "cold_off": False} | now
    bank = bank_of()
    found = switching.come_back(
        bank, state["rested_v"], state["v"], state["soc"], state["charged"], state["cold_off"], before
    )
    assert found == after


def test_a_bms_that_waits_for_a_charger_does_not_close_by_its_volts() -> None:
    opened = (False, False, True, False)
    waits = bank_of(by_itself=False)
    assert switching.come_back(waits, 13.0, 13.0, 0.5, False, False, opened) == opened
    assert not switching.come_back(waits, 13.0, 13.0, 0.5, True, False, opened)[2]


# --- loads, and what gives up under them


def under_load(
    bank=None, switches=(False, False, False, False), emptied=False, supply=0.0, soc=0.5, rested=FLAT, **now
):
    bank = bank or bank_of()
    source_v = float(np.interp(soc, rested.soc, rested.volts))
    level = Level(soc, source_v, bank.ohm, 0.0, 0.25)
    return switching.under_load(
        bank, rested, around(**now), level, supply, source_v, emptied, switches
    )  # fmt: skip


def test_a_bank_gives_what_its_loads_draw_at_the_volts_to_which_it_sags() -> None:
    (dc, ac, heater, amps, low), switches, emptied, state = under_load(dc_w=60.0, ac_w=120.0, peak_w=180.0)
    assert (dc, ac, heater) == (60.0, 120.0, 0.0) and not any(switches) and not emptied and state == 0
    assert (12.0 - 0.01 * amps) * amps == pytest.approx(180.0)
    assert low == pytest.approx(12.0 - 0.01 * amps)
    # A start sags deeper than the mean of the step, and is not drawn for all of it.
    hard = under_load(dc_w=60.0, ac_w=120.0, peak_w=600.0)[0]
    assert hard[3] == pytest.approx(amps) and hard[4] < low


def test_a_start_counts_while_anything_runs_and_not_for_what_is_switched_off() -> None:
    # Half a watt runs, and 600 W start on it: the volts sag though the step's mean is nothing.
    low = under_load(dc_w=0.5, peak_w=600.0)[0][4]
    assert low == pytest.approx(12.0 - 0.01 * 52.2, abs=0.05)
    off = (True, True, False, False)
    for bank in (bank_of(), bank_of(lfp=False)):
        (dc, ac, _, amps, low), switches, _, _ = under_load(bank, off, dc_w=40.0, ac_w=900.0, peak_w=2500.0)
        assert dc == ac == amps == 0.0 and low == 12.0 and switches == off


def test_the_bms_draws_for_itself() -> None:
    amps = under_load(bank_of(standing_w=6.0))[0][3]
    assert (12.0 - 0.01 * amps) * amps == pytest.approx(6.0)


def test_volts_fall_over_the_step_so_the_mean_gives_the_power() -> None:
    amps = under_load(bank_of(disconnect_v=0.0), soc=0.4, rested=SLOPE, dc_w=480.0, peak_w=480.0)[0][3]
    # 40 A or so for a quarter of an hour take a tenth of the charge: 11.8 V falls to 11.6 V.
    mean = 11.8 - amps * 0.25 / 100
    assert (mean - 0.01 * amps) * amps == pytest.approx(480.0, rel=1e-6)


def test_a_bms_opens_under_too_much_for_long_or_for_a_start() -> None:
    opened = parameters.OVERLOAD | parameters.BMS_OPEN
    for now in (
        {"dc_w": 1150.0, "lasting_w": 1150.0, "peak_w": 1150.0},
        {"dc_w": 100.0, "lasting_w": 1150.0, "peak_w": 1150.0},
        {"dc_w": 100.0, "lasting_w": 100.0, "peak_w": 2100.0},
    ):
        (dc, _, _, amps, _), switches, _, state = under_load(**now)
        assert state == opened and switches == (False, False, True, False) and dc == amps == 0.0
    # Its own limits are borne: 100 A at 11 V, and 200 A at 10 V by another cut-off.
    at_limit = under_load(bank_of(disconnect_v=0.0), dc_w=1099.0, lasting_w=1099.0, peak_w=1099.0)
    assert at_limit[3] == 0
    start = under_load(bank_of(cut_v=9.9), dc_w=100.0, lasting_w=100.0, peak_w=1999.0)
    assert start[3] == 0
    # Lead-acid has none.
    assert under_load(bank_of(lfp=False), dc_w=1150.0, lasting_w=1150.0, peak_w=1150.0)[1][2] is False


def test_a_bms_opens_below_its_cut_off_volts_and_in_deep_cold() -> None:
    sagged = under_load(bank_of(cut_v=11.5), dc_w=100.0, lasting_w=100.0, peak_w=700.0)
    assert sagged[3] == parameters.BMS_OPEN | parameters.SAGGED and sagged[1][2]
    cold = under_load(dc_w=10.0, peak_w=10.0, cold_off=True)
    assert cold[1] == (False, False, True, True) and cold[3] == parameters.BMS_OPEN
    assert not any(under_load(bank_of(lfp=False), dc_w=10.0, peak_w=10.0, cold_off=True)[1])


def test_an_inverter_gives_up_first_and_the_rest_goes_on() -> None:
    weak = bank_of(lfp=False, ohm=0.05)
    (dc, ac, _, _, low), switches, _, state = under_load(weak, dc_w=24.0, ac_w=300.0, peak_w=324.0)
    assert (dc, ac) == (24.0, 0.0) and switches == (True, False, False, False)
    assert state == parameters.SAGGED | parameters.INVERTER_OFF and low < 10.8


def test_a_load_disconnect_lets_go_of_all_but_what_is_wired_past_it() -> None:
    low = RestedVolts(np.array([0.0, 1.0]), np.array([11.45, 11.45]), np.array([0.0, 11.45]))
    for keeps, served in ((False, 0.0), (True, 7.0)):
        bank = bank_of(lfp=False, keeps_critical=keeps)
        now = {"dc_w": 40.0, "critical_dc_w": 7.0, "peak_w": 40.0, "rested": low}
        (dc, *_), switches, _, state = under_load(bank, **now)
        assert dc == served and switches == (False, True, False, False) and state == parameters.LOADS_OFF


def test_a_power_that_no_current_gives_empties_lead_acid() -> None:
    weak = bank_of(lfp=False, ohm=0.5, disconnect_v=0.0, inverter_v=0.0)
    (dc, _, _, amps, low), _, emptied, state = under_load(weak, dc_w=100.0, peak_w=100.0)
    assert emptied and state == parameters.EMPTY and dc == amps == 0.0 and low == 0.0


def test_a_heater_takes_what_is_left_of_the_supply_and_nothing_of_the_bank() -> None:
    warm = bank_of(heater_w=80.0)
    assert under_load(warm, dc_w=60.0, peak_w=60.0, heats=True)[0][2] == 0.0
    (_, _, heater, amps, _), _, _, state = under_load(warm, dc_w=60.0, peak_w=60.0, heats=True, supply=10.0)
    assert (
        heater == pytest.approx(60.0) and state == parameters.HEATING and amps == pytest.approx(0.0, abs=1e-9)
    )
    assert under_load(warm, dc_w=60.0, peak_w=60.0, heats=True, supply=20.0)[0][2] == 80.0
    assert under_load(warm, dc_w=60.0, peak_w=60.0, supply=20.0)[0][2] == 0.0


# --- charge moved and noted


def moved(bank=None, *, q=50.0, q_1=25.0, amps=0.0, into=0.0, empty_q=0.0, leak_a=0.0, left=0.25):
    return charging.move_charge(bank or bank_of(), q, q_1, amps, into, empty_q, leak_a, left)


def test_charge_goes_out_and_in_to_the_amp_hour() -> None:
    _, out_a, h, q, q_1, lost, dry = moved(amps=20.0)
    assert (out_a, h, q, lost, dry) == (20.0, 0.25, 45.0, 0.0, False) and q_1 < 25.0
    into, out_a, h, q, _, _, _ = moved(into=20.0)
    assert (into, out_a, h) == (20.0, -18.0, 0.25) and q == pytest.approx(54.5)


def test_a_bank_that_is_full_ends_the_part_of_the_step() -> None:
    into, _, h, q, q_1, _, _ = moved(q=99.1, q_1=49.55, into=20.0)
    assert into == 20.0 and h == pytest.approx(0.05) and q == pytest.approx(100.0)
    assert q_1 == pytest.approx(50.0)
    assert moved(q=100.0, q_1=50.0, into=20.0)[:3] == (0.0, 0.0, 0.25)


def test_a_well_runs_dry_where_the_cold_holds_the_rest_back() -> None:
    _, _, h, q, q_1, _, dry = moved(q=30.0, q_1=8.0, amps=40.0, empty_q=4.0)
    assert dry and 0 < h < 0.25 and q_1 == pytest.approx(4.0, abs=1e-6)
    assert q == pytest.approx(30.0 - 40.0 * h)


def test_what_leaks_is_lost_from_both_wells_and_never_more_than_there_is() -> None:
    _, _, _, q, q_1, lost, _ = moved(leak_a=0.4)
    assert lost == pytest.approx(0.1) and q == pytest.approx(49.9) and q_1 == pytest.approx(24.95)
    _, _, _, q, q_1, lost, _ = moved(q=0.02, q_1=0.01, leak_a=9.0)
    assert lost == pytest.approx(0.01) and q == pytest.approx(0.01) and q_1 >= 0


def noted(loads, *, supply=0.0, flow=(0.0, 0.0, 12.0), volts=(12.0, 0.0), opened=False, **now):
    summed = np.zeros((len(parameters.SUMMED), 1, 1))
    used = noting.note_part(
        summed, 0, 0, around(**now), 0.5, 0.125, (*loads, 12.0), supply, flow, volts, opened
    )
    return used, dict(zip(parameters.SUMMED, summed[:, 0, 0], strict=True))


def test_a_part_of_a_step_counts_for_its_share() -> None:
    used, trace = noted((60.0, 0.0, 0.0, 5.0), supply=2.0, volts=(11.9, 1.2), dc_w=60.0)
    assert trace["amps"] == -2.5 and trace["volts"] == pytest.approx(5.95)
    # Bank and sources together, at the volts of the terminals.
    assert trace["served_w"] == pytest.approx(7 * 11.9 / 2) and used == pytest.approx(2 * 11.9)
    assert trace["heat_w"] == 0.6 and trace["bank_w"] == pytest.approx(-5 * 11.9 / 2)
    assert trace["unserved_dc"] == trace["unserved_ac"] == trace["unserved_critical"] == 0


def test_what_the_sources_give_alone_is_served_too_with_the_heater() -> None:
    used, trace = noted((60.0, 30.0, 10.0, 0.0), flow=(5.0, 0.2, 12.5), volts=(14.0, 0.0))
    assert trace["served_w"] == 50.0 and trace["heater_w"] == 5.0
    assert used == pytest.approx(100.0 + 5 * 14.0)
    assert trace["lost_ah"] == 0.2 and trace["lost_wh"] == pytest.approx(2.5)


def test_what_is_not_served_is_counted_in_watt_hours_and_critical_loads_by_themselves() -> None:
    now = {"dc_w": 80.0, "ac_w": 200.0, "critical_dc_w": 16.0, "critical_ac_w": 40.0}
    _, all_off = noted((0.0, 0.0, 0.0, 0.0), **now)
    assert (all_off["unserved_dc"], all_off["unserved_ac"]) == (10.0, 25.0)
    assert all_off["unserved_critical"] == 7.0
    _, kept = noted((16.0, 200.0, 0.0, 0.0), **now)
    assert kept["unserved_dc"] == 8.0 and kept["unserved_critical"] == kept["unserved_ac"] == 0.0


def test_a_bms_that_is_open_shows_no_volts_unless_charge_goes_in() -> None:
    assert noted((0.0, 0.0, 0.0, 0.0), opened=True)[1]["volts"] == 0.0
    assert noted((0.0, 0.0, 0.0, 0.0), opened=True, flow=(3.0, 0.0, 12.0))[1]["volts"] == 6.0


def test_what_the_sources_gave_is_laid_to_the_last_in_order_first() -> None:
    used, offered = np.zeros((3, 1, 1)), np.zeros((3, 1, 1))
    noting.note_sources(
        np.array([2, 0, 1]), np.array([10.0, 5.0, 1.0]), 12.0, 0.5, 150.0, used, offered, 0, 0
    )
    assert offered[:, 0, 0].tolist() == [60.0, 30.0, 6.0]
    # 60 W of the second, then 90 W of the first; nothing is left for the third.
    assert used[:, 0, 0].tolist() == [45.0, 30.0, 0.0]


def test_steps_taken_at_once_are_noted_as_if_they_came_one_by_one() -> None:
    summed, out = run.empty_traces(2, 8, 1)
    summed[:, 0, 2] = 8.0
    out.charge[0, 2], out.soc[0, 2], out.level[0, 2] = 90.0, 0.9, 0.8
    out.used_w[:, 0, 2], out.offered_w[:, 0, 2] = (3.0, 5.0), (4.0, 6.0)
    out.state[0, 2], out.peak_v[0, 2] = parameters.HEATING, 12.5
    noting.spread(summed, out, 0, 2, 4, 82.0, 0.82, 0.72)
    energies = {"unserved_dc", "unserved_ac", "unserved_critical", "lost_ah", "lost_wh"}
    for name, row in zip(parameters.SUMMED, summed[:, 0], strict=True):
        # What is a sum is shared out; what is a mean stands in each. Nothing is written before or after them.
        each = 2.0 if name in energies else 8.0
        assert row.tolist() == [0, 0, each, each, each, each, 0, 0], name
    assert out.charge[0].tolist() == [0, 0, 90, 88, 86, 84, 0, 0, 0]
    assert out.soc[0, 2:6] == pytest.approx([0.9, 0.88, 0.86, 0.84])
    assert out.level[0, 2:6] == pytest.approx([0.8, 0.78, 0.76, 0.74])
    assert out.used_w[1, 0].tolist() == [0, 0, 5, 5, 5, 5, 0, 0] and out.offered_w[0, 0, 5] == 4.0
    assert out.state[0].tolist() == [0, 0, *[parameters.HEATING] * 4, 0, 0] and out.peak_v[0, 5] == 12.5
