"""Will what charges the old bank do for a new one? Each source beside each candidate."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import exp

from vast_harbor.core.battery.charge_acceptance import COMPENSATED_C, LFP_CHARGE_OHM, full_soc, time_constant
from vast_harbor.core.battery.datasheet import BY_ITSELF, OWN_SWITCH
from vast_harbor.core.battery.soc_from_voltage import soc_at
from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.source_remedies import BALANCES_V, Rung, ladder, name_of, sources_of
from vast_harbor.core.rig.sources import ENGINE, MAINS, PWM, SOLAR, Source
from vast_harbor.core.stops.banks import CARE, NOTE, OK, STOP, Build

# Volts below which LFP is not filled, at which gel is ruined, and from which sealed types suffer in the heat.
FILLS_V, GEL_V, HOT_C = 13.6, 14.4, 35.0
# A rest that lets LFP fall below this is a stop, above it a care.
LOW_SOC = 0.2
# Slower than this a charger takes days [C].
SLOW_C = 0.05
WORST = {STOP: 3, CARE: 2, NOTE: 1, OK: 0}


@dataclass(frozen=True, slots=True)
class Point:
    """One thing that a source does to a bank.

    Attributes:
        code: stable name.
        severity: ``stop``, ``care`` or ``note``.
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
        return self.harms or self.severity == STOP


@dataclass(frozen=True, slots=True)
class Suitability:
    """A source beside a candidate.

    Attributes:
        source, candidate: ids.
        source_name: what the source is called.
        points: what is wrong, worst first; none where it suits.
        before: what would be wrong without the remedies chosen.
        rungs: remedies that help, the least first.
        chosen: keys of those chosen.
    """

    source: str
    candidate: str
    source_name: str
    points: tuple[Point, ...]
    before: tuple[Point, ...]
    rungs: tuple[Rung, ...]
    chosen: tuple[str, ...]

    @property
    def counts(self) -> bool:
        """Whether something of it is counted in the money."""
        return any(p.counts for p in self.points)

    @property
    def verdict(self) -> str:
        """The worst severity; ``ok`` where it suits."""
        return max((p.severity for p in self.points), key=lambda s: WORST[s], default=OK)

    def finding(self) -> Finding | None:
        """As a finding of the stop; None where it suits."""
        if not self.points:
            return None
        worst = self.points[0]
        says = Sentence(f"{escaped(self.source_name)}: {worst.says.template}", worst.says.figures)
        remedy = self.rungs[0].says if self.rungs else "Have a specialist look at it."
        return Finding(f"source_{worst.code}", worst.severity, "charging", says, remedy, self.candidate)


def suitability_of(build: Build, only: str = "") -> tuple[Suitability, ...]:
    """Every source of a rig beside one candidate.

    Args:
        build: the candidate in its rig.
        only: id of the one source that is asked for; empty for all.

    Returns:
        One judgement for each source that charges.
    """
    plan, battery_class = build.plan, build.bank.model.battery_class
    after = {s.id: s for s in sources_of(plan, build.candidate, battery_class, build.assumptions)}
    changed = bool(build.candidate.fixes)
    out = []
    for index, source in enumerate(plan.sources):
        if not source.charges or (only and source.id != only):
            continue
        before = _points(build, source, index, plan.sources)
        chosen = tuple(f.remedy for f in build.candidate.fixes if f.source == source.id)
        # Another source that wakes the bank is one of those as they are beside this candidate.
        now = _points(build, after[source.id], index, tuple(after.values())) if changed else before
        helps = {key for p in before for key in p.rungs}
        offered = ladder(source, battery_class, build.assumptions, plan.system_v)
        rungs = tuple(r for r in offered if r.key in chosen or r.key in helps or _in_group(r.key, helps))
        out.append(Suitability(source.id, build.candidate.id, name_of(source), now, before, rungs, chosen))
    return tuple(out)


def _in_group(key: str, helps: set[str]) -> bool:
    return key.startswith("position-") and "position" in helps


def _points(build: Build, source: Source, index: int, sources: Sequence[Source]) -> tuple[Point, ...]:
    judgement = _SourceJudgement(build, source, index, sources)
    found = list(judgement.lithium() if not build.lead else judgement.lead())
    found += judgement.both()
    return tuple(sorted(found, key=lambda p: -WORST[p.severity]))


