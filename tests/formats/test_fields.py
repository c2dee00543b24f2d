"""Fields of the rig file: what each takes, stores and refuses, and that its schema says the same."""

import json
import math
from collections.abc import Iterator
from typing import Annotated, Any

import jsonschema_rs
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import BaseModel, TypeAdapter, ValidationError

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.number_format import LOCALES
from vast_harbor.core.figures.parsing import parse
from vast_harbor.core.figures.parsing_time import clock_text
from vast_harbor.formats.fields import Choice, Clock, Date, Measure, Truth, Words
from vast_harbor.formats.fields_of_several import LimitOfDraw, Names, Numbers, Pairs, StartPower, Windows
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.telling.inputs import field_number
from vast_harbor.web.plan.field_help import models_in

TYPED = {"typed": True, "system": "metric", "system_v": 12.0, "numbers": "", "currency": "EUR"}
SHARE = Measure("1", 0, 1, "A share must be between {least} and {most} %, not {value} %.", percent=True)
VOLTS = Measure(
    "V", 12, 16.5, "For {system} V it must be between {least} and {most} V, not {value} V.", per_12=True
)


def read(field: Any, value: Any, kind: Any = Any, **context: Any) -> Any:
    """What a field makes of a value, typed unless told otherwise."""
    return TypeAdapter(Annotated[kind, field]).validate_python(value, context=TYPED | context)


def refused(field: Any, value: Any, kind: Any = Any, **context: Any) -> str:
    """The sentence with which a field refuses a value."""
    with pytest.raises(ValidationError) as caught:
        read(field, value, kind, **context)
    return str(caught.value.errors()[0]["ctx"]["error"])


# Values of every kind, by which a field and its schema must agree when a file is read.
ODD = (None, True, False, "", " ", "x", "12", -1, -0.5, 0, 0.5, 1, 2, 1e9, [], [1], [[1, 2]], ["x"], {})


def fields_of(model: type[BaseModel], at: str = "") -> Iterator[tuple[str, Any]]:
    """Every field of the rig file that reads for itself, with its place."""
    for name, info in model.model_fields.items():
        for part in models_in(info.annotation):
            yield from fields_of(part, f"{at}{name}.")
        for mark in info.metadata:
            if hasattr(mark, "read") and hasattr(mark, "schema"):
                yield f"{at}{name}", mark


ALL = dict(fields_of(RigFile))


@given(st.integers(0, 1000))
def test_a_share_is_read_with_its_sign_without_it_and_as_a_fraction(per_mille) -> None:
    share = per_mille / 1000
    assert read(SHARE, f"{per_mille / 10} %") == pytest.approx(share)
    assert read(SHARE, f"{share}") == pytest.approx(share)
    if share >= 0.02:
        assert read(SHARE, f"{per_mille / 10}") == pytest.approx(share)
    # A file holds fractions only: 35 is no share.
    assert read(SHARE, share, typed=False) == share


@pytest.mark.parametrize(
    ("text", "shown"), [("1.4", "140 %"), ("1,99", "199 %"), ("101", "101 %"), ("-5 %", "−5 %")]
)
def test_what_is_no_share_is_refused_in_per_cent(text, shown) -> None:
    assert refused(SHARE, text) == f"A share must be between 0 and 100 %, not {shown}."


@given(st.sampled_from([12.0, 24.0, 36.0, 48.0]), st.floats(12, 16.5), st.sampled_from(["", *LOCALES]))
def test_volts_are_typed_for_the_system_and_stored_as_for_12_v(system_v, volts, region) -> None:
    style = Style(locale=region)
    text = field_number(round(volts * system_v / 12, 3), "V", style)
    stored = read(VOLTS, text, system_v=system_v, numbers=region)
    assert stored == pytest.approx(volts, abs=1e-3)
    # Shown again it is what was typed.
    assert field_number(stored * system_v / 12, "V", style) == text
    assert read(VOLTS, volts, system_v=system_v, typed=False) == volts


