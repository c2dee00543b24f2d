"""Volts to act on: what a bank shows at the alarm, the floor, and where loads are cut."""

from dataclasses import dataclass

from vast_harbor.core.battery.soc_from_voltage import LFP_V, RESTED_V, soc_at
from vast_harbor.core.battery.terminal_voltage import Terminal, bank_resistance
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.stops.banks.checks.check import Build
from vast_harbor.phrases import phrase

# A quarter of the charge: where volts leave more open, they say nothing.
BLIND = 0.25


@dataclass(frozen=True, slots=True)
class Act:
    """A moment at which somebody or something acts.

    Attributes:
        key, name: which.
        soc: state of charge at it [%].
        rested, loaded: volts that the bank then shows, rested and under the usual load [V].
        blind: whether volts cannot tell it from a quarter more or less of the charge.
    """

    key: str
    name: str
    soc: Figure
    rested: Figure
    loaded: Figure
    blind: bool


def acts(build: Build) -> tuple[Act, ...]:
    """Alarm, floor, disconnect and reconnect of a bank, at the temperature of the governing day."""
    bank, assume = build.bank, build.assumptions
    battery_class = bank.model.battery_class
    class_v = bank.series * bank.model.unit_class_v
    warmth, age = build.need.day.battery_c, build.need.ageing
    terminal = Terminal(
        battery_class, class_v, bank_resistance(bank), 0.0, warmth.number, min(age.number, bank.model.health)
    )
    current = build.figures["mean_current"]
    dod, margin = build.figures["dod"], assume.figure("alarm_margin")
    family = "lead_acid" if battery_class.is_lead_acid else "lfp"
    at = f"{build.at}.act"
    floor = computed(
        f"{at}.floor.soc", phrase("banks.volts_to_act_on.soc"), 1 - dod.number, "%", "1 − {DoD}", {"DoD": dod}
    )
    alarm = computed(
        f"{at}.alarm.soc", phrase("banks.volts_to_act_on.alarm_soc"),
        min(1.0, floor.number + margin.number), "%",
        "min(1, {floor} + {a})", {"floor": floor, "a": margin},
    )  # fmt: skip
    out = [
        _at_soc(at, "alarm", phrase("banks.volts_to_act_on.alarm"), alarm, terminal, current, warmth),
        _at_soc(
            at, "floor", phrase("banks.volts_to_act_on.planned_minimum"), floor, terminal, current, warmth
        ),
    ]
    for key, name in (
        ("disconnect", phrase("banks.volts_to_act_on.loads_disconnect")),
        ("reconnect", phrase("banks.volts_to_act_on.loads_reconnect")),
    ):
        out.append(_at_volts(build, at, key, name, f"{key}_v.{family}", terminal, current))
    return tuple(out)


def _blind(terminal: Terminal, volts: float) -> bool:
    doubt = (RESTED_V if terminal.battery_class.is_lead_acid else LFP_V) * terminal.class_v / 12
    low, high = (soc_at(terminal.battery_class, terminal.class_v, volts + d) for d in (-doubt, doubt))
    return high - low > BLIND


def _at_soc(
    at: str, key: str, name: str, soc: Figure, terminal: Terminal, current: Figure, warmth: Figure
) -> Act:
    rested = Figure(
        f"{at}.{key}.rested",
        phrase("banks.volts_to_act_on.resting", name=name),
        float(terminal.volts(soc.number, soc.number, 0.0)),
        "V",
        REFERENCE,
        inputs={"SoC": soc},
        source=phrase("banks.volts_to_act_on.rested_source"),
    )
    return Act(
        key, name, soc, rested, _loaded(at, key, name, soc, rested, terminal, current, warmth),
        _blind(terminal, rested.number),
    )  # fmt: skip


def _loaded(
    at: str,
    key: str,
    name: str,
    soc: Figure,
    rested: Figure,
    terminal: Terminal,
    current: Figure,
    warmth: Figure,
) -> Figure:
    ohm = Figure(
        f"{at}.{key}.ohm", phrase("banks.volts_to_act_on.ohm"), float(
            terminal.resistance(soc.number, soc.number)), "Ω", REFERENCE, inputs={"T": warmth},
        source=phrase("banks.volts_to_act_on.ohm_source"),
    )  # fmt: skip
    value = float(terminal.volts(soc.number, soc.number, current.number))
    knee = rested.number - current.number * ohm.number - value
    return computed(
        f"{at}.{key}.loaded", phrase("banks.volts_to_act_on.loaded", name=name), value, "V",
        "{V} − {I} · {R}" if abs(knee) < 1e-9 else "", {"V": rested, "I": current, "R": ohm},
        phrase("banks.volts_to_act_on.loaded_source"), phrase("banks.volts_to_act_on.loaded_note"),
    )  # fmt: skip


def _at_volts(
    build: Build, at: str, key: str, name: str, assumption: str, terminal: Terminal, current: Figure
) -> Act:
    """Where a device acts by the volts that it sees; the charge then left is what a rested bank would "
    "have."""
    each = build.assumptions.figure(assumption)
    system = build.entered("rig", "system_v", phrase("terms.names.system_voltage"), build.plan.system_v, "V")
    volts = computed(
        f"{at}.{key}.loaded",
        phrase("banks.volts_to_act_on.name_setting_device", name=name),
        each.number * build.plan.system_v / 12,
        "V",
        "{v} · {V} / 12",
        {"v": each, "V": system},
        phrase("banks.volts_to_act_on.loaded_one_setting_all_loads_source"),
    )
    soc = soc_at(terminal.battery_class, terminal.class_v, volts.number)
    for _ in range(30):
        back = volts.number + current.number * float(terminal.resistance(soc, soc))
        soc = soc_at(terminal.battery_class, terminal.class_v, back)
    left = Figure(
        f"{at}.{key}.soc", phrase("banks.volts_to_act_on.soc_under_load", name=name), soc, "%", REFERENCE,
        inputs={"V": volts, "I": current}, source=phrase("banks.volts_to_act_on.soc_source"),
    )  # fmt: skip
    rested = Figure(
        f"{at}.{key}.rested",
        phrase("banks.volts_to_act_on.name_same_resting", name=name),
        float(terminal.volts(soc, soc, 0.0)),
        "V",
        REFERENCE,
        inputs={"SoC": left},
        source=phrase("banks.volts_to_act_on.rested_source"),
    )
    return Act(key, name, left, rested, volts, _blind(terminal, rested.number))
