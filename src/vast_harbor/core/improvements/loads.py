"""Less use: a load replaced, dropped, moved to gas or into the daylight; what flows unnoticed, found."""

from collections.abc import Callable, Iterator
from dataclasses import replace

from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.figures.workings import Sentence, escaped
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.loads import COULD_DROP, COULD_GAS, COULD_SHIFT, HOURS, STANDBY, TIMES, USES, Load
from vast_harbor.core.rig.plan import Plan
from vast_harbor.phrases import phrase

# Where loads are moved to: the hours in which the sun is strongest [h].
NOON_FROM, NOON_TO = 10.0, 15.0
# Gas in place of a kWh of electricity, with half of its heat used, at the price level of the catalogue
# [money/kWh].
GAS_PER_KWH = 0.35
# Standby power from which it is worth looking for, and what monitor and alarms take at least [W].
WORTH_FINDING_W, RIGHTFUL_W = 8.0, 3.0
Make = Callable[[Plan, Assumptions, ImprovementKind, float, str], Improvement | None]


def _load(plan: Plan, target: str) -> Load | None:
    return next((one for one in plan.loads if one.id == target), None)


def _with(target: str, change: Callable[[Load], Load | None]) -> Callable[[Plan], Plan]:
    def of(plan: Plan) -> Plan:
        made = [change(one) if one.id == target else one for one in plan.loads]
        return replace(plan, loads=tuple(one for one in made if one is not None))

    return of


def _off(load: Load) -> Load:
    """It stays in its row and draws nothing, so that no other load changes its place."""
    return replace(load, use=HOURS, hours=0.0, uses=0.0, windows=(), measured_wh=None, start_w=None, on={})


def thrifty(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A more economical appliance that the owner has in mind; None without one that draws less."""
    load = _load(plan, target)
    if load is None or load.thrifty_w is None or load.watts <= 0 or load.thrifty_w >= load.watts:
        return None
    share = load.thrifty_w / load.watts
    new = replace(
        load,
        draw=Draw(load.draw.value * share, load.draw.unit),
        low=None if load.low is None else load.low * share,
        high=None if load.high is None else load.high * share,
        measured_wh=None if load.measured_wh is None else load.measured_wh * share,
        thrifty_w=None,
    )
    return Improvement(
        kind, 0.0, target,
        phrase("improvements.loads.thrifty_says", name=load.name, watts=f"{load.thrifty_w:g}"),
        _with(target, lambda one: new),
        own_price=load.quantity * (load.thrifty_price or 0.0),
    )  # fmt: skip


def drop(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A load that the owner could do without; None where they did not say so, or it is critical."""
    load = _load(plan, target)
    if load is None or load.critical or COULD_DROP not in load.could or load.wh <= 0:
        return None
    return Improvement(
        kind, 0.0, target,
        phrase("improvements.loads.drop_says", name=load.name),
        _with(target, _off),
        worse=Sentence(phrase("improvements.loads.drop_worse", name=escaped(load.name))),
    )  # fmt: skip


def gas(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A load that could run on gas; None where the owner did not say so."""
    load = _load(plan, target)
    if load is None or COULD_GAS not in load.could or load.wh <= 0:
        return None
    kwh = load.wh / 1000 * plan.off_grid_nights
    return Improvement(
        kind, 0.0, target,
        phrase("improvements.loads.gas_says", name=load.name),
        _with(target, _off),
        yearly=GAS_PER_KWH * assumptions.value("price_factor") * kwh,
        hidden=phrase("improvements.loads.gas_hidden"),
        worse=Sentence(phrase("improvements.loads.gas_worse")),
    )  # fmt: skip


def daylight(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A load that could run while the sun shines; None where the owner did not say so, or it runs longer."""
    load = _load(plan, target)
    if load is None or COULD_SHIFT not in load.could or load.use == STANDBY:
        return None
    if not 0 < load.hours_on <= NOON_TO - NOON_FROM or _at_noon(load):
        return None
    middle = (NOON_FROM + NOON_TO) / 2
    if load.use == USES:
        new = replace(load, starts_at=NOON_FROM, on={})
    else:
        start = middle - load.hours_on / 2
        new = replace(load, use=TIMES, windows=((start, start + load.hours_on),), starts_at=None, on={})
    return Improvement(
        kind, 0.0, target,
        phrase("improvements.loads.daylight_says", name=load.name),
        _with(target, lambda one: new),
    )  # fmt: skip


def _at_noon(load: Load) -> bool:
    return not load.any_time and all(a >= NOON_FROM and b <= NOON_TO for a, b in load.blocks)


def standby(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """What flows with everything off, found and switched off; None where next to nothing flows."""
    if plan.standby_w < WORTH_FINDING_W:
        return None
    return Improvement(
        kind, 0.0, "",
        phrase("improvements.loads.standby_says", watts=f"{plan.standby_w:.0f}"),
        lambda p: replace(p, standby_w=min(p.standby_w, RIGHTFUL_W)),
        asks=Sentence(phrase("improvements.loads.standby_asks")),
    )  # fmt: skip


def of_loads(make: Make) -> Callable[[Plan, Assumptions, ImprovementKind], Iterator[Improvement]]:
    """What can be done about each load, by how it is done."""

    def each(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
        for load in plan.loads:
            if (one := make(plan, assumptions, kind, 0.0, load.id)) is not None:
                yield one

    return each


def finding(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Looking for what flows with everything off."""
    if (one := standby(plan, assumptions, kind, 0.0, "")) is not None:
        yield one
