"""At which nights a year and years kept the verdict changes, and what it would be under each house rule."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.compare import BUY, HOOK_UP, Verdict, verdict_text
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class VerdictChange:
    """A number of nights a year, or of years kept, at which the verdict itself changes, by all its rules.

    Attributes:
        at: the first of them, as a figure.
        before, after: the verdict below and from there on, in a line.
        buys_before, buys_after: class of the bank that it says to buy; empty where it says to buy none.
    """

    at: Figure
    before: Sentence
    after: Sentence
    buys_before: str
    buys_after: str


NIGHTS = (0, 1, 2, 3, 6, 10, 20, 35, 55, 90, 130, 180, 250, 365)
YEARS = (1, 2, 4, 6, 9, 13, 18, 25, 40)


def verdict_changes(results: Results) -> tuple[VerdictChange, ...]:
    """At which whole nights a year the verdict changes, with all its rules, draws and cares.

    Another answer or another class is a change; a larger bank of the same class is none.

    Args:
        results: the plan in figures.

    Returns:
        Every change between the points looked at, ascending.
    """
    return results.once("verdict_changes", lambda: _nights_changes(results))


def _nights_changes(results: Results) -> tuple[VerdictChange, ...]:
    name = phrase("changes.verdict_changes.off_grid_nights_year")
    rough = _as_sure_roughly(results)

    def verdict_at(nights: int) -> Verdict:
        if not rough:
            return results.at_nights(float(nights)).verdict
        return results.roughly(replace(results.plan, off_grid_nights=float(nights)))

    return _changes(NIGHTS, verdict_at, "verdict.turn", name, "nights")


def years_changes(results: Results) -> tuple[VerdictChange, ...]:
    """At which whole years that the rig is kept the verdict changes; as :func:`verdict_changes`."""
    return results.once("years_changes", lambda: _years_changes(results))


def _years_changes(results: Results) -> tuple[VerdictChange, ...]:
    found = [c.banked.bank for c in results.verdict.found if c.banked.bank is not None]
    rough = _as_sure_roughly(results)

    def verdict_at(years: int) -> Verdict:
        plan = replace(results.plan, years_kept=float(years))
        return results.roughly(plan) if rough else evaluate(plan, results.reference, found=found).verdict

    return _changes(YEARS, verdict_at, "verdict.turn_years", phrase("terms.names.years_keep_rig"), "years")


def _as_sure_roughly(results: Results) -> bool:
    """Whether one weather of a year says what all of them say of the plan as it is; else all are run."""
    rough = results.once("roughly", lambda: results.roughly(results.plan))
    return _answer(rough) == _answer(results.verdict)


# The kind of answer, and the class that it says to buy; empty where it says to buy none.
_Answer = tuple[str, str]


def _answer(verdict: Verdict) -> _Answer:
    kind, winner = verdict.kind, verdict.winner
    if kind == HOOK_UP and verdict.without is not None:
        return "without", ""
    return kind, winner.banked.battery_class.key if winner is not None else ""


def _line(verdict: Verdict) -> Sentence:
    """What is said of a number of nights or years: the class to buy, as its size follows the need."""
    winner = verdict.winner
    if winner is None or (verdict.kind == HOOK_UP and verdict.without is not None):
        return verdict_text.bank_line(verdict)
    kind = winner.banked.battery_class.short
    if verdict.kind == BUY:
        return Sentence(phrase("changes.verdict_changes.buy", kind=kind))
    return Sentence(phrase("changes.verdict_changes.smallest", kind=kind))


def _changes(
    looked_at: Sequence[int], verdict_at: Callable[[int], Verdict], key: str, name: str, unit: str
) -> tuple[VerdictChange, ...]:
    made: dict[int, tuple[_Answer, Sentence]] = {}

    def says(x: int) -> tuple[_Answer, Sentence]:
        if x not in made:
            verdict = verdict_at(x)
            made[x] = _answer(verdict), _line(verdict)
        return made[x]

    out = []
    for low, high in pairwise(looked_at):
        if says(low)[0] == says(high)[0]:
            continue
        a, b = low, high
        while b - a > 1:
            middle = (a + b) // 2
            a, b = (middle, b) if says(middle)[0] == says(low)[0] else (a, middle)
        source = phrase("changes.verdict_changes.full_verdict_different_numbers")
        figure = Figure(f"{key}.{b}", name, float(b), unit, REFERENCE, source=source)
        (before, before_line), (after, after_line) = says(a), says(b)
        out.append(VerdictChange(figure, before_line, after_line, before[1], after[1]))
    return tuple(out)


@dataclass(frozen=True, slots=True)
class RuleVerdict:
    """The verdict under one house rule.

    Attributes:
        key, name, argues: the rule.
        headline: the verdict in a line.
        card: more of it.
        need: usable energy that it asks for [Wh].
        cost: lifetime cost of what it says to buy [money]; None where it buys nothing.
        same: whether it says the same as the rule in force.
    """

    key: str
    name: str
    argues: str
    headline: Sentence
    card: tuple[Sentence, ...]
    need: Figure
    cost: Figure | None
    same: bool


def rule_verdicts(results: Results, reference: Reference) -> tuple[RuleVerdict, ...]:
    """The verdict of every house rule on the same rig, the owner's overrides kept.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        One for each rule, in their order.
    """
    here = verdict_text.bank_line(results.verdict).template
    return results.once(
        "rule_verdicts",
        lambda: tuple(_rule_verdict(key, results, reference, here) for key in reference.rules),
    )


def _rule_verdict(key: str, results: Results, reference: Reference, here: str) -> RuleVerdict:
    plan, rule = results.plan, reference.rules[key]
    same_rule = key == plan.house_rule
    found = results if same_rule else evaluate(replace(plan, house_rule=key), reference)
    verdict = found.verdict
    line = verdict_text.bank_line(verdict)
    cost = verdict.winner.cost["lifetime"] if verdict.winner is not None else None
    return RuleVerdict(
        key,
        rule.name,
        rule.argues,
        _renamed(line, key),
        tuple(_renamed(s, key) for s in verdict_text.card(verdict)),
        _copied(found.need.energy, key),
        None if cost is None else _copied(cost, key),
        line.template == here,
    )


def _copied(figure: Figure, key: str) -> Figure:
    """A figure of another rule under a key of its own."""
    return figure._replace(key=f"verdict.house_rule.{key}.{figure.key}")


def _renamed(sentence: Sentence, key: str) -> Sentence:
    figures: Mapping[str, Figure] = {k: _copied(f, key) for k, f in sentence.figures.items()}
    return Sentence(sentence.template, figures)
