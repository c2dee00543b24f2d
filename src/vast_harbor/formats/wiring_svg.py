"""A bank's wiring as an SVG drawing that stands by itself."""

import itertools
import re
from collections.abc import Sequence
from xml.sax.saxutils import escape

from vast_harbor.core.figures import units
from vast_harbor.core.figures.display import Style, awg
from vast_harbor.core.installation.bank_circuit import Point
from vast_harbor.core.installation.cables import FUSE_WITHIN_MM
from vast_harbor.core.installation.wiring import MOST_DRAWN, Unit, Wiring
from vast_harbor.phrases import phrase

# A source that joins: height and width of its line.
JOINT_H, JOINT_W = 40, 160
BOX_W, BOX_H, GAP_X, GAP_Y = 132, 62, 44, 44
LEFT, TOP, RIGHT, BOTTOM = 96, 92, 330, 122
PLAIN_INK = "#1b2a2e"
# Colours of the page where it is shown in one, else these.
INK, SOFT, PAPER = "currentColor", "var(--soft, #55656a)", "var(--sheet, #fffdf7)"
PLUS, MINUS = "var(--blocking, #9c3018)", "var(--sea, #14585c)"
# A name that ends in a number is quoted, or it is none. Some programs know no font by its kind: the last
# names are of what is there on most computers.
OURS = "'Source Sans 3 Variable', 'Source Sans 3'"
FONT = f"font-family=\"{OURS}, Helvetica, Arial, 'Liberation Sans', 'DejaVu Sans', sans-serif\""


def cable_text(mm2: float | None, us: bool) -> str:
    """A cross-section as people order it."""
    if mm2 is None:
        return phrase("files.wiring_svg.single_cable_large_enough")
    size, gauge = f"{mm2:g} mm²", awg(mm2)
    if gauge == size:
        return size
    return f"{gauge} ({size})" if us else f"{size} ({gauge})"


class _Pen:
    """Collects the shapes of a drawing."""

    def __init__(self) -> None:
        self.shapes: list[str] = []

    def line(self, colour: str, width: float, *points: tuple[float, float], dash: str = "") -> None:
        path = " ".join(f"{x:g},{y:g}" for x, y in points)
        dashed = f' stroke-dasharray="{dash}"' if dash else ""
        self.shapes.append(
            f'<polyline points="{path}" fill="none" stroke="{colour}" stroke-width="{width:g}"'
            f' stroke-linejoin="round"{dashed}/>'
        )

    def box(self, x: float, y: float, w: float, h: float, radius: float = 6) -> None:
        self.shapes.append(
            f'<rect x="{x:g}" y="{y:g}" width="{w:g}" height="{h:g}" rx="{radius:g}" fill="{PAPER}"'
            f' stroke="{INK}" stroke-width="1.5"/>'
        )

    def dot(self, x: float, y: float, colour: str) -> None:
        self.shapes.append(f'<circle cx="{x:g}" cy="{y:g}" r="5" fill="{colour}"/>')

    def text(
        self, x: float, y: float, words: str, size: float = 13, anchor: str = "middle", colour: str = INK,
        bold: bool = False,
    ) -> None:  # fmt: skip
        weight = ' font-weight="600"' if bold else ""
        self.shapes.append(
            f'<text x="{x:g}" y="{y:g}" font-size="{size:g}" text-anchor="{anchor}" fill="{colour}"{weight}>'
            f"{escape(words)}</text>"
        )


def _corner(unit: Unit) -> tuple[float, float]:
    return LEFT + 60 + unit.column * (BOX_W + GAP_X), TOP + unit.row * (BOX_H + GAP_Y)


def _terminals(unit: Unit) -> tuple[tuple[float, float], tuple[float, float]]:
    """Where its − and its + are."""
    x, y = _corner(unit)
    ends = ((x, y + BOX_H / 2), (x + BOX_W, y + BOX_H / 2))
    return ends if unit.plus_right else (ends[1], ends[0])


