"""What a meter shows at each point of a bank, and what is found wrong."""

import pytest

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
