"""The system voltage questioned: the same rig at 12, 24 and 48 V."""

from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, typed
from vast_harbor.core.installation.cables import inverter_current, size
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.loads import AC, DC
from vast_harbor.core.rig.plan import Plan, Reference
from vast_harbor.core.stops.day import hangs_on_second, inverter_efficiency
from vast_harbor.core.stops.need import Days

VOLTS = (12.0, 24.0, 48.0)


@dataclass(frozen=True, slots=True)
class VoltageChoice:
    """The rig at one system voltage.

    Attributes:
        system_v: class volts [V].
        peak_a: largest main current, at the cut-off of the inverter [A].
        cable: main cable for it [mm²]; its value is None when none of the table will do.
        converter_wh: what converters to the appliances' volts lose on the governing day [Wh].
        need_wh: usable energy needed, by the loads as they are [Wh].
        label_ah: what a label must say for it, lead-acid and LFP [Ah].
        replaced: what would have to be replaced or added, in words.
    """

    system_v: float
    peak_a: Figure
    cable: Figure
    converter_wh: Figure
    need_wh: Figure
    label_ah: dict[str, Figure]
    replaced: tuple[str, ...]


def voltage_choices(
    plan: Plan, reference: Reference, assumptions: Assumptions, days: Days
) -> tuple[VoltageChoice, ...]:
    """The rig at 12, 24 and 48 V: Wh stay the same, Ah and amps shrink.

    Args:
        plan, reference, assumptions, days: the plan and what follows from it.

    Returns:
        One choice for each voltage.
    """
    return tuple(_choice(plan, reference, assumptions, days, v) for v in sorted({*VOLTS, plan.system_v}))


def _main_power(plan: Plan, days: Days) -> Figure:
    """What cable and fuse must bear: the hardest moment, or the inverter at its rating where that is more."""
    peak, inverter = days.day.peak_w, plan.inverter
    if inverter.rated_w is None or inverter.rated_w / inverter.efficiency <= peak.number:
        return peak
    rated = typed("day.inverter.rated_w", "Inverter rating", inverter.rated_w, "W", "/day/inverter/rated_w")
    efficiency = inverter_efficiency(plan)
    return computed(
        "rig.main_w", "Inverter at its rating", rated.number / efficiency.number, "W", "{P} / {η}",
        {"P": rated, "η": efficiency}, "Cable and fuse bear what it can draw, not only what it draws today",
    )  # fmt: skip


def _choice(
    plan: Plan, reference: Reference, assumptions: Assumptions, days: Days, volts: float
) -> VoltageChoice:
    at, day = f"rig.at{volts:g}", days.day
    v = Figure(f"{at}.v", "System voltage tried", volts, "V", REFERENCE, source="One of 12, 24 and 48 V")
    watts = _main_power(plan, days)
    cut_off, drop = assumptions.figure("inverter_cut_off_v"), assumptions.figure("cable_drop")
    peak_a = computed(
        f"{at}.peak_a", f"Main current at {volts:g} V",
        inverter_current(watts.number, 1.0, cut_off.number * volts / 12), "A",
        "{P} / ({V_LVC} · {V} / 12)", {"P": watts, "V": v, "V_LVC": cut_off},
        "I = P/(η·V_LVC), at the volts at which an inverter cuts off",
    )  # fmt: skip
    length = assumptions.figure("main_cable_m")
    sized = size(max(peak_a.number, 0.1), length.number, volts, drop.number, reference.cables)
    cable = computed(
        f"{at}.cable",
        f"Main cable at {volts:g} V",
        None if sized is None else sized.mm2,
        "mm²",
        "",
        {"I": peak_a, "L": length, "drop": drop},
        "Smallest size that may carry it, drops little enough (R = ρ·2L/A) and has a fuse of 1.25 times the "
        "current; after ISO 10133, 105 °C",
        "No figure: more than one cable, or more volts. Your code's own table goes before this one.",
    )
    direct = [f.wh for f in day.loads if f.load.supply == DC and f.runs and not hangs_on_second(plan, f.load)]
    dc = computed(
        f"{at}.dc_wh",
        "DC loads on the main bank",
        sum(f.number for f in direct),
        "Wh",
        " + ".join(f"{{E{i}}}" for i in range(1, len(direct) + 1)) or "0",
        {f"E{i}": f for i, f in enumerate(direct, 1)},
        "Appliances made for the present volts of the rig",
    )
    # Appliances stay; those of more volts than the bank cannot, so nothing is converted for them.
    converts = volts > plan.system_v
    efficiency = assumptions.figure("voltage_converter_efficiency")
    loss = computed(
        f"{at}.converter_wh",
        f"Lost in converters to {plan.system_v:g} V appliances",
        dc.number * (1 / efficiency.number - 1) if converts else 0.0,
        "Wh",
        "{E_dc} · (1 / {η} − 1)" if converts else "0",
        {"E_dc": dc, "η": efficiency},
        "The appliances as they are hang on a converter where the bank has more volts",
    )
    need = days.need
    nights, reserve = need.nights, need.reserve
    need_wh = computed(
        f"{at}.need_wh", f"Need at {volts:g} V",
        (day.bank_wh.number + loss.number) * nights.number * (1 + reserve.number), "Wh",
        "({E_bank} + {E_loss}) · {N} · (1 + {m})",
        {"E_bank": day.bank_wh, "E_loss": loss, "N": nights, "m": reserve},
        "Watt-hours do not change with the volts, but for what converters lose",
    )  # fmt: skip
    labels = {}
    for key in ("agm", "lfp"):
        of_class, battery_class = need.classes[key], reference.classes[key]
        nominal = battery_class.nominal_v(volts)
        product = (
            of_class.dod.number * of_class.temperature.number * of_class.rate.number * of_class.ageing.number
        )
        labels[key] = computed(
            f"{at}.{key}_ah",
            f"On the label at {volts:g} V, {battery_class.short}",
            need_wh.number / product / nominal,
            "Ah",
            "{E} / ({DoD} · {k_T} · {k_rate} · {k_age}) / ({V}"
            + (")" if battery_class.is_lead_acid else " / 12 · 12.8)"),
            {
                "E": need_wh,
                "DoD": of_class.dod,
                "k_T": of_class.temperature,
                "k_rate": of_class.rate,
                "k_age": of_class.ageing,
                "V": v,
            },
            "Amp-hours shrink as the volts grow; the energy on the label stays",
        )
    return VoltageChoice(volts, peak_a, cable, loss, need_wh, labels, _replaced(plan, days, volts))


def _replaced(plan: Plan, days: Days, volts: float) -> tuple[str, ...]:
    if volts == plan.system_v:
        return ()
    out = [
        "the mains charger",
        "solar controller, if it does not take both",
        "monitor shunt and fuses by their volts",
    ]
    if any(f.load.supply == AC and f.runs for f in days.day.loads):
        out.insert(0, "the inverter")
    if plan.kind in ("van", "rv", "boat", "other"):
        out.append(f"a DC-DC charger from the engine’s alternator to {volts:g} V")
    if volts > plan.system_v:
        strong = [
            f.load.name for f in days.day.loads if f.load.supply == DC and f.runs and f.load.run_w >= 400
        ]
        out.append(f"a converter to {plan.system_v:g} V for the DC appliances")
        if strong:
            out.append(f"motors that no converter feeds: {', '.join(strong[:3])}")
    else:
        out.append(f"every DC appliance made for {plan.system_v:g} V")
    return tuple(out)
