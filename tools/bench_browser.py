"""What is felt at the keyboard: from key to figure, while the hand moves, and what is sent for it."""

import json
import math
import re
import statistics
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from bench_rigs import RUNS, Row, large_rig, summary
from playwright.sync_api import Page, Response
from served import served, server

STOPS = ("rig", "day", "need", "banks", "charging", "trial", "compare")

# Frames while the hand moves, and from the sending of an edit to the painting of the figure that it led to.
OBSERVE_DRAG = """(stop) => {
  window.frames_ = []
  window.lags = []
  let last = performance.now()
  const tick = (now) => {
    window.frames_.push(now - last)
    last = now
    requestAnimationFrame(tick)
  }
  requestAnimationFrame(tick)
  const figure = document.querySelector(`[data-stop=${stop}] [data-strip-figure]`)
  new MutationObserver(() => {
    const from = window.sent
    requestAnimationFrame(() => window.lags.push(performance.now() - from))
  }).observe(figure, { characterData: true, childList: true, subtree: true })
}"""
# When the last request was sent.
SENT = """{
  const send = window.fetch
  window.fetch = (...call) => {
    window.sent = performance.now()
    return send(...call)
  }
}"""
OBSERVE = """() => {
  window.times = []
  let down = 0
  window.addEventListener('keydown', () => (down = performance.now()), true)
  const figure = document.querySelector('[data-stop=day] [data-strip-figure]')
  new MutationObserver(() => {
    if (down) requestAnimationFrame(() => window.times.push(performance.now() - down))
  }).observe(figure, { characterData: true, childList: true, subtree: true })
}"""


def idle(page: Page) -> None:
    """Wait until a page asks nothing more: the packages of five cards take their time."""
    page.wait_for_load_state("networkidle", timeout=120_000)


def start() -> Iterator[Row]:
    """From the command to the first page, and to the figures of its cards; the memory after all stops."""
    for command, rigs in (("serve", "no rig yet"), ("demo", "five rigs")):
        begun = time.perf_counter()
        with server(command) as (address, process):

            def ask(where: str, address: str = address) -> Any:
                with urllib.request.urlopen(address + where) as answer:
                    return answer.read()

            ask("/")
            cards = json.loads(ask("/api/rigs"))["rigs"]
            took = time.perf_counter() - begun
            yield Row(f"From the command to the first page, {rigs}", (round(took, 1),), "s")
            for card in cards:
                ask(f"/api/rigs/{card['id']}/card")
            if cards:
                took = time.perf_counter() - begun
                yield Row("From the command to the figures of five cards", (round(took, 1),), "s")
            for card in cards:
                for stop in STOPS:
                    ask(f"/api/rigs/{card['id']}?stop={stop}")
                ask(f"/api/rigs/{card['id']}/trial")
            if cards:
                yield Row("Memory of the server after all stops of five rigs", (memory_mb(process),), "MB")


def memory_mb(process: int) -> int:
    """Resident memory of a process."""
    found = re.search(r"VmRSS:\s+(\d+)", Path(f"/proc/{process}/status").read_text())
    assert found is not None
    return round(int(found[1]) / 1024)


def bundle() -> Iterator[Row]:
    """What a browser received of a page: all of it, as it came over the wire."""
    with served("demo") as (address, browser, _):
        for name, where in (("The first page", "/"), ("A stop with charts (Trial)", "/rigs/1/trial")):
            page = browser.new_context(service_workers="block").new_page()
            page.goto(address + where)
            if where != "/":
                page.locator("[role=img] svg").first.wait_for()
            idle(page)
            size = page.evaluate(
                "['navigation', 'resource'].flatMap((kind) => performance.getEntriesByType(kind))"
                ".reduce((sum, entry) => sum + entry.transferSize, 0)"
            )
            yield Row(f"{name}, all that a browser receives", (round(size / 1000),), "kB")
            page.context.close()


def key_to_figure(loads: int, banks: int) -> tuple[dict[str, float], float]:
    """From key to figure in the browser, typing into one load of a large rig, and the median answer [kB]."""
    with served("serve") as (address, browser, _):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        made = page.request.post(f"{address}/api/rigs/import", data=large_rig(loads, banks)).json()
        page.goto(f"{address}/rigs/{made['id']}/day")
        idle(page)
        field = page.locator("[data-path='/day/loads/3/draw']")
        field.fill("5")
        page.wait_for_timeout(500)
        page.evaluate(OBSERVE)
        sizes = answer_sizes(page)
        for i in range(RUNS):
            field.press("End")
            field.press(str(1 + i % 9)) if i % 2 == 0 else field.press("Backspace")
            page.wait_for_timeout(220)
        times = page.evaluate("window.times")
        return summary(times), round(statistics.median(sizes), 1)


def answer_sizes(page: Page) -> list[float]:
    """Sizes of the answers to edits from now on [kB], filled as they come."""
    sizes: list[float] = []

    def note(answer: Response) -> None:
        if answer.request.method == "PATCH":
            sizes.append(len(answer.body()) / 1000)

    page.on("response", note)
    return sizes


def drag(stop: str) -> tuple[tuple[float, ...], dict[str, float]]:
    """Frames [ms] and lag while a block of the sheet (Day) or the slider of the nights (Need) is dragged."""
    with served("serve") as (address, browser, _):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(SENT)
        made = page.request.post(f"{address}/api/rigs/import", data=large_rig(60, 6)).json()
        page.goto(f"{address}/rigs/{made['id']}/{stop}")
        idle(page)
        if stop == "day":
            page.get_by_role("radio", name="24-hour sheet").click()
            held = page.locator("[data-lane=l58] [data-block]").first
        else:
            held = page.locator("[data-slider=nights]")
        held.scroll_into_view_if_needed()
        box = held.bounding_box()
        assert box is not None
        # A moved block keeps its energy; a stretched one moves the figures.
        grip = box["width"] - 2 if stop == "day" else box["width"] / 2
        x, y = box["x"] + grip, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.wait_for_timeout(300)
        page.evaluate(OBSERVE_DRAG, stop)
        reach = 80 if stop == "day" else box["width"] / 3
        for i in range(400):
            page.mouse.move(x + reach * math.sin(i / 20), y)
            page.wait_for_timeout(8)
        page.mouse.up()
        frames = page.evaluate("window.frames_")[5:]
        lags = page.evaluate("window.lags")
    three = summary(frames)
    return (three["median_ms"], three["p95_ms"], three["worst_ms"]), summary(lags)


def money_on_screen() -> tuple[dict[str, float], float]:
    """The same for the cost, typing a discount rate beside six candidates and their draws."""
    with served("demo") as (address, browser, _):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/rigs/1/compare?part=money")
        idle(page)
        field = page.locator("[data-path='/plan/overrides/discount_rate']")
        field.fill("1 %")
        page.wait_for_timeout(1500)
        page.evaluate(OBSERVE.replace("[data-stop=day]", "[data-stop=compare]"))
        sizes = answer_sizes(page)
        for i in range(40):
            field.press("Home")
            field.press(str(1 + i % 3 // 2)) if i % 2 == 0 else field.press("Delete")
            page.wait_for_timeout(900)
        times = page.evaluate("window.times")
    return summary(times), round(statistics.median(sizes), 1)
