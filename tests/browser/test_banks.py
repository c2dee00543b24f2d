"""Banks that can be built: they fit the locker or say by how much not, are found, placed, wired and read."""

import re
import xml.etree.ElementTree as ET
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import bank_part, figure, to_stop


def card(page: Page, key: str):
    return page.locator(f"[data-candidate={key}]")


@pytest.mark.detail
def test_cells_too_wide_for_the_locker_give_way_to_a_bank_that_fits(page: Page, demo, tmp_path) -> None:
    # Long Haul has 24 V. Twelve 2 V cells, 262 × 181 × 430 mm: a row of seven across and one of five along
    # want 262 + 181 + 5 + 50 = 498 mm of width, the locker has 450.
    demo("long-haul", "rig?part=space")
    page.locator("[data-path='/rig/locker_width']").fill("45 cm")
    page.locator("[data-path='/rig/locker_height']").fill("520")
    to_stop(page, "banks")
    deep = card(page, "deep")
    deep.locator("[data-layout] > summary").click()
    deep.locator("select").first.select_option("hollin-2-600")
    fewer = deep.get_by_role("button", name=re.compile("in parallel: one less"))
    # By script, since the step may have become impossible while the hand was on its way.
    for _ in range(60):
        if fewer.is_disabled():
            break
        fewer.evaluate("button => button.click()")
        page.wait_for_timeout(150)
    expect(deep.get_by_role("group", name=re.compile("in series$"))).to_contain_text("12")
    fit = deep.locator("[data-check=fit]")
    expect(fit).to_contain_text("12 batteries do not fit: 48 mm too wide for the locker")
    expect(figure(page, "banks")).to_have_text("7 banks")
    # It says so where it is compared, too, and in the locker itself.
    bank_part(page, "locker")
    page.locator("[data-pick=deep]").click()
    expect(page.locator("[data-locker-says]")).to_contain_text("48 mm too wide")
    # One that fits.
    bank_part(page, "find")
    found = page.locator("[data-found]").filter(has_not_text="Bare").first
    title = found.locator(".font-semibold").first.inner_text()
    found.get_by_role("button", name=re.compile("^Add ")).click()
    expect(figure(page, "banks")).to_have_text("8 banks")
    bank_part(page, "cards")
    new = page.locator("[data-candidate]").last
    expect(new.locator("h2")).to_have_text(title)
    expect(new.locator("[data-verdict=blocking]")).to_have_count(0)
    new.locator("[data-checks] summary").click()
    expect(new.locator("[data-check=fit]")).to_contain_text("fits the locker")
    # Its wiring, drawn and taken along.
    bank_part(page, "wiring")
    page.locator("[data-pick]").last.click()
    expect(page.get_by_role("region", name="Wiring drawing")).to_contain_text("battery switch")
    with page.expect_download() as sent:
        page.locator("[data-export]").click()
    sent.value.save_as(tmp_path / "wiring.svg")
    drawn = ET.fromstring(Path(tmp_path / "wiring.svg").read_bytes())
    assert any(title in (t.text or "") for t in drawn.iter("{http://www.w3.org/2000/svg}text"))


@pytest.mark.detail
def test_a_box_follows_the_hand_and_the_keys_and_goes_back(page: Page, demo) -> None:
    demo("kittiwake", "banks")
    bank_part(page, "locker")
    page.locator("[data-pick=lfp]").click()
    says = page.locator("[data-locker-says]")
    expect(says).to_contain_text("fits the locker")
    # Nothing may still be on its way that moves the boxes under the hand.
    page.wait_for_load_state("networkidle")
    first, second = page.locator("[data-box='1']"), page.locator("[data-box='2']")
    # Held where it stands still, and led to where the other one is then.
    second.hover()
    page.mouse.down()
    one = first.bounding_box()
    page.mouse.move(one["x"] + one["width"] * 0.7, one["y"] + one["height"] * 0.7, steps=8)
    page.mouse.up()
    expect(says).to_contain_text("Batteries 2 and 1 overlap by")
    # It is not the bank of the verdict: the mark of the plan does not speak of it.
    expect(page.locator("[data-stop=banks]").get_by_role("img", name="Unsuitable")).to_have_count(0)
    page.get_by_role("button", name="Place them automatically").click()
    expect(says).to_contain_text("fits the locker")
    # By the keys: against the wall's clearance, and undone.
    first.focus()
    page.keyboard.press("ArrowLeft")
    expect(says).to_contain_text("Battery 1 takes 5 mm of")
    page.keyboard.press("Control+z")
    expect(says).to_contain_text("fits the locker")
    first.focus()
    page.keyboard.press("r")
    expect(page.get_by_text("Placed by you.")).to_be_visible()
    page.reload()
    page.locator("[data-pick=lfp]").click()
    expect(page.get_by_text("Placed by you.")).to_be_visible()


