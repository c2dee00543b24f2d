"""The 24-hour sheet: times drawn, moved, stretched, copied and removed, and the table that says the same."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.conftest import unfolded


@pytest.fixture
def sheet(page: Page, demo) -> Page:
    demo("pebble", "day")
    page.get_by_role("radio", name="24-hour sheet").click()
    page.locator("[data-sheet]").wait_for()
    return page


def lane(page: Page, load: str) -> Locator:
    return page.locator(f"[data-lane={load}]")


def blocks(page: Page, load: str) -> Locator:
    return lane(page, load).locator("[data-block]")


def drag(page: Page, load: str, start: float, end: float, alt: bool = False) -> None:
    """Press at one hour of a lane's track and let go at another."""
    track = lane(page, load).locator(".track")
    track.scroll_into_view_if_needed()
    box = track.bounding_box()
    assert box is not None
    x, y = box["x"], box["y"] + box["height"] / 2
    if alt:
        page.keyboard.down("Alt")
    page.mouse.move(x + box["width"] * start / 24, y)
    page.mouse.down()
    page.mouse.move(x + box["width"] * (start + end) / 48, y, steps=4)
    page.mouse.move(x + box["width"] * end / 24, y, steps=4)
    page.mouse.up()
    if alt:
        page.keyboard.up("Alt")


def expect_times(page: Page, load: str, *times: str) -> None:
    expect(blocks(page, load)).to_have_count(len(times))
    for i, time in enumerate(times):
        expect(blocks(page, load).nth(i)).to_have_attribute("aria-label", re.compile(f", {time}\\."))


def test_a_time_is_moved_stretched_and_drawn_by_mouse(sheet: Page) -> None:
    # Television: 24 W from 20:30 to 22:30, 48 Wh.
    expect_times(sheet, "tv", "20:30 to 22:30")
    drag(sheet, "tv", 21.5, 18.5)
    expect_times(sheet, "tv", "17:30 to 19:30")
    expect(lane(sheet, "tv")).to_contain_text("48 Wh")
    drag(sheet, "tv", 19.48, 21.5)
    expect_times(sheet, "tv", "17:30 to 21:30")
    expect(lane(sheet, "tv")).to_contain_text("96 Wh")
    drag(sheet, "tv", 6, 7.5)
    expect_times(sheet, "tv", "06:00 to 07:30", "17:30 to 21:30")
    expect(lane(sheet, "tv")).to_contain_text("132 Wh")
    sheet.get_by_role("radio", name="Table").click()
    tv = unfolded(sheet.locator("[data-load=tv]"))
    expect(tv.get_by_label("Set times of Television")).to_have_value("06:00–07:30, 17:30–21:30")


@pytest.mark.detail
def test_a_time_is_copied_with_alt_and_overlaps_count_once(sheet: Page) -> None:
    drag(sheet, "tv", 21.5, 11.5, alt=True)
    expect_times(sheet, "tv", "10:30 to 12:30", "20:30 to 22:30")
    drag(sheet, "tv", 11.5, 20.5)
    # Moved to 19:30 to 21:30 it overlaps the other one: together 19:30 to 22:30, three hours.
    expect_times(sheet, "tv", "19:30 to 22:30")
    expect(lane(sheet, "tv")).to_contain_text("72 Wh")


def test_a_time_is_edited_by_keyboard_and_undone(sheet: Page) -> None:
    blocks(sheet, "tv").first.focus()
    sheet.keyboard.press("ArrowLeft")
    expect_times(sheet, "tv", "20:15 to 22:15")
    blocks(sheet, "tv").first.focus()
    sheet.keyboard.press("Shift+ArrowRight")
    expect_times(sheet, "tv", "20:15 to 22:30")
    blocks(sheet, "tv").first.press("c")
    expect_times(sheet, "tv", "00:00 to 02:15", "20:15 to 22:30")
    blocks(sheet, "tv").first.press("Delete")
    expect_times(sheet, "tv", "20:15 to 22:30")
    lane(sheet, "tv").get_by_role("button", name="Add a time").click()
    expect_times(sheet, "tv", "18:00 to 19:00", "20:15 to 22:30")
    sheet.reload()
    sheet.locator("[data-sheet]").wait_for()
    while sheet.get_by_role("button", name=re.compile("^Undo: ")).count():
        label = sheet.get_by_role("button", name=re.compile("^Undo")).get_attribute("aria-label")
        sheet.keyboard.press("Control+z")
        expect(sheet.get_by_role("button", name=re.compile("^Undo"))).not_to_have_attribute(
            "aria-label", label or ""
        )
    expect_times(sheet, "tv", "20:30 to 22:30")


@pytest.mark.detail
def test_table_and_sheet_are_two_views_of_one_thing(sheet: Page) -> None:
    sheet.get_by_role("radio", name="Table").click()
    row = unfolded(sheet.locator("[data-load=radio]"))
    row.get_by_label("Kind of use of Radio").select_option("times")
    times = row.get_by_label("Set times of Radio")
    times.fill("22:00-01:00, 7-8")
    # 8 W for four hours.
    expect(row).to_contain_text("32 Wh")
    times.fill("25:00-26:00")
    expect(sheet.locator("#problems-radio")).to_contain_text("is not a time of day")
    times.fill("22:00-01:00, 7-8")
    sheet.get_by_role("radio", name="24-hour sheet").click()
    expect_times(sheet, "radio", "00:00 to 01:00", "07:00 to 08:00", "22:00 to 24:00")


@pytest.mark.detail
def test_profile_reads_out_the_moment(sheet: Page) -> None:
    picture = sheet.get_by_role("img", name=re.compile("^Power from the bank"))
    picture.focus()
    sheet.keyboard.press("ArrowRight")
    expect(sheet.locator("[data-sheet]")).to_contain_text(
        re.compile(r"\d+ W, of which 0 W through the inverter")
    )


def test_sheet_works_on_a_telephone(sheet: Page) -> None:
    sheet.set_viewport_size({"width": 390, "height": 844})
    assert sheet.evaluate("document.documentElement.scrollWidth") == 390
    drag(sheet, "tv", 21.5, 19.5)
    expect_times(sheet, "tv", "18:30 to 20:30")


@pytest.mark.detail
def test_a_touched_time_is_copied_and_removed_by_its_buttons(sheet: Page) -> None:
    blocks(sheet, "tv").first.click()
    lane(sheet, "tv").get_by_role("button", name="Copy this time").click()
    # No room for two hours after 22:30: the copy lies at midnight.
    expect_times(sheet, "tv", "00:00 to 02:00", "20:30 to 22:30")
    blocks(sheet, "tv").last.click()
    lane(sheet, "tv").get_by_role("button", name="Remove this time").click()
    expect_times(sheet, "tv", "00:00 to 02:00")
    expect(lane(sheet, "tv").get_by_role("button", name="Add a time")).to_be_visible()
