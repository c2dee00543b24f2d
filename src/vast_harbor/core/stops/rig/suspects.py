"""What an old bank's signs say together, and who is to blame."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.figures.workings import Figure, Sentence

AT_FAULT, POSSIBLE, UNLIKELY, UNKNOWN = "at fault", "possible", "unlikely", "not known"
BANK, CHARGER, DRAIN, USE = "bank", "charger", "drain", "use"


@dataclass(frozen=True, slots=True)
class Suspect:
    """One that may be at fault.

    Attributes:
        key: ``bank``, ``charger``, ``drain`` or ``use``.
        verdict: ``at fault``, ``possible``, ``unlikely`` or ``not known``.
        says: why.
        next: what to do or to find out.
    """

    key: str
    verdict: str
    says: Sentence
    next: str


@dataclass(frozen=True, slots=True)
class Sign:
    """What one sign says of the health: its name and range [-]."""

    name: str
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """What the signs say together.

    Attributes:
        danger: a sentence when the battery must not be used on; empty otherwise.
        health: likely state of health with its range; None when nothing is known.
        signs: what each sign says of it.
        agree: whether the signs agree.
        suspects: the bank, the charger, a hidden drain, grown use.
        says: the answer in a sentence.
    """

    danger: str
    health: Figure | None
    signs: tuple[Sign, ...]
    agree: bool
    suspects: tuple[Suspect, ...]
    says: str

    @property
    def at_fault(self) -> tuple[str, ...]:
        """Keys of the suspects that are at fault."""
        return tuple(s.key for s in self.suspects if s.verdict == AT_FAULT)

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the diagnosis."""
        if self.health is not None:
            yield self.health
        yield from (f for s in self.suspects for f in s.says.figures.values())
