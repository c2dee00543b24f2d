"""What a bank must stand up to in a rig, in plain numbers, for looking at very many banks.

The checks of a candidate tell the same with figures and words; a test holds the two against each other.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.datasheet import OWN_SWITCH
from vast_harbor.core.battery.gassing import air_flow, gassing_ma, opening_cm2
from vast_harbor.core.battery.peukert import rate_factor
from vast_harbor.core.battery.sizing import usable_energy
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance, peak_current
from vast_harbor.core.installation.axle_load import coupling_change
from vast_harbor.core.installation.cables import resistance, size
from vast_harbor.core.installation.packing import Packing, pack
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.loads import AC
from vast_harbor.core.rig.plan import Plan, Reference
from vast_harbor.core.stops.banks.bank_figures import label_or_class_exponent
from vast_harbor.core.stops.day.energy_audit import BRIEF_S
from vast_harbor.core.stops.need.governing_day import Days
from vast_harbor.core.weather.climate import LIVING

# Reasons, in the order in which they are looked for, in words that can be counted.
REASONS = {
    "series": "more in series than the maker permits",
    "need": "does not cover the need in as many strings as are permitted",
    "switch": "no switch of its own: an external BMS must be bought besides",
    "pack": "a portable pack whose inverter is too small",
    "current": "its BMS does not pass the running load",
    "start": "its BMS does not pass the start of a motor",
    "sag": "sags below the inverter’s cut-off",
    "charge": "may not take what your chargers give",
    "cold": "may not be charged as cold as it gets, and has no heater",
    "temperature": "too cold or too warm to be used",
    "air": "gives off gas where people sleep, or has too little air",
    "weight": "too heavy for payload, axle or coupling",
    "locker": "does not fit the locker",
}


@dataclass(frozen=True)
class RigLimits:
    """A rig as a bank meets it.

    Attributes:
        plan, reference, assumptions, days: the plan and what holds for it.
        old_kg: weight of the old bank [kg].
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    old_kg: float

    @cached_property
    def _cable_ohm(self) -> float:
        plan, assume = self.plan, self.assumptions
        mm2, length = plan.installed.cable_mm2, assume.value("main_cable_m")
        if mm2 is None:
            amps = self.main_a
            sized = size(
                max(0.1, amps), length, plan.system_v, assume.value("cable_drop"), self.reference.cables
            )
            mm2 = sized.mm2 if sized else None
        return resistance(mm2, length, plan.installed.clad) if mm2 else 0.0

    @cached_property
    def main_a(self) -> float:
        """Largest lasting current in the main cable, at the inverter's cut-off [A]."""
        plan = self.plan
        volts = self.assumptions.value("inverter_cut_off_v") * plan.system_v / 12
        rated = plan.inverter.rated_w or 0.0
        return max(self.days.hardest.lasting(), rated / plan.inverter.efficiency) / volts

    def usable_wh(self, bank: Bank, age: float | None = None) -> float:
        """Usable energy of a bank at the ageing allowance, or at another age [Wh]."""
        model = bank.model
        of_class = self.days.need.classes[model.battery_class.key]
        exponent = label_or_class_exponent(self.assumptions, model)
        rate = rate_factor(bank.rated_ah, model.rated_hours, exponent, of_class.mean_current.number)
        age = min(of_class.ageing.number if age is None else age, model.health)
        return usable_energy(bank.nameplate_wh, of_class.dod.number, of_class.temperature.number, rate, age)

    def packing(self, bank: Bank) -> Packing | None:
        """The bank in the locker; None without measures."""
        size_mm, rooms = bank.model.case.size, self.plan.locker.rooms
        if size_mm is None or not rooms:
            return None
        return pack(rooms, size_mm, bank.model.case.orientation, bank.units)

    def against(self, bank: Bank) -> Iterator[str]:
        """Every reason why a bank of the right volts will not do, by its key in :data:`REASONS`."""
        model, need = bank.model, self.days.need.energy.number
        if bank.series > model.max_series:
            yield "series"
        if bank.parallel > model.max_parallel or need - self.usable_wh(bank) > 1e-6 * max(1.0, need):
            yield "need"
        bms = model.bms
        if bms is not None and bms.switch != OWN_SWITCH:
            yield "switch"
        if model.portable is not None and self.days.hardest.ac_peak_w > model.portable.ac_w * (1 + 1e-6):
            yield "pack"
        yield from self._electrical(bank)
        yield from self._climate(model)
        if self._gasses(bank):
            yield "air"
        if self._heavy(bank):
            yield "weight"
        packing = self.packing(bank)
        if packing is not None and not packing.fits:
            yield "locker"

    def _electrical(self, bank: Bank) -> Iterator[str]:
        model, plan = bank.model, self.plan
        bms = model.bms if model.bms is not None and model.bms.switch == OWN_SWITCH else None
        of_class = self.days.need.classes[model.battery_class.key]
        floor = 1 - of_class.dod.number
        terminal = Terminal(
            model.battery_class, bank.series * model.unit_class_v, bank_resistance(bank), self._cable_ohm,
            self.days.coldest.number, min(of_class.ageing.number, model.health),
        )  # fmt: skip
        source, ohm = float(terminal.source_volts(floor, floor)), float(terminal.resistance(floor, floor))

        share = bank.parallel * (1.0 if bank.parallel == 1 else self.assumptions.value("sharing"))
        most = bms.continuous_a if bms is not None else model.limits.discharge_a
        if most is not None:
            seconds = bms.peak_s if bms is not None and bms.peak_a else BRIEF_S
            running = peak_current(source, ohm, self.days.hardest.lasting(seconds))
            if running is None or running > share * most * (1 + 1e-6):
                yield "current"
        peak = self.days.hardest.peak.watts
        start = peak_current(source, ohm, peak)
        if bms is not None and (start is None or (bms.peak_a and start > share * bms.peak_a * (1 + 1e-6))):
            yield "start"
        cut_off = self.assumptions.value("inverter_cut_off_v") * plan.system_v / 12
        sags = start is not None and source - start * ohm < cut_off * (1 - 1e-6)
        if peak > 0 and (start is None or (sags and any(x.supply == AC for x in plan.loads))):
            yield "sag"
        charge = plan.charge_a
        if charge is not None and charge > bank.parallel * model.charge_a * (1 + 1e-6):
            yield "charge"

    def _climate(self, model: BatteryModel) -> Iterator[str]:
        coldest, warmest = self.days.coldest.number, self.days.warmest.number
        lead = model.battery_class.is_lead_acid
        if not lead and coldest < model.charge_c[0] and model.heater_w is None:
            yield "cold"
        least, most = model.limits.discharge_c or model.battery_class.discharge_c
        if coldest < least or warmest > most:
            yield "temperature"

    def _gasses(self, bank: Bank) -> bool:
        battery_class, locker, plan = bank.model.battery_class, self.plan.locker, self.plan
        if battery_class.vented != "always":
            return False
        if self.plan.place == LIVING and not locker.vented:
            return True
        if locker.vent_cm2 is None:
            return False
        equalise = None
        if plan.equalises and battery_class.water:
            equalise = 1000 * (plan.charge_a or 0.0) / bank.rated_ah
        gas = gassing_ma(battery_class, (plan.charge_v or battery_class.absorption_v) / 6, equalise)
        flow = air_flow(bank.series * bank.model.cells, gas, bank.rated_ah)
        return opening_cm2(flow) > locker.vent_cm2 * (1 + 1e-6)

    def _heavy(self, bank: Bank) -> bool:
        loading, kind = self.plan.loading, self.plan.kind
        if kind == "cabin":
            return False
        change = bank.kg - self.old_kg
        if loading.payload_kg is not None and change > loading.payload_kg + 1e-6:
            return True
        if kind == "boat" or None in (loading.old_x_m, loading.new_x_m, loading.base_m):
            return False
        assert loading.old_x_m is not None and loading.new_x_m is not None and loading.base_m is not None
        shift = coupling_change(bank.kg, loading.new_x_m, self.old_kg, loading.old_x_m, loading.base_m)
        if kind == "caravan":
            if loading.coupling_kg is None or loading.coupling_max_kg is None:
                return False
            then = loading.coupling_kg + shift
            return then <= 0 or then > loading.coupling_max_kg + 1e-6
        front, rear = loading.front_kg, loading.rear_kg
        return (front is not None and shift > front + 1e-6) or (
            rear is not None and change - shift > rear + 1e-6
        )

    @cached_property
    def rest_c(self) -> float:
        """Temperature of the battery the rest of the year [°C]."""
        return derating.rest_temperature(self.plan, self.assumptions).number
