"""The banks of the catalogue that the verdict looks at beside the candidates."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.stops.banks import (
    DOES_HARM,
    BankFigures,
    Banks,
    Build,
    QuickLifeCost,
    RigLimits,
    of_bank,
)
from vast_harbor.core.stops.charging import suitability_of
from vast_harbor.core.stops.compare import (
    FOUND,
    HARMFUL,
    CatalogueSearch,
    ComparedBank,
    compared_bank,
    may_do,
    required_extras,
)
from vast_harbor.core.stops.trial import SimulatedRuns, SimulationResult, YearOf

# So many banks are tried at most.
MOST_TRIED = 8


@dataclass(frozen=True)
class CatalogueBanks:
    """The catalogue beside a plan with candidates.

    Attributes:
        banks: the candidates, and the rig as a bank meets it.
        simulated: trial and year.
    """

    banks: Banks
    simulated: SimulatedRuns

    def compared(self, bank: Bank, year: Callable[[Build], YearOf | None]) -> ComparedBank:
        """A bank of the catalogue with its life and its money.

        Args:
            bank: its layout.
            year: gives its simulated year; None where none is run.
        """
        return _compared(self.banks.rig_limits, self._banked(bank), self.banks.old_kg, year)

    def in_full(self, bank: Bank) -> ComparedBank:
        """The same with its year run, and its trial where it is asked for."""
        limits, year = self.banks.rig_limits, self.simulated.year_of_build
        return _compared(limits, self._banked(bank), self.banks.old_kg, year, self.simulated.through)

    def that_will_do(self, bank: Bank) -> ComparedBank | None:
        """The same; None where the bank will not do."""
        limits, year = self.banks.rig_limits, self.simulated.year_of_build
        return that_will_do(limits, self._banked(bank), self.banks.old_kg, year)

    def _banked(self, bank: Bank) -> BankFigures:
        key = f"{FOUND}{bank.model.battery_class.key}"
        return of_bank(self.banks.rig_limits, bank, self.banks.old_kg, key)

    def best(self) -> tuple[ComparedBank, ...]:
        """The best bank of each class; none where nothing is drawn."""
        limits = self.banks.rig_limits
        if not limits.days.day.bank_wh.number:
            return ()
        search = CatalogueSearch(limits.plan, limits.assumptions, self.banks.proposals, self.in_full)
        return tuple(found for found in search.best() if found is not None)

    def smallest(self) -> ComparedBank | None:
        """The cheapest bank to buy that does no harm here; None where there is none."""
        limits = self.banks.rig_limits
        look, plan = QuickLifeCost(limits), limits.plan
        single = [
            Bank(m, round(plan.system_v / m.unit_class_v), 1)
            for m in plan.models.values()
            if plan.system_v % m.unit_class_v == 0 and m.used is None and m.portable is None
        ]
        tried = 0
        for bank in sorted(single, key=look.purchase):
            if set(limits.against(bank)) & DOES_HARM:
                continue
            compared = self.compared(bank, self.simulated.year_of_build)
            if not any(f.code in HARMFUL for f in compared.hard):
                return compared
            tried += 1
            if tried >= MOST_TRIED:
                break
        return None

    def gone_on_with(self, found: tuple[Bank, YearOf | None] | None) -> tuple[ComparedBank, ...]:
        """What was found before an edit, where it still fits the rig: the bank, and the year it had then."""
        if found is None:
            return ()
        bank, year = found
        limits = self.banks.rig_limits
        fits = bank.series * bank.model.unit_class_v == limits.plan.system_v
        will_do = fits and limits.plan.models.get(bank.model.id) == bank.model
        return (self.compared(bank, lambda build: year),) if will_do else ()


def that_will_do(
    limits: RigLimits, banked: BankFigures, old_kg: Figure | None, year: Callable[[Build], YearOf | None]
) -> ComparedBank | None:
    """A bank with its life and its money; None where it will not do.

    Args:
        limits: the rig as a bank meets it.
        banked: in figures.
        old_kg: weight of the old bank [kg]; None without one.
        year: gives its simulated year. It is not asked for where something else forbids the bank.
    """
    if banked.build is None:
        return None
    suitability = suitability_of(banked.build)
    if not may_do(banked, suitability, required_extras(banked.build, banked.checks, suitability)):
        return None
    made = _compared(limits, banked, old_kg, year)
    return made if made.stopping is None else None


def _compared(
    limits: RigLimits,
    banked: BankFigures,
    old_kg: Figure | None,
    year: Callable[[Build], YearOf | None],
    go: Callable[[Build], SimulationResult | None] = lambda _: None,
) -> ComparedBank:
    build = banked.build
    assert build is not None
    look = QuickLifeCost(limits)
    return compared_bank(look, banked, old_kg, year(build), partial(go, build), suitability_of(build))
