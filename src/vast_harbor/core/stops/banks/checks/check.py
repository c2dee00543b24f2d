"""What a check of a bank is, and what checks share."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, datasheet, typed
from vast_harbor.core.installation.cables import FuseKind, breaking_a, fuse_kind
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import ENGINE, MAINS, Source
from vast_harbor.core.stops.banks.criteria import BankCriteria, Criterion
from vast_harbor.core.stops.banks.reasons import will_not_do
from vast_harbor.core.stops.day import Day, inverter_efficiency
from vast_harbor.core.stops.need import Days, Need
from vast_harbor.phrases import phrase

OK, NOTE, CAUTION, BLOCKING, UNKNOWN = "ok", "note", "caution", "blocking", "unknown"


@dataclass(frozen=True, slots=True)
class Remedy:
    """Something that may be done about a check.

    Attributes:
        key: its name.
        says: what is done and what then holds.
        price: what it adds to the cost; None where that is not known.
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
        verdict: ``ok``, ``note``, ``caution``, ``blocking``, or ``unknown`` where something is missing.
        says: what, how much.
        remedy: what to do; empty where nothing need be.
        figure, limit, margin: the value, what it is compared with, and how much is left to it (negative
            where it
            is broken); None where there are none.
        is_minimum: whether the limit is the least rather than the most.
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
    is_minimum: bool = False
    remedies: tuple[Remedy, ...] = ()

    def finding(self, subject: str) -> Finding | None:
        """The check as a finding of a candidate; None where there is nothing to say."""
        if self.verdict in (OK, UNKNOWN):
            return None
        return Finding(self.code, self.verdict, "banks", self.says, self.remedy, subject)


