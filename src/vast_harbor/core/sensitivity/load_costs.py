"""The cheapest watt-hour: what battery each load causes, beside the price of shortening or replacing it."""

from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, escaped, typed
from vast_harbor.core.improvements import is_refused
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.loads import STANDBY
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import quick_life_cost, size_layout
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.phrases import phrase


@dataclass(frozen=True, slots=True)
class LoadCost:
    """What one load costs in battery.

    Attributes:
        id, name, index: the load, and its place in the list.
        bank_wh: taken from the bank on the governing day [Wh].
        money, kg: battery money and weight that it causes, its share of the bank [money], [kg].
        kept: the same over the years of keeping [money].
        quarter: battery money that a quarter less use of it frees [money]; None where it runs by itself.
        strings: strings that go when it goes: what a whole battery less really saves.
        saves: battery money that the thriftier one frees [money]; None where none is thought of.
        price: of the thriftier one [money].
        says: whether the money is better spent on it, in words; None where nothing is to be said.
        better: whether it is.
    """

    id: str
    name: str
    index: int
    bank_wh: Figure
    money: Figure
    kg: Figure
    kept: Figure
    quarter: Figure | None
    strings: int
    saves: Figure | None
    price: Figure | None
    says: Sentence | None
    better: bool


def load_costs(results: Results, reference: Reference) -> tuple[LoadCost, ...]:
    """Every load of the governing day with the battery that it causes, the dearest first.

    By the bank that the verdict recommends; else by the first that can be built. None without either.

    Args:
        results: the plan in figures.
        reference: shipped data.
    """
    compared_banks = results.verdict.compared_banks
    compared = results.verdict.winner or (compared_banks[0] if compared_banks else None)
    if compared is None or not results.day.bank_wh.number:
        return ()
    found = [_one(i, compared, results, reference) for i in range(len(results.day.loads))]
    return tuple(sorted(found, key=lambda c: -c.bank_wh.number))


def _one(index: int, compared: ComparedBank, results: Results, reference: Reference) -> LoadCost:
    listed = results.day.loads[index]
    load, plan = listed.load, results.plan
    at = f"verdict.load.{load.id}"
    total, wh = results.day.bank_wh, listed.bank_wh
    purchase, kg, lifetime = (
        compared.banked["purchase"],
        compared.banked["kg"],
        compared.cost["lifetime_bare"],
    )

    def share(key: str, name: str, of: Figure) -> Figure:
        return computed(
            f"{at}.{key}", name, of.number * wh.number / total.number, of.unit, "{all} · {E} / {E_bank}",
            {"all": of, "E": wh, "E_bank": total}, phrase("changes.load_costs.share_day_applied_recommended"),
        )  # fmt: skip

    money = share("money", phrase("changes.load_costs.money", name=load.name), purchase)
    quarter = None
    if 0 < load.hours_on < 24 and load.use != STANDBY:
        quarter = Figure(
            f"{at}.quarter",
            phrase("changes.load_costs.quarter", name=load.name),
            money.number / 4,
            "money",
            REFERENCE,
            source=phrase("changes.load_costs.quarter_source"),
        )
    saves, price, says, better = _thrifty(at, index, money, results)
    index_in_plan = [x.id for x in plan.loads].index(load.id)
    return LoadCost(
        load.id,
        load.name,
        index_in_plan,
        wh,
        money,
        share("kg", phrase("changes.load_costs.kg", name=load.name), kg),
        share("kept", phrase("changes.load_costs.kept", name=load.name), lifetime),
        quarter,
        _strings(wh.number, compared, results, reference),
        saves,
        price,
        says,
        better,
    )


def _strings(wh: float, compared: ComparedBank, results: Results, reference: Reference) -> int:
    """How many strings fewer would do without so much of the day."""
    bank = compared.banked.bank
    assert bank is not None
    plan, need, total = results.plan, results.need.energy.number, results.day.bank_wh.number
    rig_limits = quick_life_cost(plan, reference, results.assumptions, results.days).rig_limits
    less = size_layout(bank.model, plan.system_v, need * (1 - wh / total), rig_limits.usable_wh)
    whole = size_layout(bank.model, plan.system_v, need, rig_limits.usable_wh)
    if less is None or whole is None or not less.covers:
        return 0
    return max(0, whole.bank.parallel - less.bank.parallel)


def _thrifty(
    at: str, index: int, money: Figure, results: Results
) -> tuple[Figure | None, Figure | None, Sentence | None, bool]:
    load = results.day.loads[index].load
    if load.thrifty_w is None or load.watts <= 0 or is_refused("thrifty", load.id, results.plan):
        return None, None, None, False
    path = f"/day/loads/{[x.id for x in results.plan.loads].index(load.id)}"
    watts = typed(
        f"{at}.thrifty_w", phrase("changes.load_costs.thrifty_w"), load.thrifty_w, "W", f"{path}/thrifty_w"
    )
    now = Figure(
        f"{at}.watts",
        phrase("changes.load_costs.watts", name=load.name),
        load.watts,
        "W",
        REFERENCE,
        source=phrase("changes.load_costs.watts_source"),
    )
    saves = computed(
        f"{at}.saves", phrase("changes.load_costs.saves", name=load.name),
        money.number * (1 - load.thrifty_w / load.watts), "money", "{all} · (1 − {W} / {now})",
        {"all": money, "W": watts, "now": now}, phrase("changes.load_costs.saves_source"),
    )  # fmt: skip
    price = typed(
        f"{at}.thrifty_price",
        phrase("changes.load_costs.thrifty_price"),
        load.thrifty_price or 0.0,
        "money",
        f"{path}/thrifty_price",
    )
    if saves.number <= 0:
        return saves, price, Sentence(phrase("changes.load_costs.draw_less_present")), False
    better = saves.number > price.number
    words = (
        phrase("changes.load_costs.replace_instead_buying_battery", name=escaped(load.name))
        if better
        else phrase("changes.load_costs.keep_save_battery", name=escaped(load.name))
    )
    return saves, price, Sentence(words, {"price": price, "saves": saves}), better
