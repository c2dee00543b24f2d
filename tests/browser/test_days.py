"""Kinds of day, what if, slips, the label and the diagnosis, as an owner uses them."""

import re

import pytest
from playwright.sync_api import Locator, Page, expect

from browser.conftest import bank_part, figure, new_rig_form, on_stop, to_stop, unfold, unfolded


def show(page: Page, day_type: str) -> Locator:
    """Show a kind of day and wait until it is there."""
    card = page.locator(f"[data-day-type={day_type}]")
    card.click()
    expect(card).to_have_attribute("aria-checked", "true")
    return card


def test_a_kind_of_day_is_copied_and_governs(page: Page, demo) -> None:
    demo("pebble", "day")
    expect(page.locator("[data-day-type=easter]")).to_contain_text("sizes the bank")
    show(page, "easter")
    page.get_by_role("button", name="Copy as a new day").click()
    copied = page.locator("[data-day-type^=day-]")
    expect(copied).to_have_attribute("aria-checked", "true")
    expect(copied.locator("span").nth(1)).to_have_text("326 Wh")
    # The television runs six hours more on this day only: 24 W × 6 h = 144 Wh.
    row = unfolded(page.locator("[data-load=tv]"))
    row.locator("[data-on-day]").select_option("own")
    hours = row.get_by_label("Hours a day of Television")
    expect(hours).to_have_attribute("data-path", re.compile("/on/day-"))
    expect(hours).to_have_value("2")
    hours.fill("8")
    expect(copied).to_contain_text("470 Wh")
    expect(copied).to_contain_text("sizes the bank")
    expect(figure(page, "day")).to_contain_text("470 Wh")
    show(page, "easter")
    expect(hours).to_have_value("2")
    expect(page.locator("[data-day-type=easter]")).to_contain_text("326 Wh")
    to_stop(page, "need")
    expect(page.locator("[data-main]")).to_contain_text("470 Wh")
    unfold(page, "days")
    expect(page.locator("[data-need-of^=day-]")).to_contain_text("sizes the bank")


def test_a_load_is_taken_off_one_day_and_undo_works_after_a_reload(page: Page, demo) -> None:
    demo("pebble", "day")
    show(page, "summer")
    row = page.locator("[data-load=tv]")
    expect(page.locator("[data-day-type=summer]")).to_contain_text("274 Wh")
    unfolded(row).locator("[data-on-day]").select_option("off")
    # 48 Wh less.
    expect(page.locator("[data-day-type=summer]")).to_contain_text("226 Wh")
    expect(row).to_contain_text("off on this day")
    page.reload()
    expect(page.locator("[data-day-type=summer]")).to_have_attribute("aria-checked", "true")
    expect(row).to_contain_text("off on this day")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-day-type=summer]")).to_contain_text("274 Wh")
    expect(unfolded(row).locator("[data-on-day]")).to_have_value("usual")


@pytest.mark.detail
def test_the_sheet_draws_on_the_day_that_is_shown(page: Page, demo) -> None:
    demo("pebble", "day")
    show(page, "laid-up")
    page.get_by_role("radio", name="24-hour sheet").click()
    night = page.locator("[data-lane=tv] [data-night]")
    expect(night.first).to_be_visible()
    show(page, "summer")
    lane = page.locator("[data-lane=tv]")
    expect(lane.locator("[data-block]")).to_have_count(1)
    page.get_by_role("radio", name="Table").click()
    unfolded(page.locator("[data-load=tv]")).locator("[data-on-day]").select_option("off")
    page.get_by_role("radio", name="24-hour sheet").click()
    expect(lane.locator("[data-block]")).to_have_count(0)
    lane.get_by_role("button", name="Add a time").click()
    # An hour from 18:00, on this day only: 24 Wh.
    expect(lane).to_contain_text("24 Wh")
    show(page, "easter")
    expect(lane).to_contain_text("48 Wh")


