"""What the pictures of the comparison show: money split by item, and capacity over the years."""

from dataclasses import dataclass

from vast_harbor.core.battery.ageing import state_of_health
from vast_harbor.core.figures.workings import Figure
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.phrases import phrase

# Items of the lifetime cost, in the order in which they are stacked; the last two are credits.
ITEMS = (
    ("purchase", phrase("terms.names.batteries")),
    ("replacements", phrase("terms.names.replacements")),
    ("extras", phrase("terms.names.extras")),
    ("labour", phrase("compare.verdict_charts.labour_contingency")),
    ("running", phrase("compare.verdict_charts.maintenance_water_energy_fuel")),
    ("exit", phrase("terms.names.resale_value_end")),
    ("old_bank", phrase("compare.verdict_charts.old_bank")),
    ("doubt", phrase("compare.cost.doubt")),
)


@dataclass(frozen=True, slots=True)
class Item:
    """One item of a bank's lifetime cost.

    Attributes:
        key, name: which.
        figures: what it is made of.
        money: over the years of keeping, credits negative [money].
        per_cycle: the same for one cycle of the plan [money/cycle]; None without any.
    """

    key: str
    name: str
    figures: tuple[Figure, ...]
    money: float
    per_cycle: float | None


def items(compared: ComparedBank) -> tuple[Item, ...]:
    """The lifetime cost of a candidate by item; they add up to it."""
    cost, cycles = compared.cost, compared.cost["cycles_made"].number
    of = {
        "purchase": (compared.banked["purchase"],),
        "replacements": (cost["replacements"],),
        "extras": (cost["extras"], cost["again"]),
        "labour": (cost["labour"], cost["contingency"]),
        "running": (cost["running"],),
        "exit": (cost["exit"],),
        "old_bank": (cost["old_bank"],),
        "doubt": (cost["doubt"],),
    }
    out = []
    for key, name in ITEMS:
        sign = -1 if key in ("exit", "old_bank") else 1
        money = sign * sum(f.number for f in of[key])
        out.append(Item(key, name, of[key], money, money / cycles if cycles else None))
    return tuple(out)


def capacity(compared: ComparedBank, years: float) -> list[tuple[float, float]]:
    """Usable energy over the years of keeping, a step at each replacement.

    Args:
        compared: the candidate.
        years: H.

    Returns:
        (years, kWh) points to be joined by straight lines.
    """
    life, lead = compared.life, compared.banked.battery_class.is_lead_acid
    start = compared.banked.figures.get("start_wear")
    worn = start.number if start is not None else 0.0
    rate, new = life["wear"].number, compared.banked["usable_new_wh"].number / 1000
    bank = compared.banked.bank
    # What a used battery has left is in its usable energy already.
    fresh = 1.0 if bank is None or bank.model.health == 1.0 else state_of_health(worn, lead)
    lasts = min(life.years, years)

    def at(age: float) -> float:
        return new * state_of_health(worn + rate * age, lead) / (fresh or 1.0)

    ages = [0.0, lasts]
    if lead and rate > 0 and 0 < (1 - worn) / rate < lasts:
        ages.insert(1, (1 - worn) / rate)
    out: list[tuple[float, float]] = []
    began = 0.0
    while began < years - 1e-9:
        for age in ages:
            if began + age <= years + 1e-9:
                out.append((began + age, at(age)))
        if began + lasts > years:
            out.append((years, at(years - began)))
        began += lasts
    return out
