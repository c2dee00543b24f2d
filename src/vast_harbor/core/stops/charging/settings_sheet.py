"""The settings sheet: what each source is to be set to for one candidate."""

from dataclasses import dataclass, replace

from vast_harbor.core.battery.charge_acceptance import COLD_C
from vast_harbor.core.figures.display import Style
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import ENGINE, MAINS, SOLAR, STREAM
from vast_harbor.core.stops.banks import Build
from vast_harbor.core.stops.charging.required_fixes import as_built
from vast_harbor.phrases import phrase

# The lines of a sheet, in their order.
KEYS = ("absorption", "float", "amps", "tail", "rest", "equalise", "compensation", "cold", "hot")


@dataclass(frozen=True, slots=True)
class Setting:
    """One line of the sheet.

    Attributes:
        name: what is set.
        value: number in ``unit``, or None with ``words``.
        unit: its unit.
        words: what to set where it is no number.
        is_now: what it is set to now, as the same, or None where that is not known.
        now_words: the same where it is no number.
        key: its name in the record of what is done.
    """

    name: str
    value: float | None
    unit: str
    words: str = ""
    is_now: float | None = None
    now_words: str = ""
    key: str = ""

    def of_new_device(self) -> "Setting":
        """The same for a device that is yet to be bought: nobody knows what it comes set to."""
        return replace(self, is_now=None, now_words="")

    def now(self, style: Style) -> str:
        """What it is set to now, in the owner's units; empty where that is not known."""
        if self.now_words or self.is_now is None:
            return self.now_words
        return style.text(self.is_now, self.unit)


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
    on, off = phrase("charging.settings_sheet.on"), phrase("charging.settings_sheet.off")
    out = []
    for source in as_built(build).sources:
        if source.kind not in (MAINS, SOLAR, ENGINE, STREAM):
            continue
        if source.is_relay:
            out.append(
                Sheet(
                    source.id,
                    name_of(source),
                    (),
                    phrase("charging.settings_sheet.relay_settings_battery_gets"),
                )
            )
            continue
        lines = [
            Setting(
                phrase("charging.settings_sheet.absorption"),
                battery_class.absorption_v * n,
                "V",
                is_now=(source.absorption_v or 0) * n or None,
            ),
            Setting(
                phrase("charging.settings_sheet.float"),
                battery_class.float_v * n,
                "V",
                is_now=(source.float_v or 0) * n or None,
            ),
            Setting(
                phrase("charging.settings_sheet.highest_charge_current"),
                min(most, source.most_a(plan.system_v) or most),
                "A",
                is_now=source.amps,
            ),
            Setting(
                phrase("charging.settings_sheet.absorption_ends"),
                None,
                "",
                phrase("charging.settings_sheet.when_current_dropped_c")
                if lead
                else phrase("charging.settings_sheet.after_20_30_minutes"),
            ),
            Setting(
                phrase("charging.settings_sheet.rest_storage_stage"),
                None,
                "",
                off if not lead else phrase("charging.settings_sheet.battery_maker_says"),
                now_words="" if lead else on if source.rests else off,
            ),
            Setting(
                phrase("charging.settings_sheet.equalising"),
                battery_class.equalise_v * n or None,
                "V",
                "" if battery_class.equalise_v else phrase("charging.settings_sheet.never"),
                is_now=(source.equalise_v or 0) * n or None,
            ),
            Setting(
                phrase("charging.settings_sheet.temperature_compensation"),
                battery_class.compensation * 1000 * n or None,
                "mV/K",
                "" if battery_class.compensation else off,
                now_words=on if source.compensates else off,
            ),
            Setting(
                phrase("charging.settings_sheet.stop_charging_below"),
                max(low, COLD_C) if not lead else low,
                "°C",
            ),
            Setting(phrase("charging.settings_sheet.stop_charging_above"), high, "°C"),
        ]
        note = ""
        if not (source.adjustable or source.positions):
            note = phrase("charging.settings_sheet.voltage_cannot_set_my")
        keyed = tuple(replace(line, key=key) for key, line in zip(KEYS, lines, strict=True))
        out.append(Sheet(source.id, name_of(source), keyed, note))
    return tuple(out)