def test_what_if_is_tried_dropped_and_kept(page: Page, demo) -> None:
    demo("mulga", "need")
    before = figure(page, "need").inner_text()
    page.keyboard.press("t")
    bar = page.locator("[data-what-if]")
    expect(bar).to_contain_text("Change anything")
    page.locator("[data-slider=nights]").focus()
    page.keyboard.press("ArrowRight")
    expect(page.locator("[data-stop=need]")).to_contain_text(f"was {before}")
    expect(bar).to_contain_text("1 change tried")
    to_stop(page, "banks")
    expect(page.locator("main")).to_contain_text("was 8.19 kWh")
    page.reload()
    expect(bar).to_contain_text("1 change tried")
    bar.get_by_role("button", name="Discard").click()
    expect(bar).to_have_count(0)
    expect(figure(page, "need")).to_have_text(before)
    page.locator("main h1").click()
    page.keyboard.press("t")
    to_stop(page, "need")
    page.locator("[data-slider=nights]").focus()
    page.keyboard.press("ArrowLeft")
    expect(figure(page, "need")).not_to_have_text(before)
    bar.get_by_role("button", name="Keep").click()
    expect(bar).to_have_count(0)
    expect(figure(page, "need")).not_to_have_text(before)


@pytest.mark.detail
def test_a_unit_slip_is_asked_about_with_both_readings(page: Page, demo) -> None:
    demo("pebble", "day")
    row = unfolded(page.locator("[data-load=tv]"))
    draw = row.get_by_label("Power of Television")
    draw.fill("96 Wh")
    problem = page.locator("#problems-tv")
    expect(problem).to_contain_text("energy over a time")
    # 96 Wh a day over its two hours are 48 W.
    problem.get_by_role("button", name=re.compile("48 W over its 2 h")).click()
    expect(problem).to_have_count(0)
    expect(draw).to_have_value("48 W")
    expect(row).to_contain_text("96 Wh")


@pytest.mark.detail
def test_details_of_a_load_doubt_start_and_weather(page: Page, demo) -> None:
    demo("pebble", "day")
    row = unfolded(page.locator("[data-load=lights]"))
    row.get_by_role("button", name="Details of LED lights").click()
    details = page.locator("[data-details=lights]")
    details.get_by_label("At most").fill("30")
    expect(page.locator("[data-finding=doubt]")).to_contain_text("“LED lights”")
    details.get_by_label("At most").fill("1")
    expect(page.locator("[data-finding=limits_crossed]")).to_contain_text(
        "at most 1 W, which is less than its 2.5 W"
    )
    details.get_by_label("At most").fill("4")
    details.get_by_label("Starting power").fill("3x")
    page.keyboard.press("Tab")
    expect(details.get_by_label("Starting power")).to_have_value("7.5")
    details.get_by_label("Critical").check()
    expect(row).to_contain_text("critical")
    details.get_by_label("Its duty cycle depends on the weather").check()
    expect(details.get_by_label("25 °C")).to_have_value("100 %")
    details.get_by_role("button", name="Keep in my own list").click()
    page.get_by_label("Add from the list of appliances").fill("LED lights")
    expect(page.get_by_role("option", name=re.compile("2.5 W DC"))).to_be_visible()
    page.get_by_role("button", name="Remove LED lights from your list").click()
    expect(page.get_by_role("option", name=re.compile("2.5 W DC"))).to_have_count(0)


def test_a_pattern_fills_a_rig_in_one_click(page: Page) -> None:
    new_rig_form(page)
    page.get_by_label("Name of the new rig").fill("Sandpiper")
    page.get_by_label("Start from").select_option("weekends")
    page.get_by_label("Where").select_option("scotland")
    page.get_by_role("button", name="Create rig").click()
    bank_part(page, "use")
    expect(page.get_by_role("textbox", name="Off-grid nights a year")).to_have_value("44")
    expect(page.get_by_role("button", name="Mar")).to_have_attribute("aria-pressed", "true")
    bank_part(page, "place")
    expect(page.locator("[data-path='/rig/latitude']")).to_have_value("57")
    expect(figure(page, "need")).to_contain_text("kWh · 2 nights")
    expect(figure(page, "compare")).not_to_have_text("—")
    to_stop(page, "day")
    expect(page.locator("[data-load]")).to_have_count(8)


