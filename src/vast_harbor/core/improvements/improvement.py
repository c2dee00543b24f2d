"""What can be done beside the bank: one improvement, and the shipped data of its kind."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from hashlib import sha256

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.rig.improvement_rows import PLANNED, ImprovementKind, PlannedImprovement
from vast_harbor.core.rig.plan import Plan

Change = Callable[[Plan], Plan]


@dataclass(frozen=True, slots=True)
class Improvement:
    """One thing that can be done to a rig, at one size.

    Attributes:
        kind: the shipped data of its kind.
        size: in the unit of its kind; 0 where it has none.
        target: id of the load or source that it changes; empty for none.
        says: what is done, as an instruction.
        change: makes the rig as it is afterwards.
        own_price: what its owner knows that it costs [money]; None for the shipped price.
        yearly: what it costs a year from then on [money].
        hidden: work that comes with it; empty for none.
        worse: what gets worse; None for nothing.
        asks: what must be known before it is bought; None where the owner stated it.
        id: of the planned improvement; empty where it is only possible.
        wanted: whether the owner wants it whatever the bank.
    """

    kind: ImprovementKind
    size: float
    target: str
    says: str
    change: Change
    own_price: float | None = None
    yearly: float = 0.0
    hidden: str = ""
    worse: Sentence | None = None
    asks: Sentence | None = None
    id: str = ""
    wanted: bool = False

    @property
    def key(self) -> str:
        """Name of what is done, the same for the same thing at the same size."""
        parts = (self.kind.key, self.target, f"{self.size:g}" if self.size else "")
        return "-".join(p for p in parts if p)

    @property
    def group(self) -> str:
        """Name of what is done at any size: two of a group are never done together."""
        return f"{self.kind.key}-{self.target}" if self.target else self.kind.key

    @property
    def kg(self) -> float:
        """Mass that it adds [kg]."""
        return self.kind.kg_each * self.size

    @property
    def hours(self) -> float:
        """Work [h]."""
        return self.kind.hours + self.kind.hours_each * self.size

    def prices(self, level: float) -> tuple[float, float, float]:
        """Low, likely and high price of parts [money]; all the same where the owner knows it.

        Args:
            level: price factor of the rig [-].
        """
        if self.own_price is not None:
            return self.own_price, self.own_price, self.own_price
        low, likely, high = (
            level * (base + each * self.size)
            for base, each in zip(self.kind.base, self.kind.each, strict=True)
        )
        return low, likely, high

    def row(self, state: str = PLANNED) -> PlannedImprovement:
        """It as a row of the plan: planned, or refused in every size.

        Its id is made of the whole key, which may be longer than an id.
        """
        mark = sha256(f"{self.key} {state}".encode()).hexdigest()[:8]
        size = self.size if state == PLANNED else 0.0
        return PlannedImprovement(f"{self.kind.key}-{mark}", self.kind.key, size, self.target, state=state)

    def apply(self, plan: Plan) -> Plan:
        """The rig as it is once this is done; it adds its mass to what the rig carries."""
        made = self.change(plan)
        payload = made.loading.payload_kg
        if payload is not None and self.kg:
            made = replace(made, loading=replace(made.loading, payload_kg=payload - self.kg))
        return made