def draw(wiring: Wiring, title: str, us: bool = False, points: Sequence[Point] = ()) -> str:
    """The drawing.

    Args:
        wiring: the bank's wiring.
        title: what is drawn, for its head.
        us: whether cables are named by AWG first.
        points: measuring points to be marked in it.

    Returns:
        SVG text; colours are those of the page where it is embedded in one.

    Raises:
        ValueError: more batteries than are drawn.
    """
    if wiring.bank.units > MOST_DRAWN:
        raise ValueError(
            phrase(
                "files.wiring_svg.drawing_shows_up_batteries", most_drawn=MOST_DRAWN, units=wiring.bank.units
            )
        )
    pen = _Pen()
    width = LEFT + 60 + wiring.columns * (BOX_W + GAP_X) + RIGHT + (JOINT_W if wiring.joints else 0)
    height = TOP + max(wiring.rows * (BOX_H + GAP_Y), len(wiring.joints) * JOINT_H + BOX_H) + BOTTOM
    pen.text(LEFT - 70, 30, title, 18, "start", bold=True)
    left_bar, right_bar = LEFT + 8, LEFT + 60 + wiring.columns * (BOX_W + GAP_X) + 26
    strings = [[u for u in wiring.units if u.string == n + 1] for n in range(wiring.bank.parallel)]
    _strings(pen, wiring, strings, left_bar, right_bar)
    for unit in wiring.units:
        _unit(pen, wiring, unit)
    first, last = _feet(strings[0])[1], _feet(strings[-1])[0]
    _take_off(pen, wiring, right_bar, first, left_bar, last, width, height, us)
    _joints(pen, wiring, right_bar, first, width)
    _mark(pen, wiring, points, strings, (left_bar, right_bar), (first, last), (width, height))
    if wiring.link is not None and (wiring.bank.series > 1 or wiring.bank.parallel > 1):
        says = phrase(
            "files.wiring_svg.between_batteries_same_length", cable_text=cable_text(wiring.link.mm2, us)
        )
        pen.text(LEFT - 70, 52, says, 13, "start", SOFT)
    label = escape(phrase("files.wiring_svg.wiring", title=title), {'"': "&quot;"})
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" width="{width:g}"'
        f' height="{height:g}" role="img" aria-label="{label}" color="{PLAIN_INK}" {FONT}>'
        + "".join(pen.shapes)
        + "</svg>"
    )


def saved(drawing: str, title: str) -> str:
    """A drawing as a file of its own, for programs that know no colours of a page.

    Args:
        drawing: as :func:`draw` gives it.
        title: what is drawn.

    Returns:
        The same with plain colours on paper, a title and a description.
    """
    head, shapes = _plain(drawing).split(">", 1)
    about = f"<title>{escape(title)}</title><desc>{escape(phrase('files.wiring_svg.planning_aid'))}</desc>"
    return f'{head}>{about}<rect width="100%" height="100%" fill="{_plain(PAPER)}"/>{shapes}'


def _plain(drawing: str) -> str:
    return re.sub(r"var\(--\w+, (#\w+)\)", r"\1", drawing).replace(INK, PLAIN_INK)


def _joints(pen: _Pen, wiring: Wiring, right: float, plus_y: float, width: float) -> None:
    """Where each source joins behind the battery switch, with its own fuse at the bank's end."""
    bus, end = right + 222, width - 26
    if wiring.joints:
        foot = plus_y + 18 + len(wiring.joints) * JOINT_H
        pen.line(PLUS, 7, (bus, plus_y - 8), (bus, foot))
    for i, joint in enumerate(wiring.joints, 1):
        y = plus_y + 18 + i * JOINT_H - 8
        pen.line(PLUS, 3, (bus, y), (end, y))
        pen.box(bus + 14, y - 12, 54, 24, 4)
        fuse = "fuse?" if joint.cable is None else f"{joint.cable.fuse_a:g} A"
        pen.text(bus + 41, y + 4.5, fuse, 12, bold=True)
        pen.text(end, y - 7, joint.name, 12, "end")
        if joint.cable is not None:
            pen.text(end, y + 15, f"{joint.cable.mm2:g} mm²", 11, "end", SOFT)


