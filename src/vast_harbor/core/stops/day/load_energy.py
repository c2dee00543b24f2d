"""What each load of a day takes, with its workings."""

from dataclasses import dataclass

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.clock import Block
from vast_harbor.core.figures.workings import Deferred, Figure, computed, typed
from vast_harbor.core.rig.day_types import DayType
from vast_harbor.core.rig.loads import DC, SECOND, STANDBY, TIMES, USES, WEATHER_C, Load
from vast_harbor.core.rig.plan import Plan
from vast_harbor.phrases import phrase

AUDIT = phrase("day.load_energy.energy_audit_quantity_power")


@dataclass(frozen=True)
class LoadFigures:
    """What one load takes on one kind of day; its figures are built when they are asked for.

    Attributes:
        plan, type, air: the plan, the kind of day, and the outside air on it.
        load: the load as it is on that day.
        index: its place in the list.
        blocks: when it is on, clock hours.
        load_wh, from_bank_wh: energy at the load and from the main bank, losses included [Wh/day].
        eta: efficiency between the bank and the load [-].
    """

    plan: Plan
    type: DayType
    air: Figure
    load: Load
    index: int
    blocks: tuple[Block, ...]
    load_wh: float
    from_bank_wh: float
    eta: Figure

    @property
    def runs(self) -> bool:
        """Whether it takes anything on that day."""
        return self.load_wh > 0

    @cached_property
    def wh(self) -> Figure:
        """Energy at the load [Wh/day]."""
        return load_energy(self.plan, self.type, self.load, self.index, self.air, self.load_wh)

    @cached_property
    def bank_wh(self) -> Figure:
        """Energy that it takes from the main bank, losses included [Wh/day]."""
        return computed(
            f"day.{self.type.id}.load.{self.load.id}.bank_wh",
            phrase("day.load_energy.bank_wh", name=self.load.name),
            self.from_bank_wh,
            "Wh",
            "{E} / {η}",
            {"E": self.wh, "η": self.eta},
            phrase("day.load_energy.bank_wh_source"),
        )

    def part_of(self, total_wh: float) -> float | None:
        """Its share of an energy from the bank [-]; None of none."""
        return self.from_bank_wh / total_wh if total_wh > 0 else None

    def share(self, total: Figure) -> Figure:
        """Its share of the day's energy from the bank [%]; no value on a day without energy.

        Args:
            total: the day's energy from the bank [Wh/day].
        """
        part = self.part_of(total.number)
        return computed(
            f"day.{self.type.id}.load.{self.load.id}.share",
            phrase("day.load_energy.share", name=self.load.name),
            part,
            "%",
            "" if part is None else "{E} / {E_bank}",
            Deferred(lambda: {"E": self.bank_wh, "E_bank": total}),
        )

    @property
    def low_wh(self) -> float:
        """Least that it may take from the bank [Wh/day]; never more than the likely."""
        return self.from_bank_wh * min(1.0, _scale(self.load, self.load.low))

    @property
    def high_wh(self) -> float:
        """Most that it may take from the bank [Wh/day]; never less than the likely."""
        return self.from_bank_wh * max(1.0, _scale(self.load, self.load.high))


