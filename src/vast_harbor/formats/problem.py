"""What is wrong with data that come in, each with its place."""

from dataclasses import dataclass

from vast_harbor.formats.slips import Interpretation


@dataclass(frozen=True, slots=True)
class Problem:
    """One thing wrong with a document.

    Attributes:
        path: JSON pointer of the field; empty for the whole.
        message: one sentence for the owner.
        interpretations: what may have been meant instead.
    """

    path: str
    message: str
    interpretations: tuple[Interpretation, ...] = ()


class RigFileError(ValueError):
    """A document that cannot be taken, with every problem found."""

    def __init__(self, problems: list[Problem]) -> None:
        super().__init__("; ".join(f"{p.path or 'file'}: {p.message}" for p in problems))
        self.problems = problems
