"""How a bank is wired: series links, parallel bars, a diagonal take-off, fuse, isolator and shunt."""

from dataclasses import dataclass

from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.installation.cables import CableData, Sized, size
from vast_harbor.phrases import phrase

# More batteries than this are not drawn.
MOST_DRAWN = 16
# Batteries in one row of the drawing; a longer string turns back.
MOST_IN_ROW = 6
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
    """

    bank: Bank
    units: tuple[Unit, ...]
    columns: int
    rows: int
    main: Sized | None
    link: Sized | None
    string_fuse_a: float | None
    parts: tuple[WirePart, ...]


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
) -> Wiring:
    """Wire a bank for a current.

    Args:
        bank: the bank.
        amps: largest lasting current of the whole bank [A], above 0.
        length_m: main cable, one way [m].
        class_v: volts of the system [V].
        most_drop: drop that is allowed in the main cable [-].
        sharing: how evenly strings share the current [-]; one bears amps/(n_p · sharing).
        data: published sizes.

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
    return Wiring(bank, units, columns, rows, main, link, string_fuse, _parts(bank, main, link, string_fuse))


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


def _parts(
    bank: Bank, main: Sized | None, link: Sized | None, string_fuse: float | None
) -> tuple[WirePart, ...]:
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
                phrase("installation.wiring.string_fuse", string_fuse=f"{string_fuse:g}"),
                None,
                phrase("installation.wiring.positive_terminal"),
            )
        )
    main_mm2 = None if main is None else main.mm2
    if main is not None:
        parts.append(
            WirePart(
                1,
                phrase("installation.wiring.main_fuse", fuse_a=f"{main.fuse_a:g}"),
                None,
                phrase("installation.wiring.within_about_200_mm"),
            )
        )
    parts.append(WirePart(1, "isolator", None, phrase("installation.wiring.rated_full_current_able")))
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
    return tuple(parts)
