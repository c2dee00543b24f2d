"""Renew the pictures in ``docs/screenshots/`` from the demo rigs: one for each main view, at 1280 × 800."""

from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page
from served import served

from vast_harbor.data import DEMO_RIGS

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
SIZE = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


def nothing(page: Page) -> None:
    """Leave the page as it opens."""


def looked_at(page: Page) -> None:
    """Wait until each card says what helps beside the bank."""
    page.locator("[data-card]:not([aria-busy=true])").nth(len(DEMO_RIGS) - 1).wait_for(timeout=60_000)
    page.wait_for_function("!document.querySelector('[data-looking]')", timeout=60_000)


def suitability(page: Page) -> None:
    """Wait for what the verdict asks for apart from the plan."""
    page.locator("[data-families]").wait_for()
    page.evaluate("window.scrollTo(0, 0)")


def tabled(page: Page) -> None:
    """Wait for the table of the comparison."""
    page.locator(".comparison").wait_for()


def doubted(page: Page) -> None:
    """Wait for the bands of nights and years, and the map of use."""
    page.locator("[data-map] figcaption").wait_for()
    page.locator("[data-band]").first.wait_for()


def workings(page: Page) -> None:
    """Open the workings of what the LFP bank costs a cycle."""
    page.locator("[data-row=per_cycle] [data-figure]").last.click()
    page.get_by_label("Workings", exact=True).get_by_role("button", name="Lifetime cost").last.click()


def sheet(page: Page) -> None:
    """Turn to the 24-hour sheet."""
    page.get_by_role("radio", name="24-hour sheet").click()
    page.evaluate("window.scrollTo(0, 270)")


def asked(page: Page) -> None:
    """Come to the question of what is run, of a new boat."""
    page.locator("[data-start]").click()
    page.locator("[data-tile=boat]").click()
    page.locator("#question-region").select_option("scotland")
    page.locator("[data-next]").click()
    page.locator("[data-tile=weekends]").click()
    page.wait_for_timeout(800)
    page.locator("[data-next]").click()
    page.locator("main[data-question=run]").wait_for()


def loaded(page: Page) -> None:
    """Wait for what is asked for apart from the plan."""
    page.locator("main svg, main canvas").first.wait_for()


def logged(page: Page) -> None:
    """Scroll to what the monitor shows of the use."""
    page.locator("[data-use] svg").first.wait_for()
    page.evaluate("window.scrollTo(0, document.querySelector('[data-use]').offsetTop - 480)")


def reviewed(page: Page) -> None:
    """Wait for the verdict with what the log says."""
    page.locator("[data-review]").wait_for()


def tried(page: Page) -> None:
    """Wait for the pictures of the run."""
    page.locator("[data-trial-chart] svg").first.wait_for()


def stopped(page: Page) -> None:
    """Scroll to the reading that stops the work."""
    page.locator("[data-step=charged]").wait_for()
    page.evaluate("window.scrollTo(0, document.querySelector('[data-gate=equal]').offsetTop - 120)")


def in_locker(page: Page) -> None:
    """Turn to one step at a time."""
    page.locator("[data-locker-mode]").click()
    page.locator("[data-locker] [data-verdict=out]").first.scroll_into_view_if_needed()


VIEWS: list[tuple[str, str, str, Callable[[Page], None]]] = [
    ("harbor", "", "day", looked_at),
    ("rig", "1/rig", "day", nothing),
    ("day", "3/day", "day", nothing),
    ("day-sheet", "5/day", "day", sheet),
    ("need", "3/need", "day", nothing),
    ("banks", "1/banks", "day", nothing),
    ("banks-find", "4/banks?part=find", "day", loaded),
    ("banks-wiring", "5/banks?part=wiring", "day", loaded),
    ("charging", "5/charging", "day", loaded),
    ("trial", "2/trial", "day", tried),
    ("compare", "4/compare", "day", suitability),
    ("compare-table", "1/compare?part=table", "day", tabled),
    ("compare-doubt", "4/compare?part=doubt", "day", doubted),
    ("changeover", "2/changeover?part=work", "day", stopped),
    ("changeover-phone", "2/changeover?part=work", "night", in_locker),
    ("log", "1/log?part=monitor", "day", logged),
    ("log-review", "1/log?part=review", "day", reviewed),
    ("workings-night", "5/compare?part=table", "night", workings),
    # Last, because it makes a rig.
    ("start", "", "day", asked),
]


def main() -> None:
    """Take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with served("demo") as (address, browser, _):
        for name, path, theme, prepare in VIEWS:
            context = browser.new_context(
                viewport=PHONE if name.endswith("phone") else SIZE,
                color_scheme="dark" if theme == "night" else "light",
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(f"{address}/rigs/{path}" if path else address)
            page.wait_for_load_state("networkidle", timeout=120_000)
            prepare(page)
            page.mouse.move(0, 0)
            page.wait_for_timeout(600)
            page.screenshot(path=FOLDER / f"{name}.png")
            context.close()


if __name__ == "__main__":
    main()
