"""The need: the worked example of the trade to its digits, and the laws that hold for any rig."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.peukert import nameplate_ah, rate_factor
from vast_harbor.core.battery.sizing import classical_nameplate, energy_need, nameplate_energy
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import AC, DC, USES, Inverter, Load, bank_energy, inverter_hours
from vast_harbor.core.rig.profile import mean_current

WORKED = (
    Load("lights", "Lights", DC, Draw(45, "W"), 12, hours=6),
    Load("fridge", "Fridge", DC, Draw(60, "W"), 12, hours=24, duty=0.35),
    Load("kettle", "Kettle", AC, Draw(900, "W"), 230, hours=0.2),
)


def test_worked_example_of_the_day() -> None:
    # 45 W × 6 h = 270; 60 W × 24 h × 0.35 = 504; 900 W × 0.2 h / 0.88 = 204.545;
    # idle 8 W × 2 h = 16; standby 24 × 1.5 W = 36; together 1030.545 Wh.
    day = bank_energy(WORKED[0].wh + WORKED[1].wh, WORKED[2].wh, 1.0, 0.88, 8 * 2, 1.5)
    assert day == pytest.approx(1030.545, abs=5e-4)
    assert energy_need(day, 2, 0.25) == pytest.approx(2576.364, abs=5e-4)


def test_worked_example_of_the_nameplates() -> None:
    need = energy_need(1030.5454545, 2, 0.25)
    lfp = nameplate_energy(need, 0.9, 1.0, 1.0, 0.9)
    flooded = nameplate_energy(need, 0.5, 0.9, 0.95, 0.9)
    assert lfp == pytest.approx(3180.696, abs=5e-4)
    assert lfp / 12.8 == pytest.approx(248.492, abs=5e-4)
    assert flooded == pytest.approx(6696.202, abs=5e-4)
    assert flooded / 12 == pytest.approx(558.017, abs=5e-4)


def test_whole_plan_agrees_with_the_worked_example(evaluated) -> None:
    # The same rig through every stop; k_rate and k_T follow from the plan at 25 °C (k_T 1).
    results = evaluated(WORKED, Inverter(0.88, 8, 2), standby_w=1.5, battery_c=25)
    assert results.day.bank_wh.value == pytest.approx(1030.545, abs=5e-4)
    assert results.need.energy.value == pytest.approx(2576.364, abs=5e-4)
    lfp = results.need.classes["lfp"]
    assert lfp.nameplate_wh.value == pytest.approx(3180.696, abs=5e-4)
    assert lfp.nameplate_ah.value == pytest.approx(248.492, abs=5e-4)


def test_mean_current_weighs_hard_draws() -> None:
    # 100 W for 10 h and 1000 W for 1 h are 1000 Wh each. Σ(P²t) = 100²·10 + 1000²·1 = 1 100 000 W²h;
    # Σ(Pt) = 2000 Wh; at 12 V: 1 100 000 / (2000 · 12) = 45.833 A, far above the plain mean of 6.9 A.
    assert mean_current(1_100_000, 2000, 12) == pytest.approx(45.8333, abs=1e-4)


def test_amps_are_read_at_class_volts_unless_others_are_stated() -> None:
    assert Load("a", "Pump", DC, Draw(5, "A"), 24, use=USES, uses=4, minutes=15).wh == pytest.approx(120)


def test_overlapping_ac_loads_count_the_inverter_once(evaluated) -> None:
    # 18:00 to 20:00 and 19:00 to 22:00 overlap for one hour: 4 hours, not 5.
    loads = (
        Load("a", "TV", AC, Draw(30, "W"), 230, hours=2, starts_at=18),
        Load("b", "Laptop", AC, Draw(60, "W"), 230, hours=3, starts_at=19),
    )
    hours = evaluated(loads, Inverter(0.9, 8, 1.0)).day.inverter_hours
    assert hours.inputs["h_AC"].value == pytest.approx(4)
    assert hours.value == pytest.approx(4)
    assert inverter_hours(None, 0) == 0


@given(
    wh=st.floats(1, 20_000),
    nights=st.floats(0.25, 10),
    reserve=st.floats(0, 1),
    more=st.floats(0, 1),
    exponent=st.floats(1.0, 1.4),
    amps=st.floats(0.1, 200),
)
def test_more_reserve_never_needs_a_smaller_bank(wh, nights, reserve, more, exponent, amps) -> None:
    def label(m: float) -> float:
        return nameplate_ah(energy_need(wh, nights, m) / (12 * 0.5 * 0.9), 20, exponent, amps)

    assert label(reserve + more) >= label(reserve) * (1 - 1e-12)


@given(ah=st.floats(1, 5000), exponent=st.floats(1.0, 1.4), amps=st.floats(0.05, 500))
def test_nameplate_gives_back_what_was_asked_for(ah, exponent, amps) -> None:
    # Self-consistent: the rate factor of the bank that is proposed leaves just the amp-hours wanted.
    label = nameplate_ah(ah, 20, exponent, amps)
    assert label * rate_factor(label, 20, exponent, amps) == pytest.approx(ah, rel=1e-9)


def test_steps_lead_from_the_day_to_the_label(demo_results) -> None:
    for name in ("tern-rock", "mulga"):
        results = demo_results(name)
        for need in results.need.classes.values():
            values = [s.number for s in need.steps]
            assert [s.name for s in need.steps] == [
                "Energy of the day", "Nights", "Reserve", "Usable depth", "Temperature", "Rate", "Age",
            ]  # fmt: skip
            assert values[0] == results.day.bank_wh.number
            assert values[2] == pytest.approx(results.need.energy.number)
            assert values[-1] == pytest.approx(need.nameplate_wh.number)


def test_classical_solar_method_by_hand(demo_results) -> None:
    # 1000 Wh a day, two nights, reserve 0.25, k_T 0.9. At a depth of 0.5: max(4000, 2500, 5000) = 5000, so
    # the daily fifth governs: 5000 · 1.25 / 0.9 = 6944.4 Wh. With four nights autonomy does: 10 000 / 0.9.
    assert classical_nameplate(1000, 2, 0.25, 0.5, 0.2, 0.9) == pytest.approx(6944.44, abs=0.01)
    assert classical_nameplate(1000, 4, 0.25, 0.5, 0.2, 0.9) == pytest.approx(11111.11, abs=0.01)
    # Deeper than four fifths is never planned for: depth 1.0 counts as 0.8.
    assert classical_nameplate(1000, 4, 0, 1.0, 0.5, 1) == pytest.approx(5000)
    classes = demo_results("mulga").need.classes
    assert classes["lfp"].classical_ah is None
    assert all(classes[k].classical_ah is not None for k in ("flooded_dual", "flooded_deep", "agm", "gel"))
