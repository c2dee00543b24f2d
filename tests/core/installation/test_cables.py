"""Cables, fuses and short circuits by their worked examples."""

import pytest

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.installation.cables import (
    breaking_a,
    fuse_kind,
    inverter_current,
    resistance,
    short_circuit_current,
    size,
    string_breaking_a,
)


def test_two_kilowatts_at_the_cut_off_are_206_amps() -> None:
    # 2000 / (0.90 · 10.8) = 205.8 A at 12 V, a quarter of it at 48 V.
    assert inverter_current(2000, 0.9, 10.8) == pytest.approx(205.76, abs=0.01)
    assert inverter_current(2000, 0.9, 43.2) == pytest.approx(51.44, abs=0.01)


def test_a_cable_carries_drops_little_and_can_be_fused(reference) -> None:
    # 206 A over 3 m: 0.020·2·3·206/(0.03·12) = 68.7 mm² by the drop: 70 mm², which carries 330 A; the fuse
    # has at least 1.25·206 = 257.5 A: 300 A. Drop 206·0.020·6/70 = 0.353 V, 2.94 %.
    long = size(206, 3, 12, 0.03, reference.cables)
    assert long is not None and (long.mm2, long.fuse_a) == (70, 300)
    assert long.drop_v == pytest.approx(0.3531, abs=1e-4) and long.drop == pytest.approx(0.0294, abs=1e-4)
    # Over half a metre 35 mm² would carry it (210 A), but has no fuse from 257.5 to 210 A; nor has 50 mm²
    # between 257.5 and 270 A. 70 mm² has.
    short = size(206, 0.5, 12, 0.03, reference.cables)
    assert short is not None and short.mm2 == 70
    assert size(160, 0.5, 12, 0.03, reference.cables).mm2 == 35  # 200 A fuse, 210 A carried
    assert size(600, 1, 12, 0.03, reference.cables) is None


def test_copper_clad_aluminium_drops_more(reference) -> None:
    assert resistance(50, 2, clad=True) == pytest.approx(1.6 * resistance(50, 2))
    assert resistance(50, 2) == pytest.approx(0.0016)  # 0.020 · 4 / 50
    copper, clad = (size(100, 2, 12, 0.03, reference.cables, c) for c in (False, True))
    assert copper is not None and clad is not None and clad.mm2 > copper.mm2


def test_a_fuse_breaks_less_the_higher_the_volts(reference) -> None:
    # One 100 Ah LFP of 3 mΩ at 13.5 V full: 4500 A, half as much again 6750 A: no strip fuse (6 kA).
    bank = Bank(reference.catalogue["ostrel-100"], 1, 1)
    assert short_circuit_current(bank.model.battery_class, 12, bank_resistance(bank)) == pytest.approx(4500)
    assert breaking_a(bank) == pytest.approx(6750)
    kinds = reference.cables.kinds

    def name(volts: float, amps: float, rated: float | None = None) -> str | None:
        kind = fuse_kind(kinds, volts, amps, rated)
        return None if kind is None else kind.name.split()[0]

    # The terminal block breaks 10 kA at 14 V, 5 kA at 32 V and 2 kA at 58 V.
    assert [name(v, 6750) for v in (12, 24, 36, 48)] == ["terminal-block", "class", "class", "class"]
    assert [name(v, 1900) for v in (12, 24, 48)] == ["bolt-in", "bolt-in", "terminal-block"]
    assert name(12, 900) == "blade" and name(48, 900) == "terminal-block"
    # It is not sold under 30 A; from 20 kA on only a knife-blade fuse that states its DC rating will do.
    assert name(12, 6750, rated=10) == "class" and name(12, 6750, rated=40) == "terminal-block"
    assert fuse_kind(kinds, 12, 30_000).dc_label and name(12, 54_000) is None


def test_the_fuse_of_a_string_breaks_what_the_others_drive_through_it(reference) -> None:
    one, four = (Bank(reference.catalogue["ostrel-100"], 1, n) for n in (1, 4))
    assert string_breaking_a(one) == breaking_a(one) == pytest.approx(6750)
    assert breaking_a(four) == pytest.approx(27_000) and string_breaking_a(four) == pytest.approx(20_250)
