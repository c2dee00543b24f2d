"""Checks of a bank: each with an example that passes and one that does not, the arithmetic beside it."""

import pytest

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.loads import AC, DC, Inverter, Load
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.telling.figures import sentence_text

LAMP = (Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24),)  # 1200 Wh a day, 3000 Wh needed


def findings(evaluated, *candidates: Candidate, loads=LAMP, inverter=None, **changes) -> dict[str, str]:
    results = evaluated(loads, inverter, candidates=candidates, **changes)
    return {f.code: f"{f.severity}: {sentence_text(f.says, Style())}" for f in results.findings}


def lfp(parallel: int = 2, model: str = "ostrel-200") -> Candidate:
    return Candidate("l", "lfp", model, 1, parallel)


def test_covers_the_need(evaluated) -> None:
    # Keel 200: 2560 Wh · DoD 0.9 · k_T 0.975 (15 °C) · k_age 0.9 = 2021.8 Wh, short of 3000 by 978.2 Wh.
    # Two of them give 4043.5 Wh. (3.9 A is far below the rated 40 A, so the rate takes nothing.)
    alone = findings(evaluated, lfp(1))
    assert (
        alone["covers_need"]
        == "blocking: It gives 2.02 kWh usable. That is 978 Wh less than the 3.00 kWh you need."
    )
    assert "covers_need" not in findings(evaluated, lfp(2))


def test_strings_that_the_maker_permits(evaluated) -> None:
    assert "parallel_limit" not in findings(evaluated, lfp(4))
    assert findings(evaluated, lfp(5))["parallel_limit"].startswith("blocking: 5 strings in parallel")


def test_many_lead_acid_strings_are_discouraged(evaluated) -> None:
    def agm(parallel: int) -> Candidate:
        return Candidate("a", "agm", "tarnmoor-100", 1, parallel)

    assert "many_strings" not in findings(evaluated, agm(3))
    assert findings(evaluated, agm(4))["many_strings"].startswith("caution: 4 lead-acid strings")


@pytest.mark.parametrize(
    ("battery_c", "model", "code", "severity"),
    [
        (1, "ostrel-200", None, ""),
        (-1, "ostrel-200", "cold_charge", "blocking"),
        (-1, "quenby-280", "cold_heater", "caution"),
        (44, "ostrel-200", None, ""),
        (46, "ostrel-200", "hot_charge", "caution"),
    ],
)
def test_charging_temperature_of_lfp(evaluated, battery_c, model, code, severity) -> None:
    found = findings(evaluated, lfp(4, model), battery_c=battery_c)
    about_charging = {k: v for k, v in found.items() if k in ("cold_charge", "cold_heater", "hot_charge")}
    if code is None:
        assert about_charging == {}
    else:
        assert list(about_charging) == [code]
        assert about_charging[code].startswith(severity)


def test_heater_is_bounded_by_running_all_day(evaluated) -> None:
    # Two Ember 280 with 110 W each: 2 · 110 · 24 = 5280 Wh.
    found = findings(evaluated, lfp(2, "quenby-280"), battery_c=-10)
    assert "at most 5.28 kWh a day" in found["cold_heater"]


def test_discharged_lead_acid_freezes_before_full(evaluated) -> None:
    # Half discharged it freezes at −25 °C and is warned of 5 K before, below −20 °C. Taken to 20 % it
    # freezes at −10 °C, so the warning comes below −5 °C.
    bank = Candidate("d", "flooded_deep", "hollin-6-225", 2, 3)
    assert "freezing" not in findings(evaluated, bank, battery_c=-19)
    assert "−25 °C" in findings(evaluated, bank, battery_c=-21)["freezing"].replace("-", "−")
    deep = {"overrides": {"dod.flooded_deep": 0.8}}
    assert "freezing" not in findings(evaluated, bank, battery_c=-4, **deep)
    assert "freezing" in findings(evaluated, bank, battery_c=-6, **deep)


@pytest.mark.parametrize(
    ("candidate", "system_v", "says"),
    [
        (
            Candidate("x", "lfp", "ostrel-200", 3, 1),
            24,
            "3 × 12 V in series gives 36 V, but the system has 24 V.",
        ),
        (Candidate("x", "lfp", "quenby-48-100"), 12, "48 V batteries cannot make 12 V"),
        (Candidate("x", "lfp", "quenby-24-100", None, 1), 48, None),
        (Candidate("x", "flooded_dual", "marram-85"), 48, None),
    ],
)
def test_voltage_must_come_out_whole(evaluated, candidate, system_v, says) -> None:
    results = evaluated(LAMP, candidates=(candidate,), system_v=system_v)
    banked = results.banks.candidates[0]
    if says is None:
        assert banked.bank is not None and banked.bank.nominal_v == pytest.approx(
            system_v * (12.8 / 12 if candidate.battery_class == "lfp" else 1)
        )
    else:
        assert banked.bank is None and says in banked.findings[0].says.template
        assert banked.findings[0].severity == "blocking" and results.compare.compared_banks == ()


def test_inverter_on_for_less_than_its_loads_is_told(evaluated) -> None:
    loads = (Load("a", "Screen", AC, Draw(30, "W"), 230, hours=4),)
    assert "inverter_hours" in findings(evaluated, lfp(), loads=loads, inverter=Inverter(hours_on=1))
    assert "inverter_hours" not in findings(evaluated, lfp(), loads=loads, inverter=Inverter(hours_on=5))
    assert "inverter_idle" in findings(evaluated, lfp(), loads=LAMP, inverter=Inverter(hours_on=5))


def test_banks_of_unequal_energy_are_told(evaluated) -> None:
    # Usable 4.04 kWh against 8.09 kWh is far beyond a tenth; the same bank twice is not.
    other = Candidate("m", "lfp", "ostrel-200", 1, 4)
    assert findings(evaluated, lfp(2), other)["unequal"].startswith("note: The banks differ in size")
    assert "unequal" not in findings(evaluated, lfp(2), Candidate("m", "lfp", "ostrel-200", 1, 2))


def test_life_by_label_cycles_alone_is_questioned(evaluated) -> None:
    # 10 charges a year against some 2700 cycles: nearly three centuries by the label, of which 20 years are
    # credited. At 45 °C all the year age ends it after seven.
    hot = {"off_grid_nights": 10, "battery_c": 45, "rest_c": 45}
    assert "label_years" in findings(evaluated, lfp(4), house_rule="to_label", **hot)
    assert "label_years" not in findings(evaluated, lfp(4), house_rule="to_label", off_grid_nights=10)
    assert "label_years" not in findings(evaluated, lfp(4), **hot)


def test_an_empty_day_and_an_empty_list_say_what_to_do_first(evaluated) -> None:
    assert "no_use" in findings(evaluated, lfp(), loads=())
    results = evaluated(LAMP, candidates=())
    assert [f.code for f in results.findings if f.stop == "banks"] == ["no_candidates"]
    assert all(f.remedy for f in results.findings)
