"""The small parts of a bank: hold-downs, links, lugs, fuses of the strings, shunt, upkeep of the starter."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.installation.cables import FuseKind
from vast_harbor.core.installation.wiring import bar_cables, fuses_per_string, series_links
from vast_harbor.core.rig.plan import WATCHED
from vast_harbor.core.rig.source_remedies import EASY, HANDY
from vast_harbor.core.rig.sources import ENGINE, MAINS, UPKEEP
from vast_harbor.core.stops.banks import Build, wiring_of
from vast_harbor.core.stops.charging import as_built
from vast_harbor.phrases import phrase

# As much as the label may differ for the old hold-downs and links to do again [-].
ALIKE = 0.1
# Lugs at the bank's ends of the two main cables, and of cables that are new at both ends.
LUGS_AT_BANK, LUGS_OF_CABLES = 2, 4


@dataclass(frozen=True, slots=True)
class SmallPart:
    """One kind of small part that a bank needs.

    Attributes:
        key: ``part-…``; stable over edits.
        name: what is bought.
        price: of all of it [money].
        hours: work on top of installing the bank [h].
        skill: of ``source_remedies``.
        counts: whether it is counted, or only advised.
        meets: codes of the findings that it meets.
    """

    key: str
    name: str
    price: Figure
    hours: float
    skill: str
    counts: bool = True
    meets: tuple[str, ...] = ()


def like_for_like(build: Build) -> bool:
    """Whether the bank goes where the old one was: of its class, layout and size, so that its hold-downs,
    links and lugs do again."""
    old, bank = build.plan.old_bank, build.bank
    return (
        old is not None
        and old.battery_class.key == bank.model.battery_class.key
        and (old.series, old.parallel) == (bank.series, bank.parallel)
        and abs(bank.model.rated_ah / old.unit_ah - 1) <= ALIKE
    )


def small_parts(build: Build, new_cable: bool, relay_goes: bool) -> Iterator[SmallPart]:
    """What a bank needs in small parts.

    Args:
        build: the bank in its rig.
        new_cable: whether its main cable is bought new.
        relay_goes: whether a DC-DC charger takes the place of the relay that linked the starting battery.

    Yields:
        The parts; none whose price was set to nothing.
    """
    for part in _all(build, new_cable, relay_goes):
        if part.price.number > 0:
            yield part


def _all(build: Build, new_cable: bool, relay_goes: bool) -> Iterator[SmallPart]:
    bank, lead = build.bank, build.lead
    if bank.model.portable is None and not like_for_like(build):
        n = build.figures["units"]
        yield SmallPart(
            "part-hold_down",
            phrase("compare.small_parts.tray_strap_battery")
            if bank.units > 1
            else phrase("compare.small_parts.tray_strap"),
            _price(build, "hold_down", "{n} · {P}", {"n": n}, "hold_down_price", n.number),
            0.0,
            EASY,
        )
        yield from _links(build, new_cable)
    if bank.model.portable is None:
        n = build.figures["units"]
        yield SmallPart(
            "part-covers", phrase("compare.small_parts.covers"),
            _price(build, "covers", "{n} · {P}", {"n": n}, "covers_price", n.number), 0.0, EASY, counts=False,
        )  # fmt: skip
        old = build.plan.old_bank
        acid = old is not None and old.battery_class.is_lead_acid
        says = phrase("compare.small_parts.consumables")
        yield SmallPart(
            "part-consumables", phrase("compare.small_parts.consumables_acid") if acid else says,
            _price(build, "consumables", "{P}", {}, "consumables_price", 1.0), 0.0, EASY, counts=False,
        )  # fmt: skip
    yield from _fuses(build)
    if bank.model.portable is None and build.plan.watched != WATCHED:
        why = (
            phrase("compare.small_parts.alarm_well_before_empty")
            if lead
            else phrase("compare.small_parts.voltage_lfp_show_state")
        )
        yield SmallPart(
            "part-shunt", phrase("compare.small_parts.battery_monitor_shunt", why=why),
            _price(build, "shunt", "{P}", {}, "shunt_price", 1.0), 0.5, EASY, counts=not lead,
        )  # fmt: skip
    if relay_goes and _starter_alone(build):
        yield SmallPart(
            "part-upkeep", phrase("compare.small_parts.small_charger_starting_battery"),
            _price(build, "upkeep", "{P}", {}, "upkeep_price", 1.0), 1.0, HANDY,
        )  # fmt: skip


def _fuses(build: Build) -> Iterator[SmallPart]:
    """Fuses of the strings, and of the sources where they join: of the kind that breaks the short circuit."""
    wiring = wiring_of(as_built(build))
    if fuses_per_string(build.bank):
        n = build.figures["parallel"]
        share = _share(build, "string_fuses", wiring.string_kind)
        yield SmallPart(
            "part-string_fuses", phrase("compare.small_parts.fuse_strings", parallel=build.bank.parallel),
            _price(
                build, "string_fuses", "{n} · {s} · {P}", {"n": n, "s": share}, "string_fuse_price",
                n.number * share.number,
            ),
            0.25, EASY, meets=("string_fuses",),
        )  # fmt: skip
    if wiring.joints:
        shares = {
            f"s_{i}": _share(build, f"source_fuse.{joint.id}", joint.kind)
            for i, joint in enumerate(wiring.joints, 1)
        }
        yield SmallPart(
            "part-source_fuses", phrase("compare.small_parts.fuse_sources", count=len(wiring.joints)),
            _price(
                build, "source_fuses", "({}) · {{P}}".format(" + ".join(f"{{{s}}}" for s in shares)), shares,
                "string_fuse_price", sum(s.number for s in shares.values()),
            ),
            0.25 * len(wiring.joints), EASY, counts=False,
        )  # fmt: skip


def _share(build: Build, key: str, kind: FuseKind | None) -> Figure:
    """Price of a kind of fuse against the terminal-block fuse that the assumption prices [-]."""
    cables = build.reference.cables
    kinds = cables.kinds
    usual = next(k for k in kinds if k.name == cables.usual)
    value = (kinds[-1] if kind is None else kind).price_share / usual.price_share
    if build.assumptions.overridden("string_fuse_price"):
        value = 1.0
    return Figure(
        f"{build.at}.fuse_share.{key}", phrase("checks.cable_and_fuse.price_share"), value, "1", REFERENCE,
        source=build.reference.cables.fuse_source,
    )  # fmt: skip


def _links(build: Build, new_cable: bool) -> Iterator[SmallPart]:
    """Links, bars and lugs, as the wiring drawing has them."""
    bank, assume = build.bank, build.assumptions
    counts = {
        "link_price": (
            series_links(bank) + bar_cables(bank),
            phrase("compare.small_parts.links_cables_busbars"),
        ),
        "bars_price": (int(bank.parallel > 1), phrase("compare.small_parts.pair_busbars")),
        "lug_price": (
            LUGS_OF_CABLES if new_cable else LUGS_AT_BANK,
            phrase("compare.small_parts.lugs_main_cables"),
        ),
    }
    inputs: dict[str, Figure] = {}
    terms, total = [], 0.0
    for i, (key, (count, name)) in enumerate(counts.items(), 1):
        if not count:
            continue
        inputs[f"n_{i}"] = Figure(
            f"{build.at}.part.{key}",
            name.capitalize(),
            count,
            "1",
            REFERENCE,
            source=phrase("compare.small_parts.wiring_drawing"),
        )
        inputs[f"P_{i}"] = assume.figure(key)
        terms.append(f"{{n_{i}}} · {{P_{i}}}")
        total += count * assume.value(key)
    says = (
        phrase("compare.small_parts.links_busbars_lugs")
        if bank.parallel > 1
        else phrase("compare.small_parts.links_lugs")
        if bank.series > 1
        else phrase("compare.small_parts.lugs")
    )
    price = computed(f"{build.at}.demand.part-links", says, total, "money", " + ".join(terms), inputs)
    yield SmallPart(
        "part-links", phrase("compare.small_parts.says_wiring_drawing", says=says), price, 0.0, EASY
    )


def _price(
    build: Build, key: str, formula: str, inputs: Mapping[str, Figure], assumption: str, times: float
) -> Figure:
    each = build.assumptions.figure(assumption)
    return computed(
        f"{build.at}.demand.part-{key}", each.name, times * each.number, "money", formula,
        {**inputs, "P": each},
    )  # fmt: skip


def _starter_alone(build: Build) -> bool:
    """Whether nothing else charges the starting battery while the rig stands on hook-up."""
    sources = build.plan.sources
    kept = any(s.kind == UPKEEP or s.starter_share > 0 for s in sources)
    return any(s.kind == MAINS for s in sources) and not kept


def relay_goes(build: Build, fixes: Sequence[tuple[str, str]]) -> bool:
    """Whether a relay gives way to a DC-DC charger.

    Args:
        build: the bank in its rig.
        fixes: (source, remedy) of what is counted or carried out.
    """
    relays = {s.id for s in build.plan.sources if s.kind == ENGINE and s.is_relay}
    return any(source in relays and remedy == "dc_dc" for source, remedy in fixes)
