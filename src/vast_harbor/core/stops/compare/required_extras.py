"""What a bank needs in addition: by the audit of its sources, its checks, and in small parts.

Each can be priced by the owner, struck out, or, where it is a remedy of a source, carried out.
"""

from collections.abc import Iterator, Sequence
from collections.abc import Set as AbstractSet
from dataclasses import dataclass, replace

from vast_harbor.core.figures.display import awg
from vast_harbor.core.figures.workings import REFERENCE, Figure, Finding, Sentence, computed, typed
from vast_harbor.core.improvements import Improvement
from vast_harbor.core.rig.plan import Fix
from vast_harbor.core.rig.source_remedies import EASY, HANDY, TRADE, chosen
from vast_harbor.core.stops.banks import (
    BLOCKING,
    CAUTION,
    COVERS_NEED,
    FUSE,
    LIVING_SPACE,
    SHORT_CIRCUIT,
    UNSWITCHED,
    VENTILATION,
    BankFigures,
    Build,
    Check,
)
from vast_harbor.core.stops.charging import Suitability, asks_for_more, demand_key, enough
from vast_harbor.core.stops.compare.small_parts import relay_goes, small_parts
from vast_harbor.phrases import phrase

COUNTED, ADVISED, STRUCK, COVERED, WANTED = "counted", "advised", "struck", "covered", "wanted"


@dataclass(frozen=True, slots=True)
class RequiredExtra:
    """One thing that a bank asks for.

    Attributes:
        key: ``source-…``, ``check-…``, ``part-…`` or ``improvement-…``; stable over edits.
        name: what is bought or done.
        meets: codes of the findings that it meets.
        price: parts [money].
        hours: work [h].
        skill: ``anyone``, ``handy`` or ``electrician``.
        hidden: work that goes with it; empty for none.
        hard: whether the bank will not do without it.
        state: ``counted`` in its money, only ``advised``, ``struck`` out by the owner, ``covered`` by an
            extra of theirs, or ``wanted`` whatever the bank, so that no bank is charged with it.
        fix: the remedy of a source that carries it out; None where it is done by hand only.
    """

    key: str
    name: str
    meets: tuple[str, ...]
    price: Figure
    hours: float
    skill: str
    hidden: str
    hard: bool
    state: str
    fix: Fix | None = None

    @property
    def met(self) -> bool:
        """Whether it is priced in."""
        return self.state in (COUNTED, COVERED)

    @property
    def wanted(self) -> bool:
        """Whether its owner wants it whatever the bank."""
        return self.state == WANTED


def required_extras(
    build: Build, checks: Sequence[Check], suitability: Sequence[Suitability]
) -> tuple[RequiredExtra, ...]:
    """What a candidate needs in addition to its batteries.

    Args:
        build: the bank in its rig.
        checks: what was looked at.
        suitability: its sources.

    Returns:
        Demands; hard ones and those of safety are counted unless struck or covered, the rest is advised.
    """
    out = (*_of_improvements(build), *_of_sources(build, suitability), *_of_checks(build, checks))
    return tuple(_as_bought(build, one) for one in (*out, *_of_small_parts(build, out)))


def _as_bought(build: Build, one: RequiredExtra) -> RequiredExtra:
    """At the price that the owner knows; what was only advised, and is bought, counts."""
    known = build.candidate.known_price(one.key)
    if known is None:
        return one
    noted = build.candidate.purchases[one.key]
    field = "quoted" if noted.paid is None else "paid"
    price = typed(
        f"{build.at}.demand.{one.key}", one.name, known, "money", f"{build.path}/purchases/{field}/{one.key}"
    )
    return replace(one, price=price, state=COUNTED if one.state == ADVISED else one.state)


def met_codes(required: Sequence[RequiredExtra]) -> frozenset[str]:
    """Codes of the findings that what is priced in puts right; those of sources begin with ``source_``."""
    return frozenset(code for d in required if d.met for code in d.meets)


def hard_findings(findings: Sequence[Finding], met: AbstractSet[str]) -> tuple[Finding, ...]:
    """Findings of its checks for which a bank will not do, of which the remedy is not priced in."""
    return tuple(f for f in findings if f.severity == BLOCKING and f.code not in met)


