"""Looking for the best package: a bank with what is done beside it."""

from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import dataclass, field
from itertools import chain, combinations

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.improvements import Improvement, options
from vast_harbor.core.packages.rig_after import RigAfter
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.plan import WORKSHOP, Candidate, Reference
from vast_harbor.core.stops.compare import BUY, KEEP, MEND, OLD, ComparedBank, Package, Packages
from vast_harbor.core.stops.trial import YearPlan

# Banks of the plan that go into the search, the cheapest of each class first.
SEEDS = 4
# So many packages are grown at once, so many improvements are added to one; pairs of so many improvements are
# tried with so many packages, where one alone does not help.
BEAM, MOST_ADDED, MOST_PAIRED, PAIRED = 3, 3, 3, 1
# Of so many groups of improvements the largest are tried in pairs with a smaller bank.
MOST_GROUPS = 5
# An improvement that makes a package dearer by more than this share of its own price is of no use to it [-].
IDLE = 0.95
# Packages that are run in full for the answer.
IN_FULL = 3
# An improvement is added where it makes the package cheaper by this share [-].
WORTH = 0.004
# What is done beside a bank is advised where the package costs less than the bank alone by this share [-].
WORTH_SAYING = 0.03
# Verdicts with which no package is looked for: the bank is sound, or something is to be mended first.
NOT_ASKED = (KEEP, MEND)
Added = tuple[Improvement, ...]
Choice = Bank | Candidate | None


def key_of(added: Iterable[Improvement]) -> tuple[str, ...]:
    """Name of a set of improvements."""
    return tuple(sorted(one.key for one in added))


