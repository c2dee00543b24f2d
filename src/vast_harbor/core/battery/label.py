"""What the label of a battery says, brought to figures that can be compared."""

from dataclasses import dataclass, field

from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.battery.peukert import (
    capacity_over_time,
    exponent_from_two_ratings,
    reserve_capacity_ah,
)
from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class Label:
    """What stands on a label; None for what does not.

    Attributes:
        battery_class: its class.
        volts: nominal volts [V].
        ah, hours: a capacity and the time over which it is rated [Ah], [h].
        ah_2, hours_2: a second one.
        reserve_minutes: minutes at 25 A [min].
        wh: energy [Wh].
        cycles, cycles_at_dod: cycle count and the depth at which it was counted [-].
    """

    battery_class: BatteryClass
    volts: float
    ah: float | None = None
    hours: float | None = None
    ah_2: float | None = None
    hours_2: float | None = None
    reserve_minutes: float | None = None
    wh: float | None = None
    cycles: float | None = None
    cycles_at_dod: float | None = None


@dataclass(frozen=True, slots=True)
class Reading:
    """What follows from a label.

    Attributes:
        figures: what can be compared, in order.
        remarks: what the label leaves open or gets wrong, in sentences.
    """

    figures: tuple[Figure, ...]
    remarks: tuple[str, ...] = field(default=())


def read(label: Label, dod: float) -> Reading:
    """What follows from a label.

    Args:
        label: what stands on it.
        dod: usable depth of discharge to plan with [-].

    Returns:
        Capacity at 20 h (LFP: 5 h), Peukert exponent, energy, usable energy, energy per cycle life; with
        remarks where something is missing or cannot be right.
    """
    remarks: list[str] = []
    ratings = _ratings(label, remarks)
    if not ratings:
        remarks.append(phrase("battery.label.capacity_read_enter_amp"))
        return Reading((), tuple(remarks))
    exponent = _exponent(label, ratings, remarks)
    hours = label.battery_class.rated_hours
    (ah, rated), key = ratings[0], "label"
    inputs = {
        "C": typed(f"{key}.ah", phrase("battery.label.ah"), ah, "Ah", ""),
        "r": typed(f"{key}.hours", phrase("battery.label.hours"), rated, "h", ""),
        "k": exponent,
        "t": Figure(
            f"{key}.t",
            phrase("battery.label.t"),
            hours,
            "h",
            "reference",
            source=phrase("terms.names.typical_class"),
        ),
    }
    comparable = computed(
        f"{key}.comparable",
        phrase("battery.label.comparable", hours=f"{hours:g}"),
        capacity_over_time(ah, rated, exponent.number, hours),
        "Ah",
        "{C} · ({t} / {r})^(1 − 1 / {k})",
        inputs,
        phrase("terms.names.peukert_1897"),
    )
    volts = typed(f"{key}.volts", phrase("terms.names.volts"), label.volts, "V", "")
    energy = computed(
        f"{key}.energy", phrase("battery.label.energy"), comparable.number * label.volts, "Wh", "{C} · {V}",
        {"C": comparable, "V": volts}, phrase("battery.label.energy_source"),
    )  # fmt: skip
    depth = Figure(
        f"{key}.dod",
        phrase("terms.names.usable_depth"),
        dod,
        "1",
        "house rule",
        source=phrase("terms.names.house_rule"),
    )
    usable = computed(
        f"{key}.usable", phrase("battery.label.usable"), energy.number * dod, "Wh", "{E} · {DoD}",
        {"E": energy, "DoD": depth}, phrase("battery.label.usable_source"),
    )  # fmt: skip
    figures = [comparable, exponent, energy, usable]
    if label.cycles is not None and label.cycles_at_dod is not None:
        figures.append(
            computed(
                f"{key}.lifetime",
                phrase("battery.label.lifetime"),
                label.cycles * label.cycles_at_dod * energy.number,
                "Wh",
                "{N} · {d} · {E}",
                {
                    "N": typed(f"{key}.cycles", phrase("battery.label.cycles"), label.cycles, "cycles", ""),
                    "d": typed(f"{key}.at", phrase("battery.label.at"), label.cycles_at_dod, "%", ""),
                    "E": energy,
                },
                phrase("battery.label.lifetime_source"),
            )
        )
    _remark(label, energy, remarks)
    return Reading(tuple(figures), tuple(remarks))


def _ratings(label: Label, remarks: list[str]) -> list[tuple[float, float]]:
    usual = label.battery_class.rated_hours
    out: list[tuple[float, float]] = []
    if label.ah is not None:
        if label.hours is None:
            remarks.append(phrase("battery.label.label_say_over_how", usual=f"{usual:g}"))
        out.append((label.ah, label.hours or usual))
    if label.ah_2 is not None:
        if label.hours_2 is None:
            remarks.append(phrase("battery.label.enter_hours_belong_second"))
        else:
            out.append((label.ah_2, label.hours_2))
    if label.reserve_minutes is not None:
        out.append((reserve_capacity_ah(label.reserve_minutes), label.reserve_minutes / 60))
    if not out and label.wh is not None:
        out.append((label.wh / label.volts, usual))
    return out


def _exponent(label: Label, ratings: list[tuple[float, float]], remarks: list[str]) -> Figure:
    of_class = label.battery_class.peukert
    for second in ratings[1:]:
        (ah_1, t_1), (ah_2, t_2) = ratings[0], second
        if abs(t_1 - t_2) < 1e-9:
            continue
        k = exponent_from_two_ratings(ah_1, t_1, ah_2, t_2)
        if 1.0 <= k <= 1.6:
            return computed(
                "label.k",
                phrase("terms.names.peukert_exponent"),
                k,
                "1",
                "log({t_2} / {t_1}) / log({I_1} / {I_2})",
                {
                    "t_1": typed("label.t1", phrase("battery.label.t1"), t_1, "h", ""),
                    "t_2": typed("label.t2", phrase("battery.label.t2"), t_2, "h", ""),
                    "I_1": typed("label.i1", phrase("battery.label.i1"), ah_1 / t_1, "A", ""),
                    "I_2": typed("label.i2", phrase("battery.label.i2"), ah_2 / t_2, "A", ""),
                },
                phrase("battery.label.k_source"),
            )
        remarks.append(phrase("battery.label.two_ratings_contradict_other"))
    return Figure(
        "label.k",
        phrase("terms.names.peukert_exponent"),
        of_class.likely,
        "1",
        "reference",
        low=of_class.low,
        high=of_class.high,
        source=phrase("battery.label.k_typical_class_because_label_source"),
    )


def _remark(label: Label, energy: Figure, remarks: list[str]) -> None:
    if label.cycles is not None and label.cycles_at_dod is None:
        remarks.append(phrase("battery.label.label_say_depth_discharge"))
    if label.wh is not None and label.ah is not None and abs(label.wh / energy.number - 1) > 0.1:
        remarks.append(phrase("battery.label.watt_hours_differ_tenth"))
    if (
        label.battery_class.is_lead_acid
        and label.cycles is not None
        and label.cycles > 3 * label.battery_class.cycles.high
    ):
        remarks.append(phrase("battery.label.cycle_count_believable_class"))
