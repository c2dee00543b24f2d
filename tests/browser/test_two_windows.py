"""Two windows on one rig, and a program that does not answer: nothing is lost or lands in another row."""

import pytest
from playwright.sync_api import Browser, Page, expect

from browser.conftest import figure as strip
from browser.conftest import unfolded


@pytest.fixture
def elsewhere(browser: Browser, address: str):
    """Another browser, which hears nothing of the first one."""
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800})
    yield context.new_page()
    context.close()


def remove_first_load(page: Page, path: str) -> str:
    """Remove the first load; its name."""
    page.goto(path)
    row = page.locator(".load").first
    name = unfolded(row).locator("[data-open]").inner_text()
    had = page.locator(".load").count()
    row.get_by_role("button", name="Remove").click()
    expect(page.locator(".load")).to_have_count(had - 1)
    return name


def test_typing_lands_in_the_row_that_was_meant(page: Page, demo, elsewhere: Page) -> None:
    demo("pebble", "day")
    path = page.url
    second = page.locator(".load").nth(1)
    name, third = (page.locator(".load").nth(i).locator("[data-open]").inner_text() for i in (1, 2))
    remove_first_load(elsewhere, path)
    unfolded(second).locator("[data-path$='/draw']").fill("33 W")
    expect(page.get_by_text("changed in another window")).to_be_visible()
    rows = page.locator(".load")
    expect(rows.first.locator("[data-open]")).to_have_text(name)
    expect(rows.first).to_contain_text("33 W DC")
    page.reload()
    expect(rows.first).to_contain_text("33 W DC")
    expect(rows.nth(1).locator("[data-open]")).to_have_text(third)
    expect(rows.nth(1)).not_to_contain_text("33 W DC")


@pytest.mark.detail
def test_what_is_typed_into_a_row_that_is_gone_is_told_and_given_up(
    page: Page, demo, elsewhere: Page
) -> None:
    demo("pebble", "day")
    path = page.url
    remove_first_load(elsewhere, path)
    sent = []
    page.on("request", lambda r: sent.append(r.method))
    unfolded(page.locator(".load").first).locator("[data-path$='/draw']").fill("44 W")
    expect(page.get_by_text("its row was removed")).to_contain_text("44 W")
    page.wait_for_timeout(1500)
    page.reload()
    page.wait_for_timeout(1000)
    assert sent.count("PATCH") == 1, "it is not sent again and again"


def test_open_windows_hear_of_what_another_one_does(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    path = page.url
    other = page.context.new_page()
    other.goto(path)
    other.get_by_role("textbox", name="Off-grid nights a year").fill("77")
    expect(strip(page, "rig")).to_contain_text("77 nights")
    page.get_by_role("textbox", name="Name", exact=True).fill("Pebble two")
    expect(other.locator("header")).to_contain_text("Pebble two")
    expect(page.get_by_text("changed in another window")).to_have_count(0)
    # Each window takes back what stands last in the journal, under its own name.
    other.keyboard.press("Control+z")
    expect(page.locator("header")).not_to_contain_text("Pebble two")


@pytest.mark.detail
def test_what_is_done_while_the_program_is_away_is_stored_by_itself(page: Page, demo) -> None:
    demo("pebble", "day")
    rows = page.locator(".load")
    had = rows.count()
    page.context.set_offline(True)
    unfolded(rows.first).locator("[data-path$='/draw']").fill("21 W")
    page.get_by_role("button", name="Add an empty load").click()
    unfolded(rows.nth(1)).get_by_role("button", name="Remove").click()
    bar = page.locator("[data-unsent]")
    expect(bar).to_contain_text("3 changes are not saved yet")
    # Undo takes back the last of them and nothing that is stored.
    page.keyboard.press("Control+z")
    expect(bar).to_contain_text("2 changes are not saved yet")
    page.context.set_offline(False)
    expect(bar).to_have_count(0, timeout=30_000)
    expect(rows).to_have_count(had + 1)
    page.reload()
    expect(rows).to_have_count(had + 1)
    expect(rows.first).to_contain_text("21 W DC")


def test_what_waits_outlives_a_reload(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    path = page.url
    # The program answers questions, but edits do not reach it.
    page.route("**/api/rigs/*", lambda r: r.abort() if r.request.method == "PATCH" else r.continue_())
    page.get_by_role("textbox", name="Off-grid nights a year").fill("31")
    expect(page.locator("[data-unsent]")).to_contain_text("1 change is not saved yet")
    page.on("dialog", lambda dialog: dialog.accept())
    page.goto(path)
    expect(page.locator("[data-unsent]")).to_be_visible()
    page.unroute("**/api/rigs/*")
    expect(strip(page, "rig")).to_contain_text("31 nights", timeout=30_000)
    expect(page.locator("[data-unsent]")).to_have_count(0)
