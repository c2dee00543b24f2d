"""One column of the comparison: a candidate with all that is known of it."""

from collections.abc import Sequence
from dataclasses import dataclass

from vast_harbor.core.stops.banks import BankFigures
from vast_harbor.core.stops.cost import Cost
from vast_harbor.core.stops.life import Life
from vast_harbor.core.workings import Figure, escaped


@dataclass(frozen=True, slots=True)
class Column:
    """One candidate with all that is known of it."""

    banked: BankFigures
    life: Life
    cost: Cost
    figures: dict[str, Figure]

    @property
    def stopped(self) -> bool:
        """Whether a check says that it will not do as it stands."""
        return any(f.severity == "stop" for f in self.banked.findings)

    def short(self, columns: Sequence["Column"]) -> str:
        """Its name inside a sentence: its class, with the model where two share the class."""
        same = [c for c in columns if c.banked.battery_class.key == self.banked.battery_class.key]
        bank = self.banked.bank
        if len(same) > 1 and bank is not None:
            name = escaped(f"{bank.model.title} × {bank.units}")
            return f"{name} with its extras" if self.banked["extras"].number else name
        return self.banked.battery_class.short
