"""A plan: everything that an owner has entered."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.datasheet import NO_PROTECTION
from vast_harbor.core.battery.health_signs import HealthSign
from vast_harbor.core.installation.packing import Place
from vast_harbor.core.rig.assumptions import CATALOGUE_CURRENCY
from vast_harbor.core.rig.changeover import Changeover, Purchase
from vast_harbor.core.rig.day_types import PLAIN_DAY, DayType
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED, PlannedImprovement
from vast_harbor.core.rig.loads import Inverter, Load
from vast_harbor.core.rig.plan_place import Installed, Loading, Locker, Site, Stay
from vast_harbor.core.rig.sources import Source, together
from vast_harbor.core.weather.climate import LIVING
from vast_harbor.phrases import phrase

NO_CHANGEOVER = Changeover()
# What an extra is to a bank, and who puts a bank in.
THERE = "there"
TAGS = (NEEDED, WANTED, THERE)
OWN_HANDS, WORKSHOP = "own", "workshop"
# Assumption that prices an hour of work, by who does it.
HOUR_OF = {OWN_HANDS: "hour_rate", WORKSHOP: "workshop_rate"}
# The one kind of rig that does not move.
CABIN = "cabin"
# An alarm, or a monitor that counts, warns in time.
WATCHED = "monitor"
DIFFICULTIES = ("easy", "some", "hard")


@dataclass(frozen=True, slots=True)
class OldBank:
    """The bank that is in the rig now, and what its owner knows of it.

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
        nights_then, nights_now: nights that it lasted when new, and lasts now.
        day_then_wh: what a day took then [Wh]; None for as much as now.
        rested_v: volts of the bank some hours after the charger said full [V].
        rested_hours: hours that it had rested [h].
        loaded_v, load_a: volts under a known current, and that current, at that charge [V], [A].
        smells, warm, bulges: rotten eggs, warmth while charging, a swollen case.
        deep_accidents: times that it was emptied and recharged within a day.
        left_low, left_empty, frozen: times that it stood below a fifth for over a day, was left empty for a
            week, froze.
        sale_price: what somebody would pay for it [money]; None to sell it as scrap.
        logged: what its log says of its health; the signs that are stated are part of it. None without a log.
        kept: whether it may be kept; False asks which bank would be bought in its place all the same.
        joined: new strings of the same model that are to be joined to it.
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
    nights_then: float | None = None
    nights_now: float | None = None
    day_then_wh: float | None = None
    rested_v: float | None = None
    rested_hours: float | None = None
    loaded_v: float | None = None
    load_a: float | None = None
    smells: bool = False
    warm: bool = False
    bulges: bool = False
    deep_accidents: float = 0
    left_low: float = 0
    left_empty: float = 0
    frozen: float = 0
    sale_price: float | None = None
    logged: HealthSign | None = None
    kept: bool = True
    joined: int = 0


@dataclass(frozen=True, slots=True)
class SecondBank:
    """A second house bank, fed from the main one by a DC-DC charger.

    Attributes:
        name: what the owner calls it.
        system_v: its class volts [V].
        efficiency: of the DC-DC charger [-].
        limit_w: what the charger gives at most, at its output [W].
        nights: nights that it must last by itself should the charger fail.
    """

    name: str = phrase("terms.names.services")
    system_v: float = 12.0
    efficiency: float = 0.92
    limit_w: float = 360.0
    nights: float = 1.0


@dataclass(frozen=True, slots=True)
class Extra:
    """Something that must be bought with the batteries of one candidate.

    Attributes:
        name: what it is.
        price: amount [money].
        tag: ``needed`` by this bank, ``wanted`` anyway, or already ``there``; the first is charged to it.
        covers: key of the demand that it meets, see ``stops.demands``; empty for none.
        life_years: after which it is bought again [years]; None for once.
        id: name within its candidate.
    """

    name: str
    price: float
    tag: str = NEEDED
    covers: str = ""
    life_years: float | None = None
    id: str = ""


@dataclass(frozen=True, slots=True)
class PurchaseStep:
    """A step in which a part of a bank is bought.

    Attributes:
        when: month, ISO ``2027-04``; empty for at once.
        strings: strings bought in it.
        other: what else is bought, in words.
        other_price: its price [money].
    """

    when: str
    strings: int
    other: str = ""
    other_price: float = 0.0


