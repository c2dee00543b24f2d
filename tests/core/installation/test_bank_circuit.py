"""What a meter shows at each point of a bank, and what is found wrong."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.installation.bank_circuit import APART, JOINED, LOADED, Circuit, Fault, Point, points
from vast_harbor.core.installation.fault_finding import causes, expected
from vast_harbor.core.installation.wiring import wire


@pytest.fixture(scope="module")
def circuit(reference):
    def build(model: str, series: int, parallel: int, stage: str = LOADED, amps: float = 20.0) -> Circuit:
        bank = Bank(reference.catalogue[model], series, parallel)
        class_v = series * bank.model.unit_class_v
        wiring = wire(bank, 100.0, 2.0, class_v, 0.03, 0.8, reference.cables)
        return Circuit(wiring, stage, 0.97, 20.0, amps, 2.0)

    return build


def by_id(circuit: Circuit) -> dict[str, Point]:
    return {p.id: p for p in points(circuit.wiring)}


MEASURED = {
    APART: ("unit", "string"),
    JOINED: ("bank", "fused", "isolated"),
    LOADED: ("unit", "link", "share", "plus", "minus"),
}
LAYOUTS = [("hollin-6-225", 2, 3), ("ostrel-200", 1, 2), ("tarnmoor-220", 1, 1), ("skerry-100", 2, 4)]


@pytest.mark.parametrize("layout", LAYOUTS)
def test_currents_add_and_volts_add(circuit, layout) -> None:
    one = circuit(*layout)
    at = by_id(one)
    _, series, parallel = layout
    shares = [one.reading(at[f"share-{s}"]) for s in range(1, parallel + 1) if parallel > 1]
    assert not shares or sum(shares) == pytest.approx(20.0)
    for s in range(1, parallel + 1):
        units = sum(one.reading(at[f"unit-{s}-{n}"]) for n in range(1, series + 1))
        links = sum(one.reading(at[f"link-{s}-{n}"]) for n in range(1, series))
        ends = one.link_ohm(None, s, 0) * (20.0 / parallel)
        assert units - links - ends == pytest.approx(one.reading(at["bank"]), abs=1e-9)
    rest = one.at(JOINED, 1.0)
    full = float(rested_volts(one.wiring.bank.model.battery_class, one.wiring.bank.nominal_v // 12 * 12, 1.0))
    assert rest.reading(at["bank"]) == pytest.approx(full)
    assert rest.reading(at["plus"]) == 0.0


def test_a_reversed_battery_takes_twice_its_volts_from_its_string(circuit) -> None:
    one = circuit("hollin-6-225", 2, 2, APART)
    at = by_id(one)
    sound, wrong = (one.reading(at["string-2"], f) for f in (None, Fault("reversed", 2, 1)))
    assert sound - wrong == pytest.approx(2 * one.reading(at["unit-2-1"]))
    assert one.reading(at["string-1"], Fault("reversed", 2, 1)) == one.reading(at["string-1"])


def test_a_string_behind_an_open_fuse_gives_nothing_and_the_other_all(circuit) -> None:
    one = circuit("ostrel-200", 1, 2)
    at = by_id(one)
    shares = [one.reading(at[f"share-{s}"], Fault("string_fuse", 1)) for s in (1, 2)]
    assert shares == [0.0, pytest.approx(20.0)]


@pytest.mark.parametrize("celsius", [-5.0, 10.0, 35.0])
@pytest.mark.parametrize("layout", LAYOUTS)
def test_a_sound_bank_is_as_it_should_be(circuit, layout, celsius) -> None:
    for stage, soc in ((APART, 1.0), (JOINED, 1.0), (LOADED, 0.95)):
        one = circuit(*layout, stage)
        for point in points(one.wiring):
            if point.kind not in MEASURED[stage]:
                continue
            should = expected(one, point, (0.9, 1.0))
            assert should.low < should.likely < should.high
            assert should.holds(one.at(stage, soc, 20.0).reading(point)), (point.id, stage)


@pytest.mark.parametrize(
    ("point", "value", "found"),
    [("string-1", 0.0, "reversed"), ("string-1", -12.7, "swapped"), ("unit-1-1", 4.25, "dead_cell")],
)
def test_what_was_read_leads_to_its_cause(circuit, point, value, found) -> None:
    one = circuit("hollin-6-225", 2, 1, APART)
    at = by_id(one)[point]
    likely = causes(one, at, value, expected(one, at, (0.95, 1.0)), True, sleeps=False)
    assert found in [c.kind for c in likely[:2]]
    assert sum(c.chance for c in likely) <= 1 + 1e-9


sizes = st.sampled_from([(1, 1), (1, 2), (1, 3), (2, 1), (2, 2), (4, 1), (3, 2)])
models = st.sampled_from(["hollin-6-225", "ostrel-200", "tarnmoor-220", "tarnmoor-2-850", "skerry-100"])


@given(layout=sizes, model=models, amps=st.floats(0.5, 80), soc=st.floats(0.3, 1))
def test_what_flows_in_flows_out(circuit, layout, model, amps, soc) -> None:
    """Kirchhoff: shares add up to the load, and every string has the volts of the bank at its ends."""
    one = circuit(model, *layout, LOADED, amps).at(LOADED, soc, amps)
    at = by_id(one)
    series, parallel = layout
    bank_v = one.reading(at["bank"])
    shares = [one.reading(at[f"share-{s}"]) if parallel > 1 else amps for s in range(1, parallel + 1)]
    assert sum(shares) == pytest.approx(amps)
    assert max(shares) - min(shares) < 1e-9
    for s, share in enumerate(shares, 1):
        units = sum(one.reading(at[f"unit-{s}-{n}"]) for n in range(1, series + 1))
        links = sum(one.reading(at[f"link-{s}-{n}"]) for n in range(1, series))
        assert units - links - share * one.link_ohm(None, s, 0) == pytest.approx(bank_v)
    assert one.reading(at["isolated"]) == pytest.approx(bank_v - one.reading(at["plus"]))


@given(layout=sizes, ohm=st.floats(0.001, 0.2), amps=st.floats(2, 60))
def test_the_looser_a_joint_the_more_it_drops_and_the_less_its_string_gives(
    circuit, layout, ohm, amps
) -> None:
    series, parallel = layout
    if parallel < 2:
        return
    one = circuit("hollin-6-225", series, parallel, LOADED, amps)
    at = by_id(one)
    place = 1 if series > 1 else 0
    some, more = (Fault("loose", 1, place, size) for size in (ohm, 2 * ohm))
    assert one.reading(at["share-1"], more) < one.reading(at["share-1"], some) < one.reading(at["share-1"])
    assert one.reading(at["share-2"], more) > one.reading(at["share-2"], some) > one.reading(at["share-2"])
    assert one.reading(at["bank"], more) < one.reading(at["bank"], some) < one.reading(at["bank"])
    if series > 1:
        assert one.reading(at["link-1-1"], some) > one.reading(at["link-1-1"])


@given(health=st.floats(0.3, 0.95), depth=st.floats(0.2, 0.6))
def test_a_weak_battery_is_the_first_that_is_empty(circuit, health, depth) -> None:
    one = circuit("hollin-6-225", 2, 2).at("spent", 1 - depth, 20.0)
    at = by_id(one)
    weak = Fault("weak", 2, 1, health)
    shown = {key: one.reading(at[key], weak) for key in ("unit-1-1", "unit-1-2", "unit-2-1", "unit-2-2")}
    assert min(shown, key=shown.__getitem__) == "unit-2-1"
    assert shown["unit-1-1"] == pytest.approx(shown["unit-1-2"])


def test_the_points_of_a_wiring_are_numbered_in_the_order_of_the_work(circuit) -> None:
    single = [p.id for p in points(circuit("ostrel-200", 1, 1).wiring)]
    assert single == ["unit-1-1", "bank", "fused", "isolated", "plus", "minus"]
    two = points(circuit("hollin-6-225", 2, 2).wiring)
    assert [p.number for p in two] == list(range(1, len(two) + 1))
    assert [p.id for p in two] == [
        "unit-1-1", "unit-1-2", "unit-2-1", "unit-2-2", "string-1", "string-2", "bank", "fused", "isolated",
        "link-1-1", "link-2-1", "share-1", "share-2", "plus", "minus",
    ]  # fmt: skip
    assert {p.unit for p in two if p.kind == "share"} == {"A"}


@pytest.mark.parametrize("kind", ["amps_socket", "swapped"])
def test_a_meter_that_is_used_wrongly_reads_nothing_or_the_other_way_round(circuit, kind) -> None:
    one = circuit("ostrel-200", 1, 2)
    for point in points(one.wiring):
        shown, right = one.reading(point, Fault(kind)), one.reading(point)
        if point.kind == "share":
            assert shown == right
        else:
            assert shown == (0 if kind == "amps_socket" else -right)


def test_a_reading_just_inside_and_just_outside_is_judged_so(circuit) -> None:
    one = circuit("tarnmoor-220", 1, 1, APART)
    should = expected(one.at(APART, 1.0), by_id(one)["unit-1-1"], (0.95, 1.0))
    # AGM: 12.80 V at 95 %, 12.85 V when full, each within 0.05 V.
    assert (should.low, should.likely, should.high) == pytest.approx((12.75, 12.85, 12.90))
    assert should.holds(12.75 + 1e-9) and not should.holds(12.74) and not should.holds(12.91)
