"""A window that stays open over an upgrade: it is loaded anew where it goes, and nothing is lost."""

import re
import shutil
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, Route, expect
from served import server

from browser.conftest import PATIENCE_MS, to_stop, until
from vast_harbor.web.server.app import STATIC


def test_a_window_of_the_program_before_goes_on_in_the_newer_one(page: Page, demo) -> None:
    demo("pebble", "day")
    gone: list[str] = []

    def upgraded(route: Route) -> None:
        """The part is gone under the name that this page knows; the first page names others."""
        if route.request.resource_type == "fetch":
            route.fulfill(
                body="<script type=module src=/assets/index-newer.js></script>", content_type="text/html"
            )
        elif not gone:
            gone.append(route.request.url)
            route.fulfill(status=404, body="")
        else:
            route.continue_()

    page.route(lambda url: "/assets/TrialStop" in url or url.endswith("/"), upgraded)
    to_stop(page, "trial")
    expect(page.get_by_text("The program is newer now")).to_be_visible()
    expect(page.locator("h1")).to_have_text("The trial")
    assert gone and "/trial" in page.url


def test_a_part_that_cannot_be_fetched_is_told_and_the_page_stays(page: Page, demo) -> None:
    demo("pebble", "day")
    page.route(lambda url: "/assets/TrialStop" in url, lambda route: route.abort())
    page.locator("[data-stop=trial]").click()
    expect(page.get_by_text("could not be loaded")).to_be_visible()
    expect(page.locator("[data-stop=day]")).to_be_visible()


def built_anew(folder: Path) -> Path:
    """The interface as a later build would name its parts."""
    newer = folder / "newer"
    shutil.copytree(STATIC, newer, ignore=shutil.ignore_patterns("*.br", "*.gz"))
    names = {one.name: f"newer-{one.name}" for one in (newer / "assets").iterdir()}
    word = re.compile(r"[\w-]+(?:\.[\w-]+)+")
    for file in newer.rglob("*"):
        if file.suffix in (".js", ".css", ".json", ".html"):
            file.write_text(
                word.sub(lambda found: names.get(found[0], found[0]), file.read_text("utf-8")), "utf-8"
            )
    for old, new in names.items():
        (newer / "assets" / old).rename(newer / "assets" / new)
    return newer


def test_nothing_is_lost_over_an_upgrade_and_the_window_comes_to_the_newer_build(
    browser: Browser, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    rigs = tmp_path / "h.sqlite3"
    context = browser.new_context()
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    kept = "caches.open('vast-harbor-shell').then(c => c.keys()).then(k => k.map(r => r.url))"
    with server("serve", rigs) as (address, _):
        made = page.request.post(f"{address}/api/rigs/demo", data={"name": "pebble"}).json()["rigs"][0]
        page.goto(address)
        until(page, "navigator.serviceWorker.ready.then(() => navigator.serviceWorker.controller !== null)")
        until(page, kept + ".then(k => k.length > 100)")
        page.goto(f"{address}/rigs/{made['id']}/rig?part=use")
        nights = page.get_by_role("textbox", name="Off-grid nights a year")
        nights.fill("21")
        expect(page.locator("[data-stop=rig]")).to_contain_text("21 nights")
    nights.fill("22")
    expect(page.locator("[data-unsent]")).to_contain_text("1 change is not saved yet")
    monkeypatch.setenv("INTERFACE", str(built_anew(tmp_path)))
    newer = (str(Path(__file__).with_name("newer_build.py")),)
    with server("serve", rigs, newer, int(address.rsplit(":", 1)[1])):
        # The window of the build before goes on: what waited is sent, and its other parts open.
        expect(page.locator("[data-unsent]")).to_have_count(0)
        expect(page.locator("[data-stop=rig]")).to_contain_text("22 nights")
        to_stop(page, "trial")
        expect(page.locator("h1")).to_have_text("The trial")
        page.goto(f"{address}/rigs/{made['id']}/rig?part=use")
        expect(page.locator("script[type=module]")).to_have_attribute("src", re.compile("newer-"))
        expect(nights).to_have_value("22")
        # Of the build before nothing is kept, and all of the newer one.
        assets = "k.filter(u => u.includes('/assets/'))"
        until(page, kept + f".then(k => {assets}.length > 100 && {assets}.every(u => u.includes('newer-')))")
    page.reload()
    expect(page.locator("[data-offline]")).to_contain_text("You see the last state")
    expect(nights).to_have_value("22")
    context.close()
