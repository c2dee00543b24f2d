"""What a source does to a lead-acid bank: its volts, equalising, heat, and a charge that ends early."""

from collections.abc import Iterator
from math import exp

from vast_harbor.core.battery.charge_acceptance import full_soc, time_constant
from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.rig.sources import MAINS, SOLAR
from vast_harbor.core.stops.banks import BLOCKING, CAUTION, NOTE
from vast_harbor.core.stops.charging.source_judgement import PROFILE, Point, SourceJudgement
from vast_harbor.phrases import phrase

# Volts at which gel is ruined, and the temperature from which sealed types suffer.
GEL_V, HOT_C = 14.4, 35.0
# Slower than this a charger takes days [C].
SLOW_C = 0.05


class BesideLead(SourceJudgement):
    """What one source does to a lead-acid bank."""

    def own(self) -> Iterator[Point]:
        s, battery_class, key = self.source, self.battery_class, self.battery_class.key
        top_key = "alternator_v" if s.is_relay else "absorption_v" if s.absorption_v else "float_v"
        top = self.volts(top_key, phrase("charging.suitability.highest_voltage"), s.set_v)
        wants = self.figure(
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
            time = self.figure(
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
                    Sentence(phrase("charging.suitability.stops_after_float_restarts_only"),
                             {"V": rebulk, "soc": left}),
                    ("no_rest", "rebulk", "new"),
                )  # fmt: skip
        if s.kind == MAINS and s.amps and s.amps < SLOW_C * self.build.bank.rated_ah:
            yield Point("slow", NOTE, self.slow(self.build.bank.rated_ah / s.amps), ("new",))

    def _timeout(self, hours: float, amps: float) -> Iterator[Point]:
        """Bulk until the bank takes less than the charger gives, then the time that absorption has."""
        battery_class, ah = self.battery_class, self.build.bank.rated_ah
        celsius = self.build.days.day.battery_c.number
        tau = float(time_constant(battery_class, self.source.set_v, celsius))
        left = min(0.5, amps * tau / ah) * exp(-hours / tau)
        if 1 - left >= full_soc(battery_class) - 1e-9:
            return
        ends = self.figure("timeout_soc", phrase("charging.suitability.timeout_soc"), 1 - left, "%",
                          phrase("charging.suitability.i_c_e_t"))  # fmt: skip
        time = self.given("timeout_h", phrase("charging.suitability.timeout_h"), hours, "h")
        yield Point(
            "timeout", CAUTION,
            Sentence(phrase("charging.suitability.ends_absorption_after_however"), {"h": time, "soc": ends}),
            ("settings", "new"),
        )  # fmt: skip
