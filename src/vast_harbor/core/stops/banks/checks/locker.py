"""Whether a bank fits its locker and can be reached."""

from collections.abc import Iterator

from vast_harbor.core.battery.datasheet import UPRIGHT
from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence
from vast_harbor.core.installation.packing import OVER_MM, SIDE_MM, STANDING, lacks, pack
from vast_harbor.core.stops.banks.checks.check import BLOCKING, CAUTION, NOTE, OK, Build, Check
from vast_harbor.core.stops.banks.reasons import FIT, ORIENTATION
from vast_harbor.phrases import phrase

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
    return Figure(
        f"{build.at}.{key}", name, value, "mm", REFERENCE, source=phrase("checks.locker.search_layout_locker")
    )


def _fit(build: Build) -> Iterator[Check]:
    packing, case, bank = build.criteria.packing, build.bank.model.case, build.bank
    if packing is None:
        missing = phrase("checks.locker.locker_measured_yet_enter")
        if build.plan.locker.rooms:
            missing = phrase("checks.locker.datasheet_gives_outside_dimensions")
        yield build.unknown("fit", phrase("checks.locker.fit"), missing)
        return
    if build.criteria.clashes:
        first = build.criteria.clashes[0]
        by = _mm(build, "fit_by", phrase("checks.locker.overlap"), max(1.0, first.by_mm))
        kept = {
            "by": by,
            "side": _mm(build, "fit_side", phrase("checks.locker.clearance_sides"), SIDE_MM),
            "over": _mm(build, "fit_over", phrase("checks.locker.clearance_above_terminals"), OVER_MM),
        }
        wrong = {
            "outside": phrase("checks.locker.battery_into_clearance_sides", box=first.box + 1),
            "over": phrase("checks.locker.battery_too_high_clearance", box=first.box + 1),
            "pose": phrase("checks.locker.battery_side_maker_allows", box=first.box + 1),
            "overlap": phrase(
                "checks.locker.batteries_overlap", box=first.box + 1, other=(first.other or 0) + 1
            ),
        }[first.what]
        code = ORIENTATION if first.what == "pose" else FIT
        yield Check(
            code, phrase("checks.locker.fits_locker"), build.verdict(code, CAUTION),
            Sentence(wrong, {k: f for k, f in kept.items() if f"{{{k}}}" in wrong}),
            phrase("checks.locker.move_let_search_place"),
        )  # fmt: skip
        return
    if packing.fits:
        used = {p.compartment for p in packing.places}
        where = (
            phrase("checks.locker.both_compartments")
            if len(used) > 1
            else phrase("checks.locker.second_compartment")
            if 1 in used
            else phrase("checks.locker.locker")
        )
        free = Figure(
            f"{build.at}.free_l", phrase("checks.locker.free_l"), packing.free_l, "l", REFERENCE,
            source=phrase("checks.locker.free_l_source"),
        )  # fmt: skip
        yield Check(
            "fit",
            phrase("checks.locker.fit_title"),
            OK,
            Sentence(phrase("checks.locker.fits_where_free_spare", where=where), {"free": free}),
        )
        lying = any(p.pose != STANDING for p in packing.places)
        yield Check(
            "orientation", phrase("checks.locker.orientation_title"), NOTE if lying else OK,
            Sentence(phrase("checks.locker.orientation") if lying else phrase("checks.locker.upright")),
            phrase("checks.locker.orientation_remedy") if lying else "",
        )  # fmt: skip
        return
    yield _lacking(build, len(packing.places))
    assert case.size is not None
    if case.orientation == UPRIGHT and pack(build.plan.locker.rooms, case.size, "any", bank.units).fits:
        yield Check(
            "orientation", phrase("checks.locker.orientation_title"), BLOCKING,
            Sentence(phrase("checks.locker.would_fit_their_side")),
            phrase("checks.locker.orientation_sealed_lithium_batteries_may_remedy"),
        )  # fmt: skip


def _lacking(build: Build, placed: int) -> Check:
    """By how much it fails."""
    case, bank, name = build.bank.model.case, build.bank, phrase("checks.locker.fits_locker")
    assert case.size is not None
    remedy = phrase("checks.locker.choose_bank_other_dimensions")
    lacking = lacks(build.plan.locker.rooms, case.size, case.orientation, bank.units)
    ways = zip(lacking, ("long", "wide", "high"), strict=True)
    few = min(((by, way) for by, way in ways if by is not None), default=None)
    if few is None:
        says = phrase("checks.locker.batteries_fit_layout_space", units=bank.units, placed=placed)
        if not placed:
            says = phrase("checks.locker.batteries_fits_locker", units=bank.units)
        return Check(FIT, name, build.verdict(FIT, CAUTION), Sentence(says), remedy)
    by = _mm(build, "fit_by", phrase("checks.locker.amount_too", few=few[1]), few[0])
    rest = phrase("checks.locker.space", placed=placed) if placed else "."
    many = (
        phrase("checks.locker.batteries", units=bank.units)
        if bank.units > 1
        else phrase("checks.locker.battery")
    )
    says = phrase("checks.locker.fit_too_locker", many=many, few=few[1], rest=rest)
    return Check(FIT, name, build.verdict(FIT, CAUTION), Sentence(says, {"by": by}), remedy, by)


def _terminals(build: Build) -> Iterator[Check]:
    lugs, case = build.plan.installed.lugs, build.bank.model.case
    if not lugs or not case.terminals:
        return
    same = lugs.split()[0] == case.terminals.split()[0]
    yield Check(
        "terminals", phrase("checks.locker.terminals_title"), OK if same else NOTE,
        Sentence(phrase("checks.locker.terminals", lugs=lugs, terminals=case.terminals)),
        "" if same else phrase("checks.locker.terminals_remedy"),
    )  # fmt: skip


def _care(build: Build) -> Iterator[Check]:
    case, locker, packing = build.bank.model.case, build.plan.locker, build.criteria.packing
    if not case.water:
        return
    caps = phrase("checks.locker.open_caps_every_month")
    if locker.opens == "top" or not locker.rooms:
        yield Check("care_access", phrase("checks.locker.care_access_title"), OK, Sentence(caps))
        return
    if packing is None or not packing.places or case.size is None:
        return
    over = min(locker.rooms[p.compartment][2] - case.size[2] for p in packing.places)
    yield build.compare_to_limit(
        "care_access",
        phrase("checks.locker.care_access_title"),
        _mm(build, "over_caps", phrase("checks.locker.space_above_caps"), over),
        _mm(build, "caps", phrase("checks.locker.space_look_refill"), CAPS_MM),
        caps + phrase("checks.locker.care_access_holds"),
        phrase("checks.locker.care_access_broken"),
        phrase("checks.locker.care_access_remedy"),
        is_minimum=True,
    )
