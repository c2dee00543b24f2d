"""How a bank is wired: series links, parallel bars, a diagonal take-off, fuse, battery switch and shunt."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.installation.cables import (
    CableData,
    FuseKind,
    Sized,
    breaking_a,
    fuse_kind,
    size,
    string_breaking_a,
)
from vast_harbor.phrases import phrase

# More batteries than this are not drawn.
MOST_DRAWN = 16
# Batteries in one row of the drawing; a longer string turns back.
MOST_IN_ROW = 4
LINK_M = 0.3


@dataclass(frozen=True, slots=True)
class Unit:
    """A battery in the drawing.

    Attributes:
        string, number: which string, and its place in it from the negative end, from 1.
        column, row: where it is drawn.
        plus_right: whether its positive terminal is drawn on the right.
    """

    string: int
    number: int
    column: int
    row: int
    plus_right: bool


@dataclass(frozen=True, slots=True)
class WirePart:
    """A line of the list of parts.

    Attributes:
        count: how many.
        what: what it is.
        mm2: cross-section of a cable [mm²]; None for what is no cable.
        note: what to know.
    """

    count: int
    what: str
    mm2: float | None
    note: str


@dataclass(frozen=True, slots=True)
class Joint:
    """A source where its cable joins the bank.

    Attributes:
        id, name: of the source.
        amps: the most that its cable ever carries [A].
        cable: its cable, with the fuse at the bank's end; None where none of the table will do.
        kind: the plainest kind of that fuse that breaks a short circuit of the bank; None where none does.
    """

    id: str
    name: str
    amps: float
    cable: Sized | None
    kind: FuseKind | None


@dataclass(frozen=True, slots=True)
class Wiring:
    """A bank's wiring.

    Attributes:
        bank: the bank.
        units: batteries, string by string.
        columns, rows: extent of the drawing.
        main: main cable; None where none of the table will do.
        link: cable between batteries and to the bars; None likewise.
        string_fuse_a: rated current of a fuse in each string [A]; None where none is wanted.
        parts: list of parts.
        main_kind, string_kind: the plainest kinds of these fuses that break a short circuit of the bank; None
            where none does, or no fuse is wanted.
        joints: where the sources join, between the main fuse and the loads.
    """

    bank: Bank
    units: tuple[Unit, ...]
    columns: int
    rows: int
    main: Sized | None
    link: Sized | None
    string_fuse_a: float | None
    parts: tuple[WirePart, ...]
    main_kind: FuseKind | None = None
    string_kind: FuseKind | None = None
    joints: tuple[Joint, ...] = ()


def fuses_per_string(bank: Bank) -> bool:
    """Whether each string wants a fuse of its own: from 2 strings of LFP, or 3 of lead-acid."""
    return bank.parallel >= (3 if bank.model.battery_class.is_lead_acid else 2)


def series_links(bank: Bank) -> int:
    """Links from one battery of a string to the next."""
    return (bank.series - 1) * bank.parallel


def bar_cables(bank: Bank) -> int:
    """Cables from the strings to the two bars that join them; none for a single string."""
    return 2 * bank.parallel if bank.parallel > 1 else 0


def wire(
    bank: Bank,
    amps: float,
    length_m: float,
    class_v: float,
    most_drop: float,
    sharing: float,
    data: CableData,
    sources: Sequence[tuple[str, str, float]] = (),
    source_m: float = 3.0,
) -> Wiring:
    """Wire a bank for a current.

    Args:
        bank: the bank.
        amps: largest lasting current of the whole bank, load or charge [A], above 0.
        length_m: main cable, one way [m].
        class_v: volts of the system [V].
        most_drop: drop that is allowed in the main cable [-].
        sharing: how evenly strings share the current [-]; one bears amps/(n_p · sharing).
        data: published sizes.
        sources: (id, name, largest current [A]) of what charges; each has a cable and a fuse of its own.
        source_m: cable from a source to the bank, one way [m].

    Returns:
        The wiring; the drawing has places for at most :data:`MOST_DRAWN` batteries.
    """
    main = size(amps, length_m, class_v, most_drop, data)
    each = amps if bank.parallel == 1 else min(amps, amps / (bank.parallel * sharing))
    link = size(each, LINK_M, class_v, most_drop, data)
    if bank.parallel == 1 and main is not None and (link is None or link.mm2 < main.mm2):
        link = main
    string_fuse = link.fuse_a if link is not None and fuses_per_string(bank) else None
    units, columns, rows = _places(bank)

    def kind(cable: Sized | None, breaks: float = breaking_a(bank)) -> FuseKind | None:
        return None if cable is None else fuse_kind(data.kinds, class_v, breaks, cable.fuse_a)

    cables = [size(each_a, source_m, class_v, most_drop, data) for _, _, each_a in sources]
    wiring = Wiring(
        bank, units, columns, rows, main, link, string_fuse, (), kind(main),
        kind(link, string_breaking_a(bank)) if string_fuse is not None else None,
        tuple(Joint(*s, cable, kind(cable)) for s, cable in zip(sources, cables, strict=True)),
    )  # fmt: skip
    return replace(wiring, parts=_parts(wiring))


def _places(bank: Bank) -> tuple[tuple[Unit, ...], int, int]:
    in_row = min(bank.series, MOST_IN_ROW)
    # Rows as even as can be, so that a string of eight turns after four.
    lines = -(-bank.series // in_row)
    in_row = -(-bank.series // lines)
    units = []
    for string in range(bank.parallel):
        for number in range(bank.series):
            line, at = divmod(number, in_row)
            right = line % 2 == 0
            column = at if right else in_row - 1 - at
            units.append(Unit(string + 1, number + 1, column, string * lines + line, right))
    return tuple(units), in_row, bank.parallel * lines


def fuse_name(kind: FuseKind | None) -> str:
    """The kind of a fuse to follow its amps: ``, class T fuse``; empty where no common one will do."""
    return "" if kind is None else phrase("installation.wiring.kind", name=kind.name)


def _parts(wiring: Wiring) -> tuple[WirePart, ...]:
    bank, main, link, string_fuse = wiring.bank, wiring.main, wiring.link, wiring.string_fuse_a
    parts = [
        WirePart(bank.units, bank.model.title, None, phrase("installation.wiring.same_age_same_condition"))
    ]
    links = series_links(bank)
    link_mm2 = None if link is None else link.mm2
    if links:
        parts.append(
            WirePart(
                links,
                phrase("installation.wiring.series_link"),
                link_mm2,
                phrase("installation.wiring.same_length"),
            )
        )
    if bank.parallel > 1:
        parts.append(
            WirePart(
                2,
                phrase("installation.wiring.busbar_strings"),
                None,
                phrase("installation.wiring.rated_full_current_cover"),
            )
        )
        parts.append(
            WirePart(
                bar_cables(bank),
                phrase("installation.wiring.cable_string_busbar"),
                link_mm2,
                phrase("installation.wiring.same_length"),
            )
        )
    if string_fuse is not None:
        parts.append(
            WirePart(
                bank.parallel,
                phrase(
                    "installation.wiring.string_fuse",
                    string_fuse=f"{string_fuse:g}",
                    kind=fuse_name(wiring.string_kind),
                ),
                None,
                phrase("installation.wiring.positive_terminal"),
            )
        )
    main_mm2 = None if main is None else main.mm2
    if main is not None:
        parts.append(
            WirePart(
                1,
                phrase(
                    "installation.wiring.main_fuse",
                    fuse_a=f"{main.fuse_a:g}",
                    kind=fuse_name(wiring.main_kind),
                ),
                None,
                phrase("installation.wiring.within_about_200_mm"),
            )
        )
    parts.append(
        WirePart(
            1,
            phrase("terms.names.battery_switch"),
            None,
            phrase("installation.wiring.rated_full_current_able"),
        )
    )
    parts.append(
        WirePart(
            1,
            phrase("installation.wiring.battery_monitor_shunt"),
            None,
            phrase("installation.wiring.negative_cable_nothing_else"),
        )
    )
    parts.append(
        WirePart(
            2,
            phrase("installation.wiring.main_cable"),
            main_mm2,
            phrase("installation.wiring.connected_opposite_corners_bank"),
        )
    )
    for joint in wiring.joints:
        parts += _source_parts(joint)
    return tuple(parts)


def _source_parts(joint: Joint) -> list[WirePart]:
    """The fuse and the cable of a source."""
    fuse = "?" if joint.cable is None else f"{joint.cable.fuse_a:g}"
    return [
        WirePart(
            1,
            phrase(
                "installation.wiring.source_fuse", name=joint.name, fuse_a=fuse, kind=fuse_name(joint.kind)
            ),
            None,
            phrase("installation.wiring.source_fuse_where"),
        ),
        WirePart(
            2,
            phrase("installation.wiring.source_cable", name=joint.name),
            None if joint.cable is None else joint.cable.mm2,
            phrase("installation.wiring.source_cable_note"),
        ),
    ]
