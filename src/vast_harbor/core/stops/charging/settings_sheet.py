"""The settings sheet: what each source is to be set to for one candidate."""

from dataclasses import dataclass

from vast_harbor.core.battery.charge_acceptance import COLD_C
from vast_harbor.core.rig.source_remedies import name_of, sources_of
from vast_harbor.core.rig.sources import ENGINE, MAINS, SOLAR, STREAM
from vast_harbor.core.stops.banks import Build


@dataclass(frozen=True, slots=True)
class Setting:
    """One line of the sheet.

    Attributes:
        name: what is set.
        value: number in ``unit``, or None with ``words``.
        unit: its unit.
        words: what to set where it is no number.
        is_now: what it is set to now, as the same, or None where that is not known.
    """

    name: str
    value: float | None
    unit: str
    words: str = ""
    is_now: float | None = None


@dataclass(frozen=True, slots=True)
class Sheet:
    """The sheet of one source.

    Attributes:
        source, name: which.
        settings: what to set.
        note: what cannot be set, in words.
    """

    source: str
    name: str
    settings: tuple[Setting, ...]
    note: str


def sheets(build: Build) -> tuple[Sheet, ...]:
    """What to set for a candidate, each source with the remedies that are chosen; volts of the system."""
    plan, battery_class = build.plan, build.bank.model.battery_class
    n, lead = plan.system_v / 12, build.lead
    low, high = build.bank.model.charge_c
    most = build.bank.parallel * build.bank.model.charge_a
    out = []
    for source in sources_of(plan, build.candidate, battery_class, build.assumptions):
        if source.kind not in (MAINS, SOLAR, ENGINE, STREAM):
            continue
        if source.is_relay:
            out.append(
                Sheet(
                    source.id,
                    name_of(source),
                    (),
                    "A relay has nothing to set: the alternator’s volts arrive.",
                )
            )
            continue
        lines = [
            Setting(
                "Absorption",
                battery_class.absorption_v * n,
                "V",
                is_now=(source.absorption_v or 0) * n or None,
            ),
            Setting("Float", battery_class.float_v * n, "V", is_now=(source.float_v or 0) * n or None),
            Setting("Charge current, at most", min(most, source.most_a(plan.system_v) or most), "A"),
            Setting(
                "Absorption ends",
                None,
                "",
                "when the current has fallen to C/50, not by the clock"
                if lead
                else "after 20 to 30 minutes, then float",
            ),
            Setting(
                "Rest or storage stage", None, "", "off" if not lead else "as the maker of the battery says"
            ),
            Setting(
                "Equalise",
                battery_class.equalise_v * n or None,
                "V",
                "" if battery_class.equalise_v else "never",
            ),
            Setting(
                "Temperature compensation",
                battery_class.compensation * 1000 * n or None,
                "mV/K",
                "" if battery_class.compensation else "off",
            ),
            Setting("No charge below", max(low, COLD_C) if not lead else low, "°C"),
            Setting("No charge above", high, "°C"),
        ]
        note = ""
        if not (source.adjustable or source.positions):
            note = "Its volts cannot be set: see what that does under “Will they do?”."
        out.append(Sheet(source.id, name_of(source), tuple(lines), note))
    return tuple(out)
