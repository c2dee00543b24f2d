"""What is said of a quote: whether it is enough, what is added, its cost, the price at which it wins."""

import pytest

from vast_harbor import data
from vast_harbor.core.figures.display import Style
from vast_harbor.core.packages import packages_of
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.sensitivity.quote_answers import quote_answers
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.quotes import read_quote
from vast_harbor.formats.rig_plan import to_plan
from vast_harbor.telling.figures import sentence_text

AGM = "AGM 12V 220Ah €300 60 kg"


def quoted(reference, name: str, text: str, **changes) -> Results:
    cells = {key: c.cell_v for key, c in reference.classes.items()}
    read = read_quote(text, reference.catalogue.values(), cells, "lfp").fields | changes
    document = data.demo_rig(name)
    document["own_models"] = [{"id": "q", "maker": "", **read}]
    document["candidates"] = [
        {
            "id": "quote", "battery_class": read["battery_class"], "model": "q", "series": None,
            "parallel": None, "unit_price": None, "extras": [],
        }
    ]  # fmt: skip
    return evaluate(to_plan(files.read(document, reference), reference), reference)


def said(results: Results, reference) -> list[str]:
    (answer,) = quote_answers(results, reference)
    return [sentence_text(s, Style()) for s in answer.says]


def test_a_quote_is_answered_up_to_the_price_at_which_it_would_win(reference) -> None:
    results = quoted(reference, "kittiwake", AGM)
    enough, added, costs, wins = said(results, reference)
    assert enough.startswith("It is enough: ") and added.startswith("The extras it needs cost €")
    (answer,) = quote_answers(results, reference)
    price = answer.says[-1].figures["price"].number
    assert costs.startswith("Over 4 years it costs about ") and "instead of" in wins
    # At that price a battery it costs what is advised, to a few per cent.
    units = answer.compared.banked.bank.units
    advised = answer.says[2].figures["advised"].number
    cheaper = quoted(reference, "kittiwake", AGM, price=price / units)
    (again,) = quote_answers(cheaper, reference)
    assert again.compared.cost["lifetime"].number == pytest.approx(advised, rel=0.03)


def test_a_quote_that_will_not_do_says_why_and_no_price(reference) -> None:
    (only,) = said(quoted(reference, "kittiwake", AGM, price=12.0), reference)
    assert only.startswith("It does not suit this rig. No battery of this class costs so little")


def test_what_is_advised_is_told_apart_from_what_is_quoted(reference) -> None:
    cheap = quoted(reference, "pebble", "leisure battery 12V 85Ah €60 18 kg")
    packages_of(cheap, reference)
    texts = " ".join(said(cheap, reference))
    assert "It is what we advise." in texts and "It stays the cheapest up to " in texts