@pytest.mark.detail
def test_the_old_bank_is_questioned(page: Page, demo) -> None:
    demo("mulga", "rig")
    verdict = page.locator("[data-verdict]")
    expect(verdict).to_contain_text("higher use")
    page.locator("[data-diagnosis] [data-folded] > summary").click()
    page.get_by_role("checkbox", name="Smells of rotten eggs").check()
    expect(verdict).to_have_text("The bank is damaged.")
    expect(page.locator("[data-diagnosis]")).to_contain_text("Stop charging it")
    page.get_by_role("checkbox", name="Smells of rotten eggs").uncheck()
    page.get_by_role("textbox", name="Resting voltage").fill("12,2")
    expect(verdict).to_contain_text("the charger")


@pytest.mark.detail
def test_a_second_bank_takes_loads_and_gives_them_back(page: Page, demo) -> None:
    demo("long-haul", "need")
    expect(page.get_by_role("heading", name="The second bank")).to_be_visible()
    to_stop(page, "rig")
    bank_part(page, "build")
    section = page.locator("section", has=page.get_by_role("heading", name="A second house bank"))
    section.get_by_role("button", name="There is none").click()
    expect(section.get_by_role("button", name="Add a second bank")).to_be_visible()
    to_stop(page, "need")
    expect(page.get_by_role("heading", name="The second bank")).to_have_count(0)
    page.keyboard.press("Control+z")
    expect(page.get_by_role("heading", name="The second bank")).to_be_visible()


@pytest.mark.detail
def test_a_label_is_read_from_the_palette(page: Page, demo) -> None:
    demo("pebble", "banks")
    page.keyboard.press("/")
    page.get_by_role("combobox", name="Command").fill("read a battery label")
    page.keyboard.press("Enter")
    page.locator("[data-tool=ah]").fill("100")
    page.locator("[data-tool=hours]").fill("20")
    page.locator("[data-tool=ah_2]").fill("85")
    page.locator("[data-tool=hours_2]").fill("5")
    page.locator("[data-tool=cycles]").fill("600")
    result = page.locator("[data-label-result]")
    expect(result).to_contain_text("1.13")
    expect(result).to_contain_text("at what depth of discharge its cycles are counted")
    page.locator("[data-tool=cycles]").fill("many")
    expect(page.get_by_role("dialog")).to_contain_text("“many” is not a count")


@pytest.mark.detail
def test_how_long_the_day_and_each_load_last_new_and_worn(page: Page, demo) -> None:
    demo("kittiwake", "need")
    page.get_by_role("link", name="How long does each bank").click()
    on_stop(page, "trial")
    day = page.locator("[data-how-long=day]")
    television = page.locator("[data-how-long=Television]")
    expect(day).to_contain_text("days")
    expect(television).to_contain_text("days")
    new, alone = day.inner_text(), television.inner_text()
    page.locator("[data-state=worn]").click()
    expect(day).not_to_have_text(new)
    expect(television).not_to_have_text(alone)
    # The old bank is what it is.
    assert day.inner_text().split()[-2:] == new.split()[-2:]


@pytest.mark.detail
@pytest.mark.parametrize("stop", ["rig", "day", "need"])
def test_no_stop_scrolls_sideways_on_a_telephone(page: Page, demo, stop) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    demo("long-haul", stop)
    assert page.evaluate("document.documentElement.scrollWidth") == 390
    if stop == "day":
        page.get_by_role("button", name="Fields of LED lights").first.click()
        page.get_by_role("button", name="Details of LED lights").click()
        page.get_by_role("button", name="Details of this day").click()
        assert page.evaluate("document.documentElement.scrollWidth") == 390