@pytest.mark.parametrize(
    ("system_v", "text", "says"),
    [
        (24.0, "14.4", "For 24 V it must be between 24 and 33 V, not 14.4 V."),
        (48.0, "14.4", "For 48 V it must be between 48 and 66 V, not 14.4 V."),
        (12.0, "28.8", "For 12 V it must be between 12 and 16.5 V, not 28.8 V."),
        # A house system of no known volts is none to scale by.
        (17.0, "28.8", "For 12 V it must be between 12 and 16.5 V, not 28.8 V."),
        (None, "28.8", "For 12 V it must be between 12 and 16.5 V, not 28.8 V."),
    ],
)
def test_volts_out_of_range_are_told_in_the_volts_of_the_system(system_v, text, says) -> None:
    assert refused(VOLTS, text, system_v=system_v) == says


def test_pairs_of_volts_follow_the_system_too() -> None:
    pairs = Pairs("Switch positions", 12, 16.5, 2)
    assert read(pairs, "28.8/27.2, 29.4/27.6", system_v=24.0) == [(14.4, 13.6), (14.7, 13.8)]
    assert read(pairs, "14,4/13,6; 14,7/13,8", numbers="de-DE") == [(14.4, 13.6), (14.7, 13.8)]
    assert read(pairs, "") == []
    assert read(pairs, [[14.4, 13.6]], system_v=24.0, typed=False) == [(14.4, 13.6)]
    assert refused(pairs, "14.4/13.6", system_v=24.0) == (
        "Switch positions must be between 24 and 33 V, not 14.4 V."
    )
    assert "written as 14.4/13.6" in refused(pairs, "14.4")
    assert "up to 2 pairs" in refused(pairs, "14.4/13.6, 14.4/13.6, 14.4/13.6")


@pytest.mark.parametrize(
    ("field", "value", "stored"),
    [
        (Measure("W", 0, 5000, "", draw=True), "2 A", 24),
        (Measure("kg", 0, 500, ""), "44 lb", pytest.approx(19.96, abs=0.01)),
        (Measure("nights", 0, 366, "", optional=True), " ", None),
        (Measure("times", 1, 12, "", whole=True), "3", 3),
        (Clock(), "6:30 pm", 18.5),
        (Clock(), "", None),
        (Clock(), None, None),
        (Windows(), "7-8:30, 22:00–6:00", [(7, 8.5), (22, 30)]),
        (Windows(), "", []),
        (Words("The name", 10), "x" * 10, "x" * 10),
        (Choice("The kind", "van", "boat"), "boat", "boat"),
        (Choice("The kind", "van", optional=True), "", None),
        (Date("The date"), " 2026-11-25 ", "2026-11-25"),
        (Date("The month", month=True), "2026-11-25", "2026-11"),
        (Date("The date"), None, ""),
        (Truth(), True, True),
        (Truth(optional=True), "", None),
        (Numbers("Duties", 0, 1, 4, percent=True), ["35 %", "0.5", "40"], [0.35, 0.5, 0.4]),
        (Names("What you care about", "weight", "cold"), ["cold"], ["cold"]),
    ],
)
def test_what_is_typed_is_stored(field, value, stored) -> None:
    assert read(field, value) == stored


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        (Measure("nights", 0, 366, "Not {value}."), "", "This field is empty"),
        (Measure("nights", 0, 366, "Not {value}."), "367", "Not 367."),
        (Measure("nights", 0, 366, "Not {value}."), "1e", "Try"),
        (Measure("times", 1, 12, "", whole=True), "2.5", "whole number"),
        (Clock(), "25:00", "time of day"),
        (Windows(), "18", "not a time range"),
        (Windows(most=1), "1-2, 3-4", "up to 1 pairs"),
        (Words("The name", 10, required=True), "  ", "The name is empty"),
        (Words("The name", 10), "x" * 11, "has 11 characters. The limit is 10."),
        (Words("The name", 10), 5, "must be text"),
        (Choice("The kind", "van", "boat"), "plane", "“plane” is not known. It can be van, boat."),
        (Date("The date"), "2026-25-11", "There is no day 2026-25-11 in the calendar"),
        (Date("The date"), "1899-01-01", "The year 1899 is not between 1990 and 2100"),
        (Truth(), "yes", "Enter yes or no"),
        (Numbers("Duties", 0, 1, 4, percent=True), ["1.4"], "between 0 and 100 %, not 140 %"),
        (Numbers("Duties", 0, 1, 4, exactly=True), [1, 1], "must be 4 numbers, or none"),
        (Numbers("Months", 1, 12, 12), [13], "between 1 and 12, not 13"),
        (Names("What you care about", "weight"), ["weight", "weight"], "each at most once"),
        (Names("What you care about", "weight"), ["colour"], "each at most once"),
    ],
)
def test_what_is_refused_is_refused_with_a_sentence(field, value, says) -> None:
    assert says in refused(field, value)


