"""Cold, heat and gas about a bank."""

from vast_harbor.core.battery.gassing import air_flow, gassing_ma, opening_cm2, spark_distance_mm
from vast_harbor.core.rig.plan_place import THROUGH_INSULATION
from vast_harbor.core.stops.banks.criteria.bank_in_rig import BankInRig, Criterion
from vast_harbor.core.weather.climate import LIVING

# What a house rule may accept where it is too cold for a charge.
HEATER, WAIT = "heater", "wait"


class ClimateCriteria(BankInRig):
    """The temperatures and the air of a bank."""

    @property
    def cold_charge(self) -> Criterion:
        """Coldest in use against the coldest at which it may be charged [°C]."""
        return Criterion(self.days.coldest.number, self.bank.model.charge_c[0], is_minimum=True)

    @property
    def cold_left(self) -> Criterion | None:
        """Coldest while nobody is there against the coldest at which it may be charged [°C].

        None where nothing charges it then.
        """
        left = self.rig.left_c
        return None if left is None else Criterion(left, self.bank.model.charge_c[0], is_minimum=True)

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
        warmest = self.days.coldest.number + self.afternoon_k
        if guarded and assume.value("cold_wait") >= 1 and warmest >= model.charge_c[0]:
            return WAIT
        return None

    @property
    def afternoon_k(self) -> float:
        """How much warmer than the mean of the day the battery is in the afternoon [K]."""
        share = THROUGH_INSULATION if self.plan.locker.insulated else 1.0
        return self.assumptions.value("afternoon_k") * share

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
