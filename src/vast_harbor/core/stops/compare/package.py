"""A package: a bank with what is done beside it, and what the two come to together."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import REFERENCE, Figure
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.nearest_bank import NearestBank
from vast_harbor.phrases import phrase

# What becomes of the bank: a new one is bought, or the old one stays.
NEW, OLD = "new", "old"
# Steps of the ladder, the least first.
NOTHING, SMALLEST, ADVISED, FULL = "nothing", "smallest", "advised", "full"
# A package is fuller than another where its bank holds so many times as much.
LARGER = 1.3
# Shares of the nights for which the cheapest package is told [-].
LEVELS = (0.95, 0.99, 0.999)


@dataclass(frozen=True, eq=False)
class Package:
    """A bank with what is done beside it.

    Attributes:
        plan: the rig as it is then.
        improvements: what is done beside the bank, in the order of doing; what was planned already is part.
        added: those of them that were not planned yet.
        bank: what becomes of the bank, ``new`` or ``old``.
        compared: the new bank; of a package that keeps the old one, what is bought when that is worn out.
        weighed: what it costs over the years, the expensive futures weighed too [money].
        lifetime: the middle of that [money].
        outlay: what it costs on the day [money].
        served: share of the nights that are wanted which it serves in full when the bank is old [-].
        kg: mass of its bank, and of what is fitted beside it [kg].
        kept_years: how long the old bank is kept [years]; 0 for a new one.
    """

    plan: Plan
    improvements: tuple[Improvement, ...]
    added: tuple[Improvement, ...]
    bank: str
    compared: ComparedBank
    weighed: float
    lifetime: float
    outlay: float
    served: float
    kg: float
    kept_years: float = 0.0

    @property
    def key(self) -> str:
        """Name of the package, the same for the same things."""
        return "+".join((*(one.key for one in self.improvements), self.bank_key))

    @property
    def bank_key(self) -> str:
        """Name of its bank: its layout, or the candidate, since the same layout at its owner's quote is
        another one."""
        made = self.compared.banked.bank
        assert made is not None
        if self.keeps:
            return OLD
        return self.compared.id if self.compared.is_own else f"{made.model.id}-{made.series}x{made.parallel}"

    @property
    def keeps(self) -> bool:
        """Whether the old bank is kept as long as it lasts."""
        return self.bank == OLD

    @property
    def _battery_class(self) -> BatteryClass:
        old = self.plan.old_bank
        return old.battery_class if self.keeps and old is not None else self.compared.banked.battery_class

    @property
    def class_key(self) -> str:
        """Key of the class of its bank; of a package that keeps the old bank, of that one."""
        return self._battery_class.key

    @property
    def is_lead_acid(self) -> bool:
        """Whether its bank is lead-acid; of a package that keeps the old bank, that one."""
        return self._battery_class.is_lead_acid

    @property
    def hours(self) -> float:
        """Work [h]."""
        if not self.keeps:
            return self.compared.cost["hours"].number
        return sum(one.hours for one in self.improvements)

    @cached_property
    def figures(self) -> dict[str, Figure]:
        """``outlay``, ``lifetime``, ``served``, ``kg``, ``hours``, ``years`` that the old bank is kept.

        Of a new bank ``usable``, ``cycles`` and ``per_cycle``, too.
        """
        values: dict[str, tuple[float | None, str]] = {
            "outlay": (self.outlay, "money"), "lifetime": (self.lifetime, "money"),
            "served": (self.served, "%"), "kg": (self.kg, "kg"),
            "hours": (self.hours, "h"), "years": (self.kept_years, "years"),
        }  # fmt: skip
        if not self.keeps:
            values |= _of_bank(self.compared)
        return _told(f"package.{self.key}", values)


def figures_alone(compared: ComparedBank) -> dict[str, Figure]:
    """The figures of a package for a bank with which none is made, as it is and with nothing beside it."""
    cost = compared.cost
    values: dict[str, tuple[float | None, str]] = {
        "outlay": (cost.outlay.number, "money"), "lifetime": (cost["lifetime"].number, "money"),
        "kg": (compared.banked["kg"].number, "kg"), **_of_bank(compared),
    }  # fmt: skip
    return _told(f"alone.{compared.id}", values)


def _of_bank(compared: ComparedBank) -> dict[str, tuple[float | None, str]]:
    return {
        "usable": (compared.banked["usable_wh"].number, "Wh"),
        "cycles": (compared.life["design_cycles"].value, "cycles"),
        "per_cycle": (compared.cost["per_cycle"].value, "money/cycle"),
    }


def _told(at: str, values: dict[str, tuple[float | None, str]]) -> dict[str, Figure]:
    return {
        key: Figure(f"{at}.{key}", TOLD[key][0], value, unit, REFERENCE, source=TOLD[key][1])
        for key, (value, unit) in values.items()
    }


# What the figures of a package are called, and where they come from.
TOLD = {
    "outlay": (phrase("compare.package.outlay"), phrase("compare.package.outlay_source")),
    "lifetime": (phrase("compare.package.lifetime"), phrase("compare.package.lifetime_source")),
    "served": (phrase("compare.package.served"), phrase("compare.package.served_source")),
    "kg": (phrase("compare.package.kg"), phrase("compare.package.kg_source")),
    "hours": (phrase("compare.package.hours"), phrase("compare.package.hours_source")),
    "usable": (phrase("compare.package.usable"), phrase("compare.package.usable_source")),
    "cycles": (phrase("compare.package.cycles"), phrase("compare.package.cycles_source")),
    "per_cycle": (phrase("compare.package.per_cycle"), phrase("compare.package.per_cycle_source")),
    "years": (phrase("compare.package.years"), phrase("compare.package.years_source")),
}


@dataclass(frozen=True, eq=False)
class Packages:
    """What came of looking at packages.

    Attributes:
        all: those that were run in full, the one of least cost first.
        advised: the one that is advised.
        nothing: the old bank as it is, with nothing done; None without one whose health is known.
    """

    all: tuple[Package, ...]
    advised: Package
    nothing: Package | None = None

    @cached_property
    def front(self) -> tuple[Package, ...]:
        """Of all of them, those of :func:`front_of`."""
        return front_of(self.all)

    def serving(self, share: float) -> Package | None:
        """The package of least cost that serves such a share of the nights [-]; None where none does."""
        will_do = [p for p in self.all if p.served >= share - 1e-9]
        return min(will_do, key=lambda p: p.weighed) if will_do else None

    def best_of(self, lead_acid: bool) -> Package | None:
        """The package of least cost with a bank of a family; None where none was found."""
        same = [p for p in self.all if p.is_lead_acid == lead_acid and not p.keeps]
        return min(same, key=lambda p: p.weighed) if same else None

    @cached_property
    def ladder(self) -> tuple[tuple[str, Package], ...]:
        """Steps from nothing to everything, each with its package; none of them twice."""
        out: list[tuple[str, Package]] = []
        if self.nothing is not None:
            out.append((NOTHING, self.nothing))
        least = self.nothing.weighed if self.nothing is not None else float("inf")
        helps = [p for p in self.all if p.weighed < least and p.outlay < self.advised.outlay - 1e-9]
        helps = [p for p in helps if p.served >= LEVELS[0] or p.served > self.advised.served]
        if helps:
            out.append((SMALLEST, min(helps, key=lambda p: (p.outlay, p.weighed))))
        out.append((ADVISED, self.advised))
        more = [p for p in self.all if p.outlay > self.advised.outlay + 1e-9 and _fuller(p, self.advised)]
        if more:
            out.append((FULL, min(more, key=lambda p: p.weighed)))
        return tuple(out)


def front_of(packages: Iterable[Package]) -> tuple[Package, ...]:
    """For every amount of money on the day the package of least cost over the years, the cheapest on the day
    first."""
    out: list[Package] = []
    for one in sorted(packages, key=lambda p: (p.outlay, p.weighed)):
        if not out or one.weighed < out[-1].weighed:
            out.append(one)
    return tuple(out)


def _fuller(package: Package, than: Package) -> bool:
    """Whether a package serves at least as many nights, and holds clearly more."""
    usable = package.compared.banked["usable_wh"].number
    larger = usable >= LARGER * than.compared.banked["usable_wh"].number
    return not package.keeps and package.served >= than.served - 1e-9 and larger


@dataclass
class Answer:
    """Where the packages of a verdict are put once they were looked for: until then there are none.

    Attributes:
        packages: what came of it; None until then.
        nearest: where no package was found, the banks that come nearest to a limit of the rig.
    """

    packages: Packages | None = field(default=None)
    nearest: tuple[NearestBank, ...] = ()
