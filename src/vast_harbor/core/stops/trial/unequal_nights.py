"""Why banks of about the same usable energy do not supply the same nights of a year."""

from collections.abc import Mapping, Sequence
from itertools import combinations

from vast_harbor.core.figures.workings import Figure, Sentence, computed, escaped
from vast_harbor.core.stops.banks import BankFigures
from vast_harbor.core.stops.trial.year import YearOf
from vast_harbor.phrases import phrase

# Usable energies that differ by no more than this pass for the same [-].
ALIKE = 0.15
# Nights served that differ by less than this need no reason [-].
WORTH_SAYING = 0.03
# A reason is named where it is this much larger for one than for the other: share of its usable energy, of
# its days [-].
LARGER_RESERVE, OFTENER_SHORT = 0.10, 0.05


def unequal_nights(candidates: Sequence[BankFigures], years: Mapping[str, YearOf]) -> Sentence | None:
    """Which two banks of about the same usable energy differ most in the nights they supply, and why.

    A bank of lead-acid is counted to its usable depth and can go deeper on a bad night, at the cost of its
    life; one of lithium iron phosphate has little below that. Apart from that, who is charged full less often
    starts its nights with less.

    Args:
        candidates: the banks in figures.
        years: a year of each, by the candidate's id.

    Returns:
        The sentence; None where none differ by :data:`WORTH_SAYING`.
    """
    run = [c for c in candidates if c.bank is not None and c.candidate.id in years]
    pairs = [
        (years[a.candidate.id]["served_share"].number - years[b.candidate.id]["served_share"].number, a, b)
        for one, other in combinations(run, 2)
        for a, b in ((one, other), (other, one))
        if _alike(one, other)
    ]
    most = max(pairs, key=lambda p: p[0], default=None)
    if most is None or most[0] < WORTH_SAYING:
        return None
    _, more, less = most
    return _told(more, less, years[more.candidate.id], years[less.candidate.id])


def _alike(one: BankFigures, other: BankFigures) -> bool:
    a, b = one["usable_wh"].number, other["usable_wh"].number
    return abs(a - b) <= ALIKE * max(a, b)


def _told(more: BankFigures, less: BankFigures, its: YearOf, other: YearOf) -> Sentence:
    reserve, others = _reserve(more), _reserve(less)
    figures = {
        "x": more["usable_wh"], "y": less["usable_wh"], "served": its["served_share"],
        "served_2": other["served_share"],
    }  # fmt: skip
    name, other_name = _title(more), _title(less)
    if reserve.number - others.number > LARGER_RESERVE * more["usable_wh"].number:
        figures |= {"r": reserve, "s": others}
        return Sentence(phrase("trial.unequal_nights.goes_deeper", more=name, less=other_name), figures)
    if other["short_share"].number - its["short_share"].number > OFTENER_SHORT:
        figures |= {"short": its["short_share"], "short_2": other["short_share"]}
        return Sentence(phrase("trial.unequal_nights.charged_less", more=name, less=other_name), figures)
    return Sentence(phrase("trial.unequal_nights.losses", more=name, less=other_name), figures)


def _title(banked: BankFigures) -> str:
    assert banked.bank is not None
    return escaped(banked.bank.model.title)


def _reserve(banked: BankFigures) -> Figure:
    """What a bank holds below its usable depth [Wh]."""
    usable, dod = banked["usable_wh"], banked["dod"]
    return computed(
        f"{usable.key}.below",
        phrase("trial.unequal_nights.reserve"),
        usable.number * (1 / dod.number - 1),
        "Wh",
        "{E_usable} · (1 / {DoD} − 1)",
        {"E_usable": usable, "DoD": dod},
    )