def load_energy(plan: Plan, day_type: DayType, load: Load, index: int, air: Figure, wh: float) -> Figure:
    """E_load of a load on a kind of day [Wh/day].

    Args:
        plan: the plan.
        day_type: the kind of day.
        load: the load as it is on that day.
        index: its place in the list.
        air: outside air on that day [°C].
        wh: the energy [Wh/day].

    Returns:
        The energy with its workings.
    """
    at, path = f"day.{day_type.id}.load.{load.id}", f"/day/loads/{index}"
    times = f"{path}/on/{day_type.id}" if load.on.get(day_type.id) else path
    measured = load.measured_wh is not None
    inputs = _measured(load, at, path) if measured else _estimated(load, at, path, air)
    power = "{P}" if measured else "{n} · {P} · {duty}"
    if load.use == USES:
        inputs["u"] = typed(f"{at}.uses", phrase("day.load_energy.uses"), load.uses, "1", f"{times}/uses")
        inputs["t"] = typed(
            f"{at}.minutes", phrase("day.load_energy.minutes"), load.minutes, "min", f"{times}/minutes"
        )
        formula = f"{power} · {{u}} · {{t}} / 60"
    elif load.use == STANDBY:
        formula = f"{power} · 24"
    elif load.use == TIMES:
        inputs["h"] = computed(
            f"{at}.hours", phrase("day.load_energy.hours"), load.hours_on, "h", "", {},
            phrase("day.load_energy.hours_source"),
        )  # fmt: skip
        formula = f"{power} · {{h}}"
    else:
        inputs["h"] = typed(
            f"{at}.hours", phrase("day.load_energy.hours_day"), load.hours_on, "h", f"{times}/hours"
        )
        formula = f"{power} · {{h}}"
    source = phrase("day.load_energy.measured_replaces_estimate") if measured else AUDIT
    return computed(f"{at}.wh", load.name, wh, "Wh", formula, inputs, source)


def _measured(load: Load, at: str, path: str) -> dict[str, Figure]:
    assert load.measured_wh is not None
    counted = typed(
        f"{at}.measured_wh",
        phrase("day.load_energy.measured_wh"),
        load.measured_wh,
        "Wh",
        f"{path}/measured_wh",
    )
    hours = typed(
        f"{at}.measured_hours", phrase("day.load_energy.measured_hours"), load.measured_hours, "h",
        f"{path}/measured_hours",
    )  # fmt: skip
    power = computed(
        f"{at}.measured_w",
        phrase("day.load_energy.measured_w", name=load.name),
        load.measured_w,
        "W",
        "{Wh} / {h}",
        {"Wh": counted, "h": hours},
        phrase("day.load_energy.measured_w_source"),
    )
    return {"P": power}


def _estimated(load: Load, at: str, path: str, air: Figure) -> dict[str, Figure]:
    inputs = {
        "n": typed(
            f"{at}.quantity", phrase("day.load_energy.quantity"), load.quantity, "1", f"{path}/quantity"
        )
    }
    if load.draw.unit == "A":
        amps = typed(f"{at}.amps", phrase("terms.names.current"), load.draw.value, "A", f"{path}/draw")
        volts = typed(
            f"{at}.volts", phrase("day.load_energy.voltage"), load.volts, "V", f"{path}/volts",
            phrase("day.load_energy.volts_note"),
        )  # fmt: skip
        inputs["P"] = computed(
            f"{at}.watts",
            phrase("day.load_energy.watts", name=load.name),
            load.watts,
            "W",
            "{I} · {V}",
            {"I": amps, "V": volts},
        )
    else:
        inputs["P"] = typed(
            f"{at}.watts", phrase("day.load_energy.watts", name=load.name), load.watts, "W", f"{path}/draw"
        )
    if load.duty_at:
        points = ", ".join(f"{d:.0%} at {t:g} °C" for t, d in zip(WEATHER_C, load.duty_at, strict=True))
        inputs["duty"] = computed(
            f"{at}.duty", phrase("day.load_energy.duty"), load.duty, "%", "", {"T_air": air},
            phrase("day.load_energy.duty_source", points=points),
        )  # fmt: skip
    else:
        inputs["duty"] = typed(
            f"{at}.duty", phrase("day.load_energy.duty_cycle"), load.duty, "%", f"{path}/duty",
            phrase("day.load_energy.duty_note"),
        )  # fmt: skip
    return inputs


def _scale(load: Load, limit: float | None) -> float:
    """A limit of the draw against the likely one; a measured load has none."""
    if limit is None or load.draw.value <= 0 or load.measured_wh is not None:
        return 1.0
    return limit / load.draw.value


def hangs_on_second(plan: Plan, load: Load) -> bool:
    """Whether a load is connected to the second bank; AC ones to the inverter's, the main one."""
    return plan.second is not None and load.bank == SECOND and load.supply == DC
