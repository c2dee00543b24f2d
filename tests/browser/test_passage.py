"""The passage as an owner makes it, from an empty name to the comparison."""

import json
import re

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import bank_part, expect_choice, figure, new_rig_form, on_stop, unfold


def add_load(page: Page, name: str, draw: str, hours: str) -> None:
    page.keyboard.press("n")
    row = page.locator(".load").last
    expect(row.get_by_label("Name")).to_be_focused()
    page.keyboard.type(name)
    row.get_by_label(re.compile("^Power of")).fill(draw)
    row.get_by_label(re.compile("^Hours")).fill(hours)
    page.locator("main h1").click()


@pytest.mark.whole_catalogue
def test_a_rig_from_nothing_to_the_comparison_and_found_again(page: Page) -> None:
    new_rig_form(page)
    page.get_by_label("Name of the new rig").fill("Skua")
    page.get_by_label("Kind").select_option("boat")
    page.get_by_role("button", name="Create rig").click()
    bank_part(page, "use")
    page.get_by_label("Off-grid nights a year").fill("60")
    bank_part(page, "place")
    page.locator("[data-folded] > summary").click()
    page.get_by_role("textbox", name="Battery temperature in use").fill("50 °F")
    page.keyboard.press("Tab")
    expect(page.get_by_role("textbox", name="Battery temperature in use")).to_have_value("10")

    page.locator("main h1").click()
    page.keyboard.press("2")
    expect(page.get_by_role("heading", name="The day")).to_be_visible()
    picker = page.get_by_label("Add from the list of appliances")
    picker.fill("fridge 50")
    expect_choice(page, "fridge, 50 l")
    picker.press("Enter")
    # It follows the weather: at 15 °C three quarters of its duty, so 45 W × 24 h × 0.225 = 243 Wh.
    expect(figure(page, "day")).to_contain_text("243 Wh")
    page.locator("main h1").click()
    add_load(page, "Lamps", "12A", "1h30")
    # 12 A at 12 V for an hour and a half: 216 Wh more.
    expect(figure(page, "day")).to_contain_text("459 Wh")
    add_load(page, "Heater fan", "0,03 kW", "10")
    expect(figure(page, "day")).to_contain_text("759 Wh")
    expect(figure(page, "need")).to_have_text("1.90 kWh · 2 nights")

    page.keyboard.press("4")
    on_stop(page, "banks")
    while page.locator("[data-candidate]").count():
        before = page.locator("[data-candidate]").count()
        page.locator("[data-candidate]").first.get_by_role("button", name=re.compile("^Remove ")).click()
        expect(page.locator("[data-candidate]")).to_have_count(before - 1)
    bank_part(page, "batteries")
    page.get_by_role("tab", name=re.compile("AGM")).click()
    page.get_by_role("button", name="Add Tarnmoor Still 220").click()
    page.get_by_role("tab", name=re.compile("lithium", re.I)).click()
    page.get_by_role("button", name="Add Ostrel Keel 200").click()
    expect(figure(page, "banks")).to_have_text("2 banks")
    bank_part(page, "cards")
    expect(page.locator("[data-candidate]")).to_have_count(2)

    page.locator("main h1").click()
    page.keyboard.press("7")
    # One of them is said to be bought, and how often that holds.
    expect(page.locator("[data-headline]")).to_contain_text("For now: buy ")
    expect(page.locator("[data-card]")).to_contain_text("What charges the bank")
    bank_part(page, "table")
    headlines = [
        "Usable energy",
        "Weight",
        "Rated cycles at the planned depth",
        "Lifetime cost per cycle of use",
    ]
    table = page.locator(".comparison")
    for row in headlines:
        cells = table.get_by_role("row", name=re.compile(f"^{row}")).first.get_by_role("cell")
        # The two candidates, and the one that the verdict found.
        expect(cells).to_have_count(3)
        expect(cells.first).to_contain_text(re.compile(r"\d"))
    result = page.locator("[data-result]").inner_text()
    assert "10 years" in result and "60 nights" in result and "a cycle" in result
    assert page.locator(".comparison").count() == 1
    before = table.inner_text()

    page.reload()
    expect(page.locator("[data-result]")).to_have_text(result)
    assert table.inner_text() == before
    page.keyboard.press("2")
    expect(page.locator(".load")).to_have_count(3)
    expect(page.locator(".load").nth(1)).to_contain_text("12 A DC · 1.5 h a day")


def test_a_rig_file_goes_out_and_comes_back_the_same(page: Page, demo, tmp_path) -> None:
    name = demo("long-haul", "rig")
    page.goto("/")
    card = page.locator(f"[data-card='{name}']")
    with page.expect_download() as sent:
        card.get_by_role("link", name="Export").click()
    path = tmp_path / sent.value.suggested_filename
    sent.value.save_as(path)
    card.get_by_role("button", name="Delete").click()
    expect(card).to_have_count(0)
    page.get_by_label("Rig file").set_input_files(path)
    expect(card).to_have_count(1)
    with page.expect_download() as again:
        card.get_by_role("link", name="Export").click()
    back = tmp_path / "back.json"
    again.value.save_as(back)
    assert json.loads(back.read_text()) == json.loads(path.read_text())


@pytest.mark.detail
def test_same_label_shows_the_naive_comparison_and_its_corrections(page: Page, demo) -> None:
    demo("mulga", "compare?part=table")
    unfold(page, "label")
    rows = page.locator("[data-same-label] tbody tr")
    expect(rows).to_have_count(7)
    expect(rows.first).to_contain_text("Same rated capacity")
    expect(rows.last).to_contain_text("Life")

    # By the label LFP costs more, corrected for all it is the cheaper one.
    def against_the_first(row) -> float:
        return float(row.locator("td").nth(1).locator("[data-figure$=ratio]").inner_text().split()[-1])

    assert against_the_first(rows.first) > 1 > against_the_first(rows.last)