@dataclass(eq=False)
class Search:
    """The search for the best package of a plan.

    Attributes:
        base: the plan in figures, everything run and found.
        reference: shipped data.
    """

    base: Results
    reference: Reference
    _rigs: dict[tuple[tuple[str, ...], int | None], RigAfter] = field(default_factory=dict)
    _known: dict[tuple[tuple[str, ...], object], Package | None] = field(default_factory=dict)
    _years: dict[int | None, YearPlan] = field(default_factory=dict)
    _smallest: dict[str, tuple[Bank, ...]] = field(default_factory=dict)
    _leading: dict[tuple[str, ...], tuple[Choice, ...]] = field(default_factory=dict)

    @cached_property
    def options(self) -> tuple[Improvement, ...]:
        """What can be done beside the bank."""
        return options(self.base.plan, self.reference, self.base.assumptions)

    @cached_property
    def seeds(self) -> tuple[Choice, ...]:
        """Banks that the search starts from: the best of each class, and the next smaller of it."""
        verdict = self.base.verdict
        out: dict[str, ComparedBank] = {}
        costs = {c.id: c.cost["lifetime"].number for c in verdict.compared_banks}
        for compared in sorted(verdict.compared_banks, key=lambda c: (c.stopping is not None, costs[c.id])):
            out.setdefault(compared.banked.battery_class.key, compared)
        first = sorted(out.values(), key=lambda c: (c.stopping is not None, costs[c.id]))[:SEEDS]
        return tuple(self.choice(c) for c in first)

    def choice(self, compared: ComparedBank) -> Choice:
        """A bank as it is looked for: its layout, or the candidate with what its owner chose for it."""
        own = compared.banked.candidate
        if any(own.id == c.id for c in self.base.plan.candidates):
            bank = compared.banked.bank
            assert bank is not None
            plain = not (own.unit_price or own.extras or own.fixes or own.struck or own.places or own.stages)
            return bank if plain else own
        return compared.banked.bank

    def rig(self, added: Added, weathers: int | None = 1) -> RigAfter:
        """The rig with improvements."""
        key = (key_of(added), weathers)
        if key not in self._rigs:
            go_on()
            self._rigs[key] = RigAfter(self.base, self.reference, added, weathers, like=self._like(weathers))
        return self._rigs[key]

    def _like(self, weathers: int | None) -> YearPlan | None:
        """The year of the base in so many weathers."""
        if weathers not in self._years:
            self._years[weathers] = YearPlan(self.base.simulated.year_plan.timeline, weathers)
        return self._years[weathers]

    def package(self, added: Added, choice: Choice, weathers: int | None = 1) -> Package | None:
        """A package; None where its bank will not do in that rig.

        Args:
            added: what is done in addition to what is planned.
            choice: a layout, a candidate, or None for the old bank.
            weathers: of the simulated years; None for as many as make them sure.
        """
        name = choice.id if isinstance(choice, Candidate) else choice
        key = ((*key_of(added), str(weathers)), name)
        if key not in self._known:
            go_on()
            self._known[key] = self._package(self.rig(added, weathers), choice)
        return self._known[key]

    def _package(self, rig: RigAfter, choice: Choice) -> Package | None:
        if choice is None:
            later = self._later(rig)
            return rig.package_kept(later) if later is not None else None
        made = self._compared(rig, choice)
        return None if made is None else rig.package(made)

    @staticmethod
    def _compared(rig: RigAfter, choice: Bank | Candidate) -> ComparedBank | None:
        """A bank in a rig; None where it will not do there."""
        made = rig.candidate(choice) if isinstance(choice, Candidate) else rig.compared(choice)
        return None if made is None or made.stopping is not None else made

    def _later(self, rig: RigAfter) -> ComparedBank | None:
        """What is bought in a rig when its old bank is worn out: the first seed that will do there,
        else the first bank that is proposed for it."""
        proposals = rig.results.banks.proposals
        of_rig = (p.bank for name in self.reference.classes for p in proposals[name].suitable[:1])
        made = (self._compared(rig, c) for c in chain(self.seeds, of_rig) if c is not None)
        return next((compared for compared in made if compared is not None), None)

    def price(self, one: Improvement) -> float:
        """What an improvement costs on the day, its work included [money]."""
        value = self.base.assumptions.value
        hour = value("workshop_rate" if self.base.plan.labour == WORKSHOP else "hour_rate")
        return one.prices(value("price_factor"))[1] + one.hours * hour

    @property
    def nothing(self) -> Package | None:
        """The old bank in the rig as it is today; None where it cannot be told how that goes on."""
        if self.base.plan.present is None:
            return self.package((), None, None)
        return self._package(RigAfter(self.base, self.reference, (), None, True), None)

    def smaller(self, choice: Choice) -> Choice:
        """The layout that is next below a choice in size; the same choice where there is none."""
        if not isinstance(choice, Bank):
            return choice
        if choice.parallel > 1:
            return Bank(choice.model, choice.series, choice.parallel - 1)
        found = self._least(choice.model.battery_class.key)
        return next((bank for bank in found if bank.kg < choice.kg), choice)

    def _least(self, key: str) -> tuple[Bank, ...]:
        """The leading banks of a class that hold the least share of the rule's need."""
        if key not in self._smallest:
            least = self.base.assumptions.value("verdict_least_share") * self.base.need.energy.number
            found = self.base.banks.proposals.search.holding(key, least)
            self._smallest[key] = tuple(p.bank for p in found)
        return self._smallest[key]

    def best_in(self, rig: RigAfter) -> tuple[Choice, ...]:
        """The leading bank of each class in a rig with another need or another place than the base; none in
        one that has the same."""
        moves = tuple(one for one in rig.added if not self.rig((one,)).same_days)
        if not moves:
            return ()
        key = key_of(moves)
        if key not in self._leading:
            proposals = self.rig(moves).results.banks.proposals
            self._leading[key] = tuple(
                priced.bank for name in self.reference.classes for priced in proposals[name].suitable[:1]
            )
        return self._leading[key]

    def grown(self, added: Added, choice: Choice, but: frozenset[str] = frozenset()) -> Iterator[Package]:
        """A package with each improvement that can still be added to it.

        Args:
            added, choice: the package.
            but: keys of improvements that are not tried.
        """
        done = {one.group for one in added}
        loads = {one.target for one in added if one.target}
        start = self.package(added, choice)
        ceiling = start.weighed if start is not None else float("inf")
        level = self.base.assumptions.value("price_factor")
        for one in self.options:
            if one.key in but or one.group in done or (one.target and one.target in loads):
                continue
            # What costs more than the whole package cannot pay.
            if one.prices(level)[1] >= ceiling:
                continue
            after = (*added, one)
            # With another need or another place another bank may be the best one.
            for other in each_once((choice, *self.best_in(self.rig(after)))):
                if (found := self.package(after, other)) is not None:
                    yield found

    def choice_of(self, package: Package) -> Choice:
        """The bank of a package, as it is looked for."""
        return None if package.bank == OLD else self.choice(package.compared)