@pytest.mark.detail
def test_a_remedy_of_the_cold_is_tried_beside_the_plan(page: Page, demo) -> None:
    demo("tern-rock", "banks")
    lfp = card(page, "lfp")
    cold = lfp.locator("[data-check=cold_charge]")
    lfp.locator("[data-blocking] > summary").click()
    expect(cold).to_contain_text("Do not charge it at −15 °C")
    expect(cold.locator("[data-remedy=indoors]")).to_contain_text("NOK")
    cold.locator("[data-remedy=indoors]").get_by_role("button", name="Try").click()
    expect(lfp.locator("[data-verdict=blocking][data-check=cold_charge]")).to_have_count(0)
    expect(page.locator("[data-what-if]")).to_contain_text("Charging in the cold")
    page.get_by_role("button", name="Discard").click()
    expect(cold).to_contain_text("at −15 °C")


@pytest.mark.detail
def test_a_bank_in_steps_and_modules_with_a_guard(page: Page, demo) -> None:
    demo("mulga", "banks")
    steps = card(page, "steps")
    expect(steps.locator("[data-stage]")).to_have_count(2)
    expect(steps.locator("[data-stage=s2]")).to_contain_text("of the need")
    steps.locator("[data-quote] summary").click()
    month = page.locator("[data-path='/candidates/3/stages/1/when']")
    month.fill("next spring")
    expect(steps).to_contain_text("“next spring” is not a month that can be read. Try Apr 2027.")
    month.fill("2039-05")
    expect(steps.locator("[data-check=mixed_ages]")).to_contain_text("The limit is 10 %")
    demo("long-haul", "banks")
    modules = card(page, "modules")
    expect(modules.locator("[data-check=external_bms]")).to_contain_text("nothing stops overcharging")
    modules.get_by_label("Cell protection").select_option(label="An external BMS with contactor")
    expect(modules.locator("[data-verdict=blocking][data-check=external_bms]")).to_have_count(0)


def test_a_newcomer_enters_a_battery_and_is_asked_about_slips(page: Page, demo) -> None:
    demo("pebble", "banks")
    bank_part(page, "batteries")
    page.get_by_role("button", name="Enter a battery from its label").click()
    own = page.locator("[data-own=own-2]")
    expect(own).to_be_visible()
    at = "/own_models/1"
    page.locator(f"[data-path='{at}/length_mm']").fill("33 m")
    expect(own).to_contain_text("not 33\u202f000 mm")
    own.get_by_role("button", name="33 cm, 330 mm").click()
    expect(page.locator(f"[data-path='{at}/length_mm']")).to_have_value("330")
    own.get_by_label("Class", exact=True).select_option(label="Starting battery")
    expect(page.get_by_text("a few deep discharges ruin it")).to_be_visible()
    expect(page.locator(f"[data-path='{at}/battery_class']")).to_have_value("lfp")
    own.locator("summary", has_text=re.compile("^BMS$")).click()
    page.locator(f"[data-path='{at}/bms_continuous_a']").fill("0")
    expect(own).to_contain_text("would never supply anything")
    page.locator(f"[data-path='{at}/bms_continuous_a']").fill("150")
    expect(own.locator("[aria-invalid]")).to_have_count(0)


@pytest.mark.detail
def test_why_not_this_one_and_the_best_within_a_ceiling(page: Page, demo) -> None:
    demo("pebble", "banks")
    bank_part(page, "find")
    page.locator("[data-why]").select_option("tarnmoor-220")
    answer = page.get_by_role("dialog")
    expect(answer).to_contain_text("Still 220")
    expect(answer.locator("[data-check=coupling]")).to_contain_text("The limit is")
    answer.get_by_role("button", name="Close").click()
    page.locator("[data-tool=money]").fill("120")
    best = page.locator("[data-within] li").first
    expect(best).to_contain_text("of the need")
    page.locator("[data-tool=money]").fill("a lot")
    expect(page.get_by_role("alert")).to_contain_text("“a lot” is not an amount of money")


@pytest.mark.detail
def test_a_meter_and_a_cable_are_read(page: Page, demo) -> None:
    demo("kittiwake", "banks")
    bank_part(page, "volts")
    page.locator("[data-meter] [data-tool=volts]").fill("12,36")
    expect(page.locator("[data-meter-says]")).to_contain_text("56 to 64 % charged")
    page.locator("[data-meter-bank]").select_option("lfp")
    page.locator("[data-meter] [data-tool=volts]").fill("13.18")
    expect(page.locator("[data-meter-says]")).to_contain_text("A battery monitor with a shunt can")
    page.locator("[data-tool=current]").fill("400")
    expect(page.locator("[data-curve=gel]")).to_contain_text("At 400 A")
    bank_part(page, "wiring")
    page.locator("[data-cable] [data-tool=amps]").fill("206")
    page.locator("[data-cable] [data-tool=length]").fill("3 m")
    expect(page.locator("[data-cable-size]")).to_contain_text("70 mm²")