@dataclass(frozen=True, repr=False)
class Build:
    """A candidate bank in its rig, with what several checks look at.

    Attributes:
        plan, reference, assumptions, days: the plan and what holds for it.
        candidate, index: the candidate, and its place in the list.
        criteria: its layout in the rig, in numbers.
        figures: its figures so far.
        old_kg: weight of the old bank [kg]; None without one.
    """

    plan: Plan
    reference: Reference
    assumptions: Assumptions
    days: Days
    candidate: Candidate
    index: int
    criteria: BankCriteria
    figures: Mapping[str, Figure]
    old_kg: Figure | None
    _typed: dict[str, Figure] = field(default_factory=dict)

    @property
    def bank(self) -> Bank:
        """Its layout."""
        return self.criteria.bank

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
        return (
            phrase("terms.names.own_entry") if model.own else phrase("terms.names.catalogue_entry")
        ) + model.title

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
        base = self.assumptions.figure("main_cable_m")
        if not self.criteria.in_second:
            return base
        extra = self.plan.locker.second_cable_m
        more = self.entered("rig", "locker2_cable_m", phrase("terms.names.second_compartment"), extra, "m")
        return computed(
            f"{self.at}.cable_m", phrase("checks.check.cable_m"), self.criteria.cable_m, "m", "{L} + {L_2}",
            {"L": base, "L_2": more}, phrase("checks.check.cable_m_source"),
        )  # fmt: skip

    @cached_property
    def main_a(self) -> Figure:
        """Largest lasting current in the main cable, out of the bank or into it [A]."""
        charge = self.criteria.joined_a
        if charge <= self.load_a.number:
            return self.load_a
        name, note = phrase("checks.check.main_a"), phrase("checks.check.charge_flows_main_cable")
        if not any(s.charges for s in self.sources):
            entered = self.entered("rig", "charge_a", name, charge, "A")
            return entered._replace(key=f"{self.at}.main_a", note=note)
        inputs = {
            f"I_{i}": Figure(
                f"{self.at}.joins.{source.id}", name_of(source), amps, "A", REFERENCE,
                source=phrase("checks.check.largest_current_source"),
            )
            for i, (source, amps) in enumerate(self.joining, 1)
        }  # fmt: skip
        return computed(
            f"{self.at}.main_a", name, charge, "A", " + ".join(f"{{{symbol}}}" for symbol in inputs),
            inputs, phrase("checks.check.main_charge_a_source"), note,
        )  # fmt: skip

    @property
    def joining(self) -> tuple[tuple[Source, float], ...]:
        """The sources that charge together, with the largest current of each [A]."""
        volts = self.plan.system_v
        amps = {s.id: s.conductor_a(volts) for s in self.sources if s.charges}
        of = {k: sum(amps[s.id] for s in self.sources if s.kind == k) for k in (MAINS, ENGINE)}
        other = MAINS if of[MAINS] < of[ENGINE] else ENGINE
        return tuple((s, amps[s.id]) for s in self.sources if amps.get(s.id) and s.kind != other)

    @cached_property
    def main_fuse_kind(self) -> FuseKind | None:
        """The plainest kind of main fuse that breaks the short circuit; None where no common one does."""
        sized = self.criteria.sized
        return fuse_kind(
            self.reference.cables.kinds, self.plan.system_v, breaking_a(self.bank),
            None if sized is None else sized.fuse_a,
        )  # fmt: skip

    @property
    def sources(self) -> tuple[Source, ...]:
        """What charges it, its chosen remedies carried out."""
        return self.plan.sources if self.criteria.sources is None else self.criteria.sources

    @cached_property
    def load_a(self) -> Figure:
        """Largest lasting current of the loads [A]."""
        plan, day = self.plan, self.hardest_day
        lvc, amps = self.assumptions.figure("inverter_cut_off_v"), self.criteria.rig.load_a
        system = self.entered("rig", "system_v", phrase("terms.names.system_voltage"), plan.system_v, "V")
        running = day.lasting()
        rated, eta = plan.inverter.rated_w, inverter_efficiency(plan)
        note = phrase("checks.check.cable_fuse_must_carry")
        if rated and rated / eta.number > running:
            return computed(
                f"{self.at}.load_a",
                phrase("checks.check.load_a"),
                amps,
                "A",
                "{P} / ({η} · {V_LVC} · {V} / 12)",
                {
                    "P": typed(
                        "inverter.rated_w",
                        phrase("terms.names.inverter"),
                        rated,
                        "W",
                        "/day/inverter/rated_w",
                    ),
                    "η": eta,
                    "V_LVC": lvc,
                    "V": system,
                },
                "I = P/(η·V_LVC)",
                note,
            )
        watts = Figure(
            f"day.{day.type.id}.lasting_w",
            phrase("checks.check.lasting_w", name=day.type.name),
            running,
            "W",
            REFERENCE,
            source=phrase("checks.check.lasting_w_source"),
        )
        return computed(
            f"{self.at}.load_a", phrase("checks.check.load_a"), amps, "A",
            "{P} / ({V_LVC} · {V} / 12)", {"P": watts, "V_LVC": lvc, "V": system}, "I = P/V_LVC", note,
        )  # fmt: skip

    def compare_to_limit(
        self,
        code: str,
        name: str,
        figure: Figure,
        limit: Figure,
        ok: str,
        broken: str,
        remedy: str,
        severity: str = CAUTION,
        *,
        is_minimum: bool = False,
        remedies: tuple[Remedy, ...] = (),
        **more: Figure,
    ) -> Check:
        """A figure compared with its limit.

        Args:
            code, name: of the check.
            figure, limit: value and limit, in one unit.
            ok, broken: what to say, with ``{x}`` and ``{limit}`` and further figures.
            severity: where it is broken and the bank will do all the same.
            remedy, remedies: what to do then.
            is_minimum: whether the limit is the least rather than the most.
            more: further figures of the sentence.
        """
        criterion = Criterion(figure.number, limit.number, is_minimum)
        broke = criterion.broken
        unit = {"°C": "K", "kg": "±kg"}.get(limit.unit, limit.unit)
        margin = computed(
            f"{self.at}.margin.{code}", phrase("checks.check.margin", name=name), criterion.margin, unit,
            "{x} − {limit}" if is_minimum else "{limit} − {x}", {"x": figure, "limit": limit},
        )  # fmt: skip
        says = Sentence(broken if broke else ok, {"x": figure, "limit": limit, "margin": margin, **more})
        verdict = self.verdict(code, severity) if broke else OK
        return Check(
            code, name, verdict, says, remedy if broke else "", figure, limit, margin, is_minimum,
            remedies if broke else (),
        )  # fmt: skip

    def verdict(self, code: str, otherwise: str) -> str:
        """What a check comes to: that the bank will not do, by the rule of its code; else what is given."""
        return BLOCKING if will_not_do(code, self.criteria) else otherwise

    def unknown(self, code: str, name: str, says: str, **figures: Figure) -> Check:
        """A check that lacks something."""
        return Check(code, name, UNKNOWN, Sentence(says, figures))

    def rest_temperature(self) -> Figure:
        """Temperature of the battery the rest of the year [°C]."""
        return derating.rest_temperature(self.plan, self.assumptions)
