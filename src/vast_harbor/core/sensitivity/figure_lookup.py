"""Figures that are only made when somebody asks for them, found by the first words of their key."""

from collections.abc import Callable, Iterable, Mapping

from vast_harbor.core.beliefs import beliefs
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.packages import nearest_banks, packages_of
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.sensitivity.break_even import break_evens
from vast_harbor.core.sensitivity.equal_terms import equal_terms
from vast_harbor.core.sensitivity.load_costs import load_costs
from vast_harbor.core.sensitivity.purchase_sizes import purchase_sizes
from vast_harbor.core.sensitivity.purchase_timing import purchase_options
from vast_harbor.core.sensitivity.quote_answers import quote_answers
from vast_harbor.core.sensitivity.sizes_by_year import SIZED, sizes_by_year
from vast_harbor.core.sensitivity.tornado import tornado
from vast_harbor.core.sensitivity.verdict_changes import rule_verdicts, verdict_changes, years_changes


def _flips(results: Results, reference: Reference) -> Iterable[Figure]:
    for flip in break_evens(results):
        yield from (flip.now, *flip.at, *flip.says.figures.values())


def _turns(results: Results, _: Reference) -> Iterable[Figure]:
    yield from (turn.at for turn in verdict_changes(results))


def _years_turns(results: Results, _: Reference) -> Iterable[Figure]:
    yield from (turn.at for turn in years_changes(results))


def _rule_verdicts(results: Results, reference: Reference) -> Iterable[Figure]:
    for one in rule_verdicts(results, reference):
        yield from (one.need, *([one.cost] if one.cost is not None else []))
        for sentence in (one.headline, *one.card):
            yield from sentence.figures.values()


def _swings(results: Results, reference: Reference) -> Iterable[Figure]:
    found = tornado(results)
    if found is not None:
        yield found.saving
        for s in found.swings:
            yield from (s.low, s.high, s.at_low, s.at_high)


def _when(results: Results, reference: Reference) -> Iterable[Figure]:
    for option in purchase_options(results, reference):
        yield from (option.lifetime, option.more, option.cash, *option.says.figures.values())


def _purchase_sizes(results: Results, reference: Reference) -> Iterable[Figure]:
    for some in purchase_sizes(results, reference).values():
        for one in some:
            yield from (one.cash, one.usable, one.nights)


def _loads(results: Results, reference: Reference) -> Iterable[Figure]:
    for one in load_costs(results, reference):
        yield from (one.money, one.kg, one.kept)
        yield from (f for f in (one.quarter, one.saves, one.price) if f is not None)


def _terms(results: Results, reference: Reference) -> Iterable[Figure]:
    for term in equal_terms(results):
        for figures in term.figures.values():
            yield from figures.values()


def _beliefs(results: Results, reference: Reference) -> Iterable[Figure]:
    for belief in beliefs(results, reference):
        yield from belief.says.figures.values()


def _packages(results: Results, reference: Reference) -> Iterable[Figure]:
    found = packages_of(results, reference)
    for package in () if found is None else (*found.all, *(p for _, p in found.ladder)):
        yield from package.figures.values()


def _nearest(results: Results, reference: Reference) -> Iterable[Figure]:
    for one in nearest_banks(results, reference):
        yield from one.says.figures.values()


def _quotes(results: Results, reference: Reference) -> Iterable[Figure]:
    for answer in quote_answers(results, reference):
        for sentence in answer.says:
            yield from sentence.figures.values()


def _sizes(results: Results, reference: Reference) -> Iterable[Figure]:
    found = sizes_by_year(results, reference)
    for one in () if found is None else found.classes:
        yield from (size.usable for size in one.sizes if size is not None)


FAMILIES: Mapping[str, Callable[[Results, Reference], Iterable[Figure]]] = {
    "belief.": _beliefs,
    f"bank.{SIZED}": _sizes,
    "nearest.": _nearest,
    "package.": _packages,
    "verdict.flip.": _flips,
    "verdict.quote.": _quotes,
    "verdict.turn.": _turns,
    "verdict.turn_years.": _years_turns,
    "verdict.house_rule.": _rule_verdicts,
    "verdict.swing.": _swings,
    "verdict.when.": _when,
    "verdict.package.": _purchase_sizes,
    "verdict.load.": _loads,
    "verdict.terms.": _terms,
}


def asked_figure(key: str, results: Results, reference: Reference) -> Figure | None:
    """A figure of the verdict that is only made when it is asked for; None where there is none.

    Args:
        key: address of the figure, or of one that went into it.
        results: the plan in figures.
        reference: shipped data.
    """
    for family, make in FAMILIES.items():
        if key.startswith(family):
            for root in make(results, reference):
                found = next((f for f in root.walk() if f.key == key), None)
                if found is not None:
                    return found
    return None
