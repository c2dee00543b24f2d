"""The prices of a cycle, a kWh, a year and a night."""

from vast_harbor.core.figures.workings import Figure, computed, datasheet
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.banks import BankFigures
from vast_harbor.core.stops.compare.life import Life
from vast_harbor.core.stops.compare.wear import nights_a_year
from vast_harbor.phrases import phrase


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
            source if has else phrase("compare.unit_costs.energy_delivered_cost_per"),
            note if has else "",
        )

    cycles, kwh = f["cycles_made"], f["kwh_delivered"]
    per(
        "per_cycle",
        phrase("terms.names.lifetime_cost_per_cycle"),
        "money/cycle",
        f["lifetime"],
        "cycles",
        cycles,
        phrase("compare.unit_costs.cost_per_cycle_use"),
    )
    per(
        "per_cycle_bare",
        phrase("compare.unit_costs.per_cycle_bare"),
        "money/cycle",
        f["lifetime_bare"],
        "cycles",
        cycles,
        phrase("compare.unit_costs.cost_per_cycle_use"),
    )
    per("per_kwh", phrase("compare.unit_costs.per_kwh"), "money/kWh", f["lifetime"], "kWh", kwh)
    per("per_year", phrase("compare.unit_costs.per_year"), "money/year", f["lifetime"], "H", years)
    nights = computed(
        "rig.nights_kept",
        phrase("compare.unit_costs.nights_kept"),
        plan.off_grid_nights * plan.years_kept,
        "nights",
        "{nights} · {H}",
        {"nights": nights_a_year(plan), "H": years},
    )
    per("per_night", phrase("compare.unit_costs.per_night"), "money/night", f["lifetime"], "nights", nights)
    usable = banked["usable_wh"]
    kept = computed(
        f"{at}.kept_ready",
        phrase("compare.unit_costs.kept_ready"),
        usable.number / 1000 * years.number,
        "kWh·year",
        "{E_usable} / 1000 · {H}",
        {"E_usable": usable, "H": years},
    )
    per("ready", phrase("compare.unit_costs.ready"), "money/kWh·year", f["lifetime"], "ready", kept)
    label = life["design_cycles"]
    per(
        "label_per_cycle",
        phrase("compare.unit_costs.label_per_cycle"),
        "money/cycle",
        banked["purchase"],
        "N",
        label,
        phrase("compare.unit_costs.purchase_price_rated_cycles"),
        phrase("compare.unit_costs.rig_uses_rated_cycles"),
    )
    through = computed(
        f"{at}.label_kwh",
        phrase("compare.unit_costs.label_kwh"),
        (label.value or 0.0) * banked["usable_wh"].number / 1000,
        "kWh",
        "{N} · {E_usable} / 1000",
        {"N": label, "E_usable": banked["usable_wh"]},
    )
    per(
        "label_per_kwh",
        phrase("compare.unit_costs.label_per_kwh"),
        "money/kWh",
        banked["purchase"],
        "kWh",
        through,
    )


def usable_quotients(banked: BankFigures) -> dict[str, Figure]:
    """Weight, space and money per usable kWh: ``kg_per_kwh``, ``l_per_kwh``, ``price_per_kwh``."""
    at, usable = f"cost.{banked.candidate.id}", banked["usable_wh"]
    has = usable.number > 0

    def per(key: str, name: str, unit: str, top: Figure) -> Figure:
        known = has and top.value is not None
        value = top.number / usable.number * 1000 if known else None
        return computed(
            f"{at}.{key}", name, value, unit, "{x} · 1000 / {E_usable}" if known else "",
            {"x": top, "E_usable": usable},
        )  # fmt: skip

    return {
        "kg_per_kwh": per("kg_per_kwh", phrase("terms.names.weight_per_usable_kwh"), "kg/kWh", banked["kg"]),
        "l_per_kwh": per("l_per_kwh", phrase("terms.names.space_per_usable_kwh"), "l/kWh", _litres(banked)),
        "price_per_kwh": per(
            "price_per_kwh", phrase("terms.names.batteries_per_usable_kwh"), "money/kWh", banked["purchase"]
        ),
    }


def _litres(banked: BankFigures) -> Figure:
    """Space that the boxes take; none where the entry has no measures."""
    bank = banked.bank
    size = bank.model.case.size if bank is not None else None
    at, units = f"cost.{banked.candidate.id}", banked["units"]
    entry = bank.model.title if bank is not None else ""
    one = None if size is None else size[0] * size[1] * size[2] / 1e6
    of_one = datasheet(f"{at}.l_one", phrase("compare.unit_costs.l_one"), one, "l", entry)
    return computed(
        f"{at}.litres", phrase("compare.unit_costs.litres"), None if one is None else one * units.number, "l",
        "" if one is None else "{n} · {l}", {"n": units, "l": of_one},
    )  # fmt: skip
