"""The reference data that a plan is read against."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.installation.cables import CableData
from vast_harbor.core.rig.assumptions import (
    CATALOGUE_CURRENCY,
    AssumptionEntry,
    Assumptions,
    HouseRule,
    PriceLevel,
)
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.weather.climate import Climate, Region


@dataclass(frozen=True, slots=True, eq=False)
class Reference:
    """Shipped reference data.

    Attributes:
        classes: battery classes by key.
        rules: house rules by key.
        entries: list of assumptions.
        catalogue: battery models by id.
        life_bases: key → (name, why).
        climates: climate kinds by key.
        regions: places to choose a site from, by key.
        cables: published sizes of cables and fuses.
        improvements: kinds of improvement by key.
        price_levels: how dear the catalogue is in other money, by currency code.
    """

    classes: Mapping[str, BatteryClass]
    rules: Mapping[str, HouseRule]
    entries: tuple[AssumptionEntry, ...]
    catalogue: Mapping[str, BatteryModel]
    life_bases: Mapping[str, tuple[str, str]]
    climates: Mapping[str, Climate]
    regions: Mapping[str, Region]
    cables: CableData
    improvements: Mapping[str, ImprovementKind] = field(default_factory=dict)
    price_levels: Mapping[str, PriceLevel] = field(default_factory=dict)

    def assumptions(
        self, rule: str, overrides: Mapping[str, float], currency: str = CATALOGUE_CURRENCY
    ) -> Assumptions:
        """The assumptions under a house rule with the owner's overrides, in the owner's money."""
        return _assumptions(self, rule, tuple(sorted(overrides.items())), currency)


# They change only with the rule and the overrides, not with every edit.
@lru_cache(maxsize=64)
def _assumptions(
    reference: Reference, rule: str, overrides: tuple[tuple[str, float], ...], currency: str
) -> Assumptions:
    level = reference.price_levels.get(currency)
    return Assumptions(reference.entries, reference.classes, reference.rules, rule, dict(overrides), level)
