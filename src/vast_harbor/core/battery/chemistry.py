"""The five battery classes and what is typical of each."""

from dataclasses import dataclass

from vast_harbor.core.figures.interpolation import Points


@dataclass(frozen=True, slots=True)
class Range:
    """A value with the range in which knowledgeable people differ.

    Attributes:
        low, likely, high: in the unit of the quantity, ascending.
    """

    low: float
    likely: float
    high: float


@dataclass(frozen=True, slots=True)
class BatteryClass:
    """Reference values of a battery class, overridden by a maker's own datasheet.

    Attributes:
        key: name used in files, e.g. ``agm``.
        code: the one letter by which the class is told apart everywhere.
        name, short: for headings and inside sentences.
        family: ``lead_acid`` or ``lfp``.
        cell_v: nominal volts of a cell [V].
        cycles: cycles to 80 % capacity at ``cycles_at_dod``.
        cycles_at_dod: depth of discharge of that count [-].
        cycle_exponent: b of the cycle law [-].
        calendar_years: calendar life at 25 °C [years].
        peukert: Peukert exponent [-].
        rated_hours: usual rated time of the class [h].
        energy_efficiency: energy out ÷ in, hand estimate [-].
        charge_c_rate: highest advised charge rate [C].
        wear_c_rate: rate above which use wears the bank faster [C].
        short_of_full_penalty: p of the ageing law [-].
        charge_min_c, charge_max_c: battery temperatures between which it may be charged [°C].
        vented: when its place must be vented to the outside: ``always``, ``closed locker`` or ``no``.
        water: whether water must be topped up.
        absorption_v, float_v: usual absorption and float volts of a 12 V unit [V].
        equalise_v: volts at which a 12 V unit is equalised [V]; 0 where it never is.
        compensation: change of both for each kelvin above 25 °C, between 0 and 40 °C [V/K].
        coulombic: share of the charge put in that comes out again [-].
        acceptance_h: τ, time constant of the current that it accepts at absorption volts [h].
        self_discharge: share of its charge lost in a month at 20 °C, doubling for every 10 K [-].
        gas_ma: gassing current at float and at boost [mA/Ah].
        discharge_c, storage_c: temperatures between which it may be used and stored [°C].
        care_hours: hours of care a year [h].
        wh_per_kg: energy density by the label [Wh/kg].
        wh_per_l: the same by the space that a battery takes, terminals included [Wh/l].
        resistance_mohm: inner resistance of a 12 V 100 Ah unit at 25 °C, new [mΩ].
        temperature_factor: k_T against battery temperature [°C].
        rested_v: rested open-circuit volts of a 12 V unit at 25 °C against state of charge [-].
    """

    key: str
    code: str
    name: str
    short: str
    family: str
    cell_v: float
    cycles: Range
    cycles_at_dod: float
    cycle_exponent: float
    calendar_years: Range
    peukert: Range
    rated_hours: float
    energy_efficiency: float
    charge_c_rate: float
    wear_c_rate: float
    short_of_full_penalty: Range
    charge_min_c: float
    charge_max_c: float
    vented: str
    water: bool
    absorption_v: float
    float_v: float
    equalise_v: float
    compensation: float
    coulombic: Range
    acceptance_h: float
    self_discharge: float
    gas_ma: tuple[float, float]
    discharge_c: tuple[float, float]
    storage_c: tuple[float, float]
    care_hours: float
    wh_per_kg: float
    wh_per_l: float
    resistance_mohm: float
    temperature_factor: Points
    rested_v: Points

    @property
    def is_lead_acid(self) -> bool:
        """Whether the class is one of the four lead-acid ones."""
        return self.family == "lead_acid"

    def nominal_v(self, class_v: float) -> float:
        """Nominal volts of a bank of this class in a 12, 24, 36 or 48 V system [V].

        Lead-acid has one 2.0 V cell, LFP one 3.2 V cell, for each 2 V or 3 V of class.
        """
        return class_v if self.is_lead_acid else class_v / 12.0 * 4 * self.cell_v
