"""Loads as CSV: out and back the same, every bad line told, nothing that a spreadsheet would run."""

import csv
import io

import pytest

from vast_harbor import data
from vast_harbor.formats import load_csv
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.csv_table import CsvError


def read(reference, text: str | bytes, system: str = "metric") -> list[load_csv.Row]:
    return load_csv.read(text if isinstance(text, bytes) else text.encode(), reference, system)


@pytest.mark.parametrize("name", data.DEMO_RIGS)
def test_loads_go_out_and_come_back_the_same(reference, name) -> None:
    document = data.demo_rig(name)
    document["day"]["loads"][0] |= {"use": "times", "windows": [[22, 26], [6.25, 7.5]]}
    loads = files.read(document, reference).day.loads
    types = [t["id"] for t in document["day"]["types"]]
    rows = load_csv.read(("\ufeff" + load_csv.write(loads)).encode(), reference, "metric", types)
    assert [r.problems for r in rows] == [()] * len(loads)
    assert [r.load for r in rows] == [load.model_dump(mode="json", exclude={"id"}) for load in loads]


def test_times_of_the_kinds_of_day_are_read_and_unknown_days_are_told(reference) -> None:
    text = (
        "name,draw,hours,days,critical\n"
        "a,5,2,winter=off | summer=3 h from 18:00,yes\n"
        'b,5,2,"winter=2 x 10 min from 7:00 | summer=18:00-22:00, 6-7",no\n'
        "c,5,2,nix=3 h,maybe\n"
        "d,5,2,summer=25 h,no\n"
    )
    rows = load_csv.read(text.encode(), reference, "metric", ["summer", "winter"])
    on = [r.load and r.load["on"] for r in rows]
    assert on[0]["winter"] is None and (on[0]["summer"]["hours"], on[0]["summer"]["starts_at"]) == (3, 18)
    assert (on[1]["winter"]["uses"], on[1]["winter"]["minutes"], on[1]["winter"]["starts_at"]) == (2, 10, 7)
    assert on[1]["summer"]["windows"] == [[18, 22], [6, 7]]
    assert on[2] is None and "neither yes nor no" in rows[2].problems[0]
    assert "It has summer, winter" in rows[2].problems[1]
    assert on[3] is None and "A day has 24 hours" in rows[3].problems[0]


def test_five_thousand_rows_are_refused_in_a_sentence(reference) -> None:
    with pytest.raises(CsvError, match=r"5000 loads\. A rig can have 300"):
        read(reference, "name,draw\n" + "Lamp,5 W\n" * 5000)


def test_semicolons_and_decimal_commas(reference) -> None:
    text = "Name;Draw;Hours;Duty\r\nFridge;45,5 W;24;0,35\r\nPump;5 A;1h30;50 %\r\n\r\n"
    first, second = (r.load for r in read(reference, text))
    assert first is not None and second is not None
    assert (first["draw"], first["hours"], first["duty"]) == ({"value": 45.5, "unit": "W"}, 24, 0.35)
    assert (second["draw"], second["hours"], second["duty"]) == ({"value": 5, "unit": "A"}, 1.5, 0.5)


def test_way_of_use_is_guessed_from_what_is_filled_in(reference) -> None:
    text = 'name,draw,hours,uses,minutes,windows\na,5,2,,,\nb,5,,3,10,\nc,5,,,,"7-8, 20-22"\n'
    assert [r.load and r.load["use"] for r in read(reference, text)] == ["hours", "uses", "times"]


def test_each_rejected_line_is_told_with_all_its_reasons(reference) -> None:
    lines = ["Good,45 W,2,1,dc", ",45 W,2,1,dc", "Bad,-5,25,1.4,three", "Long,1,1,1,dc,9", "None,,1,1,"]
    text = "\n".join(["name,draw,hours,duty,supply", *lines])
    good, unnamed, bad, long, none = read(reference, text)
    assert good.load and not good.problems
    assert (unnamed.line, unnamed.problems) == (3, ("name: this cell is empty.",))
    assert len(bad.problems) == 4 and bad.load is None
    assert any("25 h is not possible" in p for p in bad.problems)
    assert "more cells than the heading" in long.problems[0]
    assert none.problems == ("draw: this cell is empty.",)


def test_formulas_are_only_words(reference) -> None:
    row, *_ = read(reference, 'name,draw\n"=cmd()|calc",45\n')
    assert row.load is not None and row.load["name"] == "=cmd()|calc"
    document = files.new_rig("x")
    document["day"]["loads"] = [
        {"id": "a", "name": n, "draw": {"value": 1, "unit": "W"}} for n in ("=1+1", "@x", "-y")
    ]
    for i, load in enumerate(document["day"]["loads"]):
        load["id"] = f"l{i}"
    text = load_csv.write(files.read(document, reference).day.loads)
    cells = [c for line in csv.reader(io.StringIO(text)) for c in line]
    assert not [c for c in cells if c.startswith(("=", "@", "+", "-"))]
    assert [r.name for r in read(reference, text)] == ["=1+1", "@x", "-y"]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "is empty"),
        (b"\n\n", "is empty"),
        (b"\x89PNG\r\n\x00\x00", "not text"),
        (b"what,ever\n1,2\n", "no column name and draw"),
        (b"name,hours\nx,2\n", "no column draw"),
        (b"name,draw\n" + b"x,1\n" * 5000, "has 5000 loads"),
    ],
)
def test_a_file_that_cannot_be_taken_is_told_so(reference, content, says) -> None:
    with pytest.raises(CsvError, match=says):
        read(reference, content)


def test_sixteen_bit_text_is_read(reference) -> None:
    rows = read(reference, "name,draw\nKühlschrank,45\n".encode("utf-16"))
    assert rows[0].name == "Kühlschrank" and rows[0].load is not None


def test_a_list_with_headings_of_its_own_is_read_as_it_is_meant(reference) -> None:
    text = "Appliance;Watts;Hours per day;Qty;AC/DC;Remark\nKühlschrank;45,5;24;1;DC;old\n"
    text += "Kettle;1000;0,2;2;AC;\n"
    content = text.encode("cp1252")
    rows = read(reference, content)
    assert [r.problems for r in rows] == [(), ()]
    fridge, kettle = (r.load for r in rows)
    assert (fridge["name"], fridge["draw"], fridge["hours"]) == (
        "Kühlschrank",
        {"value": 45.5, "unit": "W"},
        24,
    )
    assert (kettle["quantity"], kettle["supply"], kettle["hours"]) == (2, "ac", 0.2)
    assert load_csv.headings(content) == [
        ("Appliance", "name"), ("Watts", "draw"), ("Hours per day", "hours"), ("Qty", "quantity"),
        ("AC/DC", "supply"), ("Remark", ""),
    ]  # fmt: skip


def test_a_bare_number_under_amps_is_amps_and_two_columns_are_not_one(reference) -> None:
    rows = read(reference, b"device,current (A),watts,hours\nPump,4.5,54,1\n")
    assert rows[0].load["draw"] == {"value": 4.5, "unit": "A"}


def test_the_sample_is_read_back_whole(reference) -> None:
    rows = read(reference, load_csv.sample())
    assert rows and all(r.load is not None for r in rows)
