"""Signal K: what a server sends of batteries is read as it is meant, and all else is left alone."""

import json

import pytest

from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.monitor_layout import guess
from vast_harbor.formats.signal_k import (
    Means,
    OwnReadings,
    Value,
    as_csv,
    asks_for_batteries,
    delta,
    hello,
    is_deltas,
    line_of,
    messages,
    subscription,
    values_of,
)

AT = 1_780_000_000
VOLTS = "electrical.batteries.a.voltage"


def drive(battery: str = "house", count: int = 30) -> list[dict]:
    """A server's messages: a word about itself, then a battery that is emptied."""
    rows = [(12.7 - 0.01 * n, -5.0 - 0.05 * n, 0.95 - 0.002 * n, 18.5) for n in range(count)]
    return [hello("Boat", AT), *(delta(AT + 30 * n, battery, row, "shunt") for n, row in enumerate(rows))]


def test_what_is_written_is_read_back() -> None:
    for message in (*drive(), *drive("start")):
        again = json.loads(line_of(message))
        assert list(values_of(again)) == list(values_of(message))
    found = list(values_of(drive()[3]))
    assert [(v.quantity, v.battery) for v in found] == [
        (q, "house") for q in ("volts", "amps", "soc", "celsius")
    ]
    assert [v.value for v in found] == pytest.approx([12.68, -5.1, 0.946, 18.5])
    # It travels in kelvin, and with the paths of the format.
    sent = {v["path"]: v["value"] for v in drive()[3]["updates"][0]["values"]}
    assert sent["electrical.batteries.house.temperature"] == pytest.approx(291.65)
    assert sent["electrical.batteries.house.capacity.stateOfCharge"] == pytest.approx(0.946)


@pytest.mark.parametrize("listed", [False, True], ids=["lines", "list"])
def test_a_file_becomes_a_table_that_is_understood(listed) -> None:
    both = sorted(drive() + drive("bow")[1:], key=lambda m: m.get("updates", [{}])[0].get("timestamp", ""))
    text = json.dumps(both) if listed else "\n".join(json.dumps(m) for m in both)
    assert is_deltas(text.encode())
    table = as_csv(text)
    layout = guess(table.encode(), "Europe/Oslo", 12.0)
    roles = {c.name: (c.role, c.unit) for c in layout.columns if c.role}
    assert roles == {
        "timestamp": ("moment", ""), "house voltage (V)": ("volts", "V"), "house current (A)": ("amps", "A"),
        "house SoC": ("soc", "1"), "house temperature (°C)": ("celsius", "°C"),
    }  # fmt: skip
    assert layout.into_bank and layout.sign_from
    assert len(table.splitlines()) == 31 and "bow voltage (V)" in table


def test_what_holds_is_held_for_a_minute_and_no_longer() -> None:
    late = [delta(AT, "house", (12.6, -4.0, None, None), "s")]
    late += [delta(AT + s, "house", (12.5, None, None, None), "s") for s in (30, 59, 61, 300)]
    rows = [line.split(",")[2] for line in as_csv("\n".join(map(json.dumps, late))).splitlines()[1:]]
    assert rows == ["-4", "-4", "-4", "", ""]


@pytest.mark.parametrize(
    "message",
    [
        None, 3, [], "x", {"updates": 3}, {"updates": [3]}, {"updates": [{"values": 4}]},
        {"updates": [{"timestamp": "2026-01-01T00:00:00Z", "values": [3, {"path": 4}, {}]}]},
        {"updates": [{"timestamp": "soon", "values": [{"path": VOLTS, "value": 12}]}]},
        {"updates": [{"timestamp": "2026-01-01T00:00:00Z", "values": [
            {"path": VOLTS, "value": None},
            {"path": VOLTS, "value": True},
            {"path": VOLTS, "value": "12"},
            {"path": "electrical.batteries.../etc.voltage", "value": 12},
            {"path": "navigation.speedOverGround", "value": 3.1}]}]},
    ],
)  # fmt: skip
def test_what_is_no_reading_of_a_battery_is_left_alone(message) -> None:
    assert list(values_of(message)) == []


