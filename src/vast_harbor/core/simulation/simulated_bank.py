"""A bank as it runs through days of use: what the simulation needs to know of it."""

from dataclasses import dataclass
from math import inf

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.charge_acceptance import full_soc
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.datasheet import BY_ITSELF
from vast_harbor.core.battery.kibam import Wells
from vast_harbor.core.rig.sources import Source


@dataclass(frozen=True, slots=True)
class CutOffs:
    """At which volts things switch off and on again, for a 12 V bank.

    Attributes:
        inverter_v, restart_v: the inverter gives up, and starts again.
        disconnect_v, reconnect_v: a load disconnect; None where there is none.
        keeps_critical: whether the critical loads are wired past it.
    """

    inverter_v: float = 10.8
    restart_v: float = 12.4
    disconnect_v: float | None = None
    reconnect_v: float = 12.6
    keeps_critical: bool = False


@dataclass(frozen=True, slots=True)
class SimulatedBank:
    """One bank in the simulation.

    Attributes:
        id: what it is called.
        battery_class: its class.
        class_v: class volts of the bank [V].
        wells: of the whole bank, at its health.
        nameplate_ah: nameplate · SoH [Ah].
        health: state of health [-].
        ohm, cable_ohm: resistance of the bank, new at 25 °C, and of its cables [Ω].
        charge_a: highest charge current of the bank [A].
        lasting_a, peak_a, peak_s: what its BMS passes for long, and for so many seconds [A], [s]; infinite
            without one.
        cut_v, close_v: volts of a 12 V unit at which the BMS opens and closes; 0 without one.
        resets: how it closes again.
        coulombic: share of the charge put in that comes out again [-].
        charge_c, discharge_c: temperatures between which it may be charged and used [°C].
        blocks_cold: whether the cold keeps charge out of it.
        heater_w: heater [W]; 0 without one.
        standing_a: what the BMS itself draws [A].
        cut_offs: when things switch off.
        sources: what charges it.
    """

    id: str
    battery_class: BatteryClass
    class_v: float
    wells: Wells
    nameplate_ah: float
    health: float
    ohm: float
    cable_ohm: float
    charge_a: float
    lasting_a: float
    peak_a: float
    peak_s: float
    cut_v: float
    close_v: float
    resets: str
    coulombic: float
    charge_c: tuple[float, float]
    discharge_c: tuple[float, float]
    heater_w: float
    standing_a: float
    cut_offs: CutOffs
    sources: tuple[Source, ...] = ()

    @property
    def lfp(self) -> bool:
        """Whether it is lithium."""
        return not self.battery_class.is_lead_acid

    @property
    def full_soc(self) -> float:
        """Where it counts as full [-]."""
        return full_soc(self.battery_class)


# A start that is over sooner is not what a BMS without a stated peak passes for long.
BRIEF_S = 10.0
# A BMS draws a few milliamps (1 to 5) for itself; without its own volts stated it opens and closes there.
BMS_DRAW_A, BMS_CUT_V, BMS_CLOSE_V = 0.003, 10.4, 12.0


def simulate_bank_as(
    id: str, bank: Bank, wells: Wells, health: float, cable_ohm: float, ohm: float, sharing: float,
    cut_offs: CutOffs, sources: tuple[Source, ...] = (), coulombic: float | None = None,
) -> SimulatedBank:  # fmt: skip
    """A bank of a catalogue model as the simulation takes it.

    Args:
        id: what it is called.
        bank: model and layout.
        wells: fitted kinetic model of one string, new.
        health: state of health [-].
        cable_ohm, ohm: resistance of cables and of the bank, new [Ω].
        sharing: f, what strings side by side may bear of their sum [-].
        cut_offs: when things switch off.
        sources: what charges it.
        coulombic: share of the charge put in that comes out again [-]; None for its class's.
    """
    model, n_p = bank.model, bank.parallel
    lfp = not model.battery_class.is_lead_acid
    bms = model.bms if lfp else None
    share = n_p * (sharing if n_p > 1 else 1.0)
    own = bms is not None and bms.switch == "own"
    per_unit = 12 / model.unit_class_v
    lasting = bms.continuous_a if bms is not None and own and bms.continuous_a else inf
    # Of a BMS that states no peak nothing more is known than what it passes for long.
    peak = bms.peak_a if bms is not None and own and bms.peak_a else lasting
    cut_v = bms.cut_v * per_unit if bms is not None and bms.cut_v else BMS_CUT_V
    close_v = bms.reconnect_v * per_unit if bms is not None and bms.reconnect_v else BMS_CLOSE_V
    return SimulatedBank(
        id=id,
        battery_class=model.battery_class,
        class_v=bank.series * model.unit_class_v,
        wells=Wells(wells.capacity * n_p * health, wells.ratio, wells.rate),
        nameplate_ah=bank.rated_ah * health,
        health=health,
        ohm=ohm,
        cable_ohm=cable_ohm,
        charge_a=model.charge_a * n_p,
        lasting_a=share * lasting,
        peak_a=share * peak,
        peak_s=bms.peak_s if bms is not None and bms.peak_a else BRIEF_S,
        cut_v=cut_v if lfp else 0.0,
        close_v=close_v if lfp else 0.0,
        resets=bms.resets if bms is not None else BY_ITSELF,
        coulombic=model.battery_class.coulombic.likely if coulombic is None else coulombic,
        charge_c=model.charge_c,
        discharge_c=model.limits.discharge_c or model.battery_class.discharge_c,
        heater_w=(model.heater_w or 0.0) * bank.units,
        standing_a=BMS_DRAW_A * bank.units if lfp else 0.0,
        cut_offs=cut_offs,
        sources=sources,
    )