@dataclass(frozen=True, slots=True)
class Fix:
    """A remedy that the owner chose for a source beside a candidate.

    Attributes:
        source: id of the source.
        remedy: key of the remedy.
    """

    source: str
    remedy: str


@dataclass(frozen=True, slots=True)
class TrialSettings:
    """The stretch of days that the trial runs.

    Attributes:
        stretch: ``plan``, or the name of a bad one, see ``stops.trial.stretches``.
        days: length [days]; None for that of the stretch.
        month: 1 to 12; None for the governing season.
        seed: of the weather.
        nights: nights off-grid in a row; None for the rig's.
        pitches: where it stands, night by night, one after the other again; none for the rig's pitch.
        hidden_w: a drain that nobody knows of [W].
        start_soc: state of charge at the start [-].
    """

    stretch: str = "plan"
    days: int | None = None
    month: int | None = None
    seed: int = 1
    nights: int | None = None
    pitches: tuple[str, ...] = ()
    hidden_w: float = 0.0
    start_soc: float = 1.0


@dataclass(frozen=True, slots=True)
class Candidate:
    """A bank that is being considered.

    Attributes:
        id: name within the rig.
        battery_class: key of its class.
        model: id of its model; None lets the tool choose that of least lifetime cost.
        series: units in series; None for as many as the system voltage takes.
        parallel: strings; None for as many as the need takes.
        unit_price: price of one battery as quoted to the owner [money]; None for the list price.
        price_date: ISO date of that price; empty where not known.
        extras: what must be bought with the batteries.
        protection: what guards batteries without a switch of their own.
        places: where the owner stands the boxes; none for the search's.
        stages: steps in which it is bought; none for at once.
        fixes: remedies chosen for its sources.
        struck: keys of demands that the owner struck out.
        difficulty: ``easy``, ``some`` or ``hard`` to put in; None to go by the skill that it asks for.
        spare: whether a spare battery is bought with it.
        purchases: line of its shopping list → what became of it.
    """

    id: str
    battery_class: str
    model: str | None = None
    series: int | None = None
    parallel: int | None = None
    unit_price: float | None = None
    price_date: str = ""
    extras: tuple[Extra, ...] = ()
    protection: str = NO_PROTECTION
    places: tuple[Place, ...] = ()
    stages: tuple[PurchaseStep, ...] = ()
    fixes: tuple[Fix, ...] = ()
    struck: tuple[str, ...] = ()
    difficulty: str | None = None
    spare: bool = False
    purchases: Mapping[str, Purchase] = field(default_factory=dict)

    def known_price(self, line: str) -> float | None:
        """What a line of the shopping list costs, paid or quoted [money]; None where only an estimate is
        known."""
        noted = self.purchases.get(line)
        return None if noted is None else noted.price


