"""Will what charges the old bank do for a new one? Each source beside each candidate."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import exp

from vast_harbor.core.battery.charge_acceptance import COMPENSATED_C, LFP_CHARGE_OHM, full_soc, time_constant
from vast_harbor.core.battery.datasheet import BY_ITSELF, OWN_SWITCH
from vast_harbor.core.battery.soc_from_voltage import soc_at
from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.figures.cached import kept_with
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped, typed
from vast_harbor.core.rig.source_remedies import BALANCES_V, Rung, ladder, name_of, sources_of
from vast_harbor.core.rig.sources import DC_DC_EFFICIENCY, ENGINE, MAINS, PWM, SOLAR, Source
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, NOTE, OK, Build
from vast_harbor.phrases import phrase

# Volts below which LFP is not filled, at which gel is ruined, and from which sealed types suffer in the heat.
FILLS_V, GEL_V, HOT_C = 13.6, 14.4, 35.0
# A rest that lets LFP fall below this is blocking, above it a caution.
LOW_SOC = 0.2
# Slower than this a charger takes days [C].
SLOW_C = 0.05
WORST = {BLOCKING: 3, CAUTION: 2, NOTE: 1, OK: 0}


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
        remedy = self.rungs[0].says if self.rungs else phrase("terms.names.specialist_look")
        return Finding(f"source_{worst.code}", worst.severity, "charging", says, remedy, self.candidate)

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of its points."""
        yield from (f for point in (*self.points, *self.before) for f in point.says.figures.values())


def suitability_of(build: Build, only: str = "") -> tuple[Suitability, ...]:
    """Every source of a rig beside one candidate.

    Args:
        build: the candidate in its rig.
        only: id of the one source that is asked for; empty for all.

    Returns:
        One judgement for each source that charges.
    """
    return _judged(build, only) if only else _all_judged(build)


@kept_with
def _all_judged(build: Build) -> tuple[Suitability, ...]:
    return _judged(build, "")


