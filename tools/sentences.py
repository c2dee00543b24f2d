"""Every sentence that the pages show, each once, to be read aloud; and how many words each page opens with.

The demo rigs and some at random are looked at in a browser, each page and each of its parts: first as it
opens, then with all that folds away unfolded. Numbers are masked, so that one sentence is drawn once.
"""

import argparse
import json
import random
import re
import sys
from collections.abc import Iterator
from pathlib import Path

import numpy as np
from playwright.sync_api import Page
from served import served

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

from random_rigs import random_document
from vast_harbor.web.plan.stops import STOPS

RANDOM_RIGS = 10
WIDE = {"width": 1280, "height": 800}
# Text of the innermost blocks that are to be seen; what is inside of them runs on.
BLOCKS = """
() => {
  const blocks = [], apart = 'svg, canvas, select, option, script, style'
  const inline = (e) => getComputedStyle(e).display.startsWith('inline') || e.matches(apart)
  const walk = (e) => {
    if (e.matches(apart) || !e.checkVisibility({ visibilityProperty: true })) return
    const children = [...e.children]
    if (children.every((c) => inline(c) && [...c.querySelectorAll('*')].every(inline))) {
      const text = e.innerText.replace(/\\s+/g, ' ').trim()
      if (text) blocks.push(text)
      return
    }
    let run = ''
    const flush = () => { if (run.trim()) blocks.push(run.replace(/\\s+/g, ' ').trim()); run = '' }
    for (const node of e.childNodes) {
      if (node.nodeType === Node.TEXT_NODE) run += node.textContent
      else if (node.nodeType === Node.ELEMENT_NODE) { flush(); walk(node) }
    }
    flush()
  }
  document.querySelectorAll('main').forEach(walk)
  return blocks
}
"""
UNFOLD = """
() => {
  document.querySelectorAll('main details:not([open])').forEach((d) => { d.open = true })
  document.querySelectorAll('main [aria-expanded=false]:not([aria-haspopup])').forEach((b) => b.click())
}
"""
NUMBER = re.compile(r"[−-]?\d[\d\u202f.,]*")
END = re.compile(r"(?<=[.!?])\s+(?=[A-Z“0-9#])")


def sentences(blocks: list[str]) -> Iterator[str]:
    """Sentences of some blocks of text, numbers masked; headings and labels of one or two words apart."""
    for block in blocks:
        for sentence in END.split(NUMBER.sub("#", block)):
            if len(sentence.split()) > 2:
                yield sentence


def settled(page: Page) -> None:
    """Wait until a page asks nothing more."""
    page.wait_for_load_state("networkidle", timeout=120_000)
    page.wait_for_function("!document.querySelector('[data-looking]')", timeout=120_000)


def look(page: Page, address: str, at: str) -> tuple[list[str], list[str]]:
    """Blocks of text of a page as it opens, and with all of it unfolded."""
    page.goto(address + at)
    settled(page)
    page.wait_for_timeout(200)
    opening = page.evaluate(BLOCKS)
    for _ in range(2):
        page.evaluate(UNFOLD)
        settled(page)
    return opening, page.evaluate(BLOCKS)


def add_random(page: Page, count: int) -> None:
    """Put rigs at random beside those that are there."""
    for seed in range(count):
        document = random_document(np.random.default_rng(9000 + seed))
        status = page.evaluate(
            "async (body) => (await fetch('/api/rigs/import', { method: 'POST', body, "
            "headers: { 'Content-Type': 'application/json' } })).status",
            json.dumps(document),
        )
        assert status == 201, (seed, status)


def main() -> int:
    """Look at everything; print the words of each page, or sentences drawn at random."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--draw", type=int, default=0, help="print so many sentences, drawn at random")
    parser.add_argument("--seed", type=int, default=0, help="of the draw")
    parser.add_argument("--random", type=int, default=RANDOM_RIGS, help="rigs at random beside the demo rigs")
    parser.add_argument("--keep", type=Path, help="a file for all sentences, each with a page that shows it")
    told = parser.parse_args()
    found: dict[str, str] = {}
    words: dict[str, int] = {}
    with served("demo") as (address, browser, _):
        page = browser.new_context(viewport=WIDE, reduced_motion="reduce").new_page()
        page.goto(address)
        add_random(page, told.random)
        rigs = page.evaluate("async () => (await (await fetch('/api/rigs')).json()).rigs.map((r) => r.id)")
        for at in ("/", "/start", "/glossary", "/about"):
            note(found, words, at, *look(page, address, at))
        for rig in rigs:
            for stop in STOPS:
                at = f"/rigs/{rig}/{stop.key}"
                note(found, words, at, *look(page, address, at))
                parts = page.eval_on_selector_all("[data-part]", "all => all.map((e) => e.href)")
                for href in parts[1:]:
                    part = href.removeprefix(address)
                    note(found, words, part, *look(page, address, part))
    if told.keep:
        told.keep.write_text("".join(f"{at}\t{says}\n" for says, at in sorted(found.items())))
    if told.draw:
        drawn = random.Random(told.seed).sample(sorted(found), told.draw)
        print("\n".join(f"{i:3}. {says}   [{found[says]}]" for i, says in enumerate(drawn, 1)))
    else:
        most: dict[str, int] = {}
        for at, count in words.items():
            kind = re.sub(r"/rigs/\d+", "", at)
            most[kind] = max(count, most.get(kind, 0))
        print("\n".join(f"{count:5}  {kind}" for kind, count in sorted(most.items(), key=lambda x: -x[1])))
    print(f"{len(found)} sentences", file=sys.stderr)
    return 0


def note(
    found: dict[str, str], words: dict[str, int], at: str, opening: list[str], unfolded: list[str]
) -> None:
    """Keep what a page says, and how many words it opens with."""
    for says in sentences([*opening, *unfolded]):
        found.setdefault(says, at)
    words[at] = sum(len(block.split()) for block in opening)


if __name__ == "__main__":
    sys.exit(main())
