"""What a datasheet says: grades that widen and never move, ages of prices, and entries made into models."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor import data
from vast_harbor.core.battery.catalogue_entry import model_of
from vast_harbor.core.battery.datasheet import Bms, Proof, confidence_grade, months_between, widened
from vast_harbor.core.errors import InvalidInput

CLASSES = data.reference().classes
BARE = {"id": "x", "name": "X", "unit_v": 12.0, "rated_ah": 100.0, "rated_hours": 20.0, "kg": 30.0}
BARE |= {"cycles": 500.0, "cycles_at_dod": 0.5}


@given(st.floats(0.1, 1), st.floats(1, 9), st.floats(1, 1e6))
def test_a_grade_widens_about_a_middle_that_stays(low, high, likely) -> None:
    ranges = [widened(low * likely, likely, high * likely, grade) for grade in "ABC"]
    for (a, b), (c, d) in itertools.pairwise(ranges):
        assert c <= a <= likely <= b <= d
    assert ranges[0] == pytest.approx((low * likely, high * likely))


def test_grades_count_what_backs_a_datasheet_up() -> None:
    full = Proof("IEC 62619", curve_published=True, support_years=5)
    told, silent = Bms(peak_a=200, cut_v=10.4), Bms()
    assert confidence_grade(full, 1, told, lithium=True) == "A"
    assert confidence_grade(full, 1, silent, lithium=True) == "B"
    assert confidence_grade(full, 2, None, lithium=False) == "A"
    assert confidence_grade(Proof("x"), 2, None, lithium=False) == "B"
    assert confidence_grade(Proof("x"), 1, None, lithium=False) == "C"
    assert confidence_grade(Proof(serviceable=True), 1, silent, lithium=True) == "C"


@pytest.mark.parametrize(
    ("earlier", "later", "months"),
    [
        ("2025-11-25", "2026-11-25", 12),
        ("2025-11-26", "2026-11-25", 11),
        ("2025-11", "2026-11-25", 12),
        ("2026-12", "2026-11", -1),
        ("2024-01-31", "2026-11-25", 33),
    ],
)
def test_months_between_dates(earlier, later, months) -> None:
    assert months_between(earlier, later) == months


def test_an_entry_becomes_a_model() -> None:
    agm = model_of(BARE | {"ah_2": 86.0, "hours_2": 5.0, "reserve_minutes": 180.0}, CLASSES["agm"])
    # Reserve: 25 A for three hours, 75 Ah.
    assert agm.ratings == ((100, 20), (86, 5), (75, 3)) and agm.bms is None and agm.used is None
    assert agm.charge_a == pytest.approx(30) and agm.charge_c == (-20, 45) and not agm.case.water
    # Three hours that the label states already are not counted twice, however they are told.
    same = {"ah_2": 76.0, "hours_2": 3.0, "reserve_minutes": 180.0}
    assert model_of(BARE | same, CLASSES["agm"]).ratings == ((100, 20), (76, 3))
    assert model_of(BARE | {"ah_2": 86.0}, CLASSES["agm"]).ratings == ((100, 20),)
    points = {"cycles_2": 1100.0, "cycles_at_2": 0.3, "cycles_3": 300.0, "cycles_at_3": 0.8}
    assert model_of(BARE | points, CLASSES["agm"]).cycles == ((0.3, 1100), (0.5, 500), (0.8, 300))
    assert model_of(BARE, CLASSES["flooded_deep"]).case.water
    lfp = BARE | {
        "unit_v": 12.8,
        "bms": "none",
        "bms_continuous_a": 100.0,
        "charge_min_c": -5.0,
        "charge_max_c": 50.0,
    }
    bare = model_of(lfp, CLASSES["lfp"])
    # What has no switch passes what it likes.
    assert bare.bms is not None and bare.bms.continuous_a is None and bare.charge_c == (-5, 50)
    past = model_of(lfp | {"used": True, "measured_ah": 82.0}, CLASSES["lfp"])
    assert past.health == pytest.approx(0.82)
    pack = model_of(lfp | {"pack_ac_w": 800.0, "pack_in_w": 300.0}, CLASSES["lfp"]).portable
    assert pack is not None and (pack.surge_w, pack.in_w) == (800, 300)
    with pytest.raises(InvalidInput, match="do not come in 7 V"):
        model_of(BARE | {"unit_v": 7.0}, CLASSES["agm"])
