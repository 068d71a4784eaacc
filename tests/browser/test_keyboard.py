"""The whole way by keyboard alone, the printed page, and the late evening."""

import io
import re

import pdfplumber
import pytest
from playwright.sync_api import expect

from server import get, wait_until
from workbench import numbered, word


def tab_to(page, matches, limit=120):
    """Press Tab until the focused element matches; fails when it never does."""
    for _ in range(limit):
        page.keyboard.press("Tab")
        if page.evaluate("(m) => !!document.activeElement?.matches(m)", matches):
            return
    raise AssertionError(f"{matches} was not reached by {limit} tabs")


def test_a_gap_is_found_and_closed_without_a_mouse(page, studio):
    page.goto(studio.url)
    expect(page.get_by_role("heading", name="Harbour dance dress")).to_be_visible()
    number = numbered(studio, "Harbour dance dress")
    tab_to(page, f'a[href="/commission/{number}"]')
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    page.keyboard.press("3")
    expect(word(page, "lower.sweep")).to_be_focused()
    page.keyboard.press("Enter")
    page.keyboard.type("270")
    page.keyboard.press("Enter")
    expect(word(page, "lower.sweep")).to_have_text("three-quarter circle")
    expect(word(page, "lower.sweep")).to_be_focused()
    tab_to(page, '[data-remedy="darts"]', 160)
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("join-sentence")).to_have_text("The waist meets.")
    expect(word(page, "lower.front_dart")).to_have_text("1.3 cm")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["lower"]["front_dart"] == 13)
    page.keyboard.press("d")
    expect(page.get_by_role("heading", name="Desk")).to_be_visible()
    row = page.get_by_role("link", name=re.compile("Harbour dance dress"))
    expect(row).to_contain_text("Nothing unresolved.")


def test_numbers_go_to_the_stages_of_the_job(page, studio):
    page.goto(f"{studio.url}/commission/{numbered(studio, 'Ball gown')}")
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    for key, stage in (("2", "Bodice"), ("3", "Lower part"), ("5", "Pattern"), ("1", "Figure")):
        page.keyboard.press(key)
        current = page.get_by_role("navigation", name="The way through").locator('[aria-current="step"]')
        expect(current).to_have_text(stage)
    page.keyboard.press("5")
    expect(page.get_by_role("link", name="Pattern for your printer")).to_be_in_viewport()


@pytest.mark.parametrize("title", ["Harbour dance dress", "Mermaid finale gown", "Lighthouse keeper's jumpsuit"])
def test_the_printed_page_has_the_dress_its_pieces_at_a_scale_and_every_sum(page, studio, title):
    number = numbered(studio, title)
    page.goto(f"{studio.url}/commission/{number}")
    page.evaluate("localStorage.setItem('hem.light', 'evening')")
    page.reload()
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    with pdfplumber.open(io.BytesIO(page.pdf(format="A4", margin=dict.fromkeys(("left", "right"), "12mm")))) as pdf:
        said = [one.extract_text() for one in pdf.pages]
        ink = {tuple(letter["non_stroking_color"]) for one in pdf.pages for letter in one.chars}
        images = [one.to_image(resolution=30).original.convert("L") for one in pdf.pages]
    assert all(len(text) > 40 for text in said), "no page is empty"
    evening = [int("f0e9dc"[k : k + 2], 16) / 255 for k in (0, 2, 4)]
    assert ink
    assert all(list(color) != pytest.approx(evening, abs=0.01) for color in ink)
    assert sum(pixel > 200 for pixel in images[0].getdata()) > 0.7 * images[0].width * images[0].height
    whole = "\n".join(said)
    made = get(studio, f"/api/commissions/{number}")
    assert said[0].startswith(title)
    headings = ("side", "back", "What is open", "Cut list", "Seams walked", "Workings")
    assert all(heading in whole for heading in (made["person"]["name"], *headings))
    scale = int(re.search(r"Pieces, 1 : (\d+)", whole)[1])
    assert 2 <= scale <= 40
    assert "Undo" not in whole
    assert "Pattern for your printer" not in whole


def test_the_light_is_remembered(page, studio):
    page.goto(studio.url)
    page.get_by_role("button", name="Late evening").click()
    assert page.evaluate("document.documentElement.dataset.light") == "evening"
    page.reload()
    expect(page.get_by_role("button", name="Daylight")).to_be_visible()
    assert page.evaluate("document.documentElement.dataset.light") == "evening"


def test_what_is_not_there_leads_back_to_the_desk(page, studio):
    for path in ("/commission/999", "/nowhere"):
        page.goto(studio.url + path)
        expect(page.get_by_text("There is nothing here.")).to_be_visible()
        page.get_by_role("link", name="Back to the desk").click()
        expect(page.get_by_role("heading", name="Desk")).to_be_visible()


def test_nothing_is_asked_of_the_network(page, studio):
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(f"{studio.url}/commission/{numbered(studio, 'Ball gown')}")
    expect(page.get_by_test_id("ribbon")).to_be_visible()
    assert all(url.startswith((studio.url, "data:")) for url in asked)
    fonts = page.evaluate("[...document.fonts].filter(f => f.status === 'loaded').map(f => f.family)")
    assert any("Source Sans 3" in font for font in fonts)
