"""The criteria that a bank must meet in a rig, in plain numbers.

The checks of a candidate show them with their workings and in words; the search of the catalogue goes through
them for every bank. Each criterion is computed here and nowhere else.
"""

from dataclasses import dataclass
from typing import Protocol

from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.charge_acceptance import acceptance, charge_ohm, time_constant
from vast_harbor.core.battery.datasheet import NO_PROTECTION, OWN_SWITCH, Bms
from vast_harbor.core.battery.gassing import air_flow, gassing_ma, opening_cm2, spark_distance_mm
from vast_harbor.core.battery.peukert import rate_factor
from vast_harbor.core.battery.plausibility import implausible
from vast_harbor.core.battery.sizing import usable_energy
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance, peak_current, rested_volts
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.axle_load import coupling_change
from vast_harbor.core.installation.cables import Sized, resistance
from vast_harbor.core.installation.packing import Clash, Packing, Place, clashes, pack
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import CABIN, Plan
from vast_harbor.core.rig.sources import Source, together
from vast_harbor.core.stops.day import BRIEF_S
from vast_harbor.core.stops.need import ClassNeed, Days
from vast_harbor.core.weather.climate import LIVING

# The lowest charge at which loads are run, whatever the planned depth [-].
LEAST_FLOOR = 0.1
# What a house rule may accept where it is too cold for a charge.
HEATER, WAIT = "heater", "wait"


@dataclass(frozen=True, slots=True)
class Criterion:
    """A value against a limit, both in one unit.

    Attributes:
        value, limit: the two.
        is_minimum: whether the limit is the least rather than the most.
    """

    value: float
    limit: float
    is_minimum: bool = False

    @property
    def margin(self) -> float:
        """What is left to the limit; negative where it is broken."""
        return self.value - self.limit if self.is_minimum else self.limit - self.value

    @property
    def broken(self) -> bool:
        """Whether the value is on the wrong side, by more than rounding."""
        return self.margin < -1e-6 * max(1.0, abs(self.limit))


class _Rig(Protocol):
    """What of the rig does not depend on the bank; see ``rig_limits.RigLimits``."""

    @property
    def old_kg(self) -> float: ...
    @property
    def cut_off_v(self) -> float: ...
    @property
    def load_a(self) -> float: ...
    @property
    def charge_a(self) -> float | None: ...
    @property
    def has_inverter(self) -> bool: ...
    def sized(self, amps: float, cable_m: float) -> Sized | None: ...
    def can_be_fused(self, bank: Bank) -> bool: ...


def label_or_class_exponent(assumptions: Assumptions, model: BatteryModel) -> float:
    """Peukert exponent of a model: from its two ratings, else of its class; an override holds over both."""
    key = f"peukert.{model.battery_class.key}"
    if assumptions.overridden(key) or model.label_exponent is None:
        return assumptions.value(key)
    return model.label_exponent