def each_once(choices: Iterable[Choice]) -> list[Choice]:
    """Choices without those that came before."""
    out: list[Choice] = []
    for choice in choices:
        if choice not in out:
            out.append(choice)
    return out


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
    return made


def _packages(search: Search) -> Packages | None:
    base = search.base
    if not base.days.day.bank_wh.number or not base.simulated.has_year or base.verdict.kind in NOT_ASKED:
        return None
    return answer(look(search))


def look(search: Search) -> "Found":
    """Look at packages, each in one weather."""
    found = Found(search)
    for choice in (*search.seeds, None):
        found.note(search.package((), choice))
        found.note(search.package((), search.smaller(choice)))
    grow(found)
    return found


@dataclass
class Found:
    """The packages that were looked at, in one weather.

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

    def first_of(self, corner: Callable[[Package], object]) -> list[Package]:
        """The best of each kind, by what tells the kinds apart."""
        out: dict[object, Package] = {}
        for package in self.ranked:
            out.setdefault(corner(package), package)
        return list(out.values())


def grow(found: Found) -> None:
    """Add improvements to the best packages, until none pays any more."""
    search = found.search
    start = found.first_of(lambda p: (p.is_lead_acid, p.bank))[:BEAM]
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
    """The best few that differ in what is done or in what becomes of the bank."""
    out: dict[tuple[tuple[str, ...], str], Package] = {}
    for package in sorted(packages, key=lambda p: p.weighed):
        out.setdefault((key_of(package.improvements), package.bank), package)
    return list(out.values())[:BEAM]


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
            one = next(o for o in search.options if o.key == _new(package, added))
            own = search.price(one)
            if package.weighed - start.weighed < IDLE * own:
                useful.add(one.group)
    return frozenset(one.key for one in search.options if one.group not in useful)


def _new(package: Package, added: Added) -> str:
    """Key of what a package does in addition to some improvements."""
    before = {one.key for one in added}
    return next(one.key for one in package.added if one.key not in before)


def _pairs(found: Found, beam: Sequence[tuple[Added, Choice]], idle: frozenset[str]) -> list[Package]:
    """Pairs of improvements where one alone does not help: of those that make a package dearer the least."""
    search, out = found.search, []
    for added, choice in beam:
        start = search.package(added, choice)
        if start is None:
            continue
        single: dict[str, Improvement] = {}
        for package in sorted(search.grown(added, choice, idle), key=lambda p: p.weighed):
            last = next(o for o in search.options if o.key == _new(package, added))
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
            if pair is not None and pair.weighed < (1 - WORTH) * start.weighed:
                out.append(pair)
    return out


def answer(found: Found) -> Packages | None:
    """The best packages run in full, and the one that is advised."""
    search = found.search
    chosen = found.ranked[:IN_FULL]
    # The best of each family, and the old bank, stay in the picture.
    chosen += found.first_of(lambda p: (p.is_lead_acid, p.bank))
    full = [search.package(p.added, search.choice_of(p), None) for p in dict.fromkeys(chosen)]
    plain = _plain(search)
    made = {p.key: p for p in (plain, *full) if p is not None}
    if not made:
        return None
    ranked = sorted(made.values(), key=lambda p: p.weighed)
    worth = [p for p in ranked if _is_worth(p, plain)]
    best = worth[0] if worth else plain or ranked[0]
    return Packages(tuple(ranked), best, search.nothing)


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
    return search.package((), search.choice(verdict.winner), None)
