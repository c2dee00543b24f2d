"""What a source does to a bank, whatever its chemistry."""

from abc import ABC, abstractmethod
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vast_harbor.core.battery.soc_from_voltage import soc_at
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, typed
from vast_harbor.core.rig.sources import DC_DC_EFFICIENCY, ENGINE, SOLAR, Source
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, NOTE, Build
from vast_harbor.phrases import phrase

PROFILE = ("position", "settings", "firmware", "board", "new", "dc_dc")


@dataclass(frozen=True, slots=True)
class Point:
    """One thing that a source does to a bank.

    Attributes:
        code: stable name.
        severity: ``blocking``, ``caution`` or ``note``.
        says: what, and what happens if nothing is changed.
        rungs: keys of the remedies that help.
        harms: whether it can harm the bank, the source or the rig, or breaks the house rule, so that its
            remedy is counted for every chemistry alike.
    """

    code: str
    severity: str
    says: Sentence
    rungs: tuple[str, ...]
    harms: bool = False

    @property
    def counts(self) -> bool:
        """Whether its remedy is counted in the money."""
        return self.harms or self.severity == BLOCKING


class SourceJudgement(ABC):
    """What one source does to one bank.

    Attributes:
        build: the bank in its rig.
        source: the source.
        sources: all of the rig, since another may wake the bank.
    """

    def __init__(self, build: Build, source: Source, index: int, sources: Sequence[Source]) -> None:
        self.build, self.source, self.sources = build, source, sources
        self.path = f"/sources/{index}"
        self.at = f"charging.{build.candidate.id}.{source.id}"
        self.model = build.bank.model
        self.battery_class = self.model.battery_class
        self.n = build.plan.system_v / 12

    def given(self, key: str, name: str, value: float, unit: str) -> Figure:
        """What the owner entered of the source."""
        return typed(f"source.{self.source.id}.{key}", name, value, unit, f"{self.path}/{key}")

    def figure(self, key: str, name: str, value: float, unit: str, says: str) -> Figure:
        """What follows for this bank, by a rule of reference."""
        return Figure(f"{self.at}.{key}", name, value, unit, REFERENCE, source=says)

    def soc(self, key: str, volts: float) -> Figure:
        """State of charge at which a bank of this class rests at these volts of a 12 V bank [-]."""
        value = soc_at(self.battery_class, 12, volts)
        return self.figure(
            key,
            phrase("charging.suitability.state_charge_voltage"),
            value,
            "%",
            phrase("charging.suitability.resting_voltage_class_state"),
        )

    def volts(self, key: str, name: str, value: float) -> Figure:
        """Volts of the source as they are on this rig; they are entered for a 12 V bank."""
        entered = self.given(key, name, value, "V")
        if self.n == 1:
            return entered
        system = typed(
            "rig.system_v",
            phrase("terms.names.system_voltage"),
            self.build.plan.system_v,
            "V",
            "/rig/system_v",
        )
        return computed(
            f"{self.at}.{key}", name, value * self.n, "V", "{V_12} · {V_sys} / 12",
            {"V_12": entered, "V_sys": system}, phrase("charging.suitability.voltages_entered_12_v"),
        )  # fmt: skip

    def here(self, volts_12: float) -> str:
        """Volts of a 12 V bank as they are on this rig, in words."""
        return f"{volts_12 * self.n:g} V"

    def points(self) -> Iterator[Point]:
        """What is wrong with the source beside this bank."""
        yield from self.own()
        yield from self.of_any()

    @abstractmethod
    def own(self) -> Iterator[Point]:
        """What is wrong for this chemistry."""

    def of_any(self) -> Iterator[Point]:
        """What is wrong beside any bank."""
        s = self.source
        if s.kind == SOLAR and s.watts:
            yield from self._array()
        if s.kind == ENGINE and s.is_relay and s.smart:
            yield Point(
                "smart", BLOCKING,
                Sentence(phrase("charging.suitability.smart_alternator_drops_about", here=self.here(12.4))),
                ("dc_dc",),
            )  # fmt: skip
        if s.kind == ENGINE and not s.is_relay and s.amps:
            into = self.figure(
                "alternator_in",
                phrase("charging.suitability.alternator_in"),
                s.amps * s.set_v / (DC_DC_EFFICIENCY * s.alternator_v),
                "A",
                phrase("charging.suitability.rated_amps_v_out", efficiency=f"{DC_DC_EFFICIENCY:g}"),
            )
            half = self.half()
            if into.number > half.number * 1.001:
                yield Point(
                    "alternator", CAUTION,
                    Sentence(phrase("charging.suitability.takes_alternator_half_rating"),
                             {"I": into, "half": half}),
                    (),
                )  # fmt: skip

    def _array(self) -> Iterator[Point]:
        """Panels against the bank, as the house rule has it."""
        family = "lead_acid" if self.build.lead else "lfp"
        most = self.build.assumptions.figure(f"array_per_kwh.{family}")
        label, watts = self.build.figures["nameplate_wh"], self.source.watts
        here = self.figure(
            "array",
            phrase("charging.suitability.array"),
            watts / (label.number / 1000),
            "W/kWh",
            phrase("charging.suitability.peak_watts_rated_kwh"),
        )
        if here.number > most.number:
            yield Point(
                "array", NOTE,
                Sentence(phrase("charging.suitability.panels_house_rule_allows"), {"x": here, "most": most}),
                (),
            )  # fmt: skip

    def slow(self, hours: float) -> Sentence:
        """That a full charge takes so long."""
        took = self.figure(
            "fills_in",
            phrase("charging.suitability.fills_in"),
            hours,
            "duration",
            phrase("charging.suitability.amp_hours_bank_amps"),
        )
        return Sentence(phrase("charging.suitability.full_charge_takes_night"), {"h": took})

    def half(self) -> Figure:
        """What the alternator can supply for hours [A]."""
        return self.figure(
            "half",
            phrase("charging.suitability.half"),
            self.source.alternator_a / 2,
            "A",
            phrase("charging.suitability.alternator_supply_hours"),
        )
