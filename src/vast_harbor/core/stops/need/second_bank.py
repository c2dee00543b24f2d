"""The second house bank, fed from the main one."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from vast_harbor.core.battery.sizing import nameplate_energy
from vast_harbor.core.figures.workings import Figure, computed, typed
from vast_harbor.core.rig import derating
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.day import second_efficiency
from vast_harbor.core.stops.need.governing_day import Days
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class SecondNeed:
    """What the second bank needs.

    Attributes:
        day_wh: what its loads take on the day on which they take most [Wh].
        energy: usable energy that it must hold by itself [Wh].
        from_main: what the main bank gives for it on the governing day [Wh].
        nameplate_ah: what the label must say, by battery class [Ah].
    """

    day_wh: Figure
    energy: Figure
    from_main: Figure
    nameplate_ah: Mapping[str, Figure]

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the second bank."""
        yield from (self.day_wh, self.energy, self.from_main, *self.nameplate_ah.values())


def second_need(plan: Plan, reference: Reference, assumptions: Assumptions, days: Days) -> SecondNeed | None:
    """The need of the second bank; None without one.

    It must last a few nights by itself, should the charger between the banks fail; the main bank carries its
    energy, with the charger's losses, for all of its own nights.

    Args:
        plan, reference, assumptions, days: as for the need.

    Returns:
        Its need with workings.
    """
    second = plan.second
    if second is None:
        return None
    carried = [d for d in days.days.values() if d.type.carried and d.second_wh is not None]
    day = max(carried or [days.day], key=lambda d: d.second_wh.number if d.second_wh else 0.0)
    day_wh, own = day.second_wh, days.day.second_wh
    assert day_wh is not None and own is not None
    reserve, ageing = assumptions.figure("reserve"), assumptions.figure("ageing_allowance")
    nights = typed(
        "second.nights", phrase("need.second_bank.nights"), second.nights, "nights", "/second_bank/nights"
    )
    energy = computed(
        "second.energy",
        phrase("need.second_bank.energy", name=second.name),
        day_wh.number * nights.number * (1 + reserve.number),
        "Wh",
        "{E_2} · {N_2} · (1 + {m})",
        {"E_2": day_wh, "N_2": nights, "m": reserve},
        phrase("need.second_bank.energy_source"),
    )
    efficiency = second_efficiency(second)
    from_main = computed(
        "second.from_main", phrase("need.second_bank.from_main"), own.number / efficiency.number, "Wh",
        "{E_2} / {η}", {"E_2": own, "η": efficiency}, phrase("need.second_bank.from_main_source"),
    )  # fmt: skip
    volts = typed(
        "second.system_v", phrase("need.second_bank.system_v"), second.system_v, "V", "/second_bank/system_v"
    )
    labels = {}
    for key, battery_class in reference.classes.items():
        dod = assumptions.figure(f"dod.{key}")
        k_t = derating.temperature(f"second.{key}", day.battery_c, assumptions, battery_class)
        nominal = battery_class.nominal_v(second.system_v)
        per_class = "" if battery_class.is_lead_acid else " / 12 · 12.8"
        wh = nameplate_energy(energy.number, dod.number, k_t.number, 1.0, ageing.number)
        labels[key] = computed(
            f"second.{key}.nameplate_ah",
            phrase("need.second_bank.nameplate_ah", short=battery_class.short),
            wh / nominal,
            "Ah",
            f"{{E_need}} / ({{DoD}} · {{k_T}} · {{k_age}}) / ({{V}}{per_class})",
            {"E_need": energy, "DoD": dod, "k_T": k_t, "k_age": ageing, "V": volts},
            phrase("need.second_bank.nameplate_ah_source"),
        )
    return SecondNeed(day_wh, energy, from_main, labels)
