"""What must be known before the batteries are bought: how to find it, and what the plan says of it."""

from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.battery.datasheet import ON_SIDES, UPRIGHT
from vast_harbor.core.installation.lifting import lifters
from vast_harbor.core.installation.packing import ON_END, ON_SIDE, STANDING, Packing, Size, footprint
from vast_harbor.core.rig.changeover import Tick
from vast_harbor.core.rig.sources import MAINS, SOLAR
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.phrases import phrase

KNOWN, MISSING, WRONG = "known", "missing", "wrong"


@dataclass(frozen=True, slots=True)
class Question:
    """Something to know before buying.

    Attributes:
        key: in the record of what is done.
        title, how: what, and how to find it.
        state: ``known`` from the plan, ``missing``, or ``wrong`` where what is known speaks against the bank.
        says: what the plan says of it, dates in ISO; empty for nothing.
        stop, part: where it stands in the plan; empty for here.
        tick: what the owner said of it.
    """

    key: str
    title: str
    how: str
    state: str
    says: str
    stop: str
    part: str
    tick: Tick

    @property
    def settled(self) -> bool:
        """Whether it is known or ticked, and nothing speaks against the bank."""
        return self.state != WRONG and (self.state == KNOWN or self.tick.done)


def questions(work: Work) -> tuple[Question, ...]:
    """What must be known before this bank is bought.

    Args:
        work: the bank that is bought.
    """
    return tuple(
        Question(f"ask.{key}", title, how, state, says, stop, part, work.record.tick(f"ask.{key}"))
        for key, title, how, state, says, stop, part in _asked(work)
    )


_Asked = tuple[str, str, str, str, str, str, str]


def _asked(work: Work) -> Iterator[_Asked]:
    yield from _of_space(work)
    yield from _of_cables(work)
    yield from _of_chargers(work)
    yield from _of_purchase(work)


def _of_space(work: Work) -> Iterator[_Asked]:
    build, case = work.build, work.build.bank.model.case
    rooms, packing = work.plan.locker.rooms, build.criteria.packing
    state = MISSING if packing is None else KNOWN if packing.fits and not build.criteria.clashes else WRONG
    says = ""
    if case.size is not None:
        says = phrase("changeover.before.size", size=" × ".join(f"{mm:g}" for mm in case.size))
    if rooms:
        says += " " + phrase("changeover.before.room", size=" × ".join(f"{mm:g}" for mm in rooms[0]))
    yield (
        "height",
        phrase("changeover.before.height"),
        phrase("changeover.before.height_how"),
        state,
        says.strip(),
        "rig",
        "space",
    )
    orientation = {
        UPRIGHT: phrase("changeover.before.upright"),
        ON_SIDES: phrase("changeover.before.on_sides"),
    }.get(case.orientation, phrase("changeover.before.any_way"))
    yield (
        "pose",
        phrase("changeover.before.pose"),
        phrase("changeover.before.pose_how"),
        state,
        f"{orientation} {_poses(packing)}".strip(),
        "banks",
        "locker",
    )
    yield (
        "tray",
        phrase("changeover.before.tray"),
        phrase("changeover.before.tray_how"),
        MISSING,
        _floor(packing, case.size),
        "banks",
        "locker",
    )
    side = {
        "ends": phrase("changeover.before.ends"),
        "long_side": phrase("changeover.before.long_side"),
        "one_end": phrase("changeover.before.one_end"),
    }.get(case.terminal_side, "")
    yield (
        "terminals",
        phrase("changeover.before.terminals"),
        phrase("changeover.before.terminals_how"),
        MISSING,
        f"{case.terminals} {side}".strip(),
        "banks",
        "locker",
    )
    yield (
        "access",
        phrase("changeover.before.access"),
        phrase("changeover.before.access_water") if work.flooded else phrase("changeover.before.access_how"),
        MISSING,
        "",
        "banks",
        "locker",
    )
    if lifters(build.bank.model.kg) > 1:
        yield (
            "carry",
            phrase("changeover.before.carry"),
            phrase("changeover.before.carry_hoist", kg=f"{build.bank.model.kg:.0f}")
            if lifters(build.bank.model.kg) > 2
            else phrase("changeover.before.carry_how", kg=f"{build.bank.model.kg:.0f}"),
            MISSING,
            "",
            "",
            "",
        )


