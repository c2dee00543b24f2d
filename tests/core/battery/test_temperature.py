"""Temperature of the battery."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.temperature import freezing_point_c, temperature_factor
from vast_harbor.core.figures.interpolation import interpolate

TABLE = {  # °C: −20, −10, 0, 10, 20, 25, 40
    "flooded_dual": (0.50, 0.65, 0.80, 0.90, 0.98, 1.00, 1.03),
    "flooded_deep": (0.50, 0.65, 0.80, 0.90, 0.98, 1.00, 1.03),
    "agm": (0.55, 0.70, 0.83, 0.92, 0.98, 1.00, 1.03),
    "gel": (0.55, 0.70, 0.83, 0.92, 0.98, 1.00, 1.03),
    "lfp": (0.60, 0.78, 0.90, 0.96, 0.99, 1.00, 1.00),
}


@pytest.mark.parametrize("key", TABLE)
def test_table_of_the_class(reference, key) -> None:
    found = [temperature_factor(reference.classes[key], t) for t in (-20, -10, 0, 10, 20, 25, 40)]
    assert found == pytest.approx(TABLE[key])


def test_linear_between_points_and_held_at_the_ends(reference) -> None:
    # AGM at −15 °C: halfway from 0.55 to 0.70 is 0.625. LFP at 5 °C: halfway from 0.90 to 0.96 is 0.93.
    assert temperature_factor(reference.classes["agm"], -15) == pytest.approx(0.625)
    assert temperature_factor(reference.classes["lfp"], 5) == pytest.approx(0.93)
    assert temperature_factor(reference.classes["agm"], -40) == 0.55
    assert temperature_factor(reference.classes["agm"], 60) == 1.03


def test_freezing_point_falls_with_charge() -> None:
    assert [freezing_point_c(s) for s in (0, 0.2, 0.5, 1)] == [-7, -10, -25, -50]
    assert freezing_point_c(0.35) == pytest.approx(-17.5)


POINTS = st.lists(
    st.tuples(st.floats(-50, 50), st.floats(0, 2)), min_size=1, max_size=8, unique_by=lambda p: p[0]
)


@given(points=POINTS.map(sorted), x=st.floats(-80, 80))
def test_a_table_never_leaves_its_own_range(points, x) -> None:
    values = [y for _, y in points]
    assert min(values) - 1e-9 <= interpolate(points, x) <= max(values) + 1e-9
    for at, y in points:
        assert interpolate(points, at) == pytest.approx(y)


@pytest.mark.parametrize("battery_c", [-15, 5, 33])
def test_colder_banks_need_a_larger_label(evaluated, battery_c) -> None:
    from vast_harbor.core.figures.parsing import Draw
    from vast_harbor.core.rig.loads import DC, Load

    lamp = (Load("a", "Lamp", DC, Draw(50, "W"), 12, hours=24),)
    warm, other = evaluated(lamp, battery_c=25), evaluated(lamp, battery_c=battery_c)
    for key, need in other.need.classes.items():
        ratio = need.nameplate_wh.number / warm.need.classes[key].nameplate_wh.number
        assert ratio == pytest.approx(1 / need.temperature.number, rel=1e-6)
