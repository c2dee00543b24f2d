"""The hardest moment of a day, and the current of a bank that sags."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

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