def _poses(packing: Packing | None) -> str:
    """How the plan stands them."""
    names = {
        STANDING: phrase("changeover.before.stands"),
        ON_SIDE: phrase("changeover.before.lies"),
        ON_END: phrase("changeover.before.on_end"),
    }
    found = {p.pose for p in packing.places} if packing is not None else set()
    said = ", ".join(name for pose, name in names.items() if pose in found)
    return phrase("changeover.before.planned", poses=said) if said else ""


def _floor(packing: Packing | None, size: Size | None) -> str:
    """The floor that the bank takes in each compartment."""
    if packing is None or size is None:
        return ""
    said = []
    for room in sorted({p.compartment for p in packing.places}):
        spots = [(p.x, p.y, *footprint(size, p)) for p in packing.places if p.compartment == room]
        along = max(spot[0] + spot[2] for spot in spots) - min(spot[0] for spot in spots)
        across = max(spot[1] + spot[3] for spot in spots) - min(spot[1] for spot in spots)
        said.append(f"{along:.0f} × {across:.0f}")
    return phrase("changeover.before.floor", size=", ".join(said)) if said else ""


def _of_cables(work: Work) -> Iterator[_Asked]:
    record = work.record
    for key, title, reach, need in (
        ("plus", phrase("changeover.before.plus"), record.reach_plus_mm, record.need_plus_mm),
        ("minus", phrase("changeover.before.minus"), record.reach_minus_mm, record.need_minus_mm),
    ):
        says, state = "", MISSING
        if reach is not None and need is not None:
            short = need - reach
            state = WRONG if short > 0 else KNOWN
            says = (
                phrase("changeover.before.short", mm=f"{short:.0f}")
                if short > 0
                else phrase("changeover.before.reaches", mm=f"{-short:.0f}")
            )
        yield f"reach-{key}", title, phrase("changeover.before.reach_how"), state, says, "", ""


def _of_chargers(work: Work) -> Iterator[_Asked]:
    for source in work.sources:
        if source.kind not in (MAINS, SOLAR) or not source.charges:
            continue
        stated = source.adjustable or bool(source.positions)
        says = phrase(
            "changeover.before.charger_says", absorption=f"{source.set_v * work.plan.system_v / 12:.1f}"
        )
        if not stated:
            says += " " + phrase("changeover.before.charger_unknown")
        yield (
            f"manual-{source.id}",
            phrase("changeover.before.manual", name=work.name(source)),
            phrase("changeover.before.manual_how"),
            KNOWN if stated else MISSING,
            says,
            "charging",
            "",
        )


def _of_purchase(work: Work) -> Iterator[_Asked]:
    record, model = work.record, work.build.bank.model
    if not model.own:
        yield (
            "quote",
            phrase("changeover.before.quote"),
            phrase("changeover.before.quote_how"),
            MISSING,
            phrase("changeover.before.quote_says", title=model.title),
            "compare",
            "verdict",
        )
    late = record.start_on and record.return_by and record.start_on > record.return_by
    yield (
        "return",
        phrase("changeover.before.return"),
        phrase("changeover.before.return_how"),
        WRONG if late else KNOWN if record.return_by else MISSING,
        phrase("changeover.before.return_late", start=record.start_on, by=record.return_by)
        if late
        else record.return_by,
        "",
        "",
    )
    yield (
        "deposit",
        phrase("changeover.before.deposit"),
        phrase("changeover.before.deposit_how"),
        KNOWN if record.deposit is not None else MISSING,
        "",
        "",
        "",
    )
    yield (
        "who",
        phrase("changeover.before.who"),
        phrase("changeover.before.who_how"),
        KNOWN if record.start_on else MISSING,
        record.start_on,
        "",
        "",
    )
