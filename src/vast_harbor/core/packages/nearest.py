"""The nearest banks where none will do: each fails at one limit of the rig, and says what that limit asks."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import product
from math import ceil

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.catalogue_banks import CatalogueBanks
from vast_harbor.core.figures.patience import go_on
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.installation.packing import Size, lacks, pack, roomier
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.stops.banks import (
    BankCriteria,
    Criterion,
    QuickLifeCost,
    most_strings,
    offered,
    reasons,
)
from vast_harbor.core.stops.compare import ComparedBank, NearestBank, RigChange
from vast_harbor.phrases import phrase

# So many limits are told of, and so many banks are tried for each.
MOST_TOLD, MOST_TRIED = 3, 4
# A bank that fails at more limits than this is not near.
MOST_LIMITS = 2
SIDES = ("length", "width", "height")
# How a limit is asked for, and what its figure is called.
ASKS = {
    "length": (phrase("compare.nearest.length"), phrase("compare.nearest.name_length")),
    "width": (phrase("compare.nearest.width"), phrase("compare.nearest.name_width")),
    "height": (phrase("compare.nearest.height"), phrase("compare.nearest.name_height")),
    "payload_kg": (phrase("compare.nearest.payload_kg"), phrase("compare.nearest.name_payload_kg")),
    "front_axle_kg": (phrase("compare.nearest.front_axle_kg"), phrase("compare.nearest.name_front_axle_kg")),
    "rear_axle_kg": (phrase("compare.nearest.rear_axle_kg"), phrase("compare.nearest.name_rear_axle_kg")),
    "coupling_max_kg": (
        phrase("compare.nearest.coupling_max_kg"), phrase("compare.nearest.name_coupling_max_kg"),
    ),
    "current": (phrase("compare.nearest.current"), phrase("compare.nearest.name_current")),
    "start": (phrase("compare.nearest.start"), phrase("compare.nearest.name_start")),
    "charge": (phrase("compare.nearest.charge"), phrase("compare.nearest.name_charge")),
}  # fmt: skip
ROOM = {
    "length": phrase("compare.nearest.name_room_length"),
    "width": phrase("compare.nearest.name_room_width"),
    "height": phrase("compare.nearest.name_room_height"),
}
SECOND = {
    "length": phrase("compare.nearest.name_second_length"),
    "width": phrase("compare.nearest.name_second_width"),
    "height": phrase("compare.nearest.name_second_height"),
}
# Limits in several units are compared as parts of these: a kilogram counts like a degree or a centimetre.
WIDE_K, WIDE_KG, WIDE_MM = 100.0, 100.0, 1000.0


@dataclass(frozen=True, slots=True)
class Excess:
    """How a bank fails at a limit.

    Attributes:
        share: by how much; what compares banks that fail at the same limits [-].
        asks: what would have to be different, without its bank.
        figures: of these words.
        changes: how the rig would be entered then; none where one entry alone does not say it.
        stop: where the owner changes it.
    """

    share: float
    asks: str
    figures: Mapping[str, Figure]
    changes: tuple[RigChange, ...] = ()
    stop: str = "rig"


Asks = Callable[[BankCriteria], Excess | None]


def nearest_banks(results: Results, reference: Reference) -> tuple[NearestBank, ...]:
    """The nearest bank for each limit that binds, the one that fails at the fewest limits and by least first.

    Args:
        results: the plan in figures; with a suitable bank none is looked for.
        reference: shipped data.

    Returns:
        At most :data:`MOST_TOLD`, of different limits or ways out. What can be entered was tried: the bank
        will do then.
    """
    found = results.once("nearest", lambda: tuple(_nearest(results, reference)))
    results.verdict.answer.nearest = found
    return found


def _nearest(results: Results, reference: Reference) -> Iterator[NearestBank]:
    if results.verdict.suitable or not results.days.day.bank_wh.number:
        return
    look = QuickLifeCost(results.banks.rig_limits)
    near: dict[tuple[frozenset[str], tuple[Asks, ...]], list[tuple[Bank, list[Excess]]]] = {}
    for bank in _banks(results):
        go_on()
        criteria = results.banks.rig_limits.criteria(bank)
        against = frozenset(reasons.against(criteria)) - reasons.PUT_RIGHT
        if not 0 < len(against) <= MOST_LIMITS or not all(key in EXCESS for key in against):
            continue
        # What helps against each limit, in every way that there is.
        for ways in product(*(EXCESS[key] for key in sorted(against))):
            excess = [made for way in ways if (made := way(criteria)) is not None]
            if len(excess) == len(ways):
                near.setdefault((against, ways), []).append((bank, excess))
    told: list[frozenset[str]] = []
    # A bank that fails at one limit is nearer than one that fails at two; each limit comes once before
    # another way out of the same one.
    first = {ways[0] for ways in EXCESS.values()}
    for against, ways in sorted(
        near, key=lambda a: (len(a[0]), not first.issuperset(a[1]), min(_share(e) for _, e in near[a]))
    ):
        if any(before < against for before in told) or len(told) == MOST_TOLD:
            continue
        ranked = sorted(near[against, ways], key=lambda one: (_share(one[1]), look.purchase(one[0])))
        tried = (_tried(results, reference, bank, excess) for bank, excess in ranked[:MOST_TRIED])
        if (one := next((one for one in tried if one is not None), None)) is not None:
            told.append(against)
            yield one


def _share(excess: Sequence[Excess]) -> float:
    return sum(one.share for one in excess)


def _banks(results: Results) -> Iterator[Bank]:
    """Every layout that can be proposed, in as many strings as are advisable."""
    for proposal in results.banks.proposals.values():
        for layout in offered(proposal.sized_layouts):
            for strings in range(1, most_strings(layout.bank.model) + 1):
                yield replace(layout.bank, parallel=strings)


def _tried(
    results: Results, reference: Reference, bank: Bank, excess: Sequence[Excess]
) -> NearestBank | None:
    """A bank in the rig as it would be then; None where it will not do there either."""
    changes = tuple(change for one in excess for change in one.changes)
    asks = phrase("compare.nearest.and").join(one.asks for one in excess)
    figures = {name: figure for one in excess for name, figure in one.figures.items()}
    if not all(one.changes for one in excess):
        as_it_is = CatalogueBanks(results.banks, results.simulated).compared(bank, lambda _: None)
        says = phrase("compare.nearest.says", title=as_it_is.title, asks=asks)
        stop = next(one.stop for one in excess if not one.changes)
        return NearestBank(Sentence(says, figures), bank, None, changes, stop)
    compared = _compared(changed(results.plan, changes), results, reference, bank)
    if compared is None:
        return None
    says = phrase("compare.nearest.says_price", title=compared.title, asks=asks)
    outlay, source = compared.cost["outlay"].number, phrase("compare.package.outlay_source")
    figures["outlay"] = Figure(
        f"{_at(bank)}.outlay", phrase("compare.package.outlay"), outlay, "money", REFERENCE, source=source
    )
    return NearestBank(Sentence(says, figures), bank, compared, changes, excess[0].stop)


def _compared(plan: Plan, base: Results, reference: Reference, bank: Bank) -> ComparedBank | None:
    after = evaluate(
        replace(plan, candidates=()), reference, found=(), chosen=base.banks.chosen, rough=True,
        diagnosis=base.banks.diagnosis,
    )  # fmt: skip
    return CatalogueBanks(after.banks, after.simulated).that_will_do(bank)


def changed(plan: Plan, changes: Sequence[RigChange]) -> Plan:
    """A plan with other limits.

    Args:
        plan: as it stands.
        changes: of its limits.
    """
    for change in changes:
        compartment, _, side = change.field.partition("_")
        if side in SIDES:
            plan = replace(plan, locker=plan.locker.measuring(compartment, SIDES.index(side), change.value))
        else:
            name = LOADING[change.field]
            plan = replace(plan, loading=replace(plan.loading, **{name: change.value}))
    return plan


# Field of the rig file → of the plan's loading.
LOADING = {
    "payload_kg": "payload_kg",
    "front_axle_kg": "front_kg",
    "rear_axle_kg": "rear_kg",
    "coupling_max_kg": "coupling_max_kg",
}


def _room(bank: BankCriteria) -> Excess | None:
    """The first compartment, longer, wider or higher alone if that is enough."""
    case, locker = bank.bank.model.case, bank.plan.locker
    if case.size is None or not locker.rooms:
        return None
    lacking = lacks(locker.rooms, case.size, case.orientation, bank.bank.units)
    ways = [(by, axis) for axis, by in enumerate(lacking) if by is not None]
    if ways:
        by, axis = min(ways)
        side = SIDES[axis]
        figure = _figure(bank, side, ASKS[side][1], by, "mm")
        change = RigChange(f"{locker.entered[0]}_{side}", ceil(locker.rooms[0][axis] + by))
        return Excess(by / WIDE_MM, ASKS[side][0], {side: figure}, (change,))
    room = roomier(locker.rooms[0], case.size, case.orientation, bank.bank.units)
    figures = {
        side: _figure(bank, f"room_{side}", ROOM[side], ceil(then), "mm")
        for side, then in zip(SIDES, room, strict=True)
    }
    return _larger(bank, 0, room, phrase("compare.nearest.room"), figures)


def _second_room(bank: BankCriteria) -> Excess | None:
    """A second compartment, or a larger one, for what the first cannot take."""
    case, rooms = bank.bank.model.case, bank.plan.locker.rooms
    if case.size is None or not rooms:
        return None
    taken = len(pack(rooms[:1], case.size, case.orientation, bank.bank.units).places)
    if not 0 < taken < bank.bank.units:
        return None
    now = rooms[1] if len(rooms) == 2 else (0.0, 0.0, 0.0)
    room = roomier(now, case.size, case.orientation, bank.bank.units - taken)
    asks = phrase("compare.nearest.second_larger") if len(rooms) == 2 else phrase("compare.nearest.second")
    figures = {
        f"second_{side}": _figure(bank, f"second_{side}", SECOND[side], ceil(then), "mm")
        for side, then in zip(SIDES, room, strict=True)
    }
    return _larger(bank, 1, room, asks, figures)


def _larger(bank: BankCriteria, which: int, room: Size, asks: str, figures: Mapping[str, Figure]) -> Excess:
    """A compartment of another size, as it would be entered."""
    locker = bank.plan.locker
    now = locker.rooms[which] if which < len(locker.rooms) else (0.0, 0.0, 0.0)
    changes = tuple(
        RigChange(f"{locker.entered[which]}_{side}", ceil(then))
        for side, before, then in zip(SIDES, now, room, strict=True)
        if then > before
    )
    return Excess((sum(room) - sum(now)) / WIDE_MM, asks, figures, changes)


def _weight(bank: BankCriteria) -> Excess | None:
    if bank.snakes:
        return None
    loading, payload = bank.plan.loading, bank.payload
    broken: list[tuple[str, float, float]] = []
    if payload is not None and payload.broken:
        # Where nobody has weighed the rig, it is asked for that.
        needs = bank.kg_change if loading.payload_kg is None else loading.payload_kg - payload.margin
        broken.append(("payload_kg", needs, -payload.margin))
    broken += [
        (f"{side}_axle_kg", axle.value, -axle.margin) for side, axle in bank.axles.items() if axle.broken
    ]
    if bank.coupling is not None and bank.coupling[1].broken:
        most = bank.coupling[1]
        broken.append(("coupling_max_kg", most.value, -most.margin))
    asks, figures = [], {}
    for field, value, by in broken:
        weighed = field != "payload_kg" or loading.payload_kg is not None
        asks.append(ASKS[field][0] if weighed else phrase("compare.nearest.weighed"))
        name, more = ASKS[field][1], ceil(by if weighed else value)
        figures[field] = _figure(bank, field, name, more, "kg")
    if not broken:
        return None
    share = max(by for _, _, by in broken) / WIDE_KG
    changes = tuple(RigChange(field, float(ceil(value))) for field, value, _ in broken)
    return Excess(share, phrase("compare.nearest.and").join(asks), figures, changes)


def _need(bank: BankCriteria) -> Excess | None:
    covers = bank.covers_need
    if not covers.broken or bank.bank.series > bank.bank.model.max_series:
        return None
    usable = _figure(bank, "usable", phrase("compare.nearest.name_usable"), covers.value, "Wh")
    figures = {"usable": usable, "need": bank.days.need.energy}
    return Excess(-covers.margin / covers.limit, phrase("compare.nearest.need"), figures, stop="need")


def _current(bank: BankCriteria) -> Excess | None:
    return _amps(bank, "current", bank.running, "day")


def _start(bank: BankCriteria) -> Excess | None:
    return _amps(bank, "start", bank.starting, "day")


def _charge(bank: BankCriteria) -> Excess | None:
    return _amps(bank, "charge", bank.charge, "charging")


def _amps(bank: BankCriteria, key: str, criterion: Criterion | None, stop: str) -> Excess | None:
    if criterion is None or not criterion.broken or not criterion.limit:
        return None
    figures = {
        f"{key}_{name}": _figure(bank, f"{key}_{name}", ASKS[key][1], amps, "A")
        for name, amps in (("now", criterion.value), ("most", criterion.limit))
    }
    return Excess(criterion.value / criterion.limit - 1, ASKS[key][0], figures, stop=stop)


def _warm(bank: BankCriteria) -> Excess | None:
    coldest = bank.cold_charge
    if not coldest.broken:
        return None
    figures = {"warm": _figure(bank, "warm", phrase("compare.nearest.name_warm"), coldest.limit, "°C")}
    return Excess(-coldest.margin / WIDE_K, phrase("compare.nearest.warm"), figures)


def _figure(bank: BankCriteria, key: str, name: str, value: float, unit: str) -> Figure:
    source = phrase("compare.nearest.source")
    return Figure(f"{_at(bank.bank)}.{key}", name, value, unit, REFERENCE, source=source)


def _at(bank: Bank) -> str:
    return f"nearest.{bank.model.id}-{bank.series}x{bank.parallel}"


# What fails, by its key in ``reasons.REASONS`` → the ways in which it would not; what the owner could not
# change is not there.
EXCESS: Mapping[str, tuple[Asks, ...]] = {
    reasons.LOCKER: (_room, _second_room),
    reasons.WEIGHT: (_weight,),
    reasons.NEED: (_need,),
    reasons.CURRENT: (_current,),
    reasons.START: (_start,),
    reasons.CHARGE: (_charge,),
    reasons.COLD: (_warm,),
}
