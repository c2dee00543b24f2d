"""The first hour: ten questions to a provisional verdict, what is missing answered, a quote entered."""

import re

import pytest
from playwright.sync_api import Page, expect

from browser.conftest import PATIENCE_MS, bank_part, figure, on_stop, unfold, unfolded
from sampled import sampled

QUESTIONS = ("what", "use", "run", "big", "old", "charge", "hook_up", "cold", "space", "keep")
OFFER = """Pellin Harbour 100 LiFePO4
12.8 V 100 Ah, 11.5 kg, 330 x 172 x 215 mm
Max. continuous discharge current 100 A
€ 449"""


def begin(page: Page, kind: str, name: str) -> None:
    page.locator("[data-start]").click()
    page.locator(f"[data-tile={kind}]").click()
    page.get_by_label("Name of your rig").fill(name)


def answer(page: Page, question: str, how: str = "next") -> None:
    page.locator(f"main[data-question={question}]").wait_for()
    page.locator(f"[data-{how}]").click()


def on_question(page: Page, question: str) -> None:
    expect(page.locator(f"main[data-question={question}]")).to_be_visible()


@pytest.mark.parametrize("kind", sampled(["boat", "rv"], "rv"))
def test_who_knows_nothing_comes_to_a_provisional_verdict_that_asks_for_what_matters(
    page: Page, kind
) -> None:
    name = f"Petrel the {kind}"
    begin(page, kind, name)
    clicks = 3
    for question in QUESTIONS:
        answer(page, question, "unknown")
        clicks += 1
    on_stop(page, "compare")
    assert clicks < 60
    expect(page.locator("[data-headline]")).not_to_be_empty()
    expect(page.locator("[data-provisional]")).to_contain_text(
        "The question that matters most", timeout=PATIENCE_MS
    )
    # What could turn it comes first, and is answered in place.
    first = page.locator("[data-assumed-open] [data-topic]").first
    expect(first.locator("[data-effect]")).to_contain_text("Could change the verdict.")
    assumed = page.locator("[data-assumed-open] [data-topic][data-status=assumed]")
    confirmed = assumed.first.get_attribute("data-topic")
    assumed.first.locator("[data-right]").click()
    expect(page.locator(f"[data-assumed-open] [data-topic={confirmed}][data-status=assumed]")).to_have_count(
        0
    )
    page.goto("/")
    card = page.locator(f"[data-card='{name}']")
    expect(card).to_contain_text(re.compile("Provisional|For now"), timeout=PATIENCE_MS)


def test_a_boat_is_entered_by_pictures_and_can_be_left_and_resumed(page: Page) -> None:
    begin(page, "boat", "Skua by pictures")
    page.get_by_label("Where you use it most").select_option("scotland")
    answer(page, "what")
    on_question(page, "use")
    page.locator("[data-tile=weekends]").click()
    expect(page.get_by_label("Off-grid nights a year")).to_have_value("44")
    page.get_by_label("Off-grid nights a year").fill("30")
    answer(page, "use")
    on_question(page, "run")
    # What such boats run is ticked; ticking adds one load, ticking again takes it out.
    fridge, laptop = page.locator("[data-tile=fridge]"), page.locator("[data-tile=laptop]")
    expect(fridge).to_have_attribute("aria-pressed", "true")
    laptop.click()
    expect(laptop).to_have_attribute("aria-pressed", "true")
    fridge.click()
    expect(fridge).to_have_attribute("aria-pressed", "false")
    answer(page, "run")
    answer(page, "big")
    on_question(page, "old")
    page.locator("[data-tile=agm]").click()
    page.get_by_label("Age", exact=True).fill("7")
    page.locator("[data-reason=bulges]").click()
    expect(page.locator("[data-reason=bulges]")).to_have_attribute("aria-pressed", "true")
    # Left here, it is gone on with from the harbor.
    page.locator("[data-leave]").click()
    page.locator("[data-card='Skua by pictures'] [data-go-on]").click()
    on_question(page, "old")
    expect(page.get_by_label("Age", exact=True)).to_have_value("7")
    answer(page, "old")
    on_question(page, "charge")
    page.locator("[data-tile=solar]").click()
    page.get_by_label("Solar panels, power").fill("180")
    page.locator("[data-back]").click()
    on_question(page, "old")
    answer(page, "old")
    for question in ("charge", "hook_up", "cold"):
        answer(page, question)
    on_question(page, "space")
    expect(page.locator("[data-assumes]")).to_contain_text("whether a bank fits is not checked")
    page.locator("[data-no-limit=space]").check()
    expect(page.locator("[data-assumes]")).to_have_count(0)
    answer(page, "space")
    page.locator("[data-care=weight]").click()
    answer(page, "keep")
    on_stop(page, "compare")
    expect(figure(page, "rig")).to_contain_text("30 nights")
    expect(page.locator("[data-go-on]")).to_have_count(0)
    # All is stated but what was never entered.
    stated = (
        unfold(page, "assumed")
        if page.locator("[data-fold=assumed]:not([open])").count()
        else page.locator("[data-fold=assumed]")
    )
    stated.locator("[data-stated] > summary").click()
    expect(stated.locator("[data-topic=nights]")).to_contain_text("30 nights")
    expect(stated.locator("[data-topic=charging]")).to_contain_text("Mains charger and Solar")


