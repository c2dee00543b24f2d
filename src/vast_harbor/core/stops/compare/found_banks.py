"""The best banks of the whole catalogue, class by class, run in full."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import Priced, Proposals, next_string
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.uncertainty import weighed_cost

# Banks of each class that are run in full, the least lifetime cost by hand first; more of them where the best
# of these leaves nights or critical loads without.
RUN_IN_FULL = 3
# Strings that are added, one after the other, to the best of a class where it leaves nights or critical loads
# without: as long as that costs less.
MORE_STRINGS = 4
# Models of a class that are tried so.
MORE_MODELS = 4
# Where what is not supplied is so much of what a bank costs [-], banks of its class that hold so many times
# as much are tried as well, and taken where that costs less by the margin [-].
COSTLY, TIMES_LARGER, MARGIN = 0.1, (1.2, 1.6, 2.5, 4.0), 0.02
RunInFull = Callable[[Bank], ComparedBank]


@dataclass(frozen=True)
class CatalogueSearch:
    """The search of the catalogue for a rig.

    Attributes:
        plan, assumptions: the plan and what holds for it.
        proposals: of each class.
        run_in_full: runs a year of a bank, audits its sources and works out its money.
    """

    plan: Plan
    assumptions: Assumptions
    proposals: Proposals
    run_in_full: RunInFull

    def best(self) -> Iterator[ComparedBank | None]:
        """The best of each class, one after the other; None for a class of which none will do."""
        for key, proposal in self.proposals.items():
            best = self._best(proposal.suitable)
            if best is not None:
                best = self._with_larger(key, best)
            yield self._smaller(key, best)

    def _best(self, leading: tuple[Priced, ...]) -> ComparedBank | None:
        ran = [self.run_in_full(p.bank) for p in leading[:RUN_IN_FULL]]
        will_do = [c for c in ran if c.stopping is None]
        if not will_do:
            return None
        best = min(will_do, key=self._rank)
        if not self._dark(best):
            return best
        for p in leading[RUN_IN_FULL:]:
            if p.lifetime < self._rank(best):
                more = self.run_in_full(p.bank)
                best = min((best, more), key=self._rank) if more.stopping is None else best
        models = [best.banked.bank, *(p.bank for p in leading if p.bank != best.banked.bank)]
        for bank in models[:MORE_MODELS]:
            if bank is not None:
                best = self._with_more(best, bank)
        return best

    def _with_larger(self, key: str, best: ComparedBank) -> ComparedBank:
        """The best so far, or another model that holds more and does better."""
        usable = best.banked["usable_wh"].number
        for times in TIMES_LARGER:
            lacks = best.cost.inputs.elsewhere * self.plan.years_kept
            if lacks <= COSTLY * self._rank(best):
                break
            larger = self.proposals.search.holding(key, times * usable)
            more = self.run_in_full(larger[0].bank) if larger else None
            if more is None or more.stopping is not None:
                continue
            if self._rank(more) < (1 - MARGIN) * self._rank(best):
                best = more
        return best

    def _smaller(self, key: str, best: ComparedBank | None) -> ComparedBank | None:
        """The best so far, or a bank of the least share of the rule's need that will do and costs less."""
        if best is not None and not best.serves_nearly_all:
            return best
        need = self.proposals.search.look.rig_limits.days.need.energy.number
        least = self.assumptions.value("verdict_least_share")
        # Where none of the rule's size will do, one between may.
        for share in (least,) if best is not None else (least, (1 + least) / 2):
            smaller = self.proposals.search.holding(key, share * need, 1)
            less = self.run_in_full(smaller[0].bank) if smaller else None
            if less is not None and less.stopping is None:
                cheaper = best is None or self._rank(less) < (1 - MARGIN) * self._rank(best)
                return less if cheaper else best
        return best

    def _with_more(self, best: ComparedBank, bank: Bank) -> ComparedBank:
        """The best so far, or a bank with more strings that does better."""
        larger = next_string(bank)
        for _ in range(MORE_STRINGS):
            # What it does not supply, and what comes with it, make it dearer than its estimate.
            if larger is None or self._by_itself(larger) >= self._rank(best):
                break
            more = self.run_in_full(larger)
            if more.stopping is not None or self._rank(more) >= self._rank(best):
                break
            best, larger = more, next_string(larger)
        return best

    def _by_itself(self, bank: Bank) -> float:
        """Lifetime cost of a bank as estimated by hand, without what comes with it [money]."""
        return float(self.proposals.search.look.of_all([bank])[1][0])

    def _rank(self, compared: ComparedBank) -> float:
        """What it costs, nights and critical loads that it does not supply included [money]."""
        return weighed_cost(compared.cost.inputs, self.assumptions, self.plan.years_kept)

    @staticmethod
    def _dark(compared: ComparedBank) -> bool:
        """Whether it leaves nights or critical loads unserved."""
        year = compared.year
        return year is not None and (year["elsewhere"].number > 0 or year["critical"].number > 0)
