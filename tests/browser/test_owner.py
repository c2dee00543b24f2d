"""What owners do off the straight way: money, units, windows left open, the telephone in the locker."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import bank_part, expect_choice, to_stop, unfold, unfolded


def strip(page: Page, stop: str):
    return page.locator(f"[data-stop={stop}] [data-strip-figure]")


def row(page: Page, key: str, column: int):
    return page.locator(f"[data-row={key}] td").nth(column).locator("[data-figure]")


@pytest.mark.detail
def test_a_quoted_price_and_an_extra_change_what_a_cycle_costs(page: Page, demo) -> None:
    demo("mulga", "banks")
    card = page.locator("[data-candidate=lfp]")
    card.get_by_text("Quote, extras, purchase steps").click()
    card.get_by_label("Quoted price of one battery").fill("500")
    # Four Keel 200 at 500 each.
    expect(card.get_by_role("button", name="Batteries:")).to_have_text("Batteries: A$2\u202f000")
    had = card.get_by_label("Extra to buy").count()
    card.get_by_role("button", name="Add an extra").click()
    expect(card.get_by_label("Extra to buy")).to_have_count(had + 1)
    card.get_by_label("Extra to buy").last.fill("Class T fuse")
    card.get_by_label(re.compile("^Price of (the extra|Class T fuse)")).fill("1000")
    to_stop(page, "compare")
    bank_part(page, "table")
    page.locator("[data-group=Cost]").click()
    # 2000 + 420 + 90 + 1000, and 1439 for a main fuse, straps, links, fuses of the strings and a shunt.
    expect(row(page, "outlay", 1)).to_contain_text("A$4\u202f949")
    with_extras, without = (
        float(re.sub(r"[^\d.]", "", row(page, key, 1).inner_text().split("$")[-1]))
        for key in ("per_cycle", "per_cycle_bare")
    )
    assert with_extras > without


def test_units_change_what_is_shown_and_how_it_is_read(page: Page, demo) -> None:
    demo("tern-rock", "rig?part=build")
    page.get_by_label("Units").select_option("us")
    to_stop(page, "day")
    page.get_by_role("button", name="Details of this day").click()
    temperature = page.get_by_role("textbox", name="Battery temperature on this day")
    # The ski weekend governs: −15 °C.
    expect(temperature).to_have_value("5")
    temperature.fill("50")
    to_stop(page, "need")
    # 50 °F are 10 °C, at which AGM gives 0.92.
    unfold(page, "classes")
    expect(page.locator("[data-class=agm] [data-label=Temperature]")).to_contain_text("92 %")
    to_stop(page, "compare")
    bank_part(page, "table")
    expect(row(page, "kg", 0)).to_contain_text("lb")
    to_stop(page, "rig")
    bank_part(page, "build")
    page.get_by_label("Units").select_option("metric")
    to_stop(page, "day")
    page.get_by_role("button", name="Details of this day").click()
    expect(temperature).to_have_value("10")


@pytest.mark.detail
def test_a_german_24_v_rig_reads_and_writes_as_its_owner_does(page: Page, demo) -> None:
    demo("long-haul", "rig?part=build")
    page.get_by_label("Numbers are written as").select_option("de-DE")
    to_stop(page, "charging")
    expect(page.get_by_text("as they are on your 24 V system")).to_be_visible()
    source = page.locator("[data-source]").filter(has=page.locator("[data-path$='/timeout_h']"))
    absorption = source.get_by_label("Absorption", exact=True)
    expect(absorption).to_have_value(re.compile(r"^2\d,\d$"))
    absorption.fill("14,4")
    expect(source.get_by_role("alert")).to_contain_text("for a 24 V system must be between 24 and 33 V")
    absorption.fill("28,9")
    expect(source.get_by_role("alert")).to_have_count(0)
    page.reload()
    expect(absorption).to_have_value("28,9")
    to_stop(page, "compare")
    bank_part(page, "money")
    page.locator("[data-extras-for]").select_option("lfp")
    # 1.250 are a thousand and more here, not one and a quarter.
    page.get_by_role("button", name="Add an extra").click()
    price = page.get_by_label("Price of the extra").last
    price.fill("1.250")
    expect(page.locator("[data-extras] dl [data-figure$='.extra_cost']")).to_contain_text(".")
    price.press("Tab")
    expect(price).to_have_value("1250")


@pytest.mark.detail
def test_changing_the_voltage_marks_banks_that_no_longer_fit(page: Page, demo) -> None:
    demo("long-haul", "rig?part=use")
    page.get_by_label("System voltage").select_option("12")
    expect(strip(page, "rig")).to_contain_text("12 V")
    to_stop(page, "banks")
    card = page.locator("[data-candidate=lfp]")
    card.locator("[data-layout] > summary").click()
    card.get_by_role("button", name=re.compile("in series: one more")).click()
    expect(card).to_contain_text("in series gives 24 V, but the system has 12 V")
    page.get_by_role("button", name=re.compile("^Undo")).click()
    expect(card).not_to_contain_text("but the system has")


@pytest.mark.detail
def test_removing_the_old_bank_removes_its_weight(page: Page, demo) -> None:
    demo("pebble", "compare?part=table")
    page.locator("[data-group='Weight and space']").click()
    expect(page.locator("[data-row=kg_change]")).to_have_count(1)
    to_stop(page, "rig")
    page.get_by_role("button", name="There is none").click()
    to_stop(page, "compare")
    bank_part(page, "table")
    expect(page.locator("[data-row=kg]")).to_have_count(1)
    expect(page.locator("[data-row=kg_change]")).to_have_count(0)
    to_stop(page, "rig")
    page.get_by_role("button", name="Enter the old bank").click()
    page.get_by_label("Class").select_option("lfp")
    expect(page.get_by_label("Voltage of one battery")).to_have_value("12.8")


def test_what_was_typed_while_the_program_was_away_is_kept(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    page.context.set_offline(True)
    nights = page.get_by_role("textbox", name="Off-grid nights a year")
    nights.fill("31")
    expect(page.get_by_role("alert")).to_contain_text("The program does not answer. Your changes are kept")
    page.context.set_offline(False)
    page.reload()
    expect(nights).to_have_value("31")
    expect(strip(page, "rig")).to_contain_text("31 nights")


def test_appliances_are_added_by_keyboard_alone(page: Page, demo) -> None:
    demo("pebble", "day")
    loads = page.locator(".load")
    had = loads.count()
    picker = page.get_by_label("Add from the list of appliances")
    picker.focus()
    page.keyboard.type("kettle")
    expect_choice(page, "Kettle")
    page.keyboard.press("Enter")
    expect(loads).to_have_count(had + 1)
    # The next one can be looked for at once.
    expect(picker).to_be_focused()
    expect(loads.last).to_contain_text("Kettle, small")
    unfolded(loads.last)
    expect(loads.last.get_by_label(re.compile("^Supply"))).to_have_value("ac")
    loads.last.get_by_label(re.compile("^Kind of use")).select_option("standby")
    # 900 W round the clock, through an inverter of 0.9: 24 kWh and an idle of nothing.
    expect(loads.last).to_contain_text("24.0 kWh")
    loads.last.get_by_label(re.compile("^Kind of use")).select_option("uses")
    expect(loads.last.get_by_label(re.compile("^Minutes"))).to_have_value("5")


def test_keys_lead_along_the_passage_and_are_listed(page: Page, demo) -> None:
    demo("kittiwake", "rig")
    page.locator("main h1").click()
    headings = ("The rig", "The day", "The need", "The banks", "Charging", "The trial", "The verdict")
    for key, heading in reversed(list(enumerate(headings, 1))):
        page.keyboard.press(str(key))
        expect(page.locator("main h1")).to_have_text(heading)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("Open the workings of the selected figure")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("0")
    expect(page.get_by_role("heading", name="Vast Harbor")).to_be_visible()


def test_commands_are_found_by_their_words(page: Page, demo) -> None:
    demo("pebble", "rig")
    page.locator("main h1").click()
    page.keyboard.press("/")
    page.keyboard.type("add kettle")
    expect_choice(page, "Add Kettle")
    page.keyboard.press("Enter")
    expect(page.locator(".load").last).to_contain_text("Kettle, small")
    page.get_by_role("button", name="Commands").click()
    page.keyboard.type("long life")
    expect_choice(page, "Use the house rule “Long life”")
    page.keyboard.press("Enter")
    expect(strip(page, "need")).to_contain_text("1 night")  # Pebble overrides the nights
    page.get_by_role("button", name="Commands").click()
    page.keyboard.type("workings nights")
    expect_choice(page, "Nights without")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Workings", exact=True)).to_contain_text("Nights without charging")
    page.get_by_role("button", name="Commands").click()
    page.keyboard.type("nonsense")
    expect(page.get_by_role("dialog")).to_contain_text("Nothing found.")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)


@pytest.mark.detail
def test_what_was_changed_is_listed_over_a_reload(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    page.get_by_role("textbox", name="Off-grid nights a year").fill("31")
    expect(strip(page, "rig")).to_contain_text("31 nights")
    page.get_by_label("Kind").select_option("van")
    expect(page.get_by_role("button", name="Undo: Kind")).to_be_visible()
    page.reload()
    page.get_by_role("button", name="Commands").click()
    page.keyboard.type("recent changes")
    expect_choice(page, "Recent changes")
    page.keyboard.press("Enter")
    edits = page.get_by_label("Changes").get_by_role("listitem")
    expect(edits).to_have_count(2)
    expect(edits.nth(0)).to_contain_text("caravan → van")
    expect(edits.nth(1)).to_contain_text("Off-grid nights a year")
    expect(edits.nth(1)).to_contain_text("9 → 31")
    page.get_by_role("button", name="Undo the last change").click()
    expect(edits.nth(0)).to_have_css("text-decoration-line", "line-through")


@pytest.mark.detail
def test_the_theme_is_kept(page: Page) -> None:
    page.get_by_role("button", name=re.compile("theme")).click()
    theme = page.locator("html").get_attribute("data-theme")
    page.reload()
    expect(page.locator("html")).to_have_attribute("data-theme", theme or "")


@pytest.mark.detail
@pytest.mark.whole_catalogue
def test_pictures_have_the_same_as_a_table(page: Page, demo) -> None:
    demo("long-haul", "compare?part=money")
    figures = page.locator("figure")
    expect(figures).to_have_count(3)
    for i, unit in enumerate(("€", "€", "kWh")):
        figures.nth(i).get_by_text("Show as a table").click()
        rows = figures.nth(i).locator("tbody tr")
        assert rows.count() >= 7
        expect(rows.first).to_contain_text(unit)
    # The last line of the flooded bank's money is its lifetime cost.
    spent = figures.nth(1).locator("tbody tr", has_text="Hollin").last.locator("td").last.inner_text()
    bank_part(page, "table")
    assert spent in row(page, "lifetime", 1).inner_text()


def test_a_load_is_added_on_a_telephone(page: Page, demo) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    demo("pebble", "day")
    had = page.locator(".load").count()
    page.get_by_role("button", name="Add an empty load").click()
    expect(page.locator(".load")).to_have_count(had + 1)
    last = page.locator(".load").last
    last.get_by_label("Name").fill("Pump")
    last.get_by_label(re.compile("^Power of")).fill("10 W")
    last.get_by_label(re.compile("^Hours")).fill("0h30")
    expect(last).to_contain_text("5 Wh")
    last.locator("[data-figure$=wh]").click()
    panel = page.get_by_label("Workings", exact=True)
    expect(panel).to_contain_text("Pump, taken from the bank")
    box = panel.bounding_box()
    assert box is not None and box["width"] == 390 and box["y"] > 200
    panel.get_by_role("button", name="Close workings").click()
    expect(panel).to_have_count(0)


@pytest.mark.detail
@pytest.mark.parametrize("url", ["/rigs/999999/day", "/nowhere/at/all"])
def test_an_address_that_leads_nowhere_leads_back(page: Page, url) -> None:
    page.goto(url)
    link = page.get_by_role("link", name="Back to Harbor")
    expect(link.or_(page.get_by_role("heading", name="Vast Harbor"))).to_be_visible()


@pytest.mark.detail
def test_loads_go_out_as_csv_and_a_file_is_looked_through_first(page: Page, demo, tmp_path) -> None:
    demo("pebble", "day")
    had = page.locator(".load").count()
    with page.expect_download() as sent:
        page.get_by_role("link", name="Loads as CSV").click()
    path = tmp_path / "loads.csv"
    sent.value.save_as(path)
    text = path.read_text("utf-8-sig")
    assert text.startswith("name,supply,draw") and "LED lights,dc,2.5 W,5" in text
    path.write_text(text + "Winch,dc,70 A,1,hours,25,0,0,1,,,\n", "utf-8")
    page.get_by_label("CSV file of loads").set_input_files(path)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text(f"{had} of {had + 1} can be added")
    expect(dialog).to_contain_text("hours: A day has 24 hours, so 25 h is not possible.")
    dialog.get_by_role("button", name=f"Add {had} loads").click()
    expect(page.locator(".load")).to_have_count(2 * had)
    page.get_by_role("button", name="Undo: add loads from a file").click()
    expect(page.locator(".load")).to_have_count(had)
    path.write_text("nothing", "utf-8")
    page.get_by_label("CSV file of loads").set_input_files(path)
    expect(page.get_by_role("alert")).to_contain_text("The heading has no column name and draw")


@pytest.mark.detail
def test_a_capacity_test_tells_what_is_left_of_the_old_bank(page: Page, demo) -> None:
    demo("pebble", "rig")
    page.get_by_label("Current").fill("4")
    page.get_by_label("Time", exact=True).fill("12h30")
    # 4 A for 750 minutes are 50 Ah; a new 85 Ah battery (k 1.25) gives 85 · (4.25/4)^0.25 = 86.3 Ah, times
    # k_T 0.98 at the usual 20 °C: 59 %.
    told = page.locator("[data-tested]")
    expect(told).to_contain_text("59 %")
    expect(told).to_contain_text("It still lasts")
    told.get_by_role("button", name="State of health").click()
    expect(page.get_by_label("Workings", exact=True)).to_contain_text("Other values")
    page.get_by_label("Current").fill("40")
    expect(page.locator("[data-finding=test_current]")).to_contain_text("more than a fifth")
