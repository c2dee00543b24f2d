"""What the tool would propose for each battery class: the bank of least lifetime cost with all it needs."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Protocol

from vast_harbor.core.battery.bank import Bank, BatteryModel, series_count
from vast_harbor.core.battery.chemistry import BatteryClass
from vast_harbor.core.errors import InvalidInput
from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.figures.lazy import LazyMapping
from vast_harbor.core.rig.plan import CABIN
from vast_harbor.core.stops.banks.proposals import SizedLayout, most_strings, offered, size_layout, smallest
from vast_harbor.core.stops.banks.quick_life_cost import QuickLifeCost
from vast_harbor.core.stops.banks.reasons import NEED, PUT_RIGHT, SWITCH
from vast_harbor.phrases import phrase

# Banks of a class that are kept, the cheapest over the years with all they need first; so many are looked at
# for them at most.
KEPT, LOOKED_AT = 6, 30
# Single cells of less than this are for buildings, where batteries of several cells will do elsewhere [V].
SINGLE_CELL_V = 2.0


class ExtrasCost(Protocol):
    """Money for what a bank needs in addition; None where it is unsuitable even with that [money]."""

    def __call__(self, bank: Bank) -> float | None: ...


@dataclass(frozen=True, slots=True)
class Priced:
    """A bank that will do, with its money.

    Attributes:
        bank: its layout.
        outlay: batteries and all that they need, on the day [money].
        lifetime: lifetime cost with all it needs, by hand [money].
    """

    bank: Bank
    outlay: float
    lifetime: float


@dataclass(frozen=True)
class Proposal:
    """The bank that the tool would propose for a class, and how each model of it could serve.

    Attributes:
        battery_class: the class.
        sized_layouts: every model that makes the system voltage.
        unfit: models that do not, with the reason.
        find: looks for so many of the banks that will do, the least lifetime cost first.
    """

    battery_class: BatteryClass
    sized_layouts: tuple[SizedLayout, ...]
    unfit: tuple[tuple[BatteryModel, str], ...]
    find: Callable[[int], tuple[Priced, ...]]

    @cached_property
    def suitable(self) -> tuple[Priced, ...]:
        """The banks that will do which were looked at with all they need, the least lifetime cost first."""
        return self.find(KEPT)

    @cached_property
    def first(self) -> Priced | None:
        """The one of least lifetime cost, which is found sooner than all; None where none will do."""
        found = self.suitable if "suitable" in self.__dict__ else self.find(1)
        return found[0] if found else None

    @cached_property
    def best(self) -> SizedLayout | None:
        """The bank of least lifetime cost with what it needs.

        Where none will do, the smallest that covers the need; None when no model makes the system voltage.
        """
        if self.first is not None:
            return self._layout_of(self.first.bank)
        return smallest(self.sized_layouts)

    @cached_property
    def alternatives(self) -> Mapping[str, SizedLayout]:
        """``smallest``, ``lightest`` and ``cheapest`` on the day, of the models that cover the need."""
        covering = [f for f in offered(self.sized_layouts) if f.covers]
        if not covering:
            return {}
        return {
            "smallest": min(covering, key=lambda f: (f.usable_wh, f.bank.kg)),
            "lightest": min(covering, key=lambda f: (f.bank.kg, f.usable_wh)),
            "cheapest": min(covering, key=lambda f: (f.bank.units * f.bank.model.price, f.bank.kg)),
        }

    def _layout_of(self, bank: Bank) -> SizedLayout:
        same = (f for f in self.sized_layouts if f.bank == bank)
        return next(same, SizedLayout(bank, 0.0, True))


class Proposals(LazyMapping[str, Proposal]):
    """The proposal for each battery class, looked for when somebody asks for it.

    Args:
        search: looks for them.
    """

    def __init__(self, search: "ClassSearch") -> None:
        super().__init__(search.look.rig_limits.reference.classes, search.propose)
        self.search = search


@dataclass(frozen=True)
class ClassSearch:
    """The search for the banks of a class that will do. It knows nothing of what was found: figures hold no
    cycles, so that they go as soon as nobody needs them.

    Attributes:
        look: what banks meet and cost in the rig.
        ask: what a bank needs in addition.
        known: what is known of that already; it is added to.
    """

    look: QuickLifeCost
    ask: ExtrasCost
    known: dict[Bank, float | None]

    def extras_cost(self, bank: Bank) -> float | None:
        """Money for what a bank needs in addition; None where it is unsuitable even with that [money]."""
        if bank not in self.known:
            self.known[bank] = self.ask(bank)
        return self.known[bank]

    def strings(self, model: BatteryModel) -> int:
        """The fewest strings of a model that cover the need, or as many as are advisable."""
        found = self._sized(model)
        return found.bank.parallel if found is not None else 1

    def with_more(self, model: BatteryModel, more: int) -> Bank | None:
        """A model in so many strings above the fewest that cover the need; None where it cannot cover it."""
        found = self._sized(model)
        if found is None or not found.covers:
            return None
        strings = min(most_strings(model), found.bank.parallel + more)
        return Bank(model, found.bank.series, strings)

    def _sized(self, model: BatteryModel) -> SizedLayout | None:
        limits = self.look.rig_limits
        return size_layout(model, limits.plan.system_v, limits.days.need.energy.number, limits.usable_wh)

    def propose(self, key: str) -> Proposal:
        """The proposal for a class."""
        plan, battery_class = self.look.rig_limits.plan, self.look.rig_limits.reference.classes[key]
        sized_layouts, unfit = [], []
        for model in plan.models.values():
            if model.battery_class.key != battery_class.key:
                continue
            if found := self._sized(model):
                sized_layouts.append(found)
            else:
                unfit.append((model, why_unfit(model, plan.system_v)))
        layouts = tuple(sized_layouts)
        return Proposal(
            battery_class, layouts, tuple(unfit), lambda most: self._suitable(layouts, PUT_RIGHT, most)
        )

    def holding(self, key: str, usable_wh: float, most: int = KEPT) -> tuple[Priced, ...]:
        """The leading suitable banks of a class that hold so much, whatever is needed.

        Args:
            key: of the class.
            usable_wh: usable energy that they have at least [Wh]; where that is less than the need, whether
                they will do is up to their simulated year.
            most: so many of them at most.
        """
        limits = self.look.rig_limits
        sized = [
            size_layout(model, limits.plan.system_v, usable_wh, limits.usable_wh)
            for model in limits.plan.models.values()
            if model.battery_class.key == key
        ]
        will_do = PUT_RIGHT | ({NEED} if usable_wh < limits.days.need.energy.number else set())
        return self._suitable([found for found in sized if found is not None], will_do, most)

    def _suitable(
        self, layouts: Sequence[SizedLayout], put_right: frozenset[str] = PUT_RIGHT, most: int = KEPT
    ) -> tuple[Priced, ...]:
        """The leading suitable banks of a class, by their lifetime cost with all they need."""
        # A module that wants an external BMS and an electrician is only proposed where nothing else suits.
        found = self._leading(layouts, put_right - {SWITCH}, most) or self._leading(layouts, put_right, most)
        return tuple(found)

    def _leading(self, layouts: Sequence[SizedLayout], put_right: frozenset[str], most: int) -> list[Priced]:
        """The few banks of least lifetime cost with all they need, of all that will do.

        They are looked at from the cheapest by themselves on. What a bank needs in addition never makes it
        cheaper, so that one may stop where the next costs more by itself than those that are kept.
        """
        found: list[Priced] = []
        for at, (bare, bank) in enumerate(self._bare(layouts, put_right)):
            if at >= LOOKED_AT or (len(found) == most and bare >= found[-1].lifetime):
                break
            extra = self.extras_cost(bank)
            if extra is None:
                continue
            found.append(Priced(bank, self.look.purchase(bank) + extra, bare + extra))
            found = sorted(found, key=lambda p: (p.lifetime, p.outlay, p.bank.model.id))[:most]
        return found

    def _bare(
        self, layouts: Sequence[SizedLayout], put_right: frozenset[str]
    ) -> Iterator[tuple[float, Bank]]:
        """Lifetime cost by itself of each bank that will do, and the bank; the least first [money]."""
        look = self.look
        limits = look.rig_limits
        covering = [f.bank for f in offered(layouts) if f.covers]
        banks = covering + [more for b in covering if (more := next_string(b)) is not None]
        if limits.plan.kind != CABIN:
            several = [b for b in banks if b.model.unit_class_v > SINGLE_CELL_V]
            banks = several or banks
        if not banks:
            return
        lifetimes = [float(x) for x in look.of_all(banks)[1]]
        for lifetime, bank in sorted(zip(lifetimes, banks, strict=True), key=lambda x: (x[0], x[1].model.id)):
            if not set(limits.against(bank)) - put_right:
                yield lifetime, bank


def next_string(bank: Bank) -> Bank | None:
    """The bank with one string more; None where the maker or practice does not permit it."""
    if bank.parallel >= most_strings(bank.model):
        return None
    return Bank(bank.model, bank.series, bank.parallel + 1)


def why_unfit(model: BatteryModel, system_v: float) -> str:
    """Why a model cannot make the system voltage, in one sentence."""
    try:
        series = series_count(system_v, model.unit_class_v)
    except InvalidInput as error:
        return error.message
    return phrase(
        "banks.class_proposals.v_needs_series_maker",
        system_v=f"{system_v:g}",
        series=series,
        max_series=model.max_series,
    )