@pytest.mark.detail
def test_what_is_missing_is_answered_where_it_is_asked(page: Page) -> None:
    begin(page, "van", "Wren asks")
    for question in QUESTIONS:
        answer(page, question, "unknown")
    on_stop(page, "compare")
    where = page.locator("[data-assumed-open] [data-topic=where]")
    if not where.count():
        page.locator("[data-all-topics]").click()
    expect(where).to_have_attribute("data-status", "missing")
    where.locator("[data-answer]").click()
    where.locator("[data-asked]").get_by_label("Where you use it most").select_option("low-countries")
    expect(page.locator("[data-stated]")).to_contain_text("Stated by you")
    # The same on every stop.
    page.locator("[data-stop=day]").click()
    on_stop(page, "day")
    page.locator("[data-assumed-panel] > summary").click()
    expect(page.locator("[data-assumed-panel] [data-topic=loads]")).to_have_attribute(
        "data-status", "assumed"
    )
    unfolded(page.locator(".load").first).locator("[data-path='/day/loads/0/hours']").fill("20")
    expect(page.locator("[data-assumed-panel] [data-topic=loads][data-status=assumed]")).to_have_count(0)


@pytest.mark.detail
def test_a_quote_takes_the_place_of_the_typical_one_and_says_what_it_changed(page: Page, demo) -> None:
    demo("mulga", "compare")
    expect(page.locator("[data-typical]")).to_contain_text("typical of their kind")
    page.locator("[data-enter-quote]").click()
    panel = page.locator("[data-quote-panel]")
    panel.get_by_label("Label, offer or datasheet").fill("good battery, cheap")
    expect(page.get_by_role("alert")).to_contain_text("names no capacity")
    panel.get_by_label("Label, offer or datasheet").fill(OFFER)
    expect(panel.locator("[data-said=said] [data-field=rated_ah]")).to_contain_text("100 Ah")
    expect(panel.locator("[data-said=filled] [data-field=cycles]")).to_contain_text(re.compile(r"\d"))
    # What is pasted outlives a reload.
    page.reload()
    page.locator("[data-enter-quote]").click()
    expect(panel.get_by_label("Label, offer or datasheet")).to_have_value(OFFER)
    panel.locator("[data-take=replace]").click()
    changed = page.locator("[data-changed]")
    expect(changed).to_contain_text("Before")
    bank_part(page, "table")
    expect(page.locator("[data-column]", has_text="Pellin Harbour 100").first).to_contain_text("my quote")
    page.keyboard.press("Control+z")
    expect(page.locator("[data-column]", has_text="Pellin Harbour 100")).to_have_count(0)