@dataclass(frozen=True, slots=True)
class Plan:
    """Everything that an owner entered for one rig.

    Attributes:
        name, kind: what the rig is.
        system_v: class volts of the house system, 12, 24, 36 or 48 [V].
        off_grid_nights: nights a year without hook-up.
        years_kept: years that the rig will be kept, H.
        battery_c: temperature of the battery when it is used [°C]; None to go by its place and season.
        rest_c: its temperature the rest of the year [°C]; None to go by its place.
        loads, inverter, standby_w: the day; standby is what the monitor reads with all off [W].
        house_rule: key of the selected house rule.
        overrides: assumption key → value.
        currency: ISO 4217 code of the money that the owner pays with.
        life_basis: which life to plan with; None for the house rule's.
        candidates: banks being considered.
        models: catalogue and own models by id.
        old_bank: the bank that is there now, or None.
        site: where the rig is used.
        place: where the battery stands, one of ``climate.PLACES``.
        months: months of use, 1 to 12; empty for all the year.
        nights_in_a_row: longest stretch off-grid; None where it is not known.
        hook_up_nights: nights a year on hook-up.
        drive_hours: hours driven or motored on a travelling day [h].
        drive_every: days from one drive to the next while off-grid; None for moving days only.
        roof_m2: free roof, or room on the ground, for more solar panels [m²]; None where it was not measured.
        stay, loading: what else ends a stay, and what the rig can carry.
        locker: where the bank is to stand.
        installed: cables, fuses and chargers that are there.
        today: ISO date on which it is looked at; empty where that does not matter.
        budget: the most to spend at once [money]; None for no ceiling.
        cares: what the owner cares about, the strongest first.
        day_types: kinds of day, at least one.
        governing: day type to plan for; None for the one that asks most.
        day_basis: ``likely``, ``cautious`` or ``measured``: which day is planned for.
        habits: ``careful``, ``usual`` or ``careless``.
        overnight: plan from the last charge of a day to the next, instead of for whole nights.
        second: a second house bank, or None.
        sources: what charges the bank, and the upkeep of a starting battery.
        sun_hours: the owner's own peak-sun-hours of a mean day by month, January first [kWh/m²]; none to go
            by site and climate.
        pitch: where it usually stands, one of ``sources.PITCHES``.
        disconnect: ``all``, ``not_critical`` or ``none``: which loads a low-volts disconnect drops.
        watched: ``monitor`` where an alarm or a counting monitor warns in time; empty for a voltmeter or
            nothing.
        trial: the stretch that the trial runs.
        labour: who puts the bank in: ``own`` hands or a ``workshop``.
        stated: by topic (see ``rig.topics``) whether the owner stated it, or it was filled in for them; not
            named where that is not known.
        changeover: the bank that is bought, and how far the work is.
        improvements: what is planned beside the bank, and what is not possible for the owner.
        present: the rig as it is before what is planned is done; None where nothing is planned.
    """

    name: str
    kind: str
    system_v: float
    off_grid_nights: float
    years_kept: float
    battery_c: float | None
    rest_c: float | None
    loads: tuple[Load, ...]
    inverter: Inverter
    standby_w: float
    house_rule: str
    overrides: Mapping[str, float] = field(default_factory=dict)
    life_basis: str | None = None
    candidates: tuple[Candidate, ...] = ()
    models: Mapping[str, BatteryModel] = field(default_factory=dict)
    old_bank: OldBank | None = None
    site: Site = Site()
    place: str = LIVING
    months: tuple[int, ...] = ()
    nights_in_a_row: float | None = None
    hook_up_nights: float = 0
    drive_hours: float = 2
    drive_every: int | None = None
    roof_m2: float | None = None
    stay: Stay = Stay()
    loading: Loading = Loading()
    locker: Locker = Locker()
    installed: Installed = Installed()
    today: str = ""
    budget: float | None = None
    cares: tuple[str, ...] = ()
    day_types: tuple[DayType, ...] = (PLAIN_DAY,)
    governing: str | None = None
    day_basis: str = "likely"
    habits: str = "usual"
    overnight: bool = False
    second: SecondBank | None = None
    sources: tuple[Source, ...] = ()
    sun_hours: tuple[float, ...] = ()
    pitch: str = "open"
    disconnect: str = "all"
    watched: str = ""
    trial: TrialSettings = TrialSettings()
    labour: str = OWN_HANDS
    stated: Mapping[str, bool] = field(default_factory=dict)
    changeover: Changeover = NO_CHANGEOVER
    improvements: tuple[PlannedImprovement, ...] = ()
    present: "Plan | None" = None
    currency: str = CATALOGUE_CURRENCY

    @property
    def as_it_is(self) -> "Plan":
        """The rig as it is today, before anything that is planned is done."""
        return self.present or self

    @property
    def charge_a(self) -> float | None:
        """What all chargers give at once [A]: of the sources, else as the owner states it."""
        if not any(s.charges for s in self.sources):
            return self.installed.charge_a
        return together(self.sources, lambda s: s.most_a(self.system_v))

    @property
    def charge_v(self) -> float | None:
        """Highest absorption volts of any charger, for 12 V [V]."""
        volts = [s.set_v for s in self.sources if s.charges and s.set_v]
        return max(volts) if volts else self.installed.charge_v

    @property
    def equalises(self) -> bool:
        """Whether any charger equalises."""
        return any(s.equalise_v for s in self.sources) or self.installed.equalises

    def type_path(self, day_type: DayType) -> str:
        """JSON pointer of a day type in the rig file."""
        return f"/day/types/{[t.id for t in self.day_types].index(day_type.id)}"
