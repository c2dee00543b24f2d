"""The prices of a cycle, a kWh, a year and a night (part of Compare)."""

from vast_harbor.core.plan import Plan
from vast_harbor.core.stops.banks import BankFigures
from vast_harbor.core.stops.life import Life, nights_a_year
from vast_harbor.core.workings import Figure, computed


def prices(f: dict[str, Figure], banked: BankFigures, life: Life, plan: Plan, years: Figure) -> None:
    """Put the prices of a cycle, a kWh, a year and a night to the figures of the money.

    Args:
        f: figures of the money so far; the prices are added.
        banked, life: the candidate and its life.
        plan, years: for nights and years of keeping.
    """
    at = f"cost.{banked.candidate.id}"

    def per(
        key: str,
        name: str,
        unit: str,
        top: Figure,
        symbol: str,
        bottom: Figure,
        source: str = "",
        note: str = "",
    ) -> None:
        has = bool(bottom.value)
        f[key] = computed(
            f"{at}.{key}",
            name,
            top.number / bottom.number if has else None,
            unit,
            f"{{C}} / {{{symbol}}}" if has else "",
            {"C": top, symbol: bottom},
            source if has else "No energy is delivered, so there is nothing to divide by",
            note if has else "",
        )

    cycles, kwh = f["cycles_made"], f["kwh_delivered"]
    per(
        "per_cycle",
        "Lifetime cost per cycle",
        "money/cycle",
        f["lifetime"],
        "cycles",
        cycles,
        "Cost per cycle in this rig",
    )
    per(
        "per_cycle_bare",
        "Lifetime cost per cycle without extras",
        "money/cycle",
        f["lifetime_bare"],
        "cycles",
        cycles,
        "Cost per cycle in this rig",
    )
    per("per_kwh", "Lifetime cost per kWh", "money/kWh", f["lifetime"], "kWh", kwh)
    per("per_year", "Lifetime cost per year", "money/year", f["lifetime"], "H", years)
    nights = computed(
        "rig.nights_kept",
        "Off-grid nights over the years",
        plan.off_grid_nights * plan.years_kept,
        "nights",
        "{nights} · {H}",
        {"nights": nights_a_year(plan), "H": years},
    )
    per("per_night", "Lifetime cost per off-grid night", "money/night", f["lifetime"], "nights", nights)
    label = life["design_cycles"]
    per(
        "label_per_cycle",
        "Label cost per cycle",
        "money/cycle",
        banked["purchase"],
        "N",
        label,
        "Purchase ÷ cycles at the design depth: what advertisements reckon",
        "No rig makes all the cycles of an LFP label within its years.",
    )
    through = computed(
        f"{at}.label_kwh",
        "Energy by the label's cycles",
        (label.value or 0.0) * banked["usable_wh"].number / 1000,
        "kWh",
        "{N} · {E_usable} / 1000",
        {"N": label, "E_usable": banked["usable_wh"]},
    )
    per("label_per_kwh", "Label cost per lifetime kWh", "money/kWh", banked["purchase"], "kWh", through)


def usable_quotients(banked: BankFigures) -> dict[str, Figure]:
    """Weight and money per usable kWh of a candidate: ``kg_per_kwh``, ``price_per_kwh``."""
    at, usable = f"cost.{banked.candidate.id}", banked["usable_wh"]
    has = usable.number > 0
    outlay = computed(
        f"{at}.outlay",
        "Purchase with extras",
        banked["purchase"].number + banked["extras"].number,
        "money",
        "{P} + {X}",
        {"P": banked["purchase"], "X": banked["extras"]},
    )

    def per(key: str, name: str, unit: str, top: Figure) -> Figure:
        value = top.number / usable.number * 1000 if has else None
        return computed(
            f"{at}.{key}",
            name,
            value,
            unit,
            "{x} · 1000 / {E_usable}" if has else "",
            {"x": top, "E_usable": usable},
        )

    return {
        "outlay": outlay,
        "kg_per_kwh": per("kg_per_kwh", "Weight per usable kWh", "kg/kWh", banked["kg"]),
        "price_per_kwh": per("price_per_kwh", "Batteries per usable kWh", "money/kWh", banked["purchase"]),
    }
