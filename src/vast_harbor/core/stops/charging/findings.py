"""What the Charging stop has to say."""

from collections.abc import Mapping

from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, escaped
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import CHARGE_V, GENERATOR, MAINS, SOLAR, Source, generator_watts
from vast_harbor.core.stops.charging.suitability import Suitability
from vast_harbor.core.weather.sun import POLAR_NIGHT, day_of_year, sun_day
from vast_harbor.phrases import phrase

# The largest charger that is proposed for a generator [A].
MOST_CHARGER_A = 60.0


def charging_findings(
    plan: Plan, assumptions: Assumptions, suitability: Mapping[str, tuple[Suitability, ...]]
) -> tuple[Finding, ...]:
    """Findings of the rig's sources, and of each source beside each candidate.

    Args:
        plan: the plan.
        assumptions: what holds for it.
        suitability: sources beside candidates, by the candidate's id.
    """
    found = [f for one in suitability.values() for j in one if (f := j.finding()) is not None]
    return tuple(_of_rig(plan, assumptions)) + tuple(found)


def _finding(code: str, severity: str, says: str, remedy: str) -> Finding:
    return Finding(code, severity, "charging", Sentence(escaped(says)), remedy)


def _of_rig(plan: Plan, assumptions: Assumptions) -> list[Finding]:
    charging = [s for s in plan.sources if s.charges]
    out = []
    if not charging and plan.off_grid_nights > 0:
        out.append(
            _finding(
                "no_source",
                "note",
                phrase("charging.findings.no_source_remedy"),
                phrase("charging.findings.add_charges_bank_mains"),
            )
        )
    for source in plan.sources:
        out += _of_source(plan, assumptions, source)
    return out


def _no_charger(plan: Plan, assumptions: Assumptions, generator: Source) -> Finding:
    """A generator with no charger to power: it charges nothing, and what that charger would cost."""
    volts = CHARGE_V * plan.system_v / 12
    amps = max(10.0, min(MOST_CHARGER_A, 5 * round(generator_watts(generator) / volts / 5)))
    base, each = assumptions.figure("charger_price"), assumptions.figure("charger_price_a")
    size = Figure(
        "charging.generator.charger_a", phrase("charging.findings.charger_size"), amps, "A", REFERENCE,
        source=phrase("charging.findings.charger_size_source"),
    )  # fmt: skip
    scale = Figure("charging.generator.scale", phrase("terms.names.system_voltage"), plan.system_v / 12, "1")
    price = computed(
        "charging.generator.charger_price", phrase("charging.findings.charger_price"),
        base.number + each.number * amps * scale.number, "money", "{C} + {c} · {I} · {s}",
        {"C": base, "c": each, "I": size, "s": scale},
    )  # fmt: skip
    says = phrase("charging.findings.no_charger_remedy", name=escaped(name_of(generator)))
    return Finding(
        "no_charger", "caution", "charging", Sentence(says, {"I": size, "P": price}),
        phrase("charging.findings.add_mains_charger_powers"),
    )  # fmt: skip


def _of_source(plan: Plan, assumptions: Assumptions, source: Source) -> list[Finding]:
    name, out = name_of(source), []
    if source.kind == SOLAR and plan.site.latitude is None and not plan.sun_hours:
        out.append(
            _finding(
                "no_site",
                "caution",
                phrase("charging.findings.no_site_remedy", name=name),
                phrase("charging.findings.choose_region_rig_page"),
            )
        )
    if source.kind == SOLAR and plan.site.latitude is not None and plan.site.longitude is not None:
        day = day_of_year("winter", plan.site.latitude)
        dark = sun_day(plan.site.latitude, plan.site.longitude, plan.site.utc_offset_h, day)
        if dark.kind == POLAR_NIGHT:
            out.append(
                _finding(
                    "polar_night",
                    "note",
                    phrase("charging.findings.polar_night_remedy", name=name),
                    phrase("charging.findings.plan_generator_engine_mains"),
                )
            )
    if source.kind == SOLAR and source.watts <= 0:
        out.append(
            _finding(
                "no_watts",
                "caution",
                phrase("charging.findings.no_watts_remedy", name=name),
                phrase("charging.findings.enter_peak_power"),
            )
        )
    if source.kind == MAINS and not source.amps:
        out.append(
            _finding(
                "no_amps",
                "caution",
                phrase("charging.findings.no_amps_remedy", name=name),
                phrase("charging.findings.find_label_charger"),
            )
        )
    if source.kind == GENERATOR:
        if not any(s.kind == MAINS for s in plan.sources):
            out.append(_no_charger(plan, assumptions, source))
        if source.run_hours < 0.25:
            out.append(
                _finding(
                    "quiet",
                    "caution",
                    phrase("charging.findings.quiet_remedy", name=name),
                    phrase("charging.findings.shorten_quiet_hours"),
                )
            )
    return out
