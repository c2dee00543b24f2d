"""A bank that would do if a limit of the rig were another one."""

from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.stops.compare.compared_bank import ComparedBank


@dataclass(frozen=True, slots=True)
class RigChange:
    """A limit of a rig as it would have to be.

    Attributes:
        field: of the rig, as in the rig file.
        value: in the field's unit.
    """

    field: str
    value: float


@dataclass(frozen=True, slots=True)
class NearestBank:
    """The bank that comes nearest to a limit, where none is within it.

    Attributes:
        says: what would have to be different for it.
        bank: its layout.
        compared: the bank in the rig as it would be then; None where that cannot be entered as a limit.
        changes: limits as they would be entered then; none likewise.
        stop: where the owner changes it.
    """

    says: Sentence
    bank: Bank
    compared: ComparedBank | None
    changes: tuple[RigChange, ...]
    stop: str