UNITS = sorted({f.unit for f in ALL.values() if isinstance(f, Measure)} - {"1", "times", "°"})


@given(
    st.sampled_from(UNITS), st.integers(100, 20_000), st.sampled_from(["metric", "us"]),
    st.sampled_from(["", *LOCALES]),
)  # fmt: skip
def test_what_a_figure_shows_can_be_typed_into_a_field(unit, value, system, region) -> None:
    style = Style(system, "USD", locale=region)
    shown = style.text(value, unit)
    read = parse(shown, unit, system, written=style.numbers, currency="USD")
    # As a person rounds it; a wire has the next size above.
    assert read == pytest.approx(value, rel=0.06) or (unit == "mm²" and system == "us")


@pytest.mark.parametrize(
    ("text", "system", "mm2"),
    [
        ("AWG 2/0", "metric", 67.4),
        ("2/0", "metric", 67.4),
        ("00", "us", 67.4),
        ("0000 AWG", "metric", 107.2),
        ("#8", "metric", 8.37),
        ("4", "us", 21.2),
        ("4", "metric", 4),
        ("70", "us", 70),
        ("70 mm²", "us", 70),
        ("16 mm2", "us", 16),
    ],
)
def test_a_cable_is_read_in_mm2_and_as_a_wire_size(text, system, mm2) -> None:
    assert parse(text, "mm²", system) == mm2
    style = Style(system)
    assert parse(field_number(mm2, "mm²", style), "mm²", system) == mm2


@pytest.mark.parametrize(
    ("unit", "sentence", "text", "says"),
    [
        ("kg", "{least} to {most} kg, not {value} kg.", "2000", "0 to 1\u202f102.31 lb, not 2\u202f000 lb."),
        ("°C", "{least} to {most} °C, not {value} °C.", "1000", "32 to 932 °F, not 1\u202f000 °F."),
        ("mm", "{least} to {most} mm, not {value} mm.", "90", "0 to 19.685 in, not 90 in."),
        ("l/h", "{least} to {most} l/h, not {value} l/h.", "200", "0 to 132.086 gal/h, not 200 gal/h."),
        ("V", "{least} to {most} V, not {value} V.", "501", "0 to 500 V, not 501 V."),
    ],
)
def test_bounds_are_told_in_the_units_of_the_owner(unit, sentence, text, says) -> None:
    field = Measure(unit, 0, 500, sentence)
    assert refused(field, text, system="us") == says
    # A file is told of in the units that it holds.
    assert refused(field, 501, system="us", typed=False).endswith(f"500 {unit}, not 501 {unit}.")


def test_fuel_is_gallons_to_an_american() -> None:
    us, metric = Style("us", "USD"), Style("metric", "EUR")
    assert (us.text(7.57, "l fuel"), metric.text(7.57, "l fuel")) == ("2 gal", "7.6 l")
    # Room for batteries stays in cubic feet.
    assert us.text(56.6, "l") == "2 cu ft"
    assert us.text(1.0, "money/l") == "$3.79 per gal"
    assert parse("0.2", "l/h", "us") == pytest.approx(0.757, abs=1e-3)
    assert parse("0.2 gal/h", "l/h") == pytest.approx(0.757, abs=1e-3)
    assert parse("$3.79 per gal", "money/l", "us", currency="USD") == pytest.approx(1.0, abs=0.002)
    assert parse("1.80/l", "money/l", currency="EUR") == 1.8


