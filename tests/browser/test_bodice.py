"""A bodice from measures to print: drafted, played, styled, and kept."""

import io

import pdfplumber
from playwright.sync_api import expect

from server import get, wait_until
from workbench import add_to, open_commission, open_stage, shown, type_word, word


def test_two_schools_one_figure(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    sentence = page.get_by_test_id("join-sentence")
    open_stage(page, "bodice")
    expect(page.get_by_text("Drafted for the half body")).to_be_visible()
    expect(page.get_by_test_id("ribbon")).to_contain_text("68.0 cm")
    open_stage(page, "bodice")
    page.get_by_label("Bodice by", exact=True).select_option("two_lengths")
    expect(page.locator('[data-edge="bodice front/side"]')).to_be_visible()
    expect(page.get_by_text("Drafted with", exact=False).first).to_be_visible()
    expect(sentence).to_have_text("The waist meets.")
    open_stage(page, "bodice")
    page.get_by_label("Bodice by", exact=True).select_option("measured")
    expect(word(page, "bodice.front.dart_width")).to_have_text("2.6 cm")
    expect(sentence).to_have_text("The waist meets.")
    page.keyboard.press("Escape")
    sentence.click()
    page.keyboard.press("z")
    page.keyboard.press("z")
    expect(page.get_by_text("Drafted for the half body")).to_be_visible()


def test_schools_are_laid_over_each_other(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    open_stage(page, "bodice")
    page.get_by_role("button", name="Compare schools").click()
    rows = page.get_by_test_id("compared-rows")
    expect(rows.get_by_role("row", name="front waist")).to_contain_text("16.5 cm")
    expect(page.get_by_test_id("compared").locator("path")).not_to_have_count(0)
    before = rows.inner_text()
    page.get_by_label("Compare with").select_option("two_lengths")
    expect(rows).to_contain_text("front dart at the side")
    assert rows.inner_text() != before
    page.get_by_role("button", name="Back to the sheet").click()
    expect(page.get_by_test_id("sheet")).to_be_visible()


def test_a_draft_is_played_step_by_step(page, studio):
    open_commission(page, studio, "Sundress")
    open_stage(page, "bodice")
    page.get_by_role("button", name="Play the draft").click()
    step = page.get_by_test_id("step")
    expect(step).to_contain_text("Step 1 of 18, front")
    lines = page.get_by_test_id("draft").locator("path")
    first = lines.count()
    page.keyboard.press("ArrowRight")
    expect(step).to_contain_text("Half the shoulder width across is 21.3 cm; drop the shoulder tip 2.5 cm.")
    assert lines.count() > first
    page.keyboard.press("End")
    expect(step).to_contain_text("Step 18 of 18, back")
    page.get_by_role("button", name="front T", exact=True).click()
    expect(step).to_contain_text("Step 2 of 18")
    page.keyboard.press("ArrowLeft")
    expect(step).to_contain_text("Step 1 of 18")
    page.keyboard.press("Escape")
    expect(page.get_by_test_id("sheet")).to_be_visible()


def test_measures_are_typed_by_keyboard_and_estimates_give_way(page, studio):
    open_commission(page, studio, "Sundress")
    open_stage(page, "figure")
    expect(page.get_by_text("The bust span was not measured: 20.8 cm is estimated")).to_be_visible()
    shown(page, "figure.measures.bust_span").focus()
    page.keyboard.press("Enter")
    page.keyboard.type("21,5")
    page.keyboard.press("Enter")
    expect(word(page, "figure.measures.bust_span")).to_have_text("21.5 cm")
    expect(page.get_by_text("The bust span was not measured")).to_have_count(0)
    type_word(page, "figure.measures.waist_girth", "28")
    expect(page.locator('[data-finding="measure-in-other-unit"]')).to_contain_text("was 71.1 cm meant?")


def test_a_dart_is_moved_a_neck_is_faced_and_it_all_prints(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    for kind in ("neckline", "facing", "front_dart"):
        add_to(page, "Do to the pieces", kind)
    expect(page.locator('[data-tie="front bust dart"]')).to_have_attribute("data-state", "meets")
    expect(page.locator('[data-edge="front neck facing/neckline"]')).to_be_attached()
    number = next(row["id"] for row in get(studio, "/api/desk")["rows"] if row["title"] == "Midsummer dance dress")
    wait_until(lambda: get(studio, f"/api/commissions/{number}")["recipe"]["steps"][2:])
    with page.expect_download() as download:
        open_stage(page, "pattern")
        page.get_by_role("link", name="Pattern for your printer").click()
    with pdfplumber.open(io.BytesIO(download.value.path().read_bytes())) as pdf:
        text = pdf.pages[0].extract_text()
    for piece in ("bodice front: cut 1 on the fold", "front neck facing", "back neck facing", "skirt back: cut 2"):
        assert piece in text


def test_a_set_of_allowances_changes_them_all_and_is_undone_in_one_step(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    word = page.locator('[data-word="allowances.neck"]')
    open_stage(page, "pattern")
    before = word.inner_text()
    page.get_by_label("Set of allowances").select_option(label="Inch workshop's allowances")
    expect(word).to_have_text("1.3 cm")
    expect(page.locator('[data-word="allowances.side"]')).to_have_text("2.5 cm")
    type_word(page, "allowances.neck", "8 mm")
    expect(page.get_by_label("Set of allowances")).to_contain_text("Allowances of my own")
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(word).to_have_text(before)


def test_the_workings_show_the_draft_with_its_letters_and_every_step_with_its_number(page, studio):
    open_commission(page, studio, "Sundress")
    page.get_by_role("button", name="Workings").click()
    workings = page.get_by_role("complementary", name="Workings")
    expect(workings.get_by_role("img", name="The draft with its letters")).to_be_in_viewport()
    steps = workings.get_by_test_id("draft-steps").get_by_role("listitem")
    expect(steps).to_have_count(18)
    expect(steps.nth(1)).to_contain_text("front: Half the shoulder width across is 21.3 cm")
    drawn = workings.get_by_test_id("draft").locator("text").all_text_contents()
    assert sorted(drawn) == sorted(
        letter for step in steps.locator("strong").all_inner_texts() for letter in step.split(", ")
    )


def test_a_pointed_bodice_has_a_skirt_that_follows_it(page, studio):
    open_commission(page, studio, "Midsummer dance dress")
    add_to(page, "Do to the pieces", "ends")
    expect(page.get_by_text("in a point below the waist", exact=True)).to_be_visible()
    expect(page.locator('[data-finding="skirt-without-point"]')).to_have_count(0)
    expect(page.locator('[data-tie="front dart"]')).to_have_attribute("data-state", "meets")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Workings").click()
    expect(page.get_by_text("length at the centre front")).to_be_visible()
