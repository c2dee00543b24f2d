"""The log in a browser: a line is enough, the form stands below, nothing is lost without the network."""

import io
import re

import pytest
from PIL import Image
from playwright.sync_api import Page, Route, expect

from browser.conftest import to_stop


def enter(page: Page, line: str) -> None:
    page.get_by_label("New entry").fill(line)
    page.get_by_label("New entry").press("Enter")


def test_a_line_is_shown_as_understood_kept_changed_and_removed(page: Page, demo) -> None:
    demo("tern-rock", "log")
    expect(page.locator("[data-log-empty]")).to_be_visible()
    page.get_by_label("New entry").fill("12.9V load 34A 85% rested")
    expect(page.locator("[data-understood]")).to_contain_text("Reading, 12.90 V, 34 A out of the bank, 85 %")
    page.get_by_label("New entry").press("Enter")
    row = page.locator("[data-entry]").first
    expect(row).to_contain_text("34 A out of the bank")
    # In the months without use it is due to be laid up.
    expect(page.locator("[data-stop=log] [data-strip-figure]")).to_have_text(re.compile("entry today|due"))
    # What cannot be is told, and stays in the field.
    enter(page, "130 V")
    expect(page.locator("[data-log-problem]")).to_contain_text("130 V cannot be right")
    expect(page.get_by_label("New entry")).to_have_value("130 V")
    page.get_by_label("New entry").fill("")
    row.get_by_role("button", name="Change: Reading").click()
    form = page.locator("[data-entry-form]")
    form.get_by_label("Voltage [V]").fill("twelve")
    form.get_by_role("button", name="Save").click()
    expect(form.get_by_role("alert")).to_be_visible()
    form.get_by_label("Voltage [V]").fill("12,7")
    form.get_by_role("button", name="Save").click()
    expect(row).to_contain_text("12.70 V")
    row.get_by_role("button", name="Remove: Reading").click()
    expect(page.locator("[data-entry]")).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(row).to_contain_text("12.70 V")


@pytest.mark.detail
def test_the_form_takes_what_a_line_would_not(page: Page, demo) -> None:
    demo("tern-rock", "log")
    page.locator("[data-log-form]").click()
    form = page.locator("[data-entry-form]")
    form.get_by_label("Kind").select_option("charge")
    form.get_by_label("When").fill("2026-10-03T14:30")
    form.get_by_label("Current [A]").fill("38")
    form.get_by_label("Time [h]").fill("2h30")
    form.get_by_label("Source").select_option(label="Petrol generator")
    form.get_by_role("button", name="Save").click()
    row = page.locator("[data-log-day='2026-10-03'] [data-entry]")
    expect(row).to_contain_text("14:30")
    expect(row).to_contain_text("Petrol generator")
    page.locator("[data-log-filter]").select_option("water")
    expect(page.locator("[data-entry]")).to_have_count(0)
    with page.expect_download() as sent:
        page.get_by_role("link", name="Log as CSV").click()
    assert sent.value.suggested_filename.endswith("-log.csv")


def test_without_the_network_lines_wait_over_a_reload_and_are_sent_once_in_order(page: Page, demo) -> None:
    demo("pebble", "log")
    page.set_viewport_size({"width": 390, "height": 844})
    block = "**/api/rigs/*/log"

    def without_network(window: Page) -> None:
        window.route(
            block, lambda route: route.abort() if route.request.method == "POST" else route.continue_()
        )

    without_network(page)
    for line in ("07:00 12.5V", "07:05 12.6V", "07:10 140 %"):
        enter(page, line)
    waiting = page.locator("[data-log-waiting] li")
    expect(waiting).to_have_count(3)
    # An entry of the form waits with them.
    page.route("**/api/rigs/*/log/e*", lambda route: route.abort())
    page.locator("[data-log-form]").click()
    form = page.locator("[data-entry-form]")
    form.get_by_label("Kind").select_option("water")
    form.get_by_label("Amount").fill("0,4")
    form.get_by_role("button", name="Save").click()
    expect(waiting).to_have_count(4)
    expect(waiting.last).to_contain_text("Water, 0,4 l")
    # Another window that closes leaves its line to this one, and takes none away.
    other = page.context.new_page()
    without_network(other)
    other.goto(page.url)
    enter(other, "07:20 12.7V")
    expect(other.locator("[data-log-waiting] li")).to_have_count(5)
    other.close()
    page.reload()
    expect(waiting).to_have_count(5)
    page.unroute(block)
    page.unroute("**/api/rigs/*/log/e*")
    page.evaluate("window.dispatchEvent(new Event('online'))")
    # What can be is kept, each once; what cannot be says why and is not lost.
    expect(page.locator("[data-entry]")).to_have_count(4)
    expect(page.locator("[data-entry]").filter(has_text="Water")).to_contain_text("0.4 l")
    expect(waiting).to_have_count(1)
    expect(waiting).to_contain_text("between 0 and 100 %, not 140 %")
    texts = [row.inner_text() for row in page.locator("[data-entry]").filter(has_text="Reading").all()]
    assert all(v in text for v, text in zip(("12.70 V", "12.60 V", "12.50 V"), texts, strict=True))
    waiting.get_by_role("button").click()
    expect(waiting).to_have_count(0)
    to_stop(page, "rig")
    to_stop(page, "log")
    expect(page.locator("[data-entry]")).to_have_count(4)


