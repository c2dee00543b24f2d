"""Hours on mains before a trip: the longer it stood and the warmer, the longer; never without an end."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.log.before_trip import charge_left, hours_on_mains
from vast_harbor.core.log.duties import InUse, Record, duties


def test_worked_examples(reference) -> None:
    """200 Ah of flooded, 7 % lost in a month at 25 °C: 14 Ah at 20 A, then the current falls to 1 A."""
    flooded = reference.classes["flooded_deep"]
    assert charge_left(flooded, 30.42, 20) == pytest.approx(0.95, abs=1e-4)
    assert charge_left(flooded, 30.42, 30) == pytest.approx(0.90, abs=1e-4)
    assert charge_left(flooded, 30.42, 20, 0.8) == pytest.approx(0.90, abs=1e-4)
    assert hours_on_mains(flooded, 200, 20, 30.42, 25) == pytest.approx(0.707 + 1.6 * 2.996, abs=0.01)
    # The cold makes absorption longer.
    assert hours_on_mains(flooded, 200, 20, 0, 5) > 1.3 * hours_on_mains(flooded, 200, 20, 0, 25)
    # LFP was laid up at 65 %: 70 Ah are missing from the first day on.
    assert hours_on_mains(reference.classes["lfp"], 200, 20, 0, 20) == pytest.approx(3.5, abs=0.2)


@given(
    key=st.sampled_from(("flooded_dual", "flooded_deep", "agm", "gel", "lfp")),
    days=st.floats(0, 700), more=st.floats(0, 300), celsius=st.floats(-10, 45), amps=st.floats(2, 200),
)  # fmt: skip
def test_more_days_and_less_charger_take_longer(reference, key, days, more, celsius, amps) -> None:
    of_class = reference.classes[key]
    hours = hours_on_mains(of_class, 200, amps, days, celsius)
    assert 0 <= hours <= hours_on_mains(of_class, 200, amps, days + more, celsius) + 1e-9
    assert 0 <= charge_left(of_class, days, celsius) <= 1
    assert charge_left(of_class, days, celsius + 5) <= charge_left(of_class, days, celsius) + 1e-12


def test_the_duty_before_the_season_tells_them(reference) -> None:
    today = 740_000
    winter = {"since": today - 400, "laid_up_from": today - 50, "used_from": today + 70}
    agm = reference.classes["agm"]
    known = {d.key: d for d in duties(InUse(agm, **winter, mains_h=3.2), Record(), today)}
    unknown = {d.key: d for d in duties(InUse(agm, **winter), Record(), today)}
    assert known["ready"].why.endswith("about 4 hours on mains until it is full.")
    assert "on mains" not in unknown["ready"].why