PROFILE = ("position", "settings", "firmware", "board", "new", "dc_dc")


class _SourceJudgement:
    """What one source does to one bank."""

    def __init__(self, build: Build, source: Source, index: int, sources: Sequence[Source]) -> None:
        self.build, self.source = build, source
        self.sources = sources
        self.path = f"/sources/{index}"
        self.at = f"charging.{build.candidate.id}.{source.id}"
        self.model = build.bank.model
        self.battery_class = self.model.battery_class
        self.n = build.plan.system_v / 12

    def given(self, key: str, name: str, value: float, unit: str) -> Figure:
        return typed(f"source.{self.source.id}.{key}", name, value, unit, f"{self.path}/{key}")

    def found(self, key: str, name: str, value: float, unit: str, says: str) -> Figure:
        return Figure(f"{self.at}.{key}", name, value, unit, REFERENCE, source=says)

    def soc(self, key: str, volts: float) -> Figure:
        value = soc_at(self.battery_class, 12, volts)
        return self.found(
            key, "Charge at those volts", value, "%", "Rested volts of the class against its charge"
        )

    def volts(self, key: str, name: str, value: float) -> Figure:
        """Volts of the source as they are on this rig; they are entered for a 12 V bank."""
        entered = self.given(key, name, value, "V")
        if self.n == 1:
            return entered
        system = typed("rig.system_v", "System voltage", self.build.plan.system_v, "V", "/rig/system_v")
        return computed(
            f"{self.at}.{key}", name, value * self.n, "V", "{V_12} · {V_sys} / 12",
            {"V_12": entered, "V_sys": system}, "Volts are entered for a 12 V bank",
        )  # fmt: skip

    def here(self, volts_12: float) -> str:
        """Volts of a 12 V bank as they are on this rig, in words."""
        return f"{volts_12 * self.n:g} V"

    def lithium(self) -> Iterator[Point]:
        s = self.source
        key = "alternator_v" if s.is_relay else "absorption_v" if s.absorption_v else "float_v"
        top = self.volts(key, "Its highest volts", s.set_v)
        least = self.build.assumptions.value("lfp_charger_v")
        broken = s.kind == MAINS and s.set_v < least - 1e-9
        if s.set_v < FILLS_V - 1e-9 and not (s.is_relay and s.smart):
            end = self.soc("ends", s.set_v)
            yield Point(
                "low_volts",
                CARE,
                Sentence("With {V} it ends near {end} and never balances the cells.", {"V": top, "end": end}),
                PROFILE,
                broken,
            )
        elif s.set_v < BALANCES_V[0] - 1e-9 and not s.is_relay:
            yield Point(
                "no_balance", CARE,
                Sentence("With {V} it fills the bank almost as fast, but never reaches the "
                         f"{self.here(14.2)} at which the cells are balanced.", {"V": top}),
                PROFILE, broken,
            )  # fmt: skip
        elif s.set_v > BALANCES_V[1] + 1e-9:
            yield Point(
                "high_volts",
                STOP,
                Sentence(
                    f"Its {{V}} are over the {self.here(14.6)} that LFP bears: the BMS opens under charge.",
                    {"V": top},
                ),
                PROFILE,
            )
        if s.equalise_v:
            volts = self.volts("equalise_v", "Equalising", s.equalise_v)
            yield Point(
                "equalises", STOP,
                Sentence("It equalises or desulphates with {V}: never on LFP.", {"V": volts}),
                ("no_equalise", "settings", "firmware", "board", "new"),
            )  # fmt: skip
        elif s.kind == MAINS and self.build.assumptions.value("lfp_profile_only") and not self._for_lithium:
            yield Point(
                "no_profile", CARE,
                Sentence("It is no charger for LFP: this house rule keeps none that is not set for it."),
                PROFILE, True,
            )  # fmt: skip
        cold = self.build.coldest
        kelvin = 25 - max(COMPENSATED_C[0], min(COMPENSATED_C[1], cold.number))
        if s.compensates and s.set_v + 0.024 * kelvin > BALANCES_V[1] + 0.02:
            raised = self.found("raised", "Volts in the cold", (s.set_v + 0.024 * kelvin) * self.n, "V",
                                "Set volts + 0.024 V for each 12 V and kelvin below 25 °C")  # fmt: skip
            yield Point(
                "compensates", CARE,
                Sentence("It follows the temperature: at {T} it goes up to {V}, over what LFP bears.",
                         {"T": cold, "V": raised}),
                ("no_compensation", "settings", "firmware", "board", "new"), True,
            )  # fmt: skip
        if s.rests:
            rebulk = self.volts("rebulk_v", "Starts again below", s.rebulk_v)
            left = self.soc("rebulk_soc", s.rebulk_v)
            days = self._drain_days(1 - left.number)
            figures = {"V": rebulk, "soc": left, **days}
            says = "It rests after float and starts again below {V}: on LFP that is at {soc}."
            says += " The bank drains on hook-up for {days} until then." if days else ""
            yield Point(
                "rests", STOP if left.number < LOW_SOC else CARE, Sentence(says, figures),
                ("no_rest", "rebulk", "firmware", "board", "new"),
            )  # fmt: skip
        if s.timeout_h is not None and s.kind == MAINS:
            c_h = self.build.bank.rated_ah / max(1e-9, s.amps or 1e-9)
            if c_h > 3 * s.timeout_h + 6:
                yield Point("slow", NOTE, self._slow(c_h), ("new",))
        yield from self._bms()
        if s.is_relay:
            yield from self._relay_lithium()

    @property
    def _for_lithium(self) -> bool:
        """Whether the source is set as LFP wants it."""
        s = self.source
        reaches = BALANCES_V[0] - 1e-9 <= s.set_v <= BALANCES_V[1] + 1e-9
        return reaches and not (s.rests or s.equalise_v or s.compensates)

    def _drain_days(self, share: float) -> dict[str, Figure]:
        """Days on hook-up until its loads have drawn so much; nothing where nothing is drawn."""
        days = [d for d in self.build.days.days.values() if d.type.kind == "hook_up"]
        if not days:
            return {}
        day = days[0]
        dc = float((day.profile.watts - day.ac_watts) @ (day.profile.edges_h[1:] - day.profile.edges_h[:-1]))
        if dc <= 0:
            return {}
        wh = self.build.bank.nameplate_wh * share
        return {
            "days": self.found(
                "drain",
                "Drains for",
                wh / dc * 24,
                "duration",
                "Energy down to the threshold ÷ what DC loads take on hook-up",
            )
        }

    def _bms(self) -> Iterator[Point]:
        s, bms = self.source, self.model.bms
        if bms is None or bms.switch != OWN_SWITCH:
            return
        if bms.resets != BY_ITSELF and not s.wakes and not s.is_relay:
            asleep = self._none_wakes
            says = "After its BMS has opened the battery shows no volts: this charger does not see it and "
            says += "does not start"
            says += ", and no other source here wakes it." if asleep else "; another source here wakes it."
            yield Point(
                "does_not_wake", STOP if asleep and self._first_to_wake else NOTE, Sentence(says), ("new",)
            )
        if s.is_relay:
            yield Point(
                "load_dump", CARE,
                Sentence("If the BMS opens while the engine charges, the alternator’s volts jump "
                         "and can destroy its "
                         "diodes."),
                ("dc_dc",), True,
            )  # fmt: skip
        if s.kind == SOLAR and s.controller == PWM:
            yield Point(
                "panel_volts", CARE,
                Sentence("If the BMS opens in the sun, this controller can pass the panel’s volts "
                         "on to the loads."),
                ("new",), True,
            )  # fmt: skip

    @property
    def _none_wakes(self) -> bool:
        """Whether no source of the rig charges a battery that shows no volts."""
        return not any(s.charges and (s.wakes or s.is_relay) for s in self.sources)

    @property
    def _first_to_wake(self) -> bool:
        """Whether it is this source that had best be one that wakes: a mains charger, else the first."""
        able = sorted((s for s in self.sources if s.charges), key=lambda s: s.kind != MAINS)
        return bool(able) and able[0].id == self.source.id

    def _relay_lithium(self) -> Iterator[Point]:
        s = self.source
        over, bank = self.build.assumptions.figure("dc_dc_over_wh"), self.build.figures["nameplate_wh"]
        if bank.number > over.number and not s.smart:
            yield Point(
                "wants_dc_dc", CARE,
                Sentence("{E} of LFP behind a relay: above {over} this house rule puts a DC-DC charger "
                         "between.", {"E": bank, "over": over}),
                ("dc_dc",), True,
            )  # fmt: skip
        if not s.smart:
            ohm = s.cable_mohm / 1000 + LFP_CHARGE_OHM * self.build.criteria.terminal.ohm
            rested = float(rested_volts(self.battery_class, self.build.plan.system_v, 0.5))
            amps = (s.alternator_v * self.n - rested) / ohm
            flows = self.found(
                "flows", "Would flow at half charge", amps, "A", "I = (V_alt − OCV) / (R_cable + 2.5·R_bank)"
            )
            half = self.found(
                "half", "Half the alternator’s rating", s.alternator_a / 2, "A", "What it bears for hours"
            )
            if amps > half.number:
                yield Point(
                    "alternator", STOP,
                    Sentence("Through the relay about {I} would flow at half charge, over the "
                             "{half} that the alternator "
                             "bears for hours: it overheats.", {"I": flows, "half": half}),
                    ("dc_dc",),
                )  # fmt: skip
        drop = self.volts("drop_out_v", "Relay opens below", s.drop_out_v)
        left = self.soc("drop_soc", s.drop_out_v)
        if left.number < 0.9:
            yield Point(
                "stays_closed", CARE,
                Sentence("The relay opens below {V} only; LFP rests above that down to {soc}: with "
                         "the engine off both "
                         "batteries are drawn down together.", {"V": drop, "soc": left}),
                ("dc_dc",),
            )  # fmt: skip

    def _slow(self, hours: float) -> Sentence:
        took = self.found(
            "fills_in", "From empty", hours, "duration", "Amp-hours of the bank ÷ amps of the charger"
        )
        return Sentence("It takes {h} from empty, so it is seldom full after one night.", {"h": took})

    def lead(self) -> Iterator[Point]:
        s, battery_class, key = self.source, self.battery_class, self.battery_class.key
        top_key = "alternator_v" if s.is_relay else "absorption_v" if s.absorption_v else "float_v"
        top = self.volts(top_key, "Its highest volts", s.set_v)
        wants = self.found(
            "wants",
            "Absorption of the class",
            battery_class.absorption_v * self.n,
            "V",
            "Reference value of the class",
        )
        if key == "gel" and s.set_v > GEL_V + 1e-9:
            yield Point(
                "gel_volts",
                STOP,
                Sentence(f"Its {{V}} ruin gel, which bears {self.here(GEL_V)} at most.", {"V": top}),
                PROFILE,
            )
        elif not battery_class.water and s.set_v > battery_class.absorption_v + 0.3:
            yield Point(
                "high_volts", CARE,
                Sentence("Its {V} are over the {want} that {class} wants: it loses water that "
                         "cannot be topped up."
                         .replace("{class}", battery_class.short), {"V": top, "want": wants}),
                PROFILE, True,
            )  # fmt: skip
        elif s.set_v < battery_class.absorption_v - 0.35 and not (s.is_relay and s.smart):
            tau = battery_class.acceptance_h * exp((battery_class.absorption_v - s.set_v) / 0.6)
            time = self.found(
                "to_95", "From half to 95 %", tau * 2.3, "duration", "τ(V)·ln(0.5/0.05), after Mas"
            )
            yield Point(
                "low_volts", CARE,
                Sentence("With {V} where {want} are wanted it takes about {time} from half to 95 %; "
                         "left short of full it "
                         "sulphates.", {"V": top, "want": wants, "time": time}),
                PROFILE,
            )  # fmt: skip
        if s.equalise_v and not battery_class.water:
            volts = self.volts("equalise_v", "Equalising", s.equalise_v)
            yield Point(
                "equalises", STOP, Sentence("It equalises with {V}: sealed batteries dry out.", {"V": volts}),
                ("no_equalise", "settings", "new"),
            )  # fmt: skip
        hot = self.build.warmest
        if not battery_class.water and hot.number > HOT_C and not s.compensates and s.kind != SOLAR:
            yield Point(
                "hot", CARE,
                Sentence("At {T} it does not lower its volts: sealed types suffer above 35 °C.", {"T": hot}),
                ("sensor", "settings", "new"), True,
            )  # fmt: skip
        if s.timeout_h is not None and s.amps:
            yield from self._timeout(s.timeout_h, s.amps)
        if s.rests:
            left = self.soc("rebulk_soc", s.rebulk_v)
            if left.number < 0.75:
                rebulk = self.volts("rebulk_v", "Starts again below", s.rebulk_v)
                yield Point(
                    "rests", CARE,
                    Sentence("It rests after float and starts again below {V}: lead-acid is then at {soc}.",
                             {"V": rebulk, "soc": left}),
                    ("no_rest", "rebulk", "new"),
                )  # fmt: skip
        if s.kind == MAINS and s.amps and s.amps < SLOW_C * self.build.bank.rated_ah:
            yield Point("slow", NOTE, self._slow(self.build.bank.rated_ah / s.amps), ("new",))

    def _timeout(self, hours: float, amps: float) -> Iterator[Point]:
        """Bulk until the bank takes less than the charger gives, then the time that absorption has."""
        battery_class, ah = self.battery_class, self.build.bank.rated_ah
        celsius = self.build.days.day.battery_c.number
        tau = float(time_constant(battery_class, self.source.set_v, celsius))
        left = min(0.5, amps * tau / ah) * exp(-hours / tau)
        if 1 - left >= full_soc(battery_class) - 1e-9:
            return
        ends = self.found("timeout_soc", "Charge when absorption ends", 1 - left, "%",
                          "(I·τ/C)·e^(−t/τ) is missing, τ at its volts and warmth, after Mas")  # fmt: skip
        time = self.given("timeout_h", "Absorption ends after", hours, "h")
        yield Point(
            "timeout", CARE,
            Sentence("It ends absorption after {h}, whatever the bank still takes: at about {soc}, "
                     "day after day short of "
                     "full.", {"h": time, "soc": ends}),
            ("settings", "new"),
        )  # fmt: skip

    def both(self) -> Iterator[Point]:
        s = self.source
        if s.kind == SOLAR and s.watts:
            yield from self._array()
        if s.kind == ENGINE and s.is_relay and s.smart:
            yield Point(
                "smart", STOP,
                Sentence(f"A smart alternator falls to about {self.here(12.4)}: through a relay nothing "
                         "arrives."),
                ("dc_dc",),
            )  # fmt: skip
        if s.kind == ENGINE and not s.is_relay and s.amps:
            into = self.found(
                "alternator_in",
                "Taken from the alternator",
                s.amps * s.set_v / (0.88 * s.alternator_v),
                "A",
                "Rated amps · V_out / (0.88 · V_in)",
            )
            half = self.found(
                "half", "Half the alternator’s rating", s.alternator_a / 2, "A", "What it bears for hours"
            )
            if into.number > half.number * 1.001:
                yield Point(
                    "alternator", CARE,
                    Sentence("It takes {I} from the alternator, over the half of its rating, "
                             "{half}, that it bears for hours.",
                             {"I": into, "half": half}),
                    (),
                )  # fmt: skip

    def _array(self) -> Iterator[Point]:
        """Panels against the bank, as the house rule has it."""
        family = "lead_acid" if self.build.lead else "lfp"
        most = self.build.assumptions.figure(f"array_per_kwh.{family}")
        label, watts = self.build.figures["nameplate_wh"], self.source.watts
        here = self.found("array", "Panels for each kWh on the label", watts / (label.number / 1000), "W/kWh",
                          "Peak watts ÷ nameplate kWh")  # fmt: skip
        if here.number > most.number:
            yield Point(
                "array", NOTE,
                Sentence("{x} are more panels than this house rule puts beside such a bank: {most}. A larger "
                         "bank takes more of the sun.", {"x": here, "most": most}),
                (),
            )  # fmt: skip
