"""Reading what people type, and writing what they read."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.number_format import LOCALES, number_format
from vast_harbor.core.figures.parsing import Draw, Unreadable, parse, parse_draw
from vast_harbor.core.figures.parsing_time import clock_text, parse_clock, parse_windows
from vast_harbor.core.figures.units import US, US_UNITS, from_display, to_display


@pytest.mark.parametrize(
    ("text", "unit", "value"),
    [
        ("1,5", "h", 1.5),
        ("1.5", "h", 1.5),
        ("90 min", "h", 1.5),
        ("1h30", "h", 1.5),
        ("1 h 30 min", "h", 1.5),
        ("1:30", "h", 1.5),
        ("0.3 kW", "W", 300),
        ("35 %", "1", 0.35),
        ("12A", "A", 12),
        ("12 A", "A", 12),
        ("20°F", "°C", -6.6667),
        ("−15", "°C", -15),
        ("1 030", "W", 1030),
        ("1.030,5", "W", 1030.5),
        ("1,030.5", "W", 1030.5),
        ("2 h", "min", 120),
        ("12h30", "min", 750),
        ("18 months", "years", 1.5),
        ("44 lb", "kg", 19.958),
    ],
)
def test_what_is_typed_is_read(text, unit, value) -> None:
    assert parse(text, unit) == pytest.approx(value, abs=1e-3)


@pytest.mark.parametrize(
    ("text", "locale", "currency", "value"),
    [
        ("$1,918", "en-US", "USD", 1918),
        ("1,918", "en-US", "USD", 1918),
        ("1.918", "en-US", "USD", 1.918),
        ("1.918 €", "de-DE", "EUR", 1918),
        ("1.459", "de-DE", "EUR", 1459),
        ("1,459", "de-DE", "EUR", 1.459),
        ("1,459", "fr-FR", "EUR", 1.459),
        ("249,50 euro", "de-DE", "EUR", 249.5),
        ("12.345.678", "de-DE", "EUR", 12_345_678),
        ("1’918.50", "de-CH", "CHF", 1918.5),
        ("$ 49.90", "en-AU", "AUD", 49.9),
        ("CHF 20", "", "CHF", 20),
        ("€1 918", "", "EUR", 1918),
    ],
)
def test_money_is_read_as_the_region_writes_it(text, locale, currency, value) -> None:
    read = parse(text, "money", written=number_format(locale), currency=currency)
    assert read == pytest.approx(value)


@given(st.floats(0, 1e7), st.sampled_from(["", *LOCALES]), st.sampled_from(["EUR", "USD", "CHF", "NOK"]))
def test_an_amount_that_is_shown_can_be_typed(value, locale, currency) -> None:
    style = Style("metric", currency, locale=locale)
    shown = style.text(value, "money", exact=True)
    read = parse(shown, "money", written=style.numbers, currency=currency)
    assert read == pytest.approx(value, rel=1e-6, abs=0.005)


def test_money_of_another_currency_is_not_taken() -> None:
    with pytest.raises(Unreadable, match="is in GBP, but the money of this rig is in EUR"):
        parse("£300", "money", currency="EUR")


@pytest.mark.parametrize(
    ("text", "unit", "says"),
    [
        ("1,030", "W", "could mean 1030 or 1.030"),
        ("12 A", "W", "in amps, but this field takes watts"),
        ("abc", "h", "Try 6"),
        ("", "W", "is not watts"),
        ("300 Wh", "W", "in watt-hours"),
        ("--5", "V", "is not volts"),
    ],
)
def test_what_cannot_be_read_is_said(text, unit, says) -> None:
    with pytest.raises(Unreadable, match=says):
        parse(text, unit)


def test_a_draw_is_watts_or_amps() -> None:
    assert parse_draw("45") == parse_draw("45 W") == Draw(45, "W")
    assert parse_draw("12A") == Draw(12, "A")
    with pytest.raises(Unreadable, match="energy over a time"):
        parse_draw("60 Ah")


def test_clock_times() -> None:
    assert parse_clock("18:30") == parse_clock("18h30") == parse_clock("6:30 pm") == 18.5
    assert parse_clock("12 am") == 0
    with pytest.raises(Unreadable, match="time of day"):
        parse_clock("25:00")


@given(
    value=st.floats(-1e6, 1e6),
    unit=st.sampled_from([*US_UNITS, "Wh", "V"]),
    system=st.sampled_from([US, "metric"]),
)
def test_units_round_trip(value, unit, system) -> None:
    shown, _ = to_display(value, unit, system)
    assert from_display(shown, unit, system) == pytest.approx(value, rel=1e-12, abs=1e-9)


@given(value=st.floats(-1e6, 1e6, allow_nan=False))
def test_a_number_with_point_or_comma_is_the_same(value) -> None:
    text = f"{value:.4f}"
    assert parse(text, "W") == parse(text.replace(".", ","), "W") == pytest.approx(float(text))


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (1030.545, "Wh", "1.03 kWh"),
        (270.4, "Wh", "270 Wh"),
        (248.492, "Ah", "248 Ah"),
        (3.04, "nights", "3.0 nights"),
        (1, "nights", "1 night"),
        (14.2, "years", "14 years"),
        (1276.4, "money", "€1\u202f276"),
        (3.8, "money/cycle", "€3.80 a cycle"),
        (0, "money", "€0"),
        (-86.2, "±kg", "−86 kg"),
        (68, "±kg", "+68 kg"),
        (3578, "cycles", "3\u202f580 cycles"),
        (None, "money", "—"),
        (-0.05, "1/year", "−5 % a year"),
    ],
)
def test_figures_are_rounded_as_a_person_would(value, unit, text) -> None:
    assert Style().text(value, unit) == text


def test_us_units_and_other_currencies() -> None:
    style = Style(US, "USD")
    assert style.text(20.5, "kg") == "45 lb"
    assert style.text(-15, "°C") == "5 °F"
    assert Style("metric", "NOK").text(898.2, "money/cycle") == "NOK\u202f898 a cycle"


def test_set_times() -> None:
    assert parse_windows("7-8:30, 18:00–22:30") == [(7, 8.5), (18, 22.5)]
    assert parse_windows("10 pm to 2 am; 6h30-7") == [(22, 26), (6.5, 7)]
    assert parse_windows("18-24") == [(18, 24)] and parse_windows(" ") == []
    with pytest.raises(Unreadable, match="not a time range"):
        parse_windows("at noon")
    assert (clock_text(24), clock_text(26), clock_text(6.25)) == ("24:00", "02:00", "06:15")