@dataclass(frozen=True)
class BankCriteria:
    """A bank in a rig, as the criteria see it.

    Attributes:
        plan, assumptions, days: the plan and what holds for it.
        rig: what of the rig does not depend on the bank.
        bank: the layout.
        places: where its owner stands the boxes; none to let the search place them.
        protection: what guards a bank that has no switch of its own.
        quoted: price of one as the owner was quoted it [money]; None for its entry's.
        sources: what charges it, remedies carried out; None for the rig's as they are.
    """

    plan: Plan
    assumptions: Assumptions
    days: Days
    rig: _Rig
    bank: Bank
    places: tuple[Place, ...] = ()
    protection: str = NO_PROTECTION
    sources: tuple[Source, ...] | None = None
    quoted: float | None = None

    @cached_property
    def of_class(self) -> ClassNeed:
        """What its battery class needs."""
        return self.days.need.classes[self.bank.model.battery_class.key]

    # What it gives

    @cached_property
    def rate(self) -> float:
        """k_rate [-]."""
        model = self.bank.model
        exponent = label_or_class_exponent(self.assumptions, model)
        return rate_factor(self.bank.rated_ah, model.rated_hours, exponent, self.of_class.mean_current.number)

    def usable_wh(self, age: float | None = None) -> float:
        """Usable energy at the ageing allowance, or at another age; a used battery never had more than its
        health [Wh]."""
        c = self.of_class
        capacity = min(c.ageing.number if age is None else age, self.bank.model.health)
        return usable_energy(self.bank.nameplate_wh, c.dod.number, c.temperature.number, self.rate, capacity)

    @cached_property
    def covers_need(self) -> Criterion:
        """Usable energy against the need [Wh]."""
        return Criterion(self.usable_wh(), self.days.need.energy.number, is_minimum=True)

    # Current

    @cached_property
    def packing(self) -> Packing | None:
        """The bank in the locker as the search stands it, or as its owner does; None without measures."""
        case, rooms = self.bank.model.case, self.plan.locker.rooms
        if case.size is None or not rooms:
            return None
        found = pack(rooms, case.size, case.orientation, self.bank.units)
        if self.placed:
            return Packing(self.placed, self.bank.units, found.free_l)
        return found

    @property
    def placed(self) -> tuple[Place, ...]:
        """Where the owner stands the boxes; none where the number does not agree any more."""
        return self.places if len(self.places) == self.bank.units else ()

    @cached_property
    def clashes(self) -> tuple[Clash, ...]:
        """What is wrong with where the owner stands the boxes."""
        case = self.bank.model.case
        if case.size is None or not self.placed:
            return ()
        return tuple(clashes(self.plan.locker.rooms, case.size, case.orientation, self.placed))

    @cached_property
    def in_second(self) -> bool:
        """Whether a part of it stands in the second compartment, with more cable to it."""
        if self.plan.locker.second_cable_m <= 0 or self.packing is None:
            return False
        return any(p.compartment for p in self.packing.places)

    @cached_property
    def cable_m(self) -> float:
        """Main cable, one way, to where the bank stands [m]."""
        return self.assumptions.value("main_cable_m") + self.plan.locker.second_cable_m * self.in_second

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

    # Climate

    @property
    def cold_charge(self) -> Criterion:
        """Coldest in use against the coldest at which it may be charged [°C]."""
        return Criterion(self.days.coldest.number, self.bank.model.charge_c[0], is_minimum=True)

    @property
    def cold_answer(self) -> str | None:
        """What the house rule accepts where it may not be charged at the coldest.

        Returns:
            ``heater``, ``wait`` for a warmer hour; None where neither will do, or nothing is asked.
        """
        model, assume = self.bank.model, self.assumptions
        if not self.cold_charge.broken:
            return None
        if model.heater_w is not None and assume.value("cold_heater") >= 1:
            return HEATER
        guarded = model.bms is not None and model.bms.stops_cold_charge
        warmest = self.days.coldest.number + assume.value("afternoon_k")
        if guarded and assume.value("cold_wait") >= 1 and warmest >= model.charge_c[0]:
            return WAIT
        return None

    @property
    def use_c(self) -> tuple[float, float]:
        """Temperatures between which it may be used [°C]."""
        model = self.bank.model
        return model.limits.discharge_c or model.battery_class.discharge_c

    @property
    def cold_use(self) -> Criterion:
        """Coldest in use against the coldest at which it may be used [°C]."""
        return Criterion(self.days.coldest.number, self.use_c[0], is_minimum=True)

    @property
    def hot_use(self) -> Criterion:
        """Warmest in use against the warmest at which it may be used [°C]."""
        return Criterion(self.days.warmest.number, self.use_c[1])

    # Air

    @property
    def gassing(self) -> float:
        """Gassing current while it is charged, or equalised [mA/Ah]."""
        battery_class, plan = self.bank.model.battery_class, self.plan
        equalise = None
        if plan.equalises and battery_class.water:
            equalise = 1000 * (self.rig.charge_a or 0.0) / self.bank.rated_ah
        return gassing_ma(battery_class, (plan.charge_v or battery_class.absorption_v) / 6, equalise)

    @property
    def air_m3h(self) -> float:
        """Air that must flow while it is charged [m³/h]."""
        cells = self.bank.series * self.bank.model.cells
        return air_flow(cells, self.gassing, self.bank.rated_ah)

    @property
    def spark_mm(self) -> float:
        """Distance to be kept from what sparks [mm]."""
        return spark_distance_mm(self.gassing, self.bank.rated_ah)

    @property
    def opening(self) -> Criterion | None:
        """Free area of each opening against what it wants [cm²]; None where the openings are not measured."""
        there = self.plan.locker.vent_cm2
        return None if there is None else Criterion(there, self.opening_cm2, is_minimum=True)

    @property
    def opening_cm2(self) -> float:
        """Free area that each of two openings wants [cm²]."""
        return opening_cm2(self.air_m3h)

    @property
    def in_living_space(self) -> bool:
        """Whether it stands where people sleep, in a box that is not vented to the outside."""
        return self.plan.place == LIVING and not self.plan.locker.vented

    # Weight

    @property
    def kg_change(self) -> float:
        """Weight against the old bank [kg]."""
        return self.bank.kg - self.rig.old_kg

    @property
    def payload(self) -> Criterion | None:
        """What it adds against the payload left, else its weight against what such rigs bear [kg]; None in a
        cabin."""
        if self.plan.kind == CABIN:
            return None
        left = self.plan.loading.payload_kg
        if left is not None:
            return Criterion(self.kg_change, left)
        # A rig that bears the old bank bears one of its weight.
        return Criterion(
            self.bank.kg, max(self.rig.old_kg, self.assumptions.value(f"bears_kg.{self.plan.kind}"))
        )

    @cached_property
    def shift_kg(self) -> float | None:
        """Change at the coupling of a caravan, or on the front axle of a vehicle [kg]; None where the levers
        are not stated, afloat, or in a cabin."""
        loading = self.plan.loading
        if self.plan.kind in ("cabin", "boat"):
            return None
        if loading.old_x_m is None or loading.new_x_m is None or loading.base_m is None:
            return None
        return coupling_change(
            self.bank.kg, loading.new_x_m, self.rig.old_kg, loading.old_x_m, loading.base_m
        )

    @property
    def coupling(self) -> tuple[Criterion, Criterion] | None:
        """Load on a caravan's coupling against nought and against the most [kg]; None where not stated."""
        loading = self.plan.loading
        if self.plan.kind != "caravan" or self.shift_kg is None:
            return None
        if loading.coupling_kg is None or loading.coupling_max_kg is None:
            return None
        then = loading.coupling_kg + self.shift_kg
        return Criterion(then, 0.0, is_minimum=True), Criterion(then, loading.coupling_max_kg)

    @property
    def axles(self) -> dict[str, Criterion]:
        """What it adds to the front and the rear axle against what is left there [kg]; those stated."""
        loading = self.plan.loading
        if self.plan.kind == "caravan" or self.shift_kg is None:
            return {}
        added = {"front": self.shift_kg, "rear": self.kg_change - self.shift_kg}
        left = {"front": loading.front_kg, "rear": loading.rear_kg}
        return {side: Criterion(added[side], most) for side, most in left.items() if most is not None}

    @property
    def snakes(self) -> bool:
        """Whether nothing would press on the coupling any more."""
        return self.coupling is not None and self.coupling[0].value <= 0

    @property
    def implausible(self) -> str:
        """What of an owner's own battery cannot be true; see ``battery.plausibility``. Empty for nothing."""
        model = self.bank.model
        price = model.price if self.quoted is None else self.quoted
        return implausible(model, price, self.assumptions.value("price_factor")) if model.own else ""
