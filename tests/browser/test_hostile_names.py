"""Whatever owners call things: every screen of a rig shows it as text, and stays as wide as the window."""

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import PATIENCE_MS
from browser.test_use import PARTS
from hostile import HOSTILE, hostile_rig
from sampled import sampled

STOPS = ("rig", "day", "need", "banks", "charging", "trial", "compare", "changeover", "log")
SCREENS = [f"{stop}?part={part}" for stop in STOPS for part in PARTS.get(stop, ("",))]


@pytest.mark.parametrize("text", sampled(HOSTILE, HOSTILE[0]))
def test_every_screen_shows_it_as_text(page: Page, text: str) -> None:
    harm: list[str] = []
    page.on("dialog", lambda dialog: (harm.append(dialog.message), dialog.dismiss()))
    page.expose_function("harmed", lambda: harm.append(page.url))
    rig = page.request.post("/api/rigs/import", data=hostile_rig(text)).json()["id"]
    page.set_viewport_size({"width": 390, "height": 844})
    for screen in ["", *SCREENS]:
        page.goto(f"/rigs/{rig}/{screen}" if screen else "/")
        expect(page.locator("h1").first).to_be_visible(timeout=PATIENCE_MS)
        # Long enough for what the screen asks for once it stands; what takes seconds has no names of its own.
        page.wait_for_timeout(400)
        assert not harm, screen
        assert page.locator("img[src=x], main script").count() == 0, screen
        width = page.evaluate("document.documentElement.scrollWidth")
        assert width <= 390, f"{screen}: {width}"
