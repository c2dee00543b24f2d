"""What a check of a bank is, and what checks share."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, datasheet, typed
from vast_harbor.core.installation.cables import Sized, inverter_current, resistance, size
from vast_harbor.core.installation.packing import Packing, Place, clashes, pack
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan, Reference
from vast_harbor.core.stops.day.energy_audit import Day
from vast_harbor.core.stops.day.energy_sums import inverter_efficiency
from vast_harbor.core.stops.need.energy_need import Need
from vast_harbor.core.stops.need.governing_day import Days

OK, NOTE, CARE, STOP, UNKNOWN = "ok", "note", "care", "stop", "unknown"


@dataclass(frozen=True, slots=True)
class Remedy:
    """Something that may be done about a check.

    Attributes:
        key: its name.
        says: what is done and what then holds.
        price: what it costs besides; None where that is not known.
        edits: JSON Patch operations that try it on the rig; none where it can only be done by hand.
    """

    key: str
    says: str
    price: Figure | None = None
    edits: tuple[Mapping[str, Any], ...] = ()


@dataclass(frozen=True, slots=True)
class Check:
    """One thing that was looked at.

    Attributes:
        code: stable name.
        name: what is looked at, in words.
        verdict: ``ok``, ``note``, ``care``, ``stop``, or ``unknown`` where something is missing.
        says: what, how much.
        remedy: what to do; empty where nothing need be.
        figure, limit, margin: the value, what it is held against, and how much is left to it (negative
            where it
            is broken); None where there are none.
        least: whether the limit is a least rather than a most.
        remedies: what may be done, each with its price.
    """

    code: str
    name: str
    verdict: str
    says: Sentence
    remedy: str = ""
    figure: Figure | None = None
    limit: Figure | None = None
    margin: Figure | None = None
    least: bool = False
    remedies: tuple[Remedy, ...] = ()

    def finding(self, subject: str) -> Finding | None:
        """The check as a finding of a candidate; None where there is nothing to say."""
        if self.verdict in (OK, UNKNOWN):
            return None
        return Finding(self.code, self.verdict, "banks", self.says, self.remedy, subject)


@dataclass(frozen=True)
class Build:
    """A candidate bank in its rig, with what several checks look at.

    Attributes:
        plan, reference, assumptions, days: the plan and what holds for it.
        candidate, index: the candidate, and its place in the list.
        bank: its layout.
        figures: its figures so far.
        old_kg: weight of the old bank [kg]; None without one.
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    candidate: Candidate
    index: int
    bank: Bank
    figures: Mapping[str, Figure]
    old_kg: Figure | None
    _typed: dict[str, Figure] = field(default_factory=dict)

    @property
    def at(self) -> str:
        """Prefix of the keys of its figures."""
        return f"bank.{self.candidate.id}"

    @property
    def path(self) -> str:
        """JSON pointer of the candidate."""
        return f"/candidates/{self.index}"

    @property
    def need(self) -> Need:
        """The need of the governing day."""
        return self.days.need

    @property
    def lead(self) -> bool:
        """Whether it is lead-acid."""
        return self.bank.model.battery_class.is_lead_acid

    @property
    def entry(self) -> str:
        """Where its datasheet values come from."""
        model = self.bank.model
        return ("Your own entry: " if model.own else "Catalogue entry: ") + model.title

    def of_entry(self, key: str, name: str, value: float | None, unit: str, note: str = "") -> Figure:
        """A figure of the battery's entry."""
        return datasheet(f"{self.at}.{key}", name, value, unit, self.entry, note)

    def entered(self, part: str, key: str, name: str, value: float | None, unit: str) -> Figure:
        """A figure that the owner entered on the Rig stop."""
        return typed(f"{part}.{key}", name, value, unit, f"/{part}/{key}")

    @property
    def used_days(self) -> tuple[Day, ...]:
        """Kinds of day on which somebody is there."""
        return self.days.used

    @property
    def coldest(self) -> Figure:
        """Coldest that the battery is on any kind of day in use [°C]."""
        return self.days.coldest

    @property
    def warmest(self) -> Figure:
        """Warmest that the battery is on any kind of day in use [°C]."""
        return self.days.warmest

    @property
    def hardest_day(self) -> Day:
        """The kind of day with the hardest moment, of those that the bank carries alone."""
        return self.days.hardest

    @cached_property
    def cable_m(self) -> Figure:
        """Main cable, one way, to where the bank stands [m]."""
        base, extra = self.assumptions.figure("main_cable_m"), self.plan.locker.second_cable_m
        packing = self.packing
        if extra <= 0 or packing is None or not any(p.compartment for p in packing.places):
            return base
        more = self.entered("rig", "locker2_cable_m", "To the second compartment", extra, "m")
        return computed(
            f"{self.at}.cable_m", "Main cable, one way", base.number + extra, "m", "{L} + {L_2}",
            {"L": base, "L_2": more}, "A part of the bank stands in the second compartment",
        )  # fmt: skip

    @cached_property
    def main_a(self) -> Figure:
        """Largest lasting current in the main cable [A]."""
        plan, day = self.plan, self.hardest_day
        lvc = self.assumptions.figure("inverter_cut_off_v")
        volts = lvc.number * plan.system_v / 12
        system = self.entered("rig", "system_v", "System voltage", plan.system_v, "V")
        running = day.lasting()
        rated, eta = plan.inverter.rated_w, inverter_efficiency(plan)
        note = "Cable and fuse must bear what can be drawn, at the volts at which the inverter gives up"
        if rated and rated / eta.number > running:
            return computed(
                f"{self.at}.main_a", "Lasting current in the main cable",
                inverter_current(rated, eta.number, volts), "A", "{P} / ({η} · {V_LVC} · {V} / 12)",
                {"P": typed("inverter.rated_w", "Inverter", rated, "W", "/day/inverter/rated_w"), "η": eta,
                 "V_LVC": lvc, "V": system}, "I = P/(η·V_LVC)", note,
            )  # fmt: skip
        watts = Figure(
            f"day.{day.type.id}.lasting_w", f"Running together on “{day.type.name}”", running, "W", REFERENCE,
            source="Largest sum of what runs at once, losses included",
        )  # fmt: skip
        return computed(
            f"{self.at}.main_a", "Lasting current in the main cable", running / volts, "A",
            "{P} / ({V_LVC} · {V} / 12)", {"P": watts, "V_LVC": lvc, "V": system}, "I = P/V_LVC", note,
        )  # fmt: skip

    @cached_property
    def sized(self) -> Sized | None:
        """The main cable with its fuse that would do; None where none of the table will."""
        drop = self.assumptions.value("cable_drop")
        amps = max(0.1, self.main_a.number)
        return size(amps, self.cable_m.number, self.plan.system_v, drop, self.reference.cables)

    @cached_property
    def cable_mm2(self) -> float | None:
        """Cross-section of the main cable, the one there or the one that would do [mm²]."""
        return self.plan.installed.cable_mm2 or (self.sized.mm2 if self.sized else None)

    @cached_property
    def terminal(self) -> Terminal:
        """Its volts at the lowest temperature, aged, through its cable."""
        cable = 0.0
        if self.cable_mm2:
            cable = resistance(self.cable_mm2, self.cable_m.number, self.plan.installed.clad)
        health = min(self.need.ageing.number, self.bank.model.health)
        return Terminal(
            self.bank.model.battery_class, self.bank.series * self.bank.model.unit_class_v,
            bank_resistance(self.bank), cable, self.coldest.number, health,
        )  # fmt: skip

    @cached_property
    def floor(self) -> float:
        """State of charge at the floor [-]."""
        return 1 - self.figures["dod"].number

    @cached_property
    def packing(self) -> Packing | None:
        """The bank in its locker as the search stands it, or as the owner does; None without measures."""
        size_mm = self.bank.model.case.size
        rooms = self.plan.locker.rooms
        if size_mm is None or not rooms:
            return None
        found = pack(rooms, size_mm, self.bank.model.case.orientation, self.bank.units)
        if len(self.placed) == self.bank.units:
            return Packing(self.placed, self.bank.units, found.free_l)
        return found

    @property
    def placed(self) -> tuple[Place, ...]:
        """Where the owner stands the boxes; none where the number does not agree any more."""
        places = self.candidate.places
        return places if len(places) == self.bank.units else ()

    @cached_property
    def clashes(self) -> tuple[Any, ...]:
        """What is wrong with where the owner stands the boxes."""
        size_mm = self.bank.model.case.size
        if size_mm is None or not self.placed:
            return ()
        return tuple(clashes(self.plan.locker.rooms, size_mm, self.bank.model.case.orientation, self.placed))

    def compare_to_limit(
        self,
        code: str,
        name: str,
        figure: Figure,
        limit: Figure,
        ok: str,
        broken: str,
        severity: str,
        remedy: str,
        *,
        least: bool = False,
        remedies: tuple[Remedy, ...] = (),
        **more: Figure,
    ) -> Check:
        """A figure held against a limit.

        Args:
            code, name: of the check.
            figure, limit: value and limit, in one unit.
            ok, broken: what to say, with ``{x}`` and ``{limit}`` and further figures.
            severity: where it is broken.
            remedy, remedies: what to do then.
            least: whether the limit is a least rather than a most.
            more: further figures of the sentence.
        """
        gap = figure.number - limit.number if least else limit.number - figure.number
        broke = gap < -1e-6 * max(1.0, abs(limit.number))
        unit = {"°C": "K", "kg": "±kg"}.get(limit.unit, limit.unit)
        margin = computed(
            f"{self.at}.margin.{code}", f"Margin: {name}", gap, unit,
            "{x} − {limit}" if least else "{limit} − {x}", {"x": figure, "limit": limit},
        )  # fmt: skip
        says = Sentence(broken if broke else ok, {"x": figure, "limit": limit, "margin": margin, **more})
        verdict = severity if broke else OK
        return Check(
            code, name, verdict, says, remedy if broke else "", figure, limit, margin, least,
            remedies if broke else (),
        )  # fmt: skip

    def unknown(self, code: str, name: str, says: str, **figures: Figure) -> Check:
        """A check that lacks something."""
        return Check(code, name, UNKNOWN, Sentence(says, figures))

    def rest_temperature(self) -> Figure:
        """Temperature of the battery the rest of the year [°C]."""
        return derating.rest_temperature(self.plan, self.assumptions)
