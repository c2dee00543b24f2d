"""What is to be done with the old bank: rule 1 of the verdict."""

from dataclasses import dataclass

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import Banks
from vast_harbor.core.stops.need import Days
from vast_harbor.core.stops.rig import AT_FAULT, BANK, CHARGER, DRAIN, UNKNOWN, tested_health

# A bank of this age is sound where no sign says otherwise [years].
YOUNG_YEARS = 2.0


@dataclass(frozen=True, repr=False)
class OldBankVerdict:
    """The old bank of a rig.

    Attributes:
        plan, assumptions, days, banks: the plan in figures.
    """

    plan: Plan
    assumptions: Assumptions
    days: Days
    banks: Banks

    @property
    def danger(self) -> str:
        """What makes the old bank dangerous, in words; empty where nothing does."""
        diagnosis = self.banks.diagnosis
        return diagnosis.danger if diagnosis is not None else ""

    @cached_property
    def kept(self) -> bool:
        """Whether it serves on: known to be sound, and large enough."""
        usable, old = self.banks.old_carries.get("usable_wh"), self.plan.old_bank
        if usable is None or self.danger or old is None or not old.kept:
            return False
        if not self.tested and not self.young_and_sound:
            return False
        return usable.number >= self.days.need.energy.number

    @cached_property
    def tested(self) -> bool:
        """Whether a capacity test tells the health of the old bank."""
        return tested_health(self.plan, self.assumptions) is not None

    @property
    def young_and_sound(self) -> bool:
        """Whether age and every sign say that the old bank is sound, so that it needs no test to be kept."""
        old, diagnosis = self.plan.old_bank, self.banks.diagnosis
        if old is None or diagnosis is None or old.age_years is None or old.age_years > YOUNG_YEARS:
            return False
        bank = next(s for s in diagnosis.suspects if s.key == BANK)
        return diagnosis.agree and bank.verdict not in (AT_FAULT, UNKNOWN)

    @cached_property
    def at_fault(self) -> tuple[str, ...]:
        """Which of the suspects are at fault: bank, charger, drain, use."""
        diagnosis = self.banks.diagnosis
        return () if diagnosis is None else diagnosis.at_fault

    @cached_property
    def mended(self) -> bool:
        """Whether something else is to be mended first: it is not the bank that is at fault."""
        return not self.danger and BANK not in self.at_fault and bool({CHARGER, DRAIN} & set(self.at_fault))

    @property
    def has_sound_bank(self) -> bool:
        """Whether there is one that does no harm."""
        return self.plan.old_bank is not None and not self.danger
