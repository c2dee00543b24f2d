"""Renew the pictures in ``docs/screenshots/`` from the demo rigs: one for each main view, at 1280 × 800."""

from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page
from served import served

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
SIZE = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


def nothing(page: Page) -> None:
    """Leave the page as it opens."""


def to_pictures(page: Page) -> None:
    """Scroll to the two pictures of the comparison."""
    page.locator("figure").last.scroll_into_view_if_needed()


def workings(page: Page) -> None:
    """Open the workings of what the LFP bank costs a cycle."""
    page.locator("[data-row=per_cycle] [data-figure]").last.click()
    page.get_by_label("Workings", exact=True).get_by_role("button", name="Lifetime cost").last.click()


def same_label(page: Page) -> None:
    """Switch to the naive comparison."""
    page.get_by_role("switch").click()


def sheet(page: Page) -> None:
    """Turn to the 24-hour sheet."""
    page.get_by_role("radio", name="24-hour sheet").click()
    page.evaluate("window.scrollTo(0, 270)")


def summary(page: Page) -> None:
    """Scroll to how sure the day is, and its hardest moment."""
    page.get_by_role("heading", name="How sure is it?").scroll_into_view_if_needed()
    page.evaluate("window.scrollBy(0, 330)")


def diagnosis(page: Page) -> None:
    """Scroll to the question whether the old bank is the culprit."""
    page.locator("[data-diagnosis]").scroll_into_view_if_needed()
    page.evaluate("window.scrollTo(0, document.querySelector('[data-diagnosis]').offsetTop - 90)")


def what_if(page: Page) -> None:
    """Try one night more beside the plan."""
    page.keyboard.press("t")
    page.locator("[data-what-if]").wait_for()
    page.locator("[data-slider=nights]").focus()
    page.keyboard.press("ArrowRight")
    page.locator("[data-main]").get_by_text("was").first.wait_for()


def loaded(page: Page) -> None:
    """Wait for what is asked for besides the plan."""
    page.locator("main svg, main canvas").first.wait_for()


def waterfall(page: Page) -> None:
    """Scroll to the way from the day to the label."""
    page.get_by_role("heading", name="From the day to the label").scroll_into_view_if_needed()
    page.evaluate("window.scrollBy(0, 250)")


VIEWS: list[tuple[str, str, str, Callable[[Page], None]]] = [
    ("harbor", "", "day", nothing),
    ("rig", "1/rig", "day", nothing),
    ("rig-diagnosis", "1/rig", "day", diagnosis),
    ("day", "3/day", "day", nothing),
    ("day-sheet", "5/day", "day", sheet),
    ("day-sure", "3/day", "day", summary),
    ("need", "3/need", "day", nothing),
    ("need-waterfall", "2/need", "day", waterfall),
    ("banks", "1/banks", "day", nothing),
    ("banks-find", "4/banks?part=find", "day", loaded),
    ("banks-locker", "1/banks?part=locker", "day", loaded),
    ("banks-wiring", "5/banks?part=wiring", "day", loaded),
    ("banks-volts", "1/banks?part=volts", "day", loaded),
    ("compare", "5/compare", "day", nothing),
    ("compare-pictures", "5/compare", "day", to_pictures),
    ("compare-same-label", "3/compare", "day", same_label),
    ("workings-night", "5/compare", "night", workings),
    ("day-phone", "4/day", "day", nothing),
    # Last: what it tries stays with the rig.
    ("what-if", "5/need", "night", what_if),
]


def main() -> None:
    """Take every picture."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with served("demo") as (address, browser):
        for name, path, theme, prepare in VIEWS:
            context = browser.new_context(
                viewport=PHONE if name.endswith("phone") else SIZE,
                color_scheme="dark" if theme == "night" else "light",
                reduced_motion="reduce",
            )
            page = context.new_page()
            page.goto(f"{address}/rigs/{path}" if path else address)
            page.wait_for_load_state("networkidle")
            prepare(page)
            page.mouse.move(0, 0)
            page.wait_for_timeout(600)
            page.screenshot(path=FOLDER / f"{name}.png")
            context.close()


if __name__ == "__main__":
    main()
