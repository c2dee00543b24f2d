"""One quantity has one value and one wording: on every screen, paper and export of a rig."""

import csv
import io
import os
from collections.abc import Iterator
from typing import Any

import numpy as np
import pytest

from random_rigs import random_document
from sampled import sampled
from vast_harbor import data

pytestmark = pytest.mark.whole_catalogue

SEEDS = int(os.environ.get("ONE_VALUE", "1"))
STOPS = ("rig", "day", "need", "banks", "charging", "trial", "compare", "changeover")
ASKED = (
    "charging", "trial/year", "compare/doubt", "compare/turns", "compare/open", "compare/when",
    "compare/loads", "compare/terms", "card", "find",
)  # fmt: skip


def told(answer: object) -> Iterator[tuple[str, str]]:
    """Every figure in an answer: its key and its wording."""
    if isinstance(answer, dict):
        if answer.get("key") and isinstance(answer.get("text"), str):
            yield answer["key"], answer["text"]
        for part in answer.values():
            yield from told(part)
    elif isinstance(answer, list):
        for part in answer:
            yield from told(part)


def values(verdict: dict[str, Any]) -> dict[str, float]:
    """The middle of what each bank costs, by its id [money]."""
    middles = {c["id"]: c["p50"]["value"] for c in verdict["candidates"]}
    return middles | {f["id"]: f["figures"]["p50"]["value"] for f in verdict["found"]}


# A demo rig; the others with ``make thorough``, and more random ones with ``make laws``.
RIGS = data.DEMO_RIGS if SEEDS > 1 else sampled(data.DEMO_RIGS, "pebble")


@pytest.mark.parametrize("name", sampled([*RIGS, *range(SEEDS)], *RIGS))
def test_every_figure_is_told_the_same_wherever_it_is_told(client, name) -> None:
    document = data.demo_rig(name) if name in RIGS else random_document(np.random.default_rng(7000 + name))
    made = client.post("/api/rigs/import", json=document)
    assert made.status_code == 201, made.get_json()
    at = f"/api/rigs/{made.get_json()['id']}"
    found: dict[str, dict[str, str]] = {}
    views = {stop: client.get(f"{at}?stop={stop}").get_json() for stop in STOPS}
    views |= {part: client.get(f"{at}/{part}").get_json() for part in ASKED}
    for place, view in views.items():
        for key, text in told(view):
            found.setdefault(key, {}).setdefault(text, place)
    assert len(found) > 300
    two = {key: texts for key, texts in found.items() if len(texts) > 1}
    assert not two
    # The lifetime cost of the bank to buy is one figure, on screens, papers and exports.
    verdict = views["compare"]["compare"]["verdict"]
    # Units and number format are how it is told, not what.
    document["rig"] |= {
        "units": "us" if document["rig"]["units"] == "metric" else "metric",
        "numbers": "de-CH",
    }
    other = client.post("/api/rigs/import", json=document).get_json()["id"]
    again = client.get(f"/api/rigs/{other}?stop=compare").get_json()["compare"]["verdict"]
    assert (again["kind"], again["winner"]) == (verdict["kind"], verdict["winner"])
    assert values(again) == pytest.approx(values(verdict), rel=1e-9)
    if not verdict["winner"]:
        return
    texts = found[f"cost.{verdict['winner']}.lifetime"]
    (total,) = texts
    card = "".join(t["text"] for says in verdict["card"] for t in says)
    assert total in card
    assert total in client.get(f"{at}/report").text
    # In an export the number stands as it is, and rounds to what the screens say.
    middles = values(verdict)
    lines = csv.reader(io.StringIO(client.get(f"{at}/report/comparison.csv").text))
    sums = {round(float(cell)) for line in lines for cell in line[3:] if cell.replace(".", "").isdigit()}
    assert round(middles[verdict["winner"]]) in sums
