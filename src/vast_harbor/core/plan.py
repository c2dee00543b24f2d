"""A plan: everything that an owner has entered, and the reference data that it is read against."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from vast_harbor.core.assumptions import AssumptionEntry, Assumptions, HouseRule
from vast_harbor.core.battery import BatteryModel
from vast_harbor.core.chemistry import BatteryClass
from vast_harbor.core.loads import Inverter, Load


@dataclass(frozen=True, slots=True, eq=False)
class Reference:
    """Shipped reference data.

    Attributes:
        classes: battery classes by key.
        rules: house rules by key.
        entries: list of assumptions.
        catalogue: battery models by id.
        life_bases: key → (name, why).
    """

    classes: Mapping[str, BatteryClass]
    rules: Mapping[str, HouseRule]
    entries: tuple[AssumptionEntry, ...]
    catalogue: Mapping[str, BatteryModel]
    life_bases: Mapping[str, tuple[str, str]]

    def assumptions(self, rule: str, overrides: Mapping[str, float]) -> Assumptions:
        """The assumptions under a house rule with the owner's overrides."""
        return _assumptions(self, rule, tuple(sorted(overrides.items())))


# They change only with the rule and the overrides, not with every edit.
@lru_cache(maxsize=64)
def _assumptions(reference: Reference, rule: str, overrides: tuple[tuple[str, float], ...]) -> Assumptions:
    return Assumptions(reference.entries, reference.classes, reference.rules, rule, dict(overrides))


@dataclass(frozen=True, slots=True)
class OldBank:
    """The bank that is in the rig now.

    Attributes:
        battery_class: its class.
        unit_v: volts of one battery, by class or label [V].
        unit_ah: label capacity of one battery [Ah].
        series, parallel: how they are joined.
        age_years: years in service.
        unit_kg: mass of one battery [kg]; None to estimate it from the class.
        test_a: steady current of a capacity test of the whole bank [A]; None without a test.
        test_minutes: time of the test from full to the cut-off [min].
        test_c: temperature of the battery at the test [°C].
    """

    battery_class: BatteryClass
    unit_v: float
    unit_ah: float
    series: int
    parallel: int
    age_years: float | None = None
    unit_kg: float | None = None
    test_a: float | None = None
    test_minutes: float | None = None
    test_c: float | None = None


@dataclass(frozen=True, slots=True)
class Extra:
    """Something that must be bought besides the batteries for one candidate.

    Attributes:
        name: what it is.
        price: amount [money].
    """

    name: str
    price: float


@dataclass(frozen=True, slots=True)
class Candidate:
    """A bank that is being considered.

    Attributes:
        id: name within the rig.
        battery_class: key of its class.
        model: id of its model; None lets the tool choose the smallest that covers the need.
        series: units in series; None for as many as the system voltage takes.
        parallel: strings; None for as many as the need takes.
        unit_price: price of one battery as quoted to the owner [money]; None for the list price.
        extras: what must be bought besides.
    """

    id: str
    battery_class: str
    model: str | None = None
    series: int | None = None
    parallel: int | None = None
    unit_price: float | None = None
    extras: tuple[Extra, ...] = ()


@dataclass(frozen=True, slots=True)
class Plan:
    """Everything that an owner entered for one rig.

    Attributes:
        name, kind: what the rig is.
        system_v: class volts of the house system, 12, 24 or 48 [V].
        off_grid_nights: nights a year without hook-up.
        years_kept: years that the rig will be kept, H.
        battery_c: temperature of the battery when it is used [°C].
        rest_c: its temperature the rest of the year [°C].
        loads, inverter, standby_w: the day; standby is what the monitor reads with all off [W].
        house_rule: key of the selected house rule.
        overrides: assumption key → value.
        life_basis: which life to reckon with; None for the house rule's.
        candidates: banks being considered.
        models: catalogue and own models by id.
        old_bank: the bank that is there now, or None.
    """

    name: str
    kind: str
    system_v: float
    off_grid_nights: float
    years_kept: float
    battery_c: float
    rest_c: float
    loads: tuple[Load, ...]
    inverter: Inverter
    standby_w: float
    house_rule: str
    overrides: Mapping[str, float] = field(default_factory=dict)
    life_basis: str | None = None
    candidates: tuple[Candidate, ...] = ()
    models: Mapping[str, BatteryModel] = field(default_factory=dict)
    old_bank: OldBank | None = None
