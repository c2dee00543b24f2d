"""More of the same beside the bank that is there: new strings of its model, joined to it."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.plan import OldBank, Plan
from vast_harbor.phrases import phrase

# Key of the kind.
JOIN = "join"
# Makers allow so many strings side by side as a rule; the owner is asked for the number of theirs.
MOST_STRINGS = 4


def join(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """New strings of the same model joined to an LFP bank that is kept.

    None for lead-acid, whose batteries must be of one age, for a bank that is not to be kept, and where the
    energy is not that of whole strings any more. How far the bank has aged is for its diagnosis to say.

    Args:
        plan, assumptions, kind, target: as for every improvement; it has no target.
        size: energy on the labels of the new strings [kWh].
    """
    old = plan.old_bank
    if old is None or not old.kept or old.battery_class.is_lead_acid:
        return None
    string = _string_kwh(old)
    count = round(size / string)
    if count < 1 or abs(count * string - size) > 1e-6 or old.parallel + count > MOST_STRINGS:
        return None
    batteries = count * old.series
    label = f"{old.unit_v:g}\N{NO-BREAK SPACE}V, {old.unit_ah:g}\N{NO-BREAK SPACE}Ah"
    return Improvement(
        kind, size, "",
        phrase("improvements.old_bank.join_says", count=batteries, label=label),
        lambda p: replace(p, old_bank=replace(old, joined=count)),
        hidden=phrase("improvements.old_bank.join_hidden"),
        worse=Sentence(phrase("improvements.old_bank.join_worse", count=batteries)),
        asks=Sentence(phrase("improvements.old_bank.join_asks", count=batteries)),
    )  # fmt: skip


def _string_kwh(old: OldBank) -> float:
    return round(old.series * old.unit_v * old.unit_ah / 1000, 3)


def more_strings(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """One, two or three new strings beside the old ones."""
    old = plan.old_bank
    if old is None:
        return
    for count in range(1, MOST_STRINGS):
        size = round(count * _string_kwh(old), 3)
        if (one := join(plan, assumptions, kind, size, "")) is not None:
            yield one