def _mark(
    pen: _Pen,
    wiring: Wiring,
    points: Sequence[Point],
    strings: list[list[Unit]],
    bars: tuple[float, float],
    main: tuple[float, float],
    extent: tuple[float, float],
) -> None:
    """The measuring points, each beside what is measured; two that lie together stand one after the other."""
    bottom = extent[1] - 58
    taken: dict[tuple[int, int], int] = {}
    for point in points:
        x, y = _place_of(point, strings, bars, main, extent[0], bottom)
        near = (round(x / 8), round(y / 8))
        x += 27 * taken.get(near, 0)
        taken[near] = taken.get(near, 0) + 1
        pen.shapes.append(
            f'<rect x="{x - 13:g}" y="{y - 8:g}" width="26" height="16" rx="8" fill="{INK}"/>'
            f'<text x="{x:g}" y="{y + 4:g}" font-size="10.5" font-weight="600" text-anchor="middle"'
            f' fill="{PAPER}">M{point.number}</text>'
        )


def _place_of(
    point: Point,
    strings: list[list[Unit]],
    bars: tuple[float, float],
    main: tuple[float, float],
    width: float,
    bottom: float,
) -> tuple[float, float]:
    left, right = bars
    if point.kind in ("unit", "link"):
        string = strings[point.string - 1]
        unit = string[point.at - 1]
        x, y = _corner(unit)
        if point.kind == "unit":
            return x + BOX_W / 2, y - 2
        start, end = _terminals(unit)[1], _terminals(string[point.at])[0]
        return (start[0] + end[0]) / 2, (start[1] + end[1]) / 2 - 14
    if point.kind == "string":
        minus = _terminals(strings[point.string - 1][0])[0]
        return left + 28, minus[1] - 14
    if point.kind == "share":
        return right - 31, _feet(strings[point.string - 1])[1] - 20
    return {
        "bank": (right + 14, main[0] - 14),
        "fused": (right + 106, main[0] - 14),
        "isolated": (right + 214, main[0] - 14),
        "plus": (width - 60, main[0] + 16),
        "minus": (width - 60, bottom + 16),
    }[point.kind]


def _feet(string: list[Unit]) -> tuple[float, float]:
    """Heights at which the − and the + of a string leave it."""
    minus, plus = _terminals(string[0])[0], _terminals(string[-1])[1]
    under = 0.0 if string[-1].plus_right else BOX_H / 2 + 16
    return minus[1], plus[1] + under


def _strings(pen: _Pen, wiring: Wiring, strings: list[list[Unit]], left: float, right: float) -> None:
    for string in strings:
        for one, two in itertools.pairwise(string):
            start, end = _terminals(one)[1], _terminals(two)[0]
            if one.row == two.row:
                pen.line(INK, 3, start, end)
            else:
                out = start[0] + (18 if one.plus_right else -18)
                pen.line(INK, 3, start, (out, start[1]), (out, end[1]), end)
        minus, plus = _terminals(string[0])[0], _terminals(string[-1])[1]
        pen.line(MINUS, 3, minus, (left, minus[1]), dash="9 4")
        foot = _feet(string)[1]
        if string[-1].plus_right:
            pen.line(PLUS, 3, plus, (right, foot))
        else:
            pen.line(PLUS, 3, plus, (plus[0] - 18, plus[1]), (plus[0] - 18, foot), (right, foot))
        if wiring.string_fuse_a is not None:
            pen.box(right - 48, foot - 9, 34, 18, 3)
            pen.text(right - 31, foot + 4.5, f"{wiring.string_fuse_a:g} A", 11)
    if len(strings) > 1:
        tops, feet = _feet(strings[0]), _feet(strings[-1])
        pen.line(MINUS, 7, (left, tops[0] - 10), (left, feet[0] + 10))
        pen.line(PLUS, 7, (right, tops[1] - 10), (right, feet[1] + 10))
        pen.text(left, tops[0] - 18, phrase("files.wiring_svg.busbar"), 12, colour=MINUS)
        pen.text(right, feet[1] + 26, phrase("files.wiring_svg.busbar_plus"), 12, colour=PLUS)


