"""Whether a bank fits its locker and can be reached."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import UPRIGHT
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.installation.packing import OVER_MM, SIDE_MM, STANDING, lacks, pack
from vast_harbor.core.stops.banks.checks.check import CARE, NOTE, OK, STOP, Build, Check

# Room over fill caps to look in and to hold a filler, where the lid does not open above them.
CAPS_MM = 150.0


def checks(build: Build) -> Iterator[Check]:
    """Fit, pose, terminals, and access for care.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    yield from _fit(build)
    yield from _terminals(build)
    yield from _care(build)


def _mm(build: Build, key: str, name: str, value: float) -> Figure:
    return Figure(f"{build.at}.{key}", name, value, "mm", REFERENCE, source="Search of places in the locker")


def _fit(build: Build) -> Iterator[Check]:
    packing, case, bank = build.criteria.packing, build.bank.model.case, build.bank
    if packing is None:
        missing = "The locker is not measured yet: enter its inside on the Rig stop."
        if build.plan.locker.rooms:
            missing = "Its entry gives no outer measures."
        yield build.unknown("fit", "Fits the locker", missing)
        return
    if build.criteria.clashes:
        first = build.criteria.clashes[0]
        by = _mm(build, "fit_by", "By", max(1.0, first.by_mm))
        kept = {
            "by": by,
            "side": _mm(build, "fit_side", "Kept free at the sides", SIDE_MM),
            "over": _mm(build, "fit_over", "Kept free over the terminals", OVER_MM),
        }
        wrong = {
            "outside": f"Battery {first.box + 1} stands {{by}} outside the {{side}} kept at the sides.",
            "over": f"Battery {first.box + 1} is {{by}} too high with the {{over}} over its terminals.",
            "pose": f"Battery {first.box + 1} lies, but its maker permits it upright only.",
            "overlap": f"Batteries {first.box + 1} and {(first.other or 0) + 1} overlap by {{by}}.",
        }[first.what]
        yield Check(
            "orientation" if first.what == "pose" else "fit", "Fits the locker", STOP,
            Sentence(wrong, {k: f for k, f in kept.items() if f"{{{k}}}" in wrong}),
            "Move it, or let the search place them.",
        )  # fmt: skip
        return
    if packing.fits:
        used = {p.compartment for p in packing.places}
        where = (
            "both compartments" if len(used) > 1 else "the second compartment" if 1 in used else "the locker"
        )
        free = Figure(
            f"{build.at}.free_l", "Room left", packing.free_l, "l", REFERENCE,
            source="Inside less clearances and boxes",
        )  # fmt: skip
        yield Check(
            "fit", "Fits the locker", OK, Sentence(f"Fits {where}, {{free}} to spare.", {"free": free})
        )
        lying = any(p.pose != STANDING for p in packing.places)
        yield Check(
            "orientation", "Pose", NOTE if lying else OK,
            Sentence("It fits lying only, which its maker permits." if lying else "Stands upright."),
            "Terminals then look sideways: keep 50 mm (2 in) before them, and hold it down." if lying else "",
        )  # fmt: skip
        return
    yield _lacking(build, len(packing.places))
    assert case.size is not None
    if case.orientation == UPRIGHT and pack(build.plan.locker.rooms, case.size, "any", bank.units).fits:
        yield Check(
            "orientation", "Pose", STOP,
            Sentence("They would fit lying, but these may only stand upright."),
            "Sealed or lithium batteries whose maker permits it may lie on their side.",
        )  # fmt: skip


def _lacking(build: Build, placed: int) -> Check:
    """By how much it fails."""
    case, bank, name = build.bank.model.case, build.bank, "Fits the locker"
    assert case.size is not None
    remedy = "A bank of other cases (Find banks), a second compartment, or another place."
    lacking = lacks(build.plan.locker.rooms, case.size, case.orientation, bank.units)
    ways = zip(lacking, ("long", "wide", "high"), strict=True)
    few = min(((by, way) for by, way in ways if by is not None), default=None)
    if few is None:
        says = f"{bank.units} batteries do not fit in any way; {placed} find room."
        if not placed:
            says = f"Not even one of the {bank.units} batteries fits the locker."
        return Check("fit", name, STOP, Sentence(says), remedy)
    by = _mm(build, "fit_by", f"What it is too {few[1]} by", few[0])
    rest = f"; {placed} find room." if placed else "."
    many = f"{bank.units} batteries do" if bank.units > 1 else "The battery does"
    says = f"{many} not fit: {{by}} too {few[1]} for the locker{rest}"
    return Check("fit", name, STOP, Sentence(says, {"by": by}), remedy, by)


def _terminals(build: Build) -> Iterator[Check]:
    lugs, case = build.plan.installed.lugs, build.bank.model.case
    if not lugs or not case.terminals:
        return
    same = lugs.split()[0] == case.terminals.split()[0]
    yield Check(
        "terminals", "Terminals", OK if same else NOTE,
        Sentence(f"Your lugs are for {lugs}; it has {case.terminals}."),
        "" if same else "New lugs, crimped, or adapters; nothing between lug and terminal but metal.",
    )  # fmt: skip


def _care(build: Build) -> Iterator[Check]:
    case, locker, packing = build.bank.model.case, build.plan.locker, build.criteria.packing
    if not case.water:
        return
    caps = "Its caps are opened every month to look at the water."
    if locker.opens == "top" or not locker.rooms:
        yield Check("care_access", "Access for care", OK, Sentence(caps))
        return
    if packing is None or not packing.places or case.size is None:
        return
    over = min(locker.rooms[p.compartment][2] - case.size[2] for p in packing.places)
    yield build.compare_to_limit(
        "care_access", "Access for care", _mm(build, "over_caps", "Room over the caps", over),
        _mm(build, "caps", "Room to look in and fill", CAPS_MM), caps + " {x} are over them.",
        "The locker opens at the front and leaves {x} over the caps: nobody can see into them "
        "({limit} are wanted).",
        CARE, "A sealed battery, a slide-out tray, or a watering kit.", is_minimum=True,
    )  # fmt: skip
