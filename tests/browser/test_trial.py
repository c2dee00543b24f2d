"""Sources put in, judged and set right; a trial run, scrubbed and changed; the monitor played."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import bank_part, figure, to_stop, unfold


def scrub(page: Page, step: int) -> None:
    page.locator("[data-scrub]").evaluate(
        f"(e) => {{ e.value = {step}; e.dispatchEvent(new Event('input')) }}"
    )


def test_a_trial_is_run_scrubbed_and_a_changed_charger_lets_findings_vanish(page: Page) -> None:
    # The owner leaves out what the charger needs, and takes back the remedy that was chosen.
    made = page.request.post("/api/rigs/demo", data={"name": "pebble"}).json()["rigs"][0]
    at = f"/api/rigs/{made['id']}"
    seen = page.request.get(at).json()
    left_out = {"op": "add", "path": "/candidates/2/struck", "value": ["source-mains"]}
    edit = {"revision": (seen.get("whole") or seen)["revision"], "operations": [left_out]}
    assert page.request.patch(at, data=edit).ok
    page.goto(f"/rigs/{made['id']}/charging?part=audit")
    page.locator("[data-audit=lfp] > summary").click()
    taken = page.locator("[data-audit=lfp] [data-rung=new]").get_by_role("button")
    expect(taken).to_have_attribute("aria-pressed", "true")
    taken.click()
    expect(taken).to_have_attribute("aria-pressed", "false")
    to_stop(page, "trial")
    lane = page.locator("[data-bank=lfp]")
    expect(lane).to_contain_text("day ")
    expect(figure(page, "trial")).to_have_text("4 of 4 last")
    # The moment that is looked at: all flows of it, for the bank picked last.
    page.locator("[data-trial-chart] svg").first.wait_for()
    unfold(page, "moment")
    # The bank of the verdict is the one that is told until another is picked.
    expect(page.locator("[data-flows]")).to_have_attribute("data-flow-bank", "dual")
    page.locator("[data-draw=lfp]").click()
    page.locator("[data-draw=lfp]").click()
    expect(page.locator("[data-flows]")).to_have_attribute("data-flow-bank", "lfp")
    scrub(page, 96 + 48)
    expect(page.locator("[data-flow-at]")).to_have_text("Day 2, 12:00")
    page.locator("[data-draw=dual]").click()
    expect(page.locator("[data-flows]")).to_have_attribute("data-flow-bank", "dual")
    # The charger is the culprit: a remedy is taken, and what it was for is crossed out.
    to_stop(page, "charging")
    bank_part(page, "audit")
    page.locator("[data-audit=lfp] > summary").click()
    suitability = page.locator("[data-audit=lfp] [data-judged=mains]")
    expect(suitability.locator("[data-point=rests]")).to_contain_text("drains for")
    suitability.locator("[data-rung=new]").get_by_role("button", name="Choose").click()
    expect(suitability).to_have_attribute("data-verdict", "ok")
    expect(suitability.locator("[data-point]")).to_have_count(0)
    expect(figure(page, "trial")).to_have_text("4 of 4 last")
    to_stop(page, "trial")
    expect(page.locator("[data-bank=lfp]")).to_contain_text("never")
    page.keyboard.press("Control+z")
    to_stop(page, "charging")
    bank_part(page, "audit")
    expect(suitability.locator("[data-point=rests]")).to_contain_text("drains for")


@pytest.mark.detail
def test_what_went_wrong_leads_to_its_moment(page: Page) -> None:
    """Loads that are too much for every bank: each event is opened at the moment at which it began."""
    made = page.request.post("/api/rigs/demo", data={"name": "pebble"}).json()["rigs"][0]
    at = f"/api/rigs/{made['id']}"
    seen = page.request.get(at).json()
    load = [
        {"op": "replace", "path": "/day/loads/0/draw", "value": "60 W"},
        {"op": "replace", "path": "/day/loads/0/hours", "value": 24},
    ]
    revision = (seen.get("whole") or seen)["revision"]
    assert page.request.patch(at, data={"revision": revision, "operations": load}).ok
    page.goto(f"/rigs/{made['id']}/trial")
    page.locator("[data-trial-chart] svg").first.wait_for()
    unfold(page, "moment")
    unfold(page, "events")
    page.locator("[data-event=disconnect]").first.get_by_role("button").click()
    expect(page.locator("[data-flow-state]")).to_contain_text("loads disconnected")


def test_a_newcomer_enters_sources_makes_mistakes_and_sees_the_trial_follow(page: Page) -> None:
    made = page.request.post("/api/rigs", data={"name": "Fulmar", "kind": "van", "region": "scotland"}).json()
    page.goto(f"/rigs/{made['id']}/charging")
    expect(figure(page, "charging")).to_have_text("no source yet")
    expect(page.get_by_text("What charges the bank?")).to_be_visible()
    page.locator("[data-add=solar]").click()
    page.locator("[data-add=mains]").click()
    panels = page.locator("[data-source=solar-1]")
    panels.get_by_label("Panels").fill("120 kW")
    expect(panels.get_by_role("alert")).to_contain_text("between 0 and 50\u202f000 W")
    page.reload()
    expect(panels.get_by_label("Panels")).to_have_value("120 kW")
    panels.get_by_label("Panels").fill("120")
    expect(panels.locator("[data-most]")).to_contain_text("120 W")
    expect(figure(page, "charging")).to_have_text(re.compile("2 sources"))
    # A load, and the banks go through its days.
    to_stop(page, "day")
    page.keyboard.press("n")
    page.locator("[data-path='/day/loads/0/draw']").fill("60")
    page.locator("[data-path='/day/loads/0/hours']").fill("20")
    expect(figure(page, "trial")).to_have_text(re.compile("power cut|last"))
    to_stop(page, "trial")
    before = page.locator("[data-bank=agm]").inner_text()
    unfold(page, "period")
    page.get_by_label("Nights in a row").fill("9")
    expect(page.locator("[data-bank=agm]")).not_to_have_text(before)
    page.get_by_role("textbox", name="Days").fill("99")
    expect(page.get_by_text("A trial has 3 to 30 days")).to_be_visible()
    page.get_by_role("textbox", name="Days").fill("6")
    expect(page.get_by_role("list", name="Days").get_by_role("listitem")).to_have_count(6)
    page.get_by_label("Period", exact=True).select_option("wet_week")
    expect(page.get_by_role("list", name="Days")).to_contain_text("overcast")
    page.wait_for_load_state("networkidle")
    page.reload()
    unfold(page, "period")
    expect(page.get_by_label("Period", exact=True)).to_have_value("wet_week")


def test_how_often_shows_progress_and_can_be_cancelled(page: Page, demo) -> None:
    demo("mulga", "trial")
    unfold(page, "odds")
    odds = page.locator("[data-odds]")
    odds.get_by_role("button", name="Simulate 100 weathers").click()
    odds.get_by_role("button", name="Cancel").click()
    odds.get_by_role("button", name="Simulate 100 weathers").click()
    expect(odds.locator("[data-odds-bank=pack]")).to_contain_text("power cut in 100 of 100")
    expect(odds.get_by_role("button", name="Cancel")).to_have_count(0)


@pytest.mark.detail
def test_curves_needs_measured_and_settings_answer_on_a_telephone(page: Page, demo) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    demo("kittiwake", "charging")
    bank_part(page, "curves")
    page.locator("[data-by]").select_option("shore")
    expect(page.locator("[data-charge=lfp]")).to_contain_text("h")
    page.locator("[data-tool=to]").fill("20")
    expect(page.get_by_text("The end of the charge must be above its start.")).to_be_visible()
    page.locator("[data-tool=to]").fill("90 %")
    expect(page.get_by_text("The end of the charge must be above its start.")).to_have_count(0)
    bank_part(page, "needed")
    page.locator("[data-needed=charger_a] [data-figure]").first.click()
    expect(page.get_by_label("Workings", exact=True)).to_contain_text("Charger to refill the need in a night")
    page.keyboard.press("Escape")
    page.locator("[data-own-sun]").check()
    january = page.get_by_label("Jan", exact=True)
    january.fill("1,9")
    expect(page.get_by_text("Your own sun hours.")).to_be_visible()
    bank_part(page, "measured")
    for field, text in (("amps", "21"), ("volts", "13.0"), ("soc", "40")):
        page.locator(f"[data-tool={field}]").fill(text)
    says = page.locator("[data-measured-says]")
    expect(says).to_contain_text("less than its rating")
    says.get_by_role("button", name="Use the measured value").click()
    expect(says).to_contain_text("As expected")
    bank_part(page, "settings")
    expect(page.locator("[data-sheet=shore]")).to_contain_text("Absorption")
    assert page.evaluate("document.documentElement.scrollWidth") == 390


@pytest.mark.detail
def test_the_monitor_plays_the_trial_and_gives_its_log(page: Page, demo, tmp_path) -> None:
    demo("long-haul", "trial")
    bank_part(page, "monitor")
    page.get_by_role("button", name="Play").click()
    reads = page.locator("[data-monitor-reads]")
    expect(reads).to_contain_text(re.compile(r"2\d\.\d\d V"))
    page.get_by_role("button", name="Pause").click()
    held = reads.inner_text()
    page.wait_for_timeout(400)
    assert reads.inner_text() == held
    with page.expect_download() as sent:
        page.get_by_role("link", name=re.compile("Log of the whole trial")).click()
    sent.value.save_as(tmp_path / "log.csv")
    lines = Path(tmp_path / "log.csv").read_text("utf-8-sig").splitlines()
    assert lines[0] == "time,volts [V],amps [A],soc [%],celsius [°C]" and len(lines) == 14 * 96 + 1


@pytest.mark.detail
def test_what_is_entered_of_wind_sun_and_generator_stays_and_year_and_idle_months_follow(
    page: Page, demo
) -> None:
    demo("tern-rock", "charging")
    february = page.locator("[data-source=wind]").get_by_label("Feb", exact=True)
    expect(february).to_have_value("20")
    february.fill("31,5")
    generator = page.locator("[data-source=generator]")
    generator.get_by_label("Starts below").fill("35")
    generator.get_by_label("Stops at").click()
    expect(generator.get_by_label("Starts below")).to_have_value("35 %")
    expect(february).to_have_value("31.5")
    bank_part(page, "needed")
    page.locator("[data-own-sun]").check()
    december = page.get_by_label("Dec", exact=True)
    expect(december).not_to_have_value("")
    december.fill("0.25")
    page.get_by_label("Nov", exact=True).click()
    page.reload()
    expect(december).to_have_value("0.25")
    to_stop(page, "trial")
    bank_part(page, "how-long")
    lasts = page.locator("[data-how-long]").first
    expect(lasts).to_be_visible()
    before = lasts.inner_text()
    page.locator("[data-state=worn]").click()
    expect(lasts).not_to_have_text(before)
    bank_part(page, "year")
    nights = page.locator("[data-year=served_share] [data-figure]")
    expect(nights).to_have_count(5)
    bank_part(page, "laid-up")
    expect(page.locator("[data-laid-up=old]").first).to_be_visible()
