"""The whole passage at once: every stop's figures from one plan."""

from dataclasses import dataclass

from vast_harbor.core.assumptions import Assumptions
from vast_harbor.core.plan import Plan, Reference
from vast_harbor.core.stops import banks as banks_stop
from vast_harbor.core.stops import compare as compare_stop
from vast_harbor.core.stops import day as day_stop
from vast_harbor.core.stops import need as need_stop
from vast_harbor.core.workings import Figure, Finding


@dataclass(frozen=True, slots=True)
class Results:
    """All stops of a plan in figures.

    Attributes:
        plan: what they were computed from.
        assumptions: what held.
        day, need, banks, compare: the stops.
    """

    plan: Plan
    assumptions: Assumptions
    day: day_stop.Day
    need: need_stop.Need
    banks: banks_stop.Banks
    compare: compare_stop.Compare

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Findings of all stops, in the order of the passage."""
        candidates = tuple(f for c in self.banks.candidates for f in c.findings)
        return (
            self.day.findings + self.need.findings + self.banks.findings + candidates + self.compare.findings
        )

    def figures(self) -> dict[str, Figure]:
        """Every figure of the plan with all that went into it, by key."""
        roots = [self.day.bank_wh, self.day.idle_wh, self.day.standby_wh, self.need.energy]
        roots += [f for load in self.day.loads for f in (load.wh, load.bank_wh, load.share)]
        for need in self.need.classes.values():
            roots += [need.nameplate_ah, need.nameplate_wh, need.mean_current, need.rate, *need.steps]
            roots += [need.classical_ah] if need.classical_ah else []
        roots += [f for c in self.banks.candidates for f in c.figures.values()]
        roots += [f for f in (self.banks.old_kg, self.banks.old_wh) if f is not None]
        roots += self.banks.old_tested.values()
        for column in self.compare.columns:
            roots += [*column.life.figures.values(), *column.cost.figures.values(), *column.figures.values()]
        for correction in self.compare.corrections:
            roots += [*correction.figures, *correction.ratios]
        roots += [f for finding in self.findings for f in finding.says.figures.values()]
        roots += self.compare.sentence.figures.values()
        roots += [a.figure() for a in self.assumptions]
        out: dict[str, Figure] = {}
        stack = roots
        while stack:
            figure = stack.pop()
            if figure.key not in out:
                out[figure.key] = figure
                stack.extend(figure.inputs.values())
        return out


def evaluate(plan: Plan, reference: Reference) -> Results:
    """Compute every stop of a plan.

    Args:
        plan: what the owner entered.
        reference: shipped data.

    Returns:
        All figures with their workings.

    Raises:
        KeyError: when the plan names a house rule, assumption, class or model that there is not.
    """
    assumptions = reference.assumptions(plan.house_rule, plan.overrides)
    day = day_stop.evaluate(plan, assumptions)
    need = need_stop.evaluate(plan, reference, assumptions, day)
    banks = banks_stop.evaluate(plan, reference, assumptions, need)
    compare = compare_stop.evaluate(plan, reference, assumptions, day, need, banks)
    return Results(plan, assumptions, day, need, banks, compare)