def test_a_breaking_capacity_is_read_as_fuses_state_it() -> None:
    assert parse("20 kA", "A") == 20_000


@pytest.mark.parametrize("value", ["12", True, None, [], {}, "", "x"])
def test_a_file_holds_numbers_and_no_text(value) -> None:
    assert "Enter a number here" in refused(Measure("W", 0, 100, ""), value, typed=False)


@given(st.lists(st.tuples(st.integers(0, 95), st.integers(1, 95)), min_size=1, max_size=5))
def test_set_times_read_back_as_they_are_shown(quarters) -> None:
    windows = [(start / 4, (start + length) / 4) for start, length in quarters]
    text = ", ".join(f"{clock_text(a)}–{clock_text(b)}" for a, b in windows)
    assert read(Windows(), text) == windows


def test_a_start_may_be_told_in_times_of_the_running_power() -> None:
    class Motor(BaseModel):
        draw: Any
        volts: float | None = None
        start_w: Annotated[float | None, StartPower()] = None
        high: Annotated[float | None, LimitOfDraw()] = None

    class Amps(BaseModel):
        value: float = 5.0
        unit: str = "A"

    made = Motor.model_validate({"draw": Amps(), "start_w": "3x", "high": "8"}, context=TYPED)
    assert (made.start_w, made.high) == (180, 8)
    made = Motor.model_validate({"draw": Amps(), "start_w": "2,5 ×", "volts": 24}, context=TYPED)
    assert made.start_w == 300
    assert Motor.model_validate({"draw": Amps(), "start_w": "0.4 kW"}, context=TYPED).start_w == 400


def edges(schema: dict[str, Any]) -> Iterator[Any]:
    """The bounds of a schema and what lies just beyond them, and one of its words."""
    for bound in (schema.get("minimum"), schema.get("maximum")):
        if bound is not None:
            yield from (bound, math.nextafter(bound, math.inf), math.nextafter(bound, -math.inf))
    yield from schema.get("enum", [])[:2]


def taken(field: Any, value: Any) -> bool:
    try:
        read(field, value, typed=False, system_v=None)
    except ValidationError:
        return False
    return True


@pytest.mark.parametrize("place", ALL)
def test_the_schema_of_a_field_takes_what_the_field_takes_from_a_file(place) -> None:
    """In one direction: what a field takes its schema allows, so that no file of ours breaks the schema."""
    field = ALL[place]
    schema = field.schema()
    kept = []
    for value in (*ODD, *edges(schema)):
        if isinstance(value, bool) and schema.get("type") != "boolean" and "boolean" not in str(schema):
            # JSON knows no difference that matters here: the field refuses it.
            assert not taken(field, value), value
        elif taken(field, value):
            kept.append(json.loads(json.dumps(read(field, value, typed=False, system_v=None))))
    assert kept, "nothing that it takes was tried"
    for stored in kept:
        jsonschema_rs.validate(schema, stored)


@pytest.mark.parametrize("place", [p for p, f in ALL.items() if isinstance(f, Measure)])
def test_the_bounds_of_a_quantity_are_those_of_its_schema(place) -> None:
    field, schema = ALL[place], ALL[place].schema()
    low, high = schema["minimum"], schema["maximum"]
    beyond = 1 if field.whole else 1e-6 * max(1.0, abs(high))
    assert taken(field, low) and taken(field, high)
    assert not taken(field, low - beyond) and not taken(field, high + beyond)
    sentence = refused(field, high + beyond, typed=False, system_v=None)
    assert sentence.endswith(".") and not set("{}") & set(sentence)
