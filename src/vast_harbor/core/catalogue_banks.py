"""The banks of the catalogue that the verdict looks at beside the candidates."""

from collections.abc import Callable
from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.stops.banks import DOES_HARM, Banks, Build, QuickLifeCost, of_bank
from vast_harbor.core.stops.charging import suitability_of
from vast_harbor.core.stops.compare import FOUND, HARMFUL, CatalogueSearch, ComparedBank, compared_bank
from vast_harbor.core.stops.trial import SimulatedRuns, YearOf

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
        limits, old = self.banks.rig_limits, self.banks.old_kg
        banked = of_bank(limits, bank, old, f"{FOUND}{bank.model.battery_class.key}")
        assert banked.build is not None
        return compared_bank(
            QuickLifeCost(limits), banked, old, year(banked.build), None, suitability_of(banked.build)
        )

    def in_full(self, bank: Bank) -> ComparedBank:
        """The same with its year run."""
        return self.compared(bank, self.simulated.year_of_build)

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
