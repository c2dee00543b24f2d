"""A browser that keeps nothing, or is full: pages work, what is entered is saved, and what is not is said."""

import pytest
from playwright.sync_api import Page, expect

OFF = """for (const name of ['localStorage', 'sessionStorage'])
  Object.defineProperty(window, name, { get() { throw new DOMException('no', 'SecurityError') } })"""
FULL = "Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError') }"


@pytest.mark.parametrize("storage", [OFF, FULL], ids=["off", "full"])
def test_what_is_entered_is_saved_where_the_browser_keeps_nothing(page: Page, demo, storage: str) -> None:
    page.add_init_script(storage)
    demo("pebble", "log")
    expect(page.get_by_text("This browser keeps nothing for this page")).to_be_visible()
    page.get_by_label("New entry").fill("12.9V rested")
    page.get_by_label("New entry").press("Enter")
    expect(page.locator("[data-entry]")).to_have_count(1)
    page.goto(page.url.replace("/log", "/rig?part=use"))
    field = page.locator("[data-path='/rig/off_grid_nights']")
    with page.expect_response(lambda answer: answer.request.method == "PATCH"):
        field.fill("77")
        field.press("Tab")
    page.reload()
    expect(page.locator("[data-path='/rig/off_grid_nights']")).to_have_value("77")


def test_what_waits_in_a_full_browser_is_said_to_be_lost_with_the_page(page: Page, demo) -> None:
    page.add_init_script(FULL)
    demo("pebble", "log")
    expect(page.locator("[data-log-empty]")).to_be_visible()
    page.context.set_offline(True)
    page.get_by_label("New entry").fill("12.9V rested")
    page.get_by_label("New entry").press("Enter")
    waiting = page.locator("[data-log-waiting]")
    expect(waiting).to_contain_text("Leave this page open until they are sent")
    # Who would leave all the same is asked first, and stays.
    asked: list[str] = []
    page.on("dialog", lambda dialog: (asked.append(dialog.type), dialog.dismiss()))
    page.evaluate("location.reload()")
    page.wait_for_timeout(200)
    assert asked == ["beforeunload"]
    page.context.set_offline(False)
    expect(page.locator("[data-entry]")).to_have_count(1)
    expect(waiting).to_have_count(0)