def test_files_without_a_battery_or_without_an_end_are_told() -> None:
    speed = json.dumps({"updates": [{"timestamp": "2026-01-01T00:00:00Z", "values": []}]})
    with pytest.raises(CsvError, match="no battery"):
        as_csv(f"{speed}\nno json\n")
    with pytest.raises(CsvError, match="no whole"):
        as_csv(f"[{speed}, ")
    assert not is_deltas(b"time,volts\n1,2\n") and not is_deltas(b'{"format": "vast-harbor-rig"}')
    assert list(messages("{\n[1]\n")) == [[1]]


def test_the_log_of_a_server_is_read_with_other_lines_between() -> None:
    lines = [f"{(AT + 30 * n) * 1000};I;{json.dumps(m)}" for n, m in enumerate(drive())]
    lines[3:3] = [f"{AT * 1000};N;$IIMWV,041,R,12.4,N,A*2F", "", f"{AT * 1000};I;{{no json"]
    text = "\n".join(lines)
    assert is_deltas(text.encode()) and is_deltas(lines[3].encode())
    assert as_csv(text) == as_csv("\n".join(map(json.dumps, drive())))


def test_another_vessels_battery_and_a_second_instrument_are_left_alone() -> None:
    def told(volts: float, context: str, source: str, at: float = 0.0) -> dict:
        return {**delta(AT + at, "house", (volts, None, None, None), source), "context": context}

    mine, other = "vessels.urn:mrn:imo:mmsi:230099999", "vessels.urn:mrn:imo:mmsi:200000001"
    own = OwnReadings()
    assert own.learn({**hello("Boat", AT), "self": mine}) and not own.learn(told(12, mine, "a"))
    sent = [
        told(12.5, mine, "shunt"), told(11.0, other, "shunt"), told(13.9, "vessels.self", "inverter", 10),
        told(12.4, mine, "shunt", 20), told(13.9, mine, "inverter", 81), told(12.3, mine, "shunt", 90),
    ]  # fmt: skip
    # A description may stand for the name of an instrument; one that is deeper than any is none.
    deep: object = {}
    for _ in range(5000):
        deep = [deep]
    named = [{"label": "can0", "src": "204", "deep": deep}, {"label": deep}, deep, 3]
    plain = {k: v for k, v in sent[0]["updates"][0].items() if k != "$source"}
    said = [{**sent[0], "updates": [{**plain, "source": source}]} for source in named]
    assert [v.source for m in said for v in values_of(m)] == ["can0.204", "", "", ""]
    # Once the first has said nothing for a minute the second is heard.
    assert [v.value for m in sent for v in values_of(m) if own.counts(v)] == [12.5, 12.4, 13.9]
    # Where nobody says whose a file is, it is of the vessel that tells most.
    table = as_csv("\n".join(json.dumps(told(v, c, "s", v)) for v, c in ((12, mine), (13, mine), (9, other))))
    assert [line.split(",")[1] for line in table.splitlines()[1:]] == ["12", "13"]


def test_a_current_that_alternates_is_kept_as_what_flowed() -> None:
    def value(at: float, amps: float) -> Value:
        return Value(at, "house", "amps", amps)

    means = Means()
    for second in range(10):
        means.take(value(second, -8.5 if second % 2 else 1.5))
    assert means.close(10.0) == {"amps": pytest.approx(-3.5)}
    # The last value holds on for a minute, and no longer.
    assert means.close(20.0) == {"amps": -8.5} and means.close(100.0) == {"amps": -8.5}
    assert means.close(110.0) == {}
    # A spike of a second counts for a second.
    means.take(value(120, 0.0))
    means.take(value(129, -100.0))
    assert means.close(130.0) == {"amps": pytest.approx(-10.0)}


@pytest.mark.parametrize(
    ("message", "asks"),
    [
        (subscription(), True), ({"subscribe": [{"path": "*"}]}, True),
        ({"subscribe": [{"path": "navigation.*"}, 3]}, False), ({"subscribe": "all"}, False), (None, False),
    ],
)  # fmt: skip
def test_a_server_is_asked_for_batteries(message, asks) -> None:
    assert asks_for_batteries(message) is asks
