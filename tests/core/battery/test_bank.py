"""Batteries in series and parallel."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.bank import Bank, cells_of, series_count
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.stops.banks.proposals import size_layout, smallest


def test_series_adds_volts_and_parallel_adds_amp_hours(reference) -> None:
    # Four 6 V 225 Ah units in series, two strings: 24 V, 450 Ah, 10.8 kWh, eight units.
    bank = Bank(reference.catalogue["hollin-6-225"], 4, 2)
    assert (bank.nominal_v, bank.rated_ah, bank.nameplate_wh, bank.units) == (24, 450, 10_800, 8)
    assert bank.kg == pytest.approx(8 * 28.6)


@given(series=st.integers(1, 8), parallel=st.integers(1, 8))
def test_energy_counts_units_however_they_are_joined(reference, series, parallel) -> None:
    model = reference.catalogue["ostrel-100"]
    one = Bank(model, 1, 1).nameplate_wh
    assert Bank(model, series, parallel).nameplate_wh == pytest.approx(series * parallel * one)


@pytest.mark.parametrize(
    ("battery_class", "volts", "cells"),
    [
        ("agm", 12, 6),
        ("agm", 6, 3),
        ("flooded_deep", 2, 1),
        ("lfp", 12.8, 4),
        ("lfp", 12, 4),
        ("lfp", 25.6, 8),
        ("lfp", 51.2, 16),
        ("lfp", 48, 16),
        ("agm", 12.06, 6),  # a hundredth of a volt for each cell may be rounding
        ("lfp", 12.84, 4),
        ("agm", 2.01, 1),
    ],
)
def test_label_volts_are_cells(reference, battery_class, volts, cells) -> None:
    assert cells_of(reference.classes[battery_class], volts) == cells


@pytest.mark.parametrize(("battery_class", "volts"), [("agm", 7), ("agm", 12.1), ("lfp", 13.2), ("agm", 0.4)])
def test_other_volts_are_no_battery_of_that_class(reference, battery_class, volts) -> None:
    with pytest.raises(InvalidInput, match=f"{volts:g} V"):
        cells_of(reference.classes[battery_class], volts)


def test_eight_volt_units_cannot_make_twelve(reference) -> None:
    assert series_count(24, 8) == 3
    with pytest.raises(InvalidInput, match="cannot make 12 V"):
        series_count(12, 8)


def test_smallest_bank_covers_and_no_smaller_one_of_the_class_does(reference) -> None:
    models = [m for m in reference.catalogue.values() if m.battery_class.key == "agm"]

    def usable(bank: Bank) -> float:
        return bank.nameplate_wh * 0.45

    layouts = [f for m in models if (f := size_layout(m, 12, 2000, usable))]
    best = smallest(layouts)
    assert best is not None and best.covers and best.usable_wh >= 2000
    assert all(best.usable_wh <= other.usable_wh for other in layouts if other.covers)
    fewer = best.bank.parallel - 1
    assert fewer == 0 or usable(Bank(best.bank.model, best.bank.series, fewer)) < 2000


def test_lead_acid_is_not_proposed_in_more_than_three_strings(reference) -> None:
    found = size_layout(reference.catalogue["tarnmoor-60"], 12, 1e9, lambda bank: bank.nameplate_wh)
    assert found is not None and not found.covers and found.bank.parallel == 3
