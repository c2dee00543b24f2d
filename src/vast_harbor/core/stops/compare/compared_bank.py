"""One column of the comparison: a candidate with all that is known of it."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import Figure, Finding, Sentence, escaped
from vast_harbor.core.stops.banks import COVERS_NEED, BankFigures
from vast_harbor.core.stops.charging import Suitability
from vast_harbor.core.stops.compare.cost import Cost
from vast_harbor.core.stops.compare.life import Life
from vast_harbor.core.stops.compare.required_extras import hard_findings, large_enough, met_codes, stopping
from vast_harbor.core.stops.trial import SimulationResult, YearOf
from vast_harbor.phrases import phrase

# What the id of a bank begins with that was found in the catalogue and is no candidate.
FOUND = "found:"


@dataclass(frozen=True, eq=False, repr=False)
class ComparedBank:
    """One candidate with all that is known of it.

    Attributes:
        banked, cost: what it is and gives, and what it costs.
        basis: by which its life goes, ``likely``, ``warranty`` or ``label_cycles``.
        make_life: tells how long it lasts.
        further: puts together the figures that only the comparison shows.
        year: its simulated year; None where none is run.
        go: runs it through the trial; None of a bank that is not run.
        suitability: its sources.
    """

    banked: BankFigures
    basis: str
    make_life: Callable[[], Life]
    cost: Cost
    further: Callable[[], dict[str, Figure]]
    year: YearOf | None = None
    go: Callable[[], SimulationResult | None] = lambda: None
    suitability: tuple[Suitability, ...] = ()

    @cached_property
    def life(self) -> Life:
        """How long it lasts."""
        return self.make_life()

    @cached_property
    def figures(self) -> dict[str, Figure]:
        """Figures that only the comparison shows, by name."""
        return self.further()

    @cached_property
    def simulated(self) -> SimulationResult | None:
        """How it went through the trial; None where it is not run."""
        return self.go()

    @property
    def id(self) -> str:
        """Id of the candidate."""
        return self.banked.candidate.id

    @property
    def is_own(self) -> bool:
        """Whether it is a candidate of the owner, with its quote and what they chose for it."""
        return not self.id.startswith(FOUND)

    @cached_property
    def met(self) -> frozenset[str]:
        """Codes of the findings that what is priced in puts right, and of the rule's need where the year
        shows that less will do."""
        met = met_codes(self.cost.required_extras)
        return met | {COVERS_NEED} if self.serves else met

    @property
    def serves(self) -> bool:
        """Whether a bank smaller than the rule asks will do: it holds most of that and serves nearly every
        night."""
        return self.serves_nearly_all and large_enough(self.banked)

    @property
    def serves_nearly_all(self) -> bool:
        """Whether its simulated year, at the age that is planned for, serves nearly every night and every
        critical load."""
        year, build = self.year, self.banked.build
        if year is None or build is None or year["critical"].number:
            return False
        return year["served_share"].number >= build.assumptions.value("verdict_served")

    @property
    def hard(self) -> tuple[Finding, ...]:
        """Findings of its checks for which it will not do, of which the remedy is not priced in."""
        return hard_findings(self.banked.findings, self.met)

    @property
    def stopping(self) -> tuple[Sentence, str] | None:
        """Why it will not do even with what is priced in, and what would bring it back; else None."""
        return stopping(self.banked.findings, self.suitability, self.met)

    @property
    def stopped(self) -> bool:
        """Whether a check says that it will not do, even with what is priced in."""
        return bool(self.hard)

    @property
    def title(self) -> str:
        """The bank as one would ask for it in a shop, safe inside a template."""
        bank = self.banked.bank
        assert bank is not None
        return bank.title

    def short(self, compared_banks: Sequence["ComparedBank"]) -> str:
        """Its name inside a sentence: its class, with the model where two share the class."""
        same = [c for c in compared_banks if c.banked.battery_class.key == self.banked.battery_class.key]
        bank = self.banked.bank
        if len(same) == 1 or bank is None:
            return self.banked.battery_class.short
        name = escaped(f"{bank.model.title} × {bank.units}")
        alike = sum(c.banked.bank == bank for c in same)
        return (
            phrase("compare.compared_bank.extras", name=name)
            if alike > 1 and self.banked.candidate.extras
            else name
        )

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the bank: of its candidate, year, life and money."""
        yield from self.banked.figures.values()
        yield from (extra.price for extra in self.cost.required_extras)
        yield from self.year.figures.values() if self.year is not None else ()
        yield from (*self.life.figures.values(), *self.cost.figures.values(), *self.figures.values())
