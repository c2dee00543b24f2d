"""The changeover of a plan: the bank that is bought, what speaks against it, and how far the work is."""

from dataclasses import dataclass

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.stops.changeover.acceptance import Acceptance
from vast_harbor.core.stops.changeover.before_buying import Question, questions
from vast_harbor.core.stops.changeover.conflicts import Conflict, conflicts
from vast_harbor.core.stops.changeover.measurements import name_of_reading
from vast_harbor.core.stops.changeover.order_of_work import Gate, Step, gates
from vast_harbor.core.stops.changeover.settings import Group, Guard, guards, settings
from vast_harbor.core.stops.changeover.shopping_list import ShoppingList, shopping_list
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.core.stops.compare import ComparedBank, Verdict
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class Against:
    """What speaks against a choice.

    Attributes:
        says: in a sentence.
        hard: whether the bank will not do.
    """

    says: Sentence
    hard: bool


@dataclass(frozen=True)
class Changeover:
    """The changeover to one bank.

    Attributes:
        work: the bank, in its rig.
        verdict: for what speaks against it.
    """

    work: Work
    verdict: Verdict

    @cached_property
    def against(self) -> Against | None:
        """What speaks against the choice; None where it is what the verdict says."""
        return against(self.work.compared, self.verdict)

    @cached_property
    def questions(self) -> tuple[Question, ...]:
        """What must be known before buying."""
        return questions(self.work)

    @cached_property
    def shopping(self) -> ShoppingList:
        """What is bought."""
        return shopping_list(self.work)

    @cached_property
    def gates(self) -> tuple[Gate, ...]:
        """The order of work."""
        return gates(self.work)

    @property
    def steps(self) -> tuple[Step, ...]:
        """All steps in order."""
        return tuple(step for gate in self.gates for step in gate.steps)

    @property
    def done(self) -> int:
        """Steps that are done."""
        return sum(step.tick.done for step in self.steps)

    @property
    def stopped(self) -> Step | None:
        """The first step that a reading stops; None where nothing does."""
        return next((step for step in self.steps if step.stopped), None)

    @property
    def next(self) -> Step | None:
        """The step to do next: the one that is stopped, else the first that is not done."""
        return self.stopped or next((step for step in self.steps if not step.tick.done), None)

    @property
    def opens_at(self) -> str:
        """Where the work is: ``before``, ``shopping``, ``work``; ``proof`` when every step is done."""
        if self.next is None:
            return "proof"
        if self.done or self.stopped:
            return "work"
        if not all(question.settled for question in self.questions):
            return "before"
        return "work" if all(line.got or line.purchase.have for line in self.shopping.lines) else "shopping"

    @cached_property
    def settings(self) -> tuple[Group, ...]:
        """All settings."""
        return settings(self.work)

    @cached_property
    def conflicts(self) -> tuple[Conflict, ...]:
        """Settings that work against each other."""
        return conflicts(self.work, self.settings)

    @cached_property
    def guards(self) -> tuple[tuple[Guard, ...], tuple[Guard, ...]]:
        """What acts first as the bank is emptied, and as the current rises."""
        return guards(self.work, self.settings)

    @cached_property
    def acceptance(self) -> Acceptance:
        """The acceptance test."""
        return Acceptance(self.work)

    @cached_property
    def minutes(self) -> float:
        """Work of all steps up to the proof [min]."""
        return sum(step.minutes for step in self.steps if step.gate != "later")

    @cached_property
    def unplaced(self) -> tuple[str, ...]:
        """Readings of this bank that no step asks for any more, since its layout changed."""
        asked = {name_of_reading(self.work, m.key, m.unit) for step in self.steps for m in step.measured}
        mine = f"{self.work.id}."
        return tuple(k for k in self.work.record.readings if k.startswith(mine) and k not in asked)


def against(compared: ComparedBank, verdict: Verdict) -> Against | None:
    """What speaks against buying a bank.

    Args:
        compared: the bank.
        verdict: over the whole field.

    Returns:
        Why it will not do; else how much more it costs than the verdict's bank, or what the verdict says
        instead of buying; None where it is the verdict's bank.
    """
    winner = verdict.winner
    if winner is not None and winner.banked.bank == compared.banked.bank:
        return None
    out = next((o for o in verdict.outs if o.compared is compared), None)
    if out is not None:
        return Against(out.says, hard=True)
    if winner is None:
        return Against(Sentence(phrase("changeover.against.not_buying")), hard=False)
    more = compared.cost["lifetime"].number - winner.cost["lifetime"].number
    says = phrase("changeover.against.dearer") if more > 0 else phrase("changeover.against.other")
    figures = {
        "H": compared.cost["per_year"].inputs["H"],
        "cost": compared.cost["lifetime"],
        "best": winner.cost["lifetime"],
    }
    return Against(Sentence(says, figures), hard=False)
