"""A phone in the locker: paired over the network it edits while the laptop shows it; offline the last state
stays readable."""

import re
import subprocess
import sys
from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect

from browser.conftest import PATIENCE_MS, figure, until
from vast_harbor.web.server.pairing import local_addresses

PHONE = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}


@pytest.fixture
def lan(tmp_path) -> Iterator[tuple[str, str]]:
    """Addresses of a server in the local network: as the laptop sees it, and as a phone does."""
    addresses = local_addresses()
    assert addresses, "this machine has no address in a network"
    line = [sys.executable, "-m", "vast_harbor.cli", "demo", "--lan", "--port", "0"]
    with subprocess.Popen(
        [*line, "--data", str(tmp_path / "h.sqlite3")], stdout=subprocess.PIPE, text=True
    ) as server:
        assert server.stdout is not None
        here = re.search(r"http://[\d.:]+", server.stdout.readline())
        there = re.search(r"http://[\d.:]+", server.stdout.readline())
        assert here is not None and there is not None
        yield here[0], there[0].rstrip(".")
        server.kill()


def test_a_paired_phone_edits_while_the_laptop_shows_it(browser: Browser, lan) -> None:
    here, there = lan
    laptop = browser.new_page(base_url=here, service_workers="block")
    phone = browser.new_context(base_url=there, **PHONE).new_page()
    phone.goto("/rigs/1/rig")
    # Whatever is opened, it is the pairing page.
    expect(phone.get_by_role("heading", name="Pair this phone")).to_be_visible()
    laptop.goto("/")
    laptop.locator("[data-phones-button]").click()
    laptop.locator("[data-show-code]").click()
    code = laptop.locator("[data-code-text]").inner_text().strip()
    expect(laptop.locator("[data-code] img")).to_be_visible()
    phone.get_by_label("Code").fill("WRONGONE")
    phone.get_by_role("button", name="Pair").click()
    expect(phone.get_by_role("alert")).to_contain_text("does not count")
    phone.get_by_label("Code").fill(code.lower())
    phone.get_by_label("Name of this phone").fill("Locker phone")
    phone.get_by_role("button", name="Pair").click()
    expect(phone.locator("[data-card]").first).to_be_visible(timeout=PATIENCE_MS)
    rig = phone.locator("[data-card]").first.get_attribute("data-card")
    laptop.keyboard.press("Escape")
    laptop.locator(f"[data-card='{rig}'] a").first.click()
    laptop.locator("main h1").wait_for()
    at = re.search(r"/rigs/(\d+)/", laptop.url)
    assert at is not None
    phone.goto(f"/rigs/{at[1]}/rig?part=use")
    phone.get_by_label("Off-grid nights a year").fill("77")
    expect(figure(phone, "rig")).to_contain_text("77 nights")
    # The laptop shows it as soon as it is looked at.
    laptop.evaluate("document.dispatchEvent(new Event('visibilitychange'))")
    expect(figure(laptop, "rig")).to_contain_text("77 nights", timeout=PATIENCE_MS)
    laptop.goto("/")
    laptop.locator("[data-phones-button]").click()
    laptop.get_by_role("button", name="Remove Locker phone").click()
    expect(laptop.get_by_role("button", name="Remove Locker phone")).to_have_count(0)
    phone.reload()
    expect(phone.get_by_role("heading", name="Pair this phone")).to_be_visible()
    laptop.close()
    phone.context.close()


def test_offline_the_last_state_is_read_and_edits_wait_and_are_sent_once(browser: Browser, address) -> None:
    context = browser.new_context(base_url=address, viewport={"width": 1280, "height": 800})
    page = context.new_page()
    made = page.request.post("/api/rigs/demo", data={"name": "pebble"}).json()["rigs"][0]
    page.goto("/")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    until(page, "navigator.serviceWorker.controller !== null")
    until(page, "caches.open('vast-harbor-shell').then(c => c.keys()).then(k => k.length > 20)")
    page.goto(f"/rigs/{made['id']}/rig?part=use")
    nights = page.get_by_role("textbox", name="Off-grid nights a year")
    nights.fill("21")
    expect(figure(page, "rig")).to_contain_text("21 nights")
    kept = f"caches.open('vast-harbor-last').then(c => c.match('/last/rigs/{made['id']}/rig'))"
    until(page, kept + ".then(r => r && r.text()).then(t => t && t.includes('21 nights'))")
    context.set_offline(True)
    page.reload()
    # The last state, and that it is the last one.
    expect(figure(page, "rig")).to_contain_text("21 nights")
    expect(page.locator("[data-offline]")).to_contain_text("You see the last state")
    nights.fill("22")
    expect(page.locator("[data-unsent]")).to_contain_text("1 change is not saved yet")
    context.set_offline(False)
    expect(page.locator("[data-unsent]")).to_have_count(0, timeout=PATIENCE_MS)
    expect(figure(page, "rig")).to_contain_text("22 nights")
    changes = page.request.get(f"/api/rigs/{made['id']}/changes").json()["changes"]
    assert [c["after"] for c in changes].count("22") == 1
    context.close()


@pytest.mark.detail
def test_who_goes_by_key_and_ear_finds_the_content_the_title_and_the_heading(page: Page, demo) -> None:
    demo("pebble", "rig")
    expect(page).to_have_title(re.compile(r"^Rig · Pebble.* · Vast Harbor$"))
    page.keyboard.press("Tab")
    expect(page.locator("[data-skip]")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.locator("main")).to_be_focused()
    page.keyboard.press("3")
    expect(page.locator("main h1")).to_be_focused()
    expect(page).to_have_title(re.compile("^Need · "))
    # Single keys can be switched off, and stay off.
    page.keyboard.press("?")
    page.locator("[data-single-keys]").uncheck()
    page.keyboard.press("Escape")
    page.keyboard.press("2")
    page.reload()
    page.locator("main h1").click()
    page.keyboard.press("2")
    expect(page).to_have_title(re.compile("^Need · "))


@pytest.mark.detail
def test_on_a_phone_the_header_is_low_leaves_and_comes_back(page: Page, demo) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    demo("kittiwake", "banks")
    header = page.locator("header.leaves")
    box = header.bounding_box()
    assert box is not None and box["height"] < 100
    page.mouse.wheel(0, 900)
    until(page, "document.querySelector('header.leaves').getBoundingClientRect().bottom <= 1")
    page.mouse.wheel(0, -300)
    until(page, "document.querySelector('header.leaves').getBoundingClientRect().top === 0")
    # What is pressed is as large as a thumb.
    small = page.evaluate(
        """[...document.querySelectorAll('main .btn, main .field, main summary')]
      .filter((e) => e.offsetParent && e.getBoundingClientRect().height < 43.5)
      .map((e) => e.outerHTML.slice(0, 90))"""
    )
    assert small == []
