"""Growing packages: improvements are added to the best ones until none pays any more."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from itertools import combinations

from vast_harbor.core.improvements import Improvement
from vast_harbor.core.packages.search import (
    MOST_SMALLER,
    WORTH,
    Added,
    Choice,
    Search,
    each_once,
    is_idle,
    key_of,
)
from vast_harbor.core.stops.compare import Package

# So many packages are grown at first, so many of the better ones from then on, and so many improvements are
# added to one; pairs of so many improvements are tried with so many packages, where one alone does not help.
BEAM, GROWN, MOST_ADDED, MOST_PAIRED, PAIRED = 3, 2, 3, 3, 1
# With so many sets of improvements every bank is tried in the end.
SWAPPED = 2
# Of so many groups of improvements the largest are tried in pairs with a smaller bank.
MOST_GROUPS = 5
# What is dearer than the best by this share is not grown further [-].
BEHIND = 0.1
# The cost in one weather stands for that in all where they differ by no more than this share [-].
ALIKE = 0.1


def look(search: Search) -> "Found":
    """Look at packages: in one weather, or in all where a year of the best bank comes out otherwise there."""
    first = search.seeds[0] if search.seeds else None
    one, full = search.package((), first), search.package((), first, True)
    if one is not None and full is not None and abs(one.weighed - full.weighed) > ALIKE * full.weighed:
        search.look_in_full()
    found = Found(search)
    for choice in (*search.seeds, None):
        found.note(search.package((), choice))
        found.note(search.package((), search.smaller(choice)))
    grow(found)
    _swap_banks(found)
    _resize(found)
    _spend_less(found)
    return found


def _spend_less(found: "Found") -> None:
    """Try smaller banks in the package that costs the least on the day."""
    if not found.ranked:
        return
    search = found.search
    least = min(found.ranked, key=lambda p: (p.outlay, p.weighed))
    choice = search.choice_of(least)
    for _ in range(MOST_SMALLER):
        less = search.smaller(choice)
        if less == choice:
            break
        found.note(search.package(least.added, less))
        choice = less


def _resize(found: "Found") -> None:
    """Try what is done in the best package at every other size of it."""
    search = found.search
    if not found.ranked:
        return
    best = found.ranked[0]
    for at, now in enumerate(best.added):
        for other in search.options:
            if other.group == now.group and other.key != now.key:
                added = (*best.added[:at], other, *best.added[at + 1 :])
                found.note(search.package(added, search.choice_of(best)))


def _swap_banks(found: "Found") -> None:
    """Try every bank that the search starts from with what is done in the best packages, and what rivals the
    bank of the very best."""
    search = found.search
    banks = each_once(c for seed in search.seeds for c in (seed, search.smaller(seed)))
    best: dict[tuple[str, ...], Package] = {}
    for package in found.ranked:
        best.setdefault(key_of(package.added), package)
    for package in list(best.values())[:SWAPPED]:
        for bank in banks:
            found.note(search.package(package.added, bank))
    for best_one in found.ranked[:1]:
        for bank in search.rivals(best_one):
            found.note(search.package(best_one.added, bank))


@dataclass
class Found:
    """The packages that were looked at.

    Attributes:
        search: looks at them.
        by_key: each by its name.
    """

    search: Search
    by_key: dict[str, Package] = field(default_factory=dict)

    def note(self, package: Package | None) -> None:
        """Keep a package; None is none."""
        if package is not None:
            self.by_key.setdefault(package.key, package)

    @property
    def ranked(self) -> list[Package]:
        """All of them, the one of least cost first."""
        return sorted(self.by_key.values(), key=lambda p: p.weighed)

    @property
    def needed(self) -> list[Package]:
        """Those of which nothing can be left out without a loss, the one of least cost first."""
        by_bank: dict[str, list[Package]] = {}
        for package in self.ranked:
            by_bank.setdefault(package.bank_key, []).append(package)
        out = []
        for package in self.ranked:
            keys = set(key_of(package.added))
            same = by_bank[package.bank_key]
            ceiling = (1 + WORTH) * package.weighed
            if not any(set(key_of(p.added)) < keys and p.weighed <= ceiling for p in same):
                out.append(package)
        return out


def first_of(packages: Iterable[Package], corner: Callable[[Package], object]) -> list[Package]:
    """The first package of each kind, by what tells the kinds apart."""
    out: dict[object, Package] = {}
    for package in packages:
        out.setdefault(corner(package), package)
    return list(out.values())


def grow(found: Found) -> None:
    """Add improvements to the best packages, until none pays any more."""
    search = found.search
    start = first_of(found.ranked, lambda p: (p.is_lead_acid, p.keeps))[:BEAM]
    beam: list[tuple[Added, Choice]] = [((), search.choice_of(p)) for p in start]
    beam = beam or [((), choice) for choice in search.seeds[:BEAM]]
    idle = _idle(found, beam)
    for depth in range(MOST_ADDED):
        better: list[Package] = []
        for added, choice in beam:
            now = search.package(added, choice)
            ceiling = now.weighed if now is not None else float("inf")
            grown = list(search.grown(added, choice, idle))
            for package in sorted(grown, key=lambda p: p.weighed)[:BEAM]:
                less = search.package(package.added, search.smaller(search.choice_of(package)))
                grown += [] if less is None else [less]
            for package in grown:
                found.note(package)
            better += [p for p in grown if p.weighed < (1 - WORTH) * ceiling]
        if depth == 0:
            better += _pairs(found, beam[:PAIRED], idle)
        beam = [(p.added, search.choice_of(p)) for p in _several(better)]
        if not beam:
            break


def _several(packages: Sequence[Package]) -> list[Package]:
    """The best few that differ in what is done, at whatever size, or in what becomes of the bank.

    None of them is much dearer than the best.
    """
    out: dict[tuple[tuple[str, ...], bool], Package] = {}
    most = (1 + BEHIND) * min((p.weighed for p in packages), default=0.0)
    for package in sorted((p for p in packages if p.weighed <= most), key=lambda p: p.weighed):
        done = tuple(sorted(one.group for one in package.improvements))
        out.setdefault((done, package.keeps), package)
    return list(out.values())[:GROWN]


def _idle(found: Found, beam: Sequence[tuple[Added, Choice]]) -> frozenset[str]:
    """Improvements that change nothing for any of these packages but what they cost themselves.

    Of those that come in several sizes the one in the middle is tried for all.
    """
    search = found.search
    sizes: dict[str, list[str]] = {}
    for one in search.options:
        sizes.setdefault(one.group, []).append(one.key)
    middle = {keys[len(keys) // 2] for keys in sizes.values()}
    others = frozenset(one.key for one in search.options) - middle
    useful: set[str] = set()
    for added, choice in beam:
        start = search.package(added, choice)
        if start is None:
            return frozenset()
        for package in search.grown(added, choice, others):
            found.note(package)
            if package.bank_key != start.bank_key or not is_idle(start, package):
                useful.add(_last(package, added).group)
    return frozenset(one.key for one in search.options if one.group not in useful)


def _last(package: Package, added: Added) -> Improvement:
    """What a package does in addition to some improvements."""
    before = {one.key for one in added}
    return next(one for one in package.added if one.key not in before)


def _pairs(found: Found, beam: Sequence[tuple[Added, Choice]], idle: frozenset[str]) -> list[Package]:
    """Pairs of improvements where one alone does not help: of those that make a package dearer the least."""
    search, out = found.search, []
    for added, choice in beam:
        start = search.package(added, choice)
        if start is None:
            continue
        single: dict[str, Improvement] = {}
        for package in sorted(search.grown(added, choice, idle), key=lambda p: p.weighed):
            last = _last(package, added)
            single.setdefault(last.group, last)
        less = search.smaller(choice)
        tried: list[tuple[Added, Choice]] = []
        for a, b in combinations(list(single.values())[:MOST_PAIRED], 2):
            both = (*added, a, b)
            tried += [(both, c) for c in each_once((choice, less, *search.best_in(search.rig(both))))]
        if less != choice and search.package(added, less) is None:
            # What is of no use to this bank may let a smaller one do.
            largest = list({one.group: one for one in search.options}.values())[:MOST_GROUPS]
            tried += [((*added, a, b), less) for a, b in combinations(largest, 2)]
        for done, bank in tried:
            if len({one.target for one in done if one.target}) < sum(1 for one in done if one.target):
                continue
            pair = search.package(done, bank)
            found.note(pair)
            if pair is not None and pair.weighed < (1 - WORTH) * _least_of_one(found, pair, start):
                out.append(pair)
    return out


def _least_of_one(found: Found, pair: Package, start: Package) -> float:
    """The least cost of a package, and of those with one half only of a pair that is added to it."""
    keys = set(key_of(pair.added))
    halves = (
        p.weighed for p in found.by_key.values()
        if p.bank_key == pair.bank_key and set(key_of(p.added)) < keys
    )  # fmt: skip
    return min((start.weighed, *halves))
