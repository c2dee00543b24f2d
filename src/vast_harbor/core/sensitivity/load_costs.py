"""The cheapest watt-hour: what battery each load causes, beside the price of shortening or replacing it."""

from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, escaped, typed
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.loads import STANDBY
from vast_harbor.core.rig.plan import Reference
from vast_harbor.core.stops.banks import quick_life_cost, size_layout
from vast_harbor.core.stops.compare import ComparedBank


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
            {"all": of, "E": wh, "E_bank": total}, "Its share of the day, of the bank that the verdict names",
        )  # fmt: skip

    money = share("money", f"Battery money that {load.name} causes", purchase)
    quarter = None
    if 0 < load.hours_on < 24 and load.use != STANDBY:
        quarter = Figure(
            f"{at}.quarter",
            f"Battery money for a quarter less of {load.name}",
            money.number / 4,
            "money",
            REFERENCE,
            source="A quarter of its share",
        )
    saves, price, says, better = _thrifty(at, index, money, results)
    index_in_plan = [x.id for x in plan.loads].index(load.id)
    return LoadCost(
        load.id, load.name, index_in_plan, wh, money, share("kg", f"Weight that {load.name} causes", kg),
        share("kept", f"Over the years, for {load.name}", lifetime), quarter,
        _strings(wh.number, compared, results, reference), saves, price, says, better,
    )  # fmt: skip


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
    if load.thrifty_w is None or load.watts <= 0:
        return None, None, None, False
    path = f"/day/loads/{[x.id for x in results.plan.loads].index(load.id)}"
    watts = typed(f"{at}.thrifty_w", "Draw of a thriftier one", load.thrifty_w, "W", f"{path}/thrifty_w")
    now = Figure(f"{at}.watts", f"Draw of {load.name}", load.watts, "W", REFERENCE, source="As listed")
    saves = computed(
        f"{at}.saves", f"Battery money that a thriftier {load.name} frees",
        money.number * (1 - load.thrifty_w / load.watts), "money", "{all} · (1 − {W} / {now})",
        {"all": money, "W": watts, "now": now}, "Its share of the bank, less by what it draws less",
    )  # fmt: skip
    price = typed(f"{at}.thrifty_price", "Price of a thriftier one", load.thrifty_price or 0.0, "money",
                  f"{path}/thrifty_price")  # fmt: skip
    if saves.number <= 0:
        return saves, price, Sentence("It draws no less than the one that is there."), False
    better = saves.number > price.number
    words = (
        f"Spend on {escaped(load.name)}, not on the battery: {{price}} frees {{saves}} of it."
        if better
        else f"Keep {escaped(load.name)}: {{price}} would free only {{saves}} of battery."
    )
    return saves, price, Sentence(words, {"price": price, "saves": saves}), better
