"""The packages of a plan: the best ones run in full, and the one that is advised."""

from collections.abc import Sequence

from vast_harbor.core.packages.growth import Found, first_of, look
from vast_harbor.core.packages.nearest import nearest_banks
from vast_harbor.core.packages.search import WORTH, Search, key_of
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.compare import BUY, KEEP, MEND, Package, Packages, front_of

# Packages that are run in full for the answer.
IN_FULL = 3
# Of those that are the best for an amount of money so many are run in full: the ones that cost least over the
# years.
MOST_OF_FRONT = 5
# What is done beside a bank is advised where the package costs less than the bank alone by this share [-].
WORTH_SAYING = 0.03
# Costs over the years that differ by no more than this share are a draw [-].
DRAW = 0.01
# Verdicts with which no package is looked for: the bank is sound, or something is to be mended first.
NOT_ASKED = (KEEP, MEND)


def packages_of(results: Results, reference: Reference) -> Packages | None:
    """The packages of a plan, looked for once and put beside its verdict.

    Args:
        results: the plan in figures, everything run and found.
        reference: shipped data.

    Returns:
        None where no package is asked for: nothing is drawn, or no bank of any size will do in any of them.
    """
    made = results.once("packages", lambda: _packages(Search(results, reference)))
    results.verdict.answer.packages = made
    if made is None:
        nearest_banks(results, reference)
    return made


def _packages(search: Search) -> Packages | None:
    return answer(look(search)) if is_asked(search.base) else None


def is_asked(results: Results) -> bool:
    """Whether a package is asked for: something is drawn, and the bank is not sound as it is."""
    drawn = bool(results.days.day.bank_wh.number) and results.simulated.has_year
    return drawn and results.verdict.kind not in NOT_ASKED


def answer(found: Found) -> Packages | None:
    """The best packages run in full, and the one that is advised."""
    search = found.search
    # The best of each family, the old bank, and the best for each amount of money stay in the picture.
    needed = found.needed
    chosen = needed[:IN_FULL] + list(front_of(needed))[-MOST_OF_FRONT:]
    chosen += first_of(needed, lambda p: (p.is_lead_acid, p.keeps))
    trimmed = dict.fromkeys(_trimmed(search, p) for p in dict.fromkeys(chosen))
    full = [search.package(p.added, search.choice_of(p), True) for p in trimmed]
    plain = _plain(search)
    made = {p.key: p for p in (plain, *full) if p is not None}
    if not made:
        return None
    ranked = sorted(made.values(), key=lambda p: p.weighed)
    worth = [p for p in ranked if _is_worth(p, plain)]
    best = _cheapest_on_the_day(worth) if worth else plain or ranked[0]
    return Packages(tuple(ranked), best, search.nothing)


def _cheapest_on_the_day(ranked: Sequence[Package]) -> Package:
    """The first package, or one with the same beside another bank that costs less on the day and hardly more
    over the years."""
    first = ranked[0]
    done = key_of(first.improvements)
    same = (p for p in ranked if key_of(p.improvements) == done and p.keeps == first.keeps)
    return min((p for p in same if p.weighed <= (1 + DRAW) * first.weighed), key=lambda p: p.outlay)


def _trimmed(search: Search, package: Package) -> Package:
    """A package without what costs as much as it brings."""
    for one in package.added:
        less = search.package(tuple(o for o in package.added if o is not one), search.choice_of(package))
        if less is not None and less.weighed <= (1 + WORTH) * package.weighed:
            return _trimmed(search, less)
    return package


def _is_worth(package: Package, plain: Package | None) -> bool:
    """Whether a package is worth saying instead of a bank alone, which is the simpler answer.

    It costs less by more than the doubt of the search, in the middle of the futures too.
    """
    if plain is None:
        return True
    most = 1 - WORTH_SAYING
    return package.weighed < most * plain.weighed and package.lifetime < most * plain.lifetime


def _plain(search: Search) -> Package | None:
    """The bank that the verdict says to buy, with nothing added; None where it says none."""
    verdict = search.base.verdict
    if verdict.winner is None or verdict.kind != BUY:
        return None
    return search.package((), search.choice(verdict.winner), True)
