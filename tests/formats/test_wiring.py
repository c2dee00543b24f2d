"""The wiring drawing: every layout up to sixteen batteries has its links, bars, fuses and a diagonal "
"take-off."""

import re
import xml.etree.ElementTree as ET

import pytest

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.installation.wiring import MOST_DRAWN, fuses_per_string, wire
from vast_harbor.formats.wiring_svg import draw

SVG = "{http://www.w3.org/2000/svg}"
LAYOUTS = [(s, p) for s in range(1, 17) for p in range(1, 17) if s * p <= MOST_DRAWN]


def wired(model: str, series: int, parallel: int, amps: float = 120.0):
    reference = data.reference()
    bank = Bank(reference.catalogue[model], series, parallel)
    return wire(bank, amps, 1.5, series * bank.model.unit_class_v, 0.03, 0.8, reference.cables)


def boxes(drawing: ET.Element) -> list[tuple[float, float, float, float]]:
    rects = [r.attrib for r in drawing.iter(f"{SVG}rect")]
    return [tuple(float(r[k]) for k in ("x", "y", "width", "height")) for r in rects]


@pytest.mark.parametrize(("series", "parallel"), LAYOUTS)
def test_every_layout_is_drawn_whole(series, parallel) -> None:
    wiring = wired("hollin-2-600", series, parallel)
    drawing = ET.fromstring(draw(wiring, "A bank"))
    words = [t.text or "" for t in drawing.iter(f"{SVG}text")]
    assert sum(w.startswith("Battery ") for w in words) == series * parallel
    assert ("− busbar" in words) == (parallel > 1) and {"battery switch", "shunt"} <= set(words)
    # Nothing lies on anything else, and all of it lies in the picture.
    width, height = (float(v) for v in drawing.attrib["viewBox"].split()[2:])
    found = boxes(drawing)
    for i, (x, y, w, h) in enumerate(found):
        assert x >= 0 and x + w <= width and y >= 0 and y + h <= height
        for x2, y2, w2, h2 in found[:i]:
            assert x + w <= x2 or x2 + w2 <= x or y + h <= y2 or y2 + h2 <= y
    # Each battery is met once from each end: links, the two ends of each string, no more.
    ends = {(u.string, u.number) for u in wiring.units}
    assert ends == {(s + 1, n + 1) for s in range(parallel) for n in range(series)}
    counts = {p.what.split(",")[0]: p.count for p in wiring.parts}
    assert counts.get("series link", 0) == (series - 1) * parallel
    assert counts.get("cable from a string to a busbar", 0) == (2 * parallel if parallel > 1 else 0)


@pytest.mark.parametrize(("series", "parallel"), [(2, 2), (2, 3), (4, 2), (8, 2)])
def test_the_take_off_is_diagonal(series, parallel) -> None:
    # The main + leaves beside the first string, the main − beside the last one.
    wiring = wired("hollin-6-225", series, parallel)
    drawing = ET.fromstring(draw(wiring, "Pairs"))
    lines = [line.attrib for line in drawing.iter(f"{SVG}polyline")]
    mains = [line for line in lines if line["stroke-width"] == "5"]
    plus, minus = ([tuple(map(float, p.split(","))) for p in m["points"].split()] for m in mains)
    tops = [y for _, y, width, _ in boxes(drawing) if width == 132]
    first, last = tops[:series], tops[-series:]
    assert min(first) < plus[0][1] < max(first) + 62 + 40 and min(last) < minus[0][1] < max(last) + 62
    assert minus[0][1] > plus[0][1]


def test_strings_have_fuses_from_two_of_lithium_or_three_of_lead() -> None:
    for model, series, parallel, has in (
        ("ostrel-100", 1, 1, False), ("ostrel-100", 1, 2, True), ("hollin-6-225", 2, 2, False),
        ("hollin-6-225", 2, 3, True),
    ):  # fmt: skip
        wiring = wired(model, series, parallel)
        assert fuses_per_string(wiring.bank) == has == (wiring.string_fuse_a is not None)
    # 120 A over three strings that share unevenly: 120/(3·0.8) = 50 A each: 10 mm² (90 A), a fuse of 70 A.
    wiring = wired("hollin-6-225", 2, 3)
    assert (wiring.link.mm2, wiring.string_fuse_a) == (10, 70)
    # A single string's links bear what the main cable does.
    assert wired("hollin-6-225", 2, 1).link.mm2 == wired("hollin-6-225", 2, 1).main.mm2


def test_sizes_by_awg_where_the_owner_thinks_in_them() -> None:
    words = re.findall(r"Main cables[^<]*", draw(wired("ostrel-100", 1, 2), "x", us=True))
    assert words == ["Main cables, + and −: AWG 2 (25 mm²)"]
    with pytest.raises(ValueError, match=r"up to 16 batteries\. This bank has 20"):
        draw(wired("hollin-2-600", 10, 2), "x")