def test_a_duty_is_done_with_one_touch_and_another_put_off(page: Page, demo) -> None:
    demo("tern-rock", "log")
    page.set_viewport_size({"width": 390, "height": 844})
    duty = page.locator("[data-duty=terminals]")
    expect(duty).to_have_attribute("data-state", "due")
    page.get_by_role("button", name="Done: Look at terminals").click()
    expect(duty).to_have_count(0)
    expect(page.locator("[data-entry]").first).to_contain_text("Look at terminals and hold-downs")
    page.get_by_role("button", name="Put off: Measure the starting battery").click()
    form = page.locator("[data-duty=starting] form")
    form.get_by_role("button", name="Put off").click()
    expect(form.get_by_role("alert")).to_contain_text("Say why you put it off.")
    form.get_by_label("Because").fill("laid up until spring")
    form.get_by_label("By").select_option("90")
    form.get_by_role("button", name="Put off").click()
    expect(page.locator("[data-duty=starting]")).to_have_count(0)
    page.locator("[data-later-duties]").click()
    expect(page.locator("[data-duty=starting]")).to_have_attribute("data-state", "later")


def test_the_log_of_a_monitor_is_corrected_and_imported_on_a_phone(page: Page, demo, tmp_path) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    demo("tern-rock", "log?part=monitor")
    expect(page.locator("[data-readings-empty]")).to_be_visible()
    one = tmp_path / "one.csv"
    one.write_text("volts\n12\n13\n")
    page.get_by_label("Log file of a monitor").set_input_files(one)
    expect(page.locator("[data-import-problem]")).to_contain_text("Only one column was found")
    good = tmp_path / "july.csv"
    rows = [f"{1 + i // 48:02}/07/2026 {i // 2 % 24:02}:{i % 2 * 30:02};12,{i % 9}0;-4,0" for i in range(144)]
    good.write_text("\n".join(["When;Volt;Current", *rows]))
    page.get_by_label("Log file of a monitor").set_input_files(good)
    staged = page.locator("[data-staged]")
    expect(staged).to_contain_text("july.csv, as it is understood")
    # Three days follow one another as days, and would be months apart as months.
    expect(staged.locator("[data-order]")).to_have_value("dmy")
    expect(staged.locator("[data-first-rows]")).to_contain_text("4 A out of the bank")
    staged.locator("[data-sign]").select_option("false")
    expect(staged.locator("[data-first-rows]")).to_contain_text("4 A into the bank")
    staged.locator("[data-sign]").select_option("true")
    expect(staged.locator("[data-first-rows]")).to_contain_text("4 A out of the bank")
    staged.locator("[data-import]").click()
    expect(page.locator("[data-import-found]")).to_contain_text("144 readings are new.")
    expect(page.locator("[data-reading-days] tbody tr")).to_have_count(3)
    page.reload()
    expect(page.locator("[data-reading-files]")).to_contain_text("july.csv")
    page.get_by_label("Remove july.csv with its readings").click()
    page.get_by_role("button", name="Remove it with its readings").click()
    expect(page.locator("[data-readings-empty]")).to_be_visible()


def test_what_flows_at_night_is_told_and_tried_beside_the_plan(page: Page, demo) -> None:
    demo("kittiwake", "log?part=monitor")
    use = page.locator("[data-use]")
    # Also on the first days of a season, of which nothing can be told yet.
    expect(use).to_contain_text("What stays on?")
    day = page.locator("[data-stop=day] [data-strip-figure]").inner_text()
    use.get_by_role("button", name=re.compile("of standby in the plan")).click()
    # It is tried, and can be dropped: then the plan is as it was.
    expect(page.locator("[data-stop=day]")).to_contain_text(f"was {day}")
    to_stop(page, "day")
    page.get_by_role("button", name="Discard").click()
    expect(page.locator("[data-stop=day] [data-strip-figure]")).to_have_text(day)