def stopping(
    findings: Sequence[Finding], suitability: Sequence[Suitability], met: AbstractSet[str]
) -> tuple[Sentence, str] | None:
    """Why a bank will not do even with what is priced in, and what would bring it back.

    Args:
        findings: of its checks.
        suitability: its sources.
        met: of :func:`met_codes`.

    Returns:
        The first check, else the first source, that forbids it; None where nothing does.
    """
    for finding in hard_findings(findings, met):
        return finding.says, finding.remedy
    for one in suitability:
        point = one.points[0] if one.points else None
        if point is not None and point.severity == BLOCKING and f"source_{point.code}" not in met:
            return point.says, one.rungs[0].says if one.rungs else phrase("terms.names.specialist_look")
    return None


def large_enough(banked: BankFigures) -> bool:
    """Whether a bank holds so much that its simulated year may take the place of the rule's need."""
    build = banked.build
    if build is None:
        return False
    asked = build.assumptions.value("verdict_least_share") * build.need.energy.number
    return banked["usable_wh"].number >= asked


def may_do(
    banked: BankFigures, suitability: Sequence[Suitability], required: Sequence[RequiredExtra]
) -> bool:
    """Whether a bank will do in its rig if its simulated year serves nearly every night.

    Args:
        banked: in figures.
        suitability: its sources.
        required: what it needs in addition.
    """
    met = met_codes(required)
    met = met | {COVERS_NEED} if large_enough(banked) else met
    return stopping(banked.findings, suitability, met) is None


def _of_small_parts(build: Build, others: Sequence[RequiredExtra]) -> Iterator[RequiredExtra]:
    fixes = [(d.fix.source, d.fix.remedy) for d in others if d.fix is not None and d.met]
    fixes += [(f.source, f.remedy) for f in build.candidate.fixes]
    new_cable = any(d.key == "check-cable" and d.met for d in others)
    for part in small_parts(build, new_cable, relay_goes(build, fixes)):
        state = _state(build, part.key, part.counts)
        yield RequiredExtra(
            part.key, part.name, part.meets, part.price, part.hours, part.skill, "", False, state
        )


def _state(build: Build, key: str, counts: bool) -> str:
    if any(e.covers == key for e in build.candidate.extras):
        return COVERED
    if key in build.candidate.struck:
        return STRUCK
    return COUNTED if counts else ADVISED


def _of_sources(build: Build, suitability: Sequence[Suitability]) -> Iterator[RequiredExtra]:
    for one in suitability:
        if not asks_for_more(one):
            continue
        hard, rung = one.verdict == BLOCKING, enough(build, one)
        key = demand_key(one.source)
        price = Figure(
            f"{build.at}.demand.{key}", f"{one.source_name}: {rung.says}", rung.price, "money", REFERENCE,
            source=phrase("compare.required_extras.charging_page_typical_price"),
        )  # fmt: skip
        yield RequiredExtra(
            key,
            f"{one.source_name}: {rung.says}",
            tuple(f"source_{p.code}" for p in one.points),
            price,
            rung.work,
            rung.skill,
            rung.hidden,
            hard,
            _state(build, key, one.counts),
            Fix(one.source, rung.key),
        )


def planned_beside(build: Build) -> tuple[Improvement, ...]:
    """What is planned beside the bank."""
    return build.criteria.rig.planned


def _of_improvements(build: Build) -> Iterator[RequiredExtra]:
    level = build.assumptions.value("price_factor")
    for one in planned_beside(build):
        key = f"improvement-{one.id}"
        low, likely, high = one.prices(level)
        known = one.own_price is not None
        price = Figure(
            f"{build.at}.demand.{key}", one.says, likely, "money", REFERENCE,
            source=phrase("compare.required_extras.own_price") if known else one.kind.source,
            low=None if known else low, high=None if known else high,
        )  # fmt: skip
        state = WANTED if one.wanted else _state(build, key, True)
        yield RequiredExtra(key, one.says, (), price, one.hours, one.kind.skill, one.hidden, False, state)


