"""Figures as a person would write them: rounded, with their units, in the owner's own."""

import re

import pytest

from vast_harbor.core.figures.currency import currency_code
from vast_harbor.core.figures.display import Style, awg, duration, moment
from vast_harbor.core.figures.number_format import LOCALES

EURO, US = Style(), Style("us", "USD")
T = "\u202f"


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (2576.364, "Wh", "2.58 kWh"),
        (999.4, "Wh", "999 Wh"),
        (-1500, "±Wh", "−1.50 kWh"),
        (248.492, "Ah", "248 Ah"),
        (9.96, "Ah", "10 Ah"),
        (4.04, "Ah", "4 Ah"),
        (1.0, "years", "1 year"),
        (5.23, "years", "5.2 years"),
        (12.4, "years", "12 years"),
        (1.0, "batteries", "1 battery"),
        (3.0, "strings", "3 strings"),
        (0.9, "%", "90 %"),
        (0.0123, "%", "1.2 %"),
        (0.015, "1/year", "1.5 % a year"),
        (3480.0, "cycles", f"3{T}480 cycles"),
        (1234.4, "cycles", f"1{T}230 cycles"),
        (0.2, "1/h", "0.2 C"),
        (6.75, "mΩ", "6.8 mΩ"),
        (0.432, "mΩ", "0.43 mΩ"),
        (12500, "A", "12.5 kA"),
        (6000, "A", "6 kA"),
        (2000, "A", f"2{T}000 A"),
        (-40.2, "°C", "−40 °C"),
        (59, "±kg", "+59 kg"),
        (-12, "±kg", "−12 kg"),
        (0.2, "±kg", "0.2 kg"),
        (None, "kg", "—"),
        (float("inf"), "years", "—"),
    ],
)
def test_a_figure_is_rounded_as_a_person_would(value, unit, text) -> None:
    assert EURO.text(value, unit) == text


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (1240.4, "money", f"€1{T}240"),
        (26.576, "money/cycle", "€26.58 a cycle"),
        (-5.5, "money", "−€5.50"),
        # The same amount, typed and computed.
        (35, "money", "€35"),
        (34.9999, "money", "€35"),
        (0.0, "money", "€0"),
        (169, "±money", "+€169"),
        (-284, "±money", "−€284"),
        (0.31, "money/kWh", "€0.31 per kWh"),
        (421, "money/year", "€421 a year"),
    ],
)
def test_money_is_whole_from_a_hundred_on(value, unit, text) -> None:
    assert EURO.text(value, unit) == text


def test_currencies_have_their_symbol_and_their_decimals() -> None:
    assert Style(currency="NOK").text(558, "money") == f"NOK{T}558"
    assert Style(currency="JPY").text(55.4, "money") == "¥55"
    assert Style(currency="AUD").text(24.271, "money/cycle") == "A$24.27 a cycle"


def test_pounds_inches_and_gauges_for_who_wants_them() -> None:
    assert (
        US.text(20.5, "kg") == "45 lb" and US.text(-40, "°C") == "−40 °F" and US.text(10, "K") == "18 °F more"
    )
    assert US.text(70, "mm²") == "AWG 2/0" and EURO.text(70, "mm²") == "70 mm²"
    assert US.text(2.0, "money/kg") == "$0.91 per lb"
    # A tenth of rounding is allowed; thicker than the thickest it stays metric.
    assert (awg(33.0), awg(36.0), awg(40.0), awg(150)) == ("AWG 2", "AWG 2", "AWG 1", "150 mm²")


@pytest.mark.parametrize(
    ("value", "unit", "text"),
    [
        (0.9, "%", "90 %"),
        (0.00625, "%", "0.625 %"),
        (0.0123456789, "%", "1.234568 %"),
        (0.05, "1/year", "5 % a year"),
        (2576.3636363, "Wh", f"2{T}576.364 Wh"),
        (0.25, "1", "0.25"),
        (1240.4, "money", f"€1{T}240.4"),
    ],
)
def test_exactly_is_the_same_figure_with_more_digits(value, unit, text) -> None:
    # A share is told in per cent, exactly or not: it was a hundred times too small.
    assert EURO.text(value, unit, exact=True) == text


@pytest.mark.parametrize(
    ("hours", "text"),
    [
        (0.0, "0 min"),
        (0.66, "40 min"),
        (5.333, "5 h 20"),
        (12.2, "12 h"),
        (36.0, "1.5 days"),
        (300, "12 days"),
    ],
)
def test_times_are_told_as_people_tell_them(hours, text) -> None:
    assert duration(hours) == text
    assert moment(74.25) == "day 4, 02:15"


def test_who_leads_with_amp_hours_reads_use_in_them_and_banks_as_they_are() -> None:
    leads = Style(lead_v=12.0)
    assert leads.use(1200, "Wh") == "100 Ah" and leads.use(-60, "±Wh") == "−5 Ah"
    assert leads.text(1200, "Wh") == "1.20 kWh" and leads.use(20, "kg") == "20 kg"
    assert leads.use(None, "Wh") == "—"


@pytest.mark.parametrize(
    ("written", "code"),
    [("eur", "EUR"), ("€", "EUR"), (" Euros ", "EUR"), ("A$", "AUD"), ("New Zealand dollars", "NZD"),
     ("£", "GBP"), ("Swiss franc", "CHF"), ("$", "USD"), ("kr", None), ("fish", None)],
)  # fmt: skip
def test_a_currency_is_read_as_people_write_it(written, code) -> None:
    assert currency_code(written) == code


@pytest.mark.parametrize(
    ("locale", "money", "weight", "share"),
    [
        ("", "€1\u202f918", "1\u202f918 kg", "25 %"),
        ("en-US", "€1,918", "1,918 kg", "25%"),
        ("de-DE", "1.918\u00a0€", "1.918 kg", "25\u00a0%"),
        ("nl-NL", "€\u00a01.918", "1.918 kg", "25%"),
        ("fr-FR", "1\u202f918\u00a0€", "1\u202f918 kg", "25\u00a0%"),
    ],
)
def test_numbers_are_written_as_in_the_region(locale, money, weight, share) -> None:
    style = Style(locale=locale)
    assert (style.text(1918, "money"), style.text(1918, "kg"), style.text(0.25, "%")) == (
        money,
        weight,
        share,
    )


@pytest.mark.parametrize("locale", LOCALES)
def test_every_region_keeps_the_digits(locale) -> None:
    plain, here = (Style(locale=x).text(12345.678, "money", exact=True) for x in ("", locale))
    assert re.sub(r"\D", "", plain) == re.sub(r"\D", "", here)
    assert Style(locale=locale).text(2.5, "nights").startswith("2")


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("They take 1\u202f150 × 305 mm of floor.", "They take 45.3 × 12 in of floor."),
        ("One battery weighs 47 kg. Lift it.", "One battery weighs 104 lb. Lift it."),
        ("Leave 50 mm (2 in) in front.", "Leave 2 in in front."),
        ("A cable of 50 mm² (AWG 1/0), 30 cm² free", "A cable of 50 mm² (AWG 1/0), 4.7 sq in free"),
    ],
)
def test_measures_inside_of_a_text_are_told_in_the_owners_units(text: str, told: str) -> None:
    assert US.in_units(text) == told and EURO.in_units(text) == text
