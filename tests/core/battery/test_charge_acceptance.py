"""Charging against the bench values of the trade, and the sky against a second model of it."""

from dataclasses import replace
from math import exp

import numpy as np
import pandas as pd
import pytest
from pvlib import clearsky, location

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.charge_acceptance import behind_cable, full_soc, time_constant, wanted_v
from vast_harbor.core.battery.kibam import fit_wells
from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.simulation.simulated_bank import CutOffs, simulate_bank_as
from vast_harbor.core.stops.charging.charge_curves import curve
from vast_harbor.core.weather.daily_weather import CLEAR_SHARE, STEP_H, clear_share, draw_weather, shares
from vast_harbor.core.weather.insolation import sunshine


def hundred(reference, key):
    """A 12 V battery of 100 Ah of a class, as the reference values have it."""
    model = next(
        m for m in reference.catalogue.values() if m.battery_class.key == key and m.unit_class_v == 12
    )
    plain = replace(model, ratings=((100.0, model.battery_class.rated_hours),), limits=type(model.limits)())
    bank = Bank(plain, 1, 1)
    wells = fit_wells(plain.ratings, model.battery_class.peukert.likely)
    return simulate_bank_as(key, bank, wells, 1.0, 0.0, bank_resistance(bank), 1.0, CutOffs())


@pytest.mark.parametrize(
    ("key", "amps", "volts", "to_80", "to_95"),
    [
        ("flooded_deep", 20, None, 2.4, 4.8),
        ("agm", 20, None, 1.7, 3.5),
        ("lfp", 50, None, 0.6, 0.9),
        ("flooded_deep", 20, 13.6, None, 24.0),
    ],
)
def test_bench_values(reference, key, amps, volts, to_80, to_95) -> None:
    made = hundred(reference, key)
    volts = volts or made.battery_class.absorption_v
    charger = Source("m", "mains", amps=amps, absorption_v=volts, float_v=volts)
    told = curve(made, (charger,), 0.5, 1.0, 25.0)
    if to_80:
        assert told.reached[0.8] == pytest.approx(to_80, rel=0.2)
    assert told.reached[0.95] == pytest.approx(to_95, rel=0.25)


@pytest.mark.parametrize(("volts", "ends"), [(13.4, 0.94), (13.2, 0.60)])
def test_lfp_held_low_never_fills(reference, volts, ends) -> None:
    charger = Source("m", "mains", amps=20, absorption_v=volts, float_v=volts)
    told = curve(hundred(reference, "lfp"), (charger,), 0.4, 1.0, 25.0)
    assert told.ends_soc == pytest.approx(ends, abs=0.01)
    assert told.reached[0.95] is None


def test_acceptance_follows_volts_and_cold(reference) -> None:
    for c in reference.classes.values():
        at = time_constant(c, [c.absorption_v, c.absorption_v - 0.6, 17.0], 25.0)
        if not c.is_lead_acid:
            assert at == pytest.approx(c.acceptance_h)
            continue
        assert at == pytest.approx([c.acceptance_h, c.acceptance_h * np.e, c.acceptance_h / 2])
        # In the cold a charger that follows the temperature loses nothing.
        assert time_constant(c, c.absorption_v - c.compensation * 20, 5.0) == pytest.approx(c.acceptance_h)
        # Full is where hardly anything goes in any more: C/200.
        assert full_soc(c) == pytest.approx(1 - 0.005 * c.acceptance_h)


# Clear-sky energy of a day, Simplified Solis against the elder model of its author, turbidity 3: near
# for a high sun, far for a low one, where the haze on the long way through the air is what counts.
DIFFERENCE = {
    (25, 6): 0.05, (25, 12): 0.10, (45, 6): 0.05, (45, 12): 0.15, (60, 6): 0.06, (60, 12): 0.55,
}  # fmt: skip


@pytest.mark.parametrize(("latitude", "month"), DIFFERENCE)
def test_the_clear_sky_agrees_with_another_model(latitude, month) -> None:
    ours = sunshine(latitude, 0.0, 0.0, 0.0, 180.0).clear[month - 1].sum() * STEP_H
    times = pd.date_range(f"2025-{month:02d}-15 00:07:30", periods=96, freq="15min", tz="UTC")
    place = location.Location(latitude, 0.0)
    sun = place.get_solarposition(times)
    airmass = place.get_airmass(times, solar_position=sun)["airmass_absolute"]
    theirs = clearsky.ineichen(sun["apparent_zenith"], airmass, 3.0)["ghi"].fillna(0).sum() * STEP_H
    assert abs(ours / theirs - 1) < DIFFERENCE[latitude, month]


