"""The report as a document: whole, safe with whatever owners call things, and true to the figures."""

import base64
import re
import xml.etree.ElementTree as ET
from dataclasses import replace
from html import unescape

import pytest

from sampled import sampled
from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.loads import DC, Load
from vast_harbor.core.rig.plan import Candidate, Extra
from vast_harbor.formats.report.document import report

ODD = 'Bad <script>alert(1)</script> $x^2$ & {y} "z"'
STYLE = Style("metric", "EUR")


def plain(text: str) -> str:
    return re.sub(r"\s+", " ", text)


def text_of(html: str) -> str:
    return plain(unescape(re.sub(r"<[^>]+>", " ", html)))


def svgs(html: str) -> list[ET.Element]:
    held = re.findall(r'<img src="data:image/svg\+xml;base64,([^"]+)"', html)
    return [ET.fromstring(base64.b64decode(s)) for s in held]


@pytest.mark.parametrize("name", sampled(["kittiwake", "mulga"], "mulga"))
def test_a_demo_rig_has_a_whole_report(demo_results, reference, name) -> None:
    results = demo_results(name)
    html = report(results, reference, STYLE, "2026-11-25")
    told, winner = text_of(html), results.verdict.winner
    for figure in (
        winner.cost["lifetime"],
        winner.cost["outlay"],
        winner.banked["usable_wh"],
        winner.banked["kg"],
    ):
        assert plain(STYLE.text(figure.value, figure.unit)) in told
    for column in results.compare.compared_banks:
        assert column.banked.bank.model.title in told
    # Four pictures that can be read as XML, each bank that will do named in those of money and capacity.
    drawn = svgs(html)
    assert len(drawn) == 4
    for picture in drawn:
        words = " ".join(t.text or "" for t in picture.iter("{http://www.w3.org/2000/svg}text"))
        if "time of day" in words:
            continue
        for column in (c for c in results.compare.compared_banks if c in results.verdict.suitable):
            assert column.banked.bank.model.title in words
    # The cash flow of the winner ends at its lifetime cost.
    flow = html.split(f"Cash flow: {winner.banked.battery_class.code} {winner.banked.bank.model.title}")[1]
    last = re.findall(r"<tr>(.*?)</tr>", flow.split("</table>")[0], re.DOTALL)[-1]
    assert re.findall(r"<td>(.*?)</td>", last)[-1] == STYLE.text(winner.cost["lifetime"].value, "money")
    for caution in (
        "not a design certificate",
        "qualified electrician" if name != "mulga" else "dropped spanner",
    ):
        assert caution in told


def test_names_of_owners_are_only_names(evaluated, reference) -> None:
    model = replace(reference.catalogue["ostrel-200"], id="odd", maker="", name=ODD, own=True)
    load = Load("a", ODD, DC, Draw(50, "W"), 12, hours=24)
    candidates = (
        Candidate("l", "lfp", "odd", 1, 2, extras=(Extra(ODD, 5),)),
        Candidate("a", "agm", "tarnmoor-220", 1, 3),
    )
    results = evaluated(
        (load,), name=ODD, candidates=candidates, models={**reference.catalogue, "odd": model}
    )
    html = report(results, reference, STYLE, "2026-11-25")
    assert "<script" not in html
    assert ODD in unescape(html)
    assert len(svgs(html)) == 4


def test_a_rig_without_banks_has_a_report_that_says_so(evaluated, reference) -> None:
    html = report(evaluated((), candidates=()), reference, STYLE, "2026-11-25")
    told = text_of(html)
    assert "There is nothing to compare yet" in told and "Side by side" not in told and svgs(html) == []


def test_units_currency_and_paper_are_the_owners(demo_results, reference) -> None:
    plan = replace(demo_results("pebble").plan, years_kept=3.0)
    results = evaluate(plan, reference, found=())
    html = report(results, reference, Style("us", "USD"), "2026-11-25", "letter")
    told = text_of(html)
    assert (
        "size: letter" in html and "lb" in told and "$" in told and " kg" not in told.split("Workings for")[0]
    )
    with pytest.raises(KeyError):
        report(results, reference, STYLE, "2026-11-25", "a3")
