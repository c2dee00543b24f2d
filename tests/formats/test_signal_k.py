"""Signal K: what a server sends of batteries is read as it is meant, and all else is left alone."""

import json

import pytest

from vast_harbor.formats.csv_table import CsvError
from vast_harbor.formats.monitor_layout import guess
from vast_harbor.formats.signal_k import as_csv, delta, hello, is_deltas, line_of, messages, values_of

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
