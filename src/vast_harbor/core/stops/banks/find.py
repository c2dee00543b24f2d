"""Find banks: the whole catalogue in every layout, what is dropped and why, and the best of the rest."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from vast_harbor.core.battery.ageing import MOST_GAP, cycles_at_depth, wear_by_plan
from vast_harbor.core.battery.bank import Bank, BatteryModel, series_count
from vast_harbor.core.cost.pareto import front
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.stops.banks.class_proposals import ExtrasCost
from vast_harbor.core.stops.banks.proposals import most_strings
from vast_harbor.core.stops.banks.quick_life_cost import QuickLifeCost
from vast_harbor.core.stops.banks.reasons import LOCKER, NEED, PUT_RIGHT, REASONS
from vast_harbor.core.stops.banks.reasons import against as reasons_against
from vast_harbor.phrases import phrase

MOST_STRINGS = 12
VOLTS = "volts"
# A check or a source forbids it, and nothing that can be bought puts that right.
UNMENDED = "unmended"
NAMES = {
    VOLTS: phrase("banks.find.cannot_make_system_voltage"),
    **{key: reason.words for key, reason in REASONS.items()},
    UNMENDED: phrase("banks.find.problem_chargers_check_extra"),
}


@dataclass(frozen=True, slots=True)
class Found:
    """A bank that would do.

    Attributes:
        bank: its layout.
        usable_wh: usable energy [Wh].
        purchase, lifetime: money on the day, and over the years of keeping, with all it needs where that is
            counted [money].
        years: life [years].
        nights: nights that it carries, without reserve; None on a day without use.
        front: whether no other is cheaper to buy, lighter, and cheaper over the years at once.
    """

    bank: Bank
    usable_wh: float
    purchase: float
    lifetime: float
    years: float
    nights: float | None
    front: bool = False


@dataclass(frozen=True, slots=True)
class Search:
    """What a search found.

    Attributes:
        looked_at: layouts that were looked at.
        found: banks that will do, the cheapest over the years first.
        dropped: reason → how many models fell to it.
        reasons: model id → the reasons against its best layout.
    """

    looked_at: int
    found: tuple[Found, ...]
    dropped: Mapping[str, int]
    reasons: Mapping[str, tuple[str, ...]]


def layouts(model: BatteryModel, system_v: float) -> list[Bank]:
    """Every layout of a model that makes the system's volts, up to what is permitted and advisable.

    At least one string of it, so that there is something to say of a model of too many in series.
    """
    try:
        series = series_count(system_v, model.unit_class_v)
    except InvalidInput:
        return []
    return [Bank(model, series, n) for n in range(1, min(MOST_STRINGS, most_strings(model)) + 1)]


def search(
    look: QuickLifeCost, models: Mapping[str, BatteryModel], extras_cost: ExtrasCost | None = None
) -> Search:
    """Every model in every layout against the rig.

    Args:
        look: the rig.
        models: by id.
        extras_cost: money for what a bank needs in addition, to be counted and to put right what can be;
            None to leave it out.

    Returns:
        Banks that will do with the Pareto front marked, and why the others do not.
    """
    good: dict[Bank, float] = {}
    dropped: Counter[str] = Counter()
    reasons: dict[str, tuple[str, ...]] = {}
    seen = 0
    for model in models.values():
        go_on()
        banks = layouts(model, look.rig_limits.plan.system_v)
        seen += len(banks)
        against, suitable = _of_model(look, banks, extras_cost)
        good |= suitable
        if not suitable:
            reasons[model.id] = against
            dropped[against[0]] += 1
    found = [
        replace(f, purchase=f.purchase + good[f.bank], lifetime=f.lifetime + good[f.bank])
        for f in found_banks(look, list(good))
    ]
    mask = front(np.array([[f.purchase, f.bank.kg, f.lifetime] for f in found]).reshape(-1, 3))
    marked = [replace(f, front=bool(on)) for f, on in zip(found, mask, strict=True)]
    marked.sort(key=lambda f: (f.lifetime, f.purchase, f.bank.model.id))
    return Search(seen, tuple(marked), dict(dropped.most_common()), reasons)


def as_compared(search: Search, known: Mapping[Bank, tuple[float, float]]) -> Search:
    """A search in which the banks that are compared have the life and the cost that the comparison tells.

    Args:
        search: what was found, by hand.
        known: years and lifetime cost of what is compared, by its layout [years], [money].
    """
    found = [
        replace(f, years=known[f.bank][0], lifetime=known[f.bank][1]) if f.bank in known else f
        for f in search.found
    ]
    return replace(
        search, found=tuple(sorted(found, key=lambda f: (f.lifetime, f.purchase, f.bank.model.id)))
    )


def _of_model(
    look: QuickLifeCost, banks: list[Bank], extras_cost: ExtrasCost | None
) -> tuple[tuple[str, ...], dict[Bank, float]]:
    """Reasons against the layout of a model that has fewest; the suitable ones, with what they need in
    addition [money]."""
    if not banks:
        return (VOLTS,), {}
    seen = [look.rig_limits.criteria(bank) for bank in banks]
    best: tuple[str, ...] | None = None
    good: dict[Bank, float] = {}
    for criteria in [c for c in seen if not c.covers_need.broken] or seen[-1:]:
        against = tuple(reasons_against(criteria))
        if extras_cost is not None and not set(against) - PUT_RIGHT:
            extra = extras_cost(criteria.bank)
            if extra is not None:
                good[criteria.bank] = extra
                continue
            against = against or (UNMENDED,)
        if not against:
            good[criteria.bank] = 0.0
        elif best is None or len(against) < len(best):
            best = against
    return best or (), good


def found_banks(look: QuickLifeCost, banks: Sequence[Bank]) -> list[Found]:
    """Banks with their energy, money and life, all computed together."""
    if not banks:
        return []
    day = look.rig_limits.days.day.bank_wh.number
    years, lifetime = look.of_all(banks)
    out = []
    for i, bank in enumerate(banks):
        usable = look.rig_limits.usable_wh(bank)
        nights = usable / day if day else None
        out.append(Found(bank, usable, look.purchase(bank), float(lifetime[i]), float(years[i]), nights))
    return out


@dataclass(frozen=True, slots=True)
class Ceiling:
    """What may not be exceeded; None for no ceiling.

    Attributes:
        money: the most to spend on batteries [money].
        kg: the most that they may weigh [kg].
        space: whether they must fit the locker.
    """

    money: float | None = None
    kg: float | None = None
    space: bool = True


@dataclass(frozen=True, slots=True)
class Within:
    """The best bank of a class within a ceiling.

    Attributes:
        found: the bank.
        covered: share of the need [-]; None without a need.
        next_string: price of one more string, where one may be added later [money]; None where not.
        next_months: months within which it must be added [months]; None where there is no such end.
        against: reasons that remain, apart from not covering the need.
    """

    found: Found
    covered: float | None
    next_string: float | None
    next_months: float | None
    against: tuple[str, ...]


def within(look: QuickLifeCost, models: Mapping[str, BatteryModel], ceiling: Ceiling) -> tuple[Within, ...]:
    """The most usable energy of each class within a ceiling, instead of the need.

    Args:
        look: the rig.
        models: by id.
        ceiling: what may not be exceeded.

    Returns:
        One bank for each class that has any, the most nights first.
    """
    best: dict[str, tuple[float, float, Bank, tuple[str, ...]]] = {}
    for model in models.values():
        for bank in layouts(model, look.rig_limits.plan.system_v):
            cost = look.purchase(bank)
            if ceiling.money is not None and cost > ceiling.money:
                continue
            if ceiling.kg is not None and bank.kg > ceiling.kg:
                continue
            against = tuple(r for r in look.rig_limits.against(bank) if r != NEED)
            if set(against) - {LOCKER} or (ceiling.space and LOCKER in against):
                continue
            usable, key = look.rig_limits.usable_wh(bank), model.battery_class.key
            if key not in best or (usable, -cost) > best[key][:2]:
                best[key] = (usable, -cost, bank, against)
    out = [_within(look, bank, against) for _, _, bank, against in best.values()]
    return tuple(sorted(out, key=lambda w: -w.found.usable_wh))


def _within(look: QuickLifeCost, bank: Bank, against: tuple[str, ...]) -> Within:
    rig_limits, model = look.rig_limits, bank.model
    need = rig_limits.days.need.energy.number
    found = found_banks(look, [bank])[0]
    covered = found.usable_wh / need if need else None
    may_add = not model.battery_class.is_lead_acid and bank.parallel < model.max_parallel
    if not may_add:
        return Within(found, covered, None, None, against)
    key = model.battery_class.key
    stands = cycles_at_depth(
        model.cycles,
        rig_limits.assumptions.value(f"cycle_exponent.{key}"),
        rig_limits.days.need.classes[key].dod.number,
    )
    years = rig_limits.assumptions.value(f"calendar_years.{key}")
    wear = wear_by_plan(rig_limits.plan.off_grid_nights, rig_limits.days.need.nights.number, stands, years)
    return Within(found, covered, bank.series * look.price(model), 12 * MOST_GAP / (0.2 * wear), against)


@dataclass(frozen=True, slots=True)
class Shape:
    """A bank seen by the number of its pieces.

    Attributes:
        found: the bank.
        heaviest_kg: one battery [kg].
        current_a: what its BMS or label lets it give for ever, sharing considered [A]; None where not
            stated.
        one_gone_wh: usable energy that is left when one string fails [Wh].
        joints: terminals that are bolted.
    """

    found: Found
    heaviest_kg: float
    current_a: float | None
    one_gone_wh: float
    joints: int


def shapes(look: QuickLifeCost, found: tuple[Found, ...], key: str) -> tuple[Shape, Shape] | None:
    """The bank of fewest and that of most batteries of a class, both of which will do; None where all
    are alike.

    Args:
        look: the rig.
        found: what a search found.
        key: battery class.

    Returns:
        One large unit, against several small ones.
    """
    of_class = [f for f in found if f.bank.model.battery_class.key == key]
    if not of_class:
        return None
    few = min(of_class, key=lambda f: (f.bank.units, f.purchase))
    many = min(of_class, key=lambda f: (-f.bank.parallel, f.purchase))
    if many.bank.units <= few.bank.units:
        return None
    return _shape(look, few), _shape(look, many)


def _shape(look: QuickLifeCost, found: Found) -> Shape:
    bank, model = found.bank, found.bank.model
    criteria = look.rig_limits.criteria(bank)
    left = 0.0
    if bank.parallel > 1:
        left = look.rig_limits.usable_wh(Bank(model, bank.series, bank.parallel - 1))
    return Shape(
        found,
        model.kg,
        None if criteria.gives_a is None else criteria.shared(criteria.gives_a),
        left,
        2 * bank.units,
    )
