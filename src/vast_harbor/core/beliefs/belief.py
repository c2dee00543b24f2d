"""A common belief, settled on one rig: how true it is here, by which two numbers, and what follows."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import Figure, Sentence
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.compare import BUY, ComparedBank

TRUE, HALF, FALSE, UNKNOWN = "true", "half", "false", "unknown"


@dataclass(frozen=True, slots=True)
class Belief:
    """One belief and its answer on a rig.

    Attributes:
        key: stable name.
        claim: what people say.
        answer: ``true``, ``half`` or ``false`` here; ``unknown`` where something is missing.
        says: the answer in words, with its figures.
        compared: the two figures that decide, in one unit; none where unknown.
        follows: what follows for this rig.
        stop: stop where it is looked at.
    """

    key: str
    claim: str
    answer: str
    says: Sentence
    compared: tuple[Figure, ...]
    follows: str
    stop: str


@dataclass(frozen=True, eq=False, repr=False)
class Ground:
    """What the beliefs are settled on.

    Attributes:
        results: the plan in figures, everything run.
        reference: shipped data.
    """

    results: Results
    reference: Reference
    _best: dict[str, ComparedBank | None] = field(default_factory=dict)

    def best(self, wanted: Callable[[ComparedBank], bool]) -> ComparedBank | None:
        """The bank of lowest lifetime cost of a kind, a suitable one where there is one; None without any."""
        verdict = self.results.verdict
        banks = [c for c in verdict.compared_banks if c.banked.bank is not None and wanted(c)]
        return min(banks, key=lambda c: (c not in verdict.suitable, c.cost["lifetime"].number), default=None)

    def will_do(self, compared: ComparedBank) -> bool:
        """Whether the verdict finds a bank suitable."""
        return compared in self.results.verdict.suitable

    def bought(self, wanted: Callable[[ComparedBank], bool]) -> bool | None:
        """Whether what the verdict says to buy is of a kind; None where it says to buy nothing."""
        verdict = self.results.verdict
        return wanted(verdict.winner) if verdict.kind == BUY and verdict.winner is not None else None

    @cached_property
    def lfp(self) -> ComparedBank | None:
        """The best LFP bank."""
        return self.best(lambda c: not c.banked.battery_class.is_lead_acid)

    @cached_property
    def lead(self) -> ComparedBank | None:
        """The best lead-acid bank."""
        return self.best(lambda c: c.banked.battery_class.is_lead_acid)

    @cached_property
    def sealed(self) -> ComparedBank | None:
        """The best sealed lead-acid bank."""
        return self.best(lambda c: c.banked.battery_class.is_lead_acid and not c.banked.battery_class.water)

    @cached_property
    def chosen(self) -> ComparedBank | None:
        """The bank that the verdict recommends, else the best of those compared."""
        return self.results.verdict.winner or self.best(lambda c: True)


def graded(value: float, true_from: float, half_from: float) -> str:
    """How true a claim is whose number is the truer the higher it is.

    Args:
        value: the number.
        true_from, half_from: least values for ``true`` and for ``half``.
    """
    return TRUE if value >= true_from else HALF if value >= half_from else FALSE


def near(value: float, claimed: float, close: float, far: float) -> str:
    """How true a claimed number is: within a share ``close`` of it true, within ``far`` half true."""
    away = abs(value / claimed - 1) if claimed else abs(value)
    return TRUE if away <= close else HALF if away <= far else FALSE


@dataclass(frozen=True, slots=True)
class Claim:
    """A belief before it is settled.

    Attributes:
        key, claim, stop: as in :class:`Belief`.
        needs: what it cannot be settled without, in words.
        settle: answer, words, figures and consequence; None where something is missing.
    """

    key: str
    claim: str
    stop: str
    needs: str
    settle: Callable[[Ground], "Settled | None"]

    def on(self, ground: Ground) -> Belief:
        """The belief on a rig."""
        settled = self.settle(ground)
        if settled is None:
            return Belief(self.key, self.claim, UNKNOWN, Sentence(self.needs), (), "", self.stop)
        return Belief(
            self.key,
            self.claim,
            settled.answer,
            Sentence(settled.says, settled.figures),
            tuple(settled.figures.values())[:2],
            settled.follows[settled.answer],
            self.stop,
        )


@dataclass(frozen=True, slots=True)
class Settled:
    """How a claim is settled.

    Attributes:
        answer: ``true``, ``half`` or ``false``.
        says: template over ``figures``.
        figures: name → figure; the first two are compared in the picture.
        follows: what follows, by answer.
    """

    answer: str
    says: str
    figures: Mapping[str, Figure]
    follows: Mapping[str, str]
