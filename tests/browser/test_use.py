"""Mistakes, undo, workings, keys, narrow screens, and readable contrast."""

import json
import re
from pathlib import Path
from urllib.parse import quote

import pytest
from playwright.sync_api import Page, Request, expect

from browser.conftest import PATIENCE_MS, bank_part, expect_choice, to_stop, unfold, unfolded
from sampled import THOROUGH, sampled
from vast_harbor.web.plan.field_help import place_of

PARTS = {
    "rig": sampled(("use", "place", "space", "build"), "use"),
    "banks": sampled(("find", "locker", "wiring", "volts", "batteries"), "wiring"),
    "charging": sampled(("audit", "curves", "needed", "measured", "settings"), "audit"),
    "trial": sampled(("how-long", "year", "laid-up", "monitor"), "year"),
    "compare": sampled(("table", "money", "doubt", "when", "loads"), "money"),
    "changeover": sampled(("shopping", "work", "settings", "proof", "papers"), "proof"),
    "log": sampled(("monitor", "health", "so-far", "review"), "so-far"),
}
# Pages that axe looks at: all stops and some of their parts.
AXED = sampled(
    (
        *PARTS, "day", "need", "charging?part=audit", "trial?part=year", "compare?part=table",
        "compare?part=money", "compare?part=doubt", "compare?part=loads", "changeover?part=shopping",
        "changeover?part=work", "changeover?part=settings", "changeover?part=proof",
    ),
    "rig", "day", "banks", "trial", "compare?part=money", "changeover?part=proof",
)  # fmt: skip
FIELDS = """[...document.querySelectorAll('[data-path], [data-help]')].map((field) =>
  field.dataset.path ?? field.dataset.help)"""
THEMES = ("day", "night")
RULES = {"day": "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']", "night": "['color-contrast']"}
# Of its best practices those that somebody who listens to a page finds the way by.
GUIDES = {
    "region": {"enabled": True},
    "heading-order": {"enabled": True},
    "aria-allowed-role": {"enabled": True},
}
AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"


def test_wrong_values_are_told_at_their_place_and_kept_over_a_reload(page: Page, demo) -> None:
    demo("pebble", "day")
    before = page.locator("[data-stop=day] [data-strip-figure]").inner_text()
    unfolded(page.locator(".load").first)
    hours = page.locator("[data-path='/day/loads/0/hours']")
    hours.fill("25")
    page.locator("[data-path='/day/loads/0/duty']").fill("1,4")
    problems = page.locator("#problems-lights")
    expect(problems).to_contain_text("A day has 24 hours, so 25 h is not possible.")
    expect(problems).to_contain_text("A duty cycle must be between 0 and 100 %, not 140 %.")
    expect(hours).to_have_attribute("aria-invalid", "true")
    page.reload()
    expect(hours).to_have_value("25")
    expect(problems).to_contain_text("25 h is not possible")
    assert page.locator("[data-stop=day] [data-strip-figure]").inner_text() == before
    page.get_by_label("Remove LED lights").click()
    expect(page.locator("#problems-lights")).to_have_count(0)
    expect(page.locator("[aria-invalid]")).to_have_count(0)


@pytest.mark.detail
def test_a_huge_or_foreign_file_is_refused_with_a_sentence(page: Page, tmp_path) -> None:
    huge = tmp_path / "film.json"
    huge.write_bytes(b" " * 50_000_000)
    page.get_by_label("Rig file").set_input_files(huge)
    expect(page.get_by_role("alert")).to_contain_text("film.json has 50 MB")
    (tmp_path / "x.json").write_text("hello")
    page.get_by_label("Rig file").set_input_files(tmp_path / "x.json")
    expect(page.get_by_role("alert")).to_contain_text("not JSON")


