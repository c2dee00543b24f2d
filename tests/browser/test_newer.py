"""A window that stays open over an upgrade: it is loaded anew where it goes, and nothing is lost."""

from playwright.sync_api import Page, Route, expect

from browser.conftest import to_stop


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
