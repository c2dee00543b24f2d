"""Packages looked at one by one: a bank with what is done beside it, each tried once."""

from collections.abc import Generator, Iterable, Iterator
from dataclasses import dataclass, field, replace
from itertools import chain

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.cost.cash_flow import annuity
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.improvements import JOIN, Improvement, options
from vast_harbor.core.packages.old_bank import may_be_joined
from vast_harbor.core.packages.rig_after import RigAfter
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.plan import Candidate
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.compare import ComparedBank, Package
from vast_harbor.core.stops.trial import old_bank_as_bank

# So many banks of a class below the need are looked at for a smaller one.
MOST_SMALLER = 3
# So many banks of the class of the best package are tried with what is done in it.
MOST_RIVALS = 4
# Banks of the plan that go into the search, the cheapest of each class first.
SEEDS = 4
# The old bank is kept where it lasts so long still [years].
LEAST_KEPT_YEARS = 1.0
# An improvement that makes a package dearer by its own price, give or take this share, is of no use [-].
IDLE = 0.05
# An improvement is added where it makes the package cheaper by this share [-].
WORTH = 0.004
Added = tuple[Improvement, ...]
Choice = Bank | Candidate | None


def possible(base: Results, reference: Reference) -> Added:
    """What can be done beside the bank of a plan in addition to what is planned, and what its old bank shows
    does not forbid.

    Args:
        base: the plan in figures.
        reference: shipped data.
    """
    found = options(base.plan, reference, base.assumptions)
    joins = old_bank_as_bank(base.plan) is not None and may_be_joined(base.banks.diagnosis)
    return tuple(one for one in found if joins or one.kind.key != JOIN)


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
    _few: int | None = 1
    _rigs: dict[tuple[tuple[str, ...], int | None], RigAfter] = field(default_factory=dict)
    _known: dict[tuple[tuple[str, ...], object], Package | None] = field(default_factory=dict)
    _smallest: dict[str, tuple[Bank, ...]] = field(default_factory=dict)
    _leading: dict[tuple[str, ...], tuple[Choice, ...]] = field(default_factory=dict)

    @cached_property
    def options(self) -> tuple[Improvement, ...]:
        """What can be done beside the bank."""
        return possible(self.base, self.reference)

    def look_in_full(self) -> None:
        """Look at every package in full, where a single weather tells too little of this rig."""
        self._few = None

    @cached_property
    def seeds(self) -> tuple[Choice, ...]:
        """Banks that the search starts from: the best of each class, the cheapest first."""
        verdict = self.base.verdict
        out: dict[str, ComparedBank] = {}
        costs = {c.id: c.cost["lifetime"].number for c in verdict.compared_banks}
        for compared in sorted(verdict.compared_banks, key=lambda c: (c.stopping is not None, costs[c.id])):
            out.setdefault(compared.banked.battery_class.key, compared)
        first = sorted(out.values(), key=lambda c: (c.stopping is not None, costs[c.id]))[:SEEDS]
        return tuple(self.choice(c) for c in first)

    def choice(self, compared: ComparedBank) -> Choice:
        """A bank as it is looked for: its layout, or the candidate with what its owner chose for it."""
        own, bank = compared.banked.candidate, compared.banked.bank
        bare = Candidate(own.id, own.battery_class)
        plain = replace(own, model=None, series=None, parallel=None) == bare
        return own if compared.is_own and not plain else bank

    def rig(self, added: Added, full: bool = False) -> RigAfter:
        """The rig with improvements; its years in full, or in the few weathers of the first look."""
        weathers = None if full else self._few
        key = (key_of(added), weathers)
        if key not in self._rigs:
            go_on()
            self._rigs[key] = RigAfter(
                self.base, self.reference, added, weathers, like=self._like(added, full)
            )
        return self._rigs[key]

    def _like(self, added: Added, full: bool) -> RigAfter | None:
        """A rig with those improvements only that change a day or the need; None where there is no other."""
        moves = self.moves(added) if len(added) > 1 else ()
        return self.rig(moves, full) if added and moves != added else None

    def moves(self, added: Added) -> Added:
        """Improvements that change a day or the need."""
        return tuple(one for one in added if not self.rig((one,)).same_days)

    def package(self, added: Added, choice: Choice, full: bool = False) -> Package | None:
        """A package; None where its bank will not do in that rig.

        Args:
            added: what is done in addition to what is planned.
            choice: a layout, a candidate, or None for the old bank.
            full: whether its year is run in as many weathers as make it sure, or in few for a first look.
        """
        name = choice.id if isinstance(choice, Candidate) else choice
        key = ((*key_of(added), str(None if full else self._few)), name)
        if key not in self._known:
            go_on()
            self._known[key] = self._package(self.rig(added, full), choice)
        return self._known[key]

    def _package(self, rig: RigAfter, choice: Choice) -> Package | None:
        if choice is None:
            # A bank that is worn out within the year is not kept: the work would be done twice.
            kept = rig.kept
            return self._kept(rig) if kept is not None and kept.years >= LEAST_KEPT_YEARS else None
        made = self._compared(rig, choice)
        return None if made is None else rig.package(made)

    def _kept(self, rig: RigAfter) -> Package | None:
        later = self._later(rig)
        return rig.package_kept(later) if later is not None else None

    @staticmethod
    def _compared(rig: RigAfter, choice: Bank | Candidate) -> ComparedBank | None:
        """A bank in a rig; None where it will not do there."""
        return rig.candidate(choice) if isinstance(choice, Candidate) else rig.compared(choice)

    def _later(self, rig: RigAfter) -> ComparedBank | None:
        """What is bought in a rig when its old bank is worn out: the first seed that will do there,
        else the first bank that is proposed for it."""
        made = (self._compared(rig, c) for c in chain(self.seeds, self._firsts(rig)) if c is not None)
        return next((compared for compared in made if compared is not None), None)

    def _by_itself(self, one: Improvement) -> float:
        """What an improvement costs at least over the years, whatever it saves [money]."""
        value, years = self.base.assumptions.value, self.base.plan.years_kept
        yearly = one.yearly * float(annuity(float(years), value("discount_rate")))
        return one.prices(value("price_factor"))[1] + yearly

    @property
    def nothing(self) -> Package | None:
        """The old bank in the rig as it is today; None where it cannot be told how that goes on."""
        if self.base.plan.present is None:
            return self._kept(self.rig((), True))
        return self._kept(RigAfter(self.base, self.reference, (), None, True))

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
            found = self.base.banks.proposals.search.holding(key, least, MOST_SMALLER)
            self._smallest[key] = tuple(p.bank for p in found)
        return self._smallest[key]

    def best_in(self, rig: RigAfter) -> tuple[Choice, ...]:
        """The leading bank of each class in a rig with another need or another place than the base; none in
        one that has the same."""
        moves = self.moves(rig.added)
        if not moves:
            return ()
        key = key_of(moves)
        if key not in self._leading:
            self._leading[key] = tuple(self._firsts(self.rig(moves)))
        return self._leading[key]

    def rivals(self, package: Package) -> tuple[Choice, ...]:
        """The leading banks of the class of a package where the need or the place is another one than in the
        base: of the base the verdict tries them. None for a package that keeps the old bank."""
        moves = self.moves(package.added)
        if not moves or package.keeps:
            return ()
        leading = self.rig(moves).results.banks.proposals[package.class_key].suitable
        return tuple(priced.bank for priced in leading[:MOST_RIVALS])

    def _firsts(self, rig: RigAfter) -> Iterator[Bank]:
        """The leading bank of each class in a rig."""
        proposals = rig.results.banks.proposals
        found = (proposals[name].first for name in self.reference.classes)
        return (priced.bank for priced in found if priced is not None)

    def grown(self, added: Added, choice: Choice, but: frozenset[str] = frozenset()) -> Iterator[Package]:
        """A package with each improvement that can still be added to it.

        Of those that come in several sizes the one in the middle is tried, and from there on larger or
        smaller ones as long as they make the package cheaper.

        Args:
            added, choice: the package.
            but: keys of improvements that are not tried.
        """
        done = {one.group for one in added}
        loads = {one.target for one in added if one.target}
        start = self.package(added, choice)
        ceiling = start.weighed if start is not None else float("inf")
        level = self.base.assumptions.value("price_factor")
        groups: dict[str, list[Improvement]] = {}
        for one in self.options:
            # What costs more than the whole package cannot pay; alone it may let one get by with less money
            # on the day.
            known = one.key in but or one.group in done or (one.target and one.target in loads)
            least = self._by_itself(one) if added else one.prices(level)[1]
            if not known and least < ceiling:
                groups.setdefault(one.group, []).append(one)
        for sizes in groups.values():
            middle = len(sizes) // 2
            here = yield from self._with(added, choice, sizes[middle])
            if is_idle(start, self.package((*added, sizes[middle]), choice)):
                continue
            for way in (sizes[middle + 1 :], sizes[:middle][::-1]):
                least = here
                for one in way:
                    cost = yield from self._with(added, choice, one)
                    if cost >= least:
                        break
                    least = cost
                if least < here:
                    break

    def _with(self, added: Added, choice: Choice, one: Improvement) -> Generator[Package, None, float]:
        """A package with one more improvement and each bank that may be the best one then; the least cost of
        them, no limit where none will do."""
        after, least = (*added, one), float("inf")
        # With another need or another place another bank may be the best one.
        others = self.best_in(self.rig(after)) if self.moves((one,)) else ()
        for other in each_once((choice, *others)):
            if (found := self.package(after, other)) is not None:
                least = min(least, found.weighed)
                yield found
        return least

    def choice_of(self, package: Package) -> Choice:
        """The bank of a package, as it is looked for."""
        return None if package.keeps else self.choice(package.compared)


def each_once(choices: Iterable[Choice]) -> list[Choice]:
    """Choices without those that came before."""
    out: list[Choice] = []
    for choice in choices:
        if choice not in out:
            out.append(choice)
    return out


def is_idle(before: Package | None, after: Package | None) -> bool:
    """Whether what is added to a package changes nothing in it but what it costs itself; not where one of
    them is None, nor where it takes the place of something dearer."""
    if before is None or after is None or after.weighed < before.weighed:
        return False
    price = after.outlay - before.outlay
    return abs(after.weighed - before.weighed - price) <= max(IDLE * abs(price), WORTH * before.weighed)
