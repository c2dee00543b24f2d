"""What a bank gives and takes: currents, volts under load, its cable, its BMS."""

from vast_harbor.core.battery.charge_acceptance import acceptance, charge_ohm, time_constant
from vast_harbor.core.battery.datasheet import NO_PROTECTION, OWN_SWITCH, Bms
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance, peak_current, rested_volts
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.cables import Sized, resistance
from vast_harbor.core.rig.sources import together
from vast_harbor.core.stops.banks.criteria.bank_in_rig import Criterion
from vast_harbor.core.stops.banks.criteria.room import RoomCriteria
from vast_harbor.core.stops.day import BRIEF_S

# The lowest charge at which loads are run, whatever the planned depth [-].
LEAST_FLOOR = 0.1


class PowerCriteria(RoomCriteria):
    """The currents of a bank."""

    @cached_property
    def sized(self) -> Sized | None:
        """The main cable with its fuse that would do; None where none of the table will."""
        return self.rig.sized(self.main_a, self.cable_m)

    @cached_property
    def joined_a(self) -> float:
        """The most that the sources bring at once to where they join the bank [A]."""
        sources = self.plan.sources if self.sources is None else self.sources
        if not any(s.charges for s in sources):
            return self.plan.installed.charge_a or 0.0
        return together(sources, lambda s: s.conductor_a(self.plan.system_v))

    @property
    def main_a(self) -> float:
        """Largest lasting current in the main cable, out of the bank or into it [A]."""
        return max(self.rig.load_a, self.joined_a)

    @cached_property
    def cable_mm2(self) -> float | None:
        """Cross-section of the main cable, the one there or the one that would do [mm²]."""
        return self.plan.installed.cable_mm2 or (self.sized.mm2 if self.sized else None)

    @cached_property
    def terminal(self) -> Terminal:
        """Its volts at the lowest temperature, aged, through its cable."""
        model, cable = self.bank.model, 0.0
        if self.cable_mm2:
            cable = resistance(self.cable_mm2, self.cable_m, self.plan.installed.clad)
        return Terminal(
            model.battery_class, self.bank.series * model.unit_class_v, bank_resistance(self.bank), cable,
            self.days.coldest.number, min(self.days.need.ageing.number, model.health),
        )  # fmt: skip

    @cached_property
    def floor(self) -> float:
        """State of charge at the planned floor [-]."""
        return 1 - self.of_class.dod.number

    @cached_property
    def at_floor(self) -> tuple[float, float]:
        """Volts behind the resistance [V], and the resistance [Ω]: at the floor, cold, aged, with cable.

        A rule that takes out all that the label says means all that is given before the cut-off: the last
        tenth of the charge, in which the volts fall away, is not where loads are run.
        """
        terminal, floor = self.terminal, max(self.floor, LEAST_FLOOR)
        return float(terminal.source_volts(floor, floor)), float(terminal.resistance(floor, floor))

    def amps_at(self, watts: float) -> float | None:
        """Current for a power at the floor, cold, aged, through the cable [A]; None where it cannot."""
        return peak_current(*self.at_floor, watts)

    @cached_property
    def start_a(self) -> float | None:
        """Current at the hardest moment [A]; None where it cannot give it."""
        return self.amps_at(self.start_w)

    @property
    def bms(self) -> Bms | None:
        """Its BMS where that opens by a switch of its own."""
        bms = self.bank.model.bms
        return bms if bms is not None and bms.switch == OWN_SWITCH else None

    @property
    def unswitched(self) -> bool:
        """Whether nothing opens when it must: a lithium bank without switch, and nothing that stands in."""
        bms = self.bank.model.bms
        return bms is not None and bms.switch != OWN_SWITCH and self.protection == NO_PROTECTION

    @cached_property
    def lasting_w(self) -> float:
        """What runs at once, with starts that last longer than the BMS bears a peak [W]."""
        bms = self.bms
        return self.days.hardest.lasting(bms.peak_s if bms is not None and bms.peak_a else BRIEF_S)

    @property
    def start_w(self) -> float:
        """What runs at once, and the largest start on top [W]."""
        return self.days.hardest.peak.watts

    @property
    def gives_a(self) -> float | None:
        """Highest lasting current of one, by its BMS or its label [A]; None where not stated."""
        return self.bms.continuous_a if self.bms is not None else self.bank.model.limits.discharge_a

    def shared(self, amps: float) -> float:
        """n_p · limit · f: what strings side by side bear [A]; sharing is never equal."""
        n_p = self.bank.parallel
        return n_p * amps * (1.0 if n_p == 1 else self.assumptions.value("sharing"))

    @cached_property
    def running(self) -> Criterion | None:
        """Lasting current against what it may give [A]; None where either is not known."""
        amps = self.amps_at(self.lasting_w)
        if self.gives_a is None or amps is None:
            return None
        return Criterion(amps, self.shared(self.gives_a))

    @cached_property
    def starting(self) -> Criterion | None:
        """Starting current against the peak of its BMS, or its lasting current where it states none [A]."""
        amps, bms = self.start_a, self.bms
        if bms is None or amps is None or self.gives_a is None:
            return None
        return Criterion(amps, self.shared(bms.peak_a or self.gives_a))

    @cached_property
    def sag(self) -> Criterion | None:
        """Volts at the hardest moment against the inverter's cut-off [V]; None where it cannot give that."""
        if self.start_a is None:
            return None
        source, ohm = self.at_floor
        return Criterion(source - self.start_a * ohm, self.rig.cut_off_v, is_minimum=True)

    @property
    def has_inverter(self) -> bool:
        """Whether anything runs from an inverter."""
        return self.rig.has_inverter

    @property
    def takes_a(self) -> float:
        """Charge current that it may take [A]."""
        return self.bank.parallel * self.bank.model.charge_a

    @cached_property
    def arriving_a(self) -> float | None:
        """What really arrives of the current of all chargers [A]; None where that is not stated.

        No more than the bank accepts at the lowest charge that the need brings it to: a bank that is hardly
        drawn down takes little, however large the panels are.
        """
        given = self.rig.charge_a
        if given is None:
            return None
        battery_class, usable = self.bank.model.battery_class, self.usable_wh()
        share = min(1.0, self.days.need.energy.number / usable) if usable > 0 else 1.0
        depth = self.of_class.dod.number * share
        volts = self.plan.charge_v or battery_class.absorption_v
        tau = float(time_constant(battery_class, volts, 25.0))
        terminal, scale = self.terminal, self.bank.series * self.bank.model.unit_class_v / 12
        ohm = charge_ohm(battery_class, bank_resistance(self.bank), terminal.cable_ohm)
        rested = float(rested_volts(battery_class, scale * 12, 1 - depth))
        takes = acceptance(1 - depth, rested, volts * scale, self.bank.rated_ah, ohm, tau)
        return min(given, float(takes))

    @property
    def charge(self) -> Criterion | None:
        """What arrives of the chargers against what it may take [A]; None where the first is not stated."""
        return None if self.arriving_a is None else Criterion(self.arriving_a, self.takes_a)

    @property
    def pack_power(self) -> Criterion | None:
        """AC loads at once against the inverter of a portable pack [W]; None for any other bank."""
        pack_ = self.bank.model.portable
        return None if pack_ is None else Criterion(self.days.hardest.ac_peak_w, pack_.ac_w)
