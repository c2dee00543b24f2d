"""What a source does to an LFP bank: its volts, its rest, the BMS that it wakes, the relay of the engine."""

from collections.abc import Iterator, Sequence

from vast_harbor.core.battery.charge_acceptance import COMPENSATED_C, LFP_CHARGE_OHM
from vast_harbor.core.battery.datasheet import BY_ITSELF, OWN_SWITCH
from vast_harbor.core.battery.terminal_voltage import rested_volts
from vast_harbor.core.figures.workings import Figure, Sentence
from vast_harbor.core.rig.source_remedies import BALANCES_V
from vast_harbor.core.rig.sources import MAINS, PWM, SOLAR, Source
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, NOTE, Build
from vast_harbor.core.stops.charging.source_judgement import PROFILE, Point, SourceJudgement
from vast_harbor.phrases import phrase

# Volts below which LFP is not filled.
FILLS_V = 13.6
# A rest that lets LFP fall below this is blocking, above it a caution.
LOW_SOC = 0.2


class BesideLithium(SourceJudgement):
    """What one source does to an LFP bank; on request without a look at who wakes its BMS."""

    def __init__(
        self, build: Build, source: Source, index: int, sources: Sequence[Source], waking: bool = True
    ) -> None:
        super().__init__(build, source, index, sources)
        self.waking = waking

    def own(self) -> Iterator[Point]:
        s = self.source
        yield from self._top()
        yield from self._equalising()
        yield from self._in_the_cold()
        if s.rests:
            yield from self._resting()
        if s.timeout_h is not None and s.kind == MAINS:
            c_h = self.build.bank.rated_ah / max(1e-9, s.amps or 1e-9)
            if c_h > 3 * s.timeout_h + 6:
                yield Point("slow", NOTE, self.slow(c_h), ("new",))
        if self.waking:
            yield from self._waking()
        yield from self._bms()
        if s.is_relay:
            yield from self._relay()

    def _top(self) -> Iterator[Point]:
        """The volts at which it ends."""
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

    def _equalising(self) -> Iterator[Point]:
        s = self.source
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

    def _in_the_cold(self) -> Iterator[Point]:
        """Volts that are raised in the cold."""
        s, cold = self.source, self.build.coldest
        kelvin = 25 - max(COMPENSATED_C[0], min(COMPENSATED_C[1], cold.number))
        if s.compensates and s.set_v + 0.024 * kelvin > BALANCES_V[1] + 0.02:
            raised = self.figure(
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

    def _resting(self) -> Iterator[Point]:
        """A charger that stops after float, and starts again late."""
        s = self.source
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
            "days": self.figure(
                "drain",
                phrase("charging.suitability.drain"),
                wh / dc * 24,
                "duration",
                phrase("charging.suitability.energy_down_restart_voltage"),
            )
        }

    def _waking(self) -> Iterator[Point]:
        """Whether it charges a bank of which the BMS is open."""
        s, bms = self.source, self.model.bms
        if bms is None or bms.switch != OWN_SWITCH:
            return
        if bms.resets != BY_ITSELF and not s.wakes and not s.is_relay:
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

    def _bms(self) -> Iterator[Point]:
        s, bms = self.source, self.model.bms
        if bms is None or bms.switch != OWN_SWITCH:
            return
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
        other = BesideLithium(self.build, source, 0, self.sources, waking=False)
        return any(p.severity == BLOCKING for p in other.points())

    def _relay(self) -> Iterator[Point]:
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
            flows = self.figure(
                "flows",
                phrase("charging.suitability.flows"),
                amps,
                "A",
                phrase("charging.suitability.i_v_alt_ocv"),
            )
            half = self.half()
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
