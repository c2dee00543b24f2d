"""The harbor: rigs that wait to be made, pages and searches, backup and restore, deleted rigs, About."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import PATIENCE_MS, bank_part, figure, new_rig_form, on_stop


@pytest.fixture(scope="module")
def address(own_address: str) -> str:
    """What is restored here is the whole database."""
    return own_address


def card(page: Page, name: str):
    return page.locator(f"[data-card='{name}']")


@pytest.mark.detail
def test_rigs_made_and_choices_taken_while_nobody_answers_are_stored_by_themselves(page: Page, demo) -> None:
    name = demo("pebble", "rig")
    page.goto("/")
    card(page, name).wait_for()
    page.context.set_offline(True)
    new_rig_form(page)
    page.get_by_label("Name of the new rig").fill("Skua in the dark")
    page.get_by_role("button", name="Create rig").click()
    card(page, name).get_by_role("button", name="Copy").click()
    waiting = page.locator("[data-waiting] li")
    expect(waiting).to_have_count(2)
    expect(waiting.first).to_contain_text("Skua in the dark is not saved yet")
    # What is not wanted any more can be dropped.
    waiting.nth(1).get_by_role("button", name="Discard").click()
    expect(waiting).to_have_count(1)
    page.context.set_offline(False)
    page.get_by_role("heading", name="Skua in the dark").or_(
        page.locator("header", has_text="Skua in the dark")
    ).first.wait_for(timeout=PATIENCE_MS)  # fmt: skip
    assert "/rig" in page.url
    found = page.request.get("/api/rigs?search=in+the+dark").json()
    assert found["found"] == 1
    # A choice shows what was chosen while it waits, and is stored then.
    bank_part(page, "use")
    kind = page.get_by_label("Kind", exact=True)
    page.context.set_offline(True)
    kind.select_option("cabin")
    expect(page.locator("[data-unsent]")).to_contain_text("1 change is not saved yet")
    page.get_by_role("button", name=re.compile("theme", re.I)).first.click()
    expect(kind).to_have_value("cabin")
    page.context.set_offline(False)
    expect(page.locator("[data-unsent]")).to_have_count(0, timeout=PATIENCE_MS)
    page.reload()
    expect(kind).to_have_value("cabin")


@pytest.mark.detail
def test_what_the_program_says_of_its_disk_is_shown_and_the_edit_waits(page: Page, demo) -> None:
    demo("pebble", "rig?part=use")
    said = "The disk is full: the file cannot grow. Make room on it. What you typed is kept in this browser."
    problems = {"problems": [{"path": "", "message": said, "interpretations": []}]}
    page.route(
        "**/api/rigs/*",
        lambda r: r.fulfill(status=507, json=problems) if r.request.method == "PATCH" else r.continue_(),
    )
    page.get_by_role("textbox", name="Off-grid nights a year").fill("29")
    expect(page.locator("[data-unsent]")).to_contain_text(said)
    page.unroute("**/api/rigs/*")
    expect(figure(page, "rig")).to_contain_text("29 nights", timeout=PATIENCE_MS)


@pytest.fixture
def fleet(page: Page) -> list[str]:
    """Thirty rigs of one name."""
    names = [f"Skerry {i:02}" for i in range(30)]
    for name in names:
        assert page.request.post("/api/rigs", data={"name": name, "kind": "boat"}).ok
    yield names
    for rig in page.request.get("/api/rigs?search=skerry").json()["rigs"] * 2:
        page.request.delete(f"/api/rigs/{rig['id']}")
    for rig in page.request.get("/api/rigs?search=skerry").json()["rigs"]:
        page.request.delete(f"/api/rigs/{rig['id']}")


@pytest.mark.detail
def test_many_rigs_are_turned_over_by_pages_and_found_by_words(page: Page, fleet) -> None:
    page.goto("/")
    expect(page.locator("[data-card]")).to_have_count(24)
    expect(card(page, fleet[-1])).to_be_visible()
    page.get_by_role("button", name="Next page").click()
    expect(card(page, fleet[0])).to_be_visible()
    page.locator("[data-search]").fill("boat skerry 07")
    expect(page.locator("[data-card]")).to_have_count(1)
    expect(page.get_by_text(re.compile(r"^1 of \d+ rigs"))).to_be_visible()
    page.locator("[data-search]").fill("no such rig")
    expect(page.get_by_text("No rig matches “no such rig”.")).to_be_visible()
    page.locator("[data-search]").fill("")
    expect(page.locator("[data-card]")).to_have_count(24)


@pytest.mark.detail
def test_all_rigs_go_into_one_file_and_come_back_and_deleted_ones_too(page: Page, demo, tmp_path) -> None:
    kept, gone = demo("pebble", "rig"), demo("mulga", "rig")
    page.goto("/")
    card(page, gone).get_by_role("button", name="Delete").click()
    expect(card(page, gone)).to_have_count(0)
    # By keyboard alone.
    page.get_by_role("button", name="Backup and restore").focus()
    page.keyboard.press("Enter")
    dialog = page.locator("[data-kept]")
    expect(dialog).to_contain_text("harbor.sqlite3")
    with page.expect_download() as sent:
        dialog.get_by_role("link", name="All my rigs as one file").click()
    file = tmp_path / "all.sqlite3"
    sent.value.save_as(file)
    assert re.fullmatch(r"vast-harbor-\d{4}-\d\d-\d\d\.sqlite3", sent.value.suggested_filename)
    dialog.get_by_role("button", name=f"Restore {gone}").click()
    expect(card(page, gone)).to_have_count(1)
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    card(page, kept).get_by_role("button", name="Delete").click()
    expect(card(page, kept)).to_have_count(0)
    # What is no such file is refused with a sentence, and nothing is touched.
    page.get_by_role("button", name="Backup and restore").click()
    words = tmp_path / "words.sqlite3"
    words.write_text("words")
    dialog.locator("input[type=file]").set_input_files(words)
    dialog.locator("[data-confirm]").get_by_role("button", name="Restore").click()
    expect(dialog.get_by_role("alert").first).to_contain_text("This file is not a database of rigs")
    dialog.locator("input[type=file]").set_input_files(file)
    expect(dialog.locator("[data-confirm]")).to_contain_text("replaces everything here")
    dialog.locator("[data-confirm]").get_by_role("button", name="Restore").click()
    # As it was when the file was made: one is there again, the other one deleted.
    expect(card(page, kept)).to_have_count(1)
    expect(card(page, gone)).to_have_count(0)
    expect(page.get_by_text(re.compile(r"^Restored: \d+ rigs?\."))).to_be_visible()


def test_a_card_says_in_words_where_there_is_something_to_put_right(page: Page, demo) -> None:
    name = demo("tern-rock", "rig")
    page.goto("/")
    expect(card(page, name)).to_contain_text("Put right first: a reading of the changeover")


def test_deleting_a_rig_can_be_undone(page: Page, demo) -> None:
    name = demo("pebble", "rig")
    page.goto("/")
    card(page, name).get_by_role("button", name="Delete").click()
    expect(card(page, name)).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(card(page, name)).to_have_count(1)


def test_a_double_click_makes_one_rig_and_a_deleted_one_comes_back_without_the_toast(page: Page) -> None:
    had = page.request.get("/api/rigs").json()["all"]
    page.locator("[data-without-questions]").dblclick()
    on_stop(page, "rig")
    assert page.request.get("/api/rigs").json()["all"] == had + 1
    # An empty rig judges nothing.
    expect(figure(page, "compare")).to_have_text("—")
    expect(figure(page, "trial")).to_have_text("—")
    page.goto("/")
    name = page.locator("[data-card]").first.get_attribute("data-card")
    card(page, name).get_by_role("button", name="Delete").click()
    expect(card(page, name)).to_have_count(0)
    page.locator("main").click(position={"x": 3, "y": 3})
    page.keyboard.press("Control+z")
    expect(card(page, name)).to_have_count(1)


@pytest.mark.detail
def test_about_tells_what_it_is_made_of_and_where_the_rigs_lie(page: Page) -> None:
    page.goto("/")
    page.get_by_role("link", name="About").click()
    expect(page.get_by_role("heading", name="Privacy and limits")).to_be_visible()
    expect(page.get_by_text("harbor.sqlite3")).to_be_visible()
    for package in ("Flask", "vue"):
        row = page.get_by_role("button", name=re.compile(f"^{package} "))
        row.click()
        expect(row).to_have_attribute("aria-expanded", "true")
        expect(page.locator("pre")).to_contain_text(re.compile("copyright", re.I))


@pytest.mark.detail
def test_a_rig_with_its_log_and_pictures_goes_out_and_comes_in_again(page: Page, demo, tmp_path) -> None:
    name = demo("mulga", "log")
    expect(page.locator("[data-entry]").nth(5)).to_be_visible()
    held = page.locator("[data-entry]").count()
    with page.expect_download() as sent:
        page.locator("[data-archive]").click()
    file = tmp_path / "mulga.zip"
    sent.value.save_as(file)
    page.goto("/")
    page.locator("input[type=file]").first.set_input_files(file)
    again = page.locator("[data-card]").filter(has_text=re.compile(rf"{name.split(' (')[0]} \(\d+\)")).first
    expect(page.get_by_text(re.compile("imported"))).to_be_visible()
    again.get_by_role("link").first.click()
    page.locator("[data-stop=log]").click()
    expect(page.locator("[data-entry]")).to_have_count(held)
    (tmp_path / "no.zip").write_bytes(b"PK, but no ZIP")
    page.goto("/")
    page.locator("input[type=file]").first.set_input_files(tmp_path / "no.zip")
    expect(page.get_by_text("This is not a ZIP file of a rig")).to_be_visible()
