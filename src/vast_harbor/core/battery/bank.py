"""Battery models, and banks built of one model in series and parallel."""

from dataclasses import dataclass
from functools import lru_cache

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.datasheet import (
    Bms,
    Case,
    Limits,
    Offer,
    Portable,
    Proof,
    Used,
    Warranty,
    confidence_grade,
)
from vast_harbor.core.battery.peukert import exponent_from_two_ratings
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.figures.workings import escaped
from vast_harbor.phrases import phrase


def class_volts(battery_class: BatteryClass, cells: int) -> float:
    """Class volts of a unit: 2 V a cell for lead-acid; LFP of 4, 8, 12, 16 cells is class 12, 24, 36, 48.

    Args:
        battery_class: class of the battery.
        cells: cells in series inside the unit, 1 or more.

    Returns:
        Class volts [V].
    """
    return cells * (2.0 if battery_class.is_lead_acid else 3.0)


def cells_of(battery_class: BatteryClass, volts: float) -> int:
    """Cells inside a unit whose label states ``volts``.

    Args:
        battery_class: class of the battery.
        volts: nominal or class volts from the label [V]; 12 is read as 12.8 on LFP.

    Returns:
        Number of cells in series.

    Raises:
        InvalidInput: when no whole number of cells makes that voltage.
    """
    for per_cell in {battery_class.cell_v, class_volts(battery_class, 1)}:
        cells = round(volts / per_cell)
        if cells >= 1 and abs(cells * per_cell - volts) < 0.011 * max(1, cells):
            return cells
    usual = "2, 4, 6, 8 or 12 V" if battery_class.is_lead_acid else "12.8, 25.6 or 51.2 V"
    raise InvalidInput(
        "unit_v",
        phrase(
            "battery.bank.unit_v",
            volts=f"{volts:g}",
            short=battery_class.short,
            cell_v=f"{battery_class.cell_v:g}",
            usual=usual,
        ),
    )


def series_count(system_v: float, unit_class_v: float) -> int:
    """Units in series that make the system voltage.

    Args:
        system_v: class volts of the system, 12, 24, 36 or 48 [V].
        unit_class_v: class volts of one unit [V].

    Returns:
        n_s, a whole number of 1 or more.

    Raises:
        InvalidInput: when the system voltage is no whole multiple of the unit's.
    """
    count = round(system_v / unit_class_v)
    if count < 1 or abs(count * unit_class_v - system_v) > 1e-9:
        raise InvalidInput(
            "unit_v",
            phrase("battery.bank.unit_class_v_v", unit_class_v=f"{unit_class_v:g}", system_v=f"{system_v:g}"),
        )
    return count


# Asked for of every model, edit after edit.
@lru_cache(maxsize=2048)
def _exponent(ratings: tuple[tuple[float, float], ...]) -> float:
    (ah_1, h_1), (ah_2, h_2) = ratings
    return exponent_from_two_ratings(ah_1, h_1, ah_2, h_2)


@dataclass(frozen=True, slots=True)
class BatteryModel:
    """One battery as a maker sells it.

    Attributes:
        id: name in files.
        maker, name: as printed on the case.
        battery_class: one of the five classes.
        cells: cells in series inside.
        ratings: (Ah, hours) pairs from the label; the first is the nameplate.
        cycles: (depth of discharge, cycles to 80 % capacity) points, ascending depth.
        kg: mass of one unit [kg].
        price: list price of one unit [money].
        warranty: what the maker answers for.
        max_series, max_parallel: what the maker permits.
        case: its outside.
        bms: its battery management system; None of lead-acid.
        limits: currents and temperatures that it allows.
        offer: what goes with the price.
        proof: what backs up the datasheet.
        used: what is known of it when it is bought used; None for a new one.
        portable: the rest of a portable pack; None for a battery.
        heater_w: built-in heater [W]; None without one.
        note: one line for the buyer.
        own: entered by the owner, not from the shipped catalogue.
    """

    id: str
    maker: str
    name: str
    battery_class: BatteryClass
    cells: int
    ratings: tuple[tuple[float, float], ...]
    cycles: tuple[tuple[float, float], ...]
    kg: float
    price: float
    warranty: Warranty
    max_series: int
    max_parallel: int
    case: Case = Case()
    bms: Bms | None = None
    limits: Limits = Limits()
    offer: Offer = Offer()
    proof: Proof = Proof()
    used: Used | None = None
    portable: Portable | None = None
    heater_w: float | None = None
    note: str = ""
    own: bool = False

    @property
    def title(self) -> str:
        """Maker and name in one."""
        return f"{self.maker} {self.name}".strip()

    @property
    def nominal_v(self) -> float:
        """Nominal volts of one unit [V]."""
        return self.cells * self.battery_class.cell_v

    @property
    def unit_class_v(self) -> float:
        """Class volts of one unit [V]."""
        return class_volts(self.battery_class, self.cells)

    @property
    def rated_ah(self) -> float:
        """Nameplate capacity of one unit [Ah]."""
        return self.ratings[0][0]

    @property
    def rated_hours(self) -> float:
        """Time over which the nameplate holds [h]."""
        return self.ratings[0][1]

    @property
    def health(self) -> float:
        """State of health when it is bought [-]: 1 unless it is used and was measured."""
        if self.used is None or self.used.measured_ah is None:
            return 1.0
        return min(1.0, self.used.measured_ah / self.rated_ah)

    @property
    def grade(self) -> str:
        """Confidence grade of its datasheet, A to C."""
        lithium = not self.battery_class.is_lead_acid
        return confidence_grade(self.proof, len(self.ratings), self.bms, lithium)

    @property
    def charge_c(self) -> tuple[float, float]:
        """Temperatures between which it may be charged [°C]."""
        return self.limits.charge_c or (self.battery_class.charge_min_c, self.battery_class.charge_max_c)

    @property
    def charge_a(self) -> float:
        """Highest charge current of one unit [A]: as stated, else by the class's rate."""
        return self.limits.charge_a or self.battery_class.charge_c_rate * self.rated_ah

    @property
    def label_exponent(self) -> float | None:
        """Peukert exponent from the label's first two ratings; None when it has only one."""
        return None if len(self.ratings) < 2 else _exponent(self.ratings[:2])


@dataclass(frozen=True, slots=True)
class Bank:
    """n_s × n_p units of one model: in series volts add, in parallel amp-hours add.

    Attributes:
        model: the battery.
        series: units in series in each string, n_s.
        parallel: strings side by side, n_p.
    """

    model: BatteryModel
    series: int
    parallel: int

    @property
    def units(self) -> int:
        """Batteries to buy."""
        return self.series * self.parallel

    @property
    def title(self) -> str:
        """What one would ask for in a shop, safe inside a template: count, model and class."""
        # The count stays with its name at the end of a line.
        count = f"{self.units}\u00a0×\u00a0" if self.units > 1 else ""
        return escaped(f"{count}{self.model.title} ({self.model.battery_class.short})")

    @property
    def nominal_v(self) -> float:
        """Nominal volts of the bank [V]."""
        return self.series * self.model.nominal_v

    @property
    def rated_ah(self) -> float:
        """Nameplate amp-hours of the bank [Ah]: strings add, units in series do not."""
        return self.parallel * self.model.rated_ah

    @property
    def nameplate_wh(self) -> float:
        """Nameplate energy [Wh]."""
        return self.nominal_v * self.rated_ah

    @property
    def kg(self) -> float:
        """Mass of all units [kg]."""
        return self.units * self.model.kg
