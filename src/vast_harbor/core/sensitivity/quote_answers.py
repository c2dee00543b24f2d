"""What to think of a quote: is it enough, what is added, what it costs, and at which price it would win."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.cost.life_cost import Scenario
from vast_harbor.core.cost.monte_carlo import middle_cost
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, escaped
from vast_harbor.core.packages import packages_of
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.sensitivity.break_even import LOOKED_AT, crossings
from vast_harbor.core.stops.compare import COUNTED, ComparedBank, uncertainty_of, verdict_text
from vast_harbor.phrases import and_list, phrase

# Prices of the quote at which its cost is looked at, against what it is now.
PRICES = (0.02, 0.2, 0.4, 0.6, 0.8, 1.0, 1.25, 1.6, 2.0, 3.0, 5.0)
# What goes with a bank is told by name up to so many.
NAMED = 3


@dataclass(frozen=True, slots=True)
class QuoteAnswer:
    """One answer about a quote.

    Attributes:
        compared: the bank in the rig.
        says: in the order of asking.
    """

    compared: ComparedBank
    says: tuple[Sentence, ...]


def quote_answers(results: Results, reference: Reference) -> tuple[QuoteAnswer, ...]:
    """An answer for each candidate that is a battery of the owner's own.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        In the order of the candidates; none where nothing is drawn.
    """
    return results.once("quotes", lambda: tuple(_answers(results, reference)))


def _answers(results: Results, reference: Reference) -> Iterator[QuoteAnswer]:
    if not results.days.day.bank_wh.number:
        return
    for compared in results.verdict.candidates:
        bank = compared.banked.bank
        if bank is not None and bank.model.own:
            yield QuoteAnswer(compared, tuple(_says(compared, results, reference)))


def _says(compared: ComparedBank, results: Results, reference: Reference) -> Iterator[Sentence]:
    stopping = compared.stopping
    if stopping is not None:
        why, needs = stopping
        template = phrase("changes.quote.will_not_do", why=why.template, needs=escaped(needs))
        yield Sentence(template, why.figures)
        return
    yield _enough(compared, results)
    if compared.cost["extra_cost"].number > 0:
        yield _beside(compared)
    yield from _money(compared, results, reference)


def _enough(compared: ComparedBank, results: Results) -> Sentence:
    figures = {
        "new": compared.figures["nights_new"], "worn": compared.figures["nights_end"],
        "need": results.need.nights,
    }  # fmt: skip
    if compared.year is None:
        return Sentence(phrase("changes.quote.enough"), figures)
    figures["share"] = compared.year["served_share"]
    return Sentence(phrase("changes.quote.enough_year"), figures)


def _beside(compared: ComparedBank) -> Sentence:
    names = [escaped(one.name) for one in compared.cost.required_extras if one.state == COUNTED]
    figures = {"extras": compared.cost["extra_cost"]}
    if not names or len(names) > NAMED:
        return Sentence(phrase("changes.quote.beside"), figures)
    return Sentence(phrase("changes.quote.beside_named", names=and_list(names)), figures)


def _money(compared: ComparedBank, results: Results, reference: Reference) -> Iterator[Sentence]:
    verdict = results.verdict
    packages_of(results, reference)
    package, winner = verdict_text.advised(verdict), verdict.winner
    figures = {"H": compared.cost["per_year"].inputs["H"], "total": compared.cost["lifetime"]}
    if package is not None:
        other, bank = package.figures["lifetime"], package.compared.banked.bank
        own = compared.banked.bank
        if not package.keeps and bank is not None and own is not None and bank.model is own.model:
            # Of fewer or more of the same battery the price would change, too.
            words = (
                phrase("changes.quote.costs_beside")
                if bank == own
                else phrase("changes.quote.costs_other_number", title=package.compared.title)
            )
            yield Sentence(words, figures | {"advised": other})
            return
    elif winner is None:
        yield Sentence(phrase("changes.quote.costs"), figures)
        return
    elif winner is compared:
        yield Sentence(phrase("changes.quote.advised"), figures)
        rest = [c for c in verdict.suitable if c is not compared]
        if rest:
            next_one = min(rest, key=lambda c: c.cost["lifetime"].number)
            yield from _price(
                compared, next_one.cost["lifetime"].number, results, phrase("changes.quote.stays")
            )
        return
    else:
        other = winner.cost["lifetime"]
    yield Sentence(phrase("changes.quote.costs_against"), figures | {"advised": other})
    yield from _price(compared, other.number, results, phrase("changes.quote.wins"))


def _price(compared: ComparedBank, target: float, results: Results, words: str) -> Iterator[Sentence]:
    """At which price of the bank it costs as much as something else over the years."""
    inputs = next((p for p in results.verdict.life_cost_inputs if p.id == compared.id), None)
    now = compared.banked["purchase"].number
    if inputs is None or not now:
        return
    doubt, years = uncertainty_of(results.assumptions), results.plan.years_kept

    def gap(price: float) -> float:
        return middle_cost(inputs, doubt, years, Scenario(price=price / now), LOOKED_AT) - target

    roots = crossings(gap, [now * share for share in PRICES])
    if roots:
        source = phrase("changes.quote.price_source")
        price = Figure(
            f"verdict.quote.{compared.id}.price", phrase("changes.quote.price"), float(round(roots[0])),
            "money", REFERENCE, source=source,
        )  # fmt: skip
        yield Sentence(words, {"price": price, "now": compared.banked["purchase"]})
    elif gap(now * PRICES[0]) > 0:
        yield Sentence(phrase("changes.quote.never"))
