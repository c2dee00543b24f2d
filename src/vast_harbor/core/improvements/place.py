"""Another place for the bank, and other nights: indoors, and now and then on hook-up."""

from collections.abc import Iterator
from dataclasses import replace

from vast_harbor.core.battery.bank import BatteryModel
from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.improvements.improvement import Improvement
from vast_harbor.core.rig.assumptions import Assumptions
from vast_harbor.core.rig.improvement_rows import ImprovementKind
from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.rig.plan_place import Locker
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.weather.climate import ENGINE, LIVING, OUTSIDE
from vast_harbor.phrases import phrase

# What heating pads draw for each kilowatt-hour of battery while they heat [W/kWh].
PADS_W_PER_KWH = 40.0


def indoors(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """The bank in the living space instead of outside or beside the engine; None where it stands inside.

    Nothing is known of the new place: its size is asked for, and the temperature follows the place.
    """
    if plan.place not in (OUTSIDE, ENGINE):
        return None
    # Days whose battery temperature the owner measured were measured at the old place.
    days = tuple(replace(one, battery_c=None) for one in plan.day_types)
    return Improvement(
        kind, 0.0, "",
        phrase("improvements.place.indoors_says"),
        lambda p: replace(
            p, place=LIVING, battery_c=None, rest_c=None, day_types=days,
            locker=Locker(opens=p.locker.opens),
        ),
        hidden=phrase("improvements.place.indoors_hidden"),
        worse=Sentence(phrase("improvements.place.indoors_worse")),
        asks=Sentence(phrase("improvements.place.indoors_asks")),
    )  # fmt: skip


def inside(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Moving the bank indoors."""
    if (one := indoors(plan, assumptions, kind, 0.0, "")) is not None:
        yield one


def insulated(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """An insulated box where the bank stands outside: it follows less of the day's swing, and gets no warmer.

    None elsewhere, or where the box is insulated already.
    """
    if plan.place != OUTSIDE or plan.locker.insulated:
        return None
    return Improvement(
        kind, 0.0, "",
        phrase("improvements.place.insulated_says"),
        _insulate,
        hidden=phrase("improvements.place.insulated_hidden"),
        worse=Sentence(phrase("improvements.place.insulated_worse")),
    )  # fmt: skip


def _insulate(plan: Plan) -> Plan:
    return replace(plan, locker=replace(plan.locker, insulated=True))


def lined(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """An insulated box for a bank outside."""
    if (one := insulated(plan, assumptions, kind, 0.0, "")) is not None:
        yield one


def heated(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """Heating pads in an insulated box, for LFP that has no heater of its own.

    None where the bank stands inside, or where the house rule does not rely on heaters.
    """
    if plan.place not in (OUTSIDE, ENGINE) or assumptions.value("cold_heater") < 1:
        return None
    models = {key: _with_pads(model) for key, model in plan.models.items()}
    return Improvement(
        kind, 0.0, "",
        phrase("improvements.place.heated_says"),
        lambda p: _insulate(replace(p, models=models)),
        hidden=phrase("improvements.place.heated_hidden"),
        worse=Sentence(phrase("improvements.place.heated_worse")),
        asks=Sentence(phrase("improvements.place.heated_asks")),
    )  # fmt: skip


def _with_pads(model: BatteryModel) -> BatteryModel:
    if model.battery_class.is_lead_acid or model.heater_w is not None or model.portable is not None:
        return model
    return replace(model, heater_w=PADS_W_PER_KWH * model.rated_ah * model.nominal_v / 1000)


def pads(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Heating pads for a bank in the cold."""
    if (one := heated(plan, assumptions, kind, 0.0, "")) is not None:
        yield one


def hook_up(
    plan: Plan, assumptions: Assumptions, kind: ImprovementKind, size: float, target: str
) -> Improvement | None:
    """A night on hook-up after so many off-grid.

    None without a mains charger, or where stays are that short.
    """
    row = plan.nights_in_a_row
    if row is None or row <= size or size < 1 or not any(s.kind == MAINS for s in plan.sources):
        return None
    moved = plan.off_grid_nights / (size + 1)
    return Improvement(
        kind, size, "",
        phrase("improvements.place.hook_up_says", count=int(size)),
        lambda p: replace(
            p, nights_in_a_row=size, off_grid_nights=p.off_grid_nights - moved,
            hook_up_nights=p.hook_up_nights + moved,
        ),
        yearly=moved * assumptions.value("night_elsewhere"),
        worse=Sentence(phrase("improvements.place.hook_up_worse", nights=f"{moved:.0f}")),
    )  # fmt: skip


def shorter_stays(plan: Plan, assumptions: Assumptions, kind: ImprovementKind) -> Iterator[Improvement]:
    """Hook-up after one, two or three nights."""
    for size in kind.sizes:
        if (one := hook_up(plan, assumptions, kind, size, "")) is not None:
            yield one