def _unit(pen: _Pen, wiring: Wiring, unit: Unit) -> None:
    x, y = _corner(unit)
    pen.box(x, y, BOX_W, BOX_H)
    model = wiring.bank.model
    name = f"{unit.string}.{unit.number}" if wiring.bank.parallel > 1 else f"{unit.number}"
    pen.text(x + BOX_W / 2, y + 26, phrase("files.wiring_svg.battery", name=name), 13, bold=True)
    pen.text(x + BOX_W / 2, y + 44, f"{model.nominal_v:g} V · {model.rated_ah:g} Ah", 12, colour=SOFT)
    minus, plus = _terminals(unit)
    pen.dot(*minus, MINUS)
    pen.dot(*plus, PLUS)
    inward = 14 if unit.plus_right else -14
    pen.text(minus[0] + inward, minus[1] + 5, "−", 15, colour=MINUS, bold=True)
    pen.text(plus[0] - inward, plus[1] + 5, "+", 15, colour=PLUS, bold=True)


def _take_off(
    pen: _Pen, wiring: Wiring, right: float, plus_y: float, left: float, minus_y: float, width: float,
    height: float, us: bool,
) -> None:  # fmt: skip
    """Main + from the first string's end, main − from the last one's: opposite corners of the bank."""
    main = None if wiring.main is None else wiring.main.mm2
    end = width - 26
    pen.line(PLUS, 5, (right, plus_y), (end, plus_y))
    fuse = "fuse?" if wiring.main is None else f"{wiring.main.fuse_a:g} A"
    if wiring.main_kind is not None:
        pen.text(right + 59, plus_y - 38, wiring.main_kind.name, 11, colour=SOFT)
    pen.box(right + 30, plus_y - 15, 58, 30, 4)
    pen.text(right + 59, plus_y + 5, fuse, 13, bold=True)
    pen.text(right + 59, plus_y - 24, phrase("files.wiring_svg.main_fuse"), 12, colour=SOFT)
    within = Style(units.US if us else units.METRIC).text(FUSE_WITHIN_MM, "mm")
    pen.text(right + 59, plus_y + 32, f"≤ {within}", 11, colour=SOFT)
    pen.box(right + 112, plus_y - 15, 98, 30, 4)
    pen.text(right + 161, plus_y + 5, phrase("terms.names.battery_switch"), 13)
    pen.text(end, plus_y - 24, phrase("files.wiring_svg.loads_chargers"), 12, "end", PLUS)
    bottom = height - 58
    pen.line(MINUS, 5, (left, minus_y), (left, bottom), (end, bottom), dash="11 4")
    pen.box(right + 30, bottom - 15, 58, 30, 4)
    pen.text(right + 59, bottom + 5, "shunt", 13)
    pen.text(end, bottom - 24, phrase("files.wiring_svg.to_loads_and_chargers"), 12, "end", MINUS)
    pen.text(
        left - 6,
        bottom + 24,
        phrase("files.wiring_svg.main_cables", cable_text=cable_text(main, us)),
        13,
        "start",
    )
    if wiring.bank.parallel > 1:
        says = phrase("files.wiring_svg.connected_opposite_corners_strings")
        pen.text(left - 6, bottom + 44, says, 12, "start", SOFT)
