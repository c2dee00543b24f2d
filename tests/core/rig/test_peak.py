"""The hardest moment of a day, and the current of a bank that sags."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.rig.day_types import OFF_GRID, DayType
from vast_harbor.core.rig.loads import DC, USES, Load
from vast_harbor.core.rig.peak import ActiveLoad, hardest_moment
from vast_harbor.core.rig.profile import spread_hours

RUNNERS = st.lists(
    st.tuples(st.floats(0, 23), st.floats(0.1, 24), st.floats(0, 3000), st.floats(1, 4), st.booleans()),
    max_size=7,
).map(
    lambda rows: [
        ActiveLoad(str(i), spread_hours(hours, start), watts, watts * times, together)
        for i, (start, hours, watts, times, together) in enumerate(rows)
    ]
)


@given(active_loads=RUNNERS, always=st.floats(0, 50))
def test_peak_is_never_below_any_single_load_nor_above_all(active_loads, always) -> None:
    peak = hardest_moment(active_loads, always)
    for active_load in active_loads:
        assert peak.watts >= always + max(active_load.run_w, active_load.start_w) - 1e-6
    starts = max((r.start_w - r.run_w for r in active_loads), default=0)
    assert peak.watts <= always + sum(r.run_w for r in active_loads) + starts + 1e-6


@given(active_loads=RUNNERS)
def test_peak_without_starts_is_the_top_of_the_summed_powers(active_loads) -> None:
    # On a grid of a minute, with all loads free to run together: the plain maximum of the sum.
    free = [ActiveLoad(r.id, r.blocks, r.run_w, r.run_w) for r in active_loads]
    minutes = (np.arange(1440) + 0.5) / 60
    total = np.zeros(1440)
    for r in free:
        for start, end in r.blocks:
            total += np.where((minutes >= start) & (minutes < end), r.run_w, 0)
    assert hardest_moment(free, 0).watts >= total.max() - 1e-6


def test_starts_come_on_top_and_loads_that_run_alone_do_not_add_up() -> None:
    # Pump 60 W, starting at 150; kettle 1000 W and plate 1500 W that never run together; all at noon.
    noon = ((12.0, 13.0),)
    pump, kettle, plate = (
        ActiveLoad("pump", noon, 60, 150),
        ActiveLoad("kettle", noon, 1000, 1000, together=False),
        ActiveLoad("plate", noon, 1500, 1500, together=False),
    )
    peak = hardest_moment([pump, kettle, plate], 10)
    assert (peak.running_w, peak.watts) == (1570, 1660)
    assert peak.start is not None and peak.start.id == "pump" and peak.at_h == 12
    assert set(peak.ids) == {"pump", "plate"}
    together = [pump, ActiveLoad("kettle", noon, 1000, 1000), ActiveLoad("plate", noon, 1500, 1500)]
    assert hardest_moment(together, 10).watts == 2660
    assert hardest_moment([], 10).watts == 10


LAMP = Load("lamp", "Lamp", DC, Draw(20, "W"), 12, hours=24)
PUMP = Load("pump", "Pump", DC, Draw(60, "W"), 12, use=USES, uses=10, minutes=1, start_w=180, start_s=2)
KETTLE = Load("kettle", "Kettle", DC, Draw(900, "W"), 12, hours=0.2, starts_at=8)
DRILL = Load("drill", "Drill", DC, Draw(300, "W"), 12, hours=0.5)


def test_loads_without_a_stated_time_may_meet_any_other(evaluated) -> None:
    # All four at once, and the pump starts on top; the energy of the day does not change by it.
    day = evaluated((LAMP, PUMP, KETTLE, DRILL)).day
    assert day.peak.running_w == pytest.approx(20 + 60 + 900 + 300) and day.peak.watts == pytest.approx(1400)
    assert set(day.peak.ids) == {"lamp", "pump", "kettle", "drill"} and day.peak.at_h == 8
    assert day.bank_wh.number == pytest.approx(480 + 10 + 180 + 150)
    # A stated time parts them; what may not run with others comes alone.
    later = replace(DRILL, starts_at=15)
    assert evaluated((LAMP, PUMP, KETTLE, later)).day.peak.watts == pytest.approx(20 + 60 + 900 + 120)
    alone = replace(DRILL, together=False)
    assert evaluated((LAMP, PUMP, KETTLE, alone)).day.peak.watts == pytest.approx(1400)
    assert evaluated((LAMP, PUMP, replace(KETTLE, together=False), alone)).day.peak.watts == pytest.approx(
        1100
    )
    # The profile, and the hardest moment of each hour, go by the times that were made up.
    hours = day.hardest_over(np.arange(25.0))
    assert hours.max() < 1400 and hours.min() == pytest.approx(20)


def test_a_moment_without_a_stated_time_may_come_at_any(evaluated) -> None:
    assert evaluated((LAMP, DRILL)).day.peak_any_time
    assert not evaluated((LAMP, DRILL, KETTLE)).day.peak_any_time
    # A load that does not run on the day meets nothing on it.
    off = replace(DRILL, on={"summer": None, "x": None})
    types = (DayType("x", "X", OFF_GRID),)
    assert evaluated((LAMP, off), day_types=types).day.peak.watts == pytest.approx(20)