# Code of a check → key of its price, words, hours, skill, whether it is counted without being hard.
_BY_CHECK = {
    UNSWITCHED: ("bms_price", phrase("compare.required_extras.external_bms_contactor"), 3.0, TRADE, False),
    VENTILATION: (
        "vent_price",
        phrase("compare.required_extras.ducts_larger_openings_outside"),
        3.0,
        HANDY,
        False,
    ),
    LIVING_SPACE: ("vent_price", phrase("compare.required_extras.box_sealed_room_vented"), 4.0, HANDY, False),
    SHORT_CIRCUIT: ("fuse_price", phrase("compare.required_extras.main_fuse_break_short"), 0.5, HANDY, True),
    FUSE: ("fuse_price", phrase("compare.required_extras.main_fuse_right_size"), 0.5, HANDY, True),
}
_CABLE = ("cable_load", "cable_drop")


def _of_checks(build: Build, checks: Sequence[Check]) -> Iterator[RequiredExtra]:
    by_code = {c.code: c for c in checks if c.verdict in (BLOCKING, CAUTION)}
    for code, (price_key, says, hours, skill, safety) in _BY_CHECK.items():
        check = by_code.get(code)
        # One new fuse is of the right size and interrupts the short circuit.
        if check is None or (code == FUSE and SHORT_CIRCUIT in by_code):
            continue
        hard = check.verdict == BLOCKING
        if code == SHORT_CIRCUIT and hard:
            # None that is sold breaks it.
            continue
        key = f"check-{code}"
        figure = _price_of_check(build, key, says, price_key)
        counts = hard or safety
        meets = (SHORT_CIRCUIT, FUSE) if code == SHORT_CIRCUIT else (code,)
        yield RequiredExtra(key, says, meets, figure, hours, skill, "", hard, _state(build, key, counts))
    cable = next((by_code[c] for c in _CABLE if c in by_code), None)
    if cable is not None and build.criteria.sized is not None:
        per_m, length = build.assumptions.figure("cable_price"), build.cable_m
        mm2 = build.criteria.sized.mm2
        says = phrase("compare.required_extras.main_cable_mm_both", mm2=f"{mm2:g}", awg=awg(mm2))
        price = computed(
            f"{build.at}.demand.check-cable",
            says,
            2 * length.number * per_m.number,
            "money",
            "2 · {L} · {P_m}",
            {"L": length, "P_m": per_m},
        )
        counts = cable.code == "cable_load"
        yield RequiredExtra(
            "check-cable",
            says,
            _CABLE,
            price,
            2.0,
            HANDY,
            phrase("compare.required_extras.lugs_clear_route_cable"),
            False,
            _state(build, "check-cable", counts),
        )


def _price_of_check(build: Build, key: str, says: str, price_key: str) -> Figure:
    """What meets a check; a main fuse by the kind that breaks the short circuit."""
    price = build.assumptions.figure(price_key)
    kind = build.main_fuse_kind
    if price_key != "fuse_price" or kind is None or build.assumptions.overridden(price_key):
        return computed(f"{build.at}.demand.{key}", says, price.number, "money", "{P}", {"P": price})
    share = Figure(
        f"{build.at}.fuse_share.main", phrase("checks.cable_and_fuse.price_share"), kind.price_share, "1",
        REFERENCE, source=build.reference.cables.fuse_source,
    )  # fmt: skip
    return computed(
        f"{build.at}.demand.{key}", says, share.number * price.number, "money", "{s} · {P}",
        {"s": share, "P": price},
    )  # fmt: skip


def difficulty(build: Build, required: Sequence[RequiredExtra]) -> str:
    """How hard the bank is to put in: as the owner says, else by the skill that its parts ask for."""
    if build.candidate.difficulty is not None:
        return build.candidate.difficulty
    battery_class = build.bank.model.battery_class
    skills = {d.skill for d in required if d.state == COUNTED}
    skills |= {
        rung.skill for _, rung in chosen(build.plan, build.candidate, battery_class, build.assumptions)
    }
    skills -= {EASY}
    return "hard" if TRADE in skills else "some" if skills else "easy"


def hours_of(build: Build, required: Sequence[RequiredExtra]) -> float:
    """Work on the extras: what is counted, and the remedies chosen [h]."""
    battery_class = build.bank.model.battery_class
    fixes = chosen(build.plan, build.candidate, battery_class, build.assumptions)
    return sum(d.hours for d in required if d.state == COUNTED) + sum(rung.work for _, rung in fixes)
