"""The system voltage questioned: the same rig at 12, 24 and 48 V."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed, typed
from vast_harbor.core.installation.cables import inverter_current, size
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.loads import AC, DC
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.day import hangs_on_second, inverter_efficiency
from vast_harbor.core.stops.need import Days
from vast_harbor.phrases import phrase

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

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the choice."""
        yield from (self.peak_a, self.cable, self.converter_wh, self.need_wh, *self.label_ah.values())


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
    rated = typed(
        "day.inverter.rated_w",
        phrase("terms.names.inverter_rated_power"),
        inverter.rated_w,
        "W",
        "/day/inverter/rated_w",
    )
    efficiency = inverter_efficiency(plan)
    return computed(
        "rig.main_w", phrase("rig.system_voltage.main_w"), rated.number / efficiency.number, "W", "{P} / {η}",
        {"P": rated, "η": efficiency}, phrase("rig.system_voltage.main_w_source"),
    )  # fmt: skip


def _choice(
    plan: Plan, reference: Reference, assumptions: Assumptions, days: Days, volts: float
) -> VoltageChoice:
    at, day = f"rig.at{volts:g}", days.day
    v = Figure(
        f"{at}.v",
        phrase("rig.system_voltage.v"),
        volts,
        "V",
        REFERENCE,
        source=phrase("rig.system_voltage.v_source"),
    )
    watts = _main_power(plan, days)
    cut_off, drop = assumptions.figure("inverter_cut_off_v"), assumptions.figure("cable_drop")
    peak_a = computed(
        f"{at}.peak_a", phrase("rig.system_voltage.peak_a", volts=f'{volts:g}'),
        inverter_current(watts.number, 1.0, cut_off.number * volts / 12), "A",
        "{P} / ({V_LVC} · {V} / 12)", {"P": watts, "V": v, "V_LVC": cut_off},
        phrase("rig.system_voltage.peak_a_source"),
    )  # fmt: skip
    length = assumptions.figure("main_cable_m")
    sized = size(max(peak_a.number, 0.1), length.number, volts, drop.number, reference.cables)
    cable = computed(
        f"{at}.cable",
        phrase("rig.system_voltage.cable", volts=f"{volts:g}"),
        None if sized is None else sized.mm2,
        "mm²",
        "",
        {"I": peak_a, "L": length, "drop": drop},
        phrase("rig.system_voltage.cable_source"),
        phrase("rig.system_voltage.cable_note"),
    )
    direct = [f.wh for f in day.loads if f.load.supply == DC and f.runs and not hangs_on_second(plan, f.load)]
    dc = computed(
        f"{at}.dc_wh",
        phrase("rig.system_voltage.dc_wh"),
        sum(f.number for f in direct),
        "Wh",
        " + ".join(f"{{E{i}}}" for i in range(1, len(direct) + 1)) or "0",
        {f"E{i}": f for i, f in enumerate(direct, 1)},
        phrase("rig.system_voltage.dc_wh_source"),
    )
    # Appliances stay; those of more volts than the bank cannot, so nothing is converted for them.
    converts = volts > plan.system_v
    efficiency = assumptions.figure("voltage_converter_efficiency")
    loss = computed(
        f"{at}.converter_wh",
        phrase("rig.system_voltage.converter_wh", system_v=f"{plan.system_v:g}"),
        dc.number * (1 / efficiency.number - 1) if converts else 0.0,
        "Wh",
        "{E_dc} · (1 / {η} − 1)" if converts else "0",
        {"E_dc": dc, "η": efficiency},
        phrase("rig.system_voltage.converter_wh_source"),
    )
    need = days.need
    nights, reserve = need.nights, need.reserve
    need_wh = computed(
        f"{at}.need_wh", phrase("rig.system_voltage.need_wh", volts=f'{volts:g}'),
        (day.bank_wh.number + loss.number) * nights.number * (1 + reserve.number), "Wh",
        "({E_bank} + {E_loss}) · {N} · (1 + {m})",
        {"E_bank": day.bank_wh, "E_loss": loss, "N": nights, "m": reserve},
        phrase("rig.system_voltage.need_wh_source"),
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
            phrase("rig.system_voltage.rated_capacity_v", volts=f"{volts:g}", short=battery_class.short),
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
            phrase("rig.system_voltage.higher_voltage_needs_fewer"),
        )
    return VoltageChoice(volts, peak_a, cable, loss, need_wh, labels, _replaced(plan, days, volts))


def _replaced(plan: Plan, days: Days, volts: float) -> tuple[str, ...]:
    if volts == plan.system_v:
        return ()
    out = [
        phrase("rig.system_voltage.mains_charger"),
        phrase("rig.system_voltage.solar_controller_unless_accepts"),
        phrase("rig.system_voltage.battery_monitor_fuses_rated"),
    ]
    if any(f.load.supply == AC and f.runs for f in days.day.loads):
        out.insert(0, phrase("rig.system_voltage.inverter"))
    if plan.kind in ("van", "rv", "boat", "other"):
        out.append(phrase("rig.system_voltage.dc_dc_charger_engines", volts=f"{volts:g}"))
    if volts > plan.system_v:
        strong = [
            f.load.name for f in days.day.loads if f.load.supply == DC and f.runs and f.load.run_w >= 400
        ]
        out.append(phrase("rig.system_voltage.converter_v_dc_appliances", system_v=f"{plan.system_v:g}"))
        if strong:
            out.append(phrase("rig.system_voltage.motors_too_large_converter", strong=", ".join(strong[:3])))
    else:
        out.append(phrase("rig.system_voltage.every_dc_appliance_made", system_v=f"{plan.system_v:g}"))
    return tuple(out)