def test_panels_that_face_the_sun_get_more_in_winter_and_none_in_the_polar_night() -> None:
    flat, tilted = (sunshine(52.0, 5.0, 1.0, tilt, 180.0).clear for tilt in (0.0, 60.0))
    assert tilted[11].sum() > 1.5 * flat[11].sum() and tilted[5].sum() < flat[5].sum()
    away = sunshine(52.0, 5.0, 1.0, 60.0, 0.0).clear
    assert away[11].sum() < 0.4 * flat[11].sum()
    north = sunshine(85.0, 0.0, 0.0, 0.0, 180.0)
    assert north.clear[11].sum() == 0 and north.clear[5].min() > 0
    noon = sunshine(52.0, 5.0, 1.0, 0.0, 180.0).clear[5].argmax() / 4
    assert 12.5 <= noon < 13  # five degrees east in a zone of fifteen


def test_weather_keeps_its_shares_and_its_seed(reference) -> None:
    for climate in reference.climates.values():
        for month in (1, 7):
            kinds = draw_weather(climate, [month], 3000, False, [4]).kinds[0]
            for kind, share in enumerate(shares(climate, month, False)):
                assert (kinds == kind).mean() == pytest.approx(share, abs=0.05)
            stays = (kinds[1:] == kinds[:-1]).mean()
            chance = sum(s * s for s in shares(climate, month, False))
            assert stays == pytest.approx(climate.stays + (1 - climate.stays) * chance, abs=0.04)
    maritime = reference.climates["maritime"]
    a, b, c = (draw_weather(maritime, [3], 20, False, [seed]) for seed in (1, 1, 2))
    assert np.array_equal(a.sunlit, b.sunlit) and np.array_equal(a.air_c, b.air_c)
    assert not np.array_equal(a.air_c, c.air_c)
    assert (
        draw_weather(maritime, [1], 9, True, [1]).mean_c.mean()
        > draw_weather(maritime, [1], 9, False, [1]).mean_c.mean()
    )


def test_a_mixed_day_has_clouds_of_half_an_hour_and_more(reference) -> None:
    sun = (
        draw_weather(reference.climates["maritime"], [6], 400, False, [1], kinds=[1])
        .sunlit[0]
        .reshape(400, 96)
    )
    lit = sun.mean()
    assert lit + (1 - lit) * 0.2 == pytest.approx(CLEAR_SHARE[1], abs=0.01)
    for day in sun[:50]:
        turns = np.flatnonzero(np.diff(day.astype(int)))
        lengths = np.diff(turns)
        assert lengths.min() >= 2 and lengths.max() <= 6
    desert = reference.climates["desert"]
    assert clear_share(desert, 7, False) > clear_share(reference.climates["maritime"], 12, False) + 0.3


@pytest.mark.parametrize("amps", [0.5, 10.0, 60.0, 400.0])
@pytest.mark.parametrize("softens", [0.0, 0.01, 0.05, 0.3])
def test_behind_a_cable_the_current_is_that_at_the_volts_of_the_battery(amps, softens) -> None:
    """I = I₀·e^(−I·R/0.6 V): the drop of its own current is what makes it take less."""
    got = behind_cable(amps, softens)
    assert got == pytest.approx(amps * exp(-got * softens), rel=1e-9)
    assert got <= amps and behind_cable(amps, softens + 0.01) < got


def test_the_cold_slows_acceptance_once(reference) -> None:
    flooded = reference.classes["flooded_deep"]
    warm, cold = float(time_constant(flooded, 14.7, 25)), float(time_constant(flooded, 14.7, 0))
    # A charger that does not follow the temperature lacks 25 K · 24 mV: e^(0.6/0.6) = 2.7 times as long.
    assert cold / warm == pytest.approx(exp(1.0))
    # One that does makes up for it.
    assert float(time_constant(flooded, float(wanted_v(flooded, 0)), 0)) == pytest.approx(warm)
    steps = [float(time_constant(flooded, 14.4, t)) for t in range(30, -21, -5)]
    assert steps == sorted(steps)


def test_a_longer_cable_charges_lead_acid_more_slowly(reference) -> None:
    lane = hundred(reference, "agm")
    relay = Source("e", "engine", link="relay", alternator_a=120.0, alternator_v=14.4)
    hours = [
        curve(lane, (replace(relay, cable_mohm=mohm),), 0.5, 0.9, 25.0).reached[0.8]
        for mohm in (0, 15, 40, 90)
    ]
    assert hours == sorted(hours) and hours[-1] > 1.2 * hours[0]