def test_undo_by_key_takes_back_typing_too(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    nights = page.get_by_label("Off-grid nights a year", exact=True)
    nights.fill("120")
    expect(page.locator("[data-stop=rig] [data-strip-figure]")).to_contain_text("120 nights")
    nights.press("Control+z")
    expect(nights).to_have_value("9")
    expect(page.locator("[data-stop=rig] [data-strip-figure]")).to_contain_text("9 nights")
    nights.press("Control+Shift+Z")
    expect(nights).to_have_value("120")


def test_workings_open_by_key_lead_on_and_hold_the_override(page: Page, demo) -> None:
    demo("mulga", "need")
    page.keyboard.press("3")
    unfold(page, "classes")
    page.locator("[data-class=agm] [data-label='Rated capacity needed'] [data-figure]").first.focus()
    page.keyboard.press("w")
    panel = page.get_by_label("Workings", exact=True)
    expect(panel).to_contain_text("Rated capacity needed, AGM")
    panel.get_by_role("button", name="Amp-hours before the discharge rate").click()
    panel.get_by_role("button", name="Usable depth of discharge, AGM").click()
    expect(panel).to_contain_text("Long life")
    field = panel.get_by_label("Your own value for DoD")
    field.fill("80 %")
    expect(panel).to_contain_text("you changed it from the house rule")
    expect(page.locator("[data-class=agm] input").first).to_have_value("80 %")
    panel.get_by_role("button", name="Back to 50 %").click()
    expect(page.locator("[data-class=agm] input").first).to_have_value("50 %")
    page.keyboard.press("Escape")
    expect(panel).to_have_count(0)


@pytest.mark.detail
def test_house_rule_moves_the_need(page: Page, demo) -> None:
    demo("kittiwake", "need")
    figure = page.locator("[data-stop=need] [data-strip-figure]")
    expect(figure).to_contain_text("· 2 nights")
    unfold(page, "rules")
    page.locator("[data-rule=long_life]").click()
    # The stays are of two nights: more than these is asked of no bank.
    expect(figure).to_contain_text("3.31 kWh · 2 nights")
    page.locator("[data-rule=to_label]").click()
    expect(figure).to_contain_text("· 1 night")


def test_sliders_move_the_strip_and_are_one_edit(page: Page, demo) -> None:
    demo("kittiwake", "need")
    figure = page.locator("[data-stop=need] [data-strip-figure]")
    slider = page.locator("[data-slider=nights]")
    slider.focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
    expect(figure).to_contain_text("· 3.5 nights")
    expect(page.locator("[data-path='/plan/overrides/nights']")).to_have_value("3.5")
    unfold(page, "classes")
    before = page.locator("[data-class=agm]").inner_text()
    page.locator("[data-slider='dod.agm']").fill("0.8")
    expect(page.locator("[data-class=agm] input").first).to_have_value("80 %")
    assert page.locator("[data-class=agm]").inner_text() != before
    page.get_by_role("button", name="Undo: Usable depth of discharge, AGM").click()
    page.get_by_role("button", name="Undo: Nights without charging").click()
    expect(figure).to_contain_text("· 2 nights")


@pytest.mark.detail
def test_bank_follows_the_need_until_it_is_stepped(page: Page, demo) -> None:
    demo("mulga", "banks")
    card = page.locator("[data-candidate=lfp]")
    expect(card).to_contain_text("matches the need")
    card.locator("[data-layout] > summary").click()
    strings = card.get_by_role("group", name="in parallel").get_by_role("status")
    had = int(strings.inner_text())
    card.get_by_role("button", name="in parallel: one less").click()
    expect(strings).to_have_text(str(had - 1))
    expect(card).to_contain_text("less than the")
    card.get_by_role("button", name="Match the need").click()
    expect(strings).to_have_text(str(had))
    expect(card).not_to_contain_text("less than the")


@pytest.mark.detail
def test_own_battery_that_cannot_make_the_voltage_says_so(page: Page, demo) -> None:
    demo("pebble", "banks")
    bank_part(page, "batteries")
    page.get_by_role("button", name="Enter a battery from its label").click()
    own = page.locator("[data-own=own-2]")
    own.get_by_label("Class", exact=True).select_option("agm")
    own.get_by_label("Voltage", exact=True).fill("7")
    expect(own.get_by_role("alert")).to_contain_text("AGM batteries do not come in 7 V")
    own.get_by_label("Voltage", exact=True).fill("8")
    expect(own.get_by_role("alert")).to_have_count(0)
    page.get_by_role("tab", name="AGM").click()
    expect(page.get_by_role("tabpanel")).to_contain_text("8 V batteries cannot make 12 V")


WIDTHS = (390, 768, 1280, 1920)


def sideways(page: Page, widths: tuple[int, ...] = WIDTHS) -> list[int]:
    """Widths at which the page that is open is wider than the window."""
    found = []
    for width in widths:
        page.set_viewport_size({"width": width, "height": 844})
        # Pictures follow the window a moment later.
        for _ in range(20):
            wide = page.evaluate("document.documentElement.scrollWidth") > width
            if not wide:
                break
            page.wait_for_timeout(100)
        if wide:
            found.append(width)
    return found


def asked_of(page: Page) -> set[Request]:
    """What a page asks from now on and is not yet answered; what it listens to is not among it."""
    asked: set[Request] = set()
    page.on("request", lambda request: asked.add(request) if request.resource_type == "fetch" else None)
    for done in ("requestfinished", "requestfailed"):
        page.on(done, lambda request: asked.discard(request))
    return asked


def until_answered(page: Page, asked: set[Request]) -> None:
    """Wait until a page asks nothing for a moment."""
    quiet = 0
    for _ in range(PATIENCE_MS // 50):
        page.wait_for_timeout(50)
        quiet = 0 if asked else quiet + 1
        if quiet == 2:
            return
    raise AssertionError([request.url for request in asked])


# Stops whose pages are looked at together: two halves of about the same work.
HALVES = (("rig", "day", "need", "banks", "changeover"), ("charging", "trial", "compare", "log"))


@pytest.mark.parametrize("stops", HALVES, ids="-".join)
def test_no_page_scrolls_sideways_and_all_are_accessible_with_help(page: Page, demo, stops) -> None:
    demo("long-haul", "changeover")
    page.locator("[data-choose=lfp]").click()
    page.locator("[data-chosen]").wait_for()
    asked = asked_of(page)
    rig = page.url.rsplit("/", 1)[0]
    fields: set[str] = set()
    for stop, part in ((of, part) for of in stops for part in ("", *PARTS.get(of, ()))):
        page.set_viewport_size({"width": 1280, "height": 844})
        bank_part(page, part) if part else to_stop(page, stop)
        shown = f"{stop}?part={part}" if part else stop
        until_answered(page, asked)
        if shown == "compare?part=table":
            unfold(page, "label")
        # What a section holds is made when it is opened.
        for _ in range(2):
            page.evaluate("for (const more of document.querySelectorAll('details')) more.open = true")
            until_answered(page, asked)
        # The parts of a stop share its frame: they are tried on a phone and on a usual screen.
        assert sideways(page, WIDTHS[::2] if part else sampled(WIDTHS, *WIDTHS[::2])) == [], shown
        fields |= set(page.evaluate(FIELDS))
        if shown in AXED:
            assert seen_by_axe(page, ("day",) if part else THEMES) == [], shown
    assert len(fields) > (100 if THOROUGH else 20)
    api = rig.replace("/rigs/", "/api/rigs/")
    one_of_each = {place_of(pointer) + pointer.partition("overrides")[2]: pointer for pointer in fields}
    asked = {
        pointer: page.request.get(f"{api}/help?field={quote(pointer)}") for pointer in one_of_each.values()
    }
    assert [pointer for pointer, answer in asked.items() if answer.status != 200] == []


@pytest.mark.detail
def test_harbor_and_guided_start_do_not_scroll_sideways_and_are_accessible(page: Page, demo) -> None:
    demo("tern-rock", "rig")
    rig = page.url.rsplit("/", 1)[0]
    for url in ("/", "/start", f"{rig}/start?question=old"):
        page.goto(url)
        page.locator("main").wait_for()
        page.wait_for_load_state("networkidle", timeout=3 * PATIENCE_MS)
        assert sideways(page) == [], url
        assert seen_by_axe(page) == [], url


def seen_by_axe(page: Page, themes: tuple[str, ...] = THEMES) -> list[tuple[str, str, str]]:
    """What breaks a rule of accessibility: all rules on a wide page by day, colours on a phone by night."""
    found = []
    for theme in themes:
        page.set_viewport_size({"width": {"day": 1280, "night": 390}[theme], "height": 844})
        found += failures(page, [theme])
    return found


def failures(page: Page, themes: list[str]) -> list[tuple[str, str, str]]:
    """What breaks a rule of accessibility on the page as it stands, in each of some themes."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text("utf-8"))
    told = []
    for theme in themes:
        page.evaluate(f"document.documentElement.dataset.theme = '{theme}'")
        # Only what breaks a rule is put together: the rest would take longer than the rules.
        guides = json.dumps(GUIDES if theme == "day" else {})
        options = f"{{runOnly: {RULES[theme]}, rules: {guides}, resultTypes: ['violations']}}"
        found = page.evaluate(f"axe.run(document, {options})")
        told += [(theme, v["id"], v["nodes"][0]["html"][:160]) for v in found["violations"]]
    return told


def test_every_dialog_is_accessible_and_gives_the_focus_back(page: Page, demo) -> None:
    demo("mulga", "day")
    rig = page.url.rsplit("/", 1)[0]
    csv = {
        "name": "loads.csv",
        "mimeType": "text/csv",
        "buffer": b"Appliance;Watts;Hours per day\nLamp;8;4\nWrong;x;2",
    }
    commands = sampled(
        ("Keyboard shortcuts", "Recent changes", "Read a battery label"), "Read a battery label"
    )

    def palette() -> None:
        page.locator("nav a").first.focus()
        page.keyboard.press("/")

    def command(name: str) -> None:
        palette()
        page.get_by_role("combobox").last.fill(name)
        expect_choice(page, name)
        page.keyboard.press("Enter")

    openers = {
        "/": [
            lambda: page.locator("[data-phones-button]").click(),
            lambda: page.get_by_role("button", name="Backup and restore").click(),
        ],
        f"{rig}/day": [
            palette,
            *(lambda name=name: command(name) for name in commands),
            lambda: page.locator("main input[type=file]").first.set_input_files(csv),
        ],
    }
    for url, ways in openers.items():
        page.goto(url)
        for way in ways:
            way()
            expect(page.locator("[id^=headlessui-dialog-panel]")).to_be_visible()
            page.wait_for_load_state("networkidle", timeout=4 * PATIENCE_MS)
            assert failures(page, sampled(RULES, "day")) == []
            page.keyboard.press("3")  # Goes nowhere behind an open dialog.
            page.keyboard.press("Escape")
            expect(page.get_by_role("dialog")).to_have_count(0)
            expect(page.locator(":focus")).to_have_count(1)
        expect(page).to_have_url(re.compile(f"{url}$"))


@pytest.mark.detail
def test_help_opens_by_key_and_by_touch(page: Page, demo) -> None:
    demo("mulga", "rig?part=use")
    card = page.locator("[data-explanation]")
    nights = page.get_by_label("Off-grid nights a year", exact=True)
    nights.focus()
    page.keyboard.press("F1")
    expect(card).to_contain_text("Where to find it")
    expect(card).to_contain_text("Count them in last year’s calendar")
    expect(nights).to_be_focused()
    page.keyboard.press("Escape")
    expect(card).to_have_count(0)
    page.set_viewport_size({"width": 390, "height": 844})
    bank_part(page, "build")
    page.get_by_label("Units", exact=True).select_option("us")
    bank_part(page, "space")
    height = page.locator("[data-path='/rig/locker_height']")
    expect(height).to_have_value(re.compile(r"^\d\d?\."))
    height.click()
    page.locator("[data-opens-help]").click()
    # In inches, as the rig has it now.
    expect(card).to_contain_text("need 2 in above the case")
    page.locator("main h1").click()
    expect(card).to_have_count(0)
