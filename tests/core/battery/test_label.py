"""A label read: comparable capacity, exponent, usable energy, and what it leaves open."""

import pytest

from vast_harbor.core.battery.label import Label, read


def values(reading) -> dict[str, float]:
    return {f.key.split(".")[1]: f.number for f in reading.figures}


def test_two_ratings_by_hand(reference) -> None:
    # 100 Ah over 20 h, 85 Ah over 5 h: k = ln 4 / ln (17/5) = 1.3863/1.2238 = 1.1328.
    found = values(read(Label(reference.classes["agm"], 12, 100, 20, 85, 5), 0.5))
    assert found["k"] == pytest.approx(1.1328, abs=1e-4)
    assert found["comparable"] == pytest.approx(100) and found["energy"] == pytest.approx(1200)
    assert found["usable"] == pytest.approx(600)


def test_reserve_minutes_alone_by_hand(reference) -> None:
    # 120 min at 25 A are 50 Ah over 2 h; flooded dual k 1.25: over 20 h 50·10^(1 − 1/1.25) = 79.24 Ah.
    found = values(read(Label(reference.classes["flooded_dual"], 12, reserve_minutes=120), 0.5))
    assert found["comparable"] == pytest.approx(50 * 10**0.2)
    assert found["energy"] == pytest.approx(12 * 50 * 10**0.2)


def test_amp_hours_at_other_volts_compare_as_energy(reference) -> None:
    lead = values(read(Label(reference.classes["gel"], 12, 100, 20), 0.5))
    lithium = values(read(Label(reference.classes["lfp"], 12.8, 100, 5), 0.9))
    assert lithium["energy"] / lead["energy"] == pytest.approx(12.8 / 12)
    only_wh = values(read(Label(reference.classes["lfp"], 25.6, wh=2560), 0.9))
    assert only_wh["comparable"] == pytest.approx(100) and only_wh["usable"] == pytest.approx(2304)


@pytest.mark.parametrize(("ah_5", "believed"), [(60.0, True), (55.0, False), (99.9, True), (101.0, False)])
def test_an_exponent_beyond_1_6_or_below_1_is_the_class_s_instead(reference, ah_5, believed) -> None:
    # k = ln 4 / ln (20/5 · …): 60 Ah over 5 h 1.584, 55 Ah 1.757, 99.9 Ah 1.0007, 101 Ah 0.993.
    agm = reference.classes["agm"]
    k = values(read(Label(agm, 12, 100, 20, ah_5, 5), 0.5))["k"]
    assert (k == pytest.approx(agm.peukert.likely)) is not believed


def test_what_a_label_does_not_say_is_said(reference) -> None:
    agm = reference.classes["agm"]
    said = " ".join(read(Label(agm, 12, 100, cycles=600), 0.5).remarks)
    assert "at what depth of discharge its cycles are counted" in said and "over how many hours" in said
    assert "contradict" in " ".join(read(Label(agm, 12, 100, 20, 120, 5), 0.5).remarks)
    assert "not believable" in " ".join(
        read(Label(agm, 12, 100, 20, cycles=9000, cycles_at_dod=0.5), 0.5).remarks
    )
    assert "differ" in " ".join(read(Label(agm, 12, 100, 20, wh=900), 0.5).remarks)
    assert read(Label(agm, 12), 0.5).figures == ()


def test_what_a_label_says_well_is_not_doubted(reference) -> None:
    # AGM makes at most 1000 cycles to half its depth: up to three times as many may be shallow ones. A tenth
    # between watt-hours and amp-hours times volts is rounding.
    agm = reference.classes["agm"]
    for cycles, doubted in ((2900, False), (3100, True)):
        said = read(Label(agm, 12, 100, 20, cycles=cycles, cycles_at_dod=0.5), 0.5).remarks
        assert any("not believable" in r for r in said) is doubted
    for wh, doubted in ((1200, False), (1310, False), (1340, True), (1090, False), (1060, True)):
        assert any("differ" in r for r in read(Label(agm, 12, 100, 20, wh=wh), 0.5).remarks) is doubted
    lithium = Label(reference.classes["lfp"], 12.8, 100, 5, cycles=20000, cycles_at_dod=0.8)
    assert read(lithium, 0.9).remarks == ()