def test_the_health_of_the_bank_and_the_calendar_are_there_for_who_logs(page: Page, demo) -> None:
    demo("mulga", "log?part=health")
    expect(page.locator("[data-health-lasts]")).to_contain_text("left")
    expect(page.locator("[data-seen=test]")).to_have_count(5)
    page.get_by_role("link", name="Entries").click()
    # Who goes on to Health before the line has arrived sees it there all the same.
    held: list[Route] = []
    page.route(lambda url: url.endswith("/log"), lambda route: held.append(route))
    enter(page, "capacity test 12 A 8 h 20 C")
    page.get_by_role("link", name="Health").click()
    expect(page.locator("[data-seen=test]")).to_have_count(5)
    held[0].continue_()
    # One test that says otherwise is weighed, not believed alone.
    expect(page.locator("[data-seen=test]")).to_have_count(6)
    page.get_by_role("link", name="Entries").click()
    page.get_by_role("button", name="Subscribe").click()
    page.locator("[data-renew-calendar]").click()
    address = page.locator("[data-calendar-address]").first.inner_text()
    assert page.request.get(address).text().startswith("BEGIN:VCALENDAR")
    page.locator("[data-end-calendar]").click()
    expect(page.locator("[data-calendar-address]")).to_have_count(0)
    assert page.request.get(address).status == 404


@pytest.mark.whole_catalogue
def test_the_review_tells_whether_the_verdict_holds_and_tries_what_was_measured(page: Page, demo) -> None:
    demo("kittiwake", "log?part=review")
    expect(page.locator("[data-review-answer=over]")).to_be_visible()
    expect(page.locator("[data-review-same]")).to_contain_text("The measured use alone changes it")
    with page.expect_popup() as opened:
        page.get_by_role("link", name="Print this page").click()
    expect(opened.value.get_by_role("heading", level=1)).to_contain_text("Season review: Kittiwake")
    opened.value.close()
    page.get_by_role("button", name="Try the measured use").click()
    expect(page.locator("[data-stop=day]")).to_contain_text("was")
    # Tried, the plan says what the log says.
    expect(page.locator("[data-review-same]")).to_contain_text("The verdict is the same")


@pytest.mark.detail
def test_a_monitor_is_listened_to_and_its_days_are_totalled(page: Page, demo) -> None:
    demo("pebble", "log?part=monitor")
    page.get_by_role("button", name="Listen to a monitor").click()
    live = page.locator("[data-live]")
    # Where nobody answers, and where nobody may be asked.
    live.get_by_role("button", name="Listen", exact=True).click()
    expect(live.get_by_role("alert")).to_have_text("Enter the name or the address of the Signal K server.")
    live.get_by_label("Name or address").fill("8.8.8.8")
    live.get_by_role("button", name="Listen", exact=True).click()
    expect(live.get_by_role("alert")).to_contain_text("outside your own network")
    live.get_by_label("Where it listens").select_option(label="Simulated Signal K server")
    live.get_by_role("button", name="Listen", exact=True).click()
    expect(live.locator("[data-live-state]")).to_contain_text(re.compile(r"[1-9]\d* readings kept so far"))
    live.get_by_role("button", name="Stop listening").click()
    expect(live.locator("[data-live-state]")).to_contain_text(re.compile("It ended. \\d+ readings were kept"))
    # Its lines are drawn, and its days are there.
    expect(page.locator("[data-readings]")).to_be_visible()
    expect(page.locator("[data-reading-days] tbody tr").first).to_contain_text("Wh")


@pytest.mark.detail
def test_pictures_are_taken_shown_removed_and_refused_with_a_reason(page: Page, demo, tmp_path) -> None:
    (tmp_path / "label.png").write_bytes(png())
    (tmp_path / "note.png").write_bytes(b"not a picture at all")
    demo("mulga", "log")
    strip = page.locator("[data-entry]").first.locator("[data-pictures]")
    strip.locator("input").set_input_files(tmp_path / "note.png")
    expect(strip.get_by_role("alert")).to_be_visible()
    strip.locator("input").set_input_files(tmp_path / "label.png")
    expect(strip.get_by_role("img")).to_be_visible()
    expect(strip.get_by_role("alert")).to_have_count(0)
    page.reload()
    strip.get_by_role("img").click()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("Remove")).click()
    expect(strip.get_by_role("img")).to_have_count(0)
    page.get_by_role("button", name="Bring it back").click()
    expect(strip.get_by_role("img")).to_have_count(1)


def png() -> bytes:
    out = io.BytesIO()
    Image.new("RGB", (60, 40), "navy").save(out, "PNG")
    return out.getvalue()
