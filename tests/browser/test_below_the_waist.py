"""One bodice into many garments, a join mended in several ways, and the rescue bench, in the real interface."""

import pytest
from playwright.sync_api import expect

from workbench import add_to, open_commission, shown, type_word, word

SIX = {
    "gores": "A skirt of 6 gores",
    "pleated": "A skirt of 16 knife pleats",
    "tiered": "A skirt of 3 tiers",
    "trousers": "Trousers,",
    "peplum": "A circular peplum",
    "gown": "Cut in one with the bodice",
}


def choose_lower(page, kind):
    page.get_by_label("Lower part", exact=True).select_option(kind)


def test_one_bodice_becomes_six_different_garments(page, studio):
    open_commission(page, studio, "Sundress")
    sentence = page.get_by_test_id("join-sentence")
    for kind, said in SIX.items():
        choose_lower(page, kind)
        expect(page.locator("#part-lower")).to_contain_text(said)
        if kind == "gown":
            expect(sentence).to_have_text("Cut in one with the bodice: there is no waist seam to meet.")
            expect(page.locator('[data-edge="gown front/hem"]')).to_be_attached()
        else:
            expect(sentence).to_contain_text("The waist meets")
    page.keyboard.press("Control+z")
    expect(page.locator("#part-lower")).to_contain_text(SIX["peplum"])


@pytest.mark.parametrize(
    ("remedy", "said"),
    [
        ("new-radius", "The waist meets."),
        ("darts", "The waist meets."),
        ("gathered", "The waist meets, gathered 1.05 times."),
        ("side-seams", "The waist meets."),
    ],
)
def test_a_join_is_previewed_and_mended_by_different_remedies(page, studio, remedy, said):
    open_commission(page, studio, "Harbour dance dress")
    sentence = page.get_by_test_id("join-sentence")
    expect(sentence).to_have_text("The skirt is 5.2 cm longer than the bodice.")
    button = page.locator(f'[data-remedy="{remedy}"]')
    button.hover()
    expect(sentence).to_have_text(f"If taken: {said}")
    page.mouse.move(5, 5)
    expect(sentence).to_have_text("The skirt is 5.2 cm longer than the bodice.")
    button.click()
    expect(sentence).to_have_text(said)
    expect(page.locator(f'[data-remedy="{remedy}"]')).to_have_count(0)


def test_trims_are_added_ordered_and_taken_away_each_with_its_ribbon(page, studio):
    open_commission(page, studio, "Ball gown")
    add_to(page, "Add to the garment", "godets")
    expect(page.get_by_role("heading", name="Godets", exact=True)).to_be_visible()
    add_to(page, "Add to the garment", "hem_ruffle")
    which = page.get_by_label("Which seam")
    which.select_option("hem ruffle seam")
    expect(page.get_by_test_id("join-sentence")).to_have_text("The hem ruffle seam meets, gathered 2 times.")
    before = page.get_by_test_id("ribbon").inner_text()
    page.get_by_role("button", name="Make up earlier: Hem ruffle").click()
    expect(page.get_by_test_id("ribbon")).not_to_have_text(before)
    expect(page.locator('[id="part-trims.0"]')).to_contain_text("A gathered ruffle")
    type_word(page, "trims.0.height", "25")
    page.keyboard.press("Enter")
    expect(word(page, "trims.0.height")).to_have_text("25.0 cm")
    page.get_by_role("button", name="Take away: Godets").click()
    expect(page.get_by_role("heading", name="Godets", exact=True)).to_have_count(0)


def test_a_band_between_gives_two_joins(page, studio):
    open_commission(page, studio, "Sundress")
    page.get_by_label("Band between bodice and lower part").select_option("waistband")
    between = page.get_by_label("Which seam").locator('optgroup[label="Between sections"] option')
    expect(between).to_have_text(["band seam", "waist seam"])
    expect(page.locator('[data-edge="waistband front/lower"]')).to_be_attached()


def test_the_rescue_bench_answers_and_draws(page, studio):
    page.goto(studio.url)
    page.get_by_text("Ball gown").wait_for()
    page.keyboard.press("r")
    page.get_by_label("must meet").fill("70")
    page.get_by_label("or its seam line now").fill("66")
    answer = page.get_by_test_id("rescue-answer")
    expect(answer).to_contain_text("it is 4.0 cm too small")
    expect(answer).to_contain_text("Cut the waist lower by 0.6 cm")
    drawn = page.get_by_test_id("rescue-piece").locator("path").first
    before = drawn.get_attribute("d")
    page.get_by_label("side allowance").fill("3")
    page.locator('[data-way="open-seams"]').click()
    expect(drawn).not_to_have_attribute("d", before)
    page.get_by_label("or its seam line now").fill("many")
    expect(page.get_by_role("alert").first).to_contain_text("many")


def test_cloth_first_on_the_sums_bench(page, studio):
    page.goto(studio.url)
    page.get_by_text("Ball gown").wait_for()
    page.keyboard.press("s")
    page.get_by_role("radio", name="Circle from the cloth").click()
    page.get_by_label("seam it is sewn to").fill("70")
    page.get_by_label("usable cloth width").fill("150")
    page.get_by_label("length of the cloth").fill("500")
    page.get_by_label("hem allowance").fill("1")
    expect(page.get_by_test_id("sum-answer")).to_contain_text("62.9 cm")
    expect(page.get_by_test_id("sum-sketch").locator("path")).not_to_have_count(0)


def test_the_whole_way_by_keyboard_only(page, studio):
    """From the desk to a mended waist and another lower part without touching the mouse."""
    page.goto(studio.url)
    page.get_by_role("heading", name="Harbour dance dress").wait_for()
    page.get_by_role("link", name="Harbour dance dress").focus()
    page.keyboard.press("Enter")
    sentence = page.get_by_test_id("join-sentence")
    expect(sentence).to_contain_text("5.2 cm longer")
    page.locator('[data-remedy="new-radius"]').focus()
    expect(sentence).to_contain_text("If taken: The waist meets.")
    page.keyboard.press("Enter")
    expect(sentence).to_have_text("The waist meets.")
    page.get_by_label("Lower part", exact=True).focus()
    page.keyboard.type("Gathered")
    expect(page.locator("#part-lower")).to_contain_text("A gathered skirt")
    shown(page, "lower.fullness").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(word(page, "lower.fullness")).to_have_text("three times")
    page.keyboard.press("Escape")
    page.locator("h1").evaluate("e => document.activeElement.blur()")
    page.keyboard.press("r")
    expect(page.get_by_role("dialog", name="Rescue bench")).to_be_visible()
