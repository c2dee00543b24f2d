"""The real built application, served as an owner would, driven in Debian's Chromium."""

import fcntl
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Locator, Page, expect, sync_playwright
from served import CHROMIUM, PROGRAM, begin, server

from whole_run import SERVERS, shared_folder

# What the browser would draw ahead in each window for its own address line, and looks for by itself: that is
# half of what a window costs.
UNUSED = (
    "WebUIOmniboxPopup", "WebUIOmniboxAimPopup", "WebUIOmniboxFullPopup", "AimPopup", "OmniboxAimPopup",
    "HttpsUpgrades", "Translate", "MediaRouter", "OptimizationHints", "PaintHolding", "LensOverlay",
    "AutofillServerCommunication", "InterestFeedContentSuggestions", "GlobalMediaControls",
)  # fmt: skip
FLAGS = [
    f"--disable-features={','.join(UNUSED)}",
    "--no-sandbox",
    "--disable-gpu",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-sync",
]


FEW_BANKS = (str(Path(__file__).with_name("few_banks.py")),)


@pytest.fixture
def address(request: pytest.FixtureRequest) -> str:
    """Address of the server of all workers: what one has worked out of a demo rig serves all tests that open
    it. The first that asks begins it; it ends with the run.

    There are two: the verdict looks at a rig's own banks only, unless a test is marked ``whole_catalogue``.
    """
    whole = request.node.get_closest_marker("whole_catalogue") is not None
    folder, name = shared_folder(request.config), SERVERS[whole]
    with (folder / f"{name}.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        kept = folder / name
        if not kept.exists():
            program = PROGRAM if whole else FEW_BANKS
            found, process = begin("serve", folder / f"{name}.sqlite3", program)
            kept.write_text(f"{process.pid} {found}", "utf-8")
        return kept.read_text("utf-8").split()[1]


@pytest.fixture(scope="module")
def own_address() -> Iterator[str]:
    """Address of a server for tests that count, delete or restore what lies in the harbor."""
    with server("serve") as (found, _):
        yield found


# A busy machine must not fail a test: only what never comes does.
PATIENCE_MS = 30_000
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        found = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        yield found
        found.close()


BREACHES = """document.addEventListener('securitypolicyviolation', (event) =>
  breach(`${event.effectiveDirective} ${event.blockedURI} ${event.sourceFile}:${event.lineNumber}`))"""


@pytest.fixture
def page(browser: Browser, address: str, request: pytest.FixtureRequest) -> Iterator[Page]:
    """A fresh page, at the harbor unless the test opens a demo rig; a script error, or what its content
    policy forbids, fails the test."""
    context = browser.new_context(
        base_url=address,
        viewport={"width": 1280, "height": 800},
        accept_downloads=True,
        # What it answers would be out of reach of a test that stands in for the program.
        service_workers="block",
    )
    errors: list[str] = []
    context.add_init_script(BREACHES)
    context.expose_binding("breach", lambda _, what: errors.append(what))
    opened = context.new_page()
    opened.on("pageerror", lambda error: errors.append(str(error)))
    opened.set_default_timeout(PATIENCE_MS)
    if "demo" not in request.fixturenames:
        opened.goto("/")
    yield opened
    context.close()
    assert errors == []


def until(page: Page, says: str) -> None:
    """Wait until a script of the page says yes; it may be a promise."""
    for _ in range(150):
        if page.evaluate(says):
            return
        page.wait_for_timeout(100)
    raise AssertionError(says)


def unfolded(load: Locator) -> Locator:
    """A load of the day with its fields open."""
    line = load.locator("[data-open]")
    if line.get_attribute("aria-expanded") == "false":
        line.click()
    return load


def expect_choice(page: Page, name: str) -> None:
    """Wait until a search has found an entry and Enter would take it."""
    option = page.locator("[role=option]").first
    expect(option).to_contain_text(name)
    expect(option).to_have_attribute("data-headlessui-state", re.compile("active"))


@pytest.fixture
def demo(page: Page):
    """Open a stop of a new copy of a demo rig."""

    def build(name: str, stop: str) -> str:
        made = page.request.post("/api/rigs/demo", data={"name": name}).json()["rigs"][0]
        page.goto(f"/rigs/{made['id']}/{stop}")
        page.locator("main h1").wait_for()
        return made["name"]

    return build


def unfold(page: Page, name: str) -> Locator:
    """Open a section that is folded until somebody wants it."""
    fold = page.locator(f"[data-fold={name}]")
    fold.locator("summary").first.click()
    return fold


def new_rig_form(page: Page) -> None:
    """Open what can be filled in before a rig is made without questions."""
    page.locator("[data-new-rig] > summary").click()


def figure(page: Page, stop: str) -> Locator:
    """The live figure of a stop on the strip."""
    return page.locator(f"[data-stop={stop}] [data-strip-figure]")


def to_stop(page: Page, stop: str) -> None:
    """Go to a stop by the strip."""
    page.locator(f"[data-stop={stop}]").click()
    on_stop(page, stop)


def on_stop(page: Page, stop: str) -> None:
    """Wait for the screen of a stop."""
    page.locator(f"main[data-shown={stop}] h1").wait_for()


def bank_part(page: Page, key: str) -> None:
    """Go to a part of the stop that is open."""
    page.locator(f"[data-part={key}]").click()
    expect(page.locator(f"[data-part={key}]")).to_have_attribute("aria-current", "page")
