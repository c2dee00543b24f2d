"""What all parts of the changeover share: the bank that is bought, as it is built into this rig."""

from dataclasses import dataclass

from vast_harbor.core.battery.datasheet import OWN_SWITCH
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.bank_circuit import APART, Circuit, Point, points
from vast_harbor.core.installation.wiring import Wiring
from vast_harbor.core.rig.changeover import Changeover, Purchase
from vast_harbor.core.rig.loads import AC
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.source_remedies import Rung, chosen, name_of
from vast_harbor.core.rig.sources import Source
from vast_harbor.core.stops.banks import Build, wiring_of
from vast_harbor.core.stops.changeover.steady_load import SteadyLoad, steady_load
from vast_harbor.core.stops.charging import as_built
from vast_harbor.core.stops.compare import ComparedBank, RequiredExtra

# From here on a bank may come below freezing on a night colder than its day [°C].
NEAR_FREEZING_C = 5.0


@dataclass(frozen=True)
class Work:
    """The bank that is bought, in its rig.

    Attributes:
        compared: the candidate with its money, life and sources.
        build: the same in its rig.
    """

    compared: ComparedBank
    build: Build

    @property
    def plan(self) -> Plan:
        """The owner's plan."""
        return self.build.plan

    @property
    def record(self) -> Changeover:
        """What the owner entered of the changeover."""
        return self.plan.changeover

    @property
    def id(self) -> str:
        """Id of the candidate."""
        return self.compared.id

    @property
    def lead(self) -> bool:
        """Whether the bank is lead-acid."""
        return self.build.lead

    @property
    def flooded(self) -> bool:
        """Whether it is vented, with liquid acid."""
        return self.build.bank.model.battery_class.water

    @property
    def watches_cold(self) -> bool:
        """Whether a thermometer must tell when it may be charged: LFP that comes near freezing."""
        return not self.lead and self.build.coldest.number < NEAR_FREEZING_C

    @property
    def sleeps(self) -> bool:
        """Whether its batteries have a BMS that can be asleep."""
        bms = self.build.bank.model.bms
        return bms is not None and bms.switch == OWN_SWITCH

    @cached_property
    def wiring(self) -> Wiring:
        """The bank as it is wired."""
        return wiring_of(self.built)

    @cached_property
    def points(self) -> tuple[Point, ...]:
        """Its measuring points."""
        return points(self.wiring)

    @cached_property
    def load(self) -> SteadyLoad:
        """What it is tested with."""
        return steady_load(self.build)

    @cached_property
    def celsius(self) -> float:
        """Temperature of the batteries while they are measured [°C]."""
        stated = self.record.celsius
        return self.build.need.day.battery_c.number if stated is None else stated

    @cached_property
    def circuit(self) -> Circuit:
        """The bank as a circuit, full and not joined."""
        return Circuit(
            self.wiring,
            APART,
            1.0,
            self.celsius,
            0.0,
            self.build.cable_m.number,
            self.build.bank.model.health,
        )

    @cached_property
    def sources(self) -> tuple[Source, ...]:
        """The rig's sources, with the remedies that are carried out."""
        return self.built.sources

    @cached_property
    def built(self) -> Build:
        """The bank in its rig as it will be after the work."""
        return as_built(self.build)

    @property
    def inverter(self) -> bool:
        """Whether the rig has an inverter."""
        return bool(self.plan.inverter.rated_w) or any(load.supply == AC for load in self.plan.loads)

    @property
    def required(self) -> tuple[RequiredExtra, ...]:
        """What the bank needs in addition, as the money has it."""
        return self.compared.cost.required_extras

    @staticmethod
    def name(source: Source) -> str:
        """What a source is called."""
        return name_of(source)

    @property
    def remedies(self) -> tuple[tuple[Source, Rung], ...]:
        """The remedies of sources that the owner chose."""
        build = self.build
        return tuple(chosen(self.plan, build.candidate, build.bank.model.battery_class, build.assumptions))

    def purchase(self, key: str) -> Purchase:
        """What became of a line of the shopping list."""
        return self.build.candidate.purchases.get(key, NOTHING)


NOTHING = Purchase()
