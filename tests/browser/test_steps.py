"""Steps at the bench: done by choosing, told in a sentence, moved, left off, broken and mended."""

import re

from playwright.sync_api import expect

from server import get
from workbench import add_to, numbered, open_commission, type_word, word

TITLE = "Midsummer dance dress"


def kept(studio):
    return get(studio, f"/api/commissions/{numbered(studio, TITLE)}")["recipe"]["steps"]


def test_steps_are_done_moved_left_off_broken_and_mended(page, studio):
    open_commission(page, studio, TITLE)
    add_to(page, "Do to the pieces", "lower_end")
    expect(page.get_by_role("heading", name="Lower or raise the end of an edge")).to_be_visible()
    add_to(page, "Do to the pieces", "line")
    # the shoulder dart lies in its way, and the sentence says so where it stands
    broken = page.get_by_text("This cannot be done: cut along a line. The shoulder dart lies in its way")
    expect(broken).to_be_visible()
    # mended by its words: across the back, from the centre to the armhole
    word(page, "steps.1.on").click()
    page.get_by_role("dialog").get_by_role("radio", name="back", exact=True).click()
    word(page, "steps.1.start").click()
    page.get_by_role("dialog").get_by_role("radio", name="centre", exact=True).click()
    word(page, "steps.1.start_share").click()
    page.get_by_role("dialog").get_by_role("radio", name="a quarter").click()
    word(page, "steps.1.end").click()
    page.get_by_role("dialog").get_by_role("radio", name="armhole", exact=True).click()
    expect(broken).to_be_hidden()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    # its edges light up with its sentence
    lit = page.locator('[data-piece="back yoke"] path[stroke="var(--color-thread)"]')
    page.mouse.move(5, 5)
    expect(lit).to_have_count(0)
    page.locator('[id="part-steps.1"]').hover()
    expect(lit).not_to_have_count(0)
    # moved before the other, and left off for a while
    page.get_by_role("button", name="Make up earlier: Cut along a line").click()
    expect(word(page, "steps.0.bow")).to_be_visible()
    page.get_by_role("button", name="Leave off: Cut along a line").click()
    expect(page.locator('[data-piece="back yoke"]')).to_be_hidden()
    expect(page.get_by_text("left off", exact=True)).to_be_visible()
    page.get_by_role("button", name="Do again: Cut along a line").click()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    page.get_by_role("button", name="Take away: Lower or raise the end of an edge").click()
    expect(page.get_by_role("heading", name="Lower or raise the end of an edge")).to_be_hidden()
    expect(page.get_by_test_id("saved")).to_have_text(re.compile(r"^saved \d\d:\d\d$"))
    page.reload()
    expect(page.locator('[data-piece="back yoke"]')).to_be_visible()
    assert [step["kind"] for step in kept(studio)] == ["line"]


def test_a_step_is_typed_by_keyboard_alone_and_undone(page, studio):
    open_commission(page, studio, TITLE)
    form = page.get_by_role("form", name="Do to the pieces")
    form.locator("select").focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(form.locator("select")).to_have_value("lower_end")
    expect(word(page, "steps.0.amount")).to_be_hidden()
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(word(page, "steps.0.amount")).to_be_visible()
    field = type_word(page, "steps.0.amount", "2.5 cm")
    field.press("Enter")
    expect(word(page, "steps.0.amount")).to_have_text("2.5 cm")
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "steps.0.amount")).to_have_text("1.0 cm")
    page.get_by_role("button", name="Undo").click()
    expect(word(page, "steps.0.amount")).to_be_hidden()
