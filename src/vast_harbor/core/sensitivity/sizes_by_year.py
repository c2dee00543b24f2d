"""Sizing by the year: how small a bank of each class may be to serve so many nights when it is old."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import Figure, Sentence
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import HEATER, BankFigures, of_bank
from vast_harbor.core.stops.compare import LEVELS
from vast_harbor.phrases import phrase

# Banks are looked at that hold these shares of the house rule's need [-].
SHARES = (0.15, 0.2, 0.27, 0.35, 0.45, 0.6, 0.75, 0.9, 1.0, 1.2, 1.5, 2.0, 2.7, 3.6)
# The share of the nights by which the rule is judged [-].
JUDGED = 0.99
# The rule and the year agree where they differ by no more than this: batteries come in steps [-].
AGREE = 0.12
# What the id of a bank begins with that is looked at for its size.
SIZED = "size:"


@dataclass(frozen=True, eq=False)
class Size:
    """The smallest bank of a class that serves a share of the nights.

    Attributes:
        share: of the off-grid nights [-].
        bank: its layout.
        title: its name, safe inside a template.
        usable: energy that it gives in use [Wh].
        served: share of the nights that it serves in full when it is old [%].
    """

    share: float
    bank: Bank
    title: str
    usable: Figure
    served: Figure


@dataclass(frozen=True, eq=False)
class ClassSizes:
    """A class of battery, by the year.

    Attributes:
        battery_class: which.
        sizes: the smallest bank for each of ``LEVELS``; None where no bank that will do here serves it.
        why: why it needs so much more than another class; None where it does not, or that is not known.
    """

    battery_class: BatteryClass
    sizes: tuple[Size | None, ...]
    why: Sentence | None = None

    @property
    def judged(self) -> Size | None:
        """The smallest bank for the share of the nights by which the rule is judged."""
        return next((s for s in self.sizes if s is not None and s.share == JUDGED), None)


@dataclass(frozen=True, eq=False)
class SizesByYear:
    """Sizing by the year beside the house rule.

    Attributes:
        classes: those of which some bank serves the least share, or of which it is known why none does.
        need: usable energy that the house rule asks for [Wh].
        says: which way the rule differs from the year.
    """

    classes: tuple[ClassSizes, ...]
    need: Figure
    says: Sentence


@dataclass(eq=False)
class _Class:
    """The banks of one class, the smallest first, each with its year once."""

    results: Results
    key: str
    rows: Sequence[Bank]
    _known: dict[int, tuple[BankFigures, Figure | None]] = field(default_factory=dict)

    def at(self, i: int) -> tuple[BankFigures, Figure | None]:
        """A bank in figures, with the share of the nights that it serves when old; None without a year."""
        if i not in self._known:
            go_on()
            banks = self.results.banks
            made = of_bank(banks.rig_limits, self.rows[i], banks.old_kg, f"{SIZED}{self.key}-{i}")
            assert made.build is not None
            year = self.results.simulated.year_of_build(made.build)
            self._known[i] = made, None if year is None else year["served_share"]
        return self._known[i]

    def smallest(self, share: float) -> Size | None:
        """The smallest bank that serves a share of the nights, by halving: a larger one serves no fewer."""
        low, high = 0, len(self.rows) - 1
        if high < 0 or not self._serves(high, share):
            return None
        while low < high:
            middle = (low + high) // 2
            if self._serves(middle, share):
                high = middle
            else:
                low = middle + 1
        made, served = self.at(high)
        assert served is not None
        return Size(share, self.rows[high], self.rows[high].title, made["usable_wh"], served)

    def why(self, judged: Size | None, least: float) -> Sentence | None:
        """Why it takes so much more of this class than of another to serve the nights, or why none does.

        Args:
            judged: the smallest bank that serves the share by which the rule is judged; None for none.
            least: usable energy of the smallest such bank of all classes [Wh].
        """
        if not self.rows or (judged is not None and judged.usable.number <= (1 + AGREE) * least):
            return None
        build = self.at(len(self.rows) - 1)[0].build
        if build is not None and not build.lead and build.criteria.cold_charge.broken:
            heats = build.criteria.cold_answer == HEATER
            return Sentence(phrase("changes.sizes.heats") if heats else phrase("changes.sizes.cold"))
        if judged is not None and judged.bank == self.rows[0]:
            return Sentence(phrase("changes.sizes.smallest"))
        return None

    def _serves(self, i: int, share: float) -> bool:
        served = self.at(i)[1]
        return served is not None and served.number >= share - 1e-9


def sizes_by_year(results: Results, reference: Reference) -> SizesByYear | None:
    """Sizing by the year, beside the house rule.

    Of each class the banks of least lifetime cost are looked at that hold so much, and that nothing but the
    house rule's need stands against.

    Args:
        results: the plan in figures.
        reference: shipped data.

    Returns:
        None where nothing is drawn, or where no off-grid night of the year can be run.
    """
    return results.once("sizes", lambda: _sizes(results, reference))


def _sizes(results: Results, reference: Reference) -> SizesByYear | None:
    if not results.days.day.bank_wh.number or not results.simulated.has_year:
        return None
    if not results.plan.off_grid_nights:
        return None
    need = results.need.energy
    looked = {key: _Class(results, key, _rows(results, key)) for key in reference.classes}
    found = [
        ClassSizes(reference.classes[key], tuple(one.smallest(share) for share in LEVELS))
        for key, one in looked.items()
    ]
    judged = [one.judged for one in found if one.judged is not None]
    least = min((size.usable.number for size in judged), default=0.0)
    told = (replace(one, why=looked[one.battery_class.key].why(one.judged, least)) for one in found)
    return SizesByYear(
        tuple(one for one in told if any(one.sizes) or one.why is not None), need, _says(judged, need)
    )


def _rows(results: Results, key: str) -> list[Bank]:
    """The leading banks of a class that hold each share of the need, the smallest first, each once."""
    search, need = results.banks.proposals.search, results.need.energy.number
    found = {p.bank: None for share in SHARES for p in search.holding(key, share * need, 1)}
    usable = results.banks.rig_limits.usable_wh
    return sorted(found, key=usable)


def _says(judged: Sequence[Size], need: Figure) -> Sentence:
    """Which way the house rule differs from the year, by the class that needs least."""
    if not judged:
        return Sentence(phrase("changes.sizes.none"), {"need": need})
    least = min(judged, key=lambda size: size.usable.number)
    figures = {"need": need, "usable": least.usable}
    apart = least.usable.number / need.number - 1
    if abs(apart) <= AGREE:
        return Sentence(phrase("changes.sizes.agree", title=least.title), figures)
    if apart < 0:
        return Sentence(phrase("changes.sizes.rule_asks_more", title=least.title), figures)
    return Sentence(phrase("changes.sizes.rule_asks_less", title=least.title), figures)