def _judged(build: Build, only: str) -> tuple[Suitability, ...]:
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
    """What one source does to one bank; on request without a look at who wakes its BMS."""

    def __init__(
        self, build: Build, source: Source, index: int, sources: Sequence[Source], waking: bool = True
    ) -> None:
        self.build, self.source = build, source
        self.sources, self.waking = sources, waking
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

    def lithium(self) -> Iterator[Point]:
        s = self.source
        key = "alternator_v" if s.is_relay else "absorption_v" if s.absorption_v else "float_v"
        top = self.volts(key, phrase("charging.suitability.highest_voltage"), s.set_v)
        least = self.build.assumptions.value("lfp_charger_v")
        broken = s.kind == MAINS and s.set_v < least - 1e-9
        if s.set_v < FILLS_V - 1e-9 and not (s.is_relay and s.smart):
            end = self.soc("ends", s.set_v)
            yield Point(
                "low_volts",
                CAUTION,
                Sentence(phrase("charging.suitability.charge_ends_near_never"), {"V": top, "end": end}),
                PROFILE,
                broken,
            )
        elif s.set_v < BALANCES_V[0] - 1e-9 and not s.is_relay:
            yield Point(
                "no_balance",
                CAUTION,
                Sentence(
                    phrase("charging.suitability.fills_bank_almost_quickly", here=self.here(14.2)), {"V": top}
                ),
                PROFILE,
                broken,
            )
        elif s.set_v > BALANCES_V[1] + 1e-9:
            yield Point(
                "high_volts",
                BLOCKING,
                Sentence(
                    phrase("charging.suitability.above_limit_lfp_bms", here=self.here(14.6)), {"V": top}
                ),
                PROFILE,
            )
        if s.equalise_v:
            volts = self.volts("equalise_v", phrase("charging.suitability.equalise_v"), s.equalise_v)
            yield Point(
                "equalises", BLOCKING,
                Sentence(phrase("charging.suitability.equalises_desulphates_never_lfp"), {"V": volts}),
                ("no_equalise", "settings", "firmware", "board", "new"),
            )  # fmt: skip
        elif s.kind == MAINS and self.build.assumptions.value("lfp_profile_only") and not self._for_lithium:
            yield Point(
                "no_profile", CAUTION,
                Sentence(phrase("charging.suitability.lfp_charger_house_rule")),
                PROFILE, True,
            )  # fmt: skip
        cold = self.build.coldest
        kelvin = 25 - max(COMPENSATED_C[0], min(COMPENSATED_C[1], cold.number))
        if s.compensates and s.set_v + 0.024 * kelvin > BALANCES_V[1] + 0.02:
            raised = self.found(
                "raised",
                phrase("charging.suitability.raised"),
                (s.set_v + 0.024 * kelvin) * self.n,
                "V",
                phrase("charging.suitability.set_volts_0_024"),
            )
            yield Point(
                "compensates", CAUTION,
                Sentence(phrase("charging.suitability.raises_voltage_cold_above"),
                         {"T": cold, "V": raised}),
                ("no_compensation", "settings", "firmware", "board", "new"), True,
            )  # fmt: skip
        if s.rests:
            rebulk = self.volts("rebulk_v", phrase("charging.suitability.rebulk_v"), s.rebulk_v)
            left = self.soc("rebulk_soc", s.rebulk_v)
            days = self._drain_days(1 - left.number)
            figures = {"V": rebulk, "soc": left, **days}
            says = phrase("charging.suitability.stops_after_float_restarts")
            says += phrase("charging.suitability.bank_drains_hook_up") if days else ""
            yield Point(
                "rests", BLOCKING if left.number < LOW_SOC else CAUTION, Sentence(says, figures),
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
                phrase("charging.suitability.drain"),
                wh / dc * 24,
                "duration",
                phrase("charging.suitability.energy_down_restart_voltage"),
            )
        }

    def _bms(self) -> Iterator[Point]:
        s, bms = self.source, self.model.bms
        if bms is None or bms.switch != OWN_SWITCH:
            return
        if self.waking and bms.resets != BY_ITSELF and not s.wakes and not s.is_relay:
            asleep = self._none_wakes
            says = phrase("charging.suitability.bms_shuts_down_charger")
            says += phrase("charging.suitability.cannot_wake")
            says += (
                phrase("charging.suitability.other_source")
                if asleep
                else phrase("charging.suitability.another_source")
            )
            yield Point(
                "does_not_wake",
                BLOCKING if asleep and self._first_to_wake else NOTE,
                Sentence(says),
                ("new",),
            )
        if s.is_relay:
            yield Point(
                "load_dump", CAUTION,
                Sentence(phrase("charging.suitability.bms_shuts_down_while")),
                ("dc_dc",), True,
            )  # fmt: skip
        if s.kind == SOLAR and s.controller == PWM:
            yield Point(
                "panel_volts", CAUTION,
                Sentence(phrase("charging.suitability.bms_shuts_down_sun")),
                ("new",), True,
            )  # fmt: skip

    @property
    def _none_wakes(self) -> bool:
        """Whether no source of the rig charges a battery that shows no volts."""
        return not any(s.charges and (s.wakes or s.is_relay) for s in self.sources)

    @property
    def _first_to_wake(self) -> bool:
        """Whether it is this source that had best be one that wakes.

        One that must be replaced anyway comes first, then a mains charger, whatever the order of the list.
        """
        able = [s for s in self.sources if s.charges]
        first = min(able, key=lambda s: (not self._replaced(s), s.kind != MAINS, s.amps or 0.0, s.id))
        return first.id == self.source.id

    def _replaced(self, source: Source) -> bool:
        """Whether a source must be replaced or mended anyway beside this bank."""
        other = _SourceJudgement(self.build, source, 0, self.sources, waking=False)
        return any(p.severity == BLOCKING for p in (*other.lithium(), *other.both()))

    def _relay_lithium(self) -> Iterator[Point]:
        s = self.source
        over, bank = self.build.assumptions.figure("dc_dc_over_wh"), self.build.figures["nameplate_wh"]
        if bank.number > over.number and not s.smart:
            yield Point(
                "wants_dc_dc", CAUTION,
                Sentence(phrase("charging.suitability.lfp_charged_through_relay"), {"E": bank, "over": over}),
                ("dc_dc",), True,
            )  # fmt: skip
        if not s.smart:
            ohm = s.cable_mohm / 1000 + LFP_CHARGE_OHM * self.build.criteria.terminal.ohm
            rested = float(rested_volts(self.battery_class, self.build.plan.system_v, 0.5))
            amps = (s.alternator_v * self.n - rested) / ohm
            flows = self.found(
                "flows",
                phrase("charging.suitability.flows"),
                amps,
                "A",
                phrase("charging.suitability.i_v_alt_ocv"),
            )
            half = self.found(
                "half",
                phrase("charging.suitability.half"),
                s.alternator_a / 2,
                "A",
                phrase("charging.suitability.alternator_supply_hours"),
            )
            if amps > half.number:
                yield Point(
                    "alternator",
                    BLOCKING,
                    Sentence(
                        phrase("charging.suitability.half_charge_about_flow"), {"I": flows, "half": half}
                    ),
                    ("dc_dc",),
                )
        drop = self.volts("drop_out_v", phrase("charging.suitability.drop_out_v"), s.drop_out_v)
        left = self.soc("drop_soc", s.drop_out_v)
        if left.number < 0.9:
            yield Point(
                "stays_closed", CAUTION,
                Sentence(phrase("charging.suitability.relay_opens_below_lfp"), {"V": drop, "soc": left}),
                ("dc_dc",),
            )  # fmt: skip

    def _slow(self, hours: float) -> Sentence:
        took = self.found(
            "fills_in",
            phrase("charging.suitability.fills_in"),
            hours,
            "duration",
            phrase("charging.suitability.amp_hours_bank_amps"),
        )
        return Sentence(phrase("charging.suitability.full_charge_takes_night"), {"h": took})

    def lead(self) -> Iterator[Point]:
        s, battery_class, key = self.source, self.battery_class, self.battery_class.key
        top_key = "alternator_v" if s.is_relay else "absorption_v" if s.absorption_v else "float_v"
        top = self.volts(top_key, phrase("charging.suitability.highest_voltage"), s.set_v)
        wants = self.found(
            "wants",
            phrase("charging.suitability.wants"),
            battery_class.absorption_v * self.n,
            "V",
            phrase("charging.suitability.reference_value_class"),
        )
        if key == "gel" and s.set_v > GEL_V + 1e-9:
            yield Point(
                "gel_volts",
                BLOCKING,
                Sentence(phrase("charging.suitability.ruins_gel_takes", here=self.here(GEL_V)), {"V": top}),
                PROFILE,
            )
        elif not battery_class.water and s.set_v > battery_class.absorption_v + 0.3:
            yield Point(
                "high_volts", CAUTION,
                Sentence(phrase("charging.suitability.above_battery_loses_water")
                         .replace("{class}", battery_class.short), {"V": top, "want": wants}),
                PROFILE, True,
            )  # fmt: skip
        elif s.set_v < battery_class.absorption_v - 0.35 and not (s.is_relay and s.smart):
            tau = battery_class.acceptance_h * exp((battery_class.absorption_v - s.set_v) / 0.6)
            time = self.found(
                "to_95",
                phrase("charging.suitability.to_95"),
                tau * 2.3,
                "duration",
                phrase("charging.suitability.v_ln_0_5"),
            )
            yield Point(
                "low_volts",
                CAUTION,
                Sentence(
                    phrase("charging.suitability.instead_takes_about_half"),
                    {"V": top, "want": wants, "time": time},
                ),
                PROFILE,
            )
        if s.equalise_v and not battery_class.water:
            volts = self.volts("equalise_v", phrase("charging.suitability.equalise_v"), s.equalise_v)
            yield Point(
                "equalises",
                BLOCKING,
                Sentence(phrase("charging.suitability.equalises_dries_out_sealed"), {"V": volts}),
                ("no_equalise", "settings", "new"),
            )
        hot = self.build.warmest
        if not battery_class.water and hot.number > HOT_C and not s.compensates and s.kind != SOLAR:
            yield Point(
                "hot", CAUTION,
                Sentence(phrase("charging.suitability.lower_voltage_heat_above"), {"T": hot}),
                ("sensor", "settings", "new"), True,
            )  # fmt: skip
        if s.timeout_h is not None and s.amps:
            yield from self._timeout(s.timeout_h, s.amps)
        if s.rests:
            left = self.soc("rebulk_soc", s.rebulk_v)
            if left.number < 0.75:
                rebulk = self.volts("rebulk_v", phrase("charging.suitability.rebulk_v"), s.rebulk_v)
                yield Point(
                    "rests", CAUTION,
                    Sentence(phrase("charging.suitability.stops_after_float_restarts_2"),
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
        ends = self.found("timeout_soc", phrase("charging.suitability.timeout_soc"), 1 - left, "%",
                          phrase("charging.suitability.i_c_e_t"))  # fmt: skip
        time = self.given("timeout_h", phrase("charging.suitability.timeout_h"), hours, "h")
        yield Point(
            "timeout", CAUTION,
            Sentence(phrase("charging.suitability.ends_absorption_after_however"), {"h": time, "soc": ends}),
            ("settings", "new"),
        )  # fmt: skip

    def both(self) -> Iterator[Point]:
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
            into = self.found(
                "alternator_in",
                phrase("charging.suitability.alternator_in"),
                s.amps * s.set_v / (DC_DC_EFFICIENCY * s.alternator_v),
                "A",
                phrase("charging.suitability.rated_amps_v_out", efficiency=f"{DC_DC_EFFICIENCY:g}"),
            )
            half = self.found(
                "half",
                phrase("charging.suitability.half"),
                s.alternator_a / 2,
                "A",
                phrase("charging.suitability.alternator_supply_hours"),
            )
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
        here = self.found(
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
