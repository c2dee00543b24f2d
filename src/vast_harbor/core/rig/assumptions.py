"""House rules, and every assumption that an owner may override."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from vast_harbor.core.battery.chemistry import BatteryClass, Range
from vast_harbor.core.figures.workings import HOUSE_RULE, OVERRIDE, REFERENCE, Figure


@dataclass(frozen=True, slots=True)
class HouseRule:
    """A named set of assumptions that some practitioners argue for.

    Attributes:
        key, name: ``customary`` and what it is called.
        argues: what they say for it.
        life_basis: ``likely``, ``warranty`` or ``label_cycles``: which life it plans with.
        values: field → value for rules that hold for all classes.
        dod: battery class → usable depth of discharge [-].
    """

    key: str
    name: str
    argues: str
    life_basis: str
    values: Mapping[str, float]
    dod: Mapping[str, float]


@dataclass(frozen=True, slots=True)
class AssumptionEntry:
    """One line of the list of assumptions as shipped; see ``data/assumptions.toml``.

    Attributes:
        key: address; ``{class}`` in it stands for each battery class in turn.
        symbol, name, unit, group, source, note: how it is shown.
        least, most: what is accepted.
        value: default, unless ``rule`` or ``reference`` says where it comes from.
        rule: field of the house rule that sets it.
        reference: field of the battery class that sets it.
        low, high: range in which practitioners differ.
        scaled: default follows the price factor.
    """

    key: str
    symbol: str
    name: str
    unit: str
    group: str
    source: str
    note: str
    least: float
    most: float
    value: float | None = None
    rule: str = ""
    reference: str = ""
    low: float | None = None
    high: float | None = None
    scaled: bool = False


PRICE_FACTOR = "price_factor"
# The money of the catalogue.
CATALOGUE_CURRENCY = "EUR"


@dataclass(frozen=True, slots=True)
class PriceLevel:
    """How dear the catalogue is in other money.

    Attributes:
        rate: money for a unit of the catalogue's [-].
        level: how dear batteries and their parts are where it is paid with, against the catalogue [-].
        says: both, with their date and where they come from.
    """

    rate: float
    level: float
    says: str


@dataclass(frozen=True, slots=True)
class Assumption:
    """One assumption with the value that holds in a plan.

    Attributes:
        entry: the shipped line it comes from.
        key, name: with the battery class filled in.
        symbol: letter in formulas.
        default: value without an override; None where it is computed elsewhere.
        value: value that holds; None where it is computed elsewhere.
        low, high: range in which practitioners differ.
        by_rule: house rule name → value, where they differ.
        overridden: whether the owner set it.
    """

    entry: AssumptionEntry
    key: str
    name: str
    symbol: str
    default: float | None
    value: float | None
    low: float | None
    high: float | None
    by_rule: Mapping[str, float]
    overridden: bool

    @property
    def changed(self) -> bool:
        """Whether the owner set it to another value; who confirms it, changes nothing."""
        if not self.overridden or self.value is None or self.default is None:
            return self.overridden
        return abs(self.value - self.default) > 1e-9 * max(1.0, abs(self.default))

    def figure(self) -> Figure:
        """The assumption as an input of formulas."""
        origin = OVERRIDE if self.overridden else HOUSE_RULE if self.entry.rule else REFERENCE
        return Figure(
            f"assume.{self.key}",
            self.name,
            self.value,
            self.entry.unit,
            origin,
            source=self.entry.source,
            note=self.entry.note,
            low=self.low,
            high=self.high,
            by_rule=self.by_rule,
            assumption=self.key,
        )


class Assumptions:
    """All assumptions of one plan: the house rule's and the reference values, then overrides.

    Args:
        entries: shipped list.
        classes: battery classes by key.
        rules: house rules by key.
        rule: key of the selected house rule.
        overrides: assumption key → value set by the owner.
        price_level: of the owner's money; None where it is not known, then prices are the catalogue's.
    """

    def __init__(
        self,
        entries: tuple[AssumptionEntry, ...],
        classes: Mapping[str, BatteryClass],
        rules: Mapping[str, HouseRule],
        rule: str,
        overrides: Mapping[str, float],
        price_level: PriceLevel | None = None,
    ) -> None:
        self.rule = rules[rule]
        self._rules = rules
        self._overrides = overrides
        if price_level is not None:
            entries = tuple(_at_level(e, price_level) if e.key == PRICE_FACTOR else e for e in entries)
        self._all: dict[str, Assumption] = {}
        for entry in entries:
            if "{class}" in entry.key:
                for battery_class in classes.values():
                    self._add(entry, battery_class)
            else:
                self._add(entry, None)
        factor = self._all[PRICE_FACTOR].figure().number
        for assumption in list(self._all.values()):
            if assumption.entry.scaled:
                self._all[assumption.key] = self._scaled(assumption, factor)
        self._figures = {key: a.figure() for key, a in self._all.items()}

    def __iter__(self):  # type: ignore[no-untyped-def]
        return iter(self._all.values())

    def __contains__(self, key: str) -> bool:
        return key in self._all

    def get(self, key: str) -> Assumption:
        """The assumption under ``key``; KeyError when there is none."""
        return self._all[key]

    def value(self, key: str) -> float:
        """The value that holds under ``key``.

        Raises:
            KeyError: no such assumption.
            ValueError: it has no default and is computed elsewhere.
        """
        return self._figures[key].number

    def figure(self, key: str) -> Figure:
        """The assumption under ``key`` as an input of formulas; KeyError when there is none."""
        return self._figures[key]

    def overridden(self, key: str) -> bool:
        """Whether the owner set the assumption under ``key`` to another value than that which held anyway."""
        return self._all[key].changed

    def _add(self, entry: AssumptionEntry, battery_class: BatteryClass | None) -> None:
        key = entry.key.format(**{"class": battery_class.key}) if battery_class else entry.key
        name = entry.name.format(**{"class": battery_class.short}) if battery_class else entry.name
        default, low, high = entry.value, entry.low, entry.high
        by_rule: dict[str, float] = {}
        if entry.rule:
            by_rule = {r.name: _of_rule(r, entry.rule, battery_class) for r in self._rules.values()}
            default = _of_rule(self.rule, entry.rule, battery_class)
            low = min(by_rule.values()) if low is None else low
            high = max(by_rule.values()) if high is None else high
        elif entry.reference and battery_class:
            reference = getattr(battery_class, entry.reference)
            if isinstance(reference, Range):
                default, low, high = reference.likely, reference.low, reference.high
            else:
                default = float(reference)
        value = self._overrides.get(key, default)
        self._all[key] = Assumption(
            entry, key, name, entry.symbol, default, value, low, high, by_rule, key in self._overrides
        )

    @staticmethod
    def _scaled(a: Assumption, factor: float) -> Assumption:
        def times(value: float | None) -> float | None:
            return None if value is None else value * factor

        return Assumption(
            a.entry,
            a.key,
            a.name,
            a.symbol,
            times(a.default),
            a.value if a.overridden else times(a.value),
            times(a.low),
            times(a.high),
            a.by_rule,
            a.overridden,
        )


def _at_level(entry: AssumptionEntry, price_level: PriceLevel) -> AssumptionEntry:
    return replace(entry, value=price_level.rate * price_level.level, source=price_level.says)


def _of_rule(rule: HouseRule, name: str, battery_class: BatteryClass | None) -> float:
    if name == "dod" and battery_class:
        return rule.dod[battery_class.key]
    return rule.values[name]
