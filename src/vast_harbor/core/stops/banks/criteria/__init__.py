"""The criteria that a bank must meet in a rig, in plain numbers.

The checks of a candidate show them with their workings and in words; the search of the catalogue goes through
them for every bank. Each criterion is computed here and nowhere else.
"""

from vast_harbor.core.battery.plausibility import implausible
from vast_harbor.core.stops.banks.criteria.bank_in_rig import Criterion, label_or_class_exponent
from vast_harbor.core.stops.banks.criteria.climate import HEATER, WAIT, ClimateCriteria
from vast_harbor.core.stops.banks.criteria.power import PowerCriteria
from vast_harbor.core.stops.banks.criteria.weight import WeightCriteria

__all__ = ("HEATER", "WAIT", "BankCriteria", "Criterion", "label_or_class_exponent")


class BankCriteria(PowerCriteria, ClimateCriteria, WeightCriteria):
    """All criteria of a bank in a rig."""

    @property
    def implausible(self) -> str:
        """What of an owner's own battery cannot be true; see ``battery.plausibility``. Empty for nothing."""
        model = self.bank.model
        price = model.price if self.quoted is None else self.quoted
        return implausible(model, price, self.assumptions.value("price_factor")) if model.own else ""
