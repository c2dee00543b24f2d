"""Labels and offers as pasted: what they say is read, what they leave open is marked as typical."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from quote_forms import FIELDS, offers
from vast_harbor import data
from vast_harbor.formats.quotes import LONGEST, Quote, number, offers_in, read_quote

LITHIUM = """Pellin Harbour 150 LiFePO4
12.8 V, 150Ah (1920 Wh)
Max. continuous discharge current 120 A, peak 240 A (10 s)
Recommended charge current: 75 A
Charging temperature 0 to 45 °C, discharging -20 to 60 °C
Size 485 x 170 x 240 mm, weight 17.2 kg
4000 cycles at 80 % DoD
5 years warranty
€ 899,00 incl. VAT"""
SEALED = """Dunmore Deep 110 AGM
12 V 110 Ah @ 20 h, 94Ah C5
30.5 kg
330x171x220 mm
Price: 1.249,50 EUR for five; 249,90 EUR each
600 cycles @ 50% DOD
24 months guarantee"""
OVERSEAS = """6 V flooded battery 225Ah (20hr)
RC 447 minutes
62 lbs, 10.3 x 7.1 x 10.9 in
$189.99"""


CELLS = {key: c.cell_v for key, c in data.reference().classes.items()}


def quote(text: str, assumed: str = "lfp") -> Quote:
    return read_quote(text, data.reference().catalogue.values(), CELLS, assumed)


def said(text: str) -> dict[str, object]:
    return {s.field: s.value for s in quote(text).said}


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("1 299,00", 1299), ("1,299.00", 1299), ("1.299,00", 1299), ("12.8", 12.8), ("1,280", 1280),
        ("2.560", 2560), ("17,2", 17.2), ("899", 899), ("1\u202f499", 1499), ("1'249.50", 1249.5),
    ],
)  # fmt: skip
def test_a_number_is_read_however_an_offer_writes_it(text, value) -> None:
    assert number(text) == pytest.approx(value)


def test_all_that_an_offer_says_is_understood() -> None:
    assert said(LITHIUM) == {
        "battery_class": "lfp", "name": "Pellin Harbour 150 LiFePO4", "unit_v": 12.8, "rated_ah": 150.0,
        "kg": 17.2, "length_mm": 485.0, "width_mm": 170.0, "height_mm": 240.0, "price": 899.0,
        "cycles": 4000.0, "cycles_at_dod": 0.8, "warranty_years": 5.0, "bms_continuous_a": 120.0,
        "bms_peak_a": 240.0, "charge_a": 75.0, "charge_min_c": 0.0, "charge_max_c": 45.0,
        "discharge_min_c": -20.0, "discharge_max_c": 60.0,
    }  # fmt: skip
    sealed = said(SEALED)
    assert (sealed["rated_ah"], sealed["rated_hours"], sealed["ah_2"], sealed["hours_2"]) == (110, 20, 94, 5)
    # The price of one, not of the lot.
    assert (sealed["price"], sealed["warranty_years"]) == (249.9, 2)
    overseas = said(OVERSEAS)
    assert overseas["kg"] == pytest.approx(28.12) and overseas["length_mm"] == pytest.approx(261.6)
    assert (overseas["unit_v"], overseas["reserve_minutes"], overseas["price"]) == (6, 447, 189.99)


@pytest.mark.parametrize(
    ("text", "ah", "price"),
    [
        ("12V 100Ah LiFePO4 £349", 100, 349), ("LiFePO4 100Ah £349", 100, 349),
        ("LiFePO4 12 V 100 Ah 589", 100, 589), ("AGM 110Ah 12V   229,00", 110, 229),
        ("LiFePO4 100Ah, 349 pounds", 100, 349), ("LFP 12V 100Ah 349 pounds each", 100, 349),
        ("2 × LFP 12 V 100 Ah £698", 100, 349), ("2 x LFP 12 V 100 Ah £349 each", 100, 349),
        ("AGM 12 V 100 Ah weighs 62 pounds, $189", 100, 189), ("LiFePO4 12V 280Ah 1.299,00", 280, 1299),
    ],
)  # fmt: skip
def test_money_and_capacity_are_told_apart_from_what_stands_beside_them(text, ah, price) -> None:
    found = said(text)
    assert (found["rated_ah"], found.get("price")) == (ah, price)


def test_offers_in_five_languages_are_read_right_or_asked_about() -> None:
    right, told = 0, 0
    for text, truth in offers():
        found = quote(text, "agm")
        known, asked = {s.field: s.value for s in found.said}, {a.field for a in found.asks}
        for field, value in truth.items():
            if field == "battery_class":
                assert str(known[field]).startswith(str(value)), text
            elif field not in asked:
                assert known.get(field) == pytest.approx(value, rel=0.005), (field, text)
        # Nothing is taken for a figure of the battery that is none: delivery, deposit, cranking.
        assert (
            not {f for f in known if f in set(FIELDS.values()) | {"price"}} - set(truth) - {"rated_hours"}
        ), text
        told += 1
        right += not asked
    assert told == 300 and right >= 0.95 * told


@pytest.mark.parametrize(
    ("text", "field", "value"),
    [
        ("Blei AGM 12V 110Ah 600 Zyklen bei 50 % 199 €", "cycles_at_dod", 0.5),
        ("LFP 12V 100Ah 4000 @ 80% DOD", "cycles", 4000),
        ("LFP 12V 100Ah 80% DoD: 3.500 Zyklen", "cycles", 3500),
        ("LiFePO 4 12V 100Ah £349", "price", 349),
        ("LiFePO4-100 12,8V 100Ah 1280Wh 449 €", "rated_ah", 100),
        ("AGM 12V 100Ah (20h) 85Ah (5h)", "ah_2", 85),
        ("AGM 12V C5: 85Ah C20: 100Ah", "rated_hours", 5),
        ("12V 100Ah AGM statt einer GC2, 28,5kg", "kg", 28.5),
        ("Set of 4: 6V 225Ah flooded, £600 together", "price", 150),
        ("AGM 12V 95Ah 850A (EN) 249 EUR", "bms_continuous_a", None),
        ("LFP 12V 100Ah, UN38.3, £349", "price", 349),
        ("LFP 12V 100Ah €349 save €120", "price", 349),
        ("LFP 12.8V 100Ah max. Entladestrom 100A", "bms_continuous_a", 100),
    ],
)
def test_a_figure_belongs_to_the_word_or_unit_next_to_it(text, field, value) -> None:
    assert said(text).get(field) == value


@pytest.mark.parametrize(
    ("text", "field", "values"),
    [
        ("LFP 12V 100Ah £4", "price", (4,)), ("LFP 12V 100Ah £349 £410", "price", (349, 410)),
        ("3 x AGM 12V 100Ah 372 €", "price", (124, 372)), ("AGM 12V 100Ah 9000 cycles", "cycles", (9000,)),
        ("AGM 12V 100Ah 310 kg", "kg", (310,)), ("LFP 12V 100Ah, 25 years warranty", "warranty_years", (25,)),
        ("LFP 120V 100Ah", "unit_v", None), ("LFP 12V 100000Ah", "rated_ah", (100000,)),
    ],
)  # fmt: skip
def test_what_can_hardly_be_true_is_asked_before_it_counts(text, field, values) -> None:
    found = quote(text)
    (ask,) = [a for a in found.asks if a.field == field]
    assert field not in {s.field for s in found.said} and ask.source in text.replace(" £410", " · £410")
    assert values is None or ask.values == values
    answered = read_quote(text, data.reference().catalogue.values(), CELLS, "lfp", {field: ask.values[0]})
    assert answered.fields[field] == ask.values[0] and field not in {a.field for a in answered.asks}


@pytest.mark.parametrize(
    ("currency", "text", "asks"),
    [
        ("EUR", "LFP 12V 100Ah £349", (401.15, 349)), ("GBP", "LFP 12V 100Ah 349 EUR", (303.63, 349)),
        ("GBP", "LFP 12V 100Ah £349", None), ("GBP", "LFP 12V 100Ah 349 quid", None),
        ("NOK", "LFP 12V 100Ah 4 990 kr", None), ("NOK", "LFP 12V 100Ah NOK 490", (490,)),
        ("NOK", "LFP 12V 100Ah 349 € or 410 €", (4048.4, 4756, 349, 410)),
        ("NOK", "2 x LFP 12V 100Ah 698 €", (4048.4, 8096.8, 349, 698)),
        ("AUD", "LFP 12V 100Ah $549", None),
    ],
)  # fmt: skip
def test_a_price_in_other_money_is_asked_with_its_rate(currency, text, asks) -> None:
    reference = data.reference()
    factor = reference.assumptions("customary", {}, currency).value("price_factor")
    found = read_quote(
        text, reference.catalogue.values(), CELLS, "lfp", {}, currency, reference.price_levels, factor
    )
    assert (found.asks[0].values if found.asks else None) == asks
    # What is typical is in the owner's money too.
    (usual,) = [s.value for s in quote("LFP 12V 100Ah").filled if s.field == "price"]
    if asks:
        assert found.fields["price"] == pytest.approx(usual * factor, rel=0.01)


def test_volts_are_brought_to_the_cells_of_the_class() -> None:
    assert said("lithium 12 V 100 Ah")["unit_v"] == said("LFP 12.8V 100Ah")["unit_v"] == 12.8
    assert said("LiFePO4 24V 100Ah")["unit_v"] == 25.6
    assert said("AGM 12.8 V 100 Ah")["unit_v"] == 12
    assert said("Battery 1,280Wh LFP 12 V")["rated_ah"] == pytest.approx(100)


def test_what_is_missing_is_typical_of_the_class_and_follows_its_size() -> None:
    small, large = (quote(f"AGM 12 V {ah} Ah") for ah in (50, 100))
    filled = {s.field: s.value for s in large.filled}
    assert set(filled) >= {"kg", "price", "cycles", "cycles_at_dod", "warranty_years", "rated_hours"}
    half = {s.field: s.value for s in small.filled}
    assert half["kg"] == pytest.approx(filled["kg"] / 2, abs=0.1)
    assert 25 < filled["kg"] < 35 and not {s.field for s in large.said} & set(filled)
    # Limits of a BMS are not made up: without them nothing is checked against them.
    assert "bms_continuous_a" not in {s.field for s in quote("LFP 12.8 V 100 Ah").filled}


def test_a_text_without_capacity_is_no_battery() -> None:
    assert quote("hello there").missing == ("rated_ah",)
    assert quote("gel 12 V 80 Ah").missing == ()


def test_a_list_holds_one_offer_a_line_with_its_headings_as_units() -> None:
    text = (
        "Name;Class;V;Ah;kg;Price\nDunmore 110;AGM;12;110;30,5;249,90\nPellin 100;LiFePO4;12,8;100;11,5;549\n"
    )
    agm, lfp = (said(offer) for offer in offers_in(text))
    assert (agm["battery_class"], agm["unit_v"], agm["rated_ah"], agm["kg"], agm["price"]) == (
        "agm",
        12,
        110,
        30.5,
        249.9,
    )
    assert (lfp["name"], lfp["battery_class"], lfp["rated_ah"], lfp["price"]) == (
        "Pellin 100",
        "lfp",
        100,
        549,
    )
    assert offers_in(LITHIUM) == [LITHIUM] and offers_in("") == [""]


@given(
    st.text(max_size=300)
    | st.lists(st.sampled_from((*LITHIUM.split(), *SEALED.split())), max_size=40).map(" ".join)
)
def test_any_text_is_read_without_an_error(text) -> None:
    found = quote(text[:LONGEST])
    assert not {s.field for s in found.said} & {s.field for s in found.filled}
    assert all((s.source and s.source in text) or s.field == "name" for s in found.said)
